import uuid

from tests.api.base import ApiCase

SPELL = {
    "method": "intermediate",
    "title": "Intermediate",
    "depth_m": 1.5,
    "count_s": 40,
    "pace": "hand-twist",
    "flies": ["Olive scud"],
    "started_at": "2026-05-14T10:00:00Z",
    "ended_at": "2026-05-14T11:00:00Z",
}


class OutingCase(ApiCase):
    def setUp(self):
        super().setUp()
        self.water = self.make_water()
        self.outing = f"/api/outings/{uuid.uuid4()}"
        self.body = {"water_id": self.water, "started_at": "2026-05-14T10:00:00Z", "ended_at": "2026-05-14T12:00:00Z"}
        self.call("PUT", self.outing, self.body)

    def spell(self, **changes):
        spell_id = str(uuid.uuid4())
        self.call("PUT", f"{self.outing}/spells/{spell_id}", {**SPELL, **changes})
        return spell_id

    def event(self, spell_id, kind, at="2026-05-14T10:30:00Z", **changes):
        event_id = str(uuid.uuid4())
        body = {"spell_id": spell_id, "kind": kind, "occurred_at": at, **changes}
        self.call("PUT", f"{self.outing}/events/{event_id}", body)
        return event_id, body


class Writing(OutingCase):
    def test_sent_twice_it_is_one(self):
        spell = self.spell()
        event, body = self.event(spell, "take", depth_m=1.4)
        self.call("PUT", f"{self.outing}/events/{event}", body)
        self.call("PUT", f"{self.outing}/spells/{spell}", SPELL)
        found = self.call("GET", self.outing)
        self.assertEqual((len(found["spells"]), len(found["events"])), (1, 1))

    def test_delete_and_undo_by_writing_again(self):
        spell = self.spell()
        event, body = self.event(spell, "landed", length_m=0.44, species="rainbow")
        for _ in range(2):
            self.call("DELETE", f"{self.outing}/events/{event}", status=204)
        self.assertEqual(self.call("GET", self.outing)["events"], [])
        self.call("PUT", f"{self.outing}/events/{event}", body)
        self.assertEqual(self.call("GET", self.outing)["events"][0]["length_m"], 0.44)

    def test_a_deleted_outing_comes_back_whole(self):
        self.event(self.spell(), "take")
        self.call("DELETE", self.outing, status=204)
        self.refused("GET", self.outing, status=404)
        self.assertEqual(self.call("GET", "/api/log")["outings"], [])
        self.call("PUT", self.outing, self.body)
        self.assertEqual(len(self.call("GET", self.outing)["events"]), 1)

    def test_a_deleted_spell_takes_its_events_out_of_sight(self):
        spell = self.spell()
        self.event(spell, "take")
        self.call("DELETE", f"{self.outing}/spells/{spell}", status=204)
        self.assertEqual(self.call("GET", self.outing)["events"], [])
        self.call("PUT", f"{self.outing}/spells/{spell}", SPELL)
        self.assertEqual(len(self.call("GET", self.outing)["events"]), 1)

    def test_somebody_elses_outing_is_not_there(self):
        spell = self.spell()
        self.make_user("stranger")
        stranger = self.sign_in("stranger")
        event = {"spell_id": spell, "kind": "take", "occurred_at": "2026-05-14T10:30:00Z"}
        for method, path, body in (
            ("GET", self.outing, None),
            ("PUT", self.outing, self.body),
            ("DELETE", self.outing, None),
            ("PUT", f"{self.outing}/spells/{spell}", SPELL),
            ("PUT", f"{self.outing}/spells/{uuid.uuid4()}", SPELL),
            ("DELETE", f"{self.outing}/spells/{spell}", None),
            ("PUT", f"{self.outing}/events/{uuid.uuid4()}", event),
        ):
            self.refused(method, path, body, 404, stranger)
        self.assertEqual(self.call("GET", "/api/log", client=stranger)["outings"], [])

    def test_faults_at_their_fields(self):
        spell = self.spell()
        for path, body, field in (
            (f"{self.outing}/spells/{uuid.uuid4()}", {**SPELL, "depth_m": -1}, "depth_m"),
            (f"{self.outing}/spells/{uuid.uuid4()}", {**SPELL, "count_s": -5}, "count_s"),
            (f"{self.outing}/spells/{uuid.uuid4()}", {**SPELL, "ended_at": "2026-05-14T09:00:00Z"}, ""),
            (f"{self.outing}/spells/{uuid.uuid4()}", {**SPELL, "mood": "low"}, "mood"),
            (
                f"{self.outing}/events/{uuid.uuid4()}",
                {"spell_id": spell, "kind": "sneeze", "occurred_at": "2026-05-14T10:30:00Z"},
                "kind",
            ),
            (
                f"{self.outing}/events/{uuid.uuid4()}",
                {"spell_id": spell, "kind": "take", "occurred_at": "yesterday"},
                "occurred_at",
            ),
            (self.outing, {**self.body, "ended_at": "2026-05-14T09:00:00Z"}, ""),
        ):
            self.assertIn(field, self.refused("PUT", path, body), body)

    def test_an_event_belongs_to_a_spell_of_its_own_outing(self):
        spell = self.spell()
        other = f"/api/outings/{uuid.uuid4()}"
        self.call("PUT", other, self.body)
        event = {"spell_id": spell, "kind": "take", "occurred_at": "2026-05-14T10:30:00Z"}
        self.assertIn("spell_id", self.refused("PUT", f"{other}/events/{uuid.uuid4()}", event))


