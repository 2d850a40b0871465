"""Use cases of the kit."""

from __future__ import annotations

from dataclasses import fields
from typing import Any

from stillthread.core.errors import InputError, Problem
from stillthread.core.tackle import flies, lines
from stillthread.documents.plan import Tackle
from stillthread.documents.strict import Strict
from stillthread.flybox.models import Fly, Line
from stillthread.web.owned import live


class Box(Strict):
    """The flies of a box, as the plan document has them."""

    flies: tuple[flies.Fly, ...]


def tackle_document(owner: Any) -> Tackle:
    """Return the owner's lines as the plan document describes them. Raises InputError where there are none."""
    rows = list(live(Line, owner))
    if not rows:
        hint = "Tick the lines you own under Kit."
        raise InputError(
            Problem(
                code="empty",
                path="tackle.lines",
                message="No line in your kit yet.",
                accepted="at least one fly line",
                hint=hint,
            )
        )
    return Tackle.model_validate({"lines": [_values(row, lines.Line) for row in rows]})


def fly_documents(owner: Any) -> tuple[flies.Fly, ...]:
    """Return the owner's flies as the plan document describes them. Raises InputError where there are none."""
    rows = list(live(Fly, owner))
    if not rows:
        hint = "Add the starter flies under Kit."
        raise InputError(
            Problem(
                code="empty", path="flies", message="No fly in your box yet.", accepted="at least one fly", hint=hint
            )
        )
    return Box.model_validate({"flies": [_values(row, flies.Fly) for row in rows]}).flies


def _values(row: Line | Fly, kind: type[Any]) -> dict[str, Any]:
    """A row's values for a core dataclass, its own id as the key."""
    own = {one.name: getattr(row, one.name) for one in fields(kind) if hasattr(row, one.name)}
    return {**own, "key": str(row.pk)}
