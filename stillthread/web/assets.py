"""How long browsers keep what was built."""

from __future__ import annotations

from typing import Any


def unhashed(headers: Any, path: str, url: str) -> None:
    """Let what carries no hash in its name (the service worker, the manifest, the marks) be asked for anew each time."""
    if not url.startswith("/assets/"):
        headers["Cache-Control"] = "no-cache"
