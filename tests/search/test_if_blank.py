"""What to do as long as nothing takes, worked out beforehand: it agrees with the advice of the moment it speaks of."""

import unittest
from dataclasses import replace
from datetime import timedelta

from stillthread.core.outing.day import advise
from stillthread.core.outing.if_blank import AHEAD_MIN, if_blank
from stillthread.core.outing.so_far import SoFar
from tests.days import day
from tests.search.test_day import NOW, fished


class Ahead(unittest.TestCase):
    def test_before_a_day_each_of_the_first_set_ups_has_its_way(self):
        given = day(when=NOW)
        found = if_blank(given, SoFar(now=NOW))
        self.assertTrue(1 <= len(found) <= 4)
        self.assertEqual(len({one.key for one in found}), len(found))
        for one in found:
            self.assertEqual(one.phases[0].doing.set_up.key, one.key)
            self.assertGreater(sum(phase.minutes for phase in one.phases), 30)

    def test_each_phase_leads_to_the_next(self):
        (found,) = if_blank(day(when=NOW), SoFar(now=NOW, fished=(fished(30, 30),)))
        self.assertEqual(found.key, "")
        for phase, following in zip(found.phases, found.phases[1:], strict=False):
            self.assertEqual(phase.next.doing, following.doing)
            self.assertNotEqual(phase.next.kind, "stay")
        gone = sum(phase.minutes + (phase.next.cost_min if phase.next else 0) for phase in found.phases)
        self.assertTrue(gone >= AHEAD_MIN or len(found.phases) == 10 or found.phases[-1].then is None)

    def test_it_says_what_the_advice_of_that_minute_says(self):
        given = day(when=NOW)
        blank = fished(0, 0)
        (found,) = if_blank(given, SoFar(now=NOW, fished=(blank,), minutes_left=240.0))
        first = found.phases[0]
        later = NOW + timedelta(minutes=first.minutes)
        then = replace(blank, minutes=first.minutes)
        told = advise(given, SoFar(now=later, fished=(then,), minutes_left=240.0 - first.minutes)).next[0]
        self.assertEqual((told.kind, told.words), (first.next.kind, first.next.words))

    def test_a_take_keeps_what_took_longer(self):
        (found,) = if_blank(day(when=NOW), SoFar(now=NOW, fished=(fished(40, 40),)))
        self.assertTrue(all(phase.after_take_min >= min(phase.minutes, 5) for phase in found.phases))
        self.assertTrue(any(phase.after_take_min > phase.minutes for phase in found.phases), found.phases)
