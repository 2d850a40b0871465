"""An edit made on an older version changes nothing and tells both; what was deleted stays so; no row takes a page down."""

import json
import uuid
from datetime import UTC, datetime, timedelta

from django.utils import timezone

from stillthread.outings.models import Event
from stillthread.waters.models import Place
from tests.api.base import ApiCase

AT = "2026-05-01T09:00:00Z"


class Revised(ApiCase):
    def setUp(self):
        super().setUp()
        self.water = self.make_water()
        self.outing, self.spell, self.event = (str(uuid.uuid4()) for _ in range(3))
        self.call("PUT", f"/api/outings/{self.outing}", {"water_id": self.water, "started_at": AT})
        self.at = f"/api/outings/{self.outing}"
        self.call("PUT", f"{self.at}/spells/{self.spell}", {"method": "float", "title": "Float", "started_at": AT})

    def edit(self, note, based_on=None, status=200):
        body = {"spell_id": self.spell, "kind": "take", "occurred_at": AT, "note": note}
        return self.write("PUT", f"{self.at}/events/{self.event}", body, based_on, status)

    def write(self, method, path, body, based_on, status):
        named = {} if based_on is None else {"If-Match": f'"{based_on}"'}
        answer = self.client.generic(
            method,
            path,
            "" if body is None else json.dumps(body),
            content_type="application/json",
            headers={"X-CSRFToken": self.client.cookies["csrftoken"].value, **named},
        )
        self.assertEqual(answer.status_code, status, answer.content[:300])
        return answer.json() if answer.content else None

    def test_each_change_counts_the_revision_up(self):
        told = [self.edit(note)["revision"] for note in ("first", "second", "third")]
        self.assertEqual(told, [1, 2, 3])
        self.assertEqual(self.call("GET", self.at)["events"][0]["revision"], 3)

    def test_a_late_edit_of_an_older_version_tells_both(self):
        self.edit("first")
        self.edit("from the desk", based_on=1)
        told = self.edit("from the boat, late", based_on=1, status=409)
        self.assertEqual(told["errors"][0]["code"], "stale")
        self.assertEqual((told["kept"]["note"], told["sent"]["note"]), ("from the desk", "from the boat, late"))
        self.assertEqual(Event.objects.get().note, "from the desk")

    def test_the_same_edit_sent_twice_is_one(self):
        self.edit("first")
        self.edit("second", based_on=1)
        self.edit("second", based_on=1)

    def test_what_was_deleted_does_not_come_back_by_a_late_edit(self):
        self.edit("first")
        self.call("DELETE", f"{self.at}/events/{self.event}", status=204)
        told = self.edit("late", based_on=1, status=409)
        self.assertEqual(told["errors"][0]["code"], "deleted_elsewhere")
        self.assertEqual(self.call("GET", self.at)["events"], [])

    def test_a_deletion_of_what_has_changed_since(self):
        self.edit("first")
        self.edit("second")
        told = self.write("DELETE", f"{self.at}/events/{self.event}", None, 1, 409)
        self.assertEqual(told["kept"]["note"], "second")
        self.write("DELETE", f"{self.at}/events/{self.event}", None, 2, 204)

    def test_no_revision_is_told(self):
        for named in ("soon", "-1", "1e3", "9" * 40):
            told = self.write("PUT", self.at, {"water_id": self.water, "started_at": AT}, named, 422)
            self.assertEqual(told["errors"][0]["path"], "If-Match")

    def test_a_water_written_again_as_it_is_changes_nothing(self):
        water = self.call("GET", f"/api/waters/{self.water}")
        body = {key: value for key, value in water.items() if key not in ("id", "revision")}
        self.assertEqual(self.call("PUT", f"/api/waters/{self.water}", body)["revision"], 1)

    def test_a_place_left_out_of_a_water_comes_back(self):
        water = self.call("GET", f"/api/waters/{self.water}")
        body = {key: value for key, value in water.items() if key not in ("id", "revision")}
        self.call("PUT", f"/api/waters/{self.water}", {**body, "places": body["places"][:1]})
        self.assertEqual(Place.objects.count(), 2)
        again = self.call("PUT", f"/api/waters/{self.water}", body)
        self.assertEqual([p["id"] for p in again["places"]], [p["id"] for p in body["places"]])


class Dates(ApiCase):
    def refused_at(self, path, body, field):
        told = self.refused("PUT", path, body)
        self.assertIn(field, told)

    def test_dates_out_of_the_world_are_refused_at_every_door(self):
        water = self.make_water()
        far = (timezone.now() + timedelta(days=400)).isoformat()
        outing = f"/api/outings/{uuid.uuid4()}"
        for when in ("0001-01-01T00:00:00Z", "1969-12-31T23:59:59Z", "9999-12-31T23:59:59Z", far):
            self.refused_at(outing, {"water_id": water, "started_at": when}, "started_at")
            spell = {"method": "float", "title": "Float", "started_at": when}
            self.refused_at(f"{outing}/spells/{uuid.uuid4()}", spell, "started_at")
            event = {"spell_id": str(uuid.uuid4()), "kind": "take", "occurred_at": when}
            self.refused_at(f"{outing}/events/{uuid.uuid4()}", event, "occurred_at")
            reading = {"taken_at": when, "reading": {"surface_c": 12}}
            self.refused_at(f"/api/waters/{water}/readings/{uuid.uuid4()}", reading, "taken_at")
        told = self.refused(
            "POST", "/api/plans/preview", {"water_id": water, "when": "9999-12-31T23:00:00+14:00", "reading": {}}
        )
        self.assertIn("when", told)
        body = {**self.call("GET", f"/api/waters/{water}"), "stocked_on": "0001-01-01"}
        del body["id"], body["revision"]
        self.refused_at(f"/api/waters/{water}", body, "stocked_on")

    def test_a_spell_of_more_than_a_day(self):
        begun = datetime(2026, 5, 1, 9, tzinfo=UTC)
        body = {"method": "float", "title": "Float", "started_at": begun.isoformat()}
        path = f"/api/outings/{uuid.uuid4()}/spells/{uuid.uuid4()}"
        told = self.refused("PUT", path, {**body, "ended_at": (begun + timedelta(hours=25)).isoformat()})
        self.assertIn("longer than a day", next(iter(told.values()))["message"])
