"""The methods: from line, water and flies to a set-up, or to the reason there is none."""

from __future__ import annotations

import math

import numpy as np

from stillthread.core.setup.choose_flies import Match, place_team
from stillthread.core.setup.context import BED_CLEARANCE_M, Context
from stillthread.core.setup.model import Reason, Retrieve, RuledOut, SetUp
from stillthread.core.setup.retrieves import RETRIEVES, choose_retrieve
from stillthread.core.setup.score import fishing_share, hunger, pace_weight
from stillthread.core.tackle.landing import landing_limit_m
from stillthread.core.tackle.leaders import Leader, casting_leader, float_leader, sinking_leader, team_leader
from stillthread.core.tackle.lines import Line
from stillthread.core.thread.shortcut import count_to_depth_s, float_depth, fly_depth, sink_table
from stillthread.core.units import feet_to_m

APPROXIMATE = (
    "Approximate: a rule of thumb for the count, before the retrieve. The pull of the retrieve is not computed yet."
)
LONGEST_COUNT_S = 90
LINE_ABOVE_BED_M = 0.2
FALLBACK_LINE = "Nothing in 20 minutes: change the count by 5 s a cast, then the pace, then the fly. Plucks: keep the count, change pace."
FALLBACK_FLOAT = "Nothing in 10 minutes: move the float 30 cm. Twenty blank minutes with several flies: give floats up on this stretch."
FALLBACK_DRY = "No rise in 20 minutes: the fish are down. Go to nymphs or a sunk line."
# How much water a method covers, against a line fished back: common practice, figures ours.
COVER = {"dry": 1.1, "nymphs": 0.75, "float": 0.8, "sink-tip": 0.85, "intermediate": 1.0, "sinking": 1.0}


def _appeal(ranked: list[Match], context: Context) -> float:
    """How well the best fly stands for the food there, 0.3 to 1."""
    best = max(context.food.share.values())
    return 0.3 + 0.7 * min(1.0, ranked[0].score / best) if ranked else 0.0


def _worth(
    context: Context, method: str, reached: float, share: float, retrieve: Retrieve, depth_m: float, appeal: float
) -> float:
    """Expected rate in arbitrary units; only ratios are ever shown."""
    pace = pace_weight(retrieve.speed_m_s, context.water_c(depth_m))
    fed = hunger(context.given.reading, depth_m, context.given.water.species)
    return reached * share * pace * fed * appeal * COVER[method]


def _fly_reason(ranked: list[Match]) -> Reason:
    match = ranked[0]
    return Reason("fly", f"{match.fly.name} stands for {match.prey.name.lower()}: {match.prey.about}.")


def dry(context: Context) -> SetUp | RuledOut:
    """Return a dry fly or emerger in the film on a floating line."""
    lines = context.lines_of("floating")
    ranked = context.flies_for(0.0, ("buoyant", "unweighted"), surface=True)
    if not lines or not ranked:
        return RuledOut(
            "Dry fly", "kit", "No floating line in your kit." if not lines else "No dry fly or emerger in your box."
        )
    leader = casting_leader(context.tippet_x, context.wary)
    retrieve = RETRIEVES["static"]
    rising = any(seen.rise not in (None, "leap") for seen in context.given.sightings)
    share = 0.85 if rising else 0.5
    worth = _worth(context, "dry", context.reach.over_band(0.0, 0.1), share, retrieve, 0.0, _appeal(ranked, context))
    return SetUp(
        method="dry",
        title="Dry fly in the film",
        line=lines[0],
        leader=leader,
        flies=place_team(ranked, 1, leader.flies_at_m, (0.0,), context.wary),
        place=context.belief.place.name,
        target_m=0.0,
        low_m=0.0,
        high_m=0.1,
        estimate_m=0.0,
        count_s=None,
        float_hang_m=None,
        float_kind=None,
        retrieve=retrieve,
        cast_m=context.angler.cast_m,
        relative=worth,
        sink_table=(),
        depth_note="In the film, the top 10 cm.",
        reasons=(_fly_reason(ranked), Reason("method", "For fish that rise or cruise high; nothing if they are down.")),
        watch_for="A sip, a swirl, the fly gone. Lift gently.",
        fallback=FALLBACK_DRY,
    )


