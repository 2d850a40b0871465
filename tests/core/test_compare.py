"""Rate ratios within outings: against a reference implementation, worked numbers, and truths that are known."""

import unittest

import numpy as np
from scipy import stats

from stillthread.core.evidence.compare import Both, Ratio, in_words, rate_ratio

RNG_SEED = 5


class Worked(unittest.TestCase):
    def test_mantel_haenszel_by_hand(self):
        # Two days: 4 takes in 2 h against 1 in 2 h, 3 in 1 h against 2 in 3 h. Top 4·2/4 + 3·3/4, bottom 1·2/4 + 2·1/4.
        found = rate_ratio([Both(2, 4, 2, 1), Both(1, 3, 3, 2)])
        self.assertAlmostEqual(found.ratio, (2 + 2.25) / (0.5 + 0.5))
        self.assertEqual(found.outings, 2)

    def test_many_days_alike_against_the_conditional_estimate(self):
        # With equal hours each day the ratio is that of the sums, and given the sum of takes a's are binomial
        # (Przyborowski and Wilenski 1940): the interval from scipy's exact binomial one is a little wider.
        rng = np.random.default_rng(RNG_SEED)
        a, b = rng.poisson(3.0, 60), rng.poisson(1.5, 60)
        found = rate_ratio([Both(2, int(x), 2, int(y)) for x, y in zip(a, b, strict=True)])
        self.assertAlmostEqual(found.ratio, a.sum() / b.sum())
        exact = stats.binomtest(int(a.sum()), int(a.sum() + b.sum())).proportion_ci(0.95)
        low, high = exact.low / (1 - exact.low), exact.high / (1 - exact.high)
        self.assertAlmostEqual(found.low, low, delta=0.15 * low)
        self.assertAlmostEqual(found.high, high, delta=0.15 * high)

    def test_what_differed_between_days_cancels(self):
        # The one fly is fished on good days mostly: the crude ratio is 2.5, within days they are the same.
        days = [Both(3, 9, 1, 3)] * 6 + [Both(1, 1, 3, 3)] * 6
        found = rate_ratio(days)
        self.assertAlmostEqual(found.ratio, 1.0)
        self.assertFalse(found.sure)


class Covers(unittest.TestCase):
    """On lakes that feed in bursts the 95 % interval holds the truth in 92 to 98 of 100 logs (the issue of every interval)."""

    def coverage(self, truth, outings, logs=1500, burst=1.2):
        rng = np.random.default_rng(RNG_SEED)
        held = told = 0
        for _ in range(logs):
            day = rng.gamma(0.8, 1.0 / 0.8, outings)  # days differ
            hours = rng.uniform(0.5, 3.0, (outings, 2))
            rate = 1.2 * day[:, None] * np.array([truth, 1.0]) * rng.gamma(1 / burst**2, burst**2, (outings, 2))
            takes = rng.poisson(rate * hours)
            found = rate_ratio([Both(h[0], int(k[0]), h[1], int(k[1])) for h, k in zip(hours, takes, strict=True)])
            if found.ratio is not None:
                told += 1
                held += found.low <= truth <= found.high
        self.assertGreater(told, 0.9 * logs)
        return held / told

    def test_bursts(self):
        for truth, outings in ((1.0, 12), (2.0, 12), (1.0, 40), (2.0, 40), (3.0, 25)):
            with self.subTest(truth=truth, outings=outings):
                self.assertGreaterEqual(self.coverage(truth, outings), 0.92)
                self.assertLessEqual(self.coverage(truth, outings), 0.98)

    def test_no_bursts(self):
        self.assertGreaterEqual(self.coverage(1.5, 30, burst=0.05), 0.92)


class Said(unittest.TestCase):
    def test_sure_and_turned_round(self):
        days = [Both(2, 8, 2, 2)] * 5 + [Both(2, 6, 2, 2)] * 5
        self.assertIn("Black took 3.5 times as often as Olive", in_words("Black", "Olive", rate_ratio(days)))
        turned = [Both(s.hours_b, s.takes_b, s.hours_a, s.takes_a) for s in days]
        self.assertIn("Black took 3.5 times as often as Olive", in_words("Olive", "Black", rate_ratio(turned)))

    def test_cannot_tell_says_what_it_would_take(self):
        days = [Both(1, 2, 1, 1), Both(1, 1, 1, 1), Both(1, 2, 1, 1), Both(1, 0, 1, 1)]
        found = rate_ratio(days)
        self.assertFalse(found.sure)
        self.assertIn("Cannot tell yet", in_words("A", "B", found))
        self.assertGreater(found.more_hours, 0)
        more = rate_ratio(days * 60)
        self.assertLess(more.high / more.low, found.high / found.low)

    def test_never_together_and_no_takes(self):
        self.assertIn("never fished on the same outing", in_words("A", "B", rate_ratio([Both(2, 3, 0, 0)])))
        self.assertIn("too few takes", in_words("A", "B", rate_ratio([Both(2, 0, 2, 0), Both(1, 3, 1, 0)])))
        self.assertEqual(rate_ratio([]), Ratio(ratio=None, low=None, high=None, outings=0, sure=False, more_hours=None))

    def test_blank_hours_never_raise_a_rate(self):
        days = [Both(2, 4, 2, 2), Both(3, 5, 1, 1), Both(1, 1, 2, 3)]
        before = rate_ratio(days).ratio
        for n in range(3):
            longer = [Both(s.hours_a + (i == n), s.takes_a, s.hours_b, s.takes_b) for i, s in enumerate(days)]
            with self.subTest(n):
                self.assertLess(rate_ratio(longer).ratio, before)
