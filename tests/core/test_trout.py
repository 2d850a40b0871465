import unittest
from dataclasses import replace
from datetime import UTC, datetime

import numpy as np
from hypothesis import given
from hypothesis import strategies as st

from stillthread.core.belief.belief import believe, cells, smallest_band
from stillthread.core.food.available import available_food
from stillthread.core.noted.reading import Reading, light_on
from stillthread.core.plan.make import make_plan
from stillthread.core.sky.light import read_light
from stillthread.core.trout.notice import notice_kernel, upward_reach_m
from stillthread.core.trout.temperature import CONSUMPTION, appetite, behaviour, preference, welfare
from tests import checks
from tests.days import BASIN, DROP, MAY, SUMMER, UPLAND, day, profile

NOON = datetime(2026, 6, 20, 12, tzinfo=UTC)


def mean_depth(belief):
    return float(belief.profile @ belief.depths_m)


def belief_for(reading, when=NOON, water=UPLAND, sightings=(), name="Drop", light=None):
    light = light or light_on(water, reading, when)
    food = available_food(when, water.hemisphere, sightings=sightings)
    return next(
        b
        for b in believe(
            water=water, reading=reading, light=light, food=food, sightings=sightings, when=when, chosen=name
        )
        if b.place.name == name
    )


class Curves(unittest.TestCase):
    def test_consumption_check_values(self):
        # Thornton & Lessem 1978 with Rand et al. 1993 (rainbow) and Dieterman et al. 2004 (brown), from memory.
        for entry in checks.of("07_fish", "Thornton-Lessem temperature factor"):
            species = "rainbow" if "rainbow" in entry["inputs"]["species"] else "brown"
            found = float(appetite(entry["inputs"]["T_C"], species))
            self.assertAlmostEqual(found, entry["expected"], delta=1e-6, msg=entry["id"])

    def test_consumption_anchors_follow_from_the_form(self):
        # At CQ the rising part is CK1, at CTL the falling part is CK4; the other part is near 1 there.
        for species, p in CONSUMPTION.items():
            self.assertAlmostEqual(float(appetite(p.cq, species)), p.ck1, delta=0.01)
            self.assertAlmostEqual(float(appetite(p.ctl, species)), p.ck4, delta=0.01)

    def test_appetite_and_preference_are_different_things(self):
        # Rainbows eat most warmer than where they choose to be (trade; the curve peaks near 19 °C).
        t = np.arange(0, 26, 0.1)
        self.assertGreater(t[np.argmax(appetite(t))], 17)
        self.assertEqual(float(preference(15.0)), 1.0)
        self.assertLess(float(preference(21.0)), 0.3)

    def test_welfare_table_of_the_trade(self):
        levels = [welfare(t, ("rainbow",)).level for t in (12, 17.5, 19, 20, 20.1, 24)]
        self.assertEqual(levels, ["ok", "tiring", "caution", "caution", "stop", "stop"])

    def test_brook_trout_stop_earlier_and_the_stricter_rule_wins(self):
        self.assertEqual(welfare(18.5, ("rainbow", "brook")).level, "stop")
        self.assertEqual(welfare(18.5, ("rainbow",)).level, "caution")
        self.assertEqual(welfare(18.5, ("rainbow",), rule_stop_c=18).level, "stop")
        self.assertEqual(welfare(18.5, ("rainbow",), rule_stop_c=22).stop_c, 20)

    def test_words_for_the_cold(self):
        self.assertIn("sluggish", behaviour(3.0)[0])
        self.assertIn("best", behaviour(15.0)[0])

    def test_fish_look_up(self):
        kernel = notice_kernel(2.0, np.array([1.4, 2.0, 2.6]), 4.0)
        self.assertEqual(kernel[1], 1.0)
        self.assertGreater(kernel[2], 3 * kernel[0])
        coloured = notice_kernel(2.0, np.array([2.6]), 0.8)
        self.assertLess(coloured[0], kernel[2])

    def test_they_come_up_less_gladly_through_bright_water(self):
        # Trade: flat calm and bright, fish deeper; low light, they come up.
        reaches = [upward_reach_m(5.0, light) for light in (1.0, 0.3, 0.06)]
        self.assertEqual(reaches, sorted(reaches))
        self.assertEqual(reaches[-1], upward_reach_m(5.0))
        self.assertLess(upward_reach_m(5.0, 0.0001), reaches[-1])
        z = np.array([1.8])
        self.assertLess(notice_kernel(0.3, z, 6.0, 0.9)[0], notice_kernel(0.3, z, 6.0, 0.05)[0])

    def test_a_float_in_a_bright_flat_calm_hangs_no_higher_than_under_cloud(self):
        hang = {}
        for cloud in (0, 8):
            reading = replace(MAY, wind_m_s=0.3, cloud_oktas=cloud, clarity="gin-clear")
            plan = make_plan(day(reading=reading))
            hang[cloud] = next(s.float_hang_m for s in plan.set_ups if s.method == "float")
        self.assertGreaterEqual(hang[0], hang[8])


