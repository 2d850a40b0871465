"""The simulated boat and weather: what they say is true when it claims to be, and spoilt as often as stated."""

import unittest
from datetime import UTC, datetime, timedelta

import numpy as np

from stillthread.core.chart.sounding_line import ledges, running_median, wild
from stillthread.formats.covjson import read_weather_coverage, write_weather_coverage
from stillthread.formats.nmea import DepthSentence, Fix, Heading, SentenceError, Wind, read_sentence, true_wind
from stillthread.standins.boat import NO_FAULTS, Boat, Faults
from stillthread.standins.lake import bed_m, temperature_c
from stillthread.standins.weather import invented_hours

START = datetime(2026, 5, 14, 9, tzinfo=UTC)


def listen(boat, seconds):
    """Every sentence understood, by second, and how many were refused."""
    told, refused = [], 0
    for second in range(seconds):
        for text in boat.sentences():
            try:
                told.append((second, read_sentence(text)))
            except SentenceError:
                refused += 1
    return told, refused


class Instruments(unittest.TestCase):
    def test_without_faults_depth_is_the_truth(self):
        boat = Boat(START, faults=NO_FAULTS)
        told, refused = listen(boat, 200)
        self.assertEqual(refused, 0)
        depths = [(s, d) for s, d in told if isinstance(d, DepthSentence) and not d.below_transducer]
        self.assertEqual(len(depths), 200)
        for second, depth in depths:
            self.assertAlmostEqual(depth.depth_m, boat.truth(second), delta=0.006)

    def test_two_depths_differ_by_the_transducer(self):
        told, _ = listen(Boat(START, faults=NO_FAULTS), 3)
        both = [d for _, d in told if isinstance(d, DepthSentence)]
        self.assertAlmostEqual(both[0].depth_m - both[1].depth_m, 0.3, delta=0.011)
        self.assertEqual([d.below_transducer for d in both[:2]], [False, True])

    def test_it_crosses_a_shoal_and_its_drop_off(self):
        # Trade: a shelf of 3 to 3.5 m breaking to 4.5 to 5 m and on.
        boat = Boat(START, faults=NO_FAULTS)
        depths = [boat.truth(s) for s in range(320)]
        self.assertTrue(2.5 < min(depths) < 3.5)
        self.assertGreater(max(depths), 8)

    def test_the_wind_can_be_found_again(self):
        boat = Boat(START, faults=NO_FAULTS, wind_m_s=5.0, wind_from_deg=200.0)
        told, _ = listen(boat, 600)
        heading, fix, found = None, None, []
        for _, one in told:
            if isinstance(one, Heading):
                heading = one.heading_deg
            elif isinstance(one, Fix):
                fix = one
            elif isinstance(one, Wind) and heading is not None and fix is not None:
                found.append(true_wind(one, heading, fix.speed_m_s, fix.course_deg))
        speed = float(np.mean([s for s, _ in found]))
        east = np.mean([np.sin(np.radians(d)) for _, d in found])
        north = np.mean([np.cos(np.radians(d)) for _, d in found])
        self.assertAlmostEqual(speed, 5.0, delta=0.4)
        self.assertAlmostEqual(float(np.degrees(np.arctan2(east, north)) % 360), 200.0, delta=5.0)

    def test_faults_come_as_often_as_stated(self):
        # 2000 s x 6 sentences: garbage 1 %, bad checksums 1 %, no echo 3 % of two of six, invalid fixes 1 % of one.
        told, refused = listen(Boat(START, seed=3, faults=Faults()), 2000)
        expected = 12_000 * 0.02 + 2000 * (2 * 0.03 + 0.01)
        self.assertAlmostEqual(refused, expected, delta=4 * expected**0.5)
        self.assertGreater(len(told), 11_000)

    def test_the_thermometer_hangs_where_it_is_let_down_to(self):
        boat = Boat(START, faults=NO_FAULTS)
        boat.probe_m = 9.0
        said = float(boat.sentences()[4].split(",")[1])
        self.assertAlmostEqual(said, temperature_c(9.0, START.timetuple().tm_yday), delta=0.15)

    def test_the_same_seed_says_the_same(self):
        self.assertEqual(Boat(START, seed=5).sentences(), Boat(START, seed=5).sentences())


