"""A fly box in and out of files: the whole box as JSON, a table of patterns as CSV."""

from __future__ import annotations

import csv
import io

from pydantic import ValidationError

from stillthread.core.errors import InputError, Problem, doubled
from stillthread.core.thread.fly_sink import sink_class, sink_speed_m_s
from stillthread.documents.cells import plain_cell, safe_cell
from stillthread.documents.fly_contract import FlyFile, PatternDoc
from stillthread.documents.strict import parse_document, problems_from_pydantic

LARGEST_BYTES = 3_000_000
MOST_DIGITS = 6
COLUMNS = ("name", "family", "prey", "hooks", "tone", "weight", "surface", "stock")
COMPUTED = ("sink_m_s", "sink_class")


def check_size(size: int) -> None:
    """Raise InputError where a file of `size` bytes is too large to be a fly box."""
    if size > LARGEST_BYTES:
        message = f"This file has {size / 1e6:.0f} MB."
        raise InputError(Problem("too_large", "file", message, f"up to {LARGEST_BYTES // 10**6} MB"))


def write_flies_csv(box: FlyFile) -> str:
    """Return a fly box as a CSV table, a pattern a line: lists parted by blanks, sink speed and class where a build tells.

    Recipes and builds are left out: JSON carries them.
    """
    out = io.StringIO()
    table = csv.writer(out, lineterminator="\r\n")
    table.writerow([*COLUMNS, *COMPUTED])
    for fly in box.flies:
        speed = sink_speed_m_s(fly.build) if fly.build else None
        table.writerow(
            [
                safe_cell(fly.name),
                fly.family or "",
                " ".join(fly.prey),
                " ".join(str(h) for h in fly.hooks),
                fly.tone,
                fly.weight,
                "yes" if fly.surface else "no",
                "" if fly.stock is None else fly.stock,
                "" if speed is None else f"{speed:.3f}",
                "" if speed is None else sink_class(speed),
            ]
        )
    return out.getvalue()


def _count(text: str) -> int:
    """A whole number in plain digits, and few of them. Raises ValueError for anything else."""
    if not (text.isascii() and text.isdigit() and len(text) <= MOST_DIGITS):
        raise ValueError(text)
    return int(text)


def _hooks(text: str, line: int) -> list[int]:
    try:
        return [_count(part) for part in text.split()]
    except ValueError as error:
        raise InputError(
            Problem(
                "not_a_number", f"line {line}, hooks", f"'{text[:30]}' is no list of hook sizes.", "sizes such as 10 12"
            )
        ) from error


def _pattern(row: dict[str, str], line: int) -> PatternDoc:
    stock = row.get("stock", "").strip()
    try:
        in_stock = _count(stock) if stock else None
    except ValueError as error:
        raise InputError(
            Problem("not_a_number", f"line {line}, stock", f"'{stock[:30]}' is no count.", "a whole number, or nothing")
        ) from error
    surface = row.get("surface", "").strip().lower()
    if surface not in ("", "yes", "no"):
        raise InputError(
            Problem("unknown", f"line {line}, surface", f"'{surface[:30]}' is neither yes nor no.", "yes, no")
        )
    try:
        return PatternDoc.model_validate(
            {
                "name": plain_cell(row["name"]),
                "family": row.get("family", "").strip() or None,
                "prey": row["prey"].split(),
                "hooks": _hooks(row["hooks"], line),
                "tone": row["tone"].strip(),
                "weight": row["weight"].strip(),
                "surface": surface == "yes",
                "stock": in_stock,
            }
        )
    except ValidationError as error:
        faults = problems_from_pydantic(error.errors())
        raise InputError(
            [
                Problem(code=p.code, path=f"line {line}, {p.path}", message=p.message, accepted=p.accepted, hint=p.hint)
                for p in faults
            ]
        ) from error


def read_flies_csv(text: str) -> FlyFile:
    """Return the fly box in a CSV table with the columns `write_flies_csv` writes; computed columns are passed over.

    Raises InputError with the line of each fault: columns missing or unknown, values that are none, one name twice.
    """
    try:
        return _read_table(csv.DictReader(io.StringIO(text, newline=None), strict=True))
    except csv.Error as error:
        raise InputError(
            Problem(
                "csv", "file", "This is no table a spreadsheet would write.", "a CSV file with cells of ordinary length"
            )
        ) from error


def _read_table(table: csv.DictReader[str]) -> FlyFile:
    have = [name.strip() for name in table.fieldnames or []]
    needed = [name for name in ("name", "prey", "hooks", "tone", "weight") if name not in have]
    unknown = [name for name in have if name not in (*COLUMNS, *COMPUTED)]
    if needed or unknown:
        message = f"Columns missing: {', '.join(needed)}." if needed else f"Columns not known: {', '.join(unknown)}."
        raise InputError(Problem("columns", "line 1", message, ", ".join(COLUMNS)))
    table.fieldnames = have
    problems: list[Problem] = []
    flies: dict[str, PatternDoc] = {}
    for row in table:
        line = table.line_num
        if None in row or None in row.values():
            problems.append(
                Problem(
                    "columns",
                    f"line {line}",
                    "This line has more or fewer columns than the header.",
                    f"{len(have)} columns",
                )
            )
            continue
        try:
            fly = _pattern(row, line)
        except InputError as error:
            problems += error.problems
            continue
        if fly.name in flies:
            problems.append(
                Problem("duplicate", f"line {line}, name", f"'{fly.name}' is there twice.", "each name once")
            )
        flies[fly.name] = fly
    if problems:
        raise InputError(problems[:20])
    if not flies:
        raise InputError(Problem("empty", "file", "There is no pattern in it.", "a line for each pattern"))
    return FlyFile(flies=list(flies.values()))


def read_flies(data: bytes) -> FlyFile:
    """Return the fly box in a JSON document or a CSV table. Raises InputError at the path or line of each fault."""
    check_size(len(data))
    try:
        text = data.decode("utf-8-sig")
    except UnicodeDecodeError as error:
        raise InputError(Problem("not_text", "file", "This is not UTF-8 text.", "a JSON or CSV file")) from error
    if text.lstrip()[:1] in ("{", "["):
        box = parse_document(FlyFile, text)
        problems = doubled([fly.name for fly in box.flies], "flies", "name")
        if problems:
            raise InputError(problems)
        return box
    return read_flies_csv(text)
