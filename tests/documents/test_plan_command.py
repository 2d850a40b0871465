import copy
import io
import json
import pathlib
import subprocess
import sys
import tempfile
import unittest
from contextlib import redirect_stderr, redirect_stdout

import jsonschema

from stillthread.cli.__main__ import main
from stillthread.core.units import beaufort_from_m_s

ROOT = pathlib.Path(__file__).resolve().parents[2]
CONTRACTS = ROOT / "docs" / "contracts"
EXAMPLE = ROOT / "docs" / "examples" / "day.json"


def contract(name):
    return json.loads((CONTRACTS / f"{name}.schema.json").read_text("utf-8"))


def run(document):
    """Run `plan` on a document; returns status, stdout, stderr."""
    with tempfile.NamedTemporaryFile("w", suffix=".json", encoding="utf-8") as file:
        file.write(document if isinstance(document, str) else json.dumps(document))
        file.flush()
        out, err = io.StringIO(), io.StringIO()
        with redirect_stdout(out), redirect_stderr(err):
            status = main(["plan", file.name])
    return status, out.getvalue(), err.getvalue()


class Example(unittest.TestCase):
    @classmethod
    def setUpClass(cls):
        cls.day = json.loads(EXAMPLE.read_text("utf-8"))
        status, out, cls.err = run(cls.day)
        assert status == 0, cls.err
        cls.answer = json.loads(out)

    def test_input_and_output_keep_the_contract(self):
        jsonschema.validate(self.day, contract("plan"))
        jsonschema.validate(self.answer, contract("plan-answer"))

    def test_a_day_with_everything_the_angler_brings(self):
        day = json.loads((EXAMPLE.parent / "day-own.json").read_text("utf-8"))
        jsonschema.validate(day, contract("plan"))
        status, out, err = run(day)
        self.assertEqual(status, 0, err)
        answer = json.loads(out)
        jsonschema.validate(answer, contract("plan-answer"))
        self.assertEqual([s["by_hand"] for s in answer["set_ups"]][-1], 0)
        self.assertEqual([s["rod"] for s in answer["set_ups"]][:2], [1, 2])
        self.assertTrue(answer["changed"] and answer["pair"])
        # Seven takes in seven hours of days much like this: about one an hour for what was fished.
        rates = [s["expected"]["takes_per_h"] for s in answer["set_ups"]]
        self.assertTrue(all(0.3 < rate < 3 for rate in rates), rates)

    def test_what_the_angler_brings_is_checked_at_its_field(self):
        faults = {
            "aim": ("aim", "records"),
            "session_h": ("session_h", 0),
            "without[0]": ("without", ["luck"]),
            "own_log[0].fished_h": ("own_log", [{"on": "2025-05-10", "fished_h": -1, "takes": 0}]),
            "by_hand[0].line": ("by_hand", [{"line": "no-such", "flies": ["slim-pupa-black"]}]),
            "schools.search": ("schools", {"search": "sideways"}),
        }
        for path, (field, value) in faults.items():
            status, _, err = run({**self.day, field: value})
            self.assertEqual(status, 2)
            self.assertIn(path, [e["path"] for e in json.loads(err)["errors"]])

    def test_the_belief_is_a_probability(self):
        mass = [m for place in self.answer["belief"]["places"] for m in place["mass"]]
        # Told to the seventh digit, place by place.
        self.assertAlmostEqual(sum(mass), 1.0, delta=1e-6)

    def test_contributions_add_up(self):
        for place in self.answer["belief"]["places"]:
            for cell, score in enumerate(place["log_score"]):
                total = sum(f["log_weight"][cell] for f in place["factors"])
                self.assertAlmostEqual(total, score, delta=1e-9)

    def test_what_the_water_means(self):
        # 4 m/s is 7.8 kn: Beaufort 3 by WMO table 1100. South-west wind: onto the north-east shore.
        self.assertEqual(self.answer["water"]["beaufort"], 3)
        self.assertEqual(beaufort_from_m_s(self.day["reading"]["wind_m_s"]), 3)
        self.assertEqual(self.answer["water"]["downwind_shore"], "NE")

    def test_it_runs_without_a_server_as_its_own_process(self):
        done = subprocess.run(
            [sys.executable, "-m", "stillthread.cli", "plan", str(EXAMPLE)], cwd=ROOT, capture_output=True, text=True
        )
        self.assertEqual(done.returncode, 0, done.stderr)
        self.assertEqual(json.loads(done.stdout), self.answer)


class Refusals(unittest.TestCase):
    def setUp(self):
        self.day = json.loads(EXAMPLE.read_text("utf-8"))

    def refused(self, document):
        status, out, err = run(document)
        self.assertEqual((status, out), (2, ""))
        told = json.loads(err)
        jsonschema.validate(told, contract("errors"))
        return {p["path"]: p for p in told["errors"]}

    def changed(self, *path, value):
        day = copy.deepcopy(self.day)
        at = day
        for step in path[:-1]:
            at = at[step]
        at[path[-1]] = value
        return day

    def test_each_fault_at_its_path(self):
        for path, value, told in (
            (("reading", "profile", 1, "temperature_c"), 60, "reading.profile[1].temperature_c"),
            (("reading", "profile", 5, "depth_m"), 9, "reading.profile[5].depth_m"),
            (("reading", "wind_m_s"), 111.1, "reading.wind_m_s"),
            (("reading", "cloud_oktas"), -1, "reading.cloud_oktas"),
            (("reading", "cloud_oktas"), "3", "reading.cloud_oktas"),
            (("reading", "colour"), "green", "reading.colour"),
            (("water", "latitude_deg"), 91, "water.latitude_deg"),
            (("rules", "max_flies"), -2, "rules.max_flies"),
            (("place",), "Atlantis", "place"),
            (("when",), "2026-05-14T11:00:00", "when"),
            (("tackle", "lines"), [], "tackle.lines"),
            (("sightings", 0, "prey"), "newt", "sightings[0].prey"),
            (("flies", 0, "stock"), -1, "flies[0].stock"),
            (("version",), 2, "version"),
        ):
            found = self.refused(self.changed(*path, value=value))
            self.assertIn(told, found)
            self.assertTrue(found[told]["message"] and found[told]["accepted"], found[told])

    def test_numbers_that_are_none(self):
        text = json.dumps(self.day).replace("12.3", "NaN")
        self.assertIn("reading.profile[1].temperature_c", self.refused(text))
        self.assertIn(
            "water.max_depth_m",
            self.refused(json.dumps(self.day).replace('"max_depth_m": 18', '"max_depth_m": Infinity')),
        )

    def test_not_json_and_no_file(self):
        self.assertEqual(self.refused("{")[""]["code"], "not_json")
        self.assertEqual(self.refused("[" * 100_000)[""]["code"], "not_json")
        err = io.StringIO()
        with redirect_stderr(err):
            self.assertEqual(main(["plan", "/no/such/file.json"]), 2)
        self.assertEqual(json.loads(err.getvalue())["errors"][0]["code"], "no_file")

    def test_several_faults_are_told_together(self):
        day = self.changed("water", "max_depth_m", value=-1)
        day["angler"]["rod_m"] = 40
        self.assertEqual(set(self.refused(day)), {"water.max_depth_m", "angler.rod_m"})
