"""Lines of equal temperature through a season: how deep each temperature lay at each reading."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from stillthread.core.water.profile import Point, temperature_at

STEP_C, CELL_M = 2, 0.1
LONGEST_GAP_DAYS = (
    45.0  # readings further apart are not joined: what was between them nobody knows. Common practice, figure ours
)


@dataclass(frozen=True)
class Isotherm:
    """One temperature [°C] through a season: runs of (day of the year, depth [m]), each without too long a gap."""

    temperature_c: float
    runs: tuple[tuple[tuple[float, float], ...], ...]


def depth_of(points: tuple[Point, ...], temperature_c: float) -> float | None:
    """Return the shallowest depth [m] at which a profile passes a temperature [°C], between its first and last sample; else None.

    Raises ValueError without samples.
    """
    top, bottom = points[0].depth_m, points[-1].depth_m
    depths = np.linspace(top, bottom, max(2, int((bottom - top) / CELL_M) + 1))
    over = temperature_at(points, depths) - temperature_c
    passed = np.nonzero(np.sign(over[:-1]) != np.sign(over[1:]))[0]
    if len(passed) == 0:
        return None
    k = int(passed[0])
    share = over[k] / (over[k] - over[k + 1]) if over[k] != over[k + 1] else 0.0
    return float(depths[k] + share * (depths[k + 1] - depths[k]))


def isotherms(profiles: Sequence[tuple[float, tuple[Point, ...]]]) -> list[Isotherm]:
    """Return every second degree's line through a season's profiles, given as (day of the year, samples), in their order.

    A line breaks where a reading does not have its temperature, or where readings are more than 45 days apart.
    """
    deep = [(day, points) for day, points in profiles if len(points) > 1]
    warmth = [p.temperature_c for _, points in deep for p in points]
    if not warmth:
        return []
    found = []
    first, last = int(min(warmth) // STEP_C) * STEP_C, int(max(warmth) // STEP_C) * STEP_C
    for degrees in range(first, last + STEP_C, STEP_C):
        runs: list[list[tuple[float, float]]] = [[]]
        before: float | None = None
        for day, points in deep:
            depth = depth_of(points, degrees)
            if depth is None or (before is not None and day - before > LONGEST_GAP_DAYS):
                runs.append([])
            if depth is not None:
                runs[-1].append((day, depth))
            before = day
        kept = tuple(tuple(run) for run in runs if len(run) > 1)
        if kept:
            found.append(Isotherm(float(degrees), kept))
    return found
