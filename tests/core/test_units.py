import doctest
import unittest

from stillthread.core import units
from stillthread.core.sky import wind
from stillthread.core.tackle import leaders
from stillthread.core.thread import fluid
from tests import checks


def load_tests(loader, tests, ignore):
    """Examples in docstrings run as tests."""
    for module in (units, leaders, fluid, wind):
        tests.addTests(doctest.DocTestSuite(module))
    return tests


class Conversions(unittest.TestCase):
    def test_exact_by_definition(self):
        # International foot 0.3048 m, knot 1852 m/h, mile 1609.344 m: exact definitions.
        self.assertEqual(units.feet_to_m(1), 0.3048)
        self.assertAlmostEqual(units.KNOT_M_S * 3600, 1852)
        self.assertAlmostEqual(units.MPH_M_S * 3600, 1609.344)
        self.assertAlmostEqual(units.fahrenheit_to_c(-40), -40)

    def test_there_and_back(self):
        for value in (-5.0, 0.0, 3.7, 18.0):
            self.assertAlmostEqual(units.fahrenheit_to_c(units.c_to_fahrenheit(value)), value)
            self.assertAlmostEqual(units.feet_to_m(units.m_to_feet(value)), value)

    def test_beaufort_table(self):
        # WMO Manual on Codes, table 1100 (from memory).
        for entry in checks.of("05_wind", "Beaufort"):
            inputs = entry["inputs"]
            knots = inputs.get("U10_kn")
            force = units.beaufort_from_m_s(inputs["U10_ms"]) if knots is None else units.beaufort_from_knots(knots)
            self.assertEqual(force, entry["expected"], entry["id"])

    def test_a_force_stands_for_a_wind_of_that_force(self):
        for force in range(13):
            self.assertEqual(units.beaufort_from_m_s(units.beaufort_to_m_s(force)), force)

    def test_refuses_what_is_no_wind(self):
        for bad in (-1.0, float("nan")):
            with self.assertRaises(ValueError):
                units.beaufort_from_m_s(bad)
        with self.assertRaises(ValueError):
            units.beaufort_to_m_s(13)


class Wind(unittest.TestCase):
    def test_shores(self):
        # A south-west wind blows onto the north-east shore.
        self.assertEqual(wind.downwind_shore(225), "NE")
        self.assertEqual(wind.upwind_shore(225), "SW")
        self.assertEqual(wind.compass_point(359), "N")

    def test_onto_a_shore_that_looks_into_the_wind(self):
        self.assertAlmostEqual(wind.onto_shore(270, 270), 1)
        self.assertAlmostEqual(wind.onto_shore(270, 90), -1)
        self.assertAlmostEqual(wind.onto_shore(0, 90), 0)
