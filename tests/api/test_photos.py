"""Photos of an outing: written, sent, looked at, deleted; nothing of another's."""

import io
import uuid
from datetime import timedelta

from django.utils import timezone
from PIL import Image

from stillthread.outings.models import Photo, Picture
from tests.api.base import ApiCase
from tests.formats.test_picture import jpeg, noted


class Photos(ApiCase):
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
