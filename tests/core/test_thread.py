"""What must come out of the thread: the trade's facts and the phenomena an angler knows."""

import sys
import unittest
from dataclasses import replace

import numpy as np

from stillthread.core.casts.band import Doubt, simulate, simulate_with_band
from stillthread.core.casts.calibrate import check_bottom, doubt_after, judge, timed_fall
from stillthread.core.casts.cast import Cast, level_bed, simulate_cast
from stillthread.core.casts.float_rig import cocks_after_s, hung_after_s, simulate_float
from stillthread.core.casts.retrieve import schedule, usual_pull
from stillthread.core.casts.tables import count_table, running_depth, sink_run, trolling_table
from stillthread.core.errors import InputError
from stillthread.core.tackle.lines import Line
from stillthread.core.tackle.rig import Float, Piece, Rig, TiedFly
from stillthread.core.thread.line_weight import diameter_for_density, free_sink_rate_m_s, mass_per_metre_kg

sys.path.insert(0, "scripts")
from thread_reference import monte_carlo  # noqa: E402

STILL = usual_pull("static")
FLOATING = Line(key="f", family="floating")
TYPE_3, TYPE_5 = Line(key="3", family="sinking", label_ips=3.0), Line(key="5", family="sinking", label_ips=5.0)


def leader(*lengths):
    return tuple(Piece(length, 0.2) for length in lengths)


def plain(at):
    return TiedFly("plain", at, 0.05, 0.07)


def heavy(at):
    return TiedFly("heavy", at, 0.2, 0.15)


def buoyant(at):
    return TiedFly("buoyant", at, -0.05, -0.1)


def sunk(line, length, fly, seconds=60.0, bed=50.0, **other):
    cast = Cast(18.0, level_bed(bed), pull=STILL, hold_s=seconds, **other)
    return simulate_cast(Rig(line, leader(length), (fly(length),)), cast)


class Sinking(unittest.TestCase):
    def test_a_plain_fly_lags_the_line_by_much_of_the_leader(self):
        # A prototype's figure: about three quarters of the leader behind the line, so label x time is badly wrong.
        lags = {}
        for length in (2.0, 3.0, 4.5):
            result = sunk(TYPE_5, length, plain)
            lags[length] = (result.line_end_m[-1] - result.point.depth_m[-1]) / length
            self.assertTrue(0.4 < lags[length] < 1.0, lags)
        self.assertLess(sunk(TYPE_5, 4.5, plain).point.at(30), 0.5 * 5 * 0.0254 * 30)

    def test_a_weighted_fly_outruns_a_slow_line(self):
        result = sunk(Line(key="i", family="intermediate", label_ips=1.2), 3.0, heavy)
        self.assertGreater(result.point.at(30), 1.2 * 0.0254 * 30 * 1.5)
        self.assertGreater(result.point.at(30), np.interp(30, result.point.t_s, result.line_end_m))

    def test_a_buoyant_fly_waits_at_the_surface_until_it_is_dragged_under(self):
        result = sunk(TYPE_5, 2.1, buoyant)
        self.assertLess(result.point.at(5), 0.05)
        self.assertGreater(result.point.at(45), 2.0)

    def test_on_a_floating_line_a_fly_goes_no_deeper_than_line_and_leader_let_it(self):
        # Trade: a weighted fly has sunk about its leader when the line's tip starts to dip.
        result = sunk(FLOATING, 2.74, heavy, 120.0)
        dips = np.flatnonzero(result.line_end_m > 0.05)
        self.assertGreater(len(dips), 0)
        self.assertAlmostEqual(result.point.depth_m[dips[0]], 2.74, delta=0.9)
        self.assertLess(sunk(FLOATING, 2.74, plain, 120.0).point.depth_m[-1], 2.75)

    def test_the_heavier_class_of_one_density_sinks_its_fly_quicker(self):
        depths = []
        for weight_class in (4, 7, 9):
            # Same coat, so the rate differs: found from the density by the line's own balance.
            rate = free_sink_rate_m_s(diameter_for_density(mass_per_metre_kg(weight_class), 1500.0), 1500.0)
            depths.append(
                sunk(
                    Line(key="x", family="sinking", label_ips=3.0, weight_class=weight_class, measured_m_s=rate),
                    2.5,
                    plain,
                ).point.at(40)
            )
        self.assertEqual(depths, sorted(depths))

    def test_a_sink_tip_is_bounded_by_tip_and_leader(self):
        tip = Line(key="t", family="sink-tip", label_ips=2.0, weight_class=7, tip_length_m=1.8)
        track = simulate_cast(
            Rig(tip, leader(2.7), (plain(2.7),)), Cast(18.0, countdown_s=60.0, pull=usual_pull("hand-twist", 0.1))
        ).point
        self.assertLess(track.depth_m.max(), 1.8 + 2.7)

    def test_a_sinking_leader_takes_a_floater_down(self):
        # Trade: a 1.5 m sinking leader fishes 0.3 to 1 m.
        coated = (Piece(1.5, 0.9, "nylon", 0.06), Piece(1.2, 0.2))
        with_it = simulate_cast(Rig(FLOATING, coated, (plain(2.7),)), Cast(15.0, pull=usual_pull("hand-twist", 0.1)))
        without = simulate_cast(
            Rig(FLOATING, leader(2.7), (plain(2.7),)), Cast(15.0, pull=usual_pull("hand-twist", 0.1))
        )
        middle = with_it.fished_to_s / 2
        self.assertGreater(with_it.point.at(middle), without.point.at(middle))
        self.assertTrue(0.3 <= with_it.point.at(middle) <= 1.3)


