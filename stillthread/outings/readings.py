"""What was read on the day of an outing, one's own and a partner's, and what of it holds now."""

from __future__ import annotations

import uuid
from dataclasses import dataclass
from datetime import datetime, timedelta
from typing import Any

from django.db.models import Q, QuerySet
from django.utils import timezone

from stillthread.core.noted import reading as noted
from stillthread.core.noted.standing import Taken, holding, read_at
from stillthread.core.reading.cautions import ENDS_THE_DAY, Caution
from stillthread.outings.models import Outing
from stillthread.outings.together import others
from stillthread.waters.models import Reading
from stillthread.waters.reading_services import ahead
from stillthread.waters.schemas import AheadOut
from stillthread.waters.services import taken
from stillthread.web.owned import get_owned

READ_WITHIN = timedelta(hours=18)
MOST_READINGS = 40
PLANNED_MARGIN = timedelta(minutes=10)  # a plan for now is of these ten minutes


@dataclass(frozen=True)
class Now:
    """What is known of an outing's water at an instant.

    `row` is the newest reading and `reading` what of it and of those before it holds; `stops` are the stops that the outing's
    own plan gave and that no reading has answered since.
    """

    row: Reading | None
    reading: noted.Reading
    stops: tuple[Caution, ...]


def readings_of(outing: Outing, now: datetime) -> QuerySet[Reading]:
    """Return what was read by an instant, newest first: one's own, and what an angler read with whom the outing is shared."""
    told = Q(water=outing.water, taken_at__lte=now)
    for other, until in others(outing, now):
        told |= Q(water=other.water, taken_at__lte=until)
    return Reading.objects.filter(told, deleted_at__isnull=True)


def _stops_of_plan(outing: Outing, read: list[Taken]) -> tuple[Caution, ...]:
    """The stops of the plan an outing was begun with, until a reading since then names the same thing."""
    found = []
    for one in (outing.plan_snapshot or {}).get("cautions", []):
        topic = ENDS_THE_DAY.get(one.get("code"))
        if topic is None or one.get("level") != "stop":
            continue
        since = outing.started_at - PLANNED_MARGIN
        if not any((at := read_at(each, topic)) is not None and at >= since for each in read):
            found.append(Caution(one["code"], "stop", one.get("sentence", "")))
    return tuple(found)


def now_at(outing: Outing, now: datetime) -> Now:
    """Return what is known of an outing's water at an instant, from the readings of the last 18 hours and its own plan."""
    rows = list(readings_of(outing, now).filter(taken_at__gte=now - READ_WITHIN)[:MOST_READINGS])
    read = [taken(row) for row in rows]
    reading = holding(read, now) or noted.Reading()
    return Now(row=rows[0] if rows else None, reading=reading, stops=_stops_of_plan(outing, read))


def read_ahead(owner: Any, outing_id: uuid.UUID) -> list[AheadOut]:
    """Return the stops and cautions of an outing's day, those of its own plan while they hold. Raises Http404 for another's."""
    outing = get_owned(Outing, owner, outing_id)
    now = outing.ended_at or timezone.now()
    known = now_at(outing, now)
    read = Taken(known.reading, known.row.taken_at) if known.row is not None else None
    found = ahead(outing.water, now, read, outing.started_at)
    said = {(one.code, one.level) for one in found if one.since <= now}
    planned = [
        AheadOut(since=outing.started_at, code=one.code, level=one.level, sentence=one.sentence)
        for one in known.stops
        if (one.code, one.level) not in said
    ]
    return planned + found
