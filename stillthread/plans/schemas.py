"""What the plans' API takes and gives."""

from __future__ import annotations

import uuid
from datetime import datetime
from typing import Annotated

from pydantic import AwareDatetime, Field

from stillthread.core.noted.turned import Turn
from stillthread.documents.plan import Day
from stillthread.documents.plan_answer import PlanAnswer
from stillthread.documents.strict import Strict


class PlanBody(Day):
    """What the angler read, for one of their waters; kit, rules and reach are the server's."""

    water_id: uuid.UUID


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


class TurnBody(Strict):
    """How the day turned, as a reading under the client's UUID."""

    reading_id: uuid.UUID
    turn: Turn


class StartBody(Strict):
    """Start fishing a set-up of a kept plan; the client makes the UUIDs."""

    outing_id: uuid.UUID
    spell_id: uuid.UUID
    set_up: int = Field(ge=0, le=20)
    started_at: AwareDatetime
