"""The belief of a search, held to Bayes' rule written plainly, to worlds small enough for paper, and to its own promises."""

import math
import unittest

import numpy as np

from stillthread.core.search import cells
from stillthread.core.search.advisor import TEMPER_BLANK, Advisor, _rows
from stillthread.core.search.exposure import noticing
from stillthread.core.search.filters import RATE_PRIOR, RATES, UNIFORM_AT_START
from stillthread.core.search.model import Belief, Candidate, Spell
from tests.search.worlds import KINDS, at, fleet, lake, plainly, prior


class AgainstPlainBayes(unittest.TestCase):
    def test_a_spell_weighs_as_the_rule_written_out(self):
        for said in ((20.0, 0, 0, 0, 1.0), (12.0, 2, 1, 0, 1.0), (30.0, 1, 0, 3, 0.5)):
            mass = prior()
            exposure = np.linspace(0, 0.7, mass.shape[1])
            kinds = np.array([1.0, 0.0, 1.0])
            expected, evidence = plainly(mass, exposure, 1, kinds, 2, said)
            told = cells.likelihoods(np.array(RATES), exposure, 2, np.array([*said, TEMPER_BLANK]))
            found = cells.weigh(mass, told, 1, kinds)
            np.testing.assert_allclose(mass, expected, rtol=1e-9, atol=1e-15)
            self.assertAlmostEqual(found / evidence, 1.0, places=9)

    def test_the_worth_of_an_action_is_the_sum_over_every_state(self):
        mass = prior()
        exposure = np.linspace(0.0, 0.8, mass.shape[1])
        kinds, place, pace = np.array([0.0, 1.0, 0.0]), 0, 1
        table = cells.tabulate(np.array(RATES), np.array([10.0, 25.0]))
        rate, chance = 0.0, 0.0
        for (p, z, k, m, level), weight in np.ndenumerate(mass):
            r = (
                exposure[z]
                * RATES[level]
                * (1.0 if p == place else cells.ELSEWHERE)
                * (1.0 if kinds[k] else cells.WRONG_KIND)
            )
            r = r * (1.0, 0.6, 0.35)[abs(m - pace)] + 0.001
            rate += weight * r
            chance += weight * (1 - math.exp(-r / 6))
        found = cells.worth(cells.gathered(_rows(mass), _rows(mass).sum(axis=0), kinds, place), exposure, table[pace])
        self.assertAlmostEqual(found[0], rate, places=9)
        self.assertAlmostEqual(found[1], chance, delta=2e-3 * chance)  # exposure is sorted into bins


class OneCell(unittest.TestCase):
    def test_the_rate_is_the_poisson_posterior_on_its_levels(self):
        # One place, one cell, one kind, one pace: Gamma-Poisson conjugacy on a grid (any textbook).
        one = Candidate("x", "Here", "float", ("a",), "static", (1.0,), fishing_share=1.0, up_m=50.0, down_m=50.0)
        advisor = Advisor.start(Belief(("Here",), (0.2,), ((1.0,),)), (KINDS[0],), [one])
        filters = advisor._hoped, advisor._full
        for mass in [mass for each in filters for mass in (each.plan, each.flat)]:
            # The right fly at the right pace is all there is.
            mass[:, :, 1:] = 0.0
            mass[:, :, :, 1:] = 0.0
            mass /= mass.sum()
        advisor._tires[:] = 0.0
        advisor._weigh(Spell(one, 30.0, takes=2))
        seen = float(advisor._exposure(one)[0])
        rates = np.array(RATES) * seen
        advisor.chance(one)  # taken in once it is asked for
        for each, believed in zip(filters, (TEMPER_BLANK, 1.0), strict=True):  # chosen by, told by
            expected = np.array(RATE_PRIOR) * rates**2 * np.exp(-believed * (rates + 0.08 * rates) * 0.5)
            np.testing.assert_allclose(each.mass.sum(axis=(0, 1, 2, 3)), expected / expected.sum(), rtol=2e-2)

    def test_blank_minutes_lower_the_rate_and_takes_raise_it(self):
        one = at(2.0)
        rates = []
        for takes in (0, 1, 3):
            advisor = Advisor.start(lake(), KINDS, fleet())
            advisor.observe(Spell(one, 30.0, takes))
            rates.append(advisor.chance(one))
        fresh = Advisor.start(lake(), KINDS, fleet()).chance(one)
        self.assertLess(rates[0], fresh)
        self.assertGreater(rates[1], fresh)
        self.assertGreater(rates[2], rates[1])


