"""Use cases of outings: writing them, and reading the log."""

from __future__ import annotations

import uuid
from dataclasses import dataclass
from datetime import datetime, timedelta
from functools import lru_cache
from typing import Any

from django.db import transaction
from django.db.models import Count, Prefetch, Q, QuerySet, Sum
from django.http import Http404
from django.utils import timezone
from pydantic import ValidationError

from stillthread.accounts.services import angler_of
from stillthread.core.errors import InputError, Problem
from stillthread.core.evidence.fish import LONGEST_FIGHT_S
from stillthread.core.evidence.rates import DepthBin, Rate, Stretch, by_depth, poisson_rate
from stillthread.core.trout.size import STANDARD, fulton, relative_weight, standard_weight_kg
from stillthread.documents.frozen import frozen_answer
from stillthread.documents.plan_answer import PlanAnswer, SetUpOut
from stillthread.outings.answers import asked_for, at_depths, behind
from stillthread.outings.answers_schemas import By, LogFilter
from stillthread.outings.effort import bin_step_m, live_events, live_spells, stretches
from stillthread.outings.models import Event, Outing, OutingFact, SeenNearby, Spell
from stillthread.outings.photos import photos_of
from stillthread.outings.schemas import (
    MOST_SET_UPS,
    DepthBinOut,
    EventBody,
    EventOut,
    LogOut,
    OutingBody,
    OutingOut,
    OutingSummary,
    RateOut,
    RunningOut,
    SeenBody,
    SeenOut,
    SpellBody,
    SpellHow,
    SpellOut,
)
from stillthread.waters.models import Water
from stillthread.web.owned import get_owned, live, put_owned

MOST_OUTINGS = 100
LONGEST_OUTING = timedelta(days=1)
PLANS_OPEN = 32  # how many outings' plans a process keeps open
HEAVY = ("plan_snapshot",)  # a whole plan, which most questions do not need


UNREAD = ("received_at", "updated_at")  # no page asks when a row came; turning them into dates takes a while


def _whole(rows: QuerySet[Outing]) -> QuerySet[Outing]:
    spells, events = (model.objects.filter(deleted_at=None).defer(*UNREAD) for model in (Spell, Event))
    found = rows.select_related("water").prefetch_related(Prefetch("spells", queryset=spells))
    return found.prefetch_related(Prefetch("spells__events", queryset=events))


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
    return SpellOut(id=row.pk, revision=row.revision, **{f: getattr(row, f) for f in SpellBody.model_fields})


def _event_out(row: Event) -> EventOut:
    told = {f: getattr(row, f) for f in EventBody.model_fields}
    if row.length_m is None or row.species not in STANDARD:
        return EventOut(id=row.pk, revision=row.revision, **told)
    species: Any = row.species
    weighed = row.weight_kg
    return EventOut(
        id=row.pk,
        revision=row.revision,
        standard_kg=standard_weight_kg(species, row.length_m),
        fulton=None if weighed is None else fulton(row.length_m, weighed),
        relative_weight=None if weighed is None else relative_weight(species, row.length_m, weighed),
        **told,
    )


def begun(set_up: SetUpOut, index: int) -> SpellHow:
    """Return how a set-up of a plan is begun."""
    return SpellHow(
        place=set_up.place,
        method=set_up.method,
        title=set_up.title,
        line_title=set_up.line_title,
        depth_m=set_up.estimate_m if set_up.estimate_m is not None else set_up.target_m,
        low_m=set_up.low_m,
        high_m=set_up.high_m,
        count_s=set_up.count_s,
        pace=set_up.retrieve.key or set_up.retrieve.kind,  # the core's retrieves are these
        flies=[fly.name for fly in set_up.flies],
        set_up_index=index,
    )


def _begun_at_least(set_up: SetUpOut, index: int) -> SpellHow:
    """How a set-up is begun; of one frozen long ago, what of it can still be said."""
    try:
        return begun(set_up, index)
    except ValidationError:
        return SpellHow(method="other", title=set_up.title[:120] or "Set-up", set_up_index=index)


@dataclass(frozen=True)
class Opened:
    """An outing's frozen plan as today's contract has it, how each of its set-ups is begun, and whether it can no longer be read."""

    plan: PlanAnswer | None
    starts: tuple[SpellHow, ...]
    lost: bool


@lru_cache(maxsize=PLANS_OPEN)
def _opened(outing_id: uuid.UUID, revision: int) -> Opened:
    """Open an outing's plan; of those looked at lately it stands ready, for as long as the outing is at that revision."""
    raw = Outing.objects.filter(pk=outing_id).values_list("plan_snapshot", flat=True).first()
    plan = frozen_answer(raw) if raw else None
    starts = tuple(_begun_at_least(one, n) for n, one in enumerate(plan.set_ups if plan else ()))
    return Opened(plan=plan, starts=starts, lost=plan is None and bool(raw))


