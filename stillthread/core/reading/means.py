"""What a reading of the water means for trout: layers, oxygen, open water, light, wind, edges and food together."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime

import numpy as np
from numpy.typing import NDArray

from stillthread.core.belief.light_factor import comfort_depth_m
from stillthread.core.belief.stocking import fresh_fish
from stillthread.core.errors import InputError, Problem
from stillthread.core.evidence.seen_before import SeenBefore, counts_before
from stillthread.core.food.available import Availability, available_food
from stillthread.core.food.season import DAYS, WaterYear, season_shifts
from stillthread.core.food.seen import Sighting, ThroatSample
from stillthread.core.food.where import food_density
from stillthread.core.noted.reading import Reading, checked_reading, fetch_on, light_on, oxygen_on
from stillthread.core.noted.water import Place, Water
from stillthread.core.reading.cautions import (
    Caution,
    cold_cautions,
    dark_cautions,
    gravest_first,
    sky_cautions,
    water_cautions,
    wind_cautions,
)
from stillthread.core.reading.edges import WarmEdge, warm_edges
from stillthread.core.reading.hours import (
    Hour,
    LightHour,
    WindHour,
    checked_hours,
    day_hours,
    light_hour,
    sun_moments,
    weather_at,
    wind_hour,
)
from stillthread.core.reading.wind_now import WindNow, read_wind
from stillthread.core.sky.light import Light
from stillthread.core.sky.sun import SunDay
from stillthread.core.trout.open_band import OpenBand, open_band
from stillthread.core.trout.temperature import Welfare, welfare
from stillthread.core.water.layers import Layers, read_layers
from stillthread.core.water.oxygen import OxygenCurve
from stillthread.core.water.profile import temperature_at
from stillthread.core.water.stability import Stability, read_stability
from stillthread.core.water.year import YearCurve, year_curve

STEP_M = 0.1


@dataclass(frozen=True)
class ReadInput:
    """Everything a reading is understood from; `when` is an aware instant on the water's own clock.

    `elsewhere` are surface temperatures [°C] read the same day at other places, by name; `stop_above_c` [°C] the water's
    own limit for returning fish; `afloat` whether a boat is used; `seen_before` what was seen of the food on earlier days.
    """

    when: datetime
    water: Water
    reading: Reading
    sightings: tuple[Sighting, ...] = ()
    samples: tuple[ThroatSample, ...] = ()
    hours: tuple[Hour, ...] = ()
    elsewhere: tuple[tuple[str, float], ...] = ()
    place: str | None = None
    stop_above_c: float | None = None
    afloat: bool = False
    seen_before: tuple[SeenBefore, ...] = ()


@dataclass(frozen=True)
class FoodHere:
    """Food over depth at one place: its density on the reading's depths, and the prey that bring most, with their part."""

    place: Place
    density: NDArray[np.float64]
    brings: tuple[tuple[str, float], ...]


@dataclass(frozen=True)
class WaterRead:
    """A reading understood. Curves are on `depths_m` [m], every 0.1 m from the surface to the bed."""

    bed_m: float
    depths_m: NDArray[np.float64]
    temperature_c: NDArray[np.float64] | None
    measured_to_m: float | None
    layers: Layers
    stability: Stability
    oxygen: OxygenCurve | None
    bands: tuple[OpenBand, ...]
    welfare: Welfare | None
    light: Light
    easy_light_m: float
    light_now: LightHour
    light_hours: tuple[LightHour, ...]
    sun: SunDay
    wind: WindNow | None
    wind_hours: tuple[WindHour, ...]
    edges: tuple[WarmEdge, ...]
    food: Availability
    food_here: tuple[FoodHere, ...]
    year: WaterYear
    cautions: tuple[Caution, ...]
    guessed: tuple[str, ...]


def own_year(water: Water) -> YearCurve:
    """Return the year's surface temperature of a water, from its earlier surface readings where there are some."""
    surface = tuple((min(one.on.timetuple().tm_yday, 365), one.surface_c) for one in water.surface_history)
    return year_curve(surface, water.hemisphere, water.latitude_deg, water.elevation_m)


