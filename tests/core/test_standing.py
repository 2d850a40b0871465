"""Wind and thunder in a row of readings: the latest that names them decides (handbook §13: ashore from 8 m/s; 30 minutes after
the last thunder).
"""

import unittest
from dataclasses import replace
from datetime import UTC, datetime, timedelta

from stillthread.core.noted.reading import Reading
from stillthread.core.noted.standing import Taken, dated, holding, read_at
from stillthread.core.noted.turned import turned

NINE = datetime(2026, 5, 14, 9, tzinfo=UTC)


def at(minutes):
    return NINE + timedelta(minutes=minutes)


def held(*newest_first, now):
    """What holds `now` minutes after nine; each reading is its minute and what it says."""
    return holding([Taken(Reading(**says), at(minute)) for minute, says in newest_first], at(now))


class Holding(unittest.TestCase):
    def test_a_reading_that_names_neither_leaves_both_for_half_an_hour(self):
        gale, quiet = (0, {"wind_m_s": 14.0, "thunder": True}), (5, {"cloud_oktas": 8})
        for now, wind, thunder in ((6, 14.0, True), (30, 14.0, True), (31, None, False)):
            found = held(quiet, gale, now=now)
            self.assertEqual((found.wind_m_s, found.thunder, found.cloud_oktas), (wind, thunder, 8), now)

    def test_of_equals_the_first_of_the_row_decides(self):
        self.assertEqual(held((0, {"wind_m_s": 14.0}), (0, {"wind_m_s": 2.0}), now=1).wind_m_s, 14.0)
        self.assertEqual(held((0, {"wind_m_s": 2.0}), (0, {"wind_m_s": 14.0}), now=1).wind_m_s, 2.0)

    def test_a_calm_named_later_is_the_end_of_a_gale(self):
        self.assertEqual(held((5, {"wind_m_s": 0.0}), (0, {"wind_m_s": 14.0}), now=6).wind_m_s, 0.0)

    def test_a_wind_carried_on_from_before_the_gale_does_not_end_it(self):
        carried = (20, {"wind_m_s": 3.0, "wind_at": at(0)})
        for now in (21, 90):
            self.assertEqual(held(carried, (10, {"wind_m_s": 14.0}), now=now).wind_m_s, 14.0)

    def test_thunder_said_to_be_over_is_over(self):
        over = (12, {"thunder": False, "thunder_at": at(12)})
        self.assertFalse(held(over, (0, {"thunder": True}), now=13).thunder)
        self.assertTrue(held((14, {"thunder": True}), over, now=15).thunder)

    def test_the_wind_brings_its_direction(self):
        found = held((5, {"wind_from_deg": 90.0}), (0, {"wind_m_s": 9.0, "wind_from_deg": 225.0}), now=6)
        self.assertEqual((found.wind_m_s, found.wind_from_deg), (9.0, 225.0))

    def test_nothing_read(self):
        self.assertIsNone(holding([], NINE))


class Dated(unittest.TestCase):
    def test_an_edit_keeps_the_instant_of_what_it_does_not_change(self):
        before = Taken(Reading(wind_m_s=4.0, thunder=True), at(0))
        later = dated(Taken(Reading(wind_m_s=4.0, cloud_oktas=3), at(40)), before)
        self.assertEqual((later.wind_at, later.thunder_at), (at(0), at(40)))  # the thunder was taken off
        self.assertEqual(dated(Taken(Reading(wind_m_s=4.0, cloud_oktas=3), at(40)), Taken(later, at(40))), later)

    def test_a_new_reading_names_what_it_says(self):
        new = dated(Taken(Reading(wind_m_s=0.0), at(3)), None)
        self.assertEqual((new.wind_at, new.thunder_at), (at(3), None))
        gone = dated(Taken(Reading(), at(9)), Taken(new, at(3)))
        self.assertIsNone(gone.wind_at)

    def test_a_turn_of_the_day_carries_the_instants_on(self):
        before = Reading(wind_m_s=4.0, thunder=True)
        for turn, wind, thunder in (
            ("coloured", at(0), at(0)),
            ("wind-dropped", at(30), at(0)),
            ("thunder-over", at(0), at(30)),
        ):
            reading, _ = turned(before, (), turn, taken_at=at(0), at=at(30))
            self.assertEqual((reading.wind_at, reading.thunder_at), (wind, thunder), turn)
            self.assertEqual(reading.thunder, turn != "thunder-over")
        self.assertIsNone(read_at(Taken(replace(before, wind_m_s=None), at(0)), "wind"))
