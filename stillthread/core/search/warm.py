"""Getting the search's kernels ready before anybody waits for them."""

from __future__ import annotations

from stillthread.core.search.advisor import Advisor
from stillthread.core.search.model import Belief, Candidate, Kind, Spell


def warm() -> None:
    """Take in one spell and give one advice, so that every kernel is compiled or loaded from its cache."""
    belief = Belief(("Warm",), (1.0,), ((0.2,) * 5,))
    one = Candidate(
        key="warm", place="Warm", method="float", kinds=("a",), pace="static", exposure=(0.0, 0.0, 1.0, 0.0, 0.0)
    )
    advisor = Advisor.start(belief, (Kind("a", 0.5),), [one])
    advisor.observe(Spell(one, 5.0, 1, 1))
    advisor.advise(one)
    advisor.chance(one)
