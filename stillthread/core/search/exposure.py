"""How much of its clock a candidate is before feeding fish at each depth: its path, blurred by how fish notice flies."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

from stillthread.core.search.model import CELL_M, Candidate

FISH_SPREAD_M = 0.5

Array = NDArray[np.float64]


def noticing(up_m: float, down_m: float, count: int) -> Array:
    """Return for fish spread about each of `count` cells how many notice a fly in each cell, 0 to 1 (fish, fly).

    A fly is noticed up to `up_m` [m] above a fish and `down_m` [m] below it, fading as a bell; the fish are spread by half
    a metre. Shape from memory, figures ours.
    """
    depth = (np.arange(count) + 0.5) * CELL_M
    offsets = np.linspace(-1.5, 1.5, 13) * FISH_SPREAD_M
    weights = np.exp(-0.5 * (offsets / FISH_SPREAD_M) ** 2)
    below = depth[:, None, None] + offsets[None, :, None] - depth[None, None, :]
    noticed = np.exp(-((below / np.where(below >= 0, up_m, down_m)) ** 2))
    return np.asarray(np.einsum("zof,o->zf", noticed, weights / weights.sum()), dtype=np.float64)


class Exposures:
    """The exposures of candidates over so many cells, each worked out once."""

    def __init__(self, cells: int) -> None:
        """Begin with none."""
        self._cells = cells
        self._noticing: dict[tuple[float, float], Array] = {}
        self._met: dict[tuple[object, ...], Array] = {}

    def of(self, one: Candidate) -> Array:
        """Return for each cell how much of the clock fish there notice this candidate's flies, 0 to 1."""
        key = one.exposure, one.fishing_share, one.up_m, one.down_m
        if key not in self._met:
            reach = one.up_m, one.down_m
            if reach not in self._noticing:
                self._noticing[reach] = noticing(one.up_m, one.down_m, self._cells)
            fly = np.zeros(self._cells)
            fly[: len(one.exposure)] = one.exposure[: self._cells]
            self._met[key] = np.minimum(one.fishing_share * (self._noticing[reach] @ fly), 1.0)
        return self._met[key]
