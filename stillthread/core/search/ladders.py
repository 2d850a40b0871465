"""The schools' ladders as plain orders to go through: what an angler without an advisor does, and what a school follows."""

from __future__ import annotations

from collections.abc import Callable, Sequence

from stillthread.core.search.model import CELL_M, Belief, Candidate, Kind

Order = Callable[[Sequence[Candidate], Belief, Sequence[Kind]], list[Candidate]]


def _by_places(candidates: Sequence[Candidate], belief: Belief) -> list[list[Candidate]]:
    """The candidates place by place, the likeliest place first."""
    shares = {place: sum(mass) for place, mass in zip(belief.places, belief.mass, strict=True)}
    places = sorted(shares, key=lambda place: -shares[place])
    return [[one for one in candidates if one.place == place] for place in places]


def _with_best_fly(candidates: Sequence[Candidate], kinds: Sequence[Kind]) -> list[Candidate]:
    best = max(kinds, key=lambda kind: kind.share).name
    return [one for one in candidates if best in one.kinds] or list(candidates)


def _moving(candidates: Sequence[Candidate]) -> list[Candidate]:
    """What is brought back slowly; else what moves, else all."""
    return (
        [one for one in candidates if one.pace == "slow"]
        or [one for one in candidates if one.hang_m is None]
        or list(candidates)
    )


def _hung(candidates: Sequence[Candidate]) -> list[Candidate]:
    return [one for one in candidates if one.hang_m is not None] or list(candidates)


def _likely(one: Candidate, belief: Belief) -> float:
    """How much of the belief at its place a candidate's flies are among."""
    mass = belief.mass[belief.places.index(one.place)]
    near = min(int(one.mean_m / CELL_M), len(mass) - 1)
    return sum(mass[max(0, near - 2) : near + 3])


def top_down(candidates: Sequence[Candidate], belief: Belief, kinds: Sequence[Kind]) -> list[Candidate]:
    """Counted from the surface down, place by place, with the plan's first fly."""
    each = [_moving(_with_best_fly(here, kinds)) for here in _by_places(candidates, belief) if here]
    return [one for here in each for one in sorted(here, key=lambda c: c.mean_m)]


def bottom_up(candidates: Sequence[Candidate], belief: Belief, kinds: Sequence[Kind]) -> list[Candidate]:
    """Counted from the bed up."""
    each = [_moving(_with_best_fly(here, kinds)) for here in _by_places(candidates, belief) if here]
    return [one for here in each for one in sorted(here, key=lambda c: -c.mean_m)]


def float_from_bottom(candidates: Sequence[Candidate], belief: Belief, kinds: Sequence[Kind]) -> list[Candidate]:
    """A float, shortened from just above the bed."""
    each = [_hung(_with_best_fly(here, kinds)) for here in _by_places(candidates, belief) if here]
    return [one for here in each for one in sorted(here, key=lambda c: -c.mean_m)]


def float_from_top(candidates: Sequence[Candidate], belief: Belief, kinds: Sequence[Kind]) -> list[Candidate]:
    """A float, lengthened from the top."""
    each = [_hung(_with_best_fly(here, kinds)) for here in _by_places(candidates, belief) if here]
    return [one for here in each for one in sorted(here, key=lambda c: c.mean_m)]


def prior_first(candidates: Sequence[Candidate], belief: Belief, kinds: Sequence[Kind]) -> list[Candidate]:
    """The plan's likeliest depth first, then wider, place by place."""
    each = [_moving(_with_best_fly(here, kinds)) for here in _by_places(candidates, belief) if here]
    return [one for here in each for one in sorted(here, key=lambda c: -_likely(c, belief))]


def fly_first(candidates: Sequence[Candidate], belief: Belief, kinds: Sequence[Kind]) -> list[Candidate]:
    """Every fly at the plan's likeliest depth, then every fly at the next."""
    ranked = [kind.name for kind in sorted(kinds, key=lambda kind: -kind.share)]
    found = []
    for here in _by_places(candidates, belief):
        moving = _moving(here)
        depths = sorted(
            {c.mean_m for c in moving}, key=lambda z: -max(_likely(c, belief) for c in moving if c.mean_m == z)
        )
        for depth in depths:
            at = [c for c in moving if c.mean_m == depth]
            found += sorted(
                at, key=lambda c: min((ranked.index(k) for k in c.kinds if k in ranked), default=len(ranked))
            )
    return found


def pace_first(candidates: Sequence[Candidate], belief: Belief, kinds: Sequence[Kind]) -> list[Candidate]:
    """Every pace at the plan's likeliest depth with its first fly, then at the next."""
    order = {"slow": 0, "static": 1, "fast": 2}
    found = []
    for here in _by_places(candidates, belief):
        able = _with_best_fly(here, kinds) if here else []
        depths = sorted({c.mean_m for c in able}, key=lambda z: -max(_likely(c, belief) for c in able if c.mean_m == z))
        found += [c for z in depths for c in sorted((c for c in able if c.mean_m == z), key=lambda c: order[c.pace])]
    return found


LADDERS: dict[str, Order] = {
    "top-down": top_down,
    "bottom-up": bottom_up,
    "float-from-bottom": float_from_bottom,
    "float-from-top": float_from_top,
    "fly-first": fly_first,
    "pace-first": pace_first,
    "prior-first": prior_first,
}
