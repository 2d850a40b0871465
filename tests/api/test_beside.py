"""What is laid beside an outing: photos written, sent, looked at, deleted; the boat's track; nothing of another's."""

import io
import uuid
import zipfile
from datetime import timedelta

from django.core.files.uploadedfile import SimpleUploadedFile
from django.utils import timezone
from PIL import Image

from stillthread.archive.read import read_archive
from stillthread.archive.take import take
from stillthread.archive.write import write_document
from stillthread.formats.gpx import read_track
from stillthread.outings.models import Photo, Picture, Track
from tests.api.base import ApiCase
from tests.formats.test_picture import jpeg, noted


class PhotosCase(ApiCase):
    def setUp(self):
        super().setUp()
        self.outing = str(uuid.uuid4())
        self.began = timezone.now() - timedelta(hours=3)
        body = {"water_id": self.make_water(), "started_at": self.began.isoformat()}
        self.call("PUT", f"/api/outings/{self.outing}", body)

    def body(self, **changes):
        return {"shows": "fish", "taken_at": self.began.isoformat(), "depth_m": 3.5, "note": "the first", **changes}

    def put(self, photo=None, **changes):
        photo = photo or str(uuid.uuid4())
        return self.call("PUT", f"/api/outings/{self.outing}/photos/{photo}", self.body(**changes))

    def send(self, photo, data, client=None):
        client = client or self.client
        return client.put(
            f"/api/photos/{photo}/picture",
            data,
            content_type="image/jpeg",
            headers={"X-CSRFToken": client.cookies["csrftoken"].value},
        )

    def photos(self):
        return self.call("GET", f"/api/outings/{self.outing}")["photos"]


class Photos(PhotosCase):
    def test_a_photo_and_its_picture(self):
        told = self.put()
        self.assertEqual((told["arrived"], told["depth_m"]), (False, 3.5))
        self.refused("GET", f"/api/photos/{told['id']}/picture", status=404)
        self.assertEqual(self.send(told["id"], jpeg(exif=noted())).status_code, 204)
        self.assertTrue(self.photos()[0]["arrived"])
        for size, points in (("whole", (300, 400)), ("small", (240, 320))):
            answer = self.client.get(f"/api/photos/{told['id']}/picture?size={size}")
            self.assertEqual(answer["Content-Type"], "image/jpeg")
            self.assertEqual(Image.open(io.BytesIO(answer.content)).size, points)
            self.assertNotIn(b"some camera", answer.content)
        self.refused("GET", f"/api/photos/{told['id']}/picture?size=huge")

    def test_what_is_no_picture_is_refused_and_the_photo_stays(self):
        photo = self.put()["id"]
        answer = self.send(photo, b"not a picture")
        self.assertEqual(answer.status_code, 422)
        self.assertEqual(answer.json()["errors"][0]["path"], "picture")
        self.assertEqual(self.send(photo, b"x" * 3_600_000).status_code, 413)
        self.assertFalse(self.photos()[0]["arrived"])

    def test_twenty_an_outing(self):
        made = [self.put()["id"] for _ in range(20)]
        path = f"/api/outings/{self.outing}/photos"
        refused = self.refused("PUT", f"{path}/{uuid.uuid4()}", self.body())
        self.assertEqual(refused["photos"]["accepted"], "at most 20")
        self.put(made[0], note="told otherwise")  # one that is there can be changed
        self.call("DELETE", f"{path}/{made[1]}", status=204)
        self.put()
        self.assertEqual(len(self.photos()), 20)

    def test_deleted_and_brought_back_with_its_picture(self):
        photo = self.put()["id"]
        self.send(photo, jpeg())
        self.call("DELETE", f"/api/outings/{self.outing}/photos/{photo}", status=204)
        self.assertEqual(self.photos(), [])
        self.refused("GET", f"/api/photos/{photo}/picture", status=404)
        binned = next(row for row in self.call("GET", "/api/bin") if row["kind"] == "photo")
        self.assertEqual(binned["what"], "Photo of the fish")
        self.call("POST", f"/api/bin/photo/{photo}/restore")
        self.assertTrue(self.photos()[0]["arrived"])
        self.call("DELETE", f"/api/outings/{self.outing}/photos/{photo}", status=204)
        Photo.objects.update(deleted_at=timezone.now() - timedelta(days=31))
        self.call("GET", "/api/bin")
        self.assertEqual((Photo.objects.count(), Picture.objects.count()), (0, 0))

    def test_among_other_rows_from_a_phone(self):
        photo = str(uuid.uuid4())
        row = {"kind": "photo", "outing": self.outing, "id": photo, "body": self.body()}
        told = self.call("POST", "/api/outings/rows", {"version": 2, "rows": [row]})
        self.assertEqual((told["rows"][0]["status"], told["rows"][0]["revision"]), (200, 1))
        gone = {**row, "on": 1, "body": None}
        self.assertEqual(
            self.call("POST", "/api/outings/rows", {"version": 2, "rows": [gone]})["rows"][0]["status"], 204
        )

    def test_nothing_of_anothers(self):
        photo = self.put()["id"]
        self.send(photo, jpeg())
        self.make_user("other")
        other = self.sign_in("other")
        path = f"/api/outings/{self.outing}/photos/{photo}"
        self.refused("GET", f"/api/photos/{photo}/picture", status=404, client=other)
        self.refused("PUT", path, self.body(), status=404, client=other)
        self.refused("DELETE", path, status=404, client=other)
        self.assertEqual(self.send(photo, jpeg(), other).status_code, 404)

    def test_a_deleted_account_takes_its_pictures_along(self):
        self.send(self.put()["id"], jpeg())
        self.user.delete()
        self.assertFalse(Picture.objects.exists())


