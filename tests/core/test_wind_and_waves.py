import unittest

from hypothesis import given
from hypothesis import strategies as st

from stillthread.core.sky.waves import wave_on_fetch, wavelength_m, wind_set_up_m
from stillthread.core.sky.wind import (
    boat_level,
    compass_point,
    downwind_shore,
    drift_m_s,
    onto_shore,
    upwind_shore,
    wind_chill_c,
)
from stillthread.core.units import beaufort_from_knots, beaufort_from_m_s
from tests import checks


class Beaufort(unittest.TestCase):
    def test_check_values(self):
        # WMO Manual on Codes, table 1100 (from memory in the check).
        for entry in checks.of("05_wind", "Beaufort"):
            i = entry["inputs"]
            force = beaufort_from_m_s(i["U10_ms"]) if "U10_ms" in i else beaufort_from_knots(i["U10_kn"])
            self.assertEqual(force, entry["expected"], entry["id"])


class Waves(unittest.TestCase):
    def test_deep_water(self):
        # Shore Protection Manual 1984, as coded by others (from memory: no independent evidence).
        for entry in checks.of("05_wind", "fetch-limited deep-water"):
            i, e = entry["inputs"], entry["expected"]
            wave = wave_on_fetch(i["U10_ms"], i["fetch_m"])
            self.assertAlmostEqual(wave.height_m, e["H_m"], delta=0.05 * e["H_m"], msg=entry["id"])
            self.assertAlmostEqual(wave.period_s, e["Tp_s"], delta=0.05 * e["Tp_s"], msg=entry["id"])
            self.assertAlmostEqual(wave.needs_s, e["t_min_s"], delta=0.08 * e["t_min_s"], msg=entry["id"])

    def test_even_depth(self):
        for entry in checks.of("05_wind", "water of constant depth"):
            i, e = entry["inputs"], entry["expected"]
            wave = wave_on_fetch(i["U10_ms"], i["fetch_m"], i["depth_m"])
            self.assertAlmostEqual(wave.height_m, e["H_m"], delta=0.05 * e["H_m"], msg=entry["id"])
            self.assertAlmostEqual(wave.period_s, e["Tp_s"], delta=0.05 * e["Tp_s"], msg=entry["id"])

    def test_shallow_waves_grow_into_deep_ones(self):
        # Analytic limit: over a deep bed the shallow formula gives the deep one, within its own fit.
        deep = wave_on_fetch(8, 1000)
        over_deep = wave_on_fetch(8, 1000, 60)
        self.assertAlmostEqual(over_deep.height_m, deep.height_m, delta=0.05 * deep.height_m)

    @given(st.floats(1, 20), st.floats(50, 20_000), st.floats(1.01, 2))
    def test_more_wind_and_more_fetch_make_bigger_waves(self, wind, fetch, more):
        wave = wave_on_fetch(wind, fetch)
        self.assertGreater(wave_on_fetch(wind * more, fetch).height_m, wave.height_m)
        # A light wind's sea is full grown before the fetch ends, so more fetch may add nothing.
        self.assertGreaterEqual(wave_on_fetch(wind, fetch * more).height_m, wave.height_m)

    def test_calm_is_flat(self):
        self.assertEqual(wave_on_fetch(0, 5000).height_m, 0)
        self.assertEqual(wave_on_fetch(6, 0).height_m, 0)
        for wrong in ((-1, 100, None), (5, -1, None), (5, 100, 0)):
            with self.assertRaises(ValueError):
                wave_on_fetch(*wrong)

    def test_wavelength(self):
        # Linear wave theory solved by scipy's brentq in the check.
        for entry in checks.of("05_wind", "wavelength"):
            i = entry["inputs"]
            found = wavelength_m(i["T_s"], i["depth_m"])
            self.assertAlmostEqual(found, entry["expected"], delta=0.001 * entry["expected"], msg=entry["id"])

    def test_set_up(self):
        for entry in checks.of("05_wind", "wind set-up"):
            i = entry["inputs"]
            found = wind_set_up_m(i["U10_ms"], i["fetch_m"], i["depth_m"])
            self.assertAlmostEqual(found, entry["expected"], delta=0.02 * entry["expected"], msg=entry["id"])
        with self.assertRaises(ValueError):
            wind_set_up_m(5, 100, 0)


class Drift(unittest.TestCase):
    def test_surface_water(self):
        # Wu 1975, the 2 to 3 % rule.
        for entry in checks.of("05_wind", "surface drift"):
            low, high = drift_m_s("surface", entry["inputs"]["U10_ms"])
            self.assertAlmostEqual(low, entry["expected"]["low"])
            self.assertAlmostEqual(high, entry["expected"]["high"])

    def test_a_drogue_slows_the_boat(self):
        # Trade: a drogue slows the drift; it cannot hold the boat against the water's own drift.
        self.assertLess(drift_m_s("drogue", 5)[1], drift_m_s("boat", 5)[1])
        self.assertGreaterEqual(drift_m_s("drogue", 5)[0], drift_m_s("surface", 5)[0])


class Chill(unittest.TestCase):
    def test_against_a_reference_library(self):
        # metpy 1.7.1 windchill (the two weather services' index of 2001).
        for entry in checks.of("05_wind", "wind chill"):
            i = entry["inputs"]
            found = wind_chill_c(i["T_C"], i["V10_kmh"] / 3.6)
            self.assertAlmostEqual(found, entry["expected"], delta=0.01, msg=entry["id"])

    def test_it_has_no_meaning_in_warm_air_or_calm(self):
        self.assertIsNone(wind_chill_c(15, 8))
        self.assertIsNone(wind_chill_c(2, 0.5))


class Shores(unittest.TestCase):
    def test_a_south_westerly_blows_onto_the_north_east(self):
        self.assertEqual((downwind_shore(225), upwind_shore(225)), ("NE", "SW"))

    @given(st.floats(0, 360, exclude_max=True))
    def test_the_two_shores_face_each_other(self, bearing):
        self.assertEqual(downwind_shore(bearing), upwind_shore(bearing + 180))
        self.assertAlmostEqual(onto_shore(bearing, bearing), 1)
        self.assertAlmostEqual(onto_shore(bearing, bearing + 180), -1)

    def test_points_are_centred(self):
        # An eighth of the compass is 45°, so each point takes 22.5° either side.
        self.assertEqual([compass_point(b) for b in (22.4, 22.6, 337.4, 337.6)], ["N", "NE", "NW", "N"])


class SmallBoats(unittest.TestCase):
    def test_trade_limits(self):
        # Trade: think again from a mean of 5.5 m/s, stay ashore from 8 m/s, less with gusts or long fetch.
        told = [boat_level(w, None) for w in (5.4, 5.5, 7.9, 8.0)]
        self.assertEqual(told, ["ok", "caution", "caution", "stop"])
        self.assertEqual(boat_level(4.0, 12.0), "stop")
        self.assertEqual(boat_level(5.0, None, 0.35), "caution")
        self.assertEqual(boat_level(None, None), "ok")
