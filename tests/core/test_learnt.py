"""What own takes teach: curves by hand, seasons whose truth is known, and that plans go by what was taken over."""

import math
import unittest
from dataclasses import replace

import numpy as np
from scipy import stats

from stillthread.core.day.given import Angler, Rules
from stillthread.core.plan.make import day_context, make_plan
from stillthread.core.trout.learnt import (
    NOTICE,
    WARMER_C,
    Learnt,
    Tried,
    found,
    notice_curve,
    notice_in_words,
    warmer_curve,
    warmer_in_words,
)
from stillthread.core.trout.notice import notice_kernel, upward_reach_m
from stillthread.core.trout.temperature import log_preference
from stillthread.core.water.profile import Point
from tests.days import SUMMER, day

DEPTHS = np.arange(80) * 0.1 + 0.05
SPECIES = ("rainbow",)


class Curves(unittest.TestCase):
    def test_a_curve_is_the_likelihood_of_where_the_takes_came(self):
        # Two stretches of two and one hours at 15 and 8 °C, three takes and one: multinomial shares by hours times liking.
        tried = [Tried(2.0, 3, 15.0), Tried(1.0, 1, 8.0)]
        for warmer, told in zip(WARMER_C, warmer_curve(tried, SPECIES), strict=True):
            liked = np.exp([float(log_preference(t - warmer, "rainbow")) for t in (15.0, 8.0)]) * [2.0, 1.0]
            expected = stats.multinomial.logpmf([3, 1], 4, liked / liked.sum())
            expected -= stats.multinomial.logpmf([3, 1], 4, [2 / 3, 1 / 3])
            self.assertAlmostEqual(told, expected)

    def test_takes_only_where_the_fish_lie_speak_for_a_short_distance(self):
        mass = stats.norm.pdf(DEPTHS, 3.0, 0.2)
        near = notice_curve([Tried(1, 4, 3.0), Tried(1, 0, 1.8)], DEPTHS, mass, 2.0)
        wide = notice_curve([Tried(1, 2, 3.0), Tried(1, 2, 1.8)], DEPTHS, mass, 2.0)
        self.assertEqual(int(np.argmax(near)), 0)
        self.assertEqual(int(np.argmax(wide)), len(NOTICE) - 1)

    def test_a_day_at_one_depth_or_without_a_take_teaches_nothing(self):
        mass = np.ones(80)
        for curve in (
            notice_curve([Tried(2, 5, 3.0)], DEPTHS, mass, 3.0),
            notice_curve([Tried(2, 0, 3.0), Tried(1, 0, 1.0)], DEPTHS, mass, 3.0),
            warmer_curve([Tried(2, 5, 14.0), Tried(1, 0, 14.0)], SPECIES),
        ):
            self.assertTrue(all(abs(one) < 1e-9 for one in curve), curve)


