"""The plan: check the input, believe, try every method, rank what is left."""

from __future__ import annotations

from collections.abc import Iterable
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass, replace
from functools import partial

from stillthread.core.belief.belief import Brought, PlaceBelief, believe, factor_effects
from stillthread.core.belief.reach import Reach
from stillthread.core.day.context import Context
from stillthread.core.day.given import AFLOAT, PlanInput, find_place
from stillthread.core.day.model import Reason, RuledOut
from stillthread.core.day.paths import IN_MEMORY, Paths
from stillthread.core.errors import InputError, Problem
from stillthread.core.evidence.likeness import liken
from stillthread.core.methods.afloat import settled_band
from stillthread.core.methods.all_ways import SIDE_BY_SIDE, try_all
from stillthread.core.methods.by_hand import hand_made_problems
from stillthread.core.methods.counted import with_band
from stillthread.core.methods.dry import dry
from stillthread.core.noted.reading import checked_reading, light_on
from stillthread.core.plan.cautions import plan_cautions, set_up_cautions
from stillthread.core.plan.changed import as_before, what_changed, what_moved_it
from stillthread.core.plan.elsewhere import at_place, given_way, second_place, tried_there, with_elsewhere
from stillthread.core.plan.model import Plan
from stillthread.core.plan.next_steps import ladder, with_next_steps
from stillthread.core.plan.rank import (
    RIGGED_MIN,
    by_aim,
    calibrated,
    over_session,
    pair_of,
    pass_over,
    pick_different,
    rigging_min,
    with_cold_pair,
)
from stillthread.core.reading.means import food_on
from stillthread.core.setup.model import SetUp
from stillthread.core.setup.worth import AT_FOUND_M
from stillthread.core.sky.light import Light
from stillthread.core.trout.open_band import AVOIDED_MG_L
from stillthread.core.trout.temperature import WELFARE_LIMITS_C, Welfare, welfare
from stillthread.core.water.layers import find_thermocline
from stillthread.core.water.profile import oxygen_at, temperature_at

# How much warmer than the coolest water is still fished where all of it is too warm [°C]. Our figure.
NEAR_COOLEST_C = 0.7
MOST_OWN_REASONS = 3  # beside the three that moved the depth most
MOST_ELSEWHERE = 2  # ways laid out for the search at a place the plan's own do not suit


def check_input(given: PlanInput) -> None:
    """Raise InputError with every problem in the input: no places, an unknown place, no lines, a bad reading."""
    problems: list[Problem] = []
    if not given.water.places:
        problems.append(Problem("empty", "water.places", "This water has no place to fish yet.", "at least one place"))
    elif given.place is not None and find_place(given.water, given.place) is None:
        names = ", ".join(place.name for place in given.water.places)
        problems.append(Problem("unknown", "place", f"No place '{given.place}' on this water.", names))
    problems += hand_made_problems(given)
    if given.found_m is not None and not 0 <= given.found_m <= given.water.max_depth_m:
        accepted = f"0 to {given.water.max_depth_m:g} m"
        problems.append(Problem("depth_range", "found_m", "The depth found lies outside the water.", accepted))
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


def must_rest(given: PlanInput) -> Welfare | None:
    """Return the warmth that forbids fishing to return fish; None where it may be fished."""
    warmth = _warmth(given)
    stopped = warmth is not None and warmth.level == "stop" and given.rules.release == "catch-and-release"
    return warmth if stopped else None


def _choose_place(given: PlanInput, beliefs: tuple[PlaceBelief, ...]) -> PlaceBelief:
    if given.place is not None:
        return next(b for b in beliefs if b.place.name == given.place)
    return max(beliefs, key=lambda b: b.share)


def _unwanted(one: SetUp, context: Context) -> RuledOut | None:
    """Refused where the angler left the method out; what is put together by hand is wanted."""
    if one.by_hand is not None or one.method in context.angler.methods:
        return None
    return RuledOut(one.title, "kit", "You left this method out.")


