"""What was deleted lies here for a while: seen, and brought back. Later it goes for good."""

from __future__ import annotations

import uuid
from collections.abc import Callable
from dataclasses import dataclass
from datetime import datetime, timedelta
from typing import Any, Literal

from django.http import Http404, HttpRequest
from django.utils import timezone
from ninja import Router

from stillthread.documents.strict import Strict
from stillthread.flybox.models import Fly, Line, Rig
from stillthread.outings.models import Event, Outing, Photo, Spell, Track
from stillthread.waters.models import Reading, Sounding, SoundingLine, Water
from stillthread.web.errors import FAILURES
from stillthread.web.owned import Owned, get_owned, remove_for_good

KEPT = timedelta(days=30)
MOST_ROWS = 200

Kind = Literal[
    "outing",
    "stretch",
    "event",
    "photo",
    "track",
    "reading",
    "water",
    "line",
    "fly",
    "rig",
    "sounding",
    "sounding-line",
]


class BinRowOut(Strict):
    """Something deleted: what it is, when it was, when it was deleted and when it goes for good."""

    kind: Kind
    id: uuid.UUID
    what: str
    of: datetime | None
    time_zone: str
    deleted_at: datetime
    gone_at: datetime


@dataclass(frozen=True)
class Shelf:
    """One kind of row in the bin: its words, the instant it is of, and the rows it hangs on (deleted ones hide it)."""

    model: type[Any]
    what: Callable[[Any], str]
    of: Callable[[Any], datetime | None] = lambda row: None
    water: Callable[[Any], Water | None] = lambda row: None
    needs: Callable[[Any], tuple[Owned, ...]] = lambda row: ()


# In an order that can be emptied: what hangs on others first.
SHELVES: dict[Kind, Shelf] = {
    "event": Shelf(
        model=Event,
        what=lambda e: f"{e.kind.capitalize()}, {e.spell.title}",
        of=lambda e: e.occurred_at,
        water=lambda e: e.spell.outing.water,
        needs=lambda e: (e.spell, e.spell.outing),
    ),
    "photo": Shelf(
        model=Photo,
        what=lambda p: f"Photo of the {p.shows}",
        of=lambda p: p.taken_at,
        water=lambda p: p.outing.water,
        needs=lambda p: (p.outing,),
    ),
    "track": Shelf(
        model=Track,
        what=lambda t: f"The boat's track, {len(t.points)} points",
        of=lambda t: t.outing.started_at,
        water=lambda t: t.outing.water,
        needs=lambda t: (t.outing,),
    ),
    "stretch": Shelf(
        model=Spell,
        what=lambda s: f"Stretch fished: {s.title}",
        of=lambda s: s.started_at,
        water=lambda s: s.outing.water,
        needs=lambda s: (s.outing,),
    ),
    "outing": Shelf(
        model=Outing,
        what=lambda o: f"Outing on {o.water.name}",
        of=lambda o: o.started_at,
        water=lambda o: o.water,
        needs=lambda o: (o.water,),
    ),
    "reading": Shelf(
        model=Reading,
        what=lambda r: f"Reading of {r.water.name}",
        of=lambda r: r.taken_at,
        water=lambda r: r.water,
        needs=lambda r: (r.water,),
    ),
    "sounding": Shelf(
        model=Sounding,
        what=lambda s: f"Sounding: {s}",
        of=lambda s: s.taken_at,
        water=lambda s: s.water,
        needs=lambda s: (s.water,),
    ),
    "sounding-line": Shelf(
        model=SoundingLine,
        what=lambda s: f"Line sounded on {s.water.name}",
        of=lambda s: s.started_at,
        water=lambda s: s.water,
        needs=lambda s: (s.water,),
    ),
    "water": Shelf(Water, lambda w: f"Water: {w.name}", water=lambda w: w),
    "line": Shelf(Line, lambda one: f"Line: {one}"),
    "fly": Shelf(Fly, lambda f: f"Fly: {f.name}"),
    "rig": Shelf(Rig, lambda r: f"Rig: {r.name}"),
}
router = Router(tags=["bin"])


def _deleted(shelf: Shelf, owner: Any) -> Any:
    return shelf.model._default_manager.filter(owner=owner, deleted_at__isnull=False)


def _whole(shelf: Shelf, row: Any) -> bool:
    return all(one.deleted_at is None for one in shelf.needs(row))


def empty_old(owner: Any, now: datetime) -> None:
    """Remove for good what has lain in the owner's bin for longer than it is kept; a water with outings stays."""
    for shelf in SHELVES.values():
        for row in _deleted(shelf, owner).filter(deleted_at__lt=now - KEPT):
            remove_for_good(row)


def in_bin(owner: Any) -> list[BinRowOut]:
    """Return what lies in the owner's bin, deleted last first; what hangs on something deleted is not listed beside it."""
    found = []
    for kind, shelf in SHELVES.items():
        for row in _deleted(shelf, owner).order_by("-deleted_at")[:MOST_ROWS]:
            if _whole(shelf, row):
                water = shelf.water(row)
                found.append(
                    BinRowOut(
                        kind=kind,
                        id=row.pk,
                        what=shelf.what(row),
                        of=shelf.of(row),
                        time_zone=water.time_zone if water is not None else "UTC",
                        deleted_at=row.deleted_at,
                        gone_at=row.deleted_at + KEPT,
                    )
                )
    return sorted(found, key=lambda one: one.deleted_at, reverse=True)[:MOST_ROWS]


@router.get("/bin", response={200: list[BinRowOut], **FAILURES})
def read_bin(request: HttpRequest) -> list[BinRowOut]:
    """Return what was deleted in the last 30 days; what is older goes now."""
    empty_old(request.user, timezone.now())
    return in_bin(request.user)


@router.post("/bin/{kind}/{row_id}/restore", response={200: list[BinRowOut], **FAILURES})
def restore(request: HttpRequest, kind: Kind, row_id: uuid.UUID) -> list[BinRowOut]:
    """Bring something back out of the bin, and return what still lies there."""
    shelf = SHELVES[kind]
    row = get_owned(shelf.model, request.user, row_id, deleted=True)
    if not _whole(shelf, row):
        raise Http404(shelf.model._meta.verbose_name)
    row.deleted_at = None
    row.save(update_fields=["deleted_at", "updated_at"])
    return in_bin(request.user)
