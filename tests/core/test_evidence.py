import unittest

from scipy import stats

from stillthread.core.evidence.rates import Stretch, by_depth, poisson_rate
from tests import checks


class Rates(unittest.TestCase):
    def test_garwood_check_values(self):
        # scipy 1.17.1 stats.chi2, the textbook form of Garwood 1936.
        for entry in checks.of("10_stats", "Garwood"):
            rate = poisson_rate(entry["inputs"]["fish"], entry["inputs"]["hours"])
            self.assertAlmostEqual(rate.low, entry["expected"]["low"], places=6, msg=entry["id"])
            self.assertAlmostEqual(rate.high, entry["expected"]["high"], places=5, msg=entry["id"])

    def test_the_interval_is_what_it_claims(self):
        # By definition of the exact interval: at each limit the tail probability of the count is 2.5 %.
        rate = poisson_rate(4, 10)
        self.assertAlmostEqual(stats.poisson.sf(3, rate.low * 10), 0.025)
        self.assertAlmostEqual(stats.poisson.cdf(4, rate.high * 10), 0.025)

    def test_no_effort_no_rate(self):
        self.assertIsNone(poisson_rate(0, 0).per_hour)

    def test_refused(self):
        for bad in ((-1, 1), (1, -1)):
            with self.assertRaises(ValueError):
                poisson_rate(*bad)
        with self.assertRaises(ValueError):
            poisson_rate(1, 1, 1.0)


class ByDepth(unittest.TestCase):
    def test_blank_time_counts_and_gaps_are_shown(self):
        bins = by_depth([Stretch(0.5, 1, 0, 0), Stretch(2.2, 2, 3, 1), Stretch(None, 5, 1, 1)], 1.0)
        self.assertEqual(
            [(b.top_m, b.hours, b.takes.count, b.landed) for b in bins], [(0, 1, 0, 0), (1, 0, 0, 0), (2, 2, 3, 1)]
        )
        self.assertEqual(bins[0].takes.per_hour, 0)
        self.assertIsNone(bins[1].takes.per_hour)

    def test_effort_is_conserved(self):
        rows = [Stretch(d / 7, 0.25, 1, 0) for d in range(40)]
        self.assertAlmostEqual(sum(b.hours for b in by_depth(rows, 0.9144)), 10.0)

    def test_a_depth_on_the_line_belongs_below(self):
        self.assertEqual(by_depth([Stretch(2.0, 1, 0, 0)], 1.0)[2].hours, 1)

    def test_refused(self):
        with self.assertRaises(ValueError):
            by_depth([], 0)
        self.assertEqual(by_depth([], 1), [])
