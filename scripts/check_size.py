"""The JavaScript of the first load, gzip: of what every page takes, and of each page with it. Exit status 1 above the budget."""

from __future__ import annotations

import gzip
import json
import pathlib
import sys
from typing import Any

DIST = pathlib.Path(__file__).resolve().parents[1] / "frontend" / "dist"
BASE_KB, PAGE_KB = 98.0, 118.0


def _loaded(manifest: dict[str, Any], name: str, seen: set[str]) -> None:
    if name in seen:
        return
    seen.add(name)
    for other in manifest[name].get("imports", []):
        _loaded(manifest, other, seen)


def _kb(manifest: dict[str, Any], names: list[str]) -> float:
    seen: set[str] = set()
    for name in names:
        _loaded(manifest, name, seen)
    files = {manifest[one]["file"] for one in seen if manifest[one]["file"].endswith(".js")}
    return sum(len(gzip.compress((DIST / file).read_bytes(), 9)) for file in files) / 1000


def first_loads() -> list[tuple[str, float, float]]:
    """Return what is loaded first [kB gzip] with its budget: what every page takes, then each page, by name."""
    manifest = json.loads((DIST / ".vite" / "manifest.json").read_text("utf-8"))
    found = [("every page", _kb(manifest, ["index.html"]), BASE_KB)]
    for name, entry in sorted(manifest.items()):
        if name.startswith("src/pages") and name.endswith("Page.tsx"):
            found.append((entry["name"], _kb(manifest, ["index.html", name]), PAGE_KB))
    return found


def main() -> int:
    """Say every first load above its budget; returns the exit status."""
    loads = first_loads()
    over = [(name, kb, most) for name, kb, most in loads if kb > most]
    for name, kb, most in over:
        sys.stdout.write(f"First load of {name}: {kb:.1f} kB of JavaScript, gzip; the budget is {most:.0f} kB\n")
    return 1 if over or len(loads) < 2 else 0


if __name__ == "__main__":
    sys.exit(main())
