"""What to do next in an outing on the go: its stretches laid on a plan made for now."""

from __future__ import annotations

import uuid
from collections import OrderedDict
from dataclasses import replace
from datetime import datetime, timedelta
from threading import Lock
from typing import Any

from django.utils import timezone

from stillthread.accounts.services import angler_of
from stillthread.core.errors import InputError, Problem
from stillthread.core.noted.turned import turned
from stillthread.core.outing.day import advise
from stillthread.core.outing.if_blank import if_blank
from stillthread.core.outing.over_day import over_the_day
from stillthread.core.outing.so_far import Fished, Happening, Seen, SoFar
from stillthread.core.plan.make import make_plan
from stillthread.core.plan.model import Plan
from stillthread.core.search.model import Costs
from stillthread.documents.advise import (
    AdviseAnswer,
    IfBlankOut,
    OverDayOut,
    advise_answer,
    if_blank_answer,
    over_day_answer,
)
from stillthread.documents.plan import PlanRequest, plan_input_from
from stillthread.outings.effort import ended_spells, fish_of, live_events
from stillthread.outings.models import Outing, SeenNearby, Spell
from stillthread.outings.readings import Now, now_at, readings_of
from stillthread.outings.together import beside, others
from stillthread.plans.exposures import shared_paths
from stillthread.plans.schemas import PlanBody, TurnBody
from stillthread.plans.services import request_for
from stillthread.waters.models import Reading
from stillthread.waters.schemas import ReadingBody
from stillthread.waters.services import put_reading, reading_out
from stillthread.web.owned import get_owned, live

# Light and the warming top are laid into the belief anew this often.
ANEW = timedelta(minutes=30)
LEAST_LEFT_MIN = 60.0
KEPT_PLANS = 16
MOST_CHANGES = 6
MOST_SAMPLES = 40
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


def _body(outing: Outing, known: Now, now: datetime, *, place: str, hours: float) -> PlanBody:
    """What is known of the water, planned for now."""
    when = datetime.fromtimestamp(now.timestamp() // ANEW.total_seconds() * ANEW.total_seconds(), tz=now.tzinfo)
    row = known.row
    places = {p.name for p in outing.water.places.all() if p.deleted_at is None}
    elsewhere = row is not None and place != "" and row.place_name not in ("", place)
    return PlanBody.model_validate(
        {
            "water_id": outing.water_id,
            "when": when,
            "place": place if place in places else None,
            "session_h": hours,
            # The depth of water holds only where it was read.
            "reading": replace(known.reading, water_depth_m=None) if elsewhere else known.reading,
            "sightings": row.sightings if row else [],
            "samples": row.samples if row else [],
        }
    )


def _fished(outing: Outing, spell: Spell, end: datetime) -> Fished:
    """A stretch of the log as the search has it."""
    takes = [(event.occurred_at, "take", event.fly) for event in fish_of(spell)]
    other = [(e.occurred_at, e.kind, e.fly) for e in live_events(spell) if e.kind in HAPPENS]
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
            for at, kind, fly in sorted(takes + other)
            if at <= end
        ),
    )


def _partners(outing: Outing, now: datetime) -> tuple[Fished, ...]:
    """What those have fished with whom the outing is shared."""
    return tuple(
        replace(_fished(other, spell, end), partner=True)
        for other, until in others(outing, now)
        for spell, end in beside(other, until)
    )


def note_turn(owner: Any, outing_id: uuid.UUID, body: TurnBody) -> None:
    """Note a turn of the day as a reading of its own, under the client's UUID: sent twice, it is one.

    The newest reading of the water is carried on with what changed. Raises Http404 for another's outing, InputError for a
    turn after its end.
    """
    outing = get_owned(Outing, owner, outing_id)
    at = min(body.at or timezone.now(), timezone.now())
    if outing.ended_at is not None and at > outing.ended_at:
        raise InputError(Problem("ended", "", "This outing is over.", "an outing on the go"))
    if live(Reading, owner).filter(pk=body.reading_id).exists():
        return
    known = now_at(outing, at)
    before = reading_out(known.row) if known.row else None
    reading, sightings = turned(
        known.reading, before.sightings if before else (), body.turn, taken_at=before.taken_at if before else at, at=at
    )
    samples = [*(before.samples if before else ()), *([body.sample] if body.sample is not None else [])]
    new = ReadingBody(
        place=before.place if before else None,
        taken_at=at,
        reading=reading,
        sightings=sightings,
        samples=tuple(samples[-MOST_SAMPLES:]),
    )
    put_reading(owner, outing.water.pk, body.reading_id, new)


def turn(owner: Any, outing_id: uuid.UUID, body: TurnBody) -> AdviseAnswer:
    """Note a turn of the day and return what to do next. Raises as `note_turn` and `next_for` do."""
    note_turn(owner, outing_id, body)
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
    spells = ended_spells(outing, now)
    fished = tuple(_fished(outing, spell, end) for spell, end in spells)
    known = now_at(outing, now)
    request = request_for(owner, _body(outing, known, now, place=spells[-1][0].place if spells else "", hours=hours))
    gone = (now - outing.started_at).total_seconds() / 60
    readings = readings_of(outing, now).filter(taken_at__gt=outing.started_at)
    return request, SoFar(
        now=now,
        fished=fished + _partners(outing, now),
        others=tuple(_seen(row) for row in live(SeenNearby, owner).filter(outing=outing)),
        costs=Costs(**angler_of(owner).costs),
        changed=tuple(readings.values_list("taken_at", flat=True)[:MOST_CHANGES]),
        minutes_left=max(LEAST_LEFT_MIN, 60 * hours - gone),
        stop=known.stops[0].sentence if known.stops else "",
    )


def next_for(owner: Any, outing_id: uuid.UUID, hours: float = 4.0) -> AdviseAnswer:
    """Return what to do next in an outing, from everything fished in it so far. Raises Http404 for another's outing.

    Raises InputError where no plan can be made (no line, no fly).
    """
    request, so_far = _so_far(owner, get_owned(Outing, owner, outing_id), hours)
    return advise_answer(advise(plan_input_from(request), so_far, shared_paths(), _plan_for(request)))


def if_blank_for(owner: Any, outing_id: uuid.UUID, hours: float = 4.0) -> tuple[IfBlankOut, ...]:
    """Return what to do in an outing as long as nothing takes, for a phone without signal. Raises as `next_for` does."""
    request, so_far = _so_far(owner, get_owned(Outing, owner, outing_id), hours)
    return if_blank_answer(if_blank(plan_input_from(request), so_far, shared_paths(), _plan_for(request)))


def if_blank_from(owner: Any, body: PlanBody) -> tuple[IfBlankOut, ...]:
    """Return what to do from each of a day's first set-ups as long as nothing takes. Raises InputError at the faulty fields."""
    request = request_for(owner, body)
    so_far = SoFar(now=request.when, costs=Costs(**angler_of(owner).costs))
    return if_blank_answer(if_blank(plan_input_from(request), so_far, shared_paths(), _plan_for(request)))


def over_day_for(owner: Any, outing_id: uuid.UUID) -> OverDayOut:
    """Return how the belief went through an outing. Raises as `next_for` does."""
    outing = get_owned(Outing, owner, outing_id)
    lasts = ((outing.ended_at or timezone.now()) - outing.started_at).total_seconds() / 3600
    request, so_far = _so_far(owner, outing, min(max(lasts, 1.0), 18.0))
    return over_day_answer(over_the_day(plan_input_from(request), so_far, shared_paths(), _plan_for(request)))