def water_year(water: Water) -> WaterYear:
    """Return the same year as daily values, as the hatches read it."""
    curve = own_year(water)
    days = range(1, DAYS + 1)
    surface = tuple(curve.at(day) for day in days)
    return WaterYear(water.hemisphere, surface, tuple(curve.spread_c(day) for day in days), curve.readings)


def food_on(
    water: Water,
    reading: Reading,
    when: datetime,
    sightings: tuple[Sighting, ...] = (),
    samples: tuple[ThroatSample, ...] = (),
    seen_before: tuple[SeenBefore, ...] = (),
) -> Availability:
    """Return how the food is shared out on a water at an aware instant on its own clock.

    Warmth is the water's at 1 m; where the water has surface readings of its own, its degree-days move the hatches.
    What the angler saw on earlier days counts by how like today they were.
    Raises InputError for unknown prey, signs or counts.
    """
    stocked = fresh_fish(water, reading.surface_c)
    warm_at = float(temperature_at(reading.profile, [1.0])[0]) if reading.profile else None
    shifts = season_shifts(water_year(water), when) if water.surface_history else None
    return available_food(
        when=when,
        hemisphere=water.hemisphere,
        water_c=warm_at,
        wind_m_s=reading.wind_m_s,
        cloud_oktas=reading.cloud_oktas,
        stocked=stocked,
        sightings=sightings,
        samples=samples,
        shifts_days=shifts,
        before=counts_before(seen_before, when.date(), reading.surface_c),
    )


def check_read(given: ReadInput) -> None:
    """Raise InputError with every problem in the input: an unknown place, a bad reading, sighting, sample or hour."""
    problems: list[Problem] = []
    names = [place.name for place in given.water.places]
    if given.place is not None and given.place not in names:
        message = f"No place '{given.place}' on this water."
        problems.append(Problem("unknown", "place", message, ", ".join(names) or "a place of the water"))
    for check in (lambda: checked_reading(given.reading, given.water.max_depth_m), lambda: checked_hours(given.hours)):
        try:
            check()
        except InputError as error:
            problems += error.problems
    if problems:
        raise InputError(problems)


def _place(given: ReadInput) -> Place | None:
    return next((p for p in given.water.places if p.name == given.place), None)


def bed_at(given: ReadInput) -> float:
    """Return the bed [m] the reading is drawn over: as read, else the place's deepest, else the water's."""
    if given.reading.water_depth_m is not None:
        return given.reading.water_depth_m
    place = _place(given)
    deepest_read = given.reading.profile[-1].depth_m if given.reading.profile else 0.0
    bed = min(place.depth_max_m, given.water.max_depth_m) if place else given.water.max_depth_m
    return max(bed, deepest_read)


def _food_here(
    given: ReadInput, food: Availability, depths: NDArray[np.float64], easy_m: float
) -> tuple[FoodHere, ...]:
    found = []
    for place in given.water.places:
        bed = min(place.depth_max_m, given.water.max_depth_m)
        density, brings = food_density(
            shares=food.share, depths_m=depths, bed_m=bed, place_kind=place.kind, easy_light_m=easy_m, up=food.up
        )
        most = sorted(brings.items(), key=lambda item: (-item[1], item[0]))[:4]
        found.append(FoodHere(place, density, tuple(most)))
    return tuple(found)


def _guessed(given: ReadInput, light: Light, oxygen: OxygenCurve | None, wind: WindNow | None) -> tuple[str, ...]:
    found = list(light.guessed)
    if not given.reading.profile:
        found.append("temperature")
    if given.reading.water_depth_m is None:
        found.append("water depth")
    if given.water.latitude_deg is None:
        found.append("latitude")
    if oxygen is not None and "measured" not in oxygen.source:
        found.append("oxygen")
    if oxygen is not None and oxygen.pressure_from == "guess":
        found.append("air pressure")
    if wind is not None and wind.fetch_from in ("guess", "unknown"):
        found.append("fetch")
    return tuple(dict.fromkeys(found))