def cool_depths(context: Context, warmth: Welfare | None) -> tuple[float, float] | None:
    """Return the warmest water [°C] that is still fished and where it begins [m], where the caution is to fish only the
    cool depths; None where it is not.

    The caution's own limit, or a little above the coolest water with oxygen where all of it is warmer.
    """
    if warmth is None or warmth.level not in ("caution", "stop"):
        return None
    profile, z = context.given.reading.profile, context.belief.depths_m
    t = temperature_at(profile, z)
    oxygen = oxygen_at(profile, z)
    open_ = t[oxygen >= AVOIDED_MG_L] if oxygen is not None and (oxygen >= AVOIDED_MG_L).any() else t
    caution = min(WELFARE_LIMITS_C[s][1] for s in context.given.water.species)
    limit = max(caution, float(open_.min()) + NEAR_COOLEST_C)
    return limit, float(z[t <= limit][0]) if (t <= limit).any() else float(z[-1])


def above_cool(one: SetUp, depth_m: float, context: Context, cool: tuple[float, float] | None) -> float | None:
    """Return how warm [°C] the water is at a depth [m] that a set-up may not be fished at in the heat; None where it may.

    By hand it is the angler's own.
    """
    water_c = context.water_c(depth_m)
    forbidden = cool is not None and one.by_hand is None and water_c is not None and water_c > cool[0]
    return water_c if forbidden else None


def too_warm(one: SetUp, context: Context, cool: tuple[float, float] | None) -> RuledOut | None:
    """Return why a set-up is not offered in the heat: it fishes above the cool depths. By hand it is the angler's own."""
    t = above_cool(one, one.target_m, context, cool)
    if cool is None or t is None:
        return None
    said = (
        f"It fishes at {one.target_m:.1f} m, in {t:.1f} °C: only the cool depths are fished, from {cool[1]:.1f} m down."
    )
    return RuledOut(one.title, "warmth", said)


@dataclass(frozen=True)
class _Spot:
    """A place set-ups are laid out for: the day as it has it, and where it is cool enough in the heat."""

    context: Context
    cool: tuple[float, float] | None

    def wanted(self, tried: Iterable[SetUp | RuledOut]) -> tuple[list[SetUp], list[RuledOut]]:
        """Of what was tried what may be shown, and what may not, with why."""
        found: list[SetUp] = []
        refused: list[RuledOut] = []
        for one in tried:
            no = one if isinstance(one, RuledOut) else _unwanted(one, self.context) or self.too_warm(one)
            if no is not None:
                refused.append(no)
            elif isinstance(one, SetUp):
                found.append(one)
        return found, refused

    def too_warm(self, one: SetUp) -> RuledOut | None:
        """Why a set-up is not offered in the heat here; None where it is."""
        return too_warm(one, self.context, self.cool)


def _choose(tried: list[SetUp], spot: _Spot, second: _Spot | None) -> tuple[list[SetUp], list[SetUp], list[RuledOut]]:
    """The set-ups to show, those made by hand, and what is passed over; `relative` is then against the best shown."""
    context = spot.context
    rated = [replace(s, relative=over_session(s, context.given.session_h), rigging_min=rigging_min(s)) for s in tried]
    own = [s for s in rated if s.by_hand is not None]
    others = [s for s in rated if s.by_hand is None]
    shown = with_cold_pair(by_aim(pick_different(others), context), others, context)
    weaker = pass_over(others, shown)
    if second is not None and shown:
        there, _ = second.wanted(tried_there(second.context, {s.line.key for s in shown}))
        both = with_elsewhere(shown, there, second.context.belief.share / context.belief.share, context.given.session_h)
        weaker += given_way(shown, both)
        shown = both
    top = max((s.relative for s in shown), default=0.0) or 1.0
    rods = context.angler.rods
    numbered = [
        replace(s, relative=s.relative / top, rod=n + 1, rigging_min=RIGGED_MIN)
        if rods > 1 and n < rods
        else replace(s, relative=s.relative / top)
        for n, s in enumerate(shown)
    ]
    return numbered, [replace(s, relative=s.relative / top) for s in own], weaker


