"""A day on the water so far, and what it says to do next: stretches fished, what others took, and the next step in words."""

from __future__ import annotations

from collections import Counter
from dataclasses import dataclass, replace

from stillthread.core.belief.belief import narrowest_run, smallest_band
from stillthread.core.day.given import PlanInput
from stillthread.core.day.paths import IN_MEMORY, Paths
from stillthread.core.outing.from_plan import SPREAD_M, Doings, pace_class, spread_over
from stillthread.core.outing.so_far import Fished, Seen, SoFar
from stillthread.core.outing.words import Next, Standing, or_a_day, said, stop
from stillthread.core.plan.make import day_context, make_plan
from stillthread.core.plan.model import Plan
from stillthread.core.reading.cautions import ENDS_THE_DAY
from stillthread.core.search.advisor import Advisor
from stillthread.core.search.evidence import SEEN, evidence
from stillthread.core.search.model import CELL_M, Candidate, Spell

FIGHT_MIN = 2.5  # a fish takes the rod out of the water for so long: common practice, figure ours
NEIGHBOUR_WEIGHT, OLD_WEIGHT = 0.5, 0.5
GONE_AFTER_MIN = 5.0  # a partner's stretch that ended longer ago is no longer fished: figure ours


@dataclass(frozen=True)
class Tried:
    """Minutes fished and takes at a depth [m] of a place."""

    place: str
    depth_m: float
    minutes: float
    takes: int


@dataclass(frozen=True)
class Advice:
    """What is believed now, what to do next, and what the day's takes say."""

    plan: Plan
    places: tuple[str, ...]
    mass: tuple[tuple[float, ...], ...]
    place: str
    half_m: tuple[float, float]
    band_m: tuple[float, float]
    plan_right: float
    next: tuple[Next, ...]
    evidence: tuple[str, ...]
    tried: tuple[Tried, ...]
    since_take_min: float
    stop: str = ""


