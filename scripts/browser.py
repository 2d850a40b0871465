"""Debian's Chromium, started the way the screenshots and the browser tests need it: the headless build where it is, a
third of the work of the whole one.
"""

from __future__ import annotations

import shutil

from playwright.sync_api import Browser, Playwright

FLAGS = [
    "--no-sandbox",
    "--disable-gpu",
    "--disable-quic",
    "--no-first-run",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
    "--disable-dev-shm-usage",
    "--force-color-profile=srgb",
]
DESKTOP = {"width": 1280, "height": 800}
PHONE = {"width": 390, "height": 844}


def launch(playwright: Playwright) -> Browser:
    """Start headless Chromium. Raises SystemExit with the remedy where it is missing."""
    path = shutil.which("chromium-headless-shell") or shutil.which("chromium")
    if path is None:
        raise SystemExit("Chromium is missing: apt-get install chromium-headless-shell")
    return playwright.chromium.launch(executable_path=path, args=FLAGS)
