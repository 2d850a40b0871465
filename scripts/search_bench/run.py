"""Days on virtual lakes: the advisor and every ladder on the same lake with the same luck."""

from __future__ import annotations

import math
from concurrent.futures import ProcessPoolExecutor
from dataclasses import dataclass, field

import numpy as np

from search_bench.lake import DAY_MIN, FAMILIES, PLANS, Day, Lake, candidates_for, make_lake
from stillthread.core.belief.belief import narrowest_run
from stillthread.core.search.advisor import Advisor
from stillthread.core.search.ladders import LADDERS
from stillthread.core.search.model import CELL_M, Candidate, Costs, Spell

STEPS_MIN = (5, 10, 15, 20)
LADDER_NAMES = tuple(f"{name}/{step}" for name in LADDERS for step in STEPS_MIN)
COSTS = Costs()
BLOCK_MIN = 5


@dataclass
class Result:
    """What a day gave: takes and the minute of the first, for the advisor and each ladder; what the belief held; the takes that
    the chances told for it, where they were asked for.
    """

    family: int
    plan: str
    takes: float
    first: float
    ladder_takes: list[int] = field(default_factory=list)
    ladder_first: list[float] = field(default_factory=list)
    held: list[bool] = field(default_factory=list)
    pair: tuple[float, float] | None = None
    promised: float | None = None


def holds_truth(advisor: Advisor, lake: Lake, clock: int) -> bool:
    """Whether the narrowest four fifths of the belief at the fish's place hold the layer's depth now."""
    p = lake.best_place
    top, bottom = narrowest_run(advisor.by_depth()[p], 0.8)
    depth = lake.layer_m[p][min(clock, DAY_MIN - 1)]
    return bool(top * CELL_M <= depth <= bottom * CELL_M)


class Rod:
    """A rod led by an advisor: it asks, changes, and fishes in blocks of five minutes."""

    def __init__(self, day: Day, by: str = "", told: bool = False):
        """Begin with nothing tied on; a rod with a name is one of two, and the clock of both is kept elsewhere.

        With `told` it keeps how many takes the chances promised.
        """
        self.day, self.by, self.told, self.promised = day, by, told, 0.0
        self.standing: Candidate | None = None

    def act(self, advisor: Advisor, partner: Candidate | None = None) -> None:
        """Do the next thing and tell the advisor what came of it."""
        steps = advisor.advise(self.standing, partner=partner, most=1, told=self.told)
        if not steps:
            self.day.wait(DAY_MIN)
            return
        step = steps[0]
        if step.cost > 0:
            self.day.wait(step.cost)
            if not self.by:
                advisor.moved(step.cost)
        self.standing = step.candidate
        before = self.day.clock
        minutes, takes, plucks = self.day.fish(step.candidate, BLOCK_MIN, True)
        self.promised -= math.log1p(-min(step.chance, 0.999)) * minutes / 10
        advisor.observe(Spell(step.candidate, minutes, takes, plucks, by=self.by))
        if not self.by:
            advisor.moved(max(0.0, self.day.clock - before - minutes))


def advised_day(lake: Lake, candidates: tuple[Candidate, ...], told: bool = False) -> tuple[Rod, list[bool]]:
    """Return a rod led by the advice for a day, and whether the belief's band held the truth after one, two and three hours."""
    day = Day(lake, candidates)
    advisor = Advisor.start(lake.belief, lake.kinds, candidates, COSTS, DAY_MIN)
    rod, held, marks = Rod(day, told=told), [], [60, 120, 180]
    while day.clock < DAY_MIN:
        rod.act(advisor)
        while marks and day.clock >= marks[0]:
            held.append(holds_truth(advisor, lake, day.clock))
            marks.pop(0)
    return rod, held


def ladder_day(lake: Lake, candidates: tuple[Candidate, ...], name: str) -> Day:
    """Return a day fished by a ladder: so many minutes a rung, a take keeps it, and twice as long blank leaves it."""
    ladder, step = name.rsplit("/", 1)
    order = LADDERS[ladder](candidates, lake.belief, lake.kinds)
    day, at, standing = Day(lake, candidates), 0, None
    while day.clock < DAY_MIN:
        one = order[at % len(order)]
        day.wait(COSTS.of(standing, one))
        standing = one
        patience = float(step)
        while patience > 0 and day.clock < DAY_MIN:
            minutes, takes, _ = day.fish(one, int(patience), True)
            patience = 2.0 * float(step) if takes else patience - minutes
        at += 1
    return day


def two_rods(lake: Lake, candidates: tuple[Candidate, ...]) -> tuple[float, float]:
    """Return takes a rod of two that share one belief, and of two apart; each rod has its own luck."""
    luck = [lake.draws, np.roll(lake.draws, DAY_MIN // 2, axis=0)]
    shared = Advisor.start(lake.belief, lake.kinds, candidates, COSTS, DAY_MIN)
    rods = [Rod(Day(lake, candidates, draws), by) for draws, by in zip(luck, ("one", "two"), strict=True)]
    known = 0
    while any(rod.day.clock < DAY_MIN for rod in rods):
        rod, other = sorted(rods, key=lambda r: r.day.clock)
        if rod.day.clock > known:  # the belief goes by the rod that is behind
            shared.moved(rod.day.clock - known)
            known = rod.day.clock
        rod.act(shared, other.standing)
    apart = []
    for draws in luck:
        alone = Rod(Day(lake, candidates, draws))
        advisor = Advisor.start(lake.belief, lake.kinds, candidates, COSTS, DAY_MIN)
        while alone.day.clock < DAY_MIN:
            alone.act(advisor)
        apart.append(alone.day.takes)
    return sum(rod.day.takes for rod in rods) / 2, sum(apart) / 2


def one_day(job: tuple[int, int, str, int, bool, bool]) -> Result:
    """Run everything on one lake."""
    seed, n, plan, family, ladders, pairs = job
    kind = FAMILIES[family]
    lake = make_lake(kind, plan, (seed * 1_000_003 + PLANS.index(plan) * 100_003 + n) % 2**63)
    candidates = candidates_for(lake, kind.coloured)
    rod, held = advised_day(lake, candidates, told=pairs)
    result = Result(family=family, plan=plan, takes=rod.day.takes, first=rod.day.first, held=held)
    result.promised = rod.promised if pairs else None
    for name in LADDER_NAMES if ladders else ():
        other = ladder_day(lake, candidates, name)
        result.ladder_takes.append(other.takes)
        result.ladder_first.append(other.first)
    if pairs:
        result.pair = two_rods(lake, candidates)
    return result


def run(seed: int, lakes: int, processes: int = 2, ladders: bool = True, pairs_every: int = 4) -> list[Result]:
    """Return the results of `lakes` lakes under each kind of plan, families in turn."""
    jobs = [
        (seed, n, plan, n % len(FAMILIES), ladders, pairs_every > 0 and (n // len(FAMILIES)) % pairs_every == 0)
        for plan in PLANS
        for n in range(lakes)
    ]
    with ProcessPoolExecutor(processes) as pool:
        return list(pool.map(one_day, jobs, chunksize=8))
