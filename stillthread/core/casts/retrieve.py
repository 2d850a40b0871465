"""Retrieves as a schedule for the hand: line held, pulled, rested, and held again on the hang."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal, get_args

import numpy as np
from numpy.typing import NDArray

PullKind = Literal["static", "hand-twist", "strip-pause", "long-pull", "roly-poly", "custom"]
KINDS = get_args(PullKind)
# Usual speed of the line while it moves [m/s], pull [m] and pause [s] by kind: the trade's paces.
USUAL = {
    "static": (0.0, 0.0, 0.0),
    "hand-twist": (0.05, 0.0, 0.0),
    "strip-pause": (0.4, 0.12, 1.5),
    "long-pull": (0.5, 0.55, 1.0),
    "roly-poly": (0.7, 0.0, 0.0),
}
HANG_MARK_M = 3.0  # line left outside the rod when the hang begins: the trade's mark on the line
MOST_PULLS = 600


@dataclass(frozen=True)
class Pull:
    """A retrieve: kind, speed of the line while it moves [m/s], length of one pull [m] and the rest after it [s]."""

    kind: str = "hand-twist"
    speed_m_s: float = 0.05
    pull_m: float = 0.0
    pause_s: float = 0.0

    @property
    def mean_m_s(self) -> float:
        """Line gained per second over pulls and rests [m/s]."""
        if self.speed_m_s <= 0:
            return 0.0
        if self.pull_m <= 0 or self.pause_s <= 0:
            return self.speed_m_s
        return self.pull_m / (self.pull_m / self.speed_m_s + self.pause_s)


def usual_pull(
    kind: str, speed_m_s: float | None = None, pull_m: float | None = None, pause_s: float | None = None
) -> Pull:
    """Return a retrieve of `kind` with the trade's usual numbers where none are given.

    Raises ValueError for an unknown kind, or a custom one without its speed.
    """
    if kind not in KINDS:
        raise ValueError(f"no retrieve '{kind}'")
    if kind == "custom" and speed_m_s is None:
        raise ValueError("a custom retrieve needs its speed")
    speed, pull, pause = USUAL.get(kind, (0.0, 0.0, 0.0))
    return Pull(
        kind,
        0.0 if kind == "static" else (speed if speed_m_s is None else speed_m_s),
        pull if pull_m is None else pull_m,
        pause if pause_s is None else pause_s,
    )


def schedule(
    pull: Pull, countdown_s: float, to_gain_m: float, hold_s: float, hang_s: float, most_s: float = np.inf
) -> tuple[NDArray[np.float64], float, float]:
    """Return the phases (end time [s], line speed [m/s]), when fishing ends [s] and how much line came in [m].

    The line is held for `countdown_s`, then `to_gain_m` [m] are brought in by the pattern, then held for `hang_s` (the
    hang). The retrieve is broken off after `most_s`. A static retrieve is held for `hold_s` instead and has no hang. Raises ValueError for a pattern of more than 600 pulls.
    """
    rows: list[tuple[float, float]] = []
    t = 0.0

    def hold(seconds: float, speed: float) -> None:
        nonlocal t
        if seconds > 1e-9:
            t += seconds
            rows.append((t, speed))

    hold(countdown_s, 0.0)
    if pull.speed_m_s <= 0 or to_gain_m <= 0:
        hold(max(hold_s, 0.5), 0.0)
        return np.array(rows), t, 0.0
    each = pull.pull_m if pull.pull_m > 0 and pull.pause_s > 0 else to_gain_m
    if min(to_gain_m, most_s * pull.mean_m_s) / each > MOST_PULLS:
        raise ValueError(f"more than {MOST_PULLS} pulls: make the pull longer")
    left = min(to_gain_m, most_s * pull.mean_m_s)
    while left > 1e-9:
        now = min(each, left)
        hold(now / pull.speed_m_s, pull.speed_m_s)
        left -= now
        if left > 1e-9:
            hold(pull.pause_s, 0.0)
    fished = t
    hold(hang_s, 0.0)
    return np.array(rows), fished, min(to_gain_m, most_s * pull.mean_m_s)
