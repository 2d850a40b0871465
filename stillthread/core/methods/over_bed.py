"""Flies kept close to a bed or to weed: a buoyant fly behind a line on the bottom, over the weed, and up the slope."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace
from functools import partial

import numpy as np

from stillthread.core.day.context import Context
from stillthread.core.day.model import RuledOut
from stillthread.core.day.paths import binned_bed_m, fished_mean_m, mean_reach, pull_of
from stillthread.core.flies.choose import Match
from stillthread.core.methods.counted import (
    COUNT_STEP_S,
    LONGEST_COUNT_S,
    Option,
    Way,
    base_cast,
    set_up_from,
    shallowest_useful_m,
    tie,
    why_not,
)
from stillthread.core.methods.ways import leader_for
from stillthread.core.setup.model import SetUp
from stillthread.core.setup.retrieves import RETRIEVES
from stillthread.core.setup.worth import appeal, worth
from stillthread.core.tackle.leaders import Leader, of_length, sinking_leader
from stillthread.core.tackle.lines import Line

# The trade's figures for the buoyant fly over weed: water [m], and counts [s] tried.
OVER_WEED_M = (0.9, 2.0)
OVER_WEED_COUNTS_S = (5, 10, 15, 20, 25)
WEEDY = ("weed-edge", "shoal", "margin")
SHORTEST_LEADER_M, LEADER_SHARE = 0.6, 0.45
SLOPE_FROM_M, STEPPED_BY_M = 3.0, 1.5
# What lives on the bottom: with much of it about, fish lying there feed. Common practice, figure ours.
BOTTOM_FOODS = ("chironomid-larva", "scud", "leech", "dragonfly-nymph", "snail")
BOTTOM_FOOD_SHARE = 0.3
CRAWLED, IGNORED = 1.25, 0.6


def crawl_weight(context: Context) -> float:
    """Return how much a fly crawled along the bed counts, by the school on fish lying there (by food by default)."""
    school = context.schools.bottom_fish
    if school == "by-food":
        feeding = sum(context.food.share[key] for key in BOTTOM_FOODS) >= BOTTOM_FOOD_SHARE
        return 1.0 if feeding else 0.8
    return CRAWLED if school == "crawl" else IGNORED


def _option(
    context: Context, way: Way, team: list[Match], counts: list[int], kind: str, crawled: bool = True
) -> Option | None:
    """The best of a few counts at one pace; None where every one of them lies on the bottom all the way in."""
    flies, leader, rig = tie(context, way, team)
    base = base_cast(context, way, leader.length_m)
    retrieve = RETRIEVES[kind]
    found = []
    for seconds in counts:
        cast = replace(base, countdown_s=float(seconds), pull=pull_of(retrieve))
        path = context.paths.screened(rig, cast)
        value = worth(
            context=context,
            method=way.method,
            reached=mean_reach(path, context.reach),
            retrieve=retrieve,
            depth_m=fished_mean_m(path),
            appealing=appeal(team, context),
        )
        weight = crawl_weight(context) if crawled else 1.0
        found.append(
            Option(
                team=team,
                flies=flies,
                leader=leader,
                retrieve=retrieve,
                rig=rig,
                cast=cast,
                path=path,
                worth=value * weight,
            )
        )
    return max(found, key=lambda one: one.worth) if found else None


def short_leader(context: Context) -> Callable[[int], Leader]:
    """Return how the leader behind a line on the bed is cut: the usual 7 ft, shorter where that would reach the surface."""
    longest = max(SHORTEST_LEADER_M, LEADER_SHARE * context.bed_m)
    usual = partial(sinking_leader, context.tippet_x)
    return lambda n: usual(n) if usual(n).length_m <= longest else of_length(usual(n), longest)


def over_bed(context: Context, line: Line) -> SetUp | RuledOut:
    """Return a buoyant fly on a short leader behind a sinking line that lies on the bed: slow, just above any bottom."""
    title = f"Buoyant fly on {line.title[0].lower()}{line.title[1:]}"
    about = "The line lies on the bottom and the fly hovers above it; each pull draws it down."
    way = Way(
        method="sinking",
        style="over-bed",
        line=line,
        title=title,
        leader=short_leader(context),
        most_flies=1,
        about=about,
    )
    if shallowest_useful_m(line) > context.bed_m:
        return RuledOut(title, "depth", why_not(context, line))
    ranked = context.flies_for(max(context.bed_m - 1.5, 0.3), ("buoyant",))
    if not ranked:
        return RuledOut(title, "kit", "No buoyant sunk fly in your box.")
    _, leader, rig = tie(context, way, ranked[:1])
    base = base_cast(context, way, leader.length_m)
    sink = context.paths.sink(rig, base, LONGEST_COUNT_S)
    on_bed = np.flatnonzero(sink.line_end_m >= base.bed[0][1] - 0.05)
    if len(on_bed) == 0:
        return RuledOut(title, "depth", f"The line does not reach the bottom within {LONGEST_COUNT_S} s.")
    seconds = int(np.ceil(sink.point.t_s[on_bed[0]] / COUNT_STEP_S) * COUNT_STEP_S)
    still = context.schools.moving == "static" or (context.very_cold and context.allows("static"))
    kind = "static" if still else "slow-hand-twist"
    option = _option(context=context, way=way, team=ranked[:1], counts=[seconds], kind=kind)
    return set_up_from(context, way, option) if option else RuledOut(title, "depth", why_not(context, line))


def over_weed(context: Context, line: Line) -> SetUp | RuledOut:
    """Return a buoyant fly on an intermediate over weed in 0.9 to 2 m of water, its foam keeping it off the tops."""
    title = f"Buoyant fly over the weed, {line.title[0].lower()}{line.title[1:]}"
    about = (
        "Fast hand twists with one-second stops make it dive and bob over the weed. Foam eyes get torn: carry spares."
    )
    leader = leader_for(context, "intermediate")
    way = Way(
        method="intermediate", style="over-weed", line=line, title=title, leader=leader, most_flies=1, about=about
    )
    low, high = OVER_WEED_M
    if not low <= context.bed_m <= high or context.belief.place.kind not in WEEDY:
        return RuledOut(title, "depth", f"It is for weed in {low:g} to {high:g} m of water.")
    if not context.allows("hand-twist"):
        return RuledOut(title, "kit", "You fish static flies only.")
    ranked = context.flies_for(0.5, ("buoyant",))
    if not ranked:
        return RuledOut(title, "kit", "No buoyant sunk fly in your box.")
    option = _option(
        context=context, way=way, team=ranked[:1], counts=list(OVER_WEED_COUNTS_S), kind="hand-twist", crawled=False
    )
    return set_up_from(context, way, option) if option else RuledOut(title, "depth", why_not(context, line))


def slope_bed(context: Context) -> tuple[tuple[float, float], ...] | None:
    """Return the bed under a cast past a drop-off [(x, depth) m]: the place's shallow end near, its deep end far out."""
    place = context.belief.place
    deep, near = binned_bed_m(context.bed_m), max(place.depth_min_m, 1.0)
    if place.kind != "drop-off" or deep < SLOPE_FROM_M or deep - near < STEPPED_BY_M:
        return None
    far = context.cast_m
    return ((0.0, near), (0.25 * far, near), (0.6 * far, deep), (far + 5.0, deep))


