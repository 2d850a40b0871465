"""What the plans' API takes and gives."""

from __future__ import annotations

import uuid
from datetime import datetime
from typing import Annotated

from pydantic import AwareDatetime, Field

from stillthread.documents.day_contract import Aim, ComparedIn, FactorName, HandMadeIn
from stillthread.documents.plan_contract import PlanAnswer
from stillthread.documents.strict import Strict
from stillthread.documents.water_contract import ReadingIn, SampleIn, SightingIn


class PlanBody(Strict):
    """What the angler read, for one of their waters; kit, rules and reach are the server's."""

    water_id: uuid.UUID
    when: AwareDatetime
    place: str | None = Field(None, max_length=80)
    reading: ReadingIn = ReadingIn()
    sightings: list[SightingIn] = Field(default=[], max_length=60)
    samples: list[SampleIn] = Field(default=[], max_length=40)
    aim: Aim = "most"
    session_h: float = Field(4.0, ge=0.5, le=18)
    without: list[FactorName] = Field(default=[], max_length=10)
    found_m: float | None = Field(None, ge=0, le=300)
    by_hand: list[HandMadeIn] = Field(default=[], max_length=4)
    compared_with: ComparedIn | None = None


class AnswerOut(Strict):
    """One answer to a question anglers disagree on."""

    key: str
    words: str


class QuestionOut(Strict):
    """A question anglers answer differently, its answers with the default first, and what the default does."""

    key: str
    words: str
    answers: list[AnswerOut]
    default_words: str


class SchoolsOut(Strict):
    """Every school setting and every aim of a day, in words."""

    questions: list[QuestionOut]
    aims: list[AnswerOut]


class PlanOut(Strict):
    """A kept plan."""

    id: uuid.UUID
    water_id: uuid.UUID
    when: datetime
    answer: PlanAnswer


class CalendarBody(Strict):
    """What the calendar entry says, line by line, as the angler reads it."""

    lines: list[Annotated[str, Field(max_length=600)]] = Field(min_length=1, max_length=40)


class StartBody(Strict):
    """Start fishing a set-up of a kept plan; the client makes the UUIDs."""

    outing_id: uuid.UUID
    spell_id: uuid.UUID
    set_up: int = Field(ge=0, le=20)
    started_at: AwareDatetime
