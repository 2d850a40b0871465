"""What the waters' API takes and gives: waters, places, readings, profiles from files."""

from __future__ import annotations

import uuid
from dataclasses import dataclass
from datetime import datetime
from functools import cache
from typing import Annotated, Literal
from zoneinfo import available_timezones

from annotated_types import MaxLen
from pydantic import Field, field_validator, model_validator

from stillthread.core.day.given import Rules
from stillthread.core.limits import Day, Instant, Latitude, Longitude, Name
from stillthread.core.noted import water as noted
from stillthread.core.noted.reading import Reading
from stillthread.core.water.profile import Point
from stillthread.documents.noted import Noted
from stillthread.documents.strict import Strict
from stillthread.web.dates import Kept


@dataclass(frozen=True, kw_only=True)
class PlaceBody(noted.Place):
    """A place with its UUID."""

    id: uuid.UUID


_zones = cache(available_timezones)  # walks the whole folder of zones each time it is asked


class WaterFields(Strict):
    """A water without its places."""

    name: Name
    hemisphere: noted.Hemisphere = "north"
    latitude_deg: Latitude | None = None
    longitude_deg: Longitude | None = None
    time_zone: str = "UTC"
    max_depth_m: noted.GreatestDepth
    species: noted.SpeciesThere = ("rainbow",)
    stocked_on: Day | None = None
    elevation_m: noted.Elevation | None = None
    fetch_m: noted.Fetch | None = None
    productivity: noted.Productivity | None = None
    hypsography: noted.DepthAreas = ()
    rules: Rules = Rules()
    rules_read_on: Day | None = None
    rules_source: str = Field("", max_length=200)

    @field_validator("time_zone")
    @classmethod
    def _known_zone(cls, value: str) -> str:
        if value not in _zones():
            raise ValueError("not an IANA time zone, such as Europe/Dublin")
        return value

    @model_validator(mode="after")
    def _both_or_none(self) -> WaterFields:
        if (self.latitude_deg is None) != (self.longitude_deg is None):
            raise ValueError("a position needs both latitude and longitude")
        return self


class WaterBody(WaterFields):
    """A water as the client writes it."""

    places: list[PlaceBody] = Field(min_length=1, max_length=noted.MOST_PLACES)

    @model_validator(mode="after")
    def _places_fit(self) -> WaterBody:
        problems = noted.place_problems(self.places, self.max_depth_m)
        if problems:
            raise ValueError(problems[0].message.rstrip("."))
        return self


class WaterOut(WaterBody):
    """A water with its UUID and revision."""

    id: uuid.UUID
    revision: int


class ReadingBody(Noted):
    """A reading and what was seen with it, to be kept."""

    taken_at: Kept
    reading: Reading


class ReadingOut(ReadingBody):
    """A stored reading."""

    id: uuid.UUID
    revision: int


class ProfileFileOut(Strict):
    """A profile read from a file, in SI, with what had to be assumed, and when it was taken where the file says so."""

    format: Literal["csv", "coveragejson"]
    points: tuple[Point, ...]
    depth_unit: Literal["m", "ft"]
    temperature_unit: Literal["c", "f"]
    taken_at: datetime | None
    notes: list[str]


class NextDepthBody(Strict):
    """The readings so far; asks for the next depth on a cord with a knot every `step_m`."""

    points: Annotated[tuple[Point, ...], MaxLen(200)] = ()
    bed_m: float = Field(gt=0, le=300)
    step_m: float = Field(1.0, ge=0.2, le=5)


class NextDepthOut(Strict):
    """The next depth to read, or null when it is enough, and why; and the depths of the first pass, for use offline."""

    depth_m: float | None
    why: str
    first_pass_m: list[float]


class ReadBody(Noted):
    """What was read and seen, to be understood; the water, its forecast and its history are the server's."""

    when: Instant


class SeasonProfileOut(Strict):
    """One stored profile in the year."""

    id: uuid.UUID
    taken_at: datetime
    place: str | None
    points: tuple[Point, ...]
    state: str
    thermocline_m: float | None


class YearOut(Strict):
    """The surface through the year, week by week, and how sure it is (one standard deviation)."""

    surface_c: list[float]
    spread_c: list[float]
    readings: int
    sentence: str


class SeasonOut(Strict):
    """A water's profiles through a year, oldest first, and its year's curve."""

    year: int
    years: list[int] = Field(description="years with readings")
    profiles: list[SeasonProfileOut]
    curve: YearOut


class CalendarRowOut(Strict):
    """One prey through the year by week: how much is about, 0 to 1, and the weeks it was recorded here."""

    key: str
    name: str
    weight: list[float]
    recorded: list[int]
    shift_days: int


class CalendarOut(Strict):
    """The hatch calendar of a water."""

    year: int
    this_week: int
    surface_c: list[float]
    spread_c: list[float]
    rows: list[CalendarRowOut]
    sentence: str


class StageOut(Strict):
    """One stage of a prey."""

    name: str
    where: list[str]
    movement: str
    families: list[str]


class PreyEntryOut(Strict):
    """One entry of the prey catalogue."""

    key: str
    name: str
    about: str
    habitat: str
    stages: list[StageOut]
    months: list[float]
    warmth_c: list[float] = Field(min_length=2, max_length=2)
    hours: list[int] = Field(min_length=2, max_length=2)
    weather: str
    places: list[str]
    size_mm: list[float] = Field(min_length=2, max_length=2)
    hooks: list[int] = Field(min_length=2, max_length=2, description="smallest, largest")
    colours: list[str]
    max_bed_m: float | None
    source: str


class CatalogueOut(Strict):
    """The prey catalogue, the families of flies in words, and the colours a sample may name."""

    prey: list[PreyEntryOut]
    families: dict[str, str]
    colours: list[str]


class AheadOut(Strict):
    """A stop or a caution the day brings, and the instant from which it holds."""

    since: datetime
    code: str
    level: Literal["caution", "stop"]
    sentence: str
