"""Fish look up: which fly a trout at some depth notices."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

BELOW_REACH_M = 0.25


# Light [share of full sun] at the fly above which fish come up less gladly, and below which they see less; and how much
# of the reach is left in full sun and in the dark. Common practice, figures ours.
EASY_LIGHT, DIM_LIGHT = 0.06, 0.002
LEFT_IN_SUN, LEFT_IN_DARK = 0.5, 0.6


def upward_reach_m(secchi_m: float, light: float | None = None, times: float = 1.0) -> float:
    """Return how far above itself a trout notices and takes a fly [m]: 0.2 Secchi depths, between 0.25 and 1.2 m.

    `light` at the fly [share of full sun] shortens it: half is left in full sun, where trout do not come up, and three
    fifths in the dark; `times` is what the angler's own takes make of it. Common practice ("seen from a distance set by clarity"); the figures are ours, no source. Raises
    ValueError unless the Secchi depth is positive.
    """
    if not secchi_m > 0:
        raise ValueError("Secchi depth must be positive")
    reach = float(min(max(0.2 * secchi_m, 0.25), 1.2))
    reach *= times
    if light is None:
        return reach
    bright = float(np.clip(np.log(max(light, 1e-9) / EASY_LIGHT) / np.log(1 / EASY_LIGHT), 0, 1))
    dark = float(np.clip(np.log10(DIM_LIGHT / max(light, 1e-9)), 0, 1))
    return reach * (1 - (1 - LEFT_IN_SUN) * bright) * (1 - (1 - LEFT_IN_DARK) * dark)


def notice_kernel(
    fly_m: float, fish_m: NDArray[np.float64], secchi_m: float, light: float | None = None, times: float = 1.0
) -> NDArray[np.float64]:
    """Return the share of fish at depths `fish_m` [m] that notice a fly at `fly_m` [m], 0 to 1.

    Wide for fish below the fly, narrow for fish above it (Gaussian each side); `light` at the fly and `times` as `upward_reach_m`.
    """
    below = fish_m - fly_m  # positive: the fish is under the fly and looks up at it
    reach = np.where(below >= 0, upward_reach_m(secchi_m, light, times), BELOW_REACH_M * times)
    return np.asarray(np.exp(-0.5 * (below / reach) ** 2), dtype=float)
