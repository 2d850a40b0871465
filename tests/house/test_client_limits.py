"""The limits written for the pages: what the API takes, each once, and nothing of what it only tells."""

import json
import pathlib
import re
import sys
import unittest

sys.path.insert(0, str(pathlib.Path(__file__).resolve().parents[2] / "scripts"))

from client_limits import limits_ts

ROOT = pathlib.Path(__file__).resolve().parents[2]

SCHEMAS = {
    "BoxBody": {
        "properties": {
            "name": {"type": "string", "maxLength": 80},
            "depth_m": {"anyOf": [{"type": "number", "minimum": 0.2, "maximum": 12}, {"type": "null"}]},
            "hooks": {"type": "array", "maxItems": 8, "items": {"type": "integer", "minimum": 4, "maximum": 20}},
            "free": {"type": "string"},
        }
    },
    "BoxOut": {"properties": {"name": {"type": "string", "maxLength": 80}}},
}


class Limits(unittest.TestCase):
    def test_each_limit_is_a_constant_of_its_own(self):
        told = limits_ts({"components": {"schemas": SCHEMAS}}, {"MOST": 20})
        found = dict(re.findall(r"export const (\w+) = ([\d.]+);", told))
        self.assertEqual(
            found,
            {
                "MOST": "20",
                "BoxBody_depth_m_least": "0.2",
                "BoxBody_depth_m_most": "12",
                "BoxBody_hooks_eachLeast": "4",
                "BoxBody_hooks_eachMost": "20",
                "BoxBody_hooks_many": "8",
                "BoxBody_name_longest": "80",
            },
        )

    def test_the_pages_have_those_of_the_contract(self):
        contract = json.loads((ROOT / "docs/contracts/openapi.json").read_text("utf-8"))
        written = (ROOT / "frontend/src/api/generated/limits.ts").read_text("utf-8")
        self.assertEqual(
            limits_ts(contract, {}).splitlines()[1:], [line for line in written.splitlines()[1:] if "PHOTO" not in line]
        )
