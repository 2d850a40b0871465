"""What a plan is made from: the angler, the rules as read, set-ups made by hand, everything read and owned."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime

from stillthread.core.day.schools import Schools
from stillthread.core.evidence.likeness import PastStretch
from stillthread.core.food.seen import Sighting, ThroatSample
from stillthread.core.noted.reading import Reading
from stillthread.core.noted.water import Place, Water
from stillthread.core.tackle.flies import Fly
from stillthread.core.tackle.lines import Line

METHODS = ("dry", "nymphs", "float", "sink-tip", "intermediate", "sinking")


# The ways within the methods, each with what it is in words.
STYLES = {
    "dry": "a dry fly or emerger in the film",
    "team": "flies counted down and brought back",
    "buoyant-point": "a buoyant fly on the point, the others hung between it and the line",
    "sinking-leader": "a 1.5 m sinking leader on the floating line",
    "float": "flies hung under a float",
    "tip-deep": "a fast tip, a long leader and a heavy point",
    "flashy": "a big flashy fly, moving, in very cold water",
    "over-bed": "a buoyant fly behind a sinking line that lies on the bed",
    "over-weed": "a buoyant fly on an intermediate, over the weed",
    "up-slope": "cast past the drop-off and drawn up along the bed",
    "dangle": "straight down under the boat",
    "drifted": "trailed behind a drifting boat",
}


AFLOAT = ("dangle", "drifted")  # these hang on where the boat is, not on a count


@dataclass(frozen=True)
class Angler:
    """The angler's own limits: rod, arm and net [m], comfortable cast [m], whether a boat is used, rods rigged beforehand,
    and the methods wanted.
    """

    rod_m: float = 2.9
    net_m: float = 0.6
    arm_m: float = 0.6
    cast_m: float = 18.0
    afloat: bool = False
    rods: int = 1
    methods: tuple[str, ...] = METHODS


@dataclass(frozen=True)
class Rules:
    """The water's rules as the angler read them; None where not noted. Never a claim to know the law."""

    max_flies: int | None = None
    barbless: bool | None = None
    floats_allowed: bool | None = None
    droppers_allowed: bool | None = None
    sinking_lines_allowed: bool | None = None
    release: str = "unknown"  # catch-and-release, kill, either, unknown
    stop_above_c: float | None = None


@dataclass(frozen=True)
class HandMade:
    """A set-up put together by hand: line and flies by key (top dropper first), hooks, retrieve, and a count [s] or hang [m].

    `style` is the way its leader is cut and its bed lies (see STYLES), `leader_m` another length for it [m],
    `let_down_m` [m] the line out where it hangs straight down. What is left out is worked out as for any set-up.
    """

    line: str
    flies: tuple[str, ...]
    hooks: tuple[int | None, ...] = ()
    retrieve: str = "hand-twist"
    count_s: int | None = None
    float_hang_m: float | None = None
    cast_m: float | None = None
    style: str = "team"
    leader_m: float | None = None
    let_down_m: float | None = None


@dataclass(frozen=True)
class Read:
    """What was read at one time: an aware instant on the water's clock, where, and everything seen."""

    when: datetime
    reading: Reading
    sightings: tuple[Sighting, ...] = ()
    samples: tuple[ThroatSample, ...] = ()
    place: str | None = None


@dataclass(frozen=True)
class Before:
    """What a plan is compared with: schools and aim as they were, and what was read before (None: the same as now)."""

    schools: Schools = Schools()
    aim: str = "most"
    read: Read | None = None


@dataclass(frozen=True)
class PlanInput:
    """Everything a plan is computed from; `when` is an aware instant on the water's own clock.

    `session_h` is how long it is fished [h]; `own_log` what the angler's log holds; factors named in `without` count for
    nothing; `found_m` a depth [m] found by one method, to be carried to the others; `by_hand` set-ups to work out beside
    the plan's own.
    """

    when: datetime
    water: Water
    reading: Reading
    sightings: tuple[Sighting, ...]
    angler: Angler
    lines: tuple[Line, ...]
    flies: tuple[Fly, ...]
    rules: Rules
    place: str | None = None
    samples: tuple[ThroatSample, ...] = ()
    schools: Schools = Schools()
    aim: str = "most"
    session_h: float = 4.0
    own_log: tuple[PastStretch, ...] = ()
    without: frozenset[str] = frozenset()
    found_m: float | None = None
    by_hand: tuple[HandMade, ...] = ()
    compared_with: Before | None = None


def find_place(water: Water, name: str) -> Place | None:
    """Return the place of that name on the water, or None."""
    return next((place for place in water.places if place.name == name), None)
