"""Ways that need a boat: straight down under it, and trailed behind it as it drifts."""

from __future__ import annotations

from dataclasses import replace

from stillthread.core.casts.cast import Cast
from stillthread.core.casts.retrieve import usual_pull
from stillthread.core.day.context import BED_CLEARANCE_M, Context
from stillthread.core.day.model import RuledOut
from stillthread.core.day.paths import traces
from stillthread.core.flies.choose import Match
from stillthread.core.methods.counted import Option, Way, base_cast, set_up_from, tie
from stillthread.core.methods.ways import leader_for
from stillthread.core.setup.model import SetUp
from stillthread.core.setup.retrieves import RETRIEVES
from stillthread.core.setup.worth import appeal, worth
from stillthread.core.sky.wind import drift_m_s
from stillthread.core.tackle.leaders import sinking_leader
from stillthread.core.tackle.lines import Line

DANGLE_FROM_M = 4.0
SETTLE_S = 180.0
SLOWEST_DRIFT_M_S, FASTEST_DRIFT_M_S = 0.05, 1.0
DRIFT_STEP_M_S = 0.05
# What the boat over or before the fish leaves of their trust: common practice ("boat shadow"), figures ours.
UNDER_BOAT_SHARE, TRAILED_SHARE = 0.6, 0.5
SWING_M_S = 0.1  # how fast an anchored boat may swing: common practice, figure ours
WATCH = "Keep the rod low and to the side; the boat's shadow and knocks carry: keep still."


def _refused(context: Context, title: str) -> RuledOut | None:
    if not context.angler.afloat:
        return RuledOut(title, "kit", "It needs a boat; you said you fish from the bank.")
    return None


def _let_down_m(context: Context, leader_m: float, wanted_m: float | None) -> float | str:
    """Return how much line is let down [m], the wanted or the likeliest, or why there is none."""
    lowest = context.bed_m - BED_CLEARANCE_M
    shortest = int(2 * (leader_m + 1)) / 2
    if shortest > lowest:
        return "The leader is longer than the water is deep."
    if wanted_m is None:
        return max((d / 2 for d in range(int(2 * shortest), int(2 * lowest) + 1)), key=context.reach.at)
    if not shortest <= wanted_m <= lowest:
        return (
            f"{wanted_m:.1f} m let down does not do here: {shortest:.1f} to {lowest:.1f} m hang clear of rod and bed."
        )
    return wanted_m


def dangle(
    context: Context, line: Line, team: list[Match] | None = None, let_down_m: float | None = None
) -> SetUp | RuledOut:
    """Return a fly let straight down under a boat on a fast line to the likeliest depth, or why not.

    `team` and `let_down_m` [m] are the angler's own choice, where there is one. What is let out is the depth, once it
    hangs; in a drift it does not hang straight, so anchor.
    """
    title = f"Straight down under the boat, {line.title[0].lower()}{line.title[1:]}"
    refused = _refused(context, title)
    if refused:
        return refused
    if not context.allows("static"):
        return RuledOut(title, "kit", "You fish moving flies only.")
    if context.bed_m < DANGLE_FROM_M:
        return RuledOut(title, "depth", f"In {context.bed_m:.1f} m the boat's shadow lies on the fish.")
    about = "Exact and deep: mark the depth on the line. Anchor, keep still, lift 15 cm now and then."
    way = Way(
        method="sinking",
        style="dangle",
        line=line,
        title=title,
        leader=lambda n: sinking_leader(context.tippet_x, n),
        most_flies=1,
        about=about,
    )
    ranked = team or context.flies_for(max(context.bed_m - 0.6, 0.3), ("weighted", "unweighted"), still=True)[:1]
    if not ranked:
        return RuledOut(title, "kit", "No sunk fly in your box.")
    flies, leader, rig = tie(context, way, ranked)
    hang = _let_down_m(context, leader.length_m, let_down_m)
    if isinstance(hang, str):
        return RuledOut(title, "depth", hang)
    cast = replace(base_cast(context, way, leader.length_m), cast_m=hang, pull=usual_pull("static"), hold_s=SETTLE_S)
    path = context.paths.screened(rig, cast)
    retrieve = replace(RETRIEVES["static"], words=f"Let {hang:.1f} m down and leave it hanging")
    reached = context.reach.at(float(path.point.depth_m[-1]))
    value = worth(
        context=context,
        method="float",
        reached=reached * UNDER_BOAT_SHARE,
        retrieve=retrieve,
        depth_m=hang,
        appealing=appeal(ranked, context),
    )
    made = set_up_from(
        context,
        way,
        Option(team=ranked, flies=flies, leader=leader, retrieve=retrieve, rig=rig, cast=cast, path=path, worth=value),
    )
    return replace(made, count_s=None, watch_for="The line straightens, twitches or goes slack. " + WATCH)


