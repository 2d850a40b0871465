"""What the coming hours bring: the cautions that are not said yet, each with the hour from which it holds."""

from __future__ import annotations

from dataclasses import dataclass, replace
from datetime import datetime, timedelta

from stillthread.core.noted.reading import Reading, light_on
from stillthread.core.reading.cautions import (
    Caution,
    cold_cautions,
    dark_cautions,
    sky_cautions,
    water_cautions,
    wind_cautions,
)
from stillthread.core.reading.hours import Hour, sun_moments, weather_at
from stillthread.core.reading.means import ReadInput
from stillthread.core.trout.temperature import Welfare, welfare

# Warned this long before it is dark: time to come in. Common practice, no source.
BEFORE_DARK = timedelta(minutes=45)
LONGEST_DAY_H = 18


@dataclass(frozen=True)
class Ahead:
    """A caution and the instant from which it holds."""

    since: datetime
    caution: Caution


def _fish(warmth: Welfare | None) -> list[Caution]:
    if warmth is None or warmth.level == "ok":
        return []
    return [Caution("warm-water", "note" if warmth.level == "tiring" else warmth.level, warmth.sentence)]


def _in(weather: Hour, reading: Reading) -> Reading:
    """Return the reading with an hour's wind and air in the place of its own."""
    return replace(
        reading,
        wind_m_s=weather.wind_m_s,
        gust_m_s=weather.gust_m_s,
        air_temperature_c=weather.air_temperature_c,
        thunder=False,
    )


def _dark(given: ReadInput) -> Ahead | None:
    dusk = sun_moments(given.water, given.when).civil_dusk if given.water.latitude_deg is not None else None
    if dusk is None:
        return None
    if given.when >= dusk:
        sun_deg = light_on(given.water, given.reading, given.when).sun_elevation_deg
        return next((Ahead(given.when, one) for one in dark_cautions(sun_deg, given.afloat)), None)
    where = "be ashore by then, or show a light" if given.afloat else "find your way back while you can see it"
    return Ahead(max(given.when, dusk - BEFORE_DARK), Caution("dark", "caution", f"Dark by {dusk:%H:%M}: {where}."))


def cautions_ahead(given: ReadInput) -> tuple[Ahead, ...]:
    """Return the stops and cautions of the rest of a reading's local day, each at the first hour it holds, in order.

    The reading's own hold from its instant; the forecast's hours bring wind, gusts and cold air; the sun brings the dark.
    The limits are those of the single cautions (see `core.reading.cautions`).
    """
    reading, when = given.reading, given.when
    warmest = max(p.temperature_c for p in reading.profile) if reading.profile else None
    warmth = welfare(warmest, given.water.species, given.stop_above_c) if warmest is not None else None
    now = sky_cautions(reading) + water_cautions(reading, given.afloat) + _fish(warmth)
    found = [Ahead(when, one) for one in now + wind_cautions(reading, given.afloat) + cold_cautions(reading)]
    for hour in given.hours:
        if when < hour.when <= when + timedelta(hours=LONGEST_DAY_H):
            then = _in(weather_at(given.hours, reading, hour.when), reading)
            found += [Ahead(hour.when, one) for one in wind_cautions(then, given.afloat) + cold_cautions(then)]
    dark = _dark(given)
    if dark is not None:
        found.append(dark)
    first: dict[tuple[str, str], Ahead] = {}
    for one in sorted((a for a in found if a.caution.level != "note"), key=lambda a: a.since):
        first.setdefault((one.caution.code, one.caution.level), one)
    return tuple(first.values())
