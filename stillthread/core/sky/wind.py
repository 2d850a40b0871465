"""Wind: where it blows onto, what it drags along, how cold it feels, and when a small boat should stay ashore."""

from __future__ import annotations

import math
from typing import Literal, get_args

Point = Literal["N", "NE", "E", "SE", "S", "SW", "W", "NW"]
POINTS: tuple[Point, ...] = get_args(Point)
# Handbook limits for small boats [m/s], mean wind; common practice.
THINK_AGAIN_M_S = 5.5
STAY_ASHORE_M_S = 8.0
# The strongest wind taken as a real reading [m/s]; beyond a hurricane's mean it is a slip of the keys.
STRONGEST_M_S = 60.0
# Wave height [m] from which a small open boat is uncomfortable, and from which it ships water. Common practice, no source.
LUMPY_WAVE_M = 0.3
STEEP_WAVE_M = 0.5
# Share of the wind's speed each thing drifts at, low and high. Surface water: Wu (1975), the 2 to 3 % rule, from
# memory. A float adds a little windage; a boat broadside and with a drogue out: common practice, no source.
DRIFT_SHARE = {"surface": (0.02, 0.03), "float": (0.02, 0.04), "boat": (0.04, 0.08), "drogue": (0.02, 0.04)}


def compass_point(bearing_deg: float) -> str:
    """Return the nearest of the eight compass points for a bearing [deg, clockwise from true north].

    >>> compass_point(225)
    'SW'
    """
    return POINTS[int((bearing_deg % 360) / 45 + 0.5) % 8]


def downwind_shore(from_deg: float) -> str:
    """Return the compass side of the lake the wind blows onto, for a wind from `from_deg` [deg true]."""
    return compass_point(from_deg + 180)


def upwind_shore(from_deg: float) -> str:
    """Return the compass side of the lake the wind blows off, for a wind from `from_deg` [deg true]."""
    return compass_point(from_deg)


def onto_shore(from_deg: float, facing_deg: float) -> float:
    """Return how squarely the wind blows onto a shore that looks out over water towards `facing_deg`.

    1 is straight onto it, -1 straight off it (cosine of the angle between the two bearings, degrees true).
    """
    return math.cos(math.radians(from_deg - facing_deg))


def drift_m_s(what: str, wind_m_s: float) -> tuple[float, float]:
    """Return the slowest and fastest drift [m/s] of 'surface' water, a 'float', a 'boat' broadside or on a 'drogue'.

    A share of the 10 m wind [m/s]: surface 2 to 3 % (Wu 1975, from memory), the others common practice. Raises KeyError
    for anything else.
    """
    low, high = DRIFT_SHARE[what]
    return low * wind_m_s, high * wind_m_s


def wind_chill_c(air_c: float, wind_m_s: float) -> float | None:
    """Return how cold the wind feels on the skin [°C], or None where the index does not apply.

    Joint Action Group index (US and Canadian weather services, 2001): 13.12 + 0.6215 T - 11.37 V^0.16 + 0.3965 T V^0.16,
    V in km/h at 10 m; for air at 10 °C or less and at least 4.8 km/h.
    """
    kmh = wind_m_s * 3.6
    if air_c > 10 or kmh < 4.8:
        return None
    v = float(kmh**0.16)
    return 13.12 + 0.6215 * air_c - 11.37 * v + 0.3965 * air_c * v


def boat_level(wind_m_s: float | None, gust_m_s: float | None, wave_height_m: float | None = None) -> str:
    """Return 'ok', 'caution' or 'stop' for a small open boat by mean wind, gusts [m/s] and wave height [m].

    Trade limits: think again from a mean of 5.5 m/s, stay ashore from 8 m/s; gusts count as their mean over 1.4; waves
    from 0.3 m are a caution, from 0.5 m a stop (common practice).
    """
    strongest = max(wind_m_s or 0.0, (gust_m_s or 0.0) / 1.4)
    wave = wave_height_m or 0.0
    if strongest >= STAY_ASHORE_M_S or wave >= STEEP_WAVE_M:
        return "stop"
    return "caution" if strongest >= THINK_AGAIN_M_S or wave >= LUMPY_WAVE_M else "ok"
