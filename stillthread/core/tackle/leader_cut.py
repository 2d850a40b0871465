"""A cut list from a wanted length: how long each piece of a leader is, by the way it is built."""

from __future__ import annotations

import math
from typing import Literal, get_args

from stillthread.core.tackle.leaders import Leader, Section, float_leader, team_leader
from stillthread.core.units import feet_to_m

LeaderStyle = Literal["tapered", "swivel", "short-butt", "level", "team", "float"]
STYLES = get_args(LeaderStyle)
TAPER_M = feet_to_m(9)
TIPPET_M = feet_to_m(3)
SWIVEL_TIP_M = feet_to_m(2)
SHORT_BUTT_M = feet_to_m(3)
BUTT_TO_TIPPET = (7.0, 6.0)  # of a leader with a swivel: butt and taper against tippet
TEAM_SHARES = {2: (8.0, 6.0), 3: (8.0, 6.0, 6.0)}
KNOT_M = 0.05  # what a knot takes up on each side, common practice
SHORTEST_M, LONGEST_M = 1.0, 12.0


def _tapered(wanted_m: float, x_size: int) -> Leader:
    """A 9 ft tapered leader and tippet in equal steps of 3 ft at most, each a size finer."""
    rest = wanted_m - TAPER_M
    if rest <= 1e-9:
        return Leader((Section(f"tapered to {x_size}X, cut back", wanted_m, None, "nylon"),), (wanted_m,))
    steps = max(1, math.ceil(rest / TIPPET_M - 1e-9))
    sizes = [max(0, x_size - steps + 1 + n) for n in range(steps)]
    first = Section(f"tapered to {max(0, sizes[0] - 1)}X", TAPER_M, None, "nylon")
    pieces = [Section("tippet", rest / steps, size) for size in sizes]
    return Leader((first, *pieces), (wanted_m,))


def _swivel(wanted_m: float, x_size: int) -> Leader:
    """Butt and taper, tippet, a small swivel, and exactly 2 ft to the fly: the 2 ft are a ruler for depth."""
    rest = wanted_m - SWIVEL_TIP_M
    butt, tippet = (rest * share / sum(BUTT_TO_TIPPET) for share in BUTT_TO_TIPPET)
    sections = (
        Section("butt and taper", butt, None, "nylon"),
        Section("tippet to the swivel", tippet, max(0, x_size - 1)),
        Section("swivel to fly", SWIVEL_TIP_M, x_size),
    )
    return Leader(sections, (wanted_m,))


def _team(wanted_m: float, x_size: int, flies: int) -> Leader:
    shares = TEAM_SHARES.get(flies)
    if shares is None:
        return team_leader(x_size, flies, wanted_m / flies, wanted_m / flies)
    lengths = [wanted_m * share / sum(shares) for share in shares]
    return team_leader(x_size, flies, lengths[0], lengths[-1])


def leader_of_length(style: str, wanted_m: float, x_size: int = 3, flies: int = 1) -> Leader:
    """Return a leader of `wanted_m` [m] in a style, with its flies.

    Styles: tapered (9 ft taper and tippet: 12 ft is 9 + 3, 15 ft is 9 + 3 + 3), swivel (15 ft is 7 + 6 + 2), short-butt
    (10 ft is 3 + 7), level, team (20 ft is 8 + 6 + 6), float (the wanted length hangs below the float, 3 ft of butt above). Trade formulas, in feet. Raises ValueError for another style, a length outside 1 to 12 m, flies below 1.
    """
    if style not in STYLES:
        raise ValueError(f"no leader style '{style}'")
    if not SHORTEST_M <= wanted_m <= LONGEST_M:
        raise ValueError(f"leaders run from {SHORTEST_M:g} to {LONGEST_M:g} m here")
    if flies < 1:
        raise ValueError("a leader needs a fly")
    if style == "tapered":
        return _tapered(wanted_m, x_size)
    if style == "swivel":
        return _swivel(wanted_m, x_size)
    if style == "float":
        return float_leader(x_size, wanted_m, min(flies, 3))
    if style == "short-butt":
        butt = min(SHORT_BUTT_M, wanted_m / 2)
        sections = (Section("short butt", butt, 0, "nylon"), Section("level tippet", wanted_m - butt, x_size))
        return Leader(sections, (wanted_m,))
    return _team(wanted_m, x_size, flies if style == "team" else 1)


def cut_lengths_m(leader: Leader) -> tuple[float, ...]:
    """Return what to cut off the spool for each piece [m]: its length and 5 cm for the knot at each end.

    Common practice; a tapered leader is bought, so it is not lengthened.
    """
    return tuple(s.length_m if s.diameter_mm is None else s.length_m + 2 * KNOT_M for s in leader.sections)
