"""Days an angler would know, and what the trade says of them: bands, methods, prey and limits, never exact scores."""

import unittest
from dataclasses import replace
from datetime import UTC, datetime

from stillthread.core.belief.belief import smallest_band
from stillthread.core.day.given import Angler, Rules
from stillthread.core.food.seen import Sighting
from stillthread.core.noted.reading import Reading
from stillthread.core.noted.water import Place
from stillthread.core.plan.make import make_plan
from tests.days import FLOATING, UPLAND, day, profile


def at(month, hour=12, day_of_month=15):
    return datetime(2026, month, day_of_month, hour, tzinfo=UTC)


def lake(depth, *places, **more):
    return replace(UPLAND, name="Small lake", max_depth_m=depth, places=places, **more)


def plan_for(when, reading, water=UPLAND, place="Drop", **more):
    return make_plan(day(when=when, reading=reading, water=water, place=place, **more))


def all_flies(plan):
    return {prey for s in plan.set_ups for f in s.flies for prey in f.fly.prey}


class SpringAndSummer(unittest.TestCase):
    def test_chironomid_hatch_over_the_drop_off(self):
        # Pupae gather 30 to 60 cm off the bottom; a float hangs one there for as long as it is left.
        reading = Reading(
            profile=profile((0, 11), (3, 10.5), (5, 10)),
            water_depth_m=5.5,
            wind_m_s=2.0,
            gust_m_s=None,
            wind_from_deg=225.0,
            cloud_oktas=6,
            clarity="clear",
        )
        plan = plan_for(at(5), reading, sightings=(Sighting(abundance="many", prey="chironomid-pupa"),))
        rig = plan.set_ups[0]
        self.assertEqual(rig.method, "float")
        self.assertTrue(0.2 <= 5.5 - rig.float_hang_m <= 1.3, rig.float_hang_m)
        self.assertIn("chironomid-pupa", rig.flies[-1].fly.prey)

    def test_damsels_swim_to_the_weed_edge(self):
        edge = Place(name="Weed", kind="weed-edge", depth_min_m=1, depth_max_m=3)
        reading = Reading(
            profile=profile((0, 16), (2, 15.5)),
            water_depth_m=2.8,
            wind_m_s=2.5,
            gust_m_s=None,
            wind_from_deg=200.0,
            cloud_oktas=3,
            clarity="clear",
        )
        plan = plan_for(
            at(6), reading, lake(6, edge), "Weed", sightings=(Sighting(abundance="many", prey="damsel-nymph"),)
        )
        self.assertIn("damsel-nymph", all_flies(plan))
        low, _ = smallest_band(plan.chosen, 0.5)
        self.assertLessEqual(low, 1.6)

    def test_daphnia_in_open_water_asks_for_bright_flies(self):
        basin = Place(name="Middle", kind="open-water", depth_min_m=8, depth_max_m=12)
        reading = Reading(
            profile=profile((0, 17), (4, 16.5), (8, 13), (12, 9)),
            water_depth_m=12.0,
            wind_m_s=4.0,
            gust_m_s=None,
            wind_from_deg=90.0,
            cloud_oktas=2,
            clarity="slightly-coloured",
        )
        plan = plan_for(
            at(7), reading, lake(14, basin), "Middle", sightings=(Sighting(abundance="many", prey="daphnia"),)
        )
        pulled = [s for s in plan.set_ups if s.method in ("sinking", "intermediate")]
        self.assertTrue(pulled)
        self.assertIn(pulled[0].flies[-1].fly.tone, ("bright", "pale"))

    def test_terrestrials_in_the_breeze(self):
        bank = Place(name="Bank", kind="margin", depth_min_m=0, depth_max_m=2)
        reading = Reading(
            profile=profile((0, 17), (1.5, 16.8)),
            water_depth_m=1.8,
            wind_m_s=4.5,
            gust_m_s=None,
            wind_from_deg=270.0,
            cloud_oktas=5,
            clarity="clear",
        )
        plan = plan_for(
            at(8, 15),
            reading,
            lake(6, bank),
            "Bank",
            sightings=(Sighting(abundance="many", prey="terrestrial"), Sighting(abundance="some", rise="sip")),
        )
        self.assertEqual(plan.set_ups[0].method, "dry")
        self.assertIn("terrestrial", plan.set_ups[0].flies[0].fly.prey)

    def test_bright_flat_calm_is_finer_and_smaller(self):
        calm = Reading(
            profile=profile((0, 14), (4, 13)),
            water_depth_m=5.0,
            wind_m_s=0.3,
            gust_m_s=None,
            wind_from_deg=0.0,
            cloud_oktas=0,
            clarity="gin-clear",
        )
        breeze = replace(calm, wind_m_s=5.0, cloud_oktas=8, clarity="coloured")
        fine, stout = (plan_for(at(6), r).set_ups[0].leader.sections[-1].x_size for r in (calm, breeze))
        self.assertGreater(fine, stout)
        deep, high = (plan_for(at(6), r).chosen for r in (calm, breeze))
        self.assertGreater(float(deep.profile @ deep.depths_m), float(high.profile @ high.depths_m))

    def test_a_bright_day_with_a_good_wave_keeps_them_higher_than_a_calm_one(self):
        calm = Reading(
            profile=profile((0, 14), (4, 13)),
            water_depth_m=5.0,
            wind_m_s=0.3,
            gust_m_s=None,
            wind_from_deg=0.0,
            cloud_oktas=0,
            clarity="clear",
        )
        wave = replace(calm, wind_m_s=6.5)
        deep, high = (plan_for(at(6), r).chosen for r in (calm, wave))
        self.assertGreater(float(deep.profile @ deep.depths_m), float(high.profile @ high.depths_m))


