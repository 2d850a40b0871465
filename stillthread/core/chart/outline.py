"""The water's outline: checking it, its area, and how far the wind has run over it to reach a place."""

from __future__ import annotations

import math
from dataclasses import dataclass
from functools import lru_cache
from typing import TYPE_CHECKING, Annotated

from annotated_types import MaxLen, MinLen

from stillthread.core.errors import InputError, Problem
from stillthread.core.limits import LonLat

if TYPE_CHECKING:
    from pyproj import Geod
    from shapely.geometry import Polygon

MOST_POINTS = 20_000
Ring = Annotated[tuple[LonLat, ...], MinLen(4), MaxLen(MOST_POINTS)]
# Shoreline and islands as closed rings of WGS84 (longitude, latitude) pairs, the shore first.
Outline = tuple[Ring, ...]
LARGEST_KM = 200.0
# Fetch is the mean of rays over 12° either side of the wind, every 3° (Coastal Engineering Manual, from memory).
RAY_DEG = tuple(range(-12, 13, 3))


@dataclass(frozen=True)
class ShoreStretch:
    """A stretch of shore from one corner to the next: its ends, length [m], bearing it looks out over the water [deg true]."""

    start: LonLat
    end: LonLat
    length_m: float
    facing_deg: float


@lru_cache(maxsize=1)
def _geod() -> Geod:
    from pyproj import Geod  # takes a while to import; only outlines need it

    return Geod(ellps="WGS84")


def distance_and_bearing(start: LonLat, end: LonLat) -> tuple[float, float | None]:
    """Return the distance [m] and the first bearing [deg true] from one WGS84 (lon, lat) to another; None where they are one.

    On the ellipsoid, by the geodesic library (Karney 2013).
    """
    forward, _, metres = _geod().inv(start[0], start[1], end[0], end[1])
    return float(metres), None if metres == 0 else float(forward) % 360


def destination(start: LonLat, bearing_deg: float, distance_m: float) -> LonLat:
    """Return the WGS84 (lon, lat) reached from `start` along a bearing [deg true] after a distance [m] (Karney 2013)."""
    lon, lat, _ = _geod().fwd(start[0], start[1], bearing_deg, distance_m)
    return float(lon), float(lat)


def _unrolled(ring: Ring) -> Ring:
    """The ring without a jump at the 180th meridian."""
    first = ring[0][0]
    return tuple((lon + 360 * round((first - lon) / 360), lat) for lon, lat in ring)


def _ring_problems(ring: Ring, here: str) -> list[Problem]:
    problems = []
    for i, (lon, lat) in enumerate(ring):
        if not (math.isfinite(lon) and math.isfinite(lat) and abs(lat) <= 90 and abs(lon) <= 180):
            accepted = "longitude -180 to 180, then latitude -90 to 90"
            hint = (
                "Were latitude and longitude swapped?" if abs(lat) > 90 and abs(lat) <= 180 and abs(lon) <= 90 else ""
            )
            problems.append(
                Problem(
                    code="position",
                    path=f"{here}[{i}]",
                    message=f"{lon:g}, {lat:g} is no place on earth.",
                    accepted=accepted,
                    hint=hint,
                )
            )
    if not problems and (len(ring) < 4 or ring[0] != ring[-1]):
        problems.append(
            Problem(
                "not_closed", here, "The ring is not closed.", "at least four positions, the last the same as the first"
            )
        )
    return problems


def _local(outline: Outline) -> tuple[LonLat, Polygon]:
    """Centre and the outline as a polygon in metres east and north of it."""
    from shapely.geometry import Polygon  # takes a while to import; only outlines need it

    rings = [_unrolled(ring) for ring in outline]
    lon0 = sum(p[0] for p in rings[0]) / len(rings[0])
    lat0 = sum(p[1] for p in rings[0]) / len(rings[0])
    scaled = [[_to_local((lon0, lat0), p) for p in ring] for ring in rings]
    return (lon0, lat0), Polygon(scaled[0], scaled[1:])


def _metres_per_deg(lat: float) -> LonLat:
    """Metres per degree of longitude and latitude on the WGS84 ellipsoid at a latitude (its two radii of curvature)."""
    a, e2 = 6378137.0, 6.69437999014e-3
    sine = math.sin(math.radians(lat))
    w = math.sqrt(1 - e2 * sine * sine)
    return math.radians(a / w * math.cos(math.radians(lat))), math.radians(a * (1 - e2) / w**3)


def _to_local(centre: LonLat, p: LonLat) -> LonLat:
    per_lon, per_lat = _metres_per_deg(centre[1])
    lon = p[0] + 360 * round((centre[0] - p[0]) / 360)
    return (lon - centre[0]) * per_lon, (p[1] - centre[1]) * per_lat


