"""The cable against closed forms, a general solver, and itself turned round."""

import math
import sys
import unittest
from dataclasses import replace

import numpy as np

from stillthread.core.casts.cast import Cast, NotConvergedError, level_bed, simulate_cast
from stillthread.core.casts.retrieve import usual_pull
from stillthread.core.tackle.lines import Line
from stillthread.core.tackle.rig import Piece, Rig, TiedFly
from stillthread.core.thread.cable import run_cable
from stillthread.core.thread.chain import FINE, RANKING, Detail, build_chain
from stillthread.core.thread.fluid import normal_drag_n_m, tangential_drag_n_m, water_properties
from stillthread.core.thread.line_weight import line_stretches
from tests import checks

sys.path.insert(0, "scripts")
from thread_reference import sink_by_lsoda  # noqa: E402

DEEP = (np.array([0.0, 1.0]), np.array([200.0, 200.0]))
RHO, NU = water_properties(10.0)
STILL = np.array([RHO, NU, 0.0, 0.0, 1e-5, 0.25, 0.02])


def level_chain(length, pieces, diameter, net):
    """A uniform chain laid straight on the water."""
    segments = np.zeros((pieces + 1, 4))
    segments[1:] = (length / pieces, diameter, net, 1.0)
    nodes = np.zeros((pieces + 1, 3))
    nodes[:, 2] = 1.0
    start = np.zeros((pieces + 1, 2))
    start[:, 0] = np.linspace(0, length, pieces + 1)
    return start, segments, nodes


def run(start, segments, nodes, seconds, numbers=STILL, bed=DEEP):
    status, _, times, places, pulls = run_cable(
        start, segments, nodes, *bed, np.array([[seconds, 0.0]]), numbers, seconds / 20
    )
    assert status == 0
    return times, places, pulls


class ClosedForms(unittest.TestCase):
    def test_the_middle_of_a_long_level_line_sinks_at_its_rate(self):
        rate = 0.0762
        net = normal_drag_n_m(rate, 1e-3, RHO, NU)
        times, places, _ = run(*level_chain(40.0, 40, 1e-3, net), 12.0)
        self.assertAlmostEqual(places[-1, 20, 1], rate * times[-1], delta=0.01 * rate * times[-1])

    def test_trade_figures_of_a_level_line(self):
        # Trade: a 1.2 in/s intermediate sinks 1 ft in 10 s; 3 in/s for 20 s is 5 ft.
        for ips, seconds, feet in ((1.2, 10, 1), (3.0, 20, 5)):
            stretch = line_stretches(Line(key="x", family="sinking", label_ips=ips))[0]
            _, places, _ = run(*level_chain(40.0, 40, stretch.diameter_m, stretch.net_n_m), float(seconds))
            self.assertAlmostEqual(places[-1, 20, 1] / 0.3048, feet, delta=0.02 * feet)

    def test_a_towed_line_settles_at_the_critical_angle(self):
        # Across the line drag equals weight, n(U sin a) = w cos a, found here by bisection; along it tension takes the rest.
        rate, speed, diameter = 0.1, 0.4, 1e-3
        net = normal_drag_n_m(rate, diameter, RHO, NU)
        low, high = 0.0, math.pi / 2
        for _ in range(60):
            a = (low + high) / 2
            heavier = normal_drag_n_m(speed * math.sin(a), diameter, RHO, NU) < net * math.cos(a)
            low, high = (a, high) if heavier else (low, a)
        numbers = STILL.copy()
        numbers[2] = speed  # the water runs away from the rod tip
        _, places, pulls = run(*level_chain(15.0, 30, diameter, net), 120.0, numbers)
        dx, dz = places[-1, 20] - places[-1, 8]
        self.assertAlmostEqual(math.degrees(math.atan2(dz, dx)), math.degrees(a), delta=0.5)
        # Tension at the tip: weight along the line less what friction along it takes off or adds.
        along = 15.0 * (net * math.sin(a) + tangential_drag_n_m(speed * math.cos(a), diameter, RHO, NU))
        self.assertAlmostEqual(pulls[-1, 1] / along, 1.0, delta=0.05)

    def test_a_slack_heavy_line_hangs_in_a_catenary(self):
        # Closed form, cross-checked with a mooring library in tests/data; weights scaled down 5000 times, since the
        # shape does not depend on them and our thread is made for newtons, not for anchors.
        patient = STILL.copy()
        patient[5] = 10.0
        for entry in checks.of("06_drag", "freely hanging inextensible line"):
            given, expected = entry["inputs"], entry["expected"]
            start, segments, nodes = level_chain(given["L_m"], 60, 1e-3, given["w_N_per_m"] / 5000)
            start[:, 0] = np.linspace(0, given["X_m"], 61)
            start[:, 1] = np.linspace(0, given["Z_m"], 61)
            nodes[-1, 1] = 1e12  # the far end is held
            _, places, pulls = run(start=start, segments=segments, nodes=nodes, seconds=6000.0, numbers=patient)
            lowest = places[-1, :, 1].max() - given["Z_m"]
            self.assertAlmostEqual(lowest, expected["lowest_point_below_lower_end_m"], delta=0.02)
            first = places[-1, 1] - places[-1, 0]
            horizontal = pulls[-1, 1] * first[0] / np.hypot(*first) * 5000
            self.assertAlmostEqual(horizontal / expected["H_N"], 1.0, delta=0.03)

    def test_a_fly_alone_on_slack_sinks_at_its_terminal_speed(self):
        # Two grams on a hair: what the leader drags is a few hundredths of it.
        rig = Rig(Line(key="x", family="floating"), (Piece(6.0, 0.05, "nylon"),), (TiedFly("f", 6.0, 2.0, 0.15),))
        track = simulate_cast(rig, Cast(10.0, slack=0.5, pull=usual_pull("static"), hold_s=12.0), FINE).point
        self.assertAlmostEqual(track.at(10) - track.at(5), 0.15 * 5, delta=0.06)


