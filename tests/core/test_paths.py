"""How the planner asks the thread: what it remembers, what it bins, what a path is worth."""

import unittest
from dataclasses import replace

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st

from stillthread.core.belief.reach import Reach
from stillthread.core.casts.cast import Cast, check_cast, level_bed
from stillthread.core.casts.retrieve import usual_pull
from stillthread.core.day.paths import (
    IN_MEMORY,
    Paths,
    binned_bed_m,
    binned_c,
    fished_mean_m,
    mean_reach,
    pull_of,
    rig_of,
    tied,
)
from stillthread.core.errors import InputError
from stillthread.core.flies.placed import PlacedFly
from stillthread.core.plan.make import make_plan
from stillthread.core.setup.retrieves import RETRIEVES
from stillthread.core.tackle.flies import STARTER_FLIES
from stillthread.core.tackle.leaders import casting_leader, sinking_leader
from stillthread.core.tackle.lines import Line
from stillthread.core.tackle.rig import Piece, Rig, TiedFly, level_pieces
from tests.days import TYPE_3, day

LEADER = sinking_leader(3, 1)
NYMPH = next(f for f in STARTER_FLIES if f.key == "pheasant-nymph")
FLIES = (PlacedFly(fly=NYMPH, position="point", hook=12, from_line_m=LEADER.length_m, depth_m=None),)
RIG = rig_of(TYPE_3, LEADER, tied(FLIES))
CAST = Cast(18.0, level_bed(12.0), 20.0, usual_pull("hand-twist", 0.1))


class Bins(unittest.TestCase):
    @given(st.floats(0.05, 60))
    def test_a_bed_is_never_taken_for_deeper_than_it_is(self, bed):
        binned = binned_bed_m(bed)
        self.assertTrue(0 < binned <= bed + 1e-9)
        self.assertLess(bed - binned, 0.25 + 1e-9)

    @given(st.floats(-1, 30))
    def test_temperature_within_a_degree(self, t):
        self.assertLessEqual(abs(binned_c(t) - t), 1.0)

    def test_nothing_read_is_cool_water(self):
        self.assertEqual(binned_c(None), 10.0)

    def test_a_plans_pace_keeps_its_mean(self):
        # The plan's speeds are averaged over pulls and rests; the hand moves quicker, but no quicker than 0.8 m/s.
        for key in ("slow-hand-twist", "hand-twist", "strip-pause", "long-pull", "roly-poly"):
            pull = pull_of(RETRIEVES[key])
            self.assertLessEqual(pull.speed_m_s, 0.8)
            self.assertAlmostEqual(pull.mean_m_s, RETRIEVES[key].speed_m_s, delta=0.02)
        self.assertEqual(pull_of(RETRIEVES["static"]).mean_m_s, 0.0)


class Remembered(unittest.TestCase):
    def test_two_patterns_of_one_build_share_a_path(self):
        other = replace(RIG, flies=(replace(RIG.flies[0], name="Another of that build"),))
        self.assertIs(IN_MEMORY.screened(RIG, CAST), IN_MEMORY.screened(other, CAST))

    def test_the_oldest_is_forgotten_first(self):
        paths = Paths(kept=2)
        first = paths.screened(RIG, CAST)
        for count in (5.0, 10.0):
            paths.screened(RIG, replace(CAST, countdown_s=count))
        again = paths.screened(RIG, CAST)
        self.assertIsNot(again, first)
        np.testing.assert_array_equal(again.point.depth_m, first.point.depth_m)

    def test_a_shelf_is_asked_before_the_thread(self):
        kept = {}

        class Shelf:
            def get(self, name):
                return kept.get(name)

            def put(self, name, result):
                kept[name] = result

        first = Paths(Shelf()).screened(RIG, CAST)
        self.assertEqual(len(kept), 1)
        self.assertIs(Paths(Shelf()).screened(RIG, CAST), first)

    def test_the_first_look_is_near_the_full_run(self):
        # Some 20 cm off where pulls are evened out, less where there are none.
        for cast in (CAST, replace(CAST, pull=usual_pull("long-pull"))):
            rough, full = IN_MEMORY.screened(RIG, cast).point, IN_MEMORY.path(RIG, cast).point
            there = np.interp(full.t_s, rough.t_s, rough.depth_m)
            self.assertLess(np.median(np.abs(there - full.depth_m)), 0.25)

    def test_a_timed_line_has_the_narrower_band(self):
        timed = replace(RIG, line=replace(RIG.line, measured_m_s=RIG.line.rate_m_s))
        wide, narrow = (IN_MEMORY.band(rig, CAST).point.band_at(60) for rig in (RIG, timed))
        self.assertLess(narrow[1] - narrow[0], wide[1] - wide[0])


class Worth(unittest.TestCase):
    def setUp(self):
        self.reach = Reach(make_plan(day()).chosen, 3.5)

    def test_worth_is_a_share_and_falls_with_time_spent_casting(self):
        # The same fishing with a longer wait before it: a smaller share of the cycle is among the fish.
        path = IN_MEMORY.screened(RIG, CAST)
        idle = replace(path, end_s=path.end_s + 120.0)
        self.assertTrue(0 < mean_reach(idle, self.reach) < mean_reach(path, self.reach) <= 1)

    def test_the_mean_lies_between_shallowest_and_deepest(self):
        path = IN_MEMORY.path(RIG, CAST)
        low, high = path.point.between(path.countdown_s, path.fished_to_s)
        self.assertTrue(low <= fished_mean_m(path) <= high)

    def test_reach_for_many_is_reach_for_each(self):
        depths = np.array([0.2, 1.7, 3.3])
        np.testing.assert_allclose(self.reach.many(depths), [self.reach.at(d) for d in depths])


class Rigs(unittest.TestCase):
    def test_a_tapered_butt_steps_down_to_the_next_piece(self):
        leader = casting_leader(3, False)
        pieces = level_pieces(leader)
        widths = [p.diameter_mm for p in pieces]
        self.assertEqual(widths, sorted(widths, reverse=True))
        self.assertAlmostEqual(sum(p.length_m for p in pieces), leader.length_m)
        self.assertAlmostEqual(widths[0], 0.508)  # 0.020 in

    @settings(max_examples=40, deadline=None)
    @given(
        st.floats(-5, 70),
        st.floats(-2, 2),
        st.floats(-20, 90),
        st.lists(st.tuples(st.floats(-5, 30), st.floats(-3, 20)), max_size=4),
    )
    def test_what_cannot_be_is_always_said_at_a_path(self, length, slack, count, bed):
        rig = Rig(Line(key="x", family="sinking", label_ips=3.0), (Piece(3.0, 0.2),), (TiedFly("f", 3.0, 0.05, 0.07),))
        cast = Cast(cast_m=length, bed=tuple(bed), countdown_s=count, pull=usual_pull("static"), slack=slack)
        possible = (
            length > 0
            and length * (1 + slack) <= 33.0
            and count >= 0
            and 0 <= slack <= 1
            and bool(bed)
            and all(z > 0 for _, z in bed)
            and all(a[0] < b[0] for a, b in zip(bed, bed[1:], strict=False))
        )
        try:
            check_cast(rig, cast)
        except InputError as error:
            self.assertFalse(possible)
            self.assertTrue(all(p.path and p.message and p.accepted for p in error.problems))
        else:
            self.assertTrue(possible)
