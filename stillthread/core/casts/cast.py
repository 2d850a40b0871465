"""One cast: laid out on the water, counted down, brought in, held on the hang."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from stillthread.core.casts.retrieve import HANG_MARK_M, Pull, schedule
from stillthread.core.casts.track import FILM_ZONE_M, TOUCH_M, CastResult, FlyTrack, Touch
from stillthread.core.errors import InputError, Problem
from stillthread.core.tackle.rig import Rig, check_rig
from stillthread.core.thread.chain import NOMINAL, RANKING, Chain, Detail, WhatIf, build_chain
from stillthread.core.thread.fluid import water_properties
from stillthread.core.units import GRAVITY_M_S2

Array = NDArray[np.float64]

WIND_DRIFT_SHARE = 0.03  # the very surface drifts at about 3 % of the wind: common practice in limnology, from memory
LONGEST_RUN_S = 1500.0
LEAST_LINE_OUT_M = 0.3


class NotConvergedError(ArithmeticError):
    """The cable found no balance at some step: `t_s` says when; no path is returned."""

    def __init__(self, t_s: float):
        """Keep the time."""
        self.t_s = t_s
        super().__init__(f"the thread could not be computed beyond {t_s:.1f} s")


@dataclass(frozen=True)
class Cast:
    """How a rig is fished: cast [m], slack as a share of what is out, bed [(x, depth)], water [°C], count [s], retrieve.

    `wind_m_s` blows along the cast, away from the angler positive; `drift_m_s` is the boat's (or float's) speed against
    the water, away positive, so trolling is negative. `hold_s` is how long a static rig is fished, `hang_s` the hang,
    `most_s` when a slow retrieve is broken off.
    """

    cast_m: float = 18.0
    bed: tuple[tuple[float, float], ...] = ((0.0, 50.0),)
    countdown_s: float = 0.0
    pull: Pull = Pull()
    slack: float = 0.0
    temperature_c: float = 10.0
    wind_m_s: float = 0.0
    drift_m_s: float | None = None
    hold_s: float = 60.0
    hang_s: float = 6.0
    most_s: float = np.inf

    def bed_arrays(self) -> tuple[Array, Array]:
        """Return the bed as x [m] and depth [m]."""
        return np.array([x for x, _ in self.bed], dtype=float), np.array([z for _, z in self.bed], dtype=float)


def level_bed(depth_m: float) -> tuple[tuple[float, float], ...]:
    """Return a flat bed at `depth_m` [m]."""
    return ((0.0, depth_m),)


def _bed_problems(cast: Cast) -> list[Problem]:
    found = []
    if not cast.bed:
        return [Problem("empty", "bed", "There is no bed.", "water_depth_m, or at least one point of bed")]
    for n, (x, depth) in enumerate(cast.bed):
        if not depth > 0:
            said = "The bed rises above the surface." if depth < 0 else "There is no water here."
            found.append(Problem("dry", f"bed[{n}][1]", said, "a depth of more than 0 m"))
        if n and not x > cast.bed[n - 1][0]:
            found.append(Problem("unsorted", f"bed[{n}][0]", "The bed must run outwards.", "x rising from the angler"))
    return found


def check_cast(rig: Rig, cast: Cast) -> None:
    """Raise InputError with everything wrong with a rig and how it is fished, by the path of the field."""
    found = check_rig(rig) + _bed_problems(cast)
    if not cast.cast_m > 0:
        found.append(Problem("empty", "cast_m", "The cast has no length.", "more than 0 m"))
    longest = rig.line.length_m + rig.leader_m
    if cast.cast_m * (1 + cast.slack) > longest:
        said = f"{cast.cast_m * (1 + cast.slack):.1f} m are out; line and leader are {longest:.1f} m long."
        found.append(Problem("line_too_short", "cast_m", said, f"at most {longest:.1f} m"))
    if cast.countdown_s < 0:
        found.append(Problem("negative", "countdown_s", "A count cannot be negative.", "0 or more seconds"))
    if not 0 <= cast.slack <= 1:
        found.append(Problem("out_of_range", "slack", "Slack is a share of what is out.", "0 to 1"))
    if found:
        raise InputError(found)


def numbers_for(cast: Cast, detail: Detail, flow_m_s: float) -> Array:
    """Return the cable's list of water and accuracy numbers."""
    rho, nu = water_properties(cast.temperature_c)
    skin = WIND_DRIFT_SHARE * cast.wind_m_s
    return np.array([rho, nu, flow_m_s, skin, detail.tolerance_m, detail.step_s, detail.move_m])


def run_chain(
    chain: Chain, start: Array, cast: Cast, phases: Array, detail: Detail, flow_m_s: float, shift_m: float = 0.0
) -> tuple[Array, Array, Array]:
    """Run a chain; returns record times [s], positions and tensions. Raises NotConvergedError, never a smooth
    guess, and InputError for a run of more than 25 minutes.
    """
    if phases[-1, 0] > LONGEST_RUN_S:
        said = f"This cast takes {phases[-1, 0]:.0f} s."
        raise InputError(Problem("too_long", "retrieve", said, f"at most {LONGEST_RUN_S:.0f} s: faster, or shorter"))
    bed_x, bed_z = cast.bed_arrays()
    numbers = numbers_for(cast, detail, flow_m_s)
    # The compiler is fetched when a path is really run: one that is remembered needs none.
    from stillthread.core.thread.cable import run_cable

    status, t, times, places, pulls = run_cable(
        start, chain.segments, chain.nodes, bed_x - shift_m, bed_z, phases, numbers, detail.record_s
    )
    if status != 0 or not np.isfinite(places).all():
        raise NotConvergedError(t)
    return times, places, pulls


