"""Days judged before they were planned: what somebody who has fished such a day would tie on, and what no card may say."""

import unittest
from dataclasses import replace
from datetime import UTC, datetime

from stillthread.core.food.available import available_food
from stillthread.core.food.seen import Sighting, sighting_counts
from stillthread.core.noted.reading import Reading
from stillthread.core.noted.water import Place
from stillthread.core.plan.make import make_plan
from tests.days import UPLAND, day, profile


def planned(when, water, place, sightings=(), **reading):
    read = Reading(**{"wind_from_deg": 210.0, "gust_m_s": None, **reading})
    return make_plan(
        day(when=when, reading=read, water=replace(water, places=(place,)), place=place.name, sightings=sightings)
    )


class AmongFishThatSip(unittest.TestCase):
    """A misty September dawn, flat calm, some quiet sips (the trade: confident sips are emergers)."""

    def setUp(self):
        self.plan = planned(
            datetime(2026, 9, 12, 5, 45, tzinfo=UTC),
            UPLAND,
            Place(name="Reed point", kind="drop-off", depth_min_m=1.5, depth_max_m=5),
            (Sighting(rise="sip", abundance="some"),),
            profile=profile((0, 15.2), (2, 15.6), (4, 15.5)),
            water_depth_m=4.0,
            wind_m_s=0.3,
            cloud_oktas=8,
            clarity="clear",
        )

    def test_a_small_dry_leads_and_no_lure_stands_beside_it(self):
        first, second = self.plan.set_ups[:2]
        self.assertEqual(first.method, "dry")
        self.assertGreaterEqual(first.flies[-1].hook, 14)
        self.assertTrue({"chironomid-pupa", "mayfly"} & {p for f in second.flies for p in f.fly.prey}, second.flies)

    def test_no_card_gives_the_season_as_what_the_fish_take(self):
        for one in self.plan.set_ups:
            said = next(r.sentence for r in one.reasons if r.factor == "food")
            self.assertIn("Rises apart", said)

    def test_a_buoyant_point_on_a_floating_line_is_not_counted_down(self):
        floated = [s for s in self.plan.set_ups if s.style == "buoyant-point" and s.line.family == "floating"]
        self.assertTrue(floated)
        self.assertEqual(floated[0].count_s, 0)


class Splashes(unittest.TestCase):
    """What splashes at fish speaks for (the trade): a sedge at dusk; on a hot afternoon a damsel may be it; in winter neither."""

    def share(self, when, prey):
        return available_food(when, "north", 16.0, sightings=(Sighting(rise="splash", abundance="many"),)).share[prey]

    def test_at_dusk_it_is_no_damsel(self):
        noon, dusk = datetime(2026, 6, 24, 14, tzinfo=UTC), datetime(2026, 6, 24, 21, 30, tzinfo=UTC)
        self.assertGreater(self.share(dusk, "caddis"), 4 * self.share(dusk, "damsel-adult"))
        self.assertGreater(self.share(noon, "damsel-adult"), 1.5 * self.share(dusk, "damsel-adult"))

    def test_a_sighting_counts_as_much_whatever_it_speaks_for(self):
        seen = Sighting(rise="splash", abundance="many")
        for about in (lambda key: 1.0, lambda key: 0.05 if key == "caddis" else 1.0):
            self.assertAlmostEqual(sum(sighting_counts(seen, about).values()), 8.0)


class GreyAutumn(unittest.TestCase):
    def share(self, cloud, hour=11):
        food = available_food(datetime(2026, 11, 8, hour, tzinfo=UTC), "north", 8.0, 5.0, cloud)
        return food.share["leech"]

    def test_leeches_are_about_all_day_under_a_grey_sky(self):
        # the trade: best early and late, and in low light
        self.assertGreater(self.share(8), 2 * self.share(1))
        self.assertLess(self.share(8), self.share(8, hour=20))

    def test_a_dark_leech_is_tied_on_in_coloured_water(self):
        plan = planned(
            datetime(2026, 11, 8, 11, 30, tzinfo=UTC),
            UPLAND,
            Place(name="Long bank", kind="shoal", depth_min_m=1.5, depth_max_m=4),
            profile=profile((0, 8.1), (2, 8.1), (4, 8.0)),
            water_depth_m=4.0,
            wind_m_s=5.0,
            cloud_oktas=8,
            clarity="coloured",
        )
        first_two = [f.fly for s in plan.set_ups[:2] for f in s.flies]
        self.assertTrue(any("leech" in fly.prey and fly.tone == "dark" for fly in first_two), first_two)


class FreshFish(unittest.TestCase):
    def test_a_hung_fly_is_shown_beside_the_pulled_one_and_not_on_their_heads(self):
        # the trade: both take well, neither is marked down
        plan = planned(
            datetime(2026, 4, 10, 9, tzinfo=UTC),
            replace(UPLAND, days_since_stocking=3, species=("rainbow",)),
            Place(name="Car side", kind="shoal", depth_min_m=1.5, depth_max_m=3.5),
            profile=profile((0, 9.2), (2, 8.8), (3.2, 8.1)),
            water_depth_m=3.2,
            wind_m_s=3.0,
            cloud_oktas=7,
            clarity="slightly-coloured",
        )
        hung = [s for s in plan.set_ups if s.method == "float"]
        self.assertTrue(hung, [s.title for s in plan.set_ups])
        self.assertGreater(hung[0].float_hang_m, 0.6)
        self.assertIn(hung[0].flies[-1].fly.tone, ("bright", "pale"))


