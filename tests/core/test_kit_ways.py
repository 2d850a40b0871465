"""What the kit can do on a day: every line with every weight, each with a clock that agrees with a set-up made by hand."""

import unittest
from dataclasses import replace

from stillthread.core.day.given import HandMade, Rules
from stillthread.core.plan.kit_ways import CLOCK_S, kit_ways
from stillthread.core.plan.make import make_plan
from tests.days import LINES, MAY, TYPE_3, day


class KitWays(unittest.TestCase):
    @classmethod
    def setUpClass(cls):
        cls.ways = kit_ways(day())

    def test_every_line_with_a_fly_of_each_weight(self):
        pairs = {(one.line.key, one.flies[-1].fly.weight) for one in self.ways}
        self.assertEqual({line for line, _ in pairs}, {line.key for line in LINES})
        self.assertEqual({weight for _, weight in pairs}, {"buoyant", "unweighted", "weighted"})
        self.assertEqual(len({one.title for one in self.ways}), len(self.ways))  # each is called something else

    def test_each_has_its_clock_its_band_and_nothing_below_the_bed(self):
        for one in self.ways:
            with self.subTest(one.title):
                self.assertGreaterEqual(one.sink_table[-1].t_s, CLOCK_S)
                self.assertTrue(0 <= one.low_m <= one.estimate_m <= one.high_m <= 5.5 + 1e-6)

    def test_heavier_sinks_deeper_and_a_faster_line_too(self):
        # Facts of the trade: a bead and a denser line are deeper after a long count.
        at = {(one.line.key, one.flies[-1].fly.weight): one.sink_table[60].depth_m for one in self.ways}
        for line in LINES:
            self.assertLessEqual(at[line.key, "unweighted"], at[line.key, "weighted"] + 1e-9, line.key)
        for weight in ("unweighted", "weighted"):
            for slow, fast in (("floating", "intermediate"), ("intermediate", "t3"), ("t3", "t7")):
                self.assertLessEqual(at[slow, weight], at[fast, weight] + 1e-9, (slow, fast))

    def test_it_is_what_a_set_up_made_by_hand_would_be(self):
        one = next(way for way in self.ways if way.line is TYPE_3 and way.flies[-1].fly.weight == "weighted")
        hand = HandMade(line=TYPE_3.key, flies=(one.flies[-1].fly.key,), count_s=one.count_s)
        made = next(s for s in make_plan(day(by_hand=(hand,))).set_ups if s.by_hand is not None)
        self.assertAlmostEqual(made.estimate_m, one.estimate_m, places=6)
        for a, b in zip(made.sink_table, one.sink_table, strict=False):
            self.assertAlmostEqual(a.depth_m, b.depth_m, places=2)

    def test_nothing_where_the_water_is_too_warm_to_return_fish(self):
        hot = replace(MAY, profile=tuple(replace(point, temperature_c=22.0) for point in MAY.profile))
        self.assertEqual(kit_ways(day(reading=hot, rules=Rules(release="catch-and-release"))), ())
        self.assertTrue(kit_ways(day(reading=hot, rules=Rules(release="kill"))))

    def test_rules_and_an_empty_box_are_kept(self):
        floating = kit_ways(day(rules=Rules(sinking_lines_allowed=False)))
        self.assertTrue(floating and all(one.line.family == "floating" for one in floating))
        given = day()
        gone = tuple(replace(fly, stock=0) for fly in given.flies)
        self.assertEqual(kit_ways(replace(given, flies=gone)), ())