def _best_target(context: Context, line: Line, leader: Leader, deepest_m: float, speed: float) -> float | None:
    """The depth [m] on a 0.1 m grid where this line's fly meets most fish for the time the count costs."""
    best, best_worth = None, 0.0
    first = round(max(shallowest_useful_m(line), context.worth_fishing_m[0]) * 10)
    for step in range(first, int(deepest_m * 10 + 1e-9) + 1):
        depth = step / 10
        count = count_to_depth_s(line, leader.length_m, depth)
        if count is None or count > LONGEST_COUNT_S:
            continue
        at = fly_depth(line, leader.length_m, count, context.bed_m)
        reached = context.reach.over_band(at.low_m or 0.0, at.high_m or depth)
        worth = reached * fishing_share(count, context.angler.cast_m, speed)
        if worth > best_worth:
            best, best_worth = depth, worth
    return best


def shallowest_useful_m(line: Line) -> float:
    """Return the shallowest depth [m] a sunk line is any use at; above it the retrieve runs below the fish.

    Trade table: intermediate from 0.6 m, type 3 from 1.5 m, type 5 from 3 m, type 7 from 5 m; linear between.
    """
    if line.family == "floating":
        return 0.2
    return float(np.interp(line.label_ips, [1.5, 3.0, 5.0, 7.0], [0.6, 1.5, 3.0, 5.0]))


def _deepest_for(context: Context, line: Line, leader: Leader) -> float:
    """Deepest the fly may be counted to [m]: clear of the bed, and before the line itself lies on it."""
    limit = context.bed_m - BED_CLEARANCE_M
    if line.family == "floating":
        return min(limit, leader.length_m)
    line_on_bed_s = (context.bed_m - LINE_ABOVE_BED_M) / line.rate_m_s
    at = fly_depth(line, leader.length_m, max(line_on_bed_s, 0.0), context.bed_m)
    return min(limit, at.depth_m if at.depth_m is not None else limit)


def _title(method: str, line: Line) -> str:
    return "Slow nymphs on a floating line" if method == "nymphs" else line.title


def _why_not(context: Context, line: Line, deepest_m: float) -> str:
    """Why a counted line has no depth to fish at here."""
    if shallowest_useful_m(line) > deepest_m:
        return (
            f"{context.bed_m:.1f} m of water: it fishes from about {shallowest_useful_m(line):.1f} m down, and here "
            f"the line is on the bottom when the fly is at {max(deepest_m, 0):.1f} m."
        )
    return f"The likely depths begin at about {context.worth_fishing_m[0]:.1f} m: too deep to count to in {LONGEST_COUNT_S} s."


def _counted_rig(context: Context, method: str, ranked: list[Match]) -> tuple[int, Leader, Retrieve]:
    """How many flies, on what leader, brought back how."""
    count = min(context.team_size(3 if method == "nymphs" else 2), len(ranked))
    leader = sinking_leader(context.tippet_x, count)
    retrieve = choose_retrieve(ranked[0].prey, context.water_c(sum(context.band_m) / 2), context.stocked)
    if method == "nymphs":
        to_first, spacing = feet_to_m(12 - 4 * (count - 1)), feet_to_m(4 if count == 3 else 5)
        leader = team_leader(context.tippet_x, count, to_first, spacing)
        retrieve = retrieve if retrieve.kind == "static" else RETRIEVES["slow-hand-twist"]
    return count, leader, retrieve


