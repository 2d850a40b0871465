"""What the chart, the soundings, the weather and the boat feed take and give over HTTP."""

from __future__ import annotations

import uuid
from datetime import datetime
from typing import Annotated, Literal

from annotated_types import MaxLen
from pydantic import Field, model_validator

from stillthread.core.chart.outline import Outline
from stillthread.core.chart.sounding import SoundingMethod
from stillthread.core.limits import Latitude, Longitude, LonLat
from stillthread.core.reading.hours import Hour
from stillthread.documents.strict import Strict
from stillthread.web.dates import Kept


class OutlineBody(Strict):
    """The outline of a water; none takes it away."""

    rings: Annotated[Outline, MaxLen(200)] = ()


class SoundingBody(Strict):
    """A depth of the bed found by hand, below today's surface; the level turns it to the datum."""

    depth_m: float
    level_m: float = Field(0.0, ge=-100, le=50)
    method: SoundingMethod
    taken_at: Kept
    place: str | None = Field(None, max_length=80)
    longitude_deg: Longitude | None = None
    latitude_deg: Latitude | None = None

    @model_validator(mode="after")
    def _has_a_spot(self) -> SoundingBody:
        if (self.longitude_deg is None) != (self.latitude_deg is None):
            raise ValueError("a position needs both latitude and longitude")
        if self.longitude_deg is None and not self.place:
            raise ValueError("a sounding needs a place or a position")
        return self


class SoundingOut(Strict):
    """A stored sounding: below the datum, today's depth, and its doubt (one standard deviation)."""

    id: uuid.UUID
    sounding_m: float
    depth_today_m: float
    doubt_m: float
    method: SoundingMethod
    taken_at: datetime
    place: str | None
    longitude_deg: float | None
    latitude_deg: float | None


class MapSoundingIn(Strict):
    """A sounding below the datum from a map file."""

    id: uuid.UUID
    sounding_m: float = Field(gt=0, le=300)
    method: SoundingMethod = "chart"
    longitude_deg: Longitude
    latitude_deg: Latitude


class MapSoundingsBody(Strict):
    """Soundings from a map file, at most 200 at a time."""

    taken_at: Kept
    soundings: list[MapSoundingIn] = Field(min_length=1, max_length=200)


class StoredOut(Strict):
    """How many rows were stored."""

    stored: int


class MappedPlaceOut(Strict):
    """A named place in a map file."""

    name: str
    kind: str | None
    position: LonLat


class MappedSoundingOut(Strict):
    """A sounding in a map file."""

    sounding_m: float
    method: str | None
    position: LonLat


class MapFileOut(Strict):
    """What a GeoJSON file tells; nothing is stored yet."""

    rings: Outline
    area_m2: float | None
    shore_m: float | None
    places: list[MappedPlaceOut]
    soundings: list[MappedSoundingOut]
    notes: list[str]


class StretchOut(Strict):
    """A stretch of shore; `onto` is 1 where the wind blows straight onto it, -1 straight off, null without a wind."""

    start: LonLat
    end: LonLat
    length_m: float
    onto: float | None


class ChartPlaceOut(Strict):
    """A place on the chart, with the soundings of it pooled."""

    name: str
    kind: str
    position: LonLat | None
    depth_min_m: float
    depth_max_m: float
    onto: float | None
    pooled_m: float | None
    pooled_doubt_m: float | None
    agree: bool | None


class LedgeOut(Strict):
    """Where the bed breaks on a recorded line."""

    position: LonLat
    upper_m: float
    lower_m: float
    run_m: float


class LinePointOut(Strict):
    """One sounding of a recorded line, today's depth; wild ones are echoes not believed."""

    position: LonLat
    along_m: float
    depth_m: float
    temperature_c: float | None
    wild: bool


class RecordedLineOut(Strict):
    """A recorded line."""

    id: uuid.UUID
    started_at: datetime
    ended_at: datetime | None
    points: list[LinePointOut]
    ledges: list[LedgeOut]
    wild: int


class ChartOut(Strict):
    """The chart of a water: shore, places, soundings, recorded lines, and the wind on them."""

    rings: Outline
    area_m2: float | None
    shore_m: float | None
    longest_fetch_m: float | None
    level_m: float
    downwind_shore: str | None
    stretches: list[StretchOut]
    places: list[ChartPlaceOut]
    soundings: list[SoundingOut]
    lines: list[RecordedLineOut]


class Hours(Strict):
    """The weather by hour, as it is stored."""

    hours: tuple[Hour, ...]


class ForecastOut(Hours):
    """The newest weather by hour of a water; without hours where there is none."""

    fetched_at: datetime | None
    source: str


class MetarBody(Strict):
    """A METAR as it was copied."""

    text: str = Field(min_length=1, max_length=2000)


class MetarOut(Strict):
    """The airfield that tells it, and the weather at its time."""

    station: str
    hour: Hour


class FeedBody(Strict):
    """Where the boat's instruments are, and how deep the transducer hangs for sounders that do not say."""

    host: str = Field("127.0.0.1", min_length=1, max_length=100)
    port: int = Field(10110, ge=1, le=65535)
    transducer_m: float = Field(0.0, ge=0, le=5)


class FeedOut(Strict):
    """The boat feed: its state, the last values with their age in seconds, and what was refused."""

    state: Literal["off", "connecting", "waiting", "live", "lost", "refused", "stopped"]
    host: str
    port: int
    depth_m: float | None
    depth_age_s: float | None
    temperature_c: float | None
    temperature_age_s: float | None
    steady: bool
    wind_m_s: float | None
    wind_from_deg: float | None
    wind_true: bool
    wind_age_s: float | None
    heading_deg: float | None
    position: LonLat | None
    position_age_s: float | None
    speed_m_s: float | None
    good: int
    bad: int
    last_bad: str
    connections: int
    recording: uuid.UUID | None
    recorded: int


class FeedLineBody(Strict):
    """Start recording soundings of a water under the client's UUID."""

    water_id: uuid.UUID
    line_id: uuid.UUID
    level_m: float = Field(0.0, ge=-100, le=50)
