"""An outing's takes and effort against the plan it was begun with: where in its belief they lay, and which reasons helped."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Sequence
from dataclasses import replace
from typing import Any, Literal

import numpy as np
from django.db.models import QuerySet

from stillthread.core.evidence.rates import Stretch
from stillthread.core.evidence.reliability import Day, coverage, expected_in_words, gain, helped, in_words, level
from stillthread.core.trout.learnt import (
    NOTICE,
    USUAL,
    WARMER_C,
    Found,
    Tried,
    found,
    notice_curve,
    notice_in_words,
    warmer_curve,
    warmer_in_words,
)
from stillthread.core.water.profile import temperature_at
from stillthread.outings.answers_schemas import ExpectedSeenOut, HelpedOut, LearntOut, PlanCheckOut, PlanPointOut
from stillthread.outings.conditions import Conditions
from stillthread.outings.effort import fish_of
from stillthread.outings.models import Outing, OutingFact, Spell

MOST_OUTINGS, MOST_EXPECTED = 1000, 40
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


def _taught(outing: Outing, tried: list[tuple[str, Tried]], belief: Belief, told: Conditions) -> dict[str, Any]:
    """What an outing's stretches with a depth say of the plan's figures: a curve each, where enough was read for it."""
    taught: dict[str, Any] = {"taken": sum(one.takes for _, one in tried)}
    here = [one for place, one in tried if belief and place == str(belief.get("place"))]
    noticed = sum(one.takes for one in here)
    if told.secchi_m is not None and noticed:
        depths, mass = np.array(belief["depths_m"], dtype=float), np.array(belief["mass"], dtype=float)
        taught["notice"] = [round(v, 4) for v in notice_curve(here, depths, mass, told.secchi_m)]
        taught["noticed"] = noticed
    if len(told.profile) > 1 and taught["taken"]:
        warm = temperature_at(told.profile, [one.at for _, one in tried])
        felt = [replace(one, at=float(t)) for (_, one), t in zip(tried, warm, strict=True)]
        taught["warmer"] = [round(v, 4) for v in warmer_curve(felt, tuple(outing.water.species))]
    return taught


def _expected(plan: Any, spells: Sequence[Spell], efforts: Sequence[Stretch]) -> list[float] | None:
    """Takes that the plan's set-ups expected for the time they were fished, and those that came; None where it expected nothing."""
    set_ups = plan.get("set_ups") if isinstance(plan, dict) else None
    due, seen, any_told = 0.0, 0, False
    for spell, stretch in zip(spells, efforts, strict=True):
        at = spell.set_up_index
        one = set_ups[at] if isinstance(set_ups, list) and at is not None and at < len(set_ups) else None
        told = one.get("expected") if isinstance(one, dict) else None
        if isinstance(told, dict) and isinstance(told.get("takes_per_h"), (int, float)):
            any_told, due, seen = True, due + stretch.hours * told["takes_per_h"], seen + stretch.takes
    return [round(due, 3), seen] if any_told else None


def against_plan(
    outing: Outing, spells: Sequence[Spell], efforts: Sequence[Stretch], told: Conditions
) -> dict[str, Any] | None:
    """Return the levels of takes and effort in the outing's frozen plan, what each factor gained, and what the takes teach;
    None without a plan. `told` is what was read on the day.
    """
    beliefs, chosen = _beliefs(outing.plan_snapshot)
    if not beliefs:
        return None
    effort: list[tuple[float, float]] = []
    takes: list[float] = []
    weights: dict[str, tuple[list[tuple[float, float]], list[float]]] = {}
    tried: list[tuple[str, Tried]] = []
    for spell, stretch in zip(spells, efforts, strict=True):
        belief = beliefs.get(spell.place) or beliefs.get(chosen)
        if belief is None or spell.depth_m is None or stretch.hours <= 0:
            continue
        fished = _cell(belief, spell.depth_m)
        came = [_cell(belief, e.depth_m if e.depth_m is not None else spell.depth_m) for e in fish_of(spell)]
        effort.append((round(stretch.hours, 4), round(level(belief["mass"], fished), 4)))
        tried.append((str(belief.get("place")), Tried(stretch.hours, len(came), spell.depth_m)))
        takes += [round(level(belief["mass"], cell), 4) for cell in came]
        for factor in belief.get("factors") or ():
            here = _weight(factor, fished)
            if here is not None:
                row = weights.setdefault(str(factor.get("name")), ([], []))
                row[0].append((stretch.hours, here))
                row[1].extend(w for w in (_weight(factor, cell) for cell in came) if w is not None)
    gains = {name: round(gain(*row), 4) for name, row in weights.items()}
    expected = _expected(outing.plan_snapshot, spells, efforts)
    taught = _taught(outing, tried, beliefs.get(chosen) or {}, told)
    return (
        {"takes": takes, "effort": effort, "gains": gains, "taught": taught, "expected": expected} if effort else None
    )


def _learnt(taught: list[dict[str, Any]]) -> Iterator[LearntOut]:
    """What the takes of all those outings teach, where there are enough of them."""
    of: tuple[tuple[Literal["notice", "warmer_c"], str, str, Sequence[float], float, Callable[[Found], str]], ...] = (
        ("notice", "notice", "noticed", NOTICE, USUAL.notice, notice_in_words),
        ("warmer_c", "warmer", "taken", WARMER_C, USUAL.warmer_c, warmer_in_words),
    )
    for key, curve, count, values, usual, in_words_of in of:
        rows = [one for one in taught if one.get(curve)]
        told = found([one[curve] for one in rows], [one[count] for one in rows], values, usual)
        if told is not None:
            value = round(told.value, 1)
            yield LearntOut(key=key, value=value, clear=told.clear and value != usual, sentence=in_words_of(told))


def plan_check(facts: QuerySet[OutingFact]) -> PlanCheckOut:
    """Return how takes lay against the plans of the newest of some counted outings."""
    rows: Any = facts.filter(words__plan__isnull=False).values_list("pk", "on", "words__plan")[:MOST_OUTINGS]
    plans = [plan for _, _, plan in rows]
    due = [
        ExpectedSeenOut(outing_id=pk, on=on, expected=plan["expected"][0], seen=int(plan["expected"][1]))
        for pk, on, plan in rows
        if plan.get("expected")
    ]
    days = [Day(tuple(one["takes"]), tuple((h, u) for h, u in one["effort"]), one["gains"]) for one in plans]
    points, takes = coverage(days), sum(len(day.takes) for day in days)
    taught = [one.get("taught") or {} for one in plans]
    return PlanCheckOut(
        outings=len(days),
        takes=takes,
        points=[PlanPointOut(**vars(point)) for point in points],
        factors=[HelpedOut(**vars(row)) for row in helped(days)],
        sentence=in_words(points, takes),
        learnt=[*_learnt(taught)],
        expected=due[:MOST_EXPECTED],
        expected_sentence=expected_in_words([(one.expected, one.seen) for one in due]),
    )
