"""GeoJSON in and out: a water's outline, its places and its soundings (RFC 7946, WGS84 [longitude, latitude])."""

from __future__ import annotations

import json
import math
from dataclasses import dataclass
from typing import Any

from stillthread.core.chart.outline import Outline, Ring, checked_outline
from stillthread.core.errors import InputError, Problem
from stillthread.core.water.profile import DEEPEST_LAKE_M
from stillthread.formats.json_text import load_json

MOST_FEATURES = 20_000
# Property names a depth may stand under, in metres; the unit may be told beside it.
DEPTH_NAMES = ("depth_m", "sounding_m", "depth")


@dataclass(frozen=True)
class MappedPlace:
    """A named place at a (lon, lat), with its kind where the file tells one."""

    name: str
    position: tuple[float, float]
    kind: str | None


@dataclass(frozen=True)
class MappedSounding:
    """A depth of the bed [m] below the water's datum at a (lon, lat), and how it was found where the file tells."""

    position: tuple[float, float]
    sounding_m: float
    method: str | None


@dataclass(frozen=True)
class WaterMap:
    """What a GeoJSON file tells of a water, and what was left out of it."""

    outline: Outline | None
    places: tuple[MappedPlace, ...]
    soundings: tuple[MappedSounding, ...]
    notes: tuple[str, ...]


def _problem(path: str, message: str, accepted: str, hint: str = "", code: str = "geojson") -> InputError:
    return InputError(Problem(code=code, path=path, message=message, accepted=accepted, hint=hint))


def _position(value: Any, path: str) -> tuple[float, float]:
    if not isinstance(value, list) or not 2 <= len(value) <= 3:
        raise _problem(path, "This is no position.", "[longitude, latitude]")
    lon, lat = value[0], value[1]
    for number in (lon, lat):
        if isinstance(number, bool) or not isinstance(number, int | float) or not math.isfinite(number):
            raise _problem(path, f"'{number}' is no number.", "[longitude, latitude] in degrees")
    if not (abs(lon) <= 180 and abs(lat) <= 90):
        hint = "Were latitude and longitude swapped?" if abs(lat) <= 180 and abs(lon) <= 90 else ""
        accepted = "longitude -180 to 180, then latitude -90 to 90"
        raise _problem(
            path=path, message=f"{lon:g}, {lat:g} is no place on earth.", accepted=accepted, hint=hint, code="position"
        )
    return float(lon), float(lat)


def _polygon(rings: Any, path: str) -> Outline:
    if not isinstance(rings, list) or not rings or not all(isinstance(r, list) for r in rings):
        raise _problem(path, "The polygon has no rings.", "a list of closed rings")
    read = tuple(tuple(_position(p, f"{path}[{i}][{k}]") for k, p in enumerate(ring)) for i, ring in enumerate(rings))
    return checked_outline(read, path)


def _features(raw: Any) -> list[Any]:
    if not isinstance(raw, dict):
        raise _problem("file", "This is no GeoJSON object.", "a FeatureCollection, a Feature or a Polygon")
    kind = raw.get("type")
    if kind == "FeatureCollection":
        listed = raw.get("features")
        if not isinstance(listed, list):
            raise _problem("features", "There is no list of features.", "features: [...]")
        if len(listed) > MOST_FEATURES:
            raise _problem("features", f"{len(listed)} features are too many.", f"up to {MOST_FEATURES}")
        return listed
    if kind == "Feature":
        return [raw]
    if kind in ("Polygon", "MultiPolygon"):
        return [{"type": "Feature", "properties": {}, "geometry": raw}]
    raise _problem("type", f"'{kind}' cannot be a map of a water.", "a FeatureCollection, a Feature or a Polygon")


def _largest(parts: Any, path: str, notes: list[str]) -> Outline:
    """The largest polygon of a MultiPolygon; the others are named as left out."""
    if not isinstance(parts, list) or not parts:
        raise _problem(path, "The multipolygon is empty.", "at least one polygon")
    from stillthread.core.chart.outline import area_and_shore

    outlines = [_polygon(part, f"{path}[{i}]") for i, part in enumerate(parts)]
    if len(outlines) > 1:
        notes.append(f"{len(outlines)} separate waters: the largest was taken.")
    return max(outlines, key=lambda o: area_and_shore(o)[0])


