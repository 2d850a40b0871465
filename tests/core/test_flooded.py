"""Ground that came under water lately: settlers take a season, so nothing lives on it yet (common practice)."""

import unittest
from dataclasses import replace

from stillthread.core.belief.factors import bare_share, flooded_down_to_m
from stillthread.core.noted.water import Place
from stillthread.core.plan.make import make_plan
from tests.days import MAY, UPLAND, day

MEADOW = Place(name="Meadow", kind="margin", depth_min_m=0.2, depth_max_m=1.8)
SHORE = Place(name="Old shore", kind="margin", depth_min_m=2.0, depth_max_m=3.5)


class Flooded(unittest.TestCase):
    def test_down_to_where_is_the_rise_since_the_lowest_level(self):
        risen = replace(MAY, level_m=-0.5)
        self.assertAlmostEqual(flooded_down_to_m(replace(UPLAND, lowest_level_m=-2.5), risen), 2.0)
        self.assertEqual(flooded_down_to_m(replace(UPLAND, lowest_level_m=-0.5), risen), 0.0)
        # Nothing known of the months before: only what lies above the datum counts as new.
        self.assertEqual(flooded_down_to_m(UPLAND, risen), 0.0)
        self.assertAlmostEqual(flooded_down_to_m(UPLAND, replace(MAY, level_m=0.7)), 0.7)
        self.assertEqual(flooded_down_to_m(UPLAND, MAY), 0.0)

    def test_the_share_of_a_bed_that_is_new(self):
        self.assertEqual(bare_share(MEADOW, 1.8, 2.0), 1.0)
        self.assertEqual(bare_share(SHORE, 3.5, 2.0), 0.0)
        self.assertAlmostEqual(bare_share(SHORE, 3.5, 2.75), 0.5)

    def test_it_does_not_win_and_says_why(self):
        water = replace(UPLAND, places=(MEADOW, SHORE), max_depth_m=6.0)
        reading = replace(MAY, water_depth_m=None, profile=MAY.profile[:3], level_m=0.0)
        dry, wet = (
            make_plan(day(reading=reading, water=replace(water, lowest_level_m=level), place=None))
            for level in (-2.0, 0.0)
        )
        shares = [{b.place.name: b.share for b in plan.beliefs} for plan in (dry, wet)]
        self.assertLess(shares[0]["Meadow"], shares[1]["Meadow"])
        self.assertEqual(dry.chosen.place.name, "Old shore")
        food = next(f for b in dry.beliefs if b.place.name == "Meadow" for f in b.factors if f.name == "food")
        self.assertIn("flooded lately", food.sentence)
