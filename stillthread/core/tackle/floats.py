"""Floats: what one must carry, what makes one slide, how far to cast it, where its mark goes, what can be landed."""

from __future__ import annotations

from dataclasses import dataclass

from stillthread.core.tackle.landing import landing_limit_m
from stillthread.core.tackle.rig import Rig, load_g

SLIDE_FRICTION_G = 0.25  # leader running through a sliding float takes this much pull: common practice, figure ours
SLIDE_MARGIN = 2.0  # and to run freely on a wet day, this many times it
TRIM_SHARE = 0.85  # a float loaded beyond this share of its lift rides too low to show a take
FARTHEST_CAST_M, CLOSER_PER_M, NEAREST_CAST_M = 16.0, 1.5, 6.0
USUAL_FLOAT_G = 1.5  # lift of an ordinary float for flies, common practice


@dataclass(frozen=True)
class FloatCheck:
    """How a float rig stands: hang and limit [m], load and lift [g], what to do about it, in words by topic."""

    hang_m: float
    limit_m: float
    can_land: bool
    load_g: float
    load_share: float
    slides: bool | None
    needed_g: float
    mark_from_point_m: float
    cast_m: float
    advice: tuple[str, ...]


def farthest_float_cast_m(hang_m: float) -> float:
    """Return how far out a float rig hanging `hang_m` [m] should be cast [m]: the deeper, the closer, 6 m at least.

    Common practice ("the deeper the rig, the nearer to cast"); the straight rule 16 − 1.5 × hang is ours.
    """
    return max(NEAREST_CAST_M, FARTHEST_CAST_M - CLOSER_PER_M * hang_m)


def check_float(rig: Rig, rod_m: float, arm_m: float, net_m: float, cast_m: float | None = None) -> FloatCheck:
    """Return the float's geometry and load for a rig, an angler's rod, arm and net [m] and a cast [m].

    Landing: a fixed float jams at the tip ring, so what hangs below must be reached with rod, arm and net; a release or
    sliding float comes down to the fish. Raises ValueError where the rig has no float.
    """
    held = rig.float_
    if held is None:
        raise ValueError("the rig has no float")
    hang = rig.leader_m - held.from_line_m
    limit = landing_limit_m(rod_m, net_m, arm_m)
    load = load_g(rig)
    needed = SLIDE_FRICTION_G * SLIDE_MARGIN
    slides = load >= needed if held.kind == "sliding" else None
    can_land = held.kind != "fixed" or hang <= limit
    farthest = farthest_float_cast_m(hang)
    advice = []
    if not can_land:
        advice.append(
            f"A float fixed {hang:.1f} m up cannot be landed: rod, arm and net reach {limit:.1f} m. Shorten it, or use a "
            "quick-release or sliding float."
        )
    if slides is False:
        advice.append(f"Too light to slide: {load:.2f} g hang below; about {needed:.2f} g pull the leader through.")
    if load / held.buoyancy_g > TRIM_SHARE:
        advice.append("The float rides low: a soft take will hardly show. Use a bigger one.")
    if cast_m is not None and cast_m > farthest + 0.5:
        advice.append(f"Cast closer: at {hang:.1f} m deep, about {farthest:.0f} m out is far enough to see a take.")
    return FloatCheck(
        hang_m=hang,
        limit_m=limit,
        can_land=can_land,
        load_g=load,
        load_share=load / held.buoyancy_g,
        slides=slides,
        needed_g=needed,
        mark_from_point_m=hang,
        cast_m=farthest,
        advice=tuple(advice),
    )
