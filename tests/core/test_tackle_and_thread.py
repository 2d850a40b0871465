import unittest

from hypothesis import given
from hypothesis import strategies as st

from stillthread.core.tackle.landing import landing_limit_m
from stillthread.core.tackle.leaders import (
    casting_leader,
    float_leader,
    sinking_leader,
    team_leader,
    tippet_diameter_mm,
    tippet_for,
)
from stillthread.core.tackle.lines import Line
from stillthread.core.thread.shortcut import (
    NotComputedError,
    count_to_depth_s,
    float_depth,
    fly_depth,
    sink_table,
    sinking_depth_m,
)
from stillthread.core.units import feet_to_m, inches_per_second_to_m_s, m_to_feet
from tests.days import FLOATING, INTERMEDIATE, TIP, TYPE_3

ft = feet_to_m


class Leaders(unittest.TestCase):
    """Lengths from worked examples of the trade (common practice); feet are authoritative."""

    def test_casting_leader_twelve_and_fifteen_feet(self):
        self.assertAlmostEqual(m_to_feet(casting_leader(3, False).length_m), 12)
        hard = casting_leader(4, True)
        self.assertAlmostEqual(m_to_feet(hard.length_m), 15)
        self.assertEqual([s.x_size for s in hard.sections[1:]], [3, 4])

    def test_eight_six_six(self):
        leader = team_leader(3, 3, ft(8), ft(6))
        self.assertEqual([round(m_to_feet(s.length_m), 6) for s in leader.sections], [8, 6, 6])
        self.assertEqual([round(m_to_feet(at), 6) for at in leader.flies_at_m], [8, 14, 20])

    def test_fourteen_feet_under_a_float_with_two_droppers_evenly(self):
        leader = float_leader(3, ft(14), 3)
        below = [m_to_feet(s.length_m) for s in leader.sections[1:]]
        for length in below:
            self.assertAlmostEqual(length, 14 / 3)
        self.assertAlmostEqual(leader.length_m - leader.sections[0].length_m, ft(14))

    def test_sinking_leader_seven_feet_for_one_fly(self):
        self.assertAlmostEqual(m_to_feet(sinking_leader(3, 1).length_m), 7)
        self.assertLessEqual(sinking_leader(3, 2).length_m, 5.5)

    def test_tippet_sizes(self):
        # X = 11 - thousandths of an inch; 3X = 0.008 in = 0.203 mm.
        self.assertAlmostEqual(tippet_diameter_mm(3), 0.203, places=3)
        with self.assertRaises(ValueError):
            tippet_diameter_mm(9)

    def test_finer_in_clear_bright_water_stouter_in_colour(self):
        self.assertGreater(tippet_for("gin-clear", True, False), tippet_for("coloured", True, False))

    def test_refused(self):
        for make in (lambda: team_leader(3, 0, 1, 1), lambda: float_leader(3, 0, 1)):
            with self.assertRaises(ValueError):
                make()


class Landing(unittest.TestCase):
    def test_nine_foot_rod(self):
        # Trade facts: 20 ft below a fixed float cannot be landed; 14 ft is just possible with a long net.
        long_net = landing_limit_m(ft(9), ft(3.5))
        self.assertLess(long_net, ft(20))
        self.assertGreaterEqual(long_net, ft(14))
        self.assertLess(landing_limit_m(ft(9), ft(1.5)), ft(14))

    def test_no_negative_lengths(self):
        with self.assertRaises(ValueError):
            landing_limit_m(-1, 0.5)


class Shortcut(unittest.TestCase):
    """The rule: depth = max(0, 0.97 w t - 0.75 L, 0.035 t), by hand."""

    def test_by_hand(self):
        w = 3 * 0.0254
        self.assertAlmostEqual(sinking_depth_m(w, 60, 3.0), 0.97 * 0.0762 * 60 - 2.25)
        # Early on the fly falls alone: 0.035 x 20 = 0.7 m against 0.97 x 0.0762 x 20 - 2.25 < 0.
        self.assertAlmostEqual(sinking_depth_m(w, 20, 3.0), 0.7)
        self.assertEqual(sinking_depth_m(w, 0, 3.0), 0)

    def test_three_inches_a_second_for_twenty_seconds_is_five_feet(self):
        # Trade check for line alone (no leader); the rule allows 3 % for the line's slope.
        depth = sinking_depth_m(inches_per_second_to_m_s(3), 20, 0)
        self.assertAlmostEqual(m_to_feet(depth), 5, delta=0.16)

    def test_never_deeper_than_line_and_fly_together_or_the_bed(self):
        for t in (1, 5, 30, 120):
            w = TYPE_3.rate_m_s
            self.assertLessEqual(sinking_depth_m(w, t, 0), w * t + 0.035 * t + 1e-12)
        at = fly_depth(TYPE_3, 2.0, 300, bed_m=4.0)
        self.assertEqual((at.depth_m, at.high_m, at.touching), (4.0, 4.0, True))

    def test_long_leader_lags(self):
        self.assertLess(fly_depth(TYPE_3, 5.0, 60).depth_m, fly_depth(TYPE_3, 2.0, 60).depth_m)

    def test_floating_and_tip_lines_stop_at_leader_and_tip(self):
        self.assertEqual(fly_depth(FLOATING, 3.6, 600).depth_m, 3.6)
        at = fly_depth(TIP, 3.0, 600)
        self.assertIsNone(at.depth_m)
        self.assertAlmostEqual(at.high_m, 3.0 + 1.8)

    def test_weighted_and_buoyant_flies_are_not_computed(self):
        for weight in ("weighted", "buoyant"):
            for line in (TYPE_3, FLOATING, INTERMEDIATE):
                with self.assertRaises(NotComputedError) as caught:
                    fly_depth(line, 3.0, 10, weight=weight)
                self.assertIn("not computed yet", str(caught.exception))

    def test_float_hangs_straight_down(self):
        at = float_depth(2.4)
        self.assertEqual((at.depth_m, at.low_m, at.high_m), (2.4, 2.4, 2.4))

    @given(st.floats(0.5, 8), st.floats(0.5, 6), st.floats(0.2, 8), st.sampled_from(["intermediate", "sinking"]))
    def test_count_is_the_inverse_of_depth(self, rate, leader, depth, family):
        line = Line("x", family, rate)
        count = count_to_depth_s(line, leader, depth)
        self.assertAlmostEqual(fly_depth(line, leader, count).depth_m, depth, places=6)
        deeper = count_to_depth_s(line, leader, depth + 0.5)
        self.assertGreater(deeper, count)

    @given(st.floats(0.5, 8), st.floats(0.5, 6))
    def test_the_table_only_goes_down_and_the_band_holds_the_estimate(self, rate, leader):
        rows = sink_table(Line("x", "sinking", rate), leader, 90)
        depths = [row.depth_m for row in rows]
        self.assertEqual(depths, sorted(depths))
        for row in rows:
            self.assertLessEqual(row.low_m, row.depth_m)
            self.assertLessEqual(row.depth_m, row.high_m)

    def test_out_of_reach(self):
        self.assertIsNone(count_to_depth_s(FLOATING, 3.0, 3.5))
        self.assertIsNone(count_to_depth_s(TIP, 3.0, 1.0))
        with self.assertRaises(ValueError):
            sinking_depth_m(0.05, -1, 2)
