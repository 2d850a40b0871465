"""From what was typed to what is sent, and back into the boxes: nothing lost, nothing guessed."""

from tests.frontend.base import ModuleCase

METRIC = {
    "depth_unit": "m",
    "temperature_unit": "c",
    "wind_unit": "m_s",
    "vocabulary": "gb",
    "rod_m": 2.9,
    "net_m": 0.6,
    "arm_m": 0.6,
    "cast_m": 18,
    "afloat": False,
}
FEET = {**METRIC, "depth_unit": "ft", "temperature_unit": "f", "wind_unit": "mph"}


def rows(*pairs):
    return [{"depth": d, "temperature": t, "oxygen": ""} for d, t in pairs]


class ReadingDraft(ModuleCase):
    module = "lib/draft.ts"

    def draft(self, settings=METRIC, **parts):
        return {**self.call("emptyDraft", settings), **parts}

    def read(self, settings=METRIC, **parts):
        return self.call("readDraft", self.draft(settings, **parts))

    def paths(self, **parts):
        return {p["path"]: p["code"] for p in self.read(**parts)["problems"]}

    def test_an_empty_draft_is_an_empty_reading(self):
        found = self.read()
        self.assertEqual(found["problems"], [])
        reading = found["body"]["reading"]
        self.assertEqual(reading["profile"], [])
        self.assertEqual({v for k, v in reading.items() if k not in ("profile", "thunder")}, {None})
        self.assertIsNone(found["body"]["place"])

    def test_metres_and_celsius_as_typed(self):
        profile = self.read(rows=rows(("0", "12,5"), ("1.5", "12")))["body"]["reading"]["profile"]
        self.assertEqual([(p["depth_m"], p["temperature_c"]) for p in profile], [(0, 12.5), (1.5, 12)])

    def test_feet_and_fahrenheit_become_si(self):
        # 10 ft = 3.048 m, 59 °F = 15 °C, 10 mph = 4.4704 m/s: exact.
        found = self.read(FEET, rows=rows(("10", "59")), wind="10", waterDepth="20")["body"]["reading"]
        self.assertAlmostEqual(found["profile"][0]["depth_m"], 3.048)
        self.assertAlmostEqual(found["profile"][0]["temperature_c"], 15)
        self.assertAlmostEqual(found["wind_m_s"], 4.4704)
        self.assertAlmostEqual(found["water_depth_m"], 6.096)

    def test_a_row_just_begun_is_not_a_fault(self):
        found = self.read(rows=rows(("0", "12"), ("1", "")))
        self.assertEqual(found["problems"], [])
        self.assertEqual(len(found["body"]["reading"]["profile"]), 1)

    def test_a_hole_in_the_middle_is(self):
        self.assertEqual(
            self.paths(rows=rows(("0", "12"), ("1", ""), ("2", "11"))), {"reading.profile[1].temperature_c": "missing"}
        )
        self.assertEqual(self.paths(rows=rows(("", "12"), ("2", "11"))), {"reading.profile[0].depth_m": "missing"})

    def test_what_is_no_number_is_told_at_its_field(self):
        self.assertEqual(
            self.paths(rows=rows(("deep", "12"), ("2", "warm")), wind="gale", secchi="2m"),
            {
                "reading.profile[0].depth_m": "not_a_number",
                "reading.profile[1].temperature_c": "not_a_number",
                "reading.wind_m_s": "not_a_number",
                "reading.secchi_m": "not_a_number",
            },
        )

    def test_rows_left_empty_do_not_shift_the_faults(self):
        found = self.read(rows=rows(("0", "12"), ("", ""), ("2", "hot"), ("3", "11")))
        self.assertEqual(found["rowOf"], [0, 2, 3])
        self.assertEqual(found["problems"][0]["path"], "reading.profile[1].temperature_c")

    def test_sightings(self):
        body = self.read(seen={"scud": "few"}, rises={"sip": "many"})["body"]
        self.assertEqual(
            body["sightings"], [{"prey": "scud", "abundance": "few"}, {"rise": "sip", "abundance": "many"}]
        )

    def test_a_stored_reading_comes_back_into_the_boxes(self):
        stored = {
            "id": "7b0b6a57-2d0c-4f30-8a57-0a4b3c0d1e2f",
            "place": "Shelf",
            "taken_at": "2026-05-14T09:00:00Z",
            "reading": {
                "profile": [{"depth_m": 0, "temperature_c": 15}, {"depth_m": 1.524, "temperature_c": 12.5}],
                "water_depth_m": 3.048,
                "wind_m_s": 4.4704,
                "wind_from_deg": 225,
                "cloud_oktas": 0,
                "clarity": "clear",
                "thunder": True,
            },
            "sightings": [{"prey": "scud", "abundance": "few"}, {"rise": "sip", "abundance": "some"}],
        }
        draft = self.call("draftFrom", stored, FEET)
        self.assertEqual([(r["depth"], r["temperature"]) for r in draft["rows"]], [("0", "59"), ("5", "54.5")])
        self.assertEqual((draft["wind"], draft["waterDepth"], draft["cloud"]), ("10", "10", "0"))
        self.assertEqual((draft["seen"], draft["rises"]), ({"scud": "few"}, {"sip": "some"}))
        again = self.call("readDraft", draft)["body"]["reading"]
        self.assertAlmostEqual(again["profile"][1]["temperature_c"], 12.5)
        self.assertEqual((again["cloud_oktas"], again["thunder"], again["clarity"]), (0, True, "clear"))


