"""The pictures of photos in the archive: files beside the document, each named by its photo's UUID."""

from __future__ import annotations

import zipfile
from typing import Any, BinaryIO

from stillthread.archive.read import Read
from stillthread.archive.take import fitted
from stillthread.core.errors import InputError
from stillthread.formats.picture import LARGEST_BYTES, kept
from stillthread.outings.models import Photo, Picture
from stillthread.outings.photos import keep_picture
from stillthread.web.owned import live

CHUNK = 100


def picture_name(photo_id: str) -> str:
    """Return where a photo's picture stands in the archive."""
    return f"photos/{photo_id}.jpg"


def pack_pictures(owner: Any, packed: zipfile.ZipFile) -> None:
    """Lay the picture of every photo that is told into the archive, as it is: it is packed already."""
    photos = live(Photo, owner).filter(outing__deleted_at=None)
    found = Picture.objects.filter(photo__in=photos).order_by("pk").values_list("pk", "jpeg")
    for photo_id, jpeg in found.iterator(CHUNK):
        named = zipfile.ZipInfo(picture_name(str(photo_id)))
        packed.writestr(named, bytes(jpeg), zipfile.ZIP_STORED)


def _unpacked(packed: zipfile.ZipFile, name: str) -> bytes | None:
    try:
        with packed.open(name) as inside:
            return inside.read(LARGEST_BYTES + 1)
    except (KeyError, zipfile.BadZipFile, OSError, RuntimeError, NotImplementedError, EOFError):
        return None


def take_pictures(owner: Any, file: BinaryIO, told: Read) -> int:
    """Lay the archive's pictures beside those photos here that have none; returns how many. One that is damaged stays out.

    Each by itself, so that many of them keep nobody from writing; what was cut short goes on where it is done again.
    """
    own = fitted(owner, told).rows["photos"]
    names = {here["id"]: row["id"] for row, here in zip(told.rows["photos"], own, strict=True)}
    without = live(Photo, owner).filter(picture=None)
    taken = 0
    with zipfile.ZipFile(file) as packed:
        for photo in list(without):
            data = _unpacked(packed, picture_name(names[str(photo.pk)])) if str(photo.pk) in names else None
            if data is None:
                continue
            try:
                keep_picture(photo, kept(data))
            except InputError:
                continue
            taken += 1
    return taken
