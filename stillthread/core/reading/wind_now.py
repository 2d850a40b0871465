"""What the wind of the moment does to the water: shores, waves, drift, and what it means for a small boat."""

from __future__ import annotations

from dataclasses import dataclass

from stillthread.core.noted.reading import Reading, fetch_on
from stillthread.core.noted.water import Place, Water
from stillthread.core.sky.light import ripple_class
from stillthread.core.sky.waves import METHOD, wave_on_fetch, wavelength_m, wind_set_up_m
from stillthread.core.sky.wind import (
    DRIFT_SHARE,
    boat_level,
    compass_point,
    downwind_shore,
    drift_m_s,
    onto_shore,
    upwind_shore,
    wind_chill_c,
)
from stillthread.core.units import beaufort_from_m_s


@dataclass(frozen=True)
class PlaceWind:
    """The wind at one place: how squarely it blows onto it (1) or off it (-1), its fetch [m], the waves [m] and [s]."""

    place: str
    onto: float | None
    fetch_m: float | None
    wave_m: float | None
    period_s: float | None
    sentence: str


@dataclass(frozen=True)
class WindNow:
    """The wind and its effects. Drifts are (slowest, fastest) [m/s] of surface water, float, boat and boat on a drogue."""

    wind_m_s: float
    from_deg: float | None
    beaufort: int
    ripple: str
    onto: str | None
    off: str | None
    fetch_m: float | None
    fetch_from: str
    wave_m: float | None
    period_s: float | None
    length_m: float | None
    wave_method: str
    set_up_m: float | None
    drift_m_s: dict[str, tuple[float, float]]
    boat: str
    chill_c: float | None
    places: tuple[PlaceWind, ...]


def _at_place(water: Water, reading: Reading, place: Place) -> PlaceWind:
    wind, from_deg = reading.wind_m_s or 0.0, reading.wind_from_deg or 0.0
    onto = onto_shore(from_deg, place.facing_deg) if place.facing_deg is not None else None
    fetch = wave = None
    if place.position is not None or not water.outline:
        fetch, _ = fetch_on(water, from_deg, place.position)
        if fetch is not None:
            wave = wave_on_fetch(wind, fetch, max(place.depth_max_m, 0.3))
    if onto is None:
        words = "which way it faces is not noted"
    elif abs(onto) < 0.35:
        words = "the wind blows along it: a cross-wind bows the line"
    elif onto > 0:
        words = f"the wind blows onto it{': drifting food gathers' if wind >= 2 else ''}"
    else:
        words = "the wind blows off it: calm close in, terrestrials and sheltered hatches"
    return PlaceWind(
        place=place.name,
        onto=onto,
        fetch_m=fetch,
        wave_m=wave.height_m if wave else None,
        period_s=wave.period_s if wave else None,
        sentence=f"{place.name}: {words}.",
    )


def read_wind(water: Water, reading: Reading) -> WindNow | None:
    """Return what the wind read does to a water, waves where they are highest and at each place; None without a wind.

    Waves by the Shore Protection Manual over the mean depth taken as half the deepest; the drift and boat limits are
    common practice (see `wave_on_fetch`, `drift_m_s`, `boat_level`).
    """
    if reading.wind_m_s is None:
        return None
    wind, from_deg = reading.wind_m_s, reading.wind_from_deg
    fetch, fetch_from = fetch_on(water, from_deg) if from_deg is not None else (water.fetch_m, "typed")
    if fetch is None:
        fetch_from = "unknown"
    mean_depth = max(water.max_depth_m / 2, 0.5)
    wave = wave_on_fetch(wind, fetch, mean_depth) if fetch is not None else None
    moving = wave is not None and wave.period_s > 0
    return WindNow(
        wind_m_s=wind,
        from_deg=from_deg,
        beaufort=beaufort_from_m_s(wind),
        ripple=ripple_class(wind),
        onto=downwind_shore(from_deg) if from_deg is not None else None,
        off=upwind_shore(from_deg) if from_deg is not None else None,
        fetch_m=fetch,
        fetch_from=fetch_from,
        wave_m=wave.height_m if wave else None,
        period_s=wave.period_s if wave else None,
        length_m=wavelength_m(wave.period_s, mean_depth) if wave and moving else None,
        wave_method=METHOD,
        set_up_m=wind_set_up_m(wind, fetch, mean_depth) if fetch is not None else None,
        drift_m_s={what: drift_m_s(what, wind) for what in DRIFT_SHARE},
        boat=boat_level(wind, reading.gust_m_s, wave.height_m if wave else None),
        chill_c=wind_chill_c(reading.air_temperature_c, wind) if reading.air_temperature_c is not None else None,
        places=tuple(_at_place(water, reading, p) for p in water.places) if from_deg is not None else (),
    )


def wind_sentence(now: WindNow) -> str:
    """Return the wind in a sentence: force, ripple, shores."""
    surface = {"calm": "flat calm", "ripple": "a ripple", "wave": "a wave"}[now.ripple]
    if now.from_deg is None:
        return f"Beaufort {now.beaufort}, {surface}. Where it comes from is not noted."
    shores = f"onto the {now.onto} shore, off the {now.off} shore"
    return f"Beaufort {now.beaufort} from {compass_point(now.from_deg)}, {surface}: {shores}."
