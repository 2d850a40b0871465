"""Flies hung under a float: how deep to set it, how deep they really hang in this wind, how long they take."""

from __future__ import annotations

import math
from dataclasses import dataclass, replace

from stillthread.core.belief.factors import rising
from stillthread.core.belief.habits import cold_on_small
from stillthread.core.casts.cast import Cast, level_bed
from stillthread.core.casts.float_rig import cocks_after_s, hung_after_s
from stillthread.core.casts.retrieve import usual_pull
from stillthread.core.casts.tables import FlyDepth, clock_table
from stillthread.core.casts.track import CastResult
from stillthread.core.day.context import Context
from stillthread.core.day.model import Reason, RuledOut
from stillthread.core.day.paths import binned_c, rig_of, tied, traces
from stillthread.core.day.rules import float_refused
from stillthread.core.flies.choose import Match
from stillthread.core.flies.placed import PlacedFly
from stillthread.core.flies.team import order_team, place_flies
from stillthread.core.setup.model import SetUp
from stillthread.core.setup.retrieves import RETRIEVES
from stillthread.core.setup.worth import appeal, shows, worth
from stillthread.core.tackle.floats import (
    NEAREST_CAST_M,
    SLIDE_FRICTION_G,
    SLIDE_MARGIN,
    USUAL_FLOAT_G,
    farthest_float_cast_m,
)
from stillthread.core.tackle.leaders import Leader, float_leader
from stillthread.core.tackle.rig import Float, FloatKind, Rig, load_g

WATCH_FLOAT = "Strike at anything odd: it dips, sails off, or stands up. Lift the rig 15 cm now and then."
FISHED_SHARE = 0.85  # of the time between casts, common practice
DEEPEST_HANG_M, CLEAR_OF_BED_M = 7.0, 0.1
# Of the fish met at the best hang, from how many on the trade's own height over the bed is taken. Ours.
AS_TOLD = 0.6
# Flies on a float: a team from this hang on, so far apart at least. Common practice, figures ours.
TEAM_FROM_M, APART_M = 1.2, 0.4
# A float hung so high or higher lies on the fish's heads; what it leaves, and what among fish that rise. Ours.
TOP_FLOAT_M, TOP_LEFT, RISERS_LEFT = 0.6, 0.5, 0.3
# A strong wind bows the line and drags the float: what is left of its worth from one wind [m/s] to the other. Common practice,
# figures ours.
DRAGGED_FROM_M_S, DRAGGED_AT_M_S, DRAGGED_LEFT = 6.0, 10.0, 0.5
COLD_LEFT = 0.5  # of a float away from the drop-off, cold on a small water: common practice, figure ours
SETTLE_S = 150.0
LONGEST_CLOCK_S = 120
# A float left to itself drifts at about 3 % of the wind; on a line kept nearly straight, a third of that: common practice.
FREE_DRIFT_SHARE, HELD_DRIFT_SHARE = 0.03, 0.01
DRIFT_STEP_M_S = 0.01
CLEAR_BED_M = 50.0


def _hang(context: Context, deepest_m: float = DEEPEST_HANG_M) -> float:
    """How far below the float the point should hang [m], in 0.1 m steps, clear of the bed: at the depth found, else where
    it meets most fish that a float does not put down; as far off the bed as the trade hangs the leading food, where as good as that.
    """
    lowest = context.bed_m - CLEAR_OF_BED_M
    choices = [step / 10 for step in range(3, int(min(lowest, deepest_m) * 10 + 1e-9) + 1)]
    found = context.given.found_m
    if found is not None:
        return min(choices, key=lambda hang: abs(hang - found))
    off = _told_off_bed(context)

    def meets(hang: float) -> float:
        return context.reach.at(hang) * _on_their_heads(context, hang)

    best = max(choices, key=meets)
    told = [hang for hang in choices if off[0] - 1e-9 <= context.bed_m - hang <= off[1] + 1e-9] if off else []
    as_told = max(told, key=meets, default=best)
    return as_told if meets(as_told) >= AS_TOLD * meets(best) else best


def _told_off_bed(context: Context) -> tuple[float, float] | None:
    """How far off the bed [m] the trade hangs what leads the food here, None where none does or it is not told."""
    lead = context.food.top(1)[0]
    here = context.food.leads and lead.at_home(context.belief.place.kind, context.bed_m)
    return lead.hung_m if here else None


def _flies_on_float(hang_m: float) -> int:
    """Return how many flies a hang [m] carries: one up to 1.2 m, then as many as keep 0.4 m apart over its lower half."""
    return 1 if hang_m < TEAM_FROM_M else 1 + int(hang_m / 2 / APART_M)


def _on_their_heads(context: Context, hang_m: float) -> float:
    """Return what a float so high [m] leaves of its worth: it puts fish near the top down, those that rise most of all.

    Where many rise it lies among them however deep it hangs.
    """
    count = rising(context.given.sightings)
    if hang_m > TOP_FLOAT_M:
        return RISERS_LEFT if count == "many" else 1.0
    return RISERS_LEFT if count in ("some", "many") else TOP_LEFT


