"""Waves a wind raises over its fetch, how it piles up and drags the surface water."""

from __future__ import annotations

import math
from dataclasses import dataclass

from stillthread.core.units import GRAVITY_M_S2
from stillthread.core.water.stability import AIR_DENSITY_KG_M3, WIND_DRAG

METHOD = "Shore Protection Manual (1984), fetch-limited; from memory"


@dataclass(frozen=True)
class Wave:
    """Significant wave height [m], peak period [s], and how long the wind must blow to raise it [s]."""

    height_m: float
    period_s: float
    needs_s: float


def _wind_stress_factor(wind_m_s: float) -> float:
    """Adjusted wind speed of the manual [m/s]: 0.71 U^1.23."""
    return float(0.71 * wind_m_s**1.23)


def wave_on_fetch(wind_m_s: float, fetch_m: float, water_depth_m: float | None = None) -> Wave:
    """Return the waves a steady 10 m wind [m/s] raises over a fetch [m], in deep water or over a bed of even depth [m].

    Shore Protection Manual (1984) equations 3-33 to 3-35 (deep) and 3-39, 3-40 (shallow), from memory; other methods
    differ by up to 45 %. Calm or no fetch gives no wave. Raises ValueError for negative input or a depth of zero.
    """
    if wind_m_s < 0 or fetch_m < 0 or (water_depth_m is not None and water_depth_m <= 0):
        raise ValueError("wind and fetch must not be negative, depth must be positive")
    if wind_m_s < 0.1 or fetch_m < 1:
        return Wave(0.0, 0.0, 0.0)
    ua = _wind_stress_factor(wind_m_s)
    fetch = GRAVITY_M_S2 * fetch_m / ua**2
    needs = 68.8 * fetch ** (2 / 3) * ua / GRAVITY_M_S2
    if water_depth_m is None:
        height = min(1.6e-3 * fetch**0.5, 0.2433) * ua**2 / GRAVITY_M_S2
        period = min(0.2857 * fetch ** (1 / 3), 8.134) * ua / GRAVITY_M_S2
        return Wave(height, period, needs)
    depth = GRAVITY_M_S2 * water_depth_m / ua**2
    h_limit = math.tanh(0.530 * depth**0.75)
    t_limit = math.tanh(0.833 * depth**0.375)
    height = 0.283 * h_limit * math.tanh(0.00565 * fetch**0.5 / h_limit) * ua**2 / GRAVITY_M_S2
    period = 7.54 * t_limit * math.tanh(0.0379 * fetch ** (1 / 3) / t_limit) * ua / GRAVITY_M_S2
    return Wave(height, period, needs)


def wavelength_m(period_s: float, water_depth_m: float) -> float:
    """Return the wavelength [m] for a period [s] in water of a depth [m]: L = g T² / 2π · tanh(2π d / L) (linear theory).

    Solved by Newton's method from the deep-water length. Raises ValueError unless both are positive.
    """
    if not (period_s > 0 and water_depth_m > 0):
        raise ValueError("period and depth must be positive")
    omega2 = (2 * math.pi / period_s) ** 2
    k = omega2 / GRAVITY_M_S2 / math.sqrt(math.tanh(omega2 * water_depth_m / GRAVITY_M_S2))
    for _ in range(20):
        th = math.tanh(k * water_depth_m)
        value = GRAVITY_M_S2 * k * th - omega2
        slope = GRAVITY_M_S2 * (th + k * water_depth_m * (1 - th * th))
        k -= value / slope
    return 2 * math.pi / k


def wind_set_up_m(wind_m_s: float, fetch_m: float, water_depth_m: float) -> float:
    """Return how much higher [m] the water stands at the downwind end: ρ_air C_d U² F / (ρ g d), C_d 1.3e-3 (force balance).

    Wind [m/s], fetch and depth [m]. Raises ValueError unless the depth is positive.
    """
    if not water_depth_m > 0:
        raise ValueError("depth must be positive")
    return AIR_DENSITY_KG_M3 * WIND_DRAG * wind_m_s**2 * fetch_m / (999.7 * GRAVITY_M_S2 * water_depth_m)
