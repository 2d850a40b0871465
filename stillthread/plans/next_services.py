"""What to do next in an outing on the go: its stretches laid on a plan made for now."""

from __future__ import annotations

import uuid
from collections import OrderedDict
from datetime import datetime, timedelta
from threading import Lock
from typing import Any

from django.utils import timezone

from stillthread.accounts.services import angler_of
from stillthread.core.errors import InputError, Problem
from stillthread.core.noted import reading as noted
from stillthread.core.noted.turned import turned
from stillthread.core.plan.make import make_plan
from stillthread.core.plan.model import Plan
from stillthread.core.search.day import Fished, Happening, Seen, SoFar, advise
from stillthread.core.search.model import Costs
from stillthread.core.search.over_day import over_the_day
from stillthread.documents.advise import AdviseAnswer, OverDayOut, advise_answer, over_day_answer
from stillthread.documents.plan import PlanRequest, plan_input_from
from stillthread.outings.effort import fish_of, live_events, live_spells, spell_end
from stillthread.outings.models import Outing, SeenNearby, Spell
from stillthread.plans.exposures import shared_paths
from stillthread.plans.schemas import PlanBody, TurnBody
from stillthread.plans.services import request_for
from stillthread.waters.models import Reading
from stillthread.waters.schemas import ReadingBody
from stillthread.waters.services import put_reading, reading_out
from stillthread.web.owned import get_owned, live

# Light and the warming top are laid into the belief anew this often.
ANEW = timedelta(minutes=30)
READ_WITHIN = timedelta(hours=18)
LEAST_LEFT_MIN = 60.0
KEPT_PLANS = 16
MOST_CHANGES = 6
HAPPENS = ("pluck", "follow", "weed", "bottom")

_plans: OrderedDict[str, Plan] = OrderedDict()
_lock = Lock()


def _plan_for(request: PlanRequest) -> Plan:
    """The plan of a request, remembered: between two taps nothing of it changes."""
    name = request.model_dump_json()
    with _lock:
        if name in _plans:
            _plans.move_to_end(name)
            return _plans[name]
    made = make_plan(plan_input_from(request), shared_paths())
    with _lock:
        _plans[name] = made
        while len(_plans) > KEPT_PLANS:
            _plans.popitem(last=False)
    return made


