"""Wind and thunder in a row of readings: when each was read, and what holds now although a later reading does not name it."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace
from datetime import datetime, timedelta
from typing import Any, Literal

from stillthread.core.noted.reading import Reading

Topic = Literal["wind", "thunder"]
TOPICS: tuple[Topic, ...] = ("wind", "thunder")
# The values of each topic, and the field that says when they were read.
VALUES: dict[Topic, tuple[str, ...]] = {"wind": ("wind_m_s", "gust_m_s"), "thunder": ("thunder",)}
READ_AT: dict[Topic, str] = {"wind": "wind_at", "thunder": "thunder_at"}
# What was read holds for so long where later readings do not name it: the wait after the last thunder (handbook §13).
HOLDS = timedelta(minutes=30)


@dataclass(frozen=True)
class Taken:
    """A reading and the instant it was taken."""

    reading: Reading
    at: datetime


def _values(reading: Reading, topic: Topic) -> tuple[Any, ...]:
    return tuple(getattr(reading, name) for name in VALUES[topic])


def _says(reading: Reading, topic: Topic) -> bool:
    """Whether a reading has a wind (calm too), or thunder."""
    if topic == "thunder":
        return reading.thunder
    return reading.wind_m_s is not None or reading.gust_m_s is not None


def read_at(taken: Taken, topic: Topic) -> datetime | None:
    """Return when a reading's wind or thunder was read, or said to be over; None where it does not name it."""
    known: datetime | None = getattr(taken.reading, READ_AT[topic])
    return known or (taken.at if _says(taken.reading, topic) else None)


def dated(taken: Taken, before: Taken | None) -> Reading:
    """Return a reading with the instants its wind and thunder were read, by the version `before` of the same reading.

    Unchanged values keep their instant; thunder taken off is thunder said to be over, a wind taken off is no wind read.
    """
    at: dict[str, Any] = {}
    for topic in TOPICS:
        name, says = READ_AT[topic], _says(taken.reading, topic)
        if before is None:
            at[name] = getattr(taken.reading, name) or (taken.at if says else None)
        elif _values(before.reading, topic) == _values(taken.reading, topic):
            at[name] = read_at(before, topic)
        else:
            at[name] = taken.at if says or topic == "thunder" else None
    return replace(taken.reading, **at)


def holding(taken: Sequence[Taken], now: datetime) -> Reading | None:
    """Return the first of some readings, newest first, with the wind and thunder that hold at an instant; None of none.

    The latest that names wind or thunder decides, whoever took it; of equals the earlier in the row. Where the newest reading
    names neither, it decides for half an hour.
    """
    if not taken:
        return None
    found = taken[0].reading
    for topic in TOPICS:
        named = [(at, -n) for n, one in enumerate(taken) if (at := read_at(one, topic)) is not None]
        if not named:
            continue
        at, n = max(named)
        if _says(found, topic) or now - at <= HOLDS:
            latest = taken[-n].reading
            values: dict[str, Any] = {name: getattr(latest, name) for name in VALUES[topic]}
            values[READ_AT[topic]] = at
            found = replace(found, **values)
            if topic == "wind" and latest.wind_from_deg is not None:
                found = replace(found, wind_from_deg=latest.wind_from_deg)
    return found
