"""Small values of a day: a retrieve, a path for a picture, a reason, what was ruled out."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated, Literal

from stillthread.core.limits import Said


@dataclass(frozen=True)
class Reason:
    """One reason in words, and the factor it belongs to."""

    factor: str
    sentence: str


@dataclass(frozen=True)
class RuledOut:
    """Something not offered and why; `kind` is rule, kit, depth, landing, warmth or not-computed.

    `by_hand` is the number of the hand-made set-up it was.
    """

    what: str
    kind: Literal["rule", "kit", "depth", "landing", "warmth", "not-computed"]
    reason: str
    by_hand: Annotated[int | None, Said("number of the hand-made set-up it was")] = None


@dataclass(frozen=True)
class Retrieve:
    """How the line comes back: kind, words, speed [m/s] and pull [m] and pause [s] where they apply; `key` names it."""

    kind: str
    words: str
    speed_m_s: float
    pull_m: float | None = None
    pause_s: float | None = None
    key: str = ""


@dataclass(frozen=True)
class Trace:
    """The path of one fly for a picture: its position, and (time [s], depth [m]) along one cast; until `count_s` it sinks."""

    position: str
    points: tuple[tuple[float, float], ...]
