"""Photographs from anywhere: opened, checked and written anew by Pillow, so that nothing but the picture is kept."""

from __future__ import annotations

import io
from dataclasses import dataclass

from PIL import Image, ImageOps

from stillthread.core.errors import InputError, Problem

LARGEST_BYTES = 2_000_000
LONGEST_SIDE, SMALL_SIDE = 1600, 320  # pixels
MOST_PIXELS = 60_000_000
FORMATS = ("JPEG", "PNG", "WEBP")
QUALITIES = (82, 70, 55, 40)
END_OF_JPEG = b"\xff\xd9"
ACCEPTED = f"a JPEG, PNG or WebP of at most {LARGEST_BYTES // 10**6} MB"


@dataclass(frozen=True)
class Picture:
    """A photograph as it is kept, and a small one of it: JPEG without any notes of the camera, its size in pixels."""

    jpeg: bytes
    small: bytes
    width: int
    height: int


def _refuse(message: str) -> InputError:
    return InputError(Problem("picture", "picture", message, ACCEPTED))


def _opened(data: bytes) -> Image.Image:
    """Open a picture whole. Raises InputError for what is none, is too large, or is damaged."""
    if len(data) > LARGEST_BYTES:
        raise _refuse(f"This picture has {len(data) / 1e6:.1f} MB.")
    try:
        found = Image.open(io.BytesIO(data), formats=FORMATS)
        if found.width * found.height > MOST_PIXELS:
            raise _refuse(f"This picture has {found.width} × {found.height} points.")
        found.load()
    except InputError:
        raise
    except Exception:  # a damaged file fails in many ways, all of them its own
        raise _refuse("This file is no picture, or it is damaged.") from None
    return found


def _jpeg(picture: Image.Image, quality: int) -> bytes:
    out = io.BytesIO()
    picture.save(out, "JPEG", quality=quality, optimize=True)
    return out.getvalue()


def _small(picture: Image.Image) -> bytes:
    copy = picture.copy()
    copy.thumbnail((SMALL_SIDE, SMALL_SIDE))
    return _jpeg(copy, QUALITIES[0])


def rewritten(data: bytes) -> Picture:
    """Return a picture upright, at most 1600 points long and 2 MB large, with the place and all else noted in it gone.

    Raises InputError at the path picture for what is no picture, is damaged, or is too large.
    """
    upright = ImageOps.exif_transpose(_opened(data)).convert("RGB")
    upright.thumbnail((LONGEST_SIDE, LONGEST_SIDE))
    # A copy of the points alone: what the file noted beside them (camera, place, comment) stays behind.
    bare = Image.frombytes("RGB", upright.size, upright.tobytes())
    jpeg = next((one for q in QUALITIES if len(one := _jpeg(bare, q)) <= LARGEST_BYTES), b"")
    return Picture(jpeg=jpeg, small=_small(bare), width=bare.width, height=bare.height)


def kept(data: bytes) -> Picture:
    """Return a picture that was written here before as it is; any other is written anew.

    Raises InputError as `rewritten` does.
    """
    found = _opened(data)
    noted = set(found.info) - {"jfif", "jfif_version", "jfif_unit", "jfif_density"}
    ours = found.format == "JPEG" and found.mode == "RGB" and max(found.size) <= LONGEST_SIDE
    if not ours or noted or not data.endswith(END_OF_JPEG):
        return rewritten(data)
    return Picture(jpeg=data, small=_small(found), width=found.width, height=found.height)