def _weight_of(reason: Reason) -> int:
    """How soon a set-up's own reason is told: what a fish could be lost by before what is only how it works."""
    order = ("found-not", "landing", "fly", "count", "depth", "method", "wind", "line")
    return order.index(reason.factor) if reason.factor in order else len(order)


def not_found(one: SetUp, context: Context) -> tuple[Reason, ...]:
    """Return why a set-up does not fish the depth found today, where it does not."""
    found = context.given.found_m
    if found is None or one.low_m - AT_FOUND_M <= found <= one.high_m + AT_FOUND_M:
        return ()
    way = "deeper" if found > one.high_m else "higher"
    said = f"Fish were found at {found:g} m: this is as near as it comes with what can be fished here."
    if one.by_hand is not None:
        said = f"Fish were found at {found:g} m: as you set it, it does not fish there. Go {way}."
    return (Reason("found-not", said),)


def _told(one: SetUp, shown: list[SetUp], context: Context) -> SetUp:
    """A set-up with the belief's reasons, its cautions and what to do next."""
    own = sorted((*not_found(one, context), *one.reasons), key=_weight_of)
    return replace(
        with_next_steps(one, shown, context),
        reasons=(*context.depth_reasons(), *own[:MOST_OWN_REASONS]),
        cautions=set_up_cautions(one, context),
    )


def _rank(tried: list[SetUp], spot: _Spot, second: _Spot | None = None) -> tuple[tuple[SetUp, ...], list[RuledOut]]:
    """The set-ups shown, best first, hand-made ones after them, each with its numbers; and what was passed over."""
    context = spot.context

    def at(one: SetUp) -> _Spot:
        return second if second is not None and one.elsewhere else spot

    shown, own, weaker = _choose(tried, spot, second)
    with ThreadPoolExecutor(SIDE_BY_SIDE) as pool:
        banded = list(pool.map(lambda one: _numbers(one, at(one).context), [*shown, *own]))
    # The rough paths that chose may be a little off: what their own numbers put above the cool depths goes too.
    warm = [r for one in banded if (r := at(one).too_warm(one))]
    banded = [one for one in banded if at(one).too_warm(one) is None]
    full = calibrated(banded, context.log, context.given.session_h)
    offered = [one for one in full if one.by_hand is None]
    with ThreadPoolExecutor(SIDE_BY_SIDE) as pool:
        told = tuple(pool.map(lambda one: _told(one, offered, at(one).context), full))
    return told, weaker + warm


def ways_at(place: PlaceBelief, context: Context, shown: tuple[SetUp, ...]) -> tuple[SetUp, ...]:
    """Return what a search can try at another place with the lines of the set-ups shown: the best two that differ in method.

    Each with its numbers and its ladder, on the rod that carries it; nothing that rules, kit or heat forbid.
    """
    there = at_place(place, context)
    spot = _Spot(there, cool_depths(there, _warmth(context.given)))
    found, _ = spot.wanted(tried_there(there, {one.line.key for one in shown}))
    rods = {(one.style, one.line.key): one.rod for one in shown}
    with ThreadPoolExecutor(SIDE_BY_SIDE) as pool:
        full = pool.map(lambda one: _numbers(one, there), pick_different(found, MOST_ELSEWHERE))
    cool = [one for one in full if spot.too_warm(one) is None]
    return tuple(replace(s, rod=rods.get((s.style, s.line.key)), ladder=ladder(s, there)) for s in cool)


def _numbers(one: SetUp, context: Context) -> SetUp:
    return settled_band(one, context) if one.style in AFLOAT else with_band(one, context)


