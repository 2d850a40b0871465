"""Many writes at once, in one transaction: each stands or falls by itself, and all may be sent again."""

from __future__ import annotations

from collections.abc import Callable
from contextlib import nullcontext
from typing import Any

from django.db import transaction

from stillthread.core.errors import InputError, Problem
from stillthread.outings import services as outings
from stillthread.outings.models import Event, Outing, Photo, SeenNearby, Spell
from stillthread.outings.photos import put_photo
from stillthread.outings.schemas import EventBody, OutingBody, PhotoBody, SeenBody, SpellBody
from stillthread.plans import next_services
from stillthread.plans import services as plans
from stillthread.plans.rows_schemas import RowDoneOut, RowIn, RowsIn, RowsOut
from stillthread.plans.schemas import PlanBody, TurnBody
from stillthread.web.errors import told_as
from stillthread.web.owned import Owned, delete_owned, get_owned, put_owned

Put = Callable[[Any, RowIn], int | None]
MODELS: dict[str, type[Owned]] = {"outing": Outing, "spell": Spell, "event": Event, "seen": SeenNearby, "photo": Photo}


def _outing(owner: Any, row: RowIn) -> int | None:
    body = OutingBody.model_validate(row.body)
    if body.ended_at is None and not Outing.objects.filter(pk=row.outing).exists():
        outings.end_others(owner, row.outing, body.started_at)  # one runs at a time, wherever it was begun
    return outings.write_outing(owner, row.outing, body, based_on=row.on).revision


def _spell(owner: Any, row: RowIn) -> int | None:
    return outings.put_spell(owner, row.outing, row.id, SpellBody.model_validate(row.body), based_on=row.on).revision


def _event(owner: Any, row: RowIn) -> int | None:
    return outings.put_event(owner, row.outing, row.id, EventBody.model_validate(row.body), based_on=row.on).revision


def _seen(owner: Any, row: RowIn) -> int | None:
    return outings.put_seen(owner, row.outing, row.id, SeenBody.model_validate(row.body), based_on=row.on).revision


def _photo(owner: Any, row: RowIn) -> int | None:
    return put_photo(owner, row.outing, row.id, PhotoBody.model_validate(row.body), based_on=row.on).revision


def _turn(owner: Any, row: RowIn) -> int | None:
    next_services.note_turn(owner, row.outing, TurnBody.model_validate({**(row.body or {}), "reading_id": row.id}))
    return None


SEVERAL = ("outing", "turn", "plan")  # these write more than their own row, which is whole or not at all by itself
PUT: dict[str, Put] = {
    "outing": _outing,
    "spell": _spell,
    "event": _event,
    "seen": _seen,
    "photo": _photo,
    "turn": _turn,
}


def _plan(owner: Any, row: RowIn) -> int | None:
    """Make a plan again as it was asked for, and lay it into its outing unless that has one."""
    body = PlanBody.model_validate(row.body)
    plan = plans.keep_row(owner, row.id, body)
    outing = get_owned(Outing, owner, row.outing)
    if outing.plan_snapshot is None:
        put_owned(Outing, owner, row.outing, plan_id=plan.pk, plan_snapshot=plan.answer)
    return plan.revision


def _done(owner: Any, row: RowIn, put: Put) -> RowDoneOut:
    try:
        with transaction.atomic() if row.kind in SEVERAL else nullcontext():
            if row.body is None:
                if row.kind not in MODELS:
                    raise InputError(Problem("no_body", "body", "This is not deleted here.", "what was noted"))
                # With its revision: an undo pressed before this answer is there is laid over it.
                revision = delete_owned(MODELS[row.kind], owner, row.id, based_on=row.on)
                return RowDoneOut(id=row.id, status=204, revision=revision)
            return RowDoneOut(id=row.id, status=200, revision=put(owner, row))
    except Exception as error:
        told = told_as(error, f"a {row.kind} among others")
        errors = [one.as_dict() for one in told.problems]
        return RowDoneOut.model_validate(
            {"id": row.id, "status": told.status, "errors": errors, "kept": told.beside.get("kept")}
        )


def write(owner: Any, body: RowsIn) -> RowsOut:
    """Write rows in their order; one that is refused holds nothing up. Plans are made last, outside the write lock."""
    done: dict[int, RowDoneOut] = {}
    with transaction.atomic():
        for n, row in enumerate(body.rows):
            if row.kind != "plan":
                done[n] = _done(owner, row, PUT[row.kind])
    for n, row in enumerate(body.rows):
        if n not in done:
            done[n] = _done(owner, row, _plan)
    return RowsOut(rows=[done[n] for n in range(len(body.rows))])
