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

FLOATING = Line(key="floating", family="floating")
TIP = Line(key="tip", family="sink-tip", label_ips=2.0, weight_class=7, tip_length_m=1.8)
INTERMEDIATE = Line(key="intermediate", family="intermediate", label_ips=1.2)
TYPE_3 = Line(key="t3", family="sinking", label_ips=3.0)
TYPE_7 = Line(key="t7", family="sinking", label_ips=7.0)
LINES = (FLOATING, TIP, INTERMEDIATE, TYPE_3, TYPE_7)

DROP = Place(name="Drop", kind="drop-off", depth_min_m=3, depth_max_m=6, facing_deg=225)
MARGIN = Place(name="Margin", kind="margin", depth_min_m=0.5, depth_max_m=2.5, facing_deg=45)
BASIN = Place(name="Basin", kind="open-water", depth_min_m=8, depth_max_m=18)
UPLAND = Water(
    name="Test reservoir",
    max_depth_m=18.0,
    hemisphere="north",
    places=(DROP, MARGIN, BASIN),
    latitude_deg=54.0,
    longitude_deg=-2.5,
)


def profile(*pairs: tuple[float, float]) -> tuple[Point, ...]:
    return tuple(Point(d, t) for d, t in pairs)


MAY = Reading(
    profile=profile((0, 12.5), (1, 12.3), (2, 12.0), (3, 11.2), (4, 10.5), (5, 10.0)),
    water_depth_m=5.5,
    wind_m_s=4.0,
    gust_m_s=None,
    wind_from_deg=225.0,
    cloud_oktas=6,
    clarity="clear",
)
SUMMER = Reading(
    profile=profile((0, 19.5), (2, 19.2), (4, 18.6), (6, 15.5), (8, 12.0), (12, 9.0)),
    water_depth_m=15.0,
    wind_m_s=3.0,
    gust_m_s=None,
    wind_from_deg=225.0,
    cloud_oktas=1,
    clarity="clear",
)


def day(when: datetime = datetime(2026, 5, 14, 10, tzinfo=UTC), reading: Reading = MAY, **other: Any) -> PlanInput:
    base = PlanInput(
        when=when,
        water=UPLAND,
        reading=reading,
        sightings=(),
        angler=Angler(),
        lines=LINES,
        flies=STARTER_FLIES,
        rules=Rules(max_flies=2),
        place="Drop",
    )
    return replace(base, **other)
