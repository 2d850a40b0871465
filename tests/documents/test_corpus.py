"""Documents are taken and refused as they were: every field of a full document changed in fourteen ways."""

import json
import unittest

from stillthread.core.errors import InputError
from stillthread.documents.plan import PlanRequest
from stillthread.documents.strict import parse_document
from tests.documents import corpus


class WhatDocumentsTake(unittest.TestCase):
    """What was said of each changed document when it was written down is said today."""

    maxDiff = 4000

    def test_each_change_is_answered_as_it_was(self):
        for name in corpus.MODELS:
            kept = json.loads((corpus.FOLDER / f"{name}.said.json").read_text("utf-8"))
            today = corpus.answers(name)
            self.assertEqual(set(kept), set(today))
            for where, answer in today.items():
                with self.subTest(document=name, field=where):
                    self.assertEqual(answer, kept[where])

    def test_the_full_documents_leave_nothing_out(self):
        for name, model in corpus.MODELS.items():
            document = json.loads((corpus.FOLDER / f"{name}.json").read_text("utf-8"))
            self.assertEqual(set(document) | corpus.NOT_TOGETHER[name], set(model.model_fields))

    def test_what_is_seen_is_refused_with_what_is_known(self):
        document = json.loads((corpus.FOLDER / "plan.json").read_text("utf-8"))
        document["sightings"] = [{"prey": "newt"}, {"abundance": "few"}, {"prey": "scud", "rise": "sip"}]
        document["samples"] = [
            {"items": [{"prey": "scud", "count": 0}, {"prey": "scud", "count": 1, "colour": "plaid"}]},
            {"items": []},
        ]
        with self.assertRaises(InputError) as caught:
            parse_document(PlanRequest, json.dumps(document))
        found = {p.path: p for p in caught.exception.problems}
        self.assertEqual(
            set(found),
            {
                "sightings[0].prey",
                "sightings[1]",
                "sightings[2]",
                "samples[0].items[0].count",
                "samples[0].items[1].colour",
                "samples[1].items",
            },
        )
        self.assertIn("scud", found["sightings[0].prey"].accepted)
        self.assertIn("name one thing", found["sightings[1]"].message)
