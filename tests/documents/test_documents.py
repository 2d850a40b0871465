"""Strict documents and the way between the plan document and the core's values."""

import json
import pathlib
import unittest
from dataclasses import replace

from stillthread.core.errors import InputError, Problem
from stillthread.core.noted.reading import Reading
from stillthread.core.plan.make import make_plan
from stillthread.documents import plan as c
from stillthread.documents.plan import plan_input_from
from stillthread.documents.plan_answer import PlanAnswer, plan_answer
from stillthread.documents.strict import Strict, parse_document
from tests.checks import some
from tests.days import SUMMER, day

EXAMPLE = pathlib.Path(__file__).resolve().parents[2] / "docs" / "examples" / "day.json"


class Small(Strict):
    number: float
    words: list[str] = []


class Strictness(unittest.TestCase):
    def codes(self, text):
        with self.assertRaises(InputError) as caught:
            parse_document(Small, text)
        return {p.path: p.code for p in caught.exception.problems}

    def test_what_is_good_passes(self):
        self.assertEqual(parse_document(Small, '{"number": 3, "words": ["a"]}').number, 3)

    def test_text_is_no_number(self):
        self.assertIn("number", self.codes('{"number": "3"}'))

    def test_each_kind_of_fault_has_its_code(self):
        self.assertEqual(self.codes("{}"), {"number": "missing"})
        self.assertEqual(self.codes('{"number": 1, "extra": 2}'), {"extra": "unknown_field"})
        self.assertEqual(self.codes('{"number": NaN}'), {"number": "not_a_number"})
        self.assertEqual(self.codes('{"number": -Infinity}'), {"number": "not_a_number"})
        self.assertEqual(self.codes('{"number": 1, "words": ["a", 3]}'), {"words[1]": "string_type"})
        self.assertEqual(self.codes("[1,"), {"": "not_json"})
        self.assertEqual(self.codes(""), {"": "not_json"})

    def test_long_values_are_not_repeated_at_length(self):
        with self.assertRaises(InputError) as caught:
            parse_document(Small, json.dumps({"number": "x" * 500}))
        self.assertLess(len(caught.exception.problems[0].message), 120)


class Errors(unittest.TestCase):
    def test_one_or_many(self):
        one = Problem("code", "field", "What was wrong.", "what is right")
        self.assertEqual(InputError(one).problems, [one])
        self.assertEqual(str(InputError([one, one])), "field: What was wrong.; field: What was wrong.")

    def test_moved_below_a_prefix(self):
        moved = InputError([Problem("c", "wind", "m"), Problem("c", "", "m")]).under("reading")
        self.assertEqual([p.path for p in moved.problems], ["reading.wind", "reading"])

    def test_as_plain_data(self):
        self.assertEqual(set(Problem("c", "p", "m").as_dict()), {"code", "path", "message", "accepted", "hint"})


class Values(unittest.TestCase):
    def setUp(self):
        self.request = parse_document(c.PlanRequest, EXAMPLE.read_text("utf-8"))

    def test_nothing_is_lost_on_the_way_in(self):
        given = plan_input_from(self.request)
        self.assertEqual(len(given.reading.profile), len(self.request.reading.profile))
        self.assertEqual([line.key for line in given.lines], [line.key for line in self.request.tackle.lines])
        self.assertEqual([fly.name for fly in given.flies], [fly.name for fly in self.request.flies])
        self.assertEqual(given.rules.max_flies, 2)
        self.assertEqual(given.when.utcoffset().total_seconds(), 3600)

    def test_a_latitude_decides_the_hemisphere(self):
        south = replace(self.request.water, latitude_deg=-40.0, hemisphere="north")
        self.assertEqual(south.hemisphere, "south")

    def test_a_reading_keeps_what_was_left_out(self):
        empty = Reading()
        self.assertEqual((empty.profile, empty.wind_m_s, empty.clarity, empty.thunder), ((), None, None, False))

    def test_a_document_survives_its_own_json(self):
        again = parse_document(c.PlanRequest, self.request.model_dump_json())
        self.assertEqual(again, self.request)
        given = plan_input_from(self.request)
        answer = plan_answer(given, make_plan(given))
        self.assertEqual(PlanAnswer.model_validate_json(answer.model_dump_json()), answer)

    def test_the_answer_draws_the_curve_to_the_bed_and_says_where_it_is_a_guess(self):
        given = day(reading=SUMMER, place="Basin")
        curve = plan_answer(given, make_plan(given)).water.temperature
        self.assertEqual((curve.points[0].depth_m, curve.points[-1].depth_m), (0, 15.0))
        self.assertEqual(curve.measured_to_m, 12)

    def test_bands_lie_inside_one_another(self):
        given = day()
        for place in plan_answer(given, make_plan(given)).belief.places:
            half, most = place.bands
            self.assertLessEqual(half.bottom_m - half.top_m, most.bottom_m - most.top_m)
            self.assertTrue(0 <= half.top_m < half.bottom_m <= place.bed_m + 0.1)

    def test_sink_tables_start_at_the_surface_and_reach_the_count(self):
        given = day()
        for s in some(s for s in plan_answer(given, make_plan(given)).set_ups if s.count_s is not None):
            self.assertEqual(s.sink_table[0].t_s, 0)
            self.assertGreaterEqual(s.sink_table[-1].t_s, s.count_s)
            at = next(row for row in s.sink_table if row.t_s == s.count_s)
            self.assertTrue(at.low_m <= at.depth_m <= at.high_m)