def _bands(
    given: ReadInput, depths: NDArray[np.float64], temperature: NDArray[np.float64] | None, oxygen: OxygenCurve | None
) -> tuple[OpenBand, ...]:
    if oxygen is None or temperature is None:
        return ()
    return tuple(open_band(species, depths, temperature, oxygen) for species in given.water.species)


def _edges(given: ReadInput) -> tuple[WarmEdge, ...]:
    reading = given.reading
    wind = None
    if reading.wind_m_s is not None and reading.wind_from_deg is not None:
        wind = (reading.wind_m_s, reading.wind_from_deg)
    return warm_edges(
        water=given.water,
        when=given.when,
        surface_c=reading.surface_c,
        elsewhere=given.elsewhere,
        cloud_oktas=reading.cloud_oktas,
        wind=wind,
    )


def _cautions(given: ReadInput, light: Light, wind: WindNow | None) -> tuple[Caution, ...]:
    reading = given.reading
    return gravest_first(
        sky_cautions(reading)
        + wind_cautions(reading, given.afloat, wind.wave_m if wind else None)
        + water_cautions(reading, given.afloat)
        + cold_cautions(reading)
        + dark_cautions(light.sun_elevation_deg, given.afloat)
    )


def _light_hours(given: ReadInput, light: Light) -> tuple[LightHour, ...]:
    water, reading = given.water, given.reading
    return tuple(
        light_hour(
            water=water,
            weather=weather_at(given.hours, reading, hour),
            when=hour,
            secchi_m=light.secchi_m,
            clarity=reading.clarity,
        )
        for hour in day_hours(given.when)
    )


def _stability(given: ReadInput, layers: Layers) -> Stability:
    water, reading = given.water, given.reading
    length = fetch_on(water, reading.wind_from_deg)[0] if reading.wind_from_deg is not None else water.fetch_m
    return read_stability(
        points=reading.profile,
        layers=layers,
        bed_m=water.max_depth_m,
        wind_m_s=reading.wind_m_s,
        length_m=length,
        table=water.hypsography,
    )


def read_water(given: ReadInput) -> WaterRead:
    """Return what a reading means. Deterministic for the same input. Raises InputError where the input cannot be used."""
    check_read(given)
    water, reading, when = given.water, given.reading, given.when
    bed = bed_at(given)
    depths = np.linspace(0, bed, max(int(round(bed / STEP_M)), 1) + 1)
    temperature = temperature_at(reading.profile, depths) if reading.profile else None
    layers = read_layers(reading.profile)
    wind = read_wind(water, reading)
    oxygen = oxygen_on(water, reading, depths, when)
    warmest = max(p.temperature_c for p in reading.profile) if reading.profile else None
    light = light_on(water, reading, when)
    easy = comfort_depth_m(light)
    food = food_on(
        water=water,
        reading=reading,
        when=when,
        sightings=given.sightings,
        samples=given.samples,
        seen_before=given.seen_before,
    )
    return WaterRead(
        bed_m=bed,
        depths_m=depths,
        temperature_c=temperature,
        measured_to_m=reading.profile[-1].depth_m if reading.profile else None,
        layers=layers,
        stability=_stability(given, layers),
        oxygen=oxygen,
        bands=_bands(given, depths, temperature, oxygen),
        welfare=welfare(warmest, water.species, given.stop_above_c) if warmest is not None else None,
        light=light,
        easy_light_m=easy,
        light_now=light_hour(
            water=water,
            weather=weather_at((), reading, when),
            when=when,
            secchi_m=light.secchi_m,
            clarity=reading.clarity,
        ),
        light_hours=_light_hours(given, light),
        sun=sun_moments(water, when),
        wind=wind,
        wind_hours=tuple(found for w in given.hours if (found := wind_hour(water, w)) is not None),
        edges=_edges(given),
        food=food,
        food_here=_food_here(given, food, depths, easy),
        year=water_year(water),
        cautions=_cautions(given, light, wind),
        guessed=_guessed(given, light, oxygen, wind),
    )
