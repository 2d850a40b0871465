"""What may be changed, in what order, and how it is told: judged first as somebody in the boat would (facts of the trade)."""

import re
import unittest
from dataclasses import replace

import numpy as np

from stillthread.core.food.seen import SampleItem, Sighting, ThroatSample
from stillthread.core.outing.from_plan import Doings, pace_class
from stillthread.core.outing.words import in_words
from stillthread.core.plan.make import day_context, make_plan
from stillthread.core.search.advisor import NIPPED_FROM, REFUSED_FROM, Advisor
from stillthread.core.search.model import Spell, Step
from stillthread.core.search.varied import kind_of
from tests.days import MAY, day
from tests.search.test_day import NOW, asked, fished
from tests.search.worlds import KINDS, at, lake

WORMS = ThroatSample((SampleItem("chironomid-larva", 20, 14.0, "red"),))
DUNS = (Sighting(prey="mayfly", abundance="many", evidence="hatch"), Sighting(rise="sip", abundance="many"))


def doings_on(**more):
    given = day(when=NOW, **more)
    return Doings(make_plan(given), day_context(given)[0])


class Nipped(unittest.TestCase):
    """Swap the fly when they nip, the depth when they do nothing."""

    def first_change(self, *happened):
        told = asked(fished(25, 25, *happened)).next
        return next(one for one in told if one.kind != "stay")

    def test_plucks_keep_the_depth(self):
        one = self.first_change((6, "pluck"), (12, "pluck"), (19, "pluck"))
        self.assertLess(abs(one.doing.depth_m - 3.0), 0.4)
        self.assertIn(one.kind, ("fly", "pace"))

    def test_refused_again_and_again_it_is_changed(self):
        for touches, stays in ((0, True), (REFUSED_FROM, False)):
            one, other = at(2.0), at(2.0, kind="b")
            advisor = Advisor.start(lake(), KINDS, (one, other))
            advisor.observe(Spell(one, 12.0, follows=touches))
            self.assertEqual(advisor.advise(one)[0].kind == "stay", stays, touches)

    def test_nips_beside_a_take_say_that_the_fly_is_right(self):
        """Knocks and a landed fish on the same fly: the fly is right, hook better."""
        one, other = at(2.0), at(2.0, kind="b")
        advisor = Advisor.start(lake(), KINDS, (one, other))
        advisor.observe(Spell(one, 10.0, takes=1))
        advisor.observe(Spell(one, 20.0, plucks=REFUSED_FROM))
        self.assertTrue((advisor._nipped(one, np.array([0, 1]), np.array([True, False])) == 1.0).all())

    def test_another_rig_begins_its_own_count(self):
        here, deeper = at(2.0), at(3.0)
        advisor = Advisor.start(lake(), KINDS, (here, deeper))
        advisor.observe(Spell(here, 10.0, plucks=NIPPED_FROM))
        self.assertEqual(advisor._in_hand(here).touches, NIPPED_FROM)
        advisor.observe(Spell(deeper, 5.0))
        self.assertEqual(advisor._in_hand(deeper).touches, 0)


class CanBeChanged(unittest.TestCase):
    def test_a_food_of_the_day_has_a_fly_under_the_float(self):
        doings = doings_on()
        hung = [one for one in doings.all if one.set_up.method == "float"]
        stood_for = {food for one in hung for food in one.candidate.kinds}
        carried = {food for fly in doings.context.given.flies if not fly.surface for food in fly.prey}
        due = {kind.name for kind in doings.kinds if kind.share >= 0.05}
        self.assertLessEqual(due & carried, stood_for)

    def test_a_float_can_be_drawn_but_hangs_still_first(self):
        doings = doings_on()
        float_rig = next(one for one in doings.plan.set_ups if one.method == "float")
        mine = [one for one in doings.all if one.set_up is float_rig and one.hang_m == float_rig.float_hang_m]
        paces = {pace_class(one.pace): one for one in mine if one.flies == mine[0].flies}
        self.assertEqual(set(paces), {"static", "slow"})
        rates = Advisor.start(doings.belief, doings.kinds, [one.candidate for one in doings.all]).rates(
            [paces["static"].candidate, paces["slow"].candidate]
        )
        self.assertGreater(rates[0], rates[1])

    def test_another_pace_is_told_at_the_depth_it_fishes(self):
        """Slower pulls sink on: a pace is another depth, and none ends on the bed."""
        doings = doings_on()
        paced = [
            one
            for one in doings.all
            if one.count_s is not None and one.pace != one.set_up.retrieve.key and one.place == one.set_up.place
        ]
        self.assertTrue(paced)
        for one in paced:
            cells = one.candidate.exposure
            middle = sum((n + 0.5) * 0.2 * share for n, share in enumerate(cells)) / sum(cells)
            self.assertLess(abs(middle - one.depth_m), 0.5, one.candidate.key)
            self.assertLess(sum(cells[round(5.5 / 0.2) - 1 :]), 0.2, one.candidate.key)

    def test_with_no_time_to_move_what_the_rig_in_hand_can_do_is_among_the_choices(self):
        """With a quarter of an hour left nobody walks to another place: the float is moved, or the fly changed."""
        told = asked(fished(60, 60), minutes_left=15.0).next
        self.assertTrue({one.kind for one in told} & {"depth", "fly", "pace"})


