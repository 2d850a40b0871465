"""The values a plan is made from and made of."""

from __future__ import annotations

from dataclasses import dataclass, field
from datetime import datetime

from stillthread.core.evidence.likeness import PastStretch
from stillthread.core.food.available import Availability
from stillthread.core.food.seen import Sighting, ThroatSample
from stillthread.core.setup.schools import Schools
from stillthread.core.tackle.flies import Fly
from stillthread.core.tackle.leaders import Leader
from stillthread.core.tackle.lines import Line
from stillthread.core.tackle.rig import Rig
from stillthread.core.thread.cast import Cast
from stillthread.core.thread.tables import FlyDepth
from stillthread.core.trout.belief import Effect, PlaceBelief
from stillthread.core.trout.temperature import Welfare
from stillthread.core.water.cautions import Caution
from stillthread.core.water.layers import Thermocline
from stillthread.core.water.light import Light
from stillthread.core.water.reading import Place, Reading, Water

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
    kind: str
    reason: str
    by_hand: int | None = None


@dataclass(frozen=True)
class PlacedFly:
    """A fly at its position: hook size, depth [m] where it is known, and why it is there."""

    fly: Fly
    position: str
    hook: int
    from_line_m: float
    depth_m: float | None
    why: str = ""


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
class Rung:
    """One step of the search: a count [s] or a float's hang [m], and the depth [m] it puts the point fly at."""

    count_s: int | None
    float_hang_m: float | None
    depth_m: float


@dataclass(frozen=True)
class Trace:
    """The path of one fly for a picture: its position, and (time [s], depth [m]) along one cast; until `count_s` it sinks."""

    position: str
    points: tuple[tuple[float, float], ...]


@dataclass(frozen=True)
class ChangeOrder:
    """What to change, in order: for plucks without hooking, for follows and refusals, and for nothing at all.

    `next_flies` are the flies those steps name, as (name, why), `next_paces` the retrieves by key, likeliest first.
    """

    plucks: tuple[str, ...] = ()
    follows: tuple[str, ...] = ()
    nothing: tuple[str, ...] = ()
    next_flies: tuple[tuple[str, str], ...] = ()
    next_paces: tuple[str, ...] = ()


@dataclass(frozen=True)
class Expected:
    """Takes an hour as the own log has it for days like this, with its 95 % interval, and over the session."""

    per_hour: float
    low: float
    high: float
    session: float


@dataclass(frozen=True)
class SetUp:
    """A whole set-up, with the numbers to do it and the reasons for it.

    `target_m` is the depth it is meant for; `estimate_m` is the mean depth of the point fly while it is fished,
    the band [m] where that may really be, `runs_m` the shallowest and deepest it runs, `deepest_m` the band's deep edge. `rig` and `cast` are what the thread was asked for it.
    `relative` is what is expected over the session against the plan's best, 1 being the best, the `rigging_min` [min] it
    takes to tie on counted. `style` is its way within the method (see STYLES), `rod` the rod it stands rigged on, `stance`
    how boat or feet are placed, `by_hand` the number of the hand-made set-up it is, `tracks` the paths of its flies.
    """

    method: str
    title: str
    line: Line
    leader: Leader
    flies: tuple[PlacedFly, ...]
    place: str
    target_m: float
    low_m: float
    high_m: float
    estimate_m: float | None
    count_s: int | None
    float_hang_m: float | None
    float_kind: str | None
    retrieve: Retrieve
    cast_m: float
    relative: float
    sink_table: tuple[FlyDepth, ...]
    depth_note: str
    reasons: tuple[Reason, ...] = ()
    watch_for: str = ""
    cautions: tuple[Caution, ...] = ()
    runs_m: tuple[float, float] | None = None
    deepest_m: float | None = None
    rig: Rig | None = None
    cast: Cast | None = None
    style: str = "team"
    rigging_min: float = 8.0
    rod: int | None = None
    stance: str = ""
    ladder: tuple[Rung, ...] = ()
    changes: ChangeOrder = ChangeOrder()
    expected: Expected | None = None
    by_hand: int | None = None
    tracks: tuple[Trace, ...] = ()

    @property
    def fallback(self) -> str:
        """What to do when it stays blank, in one line."""
        return " ".join(self.changes.nothing)

    @property
    def key(self) -> str:
        """Name of this set-up within the plan: style and line, or its number where made by hand."""
        return f"hand-{self.by_hand}" if self.by_hand is not None else f"{self.style}.{self.line.key}"


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


def find_place(water: Water, name: str) -> Place | None:
    """Return the place of that name on the water, or None."""
    return next((place for place in water.places if place.name == name), None)
