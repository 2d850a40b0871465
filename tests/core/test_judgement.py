"""What an angler would expect of whole days, written before they were run: heat, a depth found, risers, light, places, paces.

All of it is practice of the trade (the handbook's sections are named); none of it is this program's own answer.
"""

import unittest
from dataclasses import replace
from datetime import UTC, datetime

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st

from stillthread.core.day.given import Angler, Rules
from stillthread.core.day.schools import Schools
from stillthread.core.food.seen import SampleItem, Sighting, ThroatSample
from stillthread.core.noted.reading import Reading
from stillthread.core.noted.water import Place, Water
from stillthread.core.plan.make import day_context, make_plan
from stillthread.core.water.profile import temperature_at
from tests.checks import some
from tests.days import day, profile

NOON = datetime(2026, 5, 14, 12, tzinfo=UTC)
HEAT = datetime(2026, 7, 20, 13, tzinfo=UTC)
HOT = Reading(
    profile=profile((0, 21.5), (2, 21.2), (4, 20.6), (6, 18.0), (8, 15.0), (10, 13.0)),
    water_depth_m=10.0,
    wind_m_s=3.0,
    gust_m_s=None,
    wind_from_deg=225.0,
    cloud_oktas=8,
    clarity="clear",
)
DAM = Place(name="Dam", kind="drop-off", depth_min_m=5, depth_max_m=10, facing_deg=45)
BAY = Place(name="Bay", kind="margin", depth_min_m=0.5, depth_max_m=3, facing_deg=45)


def water(*places, **more):
    return Water(
        name="Test",
        max_depth_m=max(p.depth_max_m for p in places),
        hemisphere="north",
        places=places,
        latitude_deg=54.0,
        longitude_deg=-2.5,
        **more,
    )


def median(given):
    context, _ = day_context(given)
    return float(np.interp(0.5, np.cumsum(context.belief.profile), context.belief.depths_m))


def warmer(reading, by):
    return replace(reading, profile=profile(*((p.depth_m, p.temperature_c + by) for p in reading.profile)))


class Heat(unittest.TestCase):
    """Handbook §2, §3a: heat beats stocking, cloud and food; the coolest water with oxygen is fished, the top left alone."""

    def plan(self, reading=HOT, **more):
        lake = water(DAM, BAY, days_since_stocking=2)
        return day(HEAT, reading, water=lake, place=None, sightings=(Sighting(abundance="few", rise="sip"),), **more)

    def test_neither_stocking_nor_cloud_nor_a_riser_brings_them_up(self):
        self.assertGreater(median(self.plan()), 6.0)
        plan = make_plan(self.plan())
        self.assertEqual(plan.chosen.place.name, "Dam")
        said = " ".join(part.sentence for part in plan.chosen.factors)
        self.assertIn("the fresh fish's habit is gone", said)

    def test_every_set_up_lies_in_the_cool_depths_the_caution_names(self):
        for reading in (HOT, warmer(HOT, -2.0), warmer(HOT, 3.0)):
            plan = make_plan(self.plan(reading))
            coolest = float(temperature_at(reading.profile, [10.0])[0])
            for s in some(plan.set_ups):
                t = float(temperature_at(reading.profile, [s.target_m])[0])
                self.assertLessEqual(t, max(18.0, coolest + 0.7) + 0.05, s.title)
            self.assertTrue(any(one.kind == "warmth" for one in some(plan.ruled_out)))

    def test_all_too_warm_the_coolest_is_best_and_said(self):
        stew = Reading(
            profile=profile((0, 25.0), (2, 24.5), (4, 23.0), (6, 22.0)),
            water_depth_m=6.0,
            wind_m_s=3.0,
            gust_m_s=None,
            wind_from_deg=None,
            cloud_oktas=2,
            clarity="clear",
        )
        given = day(
            HEAT, stew, water=water(Place(name="Dam", kind="drop-off", depth_min_m=3, depth_max_m=6)), place="Dam"
        )
        self.assertGreater(median(given), 4.0)
        said = next(p.sentence for p in make_plan(given).chosen.factors if p.name == "temperature")
        self.assertIn("Too warm everywhere: coolest at 6 m, 22.0 °C.", said)

    @settings(max_examples=12, deadline=None)
    @given(st.floats(0.5, 3.0), st.sampled_from([4.0, 8.0]), st.integers(0, 8))
    def test_warmer_still_never_brings_them_up_again(self, wind, by, cloud):
        base = replace(HOT, wind_m_s=wind, cloud_oktas=cloud)
        self.assertGreaterEqual(median(self.plan(warmer(base, by))) + 0.15, median(self.plan(base)))


