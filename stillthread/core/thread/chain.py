"""A rig laid out as a chain of nodes: where the nodes sit, what each segment weighs, what each fly adds."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from stillthread.core.tackle.rig import MATERIAL_DENSITY, Rig
from stillthread.core.thread.fluid import normal_drag_n_m, water_properties
from stillthread.core.thread.line_weight import line_stretches
from stillthread.core.units import GRAVITY_M_S2

Array = NDArray[np.float64]

SMALLEST_FLY_N = 2e-5  # a neutral fly still stirs water: drag of a soaked fibre the size of a hook
SMALLEST_FLY_M_S = 0.03


@dataclass(frozen=True)
class Detail:
    """How fine a run is: longest segment of line and of leader [m], longest step [s], move a step [m], record [s]."""

    line_m: float = 1.0
    leader_m: float = 0.5
    step_s: float = 0.5
    move_m: float = 0.06
    tolerance_m: float = 3e-4
    record_s: float = 0.5


RANKING = Detail()
SCREEN = Detail(line_m=2.0, leader_m=1.0, step_s=1.0, move_m=0.2, tolerance_m=1e-3, record_s=1.0)
FINE = Detail(line_m=0.5, leader_m=0.25, step_s=0.25, move_m=0.025, tolerance_m=1e-4, record_s=0.25)


@dataclass(frozen=True)
class WhatIf:
    """Uncertain inputs as factors on their best guess: line rate, weight of the flies, drag of leader and flies."""

    rate: float = 1.0
    fly_weight: float = 1.0
    drag: float = 1.0


NOMINAL = WhatIf()


@dataclass(frozen=True)
class Chain:
    """Tables for the cable, the node of each fly, and the distance of each node from the rod tip along the chain [m]."""

    segments: Array
    nodes: Array
    along_m: Array
    fly_nodes: tuple[int, ...]
    float_node: int | None
    line_end_node: int


def _properties(rig: Rig, out_m: float, what_if: WhatIf) -> tuple[Array, Array, Array, Array]:
    """Boundaries along the chain from the rod tip [m], and diameter [m], weight [N/m] and drag factor between them."""
    line_out = out_m - rig.leader_m
    pieces: list[tuple[float, float, float, float]] = []
    left = line_out
    for stretch in line_stretches(rig.line, what_if.rate):
        length = min(stretch.length_m, left)
        if length > 1e-9:
            pieces.append((length, stretch.diameter_m, stretch.net_n_m, 1.0))
        left -= length
    pieces.reverse()  # stretches run from the line's front end, the chain from the rod tip
    rho, nu = water_properties(10.0)
    for piece in rig.leader:
        diameter = piece.diameter_mm * 1e-3
        if piece.sink_m_s is not None:
            net = float(normal_drag_n_m(piece.sink_m_s * what_if.rate, diameter, rho, nu))
        else:
            net = (MATERIAL_DENSITY[piece.material] - rho) * GRAVITY_M_S2 * np.pi * diameter**2 / 4
        pieces.append((piece.length_m, diameter, net, what_if.drag))
    table = np.array(pieces)
    return np.concatenate([[0.0], np.cumsum(table[:, 0])]), table[:, 1], table[:, 2], table[:, 3]


def _places(bounds: Array, marks: list[float], line_out: float, detail: Detail) -> Array:
    """Nodes along the chain [m]: at every boundary and fly, and no segment longer than the detail allows."""
    fixed = np.unique(np.round(np.concatenate([bounds, marks]), 4))
    places = [0.0]
    for a, b in zip(fixed[:-1], fixed[1:], strict=True):
        longest = detail.line_m if b <= line_out + 1e-6 else detail.leader_m
        count = max(1, int(np.ceil((b - a) / longest - 1e-6)))
        places += [a + (b - a) * (k + 1) / count for k in range(count)]
    return np.array(places)


def build_chain(rig: Rig, out_m: float, detail: Detail = RANKING, what_if: WhatIf = NOMINAL) -> Chain:
    """Return the chain for `out_m` [m] of line and leader outside the rod tip.

    Leader weight follows from its density, a line's from its rate; a fly adds its weight in water and a quadratic drag
    that makes it sink at its terminal speed alone.
    """
    line_out = out_m - rig.leader_m
    bounds, diameter, net, drag = _properties(rig, out_m, what_if)
    marks = [line_out + fly.from_line_m for fly in rig.flies]
    if rig.float_:
        marks.append(line_out + rig.float_.from_line_m)
    places = _places(bounds, marks, line_out, detail)
    middle = (places[1:] + places[:-1]) / 2
    kind = np.clip(np.searchsorted(bounds, middle) - 1, 0, len(diameter) - 1)
    segments = np.zeros((len(places), 4))
    segments[1:, 0] = np.diff(places)
    segments[1:, 1], segments[1:, 2], segments[1:, 3] = diameter[kind], net[kind], drag[kind]
    nodes = np.zeros((len(places), 3))
    nodes[:, 2] = 1.0
    fly_nodes = []
    for fly, mark in zip(rig.flies, marks, strict=False):
        at = int(np.argmin(np.abs(places - mark)))
        weight = fly.submerged_g * 1e-3 * GRAVITY_M_S2
        pull, speed = max(abs(weight), SMALLEST_FLY_N), max(abs(fly.sink_m_s), SMALLEST_FLY_M_S)
        nodes[at, 0] += weight * what_if.fly_weight
        nodes[at, 1] += pull / speed**2 * what_if.drag
        fly_nodes.append(at)
    float_node = int(np.argmin(np.abs(places - marks[-1]))) if rig.float_ else None
    return Chain(
        segments=segments,
        nodes=nodes,
        along_m=places,
        fly_nodes=tuple(fly_nodes),
        float_node=float_node,
        line_end_node=int(np.argmin(np.abs(places - max(line_out, 0.0)))),
    )
