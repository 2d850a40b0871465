"""Dissolved oxygen: what water can hold, what was measured, and a labelled guess where nothing was."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime

import numpy as np
from numpy.typing import ArrayLike, NDArray

from stillthread.core.water.layers import Layers
from stillthread.core.water.profile import Point, oxygen_at, temperature_at

STANDARD_HPA = 1013.25
# Share of saturation taken below the thermocline at the end of summer, middle and range, by how fertile the water is;
# without a word on it the range spans them all. Our guess, after what is usual; no source.
PRODUCTIVITY_LEFT = {"low": (0.8, 0.6, 0.95), "medium": (0.45, 0.2, 0.7), "high": (0.12, 0.0, 0.35)}
UNKNOWN_LEFT = (0.45, 0.0, 0.9)
# Months (north) over which the deep water is taken to run down: from the start of layering to its end.
LAYERING_STARTS, LAYERING_ENDS = 4.5, 9.5


PRESSURE_WORDS = {
    "measured": "as read at the water",
    "sea level": "from sea level by the elevation",
    "elevation": "by the elevation alone",
    "guess": "a guess: neither pressure nor elevation noted",
}


@dataclass(frozen=True)
class OxygenCurve:
    """Oxygen by depth [mg/L] with its doubt, and where each value comes from.

    `source` is per depth: 'measured', 'saturation' (mixed water in touch with the air, taken as full) or 'guess'.
    """

    depths_m: NDArray[np.float64]
    mg_l: NDArray[np.float64]
    low_mg_l: NDArray[np.float64]
    high_mg_l: NDArray[np.float64]
    source: tuple[str, ...]
    pressure_hpa: float
    pressure_from: str

    @property
    def measured(self) -> bool:
        """Whether any of it was measured."""
        return "measured" in self.source

    @property
    def sentence(self) -> str:
        """Where oxygen and air pressure are from, in words."""
        start = (
            "Oxygen as measured"
            if self.measured
            else "Oxygen not measured: saturation above the thermocline, below it a guess"
        )
        return f"{start}. Air pressure {self.pressure_hpa:.0f} hPa, {PRESSURE_WORDS[self.pressure_from]}."


LEAST_HPA, MOST_HPA = 500.0, 1100.0


def standard_pressure_hpa(elevation_m: float) -> float:
    """Return the air pressure [hPa] of the standard atmosphere at an elevation [m] (US Standard Atmosphere 1976, troposphere).

    Raises ValueError outside -500 to 9000 m.
    """
    if not -500 <= elevation_m <= 9000:
        raise ValueError("elevation runs from -500 to 9000 m")
    return float(STANDARD_HPA * (1 - 0.0065 * elevation_m / 288.15) ** 5.25588)


def station_pressure_hpa(
    elevation_m: float | None, station_hpa: float | None, sea_level_hpa: float | None
) -> tuple[float, str]:
    """Return the air pressure at the water [hPa] and where it comes from: 'measured', 'sea level', 'elevation' or 'guess'.

    A pressure read at the water goes first; one reduced to sea level, as forecasts give it, is brought up to
    `elevation_m` [m] by the standard atmosphere's ratio; with neither the elevation alone, else 1013.25 hPa. Kept
    to 500 to 1100 hPa, where the formula of oxygen holds.
    """
    pressure, source = _pressure_hpa(elevation_m, station_hpa, sea_level_hpa)
    return min(max(pressure, LEAST_HPA), MOST_HPA), source


def _pressure_hpa(
    elevation_m: float | None, station_hpa: float | None, sea_level_hpa: float | None
) -> tuple[float, str]:
    if station_hpa is not None:
        return station_hpa, "measured"
    ratio = standard_pressure_hpa(elevation_m) / STANDARD_HPA if elevation_m is not None else 1.0
    if sea_level_hpa is not None:
        return sea_level_hpa * ratio, "sea level" if elevation_m is not None else "guess"
    return STANDARD_HPA * ratio, "elevation" if elevation_m is not None else "guess"


def oxygen_saturation_mg_l(temperature_c: ArrayLike, pressure_hpa: float = STANDARD_HPA) -> NDArray[np.float64]:
    """Return the oxygen [mg/L] that fresh water at `temperature_c` [°C] holds under moist air at `pressure_hpa` [hPa].

    Benson & Krause (1984) with their pressure factor, as in USGS technical memorandum 2011.03. Valid 0 to 40 °C, 500
    to 1100 hPa. Raises ValueError outside that pressure range.
    """
    if not LEAST_HPA <= pressure_hpa <= MOST_HPA:
        raise ValueError("air pressure runs from 500 to 1100 hPa")
    t = np.asarray(temperature_c, dtype=float)
    k = t + 273.15
    log = -139.34411 + 1.575701e5 / k - 6.642308e7 / k**2 + 1.243800e10 / k**3 - 8.621949e11 / k**4
    p = pressure_hpa / STANDARD_HPA
    vapour = np.exp(11.8571 - 3840.70 / k - 216961.0 / k**2)
    theta = 0.000975 - 1.426e-5 * t + 6.436e-8 * t**2
    factor = p * (1 - vapour / p) * (1 - theta * p) / ((1 - vapour) * (1 - theta))
    return np.asarray(np.exp(log) * factor, dtype=np.float64)


def season_run_down(when: datetime, hemisphere: str) -> float:
    """Return how far the season has used up the deep water's oxygen, 0 in winter to 1 at the end of layering (our guess)."""
    month = when.month + (when.day - 1) / 31 + (6 if hemisphere == "south" else 0)
    month = (month - 1) % 12 + 1
    if month > LAYERING_ENDS + 1.5 or month < LAYERING_STARTS:
        return 0.0
    return float(min((month - LAYERING_STARTS) / (LAYERING_ENDS - LAYERING_STARTS), 1.0))


