"""What the thread bench asks beside a simulation: tables, builds, leaders, floats, calibration, kept rigs."""

from __future__ import annotations

import uuid
from typing import Literal

from pydantic import Field

from stillthread.core.limits import Name
from stillthread.core.tackle.fly_build import FlyBuild
from stillthread.core.tackle.leader_cut import LeaderStyle
from stillthread.core.tackle.leaders import Material
from stillthread.documents.strict import Strict
from stillthread.documents.thread.simulate_contract import PieceDoc, SimulateRequest


class TableRequest(Strict):
    """Which counts reach which depths with this rig, and how deep it runs at this pace afterwards."""

    rig: SimulateRequest
    depths_m: list[float] = Field(default=[1, 2, 3, 4, 5, 6, 8, 10], min_length=1, max_length=40)
    trolling: bool = False


class CountRowOut(Strict):
    """Seconds to count to a depth: middle, soonest, latest (10–90 %); null where it is not reached in 3 minutes."""

    depth_m: float
    count_s: float | None
    soonest_s: float | None
    latest_s: float | None
    line_m: float | None
    runs_mean_m: float | None = Field(description="mean depth of the retrieve after that count, at the rig's pace")
    runs_min_m: float | None
    runs_max_m: float | None


class TrollingOut(Strict):
    """Steady depth of the point fly by speed (rows) and length out (columns); null where that length cannot be out."""

    speeds_m_s: list[float]
    out_m: list[float]
    depth_m: list[list[float | None]]


class TableAnswer(Strict):
    """The countdown table, and trolling depths if asked for."""

    rows: list[CountRowOut]
    trolling: TrollingOut | None


class BuildRequest(Strict):
    """A build to be added up."""

    build: FlyBuild


class FlyPart(Strict):
    """One part of a build and its weight in water."""

    part: str
    submerged_g: float


class FlyBuildAnswer(Strict):
    """A build added up: weight in water, sink speed, and the parts with what is assumed of them."""

    submerged_g: float
    sink_m_s: float
    parts: list[FlyPart]
    assumptions: str


class LeaderRequest(Strict):
    """A wanted leader."""

    style: LeaderStyle
    length_m: float
    x_size: int = Field(3, ge=0, le=8)
    flies: int = Field(1, ge=1, le=5)


class CutOut(Strict):
    """One piece of the cut list: length when tied, and what to cut with its knots."""

    part: str
    length_m: float
    cut_m: float
    x_size: int | None
    diameter_mm: float | None
    material: Material


class LeaderAnswer(Strict):
    """The cut list, the level pieces to simulate it with, where the flies sit and where a float goes."""

    cuts: list[CutOut]
    pieces: list[PieceDoc]
    flies_at_m: list[float]
    float_at_m: float | None
    length_m: float


class FloatCheckAnswer(Strict):
    """Landing and load of a float rig for this angler's rod, arm and net."""

    hang_m: float
    limit_m: float
    can_land: bool
    load_g: float
    load_share: float
    slides: bool | None
    needed_g: float
    mark_from_point_m: float
    farthest_cast_m: float
    rod_m: float
    arm_m: float
    net_m: float
    advice: list[str]


class CalibrateRequest(Strict):
    """A timed metre of slack level line, or a timed fly; with a rig, how its band narrows."""

    what: Literal["line", "fly"]
    distance_m: float = Field(gt=0, le=20)
    seconds: float = Field(gt=0, le=600)
    repeats: int = Field(1, ge=1, le=20)
    rig: SimulateRequest | None = None


class BandPair(Strict):
    """Depth of the point fly after `at_s` of sinking: middle and 10–90 % band."""

    at_s: float
    depth_m: float
    p10_m: float
    p90_m: float


class CalibrateAnswer(Strict):
    """The measured speed, its doubt, and the band before and after."""

    speed_m_s: float
    doubt: float
    label_ratio: float | None = Field(description="measured rate against the label")
    before: BandPair | None
    after: BandPair | None
    rig: SimulateRequest | None
    sentence: str


class CheckRequest(Strict):
    """A moment seen on the water: the bottom felt, or the float cocked, so many seconds after landing."""

    what: Literal["bottom", "cocked"]
    seen_s: float = Field(ge=0, le=900)
    rig: SimulateRequest


class CheckAnswer(Strict):
    """What that moment says about the rig as entered."""

    expected_s: float | None
    soonest_s: float | None
    latest_s: float | None
    agrees: bool
    sentence: str


class RigBody(Strict):
    """A rig kept under a name."""

    name: Name
    document: SimulateRequest


class RigOut(RigBody):
    """A kept rig."""

    id: uuid.UUID
