"""What is tied on, where a day begins, and what ends it: judged first as somebody in the boat would, then asked (facts of the trade)."""

import unittest
from dataclasses import replace
from datetime import timedelta

import numpy as np

from stillthread.core.belief.factors import rises_factor
from stillthread.core.food.seen import Sighting
from stillthread.core.outing.day import advise, off_the_water
from stillthread.core.outing.from_plan import Doings
from stillthread.core.outing.if_blank import if_blank
from stillthread.core.outing.likeness import Likeness
from stillthread.core.outing.so_far import Fished, Happening, Seen, SoFar
from stillthread.core.outing.words import in_words
from stillthread.core.plan.make import day_context, make_plan
from stillthread.core.search import cells
from stillthread.core.search.advisor import Advisor
from stillthread.core.search.filters import RATES
from stillthread.core.search.model import Spell, Step
from stillthread.core.search.varied import kind_of, varied
from stillthread.documents.plan import PlanRequest, plan_input_from
from stillthread.documents.strict import parse_document
from tests.checks import some
from tests.days import MAY, SUMMER, day, profile
from tests.documents.test_scenario_days import FOLDER, NAMES, STAY_AWAY
from tests.search.test_day import NOW, asked, fished
from tests.search.worlds import KINDS, at, fleet, lake, plainly, prior

OLIVE, BLACK, EMERGER = "Slim ribbed pupa, olive", "Slim ribbed pupa, black", "Film emerger, grey"
GENERAL, LEECH = "Pheasant-tail nymph", "Marabou leech, black"
FOODS = frozenset({"chironomid-pupa", "mayfly", "leech", "scud"})


def likeness(proven=(), foods=FOODS, **reading):
    given = day(when=NOW, reading=replace(MAY, **reading))
    return Likeness(day_context(given)[0], foods, frozenset(proven))


def rates_of(doings, several):
    candidates = [one.candidate for one in several]
    return Advisor.start(doings.belief, doings.kinds, candidates).rates(candidates)


