"""The thread in the water: a chain of nodes from the rod tip to the point fly, where pull, weight and drag balance.

Inertia is negligible (time constant below 0.1 s), so each step solves drag + net weight + tension = 0 by backward Euler
and Newton's method. Segments pull but never push. Scheme from memory of lumped-mass mooring codes (common practice).
"""

from __future__ import annotations

import math

import numpy as np
from numpy.typing import NDArray

from stillthread.core.compiled import compiled
from stillthread.core.thread import fluid

Array = NDArray[np.float64]

STIFFNESS_N = 50.0  # tension per unit strain: below 0.5 % in the fastest retrieve
FILM_M = 0.005  # a floating thing gains its full buoyancy over this depth
BED_GIVE_M = 0.003  # how far a resting node sinks into the bed
BED_FRICTION = 0.5
CREEP_M_S = 0.005  # friction on the bed is full above this speed
SKIN_M = 0.1  # the wind's drift of the very surface fades over this depth
SHORTEST_SHARE = 0.35  # the first segment gives up its node below this share of its own length
MOST_PASSES = 25
SHORTEST_STEP_S = 5e-4
LONGEST_MOVE_M = 0.25  # of a node in one Newton pass

# Columns of the segment table and of the node table.
SEG_LENGTH, SEG_DIAMETER, SEG_WEIGHT, SEG_DRAG = 0, 1, 2, 3
NODE_WEIGHT, NODE_QUADRATIC, NODE_FLOW = 0, 1, 2
# Places in the list of numbers that describe water and accuracy.
RHO, NU, FLOW, SKIN, TOLERANCE, LONGEST_STEP, MOVE = 0, 1, 2, 3, 4, 5, 6


drag_and_steepness = compiled(fluid.drag_and_steepness)
tangential_drag_n_m = compiled(fluid.tangential_drag_n_m)


@compiled
def bed_at(x: float, bed_x: Array, bed_z: Array) -> tuple[float, float]:
    """Return depth [m] and slope [m/m] of a bed given by straight pieces, level beyond its ends."""
    last = len(bed_x) - 1
    if x <= bed_x[0]:
        return bed_z[0], 0.0
    if x >= bed_x[last]:
        return bed_z[last], 0.0
    i = 1
    while bed_x[i] < x:
        i += 1
    slope = (bed_z[i] - bed_z[i - 1]) / (bed_x[i] - bed_x[i - 1])
    return bed_z[i - 1] + slope * (x - bed_x[i - 1]), slope


@compiled
def _add_segment(
    i: int, a: int, seg: Array, pos: Array, vel: Array, dt: float, num: Array, diag: Array, off: Array, rhs: Array
) -> float:
    """Add tension and drag of segment `i` between nodes `a` and `i`; returns its tension [N]."""
    length, diameter = seg[i, SEG_LENGTH], seg[i, SEG_DIAMETER]
    dx, dz = pos[i, 0] - pos[a, 0], pos[i, 1] - pos[a, 1]
    distance = max(math.sqrt(dx * dx + dz * dz), 1e-9)
    tx, tz = dx / distance, dz / distance
    tension: float = max(0.0, STIFFNESS_N * (distance / length - 1.0))
    along = STIFFNESS_N / length if tension > 0 else 0.0
    across = tension / distance
    kxx = along * tx * tx + across * tz * tz
    kzz = along * tz * tz + across * tx * tx
    kxz = (along - across) * tx * tz
    off[i, 0], off[i, 1], off[i, 2] = -kxx, -kxz, -kzz
    # Drag: coefficients by the mean velocity of the two ends, forces by each end's own.
    ux, uz = 0.5 * (vel[a, 0] + vel[i, 0]), 0.5 * (vel[a, 1] + vel[i, 1])
    normal = abs(uz * tx - ux * tz) + 1e-6
    tangent = abs(ux * tx + uz * tz) + 1e-6
    rho, nu = num[RHO], num[NU]
    re = normal * diameter / nu
    coefficient, growth = drag_and_steepness(re)
    half = 0.5 * length * seg[i, SEG_DRAG]
    gn = half * 0.5 * rho * diameter * coefficient * normal
    gt = half * tangential_drag_n_m(tangent, diameter, rho, nu) / tangent
    steep = gn * max(growth, 1.0)
    jxx = (steep * tz * tz + gt * tx * tx) / dt + kxx
    jzz = (steep * tx * tx + gt * tz * tz) / dt + kzz
    jxz = (gt - steep) * tx * tz / dt + kxz
    half_weight = 0.5 * length * seg[i, SEG_WEIGHT]
    for node, sign in ((a, 1.0), (i, -1.0)):
        vn = vel[node, 1] * tx - vel[node, 0] * tz
        vt = vel[node, 0] * tx + vel[node, 1] * tz
        rhs[node, 0] += sign * tension * tx - (gt * vt * tx - gn * vn * tz)
        rhs[node, 1] += sign * tension * tz - (gt * vt * tz + gn * vn * tx)
        diag[node, 0] += jxx
        diag[node, 1] += jxz
        diag[node, 2] += jzz
        rhs[node, 2 if half_weight > 0 else 3] += half_weight
    return tension


