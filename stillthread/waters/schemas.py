"""What the waters' API takes and gives."""

from __future__ import annotations

import uuid
from datetime import date
from typing import Literal
from zoneinfo import available_timezones

from pydantic import AwareDatetime, Field, field_validator, model_validator

from stillthread.formats.plan_contract import RulesIn
from stillthread.formats.strict import Name, Strict
from stillthread.formats.water_contract import PlaceIn, PointIn, ReadingIn, SightingIn, Species


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
    """A reading and the sightings made with it."""

    place: str | None = Field(None, max_length=80)
    taken_at: AwareDatetime
    reading: ReadingIn
    sightings: list[SightingIn] = Field(default=[], max_length=60)


class ReadingOut(ReadingBody):
    """A stored reading."""

    id: uuid.UUID


class CsvOut(Strict):
    """A profile read from a file, in SI, with what had to be assumed."""

    points: list[PointIn]
    depth_unit: Literal["m", "ft"]
    temperature_unit: Literal["c", "f"]
    notes: list[str]
