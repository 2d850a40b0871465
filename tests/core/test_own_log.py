"""The own log: how like days are weighed, how thin data is held back, and what it does to belief, flies and rates."""

import unittest
from dataclasses import replace
from datetime import UTC, date, datetime

import numpy as np
from hypothesis import given
from hypothesis import strategies as st

from stillthread.core.belief.belief import cells
from stillthread.core.belief.own_log import MOST_SAID, own_log_factor
from stillthread.core.evidence.likeness import (
    PastStretch,
    fly_record,
    liken,
    likeness,
    place_likeness,
    rate_over_depth,
    shrunk_rate,
)
from stillthread.core.plan.make import make_plan
from tests.days import DROP, day

TODAY = date(2026, 5, 14)
Z = cells(6.0)


def past(depth, hours, takes, **other):
    base = PastStretch(
        on=date(2025, 5, 12),
        fished_h=hours,
        takes=takes,
        depth_m=depth,
        place="Drop",
        place_kind="drop-off",
        surface_c=12.5,
    )
    return replace(base, **other)


class Likeness(unittest.TestCase):
    def test_the_same_day_on_the_same_water_is_wholly_alike(self):
        self.assertAlmostEqual(likeness(past(2, 1, 1, on=date(2025, 5, 14)), TODAY, 12.5), 1.0, places=3)

    def test_half_a_year_away_counts_for_nothing_and_the_year_is_round(self):
        self.assertLess(likeness(past(2, 1, 1, on=date(2025, 11, 13)), TODAY, 12.5), 1e-6)
        december, january = date(2025, 12, 28), date(2026, 1, 3)
        self.assertGreater(likeness(past(2, 1, 1, on=december), january, 12.5), 0.9)

    def test_one_standard_deviation_of_warmth(self):
        # A Gaussian falls to exp(-1/2) = 0.6065 one standard deviation (2.5 °C) away.
        self.assertAlmostEqual(likeness(past(2, 1, 1, on=TODAY, surface_c=10.0), TODAY, 12.5), 0.6065, places=4)

    def test_unread_warmth_and_another_water_count_less(self):
        whole = likeness(past(2, 1, 1), TODAY, 12.5)
        self.assertLess(likeness(past(2, 1, 1, surface_c=None), TODAY, 12.5), whole)
        self.assertEqual(likeness(past(2, 1, 1, same_water=False), TODAY, 12.5), whole / 2)

    def test_places(self):
        self.assertEqual(place_likeness(past(2, 1, 1), "Drop", "drop-off"), 1.0)
        self.assertEqual(place_likeness(past(2, 1, 1), "Other", "drop-off"), 0.5)
        self.assertEqual(place_likeness(past(2, 1, 1), "Margin", "margin"), 0.25)


class Shrinkage(unittest.TestCase):
    def test_the_conjugate_posterior_by_hand(self):
        # Gamma(4, 4/1.5) prior and 6 takes in 2 h (Gelman et al., Bayesian Data Analysis): (4 + 6) / (4/1.5 + 2).
        self.assertAlmostEqual(shrunk_rate(6, 2, 1.5), 10 / (4 / 1.5 + 2))

    def test_the_same_against_the_distribution(self):
        # The mean of the gamma posterior, by scipy.
        from scipy.stats import gamma

        self.assertAlmostEqual(shrunk_rate(3, 5, 0.8), gamma(4 + 3, scale=1 / (4 / 0.8 + 5)).mean(), places=9)

    @given(st.floats(0, 50), st.floats(0, 50), st.floats(0.05, 5))
    def test_between_the_mean_and_the_raw_rate(self, takes, hours, mean):
        found = shrunk_rate(takes, hours, mean)
        if hours > 0:
            low, high = sorted((mean, takes / hours))
            self.assertTrue(low - 1e-9 <= found <= high + 1e-9)

    def test_no_mean_no_rate(self):
        with self.assertRaises(ValueError):
            shrunk_rate(1, 1, 0)


