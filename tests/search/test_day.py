"""`./still advise`: the document and its contract, what a day's stretches do to the advice, and what it may never say."""

import copy
import json
import pathlib
import unittest
from dataclasses import replace
from datetime import UTC, datetime, timedelta

import jsonschema
import numpy as np

from stillthread.core.day.given import Rules
from stillthread.core.errors import InputError
from stillthread.core.outing.day import advise
from stillthread.core.outing.from_plan import Doings
from stillthread.core.outing.so_far import Fished, Happening, Seen, SoFar
from stillthread.core.outing.words import Standing, said
from stillthread.core.plan.make import day_context, make_plan
from stillthread.core.search.evidence import Tally, better, evidence, more_takes_needed
from stillthread.core.search.model import Spell, Step
from stillthread.documents.advise import AdviseRequest, answer
from stillthread.documents.strict import parse_document
from tests.checks import some
from tests.days import SUMMER, UPLAND, day, profile
from tests.search.worlds import at

ROOT = pathlib.Path(__file__).resolve().parents[2]
EXAMPLE = json.loads((ROOT / "docs" / "examples" / "advise.json").read_text("utf-8"))
CONTRACTS = ROOT / "docs" / "contracts"
NOW = datetime(2026, 5, 14, 12, tzinfo=UTC)


def fished(start, minutes, *happened, **more):
    how = {
        "method": "float",
        "place": "Drop",
        "depth_m": 3.0,
        "low_m": 2.7,
        "high_m": 3.1,
        "flies": ("Slim ribbed pupa, olive",),
    }
    return Fished(
        began=NOW - timedelta(minutes=start),
        minutes=minutes,
        happened=tuple(Happening(minute, kind) for minute, kind in happened),
        **{**how, **more},
    )


def asked(*stretches, given=None, **more):
    return advise(given or day(when=NOW), SoFar(now=NOW, fished=stretches, **more))


class Document(unittest.TestCase):
    def test_the_example_keeps_both_contracts(self):
        jsonschema.validate(EXAMPLE, json.loads((CONTRACTS / "advise.schema.json").read_text("utf-8")))
        told = answer(parse_document(AdviseRequest, json.dumps(EXAMPLE))).model_dump(mode="json")
        jsonschema.validate(told, json.loads((CONTRACTS / "advise-answer.schema.json").read_text("utf-8")))
        self.assertTrue(told["next"] and told["evidence"] and told["tried"])
        self.assertAlmostEqual(sum(sum(place["mass"]) for place in told["belief"]), 1.0, delta=0.02)
        for name, share in (("half", 0.5), ("band", 0.8)):
            here = next(place["mass"] for place in told["belief"] if place["place"] == told["place"])
            low, high = (round(told[f"{name}_{end}_m"] / 0.2) for end in ("top", "bottom"))
            self.assertGreaterEqual(sum(here[low:high]) / sum(here), share - 0.01)
            self.assertLess(sum(here[low + 1 : high]) / sum(here), share + 0.01)

    def test_each_fault_at_its_path(self):
        for path, change in (
            ("fished[0].minutes", lambda d: d["fished"][0].update(minutes=-1)),
            ("fished[0].happened[0].kind", lambda d: d["fished"][0]["happened"][0].update(kind="bite")),
            ("others[0].takes", lambda d: d["others"][0].update(takes=-2)),
            ("costs.fly", lambda d: d.update(costs={"fly": -1})),
            ("plan.tackle.lines", lambda d: d["plan"]["tackle"].update(lines=[])),
            ("now", lambda d: d.pop("now")),
        ):
            bad = copy.deepcopy(EXAMPLE)
            change(bad)
            with self.subTest(path), self.assertRaises(InputError) as caught:
                parse_document(AdviseRequest, json.dumps(bad))
            self.assertIn(path, [problem.path for problem in caught.exception.problems])


