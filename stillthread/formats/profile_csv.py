"""Temperature profiles from a logger's CSV file: separators, decimal commas, units and headers as they come."""

from __future__ import annotations

import csv
import io
import re
from dataclasses import dataclass

from stillthread.core.errors import InputError, Problem
from stillthread.core.units import FOOT_M, fahrenheit_to_c
from stillthread.core.water.profile import Point, checked_profile

LARGEST_BYTES = 1_000_000
MOST_ROWS = 500
# First letters of the column names loggers use, in the languages we have met; all compared in lower case.
DEPTH_WORDS = ("depth", "tief", "profond", "profund", "diep", "djup", "dyb", "dyp", "syv", "głęb", "hloub", "mély", "z")
TEMPERATURE_WORDS = ("temp", "tempé", "lämp", "hőm", "teplo", "t")
OXYGEN_WORDS = ("oxy", "o2", "do", "sauer", "zuur", "syre", "ossig", "tlen", "happi")
FEET = re.compile(r"(?<![a-z])(ft|feet|foot|fu(ß|ss)|pieds?|pies)(?![a-z])")
FAHRENHEIT = re.compile(r"°\s*f|fahrenheit|deg\s*f|(?<![a-z])f(?![a-z])")
NUMBER = re.compile(r"[+-]?[0-9]{1,12}([.,][0-9]{1,12})?$")


@dataclass(frozen=True)
class CsvProfile:
    """A profile read from a file: samples in SI, the units they were in, and what had to be assumed."""

    points: tuple[Point, ...]
    depth_unit: str
    temperature_unit: str
    notes: tuple[str, ...]


@dataclass(frozen=True)
class _Columns:
    depth: int
    temperature: int
    oxygen: int | None
    depth_unit: str
    temperature_unit: str
    notes: tuple[str, ...]


def check_size(size: int) -> None:
    """Raise InputError where a file of `size` bytes is too large to be one profile."""
    if size > LARGEST_BYTES:
        message = f"This file has {size / 1e6:.0f} MB; a profile has a few kilobytes."
        raise InputError(
            Problem(
                code="too_large",
                path="file",
                message=message,
                accepted="up to 1 MB",
                hint="Export one cast, not the whole memory.",
            )
        )


def _decode(data: bytes) -> str:
    check_size(len(data))
    for encoding in ("utf-8-sig", "cp1252"):
        try:
            text = data.decode(encoding)
            break
        except UnicodeDecodeError:
            continue
    else:
        raise InputError(Problem("not_text", "file", "This is not a text file.", "a CSV text file"))
    if "\x00" in text:
        raise InputError(Problem("not_text", "file", "This is not a text file.", "a CSV text file"))
    if not text.strip():
        raise InputError(Problem("empty", "file", "The file is empty.", "lines of depth and temperature"))
    return text


def _separator(lines: list[str]) -> str:
    """The separator that splits most lines: semicolon, tab, then comma."""
    for mark in (";", "\t"):
        if sum(mark in line for line in lines) * 2 >= len(lines):
            return mark
    if any("," in line for line in lines):
        return ","
    return " "


def _rows(text: str) -> tuple[list[tuple[int, list[str]]], str]:
    """Numbered rows of trimmed cells, comments and blank lines left out, and the separator."""
    lines = [(i, line.strip()) for i, line in enumerate(text.splitlines(), 1)]
    lines = [(i, line) for i, line in lines if line and not line.startswith("#")]
    if not lines:
        raise InputError(Problem("empty", "file", "There is nothing but comments.", "lines of depth and temperature"))
    mark = _separator([line for _, line in lines])
    if mark == " ":
        return [(i, line.split()) for i, line in lines], mark
    cells = []
    for i, line in lines:
        try:
            cells.append((i, next(csv.reader(io.StringIO(line), delimiter=mark))))
        except csv.Error as error:
            problem = Problem("csv", f"line {i}", "This line is no row of a table.", "cells of ordinary length")
            raise InputError(problem) from error
    return [(i, [cell.strip() for cell in row]) for i, row in cells], mark


def _find(header: list[str], words: tuple[str, ...]) -> int | None:
    """The first column whose name starts with one of `words`; one-letter words must stand alone."""
    for index, name in enumerate(header):
        first = re.split(r"[^\w]|_", name.lower().strip())[0]
        if any(first == word if len(word) <= 2 else first.startswith(word) for word in words):
            return index
    return None


def _columns(header: list[str] | None, width: int, mark: str) -> _Columns:
    """Which column is which, from the header where it can be read, else by order."""
    if mark == "," and width == 3 and (header is None or _find(header, OXYGEN_WORDS) is None):
        raise InputError(_unclear("Three columns parted by commas: a decimal comma cannot be told from a separator."))
    if header is None:
        if width > 3:
            raise InputError(_unclear("There is no header, and more than three columns."))
        return _Columns(
            depth=0,
            temperature=1,
            oxygen=2 if width == 3 else None,
            depth_unit="m",
            temperature_unit="c",
            notes=("No header: taken as depth, then temperature.",),
        )
    depth, temperature = _find(header, DEPTH_WORDS), _find(header, TEMPERATURE_WORDS)
    oxygen = _find(header, OXYGEN_WORDS)
    joined = " ".join(header).lower()
    notes: tuple[str, ...] = ()
    if depth is None or temperature is None or depth == temperature:
        if width > 3:
            raise InputError(_unclear(f"The header '{'; '.join(header)[:80]}' does not say which column is which."))
        notes = ("The header could not be read: taken as depth, then temperature.",)
        depth, temperature, oxygen = 0, 1, 2 if width == 3 else None
    depth_unit = "ft" if FEET.search(joined.replace("_", " ")) else "m"
    temperature_name = header[temperature].lower().replace("_", " ") if temperature < len(header) else ""
    return _Columns(
        depth=depth,
        temperature=temperature,
        oxygen=oxygen,
        depth_unit=depth_unit,
        temperature_unit="f" if FAHRENHEIT.search(temperature_name) else "c",
        notes=notes,
    )


