"""The stand-ins' invented lake: where it lies, its bed and its water temperature. No such lake exists."""

from __future__ import annotations

import math

CENTRE = (-2.38, 54.1195)
DEEPEST_M = 18.0
METRES_PER_DEG_LAT = 111_300.0


def position(east_m: float, north_m: float) -> tuple[float, float]:
    """Return the WGS84 (lon, lat) of a point [m] east and north of the lake's centre (flat, good to a metre here)."""
    per_lon = METRES_PER_DEG_LAT * math.cos(math.radians(CENTRE[1]))
    return CENTRE[0] + east_m / per_lon, CENTRE[1] + north_m / METRES_PER_DEG_LAT


def bed_m(east_m: float, north_m: float) -> float:
    """Return the invented depth of the bed [m]: a bowl, with a shelf of some 3 m in the north-east that breaks to 5 m."""
    away = math.hypot(east_m / 860.0, north_m / 640.0)
    bowl = DEEPEST_M * max(0.0, 1 - float(away**1.6))
    # The shelf: 3.2 m behind a ledge 560 m out towards the north-east, breaking over 12 m to 5 m and on into the bowl.
    out = (east_m + north_m) / math.sqrt(2)
    ledge = 1 / (1 + math.exp(-(out - 430.0) / 4.0))
    shelf = 3.2 - 0.004 * max(0.0, out - 430.0)
    front = min(bowl, 5.2 + 0.05 * max(0.0, 430.0 - out))
    depth = front * (1 - ledge) + min(shelf, max(bowl, 0.4)) * ledge
    return max(depth, 0.3)


def temperature_c(depth_m: float, day_of_year: int) -> float:
    """Return the invented water temperature [°C] at a depth [m]: layered in summer about 6.5 m, mixed in winter."""
    surface = max(9.5 + 6.5 * math.cos(2 * math.pi * (day_of_year - 215) / 365), 3.5)
    deep = min(surface, 7.0)
    return deep + (surface - deep) / (1 + math.exp((depth_m - 6.5) / 0.9))