@compiled
def _add_node(
    i: int, node: Array, pos: Array, vel: Array, dt: float, bed_x: Array, bed_z: Array, diag: Array, rhs: Array
) -> None:
    """Add a node's own weight and drag, the surface and the bed. Weights gathered so far stand in rhs[i, 2:4]."""
    weight = node[i, NODE_WEIGHT]
    rhs[i, 2 if weight > 0 else 3] += weight
    sinking, floating = rhs[i, 2], rhs[i, 3]
    z = pos[i, 1]
    if z >= FILM_M:
        rhs[i, 1] += sinking + floating
    elif z >= 0:
        rhs[i, 1] += sinking + floating * z / FILM_M
        diag[i, 2] -= floating / FILM_M
    else:
        stiff = (sinking - floating + 1e-4) / FILM_M
        rhs[i, 1] += sinking - stiff * z
        diag[i, 2] += stiff
    vx, vz = vel[i, 0], vel[i, 1]
    speed = math.sqrt(vx * vx + vz * vz) + 1e-6
    q = node[i, NODE_QUADRATIC]
    rhs[i, 0] -= q * speed * vx
    rhs[i, 1] -= q * speed * vz
    diag[i, 0] += q * (speed + vx * vx / speed) / dt
    diag[i, 1] += q * vx * vz / speed / dt
    diag[i, 2] += q * (speed + vz * vz / speed) / dt
    bed, slope = bed_at(pos[i, 0], bed_x, bed_z)
    if z > bed:
        root = math.sqrt(1.0 + slope * slope)
        nx, nz = -slope / root, 1.0 / root
        stiff = (abs(sinking + floating) + 2e-3) / BED_GIVE_M
        push = stiff * (z - bed) / root
        grip = BED_FRICTION * push / (speed + CREEP_M_S)
        rhs[i, 0] -= push * nx + grip * vx
        rhs[i, 1] -= push * nz + grip * vz
        diag[i, 0] += stiff * nx * nx + grip / dt
        diag[i, 1] += stiff * nx * nz
        diag[i, 2] += stiff * nz * nz + grip / dt


@compiled
def _solve(first: int, last: int, diag: Array, off: Array, rhs: Array) -> None:
    """Solve the symmetric block tridiagonal system in place; the answer is left in rhs[:, 0:2]."""
    for i in range(first + 1, last + 1):
        p = i - 1
        a, b, c = diag[p, 0], diag[p, 1], diag[p, 2]
        det = a * c - b * b
        e, f, g = off[i, 0], off[i, 1], off[i, 2]
        m11, m12 = (e * c - f * b) / det, (f * a - e * b) / det
        m21, m22 = (f * c - g * b) / det, (g * a - f * b) / det
        diag[i, 0] -= m11 * e + m12 * f
        diag[i, 1] -= m11 * f + m12 * g
        diag[i, 2] -= m21 * f + m22 * g
        rhs[i, 0] -= m11 * rhs[p, 0] + m12 * rhs[p, 1]
        rhs[i, 1] -= m21 * rhs[p, 0] + m22 * rhs[p, 1]
    for i in range(last, first - 1, -1):
        if i < last:
            n = i + 1
            rhs[i, 0] -= off[n, 0] * rhs[n, 0] + off[n, 1] * rhs[n, 1]
            rhs[i, 1] -= off[n, 1] * rhs[n, 0] + off[n, 2] * rhs[n, 1]
        a, b, c = diag[i, 0], diag[i, 1], diag[i, 2]
        det = a * c - b * b
        rx, rz = rhs[i, 0], rhs[i, 1]
        rhs[i, 0] = (c * rx - b * rz) / det
        rhs[i, 1] = (a * rz - b * rx) / det


