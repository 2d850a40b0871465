"""The clock of the tests: a given instant that moves by a microsecond whenever it is asked, so that what comes later is later."""

from __future__ import annotations

import itertools
from collections.abc import Iterator
from contextlib import contextmanager
from datetime import UTC, datetime, timedelta
from unittest.mock import patch

# A winter's late morning: light, no dusk near, no change of day, month or hour within what a test goes back.
NOON = datetime(2026, 12, 2, 11, 20, tzinfo=UTC)


@contextmanager
def stopped_at(instant: datetime = NOON) -> Iterator[None]:
    """Have the server, and whoever else asks Django for the time, live at an instant until the end of the block."""
    ticks = itertools.count()
    with patch("django.utils.timezone.now", lambda: instant + timedelta(microseconds=next(ticks))):
        yield
