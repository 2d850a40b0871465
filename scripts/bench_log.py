"""Measure what the log is asked: bench_log.py [--json] [--outings N]. A database of its own, with twelve years of a keen angler times ten.

Every question is asked through the API's own code; the first count of everything is told beside them.
"""

from __future__ import annotations

import argparse
import os
import pathlib
import random
import sys
import tempfile
import time
from collections.abc import Callable
from datetime import UTC, datetime, timedelta
from typing import Any, get_args

ROOT = pathlib.Path(__file__).resolve().parents[1]
sys.path.insert(0, str(ROOT))
FOLDER = tempfile.TemporaryDirectory(prefix="bench-log-")
os.environ["STILL_VAR"] = FOLDER.name
os.environ["DJANGO_SETTINGS_MODULE"] = "stillthread.site.settings"

import django  # noqa: E402

django.setup()

from django.contrib.auth.models import User  # noqa: E402
from django.core.management import call_command  # noqa: E402

from scripts.goals import tell  # noqa: E402
from stillthread.outings.answers import answers, compared  # noqa: E402
from stillthread.outings.answers_schemas import By, LogFilter  # noqa: E402
from stillthread.outings.facts import OVERLAP, bring_up  # noqa: E402
from stillthread.outings.models import Event, Outing, Spell  # noqa: E402
from stillthread.outings.services import read_behind, read_log  # noqa: E402
from stillthread.waters.models import Reading, Water  # noqa: E402

SPELLS_A_DAY, EVENTS_A_SPELL, ROUNDS = 10, 3, 5
MOST_MS = 100.0
FLIES = [f"Fly {n}" for n in range(40)]
METHODS = ("float", "nymphs", "sinking", "intermediate", "dry")


def _day(
    owner: User, waters: list[Water], dice: random.Random, n: int
) -> tuple[Outing, list[Spell], list[Event], Reading]:
    water = dice.choice(waters)
    began = datetime(2012, 1, 1, 9, tzinfo=UTC) + timedelta(hours=12 * n)
    outing = Outing(owner=owner, water=water, started_at=began, ended_at=began + timedelta(hours=8), note=f"Day {n}")
    spells, events = [], []
    for k in range(SPELLS_A_DAY):
        start = began + timedelta(minutes=48 * k)
        spell = Spell(
            owner=owner,
            outing=outing,
            place=f"Place {dice.randrange(12)}",
            method=dice.choice(METHODS),
            title="Set-up",
            line_title=f"Line {dice.randrange(6)}",
            depth_m=dice.uniform(0.3, 9.0),
            pace="static",
            flies=dice.sample(FLIES, 2),
            started_at=start,
            ended_at=start + timedelta(minutes=45),
        )
        spells.append(spell)
        for e in range(EVENTS_A_SPELL):
            kind, phase = dice.choice(("take", "pluck", "landed", "lost")), dice.choice(("", "drop", "hang"))
            at = start + timedelta(minutes=14 * e + 1)
            events.append(Event(owner=owner, spell=spell, kind=kind, phase=phase, fly=spell.flies[0], occurred_at=at))
    told = {
        "profile": [{"depth_m": d, "temperature_c": 8 + dice.random() * 8 - d / 4} for d in (0.0, 4.0, 8.0)],
        "wind_m_s": dice.uniform(0, 9),
        "wind_from_deg": dice.uniform(0, 359),
        "cloud_oktas": dice.randrange(9),
    }
    return outing, spells, events, Reading(owner=owner, water=water, taken_at=began, reading=told)


def fill(days: int) -> User:
    """Make an angler with so many outings."""
    owner, dice = User.objects.create_user("bencher"), random.Random(1)  # noqa: S311 - no secret
    waters = [
        Water(
            owner=owner, name=f"Water {n}", max_depth_m=10, latitude_deg=54, longitude_deg=-2, time_zone="Europe/London"
        )
        for n in range(5)
    ]
    Water.objects.bulk_create(waters)
    for first in range(0, days, 500):
        made = [_day(owner, waters, dice, n) for n in range(first, min(days, first + 500))]
        Outing.objects.bulk_create([one[0] for one in made])
        Spell.objects.bulk_create([spell for one in made for spell in one[1]], batch_size=500)
        Event.objects.bulk_create([event for one in made for event in one[2]], batch_size=500)
        Reading.objects.bulk_create([one[3] for one in made])
    return owner


def _ms(ask: Callable[[], Any]) -> list[float]:
    ask()  # the first one loads what it needs
    found = []
    for _ in range(ROUNDS):
        start = time.perf_counter()
        ask()
        found.append(1000 * (time.perf_counter() - start))
    return found


def questions(owner: User) -> dict[str, Callable[[], Any]]:
    """Every kind of question, by name."""
    whole, some = LogFilter(), LogFilter(month=10, surface_c=10, wind="N")
    found: dict[str, Callable[[], Any]] = {
        "list": lambda: read_log(owner, whole),
        "list_filtered": lambda: read_log(owner, some),
        "list_words": lambda: read_log(owner, LogFilter(q="day 77 fly 3")),
        "compare_flies": lambda: compared(owner, whole, "fly", ("Fly 1", "Fly 2"), ("a", "b")),
        "compare_ways": lambda: compared(owner, whole, "method", ("float", "sinking"), ("a", "b")),
        "behind": lambda: read_behind(owner, whole, "method", "float"),
    }
    for by in get_args(By):
        found[f"by_{by}"] = lambda by=by: answers(owner, whole, by)
        found[f"by_{by}_filtered"] = lambda by=by: answers(owner, some, by)
    return found


def measure(days: int) -> dict[str, float]:
    """Return the slowest of a few rounds of each question [ms], and the first count of everything [s]."""
    call_command("migrate", verbosity=0)
    owner = fill(days)
    time.sleep(OVERLAP.total_seconds())  # what has just been written is looked at twice
    start = time.perf_counter()
    bring_up(owner)
    found = {"first_count_s": time.perf_counter() - start}
    for name, ask in questions(owner).items():
        found[f"{name}_ms"] = max(_ms(ask))
    return found


def main() -> None:
    """Print the figures with their budgets."""
    parser = argparse.ArgumentParser(description=__doc__, prog="still bench log")
    parser.add_argument("--json", action="store_true")
    parser.add_argument("--outings", type=int, default=10_000)
    asked = parser.parse_args()
    found = measure(asked.outings)
    tell(found, {name: MOST_MS for name in found if name.endswith("_ms")}, asked.json)


if __name__ == "__main__":
    main()
