"""Fish look up: which fly a trout at some depth notices."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

BELOW_REACH_M = 0.25


def upward_reach_m(secchi_m: float) -> float:
    """Return how far above itself a trout notices a fly [m]: 0.2 Secchi depths, between 0.25 and 1.2 m.

    Common practice ("seen from a distance set by clarity"); the figures are ours, no source. Raises ValueError unless
    the Secchi depth is positive.
    """
    if not secchi_m > 0:
        raise ValueError("Secchi depth must be positive")
    return float(min(max(0.2 * secchi_m, 0.25), 1.2))


def notice_kernel(fly_m: float, fish_m: NDArray[np.float64], secchi_m: float) -> NDArray[np.float64]:
    """Return the share of fish at depths `fish_m` [m] that notice a fly at `fly_m` [m], 0 to 1.

    Wide for fish below the fly, narrow for fish above it (Gaussian each side).
    """
    below = fish_m - fly_m  # positive: the fish is under the fly and looks up at it
    reach = np.where(below >= 0, upward_reach_m(secchi_m), BELOW_REACH_M)
    return np.asarray(np.exp(-0.5 * (below / reach) ** 2), dtype=float)