class Found(unittest.TestCase):
    """Handbook §3a: a depth found stays found; both rods fish it, each its own way."""

    def test_every_set_up_fishes_it(self):
        shelf = water(Place(name="Shelf", kind="shoal", depth_min_m=2, depth_max_m=5))
        reading = Reading(
            profile=profile((0, 12.0), (5, 11.0)),
            water_depth_m=5.0,
            wind_m_s=2.0,
            gust_m_s=None,
            wind_from_deg=225.0,
            cloud_oktas=2,
            clarity="clear",
        )
        for found in (1.0, 1.7, 3.0):
            plan = make_plan(day(NOON, reading, water=shelf, place="Shelf", found_m=found))
            self.assertGreaterEqual(len(plan.set_ups), 2)
            for s in plan.set_ups:
                self.assertLess(abs(s.target_m - found), 0.55, f"{found}: {s.title} {s.target_m:.2f}")


class Rising(unittest.TestCase):
    """Handbook §3a, §5: one fish showing is noise; many want a nymph or a dry at the top, no float on their heads."""

    COLD = Reading(
        profile=profile((0, 5.5), (5, 5.3)),
        water_depth_m=5.0,
        wind_m_s=3.0,
        gust_m_s=None,
        wind_from_deg=225.0,
        cloud_oktas=8,
        clarity="clear",
        air_temperature_c=2.0,
    )
    SHELF = water(Place(name="Shelf", kind="shoal", depth_min_m=2, depth_max_m=5))

    def test_one_sip_on_a_cold_white_day_is_still_a_deep_day(self):
        quiet = day(datetime(2026, 3, 10, 11, tzinfo=UTC), self.COLD, water=self.SHELF, place="Shelf")
        sip = replace(quiet, sightings=(Sighting(abundance="few", rise="sip"),))
        self.assertAlmostEqual(median(sip), median(quiet), delta=0.1)
        self.assertNotIn("dry", {s.method for s in some(make_plan(sip).set_ups)})

    def test_nothing_rising_no_dry_fly(self):
        self.assertNotIn("dry", {s.method for s in some(make_plan(day()).set_ups)})

    def test_many_and_the_first_is_at_the_top_and_no_float(self):
        mild = Reading(
            profile=profile((0, 13.0), (5, 12.0)),
            water_depth_m=5.0,
            wind_m_s=2.0,
            gust_m_s=None,
            wind_from_deg=225.0,
            cloud_oktas=6,
            clarity="clear",
        )
        seen = (Sighting(abundance="many", rise="head-and-tail"), Sighting(abundance="many", prey="chironomid-pupa"))
        plan = make_plan(day(NOON, mild, water=self.SHELF, place="Shelf", sightings=seen))
        self.assertLess(plan.set_ups[0].target_m, 0.8)
        self.assertNotEqual(plan.set_ups[0].method, "float")

    def test_a_float_is_never_first_in_the_top_half_metre(self):
        for seen in ((), (Sighting(abundance="some", rise="sip"),), (Sighting(abundance="many", rise="sip"),)):
            for place in ("Drop", "Margin"):
                first = make_plan(day(sightings=seen, place=place)).set_ups[0]
                self.assertFalse(first.method == "float" and first.target_m <= 0.5)