def checked_outline(outline: Outline, path: str = "outline") -> Outline:
    """Return an outline that can be measured.

    Raises InputError at the ring: positions off the earth, rings not closed, too many points, a shore that crosses
    itself, an island outside the shore, or a lake too large to be one.
    """
    problems: list[Problem] = []
    if not outline:
        problems.append(Problem("empty", path, "There is no shoreline.", "a ring of positions"))
    elif sum(len(r) for r in outline) > MOST_POINTS:
        problems.append(Problem("too_many", path, "The outline has too many points.", f"up to {MOST_POINTS}"))
    else:
        for i, ring in enumerate(outline):
            problems += _ring_problems(ring, f"{path}[{i}]")
    if problems:
        raise InputError(problems[:20])
    from shapely.geometry import LinearRing
    from shapely.validation import explain_validity

    centre, polygon = _local(outline)
    west, south, east, north = polygon.bounds
    if max(east - west, north - south) > LARGEST_KM * 1000:
        raise InputError(Problem("too_large", path, "That is more than a lake.", f"up to {LARGEST_KM:g} km across"))
    for i, ring in enumerate(outline):
        if not LinearRing([_to_local(centre, p) for p in ring]).is_simple:
            raise InputError(
                Problem(code="self_crossing", path=f"{path}[{i}]", message="The shoreline crosses itself.", accepted="a ring that does not cross itself",
                        hint="Look for two positions in the wrong order.")
            )  # fmt: skip
    if polygon.area <= 0:
        raise InputError(
            Problem("self_crossing", f"{path}[0]", "The shoreline encloses no water.", "a ring round the water")
        )
    if not polygon.is_valid:
        raise InputError(
            Problem(
                "islands",
                path,
                f"The islands do not lie inside the shore: {explain_validity(polygon).split('[')[0].lower()}.",
                "islands inside the shore, not touching each other",
            )
        )
    return outline


def area_and_shore(outline: Outline) -> tuple[float, float]:
    """Return the water's area [m²] without its islands and the length of the outer shore [m], on the ellipsoid (Karney 2013)."""
    areas = []
    shore = 0.0
    for i, ring in enumerate(outline):
        lons, lats = zip(*_unrolled(ring), strict=True)
        area, length = _geod().polygon_area_perimeter(lons, lats)
        areas.append(abs(float(area)))
        shore = float(length) if i == 0 else shore
    return areas[0] - sum(areas[1:]), shore


def _ray_m(polygon: Polygon, x: float, y: float, bearing_deg: float) -> float:
    """Length [m] of open water from a point along a bearing, to the first shore."""
    from shapely.geometry import LineString, Point

    west, south, east, north = polygon.bounds
    far = math.hypot(east - west, north - south) * 1.01 + 1
    dx, dy = math.sin(math.radians(bearing_deg)), math.cos(math.radians(bearing_deg))
    run = LineString([(x, y), (x + far * dx, y + far * dy)]).intersection(polygon)
    best = 0.0
    for part in getattr(run, "geoms", [run]):
        if not part.is_empty and part.length > 0 and part.distance(Point(x, y)) < 1.0:
            best = max(best, part.length)
    return best


def fetch_m(outline: Outline, position: LonLat, from_deg: float) -> float:
    """Return how far [m] a wind from `from_deg` [deg true] has run over water before it reaches a (lon, lat).

    The mean of nine rays every 3° over 12° either side of the wind (Coastal Engineering Manual, from memory), each to
    the first shore or island. A place on the bank is moved onto the water just off it; 0 on the shore the wind blows off.
    """
    from shapely.geometry import Point
    from shapely.ops import nearest_points

    centre, polygon = _local(outline)
    point = Point(_to_local(centre, position))
    if not polygon.contains(point):
        point = nearest_points(polygon.buffer(-2), point)[0] if not polygon.buffer(-2).is_empty else point
    rays = [_ray_m(polygon, point.x, point.y, from_deg + off) for off in RAY_DEG]
    return sum(rays) / len(rays)


def longest_fetch_m(outline: Outline, from_deg: float) -> float:
    """Return the longest run [m] of open water along a wind from `from_deg` [deg true], over the corners of the shore."""
    return _longest_run_m(outline, from_deg)


@lru_cache(maxsize=512)
def _longest_run_m(outline: Outline, from_deg: float) -> float:
    _, polygon = _local(outline)
    inner = polygon.buffer(-2)
    corners = (
        [c for part in getattr(inner, "geoms", [inner]) for c in part.exterior.coords] if not inner.is_empty else []
    )
    step = max(1, len(corners) // 120)
    return max((_ray_m(polygon, x, y, from_deg) for x, y in corners[::step]), default=0.0)


def shore_stretches(outline: Outline) -> tuple[ShoreStretch, ...]:
    """Return the outer shore and the islands' shores, stretch by stretch, with the bearing each looks out over the water."""
    centre, _ = _local(outline)
    found = []
    for i, ring in enumerate(outline):
        flat = [_to_local(centre, p) for p in ring]
        turn = sum(a[0] * b[1] - b[0] * a[1] for a, b in zip(flat, flat[1:], strict=False))
        side = 1.0 if (turn > 0) == (i == 0) else -1.0  # the water lies to the left of a shore run anticlockwise
        for k in range(len(ring) - 1):
            (ax, ay), (bx, by) = flat[k], flat[k + 1]
            length = math.hypot(bx - ax, by - ay)
            if length > 0:
                facing = (math.degrees(math.atan2(bx - ax, by - ay)) - 90 * side) % 360
                found.append(ShoreStretch(ring[k], ring[k + 1], length, facing))
    return tuple(found)
