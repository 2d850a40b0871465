"""Outline, soundings, weather and the boat feed over HTTP, the stand-ins in processes of their own."""

import json
import time
import uuid

from django.core.files.uploadedfile import SimpleUploadedFile
from django.test import override_settings

from stillthread.formats.geojson import read_water_map
from stillthread.waters.feed import FEEDS
from tests.api.base import ApiCase
from tests.standins.base import Process

RING = [[-2.40, 54.10], [-2.38, 54.10], [-2.38, 54.11], [-2.40, 54.11], [-2.40, 54.10]]


class ChartCase(ApiCase):
    def setUp(self):
        super().setUp()
        self.water = self.make_water(latitude_deg=54.105, longitude_deg=-2.39)

    def upload(self, path, text, status=200):
        token = self.client.cookies["csrftoken"].value
        answer = self.client.post(
            f"/api/waters/{self.water}/{path}",
            {"file": SimpleUploadedFile("map.json", text.encode() if isinstance(text, str) else text)},
            headers={"X-CSRFToken": token},
        )
        self.assertEqual(answer.status_code, status, answer.content[:400])
        return answer.json()

    def stand_in(self, kind, *arguments):
        process = Process(kind, *arguments)
        self.addCleanup(process.kill)
        return process


class Outline(ChartCase):
    def test_stored_measured_and_taken_away(self):
        told = self.call("PUT", f"/api/waters/{self.water}/chart/outline", {"rings": [RING]})
        # 0.02° by 0.01° at 54.1°: about 1308 m by 1113 m (WGS84).
        self.assertAlmostEqual(told["area_m2"], 1308 * 1113, delta=8000)
        self.assertAlmostEqual(told["shore_m"], 2 * (1308 + 1113), delta=20)
        self.assertEqual(len(told["stretches"]), 4)
        told = self.call("PUT", f"/api/waters/{self.water}/chart/outline", {"rings": []})
        self.assertEqual((told["rings"], told["area_m2"]), ([], None))

    def test_the_wind_blows_onto_the_far_shore(self):
        self.call("PUT", f"/api/waters/{self.water}/chart/outline", {"rings": [RING]})
        told = self.call("GET", f"/api/waters/{self.water}/chart?wind_from_deg=180")
        onto = {
            (
                "N"
                if s["start"][1] > 54.105 and s["end"][1] > 54.105
                else "S"
                if s["start"][1] < 54.105 and s["end"][1] < 54.105
                else "side"
            ): s["onto"]
            for s in told["stretches"]
        }
        self.assertAlmostEqual(onto["N"], 1.0, delta=0.01)
        self.assertAlmostEqual(onto["S"], -1.0, delta=0.01)
        self.assertEqual(told["downwind_shore"], "N")
        self.assertAlmostEqual(told["longest_fetch_m"], 1113, delta=12)

    def test_a_shore_that_crosses_itself_is_refused_at_its_ring(self):
        bow = [[0, 0], [0.01, 0.01], [0.01, 0], [0, 0.01], [0, 0]]
        told = self.refused("PUT", f"/api/waters/{self.water}/chart/outline", {"rings": [bow]})
        self.assertEqual(told["rings[0]"]["code"], "self_crossing")
        self.upload("chart/file", json.dumps({"type": "Polygon", "coordinates": [bow]}), 422)

    def test_a_map_file_is_read_and_then_kept_in_parts(self):
        doc = {
            "type": "FeatureCollection",
            "features": [
                {"type": "Feature", "geometry": {"type": "Polygon", "coordinates": [RING]}, "properties": None},
                {
                    "type": "Feature",
                    "geometry": {"type": "Point", "coordinates": [-2.39, 54.105]},
                    "properties": {"depth_m": 4.5},
                },
                {
                    "type": "Feature",
                    "geometry": {"type": "Point", "coordinates": [-2.385, 54.102]},
                    "properties": {"name": "Reeds"},
                },
            ],
        }
        told = self.upload("chart/file", json.dumps(doc))
        self.assertEqual(
            (len(told["rings"]), told["places"][0]["name"], told["soundings"][0]["sounding_m"]), (1, "Reeds", 4.5)
        )
        self.assertEqual(self.call("GET", f"/api/waters/{self.water}/chart")["rings"], [])
        self.call("PUT", f"/api/waters/{self.water}/chart/outline", {"rings": told["rings"]})
        lon, lat = told["soundings"][0]["position"]
        one = {"id": str(uuid.uuid4()), "sounding_m": 4.5, "longitude_deg": lon, "latitude_deg": lat}
        body = {"taken_at": "2026-05-01T10:00:00Z", "soundings": [one]}
        for _ in range(2):  # sent twice it does no harm
            self.call("POST", f"/api/waters/{self.water}/soundings", body)
        answer = self.client.get(f"/api/waters/{self.water}/chart.geojson")
        self.assertEqual(answer["Content-Type"], "application/geo+json")
        back = read_water_map(answer.content)
        self.assertEqual((len(back.outline[0]), len(back.soundings)), (5, 1))
        too_many = {**body, "soundings": [{**one, "id": str(uuid.uuid4())} for _ in range(201)]}
        self.assertIn("soundings", self.refused("POST", f"/api/waters/{self.water}/soundings", too_many))

    def test_nonsense_files(self):
        self.assertEqual(self.upload("chart/file", "{", 422)["errors"][0]["code"], "not_json")
        self.assertEqual(self.upload("chart/file", b"\xff\xfe", 422)["errors"][0]["code"], "not_text")


