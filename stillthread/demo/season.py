"""A part-season of invented outings, written through the same services an angler's phone uses."""

from __future__ import annotations

import uuid
from datetime import UTC, date, datetime, time, timedelta
from typing import Any, Literal
from zoneinfo import ZoneInfo

import numpy as np

from stillthread.core.food.available import available_food
from stillthread.core.food.seen import Sighting
from stillthread.core.noted.reading import Reading
from stillthread.core.trout.size import standard_weight_kg
from stillthread.core.water.profile import Point
from stillthread.demo.pictures import drawn_fish, drawn_sounder, drawn_water
from stillthread.demo.places import DemoWater, invented_temperature_c
from stillthread.documents.plan_answer import SetUpOut
from stillthread.outings import services as outings
from stillthread.outings.models import Event, Outing
from stillthread.outings.photos import put_photo, put_picture
from stillthread.outings.schemas import EventBody, OutingBody, PhotoBody, SpellBody
from stillthread.plans import services as plans
from stillthread.plans.schemas import PlanBody
from stillthread.waters.schemas import ReadingBody, WaterOut
from stillthread.waters.services import put_reading
from stillthread.web.owned import get_owned

NAMESPACE = uuid.UUID("6f7f1d0e-3b0a-4d5e-9a53-5a1f6f3a0c11")


def _uuid(*parts: object) -> uuid.UUID:
    return uuid.uuid5(NAMESPACE, "/".join(str(part) for part in parts))


def invented_reading(
    water: DemoWater, out: WaterOut, day: date, rng: np.random.Generator, deep: bool = False
) -> Reading:
    """Return a day's invented reading: a profile every metre at the first place, or at the deepest spot; wind, cloud."""
    bed = min(out.max_depth_m - 2.0, 15.0) if deep else min(out.places[0].depth_max_m, 12.0)
    depths = [float(d) for d in range(int(bed) + 1)]
    weather_c = float(rng.normal(0, 0.7))
    return Reading(
        profile=tuple(Point(depth_m=d, temperature_c=invented_temperature_c(water, day, d, weather_c)) for d in depths),
        water_depth_m=bed,
        wind_m_s=round(float(rng.uniform(1.0, 6.5)), 1),
        wind_from_deg=float(rng.integers(0, 24) * 15),
        cloud_oktas=int(rng.integers(1, 9)),
        clarity=water.clarity,
    )


def write_reading(owner: Any, water: DemoWater, out: WaterOut, when: datetime, rng: np.random.Generator) -> ReadingBody:
    """Store an invented reading for a day and return it."""
    reading = invented_reading(water, out, when.date(), rng)
    likely = available_food(when, "north", reading.profile[1].temperature_c, reading.wind_m_s).top(3)
    sightings = (Sighting(prey=likely[int(rng.integers(3))].key, abundance="some"),)
    body = ReadingBody(place=out.places[0].name, taken_at=when, reading=reading, sightings=sightings)
    put_reading(owner, out.id, _uuid(owner.pk, out.id, when.date()), body)
    return body


def _spell(set_up: SetUpOut, index: int, shift: int, bed_m: float, start: datetime, end: datetime) -> SpellBody:
    """A stretch with a set-up, its count moved by `shift` times five seconds, or its float by `shift` feet."""
    first = SpellBody(**outings.begun(set_up, index).model_dump(), started_at=start, ended_at=end)
    if set_up.float_hang_m is not None:
        hang = round(float(np.clip(set_up.float_hang_m + 0.3 * shift, 0.3, bed_m - 0.1)), 1)
        return first.model_copy(update={"depth_m": hang, "low_m": hang, "high_m": hang})
    if set_up.count_s is None or set_up.estimate_m is None:
        return first
    last = len(set_up.sink_table) - 1
    count = int(np.clip(set_up.count_s + 5 * shift, 1, last))
    # The depth where it fishes, not where it is when the count ends: so much deeper or higher as the count puts it.
    planned, now = (set_up.sink_table[min(n, last)].depth_m or 0.0 for n in (set_up.count_s, count))
    deeper = now - planned
    depth, low, high = (
        round(float(np.clip(one + deeper, 0.1, bed_m - 0.1)), 2)
        for one in (set_up.estimate_m, set_up.low_m, set_up.high_m)
    )
    return first.model_copy(update={"count_s": count, "depth_m": depth, "low_m": low, "high_m": high})


