"""A set-up, with the numbers to do it, and what comes after it."""

from __future__ import annotations

from dataclasses import dataclass

from stillthread.core.casts.cast import Cast
from stillthread.core.casts.tables import FlyDepth
from stillthread.core.day.model import Reason, Retrieve, Trace
from stillthread.core.flies.placed import PlacedFly
from stillthread.core.reading.cautions import Caution
from stillthread.core.tackle.leaders import Leader
from stillthread.core.tackle.lines import Line
from stillthread.core.tackle.rig import Rig


@dataclass(frozen=True)
class Rung:
    """One step of the search: a count [s], a float's hang [m] or another pace, and the depth [m] the point fly then fishes.

    `at_count_m` is its depth [m] when the count ends, `lift_off_s` when to lift off after the count [s], where that is
    sooner than at the set-up's own; `pace` the key of the retrieve, where a rung changes that.
    """

    count_s: int | None
    float_hang_m: float | None
    depth_m: float
    at_count_m: float | None = None
    lift_off_s: float | None = None
    pace: str | None = None


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
    how boat or feet are placed, `by_hand` the number of the hand-made set-up it is, `elsewhere` whether it is for the
    plan's second place, `tracks` the paths of its flies.
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
    elsewhere: bool = False
    tracks: tuple[Trace, ...] = ()

    @property
    def fallback(self) -> str:
        """What to do when it stays blank, in one line."""
        return " ".join(self.changes.nothing)

    @property
    def key(self) -> str:
        """Name of this set-up within the plan: style and line, its place where that is the second, its number where made by hand."""
        if self.by_hand is not None:
            return f"hand-{self.by_hand}"
        return f"{self.style}.{self.line.key}" + (f"@{self.place}" if self.elsewhere else "")
