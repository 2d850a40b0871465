"""Load the demo: two invented anglers, two invented waters, a kit, a part-season."""

from __future__ import annotations

import secrets
import uuid
from datetime import UTC, datetime, timedelta
from typing import Any

import numpy as np
from django.conf import settings
from django.contrib.auth.models import User
from django.db import transaction

from stillthread.accounts.mark import mark_as_demo
from stillthread.accounts.models import Angler
from stillthread.accounts.services import DEMO_NAMES
from stillthread.core.tackle.flies import STARTER_FLIES
from stillthread.demo.places import UPLAND, WATERS, DemoWater
from stillthread.demo.season import SEASON_OUTINGS, write_reading, write_season
from stillthread.demo.water_year import refresh_forecast, write_chart, write_year
from stillthread.flybox.box_services import add_starter_flies
from stillthread.flybox.models import Line
from stillthread.waters.models import Reading
from stillthread.waters.schemas import WaterBody, WaterOut
from stillthread.waters.services import list_waters, put_water
from stillthread.web.owned import live, put_owned

LINES = (
    ("floating", 0.0, 0.0),
    ("sink-tip", 2.0, 1.8),
    ("intermediate", 1.2, 0.0),
    ("sinking", 3.0, 0.0),
    ("sinking", 5.0, 0.0),
)
SETTINGS = {
    "metric": {"depth_unit": "m", "temperature_unit": "c", "wind_unit": "m_s", "vocabulary": "gb", "afloat": True},
    "feet": {"depth_unit": "ft", "temperature_unit": "f", "wind_unit": "mph", "vocabulary": "na", "rod_m": 2.74},
}


def demo_password() -> str:
    """Return the demo accounts' password, made at first use and kept in the var folder."""
    path = settings.VAR / "demo_password"
    if not path.exists():
        path.touch(mode=0o600)
        path.write_text(secrets.token_urlsafe(9), "utf-8")
    return str(path.read_text("utf-8"))


def _make_angler(which: str) -> User:
    user, made = User.objects.get_or_create(username=DEMO_NAMES[which])
    if made:
        user.set_password(demo_password())
        user.save()
    Angler.objects.update_or_create(user=user, defaults={"is_demo": True, **SETTINGS[which]})
    return user


def _make_water(owner: User, water: DemoWater, today: datetime) -> WaterOut:
    def of(*parts: str) -> uuid.UUID:
        return uuid.uuid5(uuid.NAMESPACE_URL, "/".join((f"demo-{owner.username}", water.key, *parts)))

    places = [{**place, "id": of(place["name"])} for place in water.body["places"]]
    stocked = today.date() - timedelta(days=9) if water.stock_every_days else None
    body = WaterBody.model_validate(
        {**water.body, "places": places, "stocked_on": stocked, "rules_read_on": today.date() - timedelta(days=80)}
    )
    return put_water(owner, of(), body)


@transaction.atomic
def _fill(owner: User, which: str, now: datetime, outings: int) -> int:
    """Give a new demo angler kit, waters and outings; returns how many outings."""
    for family, rate, tip in LINES:
        line_id = uuid.uuid5(uuid.NAMESPACE_URL, f"{owner.username}-{family}-{rate}")
        put_owned(Line, owner, line_id, family=family, label_ips=rate, tip_length_m=tip, weight_class=7)
    add_starter_flies(owner, [fly.key for fly in STARTER_FLIES])
    waters = [(water, _make_water(owner, water, now)) for water in WATERS]
    rng = np.random.default_rng(len(which) + 1)
    for water, out in waters:
        write_year(owner=owner, water=water, out=out, now=now, rng=rng)
        if water is UPLAND:
            write_chart(owner, out, now, rng)
    return write_season(owner=owner, pairs=waters, today=now.date(), seed=len(which), outings=outings)


def refresh_readings(owner: Any, now: datetime) -> None:
    """Make sure each demo water has a reading of today, so the demo opens on today's plan."""
    rng = np.random.default_rng(now.timetuple().tm_yday)
    by_name = {water.body["name"]: water for water in WATERS}
    for out in list_waters(owner):
        if out.name not in by_name:
            continue
        newest = live(Reading, owner).filter(water_id=out.id).first()
        if newest is None or newest.taken_at.date() < now.date():
            write_reading(owner=owner, water=by_name[out.name], out=out, when=now, rng=rng)
        refresh_forecast(owner, out, now)


def load_demo(now: datetime | None = None, outings: int = SEASON_OUTINGS) -> dict[str, int]:
    """Load whatever of the demo is missing, up to so many outings each; returns the outings written for each demo angler.

    Raises PermissionError where real accounts live.
    """
    mark_as_demo()
    now = now or datetime.now(UTC)
    written = {}
    for which in DEMO_NAMES:
        owner = _make_angler(which)
        written[owner.username] = 0 if list_waters(owner) else _fill(owner, which, now, outings)
        refresh_readings(owner, now)
    return written
