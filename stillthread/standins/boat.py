"""A simulated boat: it drifts over the shelf and its drop-off, and its instruments say so once a second, not always truly."""

from __future__ import annotations

import math
import random
from collections.abc import Iterator
from dataclasses import dataclass
from datetime import UTC, datetime, timedelta

from stillthread.formats.nmea import sentence
from stillthread.standins.lake import bed_m, position, temperature_c

TRANSDUCER_M = 0.3
RATED_TO_M = 100.0
# From the shelf in the north-east out over the drop-off and back, metres east and north of the centre.
TRACK = ((350.0, 360.0), (150.0, 160.0), (330.0, 330.0), (200.0, 260.0))
HULL_SENSOR_M = 0.4


@dataclass(frozen=True)
class Faults:
    """How often the instruments fail, as shares of the sentences, and the noise of the sounder [m]."""

    dropout: float = 0.03
    outlier: float = 0.02
    noise_m: float = 0.06
    garbage: float = 0.01
    bad_checksum: float = 0.01


NO_FAULTS = Faults(dropout=0.0, outlier=0.0, noise_m=0.0, garbage=0.0, bad_checksum=0.0)


@dataclass
class Boat:
    """The boat's truth and its instruments. `speed_m_s` [m/s] along the track; `probe_m` [m] is where the thermometer hangs."""

    start: datetime
    seed: int = 1
    speed_m_s: float = 0.9
    faults: Faults = Faults()
    wind_m_s: float = 4.5
    wind_from_deg: float = 235.0
    probe_m: float | None = None

    def __post_init__(self) -> None:
        """Start the chances from the seed."""
        self._rng = random.Random(self.seed)  # noqa: S311 - a simulation, nothing secret
        self._second = 0

    def place(self, second: float) -> tuple[float, float, float]:
        """Return metres east and north of the centre and the course [deg true] after so many seconds."""
        legs = list(zip(TRACK, (*TRACK[1:], TRACK[0]), strict=True))
        lengths = [math.dist(a, b) for a, b in legs]
        along = (second * self.speed_m_s) % sum(lengths)
        for (a, b), length in zip(legs, lengths, strict=True):
            if along <= length:
                part = along / length
                course = math.degrees(math.atan2(b[0] - a[0], b[1] - a[1])) % 360
                return a[0] + part * (b[0] - a[0]), a[1] + part * (b[1] - a[1]), course
            along -= length
        raise AssertionError("the track is longer than its legs")

    def truth(self, second: float) -> float:
        """Return the true depth of water [m] under the boat after so many seconds."""
        east, north, _ = self.place(second)
        return bed_m(east, north)

    def sentences(self) -> list[str]:
        """Return the next second's sentences, faults and all, and move on by a second."""
        second, self._second = self._second, self._second + 1
        when = self.start + timedelta(seconds=second)
        east, north, course = self.place(second)
        heading = (course + 4 * math.sin(second / 7)) % 360
        bodies = [
            self._fix(when, position(east, north), course),
            f"HEHDT,{heading:.1f},T",
            *self._depth(bed_m(east, north)),
            self._temperature(when),
            self._wind(second, heading, course),
        ]
        return [self._spoilt(sentence(body)) for body in bodies]

    def _fix(self, when: datetime, where: tuple[float, float], course: float) -> str:
        lon, lat = where
        knots = self.speed_m_s * 3600 / 1852
        status = "V" if self._rng.random() < self.faults.dropout / 3 else "A"
        return (
            f"GPRMC,{when:%H%M%S}.00,{status},{_degrees(lat, 2)},{'N' if lat >= 0 else 'S'},"
            f"{_degrees(lon, 3)},{'E' if lon >= 0 else 'W'},{knots:.2f},{course:.1f},{when:%d%m%y},,,A"
        )

    def _depth(self, truth: float) -> list[str]:
        below = max(truth - TRANSDUCER_M + self._rng.gauss(0, self.faults.noise_m), 0.1)
        chance = self._rng.random()
        if chance < self.faults.dropout:  # air under the transducer: no echo
            return [f"SDDPT,,{TRANSDUCER_M:.1f},{RATED_TO_M:.1f}", "SDDBT,,f,,M,,F"]
        if chance < self.faults.dropout + self.faults.outlier:  # weed, or an echo that went twice
            below *= self._rng.choice([0.45, 2.0])
        return [
            f"SDDPT,{below:.2f},{TRANSDUCER_M:.1f},{RATED_TO_M:.1f}",
            f"SDDBT,{below / 0.3048:.1f},f,{below:.2f},M,{below / 1.8288:.2f},F",
        ]

    def _temperature(self, when: datetime) -> str:
        depth = HULL_SENSOR_M if self.probe_m is None else self.probe_m
        value = temperature_c(depth, when.timetuple().tm_yday) + self._rng.gauss(0, 0.03)
        return f"YXMTW,{value:.1f},C"

    def _wind(self, second: int, heading: float, course: float) -> str:
        speed = max(0.0, self.wind_m_s * (1 + 0.25 * math.sin(second / 23) + self._rng.gauss(0, 0.08)))
        from_deg = self.wind_from_deg + 8 * math.sin(second / 41) + self._rng.gauss(0, 3)
        # Felt wind = true wind less the boat's own movement.
        fx = -speed * math.sin(math.radians(from_deg)) - self.speed_m_s * math.sin(math.radians(course))
        fy = -speed * math.cos(math.radians(from_deg)) - self.speed_m_s * math.cos(math.radians(course))
        angle = (math.degrees(math.atan2(-fx, -fy)) - heading) % 360
        return f"WIMWV,{angle:05.1f},R,{math.hypot(fx, fy):.1f},M,A"

    def _spoilt(self, text: str) -> str:
        chance = self._rng.random()
        if chance < self.faults.garbage:
            return "".join(chr(self._rng.randint(33, 126)) for _ in range(self._rng.randint(3, 40)))
        if chance < self.faults.garbage + self.faults.bad_checksum:
            return f"{text[:-2]}{(int(text[-2:], 16) ^ 1):02X}"
        return text


def _degrees(value: float, digits: int) -> str:
    """Degrees as NMEA writes them: whole degrees and minutes, run together."""
    whole = int(abs(value))
    return f"{whole:0{digits}d}{(abs(value) - whole) * 60:07.4f}"


def stream(boat: Boat) -> Iterator[bytes]:
    """Yield each second's bytes for ever."""
    while True:
        yield "".join(f"{text}\r\n" for text in boat.sentences()).encode("ascii")


def now() -> datetime:
    """Return the present instant, to the second."""
    return datetime.now(UTC).replace(microsecond=0)