class Alike(unittest.TestCase):
    def test_a_fly_for_one_food_is_it_more_surely_than_one_for_several(self):
        told = likeness()
        self.assertEqual(told.of((OLIVE,)), {"chironomid-pupa": 1.0})
        general = told.of((GENERAL,))
        self.assertEqual(set(general), {"chironomid-pupa", "mayfly"})
        self.assertTrue(0.5 < general["chironomid-pupa"] < 1.0)
        alone = likeness(foods=frozenset({"mayfly", "leech"}))
        self.assertEqual(alone.of((GENERAL,)), {"mayfly": 1.0})  # no other of its foods is about

    def test_a_team_stands_for_what_each_of_its_flies_does(self):
        told = likeness().of((GENERAL, OLIVE))
        self.assertEqual(told["chironomid-pupa"], 1.0)
        self.assertLess(told["mayfly"], 1.0)
        above = likeness().of((OLIVE, LEECH))  # on a dropper it is a little less sure
        self.assertEqual(above["leech"], 1.0)
        self.assertTrue(0.8 < above["chironomid-pupa"] < 1.0)
        self.assertEqual(likeness(proven=(OLIVE,)).of((OLIVE, LEECH))["chironomid-pupa"], 1.0)

    def test_a_natural_fly_beside_a_bright_one_does_not_make_the_bright_one_show(self):
        told = likeness()
        bright = next(
            fly
            for fly in day(when=NOW).flies
            if fly.tone == "bright" and set(fly.prey) & {"daphnia", "stocked-instinct"}
        )
        lured = likeness(foods=frozenset({*bright.prey, "leech"}))
        self.assertLess(lured.shows((bright.name,)), 1.0)
        self.assertLess(lured.shows((bright.name, LEECH)), lured.shows((LEECH,)))
        self.assertEqual(told.shows((OLIVE,)), 1.0)
        self.assertEqual(likeness().of(("No such fly",)), {})

    def test_the_fly_that_took_is_more_surely_it_than_another_for_the_same_food(self):
        told = likeness(proven=(BLACK,))
        self.assertEqual(told.of((BLACK,))["chironomid-pupa"], 1.0)
        self.assertLess(told.of((OLIVE,))["chironomid-pupa"], 1.0)
        self.assertEqual(told.of((LEECH,)), {"leech": 1.0})
        self.assertEqual(told.shows((BLACK,)), 1.0)

    def test_what_took_comes_before_what_the_plan_ties_on(self):
        given = day(when=NOW)
        context, plan = day_context(given)[0], make_plan(given)
        float_rig = next(one for one in plan.set_ups if one.method == "float")
        other = some(float_rig.changes.next_flies)[0][0]
        for proven, more in ((frozenset(), False), (frozenset({other}), True)):
            doings = Doings(plan, context, proven=proven)
            here = [one for one in doings.all if one.set_up is float_rig and one.hang_m == float_rig.float_hang_m]
            rates = dict(zip([one.flies[-1] for one in here], rates_of(doings, here), strict=True))
            self.assertEqual(rates[other] > 1.01 * rates[float_rig.flies[-1].fly.name], more, rates)

    def test_one_fish_proves_nothing_nor_two_long_ago(self):
        def proven(*minutes, start=50):
            happened = tuple(Happening(m, "take") for m in minutes)
            return SoFar(now=NOW, fished=(replace(fished(start, 50), happened=happened),)).proven

        self.assertEqual(proven(10), frozenset())
        self.assertEqual(proven(10, 20), {OLIVE})
        self.assertEqual(proven(10, 20, start=100), frozenset())

    def test_dark_shows_in_coloured_water_and_natural_in_clear(self):
        coloured, clear = likeness(clarity="coloured"), likeness(clarity="clear")
        self.assertGreater(coloured.shows((BLACK,)), coloured.shows((OLIVE,)))
        self.assertLess(clear.shows((BLACK,)), clear.shows((OLIVE,)))
        self.assertEqual(clear.shows((BLACK, OLIVE)), clear.shows((OLIVE,)))

    def test_a_fly_in_the_film_is_right_among_many_that_rise_whatever_they_take(self):
        def emerger(count):
            sightings = (Sighting(rise="sip", abundance=count),) if count else ()
            context = day_context(day(when=NOW, sightings=sightings))[0]
            return Likeness(context, FOODS).of((EMERGER,)).get("scud", 0.0)

        self.assertEqual([emerger(None), emerger("few")], [0.0, 0.0])
        self.assertTrue(0.0 < emerger("some") < emerger("many") < 1.0)

    def test_a_sedge_refused_at_dusk_is_changed_for_something_smaller_in_the_film(self):
        name = "46-sedges-at-dusk-in-june"
        given = plan_input_from(parse_document(PlanRequest, (FOLDER / f"{name}.json").read_text("utf-8")))
        first = make_plan(given).set_ups[0]
        self.assertEqual(first.flies[-1].fly.prey, ("caddis",))
        refused = Fished(
            began=given.when,
            minutes=25,
            method="dry",
            set_up=first.key,
            depth_m=0.0,
            flies=(first.flies[-1].fly.name,),
            happened=tuple(Happening(minute, "pluck") for minute in (5, 9, 15, 22)),
        )
        now = given.when + timedelta(minutes=25)
        step = advise(replace(given, when=now), SoFar(now=now, fished=(refused,))).next[0]
        self.assertEqual((step.kind, step.doing.set_up.method), ("fly", "dry"), step.words)
        tied = next(fly for fly in given.flies if fly.name == step.doing.flies[-1])
        self.assertIn("chironomid-adult", tied.prey)


class HalfAlike(unittest.TestCase):
    """A fly that may be of a kind weighs as the mean of one that is and one that is not (law of total probability)."""

    def test_a_spell(self):
        said = (20.0, 1, 1, 0, 1.0)
        exposure = np.linspace(0, 0.7, 20)
        mixed = prior()
        told = cells.likelihoods(np.array(RATES), exposure, 2, np.array([*said, 0.3]))
        cells.weigh(mixed, told, 1, np.array([0.25, 0.0, 0.0]))
        whole, norm = plainly(prior(), exposure, 1, np.array([1.0, 0.0, 0.0]), 2, said)
        none, none_norm = plainly(prior(), exposure, 1, np.zeros(3), 2, said)
        expected = 0.25 * norm * whole + 0.75 * none_norm * none
        np.testing.assert_allclose(mixed, expected / expected.sum(), rtol=1e-9, atol=1e-15)

    def test_what_it_is_worth(self):
        rows = prior().reshape(2, 20, 3, -1)
        parts = [cells.gathered(rows, rows.sum(axis=0), np.array([w, 0.0, 0.0]), 0) for w in (0.25, 1.0, 0.0)]
        np.testing.assert_allclose(parts[0], 0.25 * parts[1] + 0.75 * parts[2], atol=1e-15)

    def test_the_advisor_takes_the_surer_fly_for_the_same_food(self):
        usual = at(3.0)
        unsure = replace(usual, key="unsure", fly="other", likeness=(0.6,))
        self.assertEqual(Advisor.start(lake(), KINDS, [unsure, usual]).advise()[0].candidate.key, usual.key)


