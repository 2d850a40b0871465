"""Use cases that put the fly box beside the day: what fits the food about, what to tie for the plan."""

from __future__ import annotations

import uuid
from typing import Any

from django.db import transaction

from stillthread.core.flies.box import Tie, box_fits, sum_materials
from stillthread.core.reading.means import food_on
from stillthread.core.tackle.patterns import PATTERNS
from stillthread.core.tackle.recipe import Material
from stillthread.documents.plan import plan_input_from
from stillthread.flybox.box_services import fly_out
from stillthread.flybox.models import Fly
from stillthread.plans import box_schemas as c
from stillthread.plans.schemas import PlanBody
from stillthread.plans.services import compute, request_for
from stillthread.web.owned import live


def box_today(owner: Any, body: PlanBody) -> c.BoxTodayOut:
    """Return the foods about now with the flies that stand for each, and the gaps. Raises InputError at faulty fields."""
    with transaction.atomic():
        request = request_for(owner, body)
        rows = {str(row.pk): fly_out(row) for row in live(Fly, owner)}
    given = plan_input_from(request)
    food = food_on(
        water=given.water,
        reading=given.reading,
        when=given.when,
        sightings=given.sightings,
        samples=given.samples,
        seen_before=given.seen_before,
    )
    found = []
    for fit in box_fits(food, given.flies):
        found.append(
            c.FoodFitOut(
                prey=fit.prey.key,
                name=fit.prey.name,
                share=round(fit.share, 4),
                flies=[
                    c.FittingFlyOut(
                        id=uuid.UUID(fly.key),
                        name=fly.name,
                        hooks=list(fly.hooks),
                        stock=fly.stock,
                        sink_class=rows[fly.key].sink_class,
                    )
                    for fly in fit.flies
                ],
                gap=fit.gap,
                starters=[p.name for p in PATTERNS if fit.prey.key in p.prey] if fit.gap else [],
            )
        )
    return c.BoxTodayOut(rows=found, gaps=sum(row.gap for row in found))


def _have(row: Fly, hook: int) -> int | None:
    """How many of a hook size are there: by the counts where there are some, else the stock as a whole."""
    if row.counts:
        return sum(int(one["count"]) for one in row.counts if one["hook"] == hook)
    return row.stock


def tie_list(owner: Any, body: c.TieListBody) -> c.TieListOut:
    """Return what to tie so that each fly of the plan's set-ups is there so many times, materials summed.

    Raises InputError at the faulty fields.
    """
    plan_body = PlanBody(**body.model_dump(exclude={"copies"}))
    with transaction.atomic():
        request = request_for(owner, plan_body)
        rows = {str(row.pk): row for row in live(Fly, owner)}
    answer = compute(request)
    ties: dict[tuple[str, int], Tie] = {}
    for set_up in answer.set_ups:
        for fly in set_up.flies:
            row = rows[fly.key]
            ties.setdefault(
                (fly.key, fly.hook),
                Tie(key=fly.key, name=row.name, hook=fly.hook, have=_have(row, fly.hook), wanted=body.copies),
            )
    wanted = []
    for tie in ties.values():
        recipe = rows[tie.key].recipe or {}
        materials = tuple(Material(**m) for m in recipe.get("materials", []))
        hooked = tuple(
            Material(m.part, m.what, m.colour, f"size {tie.hook}") if m.part == "hook" else m for m in materials
        )
        if tie.to_tie:
            wanted.append((tie.to_tie, hooked))
    return c.TieListOut(
        ties=[
            c.TieOut(
                id=uuid.UUID(tie.key),
                name=tie.name,
                hook=tie.hook,
                have=tie.have,
                wanted=tie.wanted,
                to_tie=tie.to_tie,
                has_recipe=bool((rows[tie.key].recipe or {}).get("steps")),
            )
            for tie in ties.values()
        ],
        materials=[c.MaterialSumOut(**vars(m)) for m in sum_materials(wanted)],
    )
