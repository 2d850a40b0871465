"""What taking in an old notebook takes and gives."""

from __future__ import annotations

import uuid
from datetime import date
from typing import Annotated, Literal

from pydantic import Field

from stillthread.documents.strict import Strict
from stillthread.formats.notebook import MOST_COLUMNS, DayOrder
from stillthread.formats.notebook import Field as Meaning
from stillthread.web.errors import ProblemOut


class MappingBody(Strict):
    """What the columns mean, in their order, and in what units; which water is meant by what the notebook calls it.

    `water_id` is the water where none is named; `day_h` how long a day was where no hours are written.
    """

    fields: list[Meaning | None] = Field(max_length=MOST_COLUMNS)
    a_line: Literal["stretch", "fish"] = "stretch"
    day_order: DayOrder = "dmy"
    depth_unit: Literal["m", "ft"] = "m"
    length_unit: Literal["cm", "in"] = "cm"
    temperature_unit: Literal["c", "f"] = "c"
    waters: dict[Annotated[str, Field(max_length=200)], uuid.UUID] = Field({}, max_length=200)
    water_id: uuid.UUID | None = None
    day_h: float = Field(4.0, gt=0, le=16)


class NamedWaterOut(Strict):
    """What the notebook calls a water, on how many lines, and which one of the angler's it is, if it can be told."""

    name: str
    lines: int
    water_id: uuid.UUID | None


class NotebookDayOut(Strict):
    """A day as it would stand in the log; `here` where it was taken in before."""

    on: date
    water_name: str
    stretches: int
    hours: float
    takes: int
    landed: int
    here: bool


class NotebookOut(Strict):
    """A notebook's table, what its columns seem to be, what it would become, and every line that is refused with why."""

    columns: list[str]
    first_lines: list[list[str]]
    mapping: MappingBody
    waters: list[NamedWaterOut]
    days: list[NotebookDayOut]
    refused: list[ProblemOut]
    lines: int


class NotebookTakenOut(Strict):
    """How many days and fish were taken in."""

    days: int
    fish: int
