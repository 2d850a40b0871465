"""A notebook's lines as what they say of fishing: each read by what its columns mean, or refused with why."""

from __future__ import annotations

import re
import uuid
from collections import defaultdict
from collections.abc import Callable
from dataclasses import dataclass
from datetime import date, time
from typing import Any

from stillthread.core.errors import Problem
from stillthread.core.limits import EARLIEST
from stillthread.core.units import FOOT_M, INCH_M, fahrenheit_to_c
from stillthread.formats.notebook import Field, Notebook, read_clock, read_day, read_number
from stillthread.outings.notebook_schemas import MappingBody

MOST_FISH = 200
# What anglers write of how they fished; the first that is in it. Common practice.
METHOD_WORDS: tuple[tuple[str, str], ...] = (
    *(("dry", "dry"), ("dries", "dry"), ("indicator", "float"), ("bobber", "float"), ("bung", "float")),
    *(("float", "float"), ("washing", "nymphs"), ("nymph", "nymphs"), ("pupa", "nymphs"), ("midge", "nymphs")),
    *(("chironomid", "nymphs"), ("sink tip", "sink-tip"), ("sink-tip", "sink-tip"), ("intermediate", "intermediate")),
    *(("hover", "intermediate"), ("sink", "sinking"), ("lure", "sinking"), ("leech", "sinking"), ("di", "sinking")),
)
SPECIES = (("rainbow", "rainbow"), ("rb", "rainbow"), ("brown", "brown"), ("bt", "brown"), ("brook", "brook"))
RETURNED, KEPT = (
    ("y", "yes", "returned", "released", "c&r", "back", "true", "1", "x"),
    ("n", "no", "kept", "killed", "0"),
)
SIXTEENTHS = {name: 22.5 * n for n, name in enumerate(
    ("n", "nne", "ne", "ene", "e", "ese", "se", "sse", "s", "ssw", "sw", "wsw", "w", "wnw", "nw", "nnw"))}  # fmt: skip


@dataclass(frozen=True)
class Entry:
    """One line read: lengths in metres, hours, °C, degrees; None and "" where it says nothing."""

    line: int
    date: date
    water: uuid.UUID
    began: time | None = None
    ended: time | None = None
    hours: float | None = None
    place: str = ""
    method: str = ""
    line_title: str = ""
    depth: float | None = None
    flies: tuple[str, ...] = ()
    takes: int = 0
    landed: int = 0
    lost: int = 0
    species: str = ""
    length: float | None = None
    returned: bool | None = None
    temperature: float | None = None
    wind: float | None = None
    note: str = ""


class _RefusedError(ValueError):
    """A cell that cannot be read: what it is, and what would be accepted."""

    def __init__(self, message: str, accepted: str):
        self.accepted = accepted
        super().__init__(message)


def _between(
    low: float, high: float, unit: str, factor: Callable[[float], float] = lambda value: value
) -> Callable[[str], float]:
    """How a number between two bounds is read: those and it in the notebook's own unit, `factor` makes it ours."""

    def read(cell: str) -> float:
        accepted = f"{low:g} to {high:g} {unit}"
        try:
            value = read_number(cell)
        except ValueError:
            raise _RefusedError("this is no number", accepted) from None
        if not low <= value <= high:
            raise _RefusedError("that is outside what can be", accepted)
        return factor(value)

    return read


def _count(cell: str) -> int:
    value = _between(0, MOST_FISH, "fish")(cell)
    if value != int(value):
        raise _RefusedError("this is no whole number", f"0 to {MOST_FISH}")
    return int(value)


def _wind(cell: str) -> float | None:
    """The bearing a wind came from, where the cell begins with a point of the compass."""
    words = cell.lower().replace("-", "").replace("north", "n").replace("south", "s").replace("east", "e")
    first = words.replace("west", "w").replace("erly", "").split() or [""]
    return SIXTEENTHS.get("".join(first[:2])) if "".join(first[:2]) in SIXTEENTHS else SIXTEENTHS.get(first[0])


def _returned(cell: str) -> bool | None:
    word = cell.lower().split()[0]
    return True if word in RETURNED else False if word in KEPT else None


def _flies(cell: str) -> tuple[str, ...]:
    return tuple(fly.strip()[:80] for fly in re.split(r"[,;/+]", cell) if fly.strip())[:10]


def method_of(words: str) -> str:
    """Return the way of fishing an angler's words mean, "other" where they tell none."""
    told = words.casefold()
    return next((method for word, method in METHOD_WORDS if word in told), "other")


def _text(length: int) -> Callable[[str], str]:
    return lambda cell: cell[:length]


