"""Guided reading, soundings, warm edges, hours of the day, open water by species, and the whole reading understood."""

import math
import unittest
from dataclasses import replace
from datetime import UTC, datetime, timedelta, timezone
from zoneinfo import ZoneInfo

import numpy as np
from hypothesis import given
from hypothesis import strategies as st

from stillthread.core.chart.sounding import (
    METHODS,
    Sounding,
    below_datum_m,
    below_surface_m,
    checked_sounding,
    pooled_depth,
    rod_reach_m,
    sounding_doubt_m,
)
from stillthread.core.errors import InputError
from stillthread.core.noted.reading import Reading, fetch_on
from stillthread.core.reading.edges import daily_warming_c, warm_edges
from stillthread.core.reading.guide import first_pass_m, next_depth
from stillthread.core.reading.hours import Hour, checked_hours, day_hours, wind_hour, wind_turns
from stillthread.core.reading.means import ReadInput, read_water
from stillthread.core.reading.wind_now import read_wind, wind_sentence
from stillthread.core.trout.open_band import STAYS_BELOW_C, feeling, open_band
from stillthread.core.trout.temperature import appetite, preference
from stillthread.core.water.layers import find_thermocline, read_layers
from stillthread.core.water.oxygen import oxygen_curve
from stillthread.core.water.profile import Point, temperature_at
from stillthread.core.water.stability import Contour
from tests.days import MAY, SUMMER, UPLAND, profile

NOON = datetime(2026, 5, 14, 12, tzinfo=UTC)
FOOT = 0.3048


class Guide(unittest.TestCase):
    def read_all(self, truth, bed, step=1.0):
        """Follow the guide to its end against a known lake; returns the points in the order they were read."""
        points = []
        for _ in range(80):
            ask = next_depth(tuple(points), bed, step)
            if ask.depth_m is None:
                return points
            points.append(Point(ask.depth_m, float(truth(ask.depth_m))))
        raise AssertionError("the guide never has enough")

    def test_every_metre_or_every_five_feet(self):
        # Trade: a reading every metre (or every 1.5 m / 5 ft).
        self.assertEqual(first_pass_m(5.0, 1.0), (0.0, 1.0, 2.0, 3.0, 4.0, 4.7))
        self.assertEqual([round(d / FOOT) for d in first_pass_m(25 * FOOT, 5 * FOOT)], [0, 5, 10, 15, 20, 24])

    def test_the_drop_is_closed_in_upon(self):
        points = self.read_all(lambda z: 8 + 10 / (1 + math.exp((z - 6.3) / 0.35)), 12.0)
        near = [p.depth_m for p in points if abs(p.depth_m - 6.3) < 1.0]
        self.assertIn(6.5, near)  # the gap from 6 to 7 m is halved
        found = find_thermocline(tuple(sorted(points, key=lambda p: p.depth_m)))
        self.assertAlmostEqual(found.depth_m, 6.3, delta=0.35)

    def test_mixed_water_is_soon_enough(self):
        points = self.read_all(lambda z: 11.0 - 0.05 * z, 6.0)
        self.assertEqual([p.depth_m for p in points], [0.0, 1.0, 2.0, 3.0, 4.0, 5.0, 5.7])

    def test_deep_water_is_read_at_every_other_knot_first(self):
        self.assertEqual(first_pass_m(20.0, 1.0)[:4], (0.0, 2.0, 4.0, 6.0))

    @given(st.floats(0.5, 30), st.sampled_from([1.0, 5 * FOOT]), st.floats(1, 20), st.floats(0.2, 3))
    def test_it_always_ends_and_never_asks_twice_or_below_the_bed(self, bed, step, middle, width):
        points = self.read_all(lambda z: 6 + 12 / (1 + math.exp((z - middle) / width)), bed, step)
        depths = [p.depth_m for p in points]
        self.assertEqual(len(depths), len(set(depths)))
        self.assertTrue(all(0 <= d <= bed for d in depths))

    def test_a_depth_already_read_is_not_asked_again(self):
        self.assertEqual(next_depth(profile((0, 12), (1, 12), (2, 11.9)), 6.0).depth_m, 3.0)
        with self.assertRaises(ValueError):
            first_pass_m(0, 1)


