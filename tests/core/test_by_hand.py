"""Set-ups put together by hand, and what must hold of every plan."""

import unittest
from dataclasses import replace

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st

from stillthread.core.belief.belief import factor_effects, smallest_band
from stillthread.core.day.given import Angler, HandMade, Rules
from stillthread.core.day.schools import QUESTIONS, Schools
from stillthread.core.errors import InputError
from stillthread.core.food.seen import Sighting
from stillthread.core.noted.reading import Reading
from stillthread.core.plan.make import make_plan
from tests.checks import some
from tests.days import LINES, MAY, day

PUPA, LEECH = "slim-pupa-black", "black-leech"


def hand_made(*made, **other):
    plan = make_plan(day(by_hand=made, **other))
    return plan, [s for s in plan.set_ups if s.by_hand is not None]


class ByHand(unittest.TestCase):
    def test_the_numbers_follow_the_count(self):
        plan, own = hand_made(
            HandMade(line="intermediate", flies=(PUPA,), count_s=10),
            HandMade(line="intermediate", flies=(PUPA,), count_s=40),
        )
        self.assertEqual([s.count_s for s in own], [10, 40])
        self.assertLess(own[0].target_m, own[1].target_m)
        self.assertEqual([s.key for s in own], ["hand-0", "hand-1"])
        self.assertLessEqual(max(s.relative for s in plan.set_ups if s.by_hand is None), 1.0)

    def test_a_faster_retrieve_runs_shallower(self):
        # Trade: faster is shallower.
        _, own = hand_made(
            HandMade(line="t3", flies=(PUPA,), retrieve="hand-twist", count_s=20),
            HandMade(line="t3", flies=(PUPA,), retrieve="roly-poly", count_s=20),
        )
        self.assertGreater(own[0].target_m, own[1].target_m)

    def test_what_is_left_out_is_worked_out(self):
        _, own = hand_made(HandMade(line="intermediate", flies=(PUPA, LEECH)))
        self.assertGreater(own[0].count_s, 0)
        self.assertEqual([f.fly.key for f in own[0].flies], [PUPA, LEECH])
        self.assertTrue(own[0].ladder and own[0].changes.plucks and own[0].reasons)

    def test_a_float_and_a_dry_fly(self):
        dries = tuple(f.key for f in day().flies if f.surface)
        _, own = hand_made(
            HandMade(line="floating", flies=(PUPA,), float_hang_m=3.2), HandMade(line="floating", flies=dries[:1])
        )
        self.assertEqual([s.method for s in own], ["float", "dry"])
        self.assertEqual(own[0].float_hang_m, 3.2)

    def test_hooks_are_the_anglers(self):
        _, own = hand_made(HandMade(line="intermediate", flies=(PUPA,), hooks=(14,)))
        self.assertEqual(own[0].flies[0].hook, 14)

    def test_no_rule_is_broken_by_hand_either(self):
        made = (
            (HandMade(line="intermediate", flies=(PUPA, LEECH)), Rules(max_flies=1), "rule"),
            (HandMade(line="intermediate", flies=(PUPA, LEECH)), Rules(droppers_allowed=False, max_flies=3), "rule"),
            (HandMade(line="t3", flies=(PUPA,)), Rules(sinking_lines_allowed=False), "rule"),
            (HandMade(line="floating", flies=(PUPA,), float_hang_m=2.0), Rules(floats_allowed=False), "rule"),
            (HandMade(line="floating", flies=(PUPA,), float_hang_m=9.0), Rules(), "depth"),
        )
        for one, rules, kind in made:
            plan, own = hand_made(one, rules=rules)
            self.assertEqual(own, [])
            refused = [r for r in plan.ruled_out if r.what.startswith("By hand")]
            self.assertEqual([r.kind for r in refused], [kind])

    def test_a_fly_of_which_none_is_left(self):
        flies = tuple(replace(f, stock=0) if f.key == PUPA else f for f in day().flies)
        plan, own = hand_made(HandMade(line="intermediate", flies=(PUPA,)), flies=flies)
        self.assertEqual(own, [])
        self.assertIn("left in the box", " ".join(r.reason for r in plan.ruled_out))

    def test_unknown_parts_are_told_at_their_field(self):
        with self.assertRaises(InputError) as caught:
            hand_made(
                HandMade(line="t9", flies=("no-such-fly",), retrieve="wiggle"),
                HandMade(line="t3", flies=(PUPA,), float_hang_m=2.0),
            )
        paths = [p.path for p in caught.exception.problems]
        self.assertEqual(paths, ["by_hand[0].line", "by_hand[0].flies[0]", "by_hand[0].retrieve", "by_hand[1].line"])