class Laid:
    """Evidence laid on a plan in the order of time."""

    def __init__(self, doings: Doings, so_far: SoFar, minutes_left: float) -> None:
        self.doings, self.so_far = doings, so_far
        # One's last stretch can be gone on with whatever it was; nothing else that nobody could be told how to fish.
        known = {one.candidate.key: one.candidate for one in doings.all}
        fished = so_far.in_time
        known |= {one.key: one for one in map(self.candidate, fished) if one.key in doings.by_key}
        known |= {one.key: one for one in map(self.candidate, [f for f in fished if not f.partner][-1:])}
        candidates = list(known.values())
        self.advisor = Advisor.start(
            belief=doings.belief,
            kinds=doings.kinds,
            candidates=candidates,
            costs=so_far.costs,
            minutes_left=minutes_left,
            expected=doings.expected(),
        )
        self.standing: Candidate | None = None
        self.partner: tuple[Candidate, Fished] | None = None

    def candidate(self, one: Fished) -> Candidate:
        """The candidate a stretch was fished with: the plan's where it names one, else what its numbers say."""
        belief = self.doings.belief
        place = one.place if one.place in belief.places else belief.places[0]
        foods = self.doings.likeness.of(one.flies)
        kinds, likeness = tuple(foods), tuple(foods.values())
        here = [d for d in self.doings.all if d.place == place and d.pace == one.pace]
        same = [d for d in here if d.set_up.key == one.set_up] or [d for d in here if d.set_up.method == one.method]
        fly = one.flies[-1] if one.flies else ""
        depth = one.depth_m if one.depth_m is not None else (same[0].depth_m if same else 1.0)
        if same:
            near = min(same, key=lambda d: (abs(d.depth_m - depth), d.flies != one.flies))
            if abs(near.depth_m - depth) < SPREAD_M:
                if near.flies == one.flies:
                    return near.candidate
                return self.doings.with_flies(near, one.flies).candidate
        low = one.low_m if one.low_m is not None else depth - SPREAD_M
        high = one.high_m if one.high_m is not None else depth + SPREAD_M
        bed = belief.beds_m[belief.places.index(place)]
        up, down = self.doings.reach(min(depth, bed))
        return Candidate(
            key=f"own|{place}|{one.method}|{depth:.1f}|{one.pace}|{fly}",
            place=place,
            method=same[0].candidate.method if same else one.method,
            kinds=kinds,
            likeness=likeness,
            pace=pace_class(one.pace),
            exposure=spread_over(depth, low, high, bed),
            up_m=up,
            down_m=down,
            rod=same[0].candidate.rod if same else "",
            line=same[0].candidate.line if same else (one.set_up or ""),
            count_s=one.count_s,
            depth_m=depth,
            fly=fly,
        )

    def lay(self, one: Fished) -> None:
        """Lay a stretch on, in blocks that end where something happened or conditions changed."""
        candidate = self.candidate(one)
        marks = sorted(one.happened, key=lambda h: h.minute)
        at, fighting = 0.0, 0.0
        for mark in [*marks, None]:
            end = min(mark.minute, one.minutes) if mark is not None else one.minutes
            minutes = max(0.0, end - at - fighting)
            spell = Spell(
                candidate,
                minutes,
                takes=int(mark is not None and mark.kind == "take"),
                plucks=int(mark is not None and mark.kind == "pluck"),
                follows=int(mark is not None and mark.kind == "follow"),
                weight=self.weight(one, at),
                by="partner" if one.partner else "",
            )
            self.advisor.observe(spell)
            at, fighting = end, FIGHT_MIN if spell.takes else 0.0
        if one.partner:
            over = (self.so_far.now - one.began).total_seconds() / 60 - one.minutes
            self.partner = (candidate, one) if over <= GONE_AFTER_MIN else None
        else:
            self.standing = candidate

    def beside(self) -> tuple[Candidate | None, str]:
        """What a partner is left to try, and what to say of it; one who has just taken calls the other over."""
        if self.partner is None:
            return None, ""
        candidate, one = self.partner
        minutes = (self.so_far.now - one.began).total_seconds() / 60
        where = f"{candidate.mean_m:.1f} m at {candidate.place}"
        last = max((h.minute for h in one.happened if h.kind == "take"), default=None)
        since = minutes - (last or 0.0)
        if self.advisor.called_over(candidate):
            told = f"Your partner took at about {where} {since:.0f} min ago: that counts as your own."
            return candidate, told if last is not None else ""  # else the take there was one's own
        blank = "nothing yet" if last is None else f"nothing for {since:.0f}"
        return candidate, f"Your partner has {where} in hand ({minutes:.0f} min, {blank}): two rods search more apart."

    def weight(self, one: Fished, minute: float) -> float:
        """How much a stretch says: less from before conditions changed."""
        when = one.began.timestamp() + 60 * minute
        changes = sum(1 for change in self.so_far.changed if change.timestamp() > when)
        return float(OLD_WEIGHT**changes)

    def lay_seen(self, one: Seen) -> None:
        """Lay what was seen of a neighbour: half the weight; what is not known fits everything."""
        belief = self.doings.belief
        place = one.place if one.place in belief.places else ""
        bed = max(belief.beds_m)
        depth = one.depth_m
        count = max(1, round(bed / CELL_M))
        exposure = spread_over(depth, depth - 0.5, depth + 0.5, bed) if depth is not None else (1.0 / count,) * count
        up, down = self.doings.reach(depth if depth is not None else 1.0)
        foods = self.doings.likeness.of((one.fly,))
        candidate = Candidate(
            key="seen",
            place=place,
            method=SEEN,
            kinds=tuple(foods) or tuple(kind.name for kind in self.doings.kinds),
            likeness=tuple(foods.values()),
            pace=pace_class(one.pace or "hand-twist"),
            exposure=exposure,
            up_m=up,
            down_m=down,
        )
        self.advisor.observe(Spell(candidate, one.minutes, one.takes, weight=NEIGHBOUR_WEIGHT, by="neighbour"))


def laid_on(doings: Doings, so_far: SoFar, session_min: float) -> Laid:
    """Return everything fished and seen so far laid on a plan's belief, in the order of time; a session lasts so long [min]."""
    told = so_far.in_time
    gone = (so_far.now - told[0].began).total_seconds() / 60 if told else 0.0
    left = so_far.minutes_left if so_far.minutes_left is not None else max(0.0, session_min - gone)
    laid = Laid(doings, so_far, left + gone)
    both = sorted(
        [(one.began, 0, one) for one in told] + [(one.at, 1, one) for one in so_far.others], key=lambda x: x[:2]
    )
    for _, _, one in both:
        if isinstance(one, Fished):
            laid.lay(one)
        else:
            laid.lay_seen(one)
    laid.advisor.minutes_left = left
    return laid


def advise(given: PlanInput, so_far: SoFar, paths: Paths = IN_MEMORY, plan: Plan | None = None) -> Advice:
    """Return what to do next on a day, from its plan and everything fished so far; the order of arrival does not matter.

    The plan is made anew for `given`, whose reading and hour are those of now, unless it is handed in. Where it offers no set-up (warm water under
    catch and release, say) the advice is to stop, with the reason. Raises InputError where the plan does.
    """
    plan = plan if plan is not None else make_plan(given, paths)
    context, _ = day_context(given, paths)
    doings = Doings(plan, context, so_far.places, so_far.proven)
    if not doings.all:
        return _stopped(plan, doings)
    laid = laid_on(doings, so_far, 60 * given.session_h)
    laid.advisor.at = given.place or ""
    laid.advisor.ready = doings.first
    return _heeding(_advice(plan=plan, doings=doings, laid=laid, so_far=so_far, told=so_far.in_time), so_far)