class Soundings(unittest.TestCase):
    def test_a_three_metre_rod_says_about_two(self):
        # Trade: a 3 m rod says "about 2 m here".
        self.assertAlmostEqual(rod_reach_m(3.0), 2.0)
        with self.assertRaises(InputError) as caught:
            checked_sounding(Sounding(4.0, "rod"), rod_m=3.0)
        self.assertIn("does not reach", caught.exception.problems[0].message)
        self.assertEqual(checked_sounding(Sounding(2.0, "rod"), rod_m=3.0).depth_m, 2.0)

    def test_hearsay_is_worth_less_than_a_cord(self):
        doubts = {m: sounding_doubt_m(Sounding(4.0, m)) for m in METHODS}
        self.assertLess(doubts["sounder"], doubts["rod"])
        self.assertLess(doubts["marked-cord"], doubts["rod"])
        self.assertEqual(max(doubts, key=doubts.get), "asked")

    def test_two_equal_soundings_halve_the_variance(self):
        # Standard least squares: 1/√2 of the doubt where they agree.
        one = pooled_depth((Sounding(4.0, "rod"),))
        two = pooled_depth((Sounding(4.0, "rod"), Sounding(4.0, "rod")))
        self.assertAlmostEqual(two.doubt_m, one.doubt_m / math.sqrt(2))
        self.assertTrue(two.agree)

    def test_soundings_that_disagree_say_so_and_widen(self):
        apart = pooled_depth((Sounding(3.0, "sounder"), Sounding(5.0, "sounder")))
        self.assertFalse(apart.agree)
        self.assertGreater(apart.doubt_m, 0.9)
        self.assertAlmostEqual(apart.depth_m, 4.0, delta=0.1)

    @given(st.floats(0.5, 60), st.floats(-10, 5))
    def test_the_level_comes_and_goes(self, depth, level):
        self.assertAlmostEqual(below_surface_m(below_datum_m(depth, level), level), depth, places=9)

    def test_a_drawn_down_water_is_shallower_than_its_chart(self):
        self.assertAlmostEqual(below_surface_m(5.0, -1.5), 3.5)

    def test_impossible_soundings_are_refused(self):
        for bad, path in (
            (Sounding(-1, "rod"), "depth_m"),
            (Sounding(60, "asked"), "depth_m"),
            (Sounding(2, "magic"), "method"),
        ):
            with self.assertRaises(InputError) as caught:
                checked_sounding(bad, 18.0)
            self.assertEqual(caught.exception.problems[0].path, f"sounding.{path}")


class Edges(unittest.TestCase):
    MARCH = datetime(2026, 3, 20, 12, tzinfo=UTC)

    def test_warming_by_the_heat_balance(self):
        # Closed form: 8 MJ/m² into one metre of water at 4.186 kJ/(kg K) is 1.91 °C, into four 0.48.
        self.assertAlmostEqual(daily_warming_c(1.0, 8e6), 1.911, delta=0.001)
        self.assertAlmostEqual(daily_warming_c(4.0, 8e6), daily_warming_c(1.0, 8e6) / 4)

    def test_shallow_edges_early_in_the_year(self):
        found = warm_edges(UPLAND, self.MARCH, 5.0, cloud_oktas=1)
        self.assertEqual([e.place for e in found], ["Margin"])
        self.assertFalse(found[0].read)
        self.assertIn("Reckoned, not read", found[0].sentence)

    def test_a_reading_goes_before_reckoning(self):
        found = warm_edges(UPLAND, self.MARCH, 5.0, (("Margin", 8.0),))
        self.assertAlmostEqual(found[0].warmer_c, 3.0)
        self.assertTrue(found[0].read)
        self.assertEqual(warm_edges(UPLAND, self.MARCH, 5.0, (("Margin", 5.2),)), ())

    def test_not_in_summer_nor_once_the_lake_is_warm(self):
        self.assertEqual(warm_edges(UPLAND, datetime(2026, 7, 1, tzinfo=UTC), 8.0), ())
        self.assertEqual(warm_edges(UPLAND, self.MARCH, 11.0), ())
        self.assertEqual(warm_edges(UPLAND, self.MARCH, None), ())

    def test_the_south_has_its_spring_in_september(self):
        south = replace(UPLAND, hemisphere="south", latitude_deg=-42.0)
        self.assertTrue(warm_edges(south, datetime(2026, 9, 20, tzinfo=UTC), 5.0, cloud_oktas=0))
        self.assertFalse(warm_edges(south, self.MARCH, 5.0, cloud_oktas=0))


