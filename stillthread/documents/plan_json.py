"""From the plan document to the core's values, and from the core's plan to the document."""

from __future__ import annotations

import numpy as np

from stillthread.core.day.given import Angler, Before, HandMade, PlanInput, Read, Rules
from stillthread.core.day.schools import Schools
from stillthread.core.evidence.likeness import PastStretch
from stillthread.core.food.catalogue import BY_KEY
from stillthread.core.methods.model import ChangeOrder, Expected, SetUp
from stillthread.core.noted.reading import Reading
from stillthread.core.plan.model import Plan
from stillthread.core.sky.wind import downwind_shore
from stillthread.core.tackle.flies import Fly
from stillthread.core.tackle.fly_build import FlyBuild
from stillthread.core.tackle.lines import Line
from stillthread.core.thread.tables import FlyDepth
from stillthread.core.trout.belief import Effect, PlaceBelief, smallest_band
from stillthread.core.trout.factor import Factor
from stillthread.core.trout.factors import comfort_depth_m
from stillthread.core.trout.temperature import behaviour
from stillthread.core.units import beaufort_from_m_s
from stillthread.core.water.profile import temperature_at
from stillthread.documents import plan_contract as c
from stillthread.documents.day_contract import ComparedIn, HandMadeIn, PastStretchIn
from stillthread.documents.simulate_json import document_from
from stillthread.documents.water_json import reading_from, samples_from, sightings_from, water_from

SHOWN_FOODS = 6
LOG_DIGITS, MASS_DIGITS = 4, 7


def fly_from(doc: c.FlyIn) -> Fly:
    """Return the core's Fly."""
    build = FlyBuild(**doc.build.model_dump()) if doc.build else None
    hooks = tuple(doc.hooks)
    return Fly(doc.key, doc.name, tuple(doc.prey), hooks, doc.tone, doc.weight, doc.stock, doc.surface, build)


def plan_input_from(doc: c.PlanRequest) -> PlanInput:
    """Return the core's PlanInput for a whole document."""
    return PlanInput(
        when=doc.when,
        water=water_from(doc.water),
        reading=reading_from(doc.reading),
        sightings=sightings_from(doc.sightings),
        angler=_angler_from(doc.angler),
        lines=tuple(Line(**line.model_dump()) for line in doc.tackle.lines),
        flies=tuple(fly_from(fly) for fly in doc.flies),
        rules=Rules(**doc.rules.model_dump()),
        place=doc.place,
        samples=samples_from(doc.samples),
        schools=Schools(**doc.schools.model_dump()),
        aim=doc.aim,
        session_h=doc.session_h,
        own_log=tuple(past_from(one) for one in doc.own_log),
        without=frozenset(doc.without),
        found_m=doc.found_m,
        by_hand=tuple(_hand_made_from(one) for one in doc.by_hand),
        compared_with=_before_from(doc.compared_with) if doc.compared_with else None,
    )


def _before_from(doc: ComparedIn) -> Before:
    read = None
    if doc.read is not None:
        read = Read(
            doc.read.when,
            reading_from(doc.read.reading),
            sightings_from(doc.read.sightings),
            samples_from(doc.read.samples),
            doc.read.place,
        )
    return Before(Schools(**doc.schools.model_dump()), doc.aim, read)


def past_from(doc: PastStretchIn) -> PastStretch:
    """Return the core's stretch of past fishing."""
    values = doc.model_dump(exclude={"flies", "taken_on", "fished_h"})
    return PastStretch(**values, hours=doc.fished_h, flies=tuple(doc.flies), taken_on=tuple(doc.taken_on))


def _hand_made_from(doc: HandMadeIn) -> HandMade:
    values = doc.model_dump(exclude={"flies", "hooks"})
    return HandMade(**values, flies=tuple(doc.flies), hooks=tuple(doc.hooks))


def _angler_from(doc: c.AnglerIn) -> Angler:
    return Angler(**doc.model_dump(exclude={"methods"}), methods=tuple(doc.methods))


def _rounded(values: np.ndarray, digits: int) -> list[float]:
    return [round(float(v), digits) for v in values]