class AutumnAndWinter(unittest.TestCase):
    def test_fry_feeders_in_the_margin(self):
        bank = Place(name="Wall", kind="margin", depth_min_m=0, depth_max_m=2.5)
        reading = Reading(
            profile=profile((0, 13), (2, 13)),
            water_depth_m=2.5,
            wind_m_s=3.0,
            gust_m_s=None,
            wind_from_deg=180.0,
            cloud_oktas=6,
            clarity="clear",
        )
        plan = plan_for(at(9), reading, lake(8, bank), "Wall", sightings=(Sighting(abundance="many", rise="bow-wave"),))
        self.assertIn("fry", all_flies(plan))
        self.assertLess(smallest_band(plan.chosen, 0.5)[0], 0.6)

    def test_winter_on_a_small_shallow_lake_is_the_top_two_feet(self):
        # Trade: winter on small waters, often the top 0.6 m in 1.2 to 1.5 m of water.
        pool = Place(name="Pool", kind="shoal", depth_min_m=1, depth_max_m=1.5)
        reading = Reading(
            profile=profile((0, 5.5), (1, 5.4)),
            water_depth_m=1.5,
            wind_m_s=1.0,
            gust_m_s=None,
            wind_from_deg=0.0,
            cloud_oktas=8,
            clarity="slightly-coloured",
        )
        plan = plan_for(at(1, 13), reading, lake(3, pool), "Pool")
        self.assertIn("top 0.6 m", " ".join(f.sentence for f in plan.chosen.factors))
        self.assertGreater(plan.chosen.profile[:7].sum(), 0.45)

    def test_winter_on_a_big_clear_lake_is_deeper(self):
        reading = Reading(
            profile=profile((0, 6), (5, 5.8)),
            water_depth_m=5.0,
            wind_m_s=3.0,
            gust_m_s=None,
            wind_from_deg=0.0,
            cloud_oktas=6,
            clarity="clear",
        )
        plan = plan_for(at(1, 13), reading)
        low, high = smallest_band(plan.chosen, 0.5)
        self.assertGreater((low + high) / 2, 2.5)

    def test_four_degrees_is_slow_and_says_so(self):
        reading = Reading(
            profile=profile((0, 4.0), (4, 4.2)),
            water_depth_m=5.0,
            wind_m_s=3.0,
            gust_m_s=None,
            wind_from_deg=0.0,
            cloud_oktas=8,
            clarity="clear",
        )
        plan = plan_for(at(2, 13), reading)
        self.assertTrue(all(s.retrieve.speed_m_s <= 0.04 for s in plan.set_ups))
        self.assertIn("cold-water", {c.code for c in plan.cautions})

    def test_hail_at_eight_degrees_with_fish_rising_is_a_dry_fly_day(self):
        # Trade: rising fish are fished for with a dry, even in hail at 8 °C when fish show.
        reading = Reading(
            profile=profile((0, 8), (4, 8)),
            water_depth_m=5.0,
            wind_m_s=4.0,
            gust_m_s=None,
            wind_from_deg=0.0,
            cloud_oktas=8,
            clarity="clear",
            air_temperature_c=3.0,
        )
        plan = plan_for(at(4, 12), reading, sightings=(Sighting(abundance="many", rise="sip"),))
        self.assertIn("dry", [s.method for s in plan.set_ups[:2]])


