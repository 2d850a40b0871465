"""How much of each food is about now, from season, warmth, hour and weather, and from what was seen."""

from __future__ import annotations

import math
from dataclasses import dataclass
from datetime import datetime

import numpy as np
from numpy.typing import NDArray

from stillthread.core.errors import InputError, Problem
from stillthread.core.food.catalogue import BY_KEY, CATALOGUE, PREY_KEYS, Prey

# What the season alone is worth, counted as sightings: a stated prior. Common practice, no source.
PRIOR_SIGHTINGS = 4.0
ABUNDANCE_COUNT = {"few": 1.0, "some": 3.0, "many": 8.0}
# Which food a rise form speaks for (handbook of the trade); a clean leap says nothing about food.
RISE_PREY: dict[str, tuple[tuple[str, float], ...]] = {
    "sip": (("chironomid-adult", 0.6), ("mayfly", 0.2), ("terrestrial", 0.2)),
    "head-and-tail": (("chironomid-pupa", 0.8), ("chironomid-adult", 0.2)),
    "splash": (("caddis", 0.7), ("damsel-adult", 0.3)),
    "bow-wave": (("fry", 1.0),),
    "leap": (),
}
RISE_FORMS = tuple(RISE_PREY)


@dataclass(frozen=True)
class Sighting:
    """Something seen: a prey (by key) or a rise form, and how much of it ('few', 'some', 'many')."""

    abundance: str
    prey: str | None = None
    rise: str | None = None


@dataclass(frozen=True)
class Availability:
    """Share of each prey now: `share` after sightings and `season_share` before, both summing to 1."""

    share: dict[str, float]
    season_share: dict[str, float]
    sightings: int

    def top(self, count: int) -> list[Prey]:
        """Return the `count` most available prey, most first."""
        ordered = sorted(self.share, key=lambda key: (-self.share[key], PREY_KEYS.index(key)))
        return [BY_KEY[key] for key in ordered[:count]]


def month_weight(prey: Prey, when: datetime, hemisphere: str) -> float:
    """Return how far in season a prey is, 0 to 1, on a date; the southern hemisphere is six months on.

    Linear between the middles of the months.
    """
    shift = 6.0 if hemisphere == "south" else 0.0
    position = (when.month - 1 + (when.day - 15) / 30 + shift) % 12
    low = int(math.floor(position)) % 12
    part = position - math.floor(position)
    return prey.months[low] * (1 - part) + prey.months[(low + 1) % 12] * part


def warmth_weight(prey: Prey, water_c: float | None) -> float:
    """Return how active a prey is at a water temperature [°C]: 1 inside its range, falling over 3 °C outside it."""
    if water_c is None:
        return 1.0
    low, high = prey.warmth_c
    outside = max(low - water_c, water_c - high, 0.0)
    return max(0.05, 1.0 - outside / 3.0)


def hour_weight(prey: Prey, when: datetime) -> float:
    """Return 1 in a prey's hours of the local clock, else 0.35; hours may run over midnight."""
    start, end = prey.hours
    inside = start <= when.hour < end if start < end else (when.hour >= start or when.hour < end)
    return 1.0 if inside else 0.35


def weather_weight(prey: Prey, wind_m_s: float | None, cloud_oktas: float | None, stocked: bool) -> float:
    """Return the weather's share for a prey: calm, breezy or dull days as it likes; 'stocked' only after stocking."""
    if prey.weather == "stocked":
        return 2.5 if stocked else 0.0
    if prey.weather == "calm" and wind_m_s is not None:
        return 1.0 if wind_m_s < 4 else 0.5
    if prey.weather == "breezy" and wind_m_s is not None:
        return 1.0 if 2 <= wind_m_s <= 9 else 0.3
    if prey.weather == "dull" and cloud_oktas is not None:
        return 1.0 if cloud_oktas >= 6 else 0.7
    return 1.0