class TwoCells(unittest.TestCase):
    def test_by_hand(self):
        # Two places of one cell, even odds, one level, kind and pace known: 30 blank minutes at 4 takes an hour here.
        mass = np.full((2, 1, 1, 1, 1), 0.5)
        told = np.ones((2, 1, 2, 3, 1))
        here, there = math.exp(-4 * 0.5), math.exp(-1 * 0.5)
        told[0], told[1] = here, there
        cells.weigh(mass, told, 0, np.array([1.0]))
        self.assertAlmostEqual(mass[0, 0, 0, 0, 0], here / (here + there), places=12)


class InTime(unittest.TestCase):
    def test_the_depth_spreads_as_a_diffusion(self):
        # Variance grows by the share of a cell's square each step (random walk: any textbook).
        mass = np.zeros((1, 101, 1, 1, 1))
        mass[0, 50] = 1.0
        for _ in range(40):
            cells.spread(mass, np.array([101]), 0.3)
        z = np.arange(101)
        shape = mass[0, :, 0, 0, 0]
        self.assertAlmostEqual(float(shape.sum()), 1.0, places=12)
        self.assertAlmostEqual(float(shape @ (z - 50) ** 2), 40 * 0.3, places=6)

    def test_surface_and_bed_throw_it_back(self):
        mass = np.zeros((1, 10, 1, 1, 1))
        mass[0, 0] = 1.0
        for _ in range(3000):
            cells.spread(mass, np.array([8]), 0.4)
        np.testing.assert_allclose(mass[0, :8, 0, 0, 0], 1 / 8, atol=1e-3)
        self.assertEqual(float(mass[0, 8:].sum()), 0.0)


class Promises(unittest.TestCase):
    def test_with_no_evidence_it_is_the_plans_belief_with_its_even_share(self):
        belief = lake()
        advisor = Advisor.start(belief, KINDS, fleet())
        even = 1 / 2 / len(belief.mass[0])
        for told, now in zip(belief.mass, advisor.by_depth(), strict=True):
            np.testing.assert_allclose(
                now, (1 - UNIFORM_AT_START) * np.array(told) + UNIFORM_AT_START * even, atol=1e-9
            )

    def test_blank_minutes_at_a_depth_never_raise_it_and_a_take_never_lowers_it(self):
        for depth in (0.5, 1.5, 2.5, 3.5):
            here = int(depth / 0.2)
            blank, taken = (Advisor.start(lake(), KINDS, fleet()) for _ in range(2))
            before = [getattr(blank._hoped, name)[0].sum(axis=(1, 2, 3)) for name in ("plan", "flat")]
            one = at(depth, up_m=0.3, down_m=0.3)
            blank._weigh(Spell(one, 30.0))
            taken._weigh(Spell(one, 5.0, takes=1))
            # Each of the two filters for itself: between them a wrong plan may lose weight.
            for n, name in enumerate(("plan", "flat")):
                after = [getattr(one._hoped, name)[0].sum(axis=(1, 2, 3))[here] for one in (blank, taken)]
                self.assertLessEqual(after[0], before[n][here] + 1e-12)
                self.assertGreaterEqual(after[1], before[n][here] - 1e-12)

    def test_any_history_keeps_the_mass_whole(self):
        rng = np.random.default_rng(9)
        candidates = fleet()
        advisor = Advisor.start(lake(), KINDS, candidates)
        for _ in range(400):
            one = candidates[rng.integers(len(candidates))]
            takes, plucks, follows = (int(v) for v in rng.poisson([0.3, 0.4, 0.2]))
            advisor.observe(
                Spell(one, float(rng.uniform(0, 40)), takes, plucks, follows, float(rng.choice([0.5, 1.0])))
            )
            self.assertAlmostEqual(float(advisor.mass.sum()), 1.0, delta=1e-9)
            self.assertTrue(np.isfinite(advisor.mass).all())
        self.assertTrue(advisor.advise(candidates[0]))

    def test_a_wrong_plan_is_doubted_the_longer_nothing_takes(self):
        advisor = Advisor.start(lake(), KINDS, fleet())
        doubts = [advisor.uniform]
        for _ in range(6):
            advisor.observe(Spell(at(3.0), 20.0))
            doubts.append(advisor.uniform)
        self.assertEqual(doubts, sorted(doubts))

    def test_a_fly_is_noticed_from_below_farther_than_from_above(self):
        seen = noticing(1.0, 0.3, 40)
        self.assertGreater(seen[25, 20], seen[15, 20])  # fish below the fly, fish above it
        self.assertTrue(((seen >= 0) & (seen <= 1)).all())


