"""Use cases of waters and readings."""

from __future__ import annotations

import uuid
from dataclasses import fields
from datetime import datetime, timedelta
from typing import Any
from zoneinfo import ZoneInfo

from django.db import transaction
from django.http import Http404

from stillthread.core.belief.factors import SETTLED_AFTER_DAYS
from stillthread.core.day.given import Rules
from stillthread.core.errors import InputError, Problem
from stillthread.core.noted import water as noted
from stillthread.core.noted.reading import checked_reading
from stillthread.core.noted.standing import Taken, dated
from stillthread.core.reading.guide import first_pass_m, next_depth
from stillthread.core.water.profile import Point
from stillthread.core.water.stability import Contour, checked_hypsography
from stillthread.documents.strict import told
from stillthread.formats.covjson import read_profile_coverage, write_profile_coverage
from stillthread.formats.profile_csv import read_profile_csv
from stillthread.waters.models import Place, Reading, Water
from stillthread.waters.schemas import (
    NextDepthBody,
    NextDepthOut,
    PlaceBody,
    ProfileFileOut,
    ReadingBody,
    ReadingOut,
    WaterBody,
    WaterOut,
)
from stillthread.web.owned import delete_owned, get_owned, live, put_owned

# How many earlier surface readings the year's curve is fitted to.
MOST_HISTORY = 150


def water_out(water: Water) -> WaterOut:
    """Return a water with its live places as the API gives it."""
    own = set(WaterBody.model_fields) - {"places", "rules", "hypsography", "productivity"}
    places = [
        PlaceBody(id=p.pk, **{one.name: getattr(p, one.name) for one in fields(noted.Place)})
        for p in water.places.all()
        if p.deleted_at is None
    ]
    return WaterOut(
        id=water.pk,
        revision=water.revision,
        places=places,
        rules=Rules(**water.rules),
        hypsography=tuple(Contour(**row) for row in water.hypsography),
        productivity=water.productivity or None,
        **{name: getattr(water, name) for name in own},
    )


def list_waters(owner: Any) -> list[WaterOut]:
    """Return the owner's waters by name."""
    return [water_out(w) for w in live(Water, owner).prefetch_related("places")]


@transaction.atomic
def put_water(owner: Any, water_id: uuid.UUID, body: WaterBody, *, based_on: int | None = None) -> WaterOut:
    """Write a water and its places; places left out of the list get a tombstone. Raises InputError for a bad depth-area table."""
    if body.hypsography:
        checked_hypsography(body.hypsography, body.max_depth_m)
    values = body.model_dump(exclude={"places", "rules", "hypsography", "productivity"})
    as_json = body.model_dump(mode="json")
    water = put_owned(
        Water,
        owner,
        water_id,
        based_on=based_on,
        rules=as_json["rules"],
        hypsography=as_json["hypsography"],
        productivity=body.productivity or "",
        **values,
    )
    kept = [place.id for place in body.places]
    for gone in live(Place, owner).filter(water=water).exclude(pk__in=kept):
        delete_owned(Place, owner, gone.pk)
    for position, place in enumerate(body.places):
        put_owned(
            Place,
            owner,
            place.id,
            water=water,
            position=position,
            **{one.name: getattr(place, one.name) for one in fields(noted.Place)},
        )
    return water_out(get_owned(Water, owner, water_id))


def local_time(water: Water, when: datetime) -> datetime:
    """Return an instant on the water's own clock."""
    return when.astimezone(ZoneInfo(water.time_zone))


def surface_history(water: Water, before: datetime | None = None) -> tuple[noted.SurfaceRead, ...]:
    """Return the water's surface temperatures read before an instant, newest first: samples in the top metre."""
    rows = live(Reading, water.owner).filter(water=water)
    if before is not None:
        rows = rows.filter(taken_at__lt=before)
    found = []
    for row in rows[:MOST_HISTORY]:
        profile = row.own_profile
        if profile and profile[0]["depth_m"] <= 1.0:
            day = local_time(water, row.taken_at).date()
            found.append(noted.SurfaceRead(on=day, surface_c=profile[0]["temperature_c"]))
    return tuple(found)


def lowest_level_m(water: Water, before: datetime) -> float | None:
    """Return the lowest level [m] read in the months in which the bed could have been settled, None where none was."""
    rows = live(Reading, water.owner).filter(
        water=water, taken_at__lt=before, taken_at__gte=before - timedelta(days=SETTLED_AFTER_DAYS)
    )
    levels = [row.reading["level_m"] for row in rows if row.reading.get("level_m") is not None]
    return min(levels, default=None)


