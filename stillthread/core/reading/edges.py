"""Edges that warm first: early in the year the shallows gain warmth while the rest is cold, and food wakes there."""

from __future__ import annotations

import math
from dataclasses import dataclass
from datetime import datetime

from stillthread.core.noted.water import Place, Water
from stillthread.core.sky.wind import onto_shore

WATER_DENSITY_KG_M3 = 1000.0
WATER_HEAT_J_KG_K = 4186.0
# Heat a water keeps over a bright spring day and a dull one [J/m²]: sun less what is lost. Our figures.
BRIGHT_DAY_J_M2 = 8.0e6
DULL_DAY_J_M2 = 2.0e6
# The edges matter while the open surface is colder than this [°C]. Common practice.
COLD_WATER_C = 10.0
EARLY_MONTHS = (2, 3, 4, 5)
WORTH_SAYING_C = 0.8
SHALLOW_M = 3.0


@dataclass(frozen=True)
class WarmEdge:
    """A place that warms first: by how much [°C] more than the open water, whether that was read or reckoned, and why."""

    place: str
    warmer_c: float
    read: bool
    sentence: str


def daily_warming_c(depth_m: float, heat_j_m2: float) -> float:
    """Return how much a mixed column of water `depth_m` [m] deep warms [°C] when it keeps `heat_j_m2` [J/m²]: Q / (ρ c d).

    Heat balance; density 1000 kg/m³, heat capacity 4186 J/(kg K). Raises ValueError unless the depth is positive.
    """
    if not depth_m > 0:
        raise ValueError("depth must be positive")
    return heat_j_m2 / (WATER_DENSITY_KG_M3 * WATER_HEAT_J_KG_K * depth_m)


def is_early(when: datetime, hemisphere: str) -> bool:
    """Return True from February to May in the north, August to November in the south."""
    month = (when.month + (6 if hemisphere == "south" else 0) - 1) % 12 + 1
    return month in EARLY_MONTHS


def _kept_heat_j_m2(cloud_oktas: float | None) -> float:
    share = (4.0 if cloud_oktas is None else cloud_oktas) / 8
    return BRIGHT_DAY_J_M2 + (DULL_DAY_J_M2 - BRIGHT_DAY_J_M2) * share


def _reckoned(
    place: Place, water: Water, cloud_oktas: float | None, wind: tuple[float, float] | None
) -> WarmEdge | None:
    mean_depth = max((place.depth_min_m + place.depth_max_m) / 2, 0.3)
    if mean_depth > SHALLOW_M or place.kind == "open-water":
        return None
    heat = _kept_heat_j_m2(cloud_oktas)
    gain = daily_warming_c(mean_depth, heat) - daily_warming_c(max(water.max_depth_m / 2, mean_depth), heat)
    why = [f"{mean_depth:.1f} m of water gains about {gain:.1f} °C more than the open lake in a day like this"]
    noon = 180.0 if water.hemisphere == "north" else 0.0
    if place.facing_deg is not None and math.cos(math.radians(place.facing_deg - noon)) > 0.7:
        gain *= 1.15
        why.append("it faces the noon sun")
    if place.facing_deg is not None and wind is not None and wind[0] >= 2:
        onto = onto_shore(wind[1], place.facing_deg)
        if onto > 0.5:
            why.append("the wind holds the warm surface water there")
        elif onto < -0.5:
            gain *= 0.7
            why.append("but the wind carries its warm surface away")
    return WarmEdge(place.name, gain, False, f"{place.name}: {', '.join(why)}. Reckoned, not read.")


def warm_edges(
    water: Water,
    when: datetime,
    surface_c: float | None,
    elsewhere: tuple[tuple[str, float], ...] = (),
    cloud_oktas: float | None = None,
    wind: tuple[float, float] | None = None,
) -> tuple[WarmEdge, ...]:
    """Return the places that warm first, warmest first; empty outside early season or once the open surface is warm.

    `surface_c` [°C] of the open water; `elsewhere` are surface temperatures read the same day at places by name [°C];
    where none was read the gain is reckoned from depth, cloud [oktas] and `wind` (speed [m/s], from [deg true]) by a heat
    balance. Edges under 0.8 °C are not worth saying.
    """
    if not is_early(when, water.hemisphere) or surface_c is None or surface_c >= COLD_WATER_C:
        return ()
    read = dict(elsewhere)
    found = []
    for place in water.places:
        if place.name in read:
            warmer = read[place.name] - surface_c
            words = f"{place.name} reads {warmer:.1f} °C warmer than the open water: food wakes there first."
            edge: WarmEdge | None = WarmEdge(place.name, warmer, True, words)
        else:
            edge = _reckoned(place, water, cloud_oktas, wind)
        if edge is not None and edge.warmer_c >= WORTH_SAYING_C:
            found.append(edge)
    return tuple(sorted(found, key=lambda e: (-e.warmer_c, e.place)))
