"""A file larger than one request, sent in parts and put together on disk; gone after a day."""

from __future__ import annotations

import contextlib
import shutil
import time
import uuid
from collections.abc import Iterator
from pathlib import Path
from typing import Any, BinaryIO

from django.conf import settings
from django.http import Http404

from stillthread.core.errors import InputError, Problem

MOST_PARTS = 400
DAY_S = 86_400.0


def _folder() -> Path:
    return Path(settings.VAR) / "uploads"


def _place(owner: Any, upload: uuid.UUID) -> Path:
    return _folder() / f"{owner.pk}-{upload}"


def _clear(owner: Any, upload: uuid.UUID) -> None:
    """Take away the angler's other uploads, and everybody's of before yesterday."""
    for one in _folder().glob("*-*"):
        mine = one.name.startswith(f"{owner.pk}-") and one != _place(owner, upload)
        with contextlib.suppress(FileNotFoundError):
            if mine or one.stat().st_mtime < time.time() - DAY_S:
                shutil.rmtree(one, ignore_errors=True)


def keep_part(owner: Any, upload: uuid.UUID, part: int, data: bytes) -> None:
    """Keep a part of a file; sent twice it is the same part. The angler's other uploads go. Raises InputError past the last part."""
    if not 0 <= part < MOST_PARTS:
        raise InputError(Problem("too_large", "part", "This file is too large.", f"at most {MOST_PARTS} parts"))
    _clear(owner, upload)
    place = _place(owner, upload)
    place.mkdir(parents=True, exist_ok=True, mode=0o700)
    (place / f"{part:04d}").write_bytes(data)


@contextlib.contextmanager
def whole_file(owner: Any, upload: uuid.UUID) -> Iterator[BinaryIO]:
    """Open the file its parts make. Raises Http404 where none have come, and InputError where some are missing."""
    parts = sorted(one for one in _place(owner, upload).glob("[0-9]*"))
    if not parts:
        raise Http404("file")
    if int(parts[-1].name) != len(parts) - 1:
        raise InputError(
            Problem("incomplete", "file", "The file has not arrived whole.", "every part of it", hint="Send it again.")
        )
    whole = _place(owner, upload) / "whole"
    with whole.open("w+b") as file:
        for part in parts:
            file.write(part.read_bytes())
        file.seek(0)
        yield file


def forget(owner: Any, upload: uuid.UUID) -> None:
    """Take an upload away."""
    shutil.rmtree(_place(owner, upload), ignore_errors=True)
