"""What is laid beside an outing, over HTTP: its photos, and the boat's track."""

from __future__ import annotations

import uuid

from django.http import HttpRequest, HttpResponse
from ninja import File, Router
from ninja.files import UploadedFile

from stillthread.outings import photos, tracks
from stillthread.outings.models import Outing, Photo
from stillthread.outings.schemas import PhotoBody, PhotoOut, TrackOut
from stillthread.web.errors import EDITED, FAILURES
from stillthread.web.owned import delete_owned, get_owned, named_revision

router = Router(tags=["photos and tracks"])
A_DAY_S = 86_400
PICTURE = {"content": {"image/jpeg": {"schema": {"type": "string", "format": "binary"}}}}


@router.put("/outings/{outing_id}/photos/{photo_id}", response={200: PhotoOut, **FAILURES, **EDITED})
def put_photo(request: HttpRequest, outing_id: uuid.UUID, photo_id: uuid.UUID, payload: PhotoBody) -> PhotoOut:
    """Write a photo under the client's UUID: what it shows, when and at what depth. At most twenty an outing."""
    return photos.put_photo(request.user, outing_id, photo_id, payload, based_on=named_revision(request))


@router.delete("/outings/{outing_id}/photos/{photo_id}", response={204: None, **FAILURES, **EDITED})
def delete_photo(request: HttpRequest, outing_id: uuid.UUID, photo_id: uuid.UUID) -> tuple[int, None]:
    """Delete a photo; writing it again brings it back with its picture."""
    get_owned(Outing, request.user, outing_id)
    delete_owned(Photo, request.user, photo_id, based_on=named_revision(request))
    return 204, None


@router.put("/photos/{photo_id}/picture", response={204: None, **FAILURES}, openapi_extra={"requestBody": PICTURE})
def put_picture(request: HttpRequest, photo_id: uuid.UUID) -> tuple[int, None]:
    """Send the picture of a photo: JPEG, PNG or WebP of at most 2 MB. It is written anew without what the camera noted."""
    photos.put_picture(request.user, photo_id, request.body)
    return 204, None


@router.get("/photos/{photo_id}/picture", response={200: None, **FAILURES})
def read_picture(request: HttpRequest, photo_id: uuid.UUID, size: photos.Size = "whole") -> HttpResponse:
    """Return the picture of a photo as JPEG, whole or small."""
    answer = HttpResponse(photos.read_picture(request.user, photo_id, size), content_type="image/jpeg")
    answer["Cache-Control"] = f"private, max-age={A_DAY_S}"
    return answer


@router.get("/outings/{outing_id}/track", response={200: TrackOut | None, **FAILURES})
def read_track(request: HttpRequest, outing_id: uuid.UUID) -> TrackOut | None:
    """Return the boat's track of an outing with the drift of each stretch; null where there is none."""
    return tracks.read(request.user, outing_id)


@router.post("/outings/{outing_id}/track", response={200: TrackOut, **FAILURES})
def take_track(request: HttpRequest, outing_id: uuid.UUID, file: File[UploadedFile]) -> TrackOut:
    """Take a GPX 1.1 file's track for an outing, in place of one that was there."""
    return tracks.take(request.user, outing_id, file.read())


@router.delete("/outings/{outing_id}/track", response={204: None, **FAILURES})
def delete_track(request: HttpRequest, outing_id: uuid.UUID) -> tuple[int, None]:
    """Delete an outing's track."""
    tracks.remove(request.user, outing_id)
    return 204, None


@router.get("/outings/{outing_id}/track.gpx", response={200: None, **FAILURES})
def write_track(request: HttpRequest, outing_id: uuid.UUID) -> HttpResponse:
    """Return an outing's track as GPX 1.1."""
    return HttpResponse(tracks.write(request.user, outing_id), content_type="application/gpx+xml")
