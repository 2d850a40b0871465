"""The fly box over HTTP: builds that compute, counts, what fits today, what to tie, files in and out."""

import uuid

from django.core.files.uploadedfile import SimpleUploadedFile

from tests.api.base import ApiCase

FLY = {
    "name": "Trial pupa",
    "family": "slim-pupa",
    "prey": ["chironomid-pupa"],
    "hooks": [12, 14],
    "tone": "dark",
    "weight": "unweighted",
    "build": {"hook": 12, "bead": "tungsten", "bead_mm": 2.8},
    "recipe": {"materials": [{"part": "body", "what": "thread", "colour": "black"}], "steps": [{"text": "Wind it."}]},
}


class Box(ApiCase):
    def put(self, status=200, **changes):
        path = f"/api/kit/flies/{uuid.uuid4()}"
        return (
            self.call("PUT", path, {**FLY, **changes})
            if status == 200
            else self.refused("PUT", path, {**FLY, **changes}, status)
        )

    def test_the_build_decides_weight_and_speed(self):
        told = self.put()
        self.assertEqual(told["weight"], "weighted")
        self.assertGreater(told["sink_m_s"], 0.2)
        self.assertEqual((told["sink_class"], told["sink_hook"], told["own_build"]), ("very fast", 12, True))
        bare = self.put(build=None, name="Bare pupa")
        self.assertEqual((bare["weight"], bare["own_build"]), ("unweighted", False))
        self.assertLess(bare["sink_m_s"], told["sink_m_s"])
        foam = self.put(build={"hook": 12, "foam_mm3": 300}, name="Foam pupa")
        self.assertEqual((foam["weight"], foam["sink_class"]), ("buoyant", "floats"))

    def test_counts_by_size_and_colour_make_the_stock(self):
        counts = [{"hook": 12, "colour": "black", "count": 3}, {"hook": 14, "count": 2}]
        self.assertEqual(self.put(counts=counts)["stock"], 5)

    def test_bad_patterns_are_refused_at_their_field(self):
        self.assertIn("build.bead", self.put(422, build={"hook": 12, "bead": "gold"}))
        self.assertIn("family", self.put(422, family="spoon"))
        self.assertIn("recipe.materials[0].part", self.put(422, recipe={"materials": [{"part": "soul", "what": "x"}]}))
        self.assertTrue(self.put(422, build={"hook": 8}))
        self.assertTrue(self.put(422, hooks=[2]))

    def test_the_starter_box_comes_with_recipes(self):
        kit = self.call("GET", "/api/kit")
        self.assertGreaterEqual(len(kit["starter"]), 30)
        self.make_kit()
        flies = self.call("GET", "/api/kit")["flies"]
        self.assertEqual(len(flies), len(kit["starter"]))
        self.assertTrue(all(f["own_build"] and f["recipe"]["steps"] for f in flies))

    def test_old_flies_of_the_starters_name_get_its_recipe_and_keep_their_stock(self):
        name = self.call("GET", "/api/kit")["starter"][0]["name"]
        path = f"/api/kit/flies/{uuid.uuid4()}"
        self.call("PUT", path, {**FLY, "name": name, "build": None, "recipe": {}, "stock": 4})
        self.call("POST", "/api/kit/starter", {"keys": [self.call("GET", "/api/kit")["starter"][0]["key"]]})
        # Its recipe was noted empty, so it is the angler's own wish: nothing of theirs is overwritten.
        fly = next(f for f in self.call("GET", "/api/kit")["flies"] if f["name"] == name)
        self.assertEqual(fly["stock"], 4)

    def test_files_out_and_in_again(self):
        self.make_kit()
        before = self.call("GET", "/api/kit/flies.json")
        table = self.client.get("/api/kit/flies.csv")
        self.assertTrue(table["Content-Type"].startswith("text/csv"))
        for fly in self.call("GET", "/api/kit")["flies"]:
            self.call("DELETE", f"/api/kit/flies/{fly['id']}", status=204)
        import json

        for _ in range(2):  # taken twice it is the same box
            self.assertEqual(self.upload(json.dumps(before).encode())["taken"], len(before["flies"]))
        self.assertEqual(self.call("GET", "/api/kit/flies.json"), before)
        self.assertIn("line 1", self.upload(b"a,b\n1,2\n", 422)["errors"][0]["path"])

    def upload(self, data, status=200):
        token = self.client.cookies["csrftoken"].value
        answer = self.client.post(
            "/api/kit/box-file", {"file": SimpleUploadedFile("flies", data)}, headers={"X-CSRFToken": token}
        )
        self.assertEqual(answer.status_code, status, answer.content[:300])
        return answer.json()


class Day(ApiCase):
    def setUp(self):
        super().setUp()
        self.make_kit()
        self.water = self.make_water()
        self.body = {"water_id": self.water, "when": "2026-05-14T10:00:00Z", "place": "Shelf"}

    def flies(self, prey):
        return [f for f in self.call("GET", "/api/kit")["flies"] if prey in f["prey"]]

    def test_what_fits_and_what_is_missing(self):
        seen = [{"prey": "snail", "abundance": "many"}]
        told = self.call("POST", "/api/box/today", {**self.body, "sightings": seen})
        first = told["rows"][0]
        self.assertEqual((first["prey"], first["gap"]), ("snail", False))
        for fly in self.flies("snail"):
            self.call("DELETE", f"/api/kit/flies/{fly['id']}", status=204)
        told = self.call("POST", "/api/box/today", {**self.body, "sightings": seen})
        first = told["rows"][0]
        self.assertEqual((first["prey"], first["gap"], told["gaps"]), ("snail", True, 1))
        self.assertIn("Dark snail", first["starters"])

    def test_what_to_tie_for_the_plan(self):
        plan = self.call("POST", "/api/plans/preview", self.body)
        used = {(f["key"], f["hook"]) for s in plan["set_ups"] for f in s["flies"]}
        told = self.call("POST", "/api/box/tie-list", {**self.body, "copies": 4})
        self.assertEqual({(t["id"], t["hook"]) for t in told["ties"]}, used)
        self.assertTrue(all(t["have"] is None and t["to_tie"] == 4 and t["has_recipe"] for t in told["ties"]))
        hooks = sum(m["flies"] for m in told["materials"] if m["part"] == "hook")
        self.assertEqual(hooks, 4 * len(used))

    def test_what_is_there_need_not_be_tied(self):
        told = self.call("POST", "/api/box/tie-list", self.body)
        tie = told["ties"][0]
        fly = next(f for f in self.call("GET", "/api/kit")["flies"] if f["id"] == tie["id"])
        drop = ("id", "revision", "submerged_g", "sink_m_s", "sink_class", "sink_hook", "own_build")
        body = {k: v for k, v in fly.items() if k not in drop}
        self.call("PUT", f"/api/kit/flies/{tie['id']}", {**body, "counts": [{"hook": tie["hook"], "count": 2}]})
        again = self.call("POST", "/api/box/tie-list", self.body)["ties"]
        mine = next(t for t in again if (t["id"], t["hook"]) == (tie["id"], tie["hook"]))
        self.assertEqual((mine["have"], mine["to_tie"]), (2, 1))

    def test_bad_questions(self):
        self.assertIn("copies", self.refused("POST", "/api/box/tie-list", {**self.body, "copies": 0}))
        self.refused("POST", "/api/box/today", {**self.body, "water_id": str(uuid.uuid4())}, 404)
