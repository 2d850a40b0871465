"""NMEA 0183 sentences from a boat's instruments: depth, water temperature, wind, heading, position; strict checksums."""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import dataclass
from datetime import UTC, datetime

import pynmea2

from stillthread.core.units import KMH_M_S, KNOT_M_S
from stillthread.core.water.profile import DEEPEST_LAKE_M

# The standard's longest sentence is 82 characters; a line that never ends is garbage, not a sentence.
LONGEST_LINE = 120
SPEEDS = {"M": 1.0, "K": KMH_M_S, "N": KNOT_M_S}


@dataclass(frozen=True)
class DepthSentence:
    """Depth of water [m] below the surface (DPT with a positive offset, which adds the transducer's depth) or below the
    transducer (`below_transducer`, DBT, or DPT without a usable offset).
    """

    depth_m: float
    below_transducer: bool


@dataclass(frozen=True)
class WaterTemperature:
    """Water temperature at the sensor [°C] (MTW)."""

    temperature_c: float


@dataclass(frozen=True)
class Wind:
    """Wind [m/s] from an angle [deg] clockwise from the bow, as felt aboard ('relative') or over the water ('theoretical')."""

    angle_deg: float
    speed_m_s: float
    relative: bool


@dataclass(frozen=True)
class Heading:
    """Where the bow points [deg true] (HDT)."""

    heading_deg: float


@dataclass(frozen=True)
class Fix:
    """Where the boat is (lon, lat), when (UTC), its speed [m/s] and course [deg true] over ground (RMC, valid ones only)."""

    position: tuple[float, float]
    when: datetime
    speed_m_s: float
    course_deg: float | None


Sentence = DepthSentence | WaterTemperature | Wind | Heading | Fix


class SentenceError(ValueError):
    """A line that is no sentence we can trust; its text says why."""


def checksum(body: str) -> str:
    """Return the checksum of a sentence's characters between $ and *: their exclusive or, as two hexadecimal digits.

    >>> checksum("SDDPT,4.2,0.3,100.0")
    '51'
    """
    value = 0
    for character in body:
        value ^= ord(character)
    return f"{value:02X}"


def sentence(body: str) -> str:
    """Return a whole sentence with $ and checksum for what stands between, such as ``SDDPT,4.2,0.3,100.0``."""
    return f"${body}*{checksum(body)}"


def _number(text: object, what: str) -> float:
    try:
        value = float(str(text))
    except ValueError as error:
        raise SentenceError(f"no {what} in it") from error
    if not math.isfinite(value):
        raise SentenceError(f"{what} is no number")
    return value


def _depth(told: pynmea2.NMEASentence) -> DepthSentence:
    depth = _number(told.data[0], "depth")
    offset_text = told.data[1] if len(told.data) > 1 else ""
    offset = _number(offset_text, "offset") if offset_text else 0.0
    # Positive: distance from transducer up to the surface. Negative: down to the keel, which says nothing of the surface.
    surface = offset > 0
    return DepthSentence(_possible_depth(depth + max(offset, 0.0)), not surface)


def _possible_depth(depth_m: float) -> float:
    if not 0 < depth_m <= DEEPEST_LAKE_M:
        raise SentenceError(f"{depth_m:g} m is no depth of a lake")
    return depth_m


def _depth_below_transducer(told: pynmea2.NMEASentence) -> DepthSentence:
    data = told.data
    if len(data) >= 4 and data[2] and data[3] == "M":
        return DepthSentence(_possible_depth(_number(data[2], "depth")), True)
    if len(data) >= 2 and data[0] and data[1] == "f":
        return DepthSentence(_possible_depth(_number(data[0], "depth") * 0.3048), True)
    raise SentenceError("no depth in it")


def _temperature(told: pynmea2.NMEASentence) -> WaterTemperature:
    value = _number(told.data[0], "temperature")
    if len(told.data) < 2 or told.data[1] != "C":
        raise SentenceError("temperature without its unit C")
    if not -2 <= value <= 45:
        raise SentenceError(f"{value:g} °C is no lake water")
    return WaterTemperature(value)


def _wind(told: pynmea2.NMEASentence) -> Wind:
    if len(told.data) < 5 or told.data[4] != "A":
        raise SentenceError("wind marked as not valid")
    if told.data[1] not in ("R", "T") or told.data[3] not in SPEEDS:
        raise SentenceError("wind with an unknown reference or unit")
    speed = _number(told.data[2], "wind speed") * SPEEDS[told.data[3]]
    angle = _number(told.data[0], "wind angle")
    if not (0 <= angle <= 360 and 0 <= speed <= 80):
        raise SentenceError("a wind beyond reason")
    return Wind(angle % 360, speed, told.data[1] == "R")


