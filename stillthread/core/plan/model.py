"""A plan: belief, ranked set-ups, what was ruled out, cautions."""

from __future__ import annotations

from dataclasses import dataclass, field

from stillthread.core.belief.belief import Effect, PlaceBelief
from stillthread.core.day.model import RuledOut
from stillthread.core.food.available import Availability
from stillthread.core.reading.cautions import Caution
from stillthread.core.setup.model import SetUp
from stillthread.core.sky.light import Light
from stillthread.core.trout.temperature import Welfare
from stillthread.core.water.layers import Thermocline


@dataclass(frozen=True)
class Pair:
    """Starts for two anglers in one boat: which set-ups [index], and why these two."""

    first: int
    second: int
    why: str


@dataclass(frozen=True)
class Plan:
    """What to do and why: belief by place and depth, ranked set-ups, what was ruled out, cautions, and the guesses."""

    light: Light
    food: Availability
    thermocline: Thermocline | None
    welfare: Welfare | None
    beliefs: tuple[PlaceBelief, ...]
    chosen: PlaceBelief
    set_ups: tuple[SetUp, ...]
    ruled_out: tuple[RuledOut, ...]
    cautions: tuple[Caution, ...]
    guessed: tuple[str, ...] = field(default=())
    effects: tuple[Effect, ...] = ()
    pair: Pair | None = None
    changed: tuple[str, ...] | None = None
    moved_by: tuple[str, ...] = ()