def _readers(asked: MappingBody) -> dict[Field, tuple[str, Callable[[str], Any]]]:
    """For each meaning the name of what it fills and how its cell is read."""
    depth = _between(0, 984, "ft", lambda d: d * FOOT_M) if asked.depth_unit == "ft" else _between(0, 300, "m")
    inches, cm = _between(2, 59, "in", lambda n: n * INCH_M), _between(5, 150, "cm", lambda n: n / 100)
    warm = _between(30, 104, "°F", fahrenheit_to_c) if asked.temperature_unit == "f" else _between(-1, 40, "°C")
    return {
        "date": ("date", lambda cell: read_day(cell, asked.day_order)),
        "began": ("began", read_clock),
        "ended": ("ended", read_clock),
        "hours": ("hours", _between(0, 24, "hours")),
        "place": ("place", _text(80)),
        "method": ("method", _text(120)),
        "line": ("line_title", _text(120)),
        "depth": ("depth", depth),
        "flies": ("flies", _flies),
        "takes": ("takes", _count),
        "landed": ("landed", _count),
        "lost": ("lost", _count),
        "species": ("species", lambda cell: next((s for word, s in SPECIES if word in cell.casefold()), "")),
        "length": ("length", inches if asked.length_unit == "in" else cm),
        "returned": ("returned", _returned),
        "temperature": ("temperature", warm),
        "wind": ("wind", _wind),
        "note": ("note", _text(400)),
    }  # fmt: skip


ACCEPTED: dict[Field, str] = {
    "date": "a day, such as 14/5/2026",
    "began": "a time of day, such as 9:30",
    "ended": "a time of day, such as 16:00",
}


def _cell(field: Field, cell: str, read: Callable[[str], Any]) -> tuple[Any, tuple[str, str] | None]:
    """What a cell says, and what is wrong with it with what is accepted."""
    try:
        return read(cell), None
    except _RefusedError as error:
        return None, (f"'{cell[:40]}': {error}.", error.accepted)
    except ValueError:
        return None, (f"'{cell[:40]}': this cannot be read.", ACCEPTED.get(field, "another value"))


def _whole(values: dict[str, Any]) -> list[tuple[str, str]]:
    """What is wrong with a line as a whole."""
    faults = []
    if "date" not in values:
        faults.append(("There is no day on this line.", ACCEPTED["date"]))
    elif values["date"].year < EARLIEST.year:
        faults.append((f"That is before {EARLIEST.year}.", f"a day since {EARLIEST.year}"))
    began, ended = values.get("began"), values.get("ended")
    if began and ended and ended < began:
        faults.append(("It ends before it starts.", "an end after the start"))
    return faults


def _line(n: int, cells: dict[str, tuple[Field, str]], water: uuid.UUID, asked: MappingBody) -> Entry | list[Problem]:
    """One line: what its cells (by the names of their columns) say, or all that is wrong with it."""
    readers = _readers(asked)
    values: dict[str, Any] = {"line": n}
    faults: list[Problem] = []
    for name, (field, cell) in cells.items():
        if field == "water":
            continue
        where, read = readers[field]
        value, fault = _cell(field, cell, read)
        if fault is not None:
            faults.append(Problem("notebook", f"line {n}, {name}", *fault))
        elif value is not None:
            values[where] = value
    if not faults:
        faults = [Problem("notebook", f"line {n}", *fault) for fault in _whole(values)]
    wind = next((cell for field, cell in cells.values() if field == "wind"), "")
    note = "; ".join(filter(None, (values.get("note", ""), f"Wind {wind}" if wind else "")))
    return faults or Entry(**{**values, "water": water, "note": note[:400]})


def entries(table: Notebook, asked: MappingBody) -> tuple[list[Entry], list[Problem]]:
    """Return a notebook's lines as they are read, and why each of the others is refused: all that is wrong with it."""
    found: list[Entry] = []
    refused: list[Problem] = []
    unknown: dict[str, list[int]] = defaultdict(list)
    for n, cells in table.lines:
        meant = zip(table.columns, asked.fields, cells, strict=False)
        told = {name: (field, cell) for name, field, cell in meant if field and cell}
        named = next((cell for field, cell in told.values() if field == "water"), "")
        water = asked.waters.get(named) if named else asked.water_id
        read = _line(n, told, water or uuid.UUID(int=0), asked)
        if not isinstance(read, Entry):
            refused += read
        if water is None:
            unknown[named].append(n)
        elif isinstance(read, Entry):
            found.append(read)
    return found, [_no_water(named, lines) for named, lines in unknown.items()] + refused


def _no_water(named: str, lines: list[int]) -> Problem:
    """Why the lines of a water that is not the angler's are left out, told once."""
    where = ", ".join(map(str, lines[:6])) + (f" and {len(lines) - 6} more" if len(lines) > 6 else "")
    says = f"No water of yours is meant by '{named[:40]}'." if named else "No water is named."
    return Problem("notebook", f"line {where}" if len(lines) == 1 else f"lines {where}", says, "choose which it is")
