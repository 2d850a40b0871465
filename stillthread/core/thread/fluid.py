"""What water does to a thread and to a fly: viscosity, drag on a cylinder across and along the flow, drag on a sphere.

Plain functions; the cable compiles those it needs.
"""

from __future__ import annotations

import math

from stillthread.core.water.density import fresh_water_density

REYNOLDS_FLOOR = 1e-4
# Skin friction along a thin thread: 4 π μ U / ln(4 ν x / (U a²)); the logarithm stays near 6 for fly lines, 0.05 to
# 0.9 m/s, half a metre to 20 m (Glauert & Lighthill 1955, from memory).
FRICTION_LOG = 6.0
ROUGHNESS_FRICTION = 0.005  # added quadratic part for a coat that is not glass-smooth; common practice


def viscosity_pa_s(temperature_c: float) -> float:
    """Return the dynamic viscosity of fresh water [Pa s] at `temperature_c` [°C], 0 to 40.

    Kestin, Sokolov & Wakeham 1978 (from memory), on 1.002 mPa s at 20 °C. Raises ValueError outside −1 to 45 °C.

    >>> round(viscosity_pa_s(20), 6)
    0.001002
    """
    if not -1 <= temperature_c <= 45:
        raise ValueError("water temperature must lie between -1 and 45 °C")
    below = 20.0 - temperature_c
    power = below / (temperature_c + 96.0) * (1.2364 - 1.37e-3 * below + 5.7e-6 * below**2)
    return float(1.002e-3 * 10**power)


def water_properties(temperature_c: float) -> tuple[float, float]:
    """Return density [kg/m³] and kinematic viscosity [m²/s] of fresh water at `temperature_c` [°C]."""
    density = float(fresh_water_density(temperature_c))
    return density, viscosity_pa_s(temperature_c) / density


def drag_and_steepness(reynolds: float) -> tuple[float, float]:
    """Return `drag_cylinder_sucker_brauer` [1] and how steeply the force grows, d ln(force) / d ln(speed) [1]."""
    re: float = max(reynolds, REYNOLDS_FLOOR)
    creeping, rooted = 6.8 / re**0.89, 1.96 / math.sqrt(re)
    square = 3.64e-7 * re * re
    late = 0.0004 * re / (1.0 + square)
    coefficient = 1.18 + creeping + rooted - late
    falling = 0.89 * creeping + 0.5 * rooted + late * (1.0 - square) / (1.0 + square)
    return coefficient, 2.0 - falling / coefficient


def drag_cylinder_sucker_brauer(reynolds: float) -> float:
    """Return the drag coefficient [1] of a long smooth cylinder across the flow, for Re from 1e-4 to 2e5.

    Sucker & Brauer 1975 (from memory), on diameter times length; below 1e-4 the value there, so the force still goes
    to zero with the speed.
    """
    return drag_and_steepness(reynolds)[0]


def normal_drag_n_m(speed_m_s: float, diameter_m: float, density: float, viscosity_m2_s: float) -> float:
    """Return the drag per metre [N/m] of a cylinder moving across itself at `speed_m_s` [m/s], of `diameter_m` [m].

    ½ ρ d C |v| v with Sucker & Brauer's C; `density` [kg/m³] and kinematic `viscosity_m2_s` [m²/s] are the water's.
    """
    speed = abs(speed_m_s)
    coefficient = drag_cylinder_sucker_brauer(speed * diameter_m / viscosity_m2_s)
    return 0.5 * density * diameter_m * coefficient * speed * speed_m_s


def friction_log(speed_m_s: float, diameter_m: float, length_m: float, viscosity_m2_s: float) -> float:
    """Return the logarithm of the friction along a thin thread, ln(4 ν x / (U a²)) (Glauert & Lighthill 1955, from memory).

    `length_m` [m] is how much of it has passed; never under 1.
    """
    radius = 0.5 * diameter_m
    return max(1.0, math.log(4 * viscosity_m2_s * length_m / (max(abs(speed_m_s), 1e-3) * radius * radius)))


def tangential_drag_n_m(
    speed_m_s: float, diameter_m: float, density: float, viscosity_m2_s: float, log: float = FRICTION_LOG
) -> float:
    """Return the friction per metre [N/m] of a thin cylinder moving along itself at `speed_m_s` [m/s].

    Viscous part after Glauert & Lighthill 1955 (from memory) with its slow logarithm held at 6 unless `log` is
    given (see `friction_log`), plus a small rough quadratic part; never zero. Arguments as in `normal_drag_n_m`.
    """
    viscous = 4.0 * math.pi * density * viscosity_m2_s / log
    rough = 0.5 * density * math.pi * diameter_m * ROUGHNESS_FRICTION * abs(speed_m_s)
    return (viscous + rough) * speed_m_s


def drag_sphere_haider_levenspiel(reynolds: float) -> float:
    """Return the drag coefficient [1] of a smooth sphere, for Re up to 2.6e5.

    Haider & Levenspiel 1989 (from memory): 24/Re (1 + 0.1806 Re^0.6459) + 0.4251 / (1 + 6880.95/Re). Raises
    ValueError unless Re is positive.
    """
    if not reynolds > 0:
        raise ValueError("the Reynolds number must be positive")
    low: float = 24 / reynolds * (1 + 0.1806 * reynolds**0.6459)
    return low + 0.4251 / (1 + 6880.95 / reynolds)


def terminal_speed_m_s(net_weight_n: float, area_m2: float, size_m: float, temperature_c: float) -> float:
    """Return the steady speed [m/s] a body sinks at (negative: rises), its drag coefficient being a sphere's times its own area.

    `net_weight_n` [N] is weight less buoyancy, `area_m2` [m²] the frontal area and `size_m` [m] the width that sets the
    Reynolds number. Solved by bisection on force; zero weight gives 0. Raises ValueError for an area or size that is not positive.
    """
    if not (area_m2 > 0 and size_m > 0):
        raise ValueError("area and size must be positive")
    density, nu = water_properties(temperature_c)
    force = abs(net_weight_n)
    if force == 0:
        return 0.0
    low, high = 0.0, 50.0
    for _ in range(80):
        speed = (low + high) / 2
        drag = 0.5 * density * area_m2 * drag_sphere_haider_levenspiel(speed * size_m / nu) * speed**2
        low, high = (speed, high) if drag < force else (low, speed)
    return math.copysign((low + high) / 2, net_weight_n)
