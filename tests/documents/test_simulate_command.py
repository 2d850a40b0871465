"""`./still simulate`: the contract, the examples, and every kind of bad input at its path."""

import copy
import io
import json
import os
import pathlib
import subprocess
import sys
import tempfile
import unittest
from contextlib import redirect_stderr, redirect_stdout

import jsonschema

from stillthread.cli.__main__ import main
from stillthread.core.errors import InputError
from stillthread.core.plan.make import make_plan
from stillthread.documents.strict import parse_document
from stillthread.documents.thread.simulate_contract import SimulateAnswer, SimulateRequest
from stillthread.documents.thread.simulate_json import document_from, simulate_answer
from tests.checks import some
from tests.days import day

ROOT = pathlib.Path(__file__).resolve().parents[2]
EXAMPLES = ROOT / "docs" / "examples"
CONTRACTS = ROOT / "docs" / "contracts"
CAST = json.loads((EXAMPLES / "cast.json").read_text("utf-8"))
FLOAT = json.loads((EXAMPLES / "float.json").read_text("utf-8"))


def run(document, base=CAST, **changes):
    text = document if isinstance(document, str) else json.dumps({**base, **document, **changes})
    return simulate_answer(parse_document(SimulateRequest, text))


class Examples(unittest.TestCase):
    def test_each_runs_and_keeps_both_contracts(self):
        asked = json.loads((CONTRACTS / "simulate.schema.json").read_text("utf-8"))
        told = json.loads((CONTRACTS / "simulate-answer.schema.json").read_text("utf-8"))
        for name in ("cast.json", "float.json", "up-the-slope.json"):
            jsonschema.validate(json.loads((EXAMPLES / name).read_text("utf-8")), asked)
            out = io.StringIO()
            with redirect_stdout(out):
                self.assertEqual(main(["simulate", str(EXAMPLES / name)]), 0)
            jsonschema.validate(json.loads(out.getvalue()), told)

    def test_what_the_answer_says_hangs_together(self):
        answer = run({})
        for fly in answer.flies:
            times = [row[0] for row in fly.track]
            self.assertEqual(times, sorted(times))
            self.assertTrue(all(p10 <= z + 1e-6 and z <= p90 + 1e-6 for _, _, z, p10, p90 in fly.track))
            self.assertTrue(all(0 <= z <= CAST["water_depth_m"] for _, _, z, _, _ in fly.track))
            self.assertAlmostEqual(sum(s for _, s in fly.exposure), answer.end_s, delta=0.5)
            inside = sum(s for z, s in fly.exposure if 2.5 <= z <= 4.0)
            self.assertAlmostEqual(fly.time_in_band_s, inside, delta=4.0)
            self.assertLessEqual(fly.min_m, fly.max_m)

    def test_the_float_example_says_how_it_hangs(self):
        answer = run({}, FLOAT)
        self.assertAlmostEqual(answer.float.set_m, 14 * 0.3048, places=3)
        self.assertLess(answer.float.real_m, answer.float.set_m)
        self.assertIn("float", json.loads(answer.model_dump_json()))

    def test_a_plans_set_up_is_a_simulate_document(self):
        for one in some(one for one in make_plan(day()).set_ups if one.rig is not None):
            document = document_from(one.rig, one.cast)
            again = parse_document(SimulateRequest, document.model_dump_json())
            self.assertEqual(document, again)
            self.assertIsInstance(simulate_answer(again), SimulateAnswer)

    def test_without_a_band_the_path_is_the_same(self):
        with_band, bare = run({}), run({}, band=False)
        self.assertEqual([r[2] for r in with_band.flies[0].track], [r[2] for r in bare.flies[0].track])
        self.assertTrue(all(r[2] == r[3] == r[4] for r in bare.flies[0].track))

    def test_a_timed_line_narrows_the_band(self):
        def width(line):
            row = run({"line": line, "countdown_s": 60}).flies[1].track[100]
            return row[4] - row[3]

        label = width({"family": "sinking", "label_ips": 3})
        self.assertLess(width({"family": "sinking", "label_ips": 3, "measured_m_s": 0.0762}), label)

    def test_notes_say_what_matters(self):
        self.assertIn("touches the bottom", " ".join(run({}, water_depth_m=3.0).notes))
        self.assertIn(
            "hard to build", " ".join(run({"line": {"family": "sinking", "label_ips": 7, "weight_class": 4}}).notes)
        )
        self.assertIn("Not in the model", run({}).notes[-1])


