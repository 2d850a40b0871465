"""Answers an angler asks before casting: which count, how deep it then runs, how deep a trolled line goes."""

from __future__ import annotations

from dataclasses import dataclass, replace

import numpy as np

from stillthread.core.casts.band import LABEL_ONLY, Doubt, simulate, simulate_with_band
from stillthread.core.casts.cast import Cast
from stillthread.core.casts.retrieve import Pull, usual_pull
from stillthread.core.casts.track import CastResult
from stillthread.core.tackle.rig import Rig
from stillthread.core.thread.chain import RANKING, Detail

LONGEST_COUNT_S = 180.0
TROLL_SETTLE_S = 240.0
SETTLED_SHARE = 0.25  # the last part of a trolled run that is averaged


@dataclass(frozen=True)
class CountRow:
    """A depth [m] and the seconds to count to it: middle, soonest and latest (10–90 %), None where it is not reached."""

    depth_m: float
    count_s: float | None
    soonest_s: float | None
    latest_s: float | None
    line_m: float | None  # depth of the line's front end then


@dataclass(frozen=True)
class RunningDepth:
    """How a rig runs after a count: count [s], depth then, shallowest, mean and deepest of the retrieve [m], with band."""

    count_s: float
    at_count_m: float
    shallowest_m: float
    mean_m: float
    deepest_m: float
    p10_m: float
    p90_m: float


def sinking_cast(cast: Cast, longest_s: float = LONGEST_COUNT_S) -> Cast:
    """Return the same cast with nothing but a count of `longest_s` [s]: line held, nothing brought in."""
    return replace(cast, countdown_s=0.0, pull=usual_pull("static"), hold_s=longest_s, hang_s=0.0)


def sink_run(
    rig: Rig, cast: Cast, longest_s: float = LONGEST_COUNT_S, detail: Detail = RANKING, doubt: Doubt | None = LABEL_ONLY
) -> CastResult:
    """Return the free sink of a rig for `longest_s` [s], with its band unless `doubt` is None."""
    still = sinking_cast(cast, longest_s)
    return simulate(rig, still, detail) if doubt is None else simulate_with_band(rig, still, detail, doubt)


def _first(depths: np.ndarray, times: np.ndarray, depth_m: float) -> float | None:
    reached = np.flatnonzero(depths >= depth_m)
    if len(reached) == 0:
        return None
    k = int(reached[0])
    if k == 0:
        return float(times[0])
    share = (depth_m - depths[k - 1]) / max(depths[k] - depths[k - 1], 1e-9)
    return float(times[k - 1] + share * (times[k] - times[k - 1]))


def count_table(run: CastResult, depths_m: list[float]) -> tuple[CountRow, ...]:
    """Return the count to each depth for a sink run: the band's deep edge arrives soonest, its shallow edge latest."""
    fly = run.point
    rows = []
    for depth in depths_m:
        middle = _first(fly.depth_m, fly.t_s, depth)
        line = None if middle is None else float(np.interp(middle, fly.t_s, run.line_end_m))
        rows.append(
            CountRow(
                depth_m=depth,
                count_s=middle,
                soonest_s=_first(fly.p90_m, fly.t_s, depth),
                latest_s=_first(fly.p10_m, fly.t_s, depth),
                line_m=line,
            )
        )
    return tuple(rows)


def running_depth(rig: Rig, cast: Cast, count_s: float, pull: Pull, detail: Detail = RANKING) -> RunningDepth:
    """Return how deep a rig runs at a pace after a count: "which count gets me to 3 m, and how deep does it then run?"."""
    result = simulate_with_band(rig, replace(cast, countdown_s=count_s, pull=pull), detail)
    fly = result.point
    inside = (fly.t_s >= count_s - 1e-9) & (fly.t_s <= result.fished_to_s + 1e-9)
    low, high = fly.between(count_s, result.fished_to_s)
    return RunningDepth(
        count_s=count_s,
        at_count_m=fly.at(count_s),
        shallowest_m=low,
        mean_m=float(fly.depth_m[inside].mean()),
        deepest_m=high,
        p10_m=float(fly.p10_m[inside].mean()),
        p90_m=float(fly.p90_m[inside].mean()),
    )


def trolling_table(
    rig: Rig, cast: Cast, speeds_m_s: list[float], lines_out_m: list[float], detail: Detail = RANKING
) -> tuple[tuple[float | None, ...], ...]:
    """Return the steady depth [m] of the point fly for each trolling speed (rows) and length out (columns).

    The boat draws away from the flies at each speed until the thread has settled; None where that length cannot be out.
    """
    rows = []
    for speed in speeds_m_s:
        row: list[float | None] = []
        for out in lines_out_m:
            if out < rig.leader_m + 0.5 or out > rig.line.length_m + rig.leader_m:
                row.append(None)
                continue
            settle = min(TROLL_SETTLE_S, max(60.0, 6 * out / speed))
            still = replace(sinking_cast(cast, settle), cast_m=out, slack=0.0, drift_m_s=-speed)
            fly = simulate(rig, still, detail).point
            row.append(float(fly.depth_m[int(len(fly.t_s) * (1 - SETTLED_SHARE)) :].mean()))
        rows.append(tuple(row))
    return tuple(rows)


@dataclass(frozen=True)
class FlyDepth:
    """Depth of a fly at one moment [m]: the estimate, its band, and whether it lies on the bed by then."""

    t_s: float
    depth_m: float | None
    low_m: float | None
    high_m: float | None
    touching: bool = False


def clock_table(run: CastResult, until_s: int, bed_m: float | None = None) -> tuple[FlyDepth, ...]:
    """Return the point fly's depth and band every second from 0 to `until_s` [s] of a sink run, for the countdown clock."""
    fly = run.point
    rows = []
    for t in range(until_s + 1):
        depth = fly.at(t)
        low, high = fly.band_at(t)
        rows.append(
            FlyDepth(
                t_s=float(t),
                depth_m=depth,
                low_m=low,
                high_m=high,
                touching=bed_m is not None and depth >= bed_m - 0.02,
            )
        )
    return tuple(rows)
