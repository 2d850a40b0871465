"""What a bench prints: each figure, and whether its goal is met."""

from __future__ import annotations

import json
import sys


def tell(found: dict[str, float], goals: dict[str, float], as_json: bool = False) -> None:
    """Print figures, one a line with its goal (at most so much) where it has one; or all of them as JSON."""
    if as_json:
        sys.stdout.write(json.dumps(found, indent=2) + "\n")
        return
    for name, value in found.items():
        goal = goals.get(name)
        met = "" if goal is None else f"{'met' if value <= goal else 'MISSED'} (at most {goal:g})"
        sys.stdout.write(f"{name:18} {value:10.1f}  {met}\n")
