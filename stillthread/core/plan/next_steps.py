"""What to do next: the ladder of depths to search, what to change for plucks, follows or nothing, and where to stand."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

from stillthread.core.day.context import Context
from stillthread.core.day.given import AFLOAT
from stillthread.core.day.paths import fished_mean_m, pull_of
from stillthread.core.flies.choose import Match
from stillthread.core.food.catalogue import BY_KEY
from stillthread.core.methods.counted import COUNT_STEP_S, LIFT_OFFS_S, LONGEST_COUNT_S, clear_of_the_bed, fished_for_s
from stillthread.core.methods.hung import CLEAR_OF_BED_M, TOP_FLOAT_M
from stillthread.core.setup.model import ChangeOrder, Rung, SetUp
from stillthread.core.setup.retrieves import RETRIEVES
from stillthread.core.sky.light import ripple_class

FLOAT_STEP_M = 0.3  # trade: change a float by 30 cm
LEAST_RUNG_M = 0.15  # a step that moves the fly by less is none. Our figure.
MOST_STEPS = 5  # of five seconds, either way
ON_THE_BED = ("over-bed", "over-weed", "up-slope")
MOST_RUNGS = 7
LOW_SUN_LIGHT = 0.05
BLANK_MIN = 20
FOR_SOME = ("sink-pull", "quarter-swing", "lift-drop")  # paces that one turns to only for the food that asks for them


def float_rungs(one: SetUp, bed_m: float, landing_m: float, each_way: int = 3) -> list[Rung]:
    """Return the depths to hang a float at, 30 cm apart, so many each way of its own: clear of the bed [m], none that could
    not be landed [m], and none on the fish's heads unless its own is.
    """
    hang = one.float_hang_m or 0.0
    lowest = bed_m - CLEAR_OF_BED_M
    if one.float_kind == "fixed":
        lowest = min(lowest, landing_m)
    highest = min(hang, TOP_FLOAT_M)
    steps = [hang + k * FLOAT_STEP_M for k in range(-each_way, each_way + 1)]
    return [Rung(None, round(d, 2), round(d, 2)) for d in steps if highest - 1e-6 <= d <= lowest + 1e-6]


def fished_with(one: SetUp, context: Context, **other: Any) -> Rung | None:
    """Return the rung of a set-up fished with another count or pull, lifted off clear of the bed; None where it cannot be."""
    if one.rig is None or one.cast is None or one.estimate_m is None or one.runs_m is None:
        return None
    cast = replace(one.cast, **other)
    own = context.paths.screened(one.rig, one.cast)
    if one.style in ON_THE_BED:
        kept = cast, context.paths.screened(one.rig, cast)
    else:
        bed_m = max(depth for _, depth in cast.bed)
        found = clear_of_the_bed(
            context=context, rig=one.rig, cast=cast, bed_m=bed_m, longest_s=max(fished_for_s(one.cast), LIFT_OFFS_S[-1])
        )
        if found is None:
            return None
        kept = found
    lifted, path = kept
    # Rough paths are off by some 10 cm, all of one set-up by the same: only their difference is taken.
    depth = one.estimate_m + fished_mean_m(path) - fished_mean_m(own)
    after_s, usual_s = fished_for_s(lifted), fished_for_s(one.cast)
    return Rung(
        count_s=int(cast.countdown_s),
        float_hang_m=None,
        depth_m=round(min(max(depth, 0.0), context.bed_m), 2),
        at_count_m=round(min(path.point.at(cast.countdown_s), context.bed_m), 2),
        lift_off_s=after_s if after_s < usual_s else None,
    )


def _count_rungs(one: SetUp, context: Context) -> list[Rung]:
    """The counts around a set-up's own, by the depth they fish; what changes nothing is no rung."""
    own_s = one.count_s or 0
    own = fished_with(one, context)
    if own is None:
        return []
    rungs = [own]
    for way in (-1, 1):
        for step in range(1, MOST_STEPS + 1):
            seconds = own_s + way * step * COUNT_STEP_S
            rung = fished_with(one, context, countdown_s=float(seconds)) if 0 <= seconds <= LONGEST_COUNT_S else None
            # A longer count that must be lifted off so much sooner that it fishes higher is no step down.
            if rung is not None and min(way * (rung.depth_m - other.depth_m) for other in rungs) >= LEAST_RUNG_M:
                rungs.append(rung)
    return sorted(rungs, key=lambda rung: rung.depth_m)


