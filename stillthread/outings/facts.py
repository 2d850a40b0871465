"""The log counted beforehand, so that what it is asked is summed in the database: kept up with what has changed since."""

from __future__ import annotations

import uuid
from collections import Counter, defaultdict
from collections.abc import Iterable
from datetime import datetime, timedelta
from typing import Any

from django.db import transaction
from django.db.models import Max, Q
from django.utils import timezone

from stillthread.core.evidence.rates import Stretch
from stillthread.core.noted.reading import sun_on
from stillthread.core.sky.bands import light_band, sun_part
from stillthread.core.sky.light import ripple_class
from stillthread.core.water.layers import find_thermocline
from stillthread.core.water.profile import temperature_at
from stillthread.flybox.models import Fly
from stillthread.outings.against_plan import against_plan
from stillthread.outings.conditions import Conditions, conditions_by_day, conditions_of, wind_point
from stillthread.outings.effort import bin_step_m, fish_of, live_events, live_spells, stretches
from stillthread.outings.models import Counted, Event, LogFact, Outing, OutingFact, OutingWords, Spell
from stillthread.waters.models import Reading, Water
from stillthread.waters.services import local_time
from stillthread.web.owned import live

RULES = 3  # raised when what is counted, or how, becomes another: every log is counted anew
OVERLAP = timedelta(seconds=3)  # a change is stamped a little before it can be seen by others
CHUNK, ROWS = 50, 200
HOURS_A_PART, DEGREES_A_STEP = 3, 2
CM_A_METRE = 100.0
DEPTH_UNITS = ("m", "ft")

Kinds = dict[str, list[Any]]
OF_WATER = ("name", "time_zone", "latitude_deg", "longitude_deg", "hemisphere")


def _waters(owner: Any) -> Kinds:
    """What of each water the count depends on."""
    return {str(pk): rest for pk, *rest in Water.objects.filter(owner=owner).values_list("pk", *OF_WATER)}


def _others(now: Kinds, before: Kinds) -> list[str]:
    """The keys under which now something else stands than before."""
    return [key for key in {*now, *before} if now.get(key) != before.get(key)]


def _kinds(owner: Any) -> Kinds:
    """What each fly of the box stands for, and its tone."""
    rows = live(Fly, owner).values_list("name", "prey", "tone")
    return {name: [prey[0] if prey else "", tone] for name, prey, tone in rows}


def by_depth(unit: str) -> str:
    """Return the name depths are sorted under for a unit of depth: the steps of metres and of feet lie elsewhere."""
    return f"depth_{unit}"


def depth_key(unit: str, depth_m: float) -> str:
    """Return the step a depth [m] lies in, counted from the surface."""
    return str(int(depth_m / bin_step_m(unit) + 1e-9))


