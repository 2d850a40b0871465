"""Use cases of plans: compute, keep, start fishing."""

from __future__ import annotations

import uuid
from collections.abc import Callable
from dataclasses import fields, replace
from typing import Any

from stillthread.accounts.models import Angler
from stillthread.accounts.services import angler_of
from stillthread.accounts.settings_io import owns_of
from stillthread.core.day import given as core
from stillthread.core.day.schools import AIMS, QUESTIONS, Schools
from stillthread.core.errors import InputError, Problem
from stillthread.core.evidence.fish import LONGEST_FIGHT_S
from stillthread.core.plan.kit_ways import kit_ways
from stillthread.core.plan.make import make_plan
from stillthread.core.trout.learnt import Learnt
from stillthread.core.vocabulary import METHODS
from stillthread.documents.frozen import frozen_answer
from stillthread.documents.plan import Day, PlanRequest, plan_input_from
from stillthread.documents.plan_answer import PlanAnswer, plan_answer, set_up_out
from stillthread.flybox.services import fly_documents, tackle_document
from stillthread.outings import services as outings
from stillthread.outings.past import past_stretches
from stillthread.outings.schemas import OutingBody, OutingOut, SpellBody
from stillthread.plans.exposures import shared_paths
from stillthread.plans.models import Plan
from stillthread.plans.schemas import (
    AnswerOut,
    KitWaysOut,
    PlanBody,
    PlanOut,
    PreviewOut,
    QuestionOut,
    SchoolsOut,
    StartBody,
)
from stillthread.waters.models import Water
from stillthread.waters.seen_before import seen_before
from stillthread.waters.services import local_time, water_document
from stillthread.web.owned import get_owned, put_owned


def request_for(owner: Any, body: PlanBody) -> PlanRequest:
    """Return the whole day as a plan document, from the owner's water, kit and settings and the body's reading."""
    water = get_owned(Water, owner, body.water_id)
    angler = angler_of(owner)
    before = body.compared_with
    if before is not None and before.read is not None:
        read = replace(before.read, when=local_time(water, before.read.when))
        body = body.model_copy(update={"compared_with": replace(before, read=read)})
    asked = {name: getattr(body, name) for name in Day.model_fields if name != "when"}
    return PlanRequest(
        **asked,
        when=local_time(water, body.when),
        water=water_document(water, body.when),
        angler=angler_document(angler),
        tackle=tackle_document(owner),
        flies=fly_documents(owner),
        rules=core.Rules(**water.rules),
        schools=Schools(**angler.schools),
        own_log=past_stretches(owner, water, body.when),
        seen_before=seen_before(owner, water, body.when),
    )


def angler_document(angler: Angler) -> core.Angler:
    """Return an angler's limits as the plan document has them."""
    own = {
        one.name: getattr(angler, one.name)
        for one in fields(core.Angler)
        if one.name not in ("methods", "owns", "learnt")
    }
    return core.Angler(
        **own,
        owns=owns_of(angler),
        learnt=Learnt(**angler.learnt),
        methods=tuple(one for one in METHODS if one not in angler.methods_left_out),
    )


def compute(request: PlanRequest, wanted: Callable[[], bool] = lambda: True) -> PlanAnswer:
    """Return the plan for a document. Raises InputError at the faulty fields, NobodyWaitsError once it is not `wanted`."""
    given = plan_input_from(request)
    return plan_answer(given, make_plan(given, shared_paths().while_(wanted)))


def schools() -> SchoolsOut:
    """Return the questions anglers disagree on, and the aims a day can have."""
    questions = [
        QuestionOut(
            key=one.key,
            words=one.words,
            answers=[AnswerOut(key=key, words=words) for key, words in one.answers],
            default_words=one.default_words,
        )
        for one in QUESTIONS
    ]
    return SchoolsOut(questions=questions, aims=[AnswerOut(key=key, words=words) for key, words in AIMS.items()])


