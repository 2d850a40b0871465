"""How far in season each food is: by date and hemisphere, by the warmth so far, by the hour and the weather."""

from __future__ import annotations

import math
from dataclasses import dataclass
from datetime import datetime, timedelta
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

from stillthread.core.food.catalogue import CATALOGUE
from stillthread.core.food.prey import Prey

DAYS = 365
FEWEST_READINGS = 3
MOST_SHIFT_DAYS = 30.0
# Northern days of the year up to which warmth decides alone, and from which light does: hatches of autumn keep the
# calendar. Common practice, our figures.
WARMTH_UNTIL, LIGHT_FROM = 200, 270
# What a prey is worth out of its hours, and one of low light under a grey sky [oktas]. Common practice, figures ours.
OTHER_HOURS, GREY_HOURS, DULL_OKTAS = 0.35, 0.65, 6


@dataclass(frozen=True)
class WaterYear:
    """The surface temperature of one water through its year: 365 values [°C] from 1 January with their spread [°C].

    `readings` is how many of the water's own they rest on; fewer than three make it a guess.
    """

    hemisphere: str
    surface_c: tuple[float, ...]
    spread_c: tuple[float, ...]
    readings: int

    @property
    def known(self) -> bool:
        """True with enough readings of the water's own to speak of its year."""
        return self.readings >= FEWEST_READINGS


# The year the catalogue's months are written for: a lowland lake at 52° north, warmest in early August. Ours.
USUAL_YEAR = WaterYear(
    "north",
    tuple(max(0.0, 10.4 + 7.8 * math.cos(2 * math.pi * (day - 215) / DAYS)) for day in range(1, DAYS + 1)),
    (0.0,) * DAYS,
    0,
)


def northern_day(when: datetime, hemisphere: str) -> int:
    """Return the day of the year, 1 to 365, the date would be in the north: half a year on for the south."""
    day = min(when.timetuple().tm_yday, DAYS)
    return (day - 183) % DAYS + 1 if hemisphere == "south" else day


@lru_cache(maxsize=64)
def degree_days(year: WaterYear, base_c: float) -> NDArray[np.float64]:
    """Return the degree-days [°C d] above `base_c` [°C] summed from midwinter to the end of each of 365 days.

    The first value is for 1 January in the north and 2 July in the south. Method of degree-days, common practice.
    """
    start = 0 if year.hemisphere == "north" else 182
    warmth = [max(year.surface_c[(start + i) % DAYS] - base_c, 0.0) for i in range(DAYS)]
    return np.cumsum(np.array(warmth))


def season_shift_days(prey: Prey, year: WaterYear, when: datetime) -> float:
    """Return how many days a water runs ahead of the usual `year` for a prey that emerges; 0 for others.

    The day of the usual year with as many degree-days above the prey's base as this water has had by now; at most 30
    days, fading out from mid-July to late September. 0 with fewer than three readings of the water's own.
    """
    if prey.base_c is None or not year.known:
        return 0.0
    day = northern_day(when, year.hemisphere)
    own = degree_days(year, prey.base_c)[day - 1]
    usual = degree_days(USUAL_YEAR, prey.base_c)
    if own <= 0:
        first = int(np.argmax(usual > 0)) + 1  # before any warmth the two years are alike until the usual one starts
        shift = min(0.0, float(first - day))
    else:
        shift = float(np.interp(own, usual, np.arange(1, DAYS + 1))) - day
    fade = (LIGHT_FROM - day) / (LIGHT_FROM - WARMTH_UNTIL)
    return max(-MOST_SHIFT_DAYS, min(MOST_SHIFT_DAYS, shift)) * max(0.0, min(1.0, fade))


def season_shifts(year: WaterYear, when: datetime) -> dict[str, float]:
    """Return for every prey how many days [d] a water's `year` runs ahead of the usual one (see `season_shift_days`)."""
    found: dict[float | None, float] = {}
    shifts = {}
    for prey in CATALOGUE:
        if prey.base_c not in found:
            found[prey.base_c] = season_shift_days(prey, year, when)
        shifts[prey.key] = found[prey.base_c]
    return shifts


def month_weight(prey: Prey, when: datetime, hemisphere: str, shift_days: float = 0.0) -> float:
    """Return how far in season a prey is, 0 to 1, on a date; the southern hemisphere is six months on.

    Linear between the middles of the months; `shift_days` [days] moves the date on where the water runs ahead.
    """
    date = when + timedelta(days=shift_days)
    half_year = 6.0 if hemisphere == "south" else 0.0
    position = (date.month - 1 + (date.day - 15) / 30 + half_year) % 12
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


def hour_weight(prey: Prey, when: datetime, cloud_oktas: float | None = None) -> float:
    """Return 1 in a prey's hours of the local clock, else 0.35; hours may run over midnight.

    What is about in low light keeps no hours under a sky as grey as dusk (cloud [oktas]): 0.65.
    """
    start, end = prey.hours
    inside = start <= when.hour < end if start < end else (when.hour >= start or when.hour < end)
    if inside:
        return 1.0
    return GREY_HOURS if prey.weather == "dull" and (cloud_oktas or 0.0) >= DULL_OKTAS else OTHER_HOURS


def weather_weight(prey: Prey, wind_m_s: float | None, cloud_oktas: float | None, stocked: bool) -> float:
    """Return the weather's share for a prey, by wind [m/s] and cloud [oktas]: calm, breezy or dull days as it likes.

    'stocked' prey counts only after stocking.
    """
    if prey.weather == "stocked":
        return 2.5 if stocked else 0.0
    if prey.weather == "calm" and wind_m_s is not None:
        return 1.0 if wind_m_s < 4 else 0.5
    if prey.weather == "breezy" and wind_m_s is not None:
        return 1.0 if 2 <= wind_m_s <= 9 else 0.3
    if prey.weather == "dull" and cloud_oktas is not None:
        return 1.0 if cloud_oktas >= DULL_OKTAS else 0.7
    return 1.0
