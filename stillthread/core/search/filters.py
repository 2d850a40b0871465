"""What is believed of place, depth, fly, pace and rate: the plan's belief and a flat one, each as well as it foresaw the day.

Bayes' rule with a Poisson count (any textbook); the weight of the flat belief and its leak are the guard against a wrong plan.
"""

from __future__ import annotations

import copy
import math
from functools import cache
from importlib import import_module
from types import ModuleType
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from stillthread.core.search.model import CELL_M, Belief, Kind, Spell

# Levels of the day's rate for the right fly, place, depth and pace [takes an hour] and how likely they are at the start. The
# day is taken to be fishable: with lower levels long blanks are put down to a dead day, and the search sits still.
LEVELS = 6
RATES = tuple(0.7 * (20 / 0.7) ** (level / (LEVELS - 1)) for level in range(2, LEVELS))
RATE_PRIOR = (0.15, 0.35, 0.35, 0.15)
PACE_PRIOR = (0.30, 0.45, 0.25)
PLAN_KINDS = 0.8  # of the plan's match of flies; the rest is spread
UNIFORM_AT_START, UNIFORM_IF_UNREAD = 0.55, 0.7
LEAK_PER_MIN = 0.005  # to the uniform filter while nothing has been taken today
WANDERS_M2_PER_H = 0.2
LONGEST_STEP_MIN = 5.0

Array = NDArray[np.float64]


@cache
def kernels() -> ModuleType:
    """The compiled arithmetic; the compiler takes a second to fetch, and the first search alone needs it."""
    return import_module("stillthread.core.search.cells")


def laid_out(belief: Belief, kinds: tuple[Kind, ...], beds: NDArray[np.int64], plan: bool) -> Array:
    """Return a belief over every state (place, cell, kind, pace, level; sum 1), by the plan or flat; `beds` are in cells."""
    water = np.zeros((len(beds), int(beds.max())))
    for p, (bed, given) in enumerate(zip(beds, belief.mass, strict=True)):
        share = sum(given) if plan else 1.0 / len(beds)
        inside = np.array(given[:bed], dtype=np.float64) if plan else np.full(bed, 1.0)
        inside = np.pad(inside, (0, bed - len(inside)))
        water[p, :bed] = share * inside / inside.sum() if inside.sum() > 0 else share / bed
    count = len(kinds)
    told = np.array([one.share for one in kinds])
    told = told / told.sum() if told.sum() > 0 else np.full(count, 1.0 / count)
    shares = PLAN_KINDS * told + (1 - PLAN_KINDS) / count if plan else np.full(count, 1.0 / count)
    mass = np.einsum("pz,k,m,l->pzkml", water, shares, np.array(PACE_PRIOR), np.array(RATE_PRIOR))
    return np.ascontiguousarray(mass / mass.sum())


class Said(NamedTuple):
    """A spell as a belief takes it in: where (-1 not known), how surely its flies are taken for each kind, at a pace, met by fish
    at each cell.

    `doubts` is whether it speaks against the plan: nothing has been taken today.
    """

    spell: Spell
    place: int
    pace: int
    kinds: Array
    exposure: Array
    doubts: bool


class Filters:
    """The plan's belief and the flat one over every state, and the weight of the flat one; levels of the rate an hour."""

    def __init__(self, belief: Belief, kinds: tuple[Kind, ...], beds: NDArray[np.int64], rates: Array) -> None:
        """Lay both out over `beds` [cells]."""
        self.beds, self.rates = beds, rates
        self.plan, self.flat = laid_out(belief, kinds, beds, plan=True), laid_out(belief, kinds, beds, plan=False)
        self.uniform = UNIFORM_AT_START if belief.read else UNIFORM_IF_UNREAD

    @property
    def mass(self) -> Array:
        """The belief over place, cell, kind, pace and level (sum 1)."""
        return np.asarray(self.uniform * self.flat + (1 - self.uniform) * self.plan, dtype=np.float64)

    def take_in(self, said: Said, believed: float) -> None:
        """Take in a spell, so much of a blank `believed` (0 to 1); doubt the plan a little more where it took nothing."""
        one = said.spell
        numbers = np.array([one.minutes, one.takes, one.plucks, one.follows, one.weight, believed], dtype=np.float64)
        told = kernels().likelihoods(self.rates, said.exposure, said.pace, numbers)
        by_plan = kernels().weigh(self.plan, told, said.place, said.kinds)
        by_flat = kernels().weigh(self.flat, told, said.place, said.kinds)
        total = self.uniform * by_flat + (1 - self.uniform) * by_plan
        if total > 0:
            self.uniform = self.uniform * by_flat / total
        if said.doubts:
            self.uniform += (1 - self.uniform) * (1 - math.exp(-LEAK_PER_MIN * one.minutes * one.weight))

    def wander(self) -> None:
        """Let the depth wander for one step of time."""
        share = WANDERS_M2_PER_H * LONGEST_STEP_MIN / 60.0 / CELL_M**2
        for mass in (self.plan, self.flat):
            kernels().spread(mass, self.beds, share)

    def copy(self) -> Filters:
        """Return another that believes the same."""
        other = copy.copy(self)
        other.plan, other.flat = self.plan.copy(), self.flat.copy()
        return other
