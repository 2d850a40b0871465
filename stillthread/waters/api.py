"""Waters and readings over HTTP."""

from __future__ import annotations

import uuid
from typing import Annotated, Literal

from django.http import HttpRequest
from ninja import File, Router
from ninja.files import UploadedFile
from pydantic import Field

from stillthread.formats.profile_csv import check_size
from stillthread.waters import services
from stillthread.waters.models import Reading, Water
from stillthread.waters.schemas import CsvOut, ReadingBody, ReadingOut, WaterBody, WaterOut
from stillthread.web.errors import FAILURES
from stillthread.web.owned import delete_owned, get_owned

router = Router(tags=["waters"])


@router.get("/waters", response={200: list[WaterOut], **FAILURES})
def list_waters(request: HttpRequest) -> list[WaterOut]:
    """Return the angler's waters."""
    return services.list_waters(request.user)


@router.get("/waters/{water_id}", response={200: WaterOut, **FAILURES})
def read_water(request: HttpRequest, water_id: uuid.UUID) -> WaterOut:
    """Return one water."""
    return services.water_out(get_owned(Water, request.user, water_id))


@router.put("/waters/{water_id}", response={200: WaterOut, **FAILURES})
def put_water(request: HttpRequest, water_id: uuid.UUID, payload: WaterBody) -> WaterOut:
    """Write a water under the client's UUID."""
    return services.put_water(request.user, water_id, payload)


@router.delete("/waters/{water_id}", response={204: None, **FAILURES})
def delete_water(request: HttpRequest, water_id: uuid.UUID) -> tuple[int, None]:
    """Delete a water; writing it again brings it back."""
    delete_owned(Water, request.user, water_id)
    return 204, None


@router.get("/waters/{water_id}/readings", response={200: list[ReadingOut], **FAILURES})
def list_readings(
    request: HttpRequest, water_id: uuid.UUID, count: Annotated[int, Field(ge=1, le=50)] = 5
) -> list[ReadingOut]:
    """Return the newest readings of a water."""
    return services.latest_readings(request.user, water_id, count)


@router.put("/waters/{water_id}/readings/{reading_id}", response={200: ReadingOut, **FAILURES})
def put_reading(request: HttpRequest, water_id: uuid.UUID, reading_id: uuid.UUID, payload: ReadingBody) -> ReadingOut:
    """Write a reading under the client's UUID."""
    return services.put_reading(request.user, water_id, reading_id, payload)


@router.delete("/waters/{water_id}/readings/{reading_id}", response={204: None, **FAILURES})
def delete_reading(request: HttpRequest, water_id: uuid.UUID, reading_id: uuid.UUID) -> tuple[int, None]:
    """Delete a reading."""
    get_owned(Water, request.user, water_id)
    delete_owned(Reading, request.user, reading_id)
    return 204, None


@router.post("/waters/{water_id}/profile-csv", response={200: CsvOut, **FAILURES})
def read_csv(
    request: HttpRequest,
    water_id: uuid.UUID,
    file: File[UploadedFile],
    depth_unit: Literal["m", "ft"] | None = None,
    temperature_unit: Literal["c", "f"] | None = None,
) -> CsvOut:
    """Read a logger's CSV file and return its samples; nothing is stored."""
    check_size(file.size or 0)
    return services.read_csv(request.user, water_id, file.read(), depth_unit, temperature_unit)