def counted_line(context: Context, method: str, line: Line) -> SetUp | RuledOut:
    """Return an unweighted team or single fly counted down on a floating, intermediate or full-sinking line."""
    ranked = context.flies_for(sum(context.band_m) / 2, ("unweighted",))
    if not ranked:
        return RuledOut(
            line.title, "kit", "No unweighted sunk fly in your box; weighted flies on a line are not computed yet."
        )
    count, leader, retrieve = _counted_rig(context, method, ranked)
    deepest = _deepest_for(context, line, leader)
    target = _best_target(context, line, leader, deepest, retrieve.speed_m_s)
    if target is None:
        return RuledOut(_title(method, line), "depth", _why_not(context, line, deepest))
    return _counted_set_up(context, method, line, leader, retrieve, target, count)


def _counted_set_up(
    context: Context, method: str, line: Line, leader: Leader, retrieve: Retrieve, target: float, count: int
) -> SetUp:
    """The set-up for a line, leader and target depth [m] that are settled."""
    seconds = math.ceil(count_to_depth_s(line, leader.length_m, target) or 0)
    at = fly_depth(line, leader.length_m, seconds, context.bed_m)
    ranked = context.flies_for(target, ("unweighted",))
    reached = context.reach.over_band(at.low_m or 0.0, at.high_m or target)
    share = fishing_share(seconds, context.angler.cast_m, retrieve.speed_m_s)
    worth = _worth(context, method, reached, share, retrieve, target, _appeal(ranked, context))
    depths: tuple[float | None, ...] = (None,) * (count - 1) + (at.depth_m,)
    return SetUp(
        method=method,
        title=_title(method, line),
        line=line,
        leader=leader,
        flies=place_team(ranked, count, leader.flies_at_m, depths, context.wary),
        place=context.belief.place.name,
        target_m=target,
        low_m=at.low_m or 0.0,
        high_m=at.high_m or target,
        estimate_m=at.depth_m,
        count_s=seconds,
        float_hang_m=None,
        float_kind=None,
        retrieve=retrieve,
        cast_m=context.angler.cast_m,
        relative=worth,
        sink_table=sink_table(line, leader.length_m, min(2 * seconds + 15, 180), context.bed_m),
        depth_note=APPROXIMATE,
        reasons=(
            _fly_reason(ranked),
            Reason("count", f"{seconds} s puts the point fly at about {at.depth_m or target:.1f} m."),
        ),
        watch_for="Takes on the drop, on the first pull and on the hang. Hang the flies for several seconds before lifting off.",
        fallback=FALLBACK_LINE,
    )


def sink_tip(context: Context, line: Line) -> SetUp | RuledOut:
    """Return a sink tip fished slowly: bounded by tip + leader, no timed estimate."""
    ranked = context.flies_for(min(1.0, context.bed_m / 2), ("unweighted",))
    if not ranked:
        return RuledOut(line.title, "kit", "No unweighted sunk fly in your box.")
    count = min(context.team_size(2), len(ranked))
    leader = team_leader(context.tippet_x, count, feet_to_m(9 if count == 1 else 7), feet_to_m(4))
    seconds = 15
    at = fly_depth(line, leader.length_m, seconds, context.bed_m - BED_CLEARANCE_M)
    low, high = at.low_m or 0.0, at.high_m or 0.0
    retrieve = choose_retrieve(ranked[0].prey, context.water_c((low + high) / 2), context.stocked)
    reached = context.reach.over_band(low, high)
    share = fishing_share(seconds, context.angler.cast_m, retrieve.speed_m_s)
    worth = _worth(context, "sink-tip", reached, share, retrieve, (low + high) / 2, _appeal(ranked, context))
    depths: tuple[float | None, ...] = (None,) * count
    return SetUp(
        method="sink-tip",
        title=line.title,
        line=line,
        leader=leader,
        flies=place_team(ranked, count, leader.flies_at_m, depths, context.wary),
        place=context.belief.place.name,
        target_m=(low + high) / 2,
        low_m=low,
        high_m=high,
        estimate_m=None,
        count_s=seconds,
        float_hang_m=None,
        float_kind=None,
        retrieve=retrieve,
        cast_m=context.angler.cast_m,
        relative=worth,
        sink_table=sink_table(line, leader.length_m, 60, context.bed_m),
        depth_note="Only the bounds are known: no deeper than tip and leader. The time it takes is not computed yet.",
        reasons=(
            _fly_reason(ranked),
            Reason("line", "A tip keeps fairly level; it cannot go deeper than tip and leader together."),
        ),
        watch_for="The floating part draws away or stops.",
        fallback=FALLBACK_LINE,
    )


