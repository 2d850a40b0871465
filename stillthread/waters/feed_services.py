"""Use cases of the boat feed and the weather service."""

from __future__ import annotations

import http.client
import urllib.error
import urllib.request
import uuid
from collections.abc import Iterable
from dataclasses import replace
from typing import Any
from urllib.parse import urlencode, urljoin, urlsplit

from django.conf import settings
from django.utils import timezone

from stillthread.core.errors import InputError, Problem
from stillthread.core.reading.hours import Hour
from stillthread.formats.covjson import read_weather_coverage
from stillthread.formats.json_text import LARGEST_BYTES
from stillthread.formats.metar_text import read_metar
from stillthread.waters import chart_schemas as c
from stillthread.waters.chart_services import append_points, start_line
from stillthread.waters.feed import FEEDS, Feed, LinePoint
from stillthread.waters.models import Forecast, Water
from stillthread.web.errors import Refused
from stillthread.web.owned import get_owned, live, put_owned

SERVICE_WAIT_S = 5.0
FORECAST_HOURS = 72
# Points waiting in memory before a poll writes them down.
FLUSH_POINTS = 15


def connect(owner: Any, body: c.FeedBody) -> c.FeedOut:
    """Start listening to a boat feed. Raises InputError for a host that is not allowed."""
    if body.host not in settings.FEED_HOSTS:
        allowed = ", ".join(settings.FEED_HOSTS)
        hint = "Set STILL_FEED_HOSTS to the instrument's address and start again."
        raise InputError(
            Problem(
                code="host",
                path="host",
                message=f"'{body.host}' is not an allowed address.",
                accepted=allowed,
                hint=hint,
            )
        )
    disconnect(owner)
    FEEDS.start(owner.pk, body.host, body.port, body.transducer_m)
    return feed_out(owner)


def _rows(points: list[LinePoint]) -> list[list[Any]]:
    return [
        [p.when.timestamp(), round(p.position[0], 7), round(p.position[1], 7), round(p.depth_m, 3), p.temperature_c]
        for p in points
    ]


def flush(owner: Any, feed: Feed, everything: bool = False) -> None:
    """Write what a feed has recorded; small remainders wait unless `everything` is wanted."""
    if feed.line is None or (not everything and feed.waiting < FLUSH_POINTS):
        return
    feed.written = append_points(owner, feed.line, _rows(feed.drain()), timezone.now() if everything else None)


def disconnect(owner: Any) -> None:
    """Stop the owner's feed, writing what it recorded."""
    feed = FEEDS.of(owner.pk)
    if feed is not None:
        stop_line(owner)
    FEEDS.stop(owner.pk)


def record_line(owner: Any, body: c.FeedLineBody) -> c.FeedOut:
    """Record soundings of a water from the feed under the client's UUID; sent twice it is the same line."""
    get_owned(Water, owner, body.water_id)
    feed = FEEDS.of(owner.pk)
    if feed is None:
        raise Refused(409, "no_feed", "No boat feed is connected.", "a connected feed", "Connect first.")
    if feed.line != body.line_id:
        stop_line(owner)
        start_line(owner, body, timezone.now())
        feed.start_line(body.line_id)
    return feed_out(owner)


def stop_line(owner: Any) -> c.FeedOut:
    """Stop recording and write the rest; without a recording nothing changes."""
    feed = FEEDS.of(owner.pk)
    if feed is not None and feed.line is not None:
        feed.pause()
        flush(owner, feed, everything=True)
        feed.end_line()
    return feed_out(owner)


def _off() -> c.FeedOut:
    nothing = dict.fromkeys(
        ("depth_m", "depth_age_s", "temperature_c", "temperature_age_s", "wind_m_s", "wind_from_deg", "wind_age_s",
         "heading_deg", "position", "position_age_s", "speed_m_s", "recording")
    )  # fmt: skip
    return c.FeedOut(
        state="off",
        host="",
        port=0,
        steady=False,
        wind_true=False,
        good=0,
        bad=0,
        last_bad="",
        connections=0,
        recorded=0,
        **nothing,
    )


def feed_out(owner: Any) -> c.FeedOut:
    """Return the owner's feed with its live values, writing recorded soundings on the way."""
    feed = FEEDS.of(owner.pk)
    if feed is None:
        return _off()
    flush(owner, feed)
    live_now = feed.snapshot()

    def age(value: object, at: float) -> float | None:
        return None if value is None else round(feed.age_s(at), 1)

    wind = live_now.wind or (None, None)
    fix = live_now.fix
    return c.FeedOut(
        state=live_now.state,
        host=feed.host,
        port=feed.port,
        depth_m=live_now.depth_m,
        depth_age_s=age(live_now.depth_m, live_now.depth_at),
        temperature_c=live_now.temperature_c,
        temperature_age_s=age(live_now.temperature_c, live_now.temperature_at),
        steady=live_now.steady,
        wind_m_s=None if wind[0] is None else round(wind[0], 2),
        wind_from_deg=None if wind[1] is None else round(wind[1], 0) % 360,
        wind_true=live_now.wind_true,
        wind_age_s=age(live_now.wind, live_now.wind_at),
        heading_deg=live_now.heading_deg,
        position=fix.position if fix else None,
        position_age_s=age(fix, live_now.fix_at),
        speed_m_s=fix.speed_m_s if fix else None,
        good=live_now.good,
        bad=live_now.bad,
        last_bad=live_now.last_bad,
        connections=live_now.connections,
        recording=feed.line,
        recorded=feed.written + feed.waiting,
    )


