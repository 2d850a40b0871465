"""What a metre of fly line weighs in water: found from the rate it sinks at, since the box tells nothing else."""

from __future__ import annotations

import math
from dataclasses import dataclass
from functools import lru_cache

from stillthread.core.tackle.lines import DENSITY_PROFILES, Line, mass_per_metre_kg
from stillthread.core.thread.fluid import normal_drag_n_m, water_properties
from stillthread.core.units import GRAVITY_M_S2, m_s_to_inches_per_second

FLOATING_DENSITY = 820.0  # of a floating line's coat and core together [kg/m³], common practice
DENSEST_COAT = 3000.0  # the heaviest tungsten-loaded line [kg/m³], from memory
REACHABLE_SHARE = 1.1  # a label this much faster than the class can sink is flagged
LABEL_TEMPERATURE_C = 10.0  # labels are taken to hold in cool water


REMEMBERED = 4096  # pieces of line whose weight is kept; the same lines come back in every plan


@dataclass(frozen=True)
class Stretch:
    """A piece of line: length [m], diameter [m], net weight per metre in water [N/m], negative if it floats."""

    length_m: float
    diameter_m: float
    net_n_m: float


def diameter_for_density(kg_per_m: float, density: float) -> float:
    """Return the diameter [m] of a round line of `kg_per_m` [kg/m] and mean `density` [kg/m³]."""
    return math.sqrt(4.0 * kg_per_m / (math.pi * density))


def free_sink_rate_m_s(diameter_m: float, density: float, temperature_c: float = LABEL_TEMPERATURE_C) -> float:
    """Return the rate [m/s] at which a long level slack line sinks: net weight per metre = drag across it.

    `diameter_m` [m], mean `density` [kg/m³]; negative if it rises. Balance of `normal_drag_n_m` by bisection. The
    thicker of two equally dense lines sinks quicker. Raises ValueError for a diameter or density that is not positive.
    """
    if not (diameter_m > 0 and density > 0):
        raise ValueError("diameter and density must be positive")
    rho, nu = water_properties(temperature_c)
    net = (density - rho) * GRAVITY_M_S2 * math.pi * diameter_m**2 / 4
    low, high = 0.0, 5.0
    for _ in range(60):
        rate = (low + high) / 2
        low, high = (rate, high) if normal_drag_n_m(rate, diameter_m, rho, nu) < abs(net) else (low, rate)
    return math.copysign((low + high) / 2, net)


def density_for_rate(
    kg_per_m: float, rate_m_s: float, temperature_c: float = LABEL_TEMPERATURE_C
) -> tuple[float, bool]:
    """Return the mean density [kg/m³] a line of `kg_per_m` needs to sink at `rate_m_s` [m/s], and whether it can.

    Bisection between water and the densest coat; where even that sinks slower than the rate the densest coat is
    returned with False. Raises ValueError for a negative rate.
    """
    if rate_m_s < 0:
        raise ValueError("the rate must not be negative")
    rho, _ = water_properties(temperature_c)
    low, high = rho, DENSEST_COAT
    fastest = free_sink_rate_m_s(diameter_for_density(kg_per_m, high), high, temperature_c)
    if fastest <= rate_m_s:
        return DENSEST_COAT, False
    for _ in range(50):
        middle = (low + high) / 2
        slower = free_sink_rate_m_s(diameter_for_density(kg_per_m, middle), middle, temperature_c) < rate_m_s
        low, high = (middle, high) if slower else (low, middle)
    return (low + high) / 2, True


@lru_cache(maxsize=REMEMBERED)
def sinking_stretch(kg_per_m: float, rate_m_s: float, length_m: float) -> Stretch:
    """Return a piece of sinking line of `length_m` [m] that falls at `rate_m_s` [m/s] when slack and level.

    Its net weight is the drag at that rate, so the rate is kept even where no known coat could reach it.
    """
    density, _ = density_for_rate(kg_per_m, rate_m_s)
    diameter = diameter_for_density(kg_per_m, density)
    rho, nu = water_properties(LABEL_TEMPERATURE_C)
    return Stretch(length_m, diameter, float(normal_drag_n_m(rate_m_s, diameter, rho, nu)))


@lru_cache(maxsize=REMEMBERED)
def floating_stretch(kg_per_m: float, length_m: float) -> Stretch:
    """Return a piece of floating line of `length_m` [m]: its lift when held under is what its density leaves."""
    rho, _ = water_properties(LABEL_TEMPERATURE_C)
    diameter = diameter_for_density(kg_per_m, FLOATING_DENSITY)
    return Stretch(length_m, diameter, (FLOATING_DENSITY - rho) * GRAVITY_M_S2 * math.pi * diameter**2 / 4)


def line_stretches(line: Line, rate_factor: float = 1.0) -> tuple[Stretch, ...]:
    """Return the line as pieces from its front end; `rate_factor` [1] scales the sink rate for a what-if."""
    mass = line.kg_per_m
    rate = line.rate_m_s * rate_factor
    if line.family == "floating":
        return (floating_stretch(mass, line.length_m),)
    if line.family == "sink-tip":
        rest = max(line.length_m - line.tip_length_m, 0.1)
        return (sinking_stretch(mass, rate, line.tip_length_m), floating_stretch(mass, rest))
    return tuple(
        sinking_stretch(mass, rate * share, length) for length, share in DENSITY_PROFILES[line.density_profile]
    )


def label_doubt(line: Line) -> str | None:
    """Return a sentence where the class can hardly sink as fast as the label says, else None."""
    if line.rate_m_s == 0 or line.measured_m_s is not None:
        return None
    mass = mass_per_metre_kg(line.weight_class)
    fastest = free_sink_rate_m_s(diameter_for_density(mass, DENSEST_COAT), DENSEST_COAT)
    if line.rate_m_s <= REACHABLE_SHARE * fastest:
        return None
    return (
        f"A class {line.weight_class} line of this rate is hard to build: the heaviest coat would sink at about "
        f"{m_s_to_inches_per_second(fastest):.1f} in/s. Time a metre of it before you trust the label."
    )
