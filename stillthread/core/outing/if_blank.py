"""What to do in the hours ahead as long as nothing takes, and after a take: worked out beforehand, for a phone without signal."""

from __future__ import annotations

from dataclasses import dataclass, replace

from stillthread.core.day.given import PlanInput
from stillthread.core.day.paths import IN_MEMORY, Paths
from stillthread.core.outing.day import Laid, laid_on, off_the_water
from stillthread.core.outing.doing import Doing
from stillthread.core.outing.from_plan import Doings
from stillthread.core.outing.so_far import SoFar
from stillthread.core.outing.words import Next, Standing, said
from stillthread.core.plan.make import day_context, make_plan
from stillthread.core.plan.model import Plan
from stillthread.core.search.advisor import Advisor
from stillthread.core.search.model import Candidate, Spell, Step

AHEAD_MIN = 180.0  # how far ahead: common practice, figure ours
MOST_PHASES = 10
EVERY_MIN = 5.0
LONGEST_MIN = 60.0  # one thing is not told to be fished longer than that without a take


@dataclass(frozen=True)
class Phase:
    """Something fished, how long [min] without a take, how long [min] after one, and what then; None at the end.

    `doing` is None for what is fished now where the plan does not know it.
    """

    doing: Doing | None
    minutes: float
    after_take_min: float
    next: Next | None


@dataclass(frozen=True)
class IfBlank:
    """The phases ahead from what is fished now, or from a set-up of the plan by its key."""

    key: str
    phases: tuple[Phase, ...]


def _stays(advisor: Advisor, standing: Candidate, so_far: SoFar) -> float:
    """How long [min] the advice is to stay while nothing takes; the advisor then knows of that blank."""
    minutes = 0.0
    while minutes < LONGEST_MIN and advisor.advise(standing, so_far.rigged, most=1, told=False)[0].kind == "stay":
        advisor.observe(Spell(standing, EVERY_MIN))
        minutes += EVERY_MIN
    return minutes


def _then(advisor: Advisor, standing: Candidate, so_far: SoFar) -> Step | None:
    """What is best but to stay, with its chance; None where there is nothing else."""
    return next((step for step in advisor.advise(standing, so_far.rigged) if step.kind != "stay"), None)


def _phases(laid: Laid, standing: Candidate, doings: Doings, so_far: SoFar) -> tuple[Phase, ...]:
    advisor, found, gone = laid.advisor.copy(), list[Phase](), 0.0
    while gone < AHEAD_MIN and len(found) < MOST_PHASES:
        taken = advisor.copy()
        taken.observe(Spell(standing, EVERY_MIN, takes=1))
        after = _stays(taken, standing, so_far)
        minutes = _stays(advisor, standing, so_far)
        step = _then(advisor, standing, so_far)
        after_that = None
        if step is not None:
            now = Standing(standing, advisor.chance(standing), advisor.found_rate(standing), since_min=minutes)
            after_that = said(step, now, doings)
        found.append(
            Phase(
                doing=doings.by_key.get(standing.key),
                minutes=minutes,
                after_take_min=max(after, EVERY_MIN),
                next=after_that,
            )
        )
        if step is None:
            break
        advisor.moved(step.cost)
        standing, gone = step.candidate, gone + minutes + step.cost
    return tuple(found)


def if_blank(
    given: PlanInput, so_far: SoFar, paths: Paths = IN_MEMORY, plan: Plan | None = None, most: int = 4
) -> tuple[IfBlank, ...]:
    """Return what to do as long as nothing takes: from what is fished now, or, before a day begins, from each of the plan's first
    set-ups (at most `most`). Empty where nothing can be fished, or nobody should be on the water. Raises InputError where the plan does.
    """
    plan = plan if plan is not None else make_plan(given, paths)
    context, _ = day_context(given, paths)
    doings = Doings(plan, context, so_far.places, so_far.proven)
    if not doings.all or off_the_water(plan, so_far):
        return ()
    laid = laid_on(doings, so_far, 60 * given.session_h)
    if laid.standing is not None:
        return (IfBlank("", _phases(laid, laid.standing, doings, so_far)),)
    starts = {one.set_up.key: one for one in reversed(doings.all) if one.as_planned}
    keys = [set_up.key for set_up in plan.set_ups if set_up.key in starts][:most]
    fresh = replace(so_far, fished=())
    return tuple(IfBlank(key, _phases(laid, starts[key].candidate, doings, fresh)) for key in keys)
