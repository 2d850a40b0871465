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
    """Half widths of the spread of each uncertain input, as a share of it: line rate, weight of the flies, drag.

    An uncalibrated line is taken to sink anywhere within 30 % of its label, a fly to weigh within 30 % of its sum, and
    drag to be known to 20 %, each evenly spread and independent: common practice put into figures.
    """

    rate: float = 0.30
    fly_weight: float = 0.30
    drag: float = 0.20

    def inputs(self, rig: Rig) -> tuple[str, ...]:
        """Return the names of the inputs that matter for a rig: a floating line has no rate to doubt."""
        sinks = rig.line.family != "floating" or any(p.sink_m_s is not None for p in rig.leader)
        names = ("rate", "fly_weight", "drag") if sinks else ("fly_weight", "drag")
        return tuple(name for name in names if getattr(self, name) > 0)


LABEL_ONLY = Doubt()


def simulate(rig: Rig, cast: Cast, detail: Detail = RANKING, what_if: WhatIf = NOMINAL) -> CastResult:
    """Return the path of a rig once, cast or float, without a band. Raises as `simulate_cast` and `simulate_float`."""
    run = simulate_float if rig.float_ else simulate_cast
    return run(rig, cast, detail, what_if)


def _shifts(rig: Rig, run: Callable[[WhatIf], CastResult], doubt: Doubt, times: Array) -> list[list[Array]]:
    """For each fly, how its depth shifts [m] when each input is moved to its outer point, below and above."""
    middle = run(NOMINAL)
    found: list[list[Array]] = [[] for _ in middle.flies]
    for name in doubt.inputs(rig):
        step = Q90 * UNIFORM_SD * getattr(doubt, name)
        for sign in (-1.0, 1.0):
            moved = run(replace(NOMINAL, **{name: 1.0 + sign * step}))
            for n, track in enumerate(moved.flies):
                shift = track.depth_m - middle.flies[n].depth_m
                found[n].append(np.interp(times, track.t_s, shift))
    return found


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
    shifts = _shifts(rig, lambda what_if: simulate(rig, cast, coarse, what_if), doubt, middle.point.t_s)
    bed_x, bed_z = cast.bed_arrays()
    flies = []
    for track, moved in zip(middle.flies, shifts, strict=True):
        spread = _spread(track, moved)
        bed = np.maximum(np.interp(track.x_m, bed_x, bed_z), track.depth_m)
        flies.append(replace(spread, p90_m=np.minimum(spread.p90_m, bed)))
    return replace(middle, flies=tuple(flies))
