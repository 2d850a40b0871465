"""A set-up put together by hand: worked out like any other, refused where a rule or the water forbids it."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace
from functools import partial

from stillthread.core.day.context import Context
from stillthread.core.day.given import AFLOAT, STYLES, HandMade, PlanInput
from stillthread.core.day.model import Reason, RuledOut
from stillthread.core.day.paths import fished_mean_m, mean_reach, pull_of
from stillthread.core.day.rules import flies_refused, line_refused
from stillthread.core.errors import Problem
from stillthread.core.flies.choose import Match, Wanted, rank_flies
from stillthread.core.flies.team import POSITIONS
from stillthread.core.methods.afloat import dangle, drifted
from stillthread.core.methods.counted import LONGEST_COUNT_S, Option, Way, base_cast, counts_for, set_up_from, tie
from stillthread.core.methods.dry import dry_set_up
from stillthread.core.methods.hung import float_refusal, float_set_up, lands
from stillthread.core.methods.over_bed import short_leader, slope_bed
from stillthread.core.methods.ways import deep_tip_leader, leader_for, title_of
from stillthread.core.setup.model import SetUp
from stillthread.core.setup.retrieves import RETRIEVES
from stillthread.core.setup.worth import appeal, shows, worth
from stillthread.core.tackle.flies import WEIGHTS, Fly
from stillthread.core.tackle.leaders import Leader, of_length, sinking_leader, sinking_tip_leader
from stillthread.core.tackle.lines import Line

METHOD_OF = {
    "floating": "nymphs",
    "hover": "intermediate",
    "intermediate": "intermediate",
    "sinking": "sinking",
    "sink-tip": "sink-tip",
}
MOST_FLIES = max(POSITIONS)
SHORTEST_LEADER_M, LONGEST_LEADER_M = 0.8, 9.0


def hand_made_problems(given: PlanInput) -> list[Problem]:
    """Return what makes hand-made set-ups impossible to work out, by the path of the field: unknown line, fly or hook."""
    lines = {line.key: line for line in given.lines}
    flies = {fly.key: fly for fly in given.flies}
    found = []
    for n, one in enumerate(given.by_hand):
        path = f"by_hand[{n}]"
        if one.line not in lines:
            found.append(Problem("unknown", f"{path}.line", "No such line in the kit.", ", ".join(lines)))
        elif one.float_hang_m is not None and lines[one.line].family != "floating":
            found.append(Problem("contradiction", f"{path}.line", "A float needs a floating line.", "a floating line"))
        for k, key in enumerate(one.flies):
            if key not in flies:
                found.append(Problem("unknown", f"{path}.flies[{k}]", "No such fly in the box.", "a fly of the box"))
        if not 1 <= len(one.flies) <= MOST_FLIES:
            said = f"{len(one.flies)} flies on one leader."
            found.append(Problem("count", f"{path}.flies", said, f"1 to {MOST_FLIES} flies"))
        if one.style not in STYLES:
            found.append(Problem("unknown", f"{path}.style", "This cannot be made by hand.", ", ".join(STYLES)))
        if one.leader_m is not None and not SHORTEST_LEADER_M <= one.leader_m <= LONGEST_LEADER_M:
            accepted = f"{SHORTEST_LEADER_M:g} to {LONGEST_LEADER_M:g} m"
            found.append(Problem("range", f"{path}.leader_m", "No such leader is cast.", accepted))
        if one.retrieve not in RETRIEVES:
            found.append(Problem("unknown", f"{path}.retrieve", "No such retrieve.", ", ".join(RETRIEVES)))
    return found


def _refused(context: Context, one: HandMade, line: Line, flies: list[Fly], title: str) -> RuledOut | None:
    """The first rule, kit or depth this breaks."""
    said = flies_refused(context.rules, len(flies)) or line_refused(context.rules, line)
    if said:
        return RuledOut(title, "rule", said)
    gone = next((fly for fly in flies if fly.stock == 0), None)
    if gone is not None:
        return RuledOut(title, "kit", f"No {gone.name} left in the box.")
    if one.float_hang_m is not None:
        refused = float_refusal(context)
        if refused:
            return replace(refused, what=title)
        if one.float_hang_m > context.bed_m:
            said = f"{one.float_hang_m:.1f} m under a float in {context.bed_m:.1f} m of water lies on the bottom."
            return RuledOut(title, "depth", said)
    return None


def _matches(context: Context, flies: list[Fly], still: bool, depth_m: float) -> list[Match]:
    found = []
    for fly in flies:
        wanted = Wanted(WEIGHTS, fly.surface, still)
        found += rank_flies(
            flies=(fly,), food=context.food, belief=context.belief, depth_m=depth_m, wanted=wanted, day=context.fly_day
        )
    return found


def _leader_cut(context: Context, one: HandMade, method: str) -> Callable[[int], Leader]:
    """How the leader is cut: as the style has it, its first piece longer or shorter for another length."""
    x = context.tippet_x
    cuts: dict[str, Callable[[int], Leader]] = {
        "buoyant-point": leader_for(context, "nymphs"),
        "sinking-leader": lambda n: sinking_tip_leader(x),
        "tip-deep": deep_tip_leader(x),
        "over-bed": short_leader(context),
        "up-slope": partial(sinking_leader, x),
    }
    cut = cuts.get(one.style, leader_for(context, method))
    return cut if one.leader_m is None else lambda n: of_length(cut(n), one.leader_m or 0.0)


def _leader_refused(context: Context, one: HandMade, line: Line, title: str) -> RuledOut | None:
    if one.style == "sinking-leader" and one.float_hang_m is None and not context.angler.owns.sinking_leader:
        return RuledOut(title, "kit", "No sinking leader in your kit.")
    if one.leader_m is None or one.float_hang_m is not None:
        return None
    try:
        _leader_cut(context, one, METHOD_OF[line.family])(len(one.flies))
    except ValueError as error:
        words = str(error)
        return RuledOut(title, "kit", f"{words[0].upper()}{words[1:]}.")
    return None


def _bed(context: Context, one: HandMade) -> tuple[tuple[float, float], ...] | None:
    return slope_bed(context) if one.style == "up-slope" else None


def _counted(context: Context, one: HandMade, line: Line, team: list[Match], title: str) -> SetUp:
    """The count given, else the best of the worthwhile ones; on the bottom it is told, not refused."""
    method = METHOD_OF[line.family]
    cut = _leader_cut(context, one, method)
    way = Way(
        method=method,
        style=one.style,
        line=line,
        title=title,
        leader=cut,
        most_flies=MOST_FLIES,
        bed=_bed(context, one),
    )
    flies, leader, rig = tie(context, way, team)
    base = base_cast(context, way, leader.length_m)
    if one.cast_m is not None:
        base = replace(base, cast_m=max(one.cast_m, leader.length_m + 1.0))
    retrieve = RETRIEVES[one.retrieve]
    counts = [one.count_s] if one.count_s is not None else []
    if not counts:
        counts = counts_for(context, line, context.paths.sink(rig, base, LONGEST_COUNT_S), context.bed_m) or [5]
    found = []
    for seconds in counts:
        cast = replace(base, countdown_s=float(seconds), pull=pull_of(retrieve))
        path = context.paths.screened(rig, cast)
        mean = fished_mean_m(path)
        appealing = appeal(team, context) * shows(method, team, retrieve.speed_m_s)
        value = worth(
            context=context,
            method=method,
            reached=mean_reach(path, context.reach),
            retrieve=retrieve,
            depth_m=mean,
            appealing=appealing,
        )
        found.append(
            Option(team=team, flies=flies, leader=leader, retrieve=retrieve, rig=rig, cast=cast, path=path, worth=value)
        )
    return set_up_from(context, way, max(found, key=lambda option: option.worth))


def _afloat(context: Context, one: HandMade, line: Line, team: list[Match]) -> SetUp | RuledOut:
    """Straight down or trailed, with the angler's own flies and line let down."""
    if one.style == "dangle":
        return dangle(context, line, team, one.let_down_m)
    return drifted(context, METHOD_OF[line.family], line, team)


