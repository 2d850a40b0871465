"""The sun over the day: how high, where, when it rises and sets, and the dawn and dusk windows."""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import dataclass
from datetime import datetime, timedelta

from astral import Observer
from astral import sun as astral_sun

# Latitude assumed where a water gives only its hemisphere: a guess, and said to be one.
GUESSED_LATITUDE_DEG = 50.0
RISE_DEG = -0.8333  # the sun's centre at sunrise and sunset: half its disc and mean refraction
CIVIL_DEG = -6.0
STEP_MINUTES = 10


def is_dark(sun_deg: float) -> bool:
    """Return whether civil twilight is over, by the sun's elevation [deg]."""
    return sun_deg < CIVIL_DEG


@dataclass(frozen=True)
class SunDay:
    """Civil dawn, sunrise, sunset and civil dusk of one local day, each an aware instant or None where it does not happen."""

    civil_dawn: datetime | None
    sunrise: datetime | None
    sunset: datetime | None
    civil_dusk: datetime | None


def sun_elevation_deg(latitude_deg: float, longitude_deg: float, when: datetime) -> float:
    """Return the sun's geometric elevation [deg] above the horizon at a place (WGS84, degrees) and an aware instant.

    By the `astral` library (NOAA solar equations). Raises ValueError for a naive `when`.
    """
    if when.tzinfo is None:
        raise ValueError("the instant needs a time zone")
    return float(astral_sun.elevation(Observer(latitude_deg, longitude_deg), when, with_refraction=False))


def sun_azimuth_deg(latitude_deg: float, longitude_deg: float, when: datetime) -> float:
    """Return the bearing of the sun [deg, clockwise from true north] at a place (WGS84, degrees) and an aware instant.

    By the `astral` library (NOAA solar equations). Raises ValueError for a naive `when`.
    """
    if when.tzinfo is None:
        raise ValueError("the instant needs a time zone")
    return float(astral_sun.azimuth(Observer(latitude_deg, longitude_deg), when))


def _declination_and_angle(hemisphere: str, local: datetime) -> tuple[float, float, float]:
    latitude = math.radians(GUESSED_LATITUDE_DEG if hemisphere == "north" else -GUESSED_LATITUDE_DEG)
    day = local.timetuple().tm_yday
    declination = math.radians(23.45 * math.sin(2 * math.pi * (284 + day) / 365))
    hour_angle = math.radians(15 * (local.hour + local.minute / 60 + local.second / 3600 - 12))
    return latitude, declination, hour_angle


def sun_elevation_by_hemisphere(hemisphere: str, local: datetime) -> float:
    """Return the sun's elevation [deg] where only the hemisphere is known: latitude 50°, clock time taken as sun time.

    Declination by Cooper (1969), from memory. A guess for planning, good to some ten degrees.
    """
    latitude, declination, hour_angle = _declination_and_angle(hemisphere, local)
    sine = math.sin(latitude) * math.sin(declination) + math.cos(latitude) * math.cos(declination) * math.cos(
        hour_angle
    )
    return math.degrees(math.asin(sine))


def sun_azimuth_by_hemisphere(hemisphere: str, local: datetime) -> float:
    """Return the sun's bearing [deg, clockwise from true north] where only the hemisphere is known; a guess like its elevation."""
    latitude, declination, hour_angle = _declination_and_angle(hemisphere, local)
    east = -math.sin(hour_angle) * math.cos(declination)
    north = math.cos(latitude) * math.sin(declination) - math.sin(latitude) * math.cos(declination) * math.cos(
        hour_angle
    )
    return math.degrees(math.atan2(east, north)) % 360


def _crossing(height: Callable[[datetime], float], start: datetime, end: datetime, level: float) -> datetime:
    """Instant between `start` and `end` where the height passes `level`, to the second, by halving."""
    rising = height(end) > height(start)
    low, high = start, end
    while (high - low) > timedelta(seconds=1):
        middle = low + (high - low) / 2
        low, high = (middle, high) if (height(middle) < level) == rising else (low, middle)
    return low + (high - low) / 2


def sun_day(height: Callable[[datetime], float], midnight: datetime) -> SunDay:
    """Return the sun's four moments in the 24 hours after a local `midnight` (aware), from a function giving its elevation [deg].

    The first rise and the last set found in the day; None where the sun does not pass that height that day.
    """
    moments = [midnight + timedelta(minutes=STEP_MINUTES * i) for i in range(24 * 60 // STEP_MINUTES + 1)]
    heights = [height(m) for m in moments]
    found: dict[tuple[float, bool], datetime] = {}
    for i in range(len(moments) - 1):
        for level in (CIVIL_DEG, RISE_DEG):
            up = heights[i] < level <= heights[i + 1]
            down = heights[i] >= level > heights[i + 1]
            if up and (level, True) not in found:
                found[level, True] = _crossing(height, moments[i], moments[i + 1], level)
            if down:
                found[level, False] = _crossing(height, moments[i], moments[i + 1], level)
    return SunDay(
        found.get((CIVIL_DEG, True)),
        found.get((RISE_DEG, True)),
        found.get((RISE_DEG, False)),
        found.get((CIVIL_DEG, False)),
    )