class Tracks(PhotosCase):
    def track(self, minutes=90, begins=None, step=(0.0001, 0.0)):
        begins = begins or self.began
        points = [
            f'<trkpt lat="{54.5 + n * step[0]:.6f}" lon="{-3.1 + n * step[1]:.6f}">'
            f"<time>{(begins + timedelta(minutes=n)).isoformat()}</time></trkpt>"
            for n in range(minutes)
        ]
        text = f'<gpx version="1.1" creator="x"><trk><trkseg>{"".join(points)}</trkseg></trk></gpx>'
        return SimpleUploadedFile("drift.gpx", text.encode(), "application/gpx+xml")

    def take(self, file, client=None):
        client = client or self.client
        token = client.cookies["csrftoken"].value
        return client.post(f"/api/outings/{self.outing}/track", {"file": file}, headers={"X-CSRFToken": token})

    def spell(self, start, minutes):
        spell = str(uuid.uuid4())
        began = self.began + timedelta(minutes=start)
        span = {"started_at": began.isoformat(), "ended_at": (began + timedelta(minutes=minutes)).isoformat()}
        self.call("PUT", f"/api/outings/{self.outing}/spells/{spell}", {"method": "float", "title": "Float", **span})
        return spell

    def test_a_track_is_the_drift_of_the_stretches_it_covers(self):
        first, late = self.spell(10, 60), self.spell(120, 30)
        path = f"/api/outings/{self.outing}/track"
        self.assertIsNone(self.call("GET", path))
        told = self.take(self.track()).json()
        self.assertEqual([one["spell_id"] for one in told["drifts"]], [first])
        # A ten-thousandth of a degree of latitude a minute is 11.1 m (a nautical mile is a minute of latitude).
        self.assertAlmostEqual(told["drifts"][0]["speed_m_s"], 11.1 / 60, delta=0.003)
        self.assertEqual((told["drifts"][0]["towards"], told["points"]), ("N", 90))
        self.assertNotIn(late, [one["spell_id"] for one in told["drifts"]])
        again = self.take(self.track(step=(0.0, 0.0002))).json()
        self.assertEqual(again["drifts"][0]["towards"], "E")
        self.assertEqual(self.call("GET", path), again)
        gpx = self.client.get(f"{path}.gpx")
        self.assertEqual(len(read_track(gpx.content)), 90)
        self.call("DELETE", path, status=204)
        self.assertIsNone(self.call("GET", path))
        self.assertIn("track", [row["kind"] for row in self.call("GET", "/api/bin")])
        self.assertEqual(self.take(self.track()).json()["points"], 90)  # taken in again after it was deleted

    def test_a_track_of_another_day_and_what_is_none(self):
        other = self.take(self.track(begins=self.began - timedelta(days=3)))
        self.assertEqual((other.status_code, other.json()["errors"][0]["code"]), (422, "other_time"))
        self.assertEqual(self.take(SimpleUploadedFile("x.gpx", b"<html>")).status_code, 422)
        self.make_user("other")
        self.assertEqual(self.take(self.track(), self.sign_in("other")).status_code, 404)

    def test_in_the_archive(self):
        self.spell(10, 60)
        self.take(self.track())
        document = write_document(self.user)
        Track.objects.all().delete()
        self.assertNotEqual(write_document(self.user), document)
        read = read_archive(io.BytesIO(self.client.get("/api/archive").getvalue()))
        packed = io.BytesIO()
        with zipfile.ZipFile(packed, "w") as out:
            out.writestr("still-thread.json", document)
        take(self.user, read_archive(packed), "mine")
        self.assertEqual((write_document(self.user), read.rows["tracks"]), (document, []))
