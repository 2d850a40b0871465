"""The advisor: a belief of place, depth, fly, pace and rate that every spell moves, and the action that pays best now."""

from __future__ import annotations

import copy
import math
from collections.abc import Iterable
from dataclasses import replace

import numpy as np
from numpy.typing import NDArray

from stillthread.core.search.exposure import Exposures
from stillthread.core.search.filters import LONGEST_STEP_MIN, RATES, Filters, Said, kernels
from stillthread.core.search.model import (
    CELL_M,
    NOTHING_YET,
    PACES,
    Belief,
    Candidate,
    Costs,
    Kind,
    Spell,
    Step,
    Stretch,
)
from stillthread.core.search.varied import kind_of, varied

# How much of a blank is believed where the next step is chosen, before the first take and after: feeding comes in bursts. What
# is told of the chances counts every blank minute in full.
TEMPER_BLANK, TEMPER, IN_FULL = 0.3, 0.6, 1.0
COSTS_WEIGH = 0.7  # of a change's minutes: the fish rest meanwhile, and what is found lasts longer than it is tried for
TRIED_MIN = (10.0, 25.0)
AHEAD_MIN = 80.0
STAY_WITHIN, EQUAL_WITHIN = 1.02, 1.005
# What has just taken, or has only been begun, is not left for little.
JUST_TAKEN_MIN, GIVEN_MIN, STAY_LONGER = 15.0, 10.0, 1.3
# From so many plucks and follows without a take the fly or the pace is changed before the depth, and from so many it is
# changed: what is left of another depth, and of going on. Common practice, figures ours.
NIPPED_FROM, NIPPED_LEFT, OTHER_DEPTH_M, REFUSED_FROM, REFUSED_LEFT = 2, 0.8, 0.4, 4, 0.9
NEARLY_ALL = 0.8  # of the time left: a change that costs more is not made
# A partner's action is taken as so many blank minutes before one decides for oneself; a take in the last so many calls one over.
PARTNER_MIN, CALLS_OVER_MIN = 30.0, 30.0
SHOWN_STEPS = 5
# Fish that are fished over tire of it: log-rate lost a minute over less than so many metres and over more, by a take, and how
# long it lasts. Common practice ("rest the water"), figures ours.
SHALLOW_M, TIRES_PER_MIN, TIRED_BY_TAKE, RESTED_MIN = 5.0, (0.006, 0.0015), 0.03, 30.0
LEAST_SCALE, MOST_SCALE = 0.3, 8.0
MOST_DEPTHS, MOST_LOOKED_AT = 4, 32  # of one action; of all
WORTH_A_LOOK = 0.7  # depths that meet fewer fish than this share of an action's best are not looked at
# Nor actions that take less than this share of the best of all, where so many rigs, flies and paces are left without them.
WORTH_A_THOUGHT, LEAST_GROUPS = 0.45, 12
# Where less is left than so many times the way to another place, what the rig in hand can do: so many depths with each fly and pace.
LATE_TO_MOVE, NEAR_DEPTHS = 1.5, 2

Array = NDArray[np.float64]


