"""Writing the archive: the document, and tables that open in a spreadsheet, in one file."""

from __future__ import annotations

import csv
import io
import json
import tempfile
import zipfile
from datetime import UTC, datetime
from typing import Any, BinaryIO

from stillthread.accounts.services import angler_of
from stillthread.accounts.settings_io import settings_of
from stillthread.archive.pictures import pack_pictures
from stillthread.archive.rows import DOCUMENT, FORMAT, VERSION
from stillthread.archive.tables import BY_NAME, TABLES, rows_of
from stillthread.documents.cells import safe_cell

CHUNK = 2000
ABOUT = """Everything you keep in Still Thread.

still-thread.json  all of it, to be taken in again; described in docs/formats.md of the project
photos/*.jpg       the pictures of your photos, named as the document names them
*.csv              the log and the readings as tables, for a spreadsheet: SI units, times in UTC
"""
# What a person reads in a spreadsheet, names in place of ids. A column's name, and where it comes from.
SHEETS: dict[str, tuple[tuple[str, str], ...]] = {
    "outings": (("began", "started_at"), ("ended", "ended_at"), ("water", "water__name"), ("note", "note")),
    "stretches": (
        *(("began", "started_at"), ("ended", "ended_at"), ("water", "outing__water__name"), ("place", "place")),
        *(("method", "method"), ("set_up", "title"), ("line", "line_title"), ("depth_m", "depth_m")),
        *(("count_s", "count_s"), ("pace", "pace"), ("flies", "flies")),
    ),
    "events": (
        *(("at", "occurred_at"), ("water", "spell__outing__water__name"), ("set_up", "spell__title")),
        *(("what", "kind"), ("phase", "phase"), ("depth_m", "depth_m"), ("fly", "fly"), ("species", "species")),
        *(("length_m", "length_m"), ("released", "released"), ("note", "note")),
    ),
}


def write_document(owner: Any) -> str:
    """Return everything of an angler as the archive's JSON text: the same data gives the same text, byte for byte."""
    settings = settings_of(angler_of(owner)).model_dump(mode="json")
    parts = [f'"format": {_text(FORMAT)}', f'"version": {VERSION}', f'"settings": {_text(settings)}']
    for table in TABLES:
        found = rows_of(owner, table).values(*table.of_model).iterator(CHUNK)
        lines = ",\n  ".join(_text(table.document(values)) for values in found)
        parts.append(f'"{table.name}": [\n  {lines}\n ]' if lines else f'"{table.name}": []')
    return "{\n " + ",\n ".join(parts) + "\n}\n"


def _text(value: Any) -> str:
    return json.dumps(value, ensure_ascii=False, separators=(",", ":"), allow_nan=False)


def _cell(value: Any) -> str:
    match value:
        case None:
            return ""
        case bool():
            return "yes" if value else "no"
        case datetime():
            return value.astimezone(UTC).isoformat(timespec="seconds").replace("+00:00", "Z")
        case float():
            return f"{value:.10g}"
        case list():
            return safe_cell("; ".join(str(one) for one in value))
        case _:
            return safe_cell(str(value))


def _table(names: list[str], lines: Any) -> str:
    out = io.StringIO()
    table = csv.writer(out, lineterminator="\r\n")
    table.writerow(names)
    table.writerows([_cell(value) for value in line] for line in lines)
    return out.getvalue()


def _sheet(owner: Any, name: str) -> str:
    columns = SHEETS[name]
    return _table(
        [head for head, _ in columns], rows_of(owner, BY_NAME[name]).values_list(*(path for _, path in columns))
    )


def _temperatures(owner: Any) -> str:
    """Every temperature read, a line each."""
    found = rows_of(owner, BY_NAME["readings"]).select_related("water")
    lines = (
        (row.taken_at, row.water.name, row.place_name, point["depth_m"], point["temperature_c"])
        for row in found.iterator(CHUNK)
        for point in row.own_profile
    )
    return _table(["at", "water", "place", "depth_m", "temperature_c"], lines)


def write_archive(owner: Any) -> BinaryIO:
    """Return everything of an angler as one zip file on disk, gone once it is closed."""
    out = tempfile.TemporaryFile()  # noqa: SIM115 - whoever sends it closes it
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as packed:
        packed.writestr("read-me.txt", ABOUT)
        packed.writestr(DOCUMENT, write_document(owner))
        for name in SHEETS:
            packed.writestr(f"{name}.csv", _sheet(owner, name))
        packed.writestr("temperatures.csv", _temperatures(owner))
        pack_pictures(owner, packed)
    out.seek(0)
    return out
