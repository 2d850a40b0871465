import unittest
from dataclasses import replace

from stillthread.core.tackle.floats import check_float, farthest_float_cast_m
from stillthread.core.tackle.fly_build import FlyBuild, add_up, usual_build
from stillthread.core.tackle.landing import landing_limit_m
from stillthread.core.tackle.leader_cut import cut_lengths_m, leader_of_length
from stillthread.core.tackle.leaders import (
    casting_leader,
    float_leader,
    sinking_leader,
    team_leader,
    tippet_diameter_mm,
    tippet_for,
)
from stillthread.core.tackle.lines import Line
from stillthread.core.tackle.rig import Float, Piece, Rig, TiedFly, check_rig, load_g
from stillthread.core.thread.fly_sink import sink_speed_m_s, timed_speed_m_s
from stillthread.core.units import feet_to_m, m_to_feet

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


class CutLists(unittest.TestCase):
    """The trade's worked examples, exact in feet."""

    def feet(self, style, wanted, **other):
        leader = leader_of_length(style, ft(wanted), **other)
        self.assertAlmostEqual(leader.length_m, ft(wanted) + (ft(3) if style == "float" else 0))
        return [round(m_to_feet(s.length_m), 6) for s in leader.sections]

    def test_worked_examples(self):
        self.assertEqual(self.feet("tapered", 12), [9, 3])
        self.assertEqual(self.feet("tapered", 15, x_size=4), [9, 3, 3])
        self.assertEqual(self.feet("swivel", 15), [7, 6, 2])
        self.assertEqual(self.feet("short-butt", 10), [3, 7])
        self.assertEqual(self.feet("team", 20, flies=3), [8, 6, 6])
        self.assertEqual(self.feet("level", 7), [7])
        under = leader_of_length("float", ft(14), flies=3)
        self.assertAlmostEqual(under.length_m - under.sections[0].length_m, ft(14))

    def test_tippets_step_down_one_size_at_a_time(self):
        # Trade: 9 ft to 2X + 3 ft of 3X; in hard conditions + 3 ft of 4X.
        self.assertEqual([s.x_size for s in leader_of_length("tapered", ft(15), 4).sections], [None, 3, 4])
        self.assertIn("2X", leader_of_length("tapered", ft(15), 4).sections[0].part)

    def test_the_swivel_is_a_ruler(self):
        # Trade: exactly 2 ft from swivel to fly, laid off four times for 8 ft, whatever the leader's length.
        for wanted in (10, 12, 17):
            tip = leader_of_length("swivel", ft(wanted)).sections[-1].length_m
            self.assertAlmostEqual(4 * tip, ft(8))

    def test_knots_are_added_to_what_is_cut(self):
        leader = leader_of_length("team", ft(20), flies=3)
        for section, cut in zip(leader.sections, cut_lengths_m(leader), strict=True):
            self.assertAlmostEqual(cut, section.length_m + 0.10)

    def test_refused(self):
        for style, wanted, flies in (("team", 3.0, 0), ("plaited", 3.0, 1), ("level", 0.0, 1), ("level", 40.0, 1)):
            with self.assertRaises(ValueError):
                leader_of_length(style, wanted, 3, flies)