class Retrieving(unittest.TestCase):
    def after(self, speed, line=TYPE_3):
        cast = Cast(18.0, countdown_s=30.0, pull=usual_pull("custom", speed))
        return simulate_cast(Rig(line, leader(3.0), (plain(3.0),)), cast)

    def test_a_slow_retrieve_keeps_sinking_and_a_fast_one_runs_higher(self):
        means = []
        for speed in (0.05, 0.15, 0.4, 0.8):
            result = self.after(speed)
            inside = (result.point.t_s > 30) & (result.point.t_s < result.fished_to_s)
            means.append(result.point.depth_m[inside].mean())
        self.assertEqual(means, sorted(means, reverse=True))
        self.assertGreater(self.after(0.05).point.at(60), self.after(0.05).point.at(30) + 1.0)

    def test_a_full_line_climbs_near_the_rod(self):
        result = self.after(0.4)
        self.assertLess(result.point.at(result.fished_to_s), result.point.depth_m.max() - 0.2)

    def test_a_slow_pulled_sink_tip_runs_more_level_than_a_full_line(self):
        def spread(line):
            result = self.after(0.3, line)
            low, high = result.point.between(35, result.fished_to_s)
            return high - low

        self.assertLess(
            spread(Line(key="t", family="sink-tip", label_ips=3.0, weight_class=7, tip_length_m=3.0)), spread(TYPE_5)
        )

    def test_a_buoyant_fly_hovers_a_leader_above_the_bed_and_is_pulled_down(self):
        cast = Cast(18.0, level_bed(5.0), 90.0, usual_pull("custom", 0.1))
        result = simulate_cast(Rig(TYPE_5, leader(2.1), (buoyant(2.1),)), cast)
        self.assertAlmostEqual(result.point.at(90), 5.0 - 2.1, delta=0.35)
        self.assertGreater(result.point.at(130), result.point.at(90) + 0.5)

    def test_a_fly_drawn_up_a_slope_follows_the_bed(self):
        bed = ((0.0, 1.5), (8.0, 3.0), (14.0, 5.0), (22.0, 7.0))
        cast = Cast(20.0, bed, 90.0, usual_pull("hand-twist", 0.08))
        result = simulate_cast(Rig(TYPE_5, leader(2.1), (heavy(2.1),)), cast)
        self.assertIsNotNone(result.bottom)
        late = (result.point.t_s > 100) & (result.point.t_s < 200)
        ledge = np.interp(result.point.x_m[late], *np.array(bed).T)
        self.assertLess(np.abs(result.point.depth_m[late] - ledge).max(), 0.6)

    def test_patterns_of_the_hand(self):
        # By hand: 0.6 m in pulls of 0.2 m at 0.4 m/s with 1 s rests: 0.5 s pull, 1 s rest, three pulls, two rests, 10 s count.
        phases, fished, gained = schedule(
            pull=usual_pull("custom", 0.4, 0.2, 1.0), countdown_s=10.0, to_gain_m=0.6, hold_s=60.0, hang_s=5.0
        )
        self.assertAlmostEqual(fished, 10 + 3 * 0.5 + 2 * 1.0)
        self.assertAlmostEqual(gained, 0.6)
        np.testing.assert_allclose(phases[:3, 0], [10, 10.5, 11.5])
        self.assertEqual(phases[-1, 1], 0.0)
        self.assertAlmostEqual(usual_pull("custom", 0.4, 0.2, 1.0).mean_m_s, 0.2 / 1.5)
        with self.assertRaises(ValueError):
            usual_pull("custom")

    def test_droppers_and_the_v_of_a_weighted_middle(self):
        # Trade: light middles between buoyant ends stay high; a weighted middle makes a V and takes the team down.
        def slim(at):
            return TiedFly("slim", at, 0.015, 0.05)

        def depths(middle):
            flies = (replace(slim(2.0), dropper_m=0.15), replace(middle(3.5), dropper_m=0.15), buoyant(5.0))
            cast = Cast(18.0, pull=usual_pull("hand-twist", 0.08))
            result = simulate_cast(Rig(FLOATING, leader(2, 1.5, 1.5), flies), cast)
            return [t.at(result.fished_to_s / 2) for t in result.flies]

        light, weighted = depths(slim), depths(heavy)
        self.assertLess(max(light), 1.2)  # trade: 0 to 1.2 m on a floater
        self.assertGreater(weighted[1], max(weighted[0], weighted[2]))
        self.assertGreater(weighted[1], light[1])

    def test_film_metres_and_exposure_add_up(self):
        cast = Cast(15.0, pull=usual_pull("hand-twist", 0.2))
        result = simulate_cast(Rig(FLOATING, leader(3.0), (buoyant(3.0),)), cast)
        self.assertAlmostEqual(result.film_retrieve_m[0], 15 - 3 - 3, delta=0.5)  # all of it: leader and hang mark off
        cells, seconds = result.point.exposure()
        self.assertAlmostEqual(seconds.sum(), result.end_s, places=6)
        self.assertAlmostEqual(cells[0], 0.05)


