"""Use cases of outings: writing them, and reading the log."""

from __future__ import annotations

import uuid
from typing import Any

from django.db import transaction
from django.db.models import QuerySet

from stillthread.accounts.services import angler_of
from stillthread.core.errors import InputError, Problem
from stillthread.core.evidence.fish import LONGEST_FIGHT_S
from stillthread.core.evidence.rates import DepthBin, Rate, Stretch, by_depth, poisson_rate
from stillthread.formats.plan_contract import PlanAnswer
from stillthread.outings.effort import bin_step_m, live_events, live_spells, stretches
from stillthread.outings.models import Event, Outing, Spell
from stillthread.outings.schemas import (
    DepthBinOut,
    EventBody,
    EventOut,
    LogOut,
    OutingBody,
    OutingOut,
    OutingSummary,
    RateOut,
    SpellBody,
    SpellOut,
)
from stillthread.waters.models import Water
from stillthread.web.owned import get_owned, live, put_owned

MOST_OUTINGS = 500
HEAVY = ("plan_snapshot",)  # a whole plan, which most questions do not need


def _whole(rows: QuerySet[Outing]) -> QuerySet[Outing]:
    return rows.select_related("water").prefetch_related("spells__events")


def _rate_out(rate: Rate) -> RateOut:
    return RateOut(**vars(rate))


def _rates(effort: list[Stretch]) -> tuple[RateOut, RateOut]:
    hours = sum(s.hours for s in effort)
    landed, takes = sum(s.landed for s in effort), sum(s.takes for s in effort)
    return _rate_out(poisson_rate(landed, hours)), _rate_out(poisson_rate(takes, hours))


def _bin_out(row: DepthBin) -> DepthBinOut:
    return DepthBinOut(
        top_m=row.top_m, bottom_m=row.bottom_m, hours=row.hours, takes=_rate_out(row.takes), landed=row.landed
    )


def _summary(outing: Outing, effort: list[Stretch]) -> dict[str, Any]:
    spells = live_spells(outing)
    return {
        "id": outing.pk,
        "water_id": outing.water_id,
        "water_name": outing.water.name,
        "time_zone": outing.water.time_zone,
        "started_at": outing.started_at,
        "ended_at": outing.ended_at,
        "hours": sum(s.hours for s in effort),
        "takes": sum(s.takes for s in effort),
        "landed": sum(s.landed for s in effort),
        "plucks": sum(event.kind == "pluck" for spell in spells for event in live_events(spell)),
        "methods": list(dict.fromkeys(spell.title for spell in spells)),
        "note": outing.note,
    }


def _spell_out(row: Spell) -> SpellOut:
    return SpellOut(id=row.pk, **{f: getattr(row, f) for f in SpellBody.model_fields})


def _event_out(row: Event) -> EventOut:
    return EventOut(id=row.pk, **{f: getattr(row, f) for f in EventBody.model_fields})


def read_outing(owner: Any, outing_id: uuid.UUID) -> OutingOut:
    """Return one outing with everything in it. Raises Http404 for another's."""
    get_owned(Outing, owner, outing_id, defer=HEAVY)
    outing = _whole(live(Outing, owner)).get(pk=outing_id)
    effort = stretches(outing)
    landed_rate, takes_rate = _rates(effort)
    spells = live_spells(outing)
    return OutingOut(
        **_summary(outing, effort),
        max_depth_m=outing.water.max_depth_m,
        longest_fight_s=LONGEST_FIGHT_S,
        plan_id=outing.plan_id,
        plan=PlanAnswer.model_validate(outing.plan_snapshot) if outing.plan_snapshot else None,
        spells=[_spell_out(spell) for spell in spells],
        events=[_event_out(event) for spell in spells for event in live_events(spell)],
        landed_rate=landed_rate,
        takes_rate=takes_rate,
        by_depth=[_bin_out(b) for b in by_depth(effort, bin_step_m(angler_of(owner).depth_unit))],
    )


def read_log(owner: Any, water_id: uuid.UUID | None) -> LogOut:
    """Return the owner's outings, newest first, with rates over all of them, optionally for one water."""
    rows = _whole(live(Outing, owner)).defer(*HEAVY)
    if water_id is not None:
        rows = rows.filter(water=get_owned(Water, owner, water_id))
    outings, everything, blank = [], [], 0
    for outing in rows[:MOST_OUTINGS]:
        effort = stretches(outing)
        everything += effort
        summary = OutingSummary(**_summary(outing, effort))
        blank += summary.hours > 0 and summary.takes == 0
        outings.append(summary)
    landed_rate, takes_rate = _rates(everything)
    bins = by_depth(everything, bin_step_m(angler_of(owner).depth_unit))
    return LogOut(
        outings=outings,
        landed_rate=landed_rate,
        takes_rate=takes_rate,
        by_depth=[_bin_out(b) for b in bins],
        blank_outings=blank,
    )


def put_outing(owner: Any, outing_id: uuid.UUID, body: OutingBody, **frozen: Any) -> OutingOut:
    """Write an outing; `frozen` are the plan's id and snapshot when it starts from a plan."""
    water = get_owned(Water, owner, body.water_id)
    put_owned(Outing, owner, outing_id, water=water, **body.model_dump(exclude={"water_id"}), **frozen)
    return read_outing(owner, outing_id)


def put_spell(owner: Any, outing_id: uuid.UUID, spell_id: uuid.UUID, body: SpellBody) -> SpellOut:
    """Write a spell of one of the owner's outings."""
    outing = get_owned(Outing, owner, outing_id, defer=HEAVY)
    return _spell_out(put_owned(Spell, owner, spell_id, outing=outing, **body.model_dump()))


def put_event(owner: Any, outing_id: uuid.UUID, event_id: uuid.UUID, body: EventBody) -> EventOut:
    """Write an event into a spell of the same outing. Raises InputError for a spell of another outing."""
    outing = get_owned(Outing, owner, outing_id, defer=HEAVY)
    spell = get_owned(Spell, owner, body.spell_id)
    if spell.outing_id != outing.pk:
        raise InputError(
            Problem("unknown", "spell_id", "That spell belongs to another outing.", "a spell of this outing")
        )
    return _event_out(put_owned(Event, owner, event_id, spell=spell, **body.model_dump(exclude={"spell_id"})))


@transaction.atomic
def start(
    owner: Any, outing_id: uuid.UUID, body: OutingBody, spell_id: uuid.UUID, spell: SpellBody, **frozen: Any
) -> OutingOut:
    """Write an outing with its first spell in one go."""
    put_outing(owner, outing_id, body, **frozen)
    put_spell(owner, outing_id, spell_id, spell)
    return read_outing(owner, outing_id)
