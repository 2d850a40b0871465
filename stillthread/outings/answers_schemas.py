"""What the log is asked, and what it answers."""

from __future__ import annotations

import uuid
from datetime import date
from typing import Literal

from pydantic import Field

from stillthread.core.sky.wind import Point
from stillthread.documents.strict import Hundredths, Strict, Tenths, ThreeFigures
from stillthread.outings.schemas import RateOut

By = Literal[
    "water", "place", "month", "time", "sun", "light", "depth", "surface", "at_fly", "layer", "wind", "method", "line", "pace", "fly",
    "prey", "tone", "phase",
]  # fmt: skip


class LogFilter(Strict):
    """Which outings: of a water, a month, near a surface temperature [°C], a wind; with words in what was noted."""

    water_id: uuid.UUID | None = None
    month: int | None = Field(None, ge=1, le=12)
    surface_c: float | None = Field(None, ge=-2, le=40)
    wind: Point | Literal[""] = ""
    q: str = Field("", max_length=100)


class AskedLog(LogFilter):
    """How many of the outings are listed, newest first."""

    most: int = Field(100, ge=1, le=1000)


class AskedBy(LogFilter):
    """Sorted by what."""

    by: By = "depth"


class AskedBehind(AskedBy):
    """The group whose outings are wanted, by its key."""

    key: str = Field(min_length=1, max_length=120)


class AskedPair(AskedBy):
    """Two of what it is sorted by, by their keys, and what they are called."""

    a: str = Field(min_length=1, max_length=120)
    b: str = Field(min_length=1, max_length=120)
    a_name: str = Field("", max_length=120)
    b_name: str = Field("", max_length=120)


class GroupOut(Strict):
    """Effort and takes of one of them."""

    key: str
    takes: RateOut
    landed: int


class FishOut(Strict):
    """Fish of one length that were landed: whole centimetres, null where it was not measured; how many, and how many of them
    went back, or were kept.
    """

    length_cm: int | None
    count: int
    returned: int
    kept: int


class CaughtOut(Strict):
    """The fish of one species, empty where it was not noted, by length."""

    species: Literal["", "rainbow", "brown", "brook"]
    count: int
    returned: int
    kept: int
    sizes: list[FishOut]


class AnswersOut(Strict):
    """The log by what was asked; `step` is how wide one of its steps is: metres, degrees Celsius, hours. 0 for what has none."""

    by: By
    step: float
    groups: list[GroupOut]


class ComparedOut(Strict):
    """The rate of a over that of b within outings, its 95 % interval, and what it says."""

    ratio: ThreeFigures | None
    low: ThreeFigures | None
    high: ThreeFigures | None
    outings: int
    sure: bool
    more_hours: ThreeFigures | None
    sentence: str


class PlanPointOut(Strict):
    """Of a share of the plans' belief, from its likeliest depths on: the share of takes seen there with its 95 % interval,
    and that of the hours fished there.
    """

    share: float
    seen: ThreeFigures
    low: ThreeFigures
    high: ThreeFigures
    fished: ThreeFigures


class HelpedOut(Strict):
    """By how much a factor told takes from effort [nats a take], with its 95 % interval: above 0 it helped."""

    name: str
    per_take: ThreeFigures
    low: ThreeFigures
    high: ThreeFigures


class LearntOut(Strict):
    """What the own takes teach of one of the plan's figures: the setting it could become, and whether that is clear."""

    key: Literal["notice", "warmer_c"]
    value: float
    clear: bool
    sentence: str


class ExpectedSeenOut(Strict):
    """Takes of an outing as its plan's set-ups expected them by the log before it, for the time they were fished, and as they came."""

    outing_id: uuid.UUID
    on: date
    expected: Hundredths
    seen: int


class PlanCheckOut(Strict):
    """How the takes of planned outings lay against their plans."""

    outings: int
    takes: int
    points: list[PlanPointOut]
    factors: list[HelpedOut]
    sentence: str
    learnt: list[LearntOut]
    expected: list[ExpectedSeenOut] = Field(description="the newest outings with a plan that expected something")
    expected_sentence: str


class AskedSeason(Strict):
    """A water, and a year of it."""

    water_id: uuid.UUID
    year: int = Field(ge=1970, le=2100)


class SeasonStretchOut(Strict):
    """A day's fishing at a depth: day of the year, metres, hours, takes."""

    day: Tenths
    depth_m: Hundredths
    hours: Hundredths
    takes: int


class IsothermOut(Strict):
    """A temperature through a year: runs of [day of the year, metres]."""

    temperature_c: float
    runs: list[list[tuple[Tenths, Hundredths]]]


class SeasonPictureOut(Strict):
    """A year on a water, by depth and day: what was fished, what came, and the lines of equal temperature."""

    year: int
    years: list[int] = Field(description="years with outings on this water")
    max_depth_m: float
    stretches: list[SeasonStretchOut]
    isotherms: list[IsothermOut]