def _guess(
    full: NDArray[np.float64], below: NDArray[np.float64], run_down: float, left: tuple[float, float, float]
) -> list[NDArray[np.float64]]:
    """Middle, low and high guess [mg/L]: the share left falls from all of it to `left` with depth below and with season."""
    return [full * (1 - (1 - share) * run_down * below) for share in left]


def oxygen_curve(
    points: tuple[Point, ...],
    layers: Layers,
    depths_m: NDArray[np.float64],
    when: datetime,
    hemisphere: str,
    pressure: tuple[float, str] = (STANDARD_HPA, "guess"),
    productivity: str | None = None,
) -> OxygenCurve | None:
    """Return oxygen by depth at `depths_m` [m], or None without temperatures.

    Measured where there are samples between the first and the last measured depth. Elsewhere: water above the
    thermocline is taken as saturated at the temperature and the station `pressure` ([hPa], and where it is from);
    below it a guess by season and `productivity` ('low', 'medium', 'high'), with a wide range. Raises KeyError for an
    unknown productivity.
    """
    if not points:
        return None
    z = np.asarray(depths_m, dtype=float)
    full = oxygen_saturation_mg_l(np.clip(temperature_at(points, z), 0, 40), pressure[0])
    main = layers.main if layers.state == "layered" else None
    span = max(main.bottom_m - main.top_m, 0.5) if main else 1.0
    below = np.clip((z - main.top_m) / span, 0, 1) if main else np.zeros_like(z)
    left = PRODUCTIVITY_LEFT[productivity] if productivity is not None else UNKNOWN_LEFT
    middle, low, high = _guess(full, below, season_run_down(when, hemisphere), left)
    air_band = 0.1 * full * (1 - below)  # day and night, algae and decay: some 10 % either way (our figure)
    low, high = low - air_band, high + air_band
    source = ["guess" if b > 0 else "saturation" for b in below]
    measured = oxygen_at(points, z)
    if measured is not None:
        known = [p.depth_m for p in points if p.oxygen_mg_l is not None]
        inside = (z >= min(known) - 1e-9) & (z <= max(known) + 1e-9)
        first, last = float(np.interp(min(known), z, middle)), float(np.interp(max(known), z, middle))
        over, under = measured[0] / max(first, 0.1), measured[-1] / max(last, 0.1)
        scale = np.where(z < min(known), over, np.where(z > max(known), under, 1.0))
        middle, low, high = middle * scale, low * scale, high * scale
        middle, low, high = (np.where(inside, measured, v) for v in (middle, low, high))
        source = ["measured" if i else "guess" for i in inside]
    return OxygenCurve(
        depths_m=z,
        mg_l=middle,
        low_mg_l=np.maximum(low, 0),
        high_mg_l=np.maximum(high, middle),
        source=tuple(source),
        pressure_hpa=pressure[0],
        pressure_from=pressure[1],
    )
