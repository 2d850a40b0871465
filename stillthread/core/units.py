"""Units people use, to SI and back. SI is stored; these conversions are exact by definition."""

from __future__ import annotations

import math

GRAVITY_M_S2 = 9.80665  # standard gravity, exact by definition (CGPM 1901)
FOOT_M = 0.3048
INCH_M = 0.0254
KNOT_M_S = 1852.0 / 3600.0
MPH_M_S = 0.44704
KMH_M_S = 1.0 / 3.6

# Lower limits of Beaufort forces 1 to 12 in m/s and in whole knots (WMO Manual on Codes, table 1100): the two differ by a
# little, so a speed in m/s goes by the one and whole knots by the other.
BEAUFORT_LOWER_M_S = (0.3, 1.6, 3.4, 5.5, 8.0, 10.8, 13.9, 17.2, 20.8, 24.5, 28.5, 32.7)
BEAUFORT_LOWER_KN = (1, 4, 7, 11, 17, 22, 28, 34, 41, 48, 56, 64)


def feet_to_m(feet: float) -> float:
    """Return metres for a length in international feet [ft] (exact: 0.3048 m).

    >>> feet_to_m(15)
    4.572
    """
    return feet * FOOT_M


def m_to_feet(metres: float) -> float:
    """Return international feet for a length [m] (exact: 0.3048 m)."""
    return metres / FOOT_M


def inches_per_second_to_m_s(rate_ips: float) -> float:
    """Return [m/s] for a sink rate printed on a line's box in inches per second [in/s] (exact).

    >>> round(inches_per_second_to_m_s(3), 4)
    0.0762
    """
    return rate_ips * INCH_M


def fahrenheit_to_c(degrees_f: float) -> float:
    """Return [°C] for a temperature [°F] (exact by definition).

    >>> fahrenheit_to_c(68)
    20.0
    """
    return (degrees_f - 32.0) * 5.0 / 9.0


def c_to_fahrenheit(degrees_c: float) -> float:
    """Return [°F] for a temperature [°C] (exact by definition)."""
    return degrees_c * 9.0 / 5.0 + 32.0


def beaufort_from_m_s(speed_m_s: float) -> int:
    """Return the Beaufort force of a mean wind at 10 m [m/s], to a tenth (WMO Manual on Codes, table 1100).

    Raises ValueError below zero.
    """
    if not speed_m_s >= 0:
        raise ValueError("wind speed must not be negative")
    tenths = math.floor(10 * speed_m_s + 0.5) / 10
    return sum(1 for limit in BEAUFORT_LOWER_M_S if tenths >= limit)


def beaufort_from_knots(knots: int) -> int:
    """Return the Beaufort force of a mean wind at 10 m in whole knots (WMO Manual on Codes, table 1100).

    Raises ValueError below zero.
    """
    if not knots >= 0:
        raise ValueError("wind speed must not be negative")
    return sum(1 for limit in BEAUFORT_LOWER_KN if knots >= limit)


def beaufort_to_m_s(force: int) -> float:
    """Return the middle wind speed [m/s] of a Beaufort force 0 to 12 (WMO table 1100; open-ended 12 gives its limit).

    Raises ValueError outside 0 to 12.
    """
    if not 0 <= force <= 12:
        raise ValueError("Beaufort force runs from 0 to 12")
    if force == 0:
        return 0.0
    low = BEAUFORT_LOWER_M_S[force - 1]
    high = BEAUFORT_LOWER_M_S[force] - 0.1 if force < 12 else low
    return (low + high) / 2.0


def m_s_to_inches_per_second(rate_m_s: float) -> float:
    """Return inches per second [in/s] for a sink rate [m/s] (exact)."""
    return rate_m_s / INCH_M
