"""METAR: the weather at an airfield as one line of text (WMO Manual on Codes, FM 15), read by the `metar` library and checked."""

from __future__ import annotations

import re
from dataclasses import dataclass
from datetime import UTC, datetime, timedelta

from stillthread.core.errors import InputError, Problem
from stillthread.core.reading.hours import Hour

LONGEST = 600
ACCEPTED = "one METAR, such as EGXX 141150Z 24012KT 9999 BKN045 14/08 Q1013"
SHAPE = re.compile(r"(?:(?:METAR|SPECI)\s+)?(?:COR\s+)?([A-Z][A-Z0-9]{3})\s+(\d{2})\d{4}Z\b")
# Eighths of cloud for what a layer is called: the middle of each range (WMO Manual on Codes, table 2700 and FM 15).
OKTAS = {
    "FEW": 2.0,
    "SCT": 4.0,
    "BKN": 6.0,
    "OVC": 8.0,
    "VV": 8.0,
    "SKC": 0.0,
    "CLR": 0.0,
    "NSC": 0.0,
    "NCD": 0.0,
    "CAVOK": 0.0,
}
LATE = timedelta(hours=12)  # a report is of no later day than this after now: another month is meant


@dataclass(frozen=True)
class Metar:
    """A report: the airfield's code, and the weather of its time in SI."""

    station: str
    hour: Hour


KNOT_M_S = 1852 / 3600


def write_metar(station: str, hour: Hour) -> str:
    """Return an hour's weather as a METAR of an airfield; what it does not tell stands as slashes, as the code has it."""
    if hour.wind_m_s is None:
        wind = "/////KT"
    else:
        gust = "" if hour.gust_m_s is None else f"G{hour.gust_m_s / KNOT_M_S:02.0f}"
        bearing = "VRB" if hour.wind_from_deg is None else f"{round(hour.wind_from_deg / 10) * 10 % 360:03d}"
        calm = hour.wind_m_s < KNOT_M_S / 2
        wind = "00000KT" if calm else f"{bearing}{hour.wind_m_s / KNOT_M_S:02.0f}{gust}KT"
    oktas = hour.cloud_oktas
    named = (("SKC", 0.5), ("FEW030", 2.5), ("SCT030", 4.5), ("BKN030", 7.5), ("OVC030", 9.0))
    sky = "///" if oktas is None else next(name for name, below in named if oktas < below)
    air = (
        "//"
        if hour.air_temperature_c is None
        else f"{'M' * (hour.air_temperature_c <= -0.5)}{abs(hour.air_temperature_c):02.0f}"
    )
    pressure = "" if hour.sea_level_pressure_hpa is None else f" Q{hour.sea_level_pressure_hpa:04.0f}"
    return f"METAR {station} {hour.when.astimezone(UTC):%d%H%M}Z {wind} 9999 {sky} {air}///{pressure}="


def _refuse(message: str) -> InputError:
    return InputError(Problem("metar", "text", message, ACCEPTED))


def _month(day: int, now: datetime) -> tuple[int, int]:
    """Year and month of a report that tells its day alone: this month's, or the last one's where that is yet to come."""
    first = now.replace(day=1, hour=0, minute=0, second=0, microsecond=0)
    if first + timedelta(days=day - 1) <= now + LATE:
        return first.year, first.month
    before = first - timedelta(days=1)
    return before.year, before.month


def read_metar(text: str, now: datetime) -> Metar:
    """Return what a METAR tells, its day in the month up to `now` (aware). Raises InputError for what is none, or tells no weather.

    A wind that varies has no bearing; no cloud of note counts as none.
    """
    from metar.Metar import Metar as Report  # slow to import, seldom wanted
    from metar.Metar import ParserError

    line = " ".join(text.split()).rstrip("=").upper()
    if len(line) > LONGEST:
        raise _refuse("This is longer than a METAR.")
    shape = SHAPE.match(line)
    if shape is None:
        raise _refuse("This does not begin as a METAR does: an airfield of four letters, then day and time.")
    year, month = _month(int(shape[2]), now.astimezone(UTC))
    try:
        told = Report(line, month=month, year=year, strict=True)
    except (ParserError, ValueError) as error:
        raise _refuse(f"A part of it cannot be read: {str(error)[:120]}.") from None
    if told.time is None:
        raise _refuse("It does not tell its time.")
    layers = [OKTAS[layer[0]] for layer in told.sky if layer[0] in OKTAS]
    clear = "CAVOK" in line.split()
    try:
        hour = Hour(
            when=told.time.replace(tzinfo=UTC),
            wind_m_s=None if told.wind_speed is None else round(told.wind_speed.value("MPS"), 2),
            gust_m_s=None if told.wind_gust is None else round(told.wind_gust.value("MPS"), 2),
            wind_from_deg=None if told.wind_dir is None else told.wind_dir.value() % 360,
            cloud_oktas=max(layers) if layers else 0.0 if clear else None,
            air_temperature_c=None if told.temp is None else told.temp.value("C"),
            sea_level_pressure_hpa=None if told.press is None else round(told.press.value("HPA"), 1),
        )
    except (TypeError, ValueError):
        raise _refuse("It tells what cannot be.") from None
    if all(value is None for value in (hour.wind_m_s, hour.cloud_oktas, hour.air_temperature_c)):
        raise _refuse("It tells no wind, no cloud and no temperature.")
    return Metar(station=shape[1], hour=hour)
