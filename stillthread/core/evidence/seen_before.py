"""What was seen of the food on earlier days, by how like today they were: it speaks for its prey, more softly than today's."""

from __future__ import annotations

import math
from dataclasses import dataclass
from datetime import date
from typing import Annotated

from annotated_types import Ge, Le

from stillthread.core.evidence.likeness import likeness
from stillthread.core.food.seen import Samples, Sightings, sample_counts, sighting_counts

# What one day and all earlier days together may count for, in sightings: a day no more than "some" seen today, all of them
# no more than the season does. Figures ours.
MOST_A_DAY, MOST_OF_ALL = 3.0, 4.0


@dataclass(frozen=True)
class SeenBefore:
    """What was seen of the food on an earlier day: rises, signs, prey, throats; `surface_c` is the surface then [°C]."""

    on: date
    sightings: Sightings = ()
    samples: Samples = ()
    surface_c: Annotated[float | None, Ge(-1), Le(40)] = None
    same_water: bool = True


def _held(counts: list[dict[str, float]], most: float) -> dict[str, float]:
    """Counts by prey added up, and made smaller together where they come to more than `most`."""
    keys = sorted({key for one in counts for key in one})
    sums = {key: math.fsum(one.get(key, 0.0) for one in counts) for key in keys}
    total = math.fsum(sums.values())
    scale = min(1.0, most / total) if total > 0 else 1.0
    return {key: scale * value for key, value in sums.items()}


def counts_before(days: tuple[SeenBefore, ...], today: date, surface_c: float | None) -> dict[str, float]:
    """Return what earlier days add to the count of each prey: each at most 3 sightings, times its likeness; 4 together.

    Likeness as the log's (see `likeness`): time of year, surface temperature [°C], the same water. The order of the days
    does not matter. Raises InputError for unknown names.
    """
    told = []
    for day in days:
        like = likeness(day, today, surface_c)
        seen = [sighting_counts(one) for one in day.sightings] + [sample_counts(one) for one in day.samples]
        told.append({key: like * value for key, value in _held(seen, MOST_A_DAY).items()})
    return {key: value for key, value in _held(told, MOST_OF_ALL).items() if value > 0}
