"""Taking in an old notebook: its lines as outings, shown first, then written all at once."""

from __future__ import annotations

import uuid
from collections import Counter, defaultdict
from collections.abc import Iterable
from dataclasses import dataclass, field
from datetime import date, datetime, time, timedelta
from typing import Any
from zoneinfo import ZoneInfo

from django.db import transaction
from django.utils import timezone

from stillthread.core.errors import Problem
from stillthread.formats.notebook import Notebook, guess
from stillthread.outings.facts import forget_counts
from stillthread.outings.models import Event, Outing, Spell
from stillthread.outings.notebook_lines import Entry, entries, method_of
from stillthread.outings.notebook_schemas import (
    MappingBody,
    NamedWaterOut,
    NotebookDayOut,
    NotebookOut,
    NotebookTakenOut,
)
from stillthread.waters.models import Reading, Water
from stillthread.web.errors import ProblemOut
from stillthread.web.owned import live

USUAL_BEGIN = time(9)
FIRST_LINES, MOST_TOLD = 5, 100
NAMES = uuid.UUID("f0d3c6a1-52a1-4d0b-9a7e-1a3f4b0c7d55")  # names what comes from a notebook
CHUNK = 400


@dataclass
class Stretch:
    """Lines fished alike, one after the other."""

    lines: list[Entry]
    began: datetime
    ended: datetime


@dataclass
class Day:
    """A day on a water with its stretches."""

    on: date
    water: Water
    stretches: list[Stretch] = field(default_factory=list)

    def own_id(self, *parts: object) -> uuid.UUID:
        """The UUID of something of this day: the same notebook taken in twice is the same rows."""
        return uuid.uuid5(NAMES, "/".join(map(str, (self.water.owner_id, self.water.pk, self.on, *parts))))


def _hours_of(lines: list[Entry]) -> float | None:
    return next((one.hours for one in lines if one.hours is not None), None)


def _groups(lines: list[Entry], a_line: str) -> list[list[Entry]]:
    """The lines of a day by stretch: each its own, or, of fish, those taken in one way at one place together."""
    if a_line == "stretch":
        return [[one] for one in lines]
    alike: dict[tuple[Any, ...], list[Entry]] = defaultdict(list)
    for one in lines:
        alike[(one.place, one.method, one.line_title, one.depth, one.flies)].append(one)
    return list(alike.values())


def _day(on: date, water: Water, lines: list[Entry], asked: MappingBody) -> Day:
    """Lay a day's lines one after the other: by their times where they have them, else sharing the day's hours."""
    zone, day = ZoneInfo(water.time_zone), Day(on, water)
    groups = _groups(lines, asked.a_line)
    fish = asked.a_line == "fish"
    share = (_hours_of(lines) or asked.day_h) / len(groups)
    first = min((one.began for one in lines if one.began is not None), default=USUAL_BEGIN)
    at = datetime.combine(on, first, zone)
    for group in groups:
        told = group[0]
        if told.began is not None and not fish:
            at = datetime.combine(on, told.began, zone)
        length = share if fish or told.hours is None else told.hours
        end = at + timedelta(hours=length)
        if told.ended is not None and not fish:
            end = max(at, datetime.combine(on, told.ended, zone))
        day.stretches.append(Stretch(group, at, end))
        at = end
    return day


def days_of(found: list[Entry], waters: dict[uuid.UUID, Water], asked: MappingBody) -> list[Day]:
    """Return a notebook's lines as days, the newest first."""
    by_day: dict[tuple[date, uuid.UUID], list[Entry]] = defaultdict(list)
    for one in found:
        by_day[(one.date, one.water)].append(one)
    days = [_day(on, waters[water], lines, asked) for (on, water), lines in by_day.items()]
    return sorted(days, key=lambda day: (day.on, day.water.name), reverse=True)


def _kinds(one: Entry, a_line: str) -> list[str]:
    """What a line's fish were: landed, lost, and the rest of the takes. A line a fish without a count is one landed."""
    if a_line == "fish" and not (one.takes or one.landed or one.lost):
        return ["landed"]
    return ["landed"] * one.landed + ["lost"] * one.lost + ["take"] * max(0, one.takes - one.landed - one.lost)


