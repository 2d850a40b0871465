"""What the kit's API takes and gives about flies."""

from __future__ import annotations

import uuid

from pydantic import Field

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
