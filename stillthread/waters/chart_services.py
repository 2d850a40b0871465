"""Use cases of the chart: outline, soundings by hand and from maps, lines recorded from the boat."""

from __future__ import annotations

import math
import uuid
from datetime import datetime
from typing import Any

import numpy as np
from django.db import transaction

from stillthread.accounts.services import angler_of
from stillthread.core.chart.outline import (
    Outline,
    area_and_shore,
    checked_outline,
    distance_and_bearing,
    longest_fetch_m,
    shore_stretches,
)
from stillthread.core.chart.sounding import (
    METHODS,
    SOUNDING_METHODS,
    Sounding,
    below_datum_m,
    below_surface_m,
    checked_sounding,
    pooled_depth,
    sounding_doubt_m,
)
from stillthread.core.chart.sounding_line import ledges, wild
from stillthread.core.errors import InputError
from stillthread.core.sky.wind import downwind_shore, onto_shore
from stillthread.formats.geojson import MappedPlace, MappedSounding, WaterMap, read_water_map, write_water_map
from stillthread.formats.gpx import looks_like_gpx, read_gpx, write_gpx
from stillthread.waters import chart_schemas as c
from stillthread.waters import models
from stillthread.waters.services import water_out
from stillthread.web.owned import get_owned, live, put_owned

MOST_LINES = 20
MOST_SOUNDINGS = 3000


def outline_of(water: models.Water) -> Outline:
    """Return the stored outline of a water, empty where there is none."""
    return tuple(tuple((p[0], p[1]) for p in ring) for ring in water.outline)


def put_outline(owner: Any, water_id: uuid.UUID, body: c.OutlineBody) -> c.ChartOut:
    """Store a water's outline, or take it away. Raises InputError at the faulty ring."""
    water = get_owned(models.Water, owner, water_id)
    if body.rings:
        checked_outline(body.rings, "rings")
    water.outline = body.model_dump(mode="json")["rings"]
    water.save(update_fields=["outline", "updated_at"])
    return chart(owner, water_id, None)


def level_of(owner: Any, water: models.Water) -> float:
    """Return the newest level noted with a reading [m against the datum], or 0."""
    for row in live(models.Reading, owner).filter(water=water)[:30]:
        level = row.reading.get("level_m")
        if level is not None:
            return float(level)
    return 0.0


def sounding_out(row: models.Sounding, level_m: float) -> c.SoundingOut:
    """Return a stored sounding with today's depth at a level [m]."""
    today = below_surface_m(row.sounding_m, level_m)
    return c.SoundingOut(
        id=row.pk,
        sounding_m=round(row.sounding_m, 3),
        depth_today_m=round(max(today, 0.0), 3),
        doubt_m=round(sounding_doubt_m(Sounding(max(today, 0.0), SOUNDING_METHODS[row.method])), 2),
        method=row.method,
        taken_at=row.taken_at,
        place=row.place_name or None,
        longitude_deg=row.longitude_deg,
        latitude_deg=row.latitude_deg,
    )


def put_sounding(owner: Any, water_id: uuid.UUID, sounding_id: uuid.UUID, body: c.SoundingBody) -> c.SoundingOut:
    """Store a sounding made by hand, brought to the datum. Raises InputError where it cannot be."""
    water = get_owned(models.Water, owner, water_id)
    depth_limit = water.max_depth_m + max(body.level_m, 0.0)
    try:
        checked_sounding(Sounding(body.depth_m, body.method), depth_limit, angler_of(owner).rod_m, "")
    except InputError as error:
        raise InputError(
            [type(p)(p.code, p.path.lstrip("."), p.message, p.accepted, p.hint) for p in error.problems]
        ) from error
    row = put_owned(
        models.Sounding,
        owner,
        sounding_id,
        water=water,
        place_name=body.place or "",
        longitude_deg=body.longitude_deg,
        latitude_deg=body.latitude_deg,
        sounding_m=below_datum_m(body.depth_m, body.level_m),
        method=body.method,
        taken_at=body.taken_at,
    )
    return sounding_out(row, body.level_m)


