"""Which of the ranked actions are told: the best, and others that are really others; and what each would change."""

from __future__ import annotations

from collections import Counter
from collections.abc import Sequence

from stillthread.core.search.model import Candidate, StepKind

ANOTHER_DEPTH_M = 0.5  # the same rig less far away than that is no other choice to tell: figure ours
ALIKE_TOLD = 2  # choices with one rig at one place, while others are left: figure ours


def varied(ranked: Sequence[Candidate], most: int) -> list[int]:
    """Return the numbers of at most `most` to tell: the best, and after it others that differ in more than a little depth.

    More than two with one rig at one place come after those with others.
    """
    told: list[int] = []
    after: list[int] = []
    seen: set[tuple[object, ...]] = set()
    rigs: Counter[tuple[object, ...]] = Counter()
    for n, one in enumerate(ranked):
        rig = (one.place, one.rig)
        key = (*rig, one.kinds, one.likeness, one.pace)
        deeper = len(told) == 1 and abs(one.mean_m - ranked[told[0]].mean_m) >= ANOTHER_DEPTH_M
        if key not in seen or deeper:
            seen.add(key)
            (told if rigs[rig] < ALIKE_TOLD else after).append(n)
            rigs[rig] += 1
        if len(told) == most:
            break
    return [*told, *after][:most]


def kind_of(standing: Candidate | None, other: Candidate) -> StepKind:
    """Return what would be changed from one candidate to another, the largest change named."""
    if standing is None or other.place != standing.place:
        return "place" if standing is not None else "set-up"
    if other.rig != standing.rig:
        return "set-up"
    deeper = (other.count_s, other.hang_m) != (standing.count_s, standing.hang_m)
    if other.fly != standing.fly or (other.kinds != standing.kinds and not deeper):
        return "fly"
    if deeper:
        return "depth"
    return "stay" if other.key == standing.key else "pace"
