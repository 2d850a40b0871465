"""The log as the planner reads it: every water, its own day, the warmth of that day, and nobody else's."""

import uuid
from datetime import UTC, datetime

from stillthread.outings.past import past_stretches
from stillthread.waters.models import Water
from stillthread.waters.services import water_document
from tests.api.base import ApiCase

NOW = datetime(2026, 6, 1, tzinfo=UTC)


class Past(ApiCase):
    def setUp(self):
        super().setUp()
        self.water = self.make_water()

    def outing(self, water, start="2026-05-10T09:00:00Z", end="2026-05-10T12:00:00Z", **spell):
        outing, spell_id = uuid.uuid4(), uuid.uuid4()
        self.call("PUT", f"/api/outings/{outing}", {"water_id": water, "started_at": start, "ended_at": end})
        body = {
            "method": "float",
            "title": "Float rig",
            "place": "Channel",
            "started_at": start,
            "ended_at": end,
            **spell,
        }
        self.call("PUT", f"/api/outings/{outing}/spells/{spell_id}", body)
        return outing, spell_id

    def event(self, outing, spell, kind, fly="", minute=0):
        body = {"spell_id": str(spell), "kind": kind, "occurred_at": f"2026-05-10T10:{minute:02}:00Z", "fly": fly}
        self.call("PUT", f"/api/outings/{outing}/events/{uuid.uuid4()}", body)

    def read(self, user=None, before=NOW):
        return past_stretches(user or self.user, Water.objects.get(pk=self.water), before)

    def test_hours_takes_and_what_took(self):
        outing, spell = self.outing(self.water, depth_m=3.0, low_m=3.4, high_m=2.6, flies=["Pupa", "Scud"])
        taps = (("landed", ""), ("lost", "Scud"), ("take", "Pupa"), ("pluck", "Pupa"), ("weed", ""))
        for minute, (kind, fly) in enumerate(taps):
            self.event(outing=outing, spell=spell, kind=kind, fly=fly, minute=minute)
        (one,) = self.read()
        self.assertEqual((one.fished_h, one.takes), (3.0, 3))  # a pluck is no take
        self.assertEqual(one.taken_on, ("Scud", "Pupa"))
        self.assertEqual((one.low_m, one.high_m), (2.6, 3.4))
        self.assertEqual((one.place_kind, one.same_water), ("drop-off", True))

    def test_blank_time_counts_and_no_time_does_not(self):
        self.outing(self.water)
        self.outing(self.water, end="2026-05-10T09:00:00Z")
        (one,) = self.read()
        self.assertEqual((one.takes, one.depth_m), (0, None))

    def test_the_surface_of_that_day_on_that_water(self):
        for day, warm in (("10", 12.4), ("11", 15.0)):
            reading = {
                "place": None,
                "taken_at": f"2026-05-{day}T08:00:00Z",
                "reading": {"profile": [{"depth_m": 0, "temperature_c": warm}]},
            }
            self.call("PUT", f"/api/waters/{self.water}/readings/{uuid.uuid4()}", reading)
        self.outing(self.water)
        self.assertEqual(self.read()[0].surface_c, 12.4)

    def test_other_waters_count_and_say_so(self):
        other = self.make_water()
        self.outing(other)
        self.assertFalse(self.read()[0].same_water)

    def test_nothing_from_after_and_nothing_of_anybody_else(self):
        self.outing(self.water)
        self.assertEqual(self.read(before=datetime(2026, 5, 1, tzinfo=UTC)), [])
        self.assertEqual(self.read(user=self.make_user("stranger")), [])

    def test_what_was_deleted_is_gone(self):
        outing, _ = self.outing(self.water)
        self.call("DELETE", f"/api/outings/{outing}", status=204)
        self.assertEqual(self.read(), [])


class Levels(ApiCase):
    def test_the_lowest_level_of_the_last_three_months_goes_into_the_water(self):
        water = self.make_water()
        levels = {"2026-01-02": -9.0, "2026-04-01": -2.5, "2026-05-20": -0.5}
        for day, level in levels.items():
            body = {"taken_at": f"{day}T10:00:00Z", "place": None, "sightings": [], "reading": {"level_m": level}}
            self.call("PUT", f"/api/waters/{water}/readings/{uuid.uuid4()}", body)
        row = Water.objects.get(pk=water)
        self.assertEqual(water_document(row, NOW).lowest_level_m, -2.5)
        self.assertIsNone(water_document(row, datetime(2025, 6, 1, tzinfo=UTC)).lowest_level_m)
