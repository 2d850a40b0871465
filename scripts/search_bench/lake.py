"""A virtual lake and its day: where the feeding fish are, what they take, how they tire of it. All of it invented."""

from __future__ import annotations

from dataclasses import dataclass, field
from typing import Any

import numpy as np
from numpy.typing import NDArray

from stillthread.core.compiled import compiled
from stillthread.core.search.model import CELL_M, PACES, Belief, Candidate, Kind

DAY_MIN = 300
PLACES = ("Alpha", "Beta", "Gamma")
KINDS = ("first", "second", "third", "fourth")
GRID_M = 0.1
DEPTH_STEP_M = 0.6
# How the plan is: the odds that the best place is its first to third, the same for flies and paces. A wrong plan says what a
# right one says; the odds are reversed.
PLANS = ("right", "vague", "wrong")
BEST_PLACE = {"right": (0.55, 0.27, 0.18), "vague": (0.36, 0.33, 0.31), "wrong": (0.18, 0.27, 0.55)}
TOLD_PLACES = {"right": (0.55, 0.27, 0.18), "vague": (0.36, 0.33, 0.31), "wrong": (0.55, 0.27, 0.18)}
BEST_FLY = {"right": (0.4, 0.3, 0.2, 0.1), "vague": (0.25,) * 4, "wrong": (0.1, 0.2, 0.3, 0.4)}
TOLD_FLIES = (0.4, 0.3, 0.2, 0.1)
BEST_PACE = {"right": (0.30, 0.45, 0.25), "vague": (1 / 3,) * 3, "wrong": (1 / 3,) * 3}

Array = NDArray[np.float64]


@dataclass(frozen=True)
class Family:
    """A kind of lake: shallow or deep, coloured or clear, few fish feeding, a layer that drifts."""

    shallow: bool
    coloured: bool
    low: bool
    drift: bool


FAMILIES = tuple(Family(bool(n & 1), bool(n & 2), bool(n & 4), bool(n & 8)) for n in range(16))


@dataclass
class Lake:
    """One day on one lake, as it really is, and what the plan says of it."""

    beds_m: Array
    layer_m: Array  # depth of the feeding layer by place and minute
    quality: Array
    match: Array  # of each kind of fly
    paces: Array  # of each pace
    burst: Array  # by minute: 1 on, 0.15 off
    rate: float  # takes an hour for the perfect set-up
    reach: tuple[float, float, float]  # up, down, exponent
    spread_m: float
    depth_off: float
    tires: Array  # log-rate lost a minute fished, by place
    pluck: tuple[float, float]
    draws: Array  # (minute, 3) uniforms
    belief: Belief
    kinds: tuple[Kind, ...]
    seen: dict[str, Array] = field(default_factory=dict)

    @property
    def best_place(self) -> int:
        """The place where the fish are."""
        return int(self.quality.argmax())

    def noticed(self, one: Candidate) -> Array:
        """How much of its clock a candidate's fly is noticed by the fish about a layer at each depth of a fine grid, really.

        The perfect set-up, whose rate is the lake's, is a fly held where most of them notice it: that is 1.
        """
        key = f"{one.method}{one.mean_m:.2f}{one.pace}"
        if key not in self.seen:
            at = np.flatnonzero(one.exposure)
            fly = (at + 0.5) * CELL_M * self.depth_off
            weights = np.array(one.exposure)[at]
            grid = np.arange(round(self.beds_m.max() / GRID_M) + 2) * GRID_M
            share = self._met(grid[:, None] - fly[None, :]) @ weights
            self.seen[key] = one.fishing_share * share / self._met(np.linspace(-1.5, 1.5, 61)).max()
        return self.seen[key]

    def _met(self, below_m: Array) -> Array:
        """The share of the fish that notice a fly, about a layer so far below it (above it where negative)."""
        offsets = np.linspace(-1.6, 1.6, 9)
        fish = np.exp(-0.5 * offsets**2)
        below = below_m[..., None] + offsets * self.spread_m
        up, down, q = self.reach
        met = np.exp(-((np.abs(below) / np.where(below >= 0, up, down)) ** q))
        return np.asarray(met @ (fish / fish.sum()))


def _walk(rng: Any, start: float, bed: float, drift: bool) -> Array:
    """A layer's depth through the day: a random walk of 0.3 m a root hour; in the drift family also a way, turning once."""
    steps = rng.normal(0, 0.3 / np.sqrt(60), DAY_MIN)
    if drift:
        speed = rng.choice((-1, 1)) * rng.uniform(0.4, 0.8) / 60
        turn = rng.integers(0, DAY_MIN)
        steps = steps + np.where(np.arange(DAY_MIN) < turn, speed, -speed)
    depth = start + np.cumsum(steps)
    low, high = 0.3, max(0.5, bed - 0.2)
    folded = np.abs((depth - low) % (2 * (high - low)))
    return np.asarray(low + np.minimum(folded, 2 * (high - low) - folded))