class Days(unittest.TestCase):
    def test_what_takes_is_kept(self):
        told = asked(fished(40, 40, (20, "take"), (36, "take")))
        self.assertEqual(told.next[0].kind, "stay")

    def test_a_long_blank_leaves(self):
        told = asked(fished(170, 170))
        self.assertNotEqual(told.next[0].kind, "stay")
        self.assertGreater(told.next[0].chance, told.next[0].chance_now)

    def test_no_choice_is_shown_twice(self):
        for stretches in ((), (fished(75, 75),), (fished(170, 90), fished(80, 80, method="nymphs", depth_m=1.1))):
            told = [step.words for step in asked(*stretches).next]
            self.assertEqual(len(told), len(set(told)), told)

    def test_the_same_day_gives_the_same_advice_in_any_order(self):
        a, b = fished(90, 40, (10, "take")), fished(45, 45, depth_m=4.5, low_m=4.2, high_m=4.6)
        first, second = asked(a, b), asked(b, a)
        self.assertEqual([s.words for s in first.next], [s.words for s in second.next])
        self.assertEqual(first.mass, second.mass)

    def test_takes_move_the_belief_to_their_depth(self):
        def share(advice):
            mass = np.array(advice.mass[advice.places.index("Drop")])
            z = (np.arange(len(mass)) + 0.5) * 0.2
            return mass[(z > 1.0) & (z < 2.6)].sum() / mass.sum()

        none = asked(fished(30, 30, depth_m=1.8, low_m=1.6, high_m=2.0))
        two = asked(fished(30, 30, (10, "take"), (25, "take"), depth_m=1.8, low_m=1.6, high_m=2.0))
        self.assertGreater(share(two), share(none))

    def test_what_was_before_a_change_says_less(self):
        blank = fished(120, 90)
        fresh, told = asked(), asked(blank)
        changed = asked(blank, changed=(NOW - timedelta(minutes=20),))
        far = [abs(np.array(one.mass[0]) - np.array(fresh.mass[0])).sum() for one in (changed, told)]
        self.assertLess(far[0], far[1])

    def test_a_neighbours_takes_count_half(self):
        seen = Seen(at=NOW - timedelta(minutes=40), minutes=30, takes=2, place="Drop", depth_m=1.5, pace="static")
        own = fished(40, 30, (10, "take"), (20, "take"), depth_m=1.5, low_m=1.0, high_m=2.0)
        z = slice(5, 10)
        base, half, whole = (
            sum(one.mass[one.places.index("Drop")][z]) for one in (asked(), asked(others=(seen,)), asked(own))
        )
        self.assertLess(base, half)
        self.assertLess(half, whole)

    def test_where_others_take_is_gone_to_though_no_set_up_of_the_plan_suits_it(self):
        own = fished(60, 60, depth_m=4.8, low_m=4.6, high_m=4.9)
        plain = asked(own)
        self.assertFalse(any(one.place == "Margin" for one in plain.plan.set_ups))
        seen = Seen(at=NOW - timedelta(minutes=10), minutes=30, takes=4, place="Margin", depth_m=1.0)
        told = asked(own, others=(seen,))
        first = told.next[0]
        self.assertEqual((first.kind, first.doing.place), ("place", "Margin"))
        self.assertLess(first.doing.depth_m, next(b.bed_m for b in told.plan.beliefs if b.place.name == "Margin"))
        self.assertIn("Others were seen to take 4 there in 30 min.", first.reasons)

    def test_a_shoal_that_has_gone_is_left_within_the_hour_and_its_chance_sinks_meanwhile(self):
        # the trade: four fish in half an hour, then an hour without: nobody stays as they are
        chances = []
        for minutes in (40, 60, 90):
            doc = copy.deepcopy(EXAMPLE)
            marks = [{"minute": minute, "kind": "take"} for minute in (5, 12, 20, 28)]
            how = {"depth_m": 3.0, "flies": ["Slim ribbed pupa, olive"], "happened": marks}
            doc["fished"] = [{**doc["fished"][0], "minutes": minutes, **how}]
            doc["now"] = f"2026-05-14T{9 + minutes // 60:02d}:{minutes % 60:02d}:00+01:00"
            doc["others"], doc["changes"] = [], []
            told = answer(parse_document(AdviseRequest, json.dumps(doc))).next
            chances.append(told[0].chance_now)
        self.assertNotEqual(told[0].kind, "stay")
        self.assertGreater(chances[0], chances[1])
        self.assertLess(chances[2], 0.6 * chances[0])

    def test_a_float_is_offered_at_any_depth_with_the_flies_that_hang_there(self):
        given = day(when=NOW)
        doings = Doings(make_plan(given), day_context(given)[0])
        hung = [one for one in doings.all if one.hang_m is not None and one.place == "Drop"]
        self.assertGreater(max(one.hang_m for one in hung) - min(one.hang_m for one in hung), 2.0)
        teams = {len(one.flies) for one in hung}
        self.assertEqual(min(teams), 1)
        self.assertGreater(max(teams), 1)
        for one in hung:
            at = one.set_up.leader.flies_at_m
            self.assertGreaterEqual(one.hang_m, min(0.6, one.set_up.float_hang_m))
            if len(one.flies) > 1:
                self.assertGreater(one.hang_m, at[-1] - at[0])

    def test_in_the_heat_nothing_is_offered_above_the_cool_water(self):
        # the trade: 18 to 20 °C is a caution for rainbow trout: only the cool depths are fished
        warm = replace(SUMMER, profile=profile((0, 19.4), (3, 19.0), (5, 15.0), (8, 11.0)), water_depth_m=None)
        given = day(when=NOW, reading=warm, place="Basin")
        doings = Doings(make_plan(given), day_context(given)[0])
        self.assertTrue(doings.all)
        for one in doings.all:
            self.assertLess(doings.context.water_c(one.depth_m), 18.1, one.candidate.key)

    def test_what_is_less_likely_at_once_says_what_for(self):
        given = day(when=NOW)
        doings = Doings(make_plan(given), day_context(given)[0])
        here, there = doings.all[0].candidate, doings.all[-1].candidate
        step = Step("set-up", there, 10.0, 2.0, 6.0, chance=0.2, rate_per_h=1.3, found_per_h=5.6)
        reasons = said(step, Standing(here, chance=0.3, found_per_h=4.7), doings).reasons
        self.assertTrue(any("promise more there: 5.6 an hour, here 4.7" in why for why in reasons), reasons)
        richer = said(step, Standing(here, chance=0.3, found_per_h=6.0), doings).reasons
        self.assertFalse(any("promise more" in why for why in richer), richer)

    def test_a_partner_is_left_to_try_what_they_fish(self):
        def beside(*happened, ago=20, minutes=20):
            return fished(ago, minutes, *happened, partner=True, depth_m=4.8, low_m=4.6, high_m=4.9)

        mine = fished(50, 50)
        told = asked(mine, beside())
        self.assertEqual(len(told.tried), 2)
        self.assertTrue(any("two rods" in why for why in told.next[0].reasons), told.next[0].reasons)
        gone = asked(mine, beside(ago=50))
        self.assertFalse(any("partner" in why for why in gone.next[0].reasons), gone.next[0].reasons)

    def test_a_partner_who_takes_calls_the_other_over(self):
        def near(advice):
            mass = advice.mass[advice.places.index("Drop")]
            return sum(mass[22:27])

        mine = fished(50, 50)
        blank, taken = (
            asked(mine, fished(20, 20, *happened, partner=True, depth_m=4.8, low_m=4.6, high_m=4.9))
            for happened in ((), ((8, "take"), (15, "take")))
        )
        self.assertGreater(near(taken), near(blank))
        self.assertIn("Your partner took", taken.next[0].reasons[-1])
        self.assertTrue(any(abs(s.doing.depth_m - 4.8) < 0.9 for s in taken.next[:2] if s.doing), taken.next)

    def test_a_take_of_ones_own_is_not_said_to_be_the_partners(self):
        same = {"depth_m": 4.8, "low_m": 4.6, "high_m": 4.9}
        told = asked(fished(20, 20, (15, "take"), **same), fished(20, 20, partner=True, **same))
        self.assertFalse(any("partner" in why for step in told.next for why in step.reasons), told.next[0].reasons)


