"""Reading an archive: bounded before it is unpacked, every row checked, what hangs on nothing left out."""

from __future__ import annotations

import json
import uuid
import zipfile
from collections.abc import Iterable
from dataclasses import dataclass, field, replace
from typing import Any, BinaryIO

from pydantic import ValidationError

from stillthread.accounts.settings_io import SettingsIO
from stillthread.archive.rows import DOCUMENT, FORMAT, VERSION
from stillthread.archive.tables import TABLES, Table
from stillthread.core.errors import InputError, Problem
from stillthread.documents.strict import problems_from_pydantic

LARGEST_DOCUMENT = 120_000_000
MOST_ROWS = 500_000
MOST_TOLD = 50
ACCEPTED = "an archive saved by Still Thread, a .zip file with still-thread.json in it"

Document = dict[str, Any]


@dataclass
class Read:
    """What an archive holds: checked rows by table, the settings, and the rows that had to be left out with why."""

    settings: Document
    rows: dict[str, list[Document]]
    faults: list[Problem] = field(default_factory=list)
    left_out: int = 0

    def leave_out(self, problems: Iterable[Problem]) -> None:
        """Count a row left out; the first ones are told."""
        self.left_out += 1
        self.faults += list(problems)[: max(0, MOST_TOLD - len(self.faults))]


def _refuse(message: str, accepted: str = ACCEPTED) -> InputError:
    return InputError(Problem("not_an_archive", "file", message, accepted))


def _document(file: BinaryIO) -> Document:
    """The document in the file. Raises InputError where there is none, it is too large, or of another kind or version."""
    try:
        with zipfile.ZipFile(file) as packed, packed.open(DOCUMENT) as inside:
            text = inside.read(LARGEST_DOCUMENT + 1)
    except KeyError:
        raise _refuse(f"There is no {DOCUMENT} in this file.") from None
    except (zipfile.BadZipFile, OSError, RuntimeError, NotImplementedError, ValueError, EOFError):
        raise _refuse("This file is no zip archive, or it is damaged.") from None
    if len(text) > LARGEST_DOCUMENT:
        raise _refuse("This archive is too large.", f"up to {LARGEST_DOCUMENT // 10**6} MB unpacked")
    try:
        told = json.loads(text, parse_constant=_no_constant)
    except (ValueError, RecursionError) as error:
        raise _refuse(f"{DOCUMENT} in it cannot be read: {str(error)[:120]}.") from None
    if not isinstance(told, dict) or told.get("format") != FORMAT:
        raise _refuse(f"{DOCUMENT} in it is something else.")
    if told.get("version") != VERSION:
        raise _refuse(f"This archive is of version {str(told.get('version'))[:20]}.", f"version {VERSION}")
    return told


def _no_constant(name: str) -> Any:
    raise ValueError(f"{name} is no number")


def _checked(table: Table, n: int, row: Any, read: Read) -> Document | None:
    """One row as its document has it; None, and why, where it is none."""
    try:
        checked = table.row.model_validate_json(json.dumps(row), strict=True)
        table.check(checked)
        return checked.model_dump(mode="json")
    except ValidationError as error:
        problems = problems_from_pydantic(error.errors(include_url=False))
    except InputError as error:
        problems = error.problems
    at = f"{table.name}[{n}]"
    read.leave_out(replace(one, path=f"{at}.{one.path}" if one.path else at) for one in problems)
    return None


def _rows(table: Table, told: Document, read: Read) -> list[Document]:
    """A table's rows: checked, each UUID once, each hanging on what is there."""
    raw = told.get(table.name, [])
    if not isinstance(raw, list):
        raise _refuse(f"{table.name} in it is no list.")
    there = {parent: {row["id"] for row in read.rows[of]} for parent, of in table.parents.items()}
    seen: set[str] = set()
    found = []
    for n, one in enumerate(raw):
        row = _checked(table, n, row=one, read=read)
        if row is None:
            continue
        lost = [parent for parent, ids in there.items() if row[parent] not in ids]
        if row["id"] in seen or lost:
            path = f"{table.name}[{n}].{lost[0] if lost else 'id'}"
            message = "This UUID stands here twice." if not lost else "What it belongs to is not in the archive."
            read.leave_out([Problem("unknown" if lost else "doubled", path, message, "a whole archive")])
            continue
        seen.add(row["id"])
        found.append(row)
    return found


def read_archive(file: BinaryIO) -> Read:
    """Return what an archive holds. Rows that cannot be read are left out and told.

    Raises InputError for a file that is no archive, is too large, or is of another version.
    """
    told = _document(file)
    count = sum(len(told.get(table.name) or ()) for table in TABLES if isinstance(told.get(table.name), list))
    if count > MOST_ROWS:
        raise _refuse(f"This archive has {count} rows.", f"up to {MOST_ROWS} rows")
    try:
        settings = SettingsIO.model_validate(told.get("settings")).model_dump(mode="json")
    except ValidationError as error:
        raise InputError(problems_from_pydantic(error.errors(include_url=False), ())) from error
    read = Read(settings=settings, rows={})
    for table in TABLES:
        read.rows[table.name] = _rows(table, told, read)
    return read


def renamed(read: Read, names: dict[str, str]) -> Read:
    """Return an archive with some UUIDs replaced, wherever they stand."""
    if not names:
        return read
    rows = {
        table.name: [
            {**row, **{at: names.get(str(row[at]), row[at]) for at in ("id", *table.parents) if at in row}}
            for row in read.rows[table.name]
        ]
        for table in TABLES
    }
    for outing in rows["outings"]:
        outing["plan_id"] = names.get(str(outing["plan_id"]), outing["plan_id"])
    return Read(settings=read.settings, rows=rows, faults=read.faults, left_out=read.left_out)


def own_name(owner: Any, row_id: str) -> str:
    """Return the UUID a row gets in an account where its own is taken by another's: always the same one."""
    return str(uuid.uuid5(uuid.UUID(row_id), f"of {owner.pk}"))
