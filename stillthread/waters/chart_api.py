"""Chart, soundings, weather and the boat feed over HTTP."""

from __future__ import annotations

import uuid
from typing import Annotated

from django.http import HttpRequest, HttpResponse
from django.utils import timezone
from ninja import File, Router
from ninja.files import UploadedFile
from pydantic import Field

from stillthread.core.errors import InputError, Problem
from stillthread.formats.json_text import LARGEST_BYTES
from stillthread.formats.metar_text import read_metar
from stillthread.waters import chart_schemas as c
from stillthread.waters import chart_services as charts
from stillthread.waters import feed_services as feeds
from stillthread.waters.models import Sounding, SoundingLine, Water
from stillthread.web.errors import FAILURES, LEANING
from stillthread.web.owned import delete_owned, get_owned

router = Router(tags=["chart"])
WindFrom = Annotated[float, Field(ge=0, lt=360)]


def _bytes(file: UploadedFile) -> bytes:
    """The file's bytes. Raises InputError where it is too large."""
    size = file.size or 0
    if size > LARGEST_BYTES:
        message = f"This file has {size / 1e6:.0f} MB."
        raise InputError(Problem("too_large", "file", message, f"up to {LARGEST_BYTES // 10**6} MB"))
    return bytes(file.read())


@router.get("/waters/{water_id}/chart", response={200: c.ChartOut, **FAILURES})
def read_chart(request: HttpRequest, water_id: uuid.UUID, wind_from_deg: WindFrom | None = None) -> c.ChartOut:
    """Return the chart of a water, and what a wind does to its shores."""
    return charts.chart(request.user, water_id, wind_from_deg)


@router.put("/waters/{water_id}/chart/outline", response={200: c.ChartOut, **FAILURES})
def put_outline(request: HttpRequest, water_id: uuid.UUID, payload: c.OutlineBody) -> c.ChartOut:
    """Store the outline of a water; an empty one takes it away."""
    return charts.put_outline(request.user, water_id, payload)


@router.post("/waters/{water_id}/chart/file", response={200: c.MapFileOut, **FAILURES})
def read_map(request: HttpRequest, water_id: uuid.UUID, file: File[UploadedFile]) -> c.MapFileOut:
    """Read a GeoJSON or GPX file and return what it tells; nothing is stored."""
    return charts.read_map(request.user, water_id, _bytes(file))


@router.get("/waters/{water_id}/chart.geojson", response={200: None, **FAILURES})
def write_map(request: HttpRequest, water_id: uuid.UUID) -> HttpResponse:
    """Return outline, places and soundings as a GeoJSON file."""
    return HttpResponse(charts.write_map(request.user, water_id), content_type="application/geo+json")


@router.get("/waters/{water_id}/chart.gpx", response={200: None, **FAILURES})
def write_way_points(request: HttpRequest, water_id: uuid.UUID) -> HttpResponse:
    """Return the places as the way-points of a GPX 1.1 file."""
    return HttpResponse(charts.write_way_points(request.user, water_id), content_type="application/gpx+xml")


@router.put("/waters/{water_id}/soundings/{sounding_id}", response={200: c.SoundingOut, **FAILURES})
def put_sounding(
    request: HttpRequest, water_id: uuid.UUID, sounding_id: uuid.UUID, payload: c.SoundingBody
) -> c.SoundingOut:
    """Write a sounding made by hand under the client's UUID."""
    return charts.put_sounding(request.user, water_id, sounding_id, payload)


@router.post("/waters/{water_id}/soundings", response={200: c.StoredOut, **FAILURES})
def put_map_soundings(request: HttpRequest, water_id: uuid.UUID, payload: c.MapSoundingsBody) -> c.StoredOut:
    """Write soundings of a map file, at most 200 at a time, all or none."""
    return charts.put_map_soundings(request.user, water_id, payload)


@router.delete("/waters/{water_id}/soundings/{sounding_id}", response={204: None, **FAILURES})
def delete_sounding(request: HttpRequest, water_id: uuid.UUID, sounding_id: uuid.UUID) -> tuple[int, None]:
    """Delete a sounding; writing it again brings it back."""
    get_owned(Water, request.user, water_id)
    delete_owned(Sounding, request.user, sounding_id)
    return 204, None


@router.delete("/waters/{water_id}/lines/{line_id}", response={204: None, **FAILURES})
def delete_line(request: HttpRequest, water_id: uuid.UUID, line_id: uuid.UUID) -> tuple[int, None]:
    """Delete a recorded line."""
    get_owned(Water, request.user, water_id)
    delete_owned(SoundingLine, request.user, line_id)
    return 204, None


@router.get("/waters/{water_id}/weather", response={200: c.ForecastOut, **FAILURES})
def read_weather(request: HttpRequest, water_id: uuid.UUID) -> c.ForecastOut:
    """Return the newest weather by hour of a water."""
    return feeds.latest_weather(request.user, water_id)


@router.post("/waters/{water_id}/weather/fetch", response={200: c.ForecastOut, **FAILURES, **LEANING})
def fetch_weather(request: HttpRequest, water_id: uuid.UUID) -> c.ForecastOut:
    """Ask the weather service for the hours to come."""
    return feeds.fetch_weather(request.user, water_id)


@router.post("/waters/{water_id}/weather/file", response={200: c.ForecastOut, **FAILURES})
def weather_file(request: HttpRequest, water_id: uuid.UUID, file: File[UploadedFile]) -> c.ForecastOut:
    """Take the weather by hour from a CoverageJSON PointSeries."""
    water = get_owned(Water, request.user, water_id)
    return feeds.store_weather(request.user, water, _bytes(file), file.name or "file")


@router.post("/weather/metar", response={200: c.MetarOut, **FAILURES})
def read_metar_text(request: HttpRequest, payload: c.MetarBody) -> c.MetarOut:
    """Read a METAR and return its weather with its time; nothing is stored."""
    found = read_metar(payload.text, timezone.now())
    return c.MetarOut(station=found.station, hour=found.hour)


@router.post("/waters/{water_id}/weather/metar", response={200: c.MetarOut, **FAILURES, **LEANING})
def fetch_metar(request: HttpRequest, water_id: uuid.UUID) -> c.MetarOut:
    """Ask the weather service for the report of the airfield nearest a water; nothing is stored."""
    return feeds.fetch_metar(request.user, water_id)


@router.get("/feed", response={200: c.FeedOut, **FAILURES})
def read_feed(request: HttpRequest) -> c.FeedOut:
    """Return the boat feed with its live values."""
    return feeds.feed_out(request.user)


@router.post("/feed", response={200: c.FeedOut, **FAILURES})
def connect_feed(request: HttpRequest, payload: c.FeedBody) -> c.FeedOut:
    """Start listening to a boat's instruments."""
    return feeds.connect(request.user, payload)


@router.delete("/feed", response={204: None, **FAILURES})
def disconnect_feed(request: HttpRequest) -> tuple[int, None]:
    """Stop listening; what was recorded is kept."""
    feeds.disconnect(request.user)
    return 204, None


@router.post("/feed/line", response={200: c.FeedOut, **FAILURES, **LEANING})
def record_line(request: HttpRequest, payload: c.FeedLineBody) -> c.FeedOut:
    """Record soundings from the feed."""
    return feeds.record_line(request.user, payload)


@router.delete("/feed/line", response={200: c.FeedOut, **FAILURES})
def stop_line(request: HttpRequest) -> c.FeedOut:
    """Stop recording."""
    return feeds.stop_line(request.user)
