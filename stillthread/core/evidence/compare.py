"""Two of anything in the log against each other: the ratio of their rates, within outings, and whether it can be told yet."""

from __future__ import annotations

import math
from dataclasses import dataclass, replace

FEWEST_TAKES = 5  # below that no ratio is told as a difference: common practice, figure ours
WORTH_TELLING = 1.1  # a ratio nearer to 1 than this is no difference worth an angler's time: figure ours
MOST_MORE_H = 500.0


@dataclass(frozen=True)
class Both:
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


def _parts(strata: list[Both]) -> list[tuple[float, float]]:
    """What each outing adds to the ratio's top and bottom."""
    found = []
    for s in strata:
        hours = s.hours_a + s.hours_b
        found.append((s.takes_a * s.hours_b / hours, s.takes_b * s.hours_a / hours))
    return found


def _variance(strata: list[Both], top: float, bottom: float) -> float:
    """Variance of the log of the ratio: the larger of the Poisson one and the one the outings themselves show.

    Greenland and Robins (1985) for Poisson counts; for takes that come in bursts the jackknife over outings (Tukey 1958):
    the ratio without each of them in turn. Infinite where one outing carries all takes of a side.
    """
    poisson = sum((s.takes_a + s.takes_b) * s.hours_a * s.hours_b / (s.hours_a + s.hours_b) ** 2 for s in strata) / (
        top * bottom
    )
    without = [(top - x, bottom - y) for x, y in _parts(strata)]
    if any(x <= 1e-9 or y <= 1e-9 for x, y in without):
        return math.inf
    logs = [math.log(x / y) for x, y in without]
    k, middle = len(logs), sum(logs) / len(logs)
    return max(poisson, (k - 1) / k * sum((one - middle) ** 2 for one in logs))


def _quantile(outings: int) -> float:
    """Student's quantile for so many outings: few of them say less of how they differ."""
    from scipy.special import stdtrit  # scipy takes long to import; only the log needs it

    return float(stdtrit(max(1, outings - 1), 0.975))


def rate_ratio(outings: list[Both]) -> Ratio:
    """Return the rate ratio of a to b by the method of Mantel and Haenszel over outings where both were fished.

    What else differed between days cancels: only outings with effort of both count. Mantel-Haenszel for person-time data:
    Rothman, Greenland and Lash, Modern Epidemiology. With fewer than two such outings, or all takes of a side
    on one of them, no ratio is told.
    """
    strata = [s for s in outings if s.hours_a > 0 and s.hours_b > 0]
    takes = [s for s in strata if s.takes_a + s.takes_b > 0]
    top, bottom = (sum(side) for side in zip(*_parts(strata), strict=True)) if strata else (0.0, 0.0)
    none = Ratio(ratio=None, low=None, high=None, outings=len(strata), sure=False, more_hours=None)
    if len(takes) < 2 or top <= 0 or bottom <= 0:
        return none
    ratio, variance = top / bottom, _variance(takes, top, bottom)
    if math.isinf(variance):
        return none
    wide = _quantile(len(takes)) * math.sqrt(variance)
    low, high = ratio * math.exp(-wide), ratio * math.exp(wide)
    enough = sum(s.takes_a + s.takes_b for s in strata) >= FEWEST_TAKES
    sure = enough and (low > 1 or high < 1)
    more = None if sure else _more_hours(strata, ratio, wide)
    return Ratio(ratio=ratio, low=low, high=high, outings=len(strata), sure=sure, more_hours=more)


def _more_hours(strata: list[Both], ratio: float, wide: float) -> float | None:
    """How many more hours of each, at the rates and bursts seen, would leave 1 out of the interval."""
    apart = abs(math.log(ratio))
    if apart < math.log(WORTH_TELLING):
        return None
    hours = min(sum(s.hours_a for s in strata), sum(s.hours_b for s in strata))
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
