"""Leader formulas: sections from the line down, their sizes, and the cut list to tie from."""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Literal

from stillthread.core.units import INCH_M, feet_to_m, inches_per_second_to_m_s

Material = Literal["nylon", "fluorocarbon"]


@dataclass(frozen=True)
class Section:
    """One piece of the leader: what it is, length [m], X size and material; a sinking leader has its own speed [m/s]."""

    part: str
    length_m: float
    x_size: int | None
    material: Material = "fluorocarbon"
    sink_m_s: float | None = None

    @property
    def diameter_mm(self) -> float | None:
        """Diameter [mm] of a level piece by its X size; None for a tapered piece."""
        return None if self.x_size is None else tippet_diameter_mm(self.x_size)


@dataclass(frozen=True)
class Leader:
    """A whole leader, with the distance of each fly from the fly line [m], top dropper first, point last."""

    sections: tuple[Section, ...]
    flies_at_m: tuple[float, ...]

    @property
    def length_m(self) -> float:
        """Length [m] from fly line to point fly."""
        return sum(section.length_m for section in self.sections)


def tippet_diameter_mm(x_size: int) -> float:
    """Return the diameter [mm] of a tippet: (11 - X) thousandths of an inch. Trade rule; 3X is 0.203 mm.

    Raises ValueError outside 0X to 8X.

    >>> round(tippet_diameter_mm(3), 3)
    0.203
    """
    if not 0 <= x_size <= 8:
        raise ValueError("tippet sizes run from 0X to 8X")
    return (11 - x_size) * INCH_M  # thousandths of an inch, in mm


def tippet_for(clarity: str | None, bright: bool, big_flies: bool) -> int:
    """Return the tippet X size for the water: 3X to start, finer in clear bright water, stouter in colour or for bulk.

    Common practice; never finer than 4X here, for lakes with weed and big fish.
    """
    size = 3
    if clarity in ("gin-clear", "clear") and bright:
        size += 1
    if clarity == "coloured" or big_flies:
        size -= 1
    return size


def casting_leader(x_size: int, hard: bool) -> Leader:
    """Return the leader for one fly on a floating line: 9 ft tapered + 3 ft, and 3 ft more in hard conditions.

    Trade formula (12 ft and 15 ft). `x_size` is the last piece's.
    """
    steps = [x_size - 2, x_size - 1, x_size] if hard else [x_size - 1, x_size]
    sections = [Section(f"tapered to {max(steps[0], 0)}X", feet_to_m(9), None, "nylon")]
    sections += [Section("tippet", feet_to_m(3), max(size, 0)) for size in steps[1:]]
    return Leader(tuple(sections), (sum(s.length_m for s in sections),))


def team_leader(x_size: int, flies: int, to_first_m: float, spacing_m: float) -> Leader:
    """Return a level team leader: `to_first_m` [m] to the first fly, then `spacing_m` [m] between `flies` flies.

    Trade practice: 8 + 6 + 6 ft for three flies. Raises ValueError below one fly.
    """
    if flies < 1:
        raise ValueError("a leader needs a fly")
    sections = [Section("butt to first fly", to_first_m, x_size)]
    sections += [Section("to next fly", spacing_m, x_size) for _ in range(flies - 1)]
    return Leader(tuple(sections), tuple(to_first_m + spacing_m * i for i in range(flies)))


def sinking_leader(x_size: int, flies: int) -> Leader:
    """Return a short level leader for a sinking line: 7 ft to one fly, or 7 ft and then 5 ft for a second.

    Trade practice: 1.8 to 2.4 m for one fly, longer for a team.
    """
    return team_leader(x_size, flies, feet_to_m(7), feet_to_m(5))


def float_leader(x_size: int, hang_m: float, flies: int) -> Leader:
    """Return a leader to hang `hang_m` [m] below a float: a 3 ft butt above it, level below, droppers evenly spread.

    The float sits at the end of the butt, so the point hangs `hang_m` below the surface. With three flies the upper
    two divide the length evenly (the trade's 14 ft example); two flies stand 0.9 m apart or half the hang if shallower.
    Raises ValueError unless the hang is positive.
    """
    if not hang_m > 0:
        raise ValueError("the point fly must hang below the float")
    butt = feet_to_m(3)
    if flies == 1:
        below = [hang_m]
    elif flies == 2:
        gap = min(0.9, hang_m / 2)
        below = [hang_m - gap, gap]
    else:
        below = [hang_m / flies] * flies
    sections = [Section("butt above the float", butt, 0, "nylon")]
    sections += [
        Section("float to first fly" if i == 0 else "to next fly", length, x_size) for i, length in enumerate(below)
    ]
    at, total = [], butt
    for length in below:
        total += length
        at.append(total)
    return Leader(tuple(sections), tuple(at))


SHORTEST_FIRST_M = 0.3
SINKING_LEADER_M, SINKING_LEADER_IPS = 1.5, 1.5  # the usual slow one: common practice


def sinking_tip_leader(x_size: int) -> Leader:
    """Return a 1.5 m sinking leader (1.5 in/s) with 9 ft of level tippet, for one fly on a floating line. Trade practice."""
    sink = inches_per_second_to_m_s(SINKING_LEADER_IPS)
    sections = (
        Section(part="sinking leader", length_m=SINKING_LEADER_M, x_size=None, material="nylon", sink_m_s=sink),
        Section("tippet", feet_to_m(9), x_size),
    )
    return Leader(sections, (sum(s.length_m for s in sections),))


def of_length(leader: Leader, length_m: float) -> Leader:
    """Return a leader with its first section longer or shorter, so that it is `length_m` [m] long, the rest as it was.

    Raises ValueError where less than 0.3 m of the first section would be left.
    """
    more = length_m - leader.length_m
    first = replace(leader.sections[0], length_m=leader.sections[0].length_m + more)
    if first.length_m < SHORTEST_FIRST_M:
        shortest = leader.length_m - leader.sections[0].length_m + SHORTEST_FIRST_M
        raise ValueError(f"with these flies the leader is at least {shortest:.1f} m long")
    return Leader((first, *leader.sections[1:]), tuple(at + more for at in leader.flies_at_m))
