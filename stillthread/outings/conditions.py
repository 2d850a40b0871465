"""What was read of a water on the day of an outing."""

from __future__ import annotations

import uuid
from collections.abc import Iterable
from dataclasses import dataclass
from datetime import date, datetime
from typing import Any

from stillthread.core.sky.light import CLARITY_SECCHI_M
from stillthread.core.sky.wind import compass_point
from stillthread.core.water.profile import Point
from stillthread.outings.models import Outing
from stillthread.waters.models import Reading
from stillthread.waters.services import local_time
from stillthread.web.owned import live


@dataclass(frozen=True)
class Conditions:
    """What was read on a water's day: surface [°C], wind [m/s] and where from [deg], cloud [oktas], how clear
    it was [m of Secchi depth], temperatures by depth; None or empty where it was not; and the readings it is from.
    """

    surface_c: float | None = None
    wind_m_s: float | None = None
    wind_from_deg: float | None = None
    cloud_oktas: float | None = None
    secchi_m: float | None = None
    profile: tuple[Point, ...] = ()
    readings: tuple[uuid.UUID, ...] = ()


def _newer(value: float | None, before: float | None) -> float | None:
    return before if value is None else value


def _secchi_m(reading: dict[str, Any]) -> float | None:
    told, clarity = reading.get("secchi_m"), reading.get("clarity")
    return told or (CLARITY_SECCHI_M[clarity][0] if clarity in CLARITY_SECCHI_M else None)


def conditions_by_day(
    owner: Any, waters: Iterable[Any], between: tuple[datetime | None, datetime | None] = (None, None)
) -> dict[tuple[Any, date], Conditions]:
    """Return what was read on each day of some waters, `between` two instants: of several readings the last that has it."""
    found: dict[tuple[Any, date], Conditions] = {}
    rows = live(Reading, owner).filter(water__in=set(waters)).select_related("water").order_by("taken_at")
    since, before = between
    rows = rows if since is None else rows.filter(taken_at__gte=since)
    for row in rows if before is None else rows.filter(taken_at__lt=before):
        day = row.water_id, local_time(row.water, row.taken_at).date()
        old, profile = found.get(day, Conditions()), row.own_profile
        surface = profile[0]["temperature_c"] if profile and profile[0]["depth_m"] <= 1.0 else None
        found[day] = Conditions(
            surface_c=_newer(surface, old.surface_c),
            wind_m_s=_newer(row.reading.get("wind_m_s"), old.wind_m_s),
            wind_from_deg=_newer(row.reading.get("wind_from_deg"), old.wind_from_deg),
            cloud_oktas=_newer(row.reading.get("cloud_oktas"), old.cloud_oktas),
            secchi_m=_newer(_secchi_m(row.reading), old.secchi_m),
            profile=tuple(Point(**point) for point in profile) or old.profile,
            readings=(*old.readings, row.pk),
        )
    return found


def conditions_of(outing: Outing, by_day: dict[tuple[Any, date], Conditions]) -> Conditions:
    """Return what was read on an outing's day."""
    return by_day.get((outing.water_id, local_time(outing.water, outing.started_at).date()), Conditions())


def wind_point(told: Conditions) -> str:
    """Return where the wind came from as one of eight points, empty where it was not read."""
    return "" if told.wind_from_deg is None else compass_point(told.wind_from_deg)
