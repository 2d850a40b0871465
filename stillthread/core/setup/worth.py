"""What every method adds up the same way: appeal of the fly, worth of the set-up, the reason for the fly."""

from __future__ import annotations

import math

from stillthread.core.belief.reach import hunger, pace_weight
from stillthread.core.day.context import Context
from stillthread.core.day.model import Retrieve
from stillthread.core.flies.choose import Match
from stillthread.core.food.prey import Prey
from stillthread.core.setup.retrieves import RETRIEVES
from stillthread.core.sky.light import ripple_class

# How much water a method covers, against a line fished back: common practice, figures ours.
COVER = {"dry": 1.1, "nymphs": 0.75, "float": 0.8, "sink-tip": 0.85, "intermediate": 1.0, "sinking": 1.0}


# Casting over fish in shallow or flat, bright water clears them; a float left alone does not. Trade practice, figures ours.
SHALLOW_M, SHALLOW_SHARE = 1.5, 0.85
FILM_M, CALM_SHARE = 0.6, 0.85


# How well a way shows the food: pupae and larvae hang and rise, and want a still or very slow fly. Trade table of foods,
# figures ours.
HANGING_FOODS = ("chironomid-pupa", "chironomid-larva", "snail")
SHOWS_HANGING = {"nymphs": 1.3, "float": 1.2, "sink-tip": 0.95, "intermediate": 0.95, "sinking": 0.8}


SLOW_M_S, FAST_SHARE = 0.04, 0.75


# A pace faster than any the prey swims looks wrong. Common practice, figure ours.
TOO_FAST_SHARE, FASTER_THAN = 0.7, 1.3


def shows(method: str, team: list[Match], speed_m_s: float) -> float:
    """Return how well a method at a pace [m/s] shows what the best fly of a team stands for, about 1."""
    best = max(team, key=lambda m: m.score, default=None)
    if best is None:
        return 1.0
    hangs = SHOWS_HANGING.get(method, 1.0) if best.prey.key in HANGING_FOODS else 1.0
    return hangs * swims(best.prey, speed_m_s)


def swims(prey: Prey, speed_m_s: float) -> float:
    """Return how well a pace [m/s] suits a prey, 1 or what is left where it is faster than that swims."""
    if prey.key in HANGING_FOODS:
        return FAST_SHARE if speed_m_s > SLOW_M_S else 1.0
    quickest = max((RETRIEVES[key].speed_m_s for key in prey.paces if key in RETRIEVES), default=0.0)
    return TOO_FAST_SHARE if speed_m_s > FASTER_THAN * quickest > 0 else 1.0


def appeal(team: list[Match], context: Context) -> float:
    """Return how well the best fly of a team stands for the food there, 0.3 to 1."""
    best = max(context.food.share.values())
    return 0.3 + 0.7 * min(1.0, max(m.score for m in team) / best) if team else 0.0


def disturbance(context: Context, method: str, depth_m: float) -> float:
    """Return what repeated casting leaves of a place, 0 to 1: less in under 1.5 m, and near the top of a flat calm."""
    if method == "float":
        return 1.0
    share = SHALLOW_SHARE if context.bed_m < SHALLOW_M else 1.0
    calm = ripple_class(context.given.reading.wind_m_s) == "calm" and context.light.bright
    return share * (CALM_SHARE if calm and depth_m < FILM_M and method != "dry" else 1.0)


# How near a found depth a way must fish [m, standard deviation]. Our figure.
AT_FOUND_M = 0.3


def at_found(context: Context, depth_m: float) -> float:
    """Return how much of a way's worth is left at a depth [m] when one was found today, 0 to 1; all of it else."""
    found = context.given.found_m
    return 1.0 if found is None else max(math.exp(-0.5 * ((depth_m - found) / AT_FOUND_M) ** 2), 0.02)


# What pressured fish leave of a fast retrieve, and what a still fly gains. Common practice ("smaller and stiller"), ours.
QUICK_M_S, QUICK_LEFT, STILL_GAINS = 0.1, 0.6, 1.2


def stiller(context: Context, speed_m_s: float) -> float:
    """Return what pressured fish make of a pace [m/s], about 1; 1 where they are not pressured."""
    if not context.pressured:
        return 1.0
    return QUICK_LEFT if speed_m_s > QUICK_M_S else STILL_GAINS if speed_m_s == 0 else 1.0


# Ripple over bright, shallow water: what cuts under the ripple holds its depth, what hangs from the top swings in it.
# Trade practice, figures ours.
SWUNG_TO_M = 3.0
UNDER_RIPPLE = "Ripple over bright, shallow water: it cuts under the ripple and holds its depth."
IN_RIPPLE = {"sink-tip": 1.35, "intermediate": 1.35, "nymphs": 0.75, "float": 0.75}


def swung(context: Context) -> bool:
    """Return whether a ripple runs over bright water so shallow that it swings what hangs from the top."""
    rough = ripple_class(context.given.reading.wind_m_s) in ("ripple", "wave")
    shallow = context.bed_m <= SWUNG_TO_M
    return context.light.bright and rough and shallow and not context.rising_many and not context.stocked


def pace_worth(context: Context, speed_m_s: float, depth_m: float) -> float:
    """Return how trout answer a pace [m/s] in the water at a depth [m], and pressured ones, about 1."""
    return pace_weight(speed_m_s, context.water_c(depth_m)) * stiller(context, speed_m_s)


def worth(context: Context, method: str, reached: float, retrieve: Retrieve, depth_m: float, appealing: float) -> float:
    """Return the expected rate in arbitrary units from the share of belief met per second; only ratios are ever shown."""
    fed = hunger(context.given.reading, depth_m, context.given.water.species)
    return (
        reached
        * pace_worth(context, retrieve.speed_m_s, depth_m)
        * fed
        * appealing
        * COVER[method]
        * disturbance(context, method, depth_m)
        * (IN_RIPPLE.get(method, 1.0) if swung(context) else 1.0)
        * at_found(context, depth_m)
    )
