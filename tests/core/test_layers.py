import math
import unittest

import numpy as np
import pylake
from hypothesis import given
from hypothesis import strategies as st

from stillthread.core.errors import InputError
from stillthread.core.water.layers import buoyancy_frequency_squared, find_thermocline, read_layers, steepest_depth_m
from stillthread.core.water.profile import Point
from stillthread.core.water.stability import (
    Contour,
    centre_of_volume_m,
    checked_hypsography,
    friction_velocity_m_s,
    lake_number,
    read_stability,
    schmidt_from_density,
    schmidt_stability_j_m2,
    seiche_period_s,
    volume_m3,
    wedderburn_number,
)
from tests import checks
from tests.days import profile


def points_of(entry):
    return profile(*zip(entry["inputs"]["depth_m"], entry["inputs"]["temp_C"], strict=True))


def table_of(inputs):
    rows = zip(inputs["contour_depth_m"], inputs["contour_area_m2"], strict=True)
    return tuple(Contour(d, a) for d, a in rows)


class Thermoclines(unittest.TestCase):
    def test_steepest_depth_against_a_reference_library(self):
        # pylake 0.1.13 thermocline(s=0), after Read et al. 2011; it uses another density formula.
        for entry in checks.of("03_strat", "thermocline depth: largest density gradient"):
            found, expected = steepest_depth_m(points_of(entry)), entry["expected"]
            with self.subTest(entry["id"]):
                if expected is None:
                    self.assertIsNone(found)
                else:
                    self.assertAlmostEqual(found, expected, delta=entry["tolerance"]["abs"])
                    low, high = entry["tolerance"]["must_lie_in"]
                    self.assertTrue(low <= found <= high)

    def test_seasonal_thermocline_against_a_reference_library(self):
        # pylake 0.1.13 seasonal_thermocline(s=0).
        for entry in checks.of("03_strat", "seasonal"):
            with self.subTest(entry["id"]):
                layers = read_layers(points_of(entry))
                self.assertAlmostEqual(layers.main.depth_m, entry["expected"], delta=entry["tolerance"]["abs"])

    def test_library_and_we_agree_on_a_sharpened_summer(self):
        # The same definition run afresh: a logistic profile every metre, seasonal thermocline within a sample.
        z = np.arange(0, 21.0)
        for middle in (4.3, 7.8, 11.1):
            t = 7 + 13 / (1 + np.exp((z - middle) / 0.8))
            theirs = float(np.asarray(pylake.seasonal_thermocline(t, depth=z, s=0)[0]).item())
            ours = find_thermocline(profile(*zip(z, t, strict=True))).depth_m
            self.assertAlmostEqual(ours, theirs, delta=0.3)

    def test_metalimnion(self):
        # Read et al. 2011: where the gradient falls below 0.1 kg/m³/m.
        entry = checks.of("03_strat", "metalimnion")[0]
        main = read_layers(points_of(entry)).main
        self.assertAlmostEqual(main.top_m, entry["expected"]["top"], delta=0.05)
        self.assertAlmostEqual(main.bottom_m, entry["expected"]["bottom"], delta=0.05)

    def test_skin_and_season_are_told_apart(self):
        entry = checks.VALUES["03_strat-o06"]
        layers = read_layers(points_of(entry))
        self.assertEqual((layers.state, layers.main.kind, layers.skin.kind), ("layered", "seasonal", "skin"))
        self.assertLess(layers.skin.depth_m, 2)
        self.assertIn("warm skin", layers.sentence)

    def test_a_skin_alone_is_no_thermocline(self):
        # A calm warm spring afternoon: 3 °C in the top metre over mixed water.
        layers = read_layers(profile((0, 15), (1, 12.2), (2, 12), (4, 11.9), (8, 11.8)))
        self.assertEqual((layers.state, layers.main), ("skin", None))
        self.assertIn("No seasonal thermocline", layers.sentence)

    def test_states(self):
        cases = {
            "unknown": profile((0, 20), (8, 8)),
            "mixed": profile((0, 11.2), (4, 11.0), (8, 10.8)),
            "weak": profile((0, 7.5), (2, 7.4), (4, 6.6), (6, 5.8), (8, 5.7)),
            "inverse": profile((0, 0.5), (2, 3), (5, 3.9)),
        }
        for state, points in cases.items():
            with self.subTest(state):
                layers = read_layers(points)
                self.assertEqual(layers.state, state)
                self.assertIsNone(find_thermocline(points))

    def test_buoyancy_frequency(self):
        # Own coding with the Chen & Millero density in the check; 3 % or 5e-6.
        for entry in checks.of("03_strat", "buoyancy frequency"):
            found = buoyancy_frequency_squared(points_of(entry))
            for ours, theirs in zip(found, entry["expected"], strict=True):
                self.assertLessEqual(abs(ours - theirs), max(0.03 * abs(theirs), 5e-6), entry["id"])

    @given(st.floats(0.2, 3), st.floats(3, 12), st.floats(5, 12), st.floats(6, 12))
    def test_a_sharper_drop_moves_the_thermocline_with_it(self, width, middle, cold, range_c):
        """Mirror of the truth: the thermocline of a logistic profile lies at its middle."""
        z = np.arange(0, 18.1, 0.5)
        t = cold + range_c / (1 + np.exp((z - middle) / width))
        found = find_thermocline(profile(*zip(z, t, strict=True)))
        if found is not None:
            # Warm water changes its density faster, so the steepest density lies above the steepest temperature.
            self.assertLess(abs(found.depth_m - middle), 0.3 + 1.2 * width)
            self.assertLessEqual(found.top_m, found.depth_m + 0.5)
            self.assertGreaterEqual(found.bottom_m, found.depth_m - 0.5)


