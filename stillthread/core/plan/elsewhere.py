"""A set-up for a second place, where one holds a fair share of the fish: what is worth moving for once the first place stays blank."""

from __future__ import annotations

from dataclasses import replace

from stillthread.core.belief.belief import PlaceBelief
from stillthread.core.belief.reach import Reach
from stillthread.core.day.context import Context
from stillthread.core.day.model import RuledOut
from stillthread.core.methods.all_ways import try_all
from stillthread.core.methods.hung import TOP_FLOAT_M
from stillthread.core.plan.rank import MOST_SET_UPS, WORTH_SHOWING, alike, over_session, rigging_min
from stillthread.core.search.model import Costs
from stillthread.core.setup.model import SetUp

# The share of all belief a second place must hold, and of the first place's, before a set-up is laid out for it. Figures ours.
FAIR_SHARE, BESIDE_FIRST = 0.25, 0.75
UNDER_THE_FILM_M = 0.3
FIRST_STAY = 2  # the set-ups of the first place that stay in front: a move is for later in the day


def second_place(beliefs: tuple[PlaceBelief, ...], context: Context) -> Context | None:
    """Return the day as the second-best place has it; None where the angler has named the place, or none holds a fair share."""
    first = context.belief
    others = [one for one in beliefs if one.place.name != first.place.name]
    if context.given.place is not None or not others:
        return None
    second = max(others, key=lambda one: one.share)
    if second.share < max(FAIR_SHARE, BESIDE_FIRST * first.share):
        return None
    return at_place(second, context)


def at_place(belief: PlaceBelief, context: Context) -> Context:
    """Return the day as another place has it. What was put together by hand is for the first place."""
    reach = Reach(belief, context.light.secchi_m, context.light, context.angler.learnt.notice)
    return replace(context, given=replace(context.given, by_hand=()), belief=belief, reach=reach)


def tried_there(there: Context, lines: set[str]) -> list[SetUp]:
    """Return what can be fished at the second place with the lines [key] that are out anyway."""
    carried = tuple(line for line in there.given.lines if line.key in lines)
    found = try_all(replace(there, given=replace(there.given, lines=carried)))
    return [replace(one, elsewhere=True) for one in found if isinstance(one, SetUp) and _worth_a_move(one)]


def _worth_a_move(one: SetUp) -> bool:
    """Whether anybody would move for it: not for a float on the fish's heads, nor for a sunk fly that hardly sinks."""
    if one.float_hang_m is not None:
        return one.float_hang_m > TOP_FLOAT_M
    return one.method == "dry" or one.target_m >= UNDER_THE_FILM_M


def with_elsewhere(shown: list[SetUp], tried: list[SetUp], share: float, session_h: float) -> list[SetUp]:
    """Return the set-ups shown with the second place's best among them, never before the first two, at most four.

    Its worth counts by the place's `share` of the first place's belief, less the minutes it takes to move there, and what
    is like one already shown counts less; one of the first place gives way only to what is worth more.
    """
    if not shown or not tried:
        return shown
    moving = Costs().place / (60.0 * session_h)

    def rated(one: SetUp) -> SetUp:
        there = max(0.0, over_session(one, session_h) - moving * one.relative)
        return replace(one, relative=share * there, rigging_min=rigging_min(one))

    best = max(map(rated, tried), key=lambda one: one.relative * (1 - max(alike(one, s) for s in shown)))
    if best.relative < WORTH_SHOWING * shown[0].relative:
        return shown
    if len(shown) == MOST_SET_UPS and best.relative < shown[-1].relative:
        return shown
    rest = shown[FIRST_STAY : MOST_SET_UPS - 1]
    # A place is a guess, and the first is the likelier: nothing at the second stands above what is begun with.
    best = replace(best, relative=min([best.relative, *(one.relative for one in shown[:FIRST_STAY])]))
    at = FIRST_STAY + sum(one.relative >= best.relative for one in rest)
    both = [*shown[:FIRST_STAY], *rest]
    return [*both[:at], best, *both[at:]]


def given_way(before: list[SetUp], after: list[SetUp]) -> list[RuledOut]:
    """Return what the second place's set-up took the place of, with why."""
    there = next((one for one in after if one.elsewhere), None)
    gone = [one for one in before if one.key not in {s.key for s in after}]
    return [
        RuledOut(one.title, "depth", f"{there.title} at {there.place} is worth more today.") for one in gone if there
    ]