class Begun(unittest.TestCase):
    def test_it_begins_with_what_the_plan_puts_first(self):
        for name in some([name for name in NAMES if name not in STAY_AWAY][::4]):
            given = plan_input_from(parse_document(PlanRequest, (FOLDER / f"{name}.json").read_text("utf-8")))
            plan = make_plan(given)
            step = advise(given, SoFar(now=given.when), plan=plan).next[0]
            with self.subTest(name):
                if off_the_water(plan, SoFar(now=given.when)):
                    self.assertEqual(step.kind, "stop")
                    continue
                self.assertTrue(step.doing.as_planned, step.words)
                self.assertEqual(step.doing.set_up.key, plan.set_ups[0].key)

    def test_what_the_plan_puts_later_is_worth_no_more_before_anything_is_fished(self):
        told = asked()
        steps = [one for one in told.next if one.doing.as_planned and not one.doing.set_up.elsewhere]
        order = [plan.key for plan in told.plan.set_ups]
        chances = [one.chance for one in sorted(steps, key=lambda one: order.index(one.doing.set_up.key))]
        self.assertEqual(chances, sorted(chances, reverse=True))

    def test_another_place_costs_the_way_from_where_one_is(self):
        day_there = Advisor.start(lake(shares=(0.3, 0.7)), KINDS, fleet())
        self.assertEqual(day_there.advise()[0].candidate.place, "There")
        day_there.at = "Here"
        costs = {one.candidate.place: one.cost for one in day_there.advise(most=20)}
        self.assertEqual(costs.get("Here", 0.0), 0.0)
        self.assertEqual(costs.get("There", day_there.costs.place), day_there.costs.place)

    def test_rises_seen_at_one_place_count_less_at_another(self):
        z, seen = np.arange(0.1, 4, 0.2), (Sighting(rise="sip", abundance="many"),)
        here, there = (rises_factor(z, seen, here=one).log_weight[0] for one in (True, False))
        self.assertTrue(here > there > 0)
        few = (Sighting(rise="sip", abundance="some"),)
        self.assertEqual(rises_factor(z, few, here=False).log_weight.max(), 0.0)

    def test_among_many_that_sip_the_dry_fly_comes_before_what_is_pulled_under_them(self):
        given = day(when=NOW, sightings=(Sighting(rise="sip", abundance="many"),))
        morning = (
            fished(160, 80, depth_m=4.5),
            fished(80, 75, method="sinking", depth_m=4.5, flies=(LEECH,), pace="hand-twist"),
        )
        first = asked(*morning, given=given).next[0]
        self.assertEqual(first.doing.set_up.method, "dry", first.words)


class Others(unittest.TestCase):
    def test_what_is_told_is_no_list_of_flies_for_one_rig(self):
        ranked = [at(3.0, kind=k, pace=p) for p in ("slow", "fast") for k in "ab"] + [
            at(2.0, method="float", pace="static")
        ]
        self.assertEqual(varied(ranked, 3), [0, 1, 4])
        self.assertEqual(varied(ranked[:4], 4), [0, 1, 2, 3])  # with nothing else all are told

    def test_a_partners_rig_is_told_as_it_is_fished_and_can_be_done(self):
        partner = fished(
            28,
            28,
            (8, "take"),
            (15, "take"),
            (24, "take"),
            partner=True,
            place="Margin",
            depth_m=1.5,
            low_m=1.3,
            high_m=1.6,
        )
        told = asked(fished(90, 90, depth_m=4.8, low_m=4.6, high_m=4.9, flies=("Beaded pupa, red rib",)), partner)
        for step in some(told.next):
            self.assertIsNotNone(step.doing if step.kind != "stay" else told.plan, step.words)
        first = told.next[0]
        self.assertEqual((first.kind, first.doing.place), ("place", "Margin"))
        self.assertIn(OLIVE, first.doing.flies)

    def test_hung_too_high_for_the_team_the_float_is_moved_and_the_point_fished_alone(self):
        given = day(when=NOW)
        doings = Doings(make_plan(given), day_context(given)[0])
        floats = [one for one in doings.all if one.hang_m is not None and one.place == "Drop"]
        team = next(one for one in floats if len(one.flies) > 1)
        alone = next(one for one in floats if one.flies == team.flies[-1:] and one.hang_m != team.hang_m)
        kind = kind_of(team.candidate, alone.candidate)
        self.assertEqual(kind, "depth")
        step = Step(kind, alone.candidate, 10.0, 1.0, 3.0)
        words = in_words(step, team.candidate, doings)
        self.assertEqual(words, f"Move the float: {alone.hang_m:.1f} m, the point alone.")

    def test_what_only_a_partner_carries_is_not_offered(self):
        theirs = "A fly of the partner's own"
        partner = fished(28, 28, (8, "take"), (15, "take"), partner=True, flies=(theirs,))
        told = asked(fished(90, 90, depth_m=4.8), partner)
        self.assertFalse(any(theirs in step.words or (step.doing and theirs in step.doing.flies) for step in told.next))