SQUARE = (((-2.5, 54.0), (-2.48, 54.0), (-2.48, 54.01), (-2.5, 54.01), (-2.5, 54.0)),)


class Hours(unittest.TestCase):
    def test_days_of_the_clock_change(self):
        zone = ZoneInfo("Europe/London")
        counts = [len(day_hours(datetime(2026, *md, 12, tzinfo=zone))) for md in ((3, 29), (6, 1), (10, 25))]
        self.assertEqual(counts, [23, 24, 25])

    def test_a_turn_of_the_wind_moves_the_food(self):
        def hour(at, from_deg, speed=4.0):
            return wind_hour(
                UPLAND, Hour(when=NOON + timedelta(hours=at), wind_m_s=speed, gust_m_s=None, wind_from_deg=from_deg)
            )

        told = wind_turns((hour(0, 225), hour(1, 230), hour(2, 315), hour(3, 320)))
        self.assertEqual(len(told), 1)
        self.assertIn("from SW to NW about 14:00", told[0])
        self.assertIn("the SE shore", told[0])
        self.assertEqual(wind_turns((hour(0, 225), hour(1, 45, 0.5))), ())
        self.assertEqual(wind_turns((hour(0, 350), hour(1, 20))), ())  # 30° across north is no turn

    def test_hours_must_go_forward_and_be_possible(self):
        with self.assertRaises(InputError) as caught:
            checked_hours((Hour(when=NOON, wind_m_s=4.0), Hour(when=NOON, wind_m_s=90.0)))
        self.assertEqual([p.path for p in caught.exception.problems], ["hours[1].when", "hours[1].wind_m_s"])

    def test_fetch_by_outline_typed_or_guessed(self):
        # The square is 0.01° of latitude across: 1113 m (WGS84 at 54°), 0.02° of longitude: 1311 m.
        outlined = replace(UPLAND, outline=SQUARE)
        fetch, source = fetch_on(outlined, 270.0)
        self.assertEqual(source, "outline")
        self.assertTrue(1100 < fetch < 1320)
        self.assertEqual(fetch_on(replace(UPLAND, fetch_m=700.0), 10.0), (700.0, "typed"))
        guessed, source = fetch_on(replace(UPLAND, hypsography=(Contour(0, 1e6), Contour(10, 0))), 10.0)
        self.assertAlmostEqual(guessed, 2 * math.sqrt(1e6 / math.pi))
        self.assertEqual(source, "guess")
        self.assertEqual(fetch_on(UPLAND, 10.0), (None, "unknown"))

    def test_the_wind_in_words(self):
        now = read_wind(replace(UPLAND, fetch_m=900.0), MAY)
        self.assertIn("Beaufort 3 from SW, a ripple: onto the NE shore, off the SW shore", wind_sentence(now))
        self.assertTrue(0 < now.wave_m < 0.3)
        faces = {p.place: p for p in now.places}
        self.assertGreater(faces["Drop"].onto, 0.99)  # it looks out to the south-west, the wind comes from there
        self.assertLess(faces["Margin"].onto, -0.99)
        self.assertIsNone(read_wind(UPLAND, Reading()))