def _sounding_m(properties: dict[str, Any], path: str) -> float | None:
    for name in DEPTH_NAMES:
        if name in properties:
            value = properties[name]
            if isinstance(value, bool) or not isinstance(value, int | float) or not math.isfinite(value):
                raise _problem(f"{path}.properties.{name}", f"'{value}' is no depth.", "metres, a number")
            if properties.get("unit") in ("ft", "feet"):
                value = value * 0.3048
            if not 0 < abs(value) <= DEEPEST_LAKE_M:
                accepted = f"more than 0, up to {DEEPEST_LAKE_M:g} m"
                raise _problem(f"{path}.properties.{name}", f"{value:g} m is no depth of a lake.", accepted)
            return abs(float(value))
    return None


def _text(properties: dict[str, Any], name: str) -> str | None:
    value = properties.get(name)
    return value.strip()[:80] if isinstance(value, str) and value.strip() else None


def read_water_map(data: bytes | str) -> WaterMap:
    """Return the outline, places and soundings in a GeoJSON file.

    A Polygon (the largest of a MultiPolygon) is the shore with its islands; Points with a depth are soundings below the
    datum, Points with a name are places; other geometry is left out and said so. Raises InputError with the path of the
    fault: broken JSON, NaN, positions off the earth, rings not closed, a shore that crosses itself, features without
    properties, or nothing usable at all.
    """
    outline: Outline | None = None
    places, soundings, notes = [], [], []  # type: list[MappedPlace], list[MappedSounding], list[str]
    left_out = 0
    for i, feature in enumerate(_features(load_json(data, "a GeoJSON file"))):
        path = f"features[{i}]"
        if not isinstance(feature, dict) or feature.get("type") != "Feature":
            raise _problem(path, "This is no Feature.", "type, geometry and properties")
        geometry, properties = feature.get("geometry"), feature.get("properties", "missing")
        if properties == "missing" or not (properties is None or isinstance(properties, dict)):
            raise _problem(f"{path}.properties", "The feature has no properties.", "an object, or null")
        told = properties or {}
        kind = geometry.get("type") if isinstance(geometry, dict) else None
        here = f"{path}.geometry.coordinates"
        if kind in ("Polygon", "MultiPolygon") and isinstance(geometry, dict):
            if outline is not None:
                raise _problem(path, "There is more than one shore in the file.", "one Polygon for the water")
            coordinates = geometry.get("coordinates")
            outline = _polygon(coordinates, here) if kind == "Polygon" else _largest(coordinates, here, notes)
        elif kind == "Point" and isinstance(geometry, dict):
            position = _position(geometry.get("coordinates"), here)
            depth = _sounding_m(told, path)
            name = _text(told, "name")
            if depth is not None:
                soundings.append(MappedSounding(position, depth, _text(told, "method")))
            elif name is not None:
                places.append(MappedPlace(name, position, _text(told, "kind")))
            else:
                left_out += 1
        else:
            left_out += 1
    if left_out:
        notes.append(
            f"{left_out} {'feature' if left_out == 1 else 'features'} left out: neither shore, place nor sounding."
        )
    if outline is None and not places and not soundings:
        raise _problem(
            "features", "There is no shore, place or sounding in it.", "a Polygon, or Points with a name or depth_m"
        )
    return WaterMap(outline, tuple(places), tuple(soundings), tuple(notes))


def _feature(geometry: dict[str, Any], properties: dict[str, Any]) -> dict[str, Any]:
    return {"type": "Feature", "geometry": geometry, "properties": properties}


def _wound(ring: Ring, shore: bool) -> list[list[float]]:
    """A ring as its corners, a shore counter-clockwise and an island clockwise (RFC 7946, 3.1.6)."""
    first = ring[0][0]  # longitudes are counted from here, across the 180th meridian too
    xs = [(lon - first + 180) % 360 - 180 for lon, _ in ring]
    area = sum(xs[i - 1] * ring[i][1] - xs[i] * ring[i - 1][1] for i in range(1, len(ring)))
    return [list(p) for p in (ring if (area > 0) == shore else ring[::-1])]


def write_water_map(water_map: WaterMap, name: str) -> str:
    """Return a water's outline, places and soundings as a GeoJSON FeatureCollection that `read_water_map` reads back."""
    features = []
    if water_map.outline is not None:
        rings = [_wound(ring, shore=i == 0) for i, ring in enumerate(water_map.outline)]
        features.append(_feature({"type": "Polygon", "coordinates": rings}, {"name": name}))
    for place in water_map.places:
        told = {"name": place.name, "kind": place.kind}
        features.append(_feature({"type": "Point", "coordinates": list(place.position)}, told))
    for sounding in water_map.soundings:
        depth = {"depth_m": sounding.sounding_m, "method": sounding.method}
        features.append(_feature({"type": "Point", "coordinates": list(sounding.position)}, depth))
    document = {"type": "FeatureCollection", "features": features}
    return json.dumps(document, ensure_ascii=False, allow_nan=False, indent=1)