class Heeded(unittest.TestCase):
    def test_thunder_ends_it(self):
        told = asked(fished(60, 60, (30, "take")), given=day(when=NOW, reading=replace(MAY, thunder=True)))
        self.assertEqual([one.kind for one in told.next], ["stop"])
        self.assertEqual(told.next[0].words, told.stop)
        self.assertIn("Thunder", told.stop)

    def test_nothing_is_worked_out_for_the_dark_where_nobody_should_be_on_the_water(self):
        given = day(when=NOW)
        afloat = replace(given, angler=replace(given.angler, afloat=True))
        for found, reading in ((False, {"thunder": True}), (False, {"wind_m_s": 13.0}), (True, {})):
            one = replace(afloat, reading=replace(MAY, **reading))
            self.assertEqual(bool(if_blank(one, SoFar(now=NOW))), found, reading)

    def test_too_much_wind_for_a_boat_ends_it_and_nothing_else_is_advised(self):
        given = day(when=NOW, reading=replace(MAY, wind_m_s=13.0))
        seen = Seen(at=NOW - timedelta(minutes=10), minutes=30, takes=4, place="Margin", depth_m=1.0)
        told = asked(fished(90, 90), given=replace(given, angler=replace(given.angler, afloat=True)), others=(seen,))
        self.assertEqual([one.kind for one in told.next], ["stop"])
        self.assertIn("ashore", told.stop)
        ashore = asked(fished(90, 90), given=replace(given, angler=replace(given.angler, afloat=False)), others=(seen,))
        self.assertNotEqual(ashore.next[0].kind, "stop")

    def test_water_too_warm_to_return_fish_is_said_beside_the_step_where_they_may_be_kept(self):
        hot = replace(SUMMER, profile=profile((0, 23.0), (2, 22.4), (5, 21.2)), water_depth_m=5.5)
        first = asked(given=day(when=NOW, reading=hot)).next[0]
        self.assertNotEqual(first.kind, "stop")
        self.assertIn("°C", first.reasons[0])
        self.assertIn("keep", first.reasons[0])


class Reasons(unittest.TestCase):
    def told(self, *happened, **more):
        return asked(fished(40, 40, *happened, **more))

    def test_plucks_and_follows_without_a_take_speak_for_another_fly_at_the_depth(self):
        told = self.told((5, "pluck"), (12, "pluck"), (20, "follow"), (37, "pluck"))
        changes = [one for one in told.next if one.kind in ("fly", "pace") and one.doing.place == "Drop"]
        for one in some(changes):
            self.assertTrue(any("3 plucks and 1 follow on this and no take" in why for why in one.reasons), one.reasons)
        self.assertLess(abs(told.next[0].doing.depth_m - 3.0) if told.next[0].doing else 0.0, 1.0)

    def test_one_pluck_is_none(self):
        self.assertFalse(any("pluck" in why for one in self.told((5, "pluck")).next for why in one.reasons))

    def test_what_took_is_a_reason_to_stay(self):
        first = self.told((14, "take"), (26, "take")).next[0]
        self.assertEqual(first.kind, "stay")
        self.assertIn("2 took on this today.", first.reasons)


class OrADay(unittest.TestCase):
    def test_after_hours_without_a_fish_and_nothing_left_that_promises_one_it_says_so(self):
        def first(*stretches):
            return asked(*stretches, minutes_left=15.0).next[0]

        blank = [
            fished(300 - 60 * n, 55, depth_m=depth, low_m=depth - 0.3, high_m=depth + 0.3, place=place, flies=(fly,))
            for n, (depth, place, fly) in enumerate(
                (
                    (1.5, "Drop", OLIVE),
                    (3.0, "Drop", BLACK),
                    (4.6, "Drop", OLIVE),
                    (1.5, "Margin", BLACK),
                    (2.2, "Drop", LEECH),
                )
            )
        ]
        told = first(*blank)
        self.assertLess(told.chance, 0.03)
        self.assertIn("call it a day", told.reasons[-1])
        self.assertFalse(any("call it a day" in why for why in first(fished(60, 60)).reasons))


class Weighed(unittest.TestCase):
    def test_a_blank_with_an_unsure_fly_says_less_of_the_depth(self):
        def after(sure):
            one = Advisor.start(lake(), KINDS, fleet())
            one.observe(Spell(replace(at(3.0), likeness=(sure,)), 40.0))
            return one.by_depth()[0][15]

        self.assertLess(after(1.0), after(0.3))