def _events(day: Day, spell: uuid.UUID, stretch: Stretch, asked: MappingBody) -> list[Event]:
    """A stretch's fish, spread over its time: nobody wrote down when; of those with one fish a line by their own times."""
    fish = [(one, kind) for one in stretch.lines for kind in _kinds(one, asked.a_line)]
    step = (stretch.ended - stretch.began) / (len(fish) + 1)
    rows = []
    for n, (one, kind) in enumerate(fish):
        at = stretch.began + step * (n + 1)
        if asked.a_line == "fish" and one.began is not None:
            at = datetime.combine(day.on, one.began, stretch.began.tzinfo)
        alone = len(one.flies) == 1
        rows.append(
            Event(
                id=day.own_id(spell, one.line, n),
                owner=day.water.owner,
                spell_id=spell,
                kind=kind,
                occurred_at=at,
                depth_m=one.depth,
                fly=one.flies[0] if alone else "",
                species=one.species,
                length_m=one.length if kind == "landed" else None,
                released=one.returned if kind == "landed" else None,
                note=one.note if asked.a_line == "fish" else "",
            )
        )
    return rows


def _spell(day: Day, n: int, stretch: Stretch) -> Spell:
    told = stretch.lines[0]
    return Spell(
        id=day.own_id("stretch", n),
        owner=day.water.owner,
        outing_id=day.own_id(),
        place=told.place,
        method=method_of(f"{told.method} {told.line_title}"),
        title=told.method or told.line_title or "From the notebook",
        line_title=told.line_title,
        depth_m=told.depth,
        pace="static",
        flies=list(told.flies),
        started_at=stretch.began,
        ended_at=stretch.ended,
    )


def _reading(day: Day) -> Reading | None:
    """What was written of the water on a day: its surface, and where the wind came from."""
    lines = [one for stretch in day.stretches for one in stretch.lines]
    warm = next((one.temperature for one in lines if one.temperature is not None), None)
    wind = next((one.wind for one in lines if one.wind is not None), None)
    if warm is None and wind is None:
        return None
    told: dict[str, Any] = {"profile": [] if warm is None else [{"depth_m": 0.0, "temperature_c": round(warm, 2)}]}
    if wind is not None:
        told["wind_from_deg"] = wind
    return Reading(
        id=day.own_id("reading"), owner=day.water.owner, water=day.water, taken_at=day.stretches[0].began, reading=told
    )


def _outing(day: Day) -> Outing:
    notes = dict.fromkeys(one.note for stretch in day.stretches for one in stretch.lines if one.note)
    return Outing(
        id=day.own_id(),
        owner=day.water.owner,
        water=day.water,
        started_at=day.stretches[0].began,
        ended_at=max(stretch.ended for stretch in day.stretches),
        note="\n".join(notes)[:4000],
    )


def _here(days: Iterable[Day]) -> dict[uuid.UUID, bool]:
    """The days taken in before, and whether each was deleted since."""
    ids = [day.own_id() for day in days]
    found: dict[uuid.UUID, bool] = {}
    for n in range(0, len(ids), CHUNK):
        rows = Outing.objects.filter(pk__in=ids[n : n + CHUNK]).values_list("pk", "deleted_at")
        found |= {pk: deleted is not None for pk, deleted in rows}
    return found


def _read(owner: Any, table: Notebook, asked: MappingBody) -> tuple[list[Day], list[Problem]]:
    waters = {water.pk: water for water in live(Water, owner)}
    found, refused = entries(table, asked)
    mine = [one for one in found if one.water in waters]
    foreign = [one for one in found if one.water not in waters]
    ahead = [one for one in mine if one.date > timezone.now().date() + timedelta(days=1)]
    refused += [
        Problem("notebook", f"line {one.line}", "There is no such water of yours.", "a water of yours")
        for one in foreign
    ]
    refused += [
        Problem("notebook", f"line {one.line}", "That day is yet to come.", "a day that has been") for one in ahead
    ]
    late = {one.line for one in ahead}
    return days_of([one for one in mine if one.line not in late], waters, asked), refused


