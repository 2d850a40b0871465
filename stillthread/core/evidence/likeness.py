"""How like today a stretch in the log was, and what the like ones say: rates shrunk towards their mean."""

from __future__ import annotations

import math
from dataclasses import dataclass
from datetime import date
from typing import Annotated, Protocol

import numpy as np
from annotated_types import Ge, Le, MaxLen
from numpy.typing import NDArray

from stillthread.core.limits import Depth, Name, Said
from stillthread.core.vocabulary import PlaceKind

# How fast likeness fades with the time of year [days] and the surface temperature [°C]. Common practice, figures ours.
SEASON_DAYS = 30.0
WARMTH_C = 2.5
UNREAD_WARMTH = 0.6
OTHER_WATER = 0.5
LIKE_PLACE, OTHER_PLACE = 0.5, 0.25
YEAR_DAYS = 365.25
# Takes the log must bring before it weighs as much as the mean of all of it (gamma prior's shape). Our figure.
PRIOR_TAKES = 4.0
LEAST_SPREAD_M = 0.35
P10_TO_P90 = 2.563  # standard deviations between the tenth and ninetieth percentile of a normal distribution


@dataclass(frozen=True)
class PastStretch:
    """A stretch of fishing from the log: when, how long [h], what came, how deep the point fly was [m], and the conditions.

    `low_m` and `high_m` are the band of that depth [m] where it is known; `surface_c` the surface temperature that day
    [°C]; `flies` what was tied on, `taken_on` the flies that were taken where that is known, once a take.
    """

    on: date
    fished_h: Annotated[float, Ge(0), Le(24), Said("hours fished")]
    takes: Annotated[int, Ge(0), Le(500), Said("takes felt or hooked")]
    depth_m: Depth | None = None
    low_m: Depth | None = None
    high_m: Depth | None = None
    method: Annotated[str, MaxLen(20)] = "other"
    place: Annotated[str, MaxLen(80)] = ""
    place_kind: PlaceKind | None = None
    surface_c: Annotated[float | None, Ge(-1), Le(40)] = None
    same_water: bool = True
    flies: Annotated[tuple[Name, ...], MaxLen(10)] = ()
    taken_on: Annotated[tuple[Name, ...], MaxLen(500), Said("the fly of each take, where known")] = ()

    def __post_init__(self) -> None:
        """Refuse a band upside down. Raises ValueError."""
        if self.low_m is not None and self.high_m is not None and self.low_m > self.high_m:
            raise ValueError("the shallow edge of the band must not be deeper than the deep one")

    @property
    def spread_m(self) -> float:
        """How unsure the depth is, as a standard deviation [m], never below 0.35."""
        if self.low_m is None or self.high_m is None:
            return LEAST_SPREAD_M
        return max(LEAST_SPREAD_M, abs(self.high_m - self.low_m) / P10_TO_P90)


class Past(Protocol):
    """Something of an earlier day: when, the surface then [°C], and whether on the same water."""

    @property
    def on(self) -> date:
        """The day."""

    @property
    def surface_c(self) -> float | None:
        """The surface that day [°C], None where it was not read."""

    @property
    def same_water(self) -> bool:
        """Whether it was on the water asked about."""


def likeness(past: Past, today: date, surface_c: float | None) -> float:
    """Return how like today an earlier day was, 0 to 1: time of year, surface temperature [°C], the same water.

    Gaussian in the days between (round the year, 30 days) and in degrees (2.5 °C; 0.6 where one was not read); another
    water counts half. Common practice, figures ours.
    """
    days = abs((today - past.on).days) % YEAR_DAYS
    apart = min(days, YEAR_DAYS - days)
    season = math.exp(-0.5 * (apart / SEASON_DAYS) ** 2)
    if past.surface_c is None or surface_c is None:
        warmth = UNREAD_WARMTH
    else:
        warmth = math.exp(-0.5 * ((past.surface_c - surface_c) / WARMTH_C) ** 2)
    return season * warmth * (1.0 if past.same_water else OTHER_WATER)


