"""What every method adds up the same way: appeal of the fly, worth of the set-up, the reason for the fly."""

from __future__ import annotations

from stillthread.core.day.context import Context
from stillthread.core.day.model import Retrieve
from stillthread.core.flies.choose import Match
from stillthread.core.sky.light import ripple_class
from stillthread.core.trout.reach import hunger, pace_weight

# How much water a method covers, against a line fished back: common practice, figures ours.
COVER = {"dry": 1.1, "nymphs": 0.75, "float": 0.8, "sink-tip": 0.85, "intermediate": 1.0, "sinking": 1.0}


# Casting over fish in shallow or flat, bright water clears them; a float left alone does not. Trade practice, figures ours.
SHALLOW_M, SHALLOW_SHARE = 1.5, 0.85
FILM_M, CALM_SHARE = 0.6, 0.85


def appeal(team: list[Match], context: Context) -> float:
    """Return how well the best fly of a team stands for the food there, 0.3 to 1."""
    best = max(context.food.share.values())
    return 0.3 + 0.7 * min(1.0, max(m.score for m in team) / best) if team else 0.0


def disturbance(context: Context, method: str, depth_m: float) -> float:
    """Return what repeated casting leaves of a place, 0 to 1: less in under 1.5 m, and near the top of a flat calm."""
    if method == "float":
        return 1.0
    share = SHALLOW_SHARE if context.bed_m < SHALLOW_M else 1.0
    calm = ripple_class(context.given.reading.wind_m_s) == "calm" and context.light.surface > 0.15
    return share * (CALM_SHARE if calm and depth_m < FILM_M and method != "dry" else 1.0)


def worth(context: Context, method: str, reached: float, retrieve: Retrieve, depth_m: float, appealing: float) -> float:
    """Return the expected rate in arbitrary units from the share of belief met per second; only ratios are ever shown."""
    pace = pace_weight(retrieve.speed_m_s, context.water_c(depth_m))
    fed = hunger(context.given.reading, depth_m, context.given.water.species)
    return reached * pace * fed * appealing * COVER[method] * disturbance(context, method, depth_m)
