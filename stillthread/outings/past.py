"""The angler's log as the planner reads it: stretches of fishing with the conditions they were fished in."""

from __future__ import annotations

from datetime import date, datetime
from typing import Any

from stillthread.core.evidence.likeness import PastStretch
from stillthread.core.vocabulary import PlaceKind
from stillthread.outings.conditions import conditions_by_day, conditions_of
from stillthread.outings.effort import fish_of, live_spells, stretches
from stillthread.outings.models import Outing, Spell
from stillthread.waters.models import Place, Water
from stillthread.waters.services import local_time
from stillthread.web.owned import live

# The newest outings read for a plan, and the stretches at most: older ones count for less anyway.
MOST_OUTINGS = 150
MOST_STRETCHES = 1000


def _stretch(
    spell: Spell, hours: float, on: date, surface_c: float | None, kind: PlaceKind | None, same: bool
) -> PastStretch:
    takes = fish_of(spell)
    band = (spell.low_m, spell.high_m)
    ordered = band if None in band else tuple(sorted(band))  # type: ignore[type-var]
    return PastStretch(
        on=on,
        fished_h=min(hours, 24.0),
        takes=len(takes),
        depth_m=spell.depth_m,
        low_m=ordered[0],
        high_m=ordered[1],
        method=spell.method,
        place=spell.place,
        place_kind=kind,
        surface_c=surface_c,
        same_water=same,
        flies=tuple(name for name in spell.flies if name),
        taken_on=tuple(event.fly for event in takes if event.fly),
    )


def past_stretches(owner: Any, water: Water, before: datetime) -> list[PastStretch]:
    """Return the owner's stretches of fishing before an instant, newest first, on every water; this one's are marked."""
    rows = live(Outing, owner).filter(started_at__lt=before).select_related("water").defer("plan_snapshot")
    outings = list(rows.prefetch_related("spells__events").order_by("-started_at")[:MOST_OUTINGS])
    waters = {outing.water_id for outing in outings}
    by_day = conditions_by_day(owner, waters, (None, before))
    kinds: dict[tuple[Any, str], Any] = {
        (p.water_id, p.name): p.kind for p in live(Place, owner).filter(water__in=waters)
    }
    found = []
    for outing in outings:
        on = local_time(outing.water, outing.started_at).date()
        for spell, effort in zip(live_spells(outing), stretches(outing), strict=True):
            if effort.hours > 0:
                kind = kinds.get((outing.water_id, spell.place))
                same = outing.water_id == water.pk
                found.append(
                    _stretch(
                        spell=spell,
                        hours=effort.hours,
                        on=on,
                        surface_c=conditions_of(outing, by_day).surface_c,
                        kind=kind,
                        same=same,
                    )
                )
    return found[:MOST_STRETCHES]
