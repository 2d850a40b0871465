"""From a plan to a search: what is believed, and everything an angler can do now with what the plan shows and the box holds."""

from __future__ import annotations

import math
from collections.abc import Set
from dataclasses import replace

import numpy as np

from stillthread.core.belief.belief import PlaceBelief, knows_nothing
from stillthread.core.belief.factors import CELL_M as BELIEF_CELL_M
from stillthread.core.belief.reach import CAST_S
from stillthread.core.casts.track import CastResult
from stillthread.core.day.context import Context
from stillthread.core.day.paths import pull_of
from stillthread.core.food.catalogue import BY_KEY
from stillthread.core.methods.dry import film_share
from stillthread.core.methods.hung import FISHED_SHARE
from stillthread.core.outing.doing import Doing
from stillthread.core.outing.likeness import Likeness
from stillthread.core.outing.weighed import weighed
from stillthread.core.plan.make import above_cool, cool_depths, ways_at
from stillthread.core.plan.model import Plan
from stillthread.core.plan.next_steps import fished_with, float_rungs, other_points
from stillthread.core.search.model import CELL_M, MOST_PLACES, Belief, Candidate, Kind, PaceClass
from stillthread.core.setup.model import Rung, SetUp
from stillthread.core.setup.retrieves import RETRIEVES
from stillthread.core.setup.worth import pace_worth, swims
from stillthread.core.trout.notice import BELOW_REACH_M, upward_reach_m

MOST_KINDS = 4
WORTH_A_FLY = 0.05  # share of the food from which a fly is tied on for it
WORTH_A_PLACE = 0.04  # share of the belief from which a place is reckoned with
CLEAR_M, UNDER_THE_BED = 0.3, 0.05  # how far above another bed a rung must fish, and how much of its time may lie below
MOST_FLOAT_STEPS = 60  # of 30 cm, either way
UNDER_FLOAT_M = 0.3  # how far under the float the top dropper hangs at least
# A float is lifted and let down, then drawn slowly (common practice); how far that lifts the flies, and what is left of the time
# fished, since it must be cast anew, are ours.
DRAWN, DRAWN_UP_M, DRAWN_LEFT = "slow-hand-twist", 0.3, 0.7
MOST_LAID_OUT = 2  # of the places the plan's set-ups do not suit
# How much of the clock a way fishes that the thread does not run: common practice, figures ours.
WAY_SHARE = 0.6
SPREAD_M = 0.3
# The search's bell falls to 1/e where the noticing kernel's falls to exp(-1/2).
BELL = math.sqrt(2.0)
SLOW_UP_TO_M_S = 0.1  # a pace up to this is slow, faster is fast: between strips and long pulls


def pace_class(pace: str) -> PaceClass:
    """Return how fast a retrieve is to a fish: still, slow or fast, by its key."""
    one = RETRIEVES.get(pace)
    if one is None or one.kind in ("static", "drift") or one.speed_m_s < 0.02:
        return "static"
    return "slow" if one.speed_m_s <= SLOW_UP_TO_M_S else "fast"


def _by_cell(belief: PlaceBelief) -> tuple[float, ...]:
    per = round(CELL_M / BELIEF_CELL_M)
    padded = np.pad(belief.mass, (0, -len(belief.mass) % per))
    return tuple(float(v) for v in padded.reshape(-1, per).sum(axis=1))


def belief_of(plan: Plan, context: Context, named: Set[str] = frozenset()) -> Belief:
    """Return the plan's belief in the search's cells, for the places worth reckoning with and those `named` on the day."""
    first = sorted(plan.beliefs, key=lambda b: (b is not plan.chosen, b.place.name not in named, -b.share))
    able = [b for b in first if b is plan.chosen or b.place.name in named or b.share >= WORTH_A_PLACE]
    chosen = sorted(able[:MOST_PLACES], key=lambda b: -b.share)
    total = sum(b.share for b in chosen)
    return Belief(
        places=tuple(b.place.name for b in chosen),
        beds_m=tuple(len(_by_cell(b)) * CELL_M for b in chosen),
        mass=tuple(tuple(v / total for v in _by_cell(b)) for b in chosen),
        read=not knows_nothing(context.given.reading, context.given.sightings),
    )


def kinds_of(context: Context) -> tuple[Kind, ...]:
    """Return the foods a fly may have to stand for, likeliest first."""
    ranked = sorted(context.food.share.items(), key=lambda item: -item[1])[:MOST_KINDS]
    return tuple(Kind(key, share) for key, share in ranked if share > 0)