class Builds(unittest.TestCase):
    def test_parts_by_hand(self):
        # A 3 mm tungsten bead with a fifth drilled out: 11.31 mm³ x 16.8 mg/mm³ over water = 0.190 g.
        parts = dict(add_up(FlyBuild(hook=10, bead="tungsten", bead_mm=3.0)).parts)
        self.assertAlmostEqual(parts["tungsten bead 3 mm"], 0.190, delta=0.002)
        # Foam of 100 mm³ at 0.2 g/cm³ lifts 0.08 g.
        self.assertAlmostEqual(dict(add_up(FlyBuild(hook=10, foam_mm3=100)).parts)["foam 100 mm³"], -0.08)

    def test_heavier_sinks_quicker_bulkier_slower_foam_floats(self):
        plain, bead = sink_speed_m_s(FlyBuild(hook=10)), sink_speed_m_s(FlyBuild(hook=10, bead="brass", bead_mm=3))
        self.assertLess(plain, bead)
        self.assertLess(bead, sink_speed_m_s(FlyBuild(hook=10, bead="tungsten", bead_mm=3)))
        self.assertLess(sink_speed_m_s(FlyBuild(hook=10, bulk="bulky")), plain)
        self.assertGreater(sink_speed_m_s(FlyBuild(hook=10, turns=12)), plain)
        self.assertLess(sink_speed_m_s(FlyBuild(hook=10, foam_mm3=150)), 0)

    def test_usual_builds_do_what_their_class_says(self):
        for hook in (8, 10, 12, 14):
            speeds = [sink_speed_m_s(usual_build(w, hook)) for w in ("buoyant", "unweighted", "weighted")]
            self.assertTrue(speeds[0] < 0 < speeds[1] < speeds[2])

    def test_a_timed_fly(self):
        self.assertAlmostEqual(timed_speed_m_s(1.0, 9.0), 1 / 9)  # "sank 1 m in 9 s"
        with self.assertRaises(ValueError):
            timed_speed_m_s(1.0, 0)

    def test_refused(self):
        for wrong in (
            FlyBuild(hook=30),
            FlyBuild(hook=10, bead="gold"),
            FlyBuild(hook=10, turns=-1),
            FlyBuild(hook=10, bulk="fat"),
        ):
            with self.assertRaises(ValueError):
                add_up(wrong)


class FloatChecks(unittest.TestCase):
    def rig(self, hang, kind="fixed", fly_g=0.15, lift=1.5):
        pieces = (Piece(ft(3), 0.28, "nylon"), Piece(hang, 0.2))
        return Rig(
            Line(key="x", family="floating"),
            pieces,
            (TiedFly("p", ft(3) + hang, fly_g, 0.14),),
            Float(kind, "tight", ft(3), lift),
        )

    def test_twenty_feet_cannot_be_landed_on_a_nine_foot_rod(self):
        # Trade facts; a quick-release float comes down to the fish.
        deep = check_float(self.rig(ft(20)), ft(9), 0.6, ft(2))
        self.assertFalse(deep.can_land)
        self.assertIn("cannot be landed", " ".join(deep.advice))
        self.assertTrue(check_float(self.rig(ft(20), "release"), ft(9), 0.6, ft(2)).can_land)

    def test_a_light_fly_does_not_slide_a_heavy_one_does(self):
        self.assertFalse(check_float(self.rig(3.0, "sliding", 0.05), 2.9, 0.6, 0.6).slides)
        self.assertTrue(check_float(self.rig(3.0, "sliding", 1.0, 3.0), 2.9, 0.6, 0.6).slides)

    def test_deeper_is_cast_closer(self):
        far = [farthest_float_cast_m(h) for h in (1, 3, 5, 9)]
        self.assertEqual(far, sorted(far, reverse=True))
        self.assertIn(
            "Cast closer", " ".join(check_float(rig=self.rig(5.0), rod_m=2.9, arm_m=0.6, net_m=0.6, cast_m=18.0).advice)
        )

    def test_the_load_by_hand(self):
        # 0.15 g and 4 m of 0.2 mm fluorocarbon: 4 x pi/4 x 0.04 mm² = 0.1257 cm³ x 0.78.
        self.assertAlmostEqual(load_g(self.rig(4.0)), 0.15 + 0.1257 * 0.78, places=3)

    def test_faults_of_a_rig_name_their_field(self):
        sinks = check_rig(self.rig(3.0, fly_g=2.0))
        self.assertEqual([(p.code, p.path) for p in sinks], [("float_sinks", "float.buoyancy_g")])
        off = check_rig(replace(self.rig(3.0), flies=(TiedFly("p", 9.0, 0.1, -0.1),)))
        self.assertLessEqual({"flies[0].from_line_m", "flies[0].sink_m_s"}, {p.path for p in off})
        self.assertEqual(check_rig(Rig(Line(key="x", family="floating"), (), ()))[0].path, "leader")