class Told(unittest.TestCase):
    def setUp(self):
        self.doings = doings_on()

    def words(self, standing, other):
        step = Step(kind_of(standing.candidate, other.candidate), other.candidate, minutes=10.0, index=1.0, cost=0.0)
        return in_words(step, standing.candidate, self.doings)

    def ways(self, method):
        return [one for one in self.doings.all if one.set_up.method == method and one.place == one.set_up.place]

    def test_a_count_and_a_pace_changed_together_are_both_told(self):
        for standing in self.ways("intermediate") + self.ways("nymphs"):
            for other in self.ways(standing.set_up.method):
                both = other.count_s != standing.count_s and other.pace != standing.pace
                if other.set_up is standing.set_up and both and other.flies == standing.flies:
                    told = self.words(standing, other)
                    self.assertRegex(told, r"^Count \d+ → \d+ s: about \d\.\d m, \w+")

    def test_a_fly_and_a_float_changed_together_are_both_told(self):
        standing, *others = self.ways("float")
        other = next(one for one in others if one.flies[-1] != standing.flies[-1] and one.hang_m != standing.hang_m)
        self.assertIn(f"float at {other.hang_m:.1f} m", self.words(standing, other))

    def test_another_rig_comes_with_its_retrieve(self):
        standing = self.ways("float")[0]
        moving = next(one for one in self.doings.all if pace_class(one.pace) != "static" and one.count_s is not None)
        told = self.words(standing, moving)
        self.assertTrue(re.search("twist|pull|strips|roly", told, re.IGNORECASE), told)

    def test_a_pace_that_fishes_deeper_is_not_called_the_same_depth(self):
        told = {}
        for standing in self.doings.all:
            if standing.count_s is None or not standing.as_planned:
                continue
            for other in self.doings.all:
                alike = (
                    other.set_up is standing.set_up and other.flies == standing.flies and other.place == standing.place
                )
                if alike and other.pace != standing.pace and other.count_s == standing.count_s:
                    far = abs(other.depth_m - standing.depth_m) >= 0.3
                    told.setdefault(far, []).append(self.words(standing, other))
        self.assertTrue(told.get(True))
        self.assertFalse([words for words in told[True] if "Same depth" in words])
        self.assertFalse([words for words in told.get(False, []) if "Same depth" not in words])


class HowHighOverTheBed(unittest.TestCase):
    """A worm 10 to 15 cm off the bed, pupae 30 to 60 cm (common practice)."""

    def off_bed(self, bed, **more):
        reading = replace(MAY, water_depth_m=bed, profile=tuple(one for one in MAY.profile if one.depth_m <= bed))
        plan = make_plan(day(when=NOW, reading=reading, place="Drop", **more))
        return bed - next(one.float_hang_m for one in plan.set_ups if one.method == "float")

    def test_worms_hang_a_hand_off_the_mud(self):
        for bed in (3.0, 4.0, 5.5):
            self.assertTrue(0.1 - 1e-9 <= self.off_bed(bed, samples=(WORMS,)) <= 0.15 + 1e-9, bed)

    def test_pupae_a_foot_or_two(self):
        pupae = (Sighting(prey="chironomid-pupa", abundance="many", evidence="hatch"),)
        for bed in (4.0, 5.0, 5.5):
            self.assertTrue(0.3 - 1e-9 <= self.off_bed(bed, sightings=pupae) <= 0.6 + 1e-9, bed)

    def test_a_depth_found_and_fish_at_the_top_come_before_it(self):
        self.assertGreater(self.off_bed(5.0, samples=(WORMS,), found_m=1.5), 3.0)
        duns = make_plan(day(when=NOW, sightings=DUNS))
        self.assertNotIn("float", [one.method for one in duns.set_ups[:1]])


class Kept(unittest.TestCase):
    def test_happenings_of_another_set_up_do_not_speak_for_this(self):
        before = fished(50, 20, (5, "pluck"), (9, "pluck"), (15, "pluck"), depth_m=1.5, low_m=1.2, high_m=1.8)
        told = asked(before, fished(25, 25)).next
        self.assertFalse(any("plucks on this" in why for one in told for why in one.reasons))
