"""From the simulate document to the core's rig and cast, and from the core's result to the document."""

from __future__ import annotations

import math

from stillthread.core.casts.band import Doubt
from stillthread.core.casts.calibrate import doubt_of
from stillthread.core.casts.cast import Cast, NotConvergedError, check_cast, level_bed
from stillthread.core.casts.float_rig import cocks_after_s, hang_m, hung_after_s
from stillthread.core.casts.retrieve import usual_pull
from stillthread.core.casts.track import CastResult, FlyTrack
from stillthread.core.day.paths import IN_MEMORY, Paths
from stillthread.core.errors import InputError, Problem
from stillthread.core.tackle.floats import check_float
from stillthread.core.tackle.lines import Line
from stillthread.core.tackle.rig import Float, Piece, Rig, load_g
from stillthread.core.thread.chain import RANKING, Detail
from stillthread.core.thread.line_weight import label_doubt
from stillthread.documents.thread import simulate_contract as c

STEADY_DRIFT_M_S = 0.6  # a thread towed faster may find no balance

HOLD_S, FLOAT_HOLD_S = 60.0, 120.0
MOST_TRACK_POINTS = 400
NOT_IN_MODEL = "Not in the model: a greased leader held by the film, wind drift below the surface, line memory, the bow seen from above."
ROD, ARM, NET = 2.9, 0.6, 0.6  # an ordinary angler, where only load and cast distance are asked


def line_from(doc: c.LineDoc) -> Line:
    """Return the core's Line. Raises InputError where family, rate and tip contradict each other."""
    found = []
    if doc.family == "floating" and doc.label_ips:
        found.append(Problem("contradiction", "line.label_ips", "A floating line has no sink rate.", "0"))
    if doc.family != "floating" and doc.measured_m_s is None and doc.label_ips < 0.3:
        found.append(Problem("out_of_range", "line.label_ips", "A sinking line needs its rate.", "0.3 to 10 in/s"))
    if (doc.family == "sink-tip") != (doc.tip_length_m is not None):
        said = "A sink tip needs its length." if doc.tip_length_m is None else "Only a sink tip has a tip length."
        found.append(Problem("contradiction", "line.tip_length_m", said, "0.3 to 10 m for a sink tip, else left out"))
    if found:
        raise InputError(found)
    return Line(
        key="bench",
        family=doc.family,
        label_ips=doc.label_ips,
        weight_class=doc.weight_class,
        tip_length_m=doc.tip_length_m or 0.0,
        measured_m_s=doc.measured_m_s,
        density_profile=doc.density_profile,
        length_m=doc.length_m,
    )


def rig_from(doc: c.SimulateRequest, line: Line) -> Rig:
    """Return the core's Rig on a line."""
    held = doc.float
    return Rig(
        line,
        tuple(Piece(p.length_m, p.diameter_mm, p.material, p.sink_m_s) for p in doc.leader),
        tuple(doc.flies),
        Float(held.type, held.line, held.from_line_m, held.buoyancy_g) if held else None,
    )


def _bed_from(doc: c.SimulateRequest) -> tuple[tuple[float, float], ...]:
    if (doc.bed is None) == (doc.water_depth_m is None):
        said = "Neither a water depth nor a bed is given." if doc.bed is None else "Give the water depth or the bed."
        raise InputError(Problem("missing", "water_depth_m", said, "water_depth_m, or bed, not both"))
    if doc.water_depth_m is not None:
        if not doc.water_depth_m > 0:
            raise InputError(Problem("dry", "water_depth_m", "There is no water here.", "more than 0 m"))
        return level_bed(doc.water_depth_m)
    return tuple((x, depth) for x, depth in doc.bed or ())


def _target(doc: c.SimulateRequest) -> None:
    if doc.target_band_m is not None and doc.target_band_m[0] >= doc.target_band_m[1]:
        raise InputError(Problem("unsorted", "target_band_m", "The band is upside down.", "[top, bottom], top smaller"))


