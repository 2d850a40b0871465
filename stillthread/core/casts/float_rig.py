"""Flies hung under a float: how they swing down, when the float cocks, and how a drift lifts them."""

from __future__ import annotations

from dataclasses import replace

import numpy as np
from numpy.typing import NDArray

from stillthread.core.casts.cast import WIND_DRIFT_SHARE, Cast, check_cast, first_touch, fly_track, run_chain
from stillthread.core.casts.track import CastResult
from stillthread.core.tackle.floats import SLIDE_FRICTION_G
from stillthread.core.tackle.rig import Rig, load_g
from stillthread.core.thread.chain import NOMINAL, RANKING, Chain, Detail, WhatIf, build_chain
from stillthread.core.thread.fluid import friction_log, tangential_drag_n_m, water_properties
from stillthread.core.units import GRAVITY_M_S2

Array = NDArray[np.float64]

LINE_PIECE_M = 1.0  # of floating line between float and the held end
FLOAT_DRAG = 0.08  # quadratic drag of a float two centimetres wide [N s²/m²]
HELD_DRAG = 1e5  # a float driven through the water at a given speed is not slowed by what hangs below it
COCK_SHARE = 0.85  # the float cocks when it carries this share of its final load
HUNG_SHARE = 0.95  # the rig hangs when the point fly is this close to its final depth


def hang_m(rig: Rig) -> float:
    """Return the length below the float [m]: the set depth of the point fly."""
    assert rig.float_ is not None
    return rig.leader_m - rig.float_.from_line_m


def float_drift_m_s(rig: Rig, cast: Cast) -> float:
    """Return the float's speed against the water below [m/s]: as given, else 3 % of the wind on a slack line, 0 held tight."""
    assert rig.float_ is not None
    if cast.drift_m_s is not None:
        return cast.drift_m_s
    return WIND_DRIFT_SHARE * cast.wind_m_s if rig.float_.line == "slack" else 0.0


def _layout(rig: Rig, chain: Chain, drifting: bool) -> tuple[Array, Array]:
    """Start positions with the float at x = 0, flies laid beyond it; and the nodes with the float put in."""
    assert rig.float_ is not None
    assert chain.float_node is not None
    at = chain.float_node
    start = np.zeros((len(chain.along_m), 2))
    float_along = chain.along_m[at]
    near = LINE_PIECE_M + rig.float_.from_line_m
    start[: at + 1, 0] = -near + chain.along_m[: at + 1] * near / float_along
    start[at:, 0] = chain.along_m[at:] - float_along
    nodes = chain.nodes.copy()
    nodes[at, 0] -= rig.float_.buoyancy_g * 1e-3 * GRAVITY_M_S2
    nodes[at, 1] += HELD_DRAG if drifting else FLOAT_DRAG
    nodes[: at + 1, 2] = 0.0  # rides with the float
    return start, nodes


FIRST_SLIDE_M_S, SLIDE_ROUNDS = 0.2, 4


def slide_down_s(rig: Rig, temperature_c: float, step_m: float = 0.05) -> float | None:
    """Return the time [s] the flies take to draw the leader through a sliding float to its stop, None if too light.

    Straight down: weight less friction against the flies' own drag and the skin friction of the leader already down and
    of what still lies on the water. The friction figure is ours (common practice: "a light single fly will not").
    """
    depth, weight_g = hang_m(rig), load_g(rig)
    if weight_g <= SLIDE_FRICTION_G:
        return None
    rho, nu = water_properties(temperature_c)
    force = (weight_g - SLIDE_FRICTION_G) * 1e-3 * GRAVITY_M_S2
    flies = [f for f in rig.flies if rig.float_ is not None and f.from_line_m > rig.float_.from_line_m]
    q = sum(max(abs(f.submerged_g) * 1e-3 * GRAVITY_M_S2, 2e-5) / max(abs(f.sink_m_s), 0.03) ** 2 for f in flies)
    diameter = rig.leader[-1].diameter_mm * 1e-3
    speed = FIRST_SLIDE_M_S
    for _ in range(SLIDE_ROUNDS):  # the friction of a leader this thin goes by its own logarithm
        log = friction_log(speed, diameter, depth, nu)
        skin = depth * tangential_drag_n_m(1.0, diameter, rho, nu, log=log)
        speed = float((-skin + np.sqrt(skin**2 + 4 * q * force)) / (2 * q))
    return depth / speed


def _run_swing(
    rig: Rig, cast: Cast, detail: Detail, what_if: WhatIf, hanging: bool
) -> tuple[Array, Array, Array, Chain]:
    """Run the chain from the surface, or from hanging straight (after a slide); x counted from the float's place."""
    assert rig.float_ is not None
    slack = hang_m(rig) if rig.float_.line == "slack" else 0.0
    out = LINE_PIECE_M + slack + rig.leader_m
    bare = build_chain(rig, out, detail, what_if)
    drift = float_drift_m_s(rig, cast)
    start, nodes = _layout(rig, bare, drift != 0)
    chain = replace(bare, nodes=nodes)
    at = chain.float_node or 0
    if hanging:
        start[at:, 1] = chain.along_m[at:] - chain.along_m[at]
        start[at:, 0] = 0.0
    phases = [(cast.countdown_s + cast.hold_s, 0.0)] if cast.pull.speed_m_s <= 0 else _pulled(cast)
    place = max(cast.cast_m - hang_m(rig), 0.0)
    # The chain's tip is a held end near the float; shift the bed so that the float lies at its own distance.
    held = start[0, 0]
    start[:, 0] -= held
    times, places, pulls = run_chain(
        chain=chain,
        start=start,
        cast=cast,
        phases=np.array(phases),
        detail=detail,
        flow_m_s=-drift,
        shift_m=place + held,
    )
    places = places.copy()
    places[:, :, 0] += held + place
    return times, places, pulls, chain