@compiled
def _newton_pass(
    first: int,
    pos: Array,
    old: Array,
    dt: float,
    seg: Array,
    node: Array,
    bed_x: Array,
    bed_z: Array,
    num: Array,
    work: Array,
    pull: Array,
) -> float:
    """One Newton pass on the positions `pos` at the end of a step; returns the largest move it made [m]."""
    last = pos.shape[0] - 1
    diag, off, rhs, vel = work[0], work[1], work[2], work[3]
    for i in range(first - 1, last + 1):
        for c in range(4):
            diag[i, c] = 0.0
            rhs[i, c] = 0.0
        skin = num[SKIN] * math.exp(-max(pos[i, 1], 0.0) / SKIN_M) if num[SKIN] != 0.0 else 0.0
        vel[i, 0] = (pos[i, 0] - old[i, 0]) / dt - (num[FLOW] + skin) * node[i, NODE_FLOW]
        vel[i, 1] = (pos[i, 1] - old[i, 1]) / dt
    for c in range(4):
        diag[0, c] = 0.0
        rhs[0, c] = 0.0
    vel[0, 0] = 0.0
    vel[0, 1] = 0.0
    for i in range(first, last + 1):
        a = 0 if i == first else i - 1
        pull[i] = _add_segment(i, a, seg, pos, vel, dt, num, diag, off, rhs)
    for i in range(first, last + 1):
        _add_node(i, node, pos, vel, dt, bed_x, bed_z, diag, rhs)
    _solve(first, last, diag, off, rhs)
    most = 0.0
    for i in range(first, last + 1):
        most = max(most, abs(rhs[i, 0]), abs(rhs[i, 1]))
    share = 1.0 if most <= LONGEST_MOVE_M else LONGEST_MOVE_M / most
    for i in range(first, last + 1):
        pos[i, 0] += share * rhs[i, 0]
        pos[i, 1] += share * rhs[i, 1]
    return most


@compiled
def _reel(first: int, shorten: float, seg: Array, own: Array, last: int) -> int:
    """Shorten the chain at the rod tip by `shorten` [m]; returns the new first node (nodes drawn in are given up)."""
    seg[first, SEG_LENGTH] -= shorten
    while first < last and seg[first, SEG_LENGTH] < SHORTEST_SHARE * own[first]:
        seg[first + 1, SEG_LENGTH] += seg[first, SEG_LENGTH]
        first += 1
    seg[first, SEG_LENGTH] = max(seg[first, SEG_LENGTH], 0.02)
    return first


@compiled
def _try_step(
    first: int,
    pos: Array,
    old: Array,
    velocity: Array,
    step: float,
    seg: Array,
    node: Array,
    bed_x: Array,
    bed_z: Array,
    num: Array,
    work: Array,
    pull: Array,
) -> bool:
    """Move the chain by one step of `step` [s], guessing that it goes on as before; returns whether it converged."""
    for i in range(first, pos.shape[0]):
        for c in range(2):
            old[i, c] = pos[i, c]
            pos[i, c] += velocity[i, c] * step
    for _ in range(MOST_PASSES):
        moved = _newton_pass(first, pos, old, step, seg, node, bed_x, bed_z, num, work, pull)
        if moved <= num[TOLERANCE]:
            return True
        if not moved < 1e6:
            return False
    return False


