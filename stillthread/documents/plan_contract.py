"""The plan document: what `./still plan` reads and prints, and what the API speaks. Mirrors docs/contracts."""

from __future__ import annotations

from typing import Literal

from pydantic import AwareDatetime, Field, model_validator

from stillthread.documents.day_contract import (
    Aim,
    ComparedIn,
    FactorName,
    HandMadeIn,
    Method,
    PastStretchIn,
    RetrieveKey,
    SchoolsIn,
)
from stillthread.documents.fly_contract import FlyBuildDoc, Tone, Weight
from stillthread.documents.simulate_contract import DensityProfile, LineFamily, SimulateRequest
from stillthread.documents.strict import Name, Share, Strict
from stillthread.documents.water_contract import Prey, ReadingIn, SampleIn, SightingIn, WaterIn

Release = Literal["catch-and-release", "kill", "either", "unknown"]


class AnglerIn(Strict):
    """The angler's own limits."""

    rod_m: float = Field(2.9, ge=1.5, le=5)
    net_m: float = Field(0.6, ge=0, le=4, description="how far the net reaches from the hand")
    arm_m: float = Field(0.6, ge=0, le=1.2)
    cast_m: float = Field(18.0, ge=3, le=45, description="comfortable cast")
    afloat: bool = False
    rods: int = Field(1, ge=1, le=4, description="rods that can stand rigged beforehand")
    methods: list[Method] = Field(
        default=["dry", "nymphs", "float", "sink-tip", "intermediate", "sinking"], max_length=6, description="wanted"
    )


class LineIn(Strict):
    """A fly line in the kit; the rate is the one on the box, in inches per second."""

    key: Name
    family: LineFamily
    label_ips: float = Field(0.0, ge=0, le=10)
    weight_class: int = Field(7, ge=3, le=9)
    tip_length_m: float = Field(0.0, ge=0, le=10)
    name: str = Field("", max_length=80)
    measured_m_s: float | None = Field(None, ge=0.003, le=0.5, description="timed on a slack level piece")
    density_profile: DensityProfile = "level"

    @model_validator(mode="after")
    def _rate_fits(self) -> LineIn:
        if self.family == "floating" and self.label_ips != 0:
            raise ValueError("a floating line has no sink rate: leave label_ips at 0")
        if self.family != "floating" and self.label_ips < 0.3:
            raise ValueError("a sinking line needs its rate in inches per second, 0.3 or more")
        if self.family == "sink-tip" and self.tip_length_m <= 0:
            raise ValueError("a sink tip needs its tip_length_m")
        return self


class FlyIn(Strict):
    """A fly in the box."""

    key: Name
    name: Name
    prey: list[Prey] = Field(min_length=1, max_length=8)
    hooks: list[int] = Field(min_length=1, max_length=8, description="hook sizes carried")
    tone: Tone
    weight: Weight
    surface: bool = False
    stock: int | None = Field(None, ge=0, le=10000, description="how many are in the box; left out = not counted")
    build: FlyBuildDoc | None = Field(None, description="what it is tied with; left out = usual for its weight class")


class RulesIn(Strict):
    """The water's rules as the angler read them."""

    max_flies: int | None = Field(None, ge=1, le=10)
    barbless: bool | None = None
    floats_allowed: bool | None = None
    droppers_allowed: bool | None = None
    sinking_lines_allowed: bool | None = None
    release: Release = "unknown"
    stop_above_c: float | None = Field(None, ge=5, le=30)


class TackleIn(Strict):
    """What is on the reels."""

    lines: list[LineIn] = Field(min_length=1, max_length=60)


class PlanRequest(Strict):
    """A whole day: what `./still plan` reads."""

    version: Literal[1] = 1
    when: AwareDatetime = Field(description="RFC 3339 with the water's own offset")
    water: WaterIn
    place: str | None = Field(None, max_length=80, description="name of the place; left out = the best one")
    reading: ReadingIn = ReadingIn()
    sightings: list[SightingIn] = Field(default=[], max_length=60)
    samples: list[SampleIn] = Field(default=[], max_length=40)
    angler: AnglerIn = AnglerIn()
    tackle: TackleIn
    flies: list[FlyIn] = Field(min_length=1, max_length=2000)
    rules: RulesIn = RulesIn()
    schools: SchoolsIn = SchoolsIn()
    aim: Aim = "most"
    session_h: float = Field(4.0, ge=0.5, le=18, description="how long it is fished")
    own_log: list[PastStretchIn] = Field(default=[], max_length=2000)
    without: list[FactorName] = Field(default=[], max_length=10, description="factors that count for nothing")
    found_m: float | None = Field(None, ge=0, le=300, description="a depth found today by one method")
    by_hand: list[HandMadeIn] = Field(default=[], max_length=4)
    compared_with: ComparedIn | None = None


class BandOut(Strict):
    """A run of depths holding a share of the belief."""

    share: Share
    top_m: float
    bottom_m: float


class FactorOut(Strict):
    """One factor of the belief; `log_weight` per cell, `known` false where it is flat or guessed, `off` where switched off.

    `moves_share` is how much of all belief it moves; `without_*` half the belief at the place, and the likeliest place,
    with it neutral (given for the place planned for).
    """

    name: str
    sentence: str
    known: bool
    log_weight: list[float]
    off: bool = False
    moves_share: Share | None = None
    without_top_m: float | None = None
    without_bottom_m: float | None = None
    without_place: str | None = None