class TwoRods(unittest.TestCase):
    def test_a_partners_take_holds_nobody_to_a_blank(self):
        advisor = Advisor.start(lake(), KINDS, fleet())
        advisor.observe(Spell(at(2.5), 30.0))
        advisor.observe(Spell(at(3.0), 10.0, 1, by="partner"))
        self.assertEqual(advisor.advise(at(2.5), partner=at(3.0))[0].candidate.key, at(3.0).key)

    def test_what_a_partner_has_just_begun_holds_nobody(self):
        advisor = Advisor.start(lake(), KINDS, fleet())
        advisor.observe(Spell(at(2.0), 20.0))
        advisor.observe(Spell(at(1.0, place="There"), 5.0, by="partner"))
        self.assertEqual(advisor.advise(at(2.0))[0].candidate.key, at(3.0).key)

    def test_a_partner_is_left_to_it_until_it_takes(self):
        advisor = Advisor.start(lake(), KINDS, fleet())
        best = advisor.advise()[0].candidate
        self.assertNotEqual(advisor.advise(partner=best)[0].candidate.key, best.key)
        advisor.observe(Spell(best, 10.0, 1, by="partner"))
        self.assertEqual(advisor.advise(partner=best)[0].candidate.key, advisor.advise()[0].candidate.key)

    def test_a_partner_who_takes_calls_over_who_fishes_the_same(self):
        advisor = Advisor.start(lake(), KINDS, fleet())
        advisor.observe(Spell(at(2.5), 10.0))
        advisor.observe(Spell(at(2.5), 10.0, 1, by="partner"))
        self.assertTrue(advisor.called_over(at(2.5)))

    def test_what_a_partner_is_left_to_try_lowers_no_chance_that_is_told(self):
        advisor = Advisor.start(lake(), KINDS, fleet())
        for step in advisor.advise(partner=advisor.advise()[0].candidate):
            self.assertEqual(step.chance, advisor.chance(step.candidate))
            self.assertEqual(step.rate_per_h, advisor.rate(step.candidate))

    def test_the_clock_goes_by_ones_own_rod(self):
        advisor = Advisor.start(lake(), KINDS, fleet(), minutes_left=200.0)
        advisor.observe(Spell(at(2.0), 40.0, by="partner"))
        self.assertEqual(advisor.minutes_left, 200.0)
        advisor.observe(Spell(at(2.0), 40.0))
        self.assertAlmostEqual(advisor.minutes_left, 160.0)


class Refused(unittest.TestCase):
    def test_nothing_to_search_with(self):
        with self.assertRaises(ValueError):
            Advisor.start(lake(), KINDS, [])
        with self.assertRaises(ValueError):
            Advisor.start(Belief((), (), ()), KINDS, [at(1.0)])
        with self.assertRaises(ValueError):
            Advisor.start(lake(), KINDS, [at(1.0, place="Nowhere")])