class OpenWater(unittest.TestCase):
    def band(self, points, species="rainbow", when=datetime(2026, 8, 20, tzinfo=UTC), productivity=None):
        z = np.linspace(0, points[-1].depth_m, 121)
        curve = oxygen_curve(
            points=points,
            layers=read_layers(points),
            depths_m=z,
            when=when,
            hemisphere="north",
            productivity=productivity,
        )
        return open_band(species, z, temperature_at(points, z), curve)

    def test_squeezed_between_warmth_and_want_of_oxygen(self):
        points = tuple(
            Point(d, t, o)
            for d, t, o in ((0, 24, 8.5), (3, 23.5, 8.4), (5, 20, 7.5), (7, 15, 5.5), (9, 11, 2.0), (12, 9, 0.5))
        )
        band = self.band(points)
        self.assertEqual((band.top_by, band.bottom_by), ("warmth", "oxygen"))
        # By hand on the oxygen's straight line: 5.5 to 2.0 over 7 to 9 m passes 4 mg/L at 7.86 m.
        self.assertAlmostEqual(band.open_m[1], 7.86, delta=0.1)
        self.assertTrue(4 < band.open_m[0] < 5.5)
        self.assertEqual(band.bottom_band_m[0], band.bottom_band_m[1])

    def test_cool_mixed_water_is_open_from_top_to_bottom(self):
        band = self.band(profile((0, 12), (4, 11.8), (8, 11.5)))
        self.assertEqual((band.top_by, band.bottom_by), ("surface", "bed"))
        self.assertIn("open from top to bottom", band.sentence)

    def test_a_guess_at_oxygen_leaves_the_bottom_in_doubt(self):
        band = self.band(profile((0, 21), (3, 20.5), (6, 14), (9, 9), (12, 8)), productivity="high")
        self.assertEqual(band.bottom_by, "oxygen")
        self.assertLess(band.bottom_band_m[0], band.bottom_band_m[1])
        self.assertIn("by a guess at the oxygen", band.sentence)

    def test_no_water_at_all(self):
        band = self.band(profile((0, 26), (2, 26), (4, 25.5)))
        self.assertIsNone(band.open_m)
        self.assertIn("Leave them alone", band.sentence)

    def test_the_most_tender_species_has_the_least_water(self):
        points = profile((0, 20.5), (3, 20.0), (5, 17), (8, 12))
        tops = [self.band(points, s).open_m[0] for s in ("rainbow", "brown", "brook")]
        self.assertEqual(tops, sorted(tops))

    def test_limits_lie_below_the_lethal_ones(self):
        # Upper incipient lethal: rainbow 25.6 (Hokanson et al. 1977), brown 24.7 (Elliott 1981), brook 25.3 (Fry et al.
        # 1946), all from memory in the check values; growth of brown trout stops at 19.5.
        for species, lethal in (("rainbow", 25.6), ("brown", 24.7), ("brook", 25.3)):
            self.assertLess(STAYS_BELOW_C[species], lethal - 3)
        self.assertAlmostEqual(STAYS_BELOW_C["brown"], 19.5, delta=1)

    def test_appetite_choice_and_welfare_are_three_things(self):
        # Trade: consumption peaks warmer than is good for a fish that is returned; a danger above 20 °C.
        t = np.linspace(4, 24, 401)
        hungriest, chosen = float(t[np.argmax(appetite(t))]), float(t[np.argmax(preference(t))])
        self.assertGreater(hungriest, chosen + 2)
        self.assertGreater(float(appetite(20.0)), 0.9)


