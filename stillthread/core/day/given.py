"""What a plan is made from: the angler, the rules as read, set-ups made by hand, everything read and owned."""

from __future__ import annotations

from dataclasses import dataclass, field
from datetime import datetime
from typing import Annotated, Literal, get_args

from annotated_types import Ge, Le, MaxLen, MinLen

from stillthread.core.day.schools import Schools
from stillthread.core.evidence.likeness import PastStretch
from stillthread.core.evidence.seen_before import SeenBefore
from stillthread.core.food.seen import Samples, Sighting, Sightings, ThroatSample
from stillthread.core.limits import Instant, Name, PlaceName, Said
from stillthread.core.noted.reading import Reading
from stillthread.core.noted.water import Place, Water
from stillthread.core.tackle.flies import Fly
from stillthread.core.tackle.lines import Line
from stillthread.core.tackle.rig import FloatKind
from stillthread.core.trout.learnt import USUAL, Learnt
from stillthread.core.vocabulary import METHODS, Method, Pace

Aim = Literal["most", "biggest", "match"]
Style = Literal[
    "dry",
    "team",
    "buoyant-point",
    "sinking-leader",
    "float",
    "tip-deep",
    "flashy",
    "over-bed",
    "over-weed",
    "up-slope",
    "dangle",
    "drifted",
]
# The ways within the methods, each with what it is in words.
STYLES: dict[Style, str] = {
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


Rod = Annotated[float, Ge(1.5), Le(5)]
NetReach = Annotated[float, Ge(0), Le(4), Said("how far the net reaches from the hand")]
Arm = Annotated[float, Ge(0), Le(1.2)]
CastLength = Annotated[float, Ge(3), Le(45)]
RodCount = Annotated[int, Ge(1), Le(4), Said("rods that can stand rigged beforehand")]


TippetX = Annotated[int, Ge(1), Le(5)]
FLOATS: tuple[FloatKind, ...] = get_args(FloatKind)
TIPPETS_X = (1, 2, 3, 4, 5)


@dataclass(frozen=True)
class Owns:
    """What is carried beside lines and flies: kinds of float, sizes of tippet [X], and whether a sinking leader is."""

    floats: Annotated[tuple[FloatKind, ...], MaxLen(3)] = FLOATS
    tippets_x: Annotated[tuple[TippetX, ...], MinLen(1), MaxLen(5)] = TIPPETS_X
    sinking_leader: bool = True


@dataclass(frozen=True)
class Angler:
    """The angler's own limits: rod, arm and net [m], cast [m], whether a boat is used, the methods wanted, what
    is carried, and what the own takes have taught.
    """

    rod_m: Rod = 2.9
    net_m: NetReach = 0.6
    arm_m: Arm = 0.6
    cast_m: Annotated[CastLength, Said("comfortable cast")] = 18.0
    afloat: bool = False
    rods: RodCount = 1
    methods: Annotated[tuple[Method, ...], MaxLen(6), Said("wanted")] = METHODS
    owns: Owns = Owns()
    learnt: Learnt = USUAL


@dataclass(frozen=True)
class Rules:
    """The water's rules as the angler read them; None where not noted. Never a claim to know the law."""

    max_flies: Annotated[int | None, Ge(1), Le(10)] = None
    barbless: bool | None = None
    floats_allowed: bool | None = None
    droppers_allowed: bool | None = None
    sinking_lines_allowed: bool | None = None
    release: Literal["catch-and-release", "kill", "either", "unknown"] = "unknown"
    stop_above_c: Annotated[float | None, Ge(5), Le(30)] = None


@dataclass(frozen=True)
class HandMade:
    """A set-up put together by hand; line and flies by key, top dropper first, point last. What is left out is worked out.

    `style` is the way its leader is cut and its bed lies (see STYLES).
    """

    line: Name
    flies: Annotated[tuple[Name, ...], MinLen(1), MaxLen(3)]
    hooks: Annotated[tuple[int | None, ...], MaxLen(3)] = ()
    retrieve: Pace = "hand-twist"
    count_s: Annotated[int | None, Ge(0), Le(180)] = None
    float_hang_m: Annotated[float | None, Ge(0.2), Le(12), Said("point fly below the float")] = None
    cast_m: CastLength | None = None
    style: Style = "team"
    leader_m: Annotated[float | None, Ge(0.8), Le(9), Said("another length of leader")] = None
    let_down_m: Annotated[float | None, Ge(0.5), Le(30), Said("line let straight down under a boat")] = None


@dataclass(frozen=True)
class Read:
    """What was read at one time on the water's own clock, where, and everything seen."""

    when: Instant
    place: PlaceName | None = None
    reading: Reading = field(default_factory=Reading)
    sightings: Sightings = ()
    samples: Samples = ()


@dataclass(frozen=True)
class Before:
    """What a plan is compared with: schools and aim as they were, and what was read before (None: the same as now)."""

    schools: Schools = Schools()
    aim: Aim = "most"
    read: Read | None = None


@dataclass(frozen=True)
class PlanInput:
    """Everything a plan is computed from; `when` is an aware instant on the water's own clock.

    `session_h` is how long it is fished [h]; `own_log` what the angler's log holds, `seen_before` what was seen of the
    food on earlier days; factors named in `without` count for
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
    seen_before: tuple[SeenBefore, ...] = ()
    without: frozenset[str] = frozenset()
    found_m: float | None = None
    by_hand: tuple[HandMade, ...] = ()
    compared_with: Before | None = None

    @property
    def read_at(self) -> str | None:
        """The place that was read: the one planned for, or the only one the water has, where the depth read fits it."""
        places, depth = self.water.places, self.reading.water_depth_m
        if self.place is None and len(places) == 1 and depth is not None and depth <= places[0].depth_max_m:
            return places[0].name
        return self.place


def find_place(water: Water, name: str) -> Place | None:
    """Return the place of that name on the water, or None."""
    return next((place for place in water.places if place.name == name), None)
