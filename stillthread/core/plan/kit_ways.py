"""Every line of the kit with a fly of each weight in the box, worked out for a day: for what is tied on without asking."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import replace

from stillthread.core.day.given import HandMade, PlanInput
from stillthread.core.day.paths import IN_MEMORY, Paths
from stillthread.core.methods.by_hand import METHOD_OF, by_hand
from stillthread.core.methods.counted import with_band
from stillthread.core.methods.ways import title_of
from stillthread.core.plan.make import check_input, day_context, must_rest
from stillthread.core.setup.model import SetUp
from stillthread.core.tackle.flies import WEIGHTS, Fly

CLOCK_S = 120  # any count may be tried with what is tied on


def _one_of_each_weight(flies: tuple[Fly, ...]) -> Iterator[Fly]:
    """The first sunk fly of each weight that is left in the box."""
    for weight in WEIGHTS:
        found = next((f for f in flies if f.weight == weight and not f.surface and f.stock != 0), None)
        if found is not None:
            yield found


def kit_ways(given: PlanInput, paths: Paths = IN_MEMORY) -> tuple[SetUp, ...]:
    """Return each line of the kit with one fly of each weight, counted down at the day's place, as the rules allow.

    Each with its clock, its band and the count that is best for it; what the rules, the bed or the kit forbid is left out,
    and all of it where the water is too warm to return fish.
    Raises InputError where the input cannot be used.
    """
    rods = [(line, fly) for line in given.lines for fly in _one_of_each_weight(given.flies)]
    given = replace(given, by_hand=tuple(HandMade(line=line.key, flies=(fly.key,)) for line, fly in rods))
    check_input(given)
    if must_rest(given) is not None:
        return ()
    context, _ = day_context(given, paths)
    found = []
    for number, (line, fly) in enumerate(rods):
        made = by_hand(context, number)
        if isinstance(made, SetUp) and made.count_s is not None:
            title = f"{title_of(METHOD_OF[line.family], line)}, {fly.weight} fly"
            found.append(replace(with_band(made, context, CLOCK_S), title=title, by_hand=None, reasons=()))
    return tuple(found)