def _taken(flies: list[str], rng: np.random.Generator) -> str:
    """Which fly of the team a fish took: here the point fly takes most, so that there is something to find out."""
    if not flies:
        return ""
    weights = np.array([0.6**n for n in range(len(flies))])
    return flies[int(rng.choice(len(flies), p=weights / weights.sum()))]


def _fish(rng: np.random.Generator) -> dict[str, Any]:
    """An invented fish in the net: mostly rainbows, most of them put back, every third weighed."""
    species: Literal["rainbow", "brown"] = "brown" if rng.uniform() < 0.25 else "rainbow"
    length = round(float(rng.normal(0.43 if species == "rainbow" else 0.38, 0.05)), 2)
    weight = (standard_weight_kg(species, length) or 0.0) * float(rng.normal(0.95, 0.08))
    return {
        "species": species,
        "length_m": length,
        "weight_kg": round(weight, 2) if rng.uniform() < 0.35 else None,
        "released": bool(rng.uniform() < 0.8),
    }


def _photos(owner: Any, outing: Outing, *, cloud_oktas: float, bed_m: float, rng: np.random.Generator) -> None:
    """Drawn photos of a day: the water when it began, the sounder, and the first fish in the net at its depth."""
    began = outing.started_at
    shown: list[tuple[PhotoBody, bytes]] = [
        (PhotoBody(shows="water", taken_at=began, note="First look"), drawn_water(cloud_oktas, rng)),
        (
            PhotoBody(shows="sounder", taken_at=began + timedelta(minutes=25), depth_m=round(0.9 * bed_m, 1)),
            drawn_sounder(bed_m, rng),
        ),
    ]
    fish = Event.objects.filter(spell__outing=outing, kind="landed", depth_m__isnull=False).first()
    if fish is not None:
        body = PhotoBody(shows="fish", taken_at=fish.occurred_at, depth_m=fish.depth_m, note=f"On the {fish.fly}")
        shown.append((body, drawn_fish(fish.length_m or 0.4, rng)))
    for number, (body, picture) in enumerate(shown):
        photo_id = _uuid(outing.pk, "photo", number)
        put_photo(owner, outing.pk, photo_id, body)
        put_picture(owner, photo_id, picture)


def _events(
    spell_id: uuid.UUID, spell: SpellBody, feeding_m: float, bed_m: float, rate: float, rng: np.random.Generator
) -> list[EventBody]:
    """Invented events: more of them the nearer the fly is to where the fish feed that day."""
    end = spell.ended_at or spell.started_at
    hours = (end - spell.started_at).total_seconds() / 3600
    depth = spell.depth_m or 0.0
    near = float(np.exp(-0.5 * ((depth - feeding_m) / 0.8) ** 2))
    made = []
    for kind, share in (
        ("take", 0.25),
        ("lost", 0.2),
        ("landed", 0.55),
        ("pluck", 0.5),
        ("follow", 0.15),
        ("weed", 0.12),
    ):
        expected = rate * hours * share * (near if kind != "weed" else 1.0)
        for _ in range(int(rng.poisson(expected))):
            at = spell.started_at + timedelta(hours=hours * float(rng.uniform(0.05, 0.98)))
            landed = kind == "landed"
            made.append(
                EventBody(
                    spell_id=spell_id,
                    kind=kind,
                    phase="float"
                    if spell.method == "float"
                    else str(rng.choice(["drop", "retrieve", "pause", "hang"])),
                    occurred_at=at,
                    depth_m=round(float(np.clip(depth + rng.normal(0, 0.2), 0.0, bed_m - 0.1)), 1),
                    low_m=spell.low_m,
                    high_m=spell.high_m,
                    fly=_taken(spell.flies, rng),
                    **(_fish(rng) if landed else {}),
                )
            )
    return made


