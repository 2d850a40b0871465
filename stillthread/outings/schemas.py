"""What the outings' API takes and gives."""

from __future__ import annotations

import uuid
from datetime import datetime, timedelta
from typing import Literal

from pydantic import Field, model_validator

from stillthread.core import vocabulary
from stillthread.core.limits import Depth
from stillthread.documents.plan_answer import PlanAnswer
from stillthread.documents.strict import Hundredths, Strict, Tenths, Whole
from stillthread.web.dates import Kept

Kind = Literal["take", "pluck", "follow", "lost", "landed", "weed", "bottom", "blank"]
Phase = Literal["", "drop", "first-pull", "retrieve", "pause", "hang", "float"]
Pace = Literal[vocabulary.Pace, "drift"]
Method = Literal["dry", "nymphs", "float", "sink-tip", "intermediate", "sinking", "other"]


# A day's plan grows by the set-ups of every plan that is gone over to.
MOST_SET_UPS = 200


LONGEST_SPELL = timedelta(days=1)
LONGEST_TRIP = timedelta(days=14)


def _in_order(start: datetime, end: datetime | None, longest: timedelta) -> None:
    if end is not None and end < start:
        raise ValueError("it ends before it starts")
    if end is not None and end - start > longest:
        days = longest.days
        raise ValueError(f"it lasts longer than {'a day' if days == 1 else f'{days} days'}")


class OutingBody(Strict):
    """An outing as the client writes it."""

    water_id: uuid.UUID
    started_at: Kept
    ended_at: Kept | None = None
    note: str = Field("", max_length=4000)

    @model_validator(mode="after")
    def _order(self) -> OutingBody:
        _in_order(self.started_at, self.ended_at, LONGEST_TRIP)
        return self


class SpellHow(Strict):
    """How a spell is fished, apart from when. Depth is the point fly's, as planned or set."""

    place: str = Field("", max_length=80)
    method: Method
    title: str = Field(min_length=1, max_length=120)
    line_title: str = Field("", max_length=120)
    depth_m: Depth | None = None
    low_m: Depth | None = None
    high_m: Depth | None = None
    count_s: int | None = Field(None, ge=0, le=600)
    pace: Pace = "static"
    flies: list[str] = Field(default=[], max_length=10)
    set_up_index: int | None = Field(None, ge=0, le=MOST_SET_UPS)


class SpellBody(SpellHow):
    """A spell as the client writes it."""

    started_at: Kept
    ended_at: Kept | None = None

    @model_validator(mode="after")
    def _order(self) -> SpellBody:
        _in_order(self.started_at, self.ended_at, LONGEST_SPELL)
        return self


class EventBody(Strict):
    """An event as the client writes it."""

    spell_id: uuid.UUID
    kind: Kind
    phase: Phase = ""
    occurred_at: Kept
    t_s: float | None = Field(None, ge=0, le=7200, description="seconds on the countdown clock")
    depth_m: Depth | None = None
    low_m: Depth | None = None
    high_m: Depth | None = None
    fly: str = Field("", max_length=80)
    species: Literal["", "rainbow", "brown", "brook"] = ""
    length_m: float | None = Field(None, gt=0, le=1.5)
    weight_kg: float | None = Field(None, gt=0, le=30, description="as weighed")
    released: bool | None = None
    note: str = Field("", max_length=400)


class SeenBody(Strict):
    """What was seen of others fishing near; what is not known is left out."""

    seen_at: Kept
    minutes: float = Field(gt=0, le=600)
    takes: int = Field(ge=0, le=100)
    place: str = Field("", max_length=80)
    depth_m: Depth | None = None
    pace: vocabulary.Pace | None = None
    fly: str = Field("", max_length=80)


class SeenOut(SeenBody):
    """A stored sighting of others."""

    id: uuid.UUID
    revision: int


class PhotoBody(Strict):
    """A photo of an outing as the client writes it; its picture follows."""

    shows: Literal["fish", "fly", "water", "sounder"]
    taken_at: Kept
    depth_m: Depth | None = None
    note: str = Field("", max_length=400)