def _guessed(given: PlanInput, light: Light) -> tuple[str, ...]:
    found = list(light.guessed)
    if not given.reading.profile:
        found.append("temperature")
    if given.read_at is None or given.reading.water_depth_m is None:
        found.append("water depth")
    if given.water.latitude_deg is None:
        found.append("latitude")
    return tuple(found)


def day_context(given: PlanInput, paths: Paths = IN_MEMORY) -> tuple[Context, tuple[PlaceBelief, ...]]:
    """Return the day as the methods see it, and the belief for every place."""
    water, reading = given.water, given.reading
    light = light_on(water, reading, given.when)
    eaten = partial(
        food_on, water=water, reading=reading, when=given.when, samples=given.samples, seen_before=given.seen_before
    )
    food = eaten(sightings=given.sightings)
    log = liken(given.own_log, given.when.date(), reading.surface_c) if given.own_log else None
    brought = Brought(
        log=log,
        without=given.without,
        wind_shore=given.schools.wind_shore,
        found_m=given.found_m,
        learnt=given.angler.learnt,
    )
    # Rises count once: as fish at the top, not again as the food they rise to.
    besides = tuple(seen for seen in given.sightings if seen.rise is None)
    lying = eaten(sightings=besides)
    beliefs = believe(
        water=water,
        reading=reading,
        light=light,
        food=lying,
        sightings=given.sightings,
        when=given.when,
        chosen=given.read_at,
        brought=brought,
    )
    chosen = _choose_place(given, beliefs)
    return Context(
        given=given,
        light=light,
        food=food,
        belief=chosen,
        reach=Reach(chosen, light.secchi_m, light, given.angler.learnt.notice),
        log=log,
        paths=paths,
    ), beliefs


def make_plan(given: PlanInput, paths: Paths = IN_MEMORY) -> Plan:
    """Return the plan for a day: belief by place and depth, two to four set-ups that differ in method, and why.

    Deterministic for the same input; `paths` remembers the thread's answers from plan to plan. On catch-and-release water too warm to return fish no set-up is offered and the
    reason is given. Raises InputError where the input cannot be used.
    """
    check_input(given)
    made = _plan(given, paths)
    if given.compared_with is None:
        return made
    was = as_before(given, given.compared_with)
    before = _plan(was, paths)
    return replace(made, changed=what_changed(before, made), moved_by=what_moved_it((was, before), (given, made)))


def _plan(given: PlanInput, paths: Paths) -> Plan:
    context, beliefs = day_context(given, paths)
    warmth = _warmth(given)
    set_ups: tuple[SetUp, ...] = ()
    resting = must_rest(given)
    if resting is not None:
        ruled_out = [RuledOut("Every method", "warmth", resting.sentence)]
    else:
        spot = _Spot(context, cool_depths(context, warmth))
        wanted, ruled_out = spot.wanted(try_all(context))
        if not wanted and spot.cool is None and "dry" in context.angler.methods:
            last = dry(context, for_want=True)
            wanted = [last] if isinstance(last, SetUp) else []
        there = second_place(beliefs, context)
        second = None if there is None else _Spot(there, cool_depths(there, warmth))
        set_ups, weaker = _rank(wanted, spot, second)
        ruled_out += weaker
    sent = {context.belief.place.name, *(one.place for one in set_ups)}
    kinds = {one.place.kind for one in beliefs if one.place.name in sent}
    return Plan(
        light=context.light,
        food=context.food,
        thermocline=find_thermocline(given.reading.profile),
        welfare=warmth,
        beliefs=beliefs,
        chosen=context.belief,
        set_ups=set_ups,
        ruled_out=tuple(ruled_out),
        cautions=plan_cautions(given, warmth, kinds, context.light.sun_elevation_deg),
        guessed=_guessed(given, context.light),
        effects=factor_effects(beliefs, context.belief.place.name),
        pair=pair_of([s for s in set_ups if s.by_hand is None]),
    )
