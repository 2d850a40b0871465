"""Readings understood over HTTP: meaning, guided depths, files, season, calendar, catalogue, throat samples."""

import json
import uuid
from datetime import UTC, datetime, timedelta

from django.core.files.uploadedfile import SimpleUploadedFile
from django.utils import timezone

from stillthread.formats.covjson import read_profile_coverage
from tests.api.base import ApiCase

WHEN = "2026-07-18T12:00:00Z"
PROFILE = [
    {"depth_m": d, "temperature_c": t}
    for d, t in ((0, 19), (2, 18.8), (3, 18.2), (4, 15), (5, 12), (6, 10.5), (8, 9.5))
]
TABLE = [{"depth_m": d, "area_m2": a} for d, a in ((0, 120000), (2, 90000), (4, 50000), (8, 0))]


class Reading(ApiCase):
    def setUp(self):
        super().setUp()
        self.water = self.make_water(
            latitude_deg=54.1,
            longitude_deg=-2.4,
            elevation_m=300,
            hypsography=TABLE,
            fetch_m=900,
            productivity="medium",
        )

    def read(self, **body):
        return self.call("POST", f"/api/waters/{self.water}/read", {"when": WHEN, **body})

    def store(self, taken_at, profile=None, place="Channel", **more):
        reading_id = str(uuid.uuid4())
        body = {"place": place, "taken_at": taken_at, "reading": {"profile": profile or PROFILE}, **more}
        self.call("PUT", f"/api/waters/{self.water}/readings/{reading_id}", body)
        return reading_id

    def test_meaning_with_the_waters_own_table_and_height(self):
        told = self.read(
            place="Channel", reading={"profile": PROFILE, "wind_m_s": 5, "wind_from_deg": 225, "secchi_m": 3}
        )
        self.assertEqual(told["layers"]["state"], "layered")
        self.assertTrue(3 < told["layers"]["main"]["depth_m"] < 5)
        self.assertGreater(told["layers"]["stability"]["schmidt_j_m2"], 0)
        self.assertEqual(told["oxygen"]["pressure_from"], "elevation")
        self.assertEqual(told["wind"]["fetch_from"], "typed")
        self.assertEqual(len(told["light"]["hours"]), 24)
        self.assertTrue(told["light"]["sunrise"].startswith("2026-07-18T0"))  # on the water's own clock
        self.assertEqual(told["light"]["sunrise"][-6:], "+01:00")

    def test_faults_come_back_at_their_fields(self):
        bad = {"profile": [{"depth_m": 0, "temperature_c": 12}, {"depth_m": 0, "temperature_c": 13}]}
        told = self.refused("POST", f"/api/waters/{self.water}/read", {"when": WHEN, "reading": bad})
        self.assertIn("reading.profile[1].depth_m", told)
        deep = {"profile": [{"depth_m": 40, "temperature_c": 12}]}
        told = self.refused("POST", f"/api/waters/{self.water}/read", {"when": WHEN, "reading": deep})
        self.assertEqual(told["reading.profile[0].depth_m"]["code"], "below_bed")

    def test_anothers_water_is_not_there(self):
        self.make_user("stranger")
        stranger = self.sign_in("stranger")
        for method, path in (
            ("POST", "read"),
            ("GET", "season"),
            ("GET", "calendar"),
            ("GET", "chart"),
            ("GET", "weather"),
            ("POST", "weather/fetch"),
        ):
            body = {"when": WHEN} if path == "read" else None
            self.refused(method, f"/api/waters/{self.water}/{path}", body, 404, stranger)

    def test_a_throat_sample_moves_the_food_and_is_kept(self):
        sample = {"items": [{"prey": "scud", "count": 20, "size_mm": 9, "colour": "olive"}]}
        told = self.read(samples=[sample], sightings=[{"sign": "swallows", "abundance": "few"}])
        self.assertEqual(told["food"]["keyed"]["state"], "keyed")
        self.assertEqual(told["food"]["keyed"]["size_mm"], 9)
        self.assertEqual(told["food"]["moves"][0]["what"], "Throat sample")
        stored = self.store("2026-07-18T11:00:00Z", samples=[sample])
        kept = self.call("GET", f"/api/waters/{self.water}/readings")
        self.assertEqual((kept[0]["id"], kept[0]["samples"][0]["items"][0]["count"]), (stored, 20))

    def test_what_was_seen_on_days_like_this_moves_the_food_and_todays_own_counts_once(self):
        plain = self.read(reading={"profile": PROFILE})["food"]
        fry = {"sightings": [{"prey": "fry", "abundance": "some"}]}
        self.store("2025-07-18T12:00:00Z", **fry)
        self.store("2025-07-18T15:00:00Z")  # nothing more was seen that day
        self.store("2026-01-18T12:00:00Z", sightings=[{"prey": "leech", "abundance": "many"}])  # half a year off
        told = self.read(reading={"profile": PROFILE})["food"]
        share = {
            food: next(one["share"] for one in of["shares"] if one["key"] == "fry")
            for food, of in (("was", plain), ("is", told))
        }
        self.assertGreater(share["is"], share["was"] + 0.1)
        self.assertTrue(told["moves"][0]["sentence"].startswith("Seen on earlier days like this: fry from"))
        self.store("2026-07-18T08:00:00Z", **fry)  # today's comes with the reading itself
        self.assertEqual(self.read(reading={"profile": PROFILE})["food"]["shares"], told["shares"])
        self.make_user("other")
        theirs = self.make_water_of(self.sign_in("other"))
        other = self.call("POST", f"/api/waters/{theirs[0]}/read", {"when": WHEN}, client=theirs[1])["food"]
        self.assertEqual(other["moves"], [])

    def make_water_of(self, client):
        water, before = str(uuid.uuid4()), self.call("GET", f"/api/waters/{self.water}")
        body = {key: before[key] for key in ("name", "max_depth_m", "hemisphere", "time_zone")}
        places = [
            {**{k: v for k, v in one.items() if k not in ("revision",)}, "id": str(uuid.uuid4())}
            for one in before["places"]
        ]
        self.call("PUT", f"/api/waters/{water}", {**body, "places": places}, client=client)
        return water, client

    def test_surfaces_of_the_same_day_tell_the_warm_edges(self):
        cold = [{"depth_m": 0, "temperature_c": 5.0}, {"depth_m": 3, "temperature_c": 4.8}]
        warm = [{"depth_m": 0, "temperature_c": 8.2}]
        self.store("2026-03-20T11:00:00Z", warm, "Shelf")
        told = self.call(
            "POST",
            f"/api/waters/{self.water}/read",
            {"when": "2026-03-20T13:00:00Z", "place": "Channel", "reading": {"profile": cold}},
        )
        self.assertEqual([(e["place"], e["read"], e["warmer_c"]) for e in told["edges"]], [("Shelf", True, 3.2)])

    def test_the_plan_takes_samples_too(self):
        self.make_kit()
        sample = {"items": [{"prey": "leech", "count": 30}]}
        body = {"water_id": self.water, "when": WHEN, "samples": [sample]}
        plan = self.call("POST", "/api/plans/preview", body)
        self.assertEqual(plan["water"]["food"][0]["key"], "leech")


