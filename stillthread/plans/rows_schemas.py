"""Many writes of an outing at once: what a phone has kept while there was no signal."""

from __future__ import annotations

import uuid
from typing import Any, Literal

from pydantic import Field

from stillthread.documents.strict import Strict
from stillthread.web.errors import ProblemOut

MOST_ROWS = 200
RowKind = Literal["outing", "spell", "event", "seen", "photo", "plan", "turn"]


class RowIn(Strict):
    """One write: a row of an outing under the client's UUID, or its deletion where there is no body.

    A plan is the day it was made for; it is made again, kept, and laid into the outing unless that has one already.
    """

    kind: RowKind
    outing: uuid.UUID
    id: uuid.UUID
    on: int | None = Field(None, ge=1, description="the revision the write was made on, where the device knows one")
    body: dict[str, Any] | None


class RowsIn(Strict):
    """Writes in the order they were made; `version` is that of their bodies, today's or the one before."""

    version: Literal[1, 2] = 2
    rows: list[RowIn] = Field(min_length=1, max_length=MOST_ROWS)


class RowDoneOut(Strict):
    """What became of one write: its status as if it had come alone, the row's revision, or why not and what is kept."""

    id: uuid.UUID
    status: int
    revision: int | None = None
    errors: list[ProblemOut] = []
    kept: dict[str, Any] | None = None


class RowsOut(Strict):
    """What became of each write, in their order."""

    rows: list[RowDoneOut]
