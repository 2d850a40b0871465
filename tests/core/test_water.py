import unittest
from datetime import UTC, datetime

import numpy as np
import seawater
from hypothesis import given
from hypothesis import strategies as st

from stillthread.core.errors import InputError
from stillthread.core.noted.reading import Reading, checked_reading
from stillthread.core.sky.light import attenuation_from_secchi, cloud_transmission, read_light
from stillthread.core.sky.sun import sun_elevation_by_hemisphere, sun_elevation_deg
from stillthread.core.water.density import fresh_water_density
from stillthread.core.water.profile import Point, checked_profile, oxygen_at, temperature_at
from tests import checks
from tests.days import profile


class Density(unittest.TestCase):
    def test_against_a_reference_library(self):
        # seawater 3.3.5, dens0 at salinity 0: UNESCO 1983; it takes IPTS-68 through the same factor.
        t = np.linspace(0, 30, 31)
        np.testing.assert_allclose(fresh_water_density(t), seawater.dens0(np.zeros_like(t), t), atol=1e-6)

    def test_check_values(self):
        for entry in checks.of("01_density", "fresh water density"):
            if set(entry["inputs"]) == {"T_C"}:
                self.assertAlmostEqual(
                    float(fresh_water_density(entry["inputs"]["T_C"])), entry["expected"], delta=0.01, msg=entry["id"]
                )

    def test_densest_near_four_degrees(self):
        t = np.arange(0, 10, 0.01)
        self.assertAlmostEqual(float(t[np.argmax(fresh_water_density(t))]), 3.98, delta=0.03)


class Profile(unittest.TestCase):
    def refused(self, points, **kwargs):
        with self.assertRaises(InputError) as caught:
            checked_profile(points, **kwargs)
        return caught.exception.problems

    def test_a_good_profile_passes_unchanged(self):
        points = profile((0, 12), (1, 11.5), (2.5, 11))
        self.assertEqual(checked_profile(points, 3.0), points)

    def test_every_fault_is_told_at_its_field(self):
        found = self.refused([Point(0, 60), Point(2, 12), Point(2, 11), Point(1, 11), Point(9, 10)], water_depth_m=5.0)
        told = {(p.code, p.path) for p in found}
        self.assertEqual(
            told,
            {
                ("temperature_range", "profile[0].temperature_c"),
                ("duplicate_depth", "profile[2].depth_m"),
                ("unsorted_depth", "profile[3].depth_m"),
                ("below_bed", "profile[4].depth_m"),
            },
        )

    def test_sixty_degrees_offers_fahrenheit(self):
        # 60 °F is 15.6 °C by definition of the scale.
        self.assertIn("60 °F? That is 15.6 °C", self.refused([Point(0, 60)])[0].hint)

    def test_edges_of_the_range(self):
        checked_profile([Point(0, -1.0), Point(1, 40.0)])
        for bad in (-1.01, 40.01, float("nan"), float("inf")):
            self.assertEqual(self.refused([Point(0, bad)])[0].code, "temperature_range")

    @given(st.lists(st.floats(0, 30), min_size=2, max_size=12))
    def test_the_curve_never_leaves_its_readings(self, temperatures):
        # Fritsch & Carlson 1980: monotone between neighbours, so no overshoot anywhere.
        points = tuple(Point(float(i), t) for i, t in enumerate(temperatures))
        z = np.linspace(0, len(points) - 1, 97)
        t = temperature_at(points, z)
        left = np.minimum(z.astype(int), len(points) - 2)
        pair = np.array([[temperatures[i], temperatures[i + 1]] for i in left])
        self.assertTrue(np.all(t >= pair.min(axis=1) - 1e-9))
        self.assertTrue(np.all(t <= pair.max(axis=1) + 1e-9))

    def test_beyond_the_readings_the_last_value_is_held(self):
        points = profile((1, 12), (3, 10))
        np.testing.assert_allclose(temperature_at(points, [0, 9]), [12, 10])

    def test_oxygen_only_where_measured(self):
        self.assertIsNone(oxygen_at(profile((0, 12)), [0]))
        points = (Point(0, 12, 10.0), Point(2, 11), Point(4, 10, 6.0))
        np.testing.assert_allclose(oxygen_at(points, [2]), [8.0])


class Light(unittest.TestCase):
    def test_sun_against_a_reference_library(self):
        # pvlib 0.16.1, NREL SPA; astral's NOAA equations are good to about a tenth of a degree.
        for entry in checks.of("04_sun", "sun elevation"):
            i = entry["inputs"]
            when = datetime.fromisoformat(i["utc"].replace("Z", "+00:00"))
            found = sun_elevation_deg(i["lat"], i["lon"], when)
            self.assertAlmostEqual(found, entry["expected"]["elevation"], delta=0.1, msg=entry["id"])

    def test_naive_time_is_refused(self):
        with self.assertRaises(ValueError):
            sun_elevation_deg(50, 0, datetime(2026, 5, 1, 12))

    def test_by_hemisphere_at_the_equinox(self):
        # At noon on an equinox the sun stands at 90° minus the latitude: 40° at 50°, either side.
        noon = datetime(2026, 3, 21, 12, tzinfo=UTC)
        self.assertAlmostEqual(sun_elevation_by_hemisphere("north", noon), 40, delta=1.0)
        self.assertAlmostEqual(sun_elevation_by_hemisphere("south", noon), 40, delta=1.0)

    def test_fading_with_depth(self):
        # Beer-Lambert with Poole & Atkins 1929.
        for entry in checks.of("08_light", "fraction of just-below-surface light"):
            light = read_light(
                sun_deg=60, cloud_oktas=0, ripple="calm", clarity=None, secchi_m=entry["inputs"]["secchi_m"]
            )
            fraction = light.at(entry["inputs"]["depth_m"]) / light.at(0)
            self.assertAlmostEqual(fraction, entry["expected"], delta=1e-6, msg=entry["id"])

    def test_cloud_and_ripple_only_take_light_away(self):
        # Kasten & Czeplak 1980: full cloud passes a quarter.
        self.assertAlmostEqual(cloud_transmission(8), 0.25)
        self.assertEqual(cloud_transmission(0), 1.0)
        surface = [
            read_light(sun_deg=50, cloud_oktas=c, ripple=r, clarity="clear", secchi_m=None).surface
            for c, r in ((0, "calm"), (4, "calm"), (8, "ripple"))
        ]
        self.assertEqual(surface, sorted(surface, reverse=True))

    def test_guesses_are_named(self):
        self.assertEqual(
            read_light(sun_deg=30, cloud_oktas=None, ripple="unknown", clarity=None, secchi_m=None).guessed,
            ("cloud", "wind", "clarity"),
        )
        self.assertEqual(
            read_light(sun_deg=30, cloud_oktas=3, ripple="calm", clarity="clear", secchi_m=None).guessed, ()
        )

    def test_impossible_input(self):
        with self.assertRaises(ValueError):
            attenuation_from_secchi(0)
        with self.assertRaises(ValueError):
            cloud_transmission(9)


class ReadingChecks(unittest.TestCase):
    def test_hurricane_and_bed(self):
        with self.assertRaises(InputError) as caught:
            checked_reading(Reading(profile=profile((0, 12)), water_depth_m=30.0, wind_m_s=400 / 3.6), max_depth_m=18)
        told = {p.path: p.message for p in caught.exception.problems}
        self.assertIn("400 km/h", told["reading.wind_m_s"])
        self.assertIn("18 m at its deepest", told["reading.water_depth_m"])

    def test_an_empty_reading_is_a_reading(self):
        self.assertEqual(checked_reading(Reading(), 10), Reading())
