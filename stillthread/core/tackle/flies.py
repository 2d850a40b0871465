"""Flies in the box, and the starter set a new angler can tick."""

from __future__ import annotations

from dataclasses import dataclass

from stillthread.core.tackle.fly_build import FlyBuild, weight_class
from stillthread.core.tackle.patterns import PATTERNS, Pattern

WEIGHTS = ("buoyant", "unweighted", "weighted")
TONES = ("dark", "natural", "pale", "bright")


@dataclass(frozen=True)
class Fly:
    """A pattern: what it stands for (prey keys), hook sizes carried, tone, weight class, how many are in the box.

    `build` is what it is tied with, where that is known; else the build usual for its weight class is taken.
    """

    key: str
    name: str
    prey: tuple[str, ...]
    hooks: tuple[int, ...]
    tone: str
    weight: str
    stock: int | None = None
    surface: bool = False  # fished in the film
    build: FlyBuild | None = None

    @property
    def buoyant(self) -> bool:
        """True if it floats by its build."""
        return self.weight == "buoyant"


def fly_of(pattern: Pattern) -> Fly:
    """Return a starter pattern as a fly in the box, its weight class computed from its build."""
    weight = weight_class(pattern.build)
    return Fly(
        pattern.key,
        pattern.name,
        pattern.prey,
        pattern.hooks,
        pattern.tone,
        weight,
        None,
        pattern.surface,
        pattern.build,
    )


STARTER_FLIES: tuple[Fly, ...] = tuple(fly_of(pattern) for pattern in PATTERNS)
