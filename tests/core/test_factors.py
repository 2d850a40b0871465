"""Each factor of the belief by itself: what it says, which way it pulls, and when it keeps out of it."""

import unittest
from dataclasses import replace
from datetime import UTC, datetime

import numpy as np

from stillthread.core.belief import factors as f
from stillthread.core.belief import habits
from stillthread.core.belief import light_factor as lit
from stillthread.core.belief.belief import cells
from stillthread.core.belief.stocking import stocking_factor
from stillthread.core.food.available import available_food
from stillthread.core.food.seen import Sighting
from stillthread.core.noted.reading import Reading
from stillthread.core.noted.water import Place
from stillthread.core.sky.light import read_light
from tests.days import DROP, MARGIN, MAY, SUMMER, UPLAND, profile

Z = cells(6.0)
SPRING = datetime(2026, 3, 20, 11, tzinfo=UTC)
WINTER = datetime(2026, 1, 20, 13, tzinfo=UTC)
AUGUST = datetime(2026, 8, 10, 12, tzinfo=UTC)
COLD = Reading(profile=profile((0, 6.0), (3, 5.8)), water_depth_m=5.0, clarity="clear")


def deepest_pull(factor):
    return float(Z[int(np.argmax(factor.log_weight))])


class Temperature(unittest.TestCase):
    def test_flat_and_unknown_without_readings(self):
        factor = f.temperature_factor(Z, UPLAND, Reading())
        self.assertFalse(factor.known)
        self.assertFalse(factor.log_weight.any())

    def test_says_where_the_liked_water_lies(self):
        factor = f.temperature_factor(cells(12), UPLAND, SUMMER)
        self.assertIn("lies at", factor.sentence)
        self.assertNotIn("guess", factor.sentence)
        self.assertIn("Nothing was read below 5 m", f.temperature_factor(Z, UPLAND, MAY).sentence)

    def test_the_most_tender_species_counts_too(self):
        with_brook = f.temperature_factor(cells(12), replace(UPLAND, species=("rainbow", "brook")), SUMMER)
        alone = f.temperature_factor(cells(12), UPLAND, SUMMER)
        deep = lambda factor: float(np.average(cells(12), weights=np.exp(factor.log_weight)))  # noqa: E731
        self.assertGreater(deep(with_brook), deep(alone))


class Oxygen(unittest.TestCase):
    def measured(self, *values):
        points = tuple(
            replace(p, oxygen_mg_l=o) for p, o in zip(profile((0, 12), (2, 12), (4, 12)), values, strict=True)
        )
        return f.oxygen_factor(Z, UPLAND, Reading(profile=points), AUGUST)

    def test_limits_from_six_to_three(self):
        # From memory: 6 mg/L and more no limit, 4 to 6 reduced, below 4 avoided, below 3 empty.
        self.assertTrue(np.allclose(self.measured(9, 8, 6.1).log_weight, 0))
        poor = self.measured(9, 5, 2)
        self.assertLess(poor.log_weight[20], -0.1)
        self.assertLess(poor.log_weight[-1], -4)
        self.assertIn("keep out", poor.sentence)

    def test_a_guess_under_a_thermocline_is_called_one(self):
        guess = f.oxygen_factor(cells(12), UPLAND, SUMMER, AUGUST)
        self.assertFalse(guess.known)
        self.assertIn("Guess", guess.sentence)
        self.assertLess(guess.log_weight[-1], guess.log_weight[0])

    def test_mixed_water_is_left_alone(self):
        self.assertFalse(f.oxygen_factor(Z, UPLAND, COLD, AUGUST).log_weight.any())


class Light(unittest.TestCase):
    def test_bright_water_pushes_down_dusk_lets_up(self):
        bright = lit.light_factor(
            Z, read_light(sun_deg=60, cloud_oktas=0, ripple="calm", clarity="clear", secchi_m=None)
        )
        dusk = lit.light_factor(
            Z, read_light(sun_deg=-4, cloud_oktas=8, ripple="ripple", clarity="clear", secchi_m=None)
        )
        self.assertEqual(int(np.argmin(bright.log_weight)), 0)
        self.assertEqual(int(np.argmax(dusk.log_weight)), 0)
        self.assertIn("Low light", dusk.sentence)

    def test_comfort_depth_by_hand(self):
        # Overhead sun on calm clear water of Secchi 1.7 m: K = 1 per metre, so ln(1 / 0.06) = 2.81 m.
        light = read_light(sun_deg=90, cloud_oktas=0, ripple="calm", clarity=None, secchi_m=1.7)
        self.assertAlmostEqual(lit.comfort_depth_m(light), np.log(1 / lit.EASY_LIGHT), places=3)
        self.assertEqual(
            lit.comfort_depth_m(read_light(sun_deg=0, cloud_oktas=8, ripple="wave", clarity="coloured", secchi_m=None)),
            0,
        )

    def test_coloured_water_lets_them_stay_higher(self):
        clear, coloured = (
            read_light(sun_deg=50, cloud_oktas=2, ripple="calm", clarity=c, secchi_m=None)
            for c in ("gin-clear", "coloured")
        )
        self.assertLess(lit.comfort_depth_m(coloured), lit.comfort_depth_m(clear))

    def test_too_shallow_to_get_out_of_the_light_is_the_worse_place(self):
        noon = read_light(sun_deg=60, cloud_oktas=0, ripple="calm", clarity="clear", secchi_m=None)
        knee_deep, deep = (lit.light_factor(cells(bed), noon).log_weight.max() for bed in (1.5, 6.0))
        self.assertLess(knee_deep, deep - 0.2)
        dull = read_light(sun_deg=20, cloud_oktas=8, ripple="ripple", clarity="coloured", secchi_m=None)
        self.assertEqual(*(lit.light_factor(cells(bed), dull).log_weight.max() for bed in (1.5, 6.0)))

    def test_guesses_are_said(self):
        self.assertIn(
            "Cloud, wind, clarity guessed",
            lit.light_factor(
                Z, read_light(sun_deg=40, cloud_oktas=None, ripple="unknown", clarity=None, secchi_m=None)
            ).sentence,
        )