def _float_hang(context: Context) -> float:
    """How far below the float the point should hang [m]: the best-reached depth, in 0.1 m steps, clear of the bed."""
    lowest = context.bed_m - 0.15
    choices = [step / 10 for step in range(3, int(min(lowest, 7.0) * 10 + 1e-9) + 1)]
    return max(choices, key=context.reach.at)


def float_rig(context: Context) -> SetUp | RuledOut:
    """Return flies hung under a float at the most likely depth, on a fixed or a quick-release float as landing allows."""
    lines = context.lines_of("floating")
    if context.rules.floats_allowed is False:
        return RuledOut("Float rig", "rule", "The rules you noted do not allow floats.")
    if not lines:
        return RuledOut("Float rig", "kit", "No floating line in your kit.")
    if context.bed_m < 0.5:
        return RuledOut("Float rig", "depth", f"{context.bed_m:.1f} m of water is too little to hang a fly in.")
    hang = _float_hang(context)
    ranked = context.flies_for(hang, ("weighted", "unweighted"), still=True)
    if not ranked:
        return RuledOut("Float rig", "kit", "No sunk fly in your box.")
    count = min(context.team_size(), len(ranked))
    leader = float_leader(context.tippet_x, hang, count)
    limit = landing_limit_m(context.angler.rod_m, context.angler.net_m, context.angler.arm_m)
    kind = "fixed" if hang <= limit else "release"
    butt = leader.sections[0].length_m
    depths = tuple(at - butt for at in leader.flies_at_m)
    reached = sum(context.reach.at(depth) for depth in depths[:-1]) * 0.25 + context.reach.at(hang)
    retrieve = RETRIEVES["static"]
    still = 1.0 if "static" in ranked[0].prey.paces else 0.5  # some prey never looks right hanging still
    worth = _worth(context, "float", min(reached, 1.0), 0.85 * still, retrieve, hang, _appeal(ranked, context))
    off_bed = context.bed_m - hang
    landing = (
        f"{hang:.1f} m under a fixed float: your rod, arm and net reach {limit:.1f} m."
        if kind == "fixed"
        else f"Your rod, arm and net reach {limit:.1f} m: a float fixed at {hang:.1f} m cannot be landed. Use a quick-release float."
    )
    return SetUp(
        method="float",
        title="Float rig",
        line=lines[0],
        leader=leader,
        flies=place_team(ranked, count, leader.flies_at_m, depths, context.wary),
        place=context.belief.place.name,
        target_m=hang,
        low_m=hang,
        high_m=hang,
        estimate_m=hang,
        count_s=None,
        float_hang_m=hang,
        float_kind=kind,
        retrieve=retrieve,
        cast_m=max(6.0, min(context.angler.cast_m, 16.0 - 1.5 * hang)),
        relative=worth,
        sink_table=(float_depth(hang),),
        depth_note="Hangs straight down when nothing drifts. Lift from drift and the time to settle are not computed yet.",
        reasons=(
            _fly_reason(ranked),
            Reason(
                "depth", f"Point fly {hang:.1f} m down, {off_bed:.1f} m off the bottom, for as long as you leave it."
            ),
            Reason("landing", landing),
        ),
        watch_for="Strike at anything odd: it dips, sails off, or stands up. Lift the rig 15 cm now and then.",
        fallback=FALLBACK_FLOAT,
    )
