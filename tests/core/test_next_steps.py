"""What to do next: ladders that stay in the water, and changes in the trade's order."""

import unittest
from dataclasses import replace

from hypothesis import given, settings
from hypothesis import strategies as st

from stillthread.core.day.given import METHODS, Angler, Rules
from stillthread.core.food.seen import Sighting
from stillthread.core.plan.changed import what_changed
from stillthread.core.plan.make import make_plan
from stillthread.core.plan.rank import alike, over_session, pick_different
from tests.checks import some
from tests.days import MAY, day

DAY = day(rules=Rules(max_flies=2))
PLAN = make_plan(DAY)


class Ladders(unittest.TestCase):
    def test_no_rung_lies_on_the_bed(self):
        for s in some(PLAN.set_ups):
            for rung in s.ladder:
                self.assertLess(rung.depth_m, MAY.water_depth_m)
                self.assertTrue((rung.count_s is None) != (rung.float_hang_m is None))

    def test_counts_are_on_the_trades_ladder(self):
        # Trade: count 0, 5, 10, 15, 20 … on successive casts.
        for s in some(PLAN.set_ups):
            self.assertTrue(all(r.count_s % 5 == 0 for r in s.ladder if r.count_s is not None))

    def test_no_rung_twice_and_not_too_many(self):
        for s in some(PLAN.set_ups):
            self.assertLessEqual(len(s.ladder), 7)
            self.assertEqual(len(set(s.ladder)), len(s.ladder))

    def test_a_dry_fly_has_none(self):
        rising = day(rules=Rules(max_flies=2), sightings=(Sighting(rise="sip", abundance="many"),))
        for s in some([s for s in make_plan(rising).set_ups if s.method == "dry"]):
            self.assertFalse(s.ladder)


class Changes(unittest.TestCase):
    def test_one_thing_at_a_time_in_the_trades_order(self):
        # Trade: no contact at all: depth first, then speed, then fly, then method, then place.
        for s in some(PLAN.set_ups):
            steps = s.changes.nothing
            self.assertGreaterEqual(len(steps), 4)
            self.assertIn("move", steps[-1].lower())
            self.assertTrue(any(other.title in " ".join(steps) for other in PLAN.set_ups if other.key != s.key))

    def test_plucks_keep_the_depth_then_pace_then_fly(self):
        # Trade: plucks without hook-ups: keep depth, change pace, then fly (smaller, duller, another colour).
        for s in some(PLAN.set_ups):
            self.assertEqual(s.changes.plucks[0], "Keep the depth.")
            flies = [i for i, step in enumerate(s.changes.plucks) if any(f.name in step for f in DAY.flies)]
            self.assertTrue(all(i >= 2 for i in flies))

    def test_flies_to_change_to_are_in_the_box_and_not_on_already(self):
        few = tuple(
            f for f in DAY.flies if f.key in {"slim-pupa-black", "slim-pupa-olive", "bead-pupa-black", "olive-scud"}
        )
        for s in some(make_plan(replace(DAY, flies=few)).set_ups):
            told = " ".join(s.changes.plucks)
            for fly in DAY.flies:
                if fly not in few:
                    self.assertNotIn(f"{fly.name}:", told)

    def test_a_rod_that_stands_rigged_is_named(self):
        rigged = make_plan(replace(DAY, angler=Angler(rods=2)))
        self.assertIn(
            "rod 2", " ".join(rigged.set_ups[0].changes.nothing) + " ".join(rigged.set_ups[2].changes.nothing)
        )

    def test_the_fallback_is_what_to_do_for_nothing(self):
        for s in some(PLAN.set_ups):
            self.assertEqual(s.fallback, " ".join(s.changes.nothing))


class Ranking(unittest.TestCase):
    def test_likeness_is_whole_with_itself_and_goes_both_ways(self):
        for one in some(PLAN.set_ups):
            for other in some(PLAN.set_ups):
                self.assertEqual(alike(one, other), alike(other, one))
                self.assertLessEqual(alike(one, other), alike(one, one))

    @given(st.lists(st.floats(0.01, 1), min_size=1, max_size=12))
    @settings(max_examples=40)
    def test_the_best_is_always_shown_first(self, rates):
        tried = [replace(PLAN.set_ups[n % len(PLAN.set_ups)], relative=rate) for n, rate in enumerate(rates)]
        shown = pick_different(tried)
        self.assertEqual(shown[0].relative, max(rates))
        self.assertLessEqual(len(shown), 4)

    def test_tying_on_costs_more_of_a_short_session(self):
        one = replace(PLAN.set_ups[0], relative=1.0)
        # 10 minutes of 1 h is a sixth, of 10 h a sixtieth.
        team = replace(one, flies=one.flies[:1] * 3, float_hang_m=None)
        self.assertAlmostEqual(over_session(team, 1.0), 1 - 10 / 60)
        self.assertAlmostEqual(over_session(team, 10.0), 1 - 10 / 600)


class Changed(unittest.TestCase):
    def test_a_plan_against_itself(self):
        self.assertEqual(what_changed(PLAN, PLAN), ())

    def test_what_went_came_and_moved_is_named(self):
        first = PLAN.set_ups[0].method
        still = make_plan(replace(DAY, angler=replace(DAY.angler, methods=tuple(m for m in METHODS if m != first))))
        told = what_changed(PLAN, still)
        gone = {s.title for s in PLAN.set_ups} - {s.title for s in still.set_ups}
        for title in some(gone):
            self.assertIn(f"Gone: {title}.", told)
        back = what_changed(still, PLAN)
        for title in some(gone):
            self.assertIn(f"New: {title}.", back)

    def test_a_deeper_belief_is_said_in_metres(self):
        found = make_plan(replace(DAY, found_m=1.5))
        self.assertTrue(any("Half the chance" in line for line in what_changed(PLAN, found)))
