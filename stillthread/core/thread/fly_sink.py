"""How fast a fly sinks: from its build, or as it was timed."""

from __future__ import annotations

from stillthread.core.tackle.fly_build import FlyBuild, add_up, usual_build
from stillthread.core.tackle.rig import TiedFly
from stillthread.core.thread.fluid import terminal_speed_m_s
from stillthread.core.units import GRAVITY_M_S2

USUAL_TEMPERATURE_C = 10.0
# Sink classes by the slowest speed [m/s] of each, slowest first; a fly that rises floats. Our division.
SINK_CLASSES = (("slow", 0.0), ("medium", 0.06), ("fast", 0.1), ("very fast", 0.16))


def sink_speed_m_s(build: FlyBuild, temperature_c: float = USUAL_TEMPERATURE_C) -> float:
    """Return the speed [m/s] a fly of this build sinks at on a slack tippet, negative if it rises.

    A sphere's drag coefficient on the area the dressing stirs; the areas are ours, so time the fly when it matters.
    """
    total = add_up(build)
    return terminal_speed_m_s(total.submerged_g * 1e-3 * GRAVITY_M_S2, total.area_m2, total.width_m, temperature_c)


def timed_speed_m_s(distance_m: float, took_s: float) -> float:
    """Return the sink speed [m/s] of a fly timed over `distance_m` [m] in `took_s` [s]: "sank 1 m in 9 s" is 0.111.

    Raises ValueError unless both are positive.
    """
    if not (distance_m > 0 and took_s > 0):
        raise ValueError("distance and time must be positive")
    return distance_m / took_s


def tied_fly(name: str, build: FlyBuild, from_line_m: float, dropper_m: float = 0.0) -> TiedFly:
    """Return a fly of this build tied `from_line_m` [m] from the line, on a dropper of `dropper_m` [m] if not the point."""
    return TiedFly(
        name=name,
        from_line_m=from_line_m,
        submerged_g=add_up(build).submerged_g,
        sink_m_s=sink_speed_m_s(build),
        dropper_m=dropper_m,
    )


def usual_fly(
    name: str, weight: str, hook: int, from_line_m: float, dropper_m: float = 0.0, surface: bool = False
) -> TiedFly:
    """Return a fly of which only weight class and hook are known, with the build usual for it."""
    return tied_fly(name, usual_build(weight, hook, surface), from_line_m, dropper_m)


def sink_class(speed_m_s: float) -> str:
    """Return the class of a fly's sink speed [m/s]: 'floats', 'slow', 'medium' from 0.06, 'fast' from 0.10, 'very fast' from 0.16."""
    if speed_m_s < 0:
        return "floats"
    return [name for name, least in SINK_CLASSES if speed_m_s >= least][-1]
