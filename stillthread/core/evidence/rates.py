"""Catch rates with intervals, and effort and takes sorted by depth."""

from __future__ import annotations

from dataclasses import dataclass

LEAST_EFFORT_H = 0.25  # a rate from less says nothing: one take in a minute is no sixty an hour. Common practice, ours


@dataclass(frozen=True)
class Rate:
    """Events in hours of effort: the rate per hour and its exact 95 % interval; all None below a quarter of an hour."""

    count: int
    hours: float
    per_hour: float | None
    low: float | None
    high: float | None


def poisson_rate(count: int, hours: float, confidence: float = 0.95) -> Rate:
    """Return the rate per hour with Garwood's exact interval for a Poisson count.

    Garwood (1936): half the chi-square quantiles of 2k and 2k+2 degrees of freedom, computed as gamma quantiles.
    Less than `LEAST_EFFORT_H` gives a rate of None: the count stands alone. Raises ValueError for a negative count or hours, or a confidence outside (0, 1).
    """
    if count < 0 or hours < 0:
        raise ValueError("count and hours must not be negative")
    if not 0 < confidence < 1:
        raise ValueError("confidence lies between 0 and 1")
    if hours < LEAST_EFFORT_H:
        return Rate(count=count, hours=hours, per_hour=None, low=None, high=None)
    from scipy.special import gammaincinv  # scipy takes long to import; only the log needs it

    tail = (1 - confidence) / 2
    low = 0.0 if count == 0 else float(gammaincinv(count, tail))
    high = float(gammaincinv(count + 1, 1 - tail))
    return Rate(count=count, hours=hours, per_hour=count / hours, low=low / hours, high=high / hours)


@dataclass(frozen=True)
class Stretch:
    """A stretch of fishing at one depth [m]: hours of effort, takes (felt or hooked) and fish landed."""

    depth_m: float | None
    hours: float
    takes: int
    landed: int


@dataclass(frozen=True)
class DepthBin:
    """All effort between two depths [m]: hours, takes with their rate, fish landed."""

    top_m: float
    bottom_m: float
    hours: float
    takes: Rate
    landed: int


def by_depth(stretches: list[Stretch], step_m: float) -> list[DepthBin]:
    """Return effort and takes by depth in bins of `step_m` [m], shallow to deep, without gaps; unknown depths left out.

    Blank time counts: a bin with effort and no takes has a rate of 0. Raises ValueError unless the step is positive.
    """
    if not step_m > 0:
        raise ValueError("the step must be positive")
    rows: dict[int, list[Stretch]] = {}
    for stretch in stretches:
        if stretch.depth_m is not None:
            rows.setdefault(int(stretch.depth_m / step_m + 1e-9), []).append(stretch)
    result = []
    for index in range(max(rows, default=-1) + 1):
        here = rows.get(index, [])
        hours, takes = sum(s.hours for s in here), sum(s.takes for s in here)
        result.append(
            DepthBin(
                top_m=index * step_m,
                bottom_m=(index + 1) * step_m,
                hours=hours,
                takes=poisson_rate(takes, hours),
                landed=sum(s.landed for s in here),
            )
        )
    return result
