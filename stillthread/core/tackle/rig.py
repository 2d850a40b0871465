"""A rig: what is tied together, from the line to the point fly, and the checks a rig must pass before it is fished."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated, Literal

from annotated_types import Ge, Le

from stillthread.core.errors import Problem
from stillthread.core.limits import Name
from stillthread.core.tackle.leaders import Leader, Material
from stillthread.core.tackle.lines import Line

FloatKind = Literal["fixed", "release", "sliding"]
MATERIAL_DENSITY: dict[Material, float] = {"nylon": 1140.0, "fluorocarbon": 1780.0}  # [kg/m³], trade figures
SINKING_LEADER_MM = 0.7  # usual thickness, common practice
TAPERED_BUTT_X, TAPER_STEPS = -9, 6  # a tapered butt starts at 0.020 in


@dataclass(frozen=True)
class Piece:
    """A level piece of leader: length [m], diameter [mm], material, or its own sink speed [m/s] for a sinking leader."""

    length_m: float
    diameter_mm: float
    material: Material = "fluorocarbon"
    sink_m_s: float | None = None


@dataclass(frozen=True)
class TiedFly:
    """A fly on the leader: distance from the fly line [m], dropper [m], weight in water [g] and terminal speed [m/s].

    Negative weight and speed: it floats. Split shot is a fly without a hook: heavy, quick, no dropper.
    """

    name: Name
    from_line_m: Annotated[float, Le(30)]
    submerged_g: Annotated[float, Ge(-5), Le(20)]
    sink_m_s: Annotated[float, Ge(-1), Le(2)]
    dropper_m: Annotated[float, Ge(0), Le(0.5)] = 0.0


@dataclass(frozen=True)
class Float:
    """A float on the leader: fixed, release or sliding; held on a tight or a slack line; lift [g] when pushed under."""

    kind: FloatKind
    line: Literal["tight", "slack"]
    from_line_m: float
    buoyancy_g: float


@dataclass(frozen=True)
class Rig:
    """Line, leader pieces from the line down, flies from the line down, and the float if there is one."""

    line: Line
    leader: tuple[Piece, ...]
    flies: tuple[TiedFly, ...]
    float_: Float | None = None

    @property
    def leader_m(self) -> float:
        """Length of the leader [m], fly line to its end."""
        return sum(piece.length_m for piece in self.leader)


def level_pieces(leader: Leader) -> tuple[Piece, ...]:
    """Return a leader formula as level pieces; a tapered section becomes six steps from 0.51 mm down to its tip."""
    pieces: list[Piece] = []
    for n, section in enumerate(leader.sections):
        if section.sink_m_s is not None:
            pieces.append(Piece(section.length_m, SINKING_LEADER_MM, section.material, section.sink_m_s))
            continue
        if section.diameter_mm is not None:
            pieces.append(Piece(section.length_m, section.diameter_mm, section.material))
            continue
        after = next((s.diameter_mm for s in leader.sections[n + 1 :] if s.diameter_mm is not None), 0.25)
        butt = (11 - TAPERED_BUTT_X) * 0.0254
        for k in range(TAPER_STEPS):
            share = k / (TAPER_STEPS - 1)
            pieces.append(Piece(section.length_m / TAPER_STEPS, butt + (after - butt) * share, section.material))
    return tuple(pieces)


def load_g(rig: Rig) -> float:
    """Return what hangs below the float [g in water]: flies plus leader; all flies where there is no float."""
    start = rig.float_.from_line_m if rig.float_ else 0.0
    load = sum(fly.submerged_g for fly in rig.flies if fly.from_line_m > start)
    at = 0.0
    for piece in rig.leader:
        below = max(0.0, at + piece.length_m - max(at, start))
        area_m2 = 3.14159265 / 4 * (piece.diameter_mm * 1e-3) ** 2
        load += below * area_m2 * (MATERIAL_DENSITY[piece.material] - 1000.0) * 1e3
        at += piece.length_m
    return load


def _fly_problems(rig: Rig) -> list[Problem]:
    found = []
    leader_m = rig.leader_m
    for n, fly in enumerate(rig.flies):
        path = f"flies[{n}]"
        if not 0 < fly.from_line_m <= leader_m + 1e-6:
            said = f"{fly.name} is tied {fly.from_line_m:g} m from the line; the leader is {leader_m:g} m long."
            found.append(Problem("off_leader", f"{path}.from_line_m", said, f"more than 0, at most {leader_m:g} m"))
        if fly.submerged_g * fly.sink_m_s < 0 or (fly.submerged_g == 0) != (fly.sink_m_s == 0):
            said = "Weight in water and sink speed disagree: one sinks and the other floats."
            found.append(Problem("contradiction", f"{path}.sink_m_s", said, "the sign of submerged_g"))
    return found


def _float_problems(rig: Rig) -> list[Problem]:
    held = rig.float_
    if held is None:
        return []
    if rig.line.family != "floating":
        return [Problem("contradiction", "line.family", "A float needs a floating line.", "floating")]
    if not 0 < held.from_line_m < rig.leader_m:
        accepted = f"more than 0, less than {rig.leader_m:g} m"
        return [Problem("off_leader", "float.from_line_m", "The float is not on the leader.", accepted)]
    below = [fly for fly in rig.flies if fly.from_line_m > held.from_line_m]
    if not below:
        return [Problem("empty", "flies", "No fly hangs below the float.", "at least one fly below it")]
    load = load_g(rig)
    if load >= held.buoyancy_g:
        said = f"The float sinks: {load:.2f} g hang below it and it carries {held.buoyancy_g:.2f} g."
        return [Problem("float_sinks", "float.buoyancy_g", said, f"more than {load:.2f} g")]
    return []


def check_rig(rig: Rig) -> list[Problem]:
    """Return everything wrong with a rig, by the path of the field: leader, flies, float."""
    found = []
    for n, piece in enumerate(rig.leader):
        if not piece.length_m > 0:
            found.append(Problem("empty", f"leader[{n}].length_m", "This piece has no length.", "more than 0 m"))
        if not piece.diameter_mm > 0:
            found.append(Problem("empty", f"leader[{n}].diameter_mm", "This piece has no thickness.", "more than 0 mm"))
    if not rig.leader:
        found.append(Problem("empty", "leader", "There is no leader.", "at least one piece"))
    if not rig.flies:
        found.append(Problem("empty", "flies", "There is no fly.", "at least one fly"))
    return found or _fly_problems(rig) + _float_problems(rig)