@transaction.atomic
def put_map_soundings(owner: Any, water_id: uuid.UUID, body: c.MapSoundingsBody) -> c.StoredOut:
    """Store soundings of a map file, all or none; sent twice they are the same rows."""
    water = get_owned(models.Water, owner, water_id)
    for one in body.soundings:
        values = one.model_dump(exclude={"id"})
        put_owned(models.Sounding, owner, one.id, water=water, taken_at=body.taken_at, place_name="", **values)
    return c.StoredOut(stored=len(body.soundings))


def read_map(owner: Any, water_id: uuid.UUID, data: bytes) -> c.MapFileOut:
    """Return what a GeoJSON or GPX file tells of one of the owner's waters; nothing is stored. Raises InputError at the fault."""
    get_owned(models.Water, owner, water_id)
    found = read_gpx(data) if looks_like_gpx(data) else read_water_map(data)
    area, shore = area_and_shore(found.outline) if found.outline else (None, None)
    return c.MapFileOut(
        rings=found.outline or (),
        area_m2=area,
        shore_m=shore,
        places=[c.MappedPlaceOut(name=p.name, kind=p.kind, position=p.position) for p in found.places],
        soundings=[
            c.MappedSoundingOut(
                sounding_m=s.sounding_m, method=s.method if s.method in METHODS else None, position=s.position
            )
            for s in found.soundings
        ],
        notes=list(found.notes),
    )


def _placed(owner: Any, water: models.Water) -> list[MappedPlace]:
    """The water's places whose position is known."""
    return [
        MappedPlace(p.name, (p.longitude_deg, p.latitude_deg), p.kind)
        for p in live(models.Place, owner).filter(water=water)
        if p.longitude_deg is not None and p.latitude_deg is not None
    ]


def write_way_points(owner: Any, water_id: uuid.UUID) -> str:
    """Return a water's places as GPX way-points."""
    water = get_owned(models.Water, owner, water_id)
    return write_gpx(water.name, [(one.name, one.position, one.kind or "") for one in _placed(owner, water)])


def write_map(owner: Any, water_id: uuid.UUID) -> str:
    """Return a water's outline, places and soundings as GeoJSON."""
    water = get_owned(models.Water, owner, water_id)
    places = _placed(owner, water)
    rows = live(models.Sounding, owner).filter(water=water, longitude_deg__isnull=False)[:MOST_SOUNDINGS]
    soundings = [
        MappedSounding((s.longitude_deg, s.latitude_deg), s.sounding_m, s.method)
        for s in rows
        if s.longitude_deg is not None and s.latitude_deg is not None and s.sounding_m > 0
    ]
    return write_water_map(WaterMap(outline_of(water) or None, tuple(places), tuple(soundings), ()), water.name)


def _along(positions: list[tuple[float, float]]) -> list[float]:
    """Distance [m] along a line of positions, from its first."""
    total, found = 0.0, [0.0]
    for a, b in zip(positions, positions[1:], strict=False):
        total += distance_and_bearing(a, b)[0]
        found.append(total)
    return found


def line_out(row: models.SoundingLine, level_m: float) -> c.RecordedLineOut:
    """Return a recorded line with wild echoes marked and its ledges found, in today's depths at a level [m]."""
    if not row.points:
        return c.RecordedLineOut(
            id=row.pk, started_at=row.started_at, ended_at=row.ended_at, points=[], ledges=[], wild=0
        )
    shift = level_m - row.level_m
    positions = [(p[1], p[2]) for p in row.points]
    along = _along(positions)
    depths = np.array([p[3] + shift for p in row.points], dtype=float)
    bad = wild(depths)
    good = np.flatnonzero(~bad)
    found = ledges(np.array(along)[good], depths[good])
    return c.RecordedLineOut(
        id=row.pk,
        started_at=row.started_at,
        ended_at=row.ended_at,
        points=[
            c.LinePointOut(
                position=positions[i],
                along_m=round(along[i], 1),
                depth_m=round(float(depths[i]), 2),
                temperature_c=p[4],
                wild=bool(bad[i]),
            )
            for i, p in enumerate(row.points)
        ],
        ledges=[
            c.LedgeOut(
                position=positions[int(good[e.index])],
                upper_m=round(e.upper_m, 1),
                lower_m=round(e.lower_m, 1),
                run_m=round(e.run_m, 0),
            )
            for e in found
        ],
        wild=int(bad.sum()),
    )


