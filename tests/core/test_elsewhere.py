"""A set-up for a second place. Common practice: begin where most fish are thought to be, and have one thing ready for the next-best place."""

import unittest
from dataclasses import replace

from stillthread.core.noted.reading import Reading
from stillthread.core.noted.water import Place
from stillthread.core.outing.from_plan import Doings
from stillthread.core.plan.elsewhere import BESIDE_FIRST, FAIR_SHARE, with_elsewhere
from stillthread.core.plan.make import day_context, make_plan
from stillthread.core.search.model import CELL_M
from stillthread.core.water.profile import Point
from tests.days import day as a_day

SHORE = {"facing_deg": 180.0}
TWINS = (
    Place(name="East shelf", kind="drop-off", depth_min_m=2.0, depth_max_m=5.0, **SHORE),
    Place(name="West shelf", kind="drop-off", depth_min_m=1.5, depth_max_m=4.0, **SHORE),
)
COOL = Reading(
    profile=tuple(Point(float(z), 12.0 - 0.4 * z) for z in range(5)), wind_m_s=3.0, clarity="clear", cloud_oktas=6
)


def two_places(**other):
    one = a_day(place=None, reading=COOL, **other)
    return replace(one, water=replace(one.water, max_depth_m=6.0, places=TWINS))


class Elsewhere(unittest.TestCase):
    def test_two_shelves_alike_each_have_a_set_up_and_the_first_keeps_the_front(self):
        day = two_places()
        _, beliefs = day_context(day)
        first, second = sorted(beliefs, key=lambda one: -one.share)
        self.assertGreaterEqual(second.share, max(FAIR_SHARE, BESIDE_FIRST * first.share))
        plan = make_plan(day)
        places = [one.place for one in plan.set_ups]
        self.assertEqual(places[:2], [first.place.name] * 2)
        self.assertEqual(places.count(second.place.name), 1)
        self.assertTrue(2 <= len(places) <= 4)
        self.assertEqual(len({one.key for one in plan.set_ups}), len(places))
        worth = [one.relative for one in plan.set_ups]
        self.assertEqual(worth, sorted(worth, reverse=True))

    def test_its_numbers_and_reasons_are_of_its_own_place(self):
        plan = make_plan(two_places())
        there = next(one for one in plan.set_ups if one.elsewhere)
        belief = next(b for b in plan.beliefs if b.place.name == there.place)
        self.assertLessEqual(there.deepest_m or there.high_m, belief.bed_m)
        own = {factor.sentence for factor in belief.factors}
        told = [one.sentence for one in there.reasons if one.factor in {factor.name for factor in belief.factors}]
        self.assertTrue(told)
        self.assertLessEqual(set(told), own)

    def test_the_steps_of_the_first_place_say_where_to_move(self):
        plan = make_plan(two_places())
        there = next(one for one in plan.set_ups if one.elsewhere)
        steps = plan.set_ups[0].changes.nothing
        self.assertIn(f"Then move to {there.place}: {there.title}.", steps)
        # One thing at a time: the first place's other ways come before the move.
        self.assertIn(plan.set_ups[1].title, steps[-2])

    def test_where_the_angler_has_named_the_place_all_is_laid_out_for_it(self):
        day = two_places()
        plan = make_plan(replace(day, place="West shelf"))
        self.assertEqual({one.place for one in plan.set_ups}, {"West shelf"})

    def test_a_place_that_holds_little_has_none(self):
        day = two_places()
        puddle = Place(name="West shelf", kind="open-water", depth_min_m=0.3, depth_max_m=0.6, **SHORE)
        plan = make_plan(replace(day, water=replace(day.water, places=(TWINS[0], puddle))))
        shares = {b.place.name: b.share for b in plan.beliefs}
        self.assertLess(shares["West shelf"], BESIDE_FIRST * shares["East shelf"])
        self.assertEqual({one.place for one in plan.set_ups}, {"East shelf"})

    def test_what_is_made_by_hand_stays_at_the_first_place(self):
        plan = make_plan(two_places())
        self.assertFalse([one for one in plan.set_ups if one.by_hand is not None and one.elsewhere])

    def test_wading_is_minded_where_only_the_second_place_is_waded(self):
        day = two_places()
        mouth = replace(TWINS[1], kind="inlet")
        shore = replace(day, water=replace(day.water, places=(TWINS[0], mouth)))
        plan = make_plan(shore)
        self.assertEqual(plan.chosen.place.name, "East shelf")
        self.assertIn("West shelf", {one.place for one in plan.set_ups})
        self.assertIn("wading", {one.code for one in plan.cautions})
        named = make_plan(replace(shore, place="East shelf"))
        self.assertNotIn("wading", {one.code for one in named.cautions})

    def test_the_search_has_it_at_its_own_depth_over_its_own_bed(self):
        day = two_places()
        context, _ = day_context(day)
        plan = make_plan(day)
        there = next(one for one in plan.set_ups if one.elsewhere)
        bed_m = next(b.bed_m for b in plan.beliefs if b.place.name == there.place)
        self.assertGreater(bed_m, context.bed_m)  # a path laid on the first place's bed would end there
        deep = {"target_m": 4.4, "estimate_m": 4.4, "float_hang_m": 4.4, "ladder": (), "rig": None, "cast": None}
        doings = Doings(replace(plan, set_ups=(replace(there, **deep),)), context)
        own = [one for one in doings.all if one.set_up.key == there.key]
        self.assertEqual({one.place for one in own}, {there.place})
        exposure = next(one for one in own if one.hang_m == 4.4).candidate.exposure
        mean_m = sum((cell + 0.5) * CELL_M * share for cell, share in enumerate(exposure))
        self.assertAlmostEqual(mean_m, 4.4, delta=0.2)

    def test_it_never_stands_above_what_is_begun_with_however_it_is_rated(self):
        shown = list(make_plan(replace(two_places(), place="East shelf")).set_ups)
        best = replace(shown[0], relative=50.0, elsewhere=True, place="West shelf")
        both = with_elsewhere(shown, [best], share=1.0, session_h=4.0)
        self.assertEqual([one.place for one in both[:2]], ["East shelf"] * 2)
        self.assertEqual(both[2].place, "West shelf")
        self.assertLessEqual(both[2].relative, both[1].relative)
        self.assertLessEqual(len(both), 4)
        self.assertEqual(with_elsewhere(shown, [replace(best, relative=1e-6)], share=1.0, session_h=4.0), shown)
