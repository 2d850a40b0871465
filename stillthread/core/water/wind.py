"""Wind: where it blows onto, and when a small boat should stay ashore."""

from __future__ import annotations

import math

POINTS = ("N", "NE", "E", "SE", "S", "SW", "W", "NW")
# Handbook limits for small boats [m/s], mean wind; common practice.
THINK_AGAIN_M_S = 5.5
STAY_ASHORE_M_S = 8.0
# The strongest wind taken as a real reading [m/s]; beyond a hurricane's mean it is a slip of the keys.
STRONGEST_M_S = 60.0


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