def spread_over(depth_m: float, low_m: float, high_m: float, bed_m: float) -> tuple[float, ...]:
    """Return a share of time by cell about a depth [m], within a band [m]; for ways and stretches the thread is not asked for."""
    count = max(1, round(bed_m / CELL_M))
    z = (np.arange(count) + 0.5) * CELL_M
    wide = max(SPREAD_M, (high_m - low_m) / 2.56)
    weight = np.exp(-0.5 * ((z - min(depth_m, bed_m)) / wide) ** 2)
    return tuple(float(v) for v in weight / weight.sum())


def _exposure(result: CastResult, bed_m: float) -> tuple[float, ...]:
    """The share of the fished time of the point fly in each cell."""
    middles, seconds = result.point.exposure(result.countdown_s, result.end_s)
    cells = np.zeros(max(1, round(bed_m / CELL_M)))
    np.add.at(cells, np.minimum((middles / CELL_M).astype(int), len(cells) - 1), seconds)
    return tuple(float(v) for v in cells / max(float(cells.sum()), 1e-9))


def _hangs_whole(set_up: SetUp, rung: Rung) -> bool:
    """Whether all of a set-up's flies are under the float at a rung: hung higher, the point is fished alone."""
    at = set_up.leader.flies_at_m
    return rung.float_hang_m is None or rung.float_hang_m >= at[-1] - at[0] + UNDER_FLOAT_M


