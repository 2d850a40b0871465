"""An outing's takes and effort against the plan it was begun with: where in its belief they lay, and which reasons helped."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

from django.db.models import QuerySet

from stillthread.core.evidence.rates import Stretch
from stillthread.core.evidence.reliability import Day, coverage, gain, helped, in_words, level
from stillthread.outings.answers_schemas import HelpedOut, PlanCheckOut, PlanPointOut
from stillthread.outings.effort import fish_of
from stillthread.outings.models import Outing, OutingFact, Spell

MOST_OUTINGS = 1000
Belief = dict[str, Any]


def _beliefs(plan: Any) -> tuple[dict[str, Belief], str]:
    """A frozen plan's belief by place, and the place planned for; none where an older version's cannot be read."""
    belief = plan.get("belief") if isinstance(plan, dict) else None
    places = belief.get("places") if isinstance(belief, dict) else None
    found = {}
    for one in places if isinstance(places, list) else ():
        mass = one.get("mass") or () if isinstance(one, dict) else ()
        if mass and len(one.get("depths_m") or ()) == len(mass) and sum(mass) > 0:
            found[str(one.get("place"))] = one
    return found, str(belief.get("chosen")) if isinstance(belief, dict) else ""


def _cell(belief: Belief, depth_m: float) -> int:
    depths = belief["depths_m"]
    return min(range(len(depths)), key=lambda n: abs(depths[n] - depth_m))


def _weight(factor: Belief, cell: int) -> float | None:
    weights = factor.get("log_weight") or ()
    return float(weights[cell]) if factor.get("known") and cell < len(weights) else None


def against_plan(outing: Outing, spells: Sequence[Spell], efforts: Sequence[Stretch]) -> dict[str, Any] | None:
    """Return the levels of takes and effort in the outing's frozen plan, and what each factor gained; None without a plan."""
    beliefs, chosen = _beliefs(outing.plan_snapshot)
    if not beliefs:
        return None
    effort: list[tuple[float, float]] = []
    takes: list[float] = []
    weights: dict[str, tuple[list[tuple[float, float]], list[float]]] = {}
    for spell, stretch in zip(spells, efforts, strict=True):
        belief = beliefs.get(spell.place) or beliefs.get(chosen)
        if belief is None or spell.depth_m is None or stretch.hours <= 0:
            continue
        fished = _cell(belief, spell.depth_m)
        came = [_cell(belief, e.depth_m if e.depth_m is not None else spell.depth_m) for e in fish_of(spell)]
        effort.append((round(stretch.hours, 4), round(level(belief["mass"], fished), 4)))
        takes += [round(level(belief["mass"], cell), 4) for cell in came]
        for factor in belief.get("factors") or ():
            here = _weight(factor, fished)
            if here is not None:
                told = weights.setdefault(str(factor.get("name")), ([], []))
                told[0].append((stretch.hours, here))
                told[1].extend(w for w in (_weight(factor, cell) for cell in came) if w is not None)
    gains = {name: round(gain(*told), 4) for name, told in weights.items()}
    return {"takes": takes, "effort": effort, "gains": gains} if effort else None


def plan_check(facts: QuerySet[OutingFact]) -> PlanCheckOut:
    """Return how takes lay against the plans of the newest of some counted outings."""
    plans: Any = facts.filter(words__plan__isnull=False).values_list("words__plan", flat=True)[:MOST_OUTINGS]
    days = [Day(tuple(one["takes"]), tuple((h, u) for h, u in one["effort"]), one["gains"]) for one in plans]
    points, takes = coverage(days), sum(len(day.takes) for day in days)
    return PlanCheckOut(
        outings=len(days),
        takes=takes,
        points=[PlanPointOut(**vars(point)) for point in points],
        factors=[HelpedOut(**vars(row)) for row in helped(days)],
        sentence=in_words(points, takes),
    )