class Guided(ApiCase):
    def test_one_depth_after_the_other_until_enough(self):
        points, asked = [], []
        for _ in range(20):
            told = self.call("POST", "/api/read/next-depth", {"points": points, "bed_m": 6.0})
            if told["depth_m"] is None:
                break
            asked.append(told["depth_m"])
            points.append({"depth_m": told["depth_m"], "temperature_c": 16.0 if told["depth_m"] < 3.4 else 9.0})
        self.assertEqual(asked[:7], [0, 1, 2, 3, 4, 5, 5.7])
        self.assertEqual(asked[7], 3.5)  # half-way into the one great drop
        self.assertIn("Enough", told["why"])
        self.assertEqual(told["first_pass_m"], [0, 1, 2, 3, 4, 5, 5.7])

    def test_bad_questions(self):
        self.assertIn("bed_m", self.refused("POST", "/api/read/next-depth", {"bed_m": 0}))


class Files(ApiCase):
    def setUp(self):
        super().setUp()
        self.water = self.make_water(latitude_deg=54.1, longitude_deg=-2.4)

    def send(self, text, status=200, name="cast.covjson"):
        token = self.client.cookies["csrftoken"].value
        answer = self.client.post(
            f"/api/waters/{self.water}/profile-file",
            {"file": SimpleUploadedFile(name, text.encode())},
            headers={"X-CSRFToken": token},
        )
        self.assertEqual(answer.status_code, status, answer.content[:400])
        return answer.json()

    def test_a_profile_goes_out_and_comes_back(self):
        reading_id = str(uuid.uuid4())
        body = {"place": "Shelf", "taken_at": "2026-07-18T11:00:00Z", "reading": {"profile": PROFILE}}
        self.call("PUT", f"/api/waters/{self.water}/readings/{reading_id}", body)
        answer = self.client.get(f"/api/waters/{self.water}/readings/{reading_id}/profile.covjson")
        self.assertEqual(answer["Content-Type"], "application/prs.coverage+json")
        text = answer.content.decode()
        self.assertEqual(read_profile_coverage(text).position, (-2.4, 54.1))
        back = self.send(text)
        self.assertEqual(
            [(p["depth_m"], p["temperature_c"]) for p in back["points"]], [tuple(p.values()) for p in PROFILE]
        )
        self.assertEqual(back["format"], "coveragejson")
        self.assertEqual(back["taken_at"], "2026-07-18T11:00:00Z")

    def test_without_a_position_there_is_no_vertical_profile(self):
        water = self.make_water(name="Nowhere")
        reading_id = str(uuid.uuid4())
        body = {"place": "Shelf", "taken_at": "2026-07-18T11:00:00Z", "reading": {"profile": PROFILE}}
        self.call("PUT", f"/api/waters/{water}/readings/{reading_id}", body)
        told = self.refused("GET", f"/api/waters/{water}/readings/{reading_id}/profile.covjson")
        self.assertEqual(told["latitude_deg"]["code"], "no_position")

    def test_cut_off_or_deeper_than_the_water(self):
        doc = {
            "type": "Coverage",
            "domain": {
                "type": "Domain",
                "domainType": "VerticalProfile",
                "axes": {"x": {"values": [-2.4]}, "y": {"values": [54.1]}, "z": {"values": [0.0, 30.0]}},
            },
            "ranges": {
                "temperature": {
                    "type": "NdArray",
                    "dataType": "float",
                    "axisNames": ["z"],
                    "shape": [2],
                    "values": [12, 8],
                }
            },
        }
        told = self.send(json.dumps(doc), 422)
        self.assertEqual(told["errors"][0]["code"], "below_bed")
        told = self.send(json.dumps(doc)[:80], 422)
        self.assertIn("line 1", told["errors"][0]["path"])