class PlaceBeliefOut(Strict):
    """Belief at one place: mass per 0.1 m cell (all places sum to 1), bands, and the factors that add up to it."""

    place: str
    kind: str
    bed_m: float
    share: float
    peak_m: float
    depths_m: list[float]
    mass: list[float]
    log_score: list[float]
    bands: list[BandOut]
    factors: list[FactorOut]


class BeliefOut(Strict):
    """Belief over all places, and the one planned for."""

    chosen: str
    places: list[PlaceBeliefOut]


class CurvePoint(Strict):
    """One point of the curve."""

    depth_m: float
    temperature_c: float


class CurveOut(Strict):
    """The temperature curve at the place; guessed below `measured_to_m`."""

    points: list[CurvePoint]
    measured_to_m: float


class PreyOut(Strict):
    """A food and its share now, with the share by season alone."""

    key: str
    name: str
    share: float
    season_share: float
    about: str


class WaterMeaning(Strict):
    """What the water means today."""

    temperature: CurveOut | None
    thermocline_m: float | None
    thermocline_top_m: float | None
    thermocline_bottom_m: float | None
    sun_elevation_deg: float
    light_surface: float
    light_comfort_m: float
    secchi_m: float
    beaufort: int | None
    downwind_shore: str | None
    behaviour: str | None
    approach: str | None
    welfare: str | None
    welfare_sentence: str | None
    food: list[PreyOut]


class SectionOut(Strict):
    """One piece of the cut list."""

    part: str
    length_m: float
    x_size: int | None
    diameter_mm: float | None
    material: str


class PlacedFlyOut(Strict):
    """A fly at its position on the leader; depth where it is computed."""

    key: str
    name: str
    position: str
    hook: int
    from_line_m: float
    depth_m: float | None
    why: str = ""


class RetrieveOut(Strict):
    """How to bring it back."""

    kind: str
    words: str
    speed_m_s: float
    pull_m: float | None
    pause_s: float | None
    key: str = ""


class DepthAtOut(Strict):
    """Where the point fly is `t_s` seconds after the line lands: estimate (None where none is made) and band."""

    t_s: float
    depth_m: float | None
    low_m: float | None
    high_m: float | None
    touching: bool


class ReasonOut(Strict):
    """A reason and the factor it belongs to."""

    factor: str
    sentence: str


class CautionOut(Strict):
    """Something to mind."""

    code: str
    level: Literal["note", "caution", "stop"]
    sentence: str


class RuledOutOut(Strict):
    """Something not offered, and why."""

    what: str
    kind: Literal["rule", "kit", "depth", "landing", "warmth", "not-computed"]
    reason: str
    by_hand: int | None = Field(None, description="number of the hand-made set-up it was")


class RungOut(Strict):
    """One step of the search, in the order to try them."""

    count_s: int | None
    float_hang_m: float | None
    depth_m: float


class TraceOut(Strict):
    """The path of one fly through a cast, for a picture."""

    position: str
    t_s: list[float]
    depth_m: list[float]


class NextFlyOut(Strict):
    """A fly to put on next, and what it is against the one on now."""

    name: str
    why: str


class ChangesOut(Strict):
    """What to change, one thing at a time, in order."""

    plucks: list[str]
    follows: list[str]
    nothing: list[str]
    next_flies: list[NextFlyOut] = []
    next_paces: list[RetrieveKey] = []


class ExpectedOut(Strict):
    """Takes an hour by the own log's like days, with the 95 % interval, and over the session."""

    takes_per_h: float
    low_per_h: float
    high_per_h: float
    session_takes: float


class PairOut(Strict):
    """Starts for two anglers: numbers of two set-ups, and why these."""

    first: int
    second: int
    why: str


class SetUpOut(Strict):
    """A set-up with the numbers to do it."""

    method: Method
    title: str
    line_key: str
    line_title: str
    leader: list[SectionOut]
    leader_length_m: float
    flies: list[PlacedFlyOut]
    place: str
    target_m: float
    low_m: float
    high_m: float
    estimate_m: float | None
    count_s: int | None
    float_hang_m: float | None
    float_kind: Literal["fixed", "release", "sliding"] | None
    retrieve: RetrieveOut
    cast_m: float
    relative: float
    sink_table: list[DepthAtOut]
    depth_note: str
    reasons: list[ReasonOut]
    watch_for: str
    cautions: list[CautionOut]
    fallback: str
    runs_top_m: float | None = Field(None, description="shallowest the point fly runs while it is fished")
    runs_bottom_m: float | None = Field(None, description="deepest it runs")
    simulate: SimulateRequest | None = Field(None, description="the same rig and cast for ./still simulate")
    key: str = Field("", description="names the set-up within the plan")
    style: str = Field("team", description="the way within the method")
    rigging_s: float | None = Field(None, description="seconds to tie it on")
    rod: int | None = Field(None, description="the rod it stands rigged on")
    stance: str = ""
    ladder: list[RungOut] = []
    changes: ChangesOut | None = None
    expected: ExpectedOut | None = None
    by_hand: int | None = Field(None, description="number of the hand-made set-up it is")
    tracks: list[TraceOut] = []


class PlanAnswer(Strict):
    """What `./still plan` prints."""

    version: Literal[1] = 1
    belief: BeliefOut
    water: WaterMeaning
    set_ups: list[SetUpOut]
    ruled_out: list[RuledOutOut]
    cautions: list[CautionOut]
    guessed: list[str]
    pair: PairOut | None = None
    changed: list[str] | None = Field(None, description="what is another than in the plan it is compared with")
    moved_by: list[str] = Field(default=[], description="what was read otherwise, and what moved the depth")
