"""Use cases that understand readings: what one means, the season of a water, its hatch calendar, the prey catalogue."""

from __future__ import annotations

import uuid
from dataclasses import replace
from datetime import datetime, timedelta
from typing import Any

from django.utils import timezone

from stillthread.accounts.services import angler_of
from stillthread.core.food.calendar import food_calendar, week_of
from stillthread.core.food.catalogue import BY_KEY, CATALOGUE
from stillthread.core.food.prey import COLOURS, FAMILIES, Layer, Prey
from stillthread.core.food.season import WaterYear
from stillthread.core.food.seen import ABUNDANCE_COUNT, sample_counts
from stillthread.core.noted import reading as noted
from stillthread.core.noted.standing import Taken
from stillthread.core.reading.ahead import cautions_ahead
from stillthread.core.reading.hours import Hour
from stillthread.core.reading.means import read_water, water_year
from stillthread.core.water.layers import read_layers
from stillthread.documents.noted import Noted
from stillthread.documents.read import Elsewhere, ReadRequest, read_input_from
from stillthread.documents.read_answer import ReadAnswer, read_answer
from stillthread.waters.chart_schemas import Hours
from stillthread.waters.models import Forecast, Reading, Water
from stillthread.waters.schemas import (
    AheadOut,
    CalendarOut,
    CalendarRowOut,
    CatalogueOut,
    PreyEntryOut,
    ReadBody,
    SeasonOut,
    SeasonProfileOut,
    StageOut,
    YearOut,
)
from stillthread.waters.seen_before import seen_before
from stillthread.waters.services import local_time, reading_out, surface_history, water_document
from stillthread.web.owned import get_owned, live


def forecast_hours(water: Water, when: datetime) -> tuple[Hour, ...]:
    """Return the hours of the newest forecast that fall on the water's local day of an instant."""
    row = live(Forecast, water.owner).filter(water=water).first()
    if row is None:
        return ()
    day = local_time(water, when).date()
    hours = Hours.model_validate({"hours": row.hours}).hours
    local = (replace(hour, when=local_time(water, hour.when)) for hour in hours)
    return tuple(hour for hour in local if hour.when.date() == day)


def surfaces_elsewhere(water: Water, when: datetime, place: str | None) -> list[Elsewhere]:
    """Return the surface temperatures read on the same local day at other places, the newest of each."""
    day = local_time(water, when).date()
    found: dict[str, float] = {}
    around = live(Reading, water.owner).filter(
        water=water, taken_at__gte=when - timedelta(days=1), taken_at__lte=when + timedelta(days=1)
    )
    for row in around:
        profile = row.own_profile
        known = row.place_name and row.place_name != place and row.place_name not in found
        if known and profile and profile[0]["depth_m"] <= 1.0 and local_time(water, row.taken_at).date() == day:
            found[row.place_name] = profile[0]["temperature_c"]
    return [Elsewhere(place=name, surface_c=value) for name, value in found.items()]


def understand(owner: Any, water_id: uuid.UUID, body: ReadBody) -> ReadAnswer:
    """Return what a reading on one of the owner's waters means. Raises InputError at the faulty fields."""
    water = get_owned(Water, owner, water_id)
    stop = water.rules.get("stop_above_c")
    request = ReadRequest(
        **{name: getattr(body, name) for name in Noted.model_fields},
        when=local_time(water, body.when),
        water=water_document(water, body.when),
        hours=forecast_hours(water, body.when),
        elsewhere=surfaces_elsewhere(water, body.when, body.place),
        stop_above_c=stop,
        afloat=angler_of(owner).afloat,
        seen_before=seen_before(owner, water, body.when),
    )
    given = read_input_from(request)
    return read_answer(given, read_water(given))


def ahead(water: Water, when: datetime, read: Taken | None, fallback: datetime) -> list[AheadOut]:
    """Return the stops and cautions of the local day of an instant, from what was `read` and the forecast's hours.

    Without a reading of that day the sun and the forecast count from `fallback` on.
    """
    if read is not None and local_time(water, read.at).date() != local_time(water, when).date():
        read = None
    request = ReadRequest(
        when=local_time(water, read.at if read is not None else fallback),
        water=water_document(water, when),
        reading=read.reading if read is not None else noted.Reading(),
        hours=forecast_hours(water, when),
        stop_above_c=water.rules.get("stop_above_c"),
        afloat=angler_of(water.owner).afloat,
    )
    return [
        AheadOut(since=one.since, code=one.caution.code, level=one.caution.level, sentence=one.caution.sentence)
        for one in cautions_ahead(read_input_from(request))
    ]


