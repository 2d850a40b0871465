"""Documents are taken and refused as they were: every field of a full document changed in fourteen ways."""

import json
import unittest

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