def off_the_water(plan: Plan, so_far: SoFar) -> str:
    """Return what sends everybody off the water (thunder before too much wind for a boat), in words; empty without."""
    stops = {one.code: one.sentence for one in plan.cautions if one.level == "stop"}
    return next((stops[code] for code in ENDS_THE_DAY if code in stops), so_far.stop)


def _heeding(advice: Advice, so_far: SoFar) -> Advice:
    """Advice that heeds the plan's gravest cautions: off the water in thunder, ashore in too much wind, and nothing else beside
    them; what is said of warm water stands beside the next step.
    """
    danger = off_the_water(advice.plan, so_far)
    if danger:
        return replace(advice, next=(stop(danger),), stop=danger)
    first, *rest = advice.next
    warm = tuple(one.sentence for one in advice.plan.cautions if one.level == "stop")
    return replace(advice, next=(replace(first, reasons=(*warm, *first.reasons)), *rest))


def _stopped(plan: Plan, doings: Doings) -> Advice:
    why = next((c.sentence for c in plan.cautions if c.level == "stop"), "") or next(
        (one.reason for one in plan.ruled_out), "Nothing can be fished here as things stand."
    )
    return Advice(
        plan=plan,
        places=doings.belief.places,
        mass=doings.belief.mass,
        place=plan.chosen.place.name,
        half_m=smallest_band(plan.chosen, 0.5),
        band_m=smallest_band(plan.chosen, 0.8),
        plan_right=1.0,
        next=(stop(why),),
        evidence=(),
        tried=(),
        since_take_min=0.0,
        stop=why,
    )


def _advice(plan: Plan, doings: Doings, laid: Laid, so_far: SoFar, told: tuple[Fished, ...]) -> Advice:
    advisor, standing = laid.advisor, laid.standing
    partner, beside = laid.beside()
    steps = advisor.advise(standing, so_far.rigged, partner)
    since = _since_take(told)
    now = Standing(
        candidate=standing,
        chance=advisor.chance(standing) if standing is not None else 0.0,
        found_per_h=advisor.found_rate(standing) if standing is not None else 0.0,
        since_min=since,
        taken=any(h.kind == "take" for one in told for h in one.happened),
        beside=beside,
        seen=_seen_taking(so_far),
        on_this=_on_this(told, laid),
    )
    mass = advisor.by_depth()
    place = standing.place if standing is not None else steps[0].candidate.place
    tried = _tried(told, laid)
    return Advice(
        plan=plan,
        places=doings.belief.places,
        mass=mass,
        place=place,
        half_m=_band(mass[doings.belief.places.index(place)], 0.5),
        band_m=_band(mass[doings.belief.places.index(place)], 0.8),
        plan_right=1.0 - advisor.uniform,
        next=or_a_day(tuple(said(step, now, doings) for step in steps), since),
        evidence=evidence(advisor.tried),
        tried=tried,
        since_take_min=since,
    )


def _on_this(told: tuple[Fished, ...], laid: Laid) -> Counter[str]:
    """What happened so far on what is in hand, by kind."""
    hand = laid.standing.key if laid.standing is not None else None
    mine = [one for one in told if not one.partner and laid.candidate(one).key == hand]
    return Counter(mark.kind for one in mine for mark in one.happened)


def _seen_taking(so_far: SoFar) -> dict[str, str]:
    """What others were seen to take, by place."""
    found = {}
    for place in {one.place for one in so_far.others if one.place}:
        seen = [one for one in so_far.others if one.place == place]
        takes, minutes = sum(one.takes for one in seen), sum(one.minutes for one in seen)
        if takes > 0:
            found[place] = f"Others were seen to take {takes} there in {minutes:.0f} min."
    return found


def _band(mass: tuple[float, ...], share: float) -> tuple[float, float]:
    top, bottom = narrowest_run(mass, share)
    return round(top * CELL_M, 1), round(bottom * CELL_M, 1)


def _tried(told: tuple[Fished, ...], laid: Laid) -> tuple[Tried, ...]:
    found: dict[tuple[str, float], list[float]] = {}
    for one in told:
        candidate = laid.candidate(one)
        depth = round(candidate.mean_m * 2) / 2
        row = found.setdefault((candidate.place, depth), [0.0, 0.0])
        row[0] += one.minutes
        row[1] += sum(1 for h in one.happened if h.kind == "take")
    return tuple(Tried(place, depth, row[0], int(row[1])) for (place, depth), row in sorted(found.items()))


def _since_take(told: tuple[Fished, ...]) -> float:
    """Minutes fished since the last take, one's own."""
    since = 0.0
    for one in told:
        if one.partner:
            continue
        takes = [h.minute for h in one.happened if h.kind == "take"]
        since = one.minutes - max(takes) if takes else since + one.minutes
    return since
