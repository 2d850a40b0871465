"""Use cases of waters and readings."""

from __future__ import annotations

import uuid
from datetime import datetime
from typing import Any
from zoneinfo import ZoneInfo

from django.db import transaction

from stillthread.core.food.seen import Sighting, check_sightings
from stillthread.core.water.reading import checked_reading
from stillthread.formats.plan_contract import RulesIn
from stillthread.formats.profile_csv import read_profile_csv
from stillthread.formats.water_contract import PlaceIn, ReadingIn, WaterIn
from stillthread.formats.water_json import reading_from
from stillthread.waters.models import Place, Reading, Water
from stillthread.waters.schemas import CsvOut, PlaceBody, ReadingBody, ReadingOut, WaterBody, WaterOut
from stillthread.web.owned import get_owned, live, put_owned


def water_out(water: Water) -> WaterOut:
    """Return a water with its live places as the API gives it."""
    fields = set(WaterBody.model_fields) - {"places", "rules"}
    places = [
        PlaceBody(id=p.pk, **{name: getattr(p, name) for name in PlaceIn.model_fields})
        for p in water.places.all()
        if p.deleted_at is None
    ]
    return WaterOut(
        id=water.pk, places=places, rules=RulesIn(**water.rules), **{name: getattr(water, name) for name in fields}
    )


def list_waters(owner: Any) -> list[WaterOut]:
    """Return the owner's waters by name."""
    return [water_out(w) for w in live(Water, owner).prefetch_related("places")]


@transaction.atomic
def put_water(owner: Any, water_id: uuid.UUID, body: WaterBody) -> WaterOut:
    """Write a water and its places; places left out of the list are deleted."""
    values = body.model_dump(exclude={"places", "rules"})
    water = put_owned(Water, owner, water_id, rules=body.rules.model_dump(mode="json"), **values)
    kept = [place.id for place in body.places]
    for gone in live(Place, owner).filter(water=water).exclude(pk__in=kept):
        gone.delete()
    for position, place in enumerate(body.places):
        put_owned(Place, owner, place.id, water=water, position=position, **place.model_dump(exclude={"id"}))
    return water_out(get_owned(Water, owner, water_id))


def local_time(water: Water, when: datetime) -> datetime:
    """Return an instant on the water's own clock."""
    return when.astimezone(ZoneInfo(water.time_zone))


def water_document(water: Water, when: datetime) -> WaterIn:
    """Return the water as the plan document describes it on a day."""
    out = water_out(water)
    days = (local_time(water, when).date() - water.stocked_on).days if water.stocked_on else None
    return WaterIn(
        name=out.name,
        max_depth_m=out.max_depth_m,
        hemisphere=out.hemisphere,
        latitude_deg=out.latitude_deg,
        longitude_deg=out.longitude_deg,
        species=out.species,
        days_since_stocking=days if days is not None and 0 <= days <= 3650 else None,
        places=[PlaceIn(**p.model_dump(exclude={"id"})) for p in out.places],
    )


def put_reading(owner: Any, water_id: uuid.UUID, reading_id: uuid.UUID, body: ReadingBody) -> ReadingOut:
    """Check a reading against its water and store it. Raises InputError at the faulty fields."""
    water = get_owned(Water, owner, water_id)
    checked_reading(reading_from(body.reading), water.max_depth_m)
    check_sightings(tuple(Sighting(s.abundance, s.prey, s.rise) for s in body.sightings))
    row = put_owned(
        Reading,
        owner,
        reading_id,
        water=water,
        place_name=body.place or "",
        taken_at=body.taken_at,
        reading=body.reading.model_dump(mode="json"),
        sightings=[s.model_dump(mode="json") for s in body.sightings],
    )
    return reading_out(row)


def reading_out(row: Reading) -> ReadingOut:
    """Return a stored reading as the API gives it."""
    return ReadingOut(
        id=row.pk,
        place=row.place_name or None,
        taken_at=row.taken_at,
        reading=ReadingIn(**row.reading),
        sightings=row.sightings,
    )


def latest_readings(owner: Any, water_id: uuid.UUID, count: int) -> list[ReadingOut]:
    """Return a water's newest readings, newest first."""
    water = get_owned(Water, owner, water_id)
    return [reading_out(row) for row in live(Reading, owner).filter(water=water)[:count]]


def read_csv(
    owner: Any, water_id: uuid.UUID, data: bytes, depth_unit: str | None, temperature_unit: str | None
) -> CsvOut:
    """Read a logger's file for one of the owner's waters; nothing is stored. Raises InputError at the faulty lines."""
    water = get_owned(Water, owner, water_id)
    found = read_profile_csv(data, water.max_depth_m, depth_unit, temperature_unit)
    return CsvOut.model_validate(
        {
            "points": [vars(p) for p in found.points],
            "depth_unit": found.depth_unit,
            "temperature_unit": found.temperature_unit,
            "notes": list(found.notes),
        }
    )
