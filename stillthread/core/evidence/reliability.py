"""Was the plan right: how often takes came where it said they would, and which of its reasons pointed the right way.

Takes come only from where somebody fished: what is seen is told beside the share of the effort that went there.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

STEPS = (0.1, 0.2, 0.3, 0.4, 0.5, 0.6, 0.7, 0.8, 0.9)
FEWEST_TAKES, FEWEST_OUTINGS = 5, 3  # below that nothing is told: figures ours
Z95 = 1.959964


def level(mass: Sequence[float], cell: int) -> float:
    """Return how much of a belief lies in cells likelier than one, with half of that cell itself: 0 at the likeliest, to 1.

    The smallest share of the belief, taken from the likeliest depth on, in which a take there falls (the level of the
    highest-density region; Hyndman 1996). `mass` by cell (any total). Raises ValueError without mass, or off the cells.
    """
    total = sum(mass)
    if total <= 0 or not 0 <= cell < len(mass):
        raise ValueError("a level needs a belief, and a depth within it")
    here = mass[cell]
    return (sum(m for m in mass if m > here) + sum(m for m in mass if m == here) / 2) / total


def gain(effort: Sequence[tuple[float, float]], takes: Sequence[float]) -> float:
    """Return by how much a factor told the day's takes apart from its effort, in nats: log likelihood against knowing nothing.

    `effort` are hours with the factor's log weight there, `takes` the log weights where takes came: given so many takes
    and the hours, each falls to a stretch as hours times the exponential of its weight (multinomial). 0 where nothing can
    be told. Raises ValueError for takes without effort.
    """
    hours = sum(h for h, _ in effort)
    if takes and hours <= 0:
        raise ValueError("takes without effort tell nothing")
    if not takes:
        return 0.0
    most = max(w for _, w in effort)
    mean = most + math.log(sum(h * math.exp(w - most) for h, w in effort) / hours)
    return sum(takes) - len(takes) * mean


@dataclass(frozen=True)
class Day:
    """One outing against its plan: the levels at which takes came, hours with theirs, and each factor's gain [nats]."""

    takes: tuple[float, ...]
    effort: tuple[tuple[float, float], ...]
    gains: dict[str, float]


@dataclass(frozen=True)
class Point:
    """Of a share the plan spoke of, from its likeliest depths on: the share of takes seen there with its 95 % interval, and
    that of the hours fished there.
    """

    share: float
    seen: float
    low: float
    high: float
    fished: float


@dataclass(frozen=True)
class Helped:
    """A factor's gain a take [nats] with its 95 % interval: above 0 it pointed the right way, below 0 the wrong one."""

    name: str
    per_take: float
    low: float
    high: float


def _ratio(parts: Sequence[tuple[float, float]]) -> tuple[float, float, float]:
    """The ratio of two sums over outings and its 95 % interval, by the jackknife over outings (Tukey 1958)."""
    top, bottom = sum(a for a, _ in parts), sum(b for _, b in parts)
    value = top / bottom
    left = [(top - a) / (bottom - b) for a, b in parts if bottom - b > 0]
    k, middle = len(left), sum(left) / len(left)
    wide = Z95 * math.sqrt((k - 1) / k * sum((one - middle) ** 2 for one in left))
    return value, value - wide, value + wide


def _with_takes(days: Sequence[Day]) -> list[Day] | None:
    found = [day for day in days if day.takes]
    if len(found) < FEWEST_OUTINGS or sum(len(day.takes) for day in found) < FEWEST_TAKES:
        return None
    return found


def coverage(days: Sequence[Day]) -> list[Point]:
    """Return how often takes came within each share of the plan's belief; empty where there are too few to tell.

    Takes of one outing go together, so intervals are over outings; each is held within 0 and 1, and never narrower than
    a binomial one (normal approximation) would be.
    """
    found = _with_takes(days)
    if found is None:
        return []
    count, hours = sum(len(day.takes) for day in found), sum(h for day in found for h, _ in day.effort)
    points = []
    for share in STEPS:
        seen, low, high = _ratio([(sum(u <= share for u in day.takes), len(day.takes)) for day in found])
        least = Z95 * math.sqrt(max(seen * (1 - seen), 0.25 / count) / count)
        fished = sum(h for day in found for h, u in day.effort if u <= share) / hours
        points.append(
            Point(
                share=share,
                seen=seen,
                low=max(0.0, min(low, seen - least)),
                high=min(1.0, max(high, seen + least)),
                fished=fished,
            )
        )
    return points


def helped(days: Sequence[Day]) -> list[Helped]:
    """Return what each factor of the plan added to telling where the takes came, the most helpful first."""
    found = _with_takes(days)
    if found is None:
        return []
    rows = []
    for name in dict.fromkeys(name for day in found for name in day.gains):
        parts = [(day.gains[name], float(len(day.takes))) for day in found if name in day.gains]
        if len(parts) >= FEWEST_OUTINGS:
            value, low, high = _ratio(parts)
            rows.append(Helped(name=name, per_take=value, low=low, high=high))
    return sorted(rows, key=lambda row: -row.per_take)


def expected_in_words(days: Sequence[tuple[float, int]]) -> str:
    """Return how the takes stand to those expected, outing by outing (expected, seen), with the 95 % interval of their ratio.

    By the jackknife over outings, since takes come in bursts, and never narrower than counts of their own would be
    (Poisson). Empty where nothing was expected.
    """
    due, seen = sum(e for e, _ in days), sum(n for _, n in days)
    if due <= 0:
        return ""
    told = f"Over {len(days)} outings the plans expected {due:.0f} takes; {seen} came."
    if len(days) < FEWEST_OUTINGS or seen < FEWEST_TAKES:
        return told
    value, low, high = _ratio([(float(n), e) for e, n in days])
    least = Z95 * math.sqrt(seen) / due
    low, high = min(low, value - least), max(high, value + least)
    held = f"({max(0.0, low):.1f} to {high:.1f} times as many, 95 %)"
    if low > 1:
        return f"{told} It fished better than your log had led them to expect {held}."
    if high < 1:
        return f"{told} It fished worse than your log had led them to expect {held}."
    return f"{told} That is as expected {held}."


def in_words(points: Sequence[Point], takes: int) -> str:
    """Return what the plans' bands were worth, as one angler says it to another."""
    half = next((point for point in points if point.share == 0.5), None)
    if half is None:
        return "Too few takes with a depth on planned outings to tell."
    told = (
        f"Of {takes} takes {100 * half.seen:.0f} % came in the half the plan thought likeliest "
        f"(95 %: {100 * half.low:.0f} to {100 * half.high:.0f} %); {100 * half.fished:.0f} % of the time was fished there."
    )
    if half.low > max(0.5, half.fished):
        return f"{told} It could have been surer of itself."
    if half.high < half.fished:
        return f"{told} They fed elsewhere: fish the other depths more."
    if half.low > half.fished:
        return f"{told} It pointed the right way."
    return told