class Food(unittest.TestCase):
    def food(self, *seen):
        return available_food(datetime(2026, 5, 15, 12, tzinfo=UTC), "north", 12.0, sightings=seen)

    def test_pupae_pull_towards_the_bottom_and_adults_to_the_film(self):
        pupae = f.food_factor(Z, self.food(Sighting(abundance="many", prey="chironomid-pupa")), DROP, 6.0)
        self.assertGreater(deepest_pull(pupae), 5.0)
        adults = f.food_factor(Z, self.food(Sighting(abundance="many", prey="chironomid-adult")), MARGIN, 6.0)
        self.assertLess(deepest_pull(adults), 0.3)
        self.assertTrue(pupae.known)
        self.assertIn("what you saw", pupae.sentence)

    def test_the_season_alone_is_a_guess(self):
        factor = f.food_factor(Z, self.food(), DROP, 6.0)
        self.assertFalse(factor.known)
        self.assertIn("season alone", factor.sentence)


class Rises(unittest.TestCase):
    def test_more_rises_weigh_more_on_the_top(self):
        # Trade: one riser is noise, a few a reason to look, some to keep a rod ready, many change the plan.
        few, some_, many = (
            f.rises_factor(Z, (Sighting(abundance=n, rise="sip"),)).log_weight[0] for n in ("few", "some", "many")
        )
        self.assertEqual(few, 0)
        self.assertGreater(some_, 0)
        self.assertGreater(many, some_)

    def test_only_the_top(self):
        weight = f.rises_factor(Z, (Sighting(abundance="many", rise="splash"),)).log_weight
        self.assertGreater(weight[2], 1.0)
        self.assertLess(weight[20], 0.01)

    def test_food_seen_is_no_rise(self):
        self.assertFalse(f.rises_factor(Z, (Sighting(abundance="many", prey="scud"),)).log_weight.any())


class Season(unittest.TestCase):
    def test_names_of_the_seasons_on_both_sides(self):
        for month, north, south in (
            (1, "winter", "summer"),
            (4, "spring", "autumn"),
            (7, "summer", "winter"),
            (10, "autumn", "spring"),
        ):
            when = datetime(2026, month, 15, tzinfo=UTC)
            self.assertEqual((habits.season_of(when, "north"), habits.season_of(when, "south")), (north, south))

    def test_cold_spring_water(self):
        # Trade: 2.4 to 3 m down.
        self.assertAlmostEqual(
            deepest_pull(habits.season_factor(depths=Z, water=UPLAND, reading=COLD, bed_m=6.0, when=SPRING)),
            2.7,
            delta=0.1,
        )

    def test_winter_on_small_and_on_big_clear_water(self):
        # Trade: small waters often the top 0.6 m; big clear waters 3 to 5 m.
        small = replace(UPLAND, max_depth_m=3.0)
        self.assertLess(
            deepest_pull(habits.season_factor(depths=cells(3), water=small, reading=COLD, bed_m=3.0, when=WINTER)), 0.6
        )
        self.assertTrue(
            3 <= deepest_pull(habits.season_factor(depths=Z, water=UPLAND, reading=COLD, bed_m=6.0, when=WINTER)) <= 5
        )

    def test_fresh_fish_fade_with_the_days(self):
        def pull(days):
            return stocking_factor(Z, replace(UPLAND, days_since_stocking=days)).log_weight[-1]

        self.assertLess(pull(1), pull(14))
        self.assertEqual(pull(40), 0)

    def test_nothing_to_say_on_a_mild_summer_day(self):
        mild = Reading(profile=profile((0, 16), (3, 15.8), (6, 15.5)))
        factor = habits.season_factor(
            depths=Z, water=UPLAND, reading=mild, bed_m=6.0, when=datetime(2026, 7, 1, tzinfo=UTC)
        )
        self.assertFalse(factor.known)

    def test_heat_sends_them_to_the_thermocline(self):
        # Trade: summer heat, 6 to 9 m, the cool band.
        z = cells(15)
        factor = habits.season_factor(
            depths=z, water=UPLAND, reading=SUMMER, bed_m=15.0, when=datetime(2026, 7, 20, tzinfo=UTC)
        )
        self.assertTrue(6 <= float(z[int(np.argmax(factor.log_weight))]) <= 9)
        self.assertIn("thermocline", factor.sentence)

    def test_heat_sends_them_no_deeper_than_the_oxygen_measured(self):
        # Trade: the coolest water that still has its 6 mg/L, not the cool water without.
        z = cells(15)
        oxygen = (9, 9, 8, 4, 1, 0)
        points = tuple(replace(p, oxygen_mg_l=o) for p, o in zip(SUMMER.profile, oxygen, strict=True))
        factor = habits.season_factor(
            depths=z,
            water=UPLAND,
            reading=replace(SUMMER, profile=points),
            bed_m=15.0,
            when=datetime(2026, 7, 20, tzinfo=UTC),
        )
        self.assertAlmostEqual(float(z[int(np.argmax(factor.log_weight))]), 5.0, delta=0.1)