class Belief(unittest.TestCase):
    def test_mass_sums_to_one_over_places_and_depths(self):
        plan = make_plan(day())
        self.assertAlmostEqual(sum(float(b.mass.sum()) for b in plan.beliefs), 1.0, delta=1e-12)
        self.assertTrue(all((b.mass > 0).all() for b in plan.beliefs))

    def test_factors_add_up_to_the_score(self):
        for belief in make_plan(day()).beliefs:
            total = np.sum([f.log_weight for f in belief.factors], axis=0)
            np.testing.assert_allclose(total, belief.log_score, atol=1e-9)

    def test_no_reading_is_wide_and_says_so(self):
        blind = make_plan(day(reading=Reading(), place=None))
        seen = make_plan(day())
        width = [b - a for a, b in (smallest_band(x.chosen, 0.5) for x in (blind, seen))]
        share = [w / x.chosen.bed_m for w, x in zip(width, (blind, seen), strict=True)]
        self.assertGreater(share[0], share[1])
        self.assertIn("temperature", blind.guessed)
        self.assertFalse(any(f.known for f in blind.chosen.factors if f.name in ("temperature", "light", "wind")))

    def test_more_light_is_never_shallower(self):
        depths = []
        for sun in (-5, 0, 3, 8, 15, 30, 60):
            light = read_light(sun_deg=sun, cloud_oktas=2, ripple="ripple", clarity="clear", secchi_m=None)
            depths.append(mean_depth(belief_for(MAY, light=light)))
        self.assertEqual(depths, sorted(depths))

    def test_too_warm_a_top_sends_them_to_the_cool_band(self):
        # Trade: in heat the coolest water that still has oxygen, 6 to 9 m.
        low, high = smallest_band(belief_for(SUMMER, name="Basin"), 0.5)
        self.assertGreater(low, 3.0)
        self.assertTrue(low < 7 < high or 5 < (low + high) / 2 < 9)

    def test_warmer_than_preferred_never_favours_the_warm_layer(self):
        for warm in (18, 20, 22, 24):
            reading = Reading(profile=profile((0, warm), (3, warm), (4, 14), (6, 14)))
            factor = belief_for(reading).factors[0]
            self.assertLess(factor.log_weight[5], factor.log_weight[-5])

    def test_airless_water_is_left(self):
        airless = tuple(replace(p, oxygen_mg_l=9.0 if p.depth_m < 3 else 2.0) for p in MAY.profile)
        belief = belief_for(replace(MAY, profile=airless))
        deep = belief.profile[belief.depths_m > 3.5].sum()
        self.assertLess(deep, belief_for(MAY).profile[belief.depths_m > 3.5].sum())

    def test_the_wind_gathers_on_the_shore_it_blows_onto(self):
        # DROP looks out to 225°: a south-west wind blows onto it.
        onto = make_plan(day(place=None)).beliefs[0].share
        off = make_plan(day(reading=replace(MAY, wind_from_deg=45.0), place=None)).beliefs[0].share
        self.assertGreater(onto, off)

    def test_cells_follow_the_bed(self):
        z = cells(2.5)
        self.assertEqual((len(z), round(float(z[0]), 2), round(float(z[-1]), 2)), (25, 0.05, 2.45))
        with self.assertRaises(ValueError):
            cells(0.05)

    @given(st.lists(st.floats(0.0, 1.0), min_size=3, max_size=80).filter(lambda p: sum(p) > 0.1))
    def test_half_the_chance_lies_inside_four_fifths_of_it(self, weights):
        mass = np.array(weights) / sum(weights)
        belief = replace(belief_for(MAY), mass=mass, depths_m=np.arange(len(mass)) * 0.1)
        (top, bottom), (above, below) = smallest_band(belief, 0.5), smallest_band(belief, 0.8)
        self.assertTrue(above <= top <= bottom <= below)

    def test_the_smallest_band_holds_its_share(self):
        belief = belief_for(MAY)
        for share in (0.5, 0.8, 1.0):
            top, bottom = smallest_band(belief, share)
            inside = (belief.depths_m > top) & (belief.depths_m < bottom)
            self.assertGreaterEqual(float(belief.profile[inside].sum()), share - 1e-9)

    def test_deep_places_are_not_favoured_for_being_deep(self):
        shares = {b.place.name: b.share for b in make_plan(day(reading=Reading(), place=None)).beliefs}
        self.assertLess(shares[BASIN.name], 0.5)
        self.assertGreater(shares[DROP.name], 0.2)