class Doings:
    """Everything that can be done now with a plan, in the search's terms and the angler's."""

    def __init__(
        self, plan: Plan, context: Context, named: Set[str] = frozenset(), proven: Set[str] = frozenset()
    ) -> None:
        """Work the candidates out; `named` are places where something was fished or seen today, `proven` flies that took."""
        self.plan, self.context = plan, context
        self.belief, self.kinds = belief_of(plan, context, named), kinds_of(context)
        self._beds = dict(zip(self.belief.places, self.belief.beds_m, strict=True))
        self._kinds = {kind.name for kind in self.kinds}
        self.likeness = Likeness(context, self._kinds)
        self._carried = {fly.name for fly in context.given.flies if fly.stock != 0}
        self._cool = cool_depths(context, plan.welfare)
        shown = [one for set_up in plan.set_ups for one in self._of(set_up)]
        there = [one for set_up in self._elsewhere(shown, named) for one in self._of(set_up)]
        self.all = weighed((*shown, *there), self.belief, self.kinds)
        if proven:  # the plan weighed its ways before anything had taken
            before, self.likeness = self.likeness, Likeness(context, self._kinds, proven)
            self.all = tuple(self._tied(one, one.flies, before.shows(one.flies)) for one in self.all)
        self.by_key = {one.candidate.key: one for one in self.all}

    def _elsewhere(self, shown: list[Doing], named: Set[str]) -> list[SetUp]:
        """Ways for the places none of the plan's set-ups can be fished at: the likeliest, and those named on the day."""
        reached = {one.place for one in shown if self._beds[one.place] >= one.set_up.target_m + CLEAR_M}
        reached |= {one.place for one in self.plan.set_ups}
        left = [b for b in self.plan.beliefs if b.place.name in self._beds and b.place.name not in reached]
        left.sort(key=lambda b: (b.place.name not in named, -b.share))
        told = left[:MOST_LAID_OUT] if shown else []
        return [way for place in told for way in ways_at(place, self.context, self.plan.set_ups)]

    def with_flies(self, near: Doing, flies: tuple[str, ...]) -> Doing:
        """Return a way with what somebody really tied on; it can be done like the others where the box holds that."""
        found = self._tied(near, flies, self.likeness.shows(near.flies))
        found = replace(found, candidate=replace(found.candidate, key=f"{near.candidate.key}|{'+'.join(flies)}"))
        if flies and self._carried.issuperset(flies):
            self.by_key.setdefault(found.candidate.key, found)
        return found

    def _tied(self, one: Doing, flies: tuple[str, ...], shown: float) -> Doing:
        """A way with other flies, or the same in another light; `shown` is how well what was on it was reckoned to show."""
        foods, found = self.likeness.of(flies), one.worth(self.likeness.shows(flies) / shown)
        fly = flies[-1] if flies else ""
        candidate = replace(found.candidate, kinds=tuple(foods), likeness=tuple(foods.values()), fly=fly)
        return replace(found, candidate=candidate, flies=flies)

    @property
    def first(self) -> str:
        """The key of the plan's first set-up as it shows it; empty where that cannot be fished."""
        found = (one for one in self.all if one.set_up is self.plan.set_ups[0] and one.as_planned)
        return next((one.candidate.key for one in found), "") if self.plan.set_ups else ""

    def expected(self) -> tuple[Candidate, float] | None:
        """Return a set-up as it stands in the plan with the takes an hour the own log gives it, None where it cannot say."""
        for one in self.all:
            told = one.set_up.expected
            own = one.count_s == one.set_up.count_s and one.hang_m == one.set_up.float_hang_m
            if told is not None and own and one.place == one.set_up.place and one.pace == one.set_up.retrieve.key:
                return one.candidate, told.per_hour
        return None

    def reach(self, depth_m: float) -> tuple[float, float]:
        """Return how far above and below itself a fish notices a fly at a depth [m], as the search's bell has it."""
        context = self.context
        times = context.angler.learnt.notice
        up = upward_reach_m(context.light.secchi_m, context.light.at(depth_m), times)
        return BELL * up, BELL * BELOW_REACH_M * times

    def _of(self, set_up: SetUp) -> list[Doing]:
        """A set-up as it stands, at its rungs, at its other paces, with other flies, at every place deep enough for it."""
        teams = self._teams(set_up)
        found = []
        depths = [
            one for one in self._depths(set_up) if above_cool(set_up, one[0].depth_m, self.context, self._cool) is None
        ]
        for place in self.belief.places:
            if place != set_up.place and set_up.elsewhere:
                continue
            for depth in depths:
                if place == set_up.place or self._clear(place, depth[0], depth[2]):
                    able = dict.fromkeys(team if _hangs_whole(set_up, depth[0]) else team[-1:] for team in teams)
                    found += [self._doing(set_up, place, team, depth) for team in able]
        return found

    def _teams(self, set_up: SetUp) -> list[tuple[str, ...]]:
        """A set-up's flies, those with another point that the plan names, and for each food of the day that none of these stands
        for the likeliest point of the box.
        """
        tied = tuple(f.fly.name for f in set_up.flies)
        points = [name for name, _ in set_up.changes.next_flies]
        others = other_points(set_up, self.context)
        for kind in self.kinds:
            if kind.share >= WORTH_A_FLY and kind.name not in self.likeness.of((*tied, *points)):
                points += [match.fly.name for match in others if kind.name in match.fly.prey][:1]
        return [tied, *((*tied[:-1], name) for name in points)]

    def _clear(self, place: str, rung: Rung, exposure: tuple[float, ...]) -> bool:
        """Whether a rung laid out over another bed fishes clear of this place's."""
        bed_m = self._beds[place]
        return rung.depth_m + CLEAR_M <= bed_m and sum(exposure[round(bed_m / CELL_M) :]) <= UNDER_THE_BED

    def _bed_m(self, set_up: SetUp) -> float:
        """The bed a set-up was laid out over: its own place's."""
        return self._beds.get(set_up.place, self.context.bed_m)

    def _depths(self, set_up: SetUp) -> list[tuple[Rung, str, tuple[float, ...], float]]:
        """Counts, hangs and paces it can be fished at: rung, pace, exposure by cell, share of the clock fished."""
        bed_m = self._bed_m(set_up)
        own = Rung(set_up.count_s, set_up.float_hang_m, set_up.target_m)
        rungs = list(set_up.ladder) or [own]
        if set_up.float_hang_m is not None:  # it is moved in a minute: any depth is worth a thought
            rungs = float_rungs(set_up, bed_m, self.context.landing_m, each_way=MOST_FLOAT_STEPS)
        if all((r.count_s, r.float_hang_m) != (own.count_s, own.float_hang_m) for r in rungs):
            rungs.append(own)
        found = [(rung, *self._fished(set_up, rung)) for rung in rungs]
        if set_up.float_hang_m is not None and self.context.allows(RETRIEVES[DRAWN].kind):
            found += [(rung, DRAWN, *self._drawn(set_up, rung)) for rung in rungs]
        for key in set_up.changes.next_paces if set_up.float_hang_m is None else ():
            paced = fished_with(set_up, self.context, pull=pull_of(RETRIEVES[key]))
            if paced is not None:
                rung = replace(paced, pace=key)
                found.append((rung, *self._fished(set_up, rung)))
        return found

    def _fished(self, set_up: SetUp, rung: Rung) -> tuple[str, tuple[float, ...], float]:
        pace = rung.pace or set_up.retrieve.key
        if set_up.rig is None or set_up.cast is None or set_up.float_hang_m is not None or rung.count_s is None:
            lifted = max(0.0, set_up.target_m - (set_up.estimate_m or set_up.target_m))
            middle = max(rung.depth_m - lifted / 2, 0.05)
            exposure = spread_over(middle, middle - SPREAD_M, middle + SPREAD_M, self._bed_m(set_up))
            return pace, exposure, self._way_share(set_up)
        cast = replace(set_up.cast, countdown_s=float(rung.count_s))
        if rung.pace is not None:
            cast = replace(cast, pull=pull_of(RETRIEVES[rung.pace]))
        if rung.lift_off_s is not None:
            cast = replace(cast, most_s=rung.lift_off_s, hold_s=rung.lift_off_s)
        path = self.context.paths.screened(set_up.rig, cast)
        return pace, _exposure(path, self._bed_m(set_up)), _share(path)

    def _drawn(self, set_up: SetUp, rung: Rung) -> tuple[tuple[float, ...], float]:
        """Where a team under a float is when it is drawn slowly along, and for how much of the clock."""
        middle = max(rung.depth_m - DRAWN_UP_M / 2, 0.05)
        wide = SPREAD_M + DRAWN_UP_M / 2
        return spread_over(middle, middle - wide, middle + wide, self._bed_m(set_up)), DRAWN_LEFT * self._way_share(
            set_up
        )

    def _way_share(self, set_up: SetUp) -> float:
        """How much of the clock a way fishes that the thread does not run."""
        if set_up.method == "dry":
            return min(1.0, film_share(self.context, set_up.flies[0].fly.prey[0]))
        return FISHED_SHARE if set_up.method == "float" else WAY_SHARE

    def _doing(
        self, set_up: SetUp, place: str, team: tuple[str, ...], depth: tuple[Rung, str, tuple[float, ...], float]
    ) -> Doing:
        rung, pace, exposure, share = depth
        up, down = self.reach(rung.depth_m)
        rod = str(set_up.rod) if set_up.rod is not None else ""
        foods = self.likeness.of(team)
        candidate = Candidate(
            key=f"{place}|{set_up.key}|{rung.count_s}|{rung.float_hang_m}|{pace}|{'+'.join(team)}",
            place=place,
            method=f"{set_up.method}.{set_up.style}",
            kinds=tuple(foods),
            likeness=tuple(foods.values()),
            pace=pace_class(pace),
            exposure=exposure,
            fishing_share=share * self.likeness.shows(team) * self._paced(set_up, pace, rung.depth_m),
            up_m=up,
            down_m=down,
            rod=rod,
            line=set_up.line.key,
            count_s=rung.count_s,
            hang_m=rung.float_hang_m,
            depth_m=rung.depth_m,
            fly=team[-1],
        )
        return Doing(
            candidate=candidate,
            set_up=set_up,
            place=place,
            flies=team,
            pace=pace,
            count_s=rung.count_s,
            hang_m=rung.float_hang_m,
            depth_m=rung.depth_m,
            lift_off_s=rung.lift_off_s,
        )

    def _paced(self, set_up: SetUp, pace: str, depth_m: float) -> float:
        """What the plan makes of another pace than a set-up's own: as the prey swims, as trout answer it in such water; 1 at most."""
        if pace == set_up.retrieve.key or pace not in RETRIEVES:
            return 1.0
        eaten = (BY_KEY[key] for one in set_up.flies for key in one.fly.prey if key in BY_KEY)
        prey = max(eaten, key=lambda one: self.context.food.share[one.key], default=None)

        def suits(speed_m_s: float) -> float:
            return pace_worth(self.context, speed_m_s, depth_m) * (swims(prey, speed_m_s) if prey else 1.0)

        return min(1.0, suits(RETRIEVES[pace].speed_m_s) / suits(set_up.retrieve.speed_m_s))

    def food_word(self, kind: str) -> str:
        """Return what a food is called."""
        return BY_KEY[kind].name.lower() if kind in BY_KEY else kind


def _share(path: CastResult) -> float:
    """How much of the clock a cast's flies are fished, casting and counting taken off."""
    return max(0.05, (path.end_s - path.countdown_s) / (path.end_s + CAST_S))
