"""Flies as documents: builds, recipes, the patterns of a fly box as they go in and out."""

from __future__ import annotations

from typing import Literal

from pydantic import Field, model_validator

from stillthread.core.food.prey import FAMILY_KEYS
from stillthread.core.tackle.recipe import PARTS
from stillthread.documents.strict import Name, Strict
from stillthread.documents.water_contract import Prey

Tone = Literal["dark", "natural", "pale", "bright"]
Weight = Literal["buoyant", "unweighted", "weighted"]
Family = Literal[FAMILY_KEYS]  # type: ignore[valid-type]
Part = Literal[PARTS]  # type: ignore[valid-type]
SinkClass = Literal["floats", "slow", "medium", "fast", "very fast"]


class FlyBuildDoc(Strict):
    """What a fly is tied with."""

    hook: int = Field(ge=4, le=20)
    wire: Literal["light", "standard", "heavy"] = "standard"
    bead: Literal["tungsten", "brass", "glass", "plastic"] | None = None
    bead_mm: float = Field(0.0, ge=0, le=8)
    turns: int = Field(0, ge=0, le=60)
    turns_wire_mm: float = Field(0.4, gt=0, le=1.5)
    foam_mm3: float = Field(0.0, ge=0, le=2000)
    bulk: Literal["bare", "slim", "medium", "bulky"] = "slim"


class MaterialDoc(Strict):
    """One material: the part it makes, what it is, colour and size in words."""

    part: Part
    what: str = Field(min_length=1, max_length=80)
    colour: str = Field("", max_length=40)
    size: str = Field("", max_length=40)


class StepDoc(Strict):
    """One tying step and its caution."""

    text: str = Field(min_length=1, max_length=400)
    caution: str = Field("", max_length=300)


class RecipeDoc(Strict):
    """Materials and ordered steps."""

    materials: list[MaterialDoc] = Field(default=[], max_length=30)
    steps: list[StepDoc] = Field(default=[], max_length=40)


class CountDoc(Strict):
    """How many of one hook size and colour are in the box."""

    hook: int = Field(ge=4, le=20)
    colour: str = Field("", max_length=40)
    count: int = Field(ge=0, le=10000)


class PatternDoc(Strict):
    """A pattern of a fly box. With `counts` the stock is their sum; left out, it is not counted."""

    name: Name
    family: Family | None = None
    prey: list[Prey] = Field(min_length=1, max_length=8)
    hooks: list[int] = Field(min_length=1, max_length=8, description="hook sizes carried")
    tone: Tone
    weight: Weight
    surface: bool = False
    stock: int | None = Field(None, ge=0, le=10000)
    counts: list[CountDoc] = Field(default=[], max_length=40)
    build: FlyBuildDoc | None = Field(None, description="what it is tied with, at one of its hooks; decides its weight")
    recipe: RecipeDoc = RecipeDoc()

    @model_validator(mode="after")
    def _hooks_fit(self) -> PatternDoc:
        if any(not 4 <= hook <= 20 for hook in self.hooks):
            raise ValueError("hook sizes run from 4 (large) to 20 (small)")
        if self.build is not None and self.build.hook not in self.hooks:
            raise ValueError("the build is given for a hook size the pattern does not have")
        return self


class FlyFile(Strict):
    """A whole fly box as it goes in and out."""

    version: Literal[1] = 1
    flies: list[PatternDoc] = Field(max_length=2000)
