"""Outings and kept plans of older versions: every page that shows them opens."""

import json
import pathlib
import uuid

from django.db.models import F

from stillthread.outings.models import Outing
from stillthread.plans.models import Plan
from tests.api.base import ApiCase

FROZEN = sorted((pathlib.Path(__file__).resolve().parents[1] / "data" / "frozen").glob("*.json"))


class OldPlans(ApiCase):
    def test_outing_kept_plan_and_calendar_of_every_version(self):
        self.make_kit()
        water = self.make_water()
        for path in FROZEN:
            answer = json.loads(path.read_text("utf-8"))
            outing, plan = str(uuid.uuid4()), str(uuid.uuid4())
            body = {"water_id": water, "when": "2026-05-14T10:00:00Z", "reading": {}}
            self.call("PUT", f"/api/plans/{plan}", body)
            Plan.objects.filter(pk=plan).update(answer=answer, request={"version": 0})
            self.call("PUT", f"/api/outings/{outing}", {"water_id": water, "started_at": "2026-05-14T10:00:00Z"})
            Outing.objects.filter(pk=outing).update(plan_snapshot=answer, revision=F("revision") + 1)
            with self.subTest(path.stem):
                told = self.call("GET", f"/api/outings/{outing}")
                self.assertEqual(len(told["plan"]["set_ups"]), 2)
                self.assertFalse(told["plan_lost"])
                kept = self.call("GET", f"/api/plans/{plan}")
                self.assertEqual(kept["answer"]["set_ups"][0]["title"], answer["set_ups"][0]["title"])
                self.assertEqual(self.client.get(f"/api/plans/{plan}/calendar.ics").status_code, 200)

    def test_what_cannot_be_read_says_so(self):
        water, outing = self.make_water(), str(uuid.uuid4())
        self.call("PUT", f"/api/outings/{outing}", {"water_id": water, "started_at": "2026-05-14T10:00:00Z"})
        Outing.objects.filter(pk=outing).update(
            plan_snapshot={"version": 7, "of": "tomorrow"}, revision=F("revision") + 1
        )
        told = self.call("GET", f"/api/outings/{outing}")
        self.assertEqual((told["plan"], told["plan_lost"]), (None, True))
