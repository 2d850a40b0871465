"""A rough rule for the depth of an unweighted fly while the line sinks. Approximate, and says so.

The fly lags the line by about three quarters of the leader, but never sinks slower than it would alone.
"""

from __future__ import annotations

from dataclasses import dataclass

from stillthread.core.tackle.lines import LABEL_DOUBT, Line

OWN_FALL_M_S = 0.035  # an unweighted fly sinking by itself on slack leader
LINE_SHARE = 0.97
LEADER_LAG = 0.75
NOT_COMPUTED = "not computed yet"


@dataclass(frozen=True)
class FlyDepth:
    """Depth of a fly at one moment [m]: the estimate (None where none is made), the band, and what it rests on.

    `touching` is true when the estimate has reached the bed.
    """

    t_s: float
    depth_m: float | None
    low_m: float | None
    high_m: float | None
    touching: bool = False


class NotComputedError(ValueError):
    """The shortcut does not cover this rig; `reason` says why, in words for the angler."""

    def __init__(self, reason: str):
        """Keep the reason."""
        self.reason = reason
        super().__init__(reason)


def sinking_depth_m(rate_m_s: float, t_s: float, leader_m: float, own_fall_m_s: float = OWN_FALL_M_S) -> float:
    """Return the depth [m] of an unweighted fly on a full-sinking or intermediate line `t_s` seconds after landing.

    depth = max(0, 0.97 w t - 0.75 L, 0.035 t), with w the line's rate [m/s] and L the leader [m]; never deeper than
    w t + 0.035 t. Common practice, to be replaced by a simulated line. Raises ValueError for negative input.

    >>> round(sinking_depth_m(0.0762, 60, 3.0), 3)
    2.185
    """
    if min(rate_m_s, t_s, leader_m) < 0:
        raise ValueError("rate, time and leader must not be negative")
    depth = max(0.0, LINE_SHARE * rate_m_s * t_s - LEADER_LAG * leader_m, own_fall_m_s * t_s)
    return min(depth, (rate_m_s + own_fall_m_s) * t_s)


def check_covered(line: Line, weight: str) -> None:
    """Raise NotComputedError for a weighted or buoyant fly: its own weight or lift decides and is not in the rule."""
    if weight != "unweighted":
        what = "A weighted fly outruns the line" if weight == "weighted" else "A buoyant fly lags far behind the line"
        raise NotComputedError(f"{what}; its depth on a {line.family} line is {NOT_COMPUTED}.")


def fly_depth(
    line: Line, leader_m: float, t_s: float, bed_m: float | None = None, weight: str = "unweighted"
) -> FlyDepth:
    """Return estimate and band for a fly `t_s` [s] after the line lands, on `leader_m` [m] of leader over a bed [m].

    Full-sinking and intermediate lines follow `sinking_depth_m`; the band is the label rate and the
    fly's own fall 30 % down and up together.
    A floating line's fly falls alone and stops at the leader. A sink tip gets no estimate, only its bounds: between
    the fly's own fall and the tip's rate, stopping at tip + leader. Raises NotComputedError for weighted or buoyant flies.
    """
    check_covered(line, weight)
    w = line.rate_m_s
    deepest = float("inf") if bed_m is None else bed_m
    own = OWN_FALL_M_S * t_s
    middle: float | None
    if line.family == "floating":
        deepest = min(deepest, leader_m)
        middle, low, high = own, own * (1 - LABEL_DOUBT), own * (1 + LABEL_DOUBT)
    elif line.family == "sink-tip":
        deepest = min(deepest, leader_m + line.tip_length_m)
        middle, low, high = None, own, (w + OWN_FALL_M_S) * t_s
    else:
        middle = sinking_depth_m(w, t_s, leader_m)
        low = sinking_depth_m(w * (1 - LABEL_DOUBT), t_s, leader_m, OWN_FALL_M_S * (1 - LABEL_DOUBT))
        high = sinking_depth_m(w * (1 + LABEL_DOUBT), t_s, leader_m, OWN_FALL_M_S * (1 + LABEL_DOUBT))
    touching = bed_m is not None and (high if middle is None else middle) >= bed_m
    return FlyDepth(
        t_s, None if middle is None else min(middle, deepest), min(low, deepest), min(high, deepest), touching
    )


def float_depth(hang_m: float, t_s: float = 0.0) -> FlyDepth:
    """Return the depth [m] of a fly hanging `hang_m` [m] below a float: straight down, no band.

    The time it takes to settle, and the lift from drift, are not computed yet.
    """
    return FlyDepth(t_s, hang_m, hang_m, hang_m)


def count_to_depth_s(line: Line, leader_m: float, depth_m: float) -> float | None:
    """Return the seconds to count for an unweighted fly to reach `depth_m` [m], or None if it never gets there.

    The inverse of `fly_depth`: the sooner of the line's and the fly's own arrival. A floating line reaches no deeper
    than its leader; a sink tip has no timed estimate, so None. Raises ValueError for a negative depth.
    """
    if depth_m < 0:
        raise ValueError("depth must not be negative")
    alone = depth_m / OWN_FALL_M_S
    if line.family == "sink-tip":
        return None
    if line.family == "floating":
        return alone if depth_m <= leader_m else None
    return min(alone, (depth_m + LEADER_LAG * leader_m) / (LINE_SHARE * line.rate_m_s))


def sink_table(
    line: Line, leader_m: float, until_s: int, bed_m: float | None = None, weight: str = "unweighted", step_s: int = 1
) -> tuple[FlyDepth, ...]:
    """Return the fly's depth every `step_s` seconds from 0 to `until_s` inclusive, for the countdown clock."""
    return tuple(fly_depth(line, leader_m, t, bed_m, weight) for t in range(0, until_s + 1, step_s))