class Never(unittest.TestCase):
    def test_nothing_the_rules_forbid_or_that_cannot_be_landed_or_lies_below_the_bed(self):
        given = day(when=NOW, rules=Rules(max_flies=1, floats_allowed=False))
        kit = {fly.name for fly in given.flies}
        for stretches in ((), (fished(120, 120, method="nymphs"),)):
            for step in some(asked(*stretches, given=given).next):
                self.assertTrue(step.doing is None or step.doing.hang_m is None)
                if step.doing:
                    self.assertEqual(len(step.doing.flies), 1)
                    self.assertLessEqual(set(step.doing.flies), kit)
                    self.assertLessEqual(step.doing.depth_m, UPLAND.max_depth_m)

    def test_warm_water_ends_it_with_the_reason(self):
        hot = day(
            when=NOW,
            reading=SUMMER.__class__(profile=profile((0, 25.0), (3, 24.5), (5, 24.0)), water_depth_m=5.5),
            rules=Rules(release="catch-and-release"),
        )
        told = asked(given=hot)
        self.assertEqual([step.kind for step in told.next], ["stop"])
        self.assertIn("°C", told.stop)


class Evidence(unittest.TestCase):
    def test_the_chance_that_one_rate_is_higher_is_the_beta_distributions(self):
        from scipy.stats import beta  # the reference library

        for a, b in (((3, 60), (1, 60)), ((0, 30), (5, 90)), ((7, 45), (2, 80)), ((0, 20), (0, 20))):
            first, second = Tally("a", *a, 2), Tally("b", *b, 2)
            expected = beta.cdf(b[1] / (a[1] + b[1]), b[0] + 0.5, a[0] + 0.5)
            self.assertAlmostEqual(better(first, second), expected, places=4)

    def test_equal_flies_are_not_told_apart(self):
        rng = np.random.default_rng(3)
        claimed = 0
        for _ in range(300):
            spells = [Spell(at(2.0, kind="ab"[n % 2]), 30.0, takes=int(rng.poisson(1.0))) for n in range(8)]
            claimed += any("is better than" in line for line in evidence(spells))
        self.assertLess(claimed / 300, 0.06)  # sure at 97.5 % either way

    def test_a_steady_difference_is_told_and_one_fish_is_none(self):
        good = [Spell(at(2.0, kind="ab"[n % 2]), 30.0, takes=0 if n % 2 else 2) for n in range(8)]
        self.assertIn("Fly: a is better than b today", " ".join(evidence(good)))
        one = [Spell(at(2.0, kind="a"), 30.0, 1), Spell(at(2.0, kind="b"), 30.0, 0)]
        self.assertIn("cannot tell yet", " ".join(evidence(one)))

    def test_not_fished_in_turn_is_said(self):
        blocks = [Spell(at(2.0, kind="a"), 120.0, 9), Spell(at(2.0, kind="b"), 120.0, 0)]
        self.assertIn("change back once", " ".join(evidence(blocks)))

    def test_how_many_more_it_would_need(self):
        more = more_takes_needed(Tally("a", 3, 60, 2), Tally("b", 1, 60, 2))
        self.assertGreater(more, 0)
        self.assertIsNone(more_takes_needed(Tally("a", 0, 60, 2), Tally("b", 0, 60, 2)))