class LightMoves(unittest.TestCase):
    """Handbook §2: sun sends fish down, cloud and ripple bring them up; clear water deeper than coloured, at every depth."""

    def at(self, bed, **change):
        place = Place(name="P", kind="shoal" if bed < 8 else "open-water", depth_min_m=bed / 2, depth_max_m=float(bed))
        reading = Reading(
            profile=profile((0, 12.5), (bed * 0.9, 12.0)),
            water_depth_m=None,
            wind_m_s=3.0,
            gust_m_s=None,
            wind_from_deg=None,
            cloud_oktas=4,
            clarity="clear",
        )
        return median(day(NOON, replace(reading, **change), water=water(place), place="P"))

    def test_cloud_wind_and_clarity_each_move_the_depth(self):
        for bed in (2, 6, 12):
            with self.subTest(bed=bed):
                self.assertGreater(self.at(bed, cloud_oktas=0), self.at(bed, cloud_oktas=8) + 0.05)
                self.assertGreater(self.at(bed, wind_m_s=0.3), self.at(bed, wind_m_s=9.0) + 0.05)
                depths = [self.at(bed, clarity=c) for c in ("gin-clear", "clear", "slightly-coloured", "coloured")]
                self.assertEqual(depths, sorted(depths, reverse=True))

    def test_sun_with_a_real_wave_brings_cruisers_up_whatever_lies_below(self):
        for bed in (6, 12):
            self.assertLess(self.at(bed, wind_m_s=7.0, cloud_oktas=1), 2.0)

    def test_a_grey_sky_is_never_called_bright(self):
        for clarity in ("gin-clear", "coloured"):
            reading = Reading(
                profile=(),
                water_depth_m=5.0,
                wind_m_s=0.3,
                gust_m_s=None,
                wind_from_deg=None,
                cloud_oktas=8,
                clarity=clarity,
            )
            light = next(p for p in make_plan(day(NOON, reading)).chosen.factors if p.name == "light")
            self.assertNotIn("Bright", light.sentence)

    def test_comfort_never_lies_below_the_bed(self):
        reading = Reading(
            profile=(),
            water_depth_m=2.0,
            wind_m_s=0.3,
            gust_m_s=None,
            wind_from_deg=None,
            cloud_oktas=0,
            clarity="gin-clear",
        )
        light = next(p for p in make_plan(day(NOON, reading, place="Margin")).chosen.factors if p.name == "light")
        self.assertIn("down to the bed", light.sentence)


class PlacesAndPaces(unittest.TestCase):
    """Handbook §3a: the first shelf, not the bare margin; cold is not one pace."""

    EARLY = datetime(2026, 3, 20, 12, tzinfo=UTC)

    def test_early_the_shelf_beats_knee_deep_grass(self):
        reading = Reading(
            profile=profile((0, 6.5), (2, 6.4), (4, 6.0)),
            water_depth_m=None,
            wind_m_s=3.0,
            gust_m_s=None,
            wind_from_deg=None,
            cloud_oktas=6,
            clarity="clear",
        )
        lake = water(
            Place(name="Grass", kind="margin", depth_min_m=0.2, depth_max_m=1.0),
            Place(name="Shelf", kind="drop-off", depth_min_m=2, depth_max_m=4.5),
        )
        self.assertEqual(make_plan(day(self.EARLY, reading, water=lake, place=None)).chosen.place.name, "Shelf")

    def test_shallow_and_cold_without_floats_moving_and_still_ways_remain(self):
        for bed in (1.5, 2.1):
            for t in (5.2, 6.5, 7.8):
                reading = Reading(
                    profile=profile((0, t), (bed * 0.8, t - 0.2)),
                    water_depth_m=bed,
                    wind_m_s=3.0,
                    gust_m_s=None,
                    wind_from_deg=225.0,
                    cloud_oktas=5,
                    clarity="clear",
                )
                bay = water(Place(name="Bay", kind="shoal", depth_min_m=1, depth_max_m=bed))
                given = day(self.EARLY, reading, water=bay, place="Bay", rules=Rules(max_flies=2, floats_allowed=False))
                kinds = {s.retrieve.kind for s in some(make_plan(given).set_ups)}
                self.assertTrue(kinds - {"static"}, (bed, t))
                still = make_plan(replace(given, schools=Schools(moving="static")))
                self.assertEqual({s.retrieve.kind for s in some(still.set_ups)}, {"static"}, (bed, t))

    def test_fresh_fish_take_a_hung_fly_as_well_as_a_pulled_one(self):
        reading = Reading(
            profile=profile((0, 10.0), (3, 9.5)),
            water_depth_m=3.0,
            wind_m_s=3.0,
            gust_m_s=None,
            wind_from_deg=225.0,
            cloud_oktas=6,
            clarity="slightly-coloured",
        )
        bank = water(Place(name="Bank", kind="margin", depth_min_m=1.5, depth_max_m=3), days_since_stocking=3)
        plan = make_plan(day(datetime(2026, 4, 10, 12, tzinfo=UTC), reading, water=bank, place="Bank"))
        hung = next(s for s in plan.set_ups if s.method == "float")
        self.assertGreater(hung.relative, 0.6)
        self.assertLess(hung.target_m, 2.0)

    def test_straight_down_is_given_no_casting_advice(self):
        boat = day(HEAT, HOT, water=water(DAM), place="Dam", angler=Angler(afloat=True))
        for s in some(s for s in make_plan(boat).set_ups if s.style == "dangle"):
            self.assertNotIn("Cast", s.stance)


