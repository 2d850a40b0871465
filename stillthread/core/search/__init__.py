"""Finding the feeding depth on the day: what was fished moves a belief, and the belief says what to do next."""

from stillthread.core.search.advisor import Advisor
from stillthread.core.search.model import Belief, Candidate, Costs, Kind, Spell, Step

__all__ = ["Advisor", "Belief", "Candidate", "Costs", "Kind", "Spell", "Step"]
