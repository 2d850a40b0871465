"""What to do next: the ladder of depths to search, what to change for plucks, follows or nothing, and where to stand."""

from __future__ import annotations

from dataclasses import replace

from stillthread.core.day.context import BED_CLEARANCE_M, Context
from stillthread.core.day.given import AFLOAT
from stillthread.core.flies.choose import Match
from stillthread.core.methods.counted import COUNT_STEP_S
from stillthread.core.methods.model import ChangeOrder, Rung, SetUp
from stillthread.core.methods.retrieves import RETRIEVES
from stillthread.core.sky.light import ripple_class

FLOAT_STEP_M = 0.3  # trade: change a float by 30 cm
MOST_RUNGS = 7
LOW_SUN_LIGHT = 0.05
BLANK_MIN = 20


def _float_rungs(one: SetUp, context: Context) -> list[Rung]:
    hang = one.float_hang_m or 0.0
    lowest = context.bed_m - 0.15
    if one.float_kind == "fixed":
        lowest = min(lowest, context.landing_m)  # deeper it could not be landed
    steps = [hang + k * FLOAT_STEP_M for k in range(-3, 4)]
    return [Rung(None, round(d, 2), round(d, 2)) for d in steps if 0.3 <= d <= lowest + 1e-6]


def _count_rungs(one: SetUp, context: Context) -> list[Rung]:
    limit = context.bed_m - BED_CLEARANCE_M
    at = {int(row.t_s): row.depth_m for row in one.sink_table if row.depth_m is not None}
    rungs = []
    for seconds in range(0, max(at, default=0) + 1, COUNT_STEP_S):
        depth = at.get(seconds)
        if depth is not None and depth <= limit:
            rungs.append(Rung(seconds, None, round(depth, 2)))
    return rungs


def ladder(one: SetUp, context: Context) -> tuple[Rung, ...]:
    """Return the counts or hangs to search with, in the order of the angler's school, at most seven.

    Likeliest first starts at the set-up's own and widens both ways; top-down and bottom-up run through in order.
    """
    hung = one.float_hang_m is not None
    rungs = _float_rungs(one, context) if hung else _count_rungs(one, context) if one.count_s is not None else []
    if not rungs:
        return ()
    start = min(
        range(len(rungs)),
        key=lambda i: (
            abs((rungs[i].float_hang_m or 0) - (one.float_hang_m or 0))
            if hung
            else abs((rungs[i].count_s or 0) - (one.count_s or 0))
        ),
    )
    near = sorted(range(len(rungs)), key=lambda i: (abs(i - start), i))[:MOST_RUNGS]
    if context.schools.search == "top-down":
        near = sorted(near)
    elif context.schools.search == "bottom-up":
        near = sorted(near, reverse=True)
    return tuple(rungs[i] for i in near)


def _others(one: SetUp, context: Context) -> list[Match]:
    """Flies that could take the point's place: same weight class or lighter, not on already, best first."""
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
    others = _others(one, context)
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
    order = sorted((r for r in RETRIEVES.values() if r.kind != "drift"), key=lambda r: r.speed_m_s)
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
    rod = f" It stands rigged on rod {others[0].rod}." if others[0].rod else ""
    return [f"{BLANK_MIN} blank minutes at two depths: {others[0].title}.{rod}", "Then move: cast over fresh water."]


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
