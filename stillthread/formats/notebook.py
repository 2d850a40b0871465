"""A notebook kept as a table: separators, decimal commas, dates and units as people write them."""

from __future__ import annotations

import csv
import io
import re
from collections import Counter
from dataclasses import dataclass
from datetime import date, time
from typing import Literal

from stillthread.core.errors import InputError, Problem

LARGEST_BYTES = 3_000_000
MOST_LINES, MOST_COLUMNS, LONGEST_CELL = 5000, 60, 4000
csv.field_size_limit(131_072)

Field = Literal[
    "date", "began", "ended", "hours", "water", "place", "method", "line", "depth", "flies", "takes", "landed", "lost",
    "species", "length", "returned", "temperature", "wind", "note",
]  # fmt: skip
DayOrder = Literal["ymd", "dmy", "mdy"]
# Words in the names of columns: common practice.
GUESSES: tuple[tuple[Field, tuple[str, ...]], ...] = (
    ("temperature", ("temp", "water temp", "surface")),
    ("returned", ("return", "released", "c&r", "kept")),
    ("landed", ("caught", "landed", "fish", "count", "catch", "number", "no", "trout", "total")),
    ("takes", ("take", "hook", "pull", "bite", "hit")),
    ("lost", ("lost", "dropped")),
    ("length", ("length", "long", "size", "cm", "inch")),
    ("species", ("species", "kind of fish")),
    ("date", ("date", "day", "when")),
    ("began", ("start", "from", "began", "time in", "time")),
    ("ended", ("end", "stop", "to", "until", "till", "time out", "finish")),
    ("hours", ("hour", "hrs", "duration", "effort")),
    ("water", ("water", "lake", "reservoir", "venue", "fishery", "where", "loch", "lough", "pond")),
    ("place", ("place", "spot", "bay", "area", "swim", "location", "mark")),
    ("depth", ("depth", "deep", "feet", "ft")),
    ("method", ("method", "style", "how", "technique", "tactic", "set")),
    ("line", ("line", "fly line")),
    ("flies", ("fly", "flies", "pattern", "bait")),
    ("wind", ("wind",)),
    ("note", ("note", "comment", "remark", "weather", "memo")),
)
FEET, INCHES, FAHRENHEIT = (
    re.compile(one)
    for one in (
        r"(?<![a-z])(ft|feet|foot)(?![a-z])",
        r"(?<![a-z])(in|inch|inches|\")(?![a-z])",
        r"°?\s*f(ahrenheit)?\)?$",
    )
)
MONTHS = ("jan", "feb", "mar", "apr", "may", "jun", "jul", "aug", "sep", "oct", "nov", "dec")
NUMBER = re.compile(r"[+-]?\d{1,6}([.,]\d{1,6})?")


@dataclass(frozen=True)
class Notebook:
    """A table as it was read: the names of its columns and, with their numbers in the file, its lines."""

    columns: tuple[str, ...]
    lines: tuple[tuple[int, tuple[str, ...]], ...]


@dataclass(frozen=True)
class Guess:
    """What the columns seem to be (None where they tell nothing), and the units and order of the day in them."""

    fields: tuple[Field | None, ...]
    day_order: DayOrder
    depth_unit: Literal["m", "ft"]
    length_unit: Literal["cm", "in"]
    temperature_unit: Literal["c", "f"]


def _refuse(message: str, accepted: str, path: str = "file", code: str = "not_a_table") -> InputError:
    return InputError(Problem(code, path, message, accepted))


def _decoded(data: bytes) -> str:
    accepted = "a table saved as CSV or as text"
    if len(data) > LARGEST_BYTES:
        raise _refuse(
            f"This file has {len(data) / 1e6:.0f} MB.", f"up to {LARGEST_BYTES // 10**6} MB", code="too_large"
        )
    wide = data[:2] in (b"\xff\xfe", b"\xfe\xff")
    for encoding in ("utf-16",) if wide else ("utf-8-sig", "cp1252"):
        try:
            text = data.decode(encoding)
        except UnicodeDecodeError:
            continue
        if "\x00" not in text:
            return text.lstrip("\ufeff")
    raise _refuse("This is no text file.", accepted)


def _mark(text: str) -> str:
    """What parts the cells: of tab, semicolon, bar and comma the one most lines have, and most often alike."""
    lines = [line for line in text.splitlines()[:50] if line.strip()]
    best, most = ",", 0.0
    for mark in ("\t", ";", "|", ","):
        counts = Counter(line.count(mark) for line in lines)
        alike = max((n for k, n in counts.items() if k > 0), default=0)
        if alike > most:
            best, most = mark, alike
    return best


