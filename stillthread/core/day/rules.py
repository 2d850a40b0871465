"""The rules of the water as read, asked in one place by every way of fishing and by what is put together by hand."""

from __future__ import annotations

from stillthread.core.day.given import Rules
from stillthread.core.tackle.lines import Line

# Where nobody noted how many flies are allowed. Common practice: one, two or three; ours is the middle.
FLIES_IF_UNKNOWN = 2


def most_flies(rules: Rules) -> int:
    """Return how many flies may be tied on: as noted, else two; one where droppers are not allowed."""
    if rules.droppers_allowed is False:
        return 1
    return rules.max_flies if rules.max_flies is not None else FLIES_IF_UNKNOWN


def flies_refused(rules: Rules, count: int) -> str | None:
    """Return why `count` flies may not be tied on, in words; None where they may."""
    most = rules.max_flies if rules.max_flies is not None else FLIES_IF_UNKNOWN
    if count > most:
        noted = f"The rules you noted allow {most}."
        unknown = f"How many are allowed is not noted; {most} at most."
        return f"{count} flies. {noted if rules.max_flies is not None else unknown}"
    if count > 1 and rules.droppers_allowed is False:
        return "The rules you noted allow no droppers."
    return None


def line_refused(rules: Rules, line: Line) -> str | None:
    """Return why a line may not be fished, in words; None where it may."""
    if line.family != "floating" and rules.sinking_lines_allowed is False:
        return "The rules you noted do not allow sinking lines."
    return None


def float_refused(rules: Rules) -> str | None:
    """Return why no float may be fished, in words; None where one may."""
    return "The rules you noted do not allow floats." if rules.floats_allowed is False else None