class Stability(unittest.TestCase):
    def test_schmidt_stability(self):
        # Numerical integral after Idso 1973; pylake's finest grid agrees within 0.02 %.
        for entry in checks.of("03_strat", "Schmidt stability (g=9.81"):
            found = schmidt_stability_j_m2(points_of(entry), table_of(entry["inputs"]))
            allowed = max(0.02 * abs(entry["expected"]), 0.1)
            self.assertAlmostEqual(found, entry["expected"], delta=allowed, msg=entry["id"])

    def test_two_layers_in_a_box(self):
        # Closed form: g Δρ h1 h2 / 2.
        for entry in checks.of("03_strat", "Schmidt stability of a box"):
            i = entry["inputs"]
            deep = i["h1_m"] + i["h2_m"]
            box = (Contour(0, 1e5), Contour(deep, 1e5))
            z = np.array([0, i["h1_m"] - 1e-4, i["h1_m"] + 1e-4, deep])
            rho = np.array([i["rho1"], i["rho1"], i["rho2"], i["rho2"]])
            self.assertAlmostEqual(schmidt_from_density(z, rho, box), entry["expected"], delta=0.02 * entry["expected"])

    def test_mixed_water_needs_no_work(self):
        # Conservation: uniform density has no stability whatever the basin.
        table = (Contour(0, 5e5), Contour(4, 3e5), Contour(11, 0))
        self.assertAlmostEqual(schmidt_stability_j_m2(profile((0, 9), (11, 9)), table), 0, places=6)

    @given(st.floats(0.5, 4))
    def test_stability_does_not_depend_on_the_size_of_the_map(self, scale):
        """Per square metre of surface: every area scaled alike leaves it as it was."""
        points = profile((0, 19), (5, 17), (8, 9), (12, 8))
        table = (Contour(0, 4e5), Contour(6, 2e5), Contour(12, 0))
        bigger = tuple(Contour(c.depth_m, c.area_m2 * scale) for c in table)
        self.assertAlmostEqual(schmidt_stability_j_m2(points, table), schmidt_stability_j_m2(points, bigger), places=6)

    def test_wedderburn_and_lake_number(self):
        # Imberger & Patterson 1990, by pylake 0.1.13 and own coding.
        for entry in checks.of("03_strat", "Wedderburn"):
            i = entry["inputs"]
            found = wedderburn_number(
                density_step_kg_m3=i["delta_rho"],
                upper_m=i["h1_m"],
                friction_m_s=i["u_star_water"],
                lower_density_kg_m3=i["rho_hypo"],
                length_m=i["length_m"],
            )
            self.assertAlmostEqual(found, entry["expected"], delta=0.01 * entry["expected"], msg=entry["id"])
        for entry in checks.of("03_strat", "Lake Number"):
            i = entry["inputs"]
            found = lake_number(
                schmidt_j_m2=i["St"],
                top_m=i["meta_top"],
                bottom_m=i["meta_bottom"],
                friction_m_s=i["u_star_water"],
                lower_density_kg_m3=i["rho_hypo"],
                table=table_of(i),
            )
            self.assertAlmostEqual(found, entry["expected"], delta=0.02 * entry["expected"], msg=entry["id"])

    def test_seiche_period(self):
        # Merian's closed form.
        for entry in checks.of("03_strat", "internal seiche"):
            i = entry["inputs"]
            found = (
                seiche_period_s(
                    length_m=i["length_m"],
                    upper_m=i["h1_m"],
                    lower_m=i["h2_m"],
                    density_step_kg_m3=i["delta_rho"],
                    lower_density_kg_m3=i["rho_hypo"],
                )
                / 3600
            )
            self.assertAlmostEqual(found, entry["expected"], delta=0.01 * entry["expected"], msg=entry["id"])

    def test_volume_of_a_cone(self):
        # A cone's area falls with the square of depth; contours every 0.1 m give its third: V = A h / 3, centre at h / 4.
        table = tuple(Contour(d, 1e6 * (1 - d / 12) ** 2) for d in np.linspace(0, 12, 121))
        self.assertAlmostEqual(volume_m3(table), 1e6 * 12 / 3, delta=2e3)
        self.assertAlmostEqual(centre_of_volume_m(table), 3.0, delta=0.01)

    def test_wind_drags_the_water_with_the_stress_of_the_air(self):
        # Continuity of stress: ρ_air C_d U² = ρ_water u*².
        found = friction_velocity_m_s(8.0, 1000.0)
        self.assertAlmostEqual(1000 * found**2, 1.225 * 1.3e-3 * 64, places=9)

    def test_more_wind_tilts_more(self):
        points = points_of(checks.VALUES["03_strat-o01"])
        layers = read_layers(points)
        tilts = [
            read_stability(points=points, layers=layers, bed_m=20, wind_m_s=w, length_m=2000).tilt_m
            for w in (2, 4, 8, 16)
        ]
        self.assertEqual(tilts, sorted(tilts))
        strong = read_stability(points=points, layers=layers, bed_m=20, wind_m_s=25, length_m=5000)
        self.assertLess(strong.wedderburn, 1)
        self.assertIn("upwind shore", strong.sentence)
        self.assertLessEqual(strong.tilt_m, layers.main.depth_m)

    def test_missing_inputs_are_named_not_invented(self):
        points = points_of(checks.VALUES["03_strat-o01"])
        layers = read_layers(points)
        bare = read_stability(points=points, layers=layers, bed_m=20, wind_m_s=6.0, length_m=None)
        self.assertEqual((bare.schmidt_j_m2, bare.wedderburn, bare.tilt_m), (None, None, None))
        guess = read_stability(
            points=points,
            layers=layers,
            bed_m=20,
            wind_m_s=6.0,
            length_m=None,
            table=(Contour(0, math.pi * 1e6), Contour(20, 0)),
        )
        self.assertAlmostEqual(guess.length_m, 2000)  # a circle of π km² is 2 km across
        self.assertIn("length of the lake along the wind", guess.guessed)


