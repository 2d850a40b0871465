"""Which taps are fish: a take at the strike and the fish landed or lost on the end of it are one."""

from __future__ import annotations

from collections.abc import Sequence
from datetime import datetime

TAKE_KINDS = ("take", "lost", "landed")
ENDINGS = ("lost", "landed")
LONGEST_FIGHT_S = 15 * 60.0  # a fish played longer than this is rare on the fly: common practice


def fish_among(taps: Sequence[tuple[str, datetime]]) -> list[int]:
    """Return the places of the taps that are a fish of their own, in a list of kinds and instants sorted by time.

    A "lost" or "landed" within a quarter of an hour after a "take" that nothing has ended yet is the end of that take:
    it counts, the take does not. Each ends one take, the latest. Kinds that are no takes count for nothing.

    >>> noon = datetime(2026, 5, 1, 12)
    >>> fish_among([("take", noon), ("landed", noon), ("pluck", noon), ("take", noon)])
    [1, 3]
    """
    fish: list[int] = []
    open_take: int | None = None
    for place, (kind, at) in enumerate(taps):
        if kind not in TAKE_KINDS:
            continue
        if kind in ENDINGS and open_take is not None:
            if (at - taps[open_take][1]).total_seconds() <= LONGEST_FIGHT_S:
                fish.remove(open_take)
            open_take = None
        elif kind == "take":
            open_take = place
        fish.append(place)
    return fish
