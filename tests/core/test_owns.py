"""What is carried beside lines and flies: a plan uses what is owned, and nothing else."""

import unittest
from dataclasses import replace

from stillthread.core.day.given import Angler, HandMade, Owns
from stillthread.core.day.schools import Schools
from stillthread.core.plan.make import day_context, make_plan
from tests.checks import some
from tests.days import FLOATING, MAY, day, profile

# Cold at the top: they lie at 4 m and more, beyond a rod's length.
DEEP = replace(MAY, profile=profile((0, 5.0), (2, 5.2), (4, 6.8), (5, 7.0)))


def owning(reading=MAY, schools=Schools(), by_hand=(), **owns):
    return day(angler=Angler(owns=Owns(**owns)), reading=reading, schools=schools, by_hand=by_hand, found_m=4.5)


def shallower(**owns):
    """A day on which nobody has found a depth yet: a float is hung as deep as it can be."""
    return replace(owning(DEEP, **owns), found_m=None)


def floats(plan):
    return [one for one in plan.set_ups if one.method == "float"]


def ruled_out(plan, word):
    return [one.reason for one in plan.ruled_out if word in one.reason]


class Floats(unittest.TestCase):
    def test_every_kind_carried_is_as_before(self):
        self.assertTrue(
            any(
                one.float_hang_m > 3.5 and one.float_kind in ("release", "sliding")
                for one in floats(make_plan(owning(DEEP)))
            )
        )

    def test_a_fixed_one_alone_hangs_no_deeper_than_can_be_landed(self):
        given = shallower(floats=("fixed",))
        plan, limit = make_plan(given), day_context(given)[0].landing_m
        for one in some(floats(plan)):
            self.assertTrue(one.float_hang_m <= limit and one.float_kind == "fixed")
            self.assertTrue(all(rung.float_hang_m <= limit + 1e-6 for rung in one.ladder))

    def test_without_a_float_none_is_planned_and_the_reason_is_the_kit(self):
        plan = make_plan(owning(floats=()))
        self.assertEqual(floats(plan), [])
        self.assertTrue(ruled_out(plan, "No float in your kit."))

    def test_by_hand_too_deep_for_the_only_one_carried(self):
        hand = HandMade(line=FLOATING.key, flies=("slim-pupa-black",), float_hang_m=4.5)
        hand = replace(hand, flies=(next(fly.key for fly in day().flies if not fly.surface),))
        plan = make_plan(owning(DEEP, floats=("fixed",), by_hand=(hand,)))
        self.assertTrue(ruled_out(plan, "cannot be landed, and you carry none that would give way"))
        self.assertTrue([one for one in make_plan(owning(DEEP, by_hand=(hand,))).set_ups if one.by_hand is not None])

    def test_only_sliding_ones_where_the_angler_never_slides(self):
        given = shallower(schools=Schools(sliding_float="never"), floats=("sliding", "fixed"))
        limit = day_context(given)[0].landing_m
        for one in some(floats(make_plan(given))):
            self.assertLessEqual(one.float_hang_m, limit)

    def test_a_sliding_one_that_does_not_slide_is_as_good_as_fixed(self):
        # Unweighted flies alone: nothing hangs below that would pull a leader through.
        given = shallower(floats=("sliding",))
        light = replace(given, flies=tuple(fly for fly in given.flies if fly.weight == "unweighted"))
        limit = day_context(light)[0].landing_m
        for one in some(floats(make_plan(light))):
            self.assertTrue(one.float_hang_m <= limit and one.float_kind == "fixed", (one.float_hang_m, one.float_kind))
            self.assertTrue(all(rung.float_hang_m <= limit + 1e-6 for rung in one.ladder))


class LeadersAndTippet(unittest.TestCase):
    def test_no_sinking_leader_is_planned_where_none_is_carried(self):
        only = (FLOATING,)
        with_one = make_plan(replace(owning(), lines=only))
        without = make_plan(replace(owning(sinking_leader=False), lines=only))
        self.assertFalse([one for one in without.set_ups if one.style == "sinking-leader"])
        self.assertTrue(ruled_out(without, "No sinking leader in your kit."))
        self.assertFalse(ruled_out(with_one, "No sinking leader in your kit."))

    def test_the_nearest_size_carried_and_the_stouter_of_two_as_near(self):
        usual = day_context(owning())[0].tippet_x
        for carried, expected in (((usual,), usual), ((1,), 1), ((5,), 5), ((usual - 1, usual + 1), usual - 1)):
            with self.subTest(carried):
                self.assertEqual(day_context(owning(tippets_x=carried))[0].tippet_x, expected)