class ByHand(ChartCase):
    def sound(self, status=200, **body):
        path = f"/api/waters/{self.water}/soundings/{uuid.uuid4()}"
        full = {"depth_m": 2.0, "method": "rod", "place": "Shelf", "taken_at": "2026-05-01T10:00:00Z", **body}
        return self.call("PUT", path, full) if status == 200 else self.refused("PUT", path, full, status)

    def test_each_way_has_its_doubt(self):
        doubts = [self.sound(method=m)["doubt_m"] for m in ("marked-cord", "rod", "asked")]
        self.assertEqual(doubts, sorted(doubts))

    def test_a_low_level_is_taken_out_of_it(self):
        # depth = sounding + level: two metres today, a metre and a half drawn down, is 3.5 m below the datum.
        told = self.sound(level_m=-1.5)
        self.assertEqual((told["sounding_m"], told["depth_today_m"]), (3.5, 2.0))
        # Without a level noted today the chart shows the datum.
        self.assertEqual(self.call("GET", f"/api/waters/{self.water}/chart")["soundings"][0]["depth_today_m"], 3.5)
        reading = {"taken_at": "2026-05-02T10:00:00Z", "reading": {"level_m": -1.0}}
        self.call("PUT", f"/api/waters/{self.water}/readings/{uuid.uuid4()}", reading)
        self.assertEqual(self.call("GET", f"/api/waters/{self.water}/chart")["soundings"][0]["depth_today_m"], 2.5)

    def test_soundings_of_a_place_are_pooled(self):
        for depth in (2.0, 2.2):
            self.sound(depth_m=depth)
        place = next(p for p in self.call("GET", f"/api/waters/{self.water}/chart")["places"] if p["name"] == "Shelf")
        self.assertAlmostEqual(place["pooled_m"], 2.1, delta=0.05)
        self.assertTrue(place["agree"])
        self.sound(depth_m=6.0, method="sounder")
        place = next(p for p in self.call("GET", f"/api/waters/{self.water}/chart")["places"] if p["name"] == "Shelf")
        self.assertFalse(place["agree"])

    def test_impossible_ones_are_refused_at_their_field(self):
        self.assertEqual(self.sound(422, depth_m=5.0)["depth_m"]["code"], "beyond_rod")
        self.assertEqual(self.sound(422, depth_m=60, method="asked")["depth_m"]["code"], "below_bed")
        self.assertEqual(self.sound(422, depth_m=-2)["depth_m"]["code"], "depth_range")
        self.assertIn("method", self.sound(422, method="magic"))
        self.assertTrue(self.sound(422, place=None))
        self.assertTrue(self.sound(422, longitude_deg=3.0))

    def test_deleted_and_brought_back(self):
        sounding_id = str(uuid.uuid4())
        body = {"depth_m": 2.0, "method": "rod", "place": "Shelf", "taken_at": "2026-05-01T10:00:00Z"}
        path = f"/api/waters/{self.water}/soundings/{sounding_id}"
        self.call("PUT", path, body)
        self.call("DELETE", path, status=204)
        self.assertEqual(self.call("GET", f"/api/waters/{self.water}/chart")["soundings"], [])
        self.call("PUT", path, body)
        self.assertEqual(len(self.call("GET", f"/api/waters/{self.water}/chart")["soundings"]), 1)