def cast_from(doc: c.SimulateRequest) -> Cast:
    """Return the core's Cast. Raises InputError for no bed, two beds, or a custom pace without its speed."""
    hold = doc.hold_s if doc.hold_s is not None else (FLOAT_HOLD_S if doc.float else HOLD_S)
    pull = doc.retrieve
    if pull.kind == "custom" and pull.speed_m_s is None:
        raise InputError(Problem("missing", "retrieve.speed_m_s", "A custom retrieve needs its speed.", "0 to 2 m/s"))
    return Cast(
        cast_m=doc.cast_m,
        bed=_bed_from(doc),
        countdown_s=doc.countdown_s,
        pull=usual_pull(pull.kind, pull.speed_m_s, pull.pull_m, pull.pause_s),
        slack=doc.slack,
        temperature_c=doc.water_temperature_c,
        wind_m_s=doc.wind.along_cast_m_s if doc.wind else 0.0,
        drift_m_s=doc.drift_m_s,
        hold_s=hold,
        hang_s=doc.hang_s,
        most_s=doc.lift_off_after_s or math.inf,
    )


def doubt_from(doc: c.SimulateRequest, line: Line) -> Doubt:
    """Return the doubt to use: as given, else by whether the line was timed."""
    usual, given = doubt_of(line), doc.doubt
    return Doubt(
        usual.rate if given.line_rate is None else given.line_rate,
        usual.fly_weight if given.fly_weight is None else given.fly_weight,
        usual.drag if given.drag is None else given.drag,
    )


def rig_and_cast(doc: c.SimulateRequest) -> tuple[Rig, Cast]:
    """Return rig and cast. Raises InputError with every problem of both at once."""
    found: list[Problem] = []
    line, cast = Line(key="bench", family="floating"), Cast(doc.cast_m, countdown_s=doc.countdown_s, slack=doc.slack)
    steps = (lambda: line_from(doc.line), lambda: _target(doc), lambda: cast_from(doc))
    done: list[object] = []
    for step in steps:
        try:
            done.append(step())
        except InputError as error:
            found += error.problems
            done.append(None)
    if isinstance(done[0], Line):
        line = done[0]
    if isinstance(done[2], Cast):
        cast = done[2]
    rig = rig_from(doc, line)
    try:
        check_cast(rig, cast)
    except InputError as error:
        found += error.problems
    if found:
        raise InputError(found)
    return rig, cast


def document_from(rig: Rig, cast: Cast) -> c.SimulateRequest:
    """Return the simulate document of a rig and a cast."""
    line, held, pull = rig.line, rig.float_, cast.pull
    return c.SimulateRequest(
        line=c.LineDoc(
            family=line.family,  # the core's FAMILIES are this enum
            label_ips=line.label_ips,
            weight_class=line.weight_class,
            tip_length_m=line.tip_length_m or None,
            measured_m_s=line.measured_m_s,
            density_profile=line.density_profile,
            length_m=line.length_m,
        ),
        leader=[c.PieceDoc(**vars(piece)) for piece in rig.leader],
        flies=list(rig.flies),
        float=c.FloatDoc(type=held.kind, line=held.line, from_line_m=held.from_line_m, buoyancy_g=held.buoyancy_g)
        if held
        else None,
        cast_m=cast.cast_m,
        slack=cast.slack,
        water_depth_m=cast.bed[0][1] if len(cast.bed) == 1 else None,
        bed=[list(point) for point in cast.bed] if len(cast.bed) > 1 else None,
        water_temperature_c=cast.temperature_c,
        countdown_s=cast.countdown_s,
        retrieve=c.PullDoc(
            kind=pull.kind, speed_m_s=pull.speed_m_s or None, pull_m=pull.pull_m or None, pause_s=pull.pause_s or None
        ),
        wind=c.WindDoc(along_cast_m_s=cast.wind_m_s) if cast.wind_m_s else None,
        drift_m_s=cast.drift_m_s,
        hold_s=cast.hold_s,
        hang_s=cast.hang_s,
        lift_off_after_s=cast.most_s if math.isfinite(cast.most_s) else None,
    )