def _step(value: float | None) -> str:
    return "" if value is None else str(int(value // DEGREES_A_STEP * DEGREES_A_STEP))


def _layer(depth_m: float | None, told: Conditions) -> str:
    """Where a depth [m] lies to the day's thermocline; empty where there was none, or it was not read."""
    found = find_thermocline(told.profile) if depth_m is not None and len(told.profile) > 1 else None
    if found is None or depth_m is None:
        return ""
    return "above" if depth_m < found.top_m else "below" if depth_m > found.bottom_m else "in"


def _by_tag(spell: Spell, key_of: Any) -> dict[str, tuple[int, int]]:
    """Takes and fish by what the flies are: a take whose fly was not noted counts for none, unless there was one alone."""
    flies = [name for name in spell.flies if name]
    found = {key_of(name): (0, 0) for name in flies}
    for event in fish_of(spell):
        fly = event.fly or (flies[0] if len(flies) == 1 else "")
        key = key_of(fly)
        if key in found:
            takes, landed = found[key]
            found[key] = takes + 1, landed + (event.kind == "landed")
    return {key: counts for key, counts in found.items() if key}


def _by_phase(spell: Spell) -> dict[str, tuple[int, int]]:
    fish = [event for event in fish_of(spell) if event.phase]
    landed = Counter(event.phase for event in fish if event.kind == "landed")
    return {phase: (takes, landed[phase]) for phase, takes in Counter(event.phase for event in fish).items()}


def _keys(spell: Spell, outing: Outing, told: Conditions) -> dict[str, str]:
    """What a stretch is put under, of all it has one of; empty where it was not noted."""
    local = local_time(outing.water, spell.started_at)
    sun, azimuth = sun_on(outing.water, local)  # type: ignore[arg-type]  # a row has what it looks at
    at_fly = None
    if spell.depth_m is not None and len(told.profile) > 1:
        at_fly = float(temperature_at(told.profile, [spell.depth_m])[0])
    return {
        "water": outing.water.name,
        "month": f"{local.month:02d}",
        "time": f"{local.hour // HOURS_A_PART * HOURS_A_PART:02d}",
        "sun": sun_part(sun, azimuth),
        "light": light_band(sun, told.cloud_oktas, ripple_class(told.wind_m_s)) or "",
        "depth": "" if spell.depth_m is None else f"{round(CM_A_METRE * spell.depth_m):05d}",
        **{by_depth(unit): "" if spell.depth_m is None else depth_key(unit, spell.depth_m) for unit in DEPTH_UNITS},
        "surface": _step(told.surface_c),
        "at_fly": _step(at_fly),
        "layer": _layer(spell.depth_m, told),
        "wind": wind_point(told),
        "place": spell.place,
        "method": spell.method,
        "line": spell.line_title,
        "pace": spell.pace,
    }


FATES = {True: "returned", False: "kept", None: ""}


def size_key(fish: Event) -> str:
    """Return what a landed fish is counted under: species, whole centimetres and what became of it, empty where not noted."""
    length = "" if fish.length_m is None else str(round(CM_A_METRE * fish.length_m))
    return f"{fish.species} {length} {FATES[fish.released]}"


def _sorted(outing: Outing, told: Conditions, efforts: list[tuple[Spell, Stretch]], kinds: Kinds) -> list[LogFact]:
    """An outing's effort, takes and fish under everything it may be sorted by."""
    sums: dict[tuple[str, str], list[float]] = defaultdict(lambda: [0.0, 0, 0])

    def add(by: str, key: str, hours: float, counts: tuple[int, int]) -> None:
        if key:
            row = sums[by, key]
            row[0], row[1], row[2] = row[0] + hours, row[1] + counts[0], row[2] + counts[1]

    for spell, effort in efforts:
        for by, key in _keys(spell, outing, told).items():
            add(by, key, effort.hours, (effort.takes, effort.landed))
        for event in fish_of(spell):
            if event.kind == "landed":
                add("size", size_key(event), 0.0, (0, 1))
        for by, found in (
            ("fly", _by_tag(spell, lambda name: name)),
            ("prey", _by_tag(spell, lambda name: kinds.get(name, ["", ""])[0])),
            ("tone", _by_tag(spell, lambda name: kinds.get(name, ["", ""])[1])),
            ("phase", _by_phase(spell)),
        ):
            for key, counts in found.items():
                add(by, key, effort.hours, counts)
    return [
        LogFact(
            fact_id=outing.pk,
            owner_id=outing.owner_id,
            by=by,
            key=key,
            hours=hours,
            takes=int(takes),
            landed=int(landed),
        )
        for (by, key), (hours, takes, landed) in sums.items()
    ]


def _words(outing: Outing, spells: list[Spell]) -> str:
    """Every word noted of an outing, small, for looking through."""
    texts = [outing.note, outing.water.name, *(s.title for s in spells), *(s.place for s in spells)]
    texts += [fly for s in spells for fly in s.flies]
    texts += [event.note for s in spells for event in live_events(s)]
    return "\n".join(texts).casefold()


def _stamp(outing: Outing) -> datetime:
    """When an outing, or anything in it, was changed last; uses what was prefetched."""
    spells = outing.spells.all()
    times = [
        outing.updated_at,
        *(s.updated_at for s in spells),
        *(e.updated_at for s in spells for e in s.events.all()),
    ]
    return max(times)


def _count_one(outing: Outing, told: Conditions, kinds: Kinds) -> tuple[OutingFact, OutingWords, list[LogFact]]:
    spells, efforts = live_spells(outing), stretches(outing)
    on = local_time(outing.water, outing.started_at).date()
    fact = OutingFact(
        outing=outing,
        owner_id=outing.owner_id,
        water_id=outing.water_id,
        on=on,
        month=on.month,
        started_at=outing.started_at,
        surface_c=told.surface_c,
        wind_m_s=told.wind_m_s,
        wind=wind_point(told),
        hours=sum(one.hours for one in efforts),
        takes=sum(one.takes for one in efforts),
        landed=sum(one.landed for one in efforts),
        plucks=sum(event.kind == "pluck" for spell in spells for event in live_events(spell)),
        methods=list(dict.fromkeys(spell.title for spell in spells)),
        stamp=_stamp(outing),
    )
    words = OutingWords(
        fact=fact,
        text=_words(outing, spells),
        readings=" ".join(map(str, told.readings)),
        plan=against_plan(outing, spells, efforts, told),
    )
    fished = [(spell, effort) for spell, effort in zip(spells, efforts, strict=True) if effort.hours > 0]
    return fact, words, _sorted(outing, told, fished, kinds)


def _count(owner: Any, ids: list[uuid.UUID], kinds: Kinds) -> None:
    """Count some outings anew; deleted ones go."""
    LogFact.objects.filter(fact_id__in=ids).delete()
    OutingFact.objects.filter(pk__in=ids).delete()
    outings = list(live(Outing, owner).filter(pk__in=ids).select_related("water").prefetch_related("spells__events"))
    if not outings:
        return
    times = [one.started_at for one in outings]
    around = min(times) - timedelta(days=2), max(times) + timedelta(days=2)
    by_day = conditions_by_day(owner, {one.water_id for one in outings}, around)
    counted = [_count_one(one, conditions_of(one, by_day), kinds) for one in outings]
    OutingFact.objects.bulk_create([fact for fact, _, _ in counted])
    OutingWords.objects.bulk_create([words for _, words, _ in counted])
    LogFact.objects.bulk_create([row for _, _, rows in counted for row in rows], batch_size=ROWS)


def _unchanged(ids: set[uuid.UUID]) -> set[uuid.UUID]:
    """Those of some outings whose last change is in their count already."""
    found: set[uuid.UUID] = set()
    listed = list(ids)
    for n in range(0, len(listed), ROWS):
        some = listed[n : n + ROWS]
        newest: dict[uuid.UUID, datetime] = {}
        for rows in (
            Outing.objects.filter(pk__in=some).values_list("pk", "updated_at"),
            Spell.objects.filter(outing_id__in=some).order_by().values_list("outing_id").annotate(Max("updated_at")),
            Event.objects.filter(spell__outing_id__in=some)
            .order_by()
            .values_list("spell__outing_id")
            .annotate(Max("updated_at")),
        ):
            for outing, at in rows:
                newest[outing] = max(at, newest.get(outing, at))
        counted = OutingFact.objects.filter(pk__in=some).values_list("pk", "stamp")
        found |= {outing for outing, stamp in counted if newest.get(outing) == stamp}
    return found


def _of_days(readings: Iterable[Reading]) -> set[uuid.UUID]:
    """The counted outings on the days of readings, and those they were counted for: a reading may have had another day."""
    found: set[uuid.UUID] = set()
    for row in readings:
        on = local_time(row.water, row.taken_at).date()
        facts = OutingFact.objects.filter(Q(on=on) | Q(words__readings__contains=str(row.pk)), water_id=row.water_id)
        found |= set(facts.values_list("pk", flat=True))
    return found


def _stale(owner: Any, mark: Counted | None, flies: Kinds, waters: Kinds) -> set[uuid.UUID]:
    """The outings whose count no longer holds."""
    mine = Outing.objects.filter(owner=owner)
    if mark is None or mark.rules != RULES:
        return set(mine.values_list("pk", flat=True))
    changed = {"owner": owner, "updated_at__gte": mark.at - OVERLAP}
    found = set(Outing.objects.filter(**changed).values_list("pk", flat=True))
    found |= set(Spell.objects.filter(**changed).values_list("outing_id", flat=True))
    found |= set(Event.objects.filter(**changed).values_list("spell__outing_id", flat=True))
    found -= _unchanged(found)
    found |= _of_days(Reading.objects.filter(**changed).select_related("water"))
    found |= set(mine.filter(water_id__in=_others(waters, mark.waters)).values_list("pk", flat=True))
    tagged = LogFact.objects.filter(owner=owner, by="fly", key__in=_others(flies, mark.flies))
    return found | set(tagged.values_list("fact_id", flat=True))


def bring_up(owner: Any) -> None:
    """Count what has changed in an angler's log since it was last asked."""
    now, flies, waters = timezone.now(), _kinds(owner), _waters(owner)
    mark = Counted.objects.filter(owner=owner).first()
    found = _stale(owner, mark, flies, waters)
    if mark is not None and not found and mark.flies == flies and mark.waters == waters:
        return
    begun = dict(Outing.objects.filter(owner=owner).values_list("pk", "started_at"))
    # In the order of their days: what was read about then is looked up once for some of them.
    stale = sorted(found & begun.keys(), key=lambda pk: begun[pk])
    for n in range(0, len(stale), CHUNK):
        with transaction.atomic():  # each short: nobody who writes has to wait long
            _count(owner, stale[n : n + CHUNK], flies)
    so_far = {"at": now, "rules": RULES, "flies": flies, "waters": waters}
    Counted.objects.update_or_create(owner=owner, defaults=so_far)


def forget_counts(owner: Any) -> None:
    """Have an angler's log counted anew from the ground: after much was written at once."""
    Counted.objects.filter(owner=owner).delete()