def fly_track(rig: Rig, chain: Chain, n: int, times: Array, places: Array, flow_m_s: float, cast: Cast) -> FlyTrack:
    """Return the path of fly `n`, kept between surface and bed.

    A fly on a dropper hangs where its weight and the water's pull send it from the knot.
    """
    at = chain.fly_nodes[n]
    x, z = places[:, at, 0].copy(), places[:, at, 1].copy()
    fly = rig.flies[n]
    if fly.dropper_m > 0:
        vx, vz = np.gradient(x, times) - flow_m_s, np.gradient(z, times)
        speed = np.hypot(vx, vz)
        weight = fly.submerged_g * 1e-3 * GRAVITY_M_S2
        q = chain.nodes[at, 1]
        fx, fz = -q * speed * vx, weight - q * speed * vz
        size = np.maximum(np.hypot(fx, fz), 1e-9)
        x += fly.dropper_m * fx / size
        z += fly.dropper_m * fz / size
    bed_x, bed_z = cast.bed_arrays()
    z = np.clip(z, 0.0, np.interp(x, bed_x, bed_z))
    return FlyTrack(name=fly.name, t_s=times, x_m=x, depth_m=z, p10_m=z, p90_m=z)


def first_touch(tracks: tuple[FlyTrack, ...], cast: Cast) -> Touch | None:
    """Return the first time any fly reaches the bed, or None."""
    bed_x, bed_z = cast.bed_arrays()
    found = []
    for track in tracks:
        below = np.flatnonzero(track.depth_m >= np.interp(track.x_m, bed_x, bed_z) - TOUCH_M)
        if len(below):
            k = int(below[0])
            found.append(Touch(float(track.t_s[k]), float(track.x_m[k]), float(track.depth_m[k]), track.name))
    return min(found, key=lambda touch: touch.t_s) if found else None


def _film_metres(track: FlyTrack, pull: Pull, countdown_s: float, fished_s: float) -> float:
    """Metres of the retrieve in which the fly stayed in the film."""
    inside = (track.t_s >= countdown_s) & (track.t_s <= fished_s)
    return float(np.mean(track.depth_m[inside] < FILM_ZONE_M) * (fished_s - countdown_s) * pull.mean_m_s)


def out_of_rod_m(rig: Rig, cast: Cast) -> float:
    """Return how much line and leader are outside the rod tip [m]."""
    return max(cast.cast_m * (1 + cast.slack), rig.leader_m + LEAST_LINE_OUT_M)


def simulate_cast(rig: Rig, cast: Cast, detail: Detail = RANKING, what_if: WhatIf = NOMINAL) -> CastResult:
    """Return the path of every fly through one cast; the band equals the path here (see `band.with_band`).

    The rod tip is held at the surface, x = 0; line and leader land straight, or drawn together evenly where there is
    slack. Not in the model: a greased leader held by the film, wind drift below the surface, line memory, the bow in
    plan view. Raises InputError for a rig or cast that cannot be, NotConvergedError where no balance is found.
    """
    check_cast(rig, cast)
    out = out_of_rod_m(rig, cast)
    line_out = out - rig.leader_m
    chain = build_chain(rig, out, detail, what_if)
    start = np.zeros((len(chain.along_m), 2))
    start[:, 0] = chain.along_m * (cast.cast_m / out)
    keep = HANG_MARK_M if line_out > HANG_MARK_M + 0.5 else LEAST_LINE_OUT_M
    phases, fished, _ = schedule(
        pull=cast.pull,
        countdown_s=cast.countdown_s,
        to_gain_m=max(line_out - keep, 0.0),
        hold_s=cast.hold_s,
        hang_s=cast.hang_s,
        most_s=cast.most_s,
    )
    flow = -(cast.drift_m_s or 0.0)
    times, places, _ = run_chain(chain=chain, start=start, cast=cast, phases=phases, detail=detail, flow_m_s=flow)
    tracks = tuple(
        fly_track(rig=rig, chain=chain, n=n, times=times, places=places, flow_m_s=flow, cast=cast)
        for n in range(len(rig.flies))
    )
    return CastResult(
        flies=tracks,
        bottom=first_touch(tracks, cast),
        places=places,
        places_t_s=times,
        countdown_s=cast.countdown_s,
        fished_to_s=fished,
        end_s=float(times[-1]),
        film_retrieve_m=tuple(_film_metres(t, cast.pull, cast.countdown_s, fished) for t in tracks),
        line_end_m=np.maximum(places[:, chain.line_end_node, 1], 0.0),
        float_pull_g=None,
        notes=(),
    )
