"""Fresh from the hatchery or resident: how long ago the water was stocked, and what that does to depth."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

from stillthread.core.noted.water import Water
from stillthread.core.trout.factor import Factor

FRESH_DAYS = 21  # common practice: about three weeks
FADED_DAYS = 28.0
FRESH_TO_M = 2.5
PER_METRE = 0.9
RESIDENT_DAYS = 60


def stocking_factor(depths: NDArray[np.float64], water: Water) -> Factor:
    """Weight depths [m] by days since stocking: fresh fish keep to the upper 2 to 3 m, fading over four weeks; else flat.

    Common practice; the figures are ours.
    """
    days = water.days_since_stocking
    flat = np.zeros_like(depths)
    if days is None:
        return Factor("stocking", flat, "When it was stocked is not noted.", False)
    if days <= FRESH_DAYS:
        fading = 1.0 - days / FADED_DAYS
        words = f"Stocked {days} days ago: fresh fish stay in the upper 2 to 3 m."
        return Factor("stocking", -PER_METRE * fading * np.maximum(0.0, depths - FRESH_TO_M), words, True)
    if days <= RESIDENT_DAYS:
        words = f"Stocked {days} days ago: those fish have spread out; no depth to go by."
    else:
        words = "Not stocked for two months: resident fish, which keep to the food, often deep."
    return Factor("stocking", flat, words, True)
