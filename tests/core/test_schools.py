"""Where anglers disagree: each school moves what it says, the defaults are stated, and a switch tells what it changed."""

import unittest
from dataclasses import fields, replace
from datetime import UTC, datetime

from stillthread.core.day.given import Angler, Before, Rules
from stillthread.core.day.schools import QUESTIONS, Schools
from stillthread.core.plan.make import make_plan
from stillthread.core.tackle.lines import Line
from tests.checks import some
from tests.days import FLOATING, MAY, TYPE_7, UPLAND, day, profile

DAY = day(rules=Rules(max_flies=3))


def plan_for(**schools):
    return make_plan(replace(DAY, schools=Schools(**schools)))


def sunk(plan):
    return next(s for s in plan.set_ups if s.count_s is not None)


class Questions(unittest.TestCase):
    def test_every_setting_has_its_question_and_the_default_comes_first(self):
        self.assertEqual([f.name for f in fields(Schools)], [q.key for q in QUESTIONS])
        for question in QUESTIONS:
            self.assertEqual(getattr(Schools(), question.key), question.keys[0])
            self.assertTrue(question.default_words)

    def test_no_other_answer_is_taken(self):
        with self.assertRaises(ValueError):
            Schools(search="sideways")


class Ladders(unittest.TestCase):
    def test_likeliest_first_then_wider(self):
        s = sunk(plan_for())
        self.assertEqual(s.ladder[0].count_s, s.count_s)
        apart = [abs(r.count_s - s.count_s) for r in s.ladder]
        self.assertEqual(apart, sorted(apart))

    def test_top_down_and_bottom_up_are_ladders_of_counts(self):
        down = [r.depth_m for r in sunk(plan_for(search="top-down")).ladder]
        up = [r.depth_m for r in sunk(plan_for(search="bottom-up")).ladder]
        self.assertEqual(down, sorted(down))
        self.assertEqual(up, sorted(up, reverse=True))

    def test_a_longer_count_is_never_shallower_on_the_same_rig(self):
        for s in some(plan_for().set_ups):
            if s.count_s is not None:
                rungs = sorted(s.ladder, key=lambda r: r.count_s)
                depths = [r.depth_m for r in rungs]
                self.assertEqual(depths, sorted(depths))

    def test_a_float_moves_by_thirty_centimetres(self):
        # Trade: change by 30 cm.
        rig = next(s for s in plan_for().set_ups if s.float_hang_m is not None)
        hangs = sorted(r.float_hang_m for r in rig.ladder)
        self.assertTrue(all(abs(b - a - 0.3) < 1e-6 for a, b in zip(hangs, hangs[1:], strict=False)))