def water_document(water: Water, when: datetime) -> noted.Water:
    """Return the water as documents describe it on a day, with its outline, depth-area table and earlier surface readings."""
    out = water_out(water)
    days = (local_time(water, when).date() - water.stocked_on).days if water.stocked_on else None
    same = {one.name: getattr(out, one.name) for one in fields(noted.Water) if hasattr(out, one.name)}
    more = {
        "days_since_stocking": days if days is not None and 0 <= days <= 3650 else None,
        "places": tuple(out.places),
        "outline": tuple(tuple((p[0], p[1]) for p in ring) for ring in water.outline),
        "surface_history": surface_history(water, when),
        "lowest_level_m": lowest_level_m(water, when),
    }
    return noted.Water(**{**same, **more})


def put_reading(
    owner: Any, water_id: uuid.UUID, reading_id: uuid.UUID, body: ReadingBody, *, based_on: int | None = None
) -> ReadingOut:
    """Check a reading against its water and store it, its wind and thunder with the instant they were read.

    Raises InputError at the faulty fields.
    """
    water = get_owned(Water, owner, water_id)
    checked_reading(body.reading, water.max_depth_m)
    stored = live(Reading, owner).filter(pk=reading_id).first()
    before = taken(stored) if stored is not None else None
    body = body.model_copy(update={"reading": dated(Taken(body.reading, body.taken_at), before)})
    as_json = body.model_dump(mode="json")
    row = put_owned(
        Reading,
        owner,
        reading_id,
        based_on=based_on,
        water=water,
        place_name=body.place or "",
        taken_at=body.taken_at,
        **{name: as_json[name] for name in ("reading", "sightings", "samples")},
    )
    return reading_out(row)


def reading_out(row: Reading) -> ReadingOut:
    """Return a stored reading as the API gives it."""
    return told(ReadingOut, row, id=row.pk, revision=row.revision, place=row.place_name or None)


def taken(row: Reading) -> Taken:
    """Return a stored reading as it was taken."""
    return Taken(reading_out(row).reading, row.taken_at)


def latest_readings(owner: Any, water_id: uuid.UUID, count: int) -> list[ReadingOut]:
    """Return a water's newest readings, newest first."""
    water = get_owned(Water, owner, water_id)
    return [reading_out(row) for row in live(Reading, owner).filter(water=water)[:count]]


def one_reading(owner: Any, water_id: uuid.UUID, reading_id: uuid.UUID) -> ReadingOut:
    """Return a stored reading of a water. Raises Http404 for another's, or one of another water."""
    row = get_owned(Reading, owner, reading_id)
    if row.water_id != get_owned(Water, owner, water_id).pk:
        raise Http404(Reading._meta.verbose_name)
    return reading_out(row)


def read_profile_file(
    owner: Any, water_id: uuid.UUID, data: bytes, depth_unit: str | None, temperature_unit: str | None
) -> ProfileFileOut:
    """Read a logger's CSV or a CoverageJSON profile for one of the owner's waters; nothing is stored.

    Raises InputError at the faulty lines or paths.
    """
    water = get_owned(Water, owner, water_id)
    if data.lstrip()[:1] in (b"{", b"["):
        found = read_profile_coverage(data, water.max_depth_m)
        return _file_out(kind="coveragejson", points=found.points, units=("m", "c"), when=found.when, notes=found.notes)
    table = read_profile_csv(data, water.max_depth_m, depth_unit, temperature_unit)
    return _file_out(
        kind="csv", points=table.points, units=(table.depth_unit, table.temperature_unit), when=None, notes=table.notes
    )


def _file_out(
    kind: str, points: tuple[Point, ...], units: tuple[str, str], when: datetime | None, notes: tuple[str, ...]
) -> ProfileFileOut:
    return ProfileFileOut.model_validate(
        {
            "format": kind,
            "points": points,
            "depth_unit": units[0],
            "temperature_unit": units[1],
            "taken_at": when,
            "notes": list(notes),
        }
    )


def profile_file(owner: Any, water_id: uuid.UUID, reading_id: uuid.UUID) -> str:
    """Return a stored reading's profile as CoverageJSON. Raises Http404 for another's row, InputError without a position."""
    water = get_owned(Water, owner, water_id)
    row = get_owned(Reading, owner, reading_id)
    points = reading_out(row).reading.profile
    position = None
    place = live(Place, owner).filter(water=water, name=row.place_name).first()
    if place is not None and place.longitude_deg is not None and place.latitude_deg is not None:
        position = (place.longitude_deg, place.latitude_deg)
    elif water.longitude_deg is not None and water.latitude_deg is not None:
        position = (water.longitude_deg, water.latitude_deg)
    if position is None:
        hint = "Note where the water or the place lies."
        problem = Problem(
            code="no_position",
            path="latitude_deg",
            message="A profile file tells where it was taken.",
            accepted="a position",
            hint=hint,
        )
        raise InputError(problem)
    return write_profile_coverage(points, position, row.taken_at)


def propose_depth(body: NextDepthBody) -> NextDepthOut:
    """Return the next depth to read on a marked cord, and why."""
    found = next_depth(body.points, body.bed_m, body.step_m)
    return NextDepthOut(depth_m=found.depth_m, why=found.why, first_pass_m=list(first_pass_m(body.bed_m, body.step_m)))
