from datetime import UTC, date, datetime, timedelta

from django.contrib.auth.models import User
from django.test import TestCase

from stillthread.demo.load import load_demo
from stillthread.demo.places import WATERS, invented_temperature_c
from stillthread.outings.answers_schemas import LogFilter
from stillthread.outings.models import Event, Outing
from stillthread.outings.services import read_log
from stillthread.waters.models import Reading


class InventedWaters(TestCase):
    def test_temperatures_are_possible_and_fall_with_depth_in_summer(self):
        for water in WATERS:
            for day in (date(2026, month, 10) for month in range(1, 13)):
                column = [invented_temperature_c(water, day, d) for d in range(15)]
                self.assertTrue(all(3 <= t <= 25 for t in column))
                self.assertEqual(column, sorted(column, reverse=True))
            summer = invented_temperature_c(water, date(2026, 8, 3), 0) - invented_temperature_c(
                water, date(2026, 8, 3), 12
            )
            self.assertGreater(summer, 5)

    def test_every_season_of_the_year_loads(self):
        for month in (1, 4, 8, 11):
            User.objects.all().delete()
            self.assertTrue(all(load_demo(datetime(2026, month, 5, 9, tzinfo=UTC), outings=1).values()))


class Demo(TestCase):
    NOW = datetime(2026, 6, 20, 9, tzinfo=UTC)

    @classmethod
    def setUpTestData(cls):
        cls.first = load_demo(cls.NOW, outings=11)

    def test_a_part_season_for_both_anglers_once(self):
        now, first = self.NOW, self.first
        self.assertEqual(set(first), {"demo", "demo-feet"})
        self.assertTrue(all(count >= 10 for count in first.values()), first)
        counts = (Outing.objects.count(), Event.objects.count(), Reading.objects.count())
        self.assertEqual(set(load_demo(now).values()), {0})
        self.assertEqual(counts, (Outing.objects.count(), Event.objects.count(), Reading.objects.count()))
        units = {u.username: u.angler.depth_unit for u in User.objects.select_related("angler")}
        self.assertEqual(units, {"demo": "m", "demo-feet": "ft"})
        log = read_log(User.objects.get(username="demo"), LogFilter())
        self.assertTrue(0 < log.blank_outings < len(log.outings))
        self.assertGreater(log.takes_rate.count, 5)

    def test_the_next_day_gets_its_own_reading(self):
        load_demo(self.NOW + timedelta(days=1))
        newest = Reading.objects.first()
        self.assertEqual(newest.taken_at.date().isoformat(), "2026-06-21")