def _pooled(name: str, soundings: list[c.SoundingOut]) -> tuple[float | None, float | None, bool | None]:
    here = tuple(Sounding(s.depth_today_m, s.method) for s in soundings if s.place == name and s.depth_today_m > 0)
    if not here:
        return None, None, None
    pooled = pooled_depth(here)
    return round(pooled.depth_m, 2), round(pooled.doubt_m, 2), pooled.agree


def _places(water: models.Water, soundings: list[c.SoundingOut], wind_from_deg: float | None) -> list[c.ChartPlaceOut]:
    found = []
    for p in water_out(water).places:
        depth, doubt, agree = _pooled(p.name, soundings)
        onto = None
        if wind_from_deg is not None and p.facing_deg is not None:
            onto = round(onto_shore(wind_from_deg, p.facing_deg), 2)
        known = p.longitude_deg is not None and p.latitude_deg is not None
        found.append(
            c.ChartPlaceOut(
                name=p.name,
                kind=p.kind,
                position=(p.longitude_deg or 0.0, p.latitude_deg or 0.0) if known else None,
                depth_min_m=p.depth_min_m,
                depth_max_m=p.depth_max_m,
                onto=onto,
                pooled_m=depth,
                pooled_doubt_m=doubt,
                agree=agree,
            )
        )
    return found


def _stretches(outline: Outline, wind_from_deg: float | None) -> list[c.StretchOut]:
    found = []
    for s in shore_stretches(outline) if outline else ():
        onto = None if wind_from_deg is None else round(onto_shore(wind_from_deg, s.facing_deg), 2)
        length = round(s.length_m, 1)
        found.append(c.StretchOut(start=s.start, end=s.end, length_m=length, onto=onto))
    return found


def chart(owner: Any, water_id: uuid.UUID, wind_from_deg: float | None) -> c.ChartOut:
    """Return the chart of a water, with what a wind from `wind_from_deg` [deg true] does to its shores."""
    water = get_owned(models.Water, owner, water_id)
    outline = outline_of(water)
    level = level_of(owner, water)
    area, shore = area_and_shore(outline) if outline else (None, None)
    fetch = longest_fetch_m(outline, wind_from_deg) if outline and wind_from_deg is not None else None
    rows = live(models.Sounding, owner).filter(water=water)[:MOST_SOUNDINGS]
    soundings = [sounding_out(row, level) for row in rows]
    lines = live(models.SoundingLine, owner).filter(water=water)[:MOST_LINES]
    return c.ChartOut(
        rings=outline,
        area_m2=area,
        shore_m=shore,
        longest_fetch_m=None if fetch is None else round(fetch),
        level_m=level,
        downwind_shore=downwind_shore(wind_from_deg) if wind_from_deg is not None else None,
        stretches=_stretches(outline, wind_from_deg),
        places=_places(water, soundings, wind_from_deg),
        soundings=soundings,
        lines=[line_out(row, level) for row in lines],
    )


def start_line(owner: Any, body: c.FeedLineBody, when: datetime) -> models.SoundingLine:
    """Start a recorded line under the client's UUID; sent twice it is the same line."""
    water = get_owned(models.Water, owner, body.water_id)
    existing = live(models.SoundingLine, owner).filter(pk=body.line_id).first()
    points = existing.points if existing is not None else []
    return put_owned(
        models.SoundingLine,
        owner,
        body.line_id,
        water=water,
        started_at=when,
        ended_at=None,
        level_m=body.level_m,
        points=points,
    )


def append_points(owner: Any, line_id: uuid.UUID, points: list[list[Any]], ended_at: datetime | None) -> int:
    """Add points to a recorded line, and end it if told when; returns how many it has. A line deleted meanwhile takes none."""
    row = live(models.SoundingLine, owner).filter(pk=line_id).first()
    if row is None:
        return 0
    row.points = [*row.points, *[p for p in points if all(v is None or math.isfinite(v) for v in p)]]
    row.ended_at = ended_at or row.ended_at
    row.save(update_fields=["points", "ended_at", "updated_at"])
    return len(row.points)
