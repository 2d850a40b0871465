"""The values a plan is made from and made of."""

from __future__ import annotations

from dataclasses import dataclass, field
from datetime import datetime

from stillthread.core.food.available import Availability
from stillthread.core.food.seen import Sighting, ThroatSample
from stillthread.core.tackle.flies import Fly
from stillthread.core.tackle.leaders import Leader
from stillthread.core.tackle.lines import Line
from stillthread.core.tackle.rig import Rig
from stillthread.core.thread.cast import Cast
from stillthread.core.thread.tables import FlyDepth
from stillthread.core.trout.belief import PlaceBelief
from stillthread.core.trout.temperature import Welfare
from stillthread.core.water.cautions import Caution
from stillthread.core.water.layers import Thermocline
from stillthread.core.water.light import Light
from stillthread.core.water.reading import Place, Reading, Water

METHODS = ("dry", "nymphs", "float", "sink-tip", "intermediate", "sinking")


@dataclass(frozen=True)
class Angler:
    """The angler's own limits: rod, arm and net [m], comfortable cast [m], and whether a boat is used."""

    rod_m: float = 2.9
    net_m: float = 0.6
    arm_m: float = 0.6
    cast_m: float = 18.0
    afloat: bool = False


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
class PlanInput:
    """Everything a plan is computed from; `when` is an aware instant on the water's own clock."""

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


@dataclass(frozen=True)
class Reason:
    """One reason in words, and the factor it belongs to."""

    factor: str
    sentence: str


@dataclass(frozen=True)
class RuledOut:
    """Something not offered and why; `kind` is rule, kit, depth, landing or warmth."""

    what: str
    kind: str
    reason: str


@dataclass(frozen=True)
class PlacedFly:
    """A fly at its position: hook size, and depth [m] where it is known."""

    fly: Fly
    position: str
    hook: int
    from_line_m: float
    depth_m: float | None


@dataclass(frozen=True)
class Retrieve:
    """How the line comes back: kind, words, speed [m/s] and pull [m] and pause [s] where they apply."""

    kind: str
    words: str
    speed_m_s: float
    pull_m: float | None = None
    pause_s: float | None = None


@dataclass(frozen=True)
class SetUp:
    """A whole set-up, with the numbers to do it and the reasons for it.

    `target_m` is the depth it is meant for; `estimate_m` is the mean depth of the point fly while it is fished,
    the band [m] where that may really be, `runs_m` the shallowest and deepest it runs, `deepest_m` the band's deep edge. `rig` and `cast` are what the thread was asked for it.
    `relative` is the expected rate against the plan's best, 1 being the best.
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
    fallback: str = ""
    runs_m: tuple[float, float] | None = None
    deepest_m: float | None = None
    rig: Rig | None = None
    cast: Cast | None = None


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


def find_place(water: Water, name: str) -> Place | None:
    """Return the place of that name on the water, or None."""
    return next((place for place in water.places if place.name == name), None)
