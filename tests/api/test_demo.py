from datetime import UTC, datetime

from django.contrib.auth.models import User
from django.test import TestCase

from stillthread.demo.load import load_demo
from stillthread.outings.models import Event, Outing
from stillthread.outings.services import read_log
from stillthread.waters.models import Reading


class Demo(TestCase):
    def test_a_part_season_for_both_anglers_once(self):
        now = datetime(2026, 6, 20, 9, tzinfo=UTC)
        first = load_demo(now)
        self.assertEqual(set(first), {"demo", "demo-feet"})
        self.assertTrue(all(count >= 10 for count in first.values()), first)
        counts = (Outing.objects.count(), Event.objects.count(), Reading.objects.count())
        self.assertEqual(set(load_demo(now).values()), {0})
        self.assertEqual(counts, (Outing.objects.count(), Event.objects.count(), Reading.objects.count()))
        units = {u.username: u.angler.depth_unit for u in User.objects.select_related("angler")}
        self.assertEqual(units, {"demo": "m", "demo-feet": "ft"})
        log = read_log(User.objects.get(username="demo"), None)
        self.assertTrue(0 < log.blank_outings < len(log.outings))
        self.assertGreater(log.takes_rate.count, 5)

    def test_the_next_day_gets_its_own_reading(self):
        load_demo(datetime(2026, 6, 20, 9, tzinfo=UTC))
        load_demo(datetime(2026, 6, 21, 9, tzinfo=UTC))
        newest = Reading.objects.first()
        self.assertEqual(newest.taken_at.date().isoformat(), "2026-06-21")
