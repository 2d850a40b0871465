"""Which flies from the box, in which hook size, at which position."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from stillthread.core.food.available import Availability
from stillthread.core.food.catalogue import BY_KEY
from stillthread.core.food.prey import Prey
from stillthread.core.food.where import depth_density
from stillthread.core.setup.model import PlacedFly
from stillthread.core.tackle.flies import Fly
from stillthread.core.trout.belief import PlaceBelief

STILL_PENALTY = 0.35  # common practice, figure ours


@dataclass(frozen=True)
class Match:
    """A fly, the prey it stands for here, and how well it fits (0 to 1)."""

    fly: Fly
    prey: Prey
    score: float


def _prey_score(prey: Prey, food: Availability, belief: PlaceBelief, depth_m: float) -> float:
    """How much of the food now within half a metre of `depth_m` [m] is this prey, 0 to 1."""
    z = belief.depths_m
    near = np.abs(z - depth_m) <= 0.5
    local = float(depth_density(prey, z, belief.bed_m, belief.place.kind)[near].sum())
    return food.share[prey.key] * (0.15 + 0.85 * local)


def _tone_weight(tone: str, clarity: str | None, stocked: bool) -> float:
    """Trade rule: bold silhouettes in coloured water, natural in clear, bright for fresh stockfish."""
    if stocked and tone in ("bright", "pale"):
        return 1.2
    if clarity == "coloured":
        return {"dark": 1.25, "bright": 1.15, "pale": 0.9, "natural": 0.8}[tone]
    if clarity in ("gin-clear", "clear"):
        return {"natural": 1.2, "dark": 1.0, "pale": 0.85, "bright": 0.8}[tone]
    return 1.0


def rank_flies(
    flies: tuple[Fly, ...],
    food: Availability,
    belief: PlaceBelief,
    depth_m: float,
    weights: tuple[str, ...],
    surface: bool,
    clarity: str | None,
    stocked: bool,
    still: bool = False,
) -> list[Match]:
    """Return the usable flies best first for a depth [m]: right weight class, surface or sunk, in stock.

    The score is the share of food at that depth the fly stands for, times the tone for the clarity; for a `still`
    method prey that never keeps still counts 0.35. Ties keep the
    order of the box, so the same input gives the same answer.
    """
    matches = []
    for fly in flies:
        if fly.weight not in weights or fly.surface != surface or fly.stock == 0:
            continue
        known = [BY_KEY[key] for key in fly.prey if key in BY_KEY]
        if not known:
            continue
        worth = {
            p: _prey_score(p, food, belief, depth_m) * (STILL_PENALTY if still and "static" not in p.paces else 1)
            for p in known
        }
        prey = max(known, key=lambda p: worth[p])
        matches.append(Match(fly, prey, worth[prey] * _tone_weight(fly.tone, clarity, stocked)))
    return sorted(matches, key=lambda match: -match.score)


def hook_size(match: Match, wary: bool) -> int:
    """Return the hook size to tie on: the smallest carried for wary fish, else the largest that fits the prey."""
    largest, smallest = match.prey.hooks[1], match.prey.hooks[0]
    fitting = [hook for hook in match.fly.hooks if largest <= hook <= smallest] or list(match.fly.hooks)
    return max(fitting) if wary else min(fitting)


def place_team(
    ranked: list[Match], count: int, at_m: tuple[float, ...], depths_m: tuple[float | None, ...], wary: bool
) -> tuple[PlacedFly, ...]:
    """Return `count` flies at their positions, best match on the point, different patterns above it.

    `at_m` are distances from the line [m] and `depths_m` depths [m], top dropper first.
    """
    picked = ranked[:count]
    names = (
        ("point",) if count == 1 else ("dropper", "point") if count == 2 else ("top dropper", "middle dropper", "point")
    )
    order = list(reversed(picked))
    return tuple(PlacedFly(m.fly, names[i], hook_size(m, wary), at_m[i], depths_m[i]) for i, m in enumerate(order))
