"""What an angler can do now, in the search's terms and in their own."""

from __future__ import annotations

from dataclasses import dataclass, replace

from stillthread.core.search.model import Candidate
from stillthread.core.setup.model import SetUp


@dataclass(frozen=True)
class Doing:
    """What a candidate is in the angler's terms: the set-up, and its count, hang, pace and flies."""

    candidate: Candidate
    set_up: SetUp
    place: str
    flies: tuple[str, ...]
    pace: str
    count_s: int | None
    hang_m: float | None
    depth_m: float
    lift_off_s: float | None = None

    @property
    def as_planned(self) -> bool:
        """Whether it is its set-up as the plan shows it: its place, count, hang, pace and flies."""
        one = self.set_up
        shown = one.place, one.count_s, one.float_hang_m, one.retrieve.key, tuple(f.fly.name for f in one.flies)
        return (self.place, self.count_s, self.hang_m, self.pace, self.flies) == shown

    def worth(self, times: float) -> Doing:
        """Return it fishing so many times as well, all the time at most."""
        share = min(1.0, self.candidate.fishing_share * times)
        return replace(self, candidate=replace(self.candidate, fishing_share=share))