class WaterDraft(ModuleCase):
    module = "pages/Start/waterDraft.ts"

    def draft(self, **parts):
        return {**self.call("emptyWater"), **parts}

    def place(self, **parts):
        return {**self.call("emptyPlace"), **parts}

    def read(self, settings=METRIC, **parts):
        return self.call("readWater", self.draft(**parts), settings)

    def good(self, **parts):
        base = {"name": "Ash Tarn", "maxDepth": "8", "places": [self.place(name="Shelf", **{"from": "1", "to": "4"})]}
        return {**base, **parts}

    def test_a_good_water(self):
        found = self.read(**self.good(maxFlies="2", noFloats=True, barbless=True))
        self.assertEqual(found["problems"], [])
        body = found["body"]
        self.assertEqual((body["max_depth_m"], body["places"][0]["depth_max_m"]), (8, 4))
        rules = body["rules"]
        self.assertEqual((rules["max_flies"], rules["floats_allowed"], rules["barbless"]), (2, False, True))
        self.assertIsNone(rules["sinking_lines_allowed"])

    def test_in_feet_and_fahrenheit(self):
        found = self.read(FEET, **self.good(maxDepth="20", stopAbove="68"))["body"]
        self.assertAlmostEqual(found["max_depth_m"], 6.096)
        self.assertAlmostEqual(found["rules"]["stop_above_c"], 20)

    def test_what_is_missing_is_named(self):
        paths = {p["path"] for p in self.read()["problems"]}
        self.assertEqual(paths, {"name", "max_depth_m", "places"})

    def test_places_left_empty_are_left_out_and_faults_keep_their_number(self):
        places = [self.place(), self.place(name="Shelf", **{"from": "x", "to": "4"}), self.place(to="3")]
        paths = {p["path"] for p in self.read(**self.good(places=places))["problems"]}
        self.assertEqual(paths, {"places[0].depth_min_m", "places[1].name"})

    def test_a_position_needs_both_numbers(self):
        paths = {p["path"] for p in self.read(**self.good(byPosition=True, latitude="54"))["problems"]}
        self.assertEqual(paths, {"longitude_deg"})

    def test_there_and_back(self):
        body = self.read(**self.good(maxFlies="3", release="either", source="board"))["body"]
        again = self.call("draftOfWater", {**body, "id": "x"}, METRIC)
        self.assertEqual(self.call("readWater", again, METRIC)["body"], body)
