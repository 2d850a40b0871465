"""Lines that are counted down: which flies, which count, which pace, from simulated casts."""

from __future__ import annotations

from dataclasses import dataclass, replace

import numpy as np

from stillthread.core.setup.choose_flies import Match, place_team
from stillthread.core.setup.context import BED_CLEARANCE_M, Context
from stillthread.core.setup.model import PlacedFly, Reason, Retrieve, RuledOut, SetUp
from stillthread.core.setup.paths import (
    FISHED_FOR_S,
    band_of,
    binned_bed_m,
    binned_c,
    fished_mean_m,
    mean_reach,
    pull_of,
    rig_of,
    screened,
    sink_of,
    tied,
)
from stillthread.core.setup.retrieves import RETRIEVES, choose_retrieve
from stillthread.core.setup.worth import appeal, fly_reason, worth
from stillthread.core.tackle.leaders import Leader, sinking_leader, team_leader
from stillthread.core.tackle.lines import Line
from stillthread.core.tackle.rig import Rig
from stillthread.core.thread.cast import Cast, level_bed
from stillthread.core.thread.line_weight import label_doubt
from stillthread.core.thread.tables import clock_table, sinking_cast
from stillthread.core.thread.track import CastResult
from stillthread.core.units import feet_to_m

LONGEST_COUNT_S = 90
COUNT_STEP_S = 5  # the trade's ladder
MOST_COUNTS = 5
NO_CHASE_BELOW_C = 7.0  # trade table: below it still or slow
SCREEN_CLEARANCE_M = 0.2  # the rough path may be this far off
PACES_TRIED = 2
PACE_SHARE = 0.9  # each step away from the pace the food asks for: common practice, figure ours
CLOCK_BEYOND_S = 15
LONGEST_CLOCK_S = 180
FASTER = ("slow-hand-twist", "hand-twist", "strip-pause", "long-pull")
FALLBACK_LINE = "Nothing in 20 minutes: change the count by 5 s a cast, then the pace, then the fly. Plucks: keep the count, change pace."
WATCH_LINE = (
    "Takes on the drop, on the first pull and on the hang. Hang the flies for several seconds before lifting off."
)
SIMULATED = "Simulated: the band is where the fly may be with an untimed line. Time a metre of it to narrow it."
SIMULATED_FLOATING = "Simulated: the band is where the fly may be, by the doubt of its weight and of drag."
SIMULATED_TIMED = "Simulated with the line as you timed it."


@dataclass(frozen=True)
class Option:
    """One way to fish a line: flies, rig, cast, its path, and what it is worth."""

    ranked: list[Match]
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
    if line.family in ("floating", "hover", "sink-tip"):
        return 0.2
    return float(np.interp(line.label_ips, [1.5, 3.0, 5.0, 7.0], [0.6, 1.5, 3.0, 5.0]))


def title_of(method: str, line: Line) -> str:
    """Return the set-up's title."""
    return "Slow nymphs on a floating line" if method == "nymphs" else line.title


def _leader(context: Context, method: str, count: int) -> Leader:
    if method == "nymphs":
        return team_leader(context.tippet_x, count, feet_to_m(12 - 4 * (count - 1)), feet_to_m(4 if count == 3 else 5))
    if method == "sink-tip":
        return team_leader(context.tippet_x, count, feet_to_m(9 if count == 1 else 7), feet_to_m(4))
    return sinking_leader(context.tippet_x, count)


def _teams(context: Context, method: str) -> list[list[Match]]:
    """The unweighted flies, best first; and, where one fits better still, a weighted fly on the point."""
    middle = sum(context.band_m) / 2
    light = context.flies_for(middle, ("unweighted",))
    heavy = context.flies_for(middle, ("weighted",))
    teams = [light] if light else []
    if heavy and (method != "sinking" or not light):
        teams.append([heavy[0], *(light or heavy[1:])])
    return teams


def _paces(context: Context, method: str, best: Match) -> list[Retrieve]:
    """The pace the food asks for, then the faster ones that keep a fly off the bottom; cold water stays slow."""
    water_c = context.water_c(sum(context.band_m) / 2)
    first = choose_retrieve(best.prey, water_c, context.stocked)
    if first.kind == "static" or (water_c is not None and water_c < NO_CHASE_BELOW_C):
        return [first]
    if method == "nymphs":
        first = RETRIEVES["slow-hand-twist"]
    faster = [RETRIEVES[key] for key in FASTER if RETRIEVES[key].speed_m_s > first.speed_m_s]
    return [first, *faster]