def up_slope(context: Context, line: Line) -> SetUp | RuledOut:
    """Return a fly cast past the drop-off, let down to the bed and drawn up along the slope, or why not."""
    title = f"Up the slope, {line.title[0].lower()}{line.title[1:]}"
    about = "Cast past the drop-off, let it go down, and draw it up along the bed: it stays with cruisers on the ledge."
    bed = slope_bed(context)
    if bed is None:
        return RuledOut(title, "depth", "There is no drop-off here to draw a fly up along.")
    if not context.allows("hand-twist"):
        return RuledOut(title, "kit", "You fish static flies only.")
    if context.very_cold:
        return RuledOut(title, "depth", "In water this cold they hardly follow a moving fly.")
    ranked = context.flies_for(max(context.bed_m - 0.5, 0.3), ("buoyant",))
    if not ranked:
        return RuledOut(title, "kit", "No buoyant sunk fly in your box.")
    way = Way(
        method="sinking",
        style="up-slope",
        line=line,
        title=title,
        leader=lambda n: sinking_leader(context.tippet_x, n),
        most_flies=1,
        bed=bed,
        about=about,
    )
    _, leader, rig = tie(context, way, ranked[:1])
    sink = context.paths.sink(rig, base_cast(context, way, leader.length_m), LONGEST_COUNT_S)
    down = np.flatnonzero(sink.line_end_m >= bed[-1][1] - 0.3)
    if len(down) == 0:
        return RuledOut(title, "depth", f"The line does not get down the slope within {LONGEST_COUNT_S} s.")
    seconds = int(np.ceil(sink.point.t_s[down[0]] / COUNT_STEP_S) * COUNT_STEP_S)
    option = _option(context=context, way=way, team=ranked[:1], counts=[seconds], kind="slow-hand-twist")
    return set_up_from(context, way, option) if option else RuledOut(title, "depth", why_not(context, line))
