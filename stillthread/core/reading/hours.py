"""The day hour by hour: sky and wind as forecast or held, the light under water, when fish can be spotted, the wind's turns."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime, timedelta
from typing import Annotated

from annotated_types import Ge, Le

from stillthread.core.errors import InputError, Problem
from stillthread.core.limits import Bearing, Instant
from stillthread.core.noted.reading import Reading, fetch_on, sun_on
from stillthread.core.noted.water import Water
from stillthread.core.sky.light import (
    attenuation_band_per_m,
    attenuation_from_secchi,
    can_spot,
    glare_sector_deg,
    light_under_surface_lux,
    looking_deg,
    ripple_class,
    twilight_depth_m,
)
from stillthread.core.sky.sun import SunDay, sun_day
from stillthread.core.sky.waves import wave_on_fetch
from stillthread.core.sky.wind import STRONGEST_M_S, boat_level, compass_point, downwind_shore
from stillthread.core.units import beaufort_from_m_s

# A turn of the wind worth telling: from this bearing [deg] on, at a speed [m/s] that carries food. Common practice.
TURN_DEG = 60.0
CARRIES_M_S = 2.0
MOST_HOURS = 24 * 16


@dataclass(frozen=True)
class Hour:
    """The weather of one hour, from a forecast or as noted: SI, wind *from* in degrees true, pressure at sea level."""

    when: Instant
    wind_m_s: Annotated[float | None, Ge(0)] = None
    gust_m_s: Annotated[float | None, Ge(0)] = None
    wind_from_deg: Bearing | None = None
    cloud_oktas: Annotated[float | None, Ge(0), Le(8)] = None
    air_temperature_c: Annotated[float | None, Ge(-60), Le(60)] = None
    sea_level_pressure_hpa: Annotated[float | None, Ge(870), Le(1090)] = None
    rain_mm: Annotated[float | None, Ge(0), Le(500)] = None


@dataclass(frozen=True)
class LightHour:
    """Light in one hour: sun [deg], its bearing, light just under the surface [lux], the depth where it is down to civil
    twilight (and its band, [m]), whether cruising fish can be spotted, the bearing to look along, and the glitter.
    """

    when: datetime
    sun_deg: float
    azimuth_deg: float
    lux: float
    twilight_m: float
    twilight_band_m: tuple[float, float]
    spot: bool
    look_deg: float | None
    glare_deg: tuple[float, float] | None


@dataclass(frozen=True)
class WindHour:
    """Wind in one hour: speed and gust [m/s], from [deg true], Beaufort, ripple, the shore it blows onto, waves [m], and
    what a small open boat should think of it ('ok', 'caution', 'stop').
    """

    when: datetime
    wind_m_s: float
    gust_m_s: float | None
    from_deg: float | None
    beaufort: int
    ripple: str
    onto: str | None
    wave_m: float | None
    boat: str


def checked_hours(hours: tuple[Hour, ...], path: str = "hours") -> tuple[Hour, ...]:
    """Return hours that can be used: aware instants going forward, values possible.

    Raises InputError at each bad hour.
    """
    problems = []
    if len(hours) > MOST_HOURS:
        problems.append(Problem("too_many", path, f"{len(hours)} hours are too many.", f"up to {MOST_HOURS}"))
    for i, hour in enumerate(hours[:MOST_HOURS]):
        here = f"{path}[{i}]"
        if i > 0 and hour.when <= hours[i - 1].when:
            problems.append(
                Problem("unsorted", f"{here}.when", "This hour is not after the one before.", "hours going forward")
            )
        for name, value in (("wind_m_s", hour.wind_m_s), ("gust_m_s", hour.gust_m_s)):
            if value is not None and not 0 <= value <= STRONGEST_M_S:
                message = f"A wind of {value:.0f} m/s is beyond any hurricane."
                problems.append(Problem("wind_range", f"{here}.{name}", message, f"0 to {STRONGEST_M_S:g} m/s"))
    if problems:
        raise InputError(problems[:20])
    return hours


def day_hours(when: datetime) -> tuple[datetime, ...]:
    """Return the full hours of the local day of an aware instant: 24 of them, 23 or 25 where the clock changes."""
    midnight = when.replace(hour=0, minute=0, second=0, microsecond=0)
    tomorrow = (midnight + timedelta(days=1, hours=3)).replace(hour=0, minute=0)
    count = round((tomorrow.timestamp() - midnight.timestamp()) / 3600)
    first = midnight.timestamp()
    return tuple(datetime.fromtimestamp(first + 3600 * i, tz=when.tzinfo) for i in range(count))


def weather_at(hours: tuple[Hour, ...], reading: Reading, when: datetime) -> Hour:
    """Return the weather for an instant: the nearest given hour within 90 minutes, else what the reading says held all day."""
    if hours:
        nearest = min(hours, key=lambda h: abs((h.when - when).total_seconds()))
        if abs((nearest.when - when).total_seconds()) <= 5400:
            return nearest
    return Hour(
        when=when,
        wind_m_s=reading.wind_m_s,
        gust_m_s=reading.gust_m_s,
        wind_from_deg=reading.wind_from_deg,
        cloud_oktas=reading.cloud_oktas,
        air_temperature_c=reading.air_temperature_c,
    )


def light_hour(water: Water, weather: Hour, when: datetime, secchi_m: float, clarity: str | None) -> LightHour:
    """Return the light of an instant over a water, for a Secchi depth [m] and clarity class; unknown cloud counts as half."""
    sun, azimuth = sun_on(water, when)
    lux = light_under_surface_lux(sun, 4.0 if weather.cloud_oktas is None else weather.cloud_oktas)
    clearest, murkiest = attenuation_band_per_m(secchi_m)
    up = sun > 0
    return LightHour(
        when=when,
        sun_deg=sun,
        azimuth_deg=azimuth,
        lux=lux,
        twilight_m=twilight_depth_m(lux, attenuation_from_secchi(secchi_m)),
        twilight_band_m=(twilight_depth_m(lux, murkiest), twilight_depth_m(lux, clearest)),
        spot=can_spot(sun, weather.cloud_oktas, clarity),
        look_deg=looking_deg(azimuth) if up else None,
        glare_deg=glare_sector_deg(sun, azimuth),
    )


def wind_hour(water: Water, weather: Hour, position: tuple[float, float] | None = None) -> WindHour | None:
    """Return the wind of an hour and what it does, with waves over the fetch at a (lon, lat); None where it is not known."""
    if weather.wind_m_s is None:
        return None
    wave = None
    if weather.wind_from_deg is not None:
        fetch, _ = fetch_on(water, weather.wind_from_deg, position)
        if fetch is not None:
            wave = wave_on_fetch(weather.wind_m_s, fetch, max(water.max_depth_m / 2, 0.5)).height_m
    return WindHour(
        when=weather.when,
        wind_m_s=weather.wind_m_s,
        gust_m_s=weather.gust_m_s,
        from_deg=weather.wind_from_deg,
        beaufort=beaufort_from_m_s(weather.wind_m_s),
        ripple=ripple_class(weather.wind_m_s),
        onto=downwind_shore(weather.wind_from_deg) if weather.wind_from_deg is not None else None,
        wave_m=wave,
        boat=boat_level(weather.wind_m_s, weather.gust_m_s, wave),
    )


def wind_turns(hours: tuple[WindHour, ...]) -> tuple[str, ...]:
    """Return what the wind's turns mean, in words: a swing of 60° or more moves the food to another shore."""
    told: list[str] = []
    last: WindHour | None = None
    for hour in hours:
        if hour.from_deg is None or hour.wind_m_s < CARRIES_M_S:
            continue
        if last is not None and last.from_deg is not None:
            turn = (hour.from_deg - last.from_deg + 180) % 360 - 180
            if abs(turn) < TURN_DEG:
                continue
            told.append(
                f"The wind swings from {compass_point(last.from_deg)} to {compass_point(hour.from_deg)} about "
                f"{hour.when:%H:%M}: drifting food moves to the {hour.onto} shore; in a cold wind look to the sheltered one."
            )
        last = hour
    return tuple(told)