class Factors(unittest.TestCase):
    def test_switching_off_a_factor_takes_it_out_and_leaves_its_words(self):
        usual, off = make_plan(day()), make_plan(day(without=frozenset({"light"})))
        light = next(f for f in off.chosen.factors if f.name == "light")
        self.assertTrue(light.off)
        self.assertFalse(light.log_weight.any())
        self.assertIn("light", light.sentence.lower())
        self.assertLess(off.chosen.profile @ off.chosen.depths_m, usual.chosen.profile @ usual.chosen.depths_m)

    def test_a_neutral_factor_changes_nothing(self):
        usual = make_plan(day())
        flat = [
            f.name
            for f in usual.chosen.factors
            if not any(g.log_weight.any() for b in usual.beliefs for g in b.factors if g.name == f.name)
        ]
        self.assertTrue(flat)
        off = make_plan(day(without=frozenset(flat)))
        for one, other in zip(usual.beliefs, off.beliefs, strict=True):
            np.testing.assert_allclose(one.mass, other.mass, atol=1e-12)
        self.assertEqual([s.key for s in usual.set_ups], [s.key for s in off.set_ups])

    def test_what_a_factor_moves_is_what_switching_it_off_moves(self):
        # Total variation distance, by hand, and the band without it.
        usual = make_plan(day())
        for effect in usual.effects:
            off = make_plan(day(without=frozenset({effect.factor})))
            gap = sum(float(np.abs(a.mass - b.mass).sum()) for a, b in zip(usual.beliefs, off.beliefs, strict=True)) / 2
            self.assertAlmostEqual(effect.moves, gap, places=9)
            self.assertEqual(effect.without_m, smallest_band(off.chosen, 0.5))

    def test_every_factor_tells_its_effect(self):
        plan = make_plan(day())
        names = [f.name for f in plan.chosen.factors]
        self.assertEqual([e.factor for e in factor_effects(plan.beliefs, "Drop")], names)
        self.assertEqual(len(names), 10)


class EveryPlan(unittest.TestCase):
    def test_a_line_or_fly_taken_away_is_in_no_set_up(self):
        usual = make_plan(day())
        used_lines = {s.line.key for s in usual.set_ups}
        used_flies = {f.fly.key for s in usual.set_ups for f in s.flies}
        for key in some(used_lines - {"floating"}):
            plan = make_plan(day(lines=tuple(line for line in LINES if line.key != key)))
            self.assertNotIn(key, {s.line.key for s in plan.set_ups})
        for key in some(sorted(used_flies)[:4]):
            plan = make_plan(day(flies=tuple(f for f in day().flies if f.key != key)))
            self.assertNotIn(key, {f.fly.key for s in plan.set_ups for f in s.flies})
            told = " ".join(step for s in plan.set_ups for step in (*s.changes.plucks, *s.changes.nothing))
            self.assertNotIn(next(f.name for f in day().flies if f.key == key) + ":", told)

    def test_the_same_input_gives_the_same_plan(self):
        schools = Schools(search="bottom-up", tone="bright")
        first, second = (make_plan(day(schools=schools, aim="biggest", rules=Rules(max_flies=3))) for _ in range(2))
        self.assertEqual([(s.key, s.relative, s.ladder, s.changes) for s in first.set_ups],
                         [(s.key, s.relative, s.ladder, s.changes) for s in second.set_ups])  # fmt: skip

    @settings(max_examples=25, deadline=None)
    @given(
        st.sampled_from([1, 2, 3, None]),
        st.sampled_from([True, False, None]),
        st.sampled_from([True, False, None]),
        st.sampled_from([True, False, None]),
        st.fixed_dictionaries({q.key: st.sampled_from(q.keys) for q in QUESTIONS}),
        st.booleans(),
        st.sampled_from(["Drop", "Margin", "Basin"]),
    )
    def test_no_rule_is_ever_broken_whatever_the_school(self, most, floats, droppers, sinking, schools, afloat, place):
        rules = Rules(
            max_flies=most,
            barbless=None,
            floats_allowed=floats,
            droppers_allowed=droppers,
            sinking_lines_allowed=sinking,
        )
        bed = {"Drop": 5.5, "Margin": 2.0, "Basin": 12.0}[place]
        reading = replace(MAY, water_depth_m=bed, profile=tuple(p for p in MAY.profile if p.depth_m < bed))
        made = day(
            rules=rules, schools=Schools(**schools), angler=Angler(afloat=afloat), place=place, reading=reading,
            sightings=(Sighting(abundance="some", prey="chironomid-pupa"),),
        )  # fmt: skip
        for s in some(make_plan(made).set_ups):
            self.assertLessEqual(len(s.flies), most or 2)
            self.assertFalse(floats is False and s.float_hang_m is not None)
            self.assertFalse(droppers is False and len(s.flies) > 1)
            self.assertFalse(sinking is False and s.line.family != "floating")
            self.assertLessEqual(s.target_m, bed + 1e-6)
            self.assertFalse(schools["moving"] == "static" and s.retrieve.kind != "static")
            self.assertFalse(schools["moving"] == "active" and s.retrieve.kind == "static")

    def test_nothing_read_still_plans_and_says_what_was_guessed(self):
        plan = make_plan(day(reading=Reading(), place=None))
        self.assertTrue(plan.set_ups)
        self.assertIn("temperature", plan.guessed)