def place_likeness(past: PastStretch, place: str, kind: str) -> float:
    """Return how much a stretch says about a place: 1 at the place itself, half at one of its kind, else a quarter."""
    if past.same_water and past.place == place:
        return 1.0
    return LIKE_PLACE if past.place_kind == kind else OTHER_PLACE


def shrunk_rate(takes: float, hours: float, mean_rate: float, prior_takes: float = PRIOR_TAKES) -> float:
    """Return a rate [1/h] from (weighted) takes and hours, shrunk towards `mean_rate` [1/h].

    The posterior mean of a Poisson rate with a gamma prior of shape `prior_takes` and mean `mean_rate` (the conjugate
    pair; Gelman et al., Bayesian Data Analysis). Without effort it is the mean; with much, the raw rate. Raises ValueError
    unless the mean rate is positive.

    >>> shrunk_rate(0, 0, 1.5)
    1.5
    """
    if not mean_rate > 0:
        raise ValueError("the mean rate must be positive")
    return (takes + prior_takes) / (hours + prior_takes / mean_rate)


@dataclass(frozen=True)
class Likened:
    """The stretches of the log with how like today each was, and their weighted sums: takes, hours and mean rate [1/h]."""

    stretches: tuple[PastStretch, ...]
    weights: tuple[float, ...]
    takes: float
    hours: float

    @property
    def mean_rate(self) -> float:
        """Takes an hour over all of it, half a take in an hour added so that blank days have a rate too."""
        return (self.takes + 0.5) / (self.hours + 1.0)


def liken(stretches: tuple[PastStretch, ...], today: date, surface_c: float | None) -> Likened:
    """Return the log weighed by its likeness to today; surface temperature in °C, None where not read."""
    weights = tuple(likeness(one, today, surface_c) for one in stretches)
    both = list(zip(weights, stretches, strict=True))
    return Likened(stretches, weights, sum(w * s.takes for w, s in both), sum(w * s.fished_h for w, s in both))


def rate_over_depth(
    like: Likened, depths_m: NDArray[np.float64], place: str, kind: str
) -> tuple[NDArray[np.float64], NDArray[np.float64]]:
    """Return the shrunk take rate [1/h] at depths [m] of a place, and the weighted hours fished about each.

    A stretch counts at the depths its fly may have been (Gaussian, at least 0.35 m), and for this place by
    `place_likeness`; one of unknown depth counts nowhere.
    """
    takes, hours = np.zeros_like(depths_m), np.zeros_like(depths_m)
    for weight, one in zip(like.weights, like.stretches, strict=True):
        if one.depth_m is None:
            continue
        about = np.exp(-0.5 * ((depths_m - one.depth_m) / one.spread_m) ** 2)
        share = weight * place_likeness(one, place, kind) * about
        takes += share * one.takes
        hours += share * one.fished_h
    mean = like.mean_rate
    rate = (takes + PRIOR_TAKES) / (hours + PRIOR_TAKES / mean)
    return np.asarray(rate, dtype=np.float64), hours


def fly_record(like: Likened, names: tuple[str, ...]) -> dict[str, float]:
    """Return for each fly how its take rate stands to the mean of flies fished, shrunk; 1 where the log says nothing.

    A take whose fly was not noted is shared among the flies tied on. Evidence of single flies is thin, so the mean
    counts twice as many takes as for depths.
    """
    takes = dict.fromkeys(names, 0.0)
    hours = dict.fromkeys(names, 0.0)
    for weight, one in zip(like.weights, like.stretches, strict=True):
        unnamed = max(0, one.takes - len(one.taken_on))
        for name in one.flies:
            if name in takes:
                takes[name] += weight * (one.taken_on.count(name) + unnamed / len(one.flies))
                hours[name] += weight * one.fished_h
    fished = sum(hours.values())
    mean = (sum(takes.values()) + 0.5) / (fished + 1.0)
    return {name: shrunk_rate(takes[name], hours[name], mean, 2 * PRIOR_TAKES) / mean for name in names}