def _named(owner: Any, table: Notebook, asked: MappingBody) -> list[NamedWaterOut]:
    """What the notebook calls waters, with the one meant: as chosen, or of the same name."""
    if "water" not in asked.fields:
        return []
    at = asked.fields.index("water")
    by_name = {water.name.casefold(): water.pk for water in live(Water, owner)}
    counts = Counter(cells[at] for _, cells in table.lines if cells[at])
    return [
        NamedWaterOut(name=name, lines=lines, water_id=asked.waters.get(name, by_name.get(name.casefold())))
        for name, lines in counts.most_common(200)
    ]


def guessed(table: Notebook) -> MappingBody:
    """Return what a notebook's columns seem to mean."""
    found = guess(table)
    counted = any(one in found.fields for one in ("landed", "takes"))
    return MappingBody(
        fields=list(found.fields),
        a_line="fish" if not counted and "length" in found.fields else "stretch",
        day_order=found.day_order,
        depth_unit=found.depth_unit,
        length_unit=found.length_unit,
        temperature_unit=found.temperature_unit,
    )


def preview(owner: Any, table: Notebook, asked: MappingBody | None) -> NotebookOut:
    """Return what a notebook would become, by what its columns are said to mean, or seem to; nothing is written."""
    mapping = asked or guessed(table)
    named = _named(owner, table, mapping)
    waters = {one.name: one.water_id for one in named if one.water_id is not None}
    only = list(live(Water, owner).values_list("pk", flat=True)[:2])
    water = mapping.water_id or (only[0] if len(only) == 1 else None)
    mapping = mapping.model_copy(update={"waters": waters, "water_id": water})
    days, refused = _read(owner, table, mapping)
    here = _here(days)
    return NotebookOut(
        columns=list(table.columns),
        first_lines=[list(cells) for _, cells in table.lines[:FIRST_LINES]],
        mapping=mapping,
        waters=named,
        days=[_day_out(day, mapping, here=here.get(day.own_id()) is False) for day in days],
        refused=[ProblemOut(**one.as_dict()) for one in refused[:MOST_TOLD]],
        lines=len(table.lines),
    )


def _day_out(day: Day, asked: MappingBody, here: bool) -> NotebookDayOut:
    kinds = [kind for stretch in day.stretches for one in stretch.lines for kind in _kinds(one, asked.a_line)]
    hours = sum((stretch.ended - stretch.began).total_seconds() for stretch in day.stretches) / 3600
    return NotebookDayOut(
        on=day.on,
        water_name=day.water.name,
        stretches=len(day.stretches),
        hours=hours,
        takes=len(kinds),
        landed=kinds.count("landed"),
        here=here,
    )


@transaction.atomic
def take(owner: Any, table: Notebook, asked: MappingBody) -> NotebookTakenOut:
    """Take in a notebook's days, all of them or, where something fails, none.

    Days taken in before stay as they are; one deleted since comes back.
    """
    days, _ = _read(owner, table, asked)
    here = _here(days)
    back = [pk for pk, deleted in here.items() if deleted]
    for outing in Outing.objects.filter(pk__in=back):
        outing.deleted_at = None
        outing.save()
    new = [day for day in days if day.own_id() not in here]
    spells = {day.own_id(): [_spell(day, n, one) for n, one in enumerate(day.stretches)] for day in new}
    events = [
        event
        for day in new
        for spell, stretch in zip(spells[day.own_id()], day.stretches, strict=True)
        for event in _events(day, spell.pk, stretch, asked)
    ]
    Outing.objects.bulk_create([_outing(day) for day in new], batch_size=CHUNK)
    Spell.objects.bulk_create([spell for some in spells.values() for spell in some], batch_size=CHUNK)
    Event.objects.bulk_create(events, batch_size=CHUNK)
    readings = [row for row in map(_reading, new) if row is not None]
    Reading.objects.bulk_create(readings, batch_size=CHUNK, ignore_conflicts=True)
    forget_counts(owner)
    return NotebookTakenOut(days=len(new) + len(back), fish=len(events))
