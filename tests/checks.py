"""Check values with their sources, read from tests/data."""

from __future__ import annotations

import json
import pathlib
from collections.abc import Iterable
from typing import Any, TypeVar

T = TypeVar("T")

_FILE = pathlib.Path(__file__).parent / "data" / "check_values.json"
VALUES: dict[str, dict[str, Any]] = {v["id"]: v for v in json.loads(_FILE.read_text("utf-8"))["values"]}


def of(prefix: str, quantity: str = "") -> list[dict[str, Any]]:
    """Return the entries whose id starts with `prefix` and whose quantity contains `quantity`."""
    found = [v for v in VALUES.values() if v["id"].startswith(prefix) and quantity in v["quantity"]]
    if not found:
        raise LookupError(f"no check value {prefix} {quantity}")
    return found


def tolerance(entry: dict[str, Any], expected: float) -> float:
    """Return how far off a value may be: the larger of the absolute and the relative tolerance."""
    stated = entry["tolerance"]
    return max(stated.get("abs", 0.0), stated.get("rel", 0.0) * abs(expected))


def some(things: Iterable[T]) -> list[T]:
    """Return the things to be checked one by one; a loop over nothing would check nothing, so none is a failure."""
    found = list(things)
    if not found:
        raise AssertionError("nothing to check")
    return found
