"""The water's own year: surface temperature through the seasons, from its readings where there are some."""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

DAYS = 365
# The day the surface is warmest, north and south: early August and early February. Common practice, no source.
PEAK_DAY = {"north": 215, "south": 33}
# How far one reading strays from the year's curve by weather and hour [°C], and how little the guess by latitude is
# trusted [°C]. Our figures.
WEATHER_SPREAD_C = 1.5
GUESS_SPREAD_C = (3.0, 2.5, 1.5)


@dataclass(frozen=True)
class YearCurve:
    """Surface temperature through the year: mean + swing [°C] x cosine from the peak day, and how sure it is.

    `covariance` is of the mean and the two swings; `readings` how many of the water's own went into it.
    """

    hemisphere: str
    mean_c: float
    swing_c: float
    late_c: float
    covariance: tuple[tuple[float, ...], ...]
    readings: int

    def at(self, day_of_year: float) -> float:
        """Return the surface temperature [°C] on a day of the year 1 to 365; not below 0."""
        return max(0.0, float(_terms(self.hemisphere, day_of_year) @ (self.mean_c, self.swing_c, self.late_c)))

    def spread_c(self, day_of_year: float) -> float:
        """Return one standard deviation [°C] of a reading on a day: of the curve and the weather about it."""
        terms = _terms(self.hemisphere, day_of_year)
        return math.sqrt(float(terms @ np.array(self.covariance) @ terms) + WEATHER_SPREAD_C**2)


def _terms(hemisphere: str, day_of_year: float) -> NDArray[np.float64]:
    angle = 2 * math.pi * (day_of_year - PEAK_DAY[hemisphere]) / DAYS
    return np.array([1.0, math.cos(angle), math.sin(angle)])


def guessed_year(
    hemisphere: str, latitude_deg: float | None = None, elevation_m: float | None = None
) -> tuple[float, float]:
    """Return a guess at the mean and swing [°C] of a lake's surface temperature by latitude [deg] and elevation [m].

    26.5 - 0.31 per degree of latitude, 0.55 less for each 100 m, a swing of 0.15 per degree up to 8: our straight line
    through what is usual at 35 to 60°; no source. Without a latitude 50° is taken.
    """
    latitude = 50.0 if latitude_deg is None else abs(latitude_deg)
    mean = 26.5 - 0.31 * latitude - 0.0055 * (elevation_m or 0.0)
    return max(mean, 3.0), min(8.0, 0.15 * latitude)


def year_curve(
    surface: tuple[tuple[int, float], ...],
    hemisphere: str,
    latitude_deg: float | None = None,
    elevation_m: float | None = None,
) -> YearCurve:
    """Return the year's curve from (day of the year, surface temperature [°C]) readings, in any order.

    A cosine with free mean, swing and lag, by Bayesian linear regression from the guess by latitude (posterior of a
    Gaussian prior; common practice): with no readings it is the guess, with a season of them their own fit.
    """
    mean, swing = guessed_year(hemisphere, latitude_deg, elevation_m)
    prior = np.array([mean, swing, 0.0])
    precision = np.diag(1 / np.square(GUESS_SPREAD_C))
    pull = precision @ prior
    if surface:
        design = np.array([_terms(hemisphere, day) for day, _ in surface])
        precision = precision + design.T @ design / WEATHER_SPREAD_C**2
        pull = pull + design.T @ np.array([value for _, value in surface]) / WEATHER_SPREAD_C**2
    fitted = np.linalg.solve(precision, pull)
    covariance = tuple(tuple(float(v) for v in row) for row in np.linalg.inv(precision))
    return YearCurve(
        hemisphere=hemisphere,
        mean_c=float(fitted[0]),
        swing_c=float(fitted[1]),
        late_c=float(fitted[2]),
        covariance=covariance,
        readings=len(surface),
    )
