"""What the waters' API takes and gives: waters, places, readings, profiles from files."""

from __future__ import annotations

import uuid
from datetime import date, datetime
from typing import Literal
from zoneinfo import available_timezones

from pydantic import AwareDatetime, Field, field_validator, model_validator

from stillthread.documents.plan_contract import RulesIn
from stillthread.documents.strict import Name, Strict
from stillthread.documents.water_contract import (
    ContourIn,
    PlaceIn,
    PointIn,
    Productivity,
    ReadingIn,
    SampleIn,
    SightingIn,
    Species,
)


class PlaceBody(PlaceIn):
    """A place with its UUID."""

    id: uuid.UUID


class WaterBody(Strict):
    """A water as the client writes it."""

    name: Name
    hemisphere: Literal["north", "south"] = "north"
    latitude_deg: float | None = Field(None, ge=-90, le=90)
    longitude_deg: float | None = Field(None, ge=-180, le=180)
    time_zone: str = "UTC"
    max_depth_m: float = Field(ge=0.5, le=300)
    species: list[Species] = Field(default=["rainbow"], min_length=1, max_length=3)
    stocked_on: date | None = None
    elevation_m: float | None = Field(None, ge=-430, le=6000)
    fetch_m: float | None = Field(None, gt=0, le=200_000, description="run of the wind, where there is no outline")
    productivity: Productivity | None = None
    hypsography: list[ContourIn] = Field(default=[], max_length=400, description="areas by depth, surface first")
    rules: RulesIn = RulesIn()
    rules_read_on: date | None = None
    rules_source: str = Field("", max_length=200)
    places: list[PlaceBody] = Field(min_length=1, max_length=50)

    @field_validator("time_zone")
    @classmethod
    def _known_zone(cls, value: str) -> str:
        if value not in available_timezones():
            raise ValueError("not an IANA time zone, such as Europe/Dublin")
        return value

    @model_validator(mode="after")
    def _places_fit(self) -> WaterBody:
        names = [place.name for place in self.places]
        if len(set(names)) < len(names):
            raise ValueError("two places have the same name")
        if any(place.depth_max_m > self.max_depth_m for place in self.places):
            raise ValueError("a place is deeper than the water's greatest depth")
        if (self.latitude_deg is None) != (self.longitude_deg is None):
            raise ValueError("a position needs both latitude and longitude")
        return self


class WaterOut(WaterBody):
    """A water with its UUID."""

    id: uuid.UUID


class ReadingBody(Strict):
    """A reading and what was seen with it."""

    place: str | None = Field(None, max_length=80)
    taken_at: AwareDatetime
    reading: ReadingIn
    sightings: list[SightingIn] = Field(default=[], max_length=60)
    samples: list[SampleIn] = Field(default=[], max_length=40)


class ReadingOut(ReadingBody):
    """A stored reading."""

    id: uuid.UUID


class ProfileFileOut(Strict):
    """A profile read from a file, in SI, with what had to be assumed, and when it was taken where the file says so."""

    format: Literal["csv", "coveragejson"]
    points: list[PointIn]
    depth_unit: Literal["m", "ft"]
    temperature_unit: Literal["c", "f"]
    taken_at: datetime | None
    notes: list[str]


class NextDepthBody(Strict):
    """The readings so far; asks for the next depth on a cord with a knot every `step_m`."""

    points: list[PointIn] = Field(default=[], max_length=200)
    bed_m: float = Field(gt=0, le=300)
    step_m: float = Field(1.0, ge=0.2, le=5)


class NextDepthOut(Strict):
    """The next depth to read, or null when it is enough, and why; and the depths of the first pass, for use offline."""

    depth_m: float | None
    why: str
    first_pass_m: list[float]


class ReadBody(Strict):
    """What was read and seen, to be understood; the water, its forecast and its history are the server's."""

    when: AwareDatetime
    place: str | None = Field(None, max_length=80)
    reading: ReadingIn = ReadingIn()
    sightings: list[SightingIn] = Field(default=[], max_length=60)
    samples: list[SampleIn] = Field(default=[], max_length=40)


class SeasonProfileOut(Strict):
    """One stored profile in the year."""

    id: uuid.UUID
    taken_at: datetime
    place: str | None
    points: list[PointIn]
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