class Hypsography(unittest.TestCase):
    def test_every_bad_row_is_named(self):
        table = (Contour(0, 1e5), Contour(4, 2e5), Contour(3, 1e4), Contour(30, 1e3))
        with self.assertRaises(InputError) as caught:
            checked_hypsography(table, 12)
        told = {(p.code, p.path) for p in caught.exception.problems}
        self.assertEqual(
            told,
            {
                ("area_grows", "hypsography[1].area_m2"),
                ("unsorted_depth", "hypsography[2].depth_m"),
                ("below_bed", "hypsography[3].depth_m"),
            },
        )

    def test_first_row_is_the_surface(self):
        for table in ((Contour(1, 1e5), Contour(4, 1e3)), (Contour(0, 0), Contour(4, 0)), (Contour(0, 1e5),)):
            with self.assertRaises(InputError):
                checked_hypsography(table)
        good = (Contour(0, 1e5), Contour(9, 0))
        self.assertEqual(checked_hypsography(good, 9), good)

    def test_nan_is_refused(self):
        with self.assertRaises(InputError):
            checked_hypsography((Contour(0, 1e5), Contour(float("nan"), 0)))


class Samples(unittest.TestCase):
    def test_one_point_says_nothing(self):
        self.assertEqual(read_layers((Point(0, 12),)).state, "unknown")
