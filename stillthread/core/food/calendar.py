"""The hatch calendar of one water: how much of each food is about, week by week, from its own year where it has one."""

from __future__ import annotations

import math
from dataclasses import dataclass
from datetime import datetime, timedelta

from stillthread.core.food.catalogue import CATALOGUE
from stillthread.core.food.season import DAYS, WaterYear, month_weight, season_shifts, warmth_weight

WEEKS = 52
# A record counts for the weeks about it, fading with this spread [days]; the calendar alone is worth four records.
RECORD_SPREAD_DAYS = 10.0
PRIOR_RECORDS = 4.0


@dataclass(frozen=True)
class CalendarRow:
    """One prey through the year: `weight` by week, 0 to 1, and the weeks (0 to 51) it was recorded on this water.

    `shift_days` is how far ahead of the usual year the water ran at the prey's best week.
    """

    key: str
    weight: tuple[float, ...]
    recorded: tuple[int, ...]
    shift_days: float


@dataclass(frozen=True)
class Calendar:
    """A year of food: surface temperature by week [°C] with its spread, and a row for each prey."""

    surface_c: tuple[float, ...]
    spread_c: tuple[float, ...]
    rows: tuple[CalendarRow, ...]
    sentence: str


def week_of(when: datetime) -> int:
    """Return the week of the year, 0 to 51, counted from 1 January."""
    return min((when.timetuple().tm_yday - 1) // 7, WEEKS - 1)


def _day(when: datetime) -> int:
    return min(when.timetuple().tm_yday, DAYS)


def _middle(start: datetime, week: int) -> datetime:
    return start + timedelta(days=7 * week + 3)


def _recorded_share(records: list[tuple[int, float]], when: datetime) -> float:
    """How many records, each fading with the days between, speak for a date."""
    day = when.timetuple().tm_yday
    gaps = [(abs(day - on), count) for on, count in records]
    return math.fsum(c * math.exp(-0.5 * (min(g, 365 - g) / RECORD_SPREAD_DAYS) ** 2) for g, c in gaps)


def _row(
    year: WaterYear, middles: list[datetime], shifts: list[dict[str, float]], key: str, records: list[tuple[int, float]]
) -> CalendarRow:
    prey = next(p for p in CATALOGUE if p.key == key)
    weights = []
    for when, shift in zip(middles, shifts, strict=True):
        by_season = month_weight(prey, when, year.hemisphere, shift[key]) * warmth_weight(
            prey, year.surface_c[_day(when) - 1]
        )
        seen = _recorded_share(records, when)
        weights.append((PRIOR_RECORDS * by_season + seen) / (PRIOR_RECORDS + seen))
    best = max(range(WEEKS), key=lambda w: weights[w])
    return CalendarRow(
        key, tuple(weights), tuple(sorted({min((d - 1) // 7, WEEKS - 1) for d, _ in records})), shifts[best][key]
    )


def food_calendar(
    year: WaterYear, calendar_year: int, zone: datetime, records: tuple[tuple[int, str, float], ...] = ()
) -> Calendar:
    """Return the calendar of a water for a `calendar_year`, in the zone of the aware instant `zone`.

    Season x warmth by the water's own `year`, its degree-days moving hatches where it has readings of its own; `records`
    are (day of the year, prey key, count) seen on this water, each raising its weeks: weight (4 w + n) / (4 + n), n the
    counts fading over 10 days. The stocked-fish instinct has no season and is left out.
    """
    start = datetime(calendar_year, 1, 1, 12, tzinfo=zone.tzinfo)
    middles = [_middle(start, week) for week in range(WEEKS)]
    shifts = [season_shifts(year, when) for when in middles]
    by_prey: dict[str, list[tuple[int, float]]] = {}
    for day, key, count in records:
        by_prey.setdefault(key, []).append((day, count))
    rows = [
        _row(year=year, middles=middles, shifts=shifts, key=prey.key, records=by_prey.get(prey.key, []))
        for prey in CATALOGUE
        if prey.weather != "stocked"
    ]
    days = [_day(when) - 1 for when in middles]
    return Calendar(
        tuple(year.surface_c[day] for day in days),
        tuple(year.spread_c[day] for day in days),
        tuple(rows),
        calendar_sentence(year, len(records)),
    )


def calendar_sentence(year: WaterYear, records: int) -> str:
    """Return where a calendar comes from, in words."""
    seen = (
        f" {records} {'record' if records == 1 else 'records'} of food seen here raise their weeks." if records else ""
    )
    if not year.known:
        count = f"{year.readings} of its own" if year.readings else "none of its own"
        return (
            f"The water's year is guessed from its latitude, with {count}: three readings make it this water's.{seen}"
        )
    return f"The water's year is fitted to {year.readings} surface readings of its own.{seen}"
