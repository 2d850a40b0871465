"""What the angler read at the water, and the places on it."""

from __future__ import annotations

import math
from dataclasses import dataclass, field
from datetime import datetime
from typing import Annotated, Literal

import numpy as np
from annotated_types import Ge, Gt, Le, MaxLen
from numpy.typing import NDArray

from stillthread.core.chart.outline import fetch_m, longest_fetch_m
from stillthread.core.errors import InputError, Problem
from stillthread.core.limits import Bearing, Instant, Level, Said
from stillthread.core.noted.water import Water
from stillthread.core.sky.light import Clarity, Light, read_light, ripple_class
from stillthread.core.sky.sun import (
    sun_azimuth_by_hemisphere,
    sun_azimuth_deg,
    sun_elevation_by_hemisphere,
    sun_elevation_deg,
)
from stillthread.core.sky.wind import STRONGEST_M_S
from stillthread.core.water.layers import read_layers
from stillthread.core.water.oxygen import OxygenCurve, oxygen_curve, station_pressure_hpa
from stillthread.core.water.profile import Point, checked_profile

Surface = Literal["calm", "ripple", "wave", "foam-lanes"]
Source = Literal["typed", "instrument", "forecast", "guessed"]
Measured = Literal[
    "profile", "water_depth", "wind", "cloud", "clarity", "air_temperature", "pressure", "level", "surface"
]
# The ripple class for how the surface looks, where no wind was read.
SURFACE_RIPPLE = {"calm": "calm", "ripple": "ripple", "wave": "wave", "foam-lanes": "ripple"}


@dataclass(frozen=True)
class Reading:
    """What was measured or seen at one time; everything may be missing. SI units, wind *from* in degrees true.

    Ranges of temperatures, depths and wind are checked with the water at hand, so that the message can help.
    """

    profile: Annotated[tuple[Point, ...], MaxLen(500)] = ()
    profile_at: Annotated[Instant | None, Said("when the temperatures were read, where earlier")] = None
    water_depth_m: Annotated[float | None, Said("depth of water at the place")] = None
    wind_m_s: Annotated[float | None, Said("mean wind")] = None
    gust_m_s: float | None = None
    wind_at: Annotated[Instant | None, Said("when the wind was read, where earlier")] = None
    wind_from_deg: Annotated[Bearing | None, Said("where the wind comes from")] = None
    cloud_oktas: Annotated[int | None, Ge(0), Le(8)] = None
    clarity: Clarity | None = None
    secchi_m: Annotated[float | None, Gt(0), Le(40)] = None
    air_temperature_c: Annotated[float | None, Ge(-40), Le(55)] = None
    thunder: bool = False
    thunder_at: Annotated[Instant | None, Said("when thunder was noted, or noted to be over, where earlier")] = None
    station_pressure_hpa: Annotated[float | None, Ge(500), Le(1100), Said("as a barometer at the water shows it")] = (
        None
    )
    sea_level_pressure_hpa: Annotated[float | None, Ge(870), Le(1090), Said("as forecasts give it")] = None
    level_m: Annotated[Level | None, Said("today's level against the datum; drawn down is negative")] = None
    surface: Annotated[Surface | None, Said("how the surface looks, where no wind was read")] = None
    sources: Annotated[dict[Measured, Source], Said("where a value is from; left out = typed")] = field(
        default_factory=dict, hash=False
    )

    @property
    def surface_c(self) -> float | None:
        """Temperature [°C] of the shallowest sample, if it lies in the top metre."""
        if self.profile and self.profile[0].depth_m <= 1.0:
            return self.profile[0].temperature_c
        return None


def checked_reading(reading: Reading, max_depth_m: float, path: str = "reading") -> Reading:
    """Return the reading if every value is possible in a water of `max_depth_m` [m].

    Raises InputError with all problems found, each at the path of its field below `path`.
    """
    problems: list[Problem] = []
    bed = reading.water_depth_m
    if bed is not None and not 0 < bed <= max_depth_m + 1e-9:
        problems.append(
            Problem(
                code="depth_range",
                path=f"{path}.water_depth_m",
                message=f"{bed:g} m does not fit this water, which is {max_depth_m:g} m at its deepest.",
                accepted=f"more than 0, up to {max_depth_m:g} m",
                hint="Correct the depth here, or the water's greatest depth.",
            )
        )
        bed = None
    for name, value in (("wind_m_s", reading.wind_m_s), ("gust_m_s", reading.gust_m_s)):
        if value is not None and not (math.isfinite(value) and 0 <= value <= STRONGEST_M_S):
            problems.append(
                Problem(
                    code="wind_range",
                    path=f"{path}.{name}",
                    message=f"A wind of {value:.0f} m/s ({value * 3.6:.0f} km/h) is beyond any hurricane.",
                    accepted=f"0 to {STRONGEST_M_S:g} m/s ({STRONGEST_M_S * 3.6:g} km/h)",
                    hint="Check the unit beside the number.",
                )
            )
    try:
        checked_profile(reading.profile, bed if bed is not None else max_depth_m, f"{path}.profile")
    except InputError as error:
        problems += error.problems
    if problems:
        raise InputError(problems)
    return reading


def sun_on(water: Water, when: datetime) -> tuple[float, float]:
    """Return the sun's elevation and bearing [deg] over a water at an aware instant; by hemisphere where no position is known."""
    if water.latitude_deg is not None and water.longitude_deg is not None:
        place = (water.latitude_deg, water.longitude_deg)
        return sun_elevation_deg(*place, when), sun_azimuth_deg(*place, when)
    return sun_elevation_by_hemisphere(water.hemisphere, when), sun_azimuth_by_hemisphere(water.hemisphere, when)


def light_on(water: Water, reading: Reading, when: datetime) -> Light:
    """Return the light on a water at an aware instant, guessing what was not read and naming the guesses."""
    sun = sun_on(water, when)[0]
    ripple = ripple_class(reading.wind_m_s)
    if ripple == "unknown" and reading.surface is not None:
        ripple = SURFACE_RIPPLE[reading.surface]
    return read_light(
        sun_deg=sun, cloud_oktas=reading.cloud_oktas, ripple=ripple, clarity=reading.clarity, secchi_m=reading.secchi_m
    )


def oxygen_on(water: Water, reading: Reading, depths_m: NDArray[np.float64], when: datetime) -> OxygenCurve | None:
    """Return oxygen over `depths_m` [m] on a water at an instant: measured, saturated or guessed; None without temperatures."""
    pressure = station_pressure_hpa(water.elevation_m, reading.station_pressure_hpa, reading.sea_level_pressure_hpa)
    layers = read_layers(reading.profile)
    return oxygen_curve(
        points=reading.profile,
        layers=layers,
        depths_m=depths_m,
        when=when,
        hemisphere=water.hemisphere,
        pressure=pressure,
        productivity=water.productivity,
    )


def fetch_on(water: Water, from_deg: float, position: tuple[float, float] | None = None) -> tuple[float | None, str]:
    """Return the fetch [m] of a wind from `from_deg` [deg true] at a (lon, lat), and where it is from.

    By the outline where there is one (at its downwind shore when no place is given), else as typed, else the water's
    area as a circle ('guess'), else None ('unknown').
    """
    if water.outline:
        if position is None:
            return longest_fetch_m(water.outline, from_deg), "outline"
        return fetch_m(water.outline, position, from_deg), "outline"
    if water.fetch_m is not None:
        return water.fetch_m, "typed"
    if water.hypsography:
        return 2 * math.sqrt(water.hypsography[0].area_m2 / math.pi), "guess"
    return None, "unknown"