class Weather(ChartCase):
    def fetch(self, status=200):
        path = f"/api/waters/{self.water}/weather/fetch"
        return self.call("POST", path) if status == 200 else self.refused("POST", path, None, status)

    def ask(self, process):
        return override_settings(WEATHER_URL=f"http://127.0.0.1:{process.port}/weather")

    def test_fetched_kept_and_used(self):
        with self.ask(self.stand_in("weather")):
            told = self.fetch()
        self.assertEqual(len(told["hours"]), 72)
        self.assertEqual(self.call("GET", f"/api/waters/{self.water}/weather")["hours"], told["hours"])
        when = told["hours"][30]["when"]
        read = self.call("POST", f"/api/waters/{self.water}/read", {"when": when})
        self.assertGreaterEqual(len(read["wind_hours"]), 20)
        self.assertIsNone(read["wind"])  # a forecast is not a reading

    def test_a_service_that_fails_is_said_and_nothing_is_lost(self):
        with self.ask(self.stand_in("weather")):
            self.fetch()
        for fault, words in (("busy", "answered 503"), ("cut", "cannot be read")):
            with self.ask(self.stand_in("weather", "--weather-fault", fault)):
                self.assertIn(words, self.fetch(502)[""]["message"])
        gone = self.stand_in("weather")
        gone.process.terminate()
        gone.process.wait()
        with self.ask(gone):
            self.assertIn("cannot be reached", self.fetch(502)[""]["message"])
        self.assertEqual(len(self.call("GET", f"/api/waters/{self.water}/weather")["hours"]), 72)

    def test_an_airfields_report(self):
        told = self.call("POST", "/api/weather/metar", {"text": "EGXX 011150Z 24012KT CAVOK 14/08 Q1013"})
        self.assertEqual((told["station"], told["hour"]["wind_m_s"], told["hour"]["cloud_oktas"]), ("EGXX", 6.17, 0))
        self.assertIn(
            "does not begin as a METAR",
            self.refused("POST", "/api/weather/metar", {"text": "windy"})["text"]["message"],
        )

    def test_an_airfields_report_asked_for(self):
        path = f"/api/waters/{self.water}/weather/metar"
        with self.ask(self.stand_in("weather")):
            told = self.call("POST", path)
            at = told["hour"]["when"][11:13]  # by the service's own clock
            hour = next(one for one in self.fetch()["hours"] if one["when"][11:13] == at)
        self.assertEqual(told["station"], "ZZZZ")
        self.assertAlmostEqual(told["hour"]["wind_m_s"], hour["wind_m_s"], delta=0.3)  # told in whole knots
        with self.ask(self.stand_in("weather", "--weather-fault", "busy")):
            self.assertIn("answered 503", self.refused("POST", path, status=502)[""]["message"])

    def test_without_a_position_nothing_can_be_asked(self):
        self.water = self.make_water(name="Nowhere")
        path = f"/api/waters/{self.water}/weather/metar"
        self.assertEqual(self.refused("POST", path)["latitude_deg"]["code"], "no_position")
        self.assertEqual(self.fetch(422)["latitude_deg"]["code"], "no_position")

    def test_none_yet(self):
        told = self.call("GET", f"/api/waters/{self.water}/weather")
        self.assertEqual((told["hours"], told["fetched_at"]), ([], None))

    def test_from_a_file(self):
        from datetime import UTC, datetime

        from stillthread.formats.covjson import write_weather_coverage
        from stillthread.standins.weather import invented_hours

        text = write_weather_coverage(
            invented_hours(lon=-2.39, lat=54.1, start=datetime(2026, 5, 1, tzinfo=UTC), count=24, seed=1), (-2.39, 54.1)
        )
        self.assertEqual(len(self.upload("weather/file", text)["hours"]), 24)
        self.assertIn("line", self.upload("weather/file", text[:200], 422)["errors"][0]["path"])


