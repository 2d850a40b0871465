"""The advise document: a plan, the day so far, and what to do next. Mirrors docs/contracts."""

from __future__ import annotations

from typing import Annotated, Literal

from annotated_types import Ge, Le, MaxLen

from stillthread.core.day.paths import IN_MEMORY, Paths
from stillthread.core.limits import Instant, Said
from stillthread.core.outing.day import Advice, advise
from stillthread.core.outing.if_blank import IfBlank, Phase
from stillthread.core.outing.over_day import OverDay
from stillthread.core.outing.so_far import Fished, Seen, SoFar
from stillthread.core.outing.words import Next
from stillthread.core.plan.model import Plan
from stillthread.core.search.model import CELL_M, Costs, StepKind
from stillthread.documents.plan import PlanRequest, plan_input_from
from stillthread.documents.strict import Fraction, Hundredths, Strict, Tenths, Whole


class Change(Strict):
    """When conditions changed: what was fished before says less. The plan's own reading is that of now."""

    at: Instant
    what: Annotated[str, MaxLen(120)] = ""


class SoFarBody(Strict):
    """The day so far, as it was fished and seen."""

    fished: Annotated[tuple[Fished, ...], MaxLen(300)] = ()
    others: Annotated[tuple[Seen, ...], MaxLen(100)] = ()
    changes: Annotated[tuple[Change, ...], MaxLen(50)] = ()
    costs: Costs = Costs()
    standing: Annotated[tuple[str, ...], MaxLen(4), Said("numbers of the rods that stand rigged")] = ()
    minutes_left: Annotated[float | None, Ge(0), Le(1440), Said("left out = the plan's session")] = None
    now: Instant


class AdviseRequest(SoFarBody):
    """A day on the go: what `./still advise` reads."""

    version: Literal[1] = 1
    plan: Annotated[PlanRequest, Said("the plan document with the reading of now")]


class StepOut(Strict):
    """One thing to do next, with its chance of a take in ten minutes against going on as now."""

    kind: StepKind
    words: str
    place: str
    set_up: Annotated[str | None, Said("key of the plan's set-up")]
    method: str
    title: str
    line_title: str
    count_s: int | None
    float_hang_m: Hundredths | None
    depth_m: Hundredths | None
    low_m: Annotated[Hundredths | None, Said("where the point fly may really be")]
    high_m: Hundredths | None
    pace: str
    flies: tuple[str, ...]
    minutes: Whole
    chance: Fraction
    chance_now: Fraction
    cost_min: Tenths
    reasons: tuple[str, ...]


class PhaseOut(Strict):
    """Something fished, how long without a take and after one, and what to do then."""

    set_up: Annotated[str | None, Said("key of the plan's set-up; null for what the plan does not know")]
    place: str
    count_s: int | None
    float_hang_m: Hundredths | None
    pace: str
    flies: tuple[str, ...]
    minutes: Whole
    after_take_min: Whole
    next: StepOut | None


class IfBlankOut(Strict):
    """The phases ahead from what is fished now (no key), or from a set-up of the plan by its key."""

    key: str
    phases: tuple[PhaseOut, ...]


class PlaceNow(Strict):
    """The belief at a place now: mass by 0.2 m cell; all places together sum to 1."""

    place: str
    cell_m: Tenths = CELL_M
    mass: tuple[Fraction, ...]


class MomentOut(Strict):
    """What was believed of the place at an instant: mass by cell (sum 1), and where half of it lies."""

    at: Instant
    mass: tuple[Fraction, ...]
    half_top_m: Tenths
    half_bottom_m: Tenths


class ChosenOut(Strict):
    """What the advice was when something was chosen or went on being fished, and whether that or as good was done."""

    at: Instant
    advised: str
    followed: bool
    chance: Fraction
    chance_fished: Fraction


class OverDayOut(Strict):
    """How the belief of the feeding depth went through an outing, at the place fished longest."""

    place: str
    bed_m: Tenths
    cell_m: Tenths = CELL_M
    moments: tuple[MomentOut, ...]
    chosen: tuple[ChosenOut, ...] = ()


def over_day_answer(found: OverDay) -> OverDayOut:
    """Return a day's belief as the API gives it."""
    return OverDayOut(
        place=found.place,
        bed_m=found.bed_m,
        moments=tuple(
            MomentOut(at=one.at, mass=one.mass, half_top_m=one.half_m[0], half_bottom_m=one.half_m[1])
            for one in found.moments
        ),
        chosen=tuple(ChosenOut(**vars(one)) for one in found.chosen),
    )