def read_outing(owner: Any, outing_id: uuid.UUID) -> OutingOut:
    """Return one outing with everything in it. Raises Http404 for another's."""
    outing = _whole(live(Outing, owner)).defer(*HEAVY).filter(pk=outing_id).first()
    if outing is None:
        raise Http404(Outing._meta.verbose_name)
    effort = stretches(outing)
    landed_rate, takes_rate = _rates(effort)
    spells = live_spells(outing)
    opened = _opened(outing.pk, outing.revision)
    return OutingOut(
        **_summary(outing, effort),
        revision=outing.revision,
        max_depth_m=outing.water.max_depth_m,
        longest_fight_s=LONGEST_FIGHT_S,
        plan_id=outing.plan_id,
        plan=opened.plan,
        starts=list(opened.starts),
        plan_lost=opened.lost,
        spells=[_spell_out(spell) for spell in spells],
        events=[_event_out(event) for spell in spells for event in live_events(spell)],
        photos=photos_of(outing),
        landed_rate=landed_rate,
        takes_rate=takes_rate,
        by_depth=[_bin_out(b) for b in by_depth(effort, bin_step_m(angler_of(owner).depth_unit))],
    )


def _running(owner: Any, now: datetime) -> QuerySet[Outing]:
    """Return the owner's outings of the last day that nobody has ended, newest first."""
    return live(Outing, owner).filter(ended_at__isnull=True, started_at__gt=now - LONGEST_OUTING)


def read_running(owner: Any) -> RunningOut:
    """Return the outing on the go, begun within the last day, with what is fished now."""
    outing = _whole(_running(owner, timezone.now())).defer(*HEAVY).first()
    if outing is None:
        return RunningOut(outing=None)
    spells = live_spells(outing)
    return RunningOut(
        outing=OutingSummary(**_summary(outing, stretches(outing))), title=spells[-1].title if spells else ""
    )


# What the list has, and where a counted outing has it.
LISTED = {
    "id": "outing_id",
    "water_id": "water_id",
    "water_name": "water__name",
    "time_zone": "water__time_zone",
    "ended_at": "outing__ended_at",
    "note": "outing__note",
    **{
        name: name
        for name in ("started_at", "hours", "takes", "landed", "plucks", "methods", "surface_c", "wind_m_s", "wind")
    },
}


def _listed(facts: QuerySet[OutingFact]) -> list[OutingSummary]:
    return [OutingSummary(**dict(zip(LISTED, row, strict=True))) for row in facts.values_list(*LISTED.values())]


def read_log(owner: Any, asked: LogFilter, most: int = MOST_OUTINGS) -> LogOut:
    """Return the owner's newest outings of those asked for, with rates over all of them."""
    if asked.water_id is not None:
        get_owned(Water, owner, asked.water_id)
    found = asked_for(owner, asked)
    blank = Count("pk", filter=Q(takes=0, hours__gt=0))
    sums = found.aggregate(n=Count("pk"), h=Sum("hours"), t=Sum("takes"), l=Sum("landed"), b=blank)
    whole = [Stretch(depth_m=None, hours=sums["h"] or 0.0, takes=sums["t"] or 0, landed=sums["l"] or 0)]
    landed_rate, takes_rate = _rates(whole)
    step = bin_step_m(angler_of(owner).depth_unit)
    return LogOut(
        outings=_listed(found[:most]),
        count=sums["n"],
        landed_rate=landed_rate,
        takes_rate=takes_rate,
        by_depth=[_bin_out(b) for b in by_depth(at_depths(owner, asked, found), step)],
        blank_outings=sums["b"],
    )


def read_behind(owner: Any, asked: LogFilter, by: By, key: str) -> list[OutingSummary]:
    """Return the newest outings behind one of the groups of what was asked."""
    return _listed(behind(owner, asked, by, key))


def put_outing(
    owner: Any, outing_id: uuid.UUID, body: OutingBody, *, based_on: int | None = None, **frozen: Any
) -> OutingOut:
    """Write an outing; `frozen` are the plan's id and snapshot when it starts from a plan."""
    write_outing(owner, outing_id, body, based_on=based_on, **frozen)
    return read_outing(owner, outing_id)


def write_outing(
    owner: Any, outing_id: uuid.UUID, body: OutingBody, *, based_on: int | None = None, **frozen: Any
) -> Outing:
    """Write an outing and return its row."""
    water = get_owned(Water, owner, body.water_id)
    values = {**body.model_dump(exclude={"water_id"}), **frozen}
    return put_owned(Outing, owner, outing_id, based_on=based_on, water=water, **values)


def put_spell(
    owner: Any, outing_id: uuid.UUID, spell_id: uuid.UUID, body: SpellBody, *, based_on: int | None = None
) -> SpellOut:
    """Write a spell of one of the owner's outings."""
    outing = get_owned(Outing, owner, outing_id, defer=HEAVY)
    return _spell_out(put_owned(Spell, owner, spell_id, based_on=based_on, outing=outing, **body.model_dump()))


