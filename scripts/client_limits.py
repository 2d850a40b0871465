"""The limits of every body the API takes, as constants the pages can name; what a page leaves out costs it nothing."""

import json
from typing import Any

HEAD = "/** The limits of what the API takes. Written by scripts/export_contracts.py; do not change it by hand. */\n"
LIMITS = {"minimum": "least", "maximum": "most", "maxLength": "longest", "maxItems": "many"}


def _limits(told: dict[str, Any]) -> dict[str, float]:
    """The limits of one property, also of one that may be null or holds many of a kind."""
    found = {LIMITS[key]: value for key, value in told.items() if key in LIMITS}
    for kind in told.get("anyOf", ()):
        found |= _limits(kind)
    each = _limits(told["items"]) if "items" in told else {}
    return {**{f"each{key.capitalize()}": value for key, value in each.items() if key in ("least", "most")}, **found}


def limits_ts(openapi: dict[str, Any], more: dict[str, float]) -> str:
    """Return a TypeScript module: one constant a limit, named as its schema, its property and itself, and `more` of other rules."""
    lines = [f"export const {name} = {value};" for name, value in sorted(more.items())]
    for schema, told in sorted(openapi["components"]["schemas"].items()):
        if schema.endswith(("Out", "Answer")):
            continue  # what is told, not taken
        for name, one in sorted(told.get("properties", {}).items()):
            limits = sorted(_limits(one).items())
            lines += [f"export const {schema}_{name}_{key} = {json.dumps(value)};" for key, value in limits]
    return HEAD + "\n".join(lines) + "\n"
