"""What an angler saw of the food on earlier days, on every water, as the planner reads it."""

from __future__ import annotations

from datetime import date, datetime
from typing import Any

from pydantic import ValidationError

from stillthread.core.evidence.seen_before import SeenBefore
from stillthread.waters.models import Reading, Water
from stillthread.waters.services import local_time, reading_out
from stillthread.web.owned import live

# The newest readings looked through: older ones count for less anyway.
MOST_READINGS = 150


def _of(row: Reading, on: date, same: bool) -> SeenBefore | None:
    """What was seen with a reading; None where a row of before today's limits cannot be read."""
    try:
        told = reading_out(row)
    except ValidationError:
        return None
    profile = row.own_profile
    surface = profile[0]["temperature_c"] if profile and profile[0]["depth_m"] <= 1.0 else None
    return SeenBefore(on=on, sightings=told.sightings, samples=told.samples, surface_c=surface, same_water=same)


def seen_before(owner: Any, water: Water, before: datetime) -> list[SeenBefore]:
    """Return what the owner saw on days before that of an instant, on every water: of each day its last reading with anything
    seen. This water's days are marked.
    """
    rows = live(Reading, owner).filter(taken_at__lt=before).exclude(sightings=[], samples=[]).select_related("water")
    today = local_time(water, before).date()
    found: dict[tuple[Any, date], SeenBefore | None] = {}
    for row in rows[:MOST_READINGS]:
        day = row.water_id, local_time(row.water, row.taken_at).date()
        if day not in found and day[1] < today:
            found[day] = _of(row, day[1], same=row.water_id == water.pk)
    return [one for one in found.values() if one is not None]
