"""Days at the edges of what the contract takes: planned, or refused at the field with what is accepted; never a crash."""

import copy
import json
import pathlib
import unittest

from stillthread.cli.__main__ import COMMANDS
from stillthread.core.errors import InputError

EXAMPLES = pathlib.Path(__file__).resolve().parents[2] / "docs" / "examples"
DAY = json.loads((EXAMPLES / "day.json").read_text("utf-8"))
CAST = json.loads((EXAMPLES / "cast.json").read_text("utf-8"))
WATER = json.loads((EXAMPLES / "water.json").read_text("utf-8"))


def changed(document, changes):
    """The document with values put at dotted paths."""
    made = copy.deepcopy(document)
    for path, value in changes.items():
        *way, last = [int(part) if part.isdigit() else part for part in path.split(".")]
        part = made
        for name in way:
            part = part[name]
        if isinstance(part, list) and last == len(part):
            part.append(value)
        else:
            part[last] = value
    return made


class Edges(unittest.TestCase):
    def answer(self, command, document, changes):
        return json.loads(COMMANDS[command](json.dumps(changed(document, changes))))

    def refused(self, command, document, changes, path):
        with self.assertRaises(InputError) as told:
            self.answer(command, document, changes)
        problems = {problem.path: problem for problem in told.exception.problems}
        self.assertIn(path, problems)
        self.assertTrue(problems[path].accepted)

    def test_hooks_that_nobody_sells(self):
        for hook in (-4, 0, 3, 21):
            self.refused("plan", DAY, {"flies.0.hooks": [hook]}, "flies[0].hooks[0]")

    def test_the_ends_of_time(self):
        for when in ("0001-01-01T00:00:00+14:00", "9999-12-31T23:59:59-12:00", "1969-07-20T20:17:00Z"):
            self.refused("plan", DAY, {"when": when}, "when")
            self.refused("read", WATER, {"when": when}, "when")

    def test_two_of_one_key_or_name(self):
        lines, flies, places = DAY["tackle"]["lines"], DAY["flies"], DAY["water"]["places"]
        self.refused("plan", DAY, {f"flies.{len(flies)}": flies[0]}, f"flies[{len(flies)}].key")
        self.refused("plan", DAY, {f"tackle.lines.{len(lines)}": lines[0]}, f"tackle.lines[{len(lines)}].key")
        self.refused("plan", DAY, {f"water.places.{len(places)}": places[0]}, f"water.places[{len(places)}].name")

    def test_a_place_deeper_than_its_water(self):
        self.refused("plan", DAY, {"water.places.0.depth_max_m": 25}, "water.places[0].depth_max_m")

    def test_true_is_no_number(self):
        for path in (
            "water.max_depth_m",
            "reading.wind_m_s",
            "reading.cloud_oktas",
            "rules.max_flies",
            "angler.cast_m",
        ):
            self.refused("plan", {**DAY, "rules": {}}, {path: True}, path)

    def test_a_long_cast_and_deep_water_leave_a_day(self):
        for changes in (
            {"angler.cast_m": 45},
            {"angler.cast_m": 45, "angler.rod_m": 1.5},
            {"water.max_depth_m": 60, "water.places.0.depth_min_m": 20, "water.places.0.depth_max_m": 60},
        ):
            self.assertTrue(self.answer("plan", DAY, changes)["set_ups"])

    def test_air_too_thin_for_the_formula(self):
        for height in (-430, 4000, 6000):
            self.assertTrue(self.answer("read", WATER, {"water.elevation_m": height}))

    def test_a_drift_no_thread_stands(self):
        self.refused("simulate", CAST, {"drift_m_s": 3}, "drift_m_s")

    def test_a_floats_depth_is_where_the_fly_is(self):
        answer = self.answer("plan", DAY, {})
        hung = [one for one in answer["set_ups"] if one.get("float_hang_m") is not None]
        self.assertTrue(hung)
        for one in hung:
            self.assertLessEqual(one["low_m"], one["target_m"])
            self.assertLessEqual(one["target_m"], one["high_m"])
