"""The ways to fish a line from bank or boat: teams, a buoyant point, a sinking leader, a deep tip, something big in the cold."""

from __future__ import annotations

from collections.abc import Callable
from functools import partial

from stillthread.core.day.context import Context
from stillthread.core.day.model import RuledOut
from stillthread.core.flies.choose import Match
from stillthread.core.flies.team import LEAST_WORTH, order_team, point_for
from stillthread.core.methods.counted import Way, best_of, flies_allowed
from stillthread.core.setup.model import SetUp
from stillthread.core.tackle.leaders import Leader, sinking_leader, sinking_tip_leader, team_leader
from stillthread.core.tackle.lines import Line
from stillthread.core.units import feet_to_m

DEEP_TIP_FROM_IPS, DEEP_TIP_FROM_M = 3.0, 5.0  # trade: a fast tip, long leader and heavy point for 6 to 9 m
FLASHY = ("leech", "stocked-instinct", "fry")

TITLES = {
    "buoyant-point": "Buoyant point fly on {line}",
    "tip-deep": "Heavy point on a long leader, {line}",
    "flashy": "Something big and moving on {line}",
}


def title_of(method: str, line: Line, style: str = "team") -> str:
    """Return the set-up's title."""
    if style in TITLES:
        name = line.title if line.name else line.title[0].lower() + line.title[1:]
        article = "a " if not line.name and line.family == "floating" else ""
        return TITLES[style].format(line=article + name)
    return "Slow nymphs on a floating line" if method == "nymphs" else line.title


def leader_for(context: Context, method: str) -> Callable[[int], Leader]:
    """Return how a method's leader is cut for so many flies: the trade's formulas for floating, tip and sinking lines."""
    x = context.tippet_x
    if method == "nymphs":
        return lambda n: team_leader(x, n, feet_to_m(12 - 4 * (n - 1)), feet_to_m(4 if n == 3 else 5))
    if method == "sink-tip":
        return lambda n: team_leader(x, n, feet_to_m(9 if n == 1 else 7), feet_to_m(4))
    return partial(sinking_leader, x)


def _team(context: Context, way: Way, ranked: list[Match], point: Match | None = None) -> list[Match]:
    count = flies_allowed(context, way, len({m.fly.key for m in ranked} | ({point.fly.key} if point else set())))
    return order_team(ranked, count, context.attractor_at, point)


def counted_line(context: Context, method: str, line: Line) -> SetUp | RuledOut:
    """Return a team or single fly counted down on a line, the best of its counts, or why there is none.

    Unweighted flies, best first; and, where one fits better still, a weighted fly on the point, if that stands for something
    here: weight alone takes nothing.
    """
    way = Way(
        method=method,
        style="team",
        line=line,
        title=title_of(method, line),
        leader=leader_for(context, method),
        most_flies=3 if method == "nymphs" else 2,
    )
    middle = sum(context.band_m) / 2
    light = context.flies_for(middle, ("unweighted",))
    heavy = context.flies_for(middle, ("weighted",))
    teams = [_team(context, way, light)] if light else []
    helps = bool(heavy) and (not light or heavy[0].score >= LEAST_WORTH * light[0].score)
    if helps and (method != "sinking" or not light):
        teams.append(_team(context, way, light or heavy[1:], point_for(heavy, context.attractor_at)))
    if not teams:
        return RuledOut(way.title, "kit", "No sunk fly in your box.")
    return best_of(context, way, teams)


def buoyant_point(context: Context, method: str, line: Line) -> SetUp | RuledOut:
    """Return light nymphs hung between the line and a buoyant fly on the point, or why not (trade practice)."""
    way = Way(
        method=method,
        style="buoyant-point",
        line=line,
        title=title_of(method, line, "buoyant-point"),
        leader=leader_for(context, "nymphs"),
        most_flies=3,
        about="The buoyant point and the line hold the flies between them up: they stay high and slow.",
    )
    if context.team_size() < 2:
        return RuledOut(way.title, "rule", "It needs two flies; here you fish one.")
    top = min(1.0, context.bed_m / 2)
    points = context.flies_for(top, ("buoyant",))
    middles = context.flies_for(top, ("unweighted",))
    if not points or not middles:
        return RuledOut(way.title, "kit", "It needs a buoyant sunk fly and an unweighted one in the box.")
    team = _team(context, way, middles, points[0])
    if len(team) < 2:
        return RuledOut(way.title, "landing", "Two flies this far apart are beyond your rod, arm and net.")
    return best_of(context, way, [team])


def on_sinking_leader(context: Context, floating: Line) -> SetUp | RuledOut:
    """Return one fly on a 1.5 m sinking leader: for those whose only line floats (0.3 to 1 m in the trade's table)."""
    way = Way(
        method="nymphs",
        style="sinking-leader",
        line=floating,
        title="Floating line with a 1.5 m sinking leader",
        leader=lambda n: sinking_tip_leader(context.tippet_x),
        most_flies=1,
        about="It needs a slow 1.5 m sinking leader. Check that the rules count it as a floating line.",
    )
    if not context.angler.owns.sinking_leader:
        return RuledOut(way.title, "kit", "No sinking leader in your kit.")
    ranked = context.flies_for(min(1.0, context.bed_m / 2), ("unweighted", "weighted"))
    if not ranked:
        return RuledOut(way.title, "kit", "No sunk fly in your box.")
    return best_of(context, way, [ranked[:1]])


def deep_tip_leader(x_size: int) -> Callable[[int], Leader]:
    """Return how the long leader of a fast tip is cut for so many flies: 18 ft to the point, droppers 5 ft apart."""
    spacing = feet_to_m(5)
    return lambda n: team_leader(x_size, n, feet_to_m(18) - spacing * (n - 1), spacing)


def deep_tip(context: Context, line: Line) -> SetUp | RuledOut:
    """Return nymphs hung steeply from a fast tip by a heavy point: the trade's way to 6 to 9 m without a full sinking line."""
    way = Way(
        method="sink-tip",
        style="tip-deep",
        line=line,
        title=title_of("sink-tip", line, "tip-deep"),
        leader=deep_tip_leader(context.tippet_x),
        most_flies=2,
        about="The flies hang steeply: when fish lie at the bottom only the lowest ones work.",
    )
    heavy = context.flies_for(sum(context.band_m) / 2, ("weighted",))
    if not heavy:
        return RuledOut(way.title, "kit", "No weighted fly in your box for the point.")
    light = context.flies_for(sum(context.band_m) / 2, ("unweighted",))
    return best_of(context, way, [_team(context, way, light, heavy[0])])


def flashy(context: Context, method: str, line: Line) -> SetUp | RuledOut:
    """Return a big moving fly for very cold water: the school that fishes flashy leeches at ice-out."""
    way = Way(
        method=method,
        style="flashy",
        line=line,
        title=title_of(method, line, "flashy"),
        leader=leader_for(context, method),
        most_flies=1,
        about="Some fish flash and movement in water this cold, at ice-out above all; the other start is still and small.",
    )
    ranked = context.flies_for(sum(context.band_m) / 2, ("unweighted", "weighted", "buoyant"), tone="bright")
    big = [m for m in ranked if set(m.fly.prey) & set(FLASHY) and min(m.fly.hooks) <= 10]
    if not big:
        return RuledOut(way.title, "kit", "No big leech, fry or attractor in your box.")
    return best_of(context, way, [big[:1]])
