"""From the read document to the core's values, and from the core's reading to the answer."""

from __future__ import annotations

from collections.abc import Iterable
from datetime import datetime

import numpy as np
from numpy.typing import NDArray

from stillthread.core.food.available import PRIOR_SIGHTINGS
from stillthread.core.food.catalogue import BY_KEY
from stillthread.core.food.keyed import Keyed
from stillthread.core.reading.hours import LightHour, wind_turns
from stillthread.core.reading.means import ReadInput, WaterRead
from stillthread.core.reading.wind_now import WindNow, wind_sentence
from stillthread.core.sky.light import attenuation_band_per_m
from stillthread.core.trout.open_band import feeling
from stillthread.core.trout.temperature import appetite, behaviour, preference
from stillthread.core.water.layers import Thermocline
from stillthread.core.water.oxygen import oxygen_saturation_mg_l
from stillthread.documents import read_contract as c
from stillthread.documents.plan_contract import CautionOut
from stillthread.documents.water_json import hours_from, reading_from, samples_from, sightings_from, water_from


def read_input_from(doc: c.ReadRequest) -> ReadInput:
    """Return the core's ReadInput for a read document. Raises InputError at a bad outline or depth-area table."""
    return ReadInput(
        when=doc.when,
        water=water_from(doc.water),
        reading=reading_from(doc.reading),
        sightings=sightings_from(doc.sightings),
        samples=samples_from(doc.samples),
        hours=hours_from(doc.hours),
        elsewhere=tuple((e.place, e.surface_c) for e in doc.elsewhere),
        place=doc.place,
        stop_above_c=doc.stop_above_c,
        afloat=doc.afloat,
    )


def _round(values: Iterable[float] | NDArray[np.float64], digits: int) -> list[float]:
    return [round(float(v), digits) for v in values]


def _opt(value: float | None, digits: int) -> float | None:
    return None if value is None else round(value, digits)


def _thermocline(one: Thermocline | None) -> c.ThermoclineOut | None:
    if one is None:
        return None
    depths = (round(v, 2) for v in (one.depth_m, one.top_m, one.bottom_m))
    return c.ThermoclineOut(
        kind=one.kind,
        **dict(zip(("depth_m", "top_m", "bottom_m"), depths, strict=True)),
        drop_c_per_m=round(one.drop_c_per_m, 2),
    )


def _layers(read: WaterRead) -> c.LayersOut:
    s = read.stability
    stability = c.StabilityOut(
        schmidt_j_m2=_opt(s.schmidt_j_m2, 1),
        wedderburn=_opt(s.wedderburn, 2),
        lake_number=_opt(s.lake_number, 2),
        tilt_m=_opt(s.tilt_m, 2),
        seiche_h=_opt(s.seiche_h, 1),
        length_m=_opt(s.length_m, 0),
        guessed=list(s.guessed),
        sentence=s.sentence,
    )
    return c.LayersOut(
        state=read.layers.state,
        main=_thermocline(read.layers.main),
        skin=_thermocline(read.layers.skin),
        buoyancy_per_s2=[float(f"{v:.3g}") for v in read.layers.buoyancy_per_s2],
        stability=stability,
        sentence=read.layers.sentence,
    )


def _curves(read: WaterRead) -> c.CurvesOut:
    oxygen, t = read.oxygen, read.temperature_c
    clearest, murkiest = attenuation_band_per_m(read.light.secchi_m)
    full = None
    if t is not None and oxygen is not None:
        full = _round(oxygen_saturation_mg_l(np.clip(t, 0, 40), oxygen.pressure_hpa), 2)
    return c.CurvesOut(
        depths_m=_round(read.depths_m, 3),
        temperature_c=None if t is None else _round(t, 2),
        measured_to_m=read.measured_to_m,
        oxygen_mg_l=None if oxygen is None else _round(oxygen.mg_l, 2),
        oxygen_low_mg_l=None if oxygen is None else _round(oxygen.low_mg_l, 2),
        oxygen_high_mg_l=None if oxygen is None else _round(oxygen.high_mg_l, 2),
        saturation_mg_l=full,
        oxygen_source=None if oxygen is None else list(oxygen.source),
        light_share=_round(np.exp(-read.light.attenuation_per_m * read.depths_m), 4),
        light_low_share=_round(np.exp(-murkiest * read.depths_m), 4),
        light_high_share=_round(np.exp(-clearest * read.depths_m), 4),
    )


