"""What the kit's API takes and gives about flies."""

from __future__ import annotations

import uuid

from pydantic import Field, model_validator

from stillthread.core.tackle.lines import DensityProfile, Family
from stillthread.core.tackle.lines import Line as CoreLine
from stillthread.documents.fly_contract import PatternDoc, SinkClass
from stillthread.documents.strict import Strict


class FlyBody(PatternDoc):
    """A fly as the client writes it."""


class FlyOut(PatternDoc):
    """A fly in the box: weight in water and sink speed at `sink_hook`, by its own build or the one usual for its weight."""

    id: uuid.UUID
    revision: int
    submerged_g: float
    sink_m_s: float
    sink_class: SinkClass
    sink_hook: int
    own_build: bool


class StarterFly(PatternDoc):
    """A pattern of the starter set."""

    key: str


class StarterIn(Strict):
    """Which starter patterns to add."""

    keys: list[str] = Field(min_length=1, max_length=100)


class TakenOut(Strict):
    """How many patterns were taken from a file."""

    taken: int


class LineBody(Strict):
    """A line as the client writes it."""

    name: str = Field("", max_length=80)
    family: Family
    label_ips: float = Field(0.0, ge=0, le=10)
    weight_class: int = Field(7, ge=3, le=9)
    tip_length_m: float = Field(0.0, ge=0, le=10)
    density_profile: DensityProfile = "level"
    measured_m_s: float | None = Field(None, ge=0.003, le=0.5)

    @model_validator(mode="after")
    def _holds_together(self) -> LineBody:
        CoreLine(key="line", **self.model_dump(include=set(LineBody.model_fields)))
        return self