def _bursts(rng: Any) -> Array:
    """Feeding by minute: on or off, with the on-time's mean and share drawn for the day."""
    share, mean_on = rng.uniform(0.4, 0.7), rng.uniform(12, 25)
    mean_off = mean_on * (1 - share) / share
    out, on, t = np.empty(DAY_MIN), rng.random() < share, 0
    while t < DAY_MIN:
        lasts = max(1, round(rng.exponential(mean_on if on else mean_off)))
        out[t : t + lasts] = 1.0 if on else 0.15
        t, on = t + lasts, not on
    return out


def _plan(rng: Any, plan: str, beds: Array, layers: list[float], best: int) -> Belief:
    """What the plan believes of place and depth."""
    order = list(rng.permutation([p for p in range(len(beds)) if p != best]))
    order.insert(int(rng.choice(3, p=BEST_PLACE[plan])), best)
    off, sd = {"right": (0.6, rng.uniform(0.8, 1.2)), "vague": (2.0, 3.0), "wrong": (0.0, 1.2)}[plan]
    shift = rng.normal(0, off)
    if plan == "wrong":
        away = rng.uniform(3, 5)
        able = [s * away for s in (-1, 1) if 0.3 <= layers[best] + s * away <= beds[best] - 0.2]
        shift = (
            float(rng.choice(able))
            if able
            else (beds[best] - 0.3 if layers[best] < beds[best] / 2 else 0.3) - layers[best]
        )
    shares = dict(zip((int(p) for p in order), TOLD_PLACES[plan], strict=True))
    mass = []
    for p, bed in enumerate(beds):
        z = (np.arange(max(1, round(bed / CELL_M))) + 0.5) * CELL_M
        middle = np.clip(layers[best] + shift, 0.2, max(bed - 0.2, 0.2))
        w = np.exp(-0.5 * ((z - middle) / sd) ** 2) + 0.02
        mass.append(tuple(float(v) for v in shares[p] * w / w.sum()))
    return Belief(places=PLACES, beds_m=tuple(float(b) for b in beds), mass=tuple(mass))


def make_lake(family: Family, plan: str, seed: int) -> Lake:
    """Return a lake of a family under a kind of plan, the same for the same seed."""
    rng = np.random.default_rng(seed)
    deepest = rng.uniform(3, 5) if family.shallow else rng.uniform(6, 12)
    beds = deepest * np.array([1.0, rng.uniform(0.55, 1), rng.uniform(0.55, 1)])
    rng.shuffle(beds)
    best = int(rng.integers(3))
    quality = rng.uniform(0.05, 0.6, 3)
    quality[best] = 1.0
    start = rng.uniform(0.4, beds[best] - 0.3)
    layers = [
        float(start if p == best else rng.uniform(0.4, bed - 0.3) if rng.random() < 0.3 else start + rng.normal(0, 0.4))
        for p, bed in enumerate(beds)
    ]
    layers = [float(np.clip(z, 0.3, bed - 0.2)) for z, bed in zip(layers, beds, strict=True)]
    match = rng.uniform(0.1, 0.7, 4)
    match[rng.choice(4, p=BEST_FLY[plan])] = 1.0
    right = int(rng.choice(3, p=BEST_PACE[plan]))
    one_off, two_off = rng.uniform(0.3, 0.8), rng.uniform(0.15, 0.6)
    up = rng.uniform(0.35, 0.8) if family.coloured else rng.uniform(0.9, 1.8)
    ripple = rng.random() < 0.5
    flat = plan == "vague"
    return Lake(
        beds_m=beds,
        layer_m=np.array([_walk(rng, layers[p], float(beds[p]), family.drift) for p in range(3)]),
        quality=quality,
        match=match,
        paces=np.array([1.0 if m == right else one_off if abs(m - right) == 1 else two_off for m in range(3)]),
        burst=_bursts(rng),
        rate=float((3 if family.low else 9) * np.exp(0.35 * rng.normal())),
        reach=(up, up * rng.uniform(0.2, 0.5), rng.uniform(1, 3)),
        spread_m=rng.uniform(0.25, 0.7),
        depth_off=float(1 + 0.1 * rng.normal()),
        tires=np.where(beds < 5, 0.008, 0.002) * (0.5 if ripple else 1.0),
        pluck=(rng.uniform(0.03, 0.15), rng.uniform(0.2, 0.6)),
        draws=rng.random((DAY_MIN, 3)),
        belief=_plan(rng, plan, beds, layers, best),
        kinds=tuple(Kind(name, 0.25 if flat else share) for name, share in zip(KINDS, TOLD_FLIES, strict=True)),
    )


