"""The archive's document: every table with its rows, as the API has them, each with its UUID."""

from __future__ import annotations

import uuid
from datetime import datetime
from typing import Annotated, Any, Literal

from annotated_types import MaxLen
from pydantic import Field

from stillthread.accounts.settings_io import SettingsIO
from stillthread.core.chart.outline import Outline
from stillthread.core.chart.sounding import SoundingMethod
from stillthread.core.limits import Latitude, Longitude, PlaceName
from stillthread.core.noted import water as noted
from stillthread.documents.strict import Strict
from stillthread.documents.thread.thread_contract import RigBody
from stillthread.flybox.schemas import FlyBody, LineBody
from stillthread.outings.schemas import EventBody, OutingBody, PhotoBody, SeenBody, SpellBody
from stillthread.waters.chart_schemas import Hours
from stillthread.waters.schemas import ReadingBody, WaterFields
from stillthread.web.dates import Kept

FORMAT, VERSION = "still-thread", 1
DOCUMENT = "still-thread.json"


class WaterRow(WaterFields):
    """A water."""

    id: uuid.UUID
    outline: Annotated[Outline, MaxLen(200)] = ()
    gone: bool = Field(False, description="deleted, but there are outings on it")


class PlaceRow(Strict):
    """A place of a water."""

    id: uuid.UUID
    water_id: uuid.UUID
    position: int = Field(0, ge=0, le=1000)
    place: noted.Place


class ReadingRow(ReadingBody):
    """A reading of a water."""

    id: uuid.UUID
    water_id: uuid.UUID


class SoundingRow(Strict):
    """A depth of the bed below the water's datum."""

    id: uuid.UUID
    water_id: uuid.UUID
    place_name: PlaceName = ""
    longitude_deg: Longitude | None = None
    latitude_deg: Latitude | None = None
    sounding_m: float = Field(gt=-100, le=300)
    method: SoundingMethod
    taken_at: Kept


class SoundingLineRow(Strict):
    """A line recorded from a boat: points of seconds, longitude, latitude, depth below the surface, temperature."""

    id: uuid.UUID
    water_id: uuid.UUID
    started_at: Kept
    ended_at: Kept | None = None
    level_m: float = Field(0.0, ge=-100, le=50)
    points: list[Annotated[list[float | None], Field(min_length=5, max_length=5)]] = Field(max_length=200_000)


class ForecastRow(Hours):
    """The weather by hour of a water, as it was told."""

    id: uuid.UUID
    water_id: uuid.UUID
    fetched_at: Kept
    source: str = Field("", max_length=120)


class LineRow(LineBody):
    """A line of the kit."""

    id: uuid.UUID


class FlyRow(FlyBody):
    """A fly of the box."""

    id: uuid.UUID


class RigRow(RigBody):
    """A rig kept on the bench."""

    id: uuid.UUID


class PlanRow(Strict):
    """A kept plan: what was asked and answered, frozen as it was."""

    id: uuid.UUID
    water_id: uuid.UUID
    when: datetime
    request: dict[str, Any]
    answer: dict[str, Any]


class OutingRow(OutingBody):
    """An outing, with its plan as frozen when it began."""

    id: uuid.UUID
    plan_id: uuid.UUID | None = None
    plan_snapshot: dict[str, Any] | None = None


class SpellRow(SpellBody):
    """A stretch of an outing."""

    id: uuid.UUID
    outing_id: uuid.UUID


class EventRow(EventBody):
    """What happened in a stretch."""

    id: uuid.UUID


class SeenRow(SeenBody):
    """What was seen of others on an outing."""

    id: uuid.UUID
    outing_id: uuid.UUID


class PhotoRow(PhotoBody):
    """A photo of an outing; its picture is the file photos/<id>.jpg beside the document."""

    id: uuid.UUID
    outing_id: uuid.UUID


class TrackRow(Strict):
    """The boat's track of an outing: points of seconds since 1970, longitude, latitude."""

    id: uuid.UUID
    outing_id: uuid.UUID
    points: list[Annotated[list[float], Field(min_length=3, max_length=3)]] = Field(min_length=2, max_length=10_000)


class Archive(Strict):
    """Everything of one angler. Photos lie beside it in the archive, named by their UUID."""

    format: Literal["still-thread"] = "still-thread"
    version: Literal[1] = 1
    settings: SettingsIO
    waters: list[WaterRow]
    places: list[PlaceRow]
    readings: list[ReadingRow]
    soundings: list[SoundingRow]
    sounding_lines: list[SoundingLineRow]
    forecasts: list[ForecastRow]
    lines: list[LineRow]
    flies: list[FlyRow]
    rigs: list[RigRow]
    plans: list[PlanRow]
    outings: list[OutingRow]
    stretches: list[SpellRow]
    events: list[EventRow]
    seen: list[SeenRow]
    photos: list[PhotoRow] = []
    tracks: list[TrackRow] = []
