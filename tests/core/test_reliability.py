"""Was the plan right: levels and gains by hand, coverage where the truth is known."""

import math
import unittest

import numpy as np
from scipy import stats

from stillthread.core.evidence.reliability import Day, coverage, expected_in_words, gain, helped, in_words, level


class ByHand(unittest.TestCase):
    def test_the_level_of_a_depth(self):
        mass = [0.1, 0.4, 0.3, 0.2]
        for cell, expected in ((1, 0.2), (2, 0.55), (3, 0.8), (0, 0.95)):
            self.assertAlmostEqual(level(mass, cell), expected)
        self.assertAlmostEqual(level([1, 1, 1, 1], 2), 0.5)  # nothing told apart
        for bad in (([], 0), ([0, 0], 1), ([1], 1), ([1], -1)):
            with self.assertRaises(ValueError):
                level(*bad)

    def test_levels_of_depths_drawn_from_the_belief_are_uniform(self):
        # The probability integral transform of a highest-density region (Hyndman 1996), up to the width of a cell.
        rng = np.random.default_rng(3)
        mass = stats.norm.pdf(np.arange(80), 30, 12)
        drawn = rng.choice(80, 4000, p=mass / mass.sum())
        found = [level(list(mass), int(cell)) for cell in drawn]
        self.assertLess(stats.kstest(found, "uniform").statistic, 2 * max(mass) / sum(mass))  # two cells are alike

    def test_a_gain_is_the_log_likelihood_against_knowing_nothing(self):
        # Two hours where the weight is ln 3, two where it is 0: three takes there, one here.
        effort, takes = [(2, math.log(3)), (2, 0.0)], [math.log(3)] * 3 + [0.0]
        expected = stats.multinomial.logpmf([3, 1], 4, [0.75, 0.25]) - stats.multinomial.logpmf([3, 1], 4, [0.5, 0.5])
        self.assertAlmostEqual(gain(effort, takes), expected)
        self.assertEqual(gain(effort, []), 0)
        self.assertAlmostEqual(gain([(1, 5.0), (3, 5.0)], [5.0, 5.0]), 0)
        with self.assertRaises(ValueError):
            gain([], [0.0])


class ExpectedTakes(unittest.TestCase):
    def test_the_interval_is_that_of_a_count_where_days_are_alike(self):
        # 24 seen where 12 were expected: twice as many, give or take 1.96 times the root of 24 over 12.
        self.assertIn("(1.2 to 2.8 times as many, 95 %)", expected_in_words([(2.0, 4)] * 6))

    def test_bursts_widen_it(self):
        told = expected_in_words([(4.0, 24), (4.0, 0), (4.0, 0), (4.0, 0)])
        self.assertIn("16 takes; 24 came. That is as expected", told)

    def test_few_takes_are_only_counted(self):
        self.assertEqual(expected_in_words([(1.0, 2), (2.0, 1)]), "Over 2 outings the plans expected 3 takes; 3 came.")
        self.assertEqual(expected_in_words([]), "")
        self.assertIn("worse than your log", expected_in_words([(10.0, 2)] * 5))


class Seasons(unittest.TestCase):
    def season(self, right, days=40):
        """Outings whose takes follow the belief, or do not, however the effort lies."""
        rng = np.random.default_rng(11)
        made = []
        for _ in range(days):
            effort = [(float(h), float(u)) for h, u in zip(rng.uniform(0.5, 2, 5), rng.uniform(0, 1, 5), strict=True)]
            weights = np.array([h * (math.exp(-3 * u) if right else 1.0) for h, u in effort])
            counts = rng.multinomial(int(rng.poisson(3)), weights / weights.sum())
            takes = [u for (_, u), n in zip(effort, counts, strict=True) for _ in range(n)]
            tilt = gain([(h, -3 * u) for h, u in effort], [-3 * u for u in takes])
            away = gain([(h, 3 * u) for h, u in effort], [3 * u for u in takes])
            made.append(Day(tuple(takes), tuple(effort), {"temperature": tilt, "light": away}))
        return made

    def test_a_plan_that_was_right_is_told_so(self):
        days = self.season(right=True)
        half = next(p for p in coverage(days) if p.share == 0.5)
        self.assertGreater(half.low, half.fished)
        first, last = helped(days)
        self.assertEqual((first.name, last.name), ("temperature", "light"))
        self.assertTrue(first.low > 0 > last.high)
        self.assertRegex(in_words(coverage(days), 120), "right way|could have been surer")

    def test_one_that_knew_nothing_is_not_praised(self):
        days = self.season(right=False)
        half = next(p for p in coverage(days) if p.share == 0.5)
        self.assertTrue(half.low < half.fished < half.high)
        self.assertLess(helped(days)[0].low, 0.0)

    def test_seen_shares_grow_and_lie_within_their_intervals(self):
        points = coverage(self.season(right=True))
        self.assertEqual([p.seen for p in points], sorted(p.seen for p in points))
        self.assertTrue(all(0 <= p.low <= p.seen <= p.high <= 1 for p in points))

    def test_too_few_tell_nothing(self):
        few = self.season(right=True)[:2]
        self.assertEqual((coverage(few), helped(few)), ([], []))
        self.assertIn("Too few", in_words([], 2))