def candidates_for(lake: Lake, coloured: bool) -> tuple[Candidate, ...]:
    """Return what can be fished there: a float and a counted line at slow and fast pace, at depths 0.6 m apart, four flies."""
    found = []
    up = 0.55 if coloured else 1.2
    for p, place in enumerate(PLACES):
        bed = float(lake.beds_m[p])
        for depth in np.arange(0.4, bed - 0.2, DEPTH_STEP_M):
            for method, pace, half in (("float", "static", 0), ("line", "slow", 2), ("line", "fast", 3)):
                cells = max(1, round(bed / CELL_M))
                exposure = np.zeros(cells)
                middle = min(int(depth / CELL_M), cells - 1)
                exposure[max(0, middle - half) : min(cells, middle + half + 1)] = 1.0
                exposure /= exposure.sum()
                for kind in KINDS:
                    found.append(
                        Candidate(
                            key=f"{place}/{method}/{pace}/{depth:.1f}/{kind}",
                            place=place,
                            method=method,
                            kinds=(kind,),
                            pace=pace,
                            exposure=tuple(float(v) for v in exposure),
                            fishing_share=0.8 if method == "float" else 0.65,
                            up_m=up,
                            down_m=0.35 * up,
                            line=method,
                            count_s=None if method == "float" else round(10 * float(depth)),
                            hang_m=float(depth) if method == "float" else None,
                            depth_m=float(depth),
                        )
                    )
    return tuple(found)


@compiled
def fish(
    state: Any, clock: int, minutes: int, met: Any, layer: Any, burst: Any, draws: Any, how: Any, stop: bool
) -> Any:
    """Fish from a minute on; returns minutes gone, takes, plucks, and the minute of the first take or -1.

    `state` holds by place how much the fish are put down (log-rate), and is changed; `how` is place, rate of the set-up
    an hour, pluck rate beside it, log-rate lost a minute, and how much of it comes back in a minute.
    """
    place = int(how[0])
    out = np.zeros(4)
    out[3] = -1.0
    t = clock
    while t < len(burst) and out[0] < minutes:
        at = layer[t] / 0.1
        low = min(int(at), len(met) - 2)
        seen = met[low] * (1 - (at - low)) + met[low + 1] * (at - low)
        here = seen * burst[t] * np.exp(-state[place])
        for p in range(len(state)):
            state[p] *= how[4]
        state[place] += how[3]
        t += 1
        out[0] += 1
        if draws[t - 1, 1] < 1 - np.exp(-here * how[2] / 60):
            out[2] += 1
        if draws[t - 1, 0] < 1 - np.exp(-here * how[1] / 60):
            out[1] += 1
            state[place] += 0.03
            if out[3] < 0:
                out[3] = t
            t += 2 if draws[t - 1, 2] < 0.5 else 3
            if stop:
                break
    out[0] = t - clock
    return out


class Day:
    """A rod's day on a lake: minutes pass, changes cost, fish are taken."""

    RECOVERS = float(np.exp(-1 / 30.0))  # a minute; nearly whole within the hour

    def __init__(self, lake: Lake, candidates: tuple[Candidate, ...], draws: Array | None = None):
        """Begin the day."""
        self.lake, self.candidates = lake, candidates
        self.clock, self.takes, self.first = 0, 0, float(DAY_MIN)
        self.state = np.zeros(3)
        self.draws = lake.draws if draws is None else draws

    def wait(self, minutes: float) -> None:
        """Spend minutes on a change."""
        self.clock = min(DAY_MIN, self.clock + round(minutes))
        self.state *= self.RECOVERS**minutes

    def fish(self, one: Candidate, minutes: float, stop: bool) -> tuple[float, int, int]:
        """Fish a candidate for so many minutes, or until a take; returns fished minutes, takes, plucks."""
        lake, p = self.lake, PLACES.index(one.place)
        k, m = KINDS.index(one.kinds[0]), PACES.index(one.pace)
        perfect = lake.rate * lake.quality[p] * lake.paces[m]
        plucked = perfect * (lake.pluck[0] + lake.pluck[1] * (1 - lake.match[k]))
        how = np.array([p, perfect * lake.match[k], plucked, lake.tires[p], self.RECOVERS])
        before = self.clock
        got = fish(
            self.state,
            self.clock,
            round(minutes),
            lake.noticed(one),
            lake.layer_m[p],
            lake.burst,
            self.draws,
            how,
            stop,
        )
        self.clock = min(DAY_MIN, self.clock + int(got[0]))
        if got[3] >= 0 and self.takes == 0:
            self.first = float(got[3])
        self.takes += int(got[1])
        spent = 2.5 * got[1]
        return max(1.0, self.clock - before - spent), int(got[1]), int(got[2])
