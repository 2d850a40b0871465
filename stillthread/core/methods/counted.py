"""Lines that are counted down: every count and pace of a way to fish them, tried on the thread; the best, with its numbers."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, replace

import numpy as np

from stillthread.core.casts.cast import Cast, level_bed
from stillthread.core.casts.tables import clock_table, sinking_cast
from stillthread.core.casts.track import CastResult
from stillthread.core.day.context import BED_CLEARANCE_M, Context
from stillthread.core.day.model import Reason, Retrieve, RuledOut
from stillthread.core.day.paths import (
    FISHED_FOR_S,
    binned_bed_m,
    binned_c,
    fished_mean_m,
    mean_reach,
    pull_of,
    rig_of,
    tied,
    traces,
)
from stillthread.core.flies.choose import Match
from stillthread.core.flies.placed import PlacedFly
from stillthread.core.flies.team import place_flies
from stillthread.core.setup.model import SetUp
from stillthread.core.setup.retrieves import RETRIEVES, choose_retrieve
from stillthread.core.setup.worth import UNDER_RIPPLE, appeal, shows, swung, worth
from stillthread.core.tackle.leaders import Leader
from stillthread.core.tackle.lines import Line
from stillthread.core.tackle.rig import Rig
from stillthread.core.thread.line_weight import label_doubt
from stillthread.core.trout.temperature import SLUGGISH_BELOW_C

LONGEST_COUNT_S = 90
COUNT_STEP_S = 5  # the trade's ladder
MOST_COUNTS = 5
SCREEN_CLEARANCE_M = 0.2  # the rough path may be this far off
PACES_TRIED = 2
# How long a cast is fished before it is lifted off [s], where it would else end on the bed. Common practice, ours.
LIFT_OFFS_S = (FISHED_FOR_S, 75.0, 40.0, 20.0)
PACE_SHARE = 0.9  # each step away from the pace the food asks for: common practice, figure ours
CLOCK_BEYOND_S = 15
FISHED_TIME = (0.1, 0.9)  # the band holds the fly for eight tenths of the fished time, by both its edges
LONGEST_CLOCK_S = 180
FASTER = ("slow-hand-twist", "hand-twist", "strip-pause", "long-pull")
WATCH_LINE = (
    "Takes on the drop, on the first pull and on the hang. Hang the flies for several seconds before lifting off."
)
SIMULATED = "Simulated: the band is where the fly may be with an untimed line. Time a metre of it to narrow it."
SIMULATED_FLOATING = "Simulated: the band is where the fly may be, by the doubt of its weight and of drag."
SIMULATED_TIMED = "Simulated with the line as you timed it."


@dataclass(frozen=True)
class Way:
    """A way to fish a counted line: method, style, line, title, how its leader is cut, the flies it may carry, its bed."""

    method: str
    style: str
    line: Line
    title: str
    leader: Callable[[int], Leader]
    most_flies: int = 2
    bed: tuple[tuple[float, float], ...] | None = None
    about: str = ""


@dataclass(frozen=True)
class Option:
    """One way to fish a line: the team, its flies placed, leader, rig, cast, its path, and what it is worth."""

    team: list[Match]
    flies: tuple[PlacedFly, ...]
    leader: Leader
    retrieve: Retrieve
    rig: Rig
    cast: Cast
    path: CastResult
    worth: float


def shallowest_useful_m(line: Line) -> float:
    """Return the shallowest mean depth [m] a line is any use at; above it the retrieve runs below the fish.

    Trade table: intermediate from 0.6 m, type 3 from 1.5 m, type 5 from 3 m, type 7 from 5 m; linear between.
    """
    if line.family == "floating":
        return 0.05
    if line.family in ("hover", "sink-tip"):
        return 0.2
    return float(np.interp(line.label_ips, [1.5, 3.0, 5.0, 7.0], [0.6, 1.5, 3.0, 5.0]))


def flies_allowed(context: Context, way: Way, having: int) -> int:
    """Return how many flies a way carries: the rule, the way's most, what the box has, and what can still be landed.

    A fish on the point hangs below the tip ring by the distance to the top dropper; rod, arm and net must reach it.
    """
    count = min(context.team_size(way.most_flies), having)
    while count > 1:
        at = way.leader(count).flies_at_m
        if at[-1] - at[0] <= context.landing_m:
            break
        count -= 1
    return count


def paces_for(context: Context, way: Way, best: Match) -> list[Retrieve]:
    """Return the pace the food asks for, then faster ones that keep a fly off the bottom; cold water stays slow.

    Below 4 °C by school: static, or moving for a big flashy fly. What the angler's school refuses is left out.
    """
    water_c = context.water_c(sum(context.band_m) / 2)
    if way.style == "flashy":
        return [one for one in (RETRIEVES["strip-pause"],) if context.allows(one.kind)]
    first = choose_retrieve(best.prey, water_c, context.stocked)
    if water_c is not None and water_c < SLUGGISH_BELOW_C and context.schools.very_cold == "flashy":
        first = RETRIEVES["strip-pause"]
    if context.schools.moving == "static":
        return [RETRIEVES["static"]]
    if first.kind == "static" and water_c is not None and water_c < SLUGGISH_BELOW_C:
        return [first]
    if way.method == "nymphs" and first.kind != "static":
        first = RETRIEVES["slow-hand-twist"]
    # Cold is not one pace: slow is preferred there (see `pace_weight`), not the only one.
    found = [first, *(RETRIEVES[k] for k in FASTER if RETRIEVES[k].speed_m_s > first.speed_m_s)]
    if way.method == "nymphs" and context.allows("static"):
        found.append(RETRIEVES["static"])  # left to hang from the floating line, and lifted off in time
    if not context.allows(found[0].kind):  # a moving school in water that asks for stillness: as slow as moving goes
        return [RETRIEVES["slow-hand-twist"]]
    return found


def counts_for(context: Context, line: Line, sink: CastResult, deepest_m: float) -> list[int]:
    """Return counts on the 5 s ladder that bring the point fly to worthwhile depths clear of the bed, at most five."""
    top = max(0.0, context.worth_fishing_m[0] - 1.0)
    limit = deepest_m - BED_CLEARANCE_M
    steps = list(range(0, LONGEST_COUNT_S + 1, COUNT_STEP_S))
    fit = [s for s in steps if sink.point.at(s) <= limit and (sink.point.at(s) >= top or s == steps[-1])]
    clear = [
        s for s in fit if line.family == "floating" or float(np.interp(s, sink.point.t_s, sink.line_end_m)) <= limit
    ]
    if len(clear) <= MOST_COUNTS:
        return clear
    return [clear[round(k)] for k in np.linspace(0, len(clear) - 1, MOST_COUNTS)]


def base_cast(context: Context, way: Way, leader_m: float) -> Cast:
    """Return the cast a way is tried with, its count and pace still open."""
    return Cast(
        cast_m=max(min(context.cast_m, way.line.length_m), leader_m + 1.0),
        bed=way.bed or level_bed(binned_bed_m(context.bed_m)),
        temperature_c=binned_c(context.water_c(min(2.0, context.bed_m))),
        most_s=FISHED_FOR_S,
    )


def tie(context: Context, way: Way, team: list[Match]) -> tuple[tuple[PlacedFly, ...], Leader, Rig]:
    """Return a team tied on: its flies placed, the leader and the rig."""
    leader = way.leader(len(team))
    flies = place_flies(
        team=team,
        at_m=leader.flies_at_m,
        depths_m=(None,) * len(team),
        wary=context.wary,
        attractor_at=context.attractor_at,
    )
    return flies, leader, rig_of(way.line, leader, tied(flies))


def _lift_off(cast: Cast, after_s: float) -> Cast:
    """Return a cast that is lifted off so many seconds [s] after its count, still or moving."""
    return replace(cast, hold_s=after_s) if cast.pull.speed_m_s <= 0 else replace(cast, most_s=after_s)


def fished_for_s(cast: Cast) -> float:
    """Return how long after its count a cast is fished at most [s]."""
    return cast.hold_s if cast.pull.speed_m_s <= 0 else cast.most_s


def clear_of_the_bed(
    context: Context, rig: Rig, cast: Cast, bed_m: float, longest_s: float = FISHED_FOR_S
) -> tuple[Cast, CastResult] | None:
    """Return the cast, lifted off in time where it would else end on the bed [m], with its rough path; None where none can.

    `longest_s` [s] is how long it is fished at most.
    """
    for after_s in (one for one in LIFT_OFFS_S if one <= longest_s):
        lifted = _lift_off(cast, after_s)
        path = context.paths.screened(rig, lifted)
        if max(track.between(0.0, path.end_s)[1] for track in path.flies) <= bed_m - SCREEN_CLEARANCE_M:
            return lifted, path
        if path.point.at(cast.countdown_s) > bed_m - SCREEN_CLEARANCE_M:
            return None  # on the bed before it is fished at all
    return None


def _told_when(retrieve: Retrieve, cast: Cast) -> Retrieve:
    """Return the retrieve with when to lift off, where that is before the cast would end of itself."""
    after_s = fished_for_s(cast)
    if after_s >= FISHED_FOR_S:
        return retrieve
    return replace(retrieve, words=f"{retrieve.words}; lift off {after_s:.0f} s after the count")


def options(context: Context, way: Way, team: list[Match]) -> list[Option]:
    """Return every count and pace that keeps this team off the bottom and deep enough for the line, with its worth."""
    flies, leader, rig = tie(context, way, team)
    base = base_cast(context, way, leader.length_m)
    deepest_bed = max(depth for _, depth in base.bed)
    counts = counts_for(context, way.line, context.paths.sink(rig, base, LONGEST_COUNT_S), deepest_bed)
    # A buoyant point keeps its flies in the film where the line does; a sunk team is not fished there.
    least_m = 0.0 if way.style == "buoyant-point" and way.line.family == "floating" else shallowest_useful_m(way.line)
    appealing = appeal(team, context)
    best = max(team, key=lambda m: m.score)
    found: list[Option] = []
    paces = 0
    for step, retrieve in enumerate(paces_for(context, way, best)):
        before = len(found)
        for seconds in counts if step == 0 else counts[::2]:
            cast = replace(base, countdown_s=float(seconds), pull=pull_of(retrieve))
            kept = clear_of_the_bed(context, rig, cast, deepest_bed)
            if kept is None:
                continue
            lifted, path = kept
            mean = fished_mean_m(path)
            if mean < least_m:
                continue
            fits = appealing * shows(way.method, team, retrieve.speed_m_s)
            value = worth(
                context=context,
                method=way.method,
                reached=mean_reach(path, context.reach),
                retrieve=retrieve,
                depth_m=mean,
                appealing=fits,
            )
            found.append(
                Option(
                    team=team,
                    flies=flies,
                    leader=leader,
                    retrieve=_told_when(retrieve, lifted),
                    rig=rig,
                    cast=lifted,
                    path=path,
                    worth=value * PACE_SHARE**step,
                )
            )
        paces += len(found) > before
        if paces == PACES_TRIED:
            break
    return found


def why_not(context: Context, line: Line) -> str:
    """Return why a counted line has nothing to offer here."""
    if shallowest_useful_m(line) > context.bed_m - BED_CLEARANCE_M:
        return f"It fishes from about {shallowest_useful_m(line):.1f} m down; here are {context.bed_m:.1f} m of water."
    return f"In {context.bed_m:.1f} m of water no count and pace keeps its flies both off the bottom and deep enough to be worth it."


def best_of(context: Context, way: Way, teams: list[list[Match]]) -> SetUp | RuledOut:
    """Return the best count, pace and team of a way as a set-up, or why there is none."""
    found = [one for team in teams if team for one in options(context, way, team)]
    if not found:
        return RuledOut(way.title, "depth", why_not(context, way.line))
    return set_up_from(context, way, max(found, key=lambda one: one.worth))


def _note(line: Line) -> str:
    if line.family == "floating":
        return SIMULATED_FLOATING
    return SIMULATED if line.measured_m_s is None else SIMULATED_TIMED


def set_up_from(context: Context, way: Way, one: Option) -> SetUp:
    """Return the set-up of an option by its rough path; its numbers are still to be worked out (`with_band`)."""
    mean = fished_mean_m(one.path)
    doubted = label_doubt(way.line)
    reasons = [Reason("fly", f"{one.flies[-1].fly.name}: {one.flies[-1].why}")]
    reasons += [Reason("method", way.about)] if way.about else []
    if swung(context) and way.method in ("sink-tip", "intermediate"):
        reasons.append(Reason("wind", UNDER_RIPPLE))
    reasons += [Reason("line", doubted)] if doubted else []
    return SetUp(
        method=way.method,
        style=way.style,
        title=way.title,
        line=way.line,
        leader=one.leader,
        flies=one.flies,
        place=context.belief.place.name,
        target_m=mean,
        low_m=mean,
        high_m=mean,
        estimate_m=mean,
        count_s=int(one.cast.countdown_s),
        float_hang_m=None,
        float_kind=None,
        retrieve=one.retrieve,
        cast_m=one.cast.cast_m,
        relative=one.worth,
        sink_table=(),
        depth_note=_note(way.line),
        reasons=tuple(reasons),
        watch_for=WATCH_LINE if way.method != "sink-tip" else "The floating part draws away or stops. " + WATCH_LINE,
        rig=one.rig,
        cast=one.cast,
    )


def _ran(seconds: int, at: float, mean: float, runs: tuple[float, float]) -> str:
    """Where the point fly is at the count and fishes after it, in words."""
    start = f"{seconds} s: at about {at:.1f} m. Then it" if seconds > 0 else "No count: it"
    if runs[1] - runs[0] < 0.3:
        return f"{start} fishes about {mean:.1f} m."
    return f"{start} fishes about {mean:.1f} m, between {runs[0]:.1f} and {runs[1]:.1f} m."


def with_band(one: SetUp, context: Context, clock_s: int = 0) -> SetUp:
    """Return a counted set-up with its numbers, its band and the clock's table; only what is shown is worth the runs.

    The clock runs well beyond the count, and at least `clock_s` [s].
    """
    if one.rig is None or one.cast is None or one.count_s is None:
        return one
    bed_m = context.bed_m
    until = min(max(2 * one.count_s + CLOCK_BEYOND_S, clock_s), LONGEST_CLOCK_S)
    sink, fished = (
        context.paths.band(one.rig, sinking_cast(one.cast, float(until))),
        context.paths.band(one.rig, one.cast),
    )
    point, seconds = fished.point, one.count_s
    inside = (point.t_s >= seconds) & (point.t_s <= fished.fished_to_s)
    mean, at = fished_mean_m(fished), point.at(seconds)
    low, high = point.between(seconds, fished.fished_to_s)
    numbers = (Reason("count", _ran(seconds, at, mean, (low, high))),)
    return replace(
        one,
        flies=tuple(replace(f, depth_m=t.at(seconds)) for f, t in zip(one.flies, fished.flies, strict=True)),
        target_m=mean,
        estimate_m=mean,
        low_m=min(float(np.quantile(point.p10_m[inside], FISHED_TIME[0])), mean),
        high_m=min(max(float(np.quantile(point.p90_m[inside], FISHED_TIME[1])), mean), bed_m),
        sink_table=clock_table(sink, until, bed_m),
        runs_m=(low, high),
        deepest_m=float(point.p90_m[inside].max()),
        tracks=traces(fished, one.flies),
        reasons=(*one.reasons[:1], *numbers, *one.reasons[1:]),
    )