class Floats(unittest.TestCase):
    def hung(self, fly=heavy, line="tight", drift=None, kind="fixed", seconds=150.0):
        rig = Rig(FLOATING, leader(0.9, 4.0), (fly(4.9),), Float(kind, line, 0.9, 1.5))
        return simulate_float(rig, Cast(12.0, pull=STILL, drift_m_s=drift, hold_s=seconds))

    def test_at_rest_the_fly_hangs_at_its_set_depth(self):
        for line in ("tight", "slack"):
            self.assertAlmostEqual(self.hung(line=line).point.depth_m[-1], 4.0, delta=0.1)

    def test_a_slack_line_lets_it_hang_in_about_half_the_time(self):
        ratio = hung_after_s(self.hung(line="slack")) / hung_after_s(self.hung(line="tight"))
        self.assertTrue(0.4 < ratio < 0.7, ratio)

    def test_a_drift_of_ten_centimetres_a_second_lifts_a_plain_fly_to_a_fraction(self):
        lifted = self.hung(plain, drift=0.1).point.depth_m[-1]
        self.assertTrue(0.15 * 4 < lifted < 0.5 * 4, lifted)
        self.assertGreater(self.hung(heavy, drift=0.1).point.depth_m[-1], lifted)
        mirrored = self.hung(plain, drift=-0.1).point.depth_m[-1]
        self.assertAlmostEqual(mirrored, lifted, delta=0.15)

    def test_the_float_cocks_before_the_rig_hangs_and_carries_what_hangs_below(self):
        result = self.hung()
        self.assertLessEqual(cocks_after_s(result), hung_after_s(result))
        # By hand: 0.2 g of fly and 4 m of 0.2 mm fluorocarbon, 0.1257 cm³ at 0.78 g/cm³ over water.
        self.assertAlmostEqual(result.float_pull_g[-1], 0.2 + 0.1257 * 0.78, delta=0.03)

    def test_a_sliding_float_goes_straight_down_when_heavy_and_not_at_all_when_light(self):
        light = self.hung(plain, kind="sliding")
        self.assertLess(light.point.depth_m[-1], 0.2)
        self.assertIn("too light", light.notes[0])
        rig = Rig(FLOATING, leader(0.9, 4.0), (TiedFly("point", 4.9, 1.0, 0.35),), Float("sliding", "tight", 0.9, 4.0))
        quick = simulate_float(rig, Cast(12.0, pull=STILL, hold_s=120.0))
        self.assertAlmostEqual(quick.point.depth_m[-1], 4.0, delta=0.1)
        self.assertAlmostEqual(quick.point.x_m[5], 8.0, delta=0.6)

    def test_thick_butts_hang_later_and_are_lifted_more(self):
        # A prototype's figure: thick tapered butts cost about 10 %. Ours: some 5 % in time, more in a drift.
        level = Rig(FLOATING, leader(0.9, 4.0), (plain(4.9),), Float("fixed", "tight", 0.9, 1.5))
        stepped = ((0.9, 0.5), (1.5, 0.45), (1.0, 0.3), (1.5, 0.2))
        thick = replace(level, leader=tuple(Piece(length, mm, "nylon") for length, mm in stepped))
        still = Cast(12.0, pull=STILL, hold_s=200.0)
        late = hung_after_s(simulate_float(thick, still)) / hung_after_s(simulate_float(level, still))
        self.assertTrue(1.02 < late < 1.3, late)
        drifting = replace(still, drift_m_s=0.05)
        lifted = [4.0 - simulate_float(rig, drifting).point.depth_m[-1] for rig in (level, thick)]
        self.assertGreater(lifted[1], 1.1 * lifted[0])


