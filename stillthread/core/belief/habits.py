"""Where trout are met by season, cold, heat and layers: the trade's habits as one factor."""

from __future__ import annotations

from datetime import datetime

import numpy as np
from numpy.typing import NDArray

from stillthread.core.belief.factor import Factor
from stillthread.core.belief.stocking import fresh_share
from stillthread.core.noted.reading import Reading
from stillthread.core.noted.water import Water
from stillthread.core.vocabulary import PlaceKind
from stillthread.core.water.layers import find_thermocline
from stillthread.core.water.profile import oxygen_at

# Surface temperature [°C] from which trout are looked for along the thermocline. Common practice.
HEAT_C = 18.0
# Dissolved oxygen [mg/L] from which it keeps no trout away. From memory; see `oxygen_limits`.
EASY_OXYGEN_MG_L = 6.0
COLD_BELOW_C = 9.0
SMALL_WATER_M = 4.0  # no deeper than that: common practice, figure ours
# Of where cold fish are told to lie; early in the season that is told to the foot, which moves depths more and places no
# more. Common practice, figures ours.
COLD_WEIGHT, EARLY_MORE = 1.6, 0.8


def season_of(when: datetime, hemisphere: str) -> str:
    """Return 'winter', 'spring', 'summer' or 'autumn' for a date (meteorological seasons, turned for the south)."""
    month = (when.month + (6 if hemisphere == "south" else 0) - 1) % 12 + 1
    return ("winter", "spring", "summer", "autumn")[month % 12 // 3]


def _cold(reading: Reading) -> bool:
    """Whether the top is cold, and not so cold that trout hardly feed."""
    return reading.surface_c is not None and 3 <= reading.surface_c < COLD_BELOW_C


def cold_on_small(when: datetime, water: Water, reading: Reading) -> bool:
    """Return whether it is a cold day of autumn or winter on a small water, where trout lie in the top as often as deep."""
    late = season_of(when, water.hemisphere) in ("winter", "autumn")
    return late and _cold(reading) and water.max_depth_m <= SMALL_WATER_M


def _cold_habit(when: datetime, water: Water, reading: Reading, bed_m: float) -> tuple[float, float, str] | None:
    """Where trout are met in cold water: centre and spread [m] and the sentence, or None when it is not cold."""
    season = season_of(when, water.hemisphere)
    if not _cold(reading):
        return None
    if season == "spring":
        centre = min(2.7, 0.7 * bed_m)
        where = "2.4 to 3 m down" if bed_m >= 3.2 else f"low down, about {centre:.1f} m here,"
        return centre, 0.9, f"Cold water early in the season: {where} is where most are met."
    if cold_on_small(when, water, reading):
        return 0.3, 0.4, "Cold on a small water: often in the top 0.6 m."
    if season in ("winter", "autumn") and reading.clarity in ("gin-clear", "clear"):
        centre = max(min(4.0, bed_m - 0.6), 0.3)
        where = (
            "3 to 5 m down, and lower along the ledges"
            if bed_m > CLEAR_COLD_TO_M
            else "3 to 5 m down, some 0.6 m off the bottom"
            if bed_m >= 3.6
            else f"about {centre:.1f} m down here, off the bottom"
        )
        if bed_m < CLEAR_COLD_FROM_M:
            return None
        return centre, 0.9, f"Cold on a big clear water: {where}."
    return None


def _heat_habit(reading: Reading) -> tuple[float, float, str] | None:
    """Where trout are met in heat over a thermocline: centre and spread [m] and the sentence, or None when it is not hot."""
    layer = find_thermocline(reading.profile)
    if layer is None or reading.surface_c is None or reading.surface_c < HEAT_C:
        return None
    centre = (layer.depth_m + layer.bottom_m) / 2
    above = np.linspace(0.0, centre, 101)
    oxygen = oxygen_at(reading.profile, above)
    if oxygen is not None and (oxygen >= EASY_OXYGEN_MG_L).any():
        centre = float(above[oxygen >= EASY_OXYGEN_MG_L][-1])
    words = (
        f"Warm top: most are met along the thermocline, near {centre:.0f} m, in the coolest water sure to have oxygen."
    )
    return centre, max(1.2, layer.bottom_m - layer.depth_m), words


# Without heat or a habit of the season few feed far down: little food lives below some 7.5 m. Common practice, ours.
DEEP_FROM_M, DEEP_PER_METRE = 6.0, 0.15
# Below the layer that changes fastest few feed while the water above it suits them. Common practice, figures ours.
UNDER_LAYER_WEIGHT, UNDER_LAYER_M, LAYER_FROM_C = 1.2, 0.4, 12.0


def _layer_habit(depths: NDArray[np.float64], reading: Reading) -> tuple[NDArray[np.float64], str] | None:
    """How much less trout are looked for under a thermocline while the water above it suits them; None where it does not."""
    layer = find_thermocline(reading.profile)
    if layer is None or reading.surface_c is None or not LAYER_FROM_C <= reading.surface_c < HEAT_C:
        return None
    if layer.bottom_m > depths[-1]:
        return None  # no water below it here
    under = 1.0 / (1.0 + np.exp(-(depths - layer.bottom_m) / UNDER_LAYER_M))
    return (
        -UNDER_LAYER_WEIGHT * under,
        f"Layered: fish keep above or at the thermocline, few go below {layer.bottom_m:.1f} m.",
    )


CLEAR_COLD_FROM_M, CLEAR_COLD_TO_M = 3.2, 5.6  # shallower places have no such water, deeper ones more than that
# The edges of cold water: knee-deep ones are empty until the spring sun warms them, but for those that patrol them at dawn and
# dusk or after fry; so is open deep water, for who does not know it. Common practice, figures ours.
KNEE_DEEP_M, EDGE_TO_BED_M, EDGE_TOP_M = 1.5, 3.0, 1.5
EMPTY_WEIGHT, WARM_EDGE_WEIGHT, SUNNY_OKTAS = 1.6, 1.8, 3
OPEN_WEIGHT, OPEN_FROM_M = 1.0, 6.0


def _edge_habit(
    depths: NDArray[np.float64],
    water: Water,
    reading: Reading,
    bed_m: float,
    when: datetime,
    kind: PlaceKind,
    patrolled: bool,
) -> tuple[NDArray[np.float64], str] | None:
    """What cold does to shallow edges and open water: the spring sun warms edges first, without it the knee-deep are empty."""
    surface, cloud = reading.surface_c, reading.cloud_oktas
    if surface is None or surface >= COLD_BELOW_C:
        return None
    if kind == "open-water" and bed_m >= OPEN_FROM_M:
        return np.full_like(depths, -OPEN_WEIGHT), "Cold: open deep water is mostly empty, look along the edges."
    if bed_m > EDGE_TO_BED_M:
        return None
    if season_of(when, water.hemisphere) == "spring" and cloud is not None and cloud <= SUNNY_OKTAS:
        top = 1.0 / (1.0 + np.exp((depths - EDGE_TOP_M) / 0.2))
        return (
            WARM_EDGE_WEIGHT * top,
            "Spring sun on cold water: the shallow edge warms first, its top metre and a half.",
        )
    if bed_m < KNEE_DEEP_M and water.max_depth_m > EDGE_TO_BED_M and not patrolled:
        return np.full_like(depths, -EMPTY_WEIGHT), "Cold, and knee-deep: few come in here before it warms."
    return None


def season_factor(
    depths: NDArray[np.float64],
    water: Water,
    reading: Reading,
    bed_m: float,
    when: datetime,
    kind: PlaceKind = "drop-off",
    patrolled: bool = False,
) -> Factor:
    """The trade's habits: cold-water depths by season, the thermocline in heat; else flat.

    `kind` is the kind of place; `patrolled` says that fish come into the knee-deep edge now, cold as it is.
    """
    log_weight = np.zeros_like(depths)
    parts = []
    edge = _edge_habit(
        depths=depths, water=water, reading=reading, bed_m=bed_m, when=when, kind=kind, patrolled=patrolled
    )
    warm_edge = edge is not None and bool(edge[0].max() > 0)
    cold = None if warm_edge else _cold_habit(when, water, reading, bed_m)
    if cold is not None:
        centre, spread, words = cold
        fresh = fresh_share(water)
        there = np.exp(-0.5 * ((depths - centre) / spread) ** 2)
        more = EARLY_MORE * (there - there.mean()) if season_of(when, water.hemisphere) == "spring" else 0.0
        log_weight = log_weight + (1.0 - fresh) * (COLD_WEIGHT * there + more)
        parts.append(f"{words} The fresh fish do not keep to it yet." if fresh > 0.5 else words)
    heat = _heat_habit(reading)
    if heat is not None:
        centre, spread, words = heat
        log_weight = log_weight + np.exp(-0.5 * ((depths - centre) / spread) ** 2)
        parts.append(words)
    if edge is not None:
        log_weight = log_weight + edge[0]
        parts.append(edge[1])
    layered = _layer_habit(depths, reading)
    if layered is not None:
        log_weight = log_weight + layered[0]
        parts.append(layered[1])
    if heat is None and reading.surface_c is not None:
        log_weight = log_weight - DEEP_PER_METRE * np.maximum(0.0, depths - DEEP_FROM_M)
    if not parts:
        return Factor("season", log_weight, "Neither cold water nor heat to go by.", False)
    return Factor("season", log_weight, " ".join(parts), True)
