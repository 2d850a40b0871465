"""A day on the water so far: stretches fished and what happened on them, what others took, what changed."""

from __future__ import annotations

from collections import Counter
from dataclasses import dataclass
from typing import Annotated, Literal

from annotated_types import Ge, Gt, Le, MaxLen

from stillthread.core.limits import Depth, Instant, Name, PlaceName, Said
from stillthread.core.search.model import Costs, Minutes
from stillthread.core.vocabulary import Pace

PROVEN_BY, PROVEN_FOR_MIN = 2, 60.0  # takes on a fly before it is held to be the one, and for how long: figures ours
HappeningKind = Literal["take", "pluck", "follow", "weed", "bottom"]


@dataclass(frozen=True)
class Happening:
    """Something that happened on a stretch: so many minutes after its start, what, and on which fly."""

    minute: Minutes
    kind: HappeningKind
    fly: Annotated[str, MaxLen(80)] = ""


@dataclass(frozen=True)
class Fished:
    """A stretch fished, one's own or a partner's: when it began, how long [min], how, and what happened.

    `set_up` names the plan's set-up where it was one; else the depths [m] say where the fly was.
    """

    began: Instant
    minutes: Minutes
    method: Annotated[str, MaxLen(40)]
    place: PlaceName = ""
    set_up: Annotated[str | None, MaxLen(120), Said("key of the plan's set-up")] = None
    count_s: Annotated[int | None, Ge(0), Le(600)] = None
    depth_m: Depth | None = None
    low_m: Depth | None = None
    high_m: Depth | None = None
    pace: Pace | Literal["drift"] = "static"
    flies: Annotated[tuple[Name, ...], MaxLen(10)] = ()
    happened: Annotated[tuple[Happening, ...], MaxLen(500)] = ()
    partner: bool = False


@dataclass(frozen=True)
class Seen:
    """What was seen of a neighbour: so many takes in so many minutes; place, depth [m], method and fly where known."""

    at: Instant
    minutes: Annotated[float, Gt(0), Le(600)]
    takes: Annotated[int, Ge(0), Le(100)]
    place: PlaceName = ""
    depth_m: Depth | None = None
    pace: Pace | None = None
    fly: Annotated[str, MaxLen(80)] = ""


@dataclass(frozen=True)
class SoFar:
    """The day so far: stretches, neighbours, when conditions last changed, now, costs of changes, rods that stand ready.

    `stop` says what ends the day although the newest reading does not name it (a stop of the plan it began with).
    """

    now: Instant
    fished: tuple[Fished, ...] = ()
    others: tuple[Seen, ...] = ()
    changed: tuple[Instant, ...] = ()
    costs: Costs = Costs()
    rigged: frozenset[str] = frozenset()
    minutes_left: float | None = None
    stop: str = ""

    @property
    def in_time(self) -> tuple[Fished, ...]:
        """The stretches in the order of time; the order of arrival does not matter."""
        return tuple(sorted(self.fished, key=lambda one: (one.began, one.partner, one.minutes)))

    @property
    def places(self) -> frozenset[str]:
        """Places where something was fished or seen."""
        return frozenset({one.place for one in self.fished} | {one.place for one in self.others}) - {""}

    @property
    def proven(self) -> frozenset[str]:
        """Flies that took more than once in the last hour, anybody's: one fish is not evidence, nor one long ago."""
        took = Counter(
            mark.fly or one.flies[0]
            for one in self.fished
            for mark in one.happened
            if mark.kind == "take" and (mark.fly or len(one.flies) == 1)
            if (self.now - one.began).total_seconds() / 60 - mark.minute <= PROVEN_FOR_MIN
        )
        return frozenset(fly for fly, takes in took.items() if takes >= PROVEN_BY)