class Bands(unittest.TestCase):
    CASES = (
        (Rig(TYPE_3, leader(3.0), (plain(3.0),)), Cast(18.0, countdown_s=30.0, pull=usual_pull("hand-twist", 0.1))),
        (Rig(FLOATING, leader(4.0), (heavy(4.0),)), Cast(15.0, countdown_s=20.0, pull=usual_pull("hand-twist", 0.05))),
    )

    def test_the_band_agrees_with_a_monte_carlo(self):
        # 200 uniform draws; the standard error of a 10 % quantile is about sqrt(0.1 x 0.9 / 200) / density, some 5 % of
        # the band's width for a bell shape; a fifth of the width allows for that and for the sum of squares.
        for rig, cast in self.CASES:
            banded = simulate_with_band(rig, cast).point
            low, high = monte_carlo(rig, cast, np.random.default_rng(7), 200)[0]
            width = np.maximum(high - low, 0.1)
            self.assertLess(np.median(np.abs(banded.p10_m - low) / width), 0.12)
            self.assertLess(np.median(np.abs(banded.p90_m - high) / width), 0.12)
            self.assertLess((np.abs(banded.p90_m - high) / width).max(), 0.6)

    def test_a_flat_share_of_depth_fails_the_same_check(self):
        # Negative control: plus and minus 10 % of depth is not the band.
        rig, cast = self.CASES[0]
        depth = simulate(rig, cast).point.depth_m
        low, high = monte_carlo(rig, cast, np.random.default_rng(7), 100)[0]
        width = np.maximum(high - low, 0.1)
        self.assertGreater(np.median(np.abs(0.9 * depth - low) / width), 0.12)

    def test_one_timed_metre_narrows_the_band(self):
        rig, cast = self.CASES[0]
        before = simulate_with_band(rig, cast).point.band_at(75)
        after = simulate_with_band(rig, cast, doubt=doubt_after(timed_fall(1.0, 14.0))).point.band_at(75)
        self.assertLess(after[1] - after[0], 0.75 * (before[1] - before[0]))
        self.assertEqual(Doubt(0, 0, 0).inputs(rig), ())

    def test_timing_by_hand(self):
        # 1 m in 9 s is 0.111 m/s; doubt: sqrt((0.3 / 9)² + (0.03 / 1)² + 0.05²) = 0.067.
        timing = timed_fall(1.0, 9.0)
        self.assertAlmostEqual(timing.speed_m_s, 0.111, places=3)
        self.assertAlmostEqual(timing.doubt, 0.067, places=3)
        self.assertLess(timed_fall(1.0, 9.0, repeats=4).doubt, timing.doubt)
        with self.assertRaises(InputError) as caught:
            timed_fall(0.05, -1)
        self.assertEqual({p.path for p in caught.exception.problems}, {"distance_m", "seconds"})

    def test_a_felt_bottom_checks_the_whole_rig(self):
        run = sink_run(self.CASES[0][0], replace(self.CASES[0][1], bed=level_bed(4.0)))
        expected = count_table(run, [3.98])[0].count_s
        self.assertTrue(check_bottom(run, 3.98, expected).agrees)
        self.assertIn("Sooner", check_bottom(run, 3.98, 8.0).sentence)
        self.assertIn("Later", judge(expected_s=20.0, soonest_s=15.0, latest_s=25.0, seen_s=60.0, what="x").sentence)
        self.assertFalse(judge(expected_s=None, soonest_s=None, latest_s=None, seen_s=60.0, what="x").agrees)


