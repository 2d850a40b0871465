"""Flies in the box, and the starter set a new angler can tick."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated, get_args

from annotated_types import Ge, Le, MaxLen, MinLen

from stillthread.core.food.seen import PreyKey
from stillthread.core.limits import Name, Said
from stillthread.core.tackle.fly_build import FlyBuild, Hook, Tone, Weight, weight_class
from stillthread.core.tackle.patterns import PATTERNS, Pattern

MOST_FLIES = 2000  # in one box
WEIGHTS: tuple[Weight, ...] = get_args(Weight)


@dataclass(frozen=True)
class Fly:
    """A pattern: what it stands for (prey keys), hook sizes carried, tone, weight class, how many are in the box.

    `build` is what it is tied with, where that is known; else the build usual for its weight class is taken.
    """

    key: Name
    name: Name
    prey: Annotated[tuple[PreyKey, ...], MinLen(1), MaxLen(8)]
    hooks: Annotated[tuple[Hook, ...], MinLen(1), MaxLen(8), Said("hook sizes carried")]
    tone: Tone
    weight: Weight
    surface: bool = False  # fished in the film
    stock: Annotated[int | None, Ge(0), Le(10_000), Said("how many are in the box; left out = not counted")] = None
    build: Annotated[FlyBuild | None, Said("what it is tied with; left out = usual for its weight class")] = None

    @property
    def buoyant(self) -> bool:
        """True if it floats by its build."""
        return self.weight == "buoyant"


def fly_of(pattern: Pattern) -> Fly:
    """Return a starter pattern as a fly in the box, its weight class computed from its build."""
    weight = weight_class(pattern.build)
    return Fly(
        key=pattern.key,
        name=pattern.name,
        prey=pattern.prey,
        hooks=pattern.hooks,
        tone=pattern.tone,
        weight=weight,
        stock=None,
        surface=pattern.surface,
        build=pattern.build,
    )


STARTER_FLIES: tuple[Fly, ...] = tuple(fly_of(pattern) for pattern in PATTERNS)