def read_notebook(data: bytes) -> Notebook:
    """Return a notebook's table: its first line names the columns, empty lines are passed over.

    Raises InputError for what is no text, has no lines, or is longer or wider than a notebook.
    """
    text = _decoded(data)
    lines: list[tuple[int, tuple[str, ...]]] = []
    reader = csv.reader(io.StringIO(text, newline=""), delimiter=_mark(text))
    try:
        for row in reader:
            cells = tuple(" ".join(cell.split())[:LONGEST_CELL] for cell in row)
            if any(cells):
                lines.append((reader.line_num, cells))
            if len(lines) > MOST_LINES + 1:
                raise _refuse(
                    f"This table has more than {MOST_LINES} lines.", f"up to {MOST_LINES} lines", code="too_large"
                )
    except csv.Error as error:
        raise _refuse(
            "This line is no row of a table.", "cells of ordinary length", f"line {reader.line_num}"
        ) from error
    if len(lines) < 2:
        raise _refuse("There is nothing in this table.", "a line of names, then a line for each day or fish")
    columns = lines[0][1]
    if len(columns) > MOST_COLUMNS:
        raise _refuse(f"This table has {len(columns)} columns.", f"up to {MOST_COLUMNS}")
    width = len(columns)
    return Notebook(columns, tuple((n, (cells + ("",) * width)[:width]) for n, cells in lines[1:]))


def _field_of(name: str, taken: set[Field]) -> Field | None:
    """The field whose word tells most of a column's name: one it begins with before one in it, the longest first."""
    words = name.casefold().strip()
    best: tuple[bool, int, Field | None] = (False, 0, None)
    for field, beginnings in GUESSES:
        for one in beginnings if field not in taken else ():
            if words == one or (len(one) > 2 and one in words):
                fit = (words.startswith(one), len(one), field)
                best = max(best, fit, key=lambda found: found[:2])
    return best[2]


def _day_order(cells: list[str]) -> DayOrder:
    """The order in which most days make sense; day before month where both do."""
    orders: tuple[DayOrder, ...] = ("ymd", "dmy", "mdy")

    def good(order: DayOrder) -> int:
        count = 0
        for cell in cells:
            try:
                read_day(cell, order)
            except ValueError:
                continue
            count += 1
        return count

    return max(orders, key=lambda order: (good(order), order == "dmy"))


def guess(table: Notebook) -> Guess:
    """Return what a table's columns seem to be, from their names and the first days in them; the angler has the last word."""
    taken: set[Field] = set()
    fields: list[Field | None] = []
    for name in table.columns:
        field = _field_of(name, taken)
        fields.append(field)
        if field is not None:
            taken.add(field)

    def named(field: Field) -> str:
        return table.columns[fields.index(field)].casefold() if field in taken else ""

    days = [cells[fields.index("date")] for _, cells in table.lines[:200]] if "date" in taken else []
    return Guess(
        fields=tuple(fields),
        day_order=_day_order(days),
        depth_unit="ft" if FEET.search(named("depth")) else "m",
        length_unit="in" if INCHES.search(named("length")) else "cm",
        temperature_unit="f" if FAHRENHEIT.search(named("temperature")) else "c",
    )


def _year(text: str) -> int:
    if len(text) == 2:
        return (1900 if int(text) >= 70 else 2000) + int(text)
    return int(text)


def read_day(text: str, order: DayOrder) -> date:
    """Return a day as people write it: 14/5/2026, 2026-05-14, 14 May 26, May 14 2026. Raises ValueError for none.

    >>> read_day("14.5.26", "dmy").isoformat()
    '2026-05-14'
    """
    parts = re.findall(r"[A-Za-z]+|\d+", text)
    words = [part for part in parts if part[:3].lower() in MONTHS and part.isalpha()]
    numbers = [part for part in parts if part.isdigit()]
    if words and len(numbers) >= 2:
        month = MONTHS.index(words[0][:3].lower()) + 1
        first, second = numbers[0], numbers[1]
        day, year = (second, first) if len(first) == 4 else (first, second)
        return date(_year(year), month, int(day))
    if len(numbers) < 3:
        raise ValueError("this is no day")
    if len(numbers[0]) == 4:
        order = "ymd"
    told = dict(zip(order, numbers, strict=False))
    return date(_year(told["y"]), int(told["m"]), int(told["d"]))


def read_clock(text: str) -> time:
    """Return a time of day: 9, 9:30, 09.30, 2:15 pm, 1430. Raises ValueError for none."""
    found = re.fullmatch(r"(\d{1,2})(?:[:.h]?(\d{2}))?(?::\d{2})?\s*([ap])?\.?m?\.?", text.strip().lower())
    if found is None:
        raise ValueError("this is no time of day")
    hour, minute, half = int(found[1]), int(found[2] or 0), found[3]
    if half and hour <= 12:
        hour = hour % 12 + (12 if half == "p" else 0)
    return time(hour, minute)


def read_number(text: str) -> float:
    """Return the number a cell begins with: "3", "2,5 m", "about 12 ft". Raises ValueError where there is none."""
    found = NUMBER.search(text)
    if found is None:
        raise ValueError("this is no number")
    return float(found[0].replace(",", "."))