# --- the weather ---------------------------------------------------------------------------------


def stored_hours(hours: Iterable[Hour]) -> list[dict[str, Any]]:
    """Return hours as they are stored, cloud within 0 to 8 oktas whatever a forecast rounds to."""
    held = (
        hour if hour.cloud_oktas is None else replace(hour, cloud_oktas=min(max(hour.cloud_oktas, 0.0), 8.0))
        for hour in hours
    )
    found: list[dict[str, Any]] = c.Hours(hours=tuple(held)).model_dump(mode="json")["hours"]
    return found


def store_weather(owner: Any, water: Water, data: bytes, source: str) -> c.ForecastOut:
    """Store the weather in a CoverageJSON PointSeries for a water. Raises InputError at the fault."""
    _, hours = read_weather_coverage(data)
    row = put_owned(
        Forecast,
        owner,
        uuid.uuid4(),
        water=water,
        fetched_at=timezone.now(),
        source=source[:120],
        hours=stored_hours(hours),
    )
    for old in live(Forecast, owner).filter(water=water)[5:]:
        old.delete()
    return forecast_out(row)


def forecast_out(row: Forecast | None) -> c.ForecastOut:
    """Return a stored forecast as the API gives it."""
    if row is None:
        return c.ForecastOut(fetched_at=None, source="", hours=())
    return c.ForecastOut.model_validate({"fetched_at": row.fetched_at, "source": row.source, "hours": row.hours})


def latest_weather(owner: Any, water_id: uuid.UUID) -> c.ForecastOut:
    """Return the newest weather of a water, or one without hours."""
    water = get_owned(Water, owner, water_id)
    return forecast_out(live(Forecast, owner).filter(water=water).first())


def _ask_service(url: str) -> bytes:
    """Return the service's answer, bounded in time and size. Raises Refused (502) where there is none to be had."""
    try:
        with urllib.request.urlopen(url, timeout=SERVICE_WAIT_S) as answer:  # noqa: S310 - the address is the server's own setting
            data: bytes = answer.read(LARGEST_BYTES + 1)
            return data
    except urllib.error.HTTPError as error:
        message = f"The weather service answered {error.code}."
    except http.client.IncompleteRead:
        message = "The weather service's answer broke off half-way."
    except OSError:
        message = "The weather service cannot be reached."
    raise Refused(502, "weather_service", message, "", "Try again later, or type the wind yourself.")


def _where(water: Water) -> dict[str, float]:
    """A water's position as the service is asked with. Raises InputError for one without."""
    if water.longitude_deg is None or water.latitude_deg is None:
        hint = "Note the water's latitude and longitude first."
        raise InputError(
            Problem(
                code="no_position",
                path="latitude_deg",
                message="Where this water lies is not noted.",
                accepted="a position",
                hint=hint,
            )
        )
    return {"lon": water.longitude_deg, "lat": water.latitude_deg}


def _nonsense(error: InputError) -> Refused:
    message = f"The weather service's answer cannot be read: {error.problems[0].message}"
    return Refused(502, "weather_service", message, "", "Try again later, or type the wind yourself.")


def fetch_metar(owner: Any, water_id: uuid.UUID) -> c.MetarOut:
    """Ask the service in the settings for the airfield's report nearest a water; nothing is stored.

    Raises as `fetch_weather` does.
    """
    where = _where(get_owned(Water, owner, water_id))
    data = _ask_service(f"{urljoin(settings.WEATHER_URL, 'metar')}?{urlencode(where)}")
    try:
        found = read_metar(data.decode("ascii", "replace"), timezone.now())
    except InputError as error:
        raise _nonsense(error) from error
    return c.MetarOut(station=found.station, hour=found.hour)


def fetch_weather(owner: Any, water_id: uuid.UUID) -> c.ForecastOut:
    """Fetch the weather by hour for a water from the service in the settings, and store it.

    Raises InputError for a water without a position, Refused (502) where the service fails or answers nonsense.
    """
    water = get_owned(Water, owner, water_id)
    where = _where(water)
    start = timezone.now().replace(hour=0, minute=0, second=0, microsecond=0)
    query = {**where, "from": start.isoformat(), "hours": FORECAST_HOURS}
    data = _ask_service(f"{settings.WEATHER_URL}?{urlencode(query)}")
    try:
        return store_weather(owner, water, data, urlsplit(settings.WEATHER_URL).netloc)
    except InputError as error:
        raise _nonsense(error) from error
