"""The calendar file against the rules of RFC 5545, read line by line without the library that wrote it."""

import unittest
from datetime import UTC, datetime, timedelta, timezone

from stillthread.formats.calendar_file import PlannedOuting, write_calendar

BST = timezone(timedelta(hours=1))
OUTING = PlannedOuting(
    uid="7c0e",
    start=datetime(2026, 5, 14, 9, 30, tzinfo=BST),
    length_h=4.5,
    summary="Fishing: North arm, Grey Tarn",
    description="Float rig: hang 4.2 m; flies, two.\nTake the net\\long one. " + "Wörter " * 30,
    location="North arm, Grey Tarn",
    alarm="Fishing on Thursday 14 May at 09:30.",
    position=(-2.25, 54.1),
    made_at=datetime(2026, 5, 13, 20, tzinfo=UTC),
)


def unfolded(data):
    return data.decode("utf-8").replace("\r\n ", "").split("\r\n")


class Calendar(unittest.TestCase):
    def setUp(self):
        self.data = write_calendar(OUTING)
        self.lines = unfolded(self.data)

    def line(self, name):
        return next(one.split(":", 1)[1] for one in self.lines if one.split(":")[0].split(";")[0] == name)

    def test_lines_end_in_crlf_and_are_folded_at_75_octets(self):
        # RFC 5545 §3.1.
        self.assertTrue(self.data.endswith(b"\r\n"))
        self.assertNotIn(b"\n", self.data.replace(b"\r\n", b""))
        self.assertLessEqual(max(len(one) for one in self.data.split(b"\r\n")), 75)

    def test_the_objects_nest(self):
        opened = []
        for one in self.lines:
            if one.startswith("BEGIN:"):
                opened.append(one[6:])
            elif one.startswith("END:"):
                self.assertEqual(opened.pop(), one[4:])
        self.assertEqual(opened, [])
        self.assertEqual(
            [one for one in self.lines if one.startswith("BEGIN:")], ["BEGIN:VCALENDAR", "BEGIN:VEVENT", "BEGIN:VALARM"]
        )

    def test_times_are_utc(self):
        # 09:30 at +01:00 is 08:30 UTC; four and a half hours later 13:00.
        self.assertEqual((self.line("DTSTART"), self.line("DTEND")), ("20260514T083000Z", "20260514T130000Z"))
        self.assertEqual(self.line("DTSTAMP"), "20260513T200000Z")

    def test_text_is_escaped(self):
        # RFC 5545 §3.3.11: backslash, semicolon, comma and newline.
        self.assertTrue(
            self.line("DESCRIPTION").startswith("Float rig: hang 4.2 m\\; flies\\, two.\\nTake the net\\\\long one.")
        )
        self.assertEqual(self.line("LOCATION"), "North arm\\, Grey Tarn")

    def test_the_place_is_latitude_then_longitude(self):
        # RFC 5545 §3.8.1.6.
        self.assertEqual(self.line("GEO"), "54.1;-2.25")

    def test_the_same_outing_keeps_its_name(self):
        self.assertEqual(self.line("UID"), "7c0e@stillthread")

    def test_a_time_without_an_offset_is_refused(self):
        from dataclasses import replace

        with self.assertRaises(ValueError):
            write_calendar(replace(OUTING, start=datetime(2026, 5, 14, 9)))