class Tables(unittest.TestCase):
    RIG = Rig(TYPE_3, leader(3.0), (plain(3.0),))

    def test_deeper_takes_longer_and_the_band_holds_the_count(self):
        rows = count_table(sink_run(self.RIG, Cast(18.0)), [0.5, 1, 2, 3, 4, 40])
        counts = [r.count_s for r in rows[:-1]]
        self.assertEqual(counts, sorted(counts))
        for row in rows[:-1]:
            self.assertTrue(row.soonest_s <= row.count_s <= row.latest_s)
            self.assertGreater(row.line_m, row.depth_m)  # the line is deeper than a plain fly
        self.assertIsNone(rows[-1].count_s)

    def test_the_count_it_gives_is_the_count_it_takes(self):
        count = count_table(sink_run(self.RIG, Cast(18.0)), [2.0])[0].count_s
        runs = running_depth(self.RIG, Cast(18.0), count, usual_pull("hand-twist", 0.3))
        self.assertAlmostEqual(runs.at_count_m, 2.0, delta=0.05)
        self.assertTrue(runs.shallowest_m <= runs.mean_m <= runs.deepest_m)

    def test_trolling_faster_is_shallower_and_more_line_is_deeper(self):
        # Trade: trolling a slow tip runs at 0.3 to 0.45 m.
        rows = trolling_table(self.RIG, Cast(18.0), [0.3, 0.6], [10.0, 20.0, 60.0])
        self.assertGreater(rows[0][1], rows[1][1])
        self.assertGreater(rows[0][1], rows[0][0])
        self.assertIsNone(rows[0][2])
        tip = Rig(
            Line(key="t", family="sink-tip", label_ips=2.0, weight_class=7, tip_length_m=1.8),
            leader(2.7),
            (plain(2.7),),
        )
        self.assertTrue(0.2 <= trolling_table(tip, Cast(18.0), [0.35], [20.0])[0][0] <= 0.5)
