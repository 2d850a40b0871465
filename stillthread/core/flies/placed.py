"""A fly at its place on the leader."""

from __future__ import annotations

from dataclasses import dataclass

from stillthread.core.tackle.flies import Fly


@dataclass(frozen=True)
class PlacedFly:
    """A fly at its position: hook size, depth [m] where it is known, and why it is there."""

    fly: Fly
    position: str
    hook: int
    from_line_m: float
    depth_m: float | None
    why: str = ""
