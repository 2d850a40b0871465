"""A simulated weather service: the weather by hour as a CoverageJSON PointSeries over HTTP. All invented."""

from __future__ import annotations

import math
import random
import sys
from datetime import UTC, datetime, timedelta
from http.server import BaseHTTPRequestHandler, ThreadingHTTPServer
from urllib.parse import parse_qs, urlsplit

from stillthread.formats.covjson import Hour, write_weather_coverage
from stillthread.formats.metar_text import write_metar

MOST_HOURS = 168
AIRFIELD = "ZZZZ"  # what the code gives a place that has no letters of its own
CONTENT_TYPE = "application/prs.coverage+json"


def invented_hours(lon: float, lat: float, start: datetime, count: int, seed: int) -> tuple[Hour, ...]:
    """Return `count` invented hours at a (lon, lat) from an aware instant on; the same for the same place, day and seed.

    A breeze that grows by day, a front that turns it once in three days, cloud ahead of the front and rain with it.
    """
    hours = []
    first = start.astimezone(UTC).replace(minute=0, second=0, microsecond=0)
    for i in range(count):
        when = first + timedelta(hours=i)
        day = when.toordinal()
        chance = random.Random(f"{seed}/{lon:.2f}/{lat:.2f}/{day}/{when.hour}")  # noqa: S311 - a simulation
        regime = random.Random(f"{seed}/{lon:.1f}/{lat:.1f}/{day // 3}")  # noqa: S311 - a simulation
        base, front_hour = regime.uniform(190, 290), 24 * (day // 3 * 3) + regime.uniform(20, 55)
        passed = 1 / (1 + math.exp(-(24 * day + when.hour - front_hour) / 0.8))
        near = math.exp(-(((24 * day + when.hour - front_hour) / 4) ** 2))
        solar = (when.hour + lon / 15) % 24
        daily = max(0.0, math.sin(math.pi * (solar - 7) / 13))
        wind = max(0.3, regime.uniform(1.5, 4.5) + 2.2 * daily + 2.5 * near + chance.gauss(0, 0.4))
        cloud = min(8.0, max(0.0, regime.uniform(1, 5) + 5 * near - 1.5 * passed + chance.gauss(0, 0.8)))
        season = math.cos(2 * math.pi * (when.timetuple().tm_yday - (205 if lat >= 0 else 22)) / 365)
        air = 9.5 + 7 * season + 5 * daily - 3 * passed + chance.gauss(0, 0.4)
        hours.append(
            Hour(
                when=when,
                wind_m_s=round(wind, 1),
                gust_m_s=round(wind * (1.35 + 0.3 * near), 1),
                wind_from_deg=round((base + 85 * passed + chance.gauss(0, 6)) % 360, 0) % 360,
                cloud_oktas=round(cloud, 0),
                air_temperature_c=round(air, 1),
                sea_level_pressure_hpa=round(1014 + 8 * math.sin(day / 2.3) - 9 * near, 1),
                rain_mm=round(2.4 * near, 1) if near > 0.3 else 0.0,
            )
        )
    return tuple(hours)


class _Handler(BaseHTTPRequestHandler):
    server_version = "standin"
    server: WeatherServer

    def do_GET(self) -> None:
        """Answer /weather?lon=&lat=&from=&hours= with a PointSeries, /metar?lon=&lat= with the airfield's line of this hour;
        everything else with words.
        """
        url = urlsplit(self.path)
        if url.path not in ("/weather", "/metar"):
            self._send(
                404,
                "text/plain",
                "Simulated weather: /weather?lon=-2.38&lat=54.12&hours=48, /metar?lon=-2.38&lat=54.12\n",
            )
            return
        try:
            asked = {key: values[0] for key, values in parse_qs(url.query).items()}
            lon, lat = float(asked["lon"]), float(asked["lat"])
            count = int(asked.get("hours", "48"))
            text = asked.get("from")
            start = datetime.fromisoformat(text) if text else datetime.now(UTC)
            if not (abs(lon) <= 180 and abs(lat) <= 90 and 1 <= count <= MOST_HOURS and start.tzinfo):
                raise ValueError
        except (KeyError, ValueError):
            self._send(400, "text/plain", "lon, lat, hours (1 to 168) and from (RFC 3339 with offset) are wanted\n")
            return
        self.server.asked += 1
        hours = invented_hours(lon=lon, lat=lat, start=start, count=count, seed=self.server.seed)
        if url.path == "/metar":
            kind, body = "text/plain", write_metar(AIRFIELD, hours[0]) + "\n"
        else:
            kind, body = CONTENT_TYPE, write_weather_coverage(hours, (lon, lat))
        if self.server.fault == "busy":
            self._send(503, "text/plain", "busy\n")
        else:
            self._send(200, kind, body, cut=self.server.fault == "cut")

    def _send(self, status: int, kind: str, text: str, cut: bool = False) -> None:
        data = text.encode()
        self.send_response(status)
        self.send_header("Content-Type", kind)
        self.send_header("Content-Length", str(len(data)))
        self.end_headers()
        self.wfile.write(data[: len(data) // 2] if cut else data)
        if cut:
            self.close_connection = True

    def log_message(self, format: str, *args: object) -> None:  # noqa: A002 - the base class names it so
        """Keep quiet."""


class WeatherServer(ThreadingHTTPServer):
    """The weather of one seed; `fault` may be None, 'busy' (503) or 'cut' (the answer breaks off half-way)."""

    daemon_threads = True

    def __init__(self, address: tuple[str, int], seed: int = 1, fault: str | None = None):
        """Bind to an address; port 0 takes any free one."""
        super().__init__(address, _Handler)
        self.seed, self.fault, self.asked = seed, fault, 0


def serve(address: tuple[str, int], seed: int, fault: str | None = None) -> None:
    """Serve until the process is stopped; says on standard output where it listens."""
    with WeatherServer(address, seed, fault) as server:
        host, port = server.server_address[:2]
        sys.stdout.write(f"weather (simulated): http://{host!s}:{port}/weather\n")
        sys.stdout.flush()
        server.serve_forever()