def _pulled(cast: Cast) -> list[tuple[float, float]]:
    """A float is drawn a little at a time: the retrieve's pace for the hold, no further than the piece of line."""
    seconds = min(cast.hold_s, 0.6 * LINE_PIECE_M / max(cast.pull.mean_m_s, 1e-3))
    rows = []
    if cast.countdown_s > 0:
        rows.append((cast.countdown_s, 0.0))
    rows.append((cast.countdown_s + seconds, cast.pull.mean_m_s))
    return rows


def _slid(
    rig: Rig, cast: Cast, times: Array, places: Array, pulls: Array, float_node: int
) -> tuple[Array, Array, Array, str]:
    """Put the slide before the hang: flies go straight down at an even pace until the stop meets the float."""
    taken = slide_down_s(rig, cast.temperature_c)
    if taken is None:
        flat = places.copy()
        flat[:, float_node:, 1] = np.minimum(flat[:, float_node:, 1], 0.1)
        return times, flat, pulls, "The flies are too light to draw the leader through the float: they stay at the top."
    share = np.clip(times / taken, 0.0, 1.0)
    down = places.copy()
    late = np.maximum(times - taken, 0.0)
    for k, s in enumerate(share):
        source = np.interp(late[k], times, np.arange(len(times)))
        low, high, w = int(source), min(int(source) + 1, len(times) - 1), source - int(source)
        later = places[low] * (1 - w) + places[high] * w
        down[k] = later
        if s < 1.0:
            down[k, float_node:, 1] = np.minimum(places[0, float_node:, 1], places[0, -1, 1] * s)
    return times, down, pulls * share[:, None], f"The leader has drawn through the float after about {taken:.0f} s."


def simulate_float(rig: Rig, cast: Cast, detail: Detail = RANKING, what_if: WhatIf = NOMINAL) -> CastResult:
    """Return the path of every fly of a float rig from landing on.

    The rig lands stretched out beyond the float and swings down under it: round a float held on a tight line, straighter
    where a slack line lets the float come after. The cast's drift is the float's speed against the water. Raises InputError
    for a rig that cannot be (a float that sinks among them), NotConvergedError where no balance is found.
    """
    check_cast(rig, cast)
    assert rig.float_ is not None
    sliding = rig.float_.kind == "sliding"
    times, places, pulls, chain = _run_swing(rig=rig, cast=cast, detail=detail, what_if=what_if, hanging=sliding)
    at = chain.float_node or 0
    notes = []
    if sliding:
        times, places, pulls, said = _slid(rig=rig, cast=cast, times=times, places=places, pulls=pulls, float_node=at)
        notes.append(said)
    flow = -float_drift_m_s(rig, cast)
    tracks = tuple(
        fly_track(rig=rig, chain=chain, n=n, times=times, places=places, flow_m_s=flow, cast=cast)
        for n in range(len(rig.flies))
    )
    below = places[:, at + 1] - places[:, at]
    length = np.maximum(np.hypot(below[:, 0], below[:, 1]), 1e-9)
    pull_g = pulls[:, at + 1] * below[:, 1] / length / GRAVITY_M_S2 * 1e3
    return CastResult(
        flies=tracks,
        bottom=first_touch(tracks, cast),
        places=places[:, at:],
        places_t_s=times,
        countdown_s=cast.countdown_s,
        fished_to_s=float(times[-1]),
        end_s=float(times[-1]),
        film_retrieve_m=tuple(0.0 for _ in tracks),
        line_end_m=np.zeros(len(times)),
        float_pull_g=pull_g,
        notes=tuple(notes),
    )


def hung_after_s(result: CastResult) -> float:
    """Return when the point fly came within 5 % of its final depth for good [s]."""
    track = result.point
    final = track.depth_m[-1]
    off = np.flatnonzero(np.abs(track.depth_m - final) > (1 - HUNG_SHARE) * max(final, 0.2))
    return float(track.t_s[min(int(off[-1]) + 1, len(track.t_s) - 1)]) if len(off) else 0.0


def cocks_after_s(result: CastResult) -> float | None:
    """Return when the float carries 85 % of its final load for good [s], None where it never carries any."""
    pull = result.float_pull_g
    if pull is None or pull[-1] <= 0:
        return None
    light = np.flatnonzero(pull < COCK_SHARE * pull[-1])
    return float(result.point.t_s[min(int(light[-1]) + 1, len(pull) - 1)]) if len(light) else 0.0