def _track_out(track: FlyTrack, result: CastResult, doc: c.SimulateRequest) -> c.FlyTrackOut:
    every = max(1, -(-len(track.t_s) // MOST_TRACK_POINTS))
    keep = sorted({*range(0, len(track.t_s), every), len(track.t_s) - 1})
    columns = (track.t_s, track.x_m, track.depth_m, track.p10_m, track.p90_m)
    low, high = track.between(result.countdown_s, result.end_s)
    cells, seconds = track.exposure()
    band = doc.target_band_m
    return c.FlyTrackOut(
        name=track.name,
        track=[[round(float(column[k]), 3) for column in columns] for k in keep],
        at_countdown_m=round(track.at(result.countdown_s), 3),
        min_m=round(low, 3),
        max_m=round(high, 3),
        exposure=[[round(float(z), 2), round(float(s), 2)] for z, s in zip(cells, seconds, strict=True) if s > 0],
        time_in_band_s=round(track.time_in(band[0], band[1]), 1) if band else None,
        film_retrieve_m=0.0,
    )


def _float_out(rig: Rig, cast: Cast, result: CastResult) -> c.FloatOut | None:
    if rig.float_ is None:
        return None
    cocks = cocks_after_s(result)
    check = check_float(rig=rig, rod_m=ROD, arm_m=ARM, net_m=NET, cast_m=cast.cast_m)
    landing = [one for one in check.advice if "cannot be landed" not in one]  # the reach is not in this document
    return c.FloatOut(
        set_m=round(hang_m(rig), 3),
        real_m=round(float(result.point.depth_m[-1]), 3),
        load_g=round(load_g(rig), 3),
        cocks_after_s=None if cocks is None else round(cocks, 1),
        hangs_after_s=round(hung_after_s(result), 1),
        advice=landing,
    )


def notes_for(rig: Rig, result: CastResult) -> list[str]:
    """Return what the angler should know about this run, in words."""
    notes = list(result.notes)
    flagged = label_doubt(rig.line)
    if flagged:
        notes.append(flagged)
    touch = result.bottom
    if touch:
        when = "on the count" if touch.t_s <= result.countdown_s else "on the retrieve"
        notes.append(f"{touch.fly} touches the bottom {when}, {touch.t_s:.0f} s after landing: snags and weed there.")
    film = result.film_retrieve_m[-1]
    if film > 0.5:
        notes.append(f"{result.flies[-1].name} stays in the film for {film:.1f} m of the retrieve.")
    return [*notes, NOT_IN_MODEL]


def simulate_answer(doc: c.SimulateRequest, detail: Detail = RANKING, paths: Paths = IN_MEMORY) -> c.SimulateAnswer:
    """Return the answer to a simulate document.

    Raises InputError with every fault by path; a thread that finds no balance is told as not converged.
    """
    rig, cast = rig_and_cast(doc)
    try:
        result = paths.whole(rig, cast, detail, doubt_from(doc, rig.line) if doc.band else None)
    except NotConvergedError as error:
        said = f"The thread found no balance {error.t_s:.1f} s after landing; no path is shown."
        fast = abs(cast.drift_m_s or 0.0) > STEADY_DRIFT_M_S
        path, accepted = (
            ("drift_m_s", f"up to {STEADY_DRIFT_M_S:g} m/s") if fast else ("flies", "a rig a little different")
        )
        raise InputError(
            Problem("not_converged", path, said, accepted, hint="Change it a little and try again.")
        ) from error
    except ValueError as error:
        if isinstance(error, InputError):
            raise
        raise InputError(Problem("out_of_range", "retrieve", f"{error}.", "a longer pull")) from error
    touch = result.bottom
    flies = [_track_out(t, result, doc) for t in result.flies]
    flies = [
        f.model_copy(update={"film_retrieve_m": round(m, 2)})
        for f, m in zip(flies, result.film_retrieve_m, strict=True)
    ]
    return c.SimulateAnswer(
        flies=flies,
        bottom=c.TouchOut(t_s=round(touch.t_s, 2), x_m=round(touch.x_m, 2), fly=touch.fly) if touch else None,
        line_track=[
            c.ShapeOut(t_s=round(s.t_s, 2), points=[list(point) for point in s.points]) for s in result.shapes()
        ],
        countdown_s=result.countdown_s,
        fished_to_s=round(result.fished_to_s, 2),
        end_s=round(result.end_s, 2),
        float=_float_out(rig, cast, result),
        notes=notes_for(rig, result),
    )
