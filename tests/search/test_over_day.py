"""The belief through a day: it begins as the plan's, keeps its mass, and moves where a fish took."""

import unittest
from datetime import timedelta

from stillthread.core.outing.day import advise
from stillthread.core.outing.over_day import over_the_day
from stillthread.core.outing.so_far import Fished, Happening, SoFar
from tests.days import day
from tests.search.test_day import NOW


def stretch(minutes, depth, began, *takes):
    return Fished(
        began=began,
        minutes=minutes,
        method="sinking",
        place="",
        depth_m=depth,
        low_m=depth - 0.4,
        high_m=depth + 0.4,
        happened=tuple(Happening(minute=at, kind="take") for at in takes),
    )


class OverTheDay(unittest.TestCase):
    BEGAN = NOW - timedelta(minutes=60)

    def told(self, *fished):
        return over_the_day(day(when=NOW), SoFar(now=NOW, fished=fished))

    def at(self, moment, depth):
        return sum(moment.mass[max(0, int(depth / 0.2) - 2) : int(depth / 0.2) + 3])

    def test_each_moment_is_a_belief_and_they_go_forward(self):
        found = self.told(stretch(40, 2.0, self.BEGAN), stretch(20, 3.0, self.BEGAN + timedelta(minutes=40)))
        self.assertEqual(len(found.moments), 7)  # the start, and every ten minutes
        times = [one.at for one in found.moments]
        self.assertEqual(times, sorted(times))
        self.assertEqual((times[0], times[-1]), (self.BEGAN, NOW))
        for one in found.moments:
            self.assertAlmostEqual(sum(one.mass), 1.0, places=9)

    def test_takes_draw_it_and_blanks_push_it_off(self):
        blank = self.told(stretch(60, 2.0, self.BEGAN)).moments
        taken = self.told(stretch(60, 2.0, self.BEGAN, 5.0, 15.0, 30.0)).moments
        self.assertLess(self.at(blank[-1], 2.0), self.at(blank[0], 2.0))
        self.assertGreater(self.at(taken[-1], 2.0), self.at(taken[0], 2.0))

    def test_it_ends_where_the_advice_stands(self):
        fished = (stretch(30, 2.0, self.BEGAN, 12.0),)
        found = self.told(*fished)
        now = advise(day(when=NOW), SoFar(now=NOW, fished=fished))
        here = now.mass[now.places.index(found.place)]
        for told, believed in zip(found.moments[-1].mass, here, strict=True):
            self.assertAlmostEqual(
                told, believed / sum(here), delta=0.004
            )  # cut in parts, the fish wander in smaller steps

    def test_what_was_advised_and_whether_it_was_done(self):
        long = self.told(stretch(60, 2.0, self.BEGAN)).chosen
        self.assertFalse(any(one.followed for one in long))  # an hour's blank: it was said to change, and was not done
        self.assertLessEqual(len(long), 2)
        for one in long:
            self.assertGreater(one.chance, one.chance_fished)
        again = self.told(
            stretch(20, 2.0, self.BEGAN, 18.0), stretch(20, 2.0, self.BEGAN + timedelta(minutes=20))
        ).chosen
        self.assertTrue(again[-1].followed)  # a fish took: stay, and so it was
        self.assertIn("Stay", again[-1].advised)

    def test_nothing_fished_tells_nothing(self):
        self.assertEqual(self.told().moments, ())
