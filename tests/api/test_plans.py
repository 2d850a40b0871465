import uuid

from stillthread.site.api import api
from tests.api.base import ApiCase

BODY = {
    "when": "2026-05-14T10:00:00Z",
    "place": "Channel",
    "reading": {
        "profile": [{"depth_m": d, "temperature_c": t} for d, t in ((0, 12.5), (2, 12), (4, 11), (6, 10))],
        "water_depth_m": 6.5,
        "wind_m_s": 4.0,
        "wind_from_deg": 225,
        "cloud_oktas": 6,
        "clarity": "clear",
    },
}


class Plans(ApiCase):
    def setUp(self):
        super().setUp()
        self.water = self.make_water()
        self.body = {**BODY, "water_id": self.water}

    def test_without_a_kit_it_says_what_is_missing(self):
        self.assertIn("tackle.lines", self.refused("POST", "/api/plans/preview", self.body))

    def test_preview_keeps_nothing(self):
        self.make_kit()
        plan = self.call("POST", "/api/plans/preview", self.body)
        self.assertEqual(plan["belief"]["chosen"], "Channel")
        self.assertTrue(2 <= len(plan["set_ups"]) <= 4)
        self.assertTrue(all(len(s["flies"]) <= 2 for s in plan["set_ups"]))

    def test_a_reading_changes_the_plan_at_once(self):
        self.make_kit()
        before = self.call("POST", "/api/plans/preview", self.body)
        dark = {**self.body, "when": "2026-05-14T21:00:00Z", "sightings": [{"rise": "splash", "abundance": "many"}]}
        after = self.call("POST", "/api/plans/preview", dark)
        peak = [next(p["peak_m"] for p in x["belief"]["places"] if p["place"] == "Channel") for x in (before, after)]
        self.assertLess(peak[1], peak[0])

    def test_faults_come_back_at_the_reading(self):
        self.make_kit()
        bad = {**self.body, "reading": {"profile": [{"depth_m": 0, "temperature_c": 60}], "wind_m_s": 200}}
        told = self.refused("POST", "/api/plans/preview", bad)
        self.assertEqual(set(told), {"reading.profile[0].temperature_c", "reading.wind_m_s"})
        self.assertIn("place", self.refused("POST", "/api/plans/preview", {**self.body, "place": "Atlantis"}))
        self.refused("POST", "/api/plans/preview", {**self.body, "water_id": str(uuid.uuid4())}, 404)

    def test_a_kept_plan_stays_as_it_was(self):
        self.make_kit()
        plan_id = uuid.uuid4()
        kept = self.call("PUT", f"/api/plans/{plan_id}", self.body)
        for line in self.call("GET", "/api/kit")["lines"]:
            self.call("DELETE", f"/api/kit/lines/{line['id']}", status=204)
        self.assertEqual(self.call("GET", f"/api/plans/{plan_id}")["answer"], kept["answer"])

    def test_start_is_safe_to_send_twice_and_freezes_the_plan(self):
        self.make_kit()
        plan_id = uuid.uuid4()
        plan = self.call("PUT", f"/api/plans/{plan_id}", self.body)
        start = {
            "outing_id": str(uuid.uuid4()),
            "spell_id": str(uuid.uuid4()),
            "set_up": 1,
            "started_at": "2026-05-14T10:05:00Z",
        }
        first = self.call("POST", f"/api/plans/{plan_id}/start", start)
        self.assertEqual(first, self.call("POST", f"/api/plans/{plan_id}/start", start))
        self.assertEqual(first["plan"], plan["answer"])
        self.assertEqual(first["spells"][0]["title"], plan["answer"]["set_ups"][1]["title"])
        self.assertIn("set_up", self.refused("POST", f"/api/plans/{plan_id}/start", {**start, "set_up": 9}))

    def test_somebody_elses_plan(self):
        self.make_kit()
        plan_id = uuid.uuid4()
        self.call("PUT", f"/api/plans/{plan_id}", self.body)
        self.make_user("stranger")
        stranger = self.sign_in("stranger")
        self.refused("GET", f"/api/plans/{plan_id}", status=404, client=stranger)


class Contract(ApiCase):
    def test_every_route_declares_its_failures(self):
        for path, methods in api.get_openapi_schema()["paths"].items():
            for method, route in methods.items():
                self.assertLessEqual({"401", "404", "422"}, {str(s) for s in route["responses"]}, f"{method} {path}")

    def test_the_starter_set_goes_in_once(self):
        self.make_kit()
        count = len(self.call("GET", "/api/kit")["flies"])
        self.call("POST", "/api/kit/starter", {"keys": ["red-worm"]})
        self.assertEqual(len(self.call("GET", "/api/kit")["flies"]), count)
        self.assertIn("keys[0]", self.refused("POST", "/api/kit/starter", {"keys": ["no-such-fly"]}))

    def test_a_line_must_make_sense(self):
        for line in (
            {"family": "floating", "label_ips": 3},
            {"family": "sinking"},
            {"family": "sink-tip", "label_ips": 2},
        ):
            self.refused("PUT", f"/api/kit/lines/{uuid.uuid4()}", line)
        self.assertIn(
            "label_ips", self.refused("PUT", f"/api/kit/lines/{uuid.uuid4()}", {"family": "sinking", "label_ips": -2})
        )