def write_outing(
    owner: Any,
    water: DemoWater,
    out: WaterOut,
    day: date,
    rng: np.random.Generator,
    *,
    blank: bool = False,
    photographed: bool = False,
) -> None:
    """Plan, start and fish one invented day, a `blank` one without a touch, a `photographed` one with its pictures."""
    began = datetime.combine(day, time(9, 30), ZoneInfo(out.time_zone)).astimezone(UTC)
    reading = write_reading(owner=owner, water=water, out=out, when=began - timedelta(minutes=20), rng=rng)
    body = PlanBody(
        water_id=out.id, when=began, place=reading.place, reading=reading.reading, sightings=reading.sightings
    )
    plan = plans.keep(owner, _uuid(owner.pk, out.id, day, "plan"), body)
    if not plan.answer.set_ups:
        return
    outing_id, clock = _uuid(owner.pk, out.id, day, "outing"), began
    chosen = next(p for p in plan.answer.belief.places if p.place == plan.answer.belief.chosen)
    feeding = float(np.clip(chosen.peak_m + rng.normal(0, 0.6), 0.1, chosen.bed_m - 0.1))
    rate = 0.0 if blank else float(rng.gamma(1.3, 3.2))
    lasts = timedelta(hours=float(rng.uniform(2.5, 5.5)))
    note = str(rng.choice(["", "", "Cold hands, good light after lunch.", "Wind swung at noon.", "Fish came up late."]))
    outing = OutingBody(water_id=out.id, started_at=began, ended_at=began + lasts, note=note)
    outings.put_outing(owner, outing_id, outing, plan_id=plan.id, plan_snapshot=plan.answer.model_dump(mode="json"))
    number = 0
    while clock < began + lasts - timedelta(minutes=10):
        index = int(rng.integers(min(3, len(plan.answer.set_ups))))
        set_up = plan.answer.set_ups[index]
        end = min(clock + timedelta(minutes=int(rng.integers(20, 65))), began + lasts)
        shift = int(rng.integers(-2, 4))
        spell_id = _uuid(outing_id, number)
        spell = _spell(set_up=set_up, index=index, shift=shift, bed_m=chosen.bed_m, start=clock, end=end)
        outings.put_spell(owner, outing_id, spell_id, spell)
        for k, event in enumerate(
            _events(spell_id=spell_id, spell=spell, feeding_m=feeding, bed_m=chosen.bed_m, rate=rate, rng=rng)
        ):
            outings.put_event(owner, outing_id, _uuid(spell_id, k), event)
        clock, number = end, number + 1
    if photographed:
        _photos(
            owner,
            get_owned(Outing, owner, outing_id),
            cloud_oktas=reading.reading.cloud_oktas or 0,
            bed_m=chosen.bed_m,
            rng=rng,
        )


SEASON_OUTINGS = 16
PHOTOGRAPHED = 4  # the newest of them
BLANK_EVERY = 6  # an honest log has its blank days


def write_season(
    owner: Any, pairs: list[tuple[DemoWater, WaterOut]], today: date, seed: int, outings: int = SEASON_OUTINGS
) -> int:
    """Write that many outings over the eleven weeks before `today`, turn about on the waters; returns how many were written."""
    rng = np.random.default_rng(seed)
    before = Outing.objects.filter(owner=owner).count()
    for number in range(outings):
        day = today - timedelta(days=77 - number * 5 + int(rng.integers(-1, 2)))
        water, out = pairs[number % len(pairs)]
        blank = number % BLANK_EVERY == BLANK_EVERY - 1
        newest = number >= outings - PHOTOGRAPHED
        write_outing(owner=owner, water=water, out=out, day=day, rng=rng, blank=blank, photographed=newest)
    return Outing.objects.filter(owner=owner).count() - before
