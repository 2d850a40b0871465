"""How far off the path may be: the same cast run again with each uncertain input moved, and the shifts added up."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from stillthread.core.casts.cast import Cast, simulate_cast
from stillthread.core.casts.float_rig import simulate_float
from stillthread.core.casts.track import CastResult, FlyTrack
from stillthread.core.tackle.rig import Rig
from stillthread.core.thread.chain import NOMINAL, RANKING, Detail, WhatIf

Array = NDArray[np.float64]

Q90 = 1.2816  # 90 % point of a normal distribution
UNIFORM_SD = 3.0**-0.5  # standard deviation of a uniform spread, as a share of its half width


@dataclass(frozen=True)
class Doubt:
    """Half widths of the spread of each uncertain input, as a share of it: line rate, weight of the flies, drag, and how
    evenly an angler casts and retrieves.

    An uncalibrated line is taken to sink anywhere within 30 % of its label, a fly to weigh within 30 % of its sum, and
    drag to be known to 20 %, each evenly spread and independent: common practice put into figures. Cast and pace are
    what they are said to be unless the angler's own unevenness is asked for (`AS_FISHED`).
    """

    rate: float = 0.30
    fly_weight: float = 0.30
    drag: float = 0.20
    cast: float = 0.0
    pace: float = 0.0

    def inputs(self, rig: Rig) -> tuple[str, ...]:
        """Return the names of the inputs that matter for a rig: a floating line has no rate to doubt."""
        sinks = rig.line.family != "floating" or any(p.sink_m_s is not None for p in rig.leader)
        names = ("rate", "fly_weight", "drag") if sinks else ("fly_weight", "drag")
        return tuple(name for name in names if getattr(self, name) > 0)


LABEL_ONLY = Doubt()
# How far a cast falls short or long, and a hand is slow or quick, of what the plan says. Common practice, figures ours.
AS_FISHED = {"cast": 0.15, "pace": 0.25}


def fished_by(doubt: Doubt) -> Doubt:
    """Return a doubt with the angler's own unevenness in it."""
    return replace(doubt, **AS_FISHED)


def _uneven(cast: Cast, doubt: Doubt, sign: float) -> list[tuple[str, Cast]]:
    """The same cast shorter and slower, or longer and quicker, one thing at a time, by name."""
    step = sign * Q90 * UNIFORM_SD
    found = [("cast", replace(cast, cast_m=cast.cast_m * (1 + step * doubt.cast)))] if doubt.cast > 0 else []
    if doubt.pace > 0 and cast.pull.speed_m_s > 0:
        quicker = replace(cast.pull, speed_m_s=cast.pull.speed_m_s * (1 + step * doubt.pace))
        found.append(("pace", replace(cast, pull=quicker)))
    return found


def simulate(rig: Rig, cast: Cast, detail: Detail = RANKING, what_if: WhatIf = NOMINAL) -> CastResult:
    """Return the path of a rig once, cast or float, without a band. Raises as `simulate_cast` and `simulate_float`."""
    run = simulate_float if rig.float_ else simulate_cast
    return run(rig, cast, detail, what_if)


def _shifts(
    rig: Rig, cast: Cast, run: Callable[[Cast, WhatIf], CastResult], doubt: Doubt, times: Array
) -> list[list[Array]]:
    """For each fly, how its depth shifts [m] when each input is moved to its outer point, below and above."""
    middle = run(cast, NOMINAL)
    moved: list[CastResult] = []
    for name in doubt.inputs(rig):
        step = Q90 * UNIFORM_SD * getattr(doubt, name)
        moved += [run(cast, replace(NOMINAL, **{name: 1.0 + sign * step})) for sign in (-1.0, 1.0)]
    low, high = (_fit(rig, _uneven(cast, doubt, sign)) for sign in (-1.0, 1.0))
    for shorter, longer in zip(low, high, strict=True):
        moved += [run(shorter, NOMINAL), run(longer, NOMINAL)]
    return [
        [
            np.interp(times, other.flies[n].t_s, other.flies[n].depth_m) - np.interp(times, own.t_s, own.depth_m)
            for other in moved
        ]
        for n, own in enumerate(middle.flies)
    ]


def _fit(rig: Rig, casts: list[tuple[str, Cast]]) -> list[Cast]:
    """Casts no longer than line and leader."""
    longest = rig.line.length_m + rig.leader_m
    return [replace(one, cast_m=min(one.cast_m, longest / (1 + one.slack))) for _, one in casts]


def _spread(track: FlyTrack, shifts: list[Array]) -> FlyTrack:
    """The track with its band: shifts of independent inputs add up by their squares, up and down apart."""
    pairs = [(shifts[k], shifts[k + 1]) for k in range(0, len(shifts), 2)]
    deeper = np.sqrt(sum((np.maximum(np.maximum(a, b), 0.0) ** 2 for a, b in pairs), np.zeros_like(track.depth_m)))
    higher = np.sqrt(sum((np.minimum(np.minimum(a, b), 0.0) ** 2 for a, b in pairs), np.zeros_like(track.depth_m)))
    return replace(track, p10_m=np.maximum(track.depth_m - higher, 0.0), p90_m=track.depth_m + deeper)


def simulate_with_band(
    rig: Rig, cast: Cast, detail: Detail = RANKING, doubt: Doubt = LABEL_ONLY, shifts_at: Detail | None = None
) -> CastResult:
    """Return the path of a rig with its 10–90 % band, from one run for the middle and two for each uncertain input.

    The shifts may be run coarser than the path (`shifts_at`): being differences, they lose little by it.
    Agreement with a Monte Carlo of the same inputs is kept in docs/thread-accuracy.md. Never deeper than the bed by
    more than the path itself. Raises as `simulate`.
    """
    middle = simulate(rig, cast, detail)
    coarse = shifts_at or detail
    shifts = _shifts(
        rig=rig,
        cast=cast,
        run=lambda other, what_if: simulate(rig, other, coarse, what_if),
        doubt=doubt,
        times=middle.point.t_s,
    )
    bed_x, bed_z = cast.bed_arrays()
    flies = []
    for track, moved in zip(middle.flies, shifts, strict=True):
        spread = _spread(track, moved)
        bed = np.maximum(np.interp(track.x_m, bed_x, bed_z), track.depth_m)
        flies.append(replace(spread, p90_m=np.minimum(spread.p90_m, bed)))
    return replace(middle, flies=tuple(flies))
