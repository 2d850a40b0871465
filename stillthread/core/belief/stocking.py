"""Fresh from the hatchery or resident: how long ago the water was stocked, and what that does to depth."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

from stillthread.core.belief.factor import Factor
from stillthread.core.noted.water import Water
from stillthread.core.trout.temperature import heat_share

FRESH_DAYS = 21  # common practice: about three weeks
FADED_DAYS = 28.0
FRESH_TO_M = 2.5
GONE_FROM_HEAT = 0.5  # share of the heat at which the habit is gone
PER_METRE = 0.9
# Fresh fish first lie about this high [m], a little deeper each day; how much that weighs. Ours.
HIGH_M, SPREAD_M_PER_DAY, HIGH_WEIGHT = 1.2, 0.06, 1.1
RESIDENT_DAYS = 60


def fresh_fish(water: Water, surface_c: float | None) -> bool:
    """Return whether fresh stockfish are to be reckoned with: stocked within three weeks, and the top [°C] not too warm."""
    days = water.days_since_stocking
    return days is not None and days <= FRESH_DAYS and heat_share(surface_c, water.species) < GONE_FROM_HEAT


def fresh_share(water: Water, heat: float = 0.0) -> float:
    """Return how fresh the stockfish still are, 1 on the day they were put in, fading over four weeks; 0 after three, or in heat."""
    days = water.days_since_stocking
    return 0.0 if days is None or days > FRESH_DAYS else (1.0 - days / FADED_DAYS) * (1.0 - heat)


def stocking_factor(depths: NDArray[np.float64], water: Water, heat: float = 0.0) -> Factor:
    """Weight depths [m] by days since stocking: fresh fish lie high, spreading down with the days and fading over four
    weeks; else flat. Heat at the top puts it out (`heat`, 0 to 1).

    Common practice; the figures are ours.
    """
    days = water.days_since_stocking
    flat = np.zeros_like(depths)
    if days is None:
        return Factor("stocking", flat, "When it was stocked is not noted.", False)
    if days <= FRESH_DAYS:
        fading = fresh_share(water, heat)
        high = HIGH_WEIGHT * np.exp(-0.5 * (depths / (HIGH_M + SPREAD_M_PER_DAY * days)) ** 2)
        deep = PER_METRE * np.maximum(0.0, depths - FRESH_TO_M)
        ago = f"{days} days ago" if days > 1 else "a day ago" if days == 1 else "today"
        where = "lie high, in the upper 2 to 3 m," if depths[-1] > FRESH_TO_M + 0.5 else "lie at any depth here"
        words = f"Stocked {ago}: fresh fish {where} and spread with the days."
        if heat > 0.5:
            words = f"Stocked {ago}, but in water this warm the fresh fish's habit is gone."
        return Factor("stocking", fading * (high - deep), words, True)
    if days <= RESIDENT_DAYS:
        words = f"Stocked {days} days ago: those fish have spread out; no depth to go by."
    else:
        words = "Not stocked for two months: resident fish, which keep to the food, often deep."
    return Factor("stocking", flat, words, True)