class Leaders(unittest.TestCase):
    def test_another_length_of_leader(self):
        # Trade: a short leader on a fast line keeps the fly near it; a long one lets it lag behind.
        _, own = hand_made(
            HandMade(line="t3", flies=(PUPA,), count_s=20, leader_m=1.5),
            HandMade(line="t3", flies=(PUPA,), count_s=20, leader_m=5.0),
        )
        self.assertAlmostEqual(own[0].leader.length_m, 1.5)
        self.assertAlmostEqual(own[1].flies[-1].from_line_m, 5.0)
        self.assertGreater(own[0].flies[-1].depth_m, own[1].flies[-1].depth_m)

    def test_too_short_for_its_flies_is_refused_in_words(self):
        plan, own = hand_made(HandMade(line="t3", flies=(PUPA, LEECH), leader_m=1.0))
        self.assertEqual(own, [])
        self.assertIn("at least", next(r.reason for r in plan.ruled_out if r.by_hand == 0))

    def test_styles_keep_their_leader(self):
        deep, buoyant = (
            HandMade(line="tip", flies=(PUPA,), style="tip-deep"),
            HandMade(line="intermediate", flies=(PUPA,), style="up-slope"),
        )
        _, own = hand_made(deep, buoyant)
        self.assertAlmostEqual(own[0].leader.length_m, 18 * 0.3048)
        self.assertEqual([s.style for s in own], ["tip-deep", "up-slope"])
        with self.assertRaises(InputError):
            hand_made(HandMade(line="t3", flies=(PUPA,), style="upside-down"))

    def test_straight_down_and_trailed_by_hand(self):
        # What is let out hangs straight down under an anchored boat: its depth is what was let out (handbook §5).
        boat = Angler(afloat=True)
        shallow, deep = (HandMade(line="t3", flies=(LEECH,), style="dangle", let_down_m=m) for m in (3.5, 4.5))
        trailed = HandMade(line="intermediate", flies=(PUPA,), style="drifted")
        _, own = hand_made(shallow, deep, trailed, angler=boat)
        self.assertEqual([s.style for s in own], ["dangle", "dangle", "drifted"])
        self.assertEqual([s.flies[0].fly.key for s in own], [LEECH, LEECH, PUPA])
        for s, let_down in zip(own[:2], (3.5, 4.5), strict=True):
            self.assertAlmostEqual(s.estimate_m, let_down, delta=0.2)
            self.assertIn(f"{let_down:.1f} m", s.retrieve.words)

    def test_straight_down_by_hand_is_refused_from_the_bank_and_into_the_bed(self):
        for angler, let_down, word in ((Angler(), 4.0, "boat"), (Angler(afloat=True), 12.0, "let down")):
            plan, own = hand_made(
                HandMade(line="t3", flies=(LEECH,), style="dangle", let_down_m=let_down), angler=angler
            )
            self.assertEqual(own, [])
            self.assertIn(word, next(r.reason for r in plan.ruled_out if r.by_hand == 0))

    def test_every_set_up_draws_its_flies_paths(self):
        for s in some(make_plan(day(rules=Rules(max_flies=3), angler=Angler(afloat=True))).set_ups):
            self.assertEqual([t.position for t in s.tracks], [f.position for f in s.flies])
            for track in s.tracks:
                times, depths = zip(*track.points, strict=True)
                self.assertEqual(list(times), sorted(times))
                self.assertTrue(all(0 <= d <= 5.5 for d in depths))
