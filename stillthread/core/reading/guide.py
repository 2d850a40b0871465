"""Guides a reading with a thermometer on a marked cord: which depth to read next, and when it is enough."""

from __future__ import annotations

from dataclasses import dataclass

from stillthread.core.water.profile import Point

# A drop over one gap worth halving the gap for [°C], and the narrowest gap worth halving, in steps of the cord.
WORTH_HALVING_C = 1.2
NARROWEST_STEPS = 0.5
# Beyond this many knots the cord is read at every other one first.
MOST_KNOTS = 12
# How far off the bed the last reading stays [m], so that the thermometer does not lie in the mud.
OFF_THE_BED_M = 0.3


@dataclass(frozen=True)
class NextDepth:
    """The next depth to read [m], or None when it is enough, and why."""

    depth_m: float | None
    why: str


def first_pass_m(bed_m: float, step_m: float) -> tuple[float, ...]:
    """Return the depths [m] of the first pass down a cord with a knot every `step_m` [m], to just above the bed [m].

    Every knot, or every other one where there would be more than twelve; the last one just off the bed. Raises
    ValueError unless both are positive.
    """
    if not (bed_m > 0 and step_m > 0):
        raise ValueError("bed and step must be positive")
    every = 2 * step_m if bed_m / step_m > MOST_KNOTS else step_m
    depths = [0.0]
    while depths[-1] + every <= bed_m - OFF_THE_BED_M + 1e-9:
        depths.append(round(depths[-1] + every, 4))
    last = round(bed_m - OFF_THE_BED_M, 2)
    if last - depths[-1] > every / 2:
        depths.append(last)
    return tuple(depths)


def next_depth(points: tuple[Point, ...], bed_m: float, step_m: float = 1.0) -> NextDepth:
    """Return the depth [m] to read next after the readings so far (in any order), over a bed [m].

    First down the cord knot by knot (`step_m` [m], a metre or five feet), then half-way into each gap where it drops by
    1.2 °C or more, the steepest first, down to half a knot: that is where the thermocline is. Common practice.
    """
    read = sorted(points, key=lambda p: p.depth_m)
    have = [p.depth_m for p in read]
    for depth in first_pass_m(bed_m, step_m):
        if not any(abs(depth - d) < step_m / 4 for d in have) and not any(d > depth for d in have):
            return NextDepth(depth, "Surface first." if depth == 0 else "The next knot down.")
    gaps = []
    for above, below in zip(read, read[1:], strict=False):
        wide = below.depth_m - above.depth_m
        drop = abs(above.temperature_c - below.temperature_c)
        if drop >= WORTH_HALVING_C and wide > NARROWEST_STEPS * step_m + 1e-9:
            gaps.append((drop / wide, above, below))
    if not gaps:
        return NextDepth(None, "Enough: the curve is plain from top to bottom.")
    _, above, below = max(gaps, key=lambda gap: gap[0])
    drop = above.temperature_c - below.temperature_c
    way = "drops" if drop > 0 else "rises"
    words = f"It {way} fastest between {above.depth_m:.1f} and {below.depth_m:.1f} m: read half-way."
    return NextDepth(round((above.depth_m + below.depth_m) / 2, 2), words)