RIG = Rig(Line(key="x", family="sinking", label_ips=3.0), (Piece(3.0, 0.2),), (TiedFly("f", 3.0, 0.05, 0.07),))
HELD = Cast(18.0, pull=usual_pull("static"), hold_s=30.0)


class AgainstOthers(unittest.TestCase):
    def test_the_same_equations_by_a_general_solver(self):
        # scipy.integrate.solve_ivp (LSODA) on the node velocities. It lumps drag by each node's own velocity and we by
        # the segment's mean, so both are run fine enough for that to vanish. Its springs are softened to 1 N, or it
        # takes minutes: at the tensions here, some millinewtons, that stretches 6 m by less than 2 cm.
        times = np.arange(0.0, 11.0, 2.5)
        short = replace(RIG, leader=(Piece(2.0, 0.2),))
        for rig in (
            replace(short, flies=(TiedFly("f", 2.0, 0.05, 0.07),)),
            replace(
                short, line=Line(key="x", family="intermediate", label_ips=1.2), flies=(TiedFly("f", 2.0, 0.2, 0.15),)
            ),
        ):
            chain = build_chain(rig, 6.0, Detail(0.5, 0.2))
            start = np.zeros((len(chain.along_m), 2))
            start[:, 0] = chain.along_m
            theirs = sink_by_lsoda(
                start=start, segments=chain.segments, nodes=chain.nodes, rho=RHO, nu=NU, times=times, stiffness=1.0
            )[:, -1, 1]
            cast = Cast(6.0, pull=usual_pull("static"), hold_s=11.0)
            track = simulate_cast(
                rig, cast, Detail(line_m=0.5, leader_m=0.2, step_s=0.1, move_m=0.01, tolerance_m=1e-5, record_s=0.5)
            ).point
            np.testing.assert_allclose(np.interp(times, track.t_s, track.depth_m), theirs, atol=0.02)

    def test_finer_nodes_and_steps_change_little(self):
        for cast in (HELD, replace(HELD, countdown_s=20.0, pull=usual_pull("hand-twist", 0.1))):
            fine = simulate_cast(
                RIG, cast, Detail(line_m=0.25, leader_m=0.125, step_s=0.1, move_m=0.01, tolerance_m=1e-5, record_s=0.5)
            ).point
            for detail, most in ((FINE, 0.02), (RANKING, 0.08)):
                track = simulate_cast(RIG, cast, detail).point
                there = np.interp(fine.t_s, track.t_s, track.depth_m)
                self.assertLess(np.abs(there - fine.depth_m).max(), most)


class Invariance(unittest.TestCase):
    def test_length_is_kept(self):
        # Tension-only springs stay within half a percent, even in the fastest retrieve.
        cast = replace(HELD, countdown_s=10.0, pull=usual_pull("roly-poly"), hang_s=0.0)
        result = simulate_cast(RIG, cast)
        for k, t in enumerate(result.point.t_s):
            drawn_in = max(0.0, t - 10.0) * 0.7
            steps = np.diff(result.places[k], axis=0)
            self.assertLessEqual(np.hypot(steps[:, 0], steps[:, 1]).sum(), (18.0 - drawn_in) * 1.005 + 0.02)

    def test_left_is_right_turned_round(self):
        start, segments, nodes = level_chain(12.0, 20, 1e-3, 0.004)
        _, right, _ = run(start, segments, nodes, 30.0)
        _, left, _ = run(start * (-1, 1), segments, nodes, 30.0)
        np.testing.assert_allclose(left[:, :, 0], -right[:, :, 0], atol=1e-6)
        np.testing.assert_allclose(left[:, :, 1], right[:, :, 1], atol=1e-6)

    def test_the_same_cast_twice_is_the_same_to_the_last_bit(self):
        one, two = simulate_cast(RIG, HELD), simulate_cast(RIG, HELD)
        np.testing.assert_array_equal(one.point.depth_m, two.point.depth_m)

    def test_nothing_leaves_the_water(self):
        bed = ((0.0, 2.0), (8.0, 3.0), (20.0, 6.0))
        for pull in (usual_pull("static"), usual_pull("long-pull"), usual_pull("roly-poly")):
            result = simulate_cast(RIG, replace(HELD, bed=bed, countdown_s=60.0, pull=pull))
            depth = np.interp(result.point.x_m, *np.array(bed).T)
            self.assertTrue(((result.point.depth_m >= 0) & (result.point.depth_m <= depth + 1e-9)).all())
            self.assertTrue(np.isfinite(result.places).all())


class Failure(unittest.TestCase):
    def test_no_balance_is_said_and_no_path_given(self):
        # A tolerance below rounding can never be met: the run must stop and say when, not go on smoothly.
        with self.assertRaises(NotConvergedError) as caught:
            simulate_cast(RIG, replace(HELD, bed=level_bed(5.0)), Detail(tolerance_m=1e-30))
        self.assertGreaterEqual(caught.exception.t_s, 0.0)
        self.assertIn("could not be computed", str(caught.exception))
