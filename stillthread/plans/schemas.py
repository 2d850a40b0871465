"""What the plans' API takes and gives."""

from __future__ import annotations

import uuid
from datetime import datetime
from typing import Annotated

from pydantic import AwareDatetime, Field, model_validator

from stillthread.core.food.seen import ThroatSample
from stillthread.core.noted.turned import Turn
from stillthread.documents.plan import Day
from stillthread.documents.plan_answer import PlanAnswer, SetUpOut
from stillthread.documents.strict import Strict
from stillthread.outings.schemas import SpellHow
from stillthread.web.dates import Kept


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


class KitWaysOut(Strict):
    """Every line of the kit with a fly of each weight, worked out for a day, and how each is begun."""

    set_ups: tuple[SetUpOut, ...]
    starts: list[SpellHow]


class PreviewOut(PlanAnswer):
    """A plan that is not kept, and how each of its set-ups is begun, in their order."""

    starts: list[SpellHow]
    longest_fight_s: float = Field(description="a fish landed or lost this soon after a take is that take")


class TurnBody(Strict):
    """How the day turned, as a reading under the client's UUID; the fish's throat with a turn that is a sample."""

    reading_id: uuid.UUID
    turn: Turn
    sample: ThroatSample | None = None
    at: Kept | None = Field(None, description="when it turned; left out, now")

    @model_validator(mode="after")
    def _sampled(self) -> TurnBody:
        if (self.turn == "sample") != (self.sample is not None):
            raise ValueError("a sample goes with the turn 'sample', and with no other")
        return self


class StartBody(Strict):
    """Start fishing a set-up of a kept plan; the client makes the UUIDs."""

    outing_id: uuid.UUID
    spell_id: uuid.UUID
    set_up: int = Field(ge=0, le=20)
    started_at: AwareDatetime
