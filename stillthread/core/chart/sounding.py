"""Depths of the bed: how each was found, how far each can be wrong, and what several together say."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Literal, get_args

from stillthread.core.errors import InputError, Problem
from stillthread.core.water.profile import DEEPEST_LAKE_M

SoundingMethod = Literal["sounder", "rod", "weight-on-fly", "marked-cord", "asked", "chart"]
# One standard deviation of each way of finding the depth: at least [m], and as a share of it. Common practice, our
# figures: the rod bends and its foot stands in mud; a cord bellies; a chart is drawn for another level.
METHOD_DOUBT: dict[SoundingMethod, tuple[float, float]] = {
    "sounder": (0.1, 0.01),
    "rod": (0.2, 0.1),
    "weight-on-fly": (0.15, 0.03),
    "marked-cord": (0.1, 0.02),
    "asked": (0.5, 0.2),
    "chart": (0.4, 0.1),
}
METHODS: tuple[SoundingMethod, ...] = get_args(SoundingMethod)
SOUNDING_METHODS: dict[str, SoundingMethod] = {method: method for method in METHODS}
# A rod can be pushed down to about a metre less than its length: a 3 m rod tells about 2 m.
ROD_IN_HAND_M = 1.0


@dataclass(frozen=True)
class Sounding:
    """One depth of the bed [m] below today's surface, and the way it was found."""

    depth_m: float
    method: SoundingMethod


@dataclass(frozen=True)
class PooledDepth:
    """What several soundings say together: the depth [m], its doubt (one standard deviation, [m]), whether they agree."""

    depth_m: float
    doubt_m: float
    agree: bool


def sounding_doubt_m(sounding: Sounding) -> float:
    """Return one standard deviation [m] of a sounding: a least value and a share of the depth, by method (common practice).

    Raises KeyError for an unknown method.
    """
    least, share = METHOD_DOUBT[sounding.method]
    return math.hypot(least, share * sounding.depth_m)


def rod_reach_m(rod_m: float) -> float:
    """Return the deepest bed [m] a rod of a length [m] can be pushed down to: one metre stays in the hand.

    >>> rod_reach_m(3.0)
    2.0
    """
    return max(rod_m - ROD_IN_HAND_M, 0.0)


def checked_sounding(
    sounding: Sounding, max_depth_m: float | None = None, rod_m: float | None = None, path: str = "sounding"
) -> Sounding:
    """Return a sounding that is possible in a water of `max_depth_m` [m] with a rod of `rod_m` [m].

    Raises InputError at the field: unknown method, no depth of a lake, deeper than the water, or beyond the rod.
    """
    problems = []
    depth = sounding.depth_m
    if sounding.method not in METHOD_DOUBT:
        message = f"'{sounding.method}' is no way to sound."
        problems.append(Problem("unknown", f"{path}.method", message, ", ".join(METHODS)))
    if not (math.isfinite(depth) and 0 < depth <= DEEPEST_LAKE_M):
        accepted = f"more than 0, up to {DEEPEST_LAKE_M:g} m"
        problems.append(Problem("depth_range", f"{path}.depth_m", f"{depth:g} m is no depth of a lake.", accepted))
    elif max_depth_m is not None and depth > max_depth_m * 1.15 + 1.0:
        message = f"{depth:g} m is far below the bed: this water is noted as {max_depth_m:g} m at its deepest."
        hint = "Correct this depth, or the water's greatest depth."
        problems.append(
            Problem(
                code="below_bed",
                path=f"{path}.depth_m",
                message=message,
                accepted=f"up to about {max_depth_m:g} m",
                hint=hint,
            )
        )
    elif sounding.method == "rod" and rod_m is not None and depth > rod_reach_m(rod_m) + 0.5:
        message = f"A rod of {rod_m:g} m does not reach {depth:g} m down."
        hint = "Use a weight on the fly or the marked cord."
        problems.append(
            Problem(
                code="beyond_rod",
                path=f"{path}.depth_m",
                message=message,
                accepted=f"up to about {rod_reach_m(rod_m):g} m",
                hint=hint,
            )
        )
    if problems:
        raise InputError(problems)
    return sounding


def below_datum_m(depth_m: float, level_m: float) -> float:
    """Return a sounding [m] below the water's datum for a depth [m] below today's surface, at a level [m] against the datum.

    depth = sounding + level; the level is negative when the water is drawn down.
    """
    return depth_m - level_m


def below_surface_m(sounding_m: float, level_m: float) -> float:
    """Return today's depth [m] for a sounding [m] below the datum at a level [m]; the inverse of `below_datum_m`."""
    return sounding_m + level_m


def pooled_depth(soundings: tuple[Sounding, ...]) -> PooledDepth:
    """Return what several soundings of one spot say together: the mean weighted by 1 / doubt², and its own doubt.

    They agree where their scatter is no more than their doubts allow (Birge ratio up to 1.5); where not, the doubt is
    widened by the ratio. Standard least squares. Raises ValueError without soundings.
    """
    if not soundings:
        raise ValueError("no soundings")
    weights = [1 / sounding_doubt_m(s) ** 2 for s in soundings]
    total = math.fsum(weights)
    mean = math.fsum(w * s.depth_m for w, s in zip(weights, soundings, strict=True)) / total
    doubt = math.sqrt(1 / total)
    if len(soundings) == 1:
        return PooledDepth(mean, doubt, True)
    chi2 = math.fsum(w * (s.depth_m - mean) ** 2 for w, s in zip(weights, soundings, strict=True))
    birge = math.sqrt(chi2 / (len(soundings) - 1))
    return PooledDepth(mean, doubt * max(1.0, birge), birge <= 1.5)
