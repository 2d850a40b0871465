"""The bench's other questions, answered by the core."""

from __future__ import annotations

from dataclasses import replace

from stillthread.core.casts.band import Doubt
from stillthread.core.casts.calibrate import CheckOutcome, check_bottom, doubt_after, judge, timed_fall
from stillthread.core.casts.cast import Cast
from stillthread.core.casts.float_rig import cocks_after_s, simulate_float
from stillthread.core.casts.tables import CountRow, count_table, running_depth, sink_run, trolling_table
from stillthread.core.day.given import Angler
from stillthread.core.errors import InputError, Problem
from stillthread.core.tackle.floats import check_float
from stillthread.core.tackle.fly_build import FlyBuild, add_up
from stillthread.core.tackle.leader_cut import cut_lengths_m, leader_of_length
from stillthread.core.tackle.rig import Rig, TiedFly, level_pieces
from stillthread.core.thread.fly_sink import sink_speed_m_s
from stillthread.documents.thread import thread_contract as c
from stillthread.documents.thread.simulate_contract import PieceDoc, SimulateRequest
from stillthread.documents.thread.simulate_json import doubt_from, rig_and_cast

TROLL_SPEEDS_M_S = [0.2, 0.4, 0.6, 0.9]
SHORT_COUNT_S = 20.0
TROLL_OUT_M = [10.0, 15.0, 20.0, 25.0]
ASSUMED = "Hook wire, soaked dressing and the water it stirs are usual figures, known to about 30 %: time the fly when it matters."


def _row(rig: Rig, cast: Cast, row: CountRow) -> c.CountRowOut:
    runs = None
    if row.count_s is not None and cast.pull.speed_m_s > 0:
        runs = running_depth(rig, cast, row.count_s, cast.pull)
    return c.CountRowOut(
        depth_m=row.depth_m,
        count_s=row.count_s,
        soonest_s=row.soonest_s,
        latest_s=row.latest_s,
        line_m=row.line_m,
        runs_mean_m=runs.mean_m if runs else None,
        runs_min_m=runs.shallowest_m if runs else None,
        runs_max_m=runs.deepest_m if runs else None,
    )


def table_answer(doc: c.TableRequest) -> c.TableAnswer:
    """Return the countdown table of a rig. Raises InputError for a float rig, which is set and not counted."""
    rig, cast = rig_and_cast(doc.rig)
    if rig.float_ is not None:
        raise InputError(
            Problem("contradiction", "rig.float", "A float rig is not counted down.", "a rig without float")
        )
    run = sink_run(rig, cast, doubt=doubt_from(doc.rig, rig.line))
    deepest = max(z for _, z in cast.bed)
    rows = count_table(run, [z for z in doc.depths_m if 0 < z <= deepest])
    trolling = None
    if doc.trolling:
        depths = trolling_table(rig, cast, TROLL_SPEEDS_M_S, TROLL_OUT_M)
        trolling = c.TrollingOut(speeds_m_s=TROLL_SPEEDS_M_S, out_m=TROLL_OUT_M, depth_m=[list(one) for one in depths])
    return c.TableAnswer(rows=[_row(rig, cast, row) for row in rows], trolling=trolling)


def fly_answer(build: FlyBuild) -> c.FlyBuildAnswer:
    """Return a fly's weight in water and sink speed from its build."""
    total = add_up(build)
    parts = [c.FlyPart(part=name, submerged_g=round(g, 4)) for name, g in total.parts]
    return c.FlyBuildAnswer(
        submerged_g=round(total.submerged_g, 4),
        sink_m_s=round(sink_speed_m_s(build), 4),
        parts=parts,
        assumptions=ASSUMED,
    )


def leader_answer(doc: c.LeaderRequest) -> c.LeaderAnswer:
    """Return the cut list of a wanted leader. Raises InputError for a length outside 1 to 12 m."""
    try:
        leader = leader_of_length(doc.style, doc.length_m, doc.x_size, doc.flies)
    except ValueError as error:
        raise InputError(Problem("out_of_range", "length_m", f"{error}.", "1 to 12 m")) from error
    cuts = [
        c.CutOut(
            part=s.part, length_m=s.length_m, cut_m=cut, x_size=s.x_size, diameter_mm=s.diameter_mm, material=s.material
        )
        for s, cut in zip(leader.sections, cut_lengths_m(leader), strict=True)
    ]
    pieces = [
        PieceDoc(length_m=p.length_m, diameter_mm=p.diameter_mm, material=p.material) for p in level_pieces(leader)
    ]
    return c.LeaderAnswer(
        cuts=cuts,
        pieces=pieces,
        flies_at_m=list(leader.flies_at_m),
        float_at_m=leader.sections[0].length_m if doc.style == "float" else None,
        length_m=leader.length_m,
    )


def float_answer(doc: SimulateRequest, angler: Angler) -> c.FloatCheckAnswer:
    """Return landing and load of a float rig for an angler. Raises InputError where there is no float."""
    rig, cast = rig_and_cast(doc)
    if rig.float_ is None:
        raise InputError(Problem("missing", "float", "There is no float on this rig.", "a float"))
    check = check_float(rig=rig, rod_m=angler.rod_m, arm_m=angler.arm_m, net_m=angler.net_m, cast_m=cast.cast_m)
    fields = {k: v for k, v in vars(check).items() if k not in ("cast_m", "advice")}
    return c.FloatCheckAnswer(
        **fields,
        farthest_cast_m=check.cast_m,
        rod_m=angler.rod_m,
        arm_m=angler.arm_m,
        net_m=angler.net_m,
        advice=list(check.advice),
    )


