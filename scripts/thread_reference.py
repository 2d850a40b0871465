"""Slow answers to check the quick ones by: a general solver for the thread, and chance for its band. For tests and the bench.

Every node moves at the velocity at which drag, weight and tension balance; `scipy.integrate.solve_ivp` does the rest.
"""

from __future__ import annotations

import math
import pathlib
import sys
from collections.abc import Callable
from dataclasses import replace
from typing import Any

import numpy as np

sys.path.insert(0, str(pathlib.Path(__file__).resolve().parents[1]))

from stillthread.core.casts.band import LABEL_ONLY, Doubt, simulate  # noqa: E402
from stillthread.core.casts.cast import Cast  # noqa: E402
from stillthread.core.compiled import compiled  # noqa: E402
from stillthread.core.tackle.rig import Rig  # noqa: E402
from stillthread.core.thread.cable import FILM_M, STIFFNESS_N, drag_and_steepness, tangential_drag_n_m  # noqa: E402
from stillthread.core.thread.chain import NOMINAL, RANKING, Detail  # noqa: E402


@compiled
def _half_drag(
    ux: float, uz: float, tx: float, tz: float, length: float, diameter: float, rho: float, nu: float
) -> tuple[float, float, float, float, float]:
    """Drag force of half a segment on its node, and the derivatives xx, xz, zz."""
    vn, vt = uz * tx - ux * tz, ux * tx + uz * tz
    normal, tangent = abs(vn) + 1e-6, abs(vt) + 1e-6
    coefficient, growth = drag_and_steepness(normal * diameter / nu)
    gn = 0.25 * length * rho * diameter * coefficient * normal
    gt = 0.5 * length * tangential_drag_n_m(tangent, diameter, rho, nu) / tangent
    steep = gn * max(growth, 1.0)
    fx, fz = gt * vt * tx - gn * vn * tz, gt * vt * tz + gn * vn * tx
    return fx, fz, steep * tz * tz + gt * tx * tx, (gt - steep) * tx * tz, steep * tx * tx + gt * tz * tz


@compiled
def _forces(y: np.ndarray, segments: np.ndarray, nodes: np.ndarray, stiffness: float, out: np.ndarray) -> None:
    """Tension and weight on every node; the first node is held."""
    count = segments.shape[0]
    for i in range(count):
        out[i, 0] = 0.0
        out[i, 1] = 0.0
    for i in range(count):
        sinking = max(nodes[i, 0], 0.0)
        floating = min(nodes[i, 0], 0.0)
        for k in range(i, min(i + 2, count)):
            if k > 0:
                half = 0.5 * segments[k, 0] * segments[k, 2]
                sinking += max(half, 0.0)
                floating += min(half, 0.0)
        z = y[2 * i + 1]
        share = min(z / FILM_M, 1.0)
        out[i, 1] += sinking + floating * share if z >= 0 else sinking - (sinking - floating + 1e-4) / FILM_M * z
    for i in range(1, count):
        dx, dz = y[2 * i] - y[2 * i - 2], y[2 * i + 1] - y[2 * i - 1]
        distance = max(math.sqrt(dx * dx + dz * dz), 1e-9)
        pull = max(0.0, stiffness * (distance / segments[i, 0] - 1.0)) / distance
        out[i - 1, 0] += pull * dx
        out[i - 1, 1] += pull * dz
        out[i, 0] -= pull * dx
        out[i, 1] -= pull * dz


