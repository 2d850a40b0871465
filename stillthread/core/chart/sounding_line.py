"""A line of soundings from a boat: single wild echoes taken out, ledges kept; and where the bed breaks."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

# A sounding this far from the middle of its neighbours is an echo from weed or one that went twice: at least [m], and as
# a share of the depth. A drop-off does not trip it: half the neighbours stand on either side. Our figures.
WILD_M = 0.6
WILD_SHARE = 0.2
NEIGHBOURS = 5
# A ledge: the bed falls by at least this [m] within this run [m] along the line. The trade's drop-off: 3 to 5 m.
LEDGE_FALL_M = 1.0
LEDGE_RUN_M = 15.0


@dataclass(frozen=True)
class Ledge:
    """A place where the bed breaks: index into the line, depths [m] at its upper and lower edge, and its run [m]."""

    index: int
    upper_m: float
    lower_m: float
    run_m: float


def running_median(values: NDArray[np.float64], width: int = NEIGHBOURS) -> NDArray[np.float64]:
    """Return the median of each value and its neighbours, `width` in all (odd), fewer at the ends.

    Raises ValueError for an even width.
    """
    if width % 2 == 0:
        raise ValueError("the width must be odd")
    half = width // 2
    return np.array([np.median(values[max(0, i - half) : i + half + 1]) for i in range(len(values))])


def wild(depths_m: NDArray[np.float64]) -> NDArray[np.bool_]:
    """Return which soundings [m] of a line stand too far from their neighbours' median to be the bed (Hampel's idea).

    Farther than 0.6 m or a fifth of the depth, whichever is more.
    """
    if len(depths_m) < 3:
        return np.zeros(len(depths_m), dtype=bool)
    middle = running_median(depths_m)
    return np.asarray(np.abs(depths_m - middle) > np.maximum(WILD_M, WILD_SHARE * middle), dtype=np.bool_)


def ledges(along_m: NDArray[np.float64], depths_m: NDArray[np.float64]) -> tuple[Ledge, ...]:
    """Return where the bed breaks along a line: distance [m] along it, depths [m] cleaned of wild ones.

    A ledge falls (or rises) by 1 m or more within 15 m; the steepest stretch of each is told once, in order.
    """
    smooth = running_median(depths_m) if len(depths_m) else depths_m
    found: list[tuple[float, int, int]] = []
    start = 0
    for end in range(1, len(smooth)):
        while along_m[end] - along_m[start] > LEDGE_RUN_M:
            start += 1
        fall = float(np.max(np.abs(smooth[start:end] - smooth[end]))) if end > start else 0.0
        if fall >= LEDGE_FALL_M:
            first = start + int(np.argmax(np.abs(smooth[start:end] - smooth[end])))
            found.append((fall, first, end))
    kept: list[tuple[int, int]] = []
    for _, first, end in sorted(found, reverse=True):
        if all(along_m[end] < along_m[a] - 1e-9 or along_m[first] > along_m[b] + 1e-9 for a, b in kept):
            kept.append((first, end))
    told = []
    for first, end in sorted(kept):
        upper, lower = sorted((float(smooth[first]), float(smooth[end])))
        told.append(Ledge((first + end) // 2, upper, lower, float(along_m[end] - along_m[first])))
    return tuple(told)
