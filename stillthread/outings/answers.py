"""What the log says by any of what was noted: effort, takes and rates, and two of anything against each other."""

from __future__ import annotations

from collections import Counter, defaultdict
from typing import Any

from django.db.models import QuerySet, Sum

from stillthread.accounts.services import angler_of
from stillthread.core.evidence.compare import Both, in_words, rate_ratio
from stillthread.core.evidence.rates import Stretch, poisson_rate
from stillthread.outings.answers_schemas import AnswersOut, By, CaughtOut, ComparedOut, FishOut, GroupOut, LogFilter
from stillthread.outings.effort import bin_step_m
from stillthread.outings.facts import DEGREES_A_STEP, HOURS_A_PART, bring_up, by_depth
from stillthread.outings.models import LogFact, OutingFact

IN_ORDER = ("month", "time", "depth", "surface", "at_fly")
MOST_BEHIND = 100


def asked_for(owner: Any, asked: LogFilter) -> QuerySet[OutingFact]:
    """Return the outings asked for as they are counted, newest first."""
    bring_up(owner)
    found = OutingFact.objects.filter(owner=owner)
    if asked.water_id is not None:
        found = found.filter(water_id=asked.water_id)
    if asked.month is not None:
        found = found.filter(month=asked.month)
    if asked.surface_c is not None:
        low, high = asked.surface_c - DEGREES_A_STEP, asked.surface_c + DEGREES_A_STEP
        found = found.filter(surface_c__gte=low, surface_c__lte=high)
    if asked.wind:
        found = found.filter(wind=asked.wind)
    for word in asked.q.casefold().split():
        found = found.filter(words__text__contains=word)
    return found.order_by("-started_at", "pk")


def _asks(asked: LogFilter) -> bool:
    """Whether only some outings are asked for."""
    return asked != LogFilter()


def _kept(owner: Any, by: By) -> str:
    """The name something is sorted under: depths in the steps of the angler's unit."""
    return by_depth(angler_of(owner).depth_unit) if by == "depth" else by


def _rows(owner: Any, asked: LogFilter, kept: str, found: QuerySet[OutingFact]) -> QuerySet[Any]:
    """What is counted under a name, of the outings `found` for what was asked."""
    rows: QuerySet[Any] = LogFact.objects.filter(owner=owner, by=kept).order_by()
    return rows.filter(fact__in=found.order_by().values("pk")) if _asks(asked) else rows


def _parts(owner: Any, asked: LogFilter, by: By, found: QuerySet[OutingFact] | None = None) -> QuerySet[Any]:
    """What is asked for, each part under its `key`: what it is sorted by, or of a depth the step it lies in.

    `found` are the outings asked for, where they have been looked up already.
    """
    return _rows(owner, asked, _kept(owner, by), asked_for(owner, asked) if found is None else found)


def _step(owner: Any, by: By) -> float:
    """How wide a step is of what is sorted in steps."""
    if by == "depth":
        return bin_step_m(angler_of(owner).depth_unit)
    return {"surface": DEGREES_A_STEP, "at_fly": DEGREES_A_STEP, "time": HOURS_A_PART}.get(by, 0.0)


def answers(owner: Any, asked: LogFilter, by: By) -> AnswersOut:
    """Return effort, takes and their rate by what is asked, most effort first; blank time counts."""
    sums = {"h": Sum("hours"), "n": Sum("takes"), "l": Sum("landed")}
    found = _parts(owner, asked, by).values("key").annotate(**sums)
    groups = [GroupOut(key=row["key"], takes=vars(poisson_rate(row["n"], row["h"])), landed=row["l"]) for row in found]
    groups.sort(key=lambda one: (float(one.key), one.key) if by in IN_ORDER else (-one.takes.hours, one.key))
    return AnswersOut(by=by, step=_step(owner, by), groups=groups)


def fish(owner: Any, asked: LogFilter) -> list[CaughtOut]:
    """Return the fish landed by species and length, and what became of them; the species landed most first."""
    rows = _rows(owner, asked, "size", asked_for(owner, asked))
    counts: dict[str, dict[str, Counter[str]]] = defaultdict(lambda: defaultdict(Counter))
    for key, landed in rows.values_list("key").annotate(n=Sum("landed")):
        species, length, fate = key.split(" ")
        counts[species][length][fate] += landed
    found = [
        CaughtOut(species=species, **_fates(sum(of.values(), Counter())), sizes=_sizes(of))
        for species, of in counts.items()
    ]
    return sorted(found, key=lambda one: (-one.count, one.species))


def _fates(counted: Counter[str]) -> dict[str, int]:
    return {"count": counted.total(), "returned": counted["returned"], "kept": counted["kept"]}


def _sizes(of: dict[str, Counter[str]]) -> list[FishOut]:
    """By length, those not measured last."""
    found = [FishOut(length_cm=int(length) if length else None, **_fates(counted)) for length, counted in of.items()]
    return sorted(found, key=lambda one: (one.length_cm is None, one.length_cm or 0))


def at_depths(owner: Any, asked: LogFilter, found: QuerySet[OutingFact]) -> list[Stretch]:
    """Return effort and takes by depth over the outings `found` for what was asked, one stretch a step of depth."""
    step = bin_step_m(angler_of(owner).depth_unit)
    rows = _parts(owner, asked, "depth", found).values_list("key")
    sums = rows.annotate(h=Sum("hours"), n=Sum("takes"), l=Sum("landed"))
    return [
        Stretch(depth_m=(int(key) + 0.5) * step, hours=hours, takes=takes, landed=landed)
        for key, hours, takes, landed in sums
    ]


def behind(owner: Any, asked: LogFilter, by: By, key: str) -> QuerySet[OutingFact]:
    """Return the newest outings that stand behind one of the groups."""
    ids = _parts(owner, asked, by).filter(key=key).values("fact_id")
    return OutingFact.objects.filter(pk__in=ids).order_by("-started_at", "pk")[:MOST_BEHIND]


def compared(owner: Any, asked: LogFilter, by: By, pair: tuple[str, str], names: tuple[str, str]) -> ComparedOut:
    """Return two of anything against each other within outings; `names` are what the sentence calls them."""
    a, b = pair
    # An outing has one row under each: only outings with effort of both count, and only those are fetched.
    other = {"fact__sorted__owner": owner, "fact__sorted__by": _kept(owner, by), "fact__sorted__key": b}
    found = _parts(owner, asked, by).filter(key=a, hours__gt=0, **other, fact__sorted__hours__gt=0)
    rows = found.values_list("hours", "takes", "fact__sorted__hours", "fact__sorted__takes")
    ratio = rate_ratio([Both(*row) for row in rows])
    return ComparedOut(
        ratio=ratio.ratio,
        low=ratio.low,
        high=ratio.high,
        outings=ratio.outings,
        sure=ratio.sure,
        more_hours=ratio.more_hours,
        sentence=in_words(*names, ratio),
    )
