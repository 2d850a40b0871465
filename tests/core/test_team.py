"""Which fly goes where: the attractor's place, the weight on the point, and what speaks for each."""

import unittest
from dataclasses import replace
from datetime import UTC, datetime

from hypothesis import given
from hypothesis import strategies as st

from stillthread.core.flies.choose import FlyDay, Match, Wanted, rank_flies
from stillthread.core.flies.team import is_bright, order_team, place_flies, point_for
from stillthread.core.food.available import available_food
from stillthread.core.food.catalogue import BY_KEY
from stillthread.core.food.seen import Sighting
from stillthread.core.plan.make import make_plan
from stillthread.core.tackle.flies import STARTER_FLIES, Fly
from stillthread.core.tackle.fly_build import FlyBuild
from tests.days import day

NOON = datetime(2026, 5, 15, 12, tzinfo=UTC)
PUPA = BY_KEY["chironomid-pupa"]


def match(key, tone, score, weight="unweighted", prey=PUPA):
    return Match(Fly(key=key, name=key, prey=(prey.key,), hooks=(12,), tone=tone, weight=weight), prey, score)


DARK, NATURAL = match("dark", "dark", 0.5), match("natural", "natural", 0.4)
ORANGE, WHITE = match("orange", "bright", 0.3), match("white", "pale", 0.2)
HEAVY = match("heavy", "natural", 0.35, "weighted")
tones = st.sampled_from(["dark", "natural", "pale", "bright"])
some = st.lists(st.tuples(tones, st.floats(0.01, 1)), min_size=1, max_size=8)


def keys(team):
    return [m.fly.key for m in team]


class Order(unittest.TestCase):
    def test_without_an_attractor_the_best_fishes_the_point(self):
        self.assertEqual(keys(order_team([DARK, NATURAL], 2, None)), ["natural", "dark"])

    def test_bright_on_top_and_plain_on_the_point(self):
        # Trade: bright on the top dropper to attract, dark or natural on the point; large above, small natural below.
        self.assertEqual(keys(order_team([DARK, NATURAL, ORANGE], 2, "top")), ["orange", "dark"])
        self.assertEqual(keys(order_team([ORANGE, WHITE, DARK], 3, "top"))[-1], "dark")

    def test_the_other_school_fishes_it_on_the_point(self):
        self.assertEqual(keys(order_team([DARK, NATURAL, ORANGE], 2, "point")), ["dark", "orange"])

    def test_an_attractor_worth_nothing_stays_in_the_box(self):
        poor = replace(ORANGE, score=0.01)
        self.assertEqual(keys(order_team([DARK, NATURAL, poor], 2, "top")), ["natural", "dark"])

    def test_a_weighted_point_stays_there(self):
        # Trade: unweighted on droppers, weight on the point.
        self.assertEqual(keys(order_team([DARK, ORANGE], 3, "top", HEAVY)), ["orange", "dark", "heavy"])
        self.assertEqual(keys(order_team([DARK, ORANGE], 1, "top", HEAVY)), ["heavy"])
        self.assertEqual(keys(order_team([], 2, None, HEAVY)), ["heavy"])

    def test_the_point_is_plain_where_the_attractor_goes_on_top(self):
        self.assertEqual(point_for([ORANGE, DARK], "top").fly.key, "dark")
        self.assertEqual(point_for([ORANGE, DARK], "point").fly.key, "orange")
        self.assertEqual(point_for([ORANGE, replace(DARK, score=0.001)], "top").fly.key, "orange")

    @given(some, st.integers(1, 3), st.sampled_from([None, "top", "point"]), st.booleans())
    def test_never_more_than_asked_for_and_none_twice(self, rows, count, at, heavy):
        ranked = sorted((match(str(n), tone, score) for n, (tone, score) in enumerate(rows)), key=lambda m: -m.score)
        team = order_team(ranked, count, at, HEAVY if heavy else None)
        self.assertLessEqual(len(team), count)
        self.assertEqual(len(set(keys(team))), len(team))
        self.assertEqual(len(team), min(count, len(ranked) + heavy))
        if heavy:
            self.assertEqual(team[-1], HEAVY)
        bright = [is_bright(m) for m in team]
        if at == "top" and len(set(bright)) == 2 and not heavy:
            self.assertTrue(bright[0] and not bright[-1])