class TriedOut(Strict):
    """Minutes fished and takes near a depth of a place."""

    place: str
    depth_m: Tenths
    minutes: Whole
    takes: int


class AdviseAnswer(Strict):
    """What `./still advise` prints: the belief now, what to do next and why, what the takes say, what was tried."""

    version: Literal[1] = 1
    belief: tuple[PlaceNow, ...]
    place: str
    half_top_m: Annotated[Tenths, Said("half the belief at the place")]
    half_bottom_m: Tenths
    band_top_m: Annotated[Tenths, Said("four fifths of the belief at the place")]
    band_bottom_m: Tenths
    plan_right: Annotated[Fraction, Said("weight of 'the plan was right'")]
    next: tuple[StepOut, ...]
    evidence: tuple[str, ...]
    tried: tuple[TriedOut, ...]
    since_take_min: Whole
    stop: str = ""


def _step_out(one: Next) -> StepOut:
    doing = one.doing
    by = doing.depth_m - doing.set_up.target_m if doing else 0.0
    return StepOut(
        kind=one.kind,
        words=one.words,
        place=doing.place if doing else "",
        set_up=doing.set_up.key if doing else None,
        method=doing.set_up.method if doing else "",
        title=doing.set_up.title if doing else "",
        line_title=doing.set_up.line.title if doing else "",
        count_s=doing.count_s if doing else None,
        float_hang_m=doing.hang_m if doing else None,
        depth_m=doing.depth_m if doing else None,
        low_m=max(0.0, doing.set_up.low_m + by) if doing else None,
        high_m=max(0.0, doing.set_up.high_m + by) if doing else None,
        pace=doing.pace if doing else "",
        flies=doing.flies if doing else (),
        minutes=one.minutes,
        chance=one.chance,
        chance_now=one.chance_now,
        cost_min=one.cost_min,
        reasons=one.reasons,
    )


def if_blank_answer(found: tuple[IfBlank, ...]) -> tuple[IfBlankOut, ...]:
    """Return the phases ahead as the API gives them."""
    return tuple(IfBlankOut(key=one.key, phases=tuple(map(_phase_out, one.phases))) for one in found)


def _phase_out(one: Phase) -> PhaseOut:
    doing = one.doing
    return PhaseOut(
        set_up=doing.set_up.key if doing else None,
        place=doing.place if doing else "",
        count_s=doing.count_s if doing else None,
        float_hang_m=doing.hang_m if doing else None,
        pace=doing.pace if doing else "",
        flies=doing.flies if doing else (),
        minutes=one.minutes,
        after_take_min=one.after_take_min,
        next=_step_out(one.next) if one.next is not None else None,
    )


def so_far_from(doc: SoFarBody) -> SoFar:
    """Return the day so far as the core has it."""
    return SoFar(
        now=doc.now,
        fished=doc.fished,
        others=doc.others,
        changed=tuple(change.at for change in doc.changes),
        costs=doc.costs,
        rigged=frozenset(doc.standing),
        minutes_left=doc.minutes_left,
    )


def advise_answer(advice: Advice) -> AdviseAnswer:
    """Return the core's advice as the document."""
    return AdviseAnswer(
        belief=tuple(PlaceNow(place=p, mass=m) for p, m in zip(advice.places, advice.mass, strict=True)),
        place=advice.place,
        half_top_m=advice.half_m[0],
        half_bottom_m=advice.half_m[1],
        band_top_m=advice.band_m[0],
        band_bottom_m=advice.band_m[1],
        plan_right=advice.plan_right,
        next=tuple(_step_out(one) for one in advice.next),
        evidence=advice.evidence,
        tried=tuple(TriedOut(place=t.place, depth_m=t.depth_m, minutes=t.minutes, takes=t.takes) for t in advice.tried),
        since_take_min=advice.since_take_min,
        stop=advice.stop,
    )


def answer(doc: AdviseRequest, paths: Paths = IN_MEMORY, plan: Plan | None = None) -> AdviseAnswer:
    """Return the answer to an advise document. Raises InputError with every fault by path."""
    return advise_answer(advise(plan_input_from(doc.plan), so_far_from(doc), paths, plan))
