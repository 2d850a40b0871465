"""The server's memory of paths."""

from __future__ import annotations

import pathlib
from functools import cache

from django.conf import settings

from stillthread.core.day.paths import Paths
from stillthread.shelf import FileShelf


@cache
def shared_paths() -> Paths:
    """Return the server's memory of paths, on the shelf the settings name; in memory alone where they name none."""
    path = settings.EXPOSURES_FILE
    return Paths(FileShelf(pathlib.Path(path), settings.EXPOSURES_KEPT) if path else None)