class BoatFeed(ChartCase):
    def setUp(self):
        super().setUp()
        self.addCleanup(lambda: FEEDS.stop(self.user.pk))

    def until(self, what, seconds=15.0):
        end = time.monotonic() + seconds
        while time.monotonic() < end:
            told = self.call("GET", "/api/feed")
            if what(told):
                return told
            time.sleep(0.05)
        raise AssertionError(told)

    def test_connect_see_record_and_find_the_ledge(self):
        boat = self.stand_in("sounder", "--speed", "60")
        self.assertEqual(self.call("GET", "/api/feed")["state"], "off")
        self.call("POST", "/api/feed", {"port": boat.port})
        told = self.until(lambda f: f["state"] == "live" and f["position"] and f["wind_m_s"])
        self.assertLess(told["depth_age_s"], 5)
        line_id = str(uuid.uuid4())
        body = {"water_id": self.water, "line_id": line_id}
        self.call("POST", "/api/feed/line", body)
        self.call("POST", "/api/feed/line", body)  # sent twice it is the same line
        told = self.until(lambda f: f["recorded"] > 260)
        self.assertEqual(told["recording"], line_id)
        told = self.call("DELETE", "/api/feed/line")
        self.assertIsNone(told["recording"])
        chart = self.call("GET", f"/api/waters/{self.water}/chart")
        self.assertEqual([line["id"] for line in chart["lines"]], [line_id])
        line = chart["lines"][0]
        self.assertGreater(len(line["points"]), 260)
        self.assertIsNotNone(line["ended_at"])
        self.assertTrue(any(2 < e["upper_m"] < 4.5 < e["lower_m"] for e in line["ledges"]), line["ledges"])
        self.call("DELETE", f"/api/waters/{self.water}/lines/{line_id}", status=204)
        self.assertEqual(self.call("GET", f"/api/waters/{self.water}/chart")["lines"], [])

    def test_hanging_up_keeps_what_was_recorded(self):
        boat = self.stand_in("sounder", "--speed", "60")
        self.call("POST", "/api/feed", {"port": boat.port})
        self.until(lambda f: f["state"] == "live" and f["position"])
        self.call("POST", "/api/feed/line", {"water_id": self.water, "line_id": str(uuid.uuid4())})
        self.until(lambda f: f["recorded"] >= 5)
        self.call("DELETE", "/api/feed", status=204)
        self.assertEqual(self.call("GET", "/api/feed")["state"], "off")
        self.assertGreaterEqual(len(self.call("GET", f"/api/waters/{self.water}/chart")["lines"][0]["points"]), 5)

    def test_only_allowed_addresses_are_listened_to(self):
        told = self.refused("POST", "/api/feed", {"host": "192.0.2.7"})
        self.assertIn("127.0.0.1", told["host"]["accepted"])
        self.refused("POST", "/api/feed", {"port": 0})

    def test_recording_without_a_feed(self):
        told = self.refused("POST", "/api/feed/line", {"water_id": self.water, "line_id": str(uuid.uuid4())}, 409)
        self.assertEqual(told[""]["code"], "no_feed")

    def test_another_anglers_feed_is_not_mine(self):
        boat = self.stand_in("sounder")
        self.call("POST", "/api/feed", {"port": boat.port})
        self.make_user("stranger")
        stranger = self.sign_in("stranger")
        self.assertEqual(self.call("GET", "/api/feed", client=stranger)["state"], "off")
