"""Use cases of the kit."""

from __future__ import annotations

import uuid
from typing import Any

from django.db import transaction

from stillthread.core.errors import InputError, Problem
from stillthread.core.tackle.flies import STARTER_FLIES
from stillthread.flybox.models import Fly, Line
from stillthread.formats.plan_contract import FlyIn, LineIn, TackleIn
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


@transaction.atomic
def add_starter_flies(owner: Any, keys: list[str]) -> list[Fly]:
    """Put the chosen starter patterns into the box, each once. Raises InputError for an unknown key."""
    known = {fly.key: fly for fly in STARTER_FLIES}
    for index, key in enumerate(keys):
        if key not in known:
            raise InputError(Problem("unknown", f"keys[{index}]", f"No starter fly '{key}'.", ", ".join(known)))
    owned = set(live(Fly, owner).values_list("name", flat=True))
    for key in keys:
        fly = known[key]
        if fly.name in owned:
            continue
        owned.add(fly.name)
        Fly.objects.create(
            id=uuid.uuid4(),
            owner=owner,
            name=fly.name,
            prey=list(fly.prey),
            hooks=list(fly.hooks),
            tone=fly.tone,
            weight=fly.weight,
            surface=fly.surface,
        )
    return list(live(Fly, owner))