class RulesAndReach(unittest.TestCase):
    def test_a_single_fly_water(self):
        plan = plan_for(at(5), day().reading, rules=Rules(max_flies=1, barbless=True))
        self.assertEqual({len(s.flies) for s in plan.set_ups}, {1})
        self.assertIn("barbless", {c.code for c in plan.cautions})

    def test_unnoted_rules_are_planned_with_two_and_said(self):
        plan = plan_for(at(5), day().reading, rules=Rules())
        self.assertLessEqual(max(len(s.flies) for s in plan.set_ups), 2)
        self.assertIn("planned with two", " ".join(c.sentence for c in plan.cautions))

    def test_no_floats_and_only_a_floating_line(self):
        plan = plan_for(at(5), day().reading, rules=Rules(max_flies=2, floats_allowed=False), lines=(FLOATING,))
        # Nothing rises: no dry fly for want of anything else.
        self.assertEqual({s.method for s in plan.set_ups}, {"nymphs"})

    def test_the_waters_own_limit_is_stricter(self):
        warm = Reading(
            profile=profile((0, 18.5), (4, 17)),
            water_depth_m=5.0,
            wind_m_s=3.0,
            gust_m_s=None,
            wind_from_deg=0.0,
            cloud_oktas=6,
            clarity="clear",
        )
        strict = plan_for(at(7), warm, rules=Rules(max_flies=2, release="catch-and-release", stop_above_c=18))
        self.assertEqual(strict.set_ups, ())
        usual = plan_for(at(7), warm, rules=Rules(max_flies=2, release="catch-and-release"))
        self.assertTrue(usual.set_ups)
        self.assertEqual({c.code: c.level for c in usual.cautions}["warm-water"], "caution")

    def test_brook_trout_water_stops_earlier(self):
        warm = Reading(
            profile=profile((0, 18.5), (4, 16)),
            water_depth_m=5.0,
            wind_m_s=3.0,
            gust_m_s=None,
            wind_from_deg=0.0,
            cloud_oktas=6,
            clarity="clear",
        )
        brook = replace(UPLAND, species=("brook",))
        plan = plan_for(at(7), warm, brook, rules=Rules(max_flies=2, release="catch-and-release"))
        self.assertEqual(plan.set_ups, ())

    def test_a_hot_day_asks_for_water_and_a_hat(self):
        hot = replace(day().reading, air_temperature_c=30.0)
        self.assertIn("1.5 litres", " ".join(c.sentence for c in plan_for(at(7), hot).cautions))

    def test_gusts_count_for_a_small_boat(self):
        # 12 m/s gusts, taken as 1.4 times the mean, stand for 8.6 m/s.
        gusty = replace(day().reading, gust_m_s=12.0)
        plan = plan_for(at(5), gusty, angler=Angler(afloat=True))
        self.assertEqual({c.code: c.level for c in plan.cautions}["wind"], "stop")

    def test_stocked_last_week_wants_something_bright(self):
        stocked = replace(UPLAND, days_since_stocking=4)
        reading = Reading(
            profile=profile((0, 10), (3, 9.8)),
            water_depth_m=5.0,
            wind_m_s=3.0,
            gust_m_s=None,
            wind_from_deg=225.0,
            cloud_oktas=6,
            clarity="clear",
        )
        plan = plan_for(at(4), reading, stocked)
        tones = {f.fly.tone for s in plan.set_ups for f in s.flies}
        self.assertTrue(tones & {"bright", "pale"})
        self.assertIn("Stocked 4 days ago", " ".join(f.sentence for f in plan.chosen.factors))