def preview(owner: Any, body: PlanBody, wanted: Callable[[], bool] = lambda: True) -> PreviewOut:
    """Return the plan for a reading without keeping it. Raises NobodyWaitsError once it is not `wanted`."""
    answer = compute(request_for(owner, body), wanted)
    starts = [outings.begun(one, n) for n, one in enumerate(answer.set_ups)]
    return PreviewOut.model_construct(**dict(answer), starts=starts, longest_fight_s=LONGEST_FIGHT_S)


def kit_ways_for(owner: Any, body: PlanBody) -> KitWaysOut:
    """Return what the kit can do on a day with lines and flies a plan does not name. Raises InputError at the faulty fields."""
    made = kit_ways(plan_input_from(request_for(owner, body)), shared_paths())
    set_ups = tuple(set_up_out(one).model_copy(update={"tracks": (), "simulate": None}) for one in made)
    starts = [outings.begun(one, 0).model_copy(update={"set_up_index": None}) for one in set_ups]
    return KitWaysOut(set_ups=set_ups, starts=starts)


def keep(owner: Any, plan_id: uuid.UUID, body: PlanBody) -> PlanOut:
    """Compute a plan and freeze it under the client's UUID."""
    return plan_out(keep_row(owner, plan_id, body))


def keep_row(owner: Any, plan_id: uuid.UUID, body: PlanBody) -> Plan:
    """Compute a plan, freeze it under the client's UUID and return its row."""
    request = request_for(owner, body)
    answer = compute(request)
    return put_owned(
        Plan,
        owner,
        plan_id,
        water=get_owned(Water, owner, body.water_id),
        when=body.when,
        request=request.model_dump(mode="json"),
        answer=answer.model_dump(mode="json"),
    )


def plan_out(plan: Plan) -> PlanOut:
    """Return a kept plan as the API gives it."""
    return PlanOut(id=plan.pk, water_id=plan.water.pk, when=plan.when, answer=readable(plan))


def readable(plan: Plan) -> PlanAnswer:
    """Return a kept plan as today's contract has it. Raises InputError where an older version's can no longer be read."""
    answer = frozen_answer(plan.answer)
    if answer is None:
        raise InputError(
            Problem("older_version", "", "This plan was kept by an older version and cannot be read.", "a new plan")
        )
    return answer


def _chosen(plan: Plan, body: StartBody) -> SpellBody:
    """Return the spell a kept plan's set-up starts with. Raises InputError for no such set-up."""
    answer = readable(plan)
    if body.set_up >= len(answer.set_ups):
        count = len(answer.set_ups)
        raise InputError(Problem("unknown", "set_up", "The plan has no such set-up.", f"0 to {count - 1}"))
    how = outings.begun(answer.set_ups[body.set_up], body.set_up)
    return SpellBody(**how.model_dump(), started_at=body.started_at)


def start(owner: Any, plan_id: uuid.UUID, body: StartBody) -> OutingOut:
    """Start an outing from a kept plan's set-up; sent twice it is the same outing. Raises InputError for no such set-up."""
    plan = get_owned(Plan, owner, plan_id)
    spell = _chosen(plan, body)
    outing = OutingBody(water_id=plan.water.pk, started_at=body.started_at)
    return outings.start(
        owner=owner,
        outing_id=body.outing_id,
        body=outing,
        spell_id=body.spell_id,
        spell=spell,
        plan_id=plan.pk,
        plan_snapshot=plan.answer,
    )


def go_over(owner: Any, plan_id: uuid.UUID, body: StartBody) -> OutingOut:
    """Go on with a running outing under a kept plan's set-up; sent twice it is one change.

    Raises InputError for no such set-up, an outing of another water or one that has ended.
    """
    plan = get_owned(Plan, owner, plan_id)
    return outings.go_over(
        owner=owner,
        outing_id=body.outing_id,
        plan=plan.answer,
        spell_id=body.spell_id,
        spell=_chosen(plan, body),
        plan_id=plan.pk,
        water_id=plan.water.pk,
    )
