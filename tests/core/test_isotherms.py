"""Isotherms: against interpolation by numpy, and where they break."""

import unittest

import numpy as np

from stillthread.core.water.isotherms import depth_of, isotherms
from stillthread.core.water.profile import Point


def profile(*pairs):
    return tuple(Point(depth_m=d, temperature_c=t) for d, t in pairs)


class Isotherms(unittest.TestCase):
    def test_the_depth_of_a_temperature_in_a_straight_profile(self):
        told = profile((0, 18.0), (2, 16.0), (4, 14.0), (8, 10.0))
        for degrees in (17.0, 14.0, 11.5):
            expected = float(np.interp(-degrees, [-18, -16, -14, -10], [0, 2, 4, 8]))
            self.assertAlmostEqual(depth_of(told, degrees), expected, delta=0.06)
        self.assertIsNone(depth_of(told, 19.0))
        self.assertIsNone(depth_of(told, 9.0))

    def test_the_shallowest_of_two_crossings(self):
        self.assertLess(depth_of(profile((0, 4.0), (2, 8.0), (6, 5.0)), 6.0), 2.0)

    def test_lines_deepen_as_the_water_warms_and_break_where_nobody_read(self):
        season = [
            (100.0, profile((0, 12), (8, 8))),
            (130.0, profile((0, 16), (8, 9))),
            (160.0, profile((0, 20), (8, 9))),
        ]
        season.append((260.0, profile((0, 14), (8, 10))))
        lines = {one.temperature_c: one.runs for one in isotherms(season)}
        ten = lines[10.0]
        self.assertEqual([day for day, _ in ten[0]], [100.0, 130.0, 160.0])
        depths = [depth for _, depth in ten[0]]
        self.assertEqual(depths, sorted(depths))
        self.assertEqual(len(ten), 1)  # one reading alone after the gap is no line
        self.assertNotIn(20.0, lines)

    def test_nothing_read(self):
        self.assertEqual(isotherms([]), [])
        self.assertEqual(isotherms([(5.0, profile((0, 8.0)))]), [])
