"""Density of fresh water."""

from __future__ import annotations

import numpy as np
from numpy.typing import ArrayLike, NDArray

# Fofonoff & Millard (1983), UNESCO technical paper 44, pure-water term of the 1980 equation of state.
_COEFFICIENTS = (999.842594, 6.793952e-2, -9.095290e-3, 1.001685e-4, -1.120083e-6, 6.536332e-9)


def fresh_water_density(temperature_c: ArrayLike) -> NDArray[np.float64]:
    """Return the density [kg/m³] of fresh water at atmospheric pressure for temperatures [°C], any shape.

    UNESCO 1983 (Fofonoff & Millard), pure water; temperature taken as IPTS-68 = 1.00024 x ITS-90.
    Valid 0 to 40 °C; slightly supercooled water down to -1 °C is extrapolated by the same polynomial.
    """
    t68 = np.asarray(temperature_c, dtype=float) * 1.00024
    return np.asarray(np.polynomial.polynomial.polyval(t68, _COEFFICIENTS), dtype=np.float64)
