"""The belief as it went through a day: what was thought of the feeding depth before, between and after the stretches."""

from __future__ import annotations

from collections import defaultdict
from dataclasses import dataclass, replace
from datetime import timedelta

from stillthread.core.belief.belief import narrowest_run
from stillthread.core.day.given import PlanInput
from stillthread.core.day.paths import IN_MEMORY, Paths
from stillthread.core.limits import Instant
from stillthread.core.outing.day import Laid
from stillthread.core.outing.from_plan import Doings
from stillthread.core.outing.so_far import Fished, SoFar
from stillthread.core.outing.words import in_words
from stillthread.core.plan.make import day_context, make_plan
from stillthread.core.plan.model import Plan
from stillthread.core.search.model import CELL_M

EVERY_MIN = 10.0  # a longer stretch is told in parts
SAME_DEPTH_M = 0.5  # what was fished so near the depth advised was fished as advised


@dataclass(frozen=True)
class Moment:
    """What was believed of one place at an instant: mass by 0.2 m cell (sum 1), and the narrowest half of it [m]."""

    at: Instant
    mass: tuple[float, ...]
    half_m: tuple[float, float]


@dataclass(frozen=True)
class Chosen:
    """What the advice was when something was chosen, or went on being fished, and whether that, or something as likely, was done.

    `chance` and `chance_fished` are those of a take in the next ten minutes, by the advice and by what was fished.
    """

    at: Instant
    advised: str
    followed: bool
    chance: float
    chance_fished: float


@dataclass(frozen=True)
class OverDay:
    """A place's belief through a day, its bed [m], and the choices made; no moments where nothing could be believed."""

    place: str
    bed_m: float
    moments: tuple[Moment, ...]
    chosen: tuple[Chosen, ...] = ()


def _parts(one: Fished) -> list[Fished]:
    """A stretch cut into parts of at most ten minutes, each with what happened in it."""
    count = max(1, round(one.minutes / EVERY_MIN))
    each = one.minutes / count
    found = []
    for n in range(count):
        start, end = n * each, (n + 1) * each if n < count - 1 else one.minutes + 1
        happened = tuple(replace(h, minute=h.minute - start) for h in one.happened if start <= h.minute < end)
        began = one.began + timedelta(minutes=start)
        found.append(replace(one, began=began, minutes=each, happened=happened))
    return found


def over_the_day(given: PlanInput, so_far: SoFar, paths: Paths = IN_MEMORY, plan: Plan | None = None) -> OverDay:
    """Return how the belief went at the place fished longest. Raises InputError where the plan does."""
    plan = plan if plan is not None else make_plan(given, paths)
    context, _ = day_context(given, paths)
    doings = Doings(plan, context, so_far.places)
    told = so_far.in_time
    beds = dict(zip(doings.belief.places, doings.belief.beds_m, strict=True))
    if not doings.all or not told:
        return OverDay(plan.chosen.place.name, plan.chosen.bed_m, ())
    minutes: dict[str, float] = defaultdict(float)
    for one in told:
        minutes[one.place if one.place in beds else doings.belief.places[0]] += one.minutes
    place = max(minutes, key=lambda name: minutes[name])
    laid = Laid(doings, so_far, 60 * given.session_h)
    moments, chosen = [_moment(laid, place, told[0].began)], list[Chosen]()
    for one in told:
        for n, part in enumerate(_parts(one)):
            if not part.partner and laid.standing is not None:
                chosen += _choice(laid, part, begins=n == 0, before=chosen[-1] if chosen else None)
            laid.lay(part)
            moments.append(_moment(laid, place, part.began + timedelta(minutes=part.minutes)))
    return OverDay(place, beds[place], tuple(moments), tuple(chosen))


def _choice(laid: Laid, part: Fished, begins: bool, before: Chosen | None) -> list[Chosen]:
    """What was advised as a part of a stretch began: told where a stretch begins, and where the advice was left."""
    fished = laid.candidate(part)
    best = laid.advisor.advise(laid.standing)[0]
    one = best.candidate
    rig = one.place, one.rig, one.pace, one.kinds
    near = abs(one.mean_m - fished.mean_m) <= SAME_DEPTH_M
    chance = laid.advisor.chance(fished)
    same = one.key == fished.key or (near and rig == (fished.place, fished.rig, fished.pace, fished.kinds))
    followed = same or chance >= best.chance
    if followed and not begins:
        return []
    words = in_words(best, laid.standing, laid.doings)
    if not followed and not begins and before is not None and not before.followed:
        return []  # the same advice still stands, or another that was left as well
    return [Chosen(at=part.began, advised=words, followed=followed, chance=best.chance, chance_fished=chance)]


def _moment(laid: Laid, place: str, at: Instant) -> Moment:
    mass = laid.advisor.by_depth()[laid.doings.belief.places.index(place)]
    total = sum(mass) or 1.0
    here = tuple(cell / total for cell in mass)
    top, bottom = narrowest_run(here, 0.5)
    return Moment(at, here, (round(top * CELL_M, 1), round(bottom * CELL_M, 1)))