def _off_the_ledge(context: Context) -> float:
    """Return what a float is worth on a cold day on a small water: there it is for the drop-off, and what moves for the rest."""
    given, place = context.given, context.belief.place
    cold = cold_on_small(given.when, given.water, given.reading) and not context.stocked
    return COLD_LEFT if cold and place.kind != "drop-off" else 1.0


def _dragged(context: Context) -> float:
    """What a strong wind leaves of a float that is meant to hang still."""
    wind = context.given.reading.wind_m_s or 0.0
    strong = (wind - DRAGGED_FROM_M_S) / (DRAGGED_AT_M_S - DRAGGED_FROM_M_S)
    return 1.0 - (1.0 - DRAGGED_LEFT) * min(max(strong, 0.0), 1.0)


def float_refusal(context: Context) -> RuledOut | None:
    """Return why no float can be fished here: the rules, the school, the kit or the depth; None where one can."""
    if not context.allows("static"):
        return RuledOut("Float rig", "kit", "You fish moving flies only.")
    said = float_refused(context.rules)
    if said:
        return RuledOut("Float rig", "rule", said)
    if not context.lines_of("floating"):
        return RuledOut("Float rig", "kit", "No floating line in your kit.")
    if not context.angler.owns.floats:
        return RuledOut("Float rig", "kit", "No float in your kit.")
    if context.bed_m < 0.5:
        return RuledOut("Float rig", "depth", f"{context.bed_m:.1f} m of water is too little to hang a fly in.")
    return None


def _landing_reason(kind: str, hang: float, limit: float) -> Reason:
    if kind == "fixed":
        return Reason("landing", f"{hang:.1f} m under a fixed float: your rod, arm and net reach {limit:.1f} m.")
    use = "a sliding float: what hangs below pulls the leader through" if kind == "sliding" else "a quick-release float"
    words = f"Your rod, arm and net reach {limit:.1f} m: a float fixed at {hang:.1f} m cannot be landed. Use {use}."
    return Reason("landing", words)


def _cast(context: Context, cast_m: float, drift_m_s: float) -> Cast:
    binned = round(drift_m_s / DRIFT_STEP_M_S) * DRIFT_STEP_M_S
    return Cast(
        cast_m=cast_m,
        bed=level_bed(CLEAR_BED_M),  # the hang keeps clear of the real one
        pull=usual_pull("static"),
        temperature_c=binned_c(context.water_c(min(2.0, context.bed_m))),
        drift_m_s=binned or None,
        hold_s=SETTLE_S,
    )


@dataclass(frozen=True)
class Hung:
    """A float rig and how it hangs: left still, on a line kept nearly straight in the wind, and left to drift."""

    leader: Leader
    flies: tuple[PlacedFly, ...]
    kind: FloatKind
    rig: Rig
    cast: Cast
    still: CastResult
    kept: CastResult
    free: CastResult


def _slides(context: Context, below_g: float) -> bool:
    """Whether what hangs below [g] pulls the leader through a sliding float: twice the friction, to be sure of it, by school."""
    school = context.schools.sliding_float
    needed = SLIDE_FRICTION_G * (1.0 if school == "always" else SLIDE_MARGIN)
    return school != "never" and below_g >= needed


def float_kind(context: Context, hang_m: float, below_g: float) -> FloatKind:
    """Return fixed where rod, arm and net reach what hangs below [m]; else quick-release or sliding, by school; of those carried.

    A sliding float that what hangs below does not pull through [g] is pegged: it is a fixed one.
    """
    floats, slides = context.angler.owns.floats, _slides(context, below_g)
    best: tuple[FloatKind, ...] = ("sliding", "release", "fixed") if slides else ("release", "fixed", "sliding")
    if hang_m <= context.landing_m:
        best = ("fixed", "release", "sliding")
    kind = next(kind for kind in best if kind in floats)
    return kind if kind != "sliding" or slides else "fixed"


def lands(context: Context, hang_m: float, team: list[Match]) -> bool:
    """Return whether a fish can be landed with a team hung so deep [m] under a float of those carried."""
    _, _, held = _tied(context, hang_m, team)
    return hang_m <= context.landing_m or float_kind(context, hang_m, load_g(held)) != "fixed"


def _tied(context: Context, hang: float, team: list[Match]) -> tuple[Leader, tuple[PlacedFly, ...], Rig]:
    """Tie the rig for a hang [m], its float fixed."""
    leader = float_leader(context.tippet_x, hang, len(team))
    flies = place_flies(
        team=team,
        at_m=leader.flies_at_m,
        depths_m=(None,) * len(team),
        wary=context.wary,
        attractor_at=context.attractor_at,
    )
    bare = rig_of(context.lines_of("floating")[0], leader, tied(flies))
    lift = max(USUAL_FLOAT_G, 1.5 * load_g(bare))
    return leader, flies, replace(bare, float_=Float("fixed", "slack", leader.sections[0].length_m, lift))