class Said(unittest.TestCase):
    """Handbook §3a, §7: nothing rising after a good look is evidence; pressured fish want it smaller, stiller, deeper."""

    def day(self, *signs):
        reading = Reading(
            profile=profile((0, 13.0), (5, 12.0)),
            water_depth_m=5.0,
            wind_m_s=2.0,
            gust_m_s=None,
            wind_from_deg=225.0,
            cloud_oktas=2,
            clarity="clear",
        )
        shelf = water(Place(name="Shelf", kind="shoal", depth_min_m=2, depth_max_m=5))
        return day(
            NOON,
            reading,
            water=shelf,
            place="Shelf",
            sightings=tuple(Sighting(abundance="some", sign=s) for s in signs),
        )

    def test_nothing_rising_takes_from_the_top(self):
        self.assertGreater(median(self.day("nothing-rises")), median(self.day()))

    def test_pressured_fish_lie_deeper_and_want_it_smaller_and_duller(self):
        self.assertGreater(median(self.day("pressured")), median(self.day()))
        plan = make_plan(self.day("pressured"))
        usual = make_plan(self.day())
        self.assertNotIn("bright", {f.fly.tone for s in some(plan.set_ups) for f in s.flies})
        self.assertGreaterEqual(
            min(f.hook for s in plan.set_ups for f in s.flies), min(f.hook for s in usual.set_ups for f in s.flies)
        )
        self.assertLessEqual(plan.set_ups[0].retrieve.speed_m_s, 0.1)

    def test_what_the_throat_shows_is_tied_on_in_its_size_and_colour(self):
        # Handbook §3: scud 16 to 19 mm large on hooks 10 to 16; fourteen of 15 mm, orange, ask for a large hook.
        items = (
            SampleItem(prey="scud", count=14, size_mm=15.0, colour="orange"),
            SampleItem(prey="chironomid-pupa", count=1, size_mm=6.0),
        )
        given = replace(self.day(), samples=(ThroatSample(items),))
        orange = tuple(
            replace(f, name="Shrimp, orange spot") if "scud" in f.prey and n % 2 else f
            for n, f in enumerate(given.flies)
        )
        plan = make_plan(replace(given, flies=orange))
        tied = [f for s in some(plan.set_ups) for f in s.flies if "scud" in f.fly.prey]
        self.assertTrue(all(f.hook <= 12 for f in some(tied)))
        self.assertTrue(any("orange" in f.fly.name for f in tied))