def drifted(context: Context, method: str, line: Line, team: list[Match] | None = None) -> SetUp | RuledOut:
    """Return flies trailed behind a boat drifting in this wind, the thread settled at the drift's speed, or why not.

    `team` is the angler's own choice of flies, where there is one.
    """
    title = f"Trailed behind the drift, {line.title[0].lower()}{line.title[1:]}"
    refused = _refused(context, title)
    if refused:
        return refused
    wind = context.given.reading.wind_m_s
    if wind is None:
        return RuledOut(title, "not-computed", "How fast the boat drifts follows from the wind: note it.")
    speed = round(sum(drift_m_s("boat", wind)) / 2 / DRIFT_STEP_M_S) * DRIFT_STEP_M_S
    if speed < SLOWEST_DRIFT_M_S:
        return RuledOut(title, "depth", "Too little wind to drift on.")
    if not context.allows("drift"):
        return RuledOut(title, "kit", "You fish static flies only.")
    about = f"The boat drifts at about {speed:.1f} m/s, broadside, and covers water. Shake the rod tip now and then."
    way = Way(
        method=method,
        style="drifted",
        line=line,
        title=title,
        leader=leader_for(context, method),
        most_flies=1,
        about=about,
    )
    ranked = team or context.flies_for(sum(context.band_m) / 2, ("unweighted", "weighted"))[:1]
    if not ranked:
        return RuledOut(title, "kit", "No sunk fly in your box.")
    flies, leader, rig = tie(context, way, ranked)
    cast: Cast = replace(
        base_cast(context, way, leader.length_m),
        pull=usual_pull("static"),
        hold_s=SETTLE_S,
        drift_m_s=-min(speed, FASTEST_DRIFT_M_S),
    )
    path = context.paths.screened(rig, cast)
    settled = float(path.point.depth_m[-len(path.point.depth_m) // 4 :].mean())
    if settled > context.bed_m - BED_CLEARANCE_M:
        return RuledOut(title, "depth", "Trailed at this drift it would drag along the bottom.")
    words = f"Let {cast.cast_m:.0f} m out behind the boat and leave it to the drift"
    retrieve = replace(RETRIEVES["drift"], speed_m_s=speed, words=words)
    value = worth(
        context=context,
        method=method,
        reached=context.reach.at(settled) * TRAILED_SHARE,
        retrieve=retrieve,
        depth_m=settled,
        appealing=appeal(ranked, context),
    )
    made = set_up_from(
        context,
        way,
        Option(team=ranked, flies=flies, leader=leader, retrieve=retrieve, rig=rig, cast=cast, path=path, worth=value),
    )
    return replace(made, count_s=None, watch_for="A pull or a weight on the line. " + WATCH)


def settled_band(one: SetUp, context: Context) -> SetUp:
    """Return a set-up that hangs or trails with its settled depth and band [m], from the last quarter of its run."""
    if one.rig is None or one.cast is None:
        return one
    bed_m = context.bed_m
    path = context.paths.band(one.rig, one.cast)
    point = path.point
    last = slice(-(len(point.t_s) // 4) or None, None)
    mean = float(point.depth_m[last].mean())
    low, high = float(point.p10_m[last].mean()), float(point.p90_m[last].mean())
    if one.style == "dangle":  # a boat that swings at its anchor draws the line aslant
        low = float(context.paths.path(one.rig, replace(one.cast, drift_m_s=-SWING_M_S)).point.depth_m[last].mean())
    flies = tuple(replace(f, depth_m=float(t.depth_m[last].mean())) for f, t in zip(one.flies, path.flies, strict=True))
    return replace(
        one,
        flies=flies,
        target_m=mean,
        estimate_m=mean,
        low_m=min(low, mean),
        high_m=min(max(high, mean), bed_m),
        runs_m=(min(low, mean), min(max(high, mean), bed_m)),
        deepest_m=high,
        tracks=traces(path, one.flies),
    )