def _hung(context: Context, hang: float, team: list[Match], cast_m: float | None = None) -> Hung:
    """Tie the rig for a hang [m] and let it hang."""
    leader, flies, held = _tied(context, hang, team)
    kind = float_kind(context, hang, load_g(held))
    rig = replace(held, float_=replace(held.float_, kind=kind)) if held.float_ else held
    cast_m = cast_m or max(NEAREST_CAST_M, min(context.cast_m, farthest_float_cast_m(hang)))
    wind = context.given.reading.wind_m_s or 0.0
    casts = [_cast(context, cast_m, share * wind) for share in (0.0, HELD_DRIFT_SHARE, FREE_DRIFT_SHARE)]
    still, kept, free = (context.paths.path(rig, cast) for cast in casts)
    return Hung(leader=leader, flies=flies, kind=kind, rig=rig, cast=casts[1], still=still, kept=kept, free=free)


def float_flies(context: Context, hang_m: float) -> list[Match]:
    """Return sunk flies for a hang [m], best first: the deeper, the quicker they should sink."""
    return context.flies_for(hang_m, ("weighted", "unweighted"), still=True, sink_m_s=0.03 + 0.012 * hang_m)


def float_rig(context: Context) -> SetUp | RuledOut:
    """Return flies hung under a float at the most likely depth, on the kind of float landing and school allow, or why not."""
    refused = float_refusal(context)
    if refused:
        return refused
    for deepest in (DEEPEST_HANG_M, context.landing_m):
        hang = _hang(context, deepest)
        ranked = float_flies(context, hang)
        if not ranked:
            return RuledOut("Float rig", "kit", "No sunk fly in your box.")
        count = min(context.team_size(), len(ranked), _flies_on_float(hang))
        team = order_team(ranked, count, context.attractor_at)
        if lands(context, hang, team):
            break
    return float_set_up(context, hang, team)


def float_set_up(context: Context, hang_m: float, team: list[Match], cast_m: float | None = None) -> SetUp:
    """Return a team hung `hang_m` [m] under a float.

    The depth given is where the point hangs on a line kept nearly straight in this wind; the band runs from the set
    depth up to where a float left to drift would lift it.
    """
    hung = _hung(context, hang_m, team, cast_m)
    depths = tuple(float(track.depth_m[-1]) for track in hung.kept.flies)
    reached = sum(context.reach.at(depth) for depth in depths[:-1]) * 0.25 + context.reach.at(depths[-1])
    retrieve = RETRIEVES["static"]
    best = max(team, key=lambda m: m.score)
    patience = 1.0 if "static" in best.prey.paces else 0.5  # some prey never looks right hanging still
    shared = min(reached, 1.0) * FISHED_SHARE * patience * _on_their_heads(context, hang_m) * _off_the_ledge(context)
    shared *= _dragged(context)
    lifted = min(float(hung.free.point.depth_m[-1]), depths[-1])
    point = hung.flies[-1]
    return SetUp(
        method="float",
        style="float",
        title="Float rig",
        line=context.lines_of("floating")[0],
        leader=hung.leader,
        flies=tuple(replace(fly, depth_m=depth) for fly, depth in zip(hung.flies, depths, strict=True)),
        place=context.belief.place.name,
        target_m=depths[-1],
        low_m=lifted,
        high_m=max(hang_m, depths[-1]),
        estimate_m=depths[-1],
        count_s=None,
        float_hang_m=hang_m,
        float_kind=hung.kind,
        retrieve=retrieve,
        cast_m=hung.cast.cast_m,
        relative=worth(
            context=context,
            method="float",
            reached=shared,
            retrieve=retrieve,
            depth_m=depths[-1],
            appealing=appeal(team, context) * shows("float", team, 0.0),
        ),
        sink_table=_clock(hung.still),
        depth_note=_note(hung.still),
        reasons=(
            Reason("fly", f"{point.fly.name}: {point.why}"),
            Reason(
                "depth",
                f"Point fly {hang_m:.1f} m down, {context.bed_m - hang_m:.1f} m off the bottom, for as long as you leave it.",
            ),
            *_drift_reasons(depths[-1], lifted, hang_m),
            _landing_reason(hung.kind, hang_m, context.landing_m),
        ),
        watch_for=WATCH_FLOAT,
        runs_m=(lifted, max(hang_m, depths[-1])),
        rig=hung.rig,
        cast=hung.cast,
        tracks=traces(hung.kept, hung.flies),
    )


def _drift_reasons(kept_m: float, lifted_m: float, hang_m: float) -> tuple[Reason, ...]:
    if hang_m - lifted_m < 0.1:
        return ()
    words = f"In this wind a float left to drift lifts the point to about {lifted_m:.1f} m; on a line kept nearly straight, {kept_m:.1f} m."
    return (Reason("wind", words),)


def _note(still: CastResult) -> str:
    cocks = cocks_after_s(still)
    hung = hung_after_s(still)
    words = f"On a slack line it hangs after about {hung:.0f} s"
    return words + (f"; the float cocks at about {cocks:.0f} s." if cocks is not None else ".")


def _clock(still: CastResult) -> tuple[FlyDepth, ...]:
    return clock_table(still, min(math.ceil(hung_after_s(still)) + 10, LONGEST_CLOCK_S))