def put_event(
    owner: Any, outing_id: uuid.UUID, event_id: uuid.UUID, body: EventBody, *, based_on: int | None = None
) -> EventOut:
    """Write an event into a spell of the same outing. Raises InputError for a spell of another outing."""
    spells = live(Spell, owner).filter(pk=body.spell_id, outing_id=outing_id, outing__deleted_at__isnull=True)
    if not spells.exists():
        get_owned(Outing, owner, outing_id, defer=HEAVY)
        get_owned(Spell, owner, body.spell_id)
        raise InputError(
            Problem("unknown", "spell_id", "That spell belongs to another outing.", "a spell of this outing")
        )
    return _event_out(put_owned(Event, owner, event_id, based_on=based_on, **body.model_dump()))


def put_seen(
    owner: Any, outing_id: uuid.UUID, seen_id: uuid.UUID, body: SeenBody, *, based_on: int | None = None
) -> SeenOut:
    """Write what was seen of others in one of the owner's outings."""
    outing = get_owned(Outing, owner, outing_id, defer=HEAVY)
    values = {**body.model_dump(), "pace": body.pace or ""}
    row = put_owned(SeenNearby, owner, seen_id, based_on=based_on, outing=outing, **values)
    return SeenOut(id=row.pk, revision=row.revision, **body.model_dump())


def _ended(owner: Any, outing: Outing, at: datetime) -> None:
    """End an outing, and what is fished in it, at an instant."""
    for spell in live(Spell, owner).filter(outing=outing, ended_at__isnull=True, started_at__lte=at):
        spell.ended_at = at
        spell.save()
    outing.ended_at = max(at, outing.started_at)
    outing.save(update_fields=["ended_at", "updated_at"])


def end_others(owner: Any, outing_id: uuid.UUID, at: datetime) -> None:
    """End what else is on the go at an instant: one outing runs at a time."""
    for other in _running(owner, at).exclude(pk=outing_id).filter(started_at__lte=at):
        _ended(owner, other, at)


@transaction.atomic
def start(
    owner: Any, outing_id: uuid.UUID, body: OutingBody, spell_id: uuid.UUID, spell: SpellBody, **frozen: Any
) -> OutingOut:
    """Write an outing with its first spell in one go; another one still on the go ends with it."""
    end_others(owner, outing_id, body.started_at)
    put_outing(owner, outing_id, body, **frozen)
    put_spell(owner, outing_id, spell_id, spell)
    return read_outing(owner, outing_id)


def merged_plan(old: dict[str, Any] | None, new: dict[str, Any]) -> tuple[dict[str, Any], list[int]]:
    """Return a plan gone over to, laid over the outing's: the new plan, its set-ups behind those fished before.

    Set-ups keep their places, for the stretches that name them by number. The second value is where each set-up of the
    new plan stands.
    """
    set_ups = list((old or {}).get("set_ups", []))
    where = []
    for one in new["set_ups"]:
        if one not in set_ups:
            set_ups.append(one)
        where.append(set_ups.index(one))
    return {**new, "set_ups": set_ups}, where


@transaction.atomic
def go_over(
    owner: Any, outing_id: uuid.UUID, plan: dict[str, Any], spell_id: uuid.UUID, spell: SpellBody, **frozen: Any
) -> OutingOut:
    """Go on with a running outing under another plan: what was fished ends, a set-up of the new plan begins.

    Raises Http404 for another's outing, InputError for one on another water, one that has ended, or one with too many plans.
    """
    outing = get_owned(Outing, owner, outing_id)
    if outing.water_id != frozen["water_id"]:
        raise InputError(
            Problem("other_water", "outing_id", "That outing is on another water.", "an outing on this water")
        )
    if outing.ended_at is not None:
        raise InputError(Problem("ended", "outing_id", "That outing has ended.", "an outing on the go"))
    merged, where = merged_plan(outing.plan_snapshot, plan)
    if len(merged["set_ups"]) > MOST_SET_UPS:
        raise InputError(Problem("too_many", "set_up", "This outing has had too many plans.", "a new outing"))
    for running in live(Spell, owner).filter(outing=outing, ended_at__isnull=True).exclude(pk=spell_id):
        running.ended_at = max(spell.started_at, running.started_at)
        running.save()
    if (outing.plan_snapshot, outing.plan_id) != (merged, frozen["plan_id"]):
        outing.plan_snapshot, outing.plan_id = merged, frozen["plan_id"]
        outing.save(update_fields=["plan_snapshot", "plan_id", "updated_at"])
    put_spell(owner, outing_id, spell_id, spell.model_copy(update={"set_up_index": where[spell.set_up_index or 0]}))
    return read_outing(owner, outing_id)