def _band(rig: Rig, cast: Cast, doubt: Doubt) -> c.BandPair:
    """The band where the count ends, or after a minute of sinking where there is hardly a count."""
    at = cast.countdown_s if cast.countdown_s >= SHORT_COUNT_S else 60.0
    point = sink_run(rig, cast, at, doubt=doubt).point
    p10, p90 = point.band_at(at)
    return c.BandPair(at_s=at, depth_m=point.at(at), p10_m=p10, p90_m=p90)


def calibrate_answer(doc: c.CalibrateRequest) -> c.CalibrateAnswer:
    """Return a timed line's or fly's speed and doubt, and how the band of a rig narrows with it.

    A timed fly takes the place of the rig's point fly; its weight follows from its speed squared. Raises InputError for a
    timing that cannot be, or a floating line.
    """
    timing = timed_fall(doc.distance_m, doc.seconds, doc.repeats)
    before = after = ratio = fitted = None
    if doc.rig is not None:
        rig, cast = rig_and_cast(doc.rig)
        usual = doubt_from(doc.rig, rig.line)
        before = _band(rig, cast, usual)
        if doc.what == "line":
            if rig.line.family == "floating":
                raise InputError(
                    Problem("contradiction", "rig.line.family", "A floating line does not sink.", "a sinking line")
                )
            ratio = timing.speed_m_s / (rig.line.label_ips * 0.0254) if rig.line.label_ips else None
            line = doc.rig.line.model_copy(update={"measured_m_s": timing.speed_m_s})
            fitted = doc.rig.model_copy(update={"line": line})
            doubt = replace(usual, rate=doubt_after(timing).rate)
        else:
            fitted = doc.rig.model_copy(update={"flies": _timed_point(doc.rig, timing.speed_m_s)})
            doubt = replace(usual, fly_weight=doubt_after(None, timing).fly_weight)
        after = _band(*rig_and_cast(fitted), doubt)
    share = round(100 * timing.doubt)
    sentence = f"{timing.speed_m_s * 100:.1f} cm a second, known to about {share} %."
    if ratio is not None and abs(ratio - 1) > 0.15:
        sentence += f" The box says {'less' if ratio > 1 else 'more'}: it sinks at {ratio:.2f} times its label."
    return c.CalibrateAnswer(
        speed_m_s=timing.speed_m_s,
        doubt=timing.doubt,
        label_ratio=ratio,
        before=before,
        after=after,
        rig=fitted,
        sentence=sentence,
    )


def _timed_point(rig: SimulateRequest, speed_m_s: float) -> list[TiedFly]:
    """The flies with the point fly's speed as timed, its weight scaled by the square (same dressing, same drag)."""
    flies = list(rig.flies)
    at = max(range(len(flies)), key=lambda n: flies[n].from_line_m)
    point = flies[at]
    known = abs(point.sink_m_s) > 1e-6
    weight = abs(point.submerged_g) * (speed_m_s / point.sink_m_s) ** 2 if known else 0.05
    flies[at] = replace(point, sink_m_s=speed_m_s, submerged_g=weight)
    return flies


def check_answer(doc: c.CheckRequest) -> c.CheckAnswer:
    """Return what a felt bottom or a cocked float says about the rig as entered. Raises InputError for a mismatch."""
    rig, cast = rig_and_cast(doc.rig)
    if doc.what == "bottom":
        if rig.float_ is not None:
            raise InputError(Problem("contradiction", "rig.float", "A float rig is checked by its float.", "cocked"))
        depth = min(z for _, z in cast.bed) if len(cast.bed) == 1 else max(z for _, z in cast.bed)
        run = sink_run(rig, cast, doubt=doubt_from(doc.rig, rig.line))
        outcome = check_bottom(run, depth - 0.02, doc.seen_s)
    else:
        outcome = _check_cocked(doc, rig, cast)
    return c.CheckAnswer(
        expected_s=outcome.expected_s,
        soonest_s=outcome.soonest_s,
        latest_s=outcome.latest_s,
        agrees=outcome.agrees,
        sentence=outcome.sentence,
    )


def _check_cocked(doc: c.CheckRequest, rig: Rig, cast: Cast) -> CheckOutcome:
    if rig.float_ is None:
        raise InputError(Problem("missing", "rig.float", "There is no float on this rig.", "a float"))
    usual = doubt_from(doc.rig, rig.line)
    times = []
    for factor in (1.0, 1 - usual.fly_weight, 1 + usual.fly_weight):
        flies = tuple(
            replace(f, submerged_g=f.submerged_g * factor, sink_m_s=f.sink_m_s * factor**0.5) for f in rig.flies
        )
        times.append(cocks_after_s(simulate_float(replace(rig, flies=flies), cast)))
    known = [t for t in times if t is not None]
    return judge(
        expected_s=times[0],
        soonest_s=min(known, default=None),
        latest_s=max(known, default=None),
        seen_s=doc.seen_s,
        what="the float to cock",
    )
