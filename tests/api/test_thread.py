"""The thread bench over HTTP."""

import json
import pathlib
import uuid

from tests.api.base import ApiCase

EXAMPLES = pathlib.Path(__file__).resolve().parents[2] / "docs" / "examples"
CAST = json.loads((EXAMPLES / "cast.json").read_text("utf-8"))
FLOAT = json.loads((EXAMPLES / "float.json").read_text("utf-8"))


class Bench(ApiCase):
    def test_a_cast_and_a_float_rig(self):
        cast = self.call("POST", "/api/thread/simulate", {**CAST, "band": False})
        self.assertEqual([f["name"] for f in cast["flies"]], [f["name"] for f in CAST["flies"]])
        self.assertIsNone(cast["float"])
        rig = self.call("POST", "/api/thread/simulate", FLOAT)
        self.assertAlmostEqual(rig["float"]["set_m"], 4.267, places=3)

    def test_faults_come_back_at_their_path(self):
        told = self.refused("POST", "/api/thread/simulate", {**CAST, "countdown_s": -1, "cast_m": 50})
        self.assertEqual(set(told), {"countdown_s", "cast_m"})

    def test_the_table_counts_deeper_later(self):
        table = self.call("POST", "/api/thread/table", {"rig": CAST, "depths_m": [1, 2, 3, 50], "trolling": True})
        counts = [row["count_s"] for row in table["rows"]]
        self.assertEqual(len(counts), 3)  # 50 m is below the bed
        self.assertEqual(counts, sorted(counts))
        self.assertIsNotNone(table["rows"][0]["runs_mean_m"])
        speeds = [row[2] for row in table["trolling"]["depth_m"]]
        self.assertEqual(speeds, sorted(speeds, reverse=True))
        self.assertIn("rig.float", self.refused("POST", "/api/thread/table", {"rig": FLOAT}))

    def test_a_fly_build(self):
        fly = self.call("POST", "/api/thread/fly", {"build": {"hook": 10, "bead": "tungsten", "bead_mm": 3}})
        self.assertAlmostEqual(sum(p["submerged_g"] for p in fly["parts"]), fly["submerged_g"], places=3)
        self.assertGreater(fly["sink_m_s"], 0.1)
        self.assertIn("build.hook", self.refused("POST", "/api/thread/fly", {"build": {"hook": 99}}))

    def test_a_leader_from_a_wanted_length(self):
        told = self.call("POST", "/api/thread/leader", {"style": "swivel", "length_m": 4.572})
        self.assertEqual([round(c["length_m"] / 0.3048, 6) for c in told["cuts"]], [7, 6, 2])
        self.assertAlmostEqual(sum(p["length_m"] for p in told["pieces"]), 4.572)
        self.assertIn("length_m", self.refused("POST", "/api/thread/leader", {"style": "level", "length_m": 50}))

    def test_float_geometry_is_for_the_signed_in_anglers_reach(self):
        fixed = {**FLOAT, "float": {**FLOAT["float"], "type": "fixed"}}
        told = self.call("POST", "/api/thread/float", fixed)
        self.assertAlmostEqual(told["limit_m"], told["rod_m"] + told["arm_m"] + told["net_m"])
        self.assertEqual(told["can_land"], told["hang_m"] <= told["limit_m"])
        self.assertIn("float", self.refused("POST", "/api/thread/float", CAST))

    def test_calibration_narrows_and_checks(self):
        plain = [{"name": "plain", "from_line_m": 3.6576, "submerged_g": 0.03, "sink_m_s": 0.06}]
        deep = {**CAST, "flies": plain, "countdown_s": 75, "water_depth_m": 15}
        body = {"what": "line", "distance_m": 1, "seconds": 15, "rig": deep}
        told = self.call("POST", "/api/thread/calibrate", body)
        self.assertAlmostEqual(told["speed_m_s"], 1 / 15)
        self.assertAlmostEqual(told["label_ratio"], 1 / 15 / 0.0762)
        before, after = (told[k]["p90_m"] - told[k]["p10_m"] for k in ("before", "after"))
        self.assertLess(after, before)
        self.assertAlmostEqual(told["rig"]["line"]["measured_m_s"], 1 / 15)
        fly = self.call("POST", "/api/thread/calibrate", {**body, "what": "fly", "seconds": 9})
        self.assertAlmostEqual(fly["rig"]["flies"][0]["sink_m_s"], 1 / 9)
        self.assertIn("seconds", self.refused("POST", "/api/thread/calibrate", {**body, "seconds": 500}))
        floats = {**body, "rig": FLOAT}
        self.assertIn("rig.line.family", self.refused("POST", "/api/thread/calibrate", floats))

    def test_a_felt_bottom_and_a_cocked_float(self):
        felt = self.call("POST", "/api/thread/check", {"what": "bottom", "seen_s": 2, "rig": CAST})
        self.assertFalse(felt["agrees"])
        seen = {"what": "cocked", "seen_s": 0, "rig": FLOAT}
        expected = self.call("POST", "/api/thread/check", seen)["expected_s"]
        self.assertTrue(self.call("POST", "/api/thread/check", {**seen, "seen_s": expected})["agrees"])
        self.assertIn("rig.float", self.refused("POST", "/api/thread/check", {**seen, "rig": CAST}))


class Rigs(ApiCase):
    def test_kept_read_changed_and_forgotten(self):
        path = f"/api/thread/rigs/{uuid.uuid4()}"
        self.call("PUT", path, {"name": "Evening team", "document": CAST})
        self.call("PUT", path, {"name": "Evening team", "document": {**CAST, "countdown_s": 20}})
        kept = self.call("GET", "/api/thread/rigs")
        self.assertEqual([(r["name"], r["document"]["countdown_s"]) for r in kept], [("Evening team", 20)])
        self.call("DELETE", path, status=204)
        self.assertEqual(self.call("GET", "/api/thread/rigs"), [])

    def test_a_float_rig_comes_back_as_it_went(self):
        path = f"/api/thread/rigs/{uuid.uuid4()}"
        kept = self.call("PUT", path, {"name": "Bung", "document": FLOAT})["document"]
        self.assertEqual(kept["float"], FLOAT["float"])
        self.call("POST", "/api/thread/simulate", {**kept, "band": False})

    def test_another_anglers_rig_is_not_there(self):
        path = f"/api/thread/rigs/{uuid.uuid4()}"
        self.call("PUT", path, {"name": "Mine", "document": CAST})
        self.make_user("other")
        other = self.sign_in("other")
        self.assertEqual(self.call("GET", "/api/thread/rigs", client=other), [])
        self.refused("DELETE", path, status=404, client=other)
        self.refused("PUT", path, {"name": "Theirs", "document": CAST}, 404, other)

    def test_a_rig_that_cannot_be_is_not_kept(self):
        told = self.refused("PUT", f"/api/thread/rigs/{uuid.uuid4()}", {"name": "x", "document": {**CAST, "flies": []}})
        self.assertIn("flies", " ".join(told))

    def test_a_timed_line_goes_into_the_plan(self):
        line = str(uuid.uuid4())
        body = {"family": "sinking", "label_ips": 3.0, "measured_m_s": 0.06}
        told = self.call("PUT", f"/api/kit/lines/{line}", body)
        self.assertEqual((told["measured_m_s"], told["label_doubt"]), (0.06, None))
        doubted = self.call(
            "PUT", f"/api/kit/lines/{uuid.uuid4()}", {"family": "sinking", "label_ips": 7, "weight_class": 5}
        )
        self.assertIn("hard to build", doubted["label_doubt"])