def _with_hooks(made: SetUp, hooks: tuple[int | None, ...]) -> SetUp:
    flies = tuple(
        replace(fly, hook=hooks[i]) if i < len(hooks) and hooks[i] else fly  # type: ignore[arg-type]
        for i, fly in enumerate(made.flies)
    )
    return replace(made, flies=flies)


def by_hand(context: Context, number: int) -> SetUp | RuledOut:
    """Return hand-made set-up `number` of the input worked out, or why it may not be fished here."""
    one = context.given.by_hand[number]
    line = next(line for line in context.given.lines if line.key == one.line)
    flies = [next(fly for fly in context.given.flies if fly.key == key) for key in one.flies]
    film = (
        one.style not in AFLOAT
        and line.family == "floating"
        and one.float_hang_m is None
        and all(fly.surface for fly in flies)
    )
    afloat = one.style in AFLOAT and one.float_hang_m is None
    kind = (
        "Float rig" if one.float_hang_m is not None else "Dry fly" if film else title_of(METHOD_OF[line.family], line)
    )
    if afloat:
        kind = STYLES[one.style]
    title = f"By hand: {kind[0].lower()}{kind[1:]}"
    refused = _refused(context=context, one=one, line=line, flies=flies, title=title) or _leader_refused(
        context, one, line, title
    )
    if refused:
        return replace(refused, by_hand=number)
    still = one.float_hang_m is not None or one.style == "dangle" or RETRIEVES[one.retrieve].kind == "static"
    team = _matches(context, flies, still, 0.0 if film else one.float_hang_m or sum(context.band_m) / 2)
    if one.float_hang_m is not None and not lands(context, one.float_hang_m, team):
        said = f"{one.float_hang_m:.1f} m under a fixed float cannot be landed, and you carry none that would give way."
        return RuledOut(title, "landing", said, by_hand=number)
    if one.float_hang_m is not None:
        made = float_set_up(context, one.float_hang_m, team, one.cast_m)
    elif afloat:
        found = _afloat(context, one, line, team)
        if isinstance(found, RuledOut):
            return replace(found, what=title, by_hand=number)
        made = found
    elif film:
        made = dry_set_up(context, line, team)
    else:
        made = _counted(context=context, one=one, line=line, team=team, title=title)
    note = Reason("method", "Put together by hand.")
    made = replace(
        made,
        title=title,
        by_hand=number,
        style=one.style if made.count_s is not None or afloat else made.style,
        reasons=(*made.reasons, note),
    )
    return _with_hooks(made, one.hooks)
