"""The plan document: what `./still plan` reads, and what the API asks. Mirrors docs/contracts."""

from __future__ import annotations

from dataclasses import fields
from typing import Annotated, Literal

from annotated_types import Ge, Le, MaxLen, MinLen

from stillthread.core.belief.factor import FACTOR_NAMES
from stillthread.core.day.given import Aim, Angler, Before, HandMade, PlanInput, Rules
from stillthread.core.day.schools import Schools
from stillthread.core.errors import InputError, doubled
from stillthread.core.evidence.likeness import PastStretch
from stillthread.core.limits import Instant, PlaceName, Said
from stillthread.core.noted.water import Water, checked_water
from stillthread.core.tackle.flies import MOST_FLIES, Fly
from stillthread.core.tackle.lines import MOST_LINES, Line
from stillthread.documents.noted import Noted, SeenBeforeDays
from stillthread.documents.strict import Strict

FactorName = Literal[FACTOR_NAMES]  # type: ignore[valid-type]


class Day(Noted):
    """What a plan is asked for, beside the water, the kit and the angler."""

    when: Annotated[Instant, Said("RFC 3339 with the water's own offset")]
    place: Annotated[PlaceName | None, Said("name of the place; left out = the best one")] = None
    aim: Aim = "most"
    session_h: Annotated[float, Ge(0.5), Le(18), Said("how long it is fished")] = 4.0
    without: Annotated[tuple[FactorName, ...], MaxLen(10), Said("factors that count for nothing")] = ()
    found_m: Annotated[float | None, Ge(0), Le(300), Said("a depth found today by one method")] = None
    by_hand: Annotated[tuple[HandMade, ...], MaxLen(4)] = ()
    compared_with: Annotated[
        Before | None, Said("schools and aim as they were, and what was read before: the answer says what changed")
    ] = None


class Tackle(Strict):
    """What is on the reels."""

    lines: Annotated[tuple[Line, ...], MinLen(1), MaxLen(MOST_LINES)]


class PlanRequest(Day):
    """A whole day: what `./still plan` reads."""

    version: Literal[1] = 1
    water: Water
    angler: Angler = Angler()
    tackle: Tackle
    flies: Annotated[tuple[Fly, ...], MinLen(1), MaxLen(MOST_FLIES)]
    rules: Rules = Rules()
    schools: Schools = Schools()
    own_log: Annotated[tuple[PastStretch, ...], MaxLen(2000)] = ()
    seen_before: SeenBeforeDays = ()


def plan_input_from(doc: PlanRequest) -> PlanInput:
    """Return what the core plans from. Raises InputError at a bad outline or depth-area table."""
    problems = doubled([line.key for line in doc.tackle.lines], "tackle.lines", "key")
    problems += doubled([fly.key for fly in doc.flies], "flies", "key")
    try:
        checked_water(doc.water)
    except InputError as error:
        problems += error.problems
    if problems:
        raise InputError(problems)
    same = {one.name: getattr(doc, one.name) for one in fields(PlanInput) if one.name not in ("lines", "without")}
    return PlanInput(**same, lines=doc.tackle.lines, without=frozenset(doc.without))