class FryPushedUp(unittest.TestCase):
    def test_a_still_fry_on_top_is_the_first_rod(self):
        # the trade: pushed water without splashes is fry; a still floating fry on the first rod
        plan = planned(
            datetime(2026, 10, 16, 8, tzinfo=UTC),
            UPLAND,
            Place(name="Pontoon", kind="margin", depth_min_m=1, depth_max_m=4),
            (Sighting(rise="bow-wave", abundance="some"),),
            profile=profile((0, 12.3), (2, 12.2), (3, 12.1)),
            water_depth_m=3.0,
            wind_m_s=2.0,
            cloud_oktas=6,
            clarity="clear",
        )
        self.assertEqual((plan.set_ups[0].method, plan.set_ups[0].flies[-1].fly.prey), ("dry", ("fry",)))


class ColdPool(unittest.TestCase):
    def plan(self, kind):
        return planned(
            datetime(2026, 1, 20, 12, 30, tzinfo=UTC),
            replace(UPLAND, max_depth_m=3.2, species=("rainbow",)),
            Place(name="Pool", kind=kind, depth_min_m=1, depth_max_m=2.5),
            profile=profile((0, 5.2), (1, 5.1), (2, 5.0)),
            water_depth_m=2.4,
            wind_m_s=1.5,
            cloud_oktas=8,
            clarity="slightly-coloured",
        )

    def test_what_moves_is_not_far_behind_the_float_but_at_the_drop_off(self):
        # the trade: any retrieve may be the one; the hung fly is for the drop-off
        def moving(plan):
            return max(s.relative for s in plan.set_ups if s.method != "float")

        self.assertGreater(moving(self.plan("shoal")), 0.6)
        ledge = self.plan("drop-off")
        self.assertEqual(ledge.set_ups[0].method, "float")
        self.assertLess(moving(ledge), moving(self.plan("shoal")))


class WinterLedge(unittest.TestCase):
    def said(self, bed_m):
        plan = planned(
            datetime(2026, 12, 12, 12, tzinfo=UTC),
            UPLAND,
            Place(name="Ledge", kind="drop-off", depth_min_m=3, depth_max_m=9),
            profile=profile((0, 4.8), (bed_m, 4.8)),
            water_depth_m=bed_m,
            wind_m_s=2.0,
            cloud_oktas=6,
            clarity="gin-clear",
        )
        return next(f.sentence for f in plan.chosen.factors if f.name == "season")

    def test_over_deeper_water_the_habit_is_not_told_as_off_its_bottom(self):
        # the trade: 3 to 5 m over 3 to 5 m; along ledges lower
        self.assertIn("off the bottom", self.said(5.0))
        self.assertIn("lower along the ledges", self.said(6.5))


class NothingLeads(unittest.TestCase):
    """Nothing was seen and no food leads: what is fished must be found by the fish (the trade: bold silhouettes)."""

    def plan(self, hour, sightings=(), **reading):
        usual = {"profile": profile((0, 14.2), (3, 14.0)), "water_depth_m": 3.0, "cloud_oktas": 7}
        bank = Place(name="Bank", kind="shoal", depth_min_m=1, depth_max_m=4)
        when = datetime(2026, 9, 25, hour, tzinfo=UTC)
        return planned(when, UPLAND, bank, sightings, **{**usual, "wind_m_s": 8.5, "clarity": "coloured", **reading})

    def large_and_dark(self, plan):
        flies = [f for s in plan.set_ups[:2] for f in s.flies]
        return [f for f in flies if f.fly.tone == "dark" and f.hook <= 8]

    def test_a_big_dark_fly_searches_coloured_water(self):
        plan = self.plan(10)
        self.assertTrue(self.large_and_dark(plan))
        self.assertIn("No food leads", self.large_and_dark(plan)[0].why)
        food = next(f.sentence for f in plan.chosen.factors if f.name == "food")
        self.assertIn("many kinds", food)
        self.assertNotIn("mostly", food)

    def test_a_food_that_was_seen_leads_instead(self):
        plan = self.plan(10, (Sighting(prey="chironomid-pupa", abundance="many", evidence="hatch"),))
        self.assertTrue(any("chironomid-pupa" in f.fly.prey for f in plan.set_ups[0].flies))
        self.assertFalse(any("No food leads" in f.why for s in plan.set_ups for f in s.flies))

    def test_by_night_in_clear_water_too_and_the_dark_is_minded(self):
        night = self.plan(22, wind_m_s=1.0, clarity="gin-clear")
        self.assertTrue(self.large_and_dark(night))
        self.assertIn("dark", {c.code for c in night.cautions})
        self.assertNotIn("dark", {c.code for c in self.plan(10).cautions})


class FewChaseFry(unittest.TestCase):
    def test_no_fly_is_on_for_its_weight_alone(self):
        # a beaded pupa pulled past fish that hunt fry takes nothing by being heavy (the trade: weight is chosen for depth)
        plan = planned(
            datetime(2026, 7, 10, 18, tzinfo=UTC),
            UPLAND,
            Place(name="Jetty", kind="margin", depth_min_m=1, depth_max_m=4),
            (Sighting(prey="fry", abundance="some", evidence="seen"), Sighting(rise="bow-wave", abundance="few")),
            profile=profile((0, 17.2), (2, 16.8), (3, 16.0)),
            water_depth_m=3.0,
            wind_m_s=2.0,
            cloud_oktas=2,
            clarity="clear",
        )
        pulled = [s for s in plan.set_ups if s.style == "team" and s.retrieve.speed_m_s > 0.1]
        self.assertTrue(pulled)
        for one in pulled:
            self.assertIn("fry", one.flies[-1].fly.prey, one.title)
        for one in plan.set_ups:
            if one.style == "buoyant-point" and "fry" not in one.flies[-1].fly.prey:
                self.assertIn("not for the food here", one.flies[-1].why)
