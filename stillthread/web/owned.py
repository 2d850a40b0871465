"""Rows that belong to somebody, made by the client with its own UUID, deleted with a tombstone.

Every change counts a row's revision up. An edit may name the revision it was made on (If-Match); one made on another than
the row has now changes nothing, and both versions are told.
"""

from __future__ import annotations

import uuid
from typing import Any, TypeVar

from django.conf import settings
from django.db import models, transaction
from django.http import Http404, HttpRequest
from django.utils import timezone

from stillthread.core.errors import InputError, Problem


class Owned(models.Model):
    """Base of every row: UUID from the client, owner, when the server received it, tombstone."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    owner = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="+")
    received_at = models.DateTimeField(default=timezone.now, editable=False)
    updated_at = models.DateTimeField(auto_now=True)
    deleted_at = models.DateTimeField(null=True, blank=True)
    revision = models.PositiveIntegerField(default=1, editable=False)

    class Meta:
        abstract = True

    def save(self, *args: Any, **kwargs: Any) -> None:
        """Save, the revision counted up with each change."""
        if not self._state.adding:
            self.revision += 1
            if kwargs.get("update_fields") is not None:
                kwargs["update_fields"] = {*kwargs["update_fields"], "revision", "updated_at"}
        super().save(*args, **kwargs)


class StaleError(Exception):
    """An edit made on another revision than the row has: the row as it is, and what was to be written."""

    def __init__(self, row: Owned, sent: dict[str, Any]):
        """Keep both."""
        self.row, self.sent = row, sent
        super().__init__(f"{row._meta.verbose_name} {row.pk} is at revision {row.revision}")


def named_revision(request: HttpRequest) -> int | None:
    """Return the revision a request says it was made on, if it does. Raises InputError for what is no revision."""
    named = request.headers.get("If-Match", "").strip().strip('"')
    if not named:
        return None
    if not (named.isascii() and named.isdigit() and len(named) < 10):
        raise InputError(Problem("bad_revision", "If-Match", "This is no revision.", 'a whole number, as in "3"'))
    return int(named)


Row = TypeVar("Row", bound=Owned)


def live(model: type[Row], owner: Any) -> models.QuerySet[Row]:
    """Return the owner's rows of a model that are not deleted."""
    return model._default_manager.filter(owner=owner, deleted_at__isnull=True)


def get_owned(
    model: type[Row], owner: Any, row_id: uuid.UUID, *, deleted: bool = False, defer: tuple[str, ...] = ()
) -> Row:
    """Return one of the owner's rows, without the `defer`red fields where they are not needed.

    Raises Http404 for another's, an unknown one, or (unless `deleted`) a deleted one.
    """
    rows = model._default_manager.filter(owner=owner) if deleted else live(model, owner)
    found = rows.defer(*defer).filter(pk=row_id).first()
    if found is None:
        raise Http404(model._meta.verbose_name)
    return found


def put_owned(model: type[Row], owner: Any, row_id: uuid.UUID, *, based_on: int | None = None, **values: Any) -> Row:
    """Write a row under the client's UUID: made, changed or brought back from its tombstone; sent twice it is the same.

    Raises Http404 where the UUID belongs to somebody else, and StaleError where the edit is `based_on` another revision.
    """
    with transaction.atomic():  # takes the write lock at once: two first writes of one row follow each other
        row = model._default_manager.filter(pk=row_id).first()
        if row is None:
            row = model(pk=row_id, owner=owner)
        elif row.owner_id != owner.pk:
            raise Http404(model._meta.verbose_name)
        elif not _changes(row, values):
            return row
        elif based_on is not None and row.revision != based_on:
            raise StaleError(row, values)
        for name, value in values.items():
            setattr(row, name, value)
        row.deleted_at = None
        row.save()
        return row


def _changes(row: Owned, values: dict[str, Any]) -> bool:
    """Whether writing these values would change the row: the same edit sent twice does not."""
    return row.deleted_at is not None or any(_plain(getattr(row, name)) != _plain(v) for name, v in values.items())


def _plain(value: Any) -> Any:
    """A value as JSON keeps it: what comes as a tuple comes back as a list."""
    if isinstance(value, (list, tuple)):
        return [_plain(one) for one in value]
    return {name: _plain(one) for name, one in value.items()} if isinstance(value, dict) else value


def remove_for_good(row: Owned) -> int:
    """Delete a row with what hangs on it; returns how many went. One that others lean on (a water with outings) stays."""
    try:
        with transaction.atomic():
            return row.delete()[0]
    except models.RestrictedError:
        return 0


def delete_owned(model: type[Row], owner: Any, row_id: uuid.UUID, *, based_on: int | None = None) -> int:
    """Put a tombstone on one of the owner's rows, and return its revision; a second time changes nothing.

    Raises Http404 for another's row, and StaleError where the deletion is `based_on` another revision.
    """
    with transaction.atomic():
        row = get_owned(model, owner, row_id, deleted=True)
        if row.deleted_at is not None:
            return row.revision
        if based_on is not None and row.revision != based_on:
            raise StaleError(row, {"deleted_at": timezone.now()})
        row.deleted_at = timezone.now()
        row.save(update_fields=["deleted_at", "updated_at"])
        return row.revision
