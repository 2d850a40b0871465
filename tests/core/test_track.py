"""A boat's drift from its track: steady ones by hand, rowing back left out, a receiver's unrest not taken for speed."""

import unittest
from datetime import UTC, datetime, timedelta

import numpy as np
from pyproj import Geod

from stillthread.core.chart.track import Fix, drift_over, thinned

BEGAN = datetime(2026, 5, 14, 9, tzinfo=UTC)
EARTH = Geod(ellps="WGS84")


def walk(legs, every_s=10.0, unrest_m=0.0, seed=1):
    """Fixes along legs of (bearing, speed, minutes)."""
    rng = np.random.default_rng(seed)
    lon, lat, at, found = -3.1, 54.5, 0.0, []
    for bearing, speed, minutes in legs:
        for _ in range(int(minutes * 60 / every_s)):
            off_lon, off_lat, _ = EARTH.fwd(lon, lat, rng.uniform(0, 360), abs(rng.normal(0, unrest_m)) + 1e-9)
            found.append(Fix(BEGAN + timedelta(seconds=at), (off_lon, off_lat)))
            lon, lat, _ = EARTH.fwd(lon, lat, bearing, speed * every_s)
            at += every_s
    return found


def whole(fixes):
    return drift_over(fixes, fixes[0].when, fixes[-1].when)


class Drifts(unittest.TestCase):
    def test_a_steady_drift(self):
        told = whole(walk([(45, 0.25, 30)]))
        self.assertAlmostEqual(told.speed_m_s, 0.25, places=3)
        self.assertAlmostEqual(told.towards_deg, 45, delta=0.5)
        self.assertAlmostEqual(told.metres, 0.25 * told.seconds, delta=1)

    def test_rowed_back_and_drifted_again(self):
        told = whole(walk([(90, 0.3, 20), (270, 1.5, 4), (90, 0.3, 20)]))
        self.assertAlmostEqual(told.speed_m_s, 0.3, delta=0.02)
        self.assertAlmostEqual(told.towards_deg, 90, delta=2)

    def test_a_receivers_unrest_at_anchor_has_no_way(self):
        told = whole(walk([(0, 0.0, 40)], unrest_m=0.4))
        self.assertLess(told.speed_m_s, 0.05)

    def test_unrest_hardly_moves_a_drift(self):
        told = whole(walk([(180, 0.25, 60)], unrest_m=1.0))
        self.assertAlmostEqual(told.speed_m_s, 0.25, delta=0.05)
        self.assertAlmostEqual(told.towards_deg, 180, delta=5)

    def test_a_stretch_alone_and_one_that_was_not_recorded(self):
        fixes = walk([(0, 0.2, 20), (90, 0.4, 20)])
        turn = BEGAN + timedelta(minutes=20)
        self.assertAlmostEqual(drift_over(fixes, BEGAN, turn).speed_m_s, 0.2, delta=0.01)
        self.assertAlmostEqual(drift_over(fixes, turn, turn + timedelta(minutes=20)).speed_m_s, 0.4, delta=0.01)
        self.assertIsNone(drift_over(fixes, turn + timedelta(hours=2), turn + timedelta(hours=3)))
        self.assertIsNone(drift_over(fixes[:2], BEGAN, turn))

    def test_a_gap_and_a_doubled_fix_are_no_drift(self):
        fixes = walk([(0, 0.2, 10)])
        later = [Fix(fix.when + timedelta(hours=1), fix.position) for fix in fixes]
        told = whole([*fixes, *fixes, *later])
        self.assertAlmostEqual(told.speed_m_s, 0.2, delta=0.01)
        self.assertLess(told.seconds, 1300)
        self.assertEqual(len(thinned([*fixes, *fixes], 10)), len(fixes))