def _own_year(water: Water) -> WaterYear:
    now = timezone.now()
    return water_year(replace(water_document(water, now), surface_history=surface_history(water)))


def _profile_out(row: Reading) -> SeasonProfileOut:
    profile = reading_out(row).reading.profile
    layers = read_layers(profile)
    main = layers.main if layers.state == "layered" else None
    return SeasonProfileOut(
        id=row.pk,
        taken_at=row.taken_at,
        place=row.place_name or None,
        points=profile,
        state=layers.state,
        thermocline_m=round(main.depth_m, 2) if main else None,
    )


def season(owner: Any, water_id: uuid.UUID, year: int | None) -> SeasonOut:
    """Return a water's profiles of one year (the newest with readings, if none is named) and its year's curve."""
    water = get_owned(Water, owner, water_id)
    rows = [row for row in live(Reading, owner).filter(water=water).order_by("taken_at") if row.own_profile]
    years = sorted({local_time(water, row.taken_at).year for row in rows}, reverse=True)
    shown = year or (years[0] if years else local_time(water, timezone.now()).year)
    own = _own_year(water)
    count = own.readings
    words = (
        f"Fitted to {count} surface readings of this water."
        if own.known
        else "Guessed from the latitude: three surface readings make it this water's own."
    )
    weeks = range(3, 365, 7)
    return SeasonOut(
        year=shown,
        years=years,
        profiles=[_profile_out(row) for row in rows if local_time(water, row.taken_at).year == shown],
        curve=YearOut(
            surface_c=[round(own.surface_c[day], 1) for day in weeks],
            spread_c=[round(own.spread_c[day], 1) for day in weeks],
            readings=count,
            sentence=words,
        ),
    )


def food_records(owner: Any, water: Water) -> tuple[tuple[int, str, float], ...]:
    """Return what was seen on a water as (day of the year, prey, count): prey sightings and throat samples."""
    found = []
    for row in live(Reading, owner).filter(water=water)[:1000]:
        day = min(local_time(water, row.taken_at).timetuple().tm_yday, 365)
        for seen in row.sightings:
            if seen.get("prey"):
                found.append((day, seen["prey"], ABUNDANCE_COUNT[seen.get("abundance", "some")]))
        for sample in reading_out(row).samples:
            found += [(day, prey, count) for prey, count in sample_counts(sample).items()]
    return tuple(found)


def calendar(owner: Any, water_id: uuid.UUID) -> CalendarOut:
    """Return the hatch calendar of a water for the year that runs."""
    water = get_owned(Water, owner, water_id)
    now = local_time(water, timezone.now())
    found = food_calendar(_own_year(water), now.year, now, food_records(owner, water))
    return CalendarOut(
        year=now.year,
        this_week=week_of(now),
        surface_c=[round(v, 1) for v in found.surface_c],
        spread_c=[round(v, 1) for v in found.spread_c],
        rows=[
            CalendarRowOut(
                key=row.key,
                name=BY_KEY[row.key].name,
                weight=[round(w, 3) for w in row.weight],
                recorded=list(row.recorded),
                shift_days=round(row.shift_days),
            )
            for row in found.rows
        ],
        sentence=found.sentence,
    )


def _where(layer: Layer) -> str:
    if layer.reference == "light":
        return "where the light turns easy, deeper in sun"
    side = "under the surface" if layer.reference == "surface" else "off the bottom"
    return f"about {layer.offset_m:.1f} m {side}" if layer.offset_m >= 0.1 else "in the film"


def _entry(prey: Prey) -> PreyEntryOut:
    return PreyEntryOut(
        key=prey.key,
        name=prey.name,
        about=prey.about,
        habitat=prey.habitat,
        stages=[
            StageOut(
                name=stage.name,
                where=[_where(layer) for layer in stage.layers],
                movement=stage.movement,
                families=list(stage.families),
            )
            for stage in prey.stages
        ],
        months=[round(m, 2) for m in prey.months],
        warmth_c=list(prey.warmth_c),
        hours=list(prey.hours),
        weather=prey.weather,
        places=list(prey.places),
        size_mm=list(prey.size_mm),
        hooks=list(prey.hooks),
        colours=list(prey.colours),
        max_bed_m=prey.max_bed_m,
        source=prey.source,
    )


def catalogue() -> CatalogueOut:
    """Return the prey catalogue."""
    return CatalogueOut(prey=[_entry(prey) for prey in CATALOGUE], families=FAMILIES, colours=list(COLOURS))