class Why(unittest.TestCase):
    def placed(self, team, at=None):
        return place_flies(
            team=team,
            at_m=tuple(float(n + 1) for n in range(len(team))),
            depths_m=(None,) * len(team),
            wary=False,
            attractor_at=at,
        )

    def test_each_fly_says_what_it_is_for_and_why_it_is_there(self):
        top, point = self.placed([ORANGE, HEAVY], "top")
        self.assertIn("draw them", top.why)
        self.assertIn("weight goes on the point", point.why)
        self.assertIn("chironomid pupa", point.why)
        self.assertEqual([f.position for f in (top, point)], ["dropper", "point"])

    def test_positions_by_number(self):
        self.assertEqual([f.position for f in self.placed([DARK])], ["point"])
        three = [f.position for f in self.placed([DARK, NATURAL, HEAVY])]
        self.assertEqual(three, ["top dropper", "middle dropper", "point"])


class Weights(unittest.TestCase):
    """What weighs on a fly besides its prey, one thing at a time."""

    def setUp(self):
        self.belief = make_plan(day()).chosen
        self.food = available_food(NOON, "north", 12.0, sightings=(Sighting(abundance="many", prey="chironomid-pupa"),))

    def rank(self, flies, wanted=("unweighted",), sink_m_s=None, **of_day):
        return rank_flies(
            flies=tuple(flies),
            food=self.food,
            belief=self.belief,
            depth_m=4.0,
            wanted=Wanted(wanted, sink_m_s=sink_m_s),
            day=FlyDay(**of_day),
        )

    def score(self, fly, **other):
        return self.rank([fly], **other)[0].score

    def fly(self, **other):
        return replace(
            Fly(
                key="pupa", name="Pupa", prey=("chironomid-pupa",), hooks=(12, 14), tone="natural", weight="unweighted"
            ),
            **other,
        )

    def test_a_hook_of_the_preys_size(self):
        self.assertGreater(self.score(self.fly()), self.score(self.fly(hooks=(4,))))
        told = self.rank([self.fly(hooks=(4,))])[0].why
        self.assertIn("18 to 10", " ".join(told))

    def test_the_last_one_counts_a_little_less_and_none_left_is_none(self):
        self.assertGreater(self.score(self.fly(stock=6)), self.score(self.fly(stock=1)))
        self.assertEqual(self.rank([self.fly(stock=0)]), [])

    def test_own_record(self):
        good = self.score(self.fly(), record={"Pupa": 1.3})
        poor = self.score(self.fly(), record={"Pupa": 0.8})
        self.assertGreater(good, self.score(self.fly()))
        self.assertLess(poor, self.score(self.fly()))
        held = self.score(self.fly(), record={"Pupa": 50.0})
        self.assertAlmostEqual(held / self.score(self.fly()), 1.35, places=6)

    def test_tones_by_light_and_water(self):
        # Trade: bold silhouettes in coloured water; natural and slim in clear; bright for fresh fish.
        tone = lambda name, **of_day: self.score(self.fly(tone=name), **of_day)  # noqa: E731
        self.assertGreater(tone("dark", clarity="coloured"), tone("natural", clarity="coloured"))
        self.assertGreater(tone("natural", clarity="gin-clear"), tone("bright", clarity="gin-clear"))
        self.assertGreater(tone("bright", stocked=True), tone("bright"))
        self.assertGreater(tone("dark", light=0.001), tone("bright", light=0.001))
        self.assertGreater(tone("bright", tone="bright"), tone("natural", tone="bright"))

    def test_a_fly_that_should_sink_quickly(self):
        quick = self.fly(weight="weighted", build=FlyBuild(hook=12, bead="tungsten", bead_mm=3.5))
        slow = self.fly(weight="weighted", build=FlyBuild(hook=12, bulk="bulky"))
        both = {"wanted": ("weighted",), "sink_m_s": 0.1}
        self.assertGreater(self.score(quick, **both), self.score(slow, **both))

    def test_for_the_biggest_a_big_mouthful(self):
        big, small = self.fly(prey=("leech",), hooks=(6,)), self.fly(prey=("leech",), hooks=(10,))
        self.assertGreater(self.score(big, aim="biggest"), self.score(small, aim="biggest"))
        self.assertEqual(self.score(big), self.score(small))

    def test_the_starter_box_has_an_answer_to_every_food(self):
        for key in BY_KEY:
            food = available_food(NOON, "north", 12.0, sightings=(Sighting(abundance="many", prey=key),))
            for surface in (False, True):
                wanted = Wanted(("unweighted", "weighted", "buoyant"), surface)
                ranked = rank_flies(
                    flies=STARTER_FLIES,
                    food=food,
                    belief=self.belief,
                    depth_m=0.0 if surface else 3.0,
                    wanted=wanted,
                    day=FlyDay(),
                )
                if any(m.prey.key == key for m in ranked):
                    break
            else:
                self.fail(f"nothing for {key}")
