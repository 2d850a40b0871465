"""What the plan makes of its ways before anything is fished, laid into what the search makes of them.

The plan knows of a way what the search does not: how it shows the food, what the wind and fresh fish make of it, the angler's
schools.
"""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterable

import numpy as np

from stillthread.core.outing.doing import Doing
from stillthread.core.search.advisor import Advisor
from stillthread.core.search.model import Belief, Kind

LEAST_RELATIVE = 0.05  # of the plan's best: what is shown is never worth nothing
ANOTHER_FLY = 0.95  # the most another fly is worth of what the plan ties on, before anything is fished
Way = tuple[str, str]  # a set-up's place and its key


def _way(one: Doing) -> Way:
    return one.set_up.place, one.set_up.key


def _numbers(one: Doing) -> tuple[object, ...]:
    return _way(one), one.place, one.count_s, one.hang_m, one.pace


def weighed(doings: Iterable[Doing], belief: Belief, kinds: tuple[Kind, ...]) -> tuple[Doing, ...]:
    """Return the plan's ways, each worth against the others at its place at the start what the plan makes of it: none more than
    one before it, and other flies on it, at any depth, a little less than its own. Places compare by their first ways.

    The first of a way at its numbers is what the plan ties on there. Figures ours.
    """
    every = tuple(doings)
    places: dict[str, dict[Way, Doing]] = defaultdict(dict)
    for one in every:
        if one.as_planned:
            places[one.place][_way(one)] = one
    if not places:
        return every
    rates = Advisor.start(belief, kinds, [one.candidate for one in every]).rates([one.candidate for one in every])
    tied: dict[tuple[object, ...], float] = {}
    on: dict[tuple[object, ...], tuple[str, ...]] = {}
    for one, rate in zip(every, rates, strict=True):
        tied.setdefault(_numbers(one), rate)
        on.setdefault(_numbers(one), one.flies)

    def left(one: Doing, rate: float) -> float:
        own = tied[_numbers(one)]
        return 1.0 if one.flies == on[_numbers(one)] else min(1.0, ANOTHER_FLY * own / rate)

    found = {way: tied[_numbers(one)] for own in places.values() for way, one in own.items()}
    times: dict[Way, float] = {}
    first = 0.0  # what the plan's first way is multiplied by, and so the first at any other place
    for own in places.values():
        planned = _falling(own)
        level = first * found[next(iter(own))] if first else _level(own, planned, found)
        times |= {way: level * planned[way] / found[way] for way in own}
        first = first or next(iter(times.values()))
    return tuple(
        one.worth(left(one, rate) * times.get(_way(one), first)) for one, rate in zip(every, rates, strict=True)
    )


def _falling(own: dict[Way, Doing]) -> dict[Way, float]:
    """What the plan makes of the ways at a place against its first there: none more than one before it."""
    told = np.minimum.accumulate([max(one.set_up.relative, LEAST_RELATIVE) for one in own.values()])
    return dict(zip(own, map(float, told / told[0]), strict=True))


def _level(own: dict[Way, Doing], planned: dict[Way, float], found: dict[Way, float]) -> float:
    """The takes an hour of the first way that leave all ways as good in the mean; none fishes more than all of the time."""
    mean = float(np.exp(np.mean([np.log(found[way] / planned[way]) for way in own])))
    return min(mean, *(found[way] / planned[way] / one.candidate.fishing_share for way, one in own.items()))