class Choices(unittest.TestCase):
    def test_static_only_and_moving_only(self):
        still = plan_for(moving="static")
        self.assertEqual({s.retrieve.kind for s in still.set_ups}, {"static"})
        moving = plan_for(moving="active")
        self.assertNotIn("static", {s.retrieve.kind for s in moving.set_ups})
        self.assertIn("moving flies only", " ".join(r.reason for r in moving.ruled_out))

    def test_one_fly_or_a_team(self):
        self.assertEqual({len(s.flies) for s in plan_for(flies_on="single").set_ups}, {1})
        self.assertGreater(max(len(s.flies) for s in plan_for(flies_on="team").set_ups), 1)
        known = make_plan(replace(DAY, found_m=2.0))
        self.assertEqual({len(s.flies) for s in known.set_ups}, {1})

    def test_the_attractor_goes_where_the_school_puts_it(self):
        # Trade: bright on the top dropper to attract, dark or natural on the point.
        stocked = replace(DAY, water=replace(UPLAND, days_since_stocking=4))
        bright = ("bright", "pale")
        for school, place in (("top", 0), ("point", -1)):
            plan = make_plan(replace(stocked, schools=Schools(attractor_at=school)))
            teams = [s.flies for s in plan.set_ups if len(s.flies) > 1 and s.flies[-1].fly.weight == "unweighted"]
            teams = [t for t in teams if {f.fly.tone in bright for f in t} == {True, False}]
            self.assertTrue(teams)
            self.assertTrue(all(team[place].fly.tone in bright for team in teams), school)

    def test_match_the_food_keeps_attractors_out(self):
        stocked = replace(DAY, water=replace(UPLAND, days_since_stocking=30))
        tones = {
            f.fly.tone for s in make_plan(replace(stocked, schools=Schools(tone="natural"))).set_ups for f in s.flies
        }
        self.assertFalse(tones & {"bright"})

    def test_tippets(self):
        size = lambda plan: plan.set_ups[0].leader.sections[-1].x_size  # noqa: E731
        self.assertLess(size(plan_for(tippet="stout")), size(plan_for(tippet="fine")))

    def test_a_sliding_float_by_the_weight_below_it(self):
        # Trade: sliding floats need enough weight below to pull the leader through; a light single fly will not.
        deep = replace(DAY, reading=replace(MAY, water_depth_m=6.0), angler=Angler(rod_m=2.0, net_m=0.3, arm_m=0.4))
        kinds = {}
        for school in ("never", "always", "by-weight"):
            plan = make_plan(replace(deep, schools=Schools(sliding_float=school)))
            kinds[school] = next(s.float_kind for s in plan.set_ups if s.method == "float")
        self.assertEqual(kinds["never"], "release")
        self.assertIn(kinds["always"], ("sliding", "release"))
        unweighted = tuple(f for f in DAY.flies if f.weight == "unweighted")
        light = make_plan(replace(deep, flies=unweighted, rules=Rules(max_flies=1)))
        self.assertEqual(next(s.float_kind for s in light.set_ups if s.method == "float"), "release")

    def test_plucks_keep_the_depth_unless_depth_always_comes_first(self):
        # Trade: depth first, unless there are plucks.
        usual = sunk(plan_for()).changes
        self.assertEqual(usual.plucks[0], "Keep the depth.")
        self.assertIn("count", usual.nothing[0])
        self.assertIn("count", sunk(plan_for(change_first="depth")).changes.plucks[0])
        self.assertNotIn("count", sunk(plan_for(change_first="fly")).changes.nothing[0])

    def test_the_shore_the_angler_likes(self):
        shares = {}
        for school in ("onto", "off"):
            plan = make_plan(replace(DAY, place=None, schools=Schools(wind_shore=school)))
            shares[school] = next(b.share for b in plan.beliefs if b.place.name == "Drop")
        self.assertGreater(shares["onto"], shares["off"])

    def test_drift_or_anchor(self):
        boat = replace(DAY, angler=Angler(afloat=True))
        words = {s.method: s.stance for s in make_plan(boat).set_ups}
        self.assertIn("Anchor", words["float"])
        anchored = make_plan(replace(boat, schools=Schools(boat="anchor")))
        self.assertTrue(all("Anchor" in s.stance for s in anchored.set_ups if s.style != "drifted"))


class Aims(unittest.TestCase):
    def test_the_biggest_are_fished_for_with_big_flies_and_stouter_leaders(self):
        most, biggest = make_plan(DAY), make_plan(replace(DAY, aim="biggest"))
        x = [plan.set_ups[0].leader.sections[-1].x_size for plan in (most, biggest)]
        self.assertLess(x[1], x[0])
        hooks = [min(f.hook for s in plan.set_ups for f in s.flies) for plan in (most, biggest)]
        self.assertLessEqual(hooks[1], hooks[0])

    def test_for_a_match_the_least_fished_comes_first(self):
        from tests.core.test_own_log import past

        usual = make_plan(DAY)
        log = tuple(past(2, 5, 1, method=usual.set_ups[0].method) for _ in range(3))
        match = make_plan(replace(DAY, aim="match", own_log=log))
        self.assertNotEqual(match.set_ups[0].method, usual.set_ups[0].method)


class Switching(unittest.TestCase):
    def test_nothing_switched_changes_nothing(self):
        self.assertEqual(make_plan(replace(DAY, compared_with=Before())).changed, ())
        self.assertIsNone(make_plan(DAY).changed)

    def test_a_switch_says_what_changed(self):
        changed = make_plan(replace(DAY, schools=Schools(tippet="fine"), compared_with=Before())).changed
        self.assertTrue(any("tippet" in line for line in changed))
        still = make_plan(replace(DAY, schools=Schools(moving="static"), compared_with=Before())).changed
        self.assertTrue(any(line.startswith(("Gone", "First", "New")) or "still" in line for line in still))

    def test_the_dawn_school_goes_from_one_line_to_the_next_in_its_order(self):
        dawn = replace(
            DAY,
            when=datetime(2026, 5, 14, 3, 30, tzinfo=UTC),
            lines=(FLOATING, Line(key="t3", family="sinking", label_ips=3.0), TYPE_7),
        )
        plan = make_plan(replace(dawn, schools=Schools(line_ladder="dries-at-dawn")))
        deepest = max(plan.set_ups, key=lambda s: s.target_m)
        shallowest = min((s for s in plan.set_ups if s is not deepest), key=lambda s: s.target_m)
        self.assertTrue(any(shallowest.title in step for step in deepest.changes.nothing))

    def test_warm_water_still_stops_every_school(self):
        warm = replace(MAY, profile=profile((0, 21.5), (3, 21.0)))
        plan = make_plan(replace(DAY, reading=warm, rules=Rules(release="catch-and-release"), aim="match"))
        self.assertEqual(plan.set_ups, ())