def _mm(depth_m: float | None) -> float | None:
    """A depth [m] to the millimetre: finer than any of them is known."""
    return None if depth_m is None else round(depth_m, 3)


def _factor_out(factor: Factor, effect: Effect | None) -> c.FactorOut:
    told = (
        {
            "moves_share": round(min(effect.moves, 1.0), 4),
            "without_top_m": effect.without_m[0],
            "without_bottom_m": effect.without_m[1],
            "without_place": effect.place,
        }
        if effect
        else {}
    )
    return c.FactorOut(
        name=factor.name,
        sentence=factor.sentence,
        known=factor.known,
        log_weight=_rounded(factor.log_weight, LOG_DIGITS),
        off=factor.off,
        **told,
    )


def _belief_out(belief: PlaceBelief, effects: dict[str, Effect]) -> c.PlaceBeliefOut:
    bands = []
    for share in (0.5, 0.8):
        top, bottom = smallest_band(belief, share)
        bands.append(c.BandOut(share=share, top_m=top, bottom_m=bottom))
    factors = [_factor_out(f, effects.get(f.name)) for f in belief.factors]
    mass = _rounded(belief.mass, MASS_DIGITS)
    mass[int(np.argmax(belief.mass))] += round(float(belief.mass.sum()), MASS_DIGITS) - sum(mass)
    return c.PlaceBeliefOut(
        place=belief.place.name,
        kind=belief.place.kind,
        bed_m=belief.bed_m,
        share=round(belief.share, MASS_DIGITS),
        peak_m=round(belief.peak_m, 2),
        depths_m=_rounded(belief.depths_m, 3),
        mass=mass,
        # The sum of the parts as they are told, so that they add up to it.
        log_score=_rounded(np.sum([f.log_weight for f in factors], axis=0), LOG_DIGITS),
        bands=bands,
        factors=factors,
    )


def _curve_out(reading: Reading, bed_m: float) -> c.CurveOut | None:
    if not reading.profile:
        return None
    z = np.linspace(0, bed_m, int(round(bed_m / 0.25)) + 2)
    t = temperature_at(reading.profile, z)
    points = [
        c.CurvePoint(depth_m=round(float(a), 3), temperature_c=round(float(b), 2)) for a, b in zip(z, t, strict=True)
    ]
    return c.CurveOut(points=points, measured_to_m=min(reading.profile[-1].depth_m, bed_m))


def _water_out(given: PlanInput, plan: Plan) -> c.WaterMeaning:
    reading, layer = given.reading, plan.thermocline
    says = behaviour(reading.surface_c) if reading.surface_c is not None else (None, None)
    wind = reading.wind_from_deg
    return c.WaterMeaning(
        temperature=_curve_out(reading, plan.chosen.bed_m),
        thermocline_m=round(layer.depth_m, 2) if layer else None,
        thermocline_top_m=layer.top_m if layer else None,
        thermocline_bottom_m=layer.bottom_m if layer else None,
        sun_elevation_deg=round(plan.light.sun_elevation_deg, 1),
        light_surface=round(plan.light.surface, 4),
        light_comfort_m=round(comfort_depth_m(plan.light), 2),
        secchi_m=plan.light.secchi_m,
        beaufort=beaufort_from_m_s(reading.wind_m_s) if reading.wind_m_s is not None else None,
        downwind_shore=downwind_shore(wind) if wind is not None else None,
        behaviour=says[0],
        approach=says[1],
        welfare=plan.welfare.level if plan.welfare else None,
        welfare_sentence=plan.welfare.sentence if plan.welfare else None,
        food=[
            c.PreyOut(
                key=prey.key,
                name=prey.name,
                share=round(plan.food.share[prey.key], 4),
                season_share=round(plan.food.season_share[prey.key], 4),
                about=BY_KEY[prey.key].about,
            )
            for prey in plan.food.top(SHOWN_FOODS)
        ],
    )