def says_something(seen: Sighting) -> bool:
    """Return True where a sighting speaks for some food; a clean leap does not."""
    return seen.prey is not None or bool(seen.rise and RISE_PREY.get(seen.rise))


def check_sightings(sightings: tuple[Sighting, ...], path: str = "sightings") -> None:
    """Raise InputError where a sighting names an unknown prey, rise form or abundance, or names nothing."""
    problems = []
    for index, seen in enumerate(sightings):
        here = f"{path}[{index}]"
        if seen.prey is None and seen.rise is None:
            problems.append(Problem("empty", here, "Nothing was named.", "a prey or a rise form"))
        if seen.prey is not None and seen.prey not in BY_KEY:
            problems.append(Problem("unknown", f"{here}.prey", f"No prey '{seen.prey}'.", ", ".join(PREY_KEYS)))
        if seen.rise is not None and seen.rise not in RISE_PREY:
            problems.append(Problem("unknown", f"{here}.rise", f"No rise form '{seen.rise}'.", ", ".join(RISE_FORMS)))
        if seen.abundance not in ABUNDANCE_COUNT:
            problems.append(
                Problem("unknown", f"{here}.abundance", f"'{seen.abundance}' is no amount.", "few, some, many")
            )
    if problems:
        raise InputError(problems)


def available_food(
    when: datetime,
    hemisphere: str,
    water_c: float | None = None,
    wind_m_s: float | None = None,
    cloud_oktas: float | None = None,
    stocked: bool = False,
    sightings: tuple[Sighting, ...] = (),
) -> Availability:
    """Return how the food is shared out now.

    Season x warmth (water [°C]) x hour (local clock of `when`) x weather gives a prior worth four sightings; each
    sighting adds its count (few 1, some 3, many 8) to its prey. The mean of the Dirichlet posterior is returned, so
    the order of sightings does not matter. Raises InputError for unknown names.
    """
    check_sightings(sightings)
    weights = {
        prey.key: month_weight(prey, when, hemisphere)
        * warmth_weight(prey, water_c)
        * hour_weight(prey, when)
        * weather_weight(prey, wind_m_s, cloud_oktas, stocked)
        for prey in CATALOGUE
    }
    total = sum(weights.values())
    season = {key: weight / total for key, weight in weights.items()}
    counts = {key: PRIOR_SIGHTINGS * share for key, share in season.items()}
    for seen in sightings:
        count = ABUNDANCE_COUNT[seen.abundance]
        if seen.prey is not None:
            counts[seen.prey] += count
        if seen.rise is not None:
            for key, part in RISE_PREY[seen.rise]:
                counts[key] += count * part
    grand = sum(counts.values())
    telling = sum(1 for seen in sightings if says_something(seen))
    return Availability({k: c / grand for k, c in counts.items()}, season, telling)


def depth_density(prey: Prey, depths_m: NDArray[np.float64], bed_m: float, place_kind: str) -> NDArray[np.float64]:
    """Return where a prey is at a place: a density over `depths_m` [m] (sum 1), zero below `bed_m` [m].

    Layers are Gaussian about their offset from surface or bed. A place kind the prey does not use, or a bed deeper
    than it lives on, scales the whole density down to 0.3; so the sum is then 0.3.
    """
    density = np.zeros_like(depths_m)
    for layer in prey.layers:
        centre = layer.offset_m if layer.reference == "surface" else bed_m - layer.offset_m
        centre = min(max(centre, 0.0), bed_m)
        shape = np.exp(-0.5 * ((depths_m - centre) / layer.spread_m) ** 2)
        shape[depths_m > bed_m] = 0.0
        density += layer.share * shape / max(float(shape.sum()), 1e-12)
    at_home = place_kind in prey.places and (prey.max_bed_m is None or bed_m <= prey.max_bed_m)
    return density * (1.0 if at_home else 0.3) / sum(layer.share for layer in prey.layers)
