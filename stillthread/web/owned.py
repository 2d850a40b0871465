"""Rows that belong to somebody, made by the client with its own UUID, deleted with a tombstone."""

from __future__ import annotations

import uuid
from typing import Any, TypeVar

from django.conf import settings
from django.db import models
from django.http import Http404
from django.utils import timezone


class Owned(models.Model):
    """Base of every row: UUID from the client, owner, when the server received it, tombstone."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    owner = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="+")
    received_at = models.DateTimeField(default=timezone.now, editable=False)
    updated_at = models.DateTimeField(auto_now=True)
    deleted_at = models.DateTimeField(null=True, blank=True)

    class Meta:
        abstract = True


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


def put_owned(model: type[Row], owner: Any, row_id: uuid.UUID, **values: Any) -> Row:
    """Write a row under the client's UUID: made, changed or brought back from its tombstone; sent twice it is the same.

    Raises Http404 where the UUID belongs to somebody else.
    """
    row = model._default_manager.filter(pk=row_id).first()
    if row is None:
        row = model(pk=row_id, owner=owner)
    elif row.owner_id != owner.pk:
        raise Http404(model._meta.verbose_name)
    for name, value in values.items():
        setattr(row, name, value)
    row.deleted_at = None
    row.save()
    return row


def delete_owned(model: type[Row], owner: Any, row_id: uuid.UUID) -> None:
    """Put a tombstone on one of the owner's rows; a second time changes nothing. Raises Http404 for another's row."""
    row = get_owned(model, owner, row_id, deleted=True)
    if row.deleted_at is None:
        row.deleted_at = timezone.now()
        row.save(update_fields=["deleted_at", "updated_at"])
