"""Use cases of the kit."""

from __future__ import annotations

from typing import Any

from stillthread.core.errors import InputError, Problem
from stillthread.documents.plan_contract import FlyIn, LineIn, TackleIn
from stillthread.flybox.models import Fly, Line
from stillthread.web.owned import live


def tackle_document(owner: Any) -> TackleIn:
    """Return the owner's lines as the plan document describes them. Raises InputError where there are none."""
    lines = list(live(Line, owner))
    if not lines:
        hint = "Tick the lines you own under Kit."
        raise InputError(Problem("empty", "tackle.lines", "No line in your kit yet.", "at least one fly line", hint))
    fields = set(LineIn.model_fields) - {"key"}
    return TackleIn(lines=[LineIn(key=str(row.pk), **{f: getattr(row, f) for f in fields}) for row in lines])


def fly_documents(owner: Any) -> list[FlyIn]:
    """Return the owner's flies as the plan document describes them. Raises InputError where there are none."""
    flies = list(live(Fly, owner))
    if not flies:
        hint = "Add the starter flies under Kit."
        raise InputError(Problem("empty", "flies", "No fly in your box yet.", "at least one fly", hint))
    fields = set(FlyIn.model_fields) - {"key"}
    return [FlyIn(key=str(row.pk), **{f: getattr(row, f) for f in fields}) for row in flies]