def _counts(context: Context, line: Line, sink: CastResult) -> list[int]:
    """Counts on the 5 s ladder that bring the point fly to worthwhile depths clear of the bed, at most five."""
    top = max(0.0, context.worth_fishing_m[0] - 1.0)
    limit = context.bed_m - BED_CLEARANCE_M
    steps = list(range(COUNT_STEP_S, LONGEST_COUNT_S + 1, COUNT_STEP_S))
    fit = [s for s in steps if sink.point.at(s) <= limit and (sink.point.at(s) >= top or s == steps[-1])]
    clear = [
        s for s in fit if line.family == "floating" or float(np.interp(s, sink.point.t_s, sink.line_end_m)) <= limit
    ]
    if len(clear) <= MOST_COUNTS:
        return clear
    return [clear[round(k)] for k in np.linspace(0, len(clear) - 1, MOST_COUNTS)]


def _base_cast(context: Context, cast_m: float) -> Cast:
    return Cast(
        cast_m=cast_m,
        bed=level_bed(binned_bed_m(context.bed_m)),
        temperature_c=binned_c(context.water_c(min(2.0, context.bed_m))),
        most_s=FISHED_FOR_S,
    )


def _options(context: Context, method: str, line: Line, ranked: list[Match]) -> list[Option]:
    """Every count and pace that keeps this team off the bottom and deep enough for the line, with its worth."""
    count = min(context.team_size(3 if method == "nymphs" else 2), len(ranked))
    leader = _leader(context, method, count)
    flies = place_team(ranked, count, leader.flies_at_m, (None,) * count, context.wary)
    rig = rig_of(line, leader, tied(flies))
    base = _base_cast(context, max(context.angler.cast_m, leader.length_m + 1.0))
    counts = _counts(context, line, sink_of(rig, base, LONGEST_COUNT_S))
    appealing = appeal(ranked, context)
    found: list[Option] = []
    paces = 0
    for step, retrieve in enumerate(_paces(context, method, ranked[0])):
        before = len(found)
        for seconds in counts if step == 0 else counts[::2]:
            cast = replace(base, countdown_s=float(seconds), pull=pull_of(retrieve))
            path = screened(rig, cast)
            mean = fished_mean_m(path)
            deepest = max(track.between(0.0, path.end_s)[1] for track in path.flies)
            if deepest > base.bed[0][1] - SCREEN_CLEARANCE_M or mean < shallowest_useful_m(line):
                continue
            value = worth(context, method, mean_reach(path, context.reach), retrieve, mean, appealing)
            found.append(Option(ranked, flies, leader, retrieve, rig, cast, path, value * PACE_SHARE**step))
        paces += len(found) > before
        if paces == PACES_TRIED:
            break
    return found


def _why_not(context: Context, line: Line) -> str:
    """Why a counted line has nothing to offer here."""
    if shallowest_useful_m(line) > context.bed_m - BED_CLEARANCE_M:
        return f"It fishes from about {shallowest_useful_m(line):.1f} m down; here are {context.bed_m:.1f} m of water."
    return f"In {context.bed_m:.1f} m of water no count and pace keeps its flies both off the bottom and deep enough to be worth it."


def counted_line(context: Context, method: str, line: Line) -> SetUp | RuledOut:
    """Return a team or single fly counted down on a line, the best of its counts, or why there is none."""
    teams = _teams(context, method)
    if not teams:
        return RuledOut(title_of(method, line), "kit", "No sunk fly in your box.")
    options = [one for ranked in teams for one in _options(context, method, line, ranked)]
    if not options:
        return RuledOut(title_of(method, line), "depth", _why_not(context, line))
    return set_up_from(context, method, line, max(options, key=lambda one: one.worth))