class Whole(unittest.TestCase):
    def test_a_summer_day(self):
        read = read_water(ReadInput(NOON.replace(month=7), replace(UPLAND, fetch_m=1500.0), SUMMER, place="Basin"))
        self.assertEqual(read.layers.state, "layered")
        self.assertEqual(len(read.light_hours), 24)
        self.assertEqual(read.bed_m, 15.0)
        self.assertGreater(read.stability.wedderburn, 1)
        self.assertIn("oxygen", read.guessed)
        self.assertEqual([b.species for b in read.bands], ["rainbow"])
        self.assertTrue(read.sun.sunrise < read.sun.sunset)
        self.assertEqual(read.welfare.level, "caution")

    def test_nothing_read_is_said_and_not_made_up(self):
        read = read_water(ReadInput(NOON, UPLAND, Reading()))
        self.assertIsNone(read.temperature_c)
        self.assertIsNone(read.oxygen)
        self.assertEqual((read.bands, read.wind, read.wind_hours), ((), None, ()))
        self.assertEqual(read.layers.state, "unknown")
        self.assertTrue({"temperature", "cloud", "wind", "clarity"} <= set(read.guessed))

    def test_forecast_hours_give_wind_and_light_by_hour(self):
        midnight = NOON.replace(hour=0)
        hours = tuple(
            Hour(
                when=midnight + timedelta(hours=i),
                wind_m_s=2.0 + i / 4,
                gust_m_s=None,
                wind_from_deg=225.0 if i < 14 else 320.0,
                cloud_oktas=8.0 if i < 10 else 0.0,
            )
            for i in range(24)
        )
        read = read_water(ReadInput(NOON, UPLAND, MAY, hours=hours))
        self.assertEqual([h.onto for h in read.wind_hours[12:16]], ["NE", "NE", "SE", "SE"])
        self.assertFalse(any(h.spot for h in read.light_hours[:10]))
        self.assertTrue(any(h.spot for h in read.light_hours[10:]))

    def test_all_faults_are_told_at_once(self):
        with self.assertRaises(InputError) as caught:
            read_water(
                ReadInput(
                    NOON,
                    UPLAND,
                    Reading(profile=profile((0, 12), (0, 13), (40, 5))),
                    hours=(Hour(when=NOON, wind_m_s=99.0),),
                    place="Nowhere",
                )
            )
        self.assertEqual(
            {p.path for p in caught.exception.problems},
            {"place", "reading.profile[1].depth_m", "reading.profile[2].depth_m", "hours[0].wind_m_s"},
        )

    def test_hemispheres_mirror_each_other(self):
        """The same lake turned over the equator, half a year later: same light, same food, same bands."""
        north = replace(UPLAND, latitude_deg=50.0, longitude_deg=0.0)
        south = replace(UPLAND, hemisphere="south", latitude_deg=-50.0, longitude_deg=0.0)
        a = read_water(ReadInput(datetime(2026, 6, 21, 12, tzinfo=UTC), north, SUMMER))
        b = read_water(ReadInput(datetime(2026, 12, 21, 12, tzinfo=UTC), south, SUMMER))
        self.assertAlmostEqual(a.light_now.sun_deg, b.light_now.sun_deg, delta=1.0)
        self.assertEqual(a.food.top(3)[0].key, b.food.top(3)[0].key)
        self.assertEqual(a.bands[0].open_m, b.bands[0].open_m)
        self.assertAlmostEqual((a.light_now.look_deg + b.light_now.look_deg) % 360, 180, delta=3)

    def test_time_zone_changes_words_not_instants(self):
        plus = NOON.astimezone(timezone(timedelta(hours=3)))
        a, b = (read_water(ReadInput(t, UPLAND, MAY)) for t in (NOON, plus))
        self.assertAlmostEqual(a.light_now.sun_deg, b.light_now.sun_deg)
        self.assertEqual(a.light.surface, b.light.surface)


class Feeling(unittest.TestCase):
    def told(self, *temperatures):
        depths = np.linspace(0, 10, 101)
        return feeling("rainbow", depths, np.interp(depths, np.linspace(0, 10, len(temperatures)), temperatures))

    def test_in_words_and_by_the_trades_table(self):
        # Trade's table: 13 to 17 °C the best band, below 4 °C sluggish, above 20 °C a danger (handbook §2).
        self.assertIn("hungry and at home", self.told(15.0))
        self.assertIn("hardly feeding", self.told(1.0))
        self.assertRegex(self.told(23.0, 15.0), r"out of their water\. .*best suited at about [5-9]")

    def test_no_shares_and_no_zero_depths(self):
        for temperatures in ((15.0,), (15.0, 8.0), (4.0, 5.0), (24.0, 10.0)):
            told = self.told(*temperatures)
            self.assertNotIn("%", told)
            self.assertNotIn(" 0.0 m", told)
