"""Days of the trade as plan documents, each with the sensible answer beside it: depth band, methods, prey, limits; no exact scores.

Every file in tests/data/days is run; what an expectation may say is listed in `CHECKS`. The answers are the trade's (common
practice), not this program's.
"""

import json
import pathlib
import unittest
from functools import lru_cache

import numpy as np

from stillthread.core.plan.make import make_plan
from stillthread.documents.plan import PlanRequest, plan_input_from
from stillthread.documents.plan_answer import plan_answer
from stillthread.documents.strict import parse_document
from tests.checks import some

FOLDER = pathlib.Path(__file__).resolve().parents[1] / "data" / "days"
STAY_AWAY = ("16-twenty-one-to-return", "40-hot-pond-to-return")  # days on which nothing is offered
NAMES = sorted(p.stem for p in FOLDER.glob("*.json") if not p.stem.endswith(".expect"))


@lru_cache(maxsize=64)
def planned(name):
    document = parse_document(PlanRequest, (FOLDER / f"{name}.json").read_text("utf-8"))
    given = plan_input_from(document)
    return document, plan_answer(given, make_plan(given))


def chosen(answer):
    return next(p for p in answer.belief.places if p.place == answer.belief.chosen)


def middle(answer):
    place = chosen(answer)
    return float(np.average(place.depths_m, weights=place.mass))


def share_below(answer, depth_m):
    place = chosen(answer)
    return sum(m for z, m in zip(place.depths_m, place.mass, strict=True) if z > depth_m)


def flies_of(answer):
    return [f.key for s in answer.set_ups for f in s.flies]


def inside(test, value, band):
    test.assertTrue(band[0] <= value <= band[1], f"{value:.2f} is not in {band}")


def meets(test, wanted, found):
    test.assertTrue(set(wanted) & set(found), f"none of {wanted} among {sorted(set(found))}")


def outside(answer, band):
    """The set-ups whose point fly fishes nowhere in a band [m]."""
    return [s.title for s in answer.set_ups if not (s.low_m <= band[1] and s.high_m >= band[0])]


def tones(answer, document):
    by_key = {f.key: f.tone for f in document.flies}
    return [by_key[key] for key in flies_of(answer)]


CHECKS = {
    "peak_m": lambda t, a, d, v: inside(t, chosen(a).peak_m, v),
    "middle_m": lambda t, a, d, v: inside(t, middle(a), v),
    "most_below": lambda t, a, d, v: t.assertLessEqual(share_below(a, v[0]), v[1]),
    "methods_any": lambda t, a, d, v: meets(t, v, [s.method for s in a.set_ups]),
    "methods_not": lambda t, a, d, v: t.assertFalse(set(v) & {s.method for s in a.set_ups}),
    "prey_first": lambda t, a, d, v: t.assertIn(a.water.food[0].key, v),
    "prey_top3_any": lambda t, a, d, v: meets(t, v, [f.key for f in a.water.food[:3]]),
    "flies_any": lambda t, a, d, v: meets(t, v, flies_of(a)),
    "tones_any": lambda t, a, d, v: meets(t, v, tones(a, d)),
    "most_flies": lambda t, a, d, v: t.assertLessEqual(max(len(s.flies) for s in a.set_ups), v),
    "ruled_out_any": lambda t, a, d, v: meets(t, v, [r.kind for r in a.ruled_out]),
    "cautions_any": lambda t, a, d, v: meets(t, v, [c.code for c in a.cautions]),
    "stops_any": lambda t, a, d, v: meets(t, v, [c.code for c in a.cautions if c.level == "stop"]),
    "first_pace_any": lambda t, a, d, v: t.assertIn(a.set_ups[0].retrieve.kind, v),
    "no_set_ups": lambda t, a, d, v: t.assertEqual(a.set_ups, ()),
    "guessed_all": lambda t, a, d, v: t.assertLessEqual(set(v), set(a.guessed)),
    "half_band_at_least_m": lambda t, a, d, v: t.assertGreaterEqual(
        chosen(a).bands[0].bottom_m - chosen(a).bands[0].top_m, v
    ),
    "place_any": lambda t, a, d, v: t.assertIn(a.belief.chosen, v),
    "least_set_ups": lambda t, a, d, v: t.assertGreaterEqual(len(a.set_ups), v),
    "two_methods_any": lambda t, a, d, v: meets(t, v, [s.method for s in a.set_ups[:2]]),
    "two_methods_not": lambda t, a, d, v: t.assertFalse(set(v) & {s.method for s in a.set_ups[:2]}),
    "two_flies_any": lambda t, a, d, v: meets(t, v, [f.key for s in a.set_ups[:2] for f in s.flies]),
    "first_methods_any": lambda t, a, d, v: t.assertIn(a.set_ups[0].method, v),
    "first_flies_any": lambda t, a, d, v: meets(t, v, [f.key for f in a.set_ups[0].flies]),
    "never_methods": lambda t, a, d, v: t.assertFalse(set(v) & {s.method for s in a.set_ups}),
    "hooks_any": lambda t, a, d, v: meets(t, v, [f.hook for s in a.set_ups[:2] for f in s.flies]),
    "every_set_up_between": lambda t, a, d, v: t.assertEqual(outside(a, v), []),
    "shallower_than": lambda t, a, d, v: t.assertLess(middle(a), middle(planned(v)[1])),
    "deeper_than": lambda t, a, d, v: t.assertGreater(middle(a), middle(planned(v)[1])),
    "same_belief_as": lambda t, a, d, v: t.assertEqual(chosen(a).mass, chosen(planned(v)[1]).mass),
}


class Days(unittest.TestCase):
    def test_there_are_enough_of_them_and_each_has_its_answer(self):
        self.assertGreaterEqual(len(NAMES), 24)
        for name in NAMES:
            expected = json.loads((FOLDER / f"{name}.expect.json").read_text("utf-8"))
            with self.subTest(name):
                self.assertTrue(expected.pop("about"))
                self.assertTrue(expected)
                self.assertLessEqual(set(expected), set(CHECKS))

    def test_each_day_has_its_sensible_answer(self):
        for name in NAMES:
            document, answer = planned(name)
            expected = json.loads((FOLDER / f"{name}.expect.json").read_text("utf-8"))
            for what, value in expected.items():
                if what != "about":
                    with self.subTest(f"{name}: {what}"):
                        CHECKS[what](self, answer, document, value)

    def test_no_rule_is_ever_broken(self):
        for name in NAMES:
            document, answer = planned(name)
            rules = document.rules
            for s in answer.set_ups if name in STAY_AWAY else some(answer.set_ups):
                with self.subTest(f"{name}: {s.method}"):
                    self.assertLessEqual(len(s.flies), rules.max_flies or 10)
                    if rules.floats_allowed is False:
                        self.assertIsNone(s.float_hang_m)
                    bed = document.reading.water_depth_m or chosen(answer).bed_m
                    self.assertLessEqual(s.target_m, bed + 1e-6)

    def test_two_methods_at_least_wherever_there_is_a_choice(self):
        for name in NAMES:
            _, answer = planned(name)
            if answer.set_ups:
                with self.subTest(name):
                    self.assertGreaterEqual(len({s.method for s in answer.set_ups}), 2)