class ColdEdges(unittest.TestCase):
    """Early in the year knee-deep grass and open deep water are empty (common practice); but for dawn, dusk and fry."""

    def best(self, bed, **other):
        factor = habits.season_factor(
            depths=cells(bed), water=UPLAND, reading=replace(COLD, cloud_oktas=6), bed_m=bed, when=SPRING, **other
        )
        return float(factor.log_weight.max())

    def test_knee_deep_grass_is_empty_but_for_those_that_patrol_it(self):
        self.assertGreater(self.best(4.0), self.best(0.8) + 1.0)
        self.assertGreater(self.best(0.8, patrolled=True), self.best(0.8) + 1.0)

    def test_open_deep_water_is_mostly_empty(self):
        self.assertGreater(self.best(12.0), self.best(12.0, kind="open-water"))


class Wind(unittest.TestCase):
    """Where to stand in the wind goes by food and temperature (common practice)."""

    ANYTHING = available_food(AUGUST, "north", 15.0)

    def at(self, facing, food=ANYTHING, school="by-water", **reading):
        place = Place(name="Shore", kind="margin", depth_min_m=0, depth_max_m=3, facing_deg=facing)
        return f.place_factor(Z, replace(MAY, **reading), place, food, school)

    def test_onto_off_and_along(self):
        onto, off, along = (self.at(facing) for facing in (225.0, 45.0, 135.0))
        self.assertGreater(onto.log_weight[0], along.log_weight[0])
        self.assertGreater(along.log_weight[0], off.log_weight[0])
        self.assertIn("blows onto this place", onto.sentence)
        self.assertIn("blows off this place", off.sentence)
        self.assertIn("blows along this place", along.sentence)

    def test_the_same_at_every_depth(self):
        self.assertEqual(len(set(self.at(225.0).log_weight)), 1)

    def test_cold_water_takes_the_advantage_away(self):
        cold = self.at(225.0, profile=COLD.profile)
        self.assertFalse(cold.log_weight.any())
        self.assertIn("no better", cold.sentence)

    def test_air_colder_than_cold_water_speaks_for_the_sheltered_shore(self):
        onto, off = (self.at(facing, profile=COLD.profile, air_temperature_c=3.0) for facing in (225.0, 45.0))
        self.assertGreater(off.log_weight[0], onto.log_weight[0])
        self.assertIn("sheltered", off.sentence)

    def test_in_autumn_the_air_is_colder_than_warm_water_and_the_food_drifts_all_the_same(self):
        self.assertGreater(self.at(225.0, profile=profile((0, 14.0)), air_temperature_c=9.0).log_weight[0], 0.0)

    def test_a_warm_wind_gathers_the_warm_top_of_cold_water(self):
        self.assertGreater(self.at(225.0, profile=COLD.profile, air_temperature_c=12.0).log_weight[0], 0.0)

    def test_food_off_the_land_speaks_for_the_shore_the_wind_blows_off(self):
        beetles = available_food(AUGUST, "north", 15.0, sightings=(Sighting(prey="terrestrial", abundance="many"),))
        onto, off = (self.at(facing, beetles) for facing in (225.0, 45.0))
        self.assertGreater(off.log_weight[0], onto.log_weight[0])
        self.assertIn("off the land", off.sentence)

    def test_a_school_stands_above_food_and_temperature(self):
        beetles = available_food(AUGUST, "north", 15.0, sightings=(Sighting(prey="terrestrial", abundance="many"),))
        self.assertGreater(self.at(225.0, beetles, "onto").log_weight[0], 0.0)
        self.assertLess(self.at(225.0, self.ANYTHING, "off").log_weight[0], 0.0)

    def test_unknown_wind_or_facing(self):
        self.assertFalse(self.at(225.0, wind_m_s=None).known)
        self.assertFalse(self.at(None).known)
