"""A notebook kept in a spreadsheet, taken into the log: guesses, units, dates, bad lines told, nothing half taken in."""

import uuid
from datetime import date

from stillthread.formats.notebook import guess, read_clock, read_day, read_notebook, read_number
from stillthread.outings.models import Event, Outing, Spell
from stillthread.outings.notebook_lines import method_of
from stillthread.waters.models import Reading
from tests.api.base import ApiCase

BOOK = """Date;Lake;Time in;Hours;Method;Fly;Depth ft;Caught;Lost;Water temp F;Wind;Comments
14/05/2019;Test Mere;09:30;4;Float;Red midge;12;3;1;54;SW 3;slow start
14/05/2019;Test Mere;13:30;2,5;Buzzers, static;Black pupa, Olive pupa;6;0;0;55;;
21/05/2019;Test Mere;10:00;3;Sinking line;Olive leech;15 ft;2;;56;north-east;
"""


class Reads(ApiCase):
    def test_days_as_people_write_them(self):
        for text, order, expected in (
            ("14/5/2026", "dmy", date(2026, 5, 14)),
            ("5/14/26", "mdy", date(2026, 5, 14)),
            ("2026-05-14", "dmy", date(2026, 5, 14)),
            ("14.05.99", "dmy", date(1999, 5, 14)),
            ("14 May 2026", "mdy", date(2026, 5, 14)),
            ("May 14th, 2026", "dmy", date(2026, 5, 14)),
            ("Thu 14-May-26", "dmy", date(2026, 5, 14)),
        ):
            with self.subTest(text):
                self.assertEqual(read_day(text, order), expected)
        for text in ("", "yesterday", "31/2/2026", "14/5", "99/99/2026"):
            with self.subTest(text), self.assertRaises(ValueError):
                read_day(text, "dmy")

    def test_clocks_and_numbers(self):
        clocks = {
            "9": "09:00",
            "9:30": "09:30",
            "09.30": "09:30",
            "2:15 pm": "14:15",
            "12 am": "00:00",
            "1430": "14:30",
        }
        for text, expected in clocks.items():
            with self.subTest(text):
                self.assertEqual(read_clock(text).isoformat("minutes"), expected)
        for text in ("dawn", "25:00", "9:75"):
            with self.subTest(text), self.assertRaises(ValueError):
                read_clock(text)
        self.assertEqual([read_number(text) for text in ("3", "2,5 m", "about 12 ft", "-1")], [3, 2.5, 12, -1])

    def test_columns_are_guessed_from_their_names(self):
        found = guess(read_notebook(BOOK.encode()))
        expected = [
            "date",
            "water",
            "began",
            "hours",
            "method",
            "flies",
            "depth",
            "landed",
            "lost",
            "temperature",
            "wind",
            "note",
        ]
        self.assertEqual(list(found.fields), expected)
        self.assertEqual((found.depth_unit, found.temperature_unit, found.day_order), ("ft", "f", "dmy"))
        other = guess(read_notebook(b"When,Fishery,Fly line,Fly,Length (in),Species\n5/14/26,x,,Hopper,18,RB"))
        self.assertEqual(list(other.fields), ["date", "water", "line", "flies", "length", "species"])
        self.assertEqual((other.day_order, other.length_unit, other.depth_unit), ("mdy", "in", "m"))

    def test_what_an_angler_calls_a_way_of_fishing(self):
        for words, method in (
            ("Bung, static", "float"),
            ("Washing line", "nymphs"),
            ("Fast sink", "sinking"),
            ("?", "other"),
        ):
            with self.subTest(words):
                self.assertEqual(method_of(words), method)

    def test_marks_and_encodings(self):
        for data in ("Date\tCaught\n1/5/2020\t2\n", "﻿Date,Caught\r\n1/5/2020,2\r\n", "Date|Caught\n\n1/5/2020|2"):
            for encoding in ("utf-8", "utf-16"):
                with self.subTest(data=data, encoding=encoding):
                    table = read_notebook(data.encode(encoding))
                    self.assertEqual((table.columns, table.lines[0][1]), (("Date", "Caught"), ("1/5/2020", "2")))


