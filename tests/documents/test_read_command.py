"""`./still read`: the contract, the example, and every kind of bad input at its path."""

import copy
import io
import json
import pathlib
import unittest
from contextlib import redirect_stderr, redirect_stdout

import jsonschema

from stillthread.cli.__main__ import main
from stillthread.core.errors import InputError
from stillthread.core.reading.means import read_water
from stillthread.documents.read import ReadRequest, read_input_from
from stillthread.documents.read_answer import read_answer
from stillthread.documents.strict import parse_document

ROOT = pathlib.Path(__file__).resolve().parents[2]
EXAMPLE = ROOT / "docs" / "examples" / "water.json"
CONTRACTS = ROOT / "docs" / "contracts"
DAY = json.loads(EXAMPLE.read_text("utf-8"))


def read(document):
    text = document if isinstance(document, str) else json.dumps(document)
    given = read_input_from(parse_document(ReadRequest, text))
    return read_answer(given, read_water(given))


def changed(path, value):
    """The example with one value changed; `path` as in an error."""
    day = copy.deepcopy(DAY)
    at = day
    *way, last = path
    for step in way:
        at = at[step]
    at[last] = value
    return day


class Example(unittest.TestCase):
    def test_it_runs_and_keeps_both_contracts(self):
        jsonschema.validate(DAY, json.loads((CONTRACTS / "read.schema.json").read_text("utf-8")))
        out = io.StringIO()
        with redirect_stdout(out):
            self.assertEqual(main(["read", str(EXAMPLE)]), 0)
        told = json.loads(out.getvalue())
        jsonschema.validate(told, json.loads((CONTRACTS / "read-answer.schema.json").read_text("utf-8")))

    def test_what_the_answer_says_hangs_together(self):
        answer = read(DAY)
        count = len(answer.curves.depths_m)
        for curve in (answer.curves.temperature_c, answer.curves.oxygen_mg_l, answer.curves.saturation_mg_l):
            self.assertEqual(len(curve), count)
        self.assertEqual({len(s.appetite) for s in answer.species}, {count})
        # Beer-Lambert with 1.7 / Secchi depth (Poole & Atkins 1929, from memory): exp(-1.7) = 18.3 % at that depth.
        at = answer.curves.depths_m.index(3.4)
        self.assertAlmostEqual(answer.curves.light_share[at], 0.183, delta=0.001)
        self.assertTrue(answer.curves.light_low_share[at] < 0.183 < answer.curves.light_high_share[at])
        self.assertTrue(answer.layers.main.top_m < answer.layers.main.depth_m < answer.layers.main.bottom_m)
        self.assertAlmostEqual(sum(s.share for s in answer.food.shares), 1.0, delta=0.01)
        self.assertEqual([s.species for s in answer.species], ["rainbow", "brown"])
        self.assertTrue(answer.food.own_year)
        self.assertEqual(answer.light.now.look_deg, round((answer.light.now.azimuth_deg + 180) % 360))
        # At 310 m the air is thinner: saturation lies below the sea-level table's 9.15 mg/L at 19.6 °C (Benson & Krause).
        self.assertLess(answer.curves.saturation_mg_l[0], 9.1)

    def test_the_same_input_gives_the_same_answer(self):
        self.assertEqual(read(DAY), read(DAY))

    def test_with_nothing_but_a_water_it_says_what_it_lacks(self):
        bare = {"when": DAY["when"], "water": {k: DAY["water"][k] for k in ("name", "max_depth_m", "places")}}
        answer = read(bare)
        self.assertIsNone(answer.curves.temperature_c)
        self.assertIsNone(answer.wind)
        self.assertEqual(answer.layers.state, "unknown")
        self.assertIn("latitude", answer.guessed)


BAD = {
    "a date without offset": (("when",), "2026-07-18T13:00:00", "when"),
    "text for a number": (("reading", "wind_m_s"), "5", "reading.wind_m_s"),
    "a profile deeper than the water": (("reading", "profile", 9, "depth_m"), 25, "reading.profile[9].depth_m"),
    "two readings at one depth": (("reading", "profile", 1, "depth_m"), 0, "reading.profile[1].depth_m"),
    "Fahrenheit taken for Celsius": (
        ("reading", "profile", 0, "temperature_c"),
        67,
        "reading.profile[0].temperature_c",
    ),
    "a shore that crosses itself": (
        ("water", "outline", 0),
        [[0, 0], [0.01, 0.01], [0.01, 0], [0, 0.01], [0, 0]],
        "water.outline[0]",
    ),
    "a ring left open": (("water", "outline", 0), [[0, 0], [0.01, 0], [0.01, 0.01], [0, 0.01]], "water.outline[0]"),
    "latitude beyond the pole": (
        ("water", "outline", 0),
        [[0, 95], [0.01, 95], [0.01, 95.01], [0, 95]],
        "water.outline[0][0]",
    ),
    "an area that grows with depth": (("water", "hypsography", 3, "area_m2"), 9e5, "water.hypsography[3].area_m2"),
    "an unknown field": (("reading", "mood"), "good", "reading.mood"),
    "an unknown prey": (("sightings", 1, "prey"), "newt", "sightings[1].prey"),
    "a sample of nothing": (("samples", 0, "items", 0, "count"), 0, "samples[0].items[0].count"),
    "hours that go back": (("hours", 2, "when"), "2026-07-18T12:00:00+01:00", "hours[2].when"),
    "an unknown place": (("place",), "Nowhere", "place"),
    "a pressure at sea level on a mountain top": (
        ("reading", "sea_level_pressure_hpa"),
        620,
        "reading.sea_level_pressure_hpa",
    ),
}


class Rejections(unittest.TestCase):
    def test_each_at_its_path_with_what_is_accepted(self):
        for name, (path, value, told) in BAD.items():
            with self.subTest(name):
                with self.assertRaises(InputError) as caught:
                    read(changed(path, value))
                problem = caught.exception.problems[0]
                self.assertEqual(problem.path, told)
                self.assertTrue(problem.message)
                self.assertTrue(problem.accepted)

    def test_not_a_number_is_refused(self):
        for bad in ("NaN", "Infinity"):
            with self.assertRaises(InputError):
                read(json.dumps(DAY).replace('"wind_m_s": 5.2', f'"wind_m_s": {bad}', 1))

    def test_the_command_exits_with_two_and_prints_errors(self):
        out, err = io.StringIO(), io.StringIO()
        with redirect_stdout(out), redirect_stderr(err):
            self.assertEqual(main(["read", "no-such-file.json"]), 2)
        self.assertEqual(out.getvalue(), "")
        self.assertEqual(json.loads(err.getvalue())["errors"][0]["code"], "no_file")