def _unclear(message: str) -> Problem:
    return Problem(
        code="columns",
        path="line 1",
        message=message,
        accepted="a first line that names depth and temperature",
        hint="Make the first line read: depth_m;temperature_c",
    )


def _number(text: str, line: int, what: str) -> float:
    if not NUMBER.match(text):
        shown = text[:30] or "nothing"
        raise InputError(
            Problem("not_a_number", f"line {line}", f"'{shown}' is no {what}.", "a number such as 4.5 or 4,5")
        )
    return float(text.replace(",", "."))


def _decimal_marks(rows: list[tuple[int, list[str]]]) -> None:
    """Raise InputError where a file writes some numbers with a decimal point and others with a comma."""
    seen: dict[str, int] = {}
    for line, cells in rows:
        for cell in cells:
            if NUMBER.match(cell):
                for mark in ".,":
                    if mark in cell:
                        seen.setdefault(mark, line)
    if len(seen) == 2:
        mark, line = max(seen.items(), key=lambda item: item[1])
        names = {".": "point", ",": "comma"}
        message = (
            f"A decimal {names[mark]} here, but the lines above use a decimal {names['.' if mark == ',' else ',']}."
        )
        raise InputError(Problem("mixed_decimals", f"line {line}", message, "one kind of decimal mark in a file"))


def _points(
    rows: list[tuple[int, list[str]]], where: _Columns, d_unit: str, t_unit: str
) -> tuple[list[Point], list[int]]:
    points, lines, problems = [], [], []
    for line, cells in rows:
        try:
            if len(cells) <= max(where.depth, where.temperature):
                raise InputError(Problem("columns", f"line {line}", "A column is missing.", "depth and temperature"))
            depth = _number(cells[where.depth], line, "depth") * (FOOT_M if d_unit == "ft" else 1.0)
            value = _number(cells[where.temperature], line, "temperature")
            oxygen = None
            if where.oxygen is not None and where.oxygen < len(cells) and cells[where.oxygen]:
                oxygen = _number(cells[where.oxygen], line, "oxygen value")
        except InputError as error:
            problems += error.problems
            continue
        points.append(Point(depth, fahrenheit_to_c(value) if t_unit == "f" else value, oxygen))
        lines.append(line)
    if problems:
        raise InputError(problems[:20])
    return points, lines


def _turned(points: list[Point], lines: list[int]) -> tuple[list[Point], list[int], list[str]]:
    """Depths counted negative, or listed from the bed up, put the usual way round."""
    notes = []
    if any(p.depth_m < 0 for p in points) and all(p.depth_m <= 0 for p in points):
        points = [Point(abs(p.depth_m), p.temperature_c, p.oxygen_mg_l) for p in points]
        notes.append("Negative depths taken as metres below the surface.")
    depths = [p.depth_m for p in points]
    if len(depths) > 1 and all(a > b for a, b in zip(depths, depths[1:], strict=False)):
        points, lines = points[::-1], lines[::-1]
        notes.append("The file runs from the bed up: turned round.")
    return points, lines, notes


def read_profile_csv(
    data: bytes, max_depth_m: float, depth_unit: str | None = None, temperature_unit: str | None = None
) -> CsvProfile:
    """Return the profile in a CSV file, for a water of `max_depth_m` [m].

    Semicolon, tab, comma or blanks between columns; decimal point or comma; a header in any of several languages, or
    none; units from the header unless `depth_unit` ('m', 'ft') or `temperature_unit` ('c', 'f') say otherwise.
    Raises InputError with the line of each fault: too large, empty, not text, unclear columns, mixed decimal marks, no
    number, or a sample `checked_profile` refuses.
    """
    rows, mark = _rows(_decode(data))
    header = None
    if not any(NUMBER.match(cell) for cell in rows[0][1]):
        header, rows = rows[0][1], rows[1:]
    if not rows:
        raise InputError(
            Problem("empty", "file", "There is a header but no reading.", "lines of depth and temperature")
        )
    if len(rows) > MOST_ROWS:
        message = f"{len(rows)} readings are more than one cast of a thermometer."
        raise InputError(Problem("too_many", "file", message, f"up to {MOST_ROWS} lines"))
    width = max(len(cells) for _, cells in rows)
    if width < 2:
        raise InputError(_unclear("There is only one column."))
    where = _columns(header, width, mark)
    _decimal_marks(rows)
    d_unit, t_unit = depth_unit or where.depth_unit, temperature_unit or where.temperature_unit
    points, lines, notes = _turned(*_points(rows, where, d_unit, t_unit))
    try:
        checked = checked_profile(points, max_depth_m)
    except InputError as error:
        raise InputError([_at_line(p, lines) for p in error.problems[:20]]) from error
    return CsvProfile(checked, d_unit, t_unit, (*where.notes, *notes))


def _at_line(problem: Problem, lines: list[int]) -> Problem:
    """The same problem at its line of the file; a file that looks like Fahrenheit is offered as such."""
    found = re.match(r"profile\[(\d+)\]", problem.path)
    line = lines[int(found.group(1))] if found else 1
    return Problem(
        code=problem.code, path=f"line {line}", message=problem.message, accepted=problem.accepted, hint=problem.hint
    )