QUIETLY = """
import io, sys
from contextlib import redirect_stdout
from stillthread.cli.__main__ import main
with redirect_stdout(io.StringIO()) as out:
    status = main(["simulate", sys.argv[1]])
print(status, "numba" in sys.modules)
print(out.getvalue())
"""


class OnTheShelf(unittest.TestCase):
    def asked(self, var):
        command = [sys.executable, "-c", QUIETLY, str(EXAMPLES / "cast.json")]
        env = {**os.environ, "STILL_VAR": var}
        done = subprocess.run(command, capture_output=True, text=True, env=env, cwd=ROOT, check=True)
        said, answer = done.stdout.split("\n", 1)
        return said, answer

    def test_a_path_asked_twice_is_the_same_and_needs_no_compiler(self):
        with tempfile.TemporaryDirectory() as var:
            cold, warm = self.asked(var), self.asked(var)
        self.assertEqual(cold[0], "0 True")
        self.assertEqual(warm[0], "0 False")
        self.assertEqual(cold[1], warm[1])


class BadInput(unittest.TestCase):
    def told(self, changes, base=CAST):
        document = copy.deepcopy({**base, **changes})
        with self.assertRaises(InputError) as caught:
            run(json.dumps(document))
        return {p.path: p.code for p in caught.exception.problems}

    def test_each_fault_at_its_path(self):
        fly = CAST["flies"][1]
        cases = {
            "leader[0].length_m": {"leader": [{"length_m": 0, "diameter_mm": 0.2}]},
            "flies[0].from_line_m": {"flies": [{**fly, "from_line_m": 9.0}]},
            "flies[0].sink_m_s": {"flies": [{**fly, "sink_m_s": -0.1}]},
            "flies": {"flies": []},
            "cast_m": {"cast_m": 45},
            "water_depth_m": {"water_depth_m": 0},
            "bed[1][1]": {"water_depth_m": None, "bed": [[0, 3], [10, -1]]},
            "bed[1][0]": {"water_depth_m": None, "bed": [[5, 3], [5, 4]]},
            "countdown_s": {"countdown_s": -5},
            "slack": {"slack": 3},
            "line.label_ips": {"line": {"family": "sinking"}},
            "line.tip_length_m": {"line": {"family": "sink-tip", "label_ips": 2}},
            "retrieve.speed_m_s": {"retrieve": {"kind": "custom"}},
            "target_band_m": {"target_band_m": [4, 2]},
            "wind_speed": {"wind_speed": 3},
            "line.family": {"line": {"family": "lead-core", "label_ips": 9}},
        }
        for path, changes in cases.items():
            self.assertIn(path, self.told(changes), path)

    def test_a_float_that_sinks_and_one_off_the_leader(self):
        small = {**FLOAT["float"], "buoyancy_g": 0.1}
        self.assertEqual(self.told({"float": small}, FLOAT), {"float.buoyancy_g": "float_sinks"})
        far = {**FLOAT["float"], "from_line_m": 12.0}
        self.assertIn("float.from_line_m", self.told({"float": far}, FLOAT))
        self.assertIn("line.family", self.told({"line": {"family": "sinking", "label_ips": 3}}, FLOAT))

    def test_neither_depth_nor_bed_and_both(self):
        self.assertIn("water_depth_m", self.told({"water_depth_m": None}))
        self.assertIn("water_depth_m", self.told({"bed": [[0, 3]]}))

    def test_many_faults_at_once(self):
        told = self.told({"leader": [{"length_m": -1, "diameter_mm": 0.2}], "countdown_s": -1, "cast_m": 50})
        self.assertLessEqual({"leader[0].length_m", "countdown_s", "cast_m"}, set(told))

    def test_not_a_number_is_refused(self):
        text = json.dumps({**CAST, "cast_m": float("nan")})
        with self.assertRaises(InputError) as caught:
            run(text)
        self.assertEqual(caught.exception.problems[0].path, "cast_m")

    def test_a_retrieve_that_never_ends(self):
        slow = {"retrieve": {"kind": "hand-twist", "speed_m_s": 0.001}}
        self.assertEqual(self.told(slow), {"retrieve": "too_long"})
        tiny = {"retrieve": {"kind": "custom", "speed_m_s": 0.5, "pull_m": 0.001, "pause_s": 0.1}}
        self.assertEqual(self.told(tiny), {"retrieve": "out_of_range"})

    def test_the_command_tells_faults_on_stderr(self):
        err = io.StringIO()
        with redirect_stderr(err):
            self.assertEqual(main(["simulate", "/nowhere.json"]), 2)
        self.assertEqual(json.loads(err.getvalue())["errors"][0]["code"], "no_file")
