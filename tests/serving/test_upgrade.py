"""Databases made by older versions, from the first one on, come up to today without losing a row, and every page opens.

What stands in tests/data/databases was made by those versions themselves (scripts/freeze_database.py).
"""

import pathlib
import sqlite3
import unittest

from django.contrib.auth.hashers import PBKDF2PasswordHasher

from tests.api.base import PASSWORD
from tests.api.test_every_route import routes
from tests.serving.phone import Phone
from tests.serving.process import ROOT, Served

OLD = sorted((ROOT / "tests" / "data" / "databases").glob("*.sql"))
ROWS = {
    "water_id": "waters_water",
    "reading_id": "waters_reading",
    "outing_id": "outings_outing",
    "plan_id": "plans_plan",
}
OWN = ("waters_place", "outings_spell", "outings_event", "flybox_fly", "flybox_line", *ROWS.values())


def rows(database: pathlib.Path) -> dict[str, list[str]]:
    with sqlite3.connect(database) as db:
        return {table: sorted(one for (one,) in db.execute(f"SELECT id FROM {table}")) for table in OWN}


def addresses(kept: dict[str, list[str]]) -> list[str]:
    """Every address of the API that is read, with the ids of rows of the database filled in; not those of a file just sent, or a photo or track, which no database of before has."""
    found = []
    for method, path, route in routes():
        none = "{upload_id}" in path or "{photo_id}" in path or path.endswith("/track.gpx")
        if method == "GET" and not none:
            asked = [p["name"] for p in route.get("parameters", []) if p["in"] == "query" and p.get("required")]
            told = {"water_id": "{water_id}", "year": "2026"}
            path += "?" + "&".join(f"{name}={told.get(name, 'x')}" for name in asked) if asked else ""
            for name, table in ROWS.items():
                row = kept[table][0]
                path = path.replace(f"{{{name}}}", f"{row[:8]}-{row[8:12]}-{row[12:16]}-{row[16:20]}-{row[20:]}")
            found.append(path)
    return found


class Upgrade(unittest.TestCase):
    def old(self, dump: pathlib.Path) -> Served:
        served = Served()
        self.addCleanup(served.close)
        with sqlite3.connect(served.database) as db:
            db.executescript(dump.read_text("utf-8"))
            db.execute("UPDATE auth_user SET password = ?", (PBKDF2PasswordHasher().encode(PASSWORD, "frozen", 1000),))
        return served

    def test_no_row_is_lost_and_every_page_opens(self):
        self.assertGreaterEqual(len(OLD), 4)
        for dump in OLD:
            with self.subTest(dump.stem):
                served = self.old(dump)
                before = rows(served.database)
                self.assertTrue(all(before[table] for table in ROWS.values()))
                served.manage("migrate", "--verbosity", "0")
                self.assertEqual(rows(served.database), before)
                served.start()
                phone = Phone(served.port)
                phone.sign("sign-in")
                for path in addresses(before):
                    with self.subTest(path):
                        self.assertIn(phone.call("GET", path)[0], (200, 204), path)
                outing = next(
                    path
                    for path in addresses(before)
                    if "outings/" in path and path.count("/") == 3 and "running" not in path
                )
                self.assertTrue(phone.call("GET", outing)[1]["plan"]["set_ups"])
                served.close()
