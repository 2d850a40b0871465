"""The virtual lakes and their report: the same seed gives the same figures, and they are the kind of lake that is asked for."""

import pathlib
import sys
import unittest

import numpy as np

sys.path.insert(0, str(pathlib.Path(__file__).resolve().parents[2] / "scripts"))

from search_bench.lake import BEST_PLACE, DAY_MIN, FAMILIES, KINDS, PLANS, candidates_for, make_lake
from search_bench.report import summary
from search_bench.run import LADDER_NAMES, one_day

from stillthread.core.search.ladders import LADDERS


class Lakes(unittest.TestCase):
    def test_a_family_is_what_it_says(self):
        for n, family in enumerate(FAMILIES):
            lake = make_lake(family, "right", 40 + n)
            deepest = lake.beds_m.max()
            self.assertTrue(3 <= deepest <= 5 if family.shallow else 6 <= deepest <= 12)
            self.assertTrue(0.35 <= lake.reach[0] <= 0.8 if family.coloured else 0.9 <= lake.reach[0] <= 1.8)
            self.assertEqual(lake.quality.max(), 1.0)
            self.assertTrue((lake.layer_m < lake.beds_m[:, None]).all() and (lake.layer_m > 0).all())

    def test_the_rate_is_that_of_a_fly_held_where_the_fish_are(self):
        # an hour of the perfect set-up takes the lake's rate: its fly is noticed all the time it is fished
        for n, family in enumerate(FAMILIES):
            lake = make_lake(family, "right", 70 + n)
            still = [one for one in candidates_for(lake, family.coloured) if one.method == "float"]
            best = max(float(lake.noticed(one).max()) for one in still)
            self.assertAlmostEqual(best, still[0].fishing_share, delta=0.02)

    def test_a_plan_knows_the_best_place_as_often_as_its_odds_say(self):
        def knows(plan):
            lakes = [make_lake(FAMILIES[n % 16], plan, n) for n in range(400)]
            return np.mean([np.argmax([sum(m) for m in lake.belief.mass]) == lake.best_place for lake in lakes])

        for plan, odds in BEST_PLACE.items():
            self.assertAlmostEqual(knows(plan), odds[0], delta=0.08)  # three standard errors of 400 lakes

    def test_every_ladder_walks_what_can_be_fished(self):
        lake = make_lake(FAMILIES[0], "vague", 3)
        candidates = candidates_for(lake, False)
        for name, order in LADDERS.items():
            rungs = order(candidates, lake.belief, lake.kinds)
            self.assertGreater(len(rungs), 8, name)
            self.assertEqual(len({one.key for one in rungs}), len(rungs), name)
        down = LADDERS["top-down"](candidates, lake.belief, lake.kinds)
        here = [one.mean_m for one in down if one.place == down[0].place]
        self.assertEqual(here, sorted(here))
        self.assertEqual(
            {one.kinds[0] for one in LADDERS["fly-first"](candidates, lake.belief, lake.kinds)[:4]}, set(KINDS)
        )


class Report(unittest.TestCase):
    def test_the_same_seed_gives_the_same_figures_in_the_shape_agreed(self):
        jobs = [(3, n, plan, n, True, n == 0) for plan in PLANS for n in range(2)]
        first, second = ([one_day(job) for job in jobs] for _ in range(2))
        told = summary(first, 3, 2, 1.0)
        self.assertEqual(told, summary(second, 3, 2, 1.0))
        self.assertEqual(set(told["by_prior"]), {"right", "vague", "wrong", "mix"})
        for one in told["by_prior"].values():
            self.assertLessEqual(
                {"takes_ratio", "time_ratio", "blank_ratio", "takes_interval", "advisor", "best_ladder"}, set(one)
            )
        self.assertTrue(all(len(one.ladder_takes) == len(LADDER_NAMES) == 28 for one in first))
        self.assertTrue(all(0 <= one.first <= DAY_MIN for one in first))
        self.assertTrue({"two_rods", "band80", "decision_ms", "goals"} <= set(told))
