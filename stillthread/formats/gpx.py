"""GPX 1.1 in and out: way-points as places, a track as the boat's drift; read by the `gpxpy` library and checked."""

from __future__ import annotations

import math
from collections.abc import Sequence
from datetime import UTC

import gpxpy
import gpxpy.gpx

from stillthread.core.chart.outline import distance_and_bearing
from stillthread.core.chart.track import Fix
from stillthread.core.errors import InputError, Problem
from stillthread.core.limits import LonLat
from stillthread.formats.geojson import MappedPlace, WaterMap

MOST_POINTS = 50_000
LONGEST_NAME = 80
ACCEPTED = "a GPX 1.1 file with way-points or a track"


def _refuse(message: str) -> InputError:
    return InputError(Problem("gpx", "file", message, ACCEPTED))


def looks_like_gpx(data: bytes) -> bool:
    """Return whether a file begins as XML does."""
    return data.lstrip(b"\xef\xbb\xbf \t\r\n").startswith(b"<")


def _position(point: gpxpy.gpx.GPXTrackPoint | gpxpy.gpx.GPXWaypoint) -> LonLat:
    lon, lat = float(point.longitude), float(point.latitude)
    if not (math.isfinite(lon) and math.isfinite(lat) and abs(lon) <= 180 and abs(lat) <= 90):
        raise _refuse(f"{lon:g}, {lat:g} is no place on earth.")
    return lon, lat


def drift_words(points: list[gpxpy.gpx.GPXTrackPoint]) -> str:
    """Return what a track says of a drift: how long it is, and how fast it went where it tells its times."""
    places = [_position(point) for point in points]
    length = sum(distance_and_bearing(a, b)[0] for a, b in zip(places, places[1:], strict=False))
    times = [point.time for point in points if point.time is not None]
    seconds = (times[-1] - times[0]).total_seconds() if len(times) > 1 else 0.0
    if seconds <= 0:
        return f"A track of {length:.0f} m, without times."
    return f"A track of {length:.0f} m in {seconds / 60:.0f} min: a drift of {length / seconds:.2f} m/s."


def _parsed(data: bytes) -> tuple[gpxpy.gpx.GPX, list[list[gpxpy.gpx.GPXTrackPoint]]]:
    """A file with the parts of its tracks. Raises InputError for what cannot be read or has too many points."""
    if b"<!DOCTYPE" in data or b"<!ENTITY" in data:
        raise _refuse("This file defines entities of its own.")
    try:
        told = gpxpy.parse(data.decode("utf-8-sig"), version="1.1")
    except (gpxpy.gpx.GPXException, UnicodeDecodeError, ValueError, TypeError) as error:
        raise _refuse(f"This file cannot be read: {str(error)[:120]}.") from None
    tracks = [segment.points for track in told.tracks for segment in track.segments if len(segment.points) > 1]
    if len(told.waypoints) + sum(map(len, tracks)) > MOST_POINTS:
        raise _refuse(f"This file has more than {MOST_POINTS} points.")
    return told, tracks


def read_track(data: bytes) -> list[Fix]:
    """Return every point of a GPX file's tracks that tells its time. Raises InputError where there are not two of them."""
    _, tracks = _parsed(data)
    fixes = [
        Fix(when=point.time.replace(tzinfo=point.time.tzinfo or UTC), position=_position(point))
        for points in tracks
        for point in points
        if point.time is not None
    ]
    if len(fixes) < 2:
        raise InputError(
            Problem("gpx", "file", "There is no track with times in this file.", "a GPX 1.1 file with a recorded track")
        )
    return fixes


def write_track(name: str, fixes: Sequence[Fix]) -> str:
    """Return a boat's track as a GPX 1.1 file."""
    file = gpxpy.gpx.GPX()
    file.name, file.creator = name, "Still Thread"
    track, segment = gpxpy.gpx.GPXTrack(name=name), gpxpy.gpx.GPXTrackSegment()
    for fix in fixes:
        lon, lat = fix.position
        segment.points.append(gpxpy.gpx.GPXTrackPoint(latitude=lat, longitude=lon, time=fix.when))
    track.segments.append(segment)
    file.tracks.append(track)
    return str(file.to_xml(version="1.1"))


def read_gpx(data: bytes) -> WaterMap:
    """Return the way-points of a GPX file as places, and each track's drift in words. Raises InputError for what is none."""
    told, tracks = _parsed(data)
    places = [
        MappedPlace(name=" ".join(point.name.split())[:LONGEST_NAME], position=_position(point), kind=None)
        for point in told.waypoints
        if point.name and point.name.strip()
    ]
    notes = [drift_words(points) for points in tracks]
    nameless = len(told.waypoints) - len(places)
    if nameless:
        notes.append(f"{nameless} way-points without a name are left out.")
    if not places and not tracks:
        raise _refuse("There is no way-point with a name and no track in this file.")
    return WaterMap(outline=None, places=tuple(places), soundings=(), notes=tuple(notes))


def write_gpx(name: str, places: list[tuple[str, LonLat, str]]) -> str:
    """Return places (name, position, what they are) as the way-points of a GPX 1.1 file."""
    file = gpxpy.gpx.GPX()
    file.name, file.creator = name, "Still Thread"
    for title, (lon, lat), kind in places:
        file.waypoints.append(gpxpy.gpx.GPXWaypoint(latitude=lat, longitude=lon, name=title, description=kind))
    return str(file.to_xml(version="1.1"))
