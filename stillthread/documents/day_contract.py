"""What the angler brings to a day's plan besides kit and rules: schools, aim, own log, set-ups put together by hand."""

from __future__ import annotations

from datetime import date
from typing import Literal

from pydantic import AwareDatetime, Field, model_validator

from stillthread.core.day.schools import BY_KEY
from stillthread.core.trout.factor import FACTOR_NAMES
from stillthread.documents.strict import Depth, Name, Strict
from stillthread.documents.water_contract import PlaceKind, ReadingIn, SampleIn, SightingIn

Aim = Literal["most", "biggest", "match"]
FactorName = Literal[FACTOR_NAMES]  # type: ignore[valid-type]
Method = Literal["dry", "nymphs", "float", "sink-tip", "intermediate", "sinking"]
RetrieveKey = Literal["static", "slow-hand-twist", "hand-twist", "strip-pause", "long-pull", "roly-poly"]


Style = Literal[
    "dry",
    "team",
    "buoyant-point",
    "sinking-leader",
    "float",
    "tip-deep",
    "flashy",
    "over-bed",
    "over-weed",
    "up-slope",
    "dangle",
    "drifted",
]


def _about(key: str) -> str:
    return f"{BY_KEY[key].words}; default: {BY_KEY[key].default_words}"


class SchoolsIn(Strict):
    """The angler's answers where anglers disagree; each default is stated."""

    search: Literal["likeliest", "top-down", "bottom-up"] = Field("likeliest", description=_about("search"))
    change_first: Literal["by-takes", "depth", "fly"] = Field("by-takes", description=_about("change_first"))
    moving: Literal["both", "static", "active"] = Field("both", description=_about("moving"))
    flies_on: Literal["searching", "single", "team"] = Field("searching", description=_about("flies_on"))
    tone: Literal["by-water", "bright", "natural"] = Field("by-water", description=_about("tone"))
    attractor_at: Literal["top", "point"] = Field("top", description=_about("attractor_at"))
    tippet: Literal["by-water", "fine", "stout"] = Field("by-water", description=_about("tippet"))
    very_cold: Literal["both", "small", "flashy"] = Field("both", description=_about("very_cold"))
    bottom_fish: Literal["by-food", "ignore", "crawl"] = Field("by-food", description=_about("bottom_fish"))
    sliding_float: Literal["by-weight", "never", "always"] = Field("by-weight", description=_about("sliding_float"))
    line_ladder: Literal["by-light", "tip-first", "dries-at-dawn", "deep-first"] = Field(
        "by-light", description=_about("line_ladder")
    )
    wind_shore: Literal["by-water", "onto", "off"] = Field("by-water", description=_about("wind_shore"))
    boat: Literal["by-method", "drift", "anchor"] = Field("by-method", description=_about("boat"))


class ReadBeforeIn(Strict):
    """What was read before, to be compared with."""

    when: AwareDatetime
    place: str | None = Field(None, max_length=80)
    reading: ReadingIn = ReadingIn()
    sightings: list[SightingIn] = Field(default=[], max_length=60)
    samples: list[SampleIn] = Field(default=[], max_length=40)


class ComparedIn(Strict):
    """Schools and aim as they were before one was switched, and what was read before: the answer then says what changed."""

    schools: SchoolsIn = SchoolsIn()
    aim: Aim = "most"
    read: ReadBeforeIn | None = None


class PastStretchIn(Strict):
    """A stretch of fishing from the angler's own log; blank ones count as much."""

    on: date
    fished_h: float = Field(ge=0, le=24, description="hours fished")
    takes: int = Field(ge=0, le=500, description="takes felt or hooked")
    depth_m: Depth | None = None
    low_m: Depth | None = None
    high_m: Depth | None = None
    method: str = Field("other", max_length=20)
    place: str = Field("", max_length=80)
    place_kind: PlaceKind | None = None
    surface_c: float | None = Field(None, ge=-1, le=40)
    same_water: bool = True
    flies: list[Name] = Field(default=[], max_length=10)
    taken_on: list[Name] = Field(default=[], max_length=500, description="the fly of each take, where known")

    @model_validator(mode="after")
    def _band(self) -> PastStretchIn:
        if self.low_m is not None and self.high_m is not None and self.low_m > self.high_m:
            raise ValueError("the shallow edge of the band must not be deeper than the deep one")
        return self


class HandMadeIn(Strict):
    """A set-up put together by hand; flies by key, top dropper first, point last. What is left out is worked out."""

    line: Name
    flies: list[Name] = Field(min_length=1, max_length=3)
    hooks: list[int | None] = Field(default=[], max_length=3)
    retrieve: RetrieveKey = "hand-twist"
    count_s: int | None = Field(None, ge=0, le=180)
    float_hang_m: float | None = Field(None, ge=0.2, le=12, description="point fly below the float")
    cast_m: float | None = Field(None, ge=3, le=45)
    style: Style = "team"
    leader_m: float | None = Field(None, ge=0.8, le=9, description="another length of leader")
    let_down_m: float | None = Field(None, ge=0.5, le=30, description="line let straight down under a boat")
