"""A year of invented readings, soundings, a recorded line and a forecast for the demo's waters."""

from __future__ import annotations

import uuid
from dataclasses import replace
from datetime import UTC, datetime, timedelta
from typing import Any, get_args

import numpy as np

from stillthread.core.food.available import available_food
from stillthread.core.food.seen import Abundance, SampleItem, Sighting, ThroatSample
from stillthread.demo.places import DemoWater, invented_outline
from stillthread.demo.season import invented_reading
from stillthread.standins.boat import NO_FAULTS, Boat
from stillthread.standins.lake import bed_m, position
from stillthread.standins.weather import invented_hours
from stillthread.waters.chart_schemas import MapSoundingIn, MapSoundingsBody, OutlineBody, SoundingBody
from stillthread.waters.chart_services import put_map_soundings, put_outline, put_sounding
from stillthread.waters.feed_services import stored_hours
from stillthread.waters.models import Forecast, SoundingLine, Water
from stillthread.waters.schemas import ReadingBody, WaterOut
from stillthread.waters.services import put_reading
from stillthread.web.owned import live, put_owned

ABUNDANCES: tuple[Abundance, ...] = get_args(Abundance)
NAMESPACE = uuid.UUID("0b9b1c4e-7d53-4f1c-8a39-3c0b6a1f2d77")


def _uuid(*parts: object) -> uuid.UUID:
    return uuid.uuid5(NAMESPACE, "/".join(str(part) for part in parts))


def write_year(owner: Any, water: DemoWater, out: WaterOut, now: datetime, rng: np.random.Generator) -> int:
    """Store an invented profile of the deepest spot about every three weeks of the year before; returns how many."""
    deepest = max(out.places, key=lambda p: p.depth_max_m)
    count = 0
    for days in range(360, 90, -20):
        when = (now - timedelta(days=days)).replace(hour=12, minute=0, second=0, microsecond=0)
        reading = invented_reading(water, out, when.date(), rng, deep=True)
        body = replace(reading, water_depth_m=deepest.depth_max_m)
        likely = available_food(when, "north", reading.profile[1].temperature_c, reading.wind_m_s).top(3)
        seen = (Sighting(prey=likely[int(rng.integers(3))].key, abundance=ABUNDANCES[int(rng.integers(3))]),)
        samples = []
        if rng.random() < 0.35:
            kinds = [(likely[0], int(rng.integers(6, 30))), (likely[1], int(rng.integers(1, 5)))]
            items = (
                SampleItem(prey=p.key, count=n, size_mm=round(float(np.mean(p.size_mm)), 0), colour=p.colours[0])
                for p, n in kinds
            )
            samples.append(ThroatSample(tuple(items)))
        put_reading(
            owner,
            out.id,
            _uuid(owner.pk, out.id, days),
            ReadingBody(place=deepest.name, taken_at=when, reading=body, sightings=seen, samples=tuple(samples)),
        )
        count += 1
    return count


def write_chart(owner: Any, out: WaterOut, now: datetime, rng: np.random.Generator) -> None:
    """Store the invented outline, soundings off a map and by hand, and a line recorded over the drop-off."""
    put_outline(owner, out.id, OutlineBody(rings=invented_outline()))
    taken = now - timedelta(days=70)
    mapped = []
    for i in range(70):
        angle, reach = float(rng.uniform(0, 2 * np.pi)), float(np.sqrt(rng.uniform(0, 0.78)))
        east, north = 860 * reach * np.cos(angle), 640 * reach * np.sin(angle)
        if abs(east + 420) < 80 and abs(north + 180) < 60:
            continue  # the island
        lon, lat = position(east, north)
        depth = round(bed_m(east, north), 1)
        mapped.append(
            MapSoundingIn(id=_uuid(owner.pk, "map", i), sounding_m=depth, longitude_deg=lon, latitude_deg=lat)
        )
    put_map_soundings(owner, out.id, MapSoundingsBody(taken_at=taken, soundings=mapped))
    by_hand = (
        ("Sheepwash margin", 1.4, "rod"),
        ("Boathouse drop-off", 4.6, "weight-on-fly"),
        ("Dam wall", 15.0, "asked"),
    )
    for name, depth, method in by_hand:
        body = SoundingBody(depth_m=depth, method=method, taken_at=taken, place=name)
        put_sounding(owner, out.id, _uuid(owner.pk, "hand", name), body)
    boat = Boat(taken, seed=4, faults=NO_FAULTS)
    points = []
    for second in range(0, 330, 2):
        east, north, _ = boat.place(second)
        depth = boat.truth(second) + float(rng.normal(0, 0.06))
        if rng.random() < 0.03:
            depth *= 0.45
        lon, lat = position(east, north)
        points.append([taken.timestamp() + second, round(lon, 7), round(lat, 7), round(depth, 2), 11.8])
    put_owned(
        SoundingLine,
        owner,
        _uuid(owner.pk, "line"),
        water=Water.objects.get(pk=out.id),
        started_at=taken,
        ended_at=taken + timedelta(seconds=330),
        points=points,
    )


def refresh_forecast(owner: Any, out: WaterOut, now: datetime) -> None:
    """Make sure a demo water has an invented forecast for the days that come."""
    newest = live(Forecast, owner).filter(water_id=out.id).first()
    known = out.longitude_deg is not None and out.latitude_deg is not None
    if not known or (newest is not None and newest.fetched_at.date() >= now.date()):
        return
    start = datetime(now.year, now.month, now.day, tzinfo=UTC)
    hours = invented_hours(lon=out.longitude_deg or 0.0, lat=out.latitude_deg or 0.0, start=start, count=72, seed=1)
    put_owned(
        Forecast,
        owner,
        _uuid(owner.pk, out.id, now.date()),
        water=Water.objects.get(pk=out.id),
        fetched_at=now,
        source="invented demo weather",
        hours=stored_hours(hours),
    )
