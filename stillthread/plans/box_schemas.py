"""What the box's own questions take and give: what fits today, what to tie for the plan."""

from __future__ import annotations

import uuid

from pydantic import Field

from stillthread.core.limits import Share
from stillthread.documents.fly_contract import SinkClass
from stillthread.documents.strict import Strict
from stillthread.plans.schemas import PlanBody


class FittingFlyOut(Strict):
    """A fly in the box that stands for a food."""

    id: uuid.UUID
    name: str
    hooks: list[int]
    stock: int | None
    sink_class: SinkClass


class FoodFitOut(Strict):
    """A food about now, the flies that stand for it, and what the starter box would offer where none does."""

    prey: str
    name: str
    share: Share
    flies: list[FittingFlyOut]
    gap: bool
    starters: list[str]


class BoxTodayOut(Strict):
    """The box against the food about now."""

    rows: list[FoodFitOut]
    gaps: int


class TieListBody(PlanBody):
    """A plan's inputs, and how many copies of each of its flies are wanted."""

    copies: int = Field(3, ge=1, le=24)


class TieOut(Strict):
    """A fly of the plan: how many are there (null = not counted), wanted, and to tie."""

    id: uuid.UUID
    name: str
    hook: int
    have: int | None
    wanted: int
    to_tie: int
    has_recipe: bool


class MaterialSumOut(Strict):
    """A material over the whole list."""

    words: str
    part: str
    flies: int
    counted: bool


class TieListOut(Strict):
    """What to tie for the plan's set-ups, with the materials summed."""

    ties: list[TieOut]
    materials: list[MaterialSumOut]
