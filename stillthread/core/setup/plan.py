"""The plan: check the input, believe, try every method, rank what is left."""

from __future__ import annotations

from collections.abc import Callable
from concurrent.futures import ThreadPoolExecutor
from dataclasses import replace
from functools import partial

from stillthread.core.errors import InputError, Problem
from stillthread.core.setup.cautions import plan_cautions, set_up_cautions
from stillthread.core.setup.context import Context
from stillthread.core.setup.dry import dry
from stillthread.core.setup.floated import float_rig
from stillthread.core.setup.model import Plan, PlanInput, Reason, RuledOut, SetUp, find_place
from stillthread.core.setup.score import Reach
from stillthread.core.setup.sunk import buoyant_line, counted_line, shallowest_useful_m, with_band
from stillthread.core.trout.belief import PlaceBelief, believe
from stillthread.core.trout.temperature import Welfare, welfare
from stillthread.core.trout.water_means import food_on
from stillthread.core.water.layers import find_thermocline
from stillthread.core.water.reading import checked_reading, light_on

Attempt = Callable[[], SetUp | RuledOut]

MOST_SET_UPS = 4
SIDE_BY_SIDE = 2
WORTH_SHOWING = 0.15


def check_input(given: PlanInput) -> None:
    """Raise InputError with every problem in the input: no places, an unknown place, no lines, a bad reading."""
    problems: list[Problem] = []
    if not given.water.places:
        problems.append(Problem("empty", "water.places", "This water has no place to fish yet.", "at least one place"))
    elif given.place is not None and find_place(given.water, given.place) is None:
        names = ", ".join(place.name for place in given.water.places)
        problems.append(Problem("unknown", "place", f"No place '{given.place}' on this water.", names))
    if not given.lines:
        problems.append(Problem("empty", "tackle.lines", "No line in the kit.", "at least one fly line"))
    if not given.flies:
        problems.append(Problem("empty", "flies", "No fly in the box.", "at least one fly"))
    try:
        checked_reading(given.reading, given.water.max_depth_m)
    except InputError as error:
        problems += error.problems
    if problems:
        raise InputError(problems)


def _warmth(given: PlanInput) -> Welfare | None:
    """Welfare by the warmest water read; None without temperatures."""
    if not given.reading.profile:
        return None
    warmest = max(point.temperature_c for point in given.reading.profile)
    return welfare(warmest, given.water.species, given.rules.stop_above_c)


def _choose_place(given: PlanInput, beliefs: tuple[PlaceBelief, ...]) -> PlaceBelief:
    if given.place is not None:
        return next(b for b in beliefs if b.place.name == given.place)
    return max(beliefs, key=lambda b: b.share)


def _sunk_lines(context: Context) -> list[Attempt]:
    """Tip, hover, intermediate and full-sinking lines, or the rule against them."""
    tried: list[Attempt] = []
    allowed = context.rules.sinking_lines_allowed is not False
    for family in ("sink-tip", "hover", "intermediate", "sinking"):
        method = "intermediate" if family == "hover" else family
        for line in context.lines_of(family):
            if allowed:
                tried.append(partial(counted_line, context, method, line))
            else:
                refused = RuledOut(line.title, "rule", "The rules you noted do not allow sinking lines.")
                tried.append(partial(_same, refused))
    fast = context.lines_of("sinking")
    if fast and allowed and any(fly.buoyant and not fly.surface and fly.stock != 0 for fly in context.given.flies):
        fit = [line for line in fast if shallowest_useful_m(line) <= context.bed_m]
        tried.append(partial(buoyant_line, context, (fit or fast)[-1]))
    return tried


def _same(one: RuledOut) -> RuledOut:
    return one


def _try_all(context: Context) -> list[SetUp | RuledOut]:
    """Every method's best or its refusal, in a fixed order; tried side by side, since the thread runs without the lock."""
    tried: list[Attempt] = [partial(float_rig, context), partial(dry, context)]
    floating = context.lines_of("floating")
    if floating:
        tried.append(partial(counted_line, context, "nymphs", floating[0]))
    else:
        tried.append(partial(_same, RuledOut("Slow nymphs", "kit", "No floating line in your kit.")))
    with ThreadPoolExecutor(SIDE_BY_SIDE) as pool:
        return list(pool.map(_call, tried + _sunk_lines(context)))


def _call(attempt: Attempt) -> SetUp | RuledOut:
    return attempt()


def _rank(tried: list[SetUp], context: Context) -> tuple[tuple[SetUp, ...], list[RuledOut]]:
    """Best of each method, at most four, rates relative to the best; the rest said to be weaker."""
    best: dict[str, SetUp] = {}
    weaker: list[RuledOut] = []
    for one in sorted(tried, key=lambda s: -s.relative):
        if one.method in best:
            other = best[one.method]
            weaker.append(RuledOut(one.title, "depth", f"{other.title} puts the fly better in the likely band today."))
        else:
            best[one.method] = one
    ranked = list(best.values())
    top = ranked[0].relative if ranked and ranked[0].relative > 0 else 1.0
    shown = [s for i, s in enumerate(ranked[:MOST_SET_UPS]) if i < 2 or s.relative >= WORTH_SHOWING * top]
    for one in ranked[len(shown) :]:
        weaker.append(RuledOut(one.title, "depth", "Meets too few fish at the likely depths today."))
    reasons = context.depth_reasons()
    low, high = context.band_m
    lead = Reason("belief", f"Half the chance lies between {low:.1f} and {high:.1f} m at {context.belief.place.name}.")
    full = tuple(
        replace(
            s,
            relative=s.relative / top,
            reasons=(lead, *s.reasons, *reasons),
            cautions=set_up_cautions(s, context.given.reading, context.bed_m),
        )
        for s in _banded(shown, context.bed_m)
    )
    return full, weaker


def _banded(shown: list[SetUp], bed_m: float) -> list[SetUp]:
    with ThreadPoolExecutor(SIDE_BY_SIDE) as pool:
        return list(pool.map(lambda one: with_band(one, bed_m), shown))


def make_plan(given: PlanInput) -> Plan:
    """Return the plan for a day: belief by place and depth, two to four set-ups that differ in method, and why.

    Deterministic for the same input. On catch-and-release water too warm to return fish no set-up is offered and the
    reason is given. Raises InputError where the input cannot be used.
    """
    check_input(given)
    water, reading = given.water, given.reading
    light = light_on(water, reading, given.when)
    food = food_on(water, reading, given.when, given.sightings, given.samples)
    beliefs = believe(water, reading, light, food, given.sightings, given.when, given.place)
    chosen = _choose_place(given, beliefs)
    warmth = _warmth(given)
    context = Context(given, light, food, chosen, Reach(chosen, light.secchi_m))
    tried = _try_all(context)
    ruled_out = [one for one in tried if isinstance(one, RuledOut)]
    set_ups, weaker = _rank([one for one in tried if isinstance(one, SetUp)], context)
    if warmth is not None and warmth.level == "stop" and given.rules.release == "catch-and-release":
        ruled_out = [RuledOut("Every method", "warmth", warmth.sentence)]
        set_ups, weaker = (), []
    guessed = list(light.guessed)
    if not reading.profile:
        guessed.append("temperature")
    if given.place is None or reading.water_depth_m is None:
        guessed.append("water depth")
    if water.latitude_deg is None:
        guessed.append("latitude")
    return Plan(
        light,
        food,
        find_thermocline(reading.profile),
        warmth,
        beliefs,
        chosen,
        set_ups,
        (*ruled_out, *weaker),
        plan_cautions(given, warmth),
        tuple(guessed),
    )
