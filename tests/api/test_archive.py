"""Everything out in one file and in again: the same, byte for byte; nothing of another's, nothing half taken in."""

import csv
import io
import json
import uuid
import zipfile
from datetime import UTC, datetime

from django.contrib.auth.models import User

from stillthread.archive.api import READING
from stillthread.archive.tables import TABLES
from stillthread.archive.write import write_document
from stillthread.demo.load import load_demo
from stillthread.formats.picture import rewritten
from stillthread.outings.models import Event, Outing, Photo, Picture, Spell
from stillthread.outings.photos import keep_picture
from stillthread.waters.models import Water
from stillthread.web.owned import delete_owned, put_owned
from tests.api.base import ApiCase
from tests.checks import some
from tests.formats.test_picture import jpeg


class Archive(ApiCase):
    @classmethod
    def setUpTestData(cls):
        load_demo(datetime(2026, 6, 20, 9, tzinfo=UTC), outings=4)
        cls.owner = User.objects.get(username="demo")

    def setUp(self):
        super().setUp()
        self.client.force_login(self.owner, backend="stillthread.accounts.backend.AnglerBackend")
        self.client.get("/api/session")

    def packed(self, client=None):
        answer = (client or self.client).get("/api/archive")
        self.assertEqual(answer.status_code, 200)
        self.assertRegex(answer["Content-Disposition"], r'filename="still-thread-\d{4}-\d\d-\d\d\.zip"')
        return answer.getvalue()

    def document(self, packed):
        return zipfile.ZipFile(io.BytesIO(packed)).read("still-thread.json")

    def repacked(self, document):
        out = io.BytesIO()
        with zipfile.ZipFile(out, "w") as packed:
            packed.writestr("still-thread.json", document if isinstance(document, str) else json.dumps(document))
        return out.getvalue()

    def send(self, data, client=None, size=100_000):
        client, upload = client or self.client, uuid.uuid4()
        for part in range(0, len(data), size):
            answer = client.put(
                f"/api/archive/{upload}/parts/{part // size}",
                data[part : part + size],
                content_type="application/octet-stream",
                headers={"X-CSRFToken": client.cookies["csrftoken"].value},
            )
            self.assertEqual(answer.status_code, 204, answer.content)
        return f"/api/archive/{upload}"

    def counts(self, told):
        return {t["name"]: (t["new"], t["same"], t["clash"]) for t in told["tables"]}

    def test_deleted_and_taken_in_again_it_is_the_same_byte_for_byte(self):
        before = self.packed()
        for table in reversed(TABLES):
            table.model.objects.filter(owner=self.owner).delete()
        self.owner.angler.depth_unit = "ft"
        self.owner.angler.save()
        self.assertNotEqual(self.document(self.packed()), self.document(before))
        at = self.send(before)
        told = self.call("GET", at)
        self.assertEqual((told["left_out"], told["faults"]), (0, []))
        self.assertTrue(all(same == clash == 0 for _, same, clash in self.counts(told).values()))
        for name in (
            "waters",
            "places",
            "readings",
            "lines",
            "flies",
            "outings",
            "stretches",
            "events",
            "soundings",
            "photos",
        ):
            self.assertGreater(self.counts(told)[name][0], 0, name)
        written = self.call("POST", f"{at}/take", {"keep": "mine"})["written"]
        self.assertGreater(written, 100)
        self.assertEqual(self.document(self.packed()), self.document(before))
        self.refused("GET", at, status=404)  # the upload is gone

    def test_what_is_here_and_the_same_is_not_written_again(self):
        at = self.send(self.packed())
        told = self.counts(self.call("GET", at))
        self.assertTrue(all(new == clash == 0 for new, _, clash in told.values()))
        revisions = set(Outing.objects.values_list("pk", "revision"))
        self.assertEqual(self.call("POST", f"{at}/take", {})["written"], 0)
        self.assertEqual(set(Outing.objects.values_list("pk", "revision")), revisions)

    def test_a_clash_is_the_anglers_to_settle(self):
        packed = self.packed()
        outing = some(Outing.objects.filter(owner=self.owner).order_by("pk"))[0]
        was = outing.note
        outing.note = "changed since"
        outing.save()
        at = self.send(packed)
        self.assertEqual(self.counts(self.call("GET", at))["outings"][2], 1)
        self.call("POST", f"{at}/take", {"keep": "mine"})
        outing.refresh_from_db()
        self.assertEqual(outing.note, "changed since")
        self.call("POST", f"{self.send(packed)}/take", {"keep": "archive"})
        outing.refresh_from_db()
        self.assertEqual(outing.note, was)

    def test_what_was_deleted_since_comes_back(self):
        packed = self.packed()
        spell = some(Spell.objects.filter(owner=self.owner).order_by("pk"))[0]
        delete_owned(Spell, self.owner, spell.pk)
        at = self.send(packed)
        events = Event.objects.filter(spell=spell).count()
        self.assertEqual(self.counts(self.call("GET", at))["stretches"][0], 1)
        self.call("POST", f"{at}/take", {})
        self.assertEqual(self.document(self.packed()), self.document(packed))
        self.assertEqual(Event.objects.filter(spell=spell, deleted_at=None).count(), events)

    def test_another_account_gets_rows_of_its_own(self):
        packed, mine = self.packed(), write_document(self.owner)
        other = self.make_user("other")
        client = self.sign_in("other")
        for _ in range(2):  # a second time nothing is new
            at = self.send(packed, client)
            told = self.call("POST", f"{at}/take", {}, client=client)
        self.assertEqual(told["written"], 0)
        self.assertEqual(write_document(self.owner), mine)
        for table in TABLES:
            counts = [table.model.objects.filter(owner=one, deleted_at=None).count() for one in (self.owner, other)]
            self.assertEqual(counts[0], counts[1], table.name)
        foreign = Spell.objects.filter(owner=other).exclude(outing__owner=other)
        self.assertFalse(foreign.exists())

    def photo(self):
        """A photo with its picture on one of the owner's outings."""
        outing = some(Outing.objects.filter(owner=self.owner).order_by("pk"))[0]
        values = {"shows": "fish", "taken_at": outing.started_at, "depth_m": 4.0, "note": "=the best"}
        row = put_owned(Photo, self.owner, uuid.uuid4(), outing=outing, **values)
        keep_picture(row, rewritten(jpeg()))
        return row

    def test_pictures_come_along_as_they_were(self):
        row = self.photo()
        was = bytes(Picture.objects.get(photo=row).jpeg)
        packed = self.packed()
        self.assertEqual(zipfile.ZipFile(io.BytesIO(packed)).read(f"photos/{row.pk}.jpg"), was)
        Photo.objects.all().delete()
        self.call("POST", f"{self.send(packed)}/take", {})
        self.assertEqual(bytes(Picture.objects.get(photo=row.pk).jpeg), was)
        self.assertEqual(self.document(self.packed()), self.document(packed))
        other = self.make_user("other")
        self.call("POST", f"{self.send(packed, client := self.sign_in('other'))}/take", {}, client=client)
        self.assertEqual(bytes(Picture.objects.get(photo__owner=other, photo__note=row.note).jpeg), was)

    def test_a_damaged_picture_stays_out_and_its_photo_comes(self):
        row = self.photo()
        out = io.BytesIO()
        with zipfile.ZipFile(out, "w") as packed:
            packed.writestr("still-thread.json", write_document(self.owner))
            packed.writestr(f"photos/{row.pk}.jpg", b"no picture")
        Photo.objects.all().delete()
        self.call("POST", f"{self.send(out.getvalue())}/take", {})
        self.assertFalse(Picture.objects.exists())
        self.assertTrue(Photo.objects.filter(pk=row.pk, note="=the best").exists())

    def test_a_deleted_water_with_outings_stays_deleted(self):
        water = some(Outing.objects.filter(owner=self.owner))[0].water
        delete_owned(Water, self.owner, water.pk)
        before = self.packed()
        for table in reversed(TABLES):
            table.model.objects.filter(owner=self.owner).delete()
        self.call("POST", f"{self.send(before)}/take", {})
        self.assertEqual(self.document(self.packed()), self.document(before))
        self.assertIsNotNone(Water.objects.get(pk=water.pk).deleted_at)

    def test_tables_open_in_a_spreadsheet_and_reckon_nothing(self):
        outing = some(Outing.objects.filter(owner=self.owner))[0]
        put_owned(Outing, self.owner, outing.pk, note="=1+1, cold")
        packed = zipfile.ZipFile(io.BytesIO(self.packed()))
        told = {n: list(csv.DictReader(io.StringIO(packed.read(n).decode()))) for n in packed.namelist() if ".csv" in n}
        self.assertIn("'=1+1, cold", [row["note"] for row in told["outings.csv"]])
        for name, model in (("outings.csv", Outing), ("stretches.csv", Spell), ("events.csv", Event)):
            self.assertEqual(len(told[name]), model.objects.filter(owner=self.owner, deleted_at=None).count())
        first = some(told["temperatures.csv"])[0]
        self.assertEqual(set(first), {"at", "water", "place", "depth_m", "temperature_c"})
        self.assertTrue(first["at"].endswith("Z") and float(first["temperature_c"]) > 0)

    def test_what_is_no_archive(self):
        bomb = io.BytesIO()
        with zipfile.ZipFile(bomb, "w", zipfile.ZIP_DEFLATED) as packed:
            packed.writestr("still-thread.json", " " * 130_000_000)
        other_version = {**json.loads(write_document(self.owner)), "version": 2}
        for data, says in (
            (b"not a zip", "no zip archive"),
            (self.repacked("{")[:-20], "no zip archive"),
            (self.repacked("[1, 2"), "cannot be read"),
            (self.repacked('{"format": "other"}'), "something else"),
            (self.repacked(other_version), "version 2"),
            (self.repacked('{"format": "still-thread", "version": 1, "settings": NaN}'), "NaN is no number"),
            (bomb.getvalue(), "too large"),
        ):
            with self.subTest(says):
                told = self.refused("GET", self.send(data, size=2_000_000))
                self.assertIn(says, told["file"]["message"])

    def test_faulty_rows_are_left_out_with_what_hangs_on_them_and_told(self):
        told = json.loads(write_document(self.owner))
        outing = next(one for one in told["outings"] if any(s["outing_id"] == one["id"] for s in told["stretches"]))
        outing["started_at"] = "yesterday"
        told["lines"][0]["label_ips"] = "3"
        told["flies"].append(told["flies"][0])
        spells = [s["id"] for s in told["stretches"] if s["outing_id"] == outing["id"]]
        events = [e for e in told["events"] if e["spell_id"] in spells]
        for table in reversed(TABLES):
            table.model.objects.filter(owner=self.owner).delete()
        at = self.send(self.repacked(told))
        found = self.call("GET", at)
        photos = [p for p in told["photos"] if p["outing_id"] == outing["id"]]
        self.assertEqual(found["left_out"], 3 + len(spells) + len(events) + len(photos))
        paths = {one["path"] for one in found["faults"]}
        self.assertIn("lines[0].label_ips", paths)
        self.assertIn(f"outings[{told['outings'].index(outing)}].started_at", paths)
        self.assertIn(f"flies[{len(told['flies']) - 1}].id", paths)
        self.call("POST", f"{at}/take", {})
        self.assertEqual(Outing.objects.filter(owner=self.owner).count(), len(told["outings"]) - 1)

    def test_more_than_a_kit_holds_takes_nothing_in(self):
        told = json.loads(write_document(self.owner))
        told["lines"] += [{**told["lines"][0], "id": str(uuid.uuid4())} for _ in range(80)]
        told["waters"][0]["name"] = "Another name"
        at = self.send(self.repacked(told))
        self.assertIn("at most", self.refused("POST", f"{at}/take", {"keep": "archive"})["lines"]["accepted"])
        self.assertFalse(Water.objects.filter(name="Another name").exists())

    def test_one_archive_at_a_time(self):
        at = self.send(self.packed())
        with READING:
            self.assertEqual(self.refused("GET", at, status=429)[""]["code"], "busy")
        self.call("GET", at)

    def test_parts_of_others_and_missing_parts(self):
        at = self.send(self.packed(), size=20_000)
        self.make_user("other")
        self.refused("GET", at, status=404, client=self.sign_in("other"))
        data = self.packed()
        upload = f"/api/archive/{uuid.uuid4()}"
        for part in (0, 2):
            self.client.put(
                f"{upload}/parts/{part}",
                data[:100],
                content_type="application/octet-stream",
                headers={"X-CSRFToken": self.client.cookies["csrftoken"].value},
            )
        self.assertIn("has not arrived whole", self.refused("GET", upload)["file"]["message"])
        self.refused("GET", at, status=404)  # one upload at a time
