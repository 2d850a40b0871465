"""What `./still read` prints, and what the Water page shows: the contract, and how it is made from the core's reading."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated, Literal

import numpy as np

from stillthread.core.limits import Said
from stillthread.core.reading.cautions import Caution
from stillthread.core.reading.hours import LightHour, light_sentences, wind_turns
from stillthread.core.reading.means import ReadInput, WaterRead
from stillthread.core.reading.wind_now import WindNow, wind_sentence
from stillthread.core.sky.light import attenuation_band_per_m
from stillthread.core.trout.open_band import OpenBand, feeling
from stillthread.core.trout.temperature import Welfare, appetite, behaviour, preference
from stillthread.core.vocabulary import Species
from stillthread.core.water.oxygen import OxygenCurve, oxygen_saturation_mg_l
from stillthread.documents.food_answer import FoodOut, food_out
from stillthread.documents.strict import FourDigits, Hundredths, Strict, Tenths, Thousandths, ThreeFigures, Whole, told

BoatLevel = Literal["ok", "caution", "stop"]
Ripple = Literal["calm", "ripple", "wave"]


class ThermoclineOut(Strict):
    """A steep part of the profile: seasonal, skin (the day's), weak, or inverse (winter)."""

    kind: Literal["seasonal", "skin", "weak", "inverse"]
    depth_m: Hundredths
    top_m: Annotated[Hundredths, Said("top of the metalimnion")]
    bottom_m: Hundredths
    drop_c_per_m: Hundredths


class StabilityOut(Strict):
    """How firmly the layers stand against today's wind; null where an input is missing."""

    schmidt_j_m2: Tenths | None
    wedderburn: Hundredths | None
    lake_number: Hundredths | None
    tilt_m: Hundredths | None
    seiche_h: Tenths | None
    length_m: Whole | None
    guessed: tuple[str, ...]
    sentence: str


class LayersOut(Strict):
    """How the water lies in layers."""

    state: Literal["unknown", "mixed", "skin", "weak", "layered", "inverse"]
    main: ThermoclineOut | None
    skin: ThermoclineOut | None
    buoyancy_per_s2: Annotated[tuple[ThreeFigures, ...], Said("N² between each two samples")]
    stability: StabilityOut
    sentence: str


class Curves(Strict):
    """Curves over depth, on `depths_m`; null where nothing was read."""

    depths_m: tuple[Thousandths, ...]
    temperature_c: tuple[Hundredths, ...] | None
    measured_to_m: float | None
    oxygen_mg_l: tuple[Hundredths, ...] | None
    oxygen_low_mg_l: tuple[Hundredths, ...] | None
    oxygen_high_mg_l: tuple[Hundredths, ...] | None
    saturation_mg_l: tuple[Hundredths, ...] | None
    oxygen_source: tuple[Literal["measured", "saturation", "guess"], ...] | None
    light_share: Annotated[tuple[FourDigits, ...], Said("share of the light just under the surface left at each depth")]
    light_low_share: Annotated[tuple[FourDigits, ...], Said("the same at the murkiest the Secchi depth allows")]
    light_high_share: Annotated[tuple[FourDigits, ...], Said("the same at the clearest")]


class SpeciesOut(Strict):
    """One species: water open to it, what it would choose, and its appetite and preference by depth, 0 to 1, kept apart."""

    species: Species
    open_top_m: Hundredths | None
    open_bottom_m: Hundredths | None
    bottom_low_m: Annotated[Hundredths | None, Said("where the open water may end, by the doubt about oxygen")]
    bottom_high_m: Hundredths | None
    liked_top_m: Hundredths | None
    liked_bottom_m: Hundredths | None
    top_by: Literal["surface", "warmth"]
    bottom_by: Literal["bed", "oxygen", "warmth"]
    sentence: str
    feeling: Annotated[str, Said("how hungry they are and how well they are suited, in words")]
    appetite: tuple[Thousandths, ...]
    preference: tuple[Thousandths, ...]


class OxygenOut(Strict):
    """The air pressure oxygen was reckoned at, and where that is from."""

    pressure_hpa: Tenths
    pressure_from: Literal["measured", "sea level", "elevation", "guess"]
    measured: bool
    sentence: str


class LightHourOut(Strict):
    """Light in one hour."""

    when: datetime
    sun_deg: Tenths
    azimuth_deg: float
    lux: ThreeFigures
    twilight_m: Annotated[Tenths, Said("depth where it is down to civil twilight")]
    twilight_low_m: Tenths
    twilight_high_m: Tenths
    spot: Annotated[bool, Said("fish can be spotted")]
    look_deg: Whole | None
    glare_from_deg: Whole | None
    glare_to_deg: Whole | None


class LightOut(Strict):
    """Light now, through the day, and the moments of the sun (null where there is none)."""

    now: LightHourOut
    secchi_m: float
    attenuation_per_m: Thousandths
    comfort_m: Hundredths
    hours: tuple[LightHourOut, ...]
    civil_dawn: datetime | None
    sunrise: datetime | None
    sunset: datetime | None
    civil_dusk: datetime | None
    sentences: tuple[str, ...]


class SpeedRange(Strict):
    """The slowest and the fastest, m/s."""

    low_m_s: Thousandths
    high_m_s: Thousandths


class PlaceWindOut(Strict):
    """The wind at one place."""

    place: str
    onto: Hundredths | None
    fetch_m: Whole | None
    wave_m: Thousandths | None
    period_s: Hundredths | None
    sentence: str


class WindHourOut(Strict):
    """The wind of one hour."""

    when: datetime
    wind_m_s: float
    gust_m_s: float | None
    from_deg: float | None
    beaufort: int
    ripple: Ripple
    onto: str | None
    wave_m: Thousandths | None
    boat: BoatLevel


class WindOut(Strict):
    """The wind now and what it does."""

    wind_m_s: float
    from_deg: float | None
    beaufort: int
    ripple: Ripple
    onto_shore: str | None
    off_shore: str | None
    fetch_m: Whole | None
    fetch_from: Literal["outline", "typed", "guess", "unknown"]
    wave_m: Thousandths | None
    period_s: Hundredths | None
    wave_length_m: Tenths | None
    wave_method: str
    set_up_m: FourDigits | None
    drift: dict[Literal["surface", "float", "boat", "drogue"], SpeedRange]
    boat: BoatLevel
    chill_c: Tenths | None
    places: tuple[PlaceWindOut, ...]
    sentence: str


class Edge(Strict):
    """A place that warms first."""

    place: str
    warmer_c: Tenths
    read: bool
    sentence: str


class ReadAnswer(Strict):
    """What `./still read` prints."""

    version: Literal[1] = 1
    bed_m: Thousandths
    layers: LayersOut
    curves: Curves
    oxygen: OxygenOut | None
    species: tuple[SpeciesOut, ...]
    welfare: Welfare | None
    behaviour: str | None
    approach: str | None
    light: LightOut
    wind: WindOut | None
    wind_hours: tuple[WindHourOut, ...]
    wind_turns: tuple[str, ...]
    edges: tuple[Edge, ...]
    food: FoodOut
    cautions: tuple[Caution, ...]
    guessed: tuple[str, ...]


def _layers(read: WaterRead) -> LayersOut:
    main, skin = (told(ThermoclineOut, one) if one else None for one in (read.layers.main, read.layers.skin))
    return told(LayersOut, read.layers, main=main, skin=skin, stability=told(StabilityOut, read.stability))


def _curves(read: WaterRead) -> Curves:
    oxygen, t = read.oxygen, read.temperature_c
    clearest, murkiest = attenuation_band_per_m(read.light.secchi_m)
    full = None
    if t is not None and oxygen is not None:
        full = oxygen_saturation_mg_l(np.clip(t, 0, 40), oxygen.pressure_hpa).tolist()
    return Curves(
        depths_m=read.depths_m.tolist(),
        temperature_c=None if t is None else t.tolist(),
        measured_to_m=read.measured_to_m,
        oxygen_mg_l=None if oxygen is None else oxygen.mg_l.tolist(),
        oxygen_low_mg_l=None if oxygen is None else oxygen.low_mg_l.tolist(),
        oxygen_high_mg_l=None if oxygen is None else oxygen.high_mg_l.tolist(),
        saturation_mg_l=full,
        oxygen_source=None if oxygen is None else oxygen.source,
        light_share=np.exp(-read.light.attenuation_per_m * read.depths_m).tolist(),
        light_low_share=np.exp(-murkiest * read.depths_m).tolist(),
        light_high_share=np.exp(-clearest * read.depths_m).tolist(),
    )


def _oxygen(curve: OxygenCurve | None) -> OxygenOut | None:
    return told(OxygenOut, curve) if curve is not None else None


def _species(read: WaterRead, band: OpenBand) -> SpeciesOut:
    t = read.temperature_c if read.temperature_c is not None else read.depths_m * 0
    top, bottom = band.open_m or (None, None)
    liked_top, liked_bottom = band.liked_m or (None, None)
    low, high = band.bottom_band_m or (None, None)
    return told(
        SpeciesOut,
        band,
        open_top_m=top,
        open_bottom_m=bottom,
        bottom_low_m=low,
        bottom_high_m=high,
        liked_top_m=liked_top,
        liked_bottom_m=liked_bottom,
        feeling=feeling(band.species, read.depths_m, t),
        appetite=appetite(t, band.species).tolist(),
        preference=preference(t, band.species).tolist(),
    )


def _light_hour(hour: LightHour) -> LightHourOut:
    low, high = hour.twilight_band_m
    start, end = hour.glare_deg or (None, None)
    return told(
        LightHourOut,
        hour,
        azimuth_deg=round(hour.azimuth_deg, 1) % 360,
        twilight_low_m=low,
        twilight_high_m=high,
        glare_from_deg=start,
        glare_to_deg=end,
    )


def _light(read: WaterRead) -> LightOut:
    return told(
        LightOut,
        read.sun,
        now=_light_hour(read.light_now),
        secchi_m=read.light.secchi_m,
        attenuation_per_m=read.light.attenuation_per_m,
        comfort_m=read.easy_light_m,
        hours=[_light_hour(h) for h in read.light_hours],
        sentences=light_sentences(read.sun, read.light_now, read.light_hours),
    )


def _wind(now: WindNow | None) -> WindOut | None:
    if now is None:
        return None
    drift = {what: SpeedRange(low_m_s=low, high_m_s=high) for what, (low, high) in now.drift_m_s.items()}
    return told(
        WindOut,
        now,
        onto_shore=now.onto,
        off_shore=now.off,
        wave_length_m=now.length_m,
        drift=drift,
        places=[told(PlaceWindOut, place) for place in now.places],
        sentence=wind_sentence(now),
    )


def read_answer(given: ReadInput, read: WaterRead) -> ReadAnswer:
    """Return the answer document for a reading and what it means."""
    does, approach = behaviour(given.reading.surface_c) if given.reading.surface_c is not None else (None, None)
    return told(
        ReadAnswer,
        read,
        layers=_layers(read),
        curves=_curves(read),
        oxygen=_oxygen(read.oxygen),
        species=[_species(read, band) for band in read.bands],
        behaviour=does,
        approach=approach,
        light=_light(read),
        wind=_wind(read.wind),
        wind_hours=[told(WindHourOut, hour) for hour in read.wind_hours],
        wind_turns=wind_turns(read.wind_hours),
        edges=[told(Edge, edge) for edge in read.edges],
        food=food_out(given, read),
    )
