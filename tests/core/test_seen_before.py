"""What was seen on earlier days: by hand, held back, in no order, and less than what is seen today."""

import math
import unittest
from dataclasses import replace
from datetime import date

from hypothesis import given
from hypothesis import strategies as st

from stillthread.core.evidence.seen_before import MOST_A_DAY, MOST_OF_ALL, SeenBefore, counts_before
from stillthread.core.food.seen import SampleItem, Sighting, ThroatSample
from stillthread.core.plan.make import day_context
from stillthread.core.reading.means import food_on
from tests.days import MAY, UPLAND, day

TODAY = date(2026, 5, 14)
FRY = Sighting(prey="fry", abundance="few")


def before(on=date(2025, 5, 14), **other):
    return replace(SeenBefore(on=on, sightings=(FRY,), surface_c=12.5), **other)


class ByHand(unittest.TestCase):
    def test_the_same_day_last_year_counts_as_it_was_seen(self):
        # Few seen count one (handbook's amounts); a day wholly like today counts whole, another water half.
        self.assertAlmostEqual(counts_before((before(),), TODAY, 12.5)["fry"], 1.0, places=3)
        self.assertAlmostEqual(counts_before((before(same_water=False),), TODAY, 12.5)["fry"], 0.5, places=3)

    def test_one_standard_deviation_of_warmth_and_of_the_year(self):
        # Gaussians fall to exp(-1/2) one standard deviation away: 2.5 °C, 30 days.
        for other in (before(surface_c=10.0), before(on=date(2025, 6, 13))):
            self.assertAlmostEqual(counts_before((other,), TODAY, 12.5)["fry"], math.exp(-0.5), delta=0.01)

    def test_half_a_year_away_says_nothing(self):
        self.assertLess(counts_before((before(on=date(2025, 11, 13)),), TODAY, 12.5)["fry"], 1e-6)

    def test_a_crammed_throat_and_a_hundred_days_are_held(self):
        throat = ThroatSample(items=(SampleItem(prey="daphnia", count=5000),))
        crammed = before(sightings=(), samples=(throat,))
        self.assertAlmostEqual(counts_before((crammed,), TODAY, 12.5)["daphnia"], MOST_A_DAY, places=2)
        many = tuple(before(on=date(2025, 5, 1 + n % 28)) for n in range(100))
        self.assertAlmostEqual(math.fsum(counts_before(many, TODAY, 12.5).values()), MOST_OF_ALL, places=9)

    def test_nothing_seen_and_leaps_say_nothing(self):
        leap = before(sightings=(Sighting(rise="leap"), Sighting(sign="pressured")))
        self.assertEqual(counts_before((leap, before(sightings=())), TODAY, 12.5), {})
        self.assertEqual(counts_before((), TODAY, None), {})

    @given(st.permutations(list(range(6))))
    def test_the_order_of_the_days_does_not_matter(self, order):
        kinds = ("fry", "caddis", "daphnia", "mayfly", "damsel-nymph", "leech")
        days = [before(on=date(2025, 5, 2 + 3 * n), sightings=(Sighting(prey=kinds[n]),)) for n in range(6)]
        told = counts_before(tuple(days[n] for n in order), TODAY, 12.0)
        self.assertEqual(told, counts_before(tuple(days), TODAY, 12.0))


class InTheFood(unittest.TestCase):
    def food(self, *days, **other):
        return food_on(water=UPLAND, reading=MAY, when=day().when, seen_before=days, **other)

    def test_it_raises_its_prey_and_says_so_and_today_says_more(self):
        plain, earlier = self.food(), self.food(before())
        today = self.food(sightings=(FRY,))
        other = self.food(before(same_water=False))
        self.assertLess(plain.share["fry"], other.share["fry"])
        self.assertLess(other.share["fry"], earlier.share["fry"])
        self.assertLessEqual(earlier.share["fry"], today.share["fry"])
        self.assertIn("Seen on earlier days like this: fry from", earlier.moves[0].sentence)
        self.assertEqual(earlier.sightings, 0)  # nobody has looked today

    def test_shares_still_sum_to_one(self):
        self.assertAlmostEqual(math.fsum(self.food(*(before() for _ in range(9))).share.values()), 1.0)

    def test_the_plan_feeds_where_it_was_fed(self):
        shares = [day_context(day(seen_before=days))[0].food.share["fry"] for days in ((), (before(),))]
        self.assertLess(*shares)
