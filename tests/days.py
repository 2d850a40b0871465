"""Days to plan, made small so that a test can say what matters about its day."""

from __future__ import annotations

from dataclasses import replace
from datetime import UTC, datetime
from typing import Any

from stillthread.core.day.given import Angler, PlanInput, Rules
from stillthread.core.noted.reading import Reading
from stillthread.core.noted.water import Place, Water
from stillthread.core.tackle.flies import STARTER_FLIES
from stillthread.core.tackle.lines import Line
from stillthread.core.water.profile import Point

FLOATING = Line("floating", "floating")
TIP = Line("tip", "sink-tip", 2.0, 7, 1.8)
INTERMEDIATE = Line("intermediate", "intermediate", 1.2)
TYPE_3 = Line("t3", "sinking", 3.0)
TYPE_7 = Line("t7", "sinking", 7.0)
LINES = (FLOATING, TIP, INTERMEDIATE, TYPE_3, TYPE_7)

DROP = Place("Drop", "drop-off", 3, 6, 225)
MARGIN = Place("Margin", "margin", 0.5, 2.5, 45)
BASIN = Place("Basin", "open-water", 8, 18)
UPLAND = Water("Test reservoir", 18.0, "north", (DROP, MARGIN, BASIN), 54.0, -2.5)


def profile(*pairs: tuple[float, float]) -> tuple[Point, ...]:
    return tuple(Point(d, t) for d, t in pairs)


MAY = Reading(
    profile((0, 12.5), (1, 12.3), (2, 12.0), (3, 11.2), (4, 10.5), (5, 10.0)), 5.5, 4.0, None, 225.0, 6, "clear"
)
SUMMER = Reading(
    profile((0, 19.5), (2, 19.2), (4, 18.6), (6, 15.5), (8, 12.0), (12, 9.0)), 15.0, 3.0, None, 225.0, 1, "clear"
)


def day(when: datetime = datetime(2026, 5, 14, 10, tzinfo=UTC), reading: Reading = MAY, **other: Any) -> PlanInput:
    base = PlanInput(when, UPLAND, reading, (), Angler(), LINES, STARTER_FLIES, Rules(max_flies=2), "Drop")
    return replace(base, **other)