def _table_out(table: tuple[FlyDepth, ...]) -> list[c.DepthAtOut]:
    return [
        c.DepthAtOut(t_s=d.t_s, depth_m=_mm(d.depth_m), low_m=_mm(d.low_m), high_m=_mm(d.high_m), touching=d.touching)
        for d in table
    ]


def _set_up_out(s: SetUp) -> c.SetUpOut:
    return c.SetUpOut(
        method=s.method,  # the core's METHODS are this enum
        title=s.title,
        line_key=s.line.key,
        line_title=s.line.title,
        leader=[
            c.SectionOut(
                part=p.part, length_m=p.length_m, x_size=p.x_size, diameter_mm=p.diameter_mm, material=p.material
            )
            for p in s.leader.sections
        ],
        leader_length_m=s.leader.length_m,
        flies=[
            c.PlacedFlyOut(
                key=f.fly.key,
                name=f.fly.name,
                position=f.position,
                hook=f.hook,
                from_line_m=f.from_line_m,
                depth_m=f.depth_m,
                why=f.why,
            )
            for f in s.flies
        ],
        place=s.place,
        target_m=s.target_m,
        low_m=s.low_m,
        high_m=s.high_m,
        estimate_m=s.estimate_m,
        count_s=s.count_s,
        float_hang_m=s.float_hang_m,
        float_kind=s.float_kind,
        retrieve=c.RetrieveOut(**vars(s.retrieve)),
        cast_m=s.cast_m,
        relative=s.relative,
        sink_table=_table_out(s.sink_table),
        depth_note=s.depth_note,
        reasons=[c.ReasonOut(**vars(r)) for r in s.reasons],
        watch_for=s.watch_for,
        cautions=[c.CautionOut(**vars(x)) for x in s.cautions],
        fallback=s.fallback,
        runs_top_m=s.runs_m[0] if s.runs_m else None,
        runs_bottom_m=s.runs_m[1] if s.runs_m else None,
        simulate=document_from(s.rig, s.cast) if s.rig and s.cast else None,
        key=s.key,
        style=s.style,
        rigging_s=round(60 * s.rigging_min),
        rod=s.rod,
        stance=s.stance,
        ladder=[c.RungOut(**vars(rung)) for rung in s.ladder],
        changes=_changes_out(s.changes),
        expected=_expected_out(s.expected) if s.expected else None,
        by_hand=s.by_hand,
        tracks=[
            c.TraceOut(position=t.position, t_s=[a for a, _ in t.points], depth_m=[b for _, b in t.points])
            for t in s.tracks
        ],
    )


def _changes_out(order: ChangeOrder) -> c.ChangesOut:
    return c.ChangesOut(
        plucks=list(order.plucks),
        follows=list(order.follows),
        nothing=list(order.nothing),
        next_flies=[c.NextFlyOut(name=name, why=why) for name, why in order.next_flies],
        next_paces=list(order.next_paces),  # the core's retrieves are these
    )


def _expected_out(one: Expected) -> c.ExpectedOut:
    return c.ExpectedOut(
        takes_per_h=round(one.per_hour, 3),
        low_per_h=round(one.low, 3),
        high_per_h=round(one.high, 3),
        session_takes=round(one.session, 2),
    )


def plan_answer(given: PlanInput, plan: Plan) -> c.PlanAnswer:
    """Return the answer document for a plan and the input it was made from."""
    chosen = plan.chosen.place.name
    effects = {effect.factor: effect for effect in plan.effects}
    return c.PlanAnswer(
        belief=c.BeliefOut(
            chosen=chosen, places=[_belief_out(b, effects if b.place.name == chosen else {}) for b in plan.beliefs]
        ),
        water=_water_out(given, plan),
        set_ups=[_set_up_out(s) for s in plan.set_ups],
        ruled_out=[c.RuledOutOut(**vars(r)) for r in plan.ruled_out],
        cautions=[c.CautionOut(**vars(x)) for x in plan.cautions],
        guessed=list(plan.guessed),
        pair=c.PairOut(**vars(plan.pair)) if plan.pair else None,
        changed=list(plan.changed) if plan.changed is not None else None,
        moved_by=list(plan.moved_by),
    )