class Notebooks(ApiCase):
    def setUp(self):
        super().setUp()
        self.water = self.make_water()

    def send(self, text, client=None):
        client, upload = client or self.client, uuid.uuid4()
        data = text if isinstance(text, bytes) else text.encode()
        token = {"X-CSRFToken": client.cookies["csrftoken"].value}
        octets = "application/octet-stream"
        answer = client.put(f"/api/archive/{upload}/parts/0", data, content_type=octets, headers=token)
        self.assertEqual(answer.status_code, 204)
        return f"/api/notebook/{upload}"

    def test_a_notebook_becomes_outings_with_effort_fish_and_conditions(self):
        at = self.send(BOOK)
        told = self.call("GET", at)
        self.assertEqual(told["waters"], [{"name": "Test Mere", "lines": 3, "water_id": self.water}])
        self.assertEqual((told["refused"], told["lines"]), ([], 3))
        first, second = told["days"][1], told["days"][0]
        self.assertEqual((first["on"], first["stretches"], first["hours"]), ("2019-05-14", 2, 6.5))
        self.assertEqual((first["takes"], first["landed"], second["takes"]), (4, 3, 2))
        self.assertFalse(Outing.objects.exists())
        self.assertEqual(self.call("POST", f"{at}/take", told["mapping"]), {"days": 2, "fish": 6})
        log = self.call("GET", "/api/log")
        self.assertEqual(
            [(one["takes"], one["landed"], one["hours"]) for one in log["outings"]], [(2, 2, 3.0), (4, 3, 6.5)]
        )
        old = log["outings"][1]
        self.assertAlmostEqual(old["surface_c"], 12.2, places=1)  # 54 °F
        self.assertEqual(
            (old["wind"], old["started_at"]), ("SW", "2019-05-14T08:30:00Z")
        )  # half past nine in summer time
        self.assertIn("slow start", old["note"])
        float_spell = Spell.objects.get(method="float")
        self.assertAlmostEqual(float_spell.depth_m, 12 * 0.3048)
        self.assertEqual(Spell.objects.get(title="Buzzers, static").flies, ["Black pupa", "Olive pupa"])
        self.assertEqual({e.fly for e in float_spell.events.all()}, {"Red midge"})

    def test_taken_in_twice_it_is_there_once_and_what_was_mended_stays(self):
        for _ in range(2):
            at = self.send(BOOK)
            told = self.call("GET", at)
            taken = self.call("POST", f"{at}/take", told["mapping"])
            Outing.objects.filter(started_at__day=21).update(note="mended by hand")
        self.assertEqual(taken, {"days": 0, "fish": 0})
        self.assertTrue(all(day["here"] for day in told["days"]))
        counts = [model.objects.count() for model in (Outing, Spell, Event, Reading)]
        self.assertEqual(counts, [2, 3, 6, 2])
        self.assertTrue(Outing.objects.filter(note="mended by hand").exists())
        one = Outing.objects.first()
        self.call("DELETE", f"/api/outings/{one.pk}", status=204)
        at = self.send(BOOK)
        self.assertEqual(self.call("POST", f"{at}/take", told["mapping"])["days"], 1)
        self.assertEqual(Outing.objects.filter(deleted_at=None).count(), 2)

    def test_every_bad_line_is_told_with_why_and_the_rest_goes_in(self):
        bad = BOOK + "\n".join(
            (
                "31/02/2019;Test Mere;;;Float;;;1;;;;",
                "22/05/2019;Nowhere pond;;;Float;;;1;;;;",
                "23/05/2019;Test Mere;25:00;;Float;;deep;1;;;;",
                "24/05/2019;Test Mere;;;Float;;;some;;;;",
                "25/05/2199;Test Mere;;;Float;;;1;;;;",
                ";Test Mere;;;Float;;;1;;;;",
            )
        )
        at = self.send(bad)
        told = self.call("GET", at)
        paths = {one["path"]: one for one in told["refused"]}
        expected = {
            "line 5, Date",
            "line 6",
            "line 7, Time in",
            "line 7, Depth ft",
            "line 8, Caught",
            "line 9",
            "line 10",
        }
        self.assertEqual(set(paths), expected)
        self.assertIn("'deep': this is no number", paths["line 7, Depth ft"]["message"])
        self.assertIn("Nowhere pond", paths["line 6"]["message"])
        self.assertEqual(self.call("POST", f"{at}/take", told["mapping"])["days"], 2)
        named = {**told["mapping"]["waters"], "Nowhere pond": self.water}
        at = self.send(bad)
        again = self.call("POST", at, {**told["mapping"], "waters": named})
        self.assertNotIn("line 6", {one["path"] for one in again["refused"]})
        self.assertEqual([day["here"] for day in again["days"]], [False, True, True])

    def test_a_fish_a_line_shares_the_day(self):
        book = "Date,Species,Length in,Fly,Returned\n1 May 2021,rainbow,18,Olive leech,y\n1 May 2021,brown,12.5,Olive leech,killed\n"
        at = self.send(book)
        told = self.call("GET", at)
        self.assertEqual((told["mapping"]["a_line"], told["mapping"]["water_id"]), ("fish", self.water))
        self.call("POST", f"{at}/take", {**told["mapping"], "day_h": 5})
        self.assertEqual(Spell.objects.count(), 1)
        fish = list(Event.objects.order_by("occurred_at"))
        self.assertEqual(
            [(f.kind, f.species, f.released) for f in fish], [("landed", "rainbow", True), ("landed", "brown", False)]
        )
        self.assertAlmostEqual(fish[0].length_m, 18 * 0.0254)
        self.assertEqual(self.call("GET", "/api/log")["outings"][0]["hours"], 5)

    def test_what_is_no_notebook(self):
        for data, says in (
            (b"\x00\x01\x02", "no text file"),
            (b"", "nothing in this table"),
            ("Date,Caught", "nothing in this table"),
            ("Date,Caught\n" + "1/5/2020,1\n" * 5001, "more than 5000 lines"),
            (",".join("c" * 70) + "\n1,2", "70 columns"),
        ):
            with self.subTest(says):
                self.assertIn(says, self.refused("GET", self.send(data))["file"]["message"])

    def test_waters_and_files_of_others(self):
        at = self.send(BOOK)
        self.make_user("other")
        other = self.sign_in("other")
        self.refused("GET", at, status=404, client=other)
        theirs = self.send(BOOK, other)
        told = self.call("GET", theirs, client=other)
        self.assertEqual((told["days"], told["waters"][0]["water_id"]), ([], None))
        stolen = {**told["mapping"], "waters": {"Test Mere": self.water}}
        found = self.call("POST", theirs, stolen, client=other)
        self.assertEqual((found["days"], len(found["refused"])), ([], 3))