def _body(outing: Outing, place: str, now: datetime, hours: float) -> PlanBody:
    """The newest reading of the water, planned for now."""
    when = datetime.fromtimestamp(now.timestamp() // ANEW.total_seconds() * ANEW.total_seconds(), tz=now.tzinfo)
    newest = _newest(outing, now)
    known = {p.name for p in outing.water.places.all() if p.deleted_at is None}
    return PlanBody.model_validate(
        {
            "water_id": outing.water_id,
            "when": when,
            "place": place if place in known else None,
            "session_h": hours,
            "reading": newest.reading if newest else {},
            "sightings": newest.sightings if newest else [],
            "samples": newest.samples if newest else [],
        }
    )


def _fished(outing: Outing, spell: Spell, end: datetime) -> Fished:
    """A stretch of the log as the search has it."""
    takes = [(event.occurred_at, "take", event.fly) for event in fish_of(spell)]
    others = [(e.occurred_at, e.kind, e.fly) for e in live_events(spell) if e.kind in HAPPENS]
    set_ups = (outing.plan_snapshot or {}).get("set_ups", [])
    n = spell.set_up_index
    minutes = max(0.0, (end - spell.started_at).total_seconds() / 60)
    return Fished(
        began=spell.started_at,
        minutes=min(minutes, 1440.0),
        method=spell.method,
        place=spell.place,
        set_up=set_ups[n].get("key") if n is not None and n < len(set_ups) else None,
        count_s=spell.count_s,
        depth_m=spell.depth_m,
        low_m=spell.low_m,
        high_m=spell.high_m,
        pace=spell.pace,  # type: ignore[arg-type]  # checked when it was written
        flies=tuple(name for name in spell.flies if name),
        happened=tuple(
            Happening(minute=min(max(0.0, (at - spell.started_at).total_seconds() / 60), 1440.0), kind=kind, fly=fly)  # type: ignore[arg-type]
            for at, kind, fly in sorted(takes + others)
        ),
    )


def _newest(outing: Outing, now: datetime) -> Reading | None:
    rows = live(Reading, outing.owner).filter(water=outing.water, taken_at__lte=now, taken_at__gte=now - READ_WITHIN)
    return rows.first()


def turn(owner: Any, outing_id: uuid.UUID, body: TurnBody) -> AdviseAnswer:
    """Note a turn of the day as a reading of its own, under the client's UUID, and return what to do next.

    The newest reading of the water is carried on with what changed. Raises Http404 for another's outing, InputError for one
    that is over.
    """
    outing = get_owned(Outing, owner, outing_id)
    if outing.ended_at is not None:
        raise InputError(Problem("ended", "", "This outing is over.", "an outing on the go"))
    if live(Reading, owner).filter(pk=body.reading_id).exists():
        return next_for(owner, outing_id)  # sent twice, it is one turn
    now = timezone.now()
    newest = _newest(outing, now)
    before = reading_out(newest) if newest else None
    reading, sightings = turned(
        before.reading if before else noted.Reading(),
        before.sightings if before else (),
        body.turn,
        before.taken_at if before else now,
    )
    new = ReadingBody(
        place=before.place if before else None,
        taken_at=now,
        reading=reading,
        sightings=sightings,
        samples=before.samples if before else (),
    )
    put_reading(owner, outing.water.pk, body.reading_id, new)
    return next_for(owner, outing_id)


def _seen(row: SeenNearby) -> Seen:
    """A sighting of others as the search has it."""
    return Seen(
        at=row.seen_at,
        minutes=row.minutes,
        takes=row.takes,
        place=row.place,
        depth_m=row.depth_m,
        pace=row.pace or None,  # type: ignore[arg-type]  # checked when it was written
        fly=row.fly,
    )


def _so_far(owner: Any, outing: Outing, hours: float) -> tuple[PlanRequest, SoFar]:
    """What is asked of the plan, and the day so far: until now, or until the outing ended."""
    now = outing.ended_at or timezone.now()
    spells = live_spells(outing)
    starts = [*(spell.started_at for spell in spells[1:]), None][: len(spells)]
    fished = tuple(
        _fished(
            outing, spell, now if spell is spells[-1] and spell.ended_at is None else spell_end(spell, following, now)
        )
        for spell, following in zip(spells, starts, strict=True)
    )
    request = request_for(owner, _body(outing, spells[-1].place if spells else "", now, hours))
    gone = (now - outing.started_at).total_seconds() / 60
    readings = live(Reading, owner).filter(water=outing.water, taken_at__gt=outing.started_at, taken_at__lte=now)
    return request, SoFar(
        now=now,
        fished=fished,
        others=tuple(_seen(row) for row in live(SeenNearby, owner).filter(outing=outing)),
        costs=Costs(**angler_of(owner).costs),
        changed=tuple(readings.values_list("taken_at", flat=True)[:MOST_CHANGES]),
        minutes_left=max(LEAST_LEFT_MIN, 60 * hours - gone),
    )


def next_for(owner: Any, outing_id: uuid.UUID, hours: float = 4.0) -> AdviseAnswer:
    """Return what to do next in an outing, from everything fished in it so far. Raises Http404 for another's outing.

    Raises InputError where no plan can be made (no line, no fly).
    """
    request, so_far = _so_far(owner, get_owned(Outing, owner, outing_id), hours)
    return advise_answer(advise(plan_input_from(request), so_far, shared_paths(), _plan_for(request)))


def over_day_for(owner: Any, outing_id: uuid.UUID) -> OverDayOut:
    """Return how the belief went through an outing. Raises as `next_for` does."""
    outing = get_owned(Outing, owner, outing_id)
    lasts = ((outing.ended_at or timezone.now()) - outing.started_at).total_seconds() / 3600
    request, so_far = _so_far(owner, outing, min(max(lasts, 1.0), 18.0))
    return over_day_answer(over_the_day(plan_input_from(request), so_far, shared_paths(), _plan_for(request)))