def _pace_rungs(one: SetUp, context: Context) -> list[Rung]:
    """Where counts change nothing, as with a buoyant fly: the paces beside its own, by the depth they fish."""
    own = fished_with(one, context)
    rungs = [] if own is None else [replace(own, pace=one.retrieve.key)]
    for key in next_paces(one, context):
        rung = fished_with(one, context, pull=pull_of(RETRIEVES[key])) if rungs else None
        if rung is not None and min(abs(rung.depth_m - other.depth_m) for other in rungs) >= LEAST_RUNG_M:
            rungs.append(replace(rung, pace=key))
    return sorted(rungs, key=lambda rung: rung.depth_m) if len(rungs) > 1 else []


def ladder(one: SetUp, context: Context) -> tuple[Rung, ...]:
    """Return the counts or hangs to search with, in the order of the angler's school, at most seven.

    Likeliest first starts at the set-up's own and widens both ways; top-down and bottom-up run through in order.
    """
    rungs: list[Rung] = []
    if one.float_hang_m is not None:
        rungs = float_rungs(one, context.bed_m, context.landing_m)
    elif one.count_s is not None:
        rungs = _count_rungs(one, context)
        rungs = rungs if len(rungs) > 1 else _pace_rungs(one, context) or rungs
    if not rungs:
        return ()
    own_m = one.target_m if one.float_hang_m is not None or one.estimate_m is None else one.estimate_m
    start = min(range(len(rungs)), key=lambda i: abs(rungs[i].depth_m - own_m))
    near = sorted(range(len(rungs)), key=lambda i: (abs(i - start), i))[:MOST_RUNGS]
    if context.schools.search == "top-down":
        near = sorted(near)
    elif context.schools.search == "bottom-up":
        near = sorted(near, reverse=True)
    return tuple(rungs[i] for i in near)


def other_points(one: SetUp, context: Context) -> list[Match]:
    """Return the flies that could take the place of the point: of its weight class, not on already, best first."""
    on = {f.fly.key for f in one.flies}
    surface = one.method == "dry"
    point = one.flies[-1].fly
    weights = ("buoyant", "unweighted") if surface else (point.weight,)
    found = context.flies_for(one.target_m, weights, surface=surface, still=one.retrieve.kind == "static")
    return [m for m in found if m.fly.key not in on]


def _smaller(one: SetUp) -> list[str]:
    """The same fly a size smaller, where it is carried."""
    point = one.flies[-1]
    smaller = [hook for hook in point.fly.hooks if hook > point.hook]
    return [f"{point.fly.name}: a size smaller, {min(smaller)}."] if smaller else []


def _other_flies(one: SetUp, context: Context) -> list[tuple[str, str]]:
    """Other flies for the point in order, as (name, why): a duller one, another colour, another food."""
    point = one.flies[-1]
    others = other_points(one, context)
    prey = set(point.fly.prey)
    duller = next((m for m in others if m.fly.tone in ("natural", "dark") and prey & set(m.fly.prey)), None)
    colour = next(
        (m for m in others if m.fly.tone != point.fly.tone and prey & set(m.fly.prey) and m is not duller), None
    )
    food = next((m for m in others if not prey & set(m.fly.prey)), None)
    told = ((duller, "duller"), (colour, "another colour"), (food, "another food"))
    return [(match.fly.name, words) for match, words in told if match is not None]


def next_paces(one: SetUp, context: Context) -> tuple[str, ...]:
    """Return the retrieves to change to by key: the next faster, then the next slower, as the angler's school allows.

    Trade practice: vary the pace before the fly; bumps have turned into hook-ups both by speeding up and by stopping.
    """
    if one.method == "dry" or one.style in AFLOAT or one.retrieve.key not in RETRIEVES:
        return ()
    asked = {pace for key in one.flies[-1].fly.prey for pace in BY_KEY[key].paces} | {one.retrieve.key}
    able = [r for r in RETRIEVES.values() if r.kind != "drift" and (r.key not in FOR_SOME or r.key in asked)]
    order = sorted(able, key=lambda r: r.speed_m_s)
    at = order.index(RETRIEVES[one.retrieve.key])
    near = [*order[at + 1 : at + 2], *reversed(order[max(at - 1, 0) : at])]
    return tuple(r.key for r in near if context.allows(r.kind))


