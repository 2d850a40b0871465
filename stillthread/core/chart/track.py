"""A boat's recorded track: how fast and which way it drifted, the rowing back left out."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime
from statistics import median

from stillthread.core.chart.outline import distance_and_bearing
from stillthread.core.limits import LonLat

# Fixes nearer in time than this say more of the receiver than of the boat; what is faster is rowed or driven; a longer gap
# was not recorded. Figures ours.
LEAST_STEP_S, FASTEST_DRIFT_M_S, LONGEST_GAP_S = 20.0, 0.9, 300.0


@dataclass(frozen=True)
class Fix:
    """Where the boat was at an aware instant: longitude and latitude [deg]."""

    when: datetime
    position: LonLat


@dataclass(frozen=True)
class Drift:
    """A drift: how long it was followed [s] and how far [m], its middle speed [m/s], and which way it went [deg true]."""

    seconds: float
    metres: float
    speed_m_s: float
    towards_deg: float | None


def thinned(fixes: Sequence[Fix], least_s: float = LEAST_STEP_S) -> list[Fix]:
    """Return fixes in time, each at least so many seconds after the one before."""
    found: list[Fix] = []
    for fix in sorted(fixes, key=lambda one: one.when):
        if not found or (fix.when - found[-1].when).total_seconds() >= least_s:
            found.append(fix)
    return found


def drift_over(fixes: Sequence[Fix], start: datetime, end: datetime) -> Drift | None:
    """Return how a boat drifted between two instants; None where fewer than two moves of a drift were recorded.

    Moves faster than 0.9 m/s are rowed or driven and left out, so that several drifts over one water count as one. The
    speed is the median over moves; the way is that of their sum. Common practice.
    """
    kept = thinned([fix for fix in fixes if start <= fix.when <= end])
    east = north = metres = seconds = 0.0
    speeds = []
    for a, b in zip(kept, kept[1:], strict=False):
        took = (b.when - a.when).total_seconds()
        far, bearing = distance_and_bearing(a.position, b.position)
        if took > LONGEST_GAP_S or far / took > FASTEST_DRIFT_M_S:
            continue
        speeds.append(far / took)
        metres, seconds = metres + far, seconds + took
        angle = math.radians(bearing or 0.0)
        east, north = east + far * math.sin(angle), north + far * math.cos(angle)
    if len(speeds) < 2:
        return None
    still = math.hypot(east, north) < 1.0
    towards = None if still else math.degrees(math.atan2(east, north)) % 360
    return Drift(seconds=seconds, metres=metres, speed_m_s=median(speeds), towards_deg=towards)