@compiled
def velocities(
    y: np.ndarray, segments: np.ndarray, nodes: np.ndarray, rho: float, nu: float, stiffness: float
) -> np.ndarray:
    """Return the velocity of every node, flat x, z, x, z …, at which its forces balance; the first node is held."""
    count = segments.shape[0]
    force = np.zeros((count, 2))
    _forces(y=y, segments=segments, nodes=nodes, stiffness=stiffness, out=force)
    answer = np.zeros(2 * count)
    for i in range(1, count):
        ux, uz = 0.0, 0.0
        for _ in range(60):
            rx, rz, jxx, jxz, jzz = force[i, 0], force[i, 1], 1e-12, 0.0, 1e-12
            for k in range(i, min(i + 2, count)):
                dx, dz = y[2 * k] - y[2 * k - 2], y[2 * k + 1] - y[2 * k - 1]
                distance = max(math.sqrt(dx * dx + dz * dz), 1e-9)
                fx, fz, a, b, c = _half_drag(
                    ux=ux,
                    uz=uz,
                    tx=dx / distance,
                    tz=dz / distance,
                    length=segments[k, 0],
                    diameter=segments[k, 1],
                    rho=rho,
                    nu=nu,
                )
                rx, rz, jxx, jxz, jzz = rx - fx, rz - fz, jxx + a, jxz + b, jzz + c
            speed = math.sqrt(ux * ux + uz * uz) + 1e-6
            q = nodes[i, 1]
            rx, rz = rx - q * speed * ux, rz - q * speed * uz
            jxx, jxz, jzz = (
                jxx + q * (speed + ux * ux / speed),
                jxz + q * ux * uz / speed,
                jzz + q * (speed + uz * uz / speed),
            )
            det = jxx * jzz - jxz * jxz
            sx, sz = (jzz * rx - jxz * rz) / det, (jxx * rz - jxz * rx) / det
            size = math.sqrt(sx * sx + sz * sz)
            share = min(1.0, 0.5 * (speed + 0.05) / max(size, 1e-12))
            ux, uz = ux + share * sx, uz + share * sz
            if size < 1e-9:
                break
        answer[2 * i], answer[2 * i + 1] = ux, uz
    return answer


def interpreted(function: Callable[..., Any]) -> Callable[..., Any]:
    """Return `velocities` without compilation of itself; what it calls stays as it is."""
    return getattr(function, "py_func", function)


def sink_by_lsoda(
    start: np.ndarray,
    segments: np.ndarray,
    nodes: np.ndarray,
    rho: float,
    nu: float,
    times: np.ndarray,
    right_hand: Callable[..., Any] = velocities,
    tolerance_m: float = 1e-5,
    stiffness: float = STIFFNESS_N,
) -> np.ndarray:
    """Return positions (times, nodes, 2) of a chain sinking from `start` by scipy's LSODA.

    `stiffness` [N] is the springs'; a softer one costs less and stretches more. Raises RuntimeError if it fails.
    """
    from scipy.integrate import solve_ivp

    done = solve_ivp(
        lambda t, y: right_hand(y, segments, nodes, rho, nu, stiffness),
        (0.0, float(times[-1])),
        start.ravel(),
        method="LSODA",
        t_eval=times,
        rtol=1e-6,
        atol=tolerance_m,
        lband=3,
        uband=3,
    )
    if not done.success:
        raise RuntimeError(done.message)
    return np.asarray(done.y.T.reshape(len(times), -1, 2))


def monte_carlo(
    rig: Rig,
    cast: Cast,
    rng: np.random.Generator,
    draws: int = 200,
    detail: Detail = RANKING,
    doubt: Doubt = LABEL_ONLY,
) -> list[tuple[np.ndarray, np.ndarray]]:
    """Return, for each fly, the 10 % and 90 % depths [m] through time of `draws` random casts; for checking the band."""
    names = doubt.inputs(rig)
    depths: list[list[np.ndarray]] = [[] for _ in rig.flies]
    for _ in range(draws):
        factors = {name: 1.0 + float(rng.uniform(-1, 1)) * getattr(doubt, name) for name in names}
        result = simulate(rig, cast, detail, replace(NOMINAL, **factors))
        for n, track in enumerate(result.flies):
            depths[n].append(track.depth_m)
    return [(np.quantile(np.array(d), 0.1, axis=0), np.quantile(np.array(d), 0.9, axis=0)) for d in depths]
