"""Flies as documents: builds, recipes, the patterns of a fly box as they go in and out."""

from __future__ import annotations

from typing import Literal

from pydantic import Field, model_validator

from stillthread.core.food.prey import FAMILY_KEYS
from stillthread.core.food.seen import PreyKey
from stillthread.core.limits import Name
from stillthread.core.tackle.flies import MOST_FLIES
from stillthread.core.tackle.fly_build import LARGEST_HOOK, SMALLEST_HOOK, FlyBuild, Hook, Tone, Weight
from stillthread.core.tackle.recipe import Recipe
from stillthread.documents.strict import Strict

Family = Literal[FAMILY_KEYS]  # type: ignore[valid-type]
SinkClass = Literal["floats", "slow", "medium", "fast", "very fast"]


class CountDoc(Strict):
    """How many of one hook size and colour are in the box."""

    hook: Hook
    colour: str = Field("", max_length=40)
    count: int = Field(ge=0, le=10000)


class PatternDoc(Strict):
    """A pattern of a fly box. With `counts` the stock is their sum; left out, it is not counted."""

    name: Name
    family: Family | None = None
    prey: list[PreyKey] = Field(min_length=1, max_length=8)
    hooks: list[int] = Field(min_length=1, max_length=8, description="hook sizes carried")
    tone: Tone
    weight: Weight
    surface: bool = False
    stock: int | None = Field(None, ge=0, le=10000)
    counts: list[CountDoc] = Field(default=[], max_length=40)
    build: FlyBuild | None = Field(None, description="what it is tied with, at one of its hooks; decides its weight")
    recipe: Recipe = Recipe()

    @model_validator(mode="after")
    def _hooks_fit(self) -> PatternDoc:
        if any(not LARGEST_HOOK <= hook <= SMALLEST_HOOK for hook in self.hooks):
            raise ValueError("hook sizes run from 4 (large) to 20 (small)")
        if self.build is not None and self.build.hook not in self.hooks:
            raise ValueError("the build is given for a hook size the pattern does not have")
        return self


class FlyFile(Strict):
    """A whole fly box as it goes in and out."""

    version: Literal[1] = 1
    flies: list[PatternDoc] = Field(max_length=MOST_FLIES)
