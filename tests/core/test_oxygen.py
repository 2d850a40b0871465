import unittest
from datetime import UTC, datetime

import numpy as np
import pylake
from hypothesis import given
from hypothesis import strategies as st

from stillthread.core.water.layers import read_layers
from stillthread.core.water.oxygen import (
    oxygen_curve,
    oxygen_saturation_mg_l,
    season_run_down,
    standard_pressure_hpa,
    station_pressure_hpa,
)
from stillthread.core.water.profile import Point
from tests import checks
from tests.days import profile

AUGUST = datetime(2026, 8, 20, 11, tzinfo=UTC)
SUMMER = profile(*[(d, 20 - 12 / (1 + np.exp(-(d - 6) / 0.6))) for d in range(13)])
DEPTHS = np.arange(0, 12.01, 0.5)


class Saturation(unittest.TestCase):
    def test_check_values_at_sea_level(self):
        # Benson & Krause 1984 (USGS TM 2011.03) by pylake 0.1.13; gsw's Garcia & Gordon agrees within 0.002 mg/L.
        for entry in checks.of("02_oxygen", "fresh water, 1 atm"):
            found = float(oxygen_saturation_mg_l(entry["inputs"]["T_C"]))
            self.assertAlmostEqual(found, entry["expected"], delta=0.005, msg=entry["id"])

    def test_check_values_at_altitude(self):
        for entry in checks.of("02_oxygen", "at altitude"):
            i = entry["inputs"]
            pressure = standard_pressure_hpa(i["altitude_m"])
            self.assertAlmostEqual(pressure, i["pressure_hPa"], delta=0.5, msg=entry["id"])
            found = float(oxygen_saturation_mg_l(i["T_C"], pressure))
            self.assertAlmostEqual(found, entry["expected"], delta=0.02, msg=entry["id"])

    def test_against_a_reference_library_over_the_range(self):
        # pylake 0.1.13 oxygen_solubility, the same paper coded by others.
        for t in range(0, 31, 3):
            theirs = float(pylake.oxygen_solubility(t))
            self.assertAlmostEqual(float(oxygen_saturation_mg_l(t)), theirs, delta=0.05)

    @given(st.floats(0, 39), st.floats(0.01, 1), st.floats(600, 1050))
    def test_colder_water_and_thicker_air_hold_more(self, t, warmer, pressure):
        self.assertGreater(oxygen_saturation_mg_l(t, pressure), oxygen_saturation_mg_l(t + warmer, pressure))
        self.assertGreater(oxygen_saturation_mg_l(t, pressure + 5), oxygen_saturation_mg_l(t, pressure))

    def test_impossible_air(self):
        for wrong in (0, 499, 1101, 30.0):
            with self.assertRaises(ValueError):
                oxygen_saturation_mg_l(10, wrong)
        with self.assertRaises(ValueError):
            standard_pressure_hpa(20_000)


class Pressure(unittest.TestCase):
    def test_what_was_read_at_the_water_goes_first(self):
        self.assertEqual(station_pressure_hpa(1500, 850.0, 1020.0), (850.0, "measured"))

    def test_sea_level_pressure_is_brought_up_to_the_water(self):
        # US Standard Atmosphere 1976: 845.6 hPa at 1500 m with 1013.25 at sea level (checks 02_oxygen-o10).
        found, source = station_pressure_hpa(1500, None, 1013.25)
        self.assertAlmostEqual(found, 845.597, delta=0.1)
        self.assertEqual(source, "sea level")
        self.assertEqual(station_pressure_hpa(1500, None, None)[1], "elevation")

    def test_without_anything_it_says_guess(self):
        self.assertEqual(station_pressure_hpa(None, None, None), (1013.25, "guess"))
        self.assertEqual(station_pressure_hpa(None, None, 1000.0), (1000.0, "guess"))


class Curve(unittest.TestCase):
    def curve(self, points, when=AUGUST, **kwargs):
        return oxygen_curve(
            points=points, layers=read_layers(points), depths_m=DEPTHS, when=when, hemisphere="north", **kwargs
        )

    def test_nothing_without_temperatures(self):
        self.assertIsNone(self.curve(()))

    def test_above_the_thermocline_water_is_in_touch_with_the_air(self):
        curve = self.curve(SUMMER)
        self.assertEqual(curve.source[0], "saturation")
        self.assertAlmostEqual(curve.mg_l[0], float(oxygen_saturation_mg_l(20)), delta=0.05)

    def test_below_it_is_a_guess_with_a_wide_band(self):
        curve = self.curve(SUMMER)
        self.assertEqual(curve.source[-1], "guess")
        self.assertGreater(curve.high_mg_l[-1] - curve.low_mg_l[-1], 4)

    def test_fertile_water_runs_lower_than_poor(self):
        rich, poor = (self.curve(SUMMER, productivity=p).mg_l[-1] for p in ("high", "low"))
        self.assertLess(rich, 4)  # trade: rich lowland waters lose their depths in August, below what trout stay in
        self.assertGreater(poor, 6)

    def test_spring_depths_are_still_fresh(self):
        april = self.curve(SUMMER, datetime(2026, 4, 10, 12, tzinfo=UTC), productivity="high")
        self.assertGreater(april.mg_l[-1], 10)

    def test_measured_values_stand_as_they_were_read(self):
        points = tuple(Point(p.depth_m, p.temperature_c, 9.0 - 0.6 * p.depth_m) for p in SUMMER)
        curve = self.curve(points)
        np.testing.assert_allclose(curve.mg_l, 9.0 - 0.6 * DEPTHS, atol=1e-9)
        self.assertEqual(set(curve.source), {"measured"})
        np.testing.assert_allclose(curve.low_mg_l, curve.mg_l)

    def test_beyond_the_measured_depths_it_says_guess(self):
        points = tuple(Point(p.depth_m, p.temperature_c, 8.0 if p.depth_m <= 4 else None) for p in SUMMER)
        curve = self.curve(points)
        self.assertEqual((curve.source[0], curve.source[-1]), ("measured", "guess"))

    def test_the_band_holds_the_value(self):
        for points in (SUMMER, profile((0, 8), (5, 7.8), (12, 7.7))):
            curve = self.curve(points)
            self.assertTrue(np.all(curve.low_mg_l <= curve.mg_l + 1e-9))
            self.assertTrue(np.all(curve.high_mg_l >= curve.mg_l - 1e-9))

    def test_hemispheres_are_half_a_year_apart(self):
        for month in range(1, 13):
            here = datetime(2026, month, 10, tzinfo=UTC)
            there = datetime(2026, (month + 5) % 12 + 1, 10, tzinfo=UTC)
            self.assertAlmostEqual(season_run_down(here, "north"), season_run_down(there, "south"))
