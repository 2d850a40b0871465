"""iCalendar (RFC 5545) of a planned outing: when, where, and how it starts."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import UTC, datetime, timedelta

from icalendar import Alarm, Calendar, Event

PRODUCT = "-//Still Thread//Planned outing//EN"
REMIND_BEFORE = timedelta(hours=14)  # the evening before: time to tie what is missing


@dataclass(frozen=True)
class PlannedOuting:
    """An outing to be put in a calendar: a name that stays the same, start (aware), length [h], words, (lon, lat).

    `alarm` is what the reminder says; it goes off the evening before or earlier on the day, so it names the day itself.
    """

    uid: str
    start: datetime
    length_h: float
    summary: str
    description: str
    location: str
    alarm: str
    position: tuple[float, float] | None
    made_at: datetime


def write_calendar(outing: PlannedOuting) -> bytes:
    """Return the outing as an iCalendar file with a reminder the evening before.

    Times are UTC, so no time zone table is needed. Raises ValueError for a time without an offset.
    """
    if outing.start.tzinfo is None or outing.made_at.tzinfo is None:
        raise ValueError("times need an offset")
    event = Event()
    event.add("uid", f"{outing.uid}@stillthread")
    event.add("dtstamp", outing.made_at.astimezone(UTC))
    event.add("dtstart", outing.start.astimezone(UTC))
    event.add("dtend", (outing.start + timedelta(hours=outing.length_h)).astimezone(UTC))
    event.add("summary", outing.summary)
    event.add("description", outing.description)
    event.add("location", outing.location)
    if outing.position is not None:
        longitude, latitude = outing.position
        event.add("geo", (latitude, longitude))
    alarm = Alarm()
    alarm.add("action", "DISPLAY")
    alarm.add("description", outing.alarm)
    alarm.add("trigger", -REMIND_BEFORE)
    event.add_component(alarm)
    calendar = Calendar()
    calendar.add("prodid", PRODUCT)
    calendar.add("version", "2.0")
    calendar.add_component(event)
    return bytes(calendar.to_ical())
