"""What every method adds up the same way: appeal of the fly, worth of the set-up, the reason for the fly."""

from __future__ import annotations

from stillthread.core.setup.choose_flies import Match
from stillthread.core.setup.context import Context
from stillthread.core.setup.model import Reason, Retrieve
from stillthread.core.setup.score import hunger, pace_weight

# How much water a method covers, against a line fished back: common practice, figures ours.
COVER = {"dry": 1.1, "nymphs": 0.75, "float": 0.8, "sink-tip": 0.85, "intermediate": 1.0, "sinking": 1.0}


def appeal(ranked: list[Match], context: Context) -> float:
    """Return how well the best fly stands for the food there, 0.3 to 1."""
    best = max(context.food.share.values())
    return 0.3 + 0.7 * min(1.0, ranked[0].score / best) if ranked else 0.0


def worth(context: Context, method: str, reached: float, retrieve: Retrieve, depth_m: float, appealing: float) -> float:
    """Return the expected rate in arbitrary units from the share of belief met per second; only ratios are ever shown."""
    pace = pace_weight(retrieve.speed_m_s, context.water_c(depth_m))
    fed = hunger(context.given.reading, depth_m, context.given.water.species)
    return reached * pace * fed * appealing * COVER[method]


def fly_reason(ranked: list[Match]) -> Reason:
    """Return why the point fly was chosen."""
    match = ranked[0]
    return Reason("fly", f"{match.fly.name} stands for {match.prey.name.lower()}: {match.prey.about}.")
