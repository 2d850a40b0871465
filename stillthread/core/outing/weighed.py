"""What the plan makes of its ways before anything is fished, laid into what the search makes of them.

The plan knows of a way what the search does not: how it shows the food, what the wind and fresh fish make of it, the angler's
schools.
"""

from __future__ import annotations

import numpy as np

from stillthread.core.outing.doing import Doing
from stillthread.core.search.advisor import Advisor
from stillthread.core.search.model import Belief, Kind

LEAST_RELATIVE = 0.05  # of the plan's best: what is shown is never worth nothing


def weighed(doings: list[Doing], belief: Belief, kinds: tuple[Kind, ...]) -> list[Doing]:
    """Return the plan's ways, each worth against the others at the start what the plan makes of it: none more than one before it.

    Other flies on a way are worth no more there than its own. Those for the plan's second place stay as they are. Figures ours.
    """
    own = {one.set_up.key: one for one in doings if one.as_planned and not one.set_up.elsewhere}
    if not own:
        return doings
    rate = Advisor.start(belief, kinds, [one.candidate for one in doings]).rate
    found = {key: rate(one.candidate) for key, one in own.items()}
    falling = np.minimum.accumulate([max(one.set_up.relative, LEAST_RELATIVE) for one in own.values()])
    planned = dict(zip(own, map(float, falling), strict=True))
    level = float(np.exp(np.mean([np.log(found[key] / planned[key]) for key in own])))
    # None fishes more than all of the time.
    level = min(level, *(found[key] / planned[key] / one.candidate.fishing_share for key, one in own.items()))
    other = {(one.set_up.key, one.flies): rate(one.candidate) for one in doings if one.numbers_as_planned}

    def times(one: Doing) -> float:
        key = one.set_up.key
        if key not in own:
            return 1.0
        tied = min(1.0, found[key] / other.get((key, one.flies), found[key]))
        return tied * level * float(planned[key]) / found[key]

    return [one.worth(times(one)) for one in doings]