def _pace_steps(one: SetUp) -> list[str]:
    if one.method == "dry":
        return ["Give it a twitch; then leave it longer."]
    if one.retrieve.kind == "static":
        return ["Lift the rig 15 cm and let it down; then a slow hand twist."]
    return ["Speed up by half; then stop dead for a few seconds."]


def _depth_step(one: SetUp) -> str:
    if one.float_hang_m is not None:
        return "Move the float 30 cm: the ladder says which way first. About ten minutes each."
    if one.method == "dry":
        return "Go under the film: an emerger, then a nymph 30 cm down."
    if one.count_s is None:
        return "Let out or take in half a metre of line."
    return "Change the count by 5 s a cast: the ladder says which way first."


def _next_line(one: SetUp, shown: list[SetUp], context: Context) -> list[str]:
    """The set-up to go to when this one stays blank, by the school on which line next."""
    others = [s for s in shown if s.key != one.key]
    if not others:
        return ["Move: cast over fresh water."]
    school = context.schools.line_ladder
    low = context.light.surface < LOW_SUN_LIGHT
    order = {"sink-tip": 0, "dry": 1, "nymphs": 2, "intermediate": 3, "float": 4, "sinking": 5}
    if school == "tip-first":
        others.sort(key=lambda s: order[s.method])
    elif school == "deep-first":
        others.sort(key=lambda s: -s.target_m)
    elif school == "dries-at-dawn" and low:
        others.sort(key=lambda s: s.target_m)
    here, there = ([s for s in others if (s.place == one.place) is same] for same in (True, False))
    follow = (here or there)[0]
    rod = f" It stands rigged on rod {follow.rod}." if follow.rod else ""
    way = follow.title if follow.place == one.place else f"{follow.title} at {follow.place}"
    move = (
        f"Then move to {there[0].place}: {there[0].title}." if here and there else "Then move: cast over fresh water."
    )
    return [f"{BLANK_MIN} blank minutes at two depths: {way}.{rod}", move]


def change_order(one: SetUp, shown: list[SetUp], context: Context) -> ChangeOrder:
    """Return what to change, one thing at a time, for plucks, for follows and refusals, and for nothing.

    Trade practice: plucks keep the depth and change pace, then fly; follows mean fly or pace is wrong; nothing at all
    means depth, then pace, then fly, then method, then place. The school on what to change first turns that round.
    """
    others = _other_flies(one, context)
    flies = _smaller(one) + [f"{name}: {words}." for name, words in others]
    pace, depth = _pace_steps(one), [_depth_step(one)]
    school = context.schools.change_first
    plucks = depth + pace + flies if school == "depth" else flies + pace if school == "fly" else pace + flies
    if school != "depth":
        plucks = ["Keep the depth.", *plucks]
    nothing = (flies[:1] + depth + pace if school == "fly" else depth + pace + flies[:1]) + _next_line(
        one, shown, context
    )
    follows = ("Keep the place.", *flies[:2], *pace, *flies[2:])
    return ChangeOrder(
        plucks=tuple(plucks),
        follows=follows,
        nothing=tuple(nothing),
        next_flies=tuple(others),
        next_paces=next_paces(one, context),
    )


def stance(one: SetUp, context: Context) -> str:
    """Return how to place boat or feet for a set-up: drift or anchor by school, across the wind, back in the shallows."""
    words = []
    school = context.schools.boat
    if context.angler.afloat:
        anchor = school == "anchor" or (school == "by-method" and (one.method == "float" or one.style == "dangle"))
        if one.style == "drifted":
            words.append("Let the boat drift broadside, a drogue out if it runs.")
        else:
            words.append("Anchor: it holds the depth." if anchor else "Drift broadside to search.")
    elif context.belief.place.kind == "margin" or context.bed_m < 2.5:
        words.append("Stand well back, fish short, then lengthen.")
    if one.style in AFLOAT:
        return " ".join(words)
    calm = ripple_class(context.given.reading.wind_m_s) == "calm"
    if not calm and context.given.reading.wind_m_s is not None:
        words.append("Cast across the wind, not straight down it.")
    return " ".join(words) or "Stand still and fan the casts, 1 to 1.5 m apart."


def with_next_steps(one: SetUp, shown: list[SetUp], context: Context) -> SetUp:
    """Return a set-up with its ladder, change orders and stance filled in."""
    return replace(
        one, ladder=ladder(one, context), changes=change_order(one, shown, context), stance=stance(one, context)
    )
