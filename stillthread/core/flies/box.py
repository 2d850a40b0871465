"""The box against the day: which flies stand for the food about, what is missing, and what to tie for a plan."""

from __future__ import annotations

from collections import Counter
from dataclasses import dataclass

from stillthread.core.food.available import Availability
from stillthread.core.food.prey import Prey
from stillthread.core.tackle.flies import Fly
from stillthread.core.tackle.recipe import Material

# A food below this share of what is about needs no fly of its own. Common practice, our figure.
WORTH_A_FLY = 0.04
# Parts of a recipe that are counted one a fly; the rest is bought by the packet.
COUNTED_PARTS = ("hook", "bead", "eyes")


@dataclass(frozen=True)
class FoodFit:
    """One food about now, its share, the flies in stock that stand for it (most fitting first), and whether none does."""

    prey: Prey
    share: float
    flies: tuple[Fly, ...]

    @property
    def gap(self) -> bool:
        """True where nothing in the box stands for it."""
        return not self.flies


@dataclass(frozen=True)
class Tie:
    """A fly the plan uses on a hook size: how many are there, how many are wanted, how many to tie."""

    key: str
    name: str
    hook: int
    have: int | None
    wanted: int

    @property
    def to_tie(self) -> int:
        """How many are missing; all of them where none were counted."""
        return self.wanted if self.have is None else max(0, self.wanted - self.have)


@dataclass(frozen=True)
class MaterialSum:
    """A material over a whole tie list: what it is, for how many flies, and whether it is counted one a fly."""

    words: str
    part: str
    flies: int
    counted: bool


def box_fits(food: Availability, flies: tuple[Fly, ...]) -> tuple[FoodFit, ...]:
    """Return the foods about now, most first, each with the flies in stock that stand for it.

    A fly made for this prey first comes before one that only also stands for it; a fly of which none is left is left out.
    Foods under 4 % are left out.
    """
    rows = []
    for prey in food.top(len(food.share)):
        share = food.share[prey.key]
        if share < WORTH_A_FLY:
            break
        fitting = [fly for fly in flies if prey.key in fly.prey and fly.stock != 0]
        ordered = sorted(fitting, key=lambda fly: (fly.prey.index(prey.key), fly.name))
        rows.append(FoodFit(prey, share, tuple(ordered)))
    return tuple(rows)


def sum_materials(wanted: list[tuple[int, tuple[Material, ...]]]) -> tuple[MaterialSum, ...]:
    """Return the materials for so many flies of each recipe, summed over equal ones, in the order of a recipe's parts."""
    flies: Counter[tuple[str, str]] = Counter()
    order: dict[tuple[str, str], int] = {}
    for count, materials in wanted:
        for material in materials:
            name = (material.part, material.words)
            flies[name] += count
            order.setdefault(name, len(order))
    ranked = sorted(flies, key=lambda name: (name[0] not in COUNTED_PARTS, order[name]))
    return tuple(MaterialSum(words, part, flies[part, words], part in COUNTED_PARTS) for part, words in ranked)