class Advisor:
    """A search on the go: what is believed, what has been fished, what could be done next."""

    def __init__(
        self, belief: Belief, kinds: tuple[Kind, ...], candidates: Iterable[Candidate], costs: Costs, scale: float = 1.0
    ) -> None:
        """Lay the plan's belief out; see `start`. `scale` is how many more fish feed than on the usual day."""
        self.costs, self.places = costs, belief.places
        self.kinds = (*kinds, Kind("another", max(0.0, 1.0 - sum(one.share for one in kinds))))
        self.beds = np.array([max(1, round(bed / CELL_M)) for bed in belief.beds_m], dtype=np.int64)
        self.cells = int(self.beds.max())
        self.minutes_left = 0.0
        self.taken = False
        # Before anything is fished: where one is, if that is known, and which candidate stands ready, by its key.
        self.at, self.ready = "", ""
        self._stretches: dict[str, Stretch] = {}  # what each angler has in hand
        self.tried: list[Spell] = []
        self._rates = np.array(RATES) * scale
        self._table = kernels().tabulate(self._rates, np.array(TRIED_MIN))
        self._exposure = Exposures(self.cells).of
        self._hoped = Filters(belief, self.kinds, self.beds, self._rates)  # what the next step is chosen by
        self._full = self._hoped.copy()  # what its chances are told by, once asked for
        self._untold: list[Said | None] = []  # what it has not taken in yet: spells, and steps of time
        self._moved_min = 0.0
        self._tired = np.zeros(len(self.places))  # how much the fish of a place are put down, as a log-rate
        self._tires = np.where(np.array(belief.beds_m) < SHALLOW_M, *TIRES_PER_MIN)
        self._set_candidates(candidates)

    @classmethod
    def start(
        cls,
        belief: Belief,
        kinds: tuple[Kind, ...],
        candidates: Iterable[Candidate],
        costs: Costs = Costs(),
        minutes_left: float = 300.0,
        expected: tuple[Candidate, float] | None = None,
    ) -> Advisor:
        """Return an advisor for a day of `minutes_left` [min], from the plan's belief and its share for each kind of fly.

        `expected` is how many takes an hour a candidate is known to give at the start (the own log's rate, say).
        Raises ValueError without a place or a candidate, or for a candidate at a place the belief does not know.
        """
        if not belief.places:
            raise ValueError("a search needs at least one place")
        fleet = tuple(candidates)
        one = cls(belief, kinds, fleet, costs)
        if expected is not None:
            usual = one.rate(expected[0])
            one = cls(belief, kinds, fleet, costs, min(max(expected[1] / usual, LEAST_SCALE), MOST_SCALE))
        one.minutes_left = minutes_left
        return one

    def _set_candidates(self, candidates: Iterable[Candidate]) -> None:
        self.candidates = tuple(candidates)
        if not self.candidates:
            raise ValueError("a search needs something to fish with")
        unknown = sorted({one.place for one in self.candidates} - set(self.places))
        if unknown:
            raise ValueError(f"no place '{unknown[0]}' in the belief")
        groups: dict[tuple[int, int, tuple[float, ...], tuple[str, str, str]], list[Candidate]] = {}
        for one in self.candidates:
            key = (self.places.index(one.place), PACES.index(one.pace), tuple(self._matches(one)), one.rig)
            groups.setdefault(key, []).append(one)
        self.candidates = tuple(one for these in groups.values() for one in these)
        self._numbers = {one.key: c for c, one in enumerate(self.candidates)}
        ends = np.cumsum([len(these) for these in groups.values()])
        rows = [
            (place, pace, end - len(these), end)
            for ((place, pace, *_), these), end in zip(groups.items(), ends, strict=True)
        ]
        self._place_of = np.array([self.places.index(one.place) for one in self.candidates], dtype=np.int64)
        self._groups = np.array(rows, dtype=np.int64)
        self._rigs = [(these[0].place, these[0].rig) for these in groups.values()]
        self._kinds_of = np.array([kinds for _, _, kinds, _ in groups])
        self._exposures = np.array([self._exposure(one) for one in self.candidates])

    def _matches(self, one: Candidate) -> Array:
        sure = dict(zip(one.kinds, one.likeness or (1.0,) * len(one.kinds), strict=True))
        found = np.array([sure.get(kind.name, 0.0) for kind in self.kinds])
        if not found.any():
            found[-1] = 1.0
        return found

    # --- what happens -------------------------------------------------------------------------

    def observe(self, spell: Spell) -> None:
        """Take in what was fished and what came of it; the fish wander meanwhile.

        The clock goes by one's own rod: the minutes of another's were fished beside those it has counted.
        """
        left = max(spell.minutes, 0.0)
        parts = max(1, math.ceil(left / LONGEST_STEP_MIN))
        for n in range(parts):
            last = n == parts - 1
            part = replace(
                spell,
                minutes=left / parts,
                takes=spell.takes if last else 0,
                plucks=spell.plucks if last else 0,
                follows=spell.follows if last else 0,
            )
            self._weigh(part)
            if not spell.by:
                self.moved(left / parts)
        self.tried.append(spell)
        if spell.takes > 0 and spell.weight >= 1.0:
            self.taken = True
        key = spell.candidate.key
        before = self._stretches.get(spell.by, NOTHING_YET)
        before = before if before.key == key else NOTHING_YET
        since = 0.0 if spell.takes > 0 else before.since_take + spell.minutes
        touches = before.touches + spell.plucks + spell.follows
        self._stretches[spell.by] = Stretch(key, before.minutes + spell.minutes, since, touches)

    def called_over(self, one: Candidate) -> bool:
        """Return whether anybody with this candidate in hand has just taken, so that two rods are worth more there than apart."""
        return any(each.key == one.key and each.since_take <= CALLS_OVER_MIN for each in self._stretches.values())

    def _in_hand(self, one: Candidate | None) -> Stretch:
        """The stretch of whoever fishes this now, oneself before others."""
        held = (self._stretches[by] for by in sorted(self._stretches))
        return next((each for each in held if one is not None and each.key == one.key), NOTHING_YET)

    def _weigh(self, spell: Spell) -> None:
        one = spell.candidate
        place = self.places.index(one.place) if one.place in self.places else -1
        exposure = self._exposure(one)
        if place >= 0:
            added = self._tires[place] * spell.minutes
            exposure = exposure * math.exp(-self._tired[place] - added / 2)
            self._tired[place] += added + TIRED_BY_TAKE * spell.takes
        said = Said(
            spell=spell,
            place=place,
            pace=PACES.index(one.pace),
            kinds=self._matches(one),
            exposure=exposure,
            doubts=not self.taken and spell.takes == 0,
        )
        self._hoped.take_in(said, TEMPER if self.taken else TEMPER_BLANK)
        self._untold.append(said)

    def moved(self, minutes: float) -> None:
        """Let time [min] pass: the feeding fish change their depth, as far as anybody knows."""
        self.minutes_left = max(0.0, self.minutes_left - minutes)
        self._moved_min += minutes
        self._tired *= math.exp(-minutes / RESTED_MIN)
        while self._moved_min >= LONGEST_STEP_MIN:
            self._moved_min -= LONGEST_STEP_MIN
            self._hoped.wander()
            self._untold.append(None)

    def copy(self) -> Advisor:
        """Return another advisor that believes the same, to try something on."""
        other = copy.copy(self)
        other._hoped, other._full, other._untold = self._hoped.copy(), self._full.copy(), list(self._untold)
        other.tried, other._tired, other._stretches = list(self.tried), self._tired.copy(), dict(self._stretches)
        return other

    # --- what is believed ---------------------------------------------------------------------

    @property
    def mass(self) -> Array:
        """The belief over place, cell, kind, pace and level (sum 1)."""
        return self._hoped.mass

    @property
    def uniform(self) -> float:
        """The weight of the flat belief: how much the plan is doubted, 0 to 1."""
        return self._hoped.uniform

    def _in_full(self) -> Array:
        """The belief that counts every blank in full, by which chances are told."""
        for said in self._untold:
            if said is None:
                self._full.wander()
            else:
                self._full.take_in(said, IN_FULL)
        self._untold.clear()
        return self._full.mass

    def by_depth(self) -> tuple[tuple[float, ...], ...]:
        """Return the belief by place and 0.2 m cell (all together sum to 1), each place down to its own bed."""
        water = self.mass.sum(axis=(2, 3, 4))
        return tuple(tuple(float(v) for v in row[:bed]) for row, bed in zip(water, self.beds, strict=True))

    # --- what to do ---------------------------------------------------------------------------

    def advise(
        self,
        standing: Candidate | None = None,
        rigged: frozenset[str] = frozenset(),
        partner: Candidate | None = None,
        most: int = SHOWN_STEPS,
        told: bool = True,
    ) -> tuple[Step, ...]:
        """Return what to do next, best first, at most `most`; the first is to stay where nothing is clearly better.

        Without `told` their chances are left out, which takes half the time.

        `standing` is what is fished now, `rigged` the rods that stand ready, `partner` what a partner fishes, who is left
        to try that unless it has just taken: then two rods are worth more there than apart. That ranks the steps; their
        chances are told by the belief that counts every blank in full.
        """
        if partner is not None and not self.called_over(partner):
            other = self.copy()
            other._weigh(Spell(partner, PARTNER_MIN))
            chosen = other.advise(standing, rigged, most=most, told=False)
            return self._with_chances(chosen) if told else chosen
        at, worth = self._worths(standing)
        cost = np.array([self._cost(standing, self.candidates[c], rigged) for c in at])
        index, over = self._indices(worth, cost)
        hand = standing.key if standing is not None else self.ready
        stays = np.array([hand == self.candidates[c].key for c in at])
        index *= self._nipped(standing, at, stays)
        order = self._ranked(index, cost, stays, self._keeps(standing))
        steps = tuple(
            Step(
                kind=kind_of(standing, self.candidates[at[n]]),
                candidate=self.candidates[at[n]],
                minutes=float(over[n]),
                index=float(index[n]),
                cost=float(cost[n]),
            )
            for n in (order[i] for i in varied([self.candidates[at[n]] for n in order], most))
        )
        return self._with_chances(steps) if told else steps

    def _cost(self, standing: Candidate | None, other: Candidate, rigged: frozenset[str]) -> float:
        """The minutes to another candidate; before anything is fished, those of the way to its place."""
        away = standing is None and self.at in self.places and other.place != self.at
        return self.costs.place if away else self.costs.of(standing, other, rigged)

    def _with_chances(self, steps: tuple[Step, ...]) -> tuple[Step, ...]:
        """Steps with the takes an hour now, the chance of one in ten minutes, and the rate there would then be."""
        worth = self._worth(*(step.candidate for step in steps))
        return tuple(
            replace(step, rate_per_h=float(w[0]), chance=float(w[1]), found_per_h=_found_rate(w))
            for step, w in zip(steps, worth, strict=True)
        )

    def _keeps(self, standing: Candidate | None) -> float:
        """How many times better another must be to be put before what is fished; one begins with what stands ready."""
        if standing is None:
            return math.inf
        held = self._in_hand(standing)
        early = held.since_take < JUST_TAKEN_MIN or held.minutes < GIVEN_MIN
        return STAY_LONGER if early else STAY_WITHIN

    def _nipped(self, standing: Candidate | None, at: NDArray[np.int64], stays: NDArray[np.bool_]) -> Array:
        """What is left of the actions where fish nip at what is in hand and none has taken it: other depths wait, and so, in
        time, does going on. Nips beside a take say that the fly is right.
        """
        kept = np.ones(len(at))
        held = self._in_hand(standing)
        if standing is None or held.touches < NIPPED_FROM or math.isfinite(held.since_take):
            return kept
        for n, other in enumerate(self.candidates[c] for c in at):
            set_anew = (other.count_s, other.hang_m) != (standing.count_s, standing.hang_m)
            alone = set_anew and (other.rig, other.fly, other.pace) == (standing.rig, standing.fly, standing.pace)
            if other.place == standing.place and (alone or abs(other.mean_m - standing.mean_m) >= OTHER_DEPTH_M):
                kept[n] = NIPPED_LEFT
        return np.where(stays & (held.touches >= REFUSED_FROM), REFUSED_LEFT, kept)

    def _ranked(self, index: Array, cost: Array, stays: NDArray[np.bool_], within: float) -> list[int]:
        """The actions in their order: staying first where nothing is so many times better, else of equals the cheapest."""
        index = np.where((cost <= NEARLY_ALL * self.minutes_left) | stays, index, -1.0)
        order = [int(n) for n in np.argsort(-index, kind="stable") if index[n] >= 0]
        equals = [n for n in order if index[n] * EQUAL_WITHIN >= index[order[0]]]
        order.sort(key=lambda n: n not in equals or cost[n] > min(cost[m] for m in equals))
        stay = next((n for n in order if stays[n]), None)
        if stay is not None and index[order[0]] <= within * index[stay]:
            order = [stay, *(n for n in order if n != stay)]
        return order

    def found_rate(self, one: Candidate) -> float:
        """Return the takes an hour any candidate would have once it had taken in the next ten minutes."""
        return _found_rate(self._worth(one)[0])

    def chance(self, one: Candidate) -> float:
        """Return the chance of a take in the next ten minutes with any candidate, whether or not it is among the offered."""
        return float(self._worth(one)[0, 1])

    def rate(self, one: Candidate) -> float:
        """Return the expected takes an hour with any candidate."""
        return self.rates([one])[0]

    def rates(self, several: Iterable[Candidate]) -> list[float]:
        """Return the expected takes an hour with each of several candidates."""
        return [float(rate) for rate in self._worth(*several)[:, 0]]

    def _worth(self, *several: Candidate) -> Array:
        """What is told of candidates: the takes an hour, and for each number of minutes the chance and what follows from it."""
        rows = _rows(self._in_full())
        anywhere, found = rows.sum(axis=0), []
        for one in several:
            place = self.places.index(one.place)
            gathered = kernels().gathered(rows, anywhere, self._matches(one), place)
            exposure = self._exposure(one) * math.exp(-self._tired[place])
            found.append(kernels().worth(gathered, exposure, self._table[PACES.index(one.pace)]))
        return np.array(found, dtype=np.float64)

    def _worths(self, standing: Candidate | None) -> tuple[NDArray[np.int64], Array]:
        """What is worth a look, by number, and the rate and chances of each."""
        now = self._numbers.get(standing.key if standing is not None else self.ready, -1)
        cuts = np.array([WORTH_A_LOOK, WORTH_A_THOUGHT, MOST_DEPTHS, MOST_LOOKED_AT, LEAST_GROUPS, NEAR_DEPTHS])
        settled = standing is not None and LATE_TO_MOVE * self.costs.place > self.minutes_left
        hand = (standing.place, standing.rig) if standing is not None and settled else None
        near = np.array([rig == hand for rig in self._rigs])
        left = np.exp(-self._tired)[self._place_of, None]
        exposures = self._exposures * left
        at, worth = kernels().look(
            _rows(self.mass), self._rates, self._table, self._groups, self._kinds_of, exposures, now, near, cuts
        )
        return at, worth

    def _indices(self, worth: Array, cost: Array) -> tuple[Array, Array]:
        """For each action the rate [takes an hour] at which trying it breaks even, and over how many minutes.

        Tried for so long, a take keeps it and a blank leaves it.
        """
        cost = COSTS_WEIGH * cost
        best, over = np.full(len(cost), -1.0), np.full(len(cost), TRIED_MIN[0])
        for n, minutes in enumerate(TRIED_MIN):
            chance, then = worth[:, 1 + 2 * n], worth[:, 2 + 2 * n]
            rest = np.maximum(0.0, min(AHEAD_MIN, self.minutes_left) - minutes - cost)
            index = (minutes * worth[:, 0] + rest * then) / (minutes + cost + rest * chance)
            over = np.where(index > best, minutes, over)
            best = np.maximum(best, index)
        return best, over


def _found_rate(worth: Array) -> float:
    return float(worth[2]) / max(float(worth[1]), 1e-9)


def _rows(mass: Array) -> Array:
    """A belief with pace and level as one axis, as the kernels read it."""
    return mass.reshape(*mass.shape[:3], -1)
