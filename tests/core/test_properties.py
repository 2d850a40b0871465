"""What must hold whatever the numbers: invariance, monotony, and chance with a known answer."""

import unittest

import numpy as np
from hypothesis import example, given
from hypothesis import strategies as st

from stillthread.core.evidence.rates import Stretch, by_depth, poisson_rate
from stillthread.core.sky.light import RIPPLE_COVER, read_light
from stillthread.core.tackle.leaders import float_leader, team_leader
from stillthread.core.trout.temperature import CONSUMPTION, WELFARE_LIMITS_C, appetite, preference, welfare
from stillthread.core.water.layers import find_thermocline
from stillthread.core.water.profile import Point, checked_profile, temperature_at


class Chance(unittest.TestCase):
    def coverage(self, rate, hours, confidence, draws=4000):
        """Share of fixed-seed Poisson samples whose interval holds the true rate."""
        rng = np.random.default_rng(20260514)
        counts = rng.poisson(rate * hours, draws)
        limits = {int(k): poisson_rate(int(k), hours, confidence) for k in set(counts)}
        return float(np.mean([limits[int(k)].low <= rate <= limits[int(k)].high for k in counts]))

    def test_the_exact_interval_covers_at_least_what_it_claims(self):
        # Garwood 1936 is conservative: coverage is never below 95 %. With 4000 draws the standard error at 95 % is
        # sqrt(0.95 * 0.05 / 4000) = 0.0034; three of them are allowed for.
        for rate in (0.1, 0.5, 2.0):
            self.assertGreaterEqual(self.coverage(rate, 6.0, 0.95), 0.95 - 0.0103)

    def test_a_narrower_interval_fails_the_same_check(self):
        # Negative control: an interval made for 60 % cannot cover 95 %.
        self.assertLess(self.coverage(2.0, 6.0, 0.60), 0.95 - 0.0103)

    @given(st.integers(0, 200), st.floats(0.25, 100))
    def test_more_effort_for_the_same_fish_is_a_lower_rate(self, count, hours):
        short, long = poisson_rate(count, hours), poisson_rate(count, hours * 2)
        self.assertLessEqual(long.high, short.high)
        self.assertLessEqual(short.low, short.per_hour)
        self.assertLessEqual(short.per_hour, short.high)

    @given(st.lists(st.tuples(st.floats(0, 12), st.floats(0, 5), st.integers(0, 4)), max_size=30), st.floats(0.3, 2))
    def test_nothing_is_lost_in_the_table(self, rows, step):
        bins = by_depth([Stretch(d, h, t, 0) for d, h, t in rows], step)
        self.assertAlmostEqual(sum(b.hours for b in bins), sum(h for _, h, _ in rows), places=6)
        self.assertEqual(sum(b.takes.count for b in bins), sum(t for _, _, t in rows))


class Leaders(unittest.TestCase):
    @given(st.floats(0.3, 7), st.integers(1, 3))
    def test_a_float_leader_hangs_its_point_where_it_was_asked_to(self, hang, flies):
        leader = float_leader(3, hang, flies)
        self.assertAlmostEqual(leader.length_m - leader.sections[0].length_m, hang)
        self.assertEqual(len(leader.flies_at_m), flies)
        self.assertEqual(sorted(leader.flies_at_m), list(leader.flies_at_m))

    @given(st.integers(1, 4), st.floats(0.5, 4), st.floats(0.5, 3))
    def test_flies_sit_at_the_ends_of_their_sections(self, flies, first, spacing):
        leader = team_leader(3, flies, first, spacing)
        ends = np.cumsum([s.length_m for s in leader.sections])
        np.testing.assert_allclose(ends, leader.flies_at_m)


class Fish(unittest.TestCase):
    @given(st.floats(-1, 35), st.sampled_from(sorted(CONSUMPTION)))
    def test_appetite_and_preference_are_shares(self, t, species):
        for value in (float(appetite(t, species)), float(preference(t, species))):
            self.assertTrue(0 <= value <= 1)

    @given(st.floats(0, 30), st.floats(0, 5))
    def test_warmer_water_is_never_kinder(self, t, more):
        order = ["ok", "tiring", "caution", "stop"]
        for species in WELFARE_LIMITS_C:
            cool, warm = welfare(t, (species,)), welfare(t + more, (species,))
            self.assertGreaterEqual(order.index(warm.level), order.index(cool.level))

    @given(st.floats(0, 30))
    def test_a_second_species_never_makes_it_safer(self, t):
        order = ["ok", "tiring", "caution", "stop"]
        both = order.index(welfare(t, ("rainbow", "brook")).level)
        self.assertEqual(both, max(order.index(welfare(t, (s,)).level) for s in ("rainbow", "brook")))


class Water(unittest.TestCase):
    @given(st.floats(-20, 90), st.integers(0, 8), st.sampled_from(sorted(RIPPLE_COVER)), st.floats(0.2, 15))
    def test_light_is_a_share_and_fades(self, sun, cloud, ripple, secchi):
        light = read_light(sun_deg=sun, cloud_oktas=cloud, ripple=ripple, clarity=None, secchi_m=secchi)
        self.assertTrue(0 < light.surface <= 1)
        self.assertGreaterEqual(light.at(1), light.at(2))

    @given(
        st.lists(st.tuples(st.floats(0.2, 5), st.floats(-1, 30)), min_size=2, max_size=15),
        st.lists(st.floats(-1, 60), min_size=1, max_size=20),
    )
    def test_between_the_readings_the_curve_is_the_reference_librarys(self, steps, depths):
        # scipy's PCHIP interpolator, held beyond the first and last reading.
        from scipy.interpolate import PchipInterpolator

        z = np.cumsum([step for step, _ in steps])
        t = [temperature for _, temperature in steps]
        points = tuple(Point(float(a), b) for a, b in zip(z, t, strict=True))
        wanted = PchipInterpolator(z, t)(np.clip(depths, z[0], z[-1]))
        np.testing.assert_allclose(temperature_at(points, depths), wanted, rtol=1e-9, atol=1e-9)

    @example([5.0, 5.0, 13.5, 12.5, 19.0])
    @given(st.lists(st.floats(4.5, 28), min_size=3, max_size=15))
    def test_a_thermocline_lies_between_the_readings(self, temperatures):
        points = tuple(Point(float(i), t) for i, t in enumerate(temperatures))
        found = find_thermocline(points)
        if found is not None:
            self.assertTrue(0 <= found.top_m <= found.depth_m <= found.bottom_m <= len(points) - 1)

    @given(st.lists(st.tuples(st.floats(0, 20), st.floats(-1, 40)), min_size=1, max_size=12))
    def test_a_profile_is_accepted_only_when_it_goes_down(self, pairs):
        points = [Point(d, t) for d, t in pairs]
        depths = [d for d, _ in pairs]
        good = all(a < b for a, b in zip(depths, depths[1:], strict=False))
        try:
            checked_profile(points)
        except ValueError:
            self.assertFalse(good)
        else:
            self.assertTrue(good)
