"""Use cases of the fly box: patterns with builds and recipes, in and out by file."""

from __future__ import annotations

import uuid
from typing import Any

from django.db import transaction

from stillthread.core.errors import InputError, Problem
from stillthread.core.tackle.flies import MOST_FLIES, STARTER_FLIES, fly_of
from stillthread.core.tackle.fly_build import FlyBuild, add_up, usual_build, weight_class
from stillthread.core.tackle.patterns import PATTERN_BY_KEY, Pattern
from stillthread.core.thread.fly_sink import sink_class, sink_speed_m_s
from stillthread.documents.fly_contract import FlyFile, PatternDoc
from stillthread.documents.strict import told
from stillthread.flybox.models import Fly
from stillthread.flybox.schemas import FlyOut, StarterFly
from stillthread.web.owned import live, put_owned

BATCH = 100  # rows written before somebody else may


def check_room(count: int, most: int, what: str, path: str) -> None:
    """Raise InputError where a kit would hold more than a plan can use."""
    if count > most:
        raise InputError(Problem("too_many", path, f"That would be {count} {what}.", f"at most {most}"))


def pattern_document(pattern: Pattern) -> PatternDoc:
    """Return a starter pattern as a document."""
    fly = fly_of(pattern)
    return PatternDoc(
        name=pattern.name,
        family=pattern.family,
        prey=list(pattern.prey),
        hooks=list(pattern.hooks),
        tone=pattern.tone,
        weight=fly.weight,
        surface=pattern.surface,
        build=pattern.build,
        recipe=pattern.recipe,
    )


def settled(body: PatternDoc) -> dict[str, Any]:
    """Return a pattern's values as they are stored: weight by the build, stock by the counts where there are some."""
    values = body.model_dump(mode="json")
    values["family"] = body.family or ""
    if body.build is not None:
        values["weight"] = weight_class(body.build)
    if body.counts:
        values["stock"] = sum(c.count for c in body.counts)
    return values


def build_of(row: Fly) -> FlyBuild:
    """Return a fly's build, or the one usual for its weight class on its first hook."""
    if row.build:
        return FlyBuild(**row.build)
    return usual_build(row.weight, row.hooks[0], row.surface)


def fly_out(row: Fly) -> FlyOut:
    """Return a fly in the box with what its build weighs and how fast it sinks."""
    build = build_of(row)
    total = add_up(build)
    speed = sink_speed_m_s(build)
    return told(
        FlyOut,
        row,
        id=row.pk,
        revision=row.revision,
        family=row.family or None,
        recipe=row.recipe or {},
        submerged_g=round(total.submerged_g, 4),
        sink_m_s=round(speed, 3),
        sink_class=sink_class(speed),
        sink_hook=build.hook,
        own_build=row.build is not None,
    )


def put_fly(owner: Any, fly_id: uuid.UUID, body: PatternDoc, *, based_on: int | None = None) -> FlyOut:
    """Write a fly under the client's UUID."""
    check_room(live(Fly, owner).exclude(pk=fly_id).count() + 1, MOST_FLIES, "patterns in the box", "name")
    return fly_out(put_owned(Fly, owner, fly_id, based_on=based_on, **settled(body)))


def starter() -> list[StarterFly]:
    """Return the starter patterns on offer."""
    return [StarterFly(key=fly.key, **pattern_document(PATTERN_BY_KEY[fly.key]).model_dump()) for fly in STARTER_FLIES]


@transaction.atomic
def add_starter_flies(owner: Any, keys: list[str]) -> list[Fly]:
    """Put the chosen starter patterns into the box, each once; one already there without a build gets the starter's.

    Raises InputError for an unknown key.
    """
    for index, key in enumerate(keys):
        if key not in PATTERN_BY_KEY:
            accepted = ", ".join(PATTERN_BY_KEY)
            raise InputError(Problem("unknown", f"keys[{index}]", f"No starter fly '{key}'.", accepted))
    owned = {row.name: row for row in live(Fly, owner)}
    check_room(
        len(owned | dict.fromkeys(PATTERN_BY_KEY[key].name for key in keys)), MOST_FLIES, "patterns in the box", "keys"
    )
    for key in keys:
        document = pattern_document(PATTERN_BY_KEY[key])
        row = owned.get(document.name)
        if row is None:
            owned[document.name] = Fly.objects.create(id=uuid.uuid4(), owner=owner, **settled(document))
        elif row.build is None and not row.recipe:
            put_owned(
                Fly,
                owner,
                row.pk,
                family=document.family or "",
                build=settled(document)["build"],
                recipe=settled(document)["recipe"],
            )
    return list(live(Fly, owner))


def box_file(owner: Any) -> FlyFile:
    """Return the whole box as a document."""
    fields = set(PatternDoc.model_fields)
    return FlyFile(
        flies=[
            PatternDoc(**{k: v for k, v in fly_out(row).model_dump().items() if k in fields})
            for row in live(Fly, owner)
        ]
    )


def take_file(owner: Any, box: FlyFile) -> int:
    """Put every pattern of a file into the box: those of a name already there are replaced; returns how many.

    Written in batches, so that nobody else waits long to write. Raises InputError where the box would hold too many.
    """
    owned = {row.name: row.pk for row in live(Fly, owner)}
    check_room(len(owned | {pattern.name: None for pattern in box.flies}), MOST_FLIES, "patterns in the box", "file")
    values = [(owned.get(pattern.name, uuid.uuid4()), settled(pattern)) for pattern in box.flies]
    for start in range(0, len(values), BATCH):
        with transaction.atomic():
            for fly_id, pattern_values in values[start : start + BATCH]:
                put_owned(Fly, owner, fly_id, **pattern_values)
    return len(box.flies)
