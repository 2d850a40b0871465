"""What `./still plan` prints: the answer's contract, and how it is made from the core's plan."""

from __future__ import annotations

from typing import Annotated, Literal

import numpy as np

from stillthread.core.belief.belief import Effect, PlaceBelief, smallest_band
from stillthread.core.belief.light_factor import comfort_depth_m
from stillthread.core.day.given import PlanInput, Style
from stillthread.core.day.model import Reason, Retrieve, RuledOut
from stillthread.core.food.catalogue import BY_KEY
from stillthread.core.limits import Said, Share
from stillthread.core.noted.reading import Reading
from stillthread.core.plan.model import Pair, Plan
from stillthread.core.reading.cautions import Caution
from stillthread.core.setup.model import ChangeOrder, Expected, Rung, SetUp
from stillthread.core.sky.wind import downwind_shore
from stillthread.core.trout.temperature import behaviour
from stillthread.core.units import beaufort_from_m_s
from stillthread.core.vocabulary import Method, Pace
from stillthread.core.water.profile import temperature_at
from stillthread.documents.strict import FourDigits, Fraction, Hundredths, Strict, Tenths, Thousandths, Whole, told
from stillthread.documents.thread.simulate_contract import SimulateRequest
from stillthread.documents.thread.simulate_json import document_from

SHOWN_FOODS = 6
MASS_DIGITS = 7


class Band(Strict):
    """A run of depths holding a share of the belief."""

    share: Share
    top_m: float
    bottom_m: float


class FactorOut(Strict):
    """One factor of the belief; `log_weight` per cell, `known` false where it is flat or guessed, `off` where switched off.

    `moves_share` is how much of all belief it moves; `without_*` half the belief at the place, and the likeliest place,
    with it neutral (given for the place planned for).
    """

    name: str
    sentence: str
    known: bool
    log_weight: tuple[FourDigits, ...]
    off: bool = False
    moves_share: Fraction | None = None
    without_top_m: float | None = None
    without_bottom_m: float | None = None
    without_place: str | None = None


class PlaceBeliefOut(Strict):
    """Belief at one place: mass per 0.1 m cell (all places sum to 1), bands, and the factors that add up to it."""

    place: str
    kind: str
    bed_m: float
    share: float
    peak_m: Hundredths
    depths_m: tuple[Thousandths, ...]
    mass: tuple[float, ...]
    log_score: tuple[FourDigits, ...]
    bands: tuple[Band, ...]
    factors: tuple[FactorOut, ...]


class BeliefOut(Strict):
    """Belief over all places, and the one planned for."""

    chosen: str
    places: tuple[PlaceBeliefOut, ...]


class CurvePoint(Strict):
    """One point of the curve."""

    depth_m: Thousandths
    temperature_c: Hundredths


class Curve(Strict):
    """The temperature curve at the place; guessed below `measured_to_m`."""

    points: tuple[CurvePoint, ...]
    measured_to_m: float


class PreyShare(Strict):
    """A food and its share now, with the share by season alone."""

    key: str
    name: str
    share: Fraction
    season_share: Fraction
    about: str


class WaterMeaning(Strict):
    """What the water means today."""

    temperature: Curve | None
    thermocline_m: Hundredths | None
    thermocline_top_m: float | None
    thermocline_bottom_m: float | None
    sun_elevation_deg: Tenths
    light_surface: FourDigits
    light_comfort_m: Hundredths
    secchi_m: float
    beaufort: int | None
    downwind_shore: str | None
    behaviour: str | None
    approach: str | None
    welfare: str | None
    welfare_sentence: str | None
    food: tuple[PreyShare, ...]


class SectionOut(Strict):
    """One piece of the cut list."""

    part: str
    length_m: float
    x_size: int | None
    diameter_mm: float | None
    material: str


class PlacedFlyOut(Strict):
    """A fly at its position on the leader; depth where it is computed."""

    key: str
    name: str
    position: str
    hook: int
    from_line_m: float
    depth_m: float | None
    why: str


class DepthAt(Strict):
    """Where the point fly is `t_s` seconds after the line lands: estimate (None where none is made) and band."""

    t_s: float
    depth_m: Thousandths | None
    low_m: Thousandths | None
    high_m: Thousandths | None
    touching: bool


