"""Instants of what is kept: nothing that has yet to come by more than a year."""

from __future__ import annotations

from datetime import datetime, timedelta
from typing import Annotated

from django.utils import timezone
from pydantic import AfterValidator

from stillthread.core.limits import Instant

AHEAD = timedelta(days=366)


def _not_far_ahead(value: datetime) -> datetime:
    if value > timezone.now() + AHEAD:
        raise ValueError("it is more than a year ahead")
    return value


Kept = Annotated[Instant, AfterValidator(_not_far_ahead)]