class Seasons(unittest.TestCase):
    def season(self, seed, notice=1.0, warmer=0.0, days=30):
        """Outings whose takes follow a figure; a day's luck differs from day to day. Returns the curves and the takes."""
        rng = np.random.default_rng(seed)
        noticed, warmed, takes = [], [], []
        for _ in range(days):
            mass = stats.norm.pdf(DEPTHS, rng.uniform(2, 6), 0.5)
            depths, hours = rng.uniform(0.5, 7.5, 6), rng.uniform(0.3, 1.2, 6)
            warm = rng.uniform(16, 24) - rng.uniform(0.8, 1.6) * depths
            share = np.array([float(mass / mass.sum() @ notice_kernel(d, DEPTHS, 3.0, times=notice)) for d in depths])
            liked = np.exp(log_preference(warm - warmer, "rainbow"))
            for weights, curves, at in ((share, noticed, depths), (liked, warmed, warm)):
                counts = rng.multinomial(n := int(rng.poisson(rng.gamma(2, 2))), (w := hours * weights) / w.sum())
                tried = [Tried(float(h), int(k), float(a)) for h, k, a in zip(hours, counts, at, strict=True)]
                told = notice_curve(tried, DEPTHS, mass, 3.0) if curves is noticed else warmer_curve(tried, SPECIES)
                curves.append(told)
            takes.append(n)
        return noticed, warmed, takes

    def test_the_truth_lies_in_the_interval_and_nothing_is_offered_where_there_is_nothing(self):
        held, false = 0, 0
        for seed in range(30):
            noticed, _, _ = self.season(seed)
            counts = [4] * len(noticed)
            told = found(noticed, counts, NOTICE, 1.0)
            held += told.low <= 1.0 <= told.high
            false += told.clear
        self.assertGreaterEqual(held, 25)  # 95 % of 30, less what chance allows
        self.assertLessEqual(false, 4)

    def test_what_differs_is_found(self):
        close = 0
        for seed in range(10):
            noticed, _, _ = self.season(seed, notice=1.7)
            told = found(noticed, [4] * len(noticed), NOTICE, 1.0)
            close += told.clear and abs(math.log(told.value / 1.7)) < 0.35
        self.assertGreaterEqual(close, 7)
        _, warmed, _ = self.season(3, warmer=-2.0)
        told = found(warmed, [4] * len(warmed), WARMER_C, 0.0)
        self.assertTrue(told.clear)
        self.assertAlmostEqual(told.value, -2.0, delta=1.0)
        self.assertIn("cooler water than the plan reckons", warmer_in_words(told))

    def test_too_few_takes_or_days_tell_nothing(self):
        noticed, _, _ = self.season(1)
        self.assertIsNone(found(noticed[:5], [9] * 5, NOTICE, 1.0))
        self.assertIsNone(found(noticed, [0] * 20 + [1] * 10, NOTICE, 1.0))
        self.assertIsNone(found([], [], NOTICE, 1.0))

    def test_takes_that_tell_nothing_are_said_to_tell_nothing(self):
        told = found([[0.0] * len(NOTICE)] * 10, [5] * 10, NOTICE, 1.0)
        self.assertTrue(told.silent and not told.clear)
        self.assertIn("cannot tell yet (50 takes on 10 outings)", notice_in_words(told))
        self.assertIn("cannot tell yet", warmer_in_words(told))

    def test_the_same_takes_teach_the_same(self):
        noticed, _, takes = self.season(2)
        self.assertEqual(found(noticed, takes, NOTICE, 1.0), found(noticed, takes, NOTICE, 1.0))

    def test_words_agree_with_the_numbers(self):
        noticed, _, _ = self.season(4, notice=2.0)
        told = found(noticed, [4] * len(noticed), NOTICE, 1.0)
        self.assertIn(f"{told.value:.1f} times as far", notice_in_words(told))
        self.assertIn("further than the plan reckons", notice_in_words(told))


class InThePlan(unittest.TestCase):
    def test_a_fly_is_noticed_so_many_times_as_far(self):
        self.assertAlmostEqual(upward_reach_m(3.0, times=1.5), 1.5 * upward_reach_m(3.0))
        usual, further = (self.context(Learnt(notice=times)).reach for times in (1.0, 2.0))
        depths = np.linspace(0.2, 5.4, 30)
        self.assertTrue((further.many(depths) > usual.many(depths)).all())

    def context(self, learnt, **other):
        return day_context(day(angler=Angler(learnt=learnt), **other))[0]

    def test_warmer_moves_the_belief_to_warmer_water_and_says_so(self):
        peaks = {}
        for warmer in (-3.0, 0.0, 3.0):
            context = self.context(Learnt(warmer_c=warmer), reading=SUMMER, place="Basin")
            told = next(one for one in context.belief.factors if one.name == "temperature")
            peaks[warmer] = float(context.belief.depths_m[int(np.argmax(told.log_weight))])
            self.assertEqual("Your own takes" in told.sentence, warmer != 0)
        self.assertGreater(peaks[-3.0], peaks[0.0])
        self.assertGreater(peaks[0.0], peaks[3.0])

    def test_what_is_too_warm_to_fish_for_stays_too_warm(self):
        hot = tuple(Point(p.depth_m, 22.0) for p in SUMMER.profile)
        rules = Rules(max_flies=2, release="catch-and-release")
        for warmer in (0.0, 3.0):
            given = day(
                angler=Angler(learnt=Learnt(warmer_c=warmer)), reading=replace(SUMMER, profile=hot), rules=rules
            )
            self.assertEqual(make_plan(given).set_ups, ())

    def test_a_plan_goes_by_it_and_names_it(self):
        told = make_plan(day(angler=Angler(learnt=Learnt(notice=1.6))))
        sentences = [part.sentence for place in told.beliefs for part in place.factors if part.name == "own-log"]
        self.assertTrue(sentences and all("noticed 1.6 times as far as usual" in one for one in sentences))