@compiled
def _settle(first: int, pos: Array, old: Array, velocity: Array, step: float, pull: Array) -> float:
    """Note velocities after a step, put drawn-in nodes at the rod tip; returns the quickest component [m/s]."""
    most = 1e-9
    for i in range(first, pos.shape[0]):
        for c in range(2):
            velocity[i, c] = (pos[i, c] - old[i, c]) / step
            most = max(most, abs(velocity[i, c]))
    for i in range(1, first):
        for c in range(2):
            pos[i, c] = pos[0, c]
            old[i, c] = pos[0, c]
        pull[i] = 0.0
    return most


@compiled
def _record(
    kept: int,
    t: float,
    step: float,
    ends: tuple[float, float],
    now: tuple[Array, Array, Array],
    log: tuple[Array, Array, Array],
) -> int:
    """Record every moment passed in this step, between its two ends; returns how many are kept now."""
    total, every = ends
    pos, old, pull = now
    times, places, pulls = log
    while kept < len(times) and (kept * every <= t + 1e-9 or t >= total - 1e-9):
        at = min(kept * every, total)
        back = (t - at) / step
        times[kept] = at
        for i in range(pos.shape[0]):
            for c in range(2):
                places[kept, i, c] = pos[i, c] + (old[i, c] - pos[i, c]) * back
            pulls[kept, i] = pull[i]
        kept += 1
        if at >= total:
            break
    return kept


@compiled
def run_cable(
    start: Array,
    segments: Array,
    node: Array,
    bed_x: Array,
    bed_z: Array,
    phases: Array,
    num: Array,
    record_every_s: float,
) -> tuple[int, float, Array, Array, Array]:
    """Run a chain through its phases and record it.

    `start` [m], shape (n + 1, 2), are x and depth of the nodes, the rod tip first; `segments` (n + 1, 4) length [m],
    diameter [m], net weight [N/m] and a drag factor, row 0 unused; `node` (n + 1, 3) net weight [N], quadratic drag
    [N s²/m²] and share of the water's flow; the bed is straight pieces (`bed_x` rising, `bed_z` depth, [m]); `phases`
    (k, 2) end time [s] and line speed in [m/s]; `num` holds water density [kg/m³], kinematic viscosity [m²/s], flow and
    surface drift [m/s, away from the angler positive], Newton tolerance [m], longest step [s] and longest move a step [m].

    Returns a status (0 done, 1 no convergence), the time it stopped [s], record times (r,), positions (r, n + 1, 2), and
    tensions (r, n + 1) [N]; nodes drawn in stand at the rod tip.
    """
    count = start.shape[0]
    last = count - 1
    pos, old, seg, own = start.copy(), start.copy(), segments.copy(), segments[:, SEG_LENGTH].copy()
    velocity, work, pull = np.zeros((count, 2)), np.zeros((4, count, 4)), np.zeros(count)
    total = phases[-1, 0]
    room = int(total / record_every_s) + 3
    log = (np.zeros(room), np.zeros((room, count, 2)), np.zeros((room, count)))
    log[1][0] = start
    kept, first, phase, t, dt = 1, 1, 0, 0.0, 0.01
    while t < total - 1e-9:
        while phases[phase, 0] <= t + 1e-9:
            phase += 1
            dt = min(dt, 2.5 * num[MOVE])
        step = min(dt, phases[phase, 0] - t, num[LONGEST_STEP])
        before, lengths = first, seg[first : min(first + 3, count), SEG_LENGTH].copy()
        first = _reel(first, phases[phase, 1] * step, seg, own, last)
        if not _try_step(first, pos, old, velocity, step, seg, node, bed_x, bed_z, num, work, pull):
            if step <= SHORTEST_STEP_S or first > before + 1:
                return 1, t, log[0][:kept], log[1][:kept], log[2][:kept]
            pos[first:] = old[first:]
            velocity[:] = 0.0
            first = before
            seg[first : min(first + 3, count), SEG_LENGTH] = lengths
            dt = step / 4
            continue
        most = _settle(first, pos, old, velocity, step, pull)
        t += step
        kept = _record(kept, t, step, (total, record_every_s), (pos, old, pull), log)
        dt = max(min(num[MOVE] / most, 2.0 * step), 4 * SHORTEST_STEP_S)
    return 0, t, log[0][:kept], log[1][:kept], log[2][:kept]
