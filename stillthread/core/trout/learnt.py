"""What an angler's own takes say of two of the plan's figures: how far trout notice a fly, and how warm they like the water.

Each outing's takes are shared out over its stretches as hours times what the plan thinks of them would have it; a figure is
the better, the likelier that makes where the takes came. What differed between days plays no part.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Annotated

import numpy as np
from annotated_types import Ge, Le
from numpy.typing import NDArray

from stillthread.core.evidence.reliability import gain
from stillthread.core.limits import Said
from stillthread.core.trout.notice import notice_kernel
from stillthread.core.trout.temperature import log_preference

NOTICE = tuple(0.5 * 2 ** (k / 4) for k in range(9))  # from half to twice as far
WARMER_C = tuple(-3.0 + 0.5 * k for k in range(13))
# How many takes on how many outings are needed, and how much likelier [nats] a figure must make them. Figures ours.
FEWEST_TAKES, FEWEST_OUTINGS, LEAST_GAIN = 25, 6, 1.5
Z95, HALF_CHI2_95, FINE = 1.959964, 1.920729, 241
LEAST_SHARE = 1e-3
TELLING = "Days on which you fish several depths tell most."


@dataclass(frozen=True)
class Learnt:
    """Two figures of the plan as the angler has taken them over from their own log; as they stand here, the usual ones."""

    notice: Annotated[float, Ge(0.5), Le(2), Said("times as far as usual")] = 1.0
    warmer_c: Annotated[float, Ge(-3), Le(3), Said("warmer than usual")] = 0.0


USUAL = Learnt()


@dataclass(frozen=True)
class Tried:
    """A stretch: hours of effort, takes in it, and the depth of the fly [m] or the temperature there [°C]."""

    hours: float
    takes: int
    at: float


def _gains(stretches: Sequence[Tried], weights: Sequence[Sequence[float]]) -> list[float]:
    """For each figure what it gains on knowing nothing [nats], from the log weights it gives the stretches."""
    found = []
    for row in weights:
        effort = [(one.hours, w) for one, w in zip(stretches, row, strict=True)]
        takes = [w for one, w in zip(stretches, row, strict=True) for _ in range(one.takes)]
        found.append(gain(effort, takes))
    return found


def notice_curve(
    stretches: Sequence[Tried], depths_m: NDArray[np.float64], mass: NDArray[np.float64], secchi_m: float
) -> list[float]:
    """Return for each of NOTICE times the usual noticing distance what it gains [nats] on an outing.

    The plan's belief is `mass` over `depths_m` [m], `secchi_m` the Secchi depth [m]. Raises ValueError where takes stand
    without effort, or the belief is empty.
    """
    share = mass / mass.sum()
    rows = [
        [
            float(np.log(LEAST_SHARE + share @ notice_kernel(one.at, depths_m, secchi_m, times=times)))
            for one in stretches
        ]
        for times in NOTICE
    ]
    return _gains(stretches, rows)


def warmer_curve(stretches: Sequence[Tried], species: tuple[str, ...]) -> list[float]:
    """Return for each of WARMER_C degrees that trout may like it warmer what it gains [nats] on an outing.

    Raises ValueError where takes stand without effort, KeyError for an unknown species.
    """
    t = np.array([one.at for one in stretches])
    rows = [np.mean([log_preference(t - warmer, s) for s in species], axis=0).tolist() for warmer in WARMER_C]
    return _gains(stretches, rows)


@dataclass(frozen=True)
class Found:
    """A figure as the takes have it, with its 95 % interval, whether that is clear enough to go by, and whether the takes are
    silent: anything that can be might be.
    """

    value: float
    low: float
    high: float
    clear: bool
    silent: bool
    takes: int
    outings: int


def _peak(curve: NDArray[np.float64], values: NDArray[np.float64]) -> float:
    """Where a curve is highest, by the parabola through its highest point and the two beside it."""
    n = int(np.argmax(curve))
    if n in (0, len(values) - 1):
        return float(values[n])
    left, top, right = curve[n - 1 : n + 2]
    bend = left - 2 * top + right
    off = 0.0 if bend >= 0 else 0.5 * (left - right) / bend
    return float(np.interp(n + off, np.arange(len(values)), values))


def found(
    curves: Sequence[Sequence[float]], takes: Sequence[int], values: Sequence[float], usual: float
) -> Found | None:
    """Return the figure that makes an angler's takes likeliest, from each outing's curve; None where there are too few.

    The interval is the wider of two: by the jackknife over outings (Tukey 1958), since takes come in bursts, and by the
    likelihood itself (Wilks 1938). Clear is what leaves the `usual` figure outside it and is likelier by 1.5 nats.
    """
    with_takes = [(curve, n) for curve, n in zip(curves, takes, strict=True) if n > 0]
    count = sum(n for _, n in with_takes)
    if count < FEWEST_TAKES or len(with_takes) < FEWEST_OUTINGS:
        return None
    table, grid = np.array([curve for curve, _ in with_takes]), np.array(values)
    whole = table.sum(axis=0)
    value, many = _peak(whole, grid), len(with_takes)
    left = np.array([_peak(whole - one, grid) for one in table])
    wide = Z95 * float(np.sqrt((many - 1) / many * np.sum((left - left.mean()) ** 2)))
    likely = np.interp(fine := np.linspace(grid[0], grid[-1], FINE), grid, whole) >= whole.max() - HALF_CHI2_95
    low, high = min(value - wide, float(fine[likely].min())), max(value + wide, float(fine[likely].max()))
    gained = float(whole.max() - np.interp(usual, grid, whole))
    return Found(
        value=value,
        low=max(low, float(grid[0])),
        high=min(high, float(grid[-1])),
        silent=bool(low <= grid[0] and high >= grid[-1]),
        clear=not low <= usual <= high and gained >= LEAST_GAIN,
        takes=count,
        outings=many,
    )


def _of(found: Found) -> str:
    return f"{found.takes} takes on {found.outings} outings"


def notice_in_words(found: Found) -> str:
    """Return what the takes say of the noticing distance, as one angler says it to another."""
    if found.silent:
        return f"How far they notice a fly, your takes cannot tell yet ({_of(found)}). {TELLING}"
    held = f"(95 %: {found.low:.1f} to {found.high:.1f} times; {_of(found)})"
    if not found.clear:
        return f"How far they notice a fly: as far as the plan reckons, for all your takes can tell {held}."
    way = "further" if found.value > 1 else "less far"
    return f"They notice a fly {way} than the plan reckons: {found.value:.1f} times as far {held}."


def warmer_in_words(found: Found) -> str:
    """Return what the takes say of the temperature trout like, as one angler says it to another."""
    if found.silent:
        return f"How warm they like it, your takes cannot tell yet ({_of(found)}). {TELLING}"
    held = f"(95 %: {found.low:+.1f} to {found.high:+.1f} °C; {_of(found)})"
    if not found.clear:
        return f"How warm they like it: as the plan reckons, for all your takes can tell {held}."
    way = "warmer" if found.value > 0 else "cooler"
    return f"They took in {way} water than the plan reckons: by {abs(found.value):.1f} °C {held}."
