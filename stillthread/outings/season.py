"""A year on a water as one picture: what was fished and what came, by depth and day, over the lines of equal temperature."""

from __future__ import annotations

from datetime import datetime
from typing import Any
from uuid import UUID
from zoneinfo import ZoneInfo

from django.db.models import Sum

from stillthread.core.water.isotherms import isotherms
from stillthread.core.water.profile import Point
from stillthread.outings.answers_schemas import IsothermOut, SeasonPictureOut, SeasonStretchOut
from stillthread.outings.facts import CM_A_METRE, bring_up
from stillthread.outings.models import LogFact, OutingFact
from stillthread.waters.models import Reading, Water
from stillthread.waters.services import local_time
from stillthread.web.owned import get_owned, live

MOST_PROFILES = 400


def _day(local: datetime) -> float:
    """The day of the year, with its part that has gone."""
    return local.timetuple().tm_yday + local.hour / 24


def _profiles(water: Water, year: int) -> list[tuple[float, tuple[Point, ...]]]:
    zone = ZoneInfo(water.time_zone)
    span = datetime(year, 1, 1, tzinfo=zone), datetime(year + 1, 1, 1, tzinfo=zone)
    rows = live(Reading, water.owner).filter(water=water, taken_at__gte=span[0], taken_at__lt=span[1])
    return [
        (_day(local_time(water, row.taken_at)), tuple(Point(**point) for point in row.own_profile))
        for row in rows.order_by("taken_at")[:MOST_PROFILES]
    ]


def season_picture(owner: Any, water_id: UUID, year: int) -> SeasonPictureOut:
    """Return a year on a water by depth and day. Raises Http404 for another's water."""
    water = get_owned(Water, owner, water_id)
    bring_up(owner)
    facts = OutingFact.objects.filter(owner=owner, water=water, on__year=year)
    rows = LogFact.objects.filter(owner=owner, by="depth", fact__in=facts.values("pk")).order_by("fact__on", "key")
    found = rows.values("fact__on", "key").annotate(h=Sum("hours"), n=Sum("takes"))
    years = OutingFact.objects.filter(owner=owner, water=water).dates("on", "year", order="DESC")
    return SeasonPictureOut(
        year=year,
        years=[one.year for one in years],
        max_depth_m=water.max_depth_m,
        stretches=[
            SeasonStretchOut(
                day=row["fact__on"].timetuple().tm_yday,
                depth_m=int(row["key"]) / CM_A_METRE,
                hours=row["h"],
                takes=row["n"],
            )
            for row in found
        ],
        isotherms=[
            IsothermOut(temperature_c=one.temperature_c, runs=[list(run) for run in one.runs])
            for one in isotherms(_profiles(water, year))
        ],
    )