class Log(OutingCase):
    def test_rates_by_hand(self):
        # Two hours' effort: one hour at 1.5 m with 3 takes (1 landed, 1 lost, 1 felt) and a pluck, one blank hour at 3.2 m.
        shallow = self.spell()
        self.spell(depth_m=3.2, started_at="2026-05-14T11:00:00Z", ended_at="2026-05-14T12:00:00Z")
        for minute, kind in enumerate(("landed", "lost", "take", "pluck", "weed", "blank")):
            self.event(shallow, kind, at=f"2026-05-14T10:{30 + minute}:00Z")
        found = self.call("GET", self.outing)
        self.assertEqual(found["takes_rate"]["per_hour"], 1.5)
        self.assertEqual(found["landed_rate"]["per_hour"], 0.5)
        # Exact Poisson limits for a count of 1: 0.0253 and 5.572 (printed tables), over two hours.
        self.assertAlmostEqual(found["landed_rate"]["low"], 0.0253 / 2, places=4)
        self.assertAlmostEqual(found["landed_rate"]["high"], 5.572 / 2, places=3)
        bins = {b["top_m"]: b for b in found["by_depth"]}
        self.assertEqual((bins[1.0]["hours"], bins[1.0]["takes"]["count"]), (1.0, 3))
        self.assertEqual((bins[3.0]["hours"], bins[3.0]["takes"]["per_hour"]), (1.0, 0.0))
        self.assertEqual(bins[2.0]["hours"], 0)
        self.assertEqual(found["plucks"], 1)

    def test_what_a_fish_should_weigh_and_how_well_fed_it_was(self):
        spell = self.spell()
        path = f"{self.outing}/events/{uuid.uuid4()}"
        fish = {"spell_id": spell, "kind": "landed", "occurred_at": "2026-05-14T10:30:00Z", "length_m": 0.5}
        self.assertIsNone(self.call("PUT", path, fish)["standard_kg"])  # of what?
        told = self.call("PUT", path, {**fish, "species": "rainbow"})
        self.assertEqual((told["standard_kg"], told["relative_weight"]), (1.49, None))
        told = self.call("PUT", path, {**fish, "species": "rainbow", "weight_kg": 1.19})
        self.assertEqual((told["fulton"], told["relative_weight"]), (0.95, 80))
        self.assertIn("weight_kg", self.refused("PUT", path, {**fish, "weight_kg": 0}))

    def test_effort_without_takes_is_data(self):
        self.spell()
        log = self.call("GET", f"/api/log?water_id={self.water}")
        self.assertEqual((log["blank_outings"], log["takes_rate"]["per_hour"]), (1, 0.0))
        self.assertGreater(log["takes_rate"]["high"], 0)

    def test_an_open_spell_ends_where_the_next_begins_or_at_its_last_event(self):
        self.call("PUT", self.outing, {**self.body, "ended_at": None})
        self.spell(ended_at=None)
        last = self.spell(ended_at=None, started_at="2026-05-14T10:45:00Z")
        self.event(last, "pluck", "2026-05-14T11:00:00Z")
        self.assertAlmostEqual(self.call("GET", self.outing)["hours"], 1.0)

    def test_feet_anglers_get_three_foot_steps(self):
        settings = self.call("GET", "/api/session")["settings"]
        self.call("PUT", "/api/settings", {**settings, "depth_unit": "ft"})
        self.spell()
        bins = self.call("GET", self.outing)["by_depth"]
        self.assertAlmostEqual(bins[1]["top_m"], 3 * 0.3048)

    def test_one_water_or_all(self):
        self.spell()
        other = self.make_water(name="Elsewhere")
        self.assertEqual(self.call("GET", f"/api/log?water_id={other}")["outings"], [])
        self.assertEqual(len(self.call("GET", "/api/log")["outings"]), 1)
        self.refused("GET", f"/api/log?water_id={uuid.uuid4()}", status=404)