PRESSURE_WORDS = {
    "measured": "as read at the water",
    "sea level": "from sea level by the elevation",
    "elevation": "by the elevation alone",
    "guess": "a guess: neither pressure nor elevation noted",
}


def _oxygen(read: WaterRead) -> c.OxygenOut | None:
    if read.oxygen is None:
        return None
    measured = "measured" in read.oxygen.source
    start = (
        "Oxygen as measured" if measured else "Oxygen not measured: saturation above the thermocline, below it a guess"
    )
    return c.OxygenOut(
        pressure_hpa=round(read.oxygen.pressure_hpa, 1),
        pressure_from=read.oxygen.pressure_from,
        measured=measured,
        sentence=f"{start}. Air pressure {read.oxygen.pressure_hpa:.0f} hPa, {PRESSURE_WORDS[read.oxygen.pressure_from]}.",
    )


def _species(read: WaterRead) -> list[c.SpeciesOut]:
    found = []
    for band in read.bands:
        t = read.temperature_c if read.temperature_c is not None else read.depths_m * 0
        top, bottom = band.open_m or (None, None)
        liked_top, liked_bottom = band.liked_m or (None, None)
        low, high = band.bottom_band_m or (None, None)
        found.append(
            c.SpeciesOut(
                species=band.species,
                open_top_m=_opt(top, 2),
                open_bottom_m=_opt(bottom, 2),
                bottom_low_m=_opt(low, 2),
                bottom_high_m=_opt(high, 2),
                liked_top_m=_opt(liked_top, 2),
                liked_bottom_m=_opt(liked_bottom, 2),
                top_by=band.top_by,
                bottom_by=band.bottom_by,
                sentence=band.sentence,
                feeling=feeling(band.species, read.depths_m, t),
                appetite=_round(appetite(t, band.species), 3),
                preference=_round(preference(t, band.species), 3),
            )
        )
    return found


def _light_hour(hour: LightHour) -> c.LightHourOut:
    glare = hour.glare_deg or (None, None)
    return c.LightHourOut(
        when=hour.when,
        sun_deg=round(hour.sun_deg, 1),
        azimuth_deg=round(hour.azimuth_deg, 1) % 360,
        lux=float(f"{hour.lux:.3g}"),
        twilight_m=round(hour.twilight_m, 1),
        twilight_low_m=round(hour.twilight_band_m[0], 1),
        twilight_high_m=round(hour.twilight_band_m[1], 1),
        spot=hour.spot,
        look_deg=_opt(hour.look_deg, 0),
        glare_from_deg=_opt(glare[0], 0),
        glare_to_deg=_opt(glare[1], 0),
    )


def _span(when: datetime | None, until: datetime | None) -> str | None:
    return f"{when:%H:%M} to {until:%H:%M}" if when and until else None


def _light_sentences(read: WaterRead) -> list[str]:
    found = []
    dawn = _span(read.sun.civil_dawn, read.sun.sunrise)
    dusk = _span(read.sun.sunset, read.sun.civil_dusk)
    if dawn and dusk:
        found.append(f"Dawn {dawn}, dusk {dusk}: margins and the surface.")
    elif read.sun.sunrise is None and read.sun.sunset is None:
        up = read.light_now.sun_deg > 0
        found.append("The sun stays up all day." if up else "The sun does not rise today.")
    spots = [h.when for h in read.light_hours if h.spot]
    if spots:
        found.append(f"Fish can be spotted from {spots[0]:%H:%M} to {spots[-1]:%H:%M}, with the sun behind you.")
    else:
        found.append("No hour today with sun high and bright enough to spot fish.")
    return found


def _light(read: WaterRead) -> c.LightOut:
    return c.LightOut(
        now=_light_hour(read.light_now),
        secchi_m=read.light.secchi_m,
        attenuation_per_m=round(read.light.attenuation_per_m, 3),
        comfort_m=round(read.easy_light_m, 2),
        hours=[_light_hour(h) for h in read.light_hours],
        civil_dawn=read.sun.civil_dawn,
        sunrise=read.sun.sunrise,
        sunset=read.sun.sunset,
        civil_dusk=read.sun.civil_dusk,
        sentences=_light_sentences(read),
    )