class Factor(unittest.TestCase):
    def factor(self, *stretches):
        return own_log_factor(Z, liken(tuple(stretches), TODAY, 12.5), DROP)

    def test_no_log_and_nothing_alike_stay_flat(self):
        for factor in (own_log_factor(Z, None, DROP), self.factor(past(2, 6, 9, on=date(2025, 11, 14)))):
            self.assertFalse(factor.known)
            self.assertFalse(factor.log_weight.any())

    def test_takes_pull_and_blank_hours_push(self):
        factor = self.factor(past(2.0, 4, 8), past(5.0, 4, 0))
        at = lambda depth: factor.log_weight[int(depth / 0.1)]  # noqa: E731
        self.assertGreater(at(2.0), 0.1)
        self.assertLess(at(5.0), -0.1)
        self.assertIn("2.0 m", factor.sentence)

    def test_thin_data_says_little_and_much_data_is_held(self):
        thin = self.factor(past(2.0, 0.7, 2), past(5.0, 0.7, 0)).log_weight
        thick = self.factor(*[past(2.0, 5, 40), past(5.0, 5, 0)] * 8).log_weight
        self.assertLess(float(np.abs(thin).max()), 0.5)
        self.assertGreater(float(np.abs(thick).max()), float(np.abs(thin).max()))
        self.assertLessEqual(float(np.abs(thick).max()), MOST_SAID)

    def test_the_same_rate_everywhere_chooses_no_depth(self):
        rate, _ = rate_over_depth(
            liken((past(1, 6, 6), past(3, 6, 6), past(5, 6, 6)), TODAY, 12.5), Z, "Drop", "drop-off"
        )
        self.assertLess(float(np.ptp(np.log(rate))), 0.35)

    def test_an_unsure_depth_is_spread_out(self):
        sure = self.factor(past(3, 5, 15, low_m=2.9, high_m=3.1), past(5.5, 5, 0)).log_weight
        unsure = self.factor(past(3, 5, 15, low_m=1.5, high_m=4.5), past(5.5, 5, 0)).log_weight
        self.assertGreater(unsure[10], sure[10])


class Plans(unittest.TestCase):
    LOG = tuple(past(1.2, 2.0, 4, flies=("Slim pupa, black",), taken_on=("Slim pupa, black",) * 4) for _ in range(4))

    def test_the_belief_moves_towards_what_was_fished_well_but_not_past_the_water(self):
        usual, told = make_plan(day()), make_plan(day(own_log=self.LOG))
        top = int(2.0 / 0.1)
        self.assertGreater(told.chosen.profile[:top].sum(), usual.chosen.profile[:top].sum())
        self.assertLess(told.chosen.profile[:top].sum(), 0.9)

    def test_enough_of_it_turns_rates_into_takes(self):
        told = make_plan(day(own_log=self.LOG, session_h=4))
        first = told.set_ups[0].expected
        self.assertTrue(first.low < first.per_hour < first.high)
        self.assertAlmostEqual(first.session, first.per_hour * (4 - told.set_ups[0].rigging_min / 60), places=6)
        self.assertIsNone(make_plan(day(own_log=self.LOG[:1])).set_ups[0].expected)

    def test_a_fly_that_took_its_share_and_more_counts_more(self):
        names = ("Slim pupa, black", "Shrimp, olive")
        log = tuple(past(2, 2, 6, flies=names, taken_on=(names[0],) * 6) for _ in range(6))
        record = fly_record(liken(log, TODAY, 12.5), (*names, "Never fished"))
        self.assertGreater(record[names[0]], 1.2)
        self.assertLess(record[names[1]], 0.8)
        self.assertAlmostEqual(record["Never fished"], 1.0)

    def test_a_depth_found_carries_to_every_method(self):
        # Trade: the float says 1.7 m, so fish nymphs or a line at 1.7 m.
        found = make_plan(day(found_m=1.7))
        self.assertAlmostEqual(found.chosen.peak_m, 1.7, delta=0.3)
        usual = make_plan(day())
        gap = lambda plan: np.mean([abs(s.target_m - 1.7) for s in plan.set_ups if s.method != "dry"])  # noqa: E731
        self.assertLess(gap(found), gap(usual))

    def test_a_depth_outside_the_water_is_refused(self):
        from stillthread.core.errors import InputError

        with self.assertRaises(InputError) as caught:
            make_plan(day(found_m=30.0))
        self.assertEqual(caught.exception.problems[0].path, "found_m")

    def test_dates_are_the_waters_own(self):
        late = datetime(2026, 5, 14, 23, 30, tzinfo=UTC)
        self.assertTrue(make_plan(day(when=late, own_log=self.LOG)).set_ups)
