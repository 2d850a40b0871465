"""Photos of an outing: a row as any other, and the picture it shows."""

from __future__ import annotations

import uuid
from typing import Any, Literal

from django.db.models import Exists, OuterRef
from django.http import Http404

from stillthread.core.errors import InputError, Problem
from stillthread.formats.picture import Picture as Written
from stillthread.formats.picture import rewritten
from stillthread.outings.models import Outing, Photo, Picture
from stillthread.outings.schemas import PhotoBody, PhotoOut
from stillthread.web.owned import get_owned, live, put_owned

MOST_PHOTOS = 20
Size = Literal["whole", "small"]


def photos_of(outing: Outing) -> list[PhotoOut]:
    """Return an outing's photos in time, without their pictures."""
    arrived = Exists(Picture.objects.filter(photo=OuterRef("pk")))
    rows = outing.photos.filter(deleted_at=None).annotate(arrived=arrived)
    return [PhotoOut(arrived=row.arrived, **_told(row)) for row in rows]


def _told(row: Photo) -> dict[str, Any]:
    told = {name: getattr(row, name) for name in PhotoBody.model_fields}
    return {"id": row.pk, "revision": row.revision, **told}


def put_photo(
    owner: Any, outing_id: uuid.UUID, photo_id: uuid.UUID, body: PhotoBody, *, based_on: int | None = None
) -> PhotoOut:
    """Write a photo of one of the owner's outings. Raises InputError where the outing has as many as it can hold."""
    outing = get_owned(Outing, owner, outing_id, defer=("plan_snapshot",))
    if live(Photo, owner).filter(outing=outing).exclude(pk=photo_id).count() >= MOST_PHOTOS:
        message = f"This outing has {MOST_PHOTOS} photos."
        hint = "Delete one of them first."
        raise InputError(Problem("too_many", "photos", message, f"at most {MOST_PHOTOS}", hint=hint))
    row = put_owned(Photo, owner, photo_id, based_on=based_on, outing=outing, **body.model_dump())
    return PhotoOut(arrived=Picture.objects.filter(photo=row).exists(), **_told(row))


def keep_picture(photo: Photo, written: Written) -> None:
    """Lay a checked picture beside its photo, in place of one that was there."""
    Picture.objects.update_or_create(photo=photo, defaults={"jpeg": written.jpeg, "small": written.small})


def put_picture(owner: Any, photo_id: uuid.UUID, data: bytes) -> None:
    """Check a picture, write it anew and keep it. Raises Http404 without such a photo, InputError for what is no picture."""
    photo = get_owned(Photo, owner, photo_id)
    keep_picture(photo, rewritten(data))


def read_picture(owner: Any, photo_id: uuid.UUID, size: Size) -> bytes:
    """Return a picture as JPEG. Raises Http404 where there is none, or it has not arrived."""
    field = "jpeg" if size == "whole" else "small"
    alive = live(Photo, owner).filter(pk=photo_id, outing__deleted_at=None)
    found = Picture.objects.filter(photo__in=alive).values_list(field, flat=True).first()
    if found is None:
        raise Http404("picture")
    return bytes(found)
