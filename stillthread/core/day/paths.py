"""The thread as the planner asks for it: rigs from set-ups, paths kept for the next plan, and what a path is worth."""

from __future__ import annotations

import copy
import math
from collections import OrderedDict
from collections.abc import Callable, Sequence
from dataclasses import replace
from hashlib import sha256
from threading import Lock
from typing import Protocol

import numpy as np

from stillthread.core.belief.reach import CAST_S, Reach
from stillthread.core.casts.band import Doubt, fished_by, simulate, simulate_with_band
from stillthread.core.casts.calibrate import doubt_of
from stillthread.core.casts.cast import Cast
from stillthread.core.casts.retrieve import Pull, usual_pull
from stillthread.core.casts.tables import sinking_cast
from stillthread.core.casts.track import CastResult, FlyTrack
from stillthread.core.day.model import Retrieve, Trace
from stillthread.core.errors import NobodyWaitsError
from stillthread.core.flies.placed import PlacedFly
from stillthread.core.tackle.fly_build import build_on_hook
from stillthread.core.tackle.leaders import Leader
from stillthread.core.tackle.lines import Line
from stillthread.core.tackle.rig import Float, Rig, TiedFly, level_pieces
from stillthread.core.thread.chain import SCREEN, Detail
from stillthread.core.thread.fly_sink import tied_fly, usual_fly

KEPT_PATHS = 2048
DROPPER_M = 0.15
FISHED_FOR_S = 150.0  # a slower retrieve is lifted off by then: common practice
DROPPER_SHARE = 0.25  # what a dropper adds to the point fly
TEMPERATURE_STEP_C = 2.0
BED_STEP_M = 0.25


class Shelf(Protocol):
    """Where paths outlive the process: looked up and put away by a name that says everything the path depends on."""

    def get(self, name: str) -> CastResult | None:
        """Return the path kept under a name, None where there is none."""

    def put(self, name: str, result: CastResult) -> None:
        """Keep a path under its name."""


class Paths:
    """The thread's answers, remembered: the newest in memory, all of them on a shelf where one is given."""

    def __init__(self, shelf: Shelf | None = None, kept: int = KEPT_PATHS):
        """Remember up to `kept` paths; `shelf` keeps them beyond the process."""
        self._shelf, self._kept = shelf, kept
        self._memory: OrderedDict[str, CastResult] = OrderedDict()
        self._lock = Lock()
        self._wanted: Callable[[], bool] = lambda: True

    def while_(self, wanted: Callable[[], bool]) -> Paths:
        """Return the same memory, asked for somebody who may leave: before each path it raises NobodyWaitsError once
        `wanted` says no.
        """
        asked = copy.copy(self)
        asked._wanted = wanted
        return asked

    def __len__(self) -> int:
        """Return how many paths are in memory."""
        return len(self._memory)

    def lean_on(self, shelf: Shelf | None) -> None:
        """Look on another shelf from now on, or on none."""
        self._shelf = shelf

    def clear(self) -> None:
        """Forget what is in memory; the shelf keeps its own."""
        with self._lock:
            self._memory.clear()

    def _recall(self, asked: tuple[object, ...], run: Callable[[], CastResult], chain: bool = False) -> CastResult:
        name = sha256(repr(asked).encode()).hexdigest()
        with self._lock:
            found = self._memory.get(name)
            if found is not None:
                self._memory.move_to_end(name)
                return found
        found = self._shelf.get(name) if self._shelf else None
        if found is None:
            if not self._wanted():
                raise NobodyWaitsError
            found = run().kept(chain)
            if self._shelf:
                self._shelf.put(name, found)
        with self._lock:
            self._memory[name] = found
            while len(self._memory) > self._kept:
                self._memory.popitem(last=False)
        return found

    def path(self, rig: Rig, cast: Cast) -> CastResult:
        """Return the path of a rig through a cast."""
        return self._recall(("path", rig, cast), lambda: simulate(rig, cast))

    def screened(self, rig: Rig, cast: Cast) -> CastResult:
        """Return a rough path for choosing among many casts: coarse, the pulls evened out; good to some 20 cm.

        Kept whatever the patterns are called: two of one build hang alike.
        """
        bare = replace(rig, flies=tuple(replace(fly, name="") for fly in rig.flies))
        even = usual_pull("custom", cast.pull.mean_m_s) if cast.pull.mean_m_s > 0 else cast.pull
        return self._recall(("screened", bare, cast), lambda: simulate(bare, replace(cast, pull=even), SCREEN))

    def band(self, rig: Rig, cast: Cast) -> CastResult:
        """Return the path with its band, by what is known of the line."""
        return self._recall(
            ("band", rig, cast),
            lambda: simulate_with_band(rig, cast, doubt=fished_by(doubt_of(rig.line)), shifts_at=SCREEN),
        )

    def whole(self, rig: Rig, cast: Cast, detail: Detail, doubt: Doubt | None) -> CastResult:
        """Return the path with the chain through time, in a given detail, with a band where a doubt is given."""

        def run() -> CastResult:
            return simulate_with_band(rig, cast, detail, doubt) if doubt else simulate(rig, cast, detail)

        return self._recall(("whole", rig, cast, detail, doubt), run, chain=True)

    def sink(self, rig: Rig, cast: Cast, longest_s: float) -> CastResult:
        """Return the free sink of a rig without its band, roughly."""
        return self.screened(rig, sinking_cast(cast, longest_s))