class PhotoOut(PhotoBody):
    """A stored photo, and whether its picture has arrived."""

    id: uuid.UUID
    revision: int
    arrived: bool


class DriftOut(Strict):
    """How the boat drifted in a stretch: how far it was followed, how fast, and towards which of eight points."""

    spell_id: uuid.UUID
    metres: float
    speed_m_s: float
    towards: str


class TrackOut(Strict):
    """The boat's recorded track of an outing, and the drift of each stretch it covers."""

    points: int
    from_at: datetime
    to_at: datetime
    drifts: list[DriftOut]


class SpellOut(SpellBody):
    """A stored spell."""

    id: uuid.UUID
    revision: int


class EventOut(EventBody):
    """A stored event; of a measured fish what it should weigh, and its condition where it was weighed."""

    id: uuid.UUID
    revision: int
    standard_kg: Hundredths | None = Field(None, description="of a fish of its length in good condition")
    fulton: Hundredths | None = None
    relative_weight: Whole | None = Field(None, description="percent of the standard weight")


class RateOut(Strict):
    """A count in hours of effort: rate per hour with its exact 95 % interval, or None without effort."""

    count: int
    hours: float
    per_hour: float | None
    low: float | None
    high: float | None


class DepthBinOut(Strict):
    """Effort and takes between two depths."""

    top_m: float
    bottom_m: float
    hours: float
    takes: RateOut
    landed: int


class OutingSummary(Strict):
    """An outing in the list."""

    id: uuid.UUID
    water_id: uuid.UUID
    water_name: str
    time_zone: str
    started_at: datetime
    ended_at: datetime | None
    hours: float
    takes: int
    landed: int
    plucks: int
    methods: list[str]
    note: str
    surface_c: Tenths | None = Field(None, description="read on its day; null where it was not")
    wind_m_s: Tenths | None = None
    wind: str = Field("", description="where the wind came from, of eight points; empty where it was not read")


class RunningOut(Strict):
    """The outing on the go, or None; what is fished, by its title."""

    outing: OutingSummary | None
    title: str = ""


class OutingOut(OutingSummary):
    """An outing with everything in it, and its plan as frozen when it started, or when it was last gone over to."""

    revision: int
    max_depth_m: float
    longest_fight_s: float = Field(description="a fish landed or lost this soon after a take is that take")
    plan_id: uuid.UUID | None
    plan: PlanAnswer | None
    starts: list[SpellHow] = Field(description="how each set-up of the plan is begun, in their order")
    plan_lost: bool = Field(False, description="a plan of an older version that can no longer be read")
    spells: list[SpellOut]
    events: list[EventOut]
    photos: list[PhotoOut] = []
    landed_rate: RateOut
    takes_rate: RateOut
    by_depth: list[DepthBinOut]


class BesideOut(SpellHow):
    """A stretch the other angler of a shared outing has fished, and what came of it."""

    started_at: datetime
    ended_at: datetime | None
    takes: int
    plucks: int


class TogetherOut(Strict):
    """How an outing is shared: its code while somebody can join, the other angler, and what that one has fished."""

    code: str = Field("", description="empty where it is another's outing, or no longer open")
    own: bool = Field(description="whether it is the reader who shares it")
    open: bool = Field(description="whether the two still see what is new of each other")
    ends_at: datetime
    ended_at: datetime | None
    name: str = Field("", description="the other angler; empty where nobody has joined")
    joined_at: datetime | None
    spells: list[BesideOut]


class JoinBody(Strict):
    """A code told by the angler who shares, and the client's UUID for one's own outing."""

    code: str = Field(min_length=1, max_length=40)
    outing_id: uuid.UUID


class JoinedOut(Strict):
    """One's own outing beside the other's: it may be one that was on the go."""

    outing_id: uuid.UUID
    water_id: uuid.UUID
    name: str


class LogOut(Strict):
    """What the log says over all outings asked for."""

    outings: list[OutingSummary]
    count: int = Field(description="how many outings there are of those asked for; the newest are listed")
    landed_rate: RateOut
    takes_rate: RateOut
    by_depth: list[DepthBinOut]
    blank_outings: int