def _wind(now: WindNow | None) -> c.WindOut | None:
    if now is None:
        return None
    return c.WindOut(
        wind_m_s=now.wind_m_s,
        from_deg=now.from_deg,
        beaufort=now.beaufort,
        ripple=now.ripple,
        onto_shore=now.onto,
        off_shore=now.off,
        fetch_m=_opt(now.fetch_m, 0),
        fetch_from=now.fetch_from,
        wave_m=_opt(now.wave_m, 3),
        period_s=_opt(now.period_s, 2),
        wave_length_m=_opt(now.length_m, 1),
        wave_method=now.wave_method,
        set_up_m=_opt(now.set_up_m, 4),
        drift={what: c.RangeOut(low_m_s=round(a, 3), high_m_s=round(b, 3)) for what, (a, b) in now.drift_m_s.items()},
        boat=now.boat,
        chill_c=_opt(now.chill_c, 1),
        places=[
            c.PlaceWindOut(
                place=p.place,
                onto=_opt(p.onto, 2),
                fetch_m=_opt(p.fetch_m, 0),
                wave_m=_opt(p.wave_m, 3),
                period_s=_opt(p.period_s, 2),
                sentence=p.sentence,
            )
            for p in now.places
        ],
        sentence=wind_sentence(now),
    )


def keyed_out(keyed: Keyed | None) -> c.KeyedOut | None:
    """Return the fish's choice as documents tell it."""
    if keyed is None:
        return None
    match = keyed.match
    return c.KeyedOut(
        state=keyed.state,
        sentence=keyed.sentence,
        prey=match.prey if match else None,
        size_mm=match.size_mm if match else None,
        colours=list(match.colours) if match else [],
        hooks=list(match.hooks) if match else [],
    )


def _food(given: ReadInput, read: WaterRead) -> c.FoodOut:
    food = read.food
    return c.FoodOut(
        prior=PRIOR_SIGHTINGS,
        counted=round(food.counted, 2),
        shares=[
            c.PreyShareOut(
                key=prey.key,
                name=prey.name,
                share=round(food.share[prey.key], 4),
                season_share=round(food.season_share[prey.key], 4),
                about=prey.about,
            )
            for prey in food.top(len(BY_KEY))
        ],
        moves=[
            c.MoveOut(
                what=m.what, prey=m.prey, without=round(m.without, 4), with_it=round(m.with_it, 4), sentence=m.sentence
            )
            for m in food.moves
        ],
        keyed=keyed_out(food.keyed),
        here=[
            c.FoodHereOut(
                place=here.place.name,
                kind=here.place.kind,
                density=_round(here.density, 5),
                brings=[c.PartOut(prey=key, share=round(min(part, 1.0), 4)) for key, part in here.brings],
            )
            for here in read.food_here
        ],
        own_year=bool(given.water.surface_history) and read.year.known,
    )


def read_answer(given: ReadInput, read: WaterRead) -> c.ReadAnswer:
    """Return the answer document for a reading and what it means."""
    does, approach = behaviour(given.reading.surface_c) if given.reading.surface_c is not None else (None, None)
    return c.ReadAnswer(
        bed_m=round(read.bed_m, 3),
        layers=_layers(read),
        curves=_curves(read),
        oxygen=_oxygen(read),
        species=_species(read),
        welfare=c.WelfareOut(**vars(read.welfare)) if read.welfare else None,
        behaviour=does,
        approach=approach,
        light=_light(read),
        wind=_wind(read.wind),
        wind_hours=[c.WindHourOut(**{**vars(h), "wave_m": _opt(h.wave_m, 3)}) for h in read.wind_hours],
        wind_turns=list(wind_turns(read.wind_hours)),
        edges=[
            c.EdgeOut(place=e.place, warmer_c=round(e.warmer_c, 1), read=e.read, sentence=e.sentence)
            for e in read.edges
        ],
        food=_food(given, read),
        cautions=[CautionOut(**vars(x)) for x in read.cautions],
        guessed=list(read.guessed),
    )
