"""How pages and the log are served: caching, counting queries, contracts that stay closed."""

import json
import pathlib
import re
import unittest
import uuid
from datetime import UTC, datetime, timedelta

from stillthread.outings.models import Event, Outing, Spell
from tests.api.base import ApiCase

ROOT = pathlib.Path(__file__).resolve().parents[2]


class Pages(ApiCase):
    def test_the_page_is_never_stale_and_its_parts_are_kept_for_good(self):
        page = self.client.get("/plan")
        self.assertIn("no-store", page["Cache-Control"])
        script = re.search(r'src="(/assets/[^"]+\.js)"', page.content.decode()).group(1)
        part = self.client.get(script)
        self.assertIn("max-age=31536000", part["Cache-Control"])

    def test_the_page_asks_nobody_else_for_anything(self):
        text = self.client.get("/").content.decode()
        self.assertEqual(re.findall(r'(?:src|href)="(https?:)?//', text), [])

    def test_other_headers(self):
        page = self.client.get("/")
        self.assertEqual((page["X-Frame-Options"], page["X-Content-Type-Options"]), ("DENY", "nosniff"))
        self.assertEqual(page["Referrer-Policy"], "same-origin")

    def test_a_part_that_is_not_there_is_not_the_page(self):
        self.assertEqual(self.client.get("/assets/no-such-part.js").status_code, 404)

    def test_the_contract_is_served(self):
        served = self.client.get("/api/openapi.json").json()
        kept = json.loads((ROOT / "docs" / "contracts" / "openapi.json").read_text("utf-8"))
        self.assertEqual(set(served["paths"]), set(kept["paths"]))


class Queries(ApiCase):
    def fill(self, outings):
        water = uuid.UUID(self.make_water(name=f"Lake {outings}"))
        start = datetime(2026, 5, 1, 9, tzinfo=UTC)
        for day in range(outings):
            at = start + timedelta(days=day)
            outing = Outing.objects.create(owner=self.user, water_id=water, started_at=at)
            spell = Spell.objects.create(owner=self.user, outing=outing, title="t", pace="static", started_at=at)
            Event.objects.create(owner=self.user, spell=spell, kind="take", occurred_at=at + timedelta(hours=1))

    def count(self):
        from django.db import connection
        from django.test.utils import CaptureQueriesContext

        self.call("GET", "/api/log")  # what is new is counted once
        with CaptureQueriesContext(connection) as found:
            self.call("GET", "/api/log")
        return len(found)

    def test_a_longer_log_asks_no_more_questions(self):
        self.fill(2)
        few = self.count()
        self.fill(12)
        self.assertEqual(self.count(), few)

    def test_waters_and_places_in_one_go(self):
        from django.db import connection
        from django.test.utils import CaptureQueriesContext

        def count():
            with CaptureQueriesContext(connection) as found:
                self.call("GET", "/api/waters")
            return len(found)

        self.make_water()
        few = count()
        for name in ("Second", "Third"):
            self.make_water(name=name)
        self.assertEqual(count(), few)


class Contracts(unittest.TestCase):
    UNITS = ("_m", "_c", "_s", "_deg", "_ips", "_mg_l", "_m_s", "_oktas", "_mm", "_g", "_lb",
             "_m2", "_hpa", "_per_s2", "_j_m2", "_h", "_c_per_m", "_per_m", "_lux", "_mm3", "_share", "_per_h")  # fmt: skip
    BARE = {
        "version", "share", "mass", "log_weight", "log_score", "relative", "light_surface", "max_flies", "hook", "hooks",
        "stock", "weight_class", "x_size", "days_since_stocking", "beaufort", "length_m",
        "slack", "line_rate", "fly_weight", "drag",
        "count", "wedderburn", "lake_number", "lux", "onto", "without", "with_it", "prior", "counted", "appetite",
        "preference", "density", "turns", "takes", "session_takes", "notice", "tippets_x", "rods", "rod", "first", "second", "by_hand",
    }  # fmt: skip

    def schemas(self):
        for name in ("plan", "plan-answer", "read", "read-answer", "simulate", "simulate-answer", "errors"):
            document = json.loads((ROOT / "docs" / "contracts" / f"{name}.schema.json").read_text("utf-8"))
            yield from ((name, key, part) for key, part in document.get("$defs", {}).items())
            yield name, "whole", document

    def test_every_object_is_closed(self):
        for name, key, part in self.schemas():
            if part.get("type") == "object":
                with self.subTest(f"{name}: {key}"):
                    self.assertIs(part.get("additionalProperties"), False)

    def test_every_number_carries_its_unit(self):
        for name, key, part in self.schemas():
            for field, about in part.get("properties", {}).items():
                kinds = {about.get("type")} | {one.get("type") for one in about.get("anyOf", [])}
                kinds |= {about.get("items", {}).get("type")} if isinstance(about.get("items"), dict) else set()
                if kinds & {"number", "integer"}:
                    with self.subTest(f"{name}: {key}.{field}"):
                        self.assertTrue(field in self.BARE or field.endswith(self.UNITS), field)