class Year(ApiCase):
    def setUp(self):
        super().setUp()
        self.water = self.make_water(latitude_deg=54.1, longitude_deg=-2.4)
        self.now = timezone.now()

    def store(self, days_ago, surface, **more):
        taken = (self.now - timedelta(days=days_ago)).isoformat()
        profile = [{"depth_m": 0, "temperature_c": surface}, {"depth_m": 3, "temperature_c": surface - 0.4}]
        body = {"place": "Shelf", "taken_at": taken, "reading": {"profile": profile}, **more}
        self.call("PUT", f"/api/waters/{self.water}/readings/{uuid.uuid4()}", body)

    def test_without_readings_the_year_is_a_guess_and_says_so(self):
        told = self.call("GET", f"/api/waters/{self.water}/season")
        self.assertEqual((told["profiles"], told["years"]), ([], []))
        self.assertIn("Guessed", told["curve"]["sentence"])
        self.assertIn("guessed from its latitude", self.call("GET", f"/api/waters/{self.water}/calendar")["sentence"])

    def test_profiles_of_a_year_oldest_first(self):
        for days in (3, 400, 20):
            self.store(days, 12.0)
        told = self.call("GET", f"/api/waters/{self.water}/season")
        times = [p["taken_at"] for p in told["profiles"]]
        self.assertEqual(times, sorted(times))
        self.assertEqual(told["year"], max(told["years"]))
        self.assertEqual(told["curve"]["readings"], 3)
        older = self.call("GET", f"/api/waters/{self.water}/season?year={min(told['years'])}")
        self.assertTrue(older["profiles"])
        self.refused("GET", f"/api/waters/{self.water}/season?year=3")

    def test_what_was_seen_here_raises_its_weeks(self):
        before = {r["key"]: r for r in self.call("GET", f"/api/waters/{self.water}/calendar")["rows"]}
        self.store(1, 9.0, sightings=[{"prey": "caddis", "abundance": "many"}])
        told = self.call("GET", f"/api/waters/{self.water}/calendar")
        row = next(r for r in told["rows"] if r["key"] == "caddis")
        week = row["recorded"][0]
        self.assertGreaterEqual(row["weight"][week], before["caddis"]["weight"][week])
        self.assertIn("1 record", told["sentence"])

    def test_the_catalogue_is_whole(self):
        told = self.call("GET", "/api/food/catalogue")
        self.assertEqual(len(told["prey"]), 16)
        scud = next(p for p in told["prey"] if p["key"] == "scud")
        self.assertEqual((scud["size_mm"], scud["source"]), ([3, 19], "common practice"))
        self.assertTrue(set(scud["colours"]) <= set(told["colours"]))
        self.assertTrue({f for p in told["prey"] for s in p["stages"] for f in s["families"]} <= set(told["families"]))

    def test_the_year_of_the_south(self):
        south = self.make_water(name="South", latitude_deg=-44.0, longitude_deg=170.0, time_zone="Pacific/Auckland")
        told = self.call("GET", f"/api/waters/{south}/season")
        self.assertGreater(told["curve"]["surface_c"][4], told["curve"]["surface_c"][30])
        self.assertEqual(datetime.now(UTC).year, self.now.year)