IN_MEMORY = Paths()


def binned_c(temperature_c: float | None) -> float:
    """Return a water temperature [°C] on a 2 °C grid, 10 where none was read: the thread hardly feels the difference."""
    return 10.0 if temperature_c is None else TEMPERATURE_STEP_C * round(temperature_c / TEMPERATURE_STEP_C)


def binned_bed_m(bed_m: float) -> float:
    """Return a bed [m] on a 0.25 m grid, never deeper than it is, so that a small change of depth needs no new paths."""
    return max(math.floor(bed_m / BED_STEP_M + 1e-9) * BED_STEP_M, min(bed_m, BED_STEP_M))


def pull_of(retrieve: Retrieve) -> Pull:
    """Return the thread's pull for a retrieve of the plan, whose speed is averaged over pulls and rests."""
    if retrieve.pull_m and retrieve.pause_s:
        moving_s = max(retrieve.pull_m / max(retrieve.speed_m_s, 1e-3) - retrieve.pause_s, retrieve.pull_m / 0.8)
        return usual_pull(retrieve.kind, retrieve.pull_m / moving_s, retrieve.pull_m, retrieve.pause_s)
    return usual_pull(retrieve.kind, retrieve.speed_m_s or None)


def tied(flies: Sequence[PlacedFly]) -> tuple[TiedFly, ...]:
    """Return placed flies for the thread, by their own build, else the one usual for their weight class.

    All but the last hang on droppers.
    """
    last = len(flies) - 1
    return tuple(_tied(one, DROPPER_M if i < last else 0.0) for i, one in enumerate(flies))


def _tied(one: PlacedFly, dropper_m: float) -> TiedFly:
    fly = one.fly
    if fly.build is not None:
        return tied_fly(fly.name, build_on_hook(fly.build, one.hook), one.from_line_m, dropper_m)
    return usual_fly(
        name=fly.name,
        weight=fly.weight,
        hook=one.hook,
        from_line_m=one.from_line_m,
        dropper_m=dropper_m,
        surface=fly.surface,
    )


def rig_of(line: Line, leader: Leader, flies: tuple[TiedFly, ...], float_: Float | None = None) -> Rig:
    """Return the rig of a line, a leader formula and its flies."""
    return Rig(replace(line, key="", name=""), level_pieces(leader), flies, float_)


def mean_reach(result: CastResult, reach: Reach) -> float:
    """Return the share of the belief met per second of a whole cycle, casting included, 0 to 1.

    The drop counts half (takes come on it too); a dropper adds a quarter of what it meets. Common practice, figures ours.
    """
    cycle = CAST_S + result.end_s
    met = 0.0
    for n, track in enumerate(result.flies):
        share = 1.0 if n == len(result.flies) - 1 else DROPPER_SHARE
        met += share * _met_seconds(track, reach, result.countdown_s)
    return min(met / cycle, 1.0)


def _met_seconds(track: FlyTrack, reach: Reach, countdown_s: float) -> float:
    middle = (track.depth_m[1:] + track.depth_m[:-1]) / 2
    when = (track.t_s[1:] + track.t_s[:-1]) / 2
    weight = np.where(when < countdown_s, 0.5, 1.0) * np.diff(track.t_s)
    return float(reach.many(middle) @ weight)


TRACE_POINTS = 48


def traces(result: CastResult, flies: Sequence[PlacedFly]) -> tuple[Trace, ...]:
    """Return the path of every fly at evenly spread times, few enough to draw."""
    times = np.linspace(0.0, result.end_s, TRACE_POINTS)
    return tuple(
        Trace(fly.position, tuple((round(float(t), 1), round(track.at(t), 2)) for t in times))
        for fly, track in zip(flies, result.flies, strict=True)
    )


def fished_mean_m(result: CastResult) -> float:
    """Return the mean depth of the point fly while it is fished [m]."""
    track = result.point
    inside = (track.t_s >= result.countdown_s) & (track.t_s <= result.fished_to_s)
    return float(track.depth_m[inside].mean()) if inside.any() else track.at(result.countdown_s)
