"""What the log says by any of what was noted: effort, takes and rates, and two of anything against each other."""

from __future__ import annotations

import uuid
from collections import defaultdict
from dataclasses import dataclass
from datetime import datetime
from typing import Any

from stillthread.accounts.services import angler_of
from stillthread.core.evidence.compare import Both, in_words, rate_ratio
from stillthread.core.evidence.rates import poisson_rate
from stillthread.flybox.models import Fly
from stillthread.outings.answers_schemas import AnswersOut, By, ComparedOut, GroupOut, LogFilter
from stillthread.outings.conditions import Conditions, conditions_by_day, conditions_of, wind_point
from stillthread.outings.effort import bin_step_m, fish_of, live_spells, stretches
from stillthread.outings.models import Outing, Spell
from stillthread.waters.services import local_time
from stillthread.web.owned import live

MOST_OUTINGS = 1000
HOURS_A_PART = 3
DEGREES_A_STEP = 2
UNKNOWN = ""


@dataclass(frozen=True)
class Part:
    """A stretch's effort [hours], takes and fish under one of what was noted of it."""

    key: str
    outing: uuid.UUID
    spell: uuid.UUID
    hours: float
    takes: int
    landed: int


def fits(outing: Outing, told: Conditions, asked: LogFilter) -> bool:
    """Whether an outing is among those asked for."""
    local = local_time(outing.water, outing.started_at)
    near = asked.surface_c is None or (
        told.surface_c is not None and abs(told.surface_c - asked.surface_c) <= DEGREES_A_STEP
    )
    return (
        (asked.month is None or local.month == asked.month)
        and near
        and (not asked.wind or wind_point(told) == asked.wind)
        and (not asked.q or _mentions(outing, asked.q))
    )


def _mentions(outing: Outing, words: str) -> bool:
    spells = live_spells(outing)
    texts = [outing.note, *(s.title for s in spells), *(s.place for s in spells), *(f for s in spells for f in s.flies)]
    texts += [event.note for s in spells for event in s.events.all()]
    told = " ".join(texts).casefold()
    return all(word in told for word in words.casefold().split())


def asked_for(owner: Any, asked: LogFilter) -> list[tuple[Outing, Conditions]]:
    """Return the outings asked for, newest first, each with what was read on its day."""
    rows = live(Outing, owner).select_related("water").prefetch_related("spells__events").defer("plan_snapshot")
    if asked.water_id is not None:
        rows = rows.filter(water_id=asked.water_id)
    outings = list(rows[:MOST_OUTINGS])
    by_day = conditions_by_day(owner, {one.water_id for one in outings})
    found = ((one, conditions_of(one, by_day)) for one in outings)
    return [(one, told) for one, told in found if fits(one, told, asked)]


def _fly_parts(spell: Spell, name_of: dict[str, str]) -> dict[str, tuple[int, int]]:
    """Takes and fish by fly: a take whose fly was not noted counts for none, unless there was one fly alone."""
    flies = [name for name in spell.flies if name]
    found = {name_of.get(name, name): (0, 0) for name in flies}
    for event in fish_of(spell):
        fly = event.fly or (flies[0] if len(flies) == 1 else "")
        key = name_of.get(fly, fly)
        if key in found:
            takes, landed = found[key]
            found[key] = takes + 1, landed + (event.kind == "landed")
    return found


def _local_part(outing: Outing, at: datetime) -> str:
    hour = local_time(outing.water, at).hour // HOURS_A_PART * HOURS_A_PART
    return f"{hour:02d}–{hour + HOURS_A_PART:02d} h"


def _key(by: By, outing: Outing, spell: Spell, told: Conditions, step_m: float) -> str:
    """What a stretch is put under, for all but flies and their like; empty where it was not noted."""
    match by:
        case "water":
            return outing.water.name
        case "month":
            return f"{local_time(outing.water, spell.started_at).month:02d}"
        case "time":
            return _local_part(outing, spell.started_at)
        case "depth":
            return "" if spell.depth_m is None else f"{int(spell.depth_m / step_m + 1e-9)}"
        case "surface":
            return "" if told.surface_c is None else f"{int(told.surface_c // DEGREES_A_STEP * DEGREES_A_STEP)}"
        case "wind":
            return wind_point(told)
        case "line":
            return spell.line_title
        case _:
            return str(getattr(spell, by))


def _names(owner: Any, by: By) -> dict[str, str]:
    """What a fly is counted as: itself, what it stands for, or its tone."""
    if by not in ("prey", "tone"):
        return {}
    flies = live(Fly, owner)
    return {one.name: (one.prey[0] if one.prey else "") if by == "prey" else one.tone for one in flies}


def parts(owner: Any, asked: LogFilter, by: By) -> list[Part]:
    """Return every stretch asked for under what it is to be sorted by; of a team each fly has the whole effort."""
    step_m, names = bin_step_m(angler_of(owner).depth_unit), _names(owner, by)
    found = []
    for outing, told in asked_for(owner, asked):
        for spell, effort in zip(live_spells(outing), stretches(outing), strict=True):
            if effort.hours <= 0:
                continue
            if by in ("fly", "prey", "tone"):
                rows = _fly_parts(spell, names)
            else:
                rows = {_key(by, outing, spell, told=told, step_m=step_m): (effort.takes, effort.landed)}
            found += [
                Part(key=key, outing=outing.pk, spell=spell.pk, hours=effort.hours, takes=takes, landed=landed)
                for key, (takes, landed) in rows.items()
                if key != UNKNOWN
            ]
    return found


def answers(owner: Any, asked: LogFilter, by: By) -> AnswersOut:
    """Return effort, takes and their rate by what is asked, most effort first; blank time counts."""
    groups: dict[str, list[Part]] = defaultdict(list)
    for part in parts(owner, asked, by):
        groups[part.key].append(part)
    rows = []
    for key, these in groups.items():
        hours, takes = sum(p.hours for p in these), sum(p.takes for p in these)
        rate = poisson_rate(takes, hours)
        outings = list(dict.fromkeys(p.outing for p in these))
        rows.append(GroupOut(key=key, takes=vars(rate), landed=sum(p.landed for p in these), outings=outings))
    ordered = by in ("month", "time", "depth", "surface")
    rows.sort(key=lambda row: (_order(row.key), row.key) if ordered else (-row.takes.hours, row.key))
    return AnswersOut(by=by, step_m=bin_step_m(angler_of(owner).depth_unit), groups=rows)


def _order(key: str) -> float:
    return float(key) if key.lstrip("-").isdigit() else 0.0


def compared(owner: Any, asked: LogFilter, by: By, pair: tuple[str, str], names: tuple[str, str]) -> ComparedOut:
    """Return two of anything against each other within outings; `names` are what the sentence calls them."""
    days: dict[uuid.UUID, dict[str, list[float]]] = defaultdict(lambda: {key: [0.0, 0.0] for key in pair})
    for part in parts(owner, asked, by):
        if part.key in pair:
            day = days[part.outing][part.key]
            day[0], day[1] = day[0] + part.hours, day[1] + part.takes
    both = [Both(*_side(day[pair[0]]), *_side(day[pair[1]])) for day in days.values()]
    ratio = rate_ratio(both)
    return ComparedOut(
        ratio=ratio.ratio,
        low=ratio.low,
        high=ratio.high,
        outings=ratio.outings,
        sure=ratio.sure,
        more_hours=ratio.more_hours,
        sentence=in_words(*names, ratio),
    )


def _side(told: list[float]) -> tuple[float, int]:
    return told[0], int(told[1])
