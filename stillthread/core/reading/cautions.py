"""The usual cautions of water, wind and sky; local rules and authorities come first."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from stillthread.core.noted.reading import Reading
from stillthread.core.noted.standing import Topic
from stillthread.core.sky.sun import is_dark
from stillthread.core.sky.wind import boat_level, wind_chill_c

COLD_SHOCK_C = 15.0
HOT_AIR_C = 25.0
# Wind chill [°C] from which cold hands and a cold head are a danger of their own. Common practice, no source.
BITTER_C = 0.0
# Cautions by code that end a day on the water where they say stop, the gravest first, and what of a reading they go by.
ENDS_THE_DAY: dict[str, Topic] = {"thunder": "thunder", "wind": "wind"}


@dataclass(frozen=True)
class Caution:
    """Something to mind; `level` is note, caution or stop."""

    code: str
    level: Literal["note", "caution", "stop"]
    sentence: str


def wind_cautions(reading: Reading, afloat: bool, wave_height_m: float | None = None) -> list[Caution]:
    """Return cautions for mean wind, gusts [m/s] and waves [m]: think again from 5.5 m/s, stay ashore from 8 (trade limits)."""
    level = boat_level(reading.wind_m_s, reading.gust_m_s, wave_height_m)
    if not afloat or level == "ok":
        return []
    if level == "stop":
        return [Caution("wind", "stop", "Too much wind or wave for a small boat: stay ashore.")]
    words = "From 5.5 m/s (Beaufort 4) think again about a small boat; less with gusts or a long fetch."
    return [Caution("wind", "caution", words)]


def cold_cautions(reading: Reading) -> list[Caution]:
    """Return the caution for a biting wind, by the wind chill index [°C]; cold hands tie no knots."""
    if reading.air_temperature_c is None or reading.wind_m_s is None:
        return []
    felt = wind_chill_c(reading.air_temperature_c, reading.wind_m_s)
    if felt is None or felt > BITTER_C:
        return []
    words = f"The wind makes the air feel like {felt:.0f} °C: gloves, hat, something dry to change into."
    return [Caution("cold-air", "caution", words)]


def water_cautions(reading: Reading, afloat: bool) -> list[Caution]:
    """Return the life-jacket and cold-water cautions by surface temperature [°C] (cold shock below about 15 °C, from memory)."""
    found = []
    if afloat:
        found.append(Caution("afloat", "note", "Wear the life jacket afloat and tell someone when you will be back."))
    if reading.surface_c is not None and reading.surface_c < COLD_SHOCK_C:
        words = "Cold water: the shock can drown in the first minutes. Life jacket on, wade shallow."
        found.append(Caution("cold-water", "caution", words))
    if reading.surface_c is not None and reading.surface_c < 1.5:
        found.append(Caution("ice", "caution", "Ice edges: keep off them, and off what is left of the ice."))
    return found


def sky_cautions(reading: Reading) -> list[Caution]:
    """Return cautions for thunder and heat."""
    found = []
    if reading.thunder:
        words = "Thunder: stop, put the rod down (carbon conducts), wait 30 minutes after the last of it."
        found.append(Caution("thunder", "stop", words))
    if reading.air_temperature_c is not None and reading.air_temperature_c >= HOT_AIR_C:
        found.append(Caution("heat", "note", "Hot day: sun block, hat, and at least 1.5 litres of water."))
    return found


def dark_cautions(sun_deg: float, afloat: bool) -> list[Caution]:
    """Return the caution for fishing in the dark, by the sun's elevation [deg]: from the end of civil twilight (common practice)."""
    if not is_dark(sun_deg):
        return []
    how = (
        "show a light, and keep to water you know"
        if afloat
        else "carry a light, and wade only where you have stood by day"
    )
    return [Caution("dark", "caution", f"It is dark: {how}. Many waters close at dusk: check.")]


def gravest_first(found: list[Caution]) -> tuple[Caution, ...]:
    """Return cautions ordered stop, caution, note, otherwise as they came."""
    gravity = {"stop": 0, "caution": 1, "note": 2}
    return tuple(sorted(found, key=lambda caution: gravity[caution.level]))