def buoyant_line(context: Context, line: Line) -> SetUp | RuledOut:
    """Return a buoyant fly on a short leader behind a sinking line that lies on the bed: slow, just above any bottom."""
    title = f"Buoyant fly on {line.title[0].lower()}{line.title[1:]}"
    if shallowest_useful_m(line) > context.bed_m:
        return RuledOut(title, "depth", _why_not(context, line))
    ranked = context.flies_for(max(context.bed_m - 1.5, 0.3), ("buoyant",))
    if not ranked:
        return RuledOut(title, "kit", "No buoyant sunk fly in your box.")
    leader = sinking_leader(context.tippet_x, 1)
    flies = place_team(ranked, 1, leader.flies_at_m, (None,), context.wary)
    rig = rig_of(line, leader, tied(flies))
    base = _base_cast(context, context.angler.cast_m)
    sink = sink_of(rig, base, LONGEST_COUNT_S)
    on_bed = np.flatnonzero(sink.line_end_m >= base.bed[0][1] - 0.05)
    if len(on_bed) == 0:
        return RuledOut(title, "depth", f"The line does not reach the bottom within {LONGEST_COUNT_S} s.")
    seconds = int(np.ceil(sink.point.t_s[on_bed[0]] / COUNT_STEP_S) * COUNT_STEP_S)
    retrieve = RETRIEVES["slow-hand-twist"]
    cast = replace(base, countdown_s=float(seconds), pull=pull_of(retrieve))
    path = screened(rig, cast)
    reached = mean_reach(path, context.reach)
    value = worth(context, "sinking", reached, retrieve, fished_mean_m(path), appeal(ranked, context))
    option = Option(ranked, flies, leader, retrieve, rig, cast, path, value)
    made = set_up_from(context, "sinking", line, option)
    hover = Reason("method", "The line lies on the bottom and the fly hovers above it; each pull draws it down.")
    return replace(made, title=title, reasons=(made.reasons[0], hover, *made.reasons[1:]))


def _note(line: Line) -> str:
    if line.family == "floating":
        return SIMULATED_FLOATING
    return SIMULATED if line.measured_m_s is None else SIMULATED_TIMED


def set_up_from(context: Context, method: str, line: Line, one: Option) -> SetUp:
    """Return the set-up of an option by its rough path; its numbers are still to be worked out (`with_band`)."""
    mean = fished_mean_m(one.path)
    doubted = label_doubt(line)
    reasons = [fly_reason(one.ranked), *([Reason("line", doubted)] if doubted else [])]
    return SetUp(
        method=method,
        title=title_of(method, line),
        line=line,
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
        depth_note=_note(line),
        reasons=tuple(reasons),
        watch_for=WATCH_LINE if method != "sink-tip" else "The floating part draws away or stops. " + WATCH_LINE,
        fallback=FALLBACK_LINE,
        rig=one.rig,
        cast=one.cast,
    )


def with_band(one: SetUp, bed_m: float) -> SetUp:
    """Return a counted set-up with its numbers, its band and the clock's table; only what is shown is worth the runs."""
    if one.rig is None or one.cast is None or one.count_s is None:
        return one
    until = min(2 * one.count_s + CLOCK_BEYOND_S, LONGEST_CLOCK_S)
    sink, fished = band_of(one.rig, sinking_cast(one.cast, float(until))), band_of(one.rig, one.cast)
    point, seconds = fished.point, one.count_s
    inside = (point.t_s >= seconds) & (point.t_s <= fished.fished_to_s)
    mean, at = fished_mean_m(fished), point.at(seconds)
    low, high = point.between(seconds, fished.fished_to_s)
    numbers = (
        Reason("count", f"{seconds} s puts the point fly at about {at:.1f} m."),
        Reason("retrieve", f"At this pace it then runs between {low:.1f} and {high:.1f} m."),
    )
    return replace(
        one,
        flies=tuple(replace(f, depth_m=t.at(seconds)) for f, t in zip(one.flies, fished.flies, strict=True)),
        target_m=mean,
        estimate_m=mean,
        low_m=min(float(point.p10_m[inside].mean()), mean),
        high_m=min(max(float(point.p90_m[inside].mean()), mean), bed_m),
        sink_table=clock_table(sink, until, bed_m),
        runs_m=(low, high),
        deepest_m=float(point.p90_m[inside].max()),
        reasons=(*one.reasons[:1], *numbers, *one.reasons[1:]),
    )