def sun_moments(water: Water, when: datetime) -> SunDay:
    """Return civil dawn, sunrise, sunset and civil dusk of the local day of an aware instant over a water."""
    midnight = when.replace(hour=0, minute=0, second=0, microsecond=0)
    return sun_day(lambda t: sun_on(water, t)[0], midnight)


def _span(start: datetime | None, end: datetime | None) -> str | None:
    return f"{start:%H:%M} to {end:%H:%M}" if start and end else None


def light_sentences(sun: SunDay, now: LightHour, hours: tuple[LightHour, ...]) -> tuple[str, ...]:
    """Return what the day's light means for fishing: dawn and dusk, and when fish can be spotted."""
    found = []
    dawn, dusk = _span(sun.civil_dawn, sun.sunrise), _span(sun.sunset, sun.civil_dusk)
    if dawn and dusk:
        found.append(f"Dawn {dawn}, dusk {dusk}: margins and the surface.")
    elif sun.sunrise is None and sun.sunset is None:
        found.append("The sun stays up all day." if now.sun_deg > 0 else "The sun does not rise today.")
    spots = [hour.when for hour in hours if hour.spot]
    if spots:
        found.append(f"Fish can be spotted from {spots[0]:%H:%M} to {spots[-1]:%H:%M}, with the sun behind you.")
    else:
        found.append("No hour today with sun high and bright enough to spot fish.")
    return tuple(found)
