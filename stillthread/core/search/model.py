"""The values of a search: what can be fished, what was fished, what was believed, what a change costs, what to do next."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Annotated, Literal, NamedTuple, get_args

from annotated_types import Ge, Le

from stillthread.core.limits import Said

CELL_M = 0.2  # cells of depth in the search
MOST_PLACES = 6
PaceClass = Literal["static", "slow", "fast"]
PACES: tuple[PaceClass, ...] = get_args(PaceClass)
StepKind = Literal["stay", "depth", "pace", "fly", "set-up", "place", "stop"]
Minutes = Annotated[float, Ge(0), Le(1440)]


@dataclass(frozen=True)
class Belief:
    """Where the feeding fish are thought to be: for each place its bed [m] and mass by 0.2 m cell; all masses sum to 1.

    `read` is False where nothing was read or seen, so that little is to be made of it.
    """

    places: tuple[str, ...]
    beds_m: tuple[float, ...]
    mass: tuple[tuple[float, ...], ...]
    read: bool = True


@dataclass(frozen=True)
class Kind:
    """A kind of fly that may be the right one, and the plan's share for it."""

    name: str
    share: float


@dataclass(frozen=True)
class Candidate:
    """Something an angler can do now: a rig at a depth, with a kind of fly, at a pace, at a place.

    `exposure` is the share of the fished time the fly is in each 0.2 m cell (sum 1), `fishing_share` how much of the clock
    the flies are fished, `up_m` and `down_m` how far a fish notices a fly above and below itself [m]. `count_s` [s] or
    `hang_m` [m] is how the depth is set, `depth_m` [m] where it fishes in the mean, `fly` what is on
    the point by name, `likeness` how surely fish take it for each of its `kinds`, 0 to 1: wholly for each where none is given.
    """

    key: str
    place: str
    method: str
    kinds: tuple[str, ...]
    pace: PaceClass
    exposure: tuple[float, ...]
    fishing_share: float = 0.7
    up_m: float = 1.0
    down_m: float = 0.35
    rod: str = ""
    line: str = ""
    count_s: float | None = None
    hang_m: float | None = None
    depth_m: float | None = None
    fly: str = ""
    likeness: tuple[float, ...] = ()

    @property
    def mean_m(self) -> float:
        """The depth it fishes in the mean [m]."""
        if self.depth_m is not None:
            return self.depth_m
        total = sum(self.exposure) or 1.0
        return sum((i + 0.5) * CELL_M * share for i, share in enumerate(self.exposure)) / total

    @property
    def rig(self) -> tuple[str, str, str]:
        """What is tied to the rod: to fish another is to rig anew."""
        return self.rod, self.line, self.method


@dataclass(frozen=True)
class Spell:
    """Minutes fished with a candidate and what came of them; lost fish count as takes.

    `weight` is how much it says: 1 for one's own and a partner's, a half for what was seen of a neighbour; `by` whose
    rod it was, nothing for one's own.
    """

    candidate: Candidate
    minutes: float
    takes: int = 0
    plucks: int = 0
    follows: int = 0
    weight: float = 1.0
    by: str = ""


class Stretch(NamedTuple):
    """What an angler has in hand, by name, for how many minutes, the minutes fished since it last took (no end of them before it
    has), and the plucks and follows on it.
    """

    key: str
    minutes: float
    since_take: float
    touches: int = 0


NOTHING_YET = Stretch("", 0.0, math.inf)


@dataclass(frozen=True)
class Costs:
    """What a change costs in minutes: the angler's own."""

    place: Annotated[float, Ge(0), Le(120), Said("move to another place")] = 12.0
    rig: Annotated[float, Ge(0), Le(60), Said("tie on another rig")] = 6.0
    rod: Annotated[float, Ge(0), Le(60), Said("take up another rod that stands rigged")] = 1.0
    float_depth: Annotated[float, Ge(0), Le(60), Said("move the float")] = 1.0
    count: Annotated[float, Ge(0), Le(60), Said("count on or less")] = 0.0
    fly: Annotated[float, Ge(0), Le(60), Said("change the fly")] = 2.0

    def of(self, standing: Candidate | None, other: Candidate, rigged: frozenset[str] = frozenset()) -> float:
        """Return the minutes from one candidate to another; `rigged` are the rods that stand ready. Nothing to start with costs the rig."""
        if standing is None:
            return 0.0
        cost = self.place if other.place != standing.place else 0.0
        if other.rig != standing.rig:
            return cost + (self.rod if other.rod and other.rod in rigged and other.rod != standing.rod else self.rig)
        if (other.kinds, other.fly) != (standing.kinds, standing.fly):
            cost += self.fly
        if other.hang_m != standing.hang_m:
            cost += self.float_depth
        if other.count_s != standing.count_s:
            cost += self.count
        return cost


@dataclass(frozen=True)
class Step:
    """One thing to do next: the candidate, for how many minutes, and how it compares with going on as now.

    `chance` is that of a take in the next ten minutes doing it, the change's minutes not counted; `rate_per_h` the takes
    an hour expected now and `found_per_h` those once it has taken; `index` the rate at which trying it breaks even;
    `cost` [min] what the change takes.
    """

    kind: StepKind
    candidate: Candidate
    minutes: float
    index: float
    cost: float
    chance: float = 0.0
    rate_per_h: float = 0.0
    found_per_h: float = 0.0