class Lines(unittest.TestCase):
    def test_wild_echoes_are_found_and_the_ledge_is_not_one(self):
        boat = Boat(START, seed=2)
        truth = np.array([boat.truth(s) for s in range(300)])
        rng = np.random.default_rng(1)
        said = truth + rng.normal(0, 0.06, 300)
        spoilt = rng.choice(np.arange(3, 297), 8, replace=False)
        said[spoilt] *= np.where(rng.random(8) < 0.5, 0.45, 2.0)
        found = set(np.flatnonzero(wild(said)).tolist())
        self.assertLessEqual(set(spoilt.tolist()), found)
        self.assertLessEqual(len(found - set(spoilt.tolist())), 1)
        along = np.arange(300) * 0.9
        good = np.array([i for i in range(300) if i not in found])
        edge = ledges(along[good], said[good])[0]
        self.assertTrue(2.5 < edge.upper_m < 4.0 and edge.lower_m > 4.2)
        self.assertLessEqual(edge.run_m, 15)

    def test_an_even_bed_has_neither(self):
        flat = np.full(50, 4.0)
        self.assertFalse(wild(flat).any())
        self.assertEqual(ledges(np.arange(50.0), flat), ())

    def test_the_median_of_a_line(self):
        np.testing.assert_array_equal(running_median(np.array([1.0, 9.0, 2.0, 3.0, 4.0]), 3), [5.0, 2.0, 3.0, 3.0, 3.5])
        with self.assertRaises(ValueError):
            running_median(np.array([1.0]), 4)

    def test_the_bed_is_a_bowl_with_a_shelf(self):
        self.assertAlmostEqual(bed_m(0, 0), 18.0, delta=0.2)
        self.assertLess(bed_m(350, 350), 3.5)


class Weather(unittest.TestCase):
    def test_the_same_place_day_and_seed_say_the_same(self):
        self.assertEqual(
            invented_hours(lon=-2.38, lat=54.12, start=START, count=48, seed=1),
            invented_hours(lon=-2.38, lat=54.12, start=START, count=48, seed=1),
        )
        self.assertNotEqual(
            invented_hours(lon=-2.38, lat=54.12, start=START, count=48, seed=1),
            invented_hours(lon=-2.38, lat=54.12, start=START, count=48, seed=2),
        )

    def test_hours_overlap_whatever_hour_one_asks_from(self):
        later = START + timedelta(hours=5)
        self.assertEqual(
            invented_hours(lon=-2.38, lat=54.12, start=START, count=20, seed=1)[5:15],
            invented_hours(lon=-2.38, lat=54.12, start=later, count=10, seed=1),
        )

    def test_every_hour_is_possible_and_goes_through_the_format(self):
        for lat in (54.12, -41.0):
            hours = invented_hours(lon=-2.38, lat=lat, start=START, count=168, seed=4)
            _, back = read_weather_coverage(write_weather_coverage(hours, (-2.38, lat)))
            self.assertEqual(len(back), 168)
            for hour in back:
                self.assertTrue(0 <= hour.wind_m_s <= hour.gust_m_s < 25)
                self.assertTrue(0 <= hour.cloud_oktas <= 8 and 0 <= hour.wind_from_deg < 360)

    def test_the_south_is_warm_in_january(self):
        january = datetime(2026, 1, 15, tzinfo=UTC)
        north = np.mean([h.air_temperature_c for h in invented_hours(lon=0, lat=50, start=january, count=72, seed=1)])
        south = np.mean([h.air_temperature_c for h in invented_hours(lon=0, lat=-50, start=january, count=72, seed=1)])
        self.assertGreater(south, north + 8)
