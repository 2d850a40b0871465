"""A fly box in and out of files: round trips, and each kind of bad table at its line."""

import json
import unittest

from stillthread.core.errors import InputError
from stillthread.core.tackle.patterns import PATTERNS
from stillthread.documents.flies_file import read_flies, write_flies_csv
from stillthread.documents.fly_contract import FlyFile
from stillthread.flybox.box_services import pattern_document

BOX = FlyFile(flies=[pattern_document(p) for p in PATTERNS])
HEAD = "name,family,prey,hooks,tone,weight,surface,stock\r\n"


def problem(data):
    with unittest.TestCase().assertRaises(InputError) as caught:
        read_flies(data if isinstance(data, bytes) else data.encode())
    return caught.exception.problems[0]


class RoundTrips(unittest.TestCase):
    def test_json_gives_back_the_whole_box(self):
        self.assertEqual(read_flies(BOX.model_dump_json().encode()), BOX)

    def test_csv_gives_back_everything_but_builds_and_recipes(self):
        back = read_flies(write_flies_csv(BOX).encode())
        for ours, theirs in zip(BOX.flies, back.flies, strict=True):
            bare = ours.model_copy(update={"build": None, "recipe": type(ours.recipe)()})
            self.assertEqual(theirs, bare)

    def test_csv_shows_how_fast_each_sinks(self):
        lines = write_flies_csv(BOX).splitlines()
        self.assertTrue(lines[0].endswith("sink_m_s,sink_class"))
        beetle = next(line for line in lines if line.startswith("Foam beetle"))
        self.assertTrue(beetle.endswith("floats"))

    def test_quotes_and_commas_in_a_name(self):
        fly = BOX.flies[0].model_copy(update={"name": 'Black, "slim"'})
        self.assertEqual(read_flies(write_flies_csv(FlyFile(flies=[fly])).encode()).flies[0].name, 'Black, "slim"')


class Rejections(unittest.TestCase):
    def test_tables(self):
        good = "Pupa,slim-pupa,chironomid-pupa,12 14,dark,unweighted,no,3\r\n"
        read_flies((HEAD + good).encode())
        cases = {
            "no header": (good, "line 1"),
            "a column of another kind": (HEAD.replace("stock", "mood") + good, "line 1"),
            "hooks that are none": (HEAD + good.replace("12 14", "twelve"), "line 2, hooks"),
            "a hook off the scale": (HEAD + good.replace("12 14", "2"), "line 2, "),
            "an unknown prey": (HEAD + good.replace("chironomid-pupa,", "newt,", 1), "line 2, prey[0]"),
            "an unknown tone": (HEAD + good.replace("dark", "loud"), "line 2, tone"),
            "a stock below zero": (HEAD + good.replace(",3", ",-3"), "line 2, stock"),
            "neither yes nor no": (HEAD + good.replace(",no,", ",maybe,"), "line 2, surface"),
            "a short line": (HEAD + "Pupa,slim-pupa\r\n", "line 2"),
            "the same name twice": (HEAD + good + good, "line 3, name"),
            "nothing": (HEAD, "file"),
        }
        for name, (text, path) in cases.items():
            with self.subTest(name):
                found = problem(text)
                self.assertEqual(found.path, path, found)
                self.assertTrue(found.message)

    def test_documents(self):
        doc = json.loads(BOX.model_dump_json())
        doc["flies"][3]["tone"] = "loud"
        self.assertEqual(problem(json.dumps(doc)).path, "flies[3].tone")
        twice = json.loads(BOX.model_dump_json())
        twice["flies"][1]["name"] = twice["flies"][0]["name"]
        self.assertEqual(problem(json.dumps(twice)).path, "flies[1].name")
        self.assertEqual(problem(json.dumps(doc)[:300]).code, "not_json")
        self.assertEqual(problem(b"\xff\xfe\x00").code, "not_text")
        self.assertEqual(problem(b"x" * 3_100_000).code, "too_large")

    def test_a_build_for_a_hook_it_does_not_have(self):
        doc = json.loads(FlyFile(flies=BOX.flies[:1]).model_dump_json())
        doc["flies"][0]["build"]["hook"] = 6
        self.assertIn("hook size", problem(json.dumps(doc)).message)