def _heading(told: pynmea2.NMEASentence) -> Heading:
    value = _number(told.data[0], "heading")
    if not 0 <= value <= 360 or len(told.data) < 2 or told.data[1] != "T":
        raise SentenceError("no true heading in it")
    return Heading(value % 360)


def _fix(told: pynmea2.NMEASentence) -> Fix:
    if told.status != "A":
        raise SentenceError("position marked as not valid")
    try:
        lat, lon, when = float(told.latitude), float(told.longitude), told.datetime
    except (ValueError, TypeError, AttributeError, IndexError) as error:
        raise SentenceError("position or time cannot be read") from error
    if not (abs(lat) <= 90 and abs(lon) <= 180) or not told.lat or not told.lon or when is None:
        raise SentenceError("position or time cannot be read")
    instant = when if when.tzinfo else when.replace(tzinfo=UTC)
    course = _number(told.data[7], "course") % 360 if len(told.data) > 7 and told.data[7] else None
    speed = _number(told.data[6], "speed") * KNOT_M_S if len(told.data) > 6 and told.data[6] else 0.0
    return Fix((lon, lat), instant.astimezone(UTC), speed, course)


READERS: dict[str, Callable[[pynmea2.NMEASentence], Sentence]] = {
    "DPT": _depth,
    "DBT": _depth_below_transducer,
    "MTW": _temperature,
    "MWV": _wind,
    "HDT": _heading,
    "RMC": _fix,
}


def read_sentence(line: str) -> Sentence | None:
    """Return what one line says, or None for a well-formed sentence of a kind we do not use.

    Raises SentenceError for anything else: no $, missing or wrong checksum, empty or impossible values, a fix or wind
    marked as not valid.
    """
    text = line.strip()
    if not text.startswith("$") or len(text) > LONGEST_LINE or not text.isascii():
        raise SentenceError("this is no sentence")
    body, star, tail = text[1:].partition("*")
    if not star or len(tail) != 2:
        raise SentenceError("no checksum")
    if checksum(body) != tail.upper():
        raise SentenceError(f"wrong checksum: {tail} for {checksum(body)}")
    try:
        told = pynmea2.parse(text, check=True)
    except pynmea2.SentenceTypeError:
        return None
    except pynmea2.ParseError as error:
        raise SentenceError("this is no sentence") from error
    reader = READERS.get(getattr(told, "sentence_type", ""))
    if reader is None:
        return None
    try:
        return reader(told)
    except IndexError as error:
        raise SentenceError("fields are missing") from error


class LineBuffer:
    """Bytes off a socket, put together to whole lines; an endless or cut line never spoils the next."""

    def __init__(self) -> None:
        """Start empty."""
        self._rest = b""

    def feed(self, data: bytes) -> list[str]:
        """Return the whole lines that `data` completes; characters that are no text become question marks."""
        parts = (self._rest + data).replace(b"\r", b"\n").split(b"\n")
        self._rest = parts.pop()
        if len(self._rest) > 4 * LONGEST_LINE:
            self._rest = b""
        return [part.decode("ascii", "replace") for part in parts if part.strip()]

    def cut(self) -> str:
        """Return what is left of a line when the feed ends, and forget it: half a sentence is no sentence."""
        rest, self._rest = self._rest.decode("ascii", "replace"), b""
        return rest


def true_wind(apparent: Wind, heading_deg: float, boat_m_s: float, course_deg: float | None) -> tuple[float, float]:
    """Return the wind over the ground [m/s] and where it comes from [deg true], from a wind felt aboard.

    The felt wind less the wind the boat makes by moving at `boat_m_s` [m/s] along `course_deg` [deg true]: vectors
    (the wind triangle). `heading_deg` [deg true] turns the bow's angle to a bearing. A 'theoretical' wind is only turned.
    """
    from_deg = (heading_deg + apparent.angle_deg) % 360
    if not apparent.relative or course_deg is None or boat_m_s < 0.05:
        return apparent.speed_m_s, from_deg
    # Vectors point where the air goes: felt = true - boat, so true = felt + boat.
    fx = -apparent.speed_m_s * math.sin(math.radians(from_deg)) + boat_m_s * math.sin(math.radians(course_deg))
    fy = -apparent.speed_m_s * math.cos(math.radians(from_deg)) + boat_m_s * math.cos(math.radians(course_deg))
    speed = math.hypot(fx, fy)
    return speed, (math.degrees(math.atan2(-fx, -fy)) % 360 if speed > 1e-9 else from_deg)