class TraceOut(Strict):
    """The path of one fly through a cast, for a picture."""

    position: str
    t_s: tuple[float, ...]
    depth_m: tuple[float, ...]


class NextFly(Strict):
    """A fly to put on next, and what it is against the one on now."""

    name: str
    why: str


class Changes(Strict):
    """What to change, one thing at a time, in order."""

    plucks: tuple[str, ...]
    follows: tuple[str, ...]
    nothing: tuple[str, ...]
    next_flies: tuple[NextFly, ...] = ()
    next_paces: tuple[Pace, ...] = ()


class ExpectedOut(Strict):
    """Takes an hour by the own log's like days, with the 95 % interval, and over the session."""

    takes_per_h: Thousandths
    low_per_h: Thousandths
    high_per_h: Thousandths
    session_takes: Hundredths


class SetUpOut(Strict):
    """A set-up with the numbers to do it."""

    method: Method
    title: str
    line_key: str
    line_title: str
    leader: tuple[SectionOut, ...]
    leader_length_m: float
    flies: tuple[PlacedFlyOut, ...]
    place: str
    target_m: float
    low_m: float
    high_m: float
    estimate_m: float | None
    count_s: int | None
    float_hang_m: float | None
    float_kind: Literal["fixed", "release", "sliding"] | None
    retrieve: Retrieve
    cast_m: float
    relative: float
    sink_table: tuple[DepthAt, ...]
    depth_note: str
    reasons: tuple[Reason, ...]
    watch_for: str
    cautions: tuple[Caution, ...]
    fallback: str
    runs_top_m: Annotated[float | None, Said("shallowest the point fly runs while it is fished")] = None
    runs_bottom_m: Annotated[float | None, Said("deepest it runs")] = None
    simulate: Annotated[SimulateRequest | None, Said("the same rig and cast for ./still simulate")] = None
    key: Annotated[str, Said("names the set-up within the plan")] = ""
    style: Annotated[Style, Said("the way within the method")] = "team"
    rigging_s: Annotated[Whole | None, Said("seconds to tie it on")] = None
    rod: Annotated[int | None, Said("the rod it stands rigged on")] = None
    stance: str = ""
    ladder: tuple[Rung, ...] = ()
    changes: Changes | None = None
    expected: ExpectedOut | None = None
    by_hand: Annotated[int | None, Said("number of the hand-made set-up it is")] = None
    tracks: tuple[TraceOut, ...] = ()


class PlanAnswer(Strict):
    """What `./still plan` prints."""

    version: Literal[1] = 1
    belief: BeliefOut
    water: WaterMeaning
    set_ups: tuple[SetUpOut, ...]
    ruled_out: tuple[RuledOut, ...]
    cautions: tuple[Caution, ...]
    guessed: tuple[str, ...]
    pair: Pair | None = None
    changed: Annotated[tuple[str, ...] | None, Said("what is another than in the plan it is compared with")] = None
    moved_by: Annotated[tuple[str, ...], Said("what was read otherwise, and what moved the depth")] = ()


def _factors_out(belief: PlaceBelief, effects: dict[str, Effect]) -> tuple[FactorOut, ...]:
    found = []
    for factor in belief.factors:
        effect, more = effects.get(factor.name), {}
        if effect is not None:
            more = {
                "moves_share": min(effect.moves, 1.0),
                "without_top_m": effect.without_m[0],
                "without_bottom_m": effect.without_m[1],
                "without_place": effect.place,
            }
        found.append(told(FactorOut, factor, log_weight=factor.log_weight.tolist(), **more))
    return tuple(found)


def _belief_out(belief: PlaceBelief, effects: dict[str, Effect]) -> PlaceBeliefOut:
    bands = []
    for share in (0.5, 0.8):
        top, bottom = smallest_band(belief, share)
        bands.append(Band(share=share, top_m=top, bottom_m=bottom))
    factors = _factors_out(belief, effects)
    mass = [round(float(m), MASS_DIGITS) for m in belief.mass]
    mass[int(np.argmax(belief.mass))] += round(float(belief.mass.sum()), MASS_DIGITS) - sum(mass)
    return told(
        PlaceBeliefOut,
        belief,
        place=belief.place.name,
        kind=belief.place.kind,
        share=round(belief.share, MASS_DIGITS),
        depths_m=belief.depths_m.tolist(),
        mass=mass,
        # The sum of the parts as they are told, so that they add up to it.
        log_score=np.sum([f.log_weight for f in factors], axis=0).tolist(),
        bands=bands,
        factors=factors,
    )


