"""Waters and readings over HTTP."""

from __future__ import annotations

import uuid
from typing import Annotated, Literal

from django.http import HttpRequest, HttpResponse
from ninja import File, Router
from ninja.files import UploadedFile
from pydantic import Field

from stillthread.documents.read_answer import ReadAnswer
from stillthread.formats.profile_csv import check_size
from stillthread.waters import reading_services, services
from stillthread.waters.models import Reading, Water
from stillthread.waters.schemas import (
    CalendarOut,
    CatalogueOut,
    NextDepthBody,
    NextDepthOut,
    ProfileFileOut,
    ReadBody,
    ReadingBody,
    ReadingOut,
    SeasonOut,
    WaterBody,
    WaterOut,
)
from stillthread.web.errors import EDITED, FAILURES
from stillthread.web.owned import delete_owned, get_owned, named_revision

router = Router(tags=["waters"])


@router.get("/waters", response={200: list[WaterOut], **FAILURES})
def list_waters(request: HttpRequest) -> list[WaterOut]:
    """Return the angler's waters."""
    return services.list_waters(request.user)


@router.get("/waters/{water_id}", response={200: WaterOut, **FAILURES})
def read_water(request: HttpRequest, water_id: uuid.UUID) -> WaterOut:
    """Return one water."""
    return services.water_out(get_owned(Water, request.user, water_id))


@router.put("/waters/{water_id}", response={200: WaterOut, **FAILURES, **EDITED})
def put_water(request: HttpRequest, water_id: uuid.UUID, payload: WaterBody) -> WaterOut:
    """Write a water under the client's UUID."""
    return services.put_water(request.user, water_id, payload, based_on=named_revision(request))


@router.delete("/waters/{water_id}", response={204: None, **FAILURES, **EDITED})
def delete_water(request: HttpRequest, water_id: uuid.UUID) -> tuple[int, None]:
    """Delete a water; writing it again brings it back."""
    delete_owned(Water, request.user, water_id, based_on=named_revision(request))
    return 204, None


@router.get("/waters/{water_id}/readings", response={200: list[ReadingOut], **FAILURES})
def list_readings(
    request: HttpRequest, water_id: uuid.UUID, count: Annotated[int, Field(ge=1, le=50)] = 5
) -> list[ReadingOut]:
    """Return the newest readings of a water."""
    return services.latest_readings(request.user, water_id, count)


@router.get("/waters/{water_id}/readings/{reading_id}", response={200: ReadingOut, **FAILURES})
def read_reading(request: HttpRequest, water_id: uuid.UUID, reading_id: uuid.UUID) -> ReadingOut:
    """Return one stored reading of a water."""
    return services.one_reading(request.user, water_id, reading_id)


@router.put("/waters/{water_id}/readings/{reading_id}", response={200: ReadingOut, **FAILURES, **EDITED})
def put_reading(request: HttpRequest, water_id: uuid.UUID, reading_id: uuid.UUID, payload: ReadingBody) -> ReadingOut:
    """Write a reading under the client's UUID."""
    return services.put_reading(request.user, water_id, reading_id, payload, based_on=named_revision(request))


@router.delete("/waters/{water_id}/readings/{reading_id}", response={204: None, **FAILURES, **EDITED})
def delete_reading(request: HttpRequest, water_id: uuid.UUID, reading_id: uuid.UUID) -> tuple[int, None]:
    """Delete a reading."""
    get_owned(Water, request.user, water_id)
    delete_owned(Reading, request.user, reading_id, based_on=named_revision(request))
    return 204, None


@router.post("/waters/{water_id}/profile-file", response={200: ProfileFileOut, **FAILURES})
def read_profile(
    request: HttpRequest,
    water_id: uuid.UUID,
    file: File[UploadedFile],
    depth_unit: Literal["m", "ft"] | None = None,
    temperature_unit: Literal["c", "f"] | None = None,
) -> ProfileFileOut:
    """Read a logger's CSV or a CoverageJSON profile and return its samples; nothing is stored."""
    check_size(file.size or 0)
    return services.read_profile_file(
        owner=request.user,
        water_id=water_id,
        data=file.read(),
        depth_unit=depth_unit,
        temperature_unit=temperature_unit,
    )


@router.get("/waters/{water_id}/readings/{reading_id}/profile.covjson", response={200: None, **FAILURES})
def write_profile(request: HttpRequest, water_id: uuid.UUID, reading_id: uuid.UUID) -> HttpResponse:
    """Return a stored profile as CoverageJSON."""
    text = services.profile_file(request.user, water_id, reading_id)
    return HttpResponse(text, content_type="application/prs.coverage+json")


@router.post("/waters/{water_id}/read", response={200: ReadAnswer, **FAILURES})
def read(request: HttpRequest, water_id: uuid.UUID, payload: ReadBody) -> ReadAnswer:
    """Return what a reading means for trout; nothing is stored."""
    return reading_services.understand(request.user, water_id, payload)


@router.post("/read/next-depth", response={200: NextDepthOut, **FAILURES})
def propose_depth(request: HttpRequest, payload: NextDepthBody) -> NextDepthOut:
    """Return the next depth to read on a marked cord."""
    return services.propose_depth(payload)


@router.get("/waters/{water_id}/season", response={200: SeasonOut, **FAILURES})
def season(
    request: HttpRequest, water_id: uuid.UUID, year: Annotated[int, Field(ge=1900, le=2200)] | None = None
) -> SeasonOut:
    """Return a water's profiles through a year."""
    return reading_services.season(request.user, water_id, year)


@router.get("/waters/{water_id}/calendar", response={200: CalendarOut, **FAILURES})
def calendar(request: HttpRequest, water_id: uuid.UUID) -> CalendarOut:
    """Return the hatch calendar of a water."""
    return reading_services.calendar(request.user, water_id)


@router.get("/food/catalogue", response={200: CatalogueOut, **FAILURES})
def catalogue(request: HttpRequest) -> CatalogueOut:
    """Return the prey catalogue."""
    return reading_services.catalogue()
