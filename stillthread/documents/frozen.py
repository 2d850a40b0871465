"""Plans as they were frozen, by this version or an older one: brought up to today's contract, or as much of them as can be read."""

from __future__ import annotations

from typing import Any

from pydantic import ValidationError

from stillthread.documents.plan import PlanRequest
from stillthread.documents.plan_answer import PlanAnswer

MOST_ROUNDS = 8


def _upgraded(raw: dict[str, Any]) -> dict[str, Any]:
    """What later versions added or wrote otherwise, filled in for what older ones froze."""
    water = dict(raw.get("water") or {})
    curve = water.get("temperature")
    if isinstance(curve, dict):  # the first version wrote a point as a pair
        points = [
            {"depth_m": p[0], "temperature_c": p[1]} if isinstance(p, list) and len(p) == 2 else p
            for p in curve.get("points", [])
        ]
        water["temperature"] = {**curve, "points": points}
    set_ups = [
        {"cautions": [], **one, "flies": [{"why": "", **fly} for fly in one.get("flies", [])]}
        for one in raw.get("set_ups", [])
    ]
    return {**raw, "water": water, "set_ups": set_ups}


def _without(raw: Any, path: tuple[int | str, ...]) -> Any:
    """The same document without what stands at a path: a field left out, an entry of a list dropped."""
    head, *rest = path
    if rest:
        if isinstance(raw, dict) and head in raw:
            return {**raw, head: _without(raw[head], tuple(rest))}
        if isinstance(raw, list) and isinstance(head, int) and head < len(raw):
            return [_without(one, tuple(rest)) if n == head else one for n, one in enumerate(raw)]
        return raw
    if isinstance(raw, dict):
        return {name: value for name, value in raw.items() if name != head}
    return [one for n, one in enumerate(raw) if n != head] if isinstance(raw, list) else raw


def _entry_of(path: tuple[int | str, ...]) -> tuple[int | str, ...]:
    """The innermost entry of a list a path leads through: it is dropped where a part of it cannot be read."""
    last = max((n for n, part in enumerate(path) if isinstance(part, int)), default=None)
    return path if last is None else path[: last + 1]


def frozen_answer(raw: dict[str, Any]) -> PlanAnswer | None:
    """Return a frozen plan as today's contract has it; what cannot be read is left out, None where too little is left.

    Fields nobody knows any more go, and so do entries of lists with a part that cannot be read.
    """
    told: Any = _upgraded(raw)
    for _ in range(MOST_ROUNDS):
        try:
            return PlanAnswer.model_validate(told)
        except ValidationError as error:
            paths = []
            for fault in error.errors(include_url=False, include_context=False, include_input=False):
                here = tuple(fault["loc"])
                paths.append(here if fault["type"] == "extra_forbidden" else _entry_of(here))
            # Later entries first, so that the numbers of those before them stay.
            for path in sorted(set(paths), key=repr, reverse=True):
                told = _without(told, path)
    return None


def frozen_request(raw: dict[str, Any]) -> PlanRequest | None:
    """Return the day a plan was made for, None where today's contract cannot read it."""
    try:
        return PlanRequest.model_validate(raw)
    except ValidationError:
        return None
