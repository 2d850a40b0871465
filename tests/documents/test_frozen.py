"""Plans frozen by every version that was ever on main open under today's contract (tests/data/frozen, one for each)."""

import json
import pathlib
import unittest

from stillthread.documents.frozen import frozen_answer, frozen_request
from stillthread.documents.plan_answer import PlanAnswer

FROZEN = sorted((pathlib.Path(__file__).resolve().parents[1] / "data" / "frozen").glob("*.json"))


def read(path):
    return json.loads(path.read_text("utf-8"))


class EveryVersion(unittest.TestCase):
    def test_each_opens_with_all_its_set_ups(self):
        self.assertGreaterEqual(len(FROZEN), 5)
        for path in FROZEN:
            with self.subTest(path.stem):
                raw = read(path)
                answer = frozen_answer(raw)
                self.assertEqual([s.title for s in answer.set_ups], [s["title"] for s in raw["set_ups"]])
                self.assertEqual(answer.belief.chosen, raw["belief"]["chosen"])
                first = answer.water.temperature.points[0]
                self.assertEqual((first.depth_m, first.temperature_c), (0.0, 12.5))
                self.assertEqual(frozen_answer(answer.model_dump(mode="json")), answer)

    def test_the_first_version_needs_it(self):
        with self.assertRaises(ValueError):
            PlanAnswer.model_validate(read(next(path for path in FROZEN if path.stem == "first")))


class Broken(unittest.TestCase):
    def test_a_part_that_cannot_be_read_is_left_out(self):
        raw = read(FROZEN[0])
        raw["set_ups"][0]["line_title"] = 7
        raw["tomorrow"] = "a field of a later version"
        raw["set_ups"][1]["flies"][0]["barb"] = True
        answer = frozen_answer(raw)
        self.assertEqual([s.title for s in answer.set_ups], [raw["set_ups"][1]["title"]])

    def test_too_little_left_is_none(self):
        self.assertIsNone(frozen_answer({"version": 1}))
        self.assertIsNone(frozen_answer({"belief": 3, "set_ups": []}))
        self.assertIsNone(frozen_request({"version": 9}))