def _curve_out(reading: Reading, bed_m: float) -> Curve | None:
    if not reading.profile:
        return None
    z = np.linspace(0, bed_m, int(round(bed_m / 0.25)) + 2)
    t = temperature_at(reading.profile, z)
    points = tuple(CurvePoint(depth_m=float(a), temperature_c=float(b)) for a, b in zip(z, t, strict=True))
    return Curve(points=points, measured_to_m=min(reading.profile[-1].depth_m, bed_m))


def _water_out(given: PlanInput, plan: Plan) -> WaterMeaning:
    reading, layer, food = given.reading, plan.thermocline, plan.food
    says = behaviour(reading.surface_c) if reading.surface_c is not None else (None, None)
    wind = reading.wind_from_deg
    return WaterMeaning(
        temperature=_curve_out(reading, plan.chosen.bed_m),
        thermocline_m=layer.depth_m if layer else None,
        thermocline_top_m=layer.top_m if layer else None,
        thermocline_bottom_m=layer.bottom_m if layer else None,
        sun_elevation_deg=plan.light.sun_elevation_deg,
        light_surface=plan.light.surface,
        light_comfort_m=comfort_depth_m(plan.light),
        secchi_m=plan.light.secchi_m,
        beaufort=beaufort_from_m_s(reading.wind_m_s) if reading.wind_m_s is not None else None,
        downwind_shore=downwind_shore(wind) if wind is not None else None,
        behaviour=says[0],
        approach=says[1],
        welfare=plan.welfare.level if plan.welfare else None,
        welfare_sentence=plan.welfare.sentence if plan.welfare else None,
        food=tuple(
            told(PreyShare, BY_KEY[p.key], share=food.share[p.key], season_share=food.season_share[p.key])
            for p in food.top(SHOWN_FOODS)
        ),
    )


def set_up_out(s: SetUp) -> SetUpOut:
    """Return a set-up as documents tell it."""
    top, bottom = s.runs_m or (None, None)
    return told(
        SetUpOut,
        s,
        line_key=s.line.key,
        line_title=s.line.title,
        leader=[told(SectionOut, section) for section in s.leader.sections],
        leader_length_m=s.leader.length_m,
        flies=[told(PlacedFlyOut, placed, key=placed.fly.key, name=placed.fly.name) for placed in s.flies],
        sink_table=[told(DepthAt, row) for row in s.sink_table],
        runs_top_m=top,
        runs_bottom_m=bottom,
        simulate=document_from(s.rig, s.cast) if s.rig and s.cast else None,
        rigging_s=60 * s.rigging_min,
        changes=_changes_out(s.changes),
        expected=_expected_out(s.expected) if s.expected else None,
        tracks=[
            TraceOut(position=t.position, t_s=tuple(a for a, _ in t.points), depth_m=tuple(b for _, b in t.points))
            for t in s.tracks
        ],
    )


def _changes_out(order: ChangeOrder) -> Changes:
    return told(Changes, order, next_flies=[NextFly(name=name, why=why) for name, why in order.next_flies])


def _expected_out(one: Expected) -> ExpectedOut:
    return ExpectedOut(takes_per_h=one.per_hour, low_per_h=one.low, high_per_h=one.high, session_takes=one.session)


def plan_answer(given: PlanInput, plan: Plan) -> PlanAnswer:
    """Return the answer document for a plan and the input it was made from."""
    chosen = plan.chosen.place.name
    effects = {effect.factor: effect for effect in plan.effects}
    places = tuple(_belief_out(b, effects if b.place.name == chosen else {}) for b in plan.beliefs)
    return told(
        PlanAnswer,
        plan,
        belief=BeliefOut(chosen=chosen, places=places),
        water=_water_out(given, plan),
        set_ups=[set_up_out(s) for s in plan.set_ups],
    )
