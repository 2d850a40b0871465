import unittest
from datetime import datetime, timedelta

from hypothesis import given
from hypothesis import strategies as st
from scipy import stats

from stillthread.core.evidence.fish import fish_among
from stillthread.core.evidence.rates import Stretch, by_depth, poisson_rate
from tests import checks


class Fish(unittest.TestCase):
    NOON = datetime(2026, 5, 14, 12)

    def among(self, *taps):
        return fish_among([(kind, self.NOON + timedelta(seconds=s)) for kind, s in taps])

    def test_landed_or_lost_ends_the_take_before_it(self):
        self.assertEqual(self.among(("take", 0), ("pluck", 20), ("lost", 90)), [2])
        self.assertEqual(self.among(("take", 0), ("take", 60), ("landed", 120)), [0, 2])

    def test_one_ending_ends_one_take(self):
        self.assertEqual(self.among(("take", 0), ("landed", 60), ("lost", 70)), [1, 2])

    @given(st.lists(st.tuples(st.sampled_from(["take", "lost", "landed", "pluck", "blank"]), st.integers(0, 900))))
    def test_fish_never_outnumber_taps_and_every_ending_is_one(self, taps):
        taps = sorted(taps, key=lambda tap: tap[1])
        found = [taps[n][0] for n in self.among(*taps)]
        kinds = [kind for kind, _ in taps]
        self.assertEqual([found.count(k) for k in ("lost", "landed")], [kinds.count(k) for k in ("lost", "landed")])
        self.assertLessEqual(found.count("take"), kinds.count("take"))


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

    def test_a_quarter_of_an_hour_at_least(self):
        # Two takes in a minute and a half are no eighty an hour: the count alone is told.
        short = poisson_rate(2, 1.5 / 60)
        self.assertEqual((short.count, short.per_hour, short.low, short.high), (2, None, None, None))
        self.assertEqual(poisson_rate(2, 0.25).per_hour, 8.0)

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
