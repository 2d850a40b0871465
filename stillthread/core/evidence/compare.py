"""Two of anything in the log against each other: the ratio of their rates, within outings, and whether it can be told yet."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

FEWEST_TAKES = 5  # below that no ratio is told as a difference: common practice, figure ours
WORTH_TELLING = 1.1  # a ratio nearer to 1 than this is no difference worth an angler's time: figure ours
MOST_MORE_H = 500.0


class Both(NamedTuple):
    """One outing's effort [hours] and takes with the one and with the other."""

    hours_a: float
    takes_a: int
    hours_b: float
    takes_b: int


@dataclass(frozen=True)
class Ratio:
    """The rate of a over that of b with its 95 % interval; None where it cannot be formed.

    `outings` is how many have both, `sure` whether the interval leaves 1 out, `more_hours` how many more of each would tell
    (None where it is told already, or where even many would not).
    """

    ratio: float | None
    low: float | None
    high: float | None
    outings: int
    sure: bool
    more_hours: float | None


Table = NDArray[np.float64]


def _parts(strata: Table) -> tuple[Table, Table]:
    """What each outing adds to the ratio's top and bottom."""
    hours_a, takes_a, hours_b, takes_b = strata.T
    hours = hours_a + hours_b
    return takes_a * hours_b / hours, takes_b * hours_a / hours


def _variance(strata: Table, top: float, bottom: float) -> float:
    """Variance of the log of the ratio: the larger of the Poisson one and the one the outings themselves show.

    Greenland and Robins (1985) for Poisson counts; for takes that come in bursts the jackknife over outings (Tukey 1958):
    the ratio without each of them in turn. Infinite where one outing carries all takes of a side.
    """
    hours_a, takes_a, hours_b, takes_b = strata.T
    poisson = float(((takes_a + takes_b) * hours_a * hours_b / (hours_a + hours_b) ** 2).sum()) / (top * bottom)
    tops, bottoms = _parts(strata)
    without_a, without_b = top - tops, bottom - bottoms
    if bool((without_a <= 1e-9).any() or (without_b <= 1e-9).any()):
        return math.inf
    logs = np.log(without_a / without_b)
    k = len(logs)
    return max(poisson, (k - 1) / k * float(((logs - logs.mean()) ** 2).sum()))


def _quantile(outings: int) -> float:
    """Student's quantile for so many outings: few of them say less of how they differ."""
    from scipy.special import stdtrit  # scipy takes long to import; only the log needs it

    return float(stdtrit(max(1, outings - 1), 0.975))


def rate_ratio(outings: Sequence[Both]) -> Ratio:
    """Return the rate ratio of a to b by the method of Mantel and Haenszel over outings where both were fished.

    What else differed between days cancels: only outings with effort of both count. Mantel-Haenszel for person-time data:
    Rothman, Greenland and Lash, Modern Epidemiology. With fewer than two such outings, or all takes of a side
    on one of them, no ratio is told.
    """
    table = np.array(outings, dtype=np.float64).reshape(-1, 4)
    strata = table[(table[:, 0] > 0) & (table[:, 2] > 0)]
    takes = strata[strata[:, 1] + strata[:, 3] > 0]
    top, bottom = (float(side.sum()) for side in _parts(strata))
    none = Ratio(ratio=None, low=None, high=None, outings=len(strata), sure=False, more_hours=None)
    if len(takes) < 2 or top <= 0 or bottom <= 0:
        return none
    ratio, variance = top / bottom, _variance(takes, top, bottom)
    if math.isinf(variance):
        return none
    wide = _quantile(len(takes)) * math.sqrt(variance)
    low, high = ratio * math.exp(-wide), ratio * math.exp(wide)
    enough = bool(strata[:, 1].sum() + strata[:, 3].sum() >= FEWEST_TAKES)
    sure = enough and (low > 1 or high < 1)
    more = None if sure else _more_hours(strata, ratio, wide)
    return Ratio(ratio=ratio, low=low, high=high, outings=len(strata), sure=sure, more_hours=more)


def _more_hours(strata: Table, ratio: float, wide: float) -> float | None:
    """How many more hours of each, at the rates and bursts seen, would leave 1 out of the interval."""
    apart = abs(math.log(ratio))
    if apart < math.log(WORTH_TELLING):
        return None
    hours = min(float(strata[:, 0].sum()), float(strata[:, 2].sum()))
    more = hours * (max((wide / apart) ** 2, 1.0 + 1e-9) - 1)
    return more if 0 < more <= MOST_MORE_H else None


def in_words(a: str, b: str, found: Ratio) -> str:
    """Return what a comparison says, as one angler says it to another."""
    if found.outings == 0:
        return f"Cannot tell: {a} and {b} were never fished on the same outing."
    if found.ratio is None or found.low is None or found.high is None:
        return f"Cannot tell yet between {a} and {b}: too few takes on the outings that had both."
    if found.sure:
        more, less, times = (a, b, found) if found.ratio > 1 else (b, a, _turned(found))
        return (
            f"{more} took {times.ratio:.1f} times as often as {less} "
            f"(95 %: {times.low:.1f} to {times.high:.1f}), over {_outings(found.outings)} with both."
        )
    told = f"Cannot tell yet between {a} and {b}: {found.ratio:.1f} times, but anything from {found.low:.1f} to {found.high:.1f}."
    if found.more_hours is None:
        return told
    return f"{told} About {math.ceil(found.more_hours)} more hours of each would tell."


def _outings(count: int) -> str:
    return "1 outing" if count == 1 else f"{count} outings"


def _turned(found: Ratio) -> Ratio:
    low, ratio, high = (1 / (value or 1.0) for value in (found.high, found.ratio, found.low))
    return replace(found, ratio=ratio, low=low, high=high)
