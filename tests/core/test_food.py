import unittest
from datetime import UTC, datetime

import numpy as np

from stillthread.core.food.available import available_food
from stillthread.core.food.catalogue import BY_KEY, CATALOGUE
from stillthread.core.food.season import month_weight, warmth_weight
from stillthread.core.food.seen import Sighting
from stillthread.core.food.where import depth_density

MAY = datetime(2026, 5, 15, 12, tzinfo=UTC)


class Season(unittest.TestCase):
    def test_shares_sum_to_one(self):
        food = available_food(
            when=MAY,
            hemisphere="north",
            water_c=12.0,
            wind_m_s=3.0,
            cloud_oktas=4.0,
            stocked=True,
            sightings=(Sighting(abundance="some", prey="scud"),),
        )
        self.assertAlmostEqual(sum(food.share.values()), 1.0)

    def test_the_southern_year_is_six_months_on(self):
        november = datetime(2026, 11, 15, 12, tzinfo=UTC)
        for prey in CATALOGUE:
            self.assertAlmostEqual(month_weight(prey, MAY, "north"), month_weight(prey, november, "south"))

    def test_pupae_hatch_from_about_seven_degrees(self):
        # Trade: hatches from about 7 to 8 °C.
        pupa = BY_KEY["chironomid-pupa"]
        self.assertEqual(warmth_weight(pupa, 10.0), 1.0)
        self.assertLess(warmth_weight(pupa, 4.5), 0.3)

    def test_fresh_fish_only_after_stocking(self):
        self.assertEqual(available_food(MAY, "north").share["stocked-instinct"], 0)
        self.assertGreater(available_food(MAY, "north", stocked=True).share["stocked-instinct"], 0.1)


class Sightings(unittest.TestCase):
    def test_posterior_mean_by_hand(self):
        # Dirichlet: prior worth 4; 'some' counts 3. New share = (4 p + 3) / 7.
        before = available_food(MAY, "north").share["scud"]
        after = available_food(MAY, "north", sightings=(Sighting(abundance="some", prey="scud"),)).share["scud"]
        self.assertAlmostEqual(after, (4 * before + 3) / 7)

    def test_order_does_not_matter(self):
        seen = (
            Sighting(abundance="few", prey="scud"),
            Sighting(abundance="many", rise="sip"),
            Sighting(abundance="some", prey="fry"),
        )
        forward = available_food(MAY, "north", sightings=seen).share
        backward = available_food(MAY, "north", sightings=seen[::-1]).share
        for key, share in forward.items():
            self.assertAlmostEqual(share, backward[key], places=12)

    def test_a_clean_leap_is_no_rise(self):
        self.assertEqual(
            available_food(MAY, "north", sightings=(Sighting(abundance="many", rise="leap"),)).share,
            available_food(MAY, "north").share,
        )

    def test_rises_speak_for_their_food(self):
        # Trade: bow waves are fry feeders, head-and-tail is pupae in the film.
        for rise, key in (("bow-wave", "fry"), ("head-and-tail", "chironomid-pupa"), ("splash", "caddis")):
            food = available_food(MAY, "north", sightings=(Sighting(abundance="many", rise=rise),))
            self.assertEqual(food.top(1)[0].key, key)


class WhereItIs(unittest.TestCase):
    def test_pupae_gather_a_foot_or_two_off_the_bottom(self):
        z = (np.arange(60) + 0.5) * 0.1
        density = depth_density(BY_KEY["chironomid-pupa"], z, 6.0, "drop-off")
        self.assertAlmostEqual(6.0 - float(z[np.argmax(density)]), 0.45, delta=0.16)
        self.assertAlmostEqual(float(density.sum()), 1.0)

    def test_bloodworm_lives_in_less_than_seven_and_a_half_metres(self):
        # Trade: mostly in less than 25 ft.
        z = (np.arange(120) + 0.5) * 0.1
        self.assertAlmostEqual(float(depth_density(BY_KEY["chironomid-larva"], z, 12.0, "drop-off").sum()), 0.3)

    def test_nothing_below_the_bed(self):
        z = (np.arange(60) + 0.5) * 0.1
        for prey in CATALOGUE:
            self.assertEqual(float(depth_density(prey, z, 3.0, "shoal")[z > 3.0].sum()), 0)
