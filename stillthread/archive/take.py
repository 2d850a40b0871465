"""Taking an archive in: what is new, what is the same, what clashes; then all of it in one transaction."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Any, Literal

from django.db import transaction
from django.db.models import Count, Q

from stillthread.accounts.services import angler_of
from stillthread.accounts.settings_io import SettingsIO, settings_of, write_settings_of
from stillthread.archive.read import Document, Read, own_name, renamed
from stillthread.archive.tables import TABLES, Table
from stillthread.core.errors import InputError, Problem
from stillthread.core.noted.water import MOST_PLACES
from stillthread.core.tackle.flies import MOST_FLIES
from stillthread.core.tackle.lines import MOST_LINES
from stillthread.flybox.models import Fly, Line
from stillthread.outings.facts import forget_counts
from stillthread.outings.models import Outing
from stillthread.outings.photos import MOST_PHOTOS
from stillthread.waters.models import Water
from stillthread.web.owned import live

Keep = Literal["mine", "archive"]
CHUNK = 400


@dataclass(frozen=True)
class Sorted:
    """A table's rows: not here yet, here as they are, and here with another content."""

    new: list[Document]
    same: list[Document]
    clash: list[Document]


def _chunks(ids: list[str]) -> Iterator[list[str]]:
    for n in range(0, len(ids), CHUNK):
        yield ids[n : n + CHUNK]


def _taken(owner: Any, table: Table, ids: list[str]) -> list[str]:
    """The UUIDs that belong to somebody else here."""
    rows = table.model._default_manager.exclude(owner=owner)
    return [str(pk) for some in _chunks(ids) for pk in rows.filter(pk__in=some).values_list("pk", flat=True)]


def fitted(owner: Any, read: Read) -> Read:
    """Return an archive with UUIDs that this account can use: those of another's rows are replaced."""
    names = {
        one: own_name(owner, one)
        for table in TABLES
        for one in _taken(owner, table, [row["id"] for row in read.rows[table.name]])
    }
    return renamed(read, names)


def sort_out(owner: Any, table: Table, rows: list[Document]) -> Sorted:
    """Sort a table's rows by whether they are here already; a deleted one counts as new."""
    here: dict[str, Document] = {}
    for some in _chunks([row["id"] for row in rows]):
        found = table.model._default_manager.filter(owner=owner, pk__in=some)
        alive = found if table.model is Water else found.filter(deleted_at=None)
        here |= {str(values["id"]): table.document(values) for values in alive.values(*table.of_model)}
    new = [row for row in rows if row["id"] not in here]
    same = [row for row in rows if here.get(row["id"]) == row]
    clash = [row for row in rows if row["id"] in here and here[row["id"]] != row]
    return Sorted(new=new, same=same, clash=clash)


def settings_clash(owner: Any, read: Read) -> bool:
    """Whether the archive's settings are others than the angler's."""
    return settings_of(angler_of(owner)).model_dump(mode="json") != read.settings


def _write(owner: Any, table: Table, rows: list[Document]) -> None:
    """Make rows that were never here, and change those that were."""
    model: Any = table.model
    there: dict[str, Any] = {}
    for some in _chunks([row["id"] for row in rows]):
        there |= {str(one.pk): one for one in model.objects.filter(pk__in=some, owner=owner)}
    new = [row for row in rows if row["id"] not in there]
    made = [model(pk=row["id"], owner=owner, **table.row_values(row)) for row in new]
    model.objects.bulk_create(made, batch_size=CHUNK)
    for row in rows:
        old = there.get(row["id"])
        if old is None:
            continue
        old.deleted_at = None
        for name, value in table.row_values(row).items():
            setattr(old, name, value)
        old.save()


def _check_room(owner: Any) -> None:
    """Refuse what would be more than a plan takes. Raises InputError; whoever calls undoes what was written."""
    for model, most, what in ((Line, MOST_LINES, "lines"), (Fly, MOST_FLIES, "flies")):
        count = live(model, owner).count()
        if count > most:
            raise InputError(Problem("too_many", what, f"With these you would have {count} {what}.", f"at most {most}"))
    photos = Count("photos", filter=Q(photos__deleted_at=None))
    for outing in live(Outing, owner).annotate(count=photos).filter(count__gt=MOST_PHOTOS):
        message = f"{outing} would have {outing.count} photos."
        raise InputError(Problem("too_many", "photos", message, f"at most {MOST_PHOTOS}"))
    places = Count("places", filter=Q(places__deleted_at=None))
    for water in live(Water, owner).annotate(count=places).filter(Q(count__gt=MOST_PLACES) | Q(count=0)):
        message = f"{water.name} would have {water.count} places."
        raise InputError(Problem("places", "places", message, f"1 to {MOST_PLACES}"))


@transaction.atomic
def take(owner: Any, read: Read, keep: Keep) -> int:
    """Take an archive in, all or nothing; returns how many rows were written. `keep` says whose row stays in a clash.

    The pictures of its photos follow by themselves: see `take_pictures`.

    Raises InputError where a kit or a water would hold more than it can.
    """
    fresh = not any(live(table.model, owner).exists() for table in TABLES)
    written = 0
    read = fitted(owner, read)
    for table in TABLES:
        found = sort_out(owner, table, read.rows[table.name])
        rows = found.new + (found.clash if keep == "archive" else [])
        _write(owner, table, rows)
        written += len(rows)
    if settings_clash(owner, read) and (fresh or keep == "archive"):
        write_settings_of(angler_of(owner), SettingsIO.model_validate(read.settings))
        written += 1
    _check_room(owner)
    forget_counts(owner)
    return written
