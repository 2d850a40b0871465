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
        self.assertEqual({v for k, v in reading.items() if k not in ("profile", "thunder", "sources")}, {None})
        self.assertEqual(reading["sources"], {})
        self.assertIsNone(found["body"]["place"])

    def test_what_was_kept_is_a_draft_or_none(self):
        whole = self.draft(rows=rows(("0", "12")))
        self.assertEqual(self.call("keptDraft", whole, METRIC)["rows"], rows(("0", "12")))
        older = {key: value for key, value in whole.items() if key not in ("at", "signs", "level")}
        older["rows"] = [{"depth": "0", "temperature": "12"}]  # before oxygen was read
        found = self.call("keptDraft", older, METRIC)
        self.assertEqual((found["at"], found["signs"], found["rows"][0]["oxygen"]), ("", {}, ""))
        self.assertEqual(self.call("keptDraft", {**whole, "at": "no day"}, METRIC)["at"], "")
        for bad in ({"rows": "none"}, {"wind": 7}, {"rows": [None]}, {"rows": [{"depth": 3}]}, {"seen": []}):
            self.assertIsNone(self.call("keptDraft", {**whole, **bad}, METRIC), bad)
        for none in ("text", [1], 7):
            self.assertIsNone(self.call("keptDraft", none, METRIC), none)

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

    def test_signs_how_prey_was_met_and_samples(self):
        sample = {"items": [{"prey": "scud", "count": 4, "state": "live"}]}
        body = self.read(
            seen={"scud": "some"}, met={"scud": "coughed-up"}, signs={"swallows": "few"}, samples=[sample]
        )["body"]
        self.assertEqual(
            body["sightings"],
            [{"prey": "scud", "abundance": "some", "evidence": "coughed-up"}, {"sign": "swallows", "abundance": "few"}],
        )
        self.assertEqual(body["samples"], [sample])

    def test_pressure_is_the_stations_or_the_seas(self):
        at_water = self.read(pressure="978")["body"]["reading"]
        self.assertEqual((at_water["station_pressure_hpa"], at_water["sea_level_pressure_hpa"]), (978, None))
        at_sea = self.read(pressure="1013,5", pressureAt="sea")["body"]["reading"]
        self.assertEqual((at_sea["station_pressure_hpa"], at_sea["sea_level_pressure_hpa"]), (None, 1013.5))
        self.assertEqual(self.paths(pressure="low"), {"reading.station_pressure_hpa": "not_a_number"})

    def test_the_level_is_a_depth_and_may_be_negative(self):
        self.assertAlmostEqual(self.read(level="-1.2")["body"]["reading"]["level_m"], -1.2)

    def test_typing_over_takes_the_source_away(self):
        sources = {"wind": "forecast", "profile": "instrument"}
        self.assertEqual(self.call("typed", sources, "wind"), {"profile": "instrument"})

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
        read = self.read(**self.good(places=places))
        self.assertEqual({p["path"] for p in read["problems"]}, {"places[0].depth_min_m"})
        # A place without a name is called by its kind.
        self.assertEqual([p["name"] for p in read["body"]["places"]], ["Shelf", "Drop-off"])

    def test_a_position_needs_both_numbers(self):
        paths = {p["path"] for p in self.read(**self.good(byPosition=True, latitude="54"))["problems"]}
        self.assertEqual(paths, {"longitude_deg"})

    def test_there_and_back(self):
        body = self.read(**self.good(maxFlies="3", release="either", source="board"))["body"]
        again = self.call("draftOfWater", {**body, "id": "x"}, METRIC)
        self.assertEqual(self.call("readWater", again, METRIC)["body"], body)


class Areas(ModuleCase):
    module = "pages/Start/waterDraft.ts"

    def test_lines_of_depth_and_area(self):
        # A hectare is 10,000 m², an acre 4046.8564224 m² (exact by definition).
        found = self.call("readAreas", "0 84\n\n3,5;62", "m")
        self.assertEqual(
            found, {"rows": [{"depth_m": 0, "area_m2": 840000}, {"depth_m": 3.5, "area_m2": 620000}], "badLine": None}
        )
        feet = self.call("readAreas", "10 2", "ft")["rows"][0]
        self.assertAlmostEqual(feet["depth_m"], 3.048)
        self.assertAlmostEqual(feet["area_m2"], 8093.7128448)

    def test_a_line_that_is_none_is_named(self):
        for text, line in (("0 84\ndeep", 2), ("0", 1), ("0 84\n3 x", 2), ("1 2 3", 1)):
            self.assertEqual(self.call("readAreas", text, "m")["badLine"], line)


class Patterns(ModuleCase):
    module = "pages/FlyBox/patternDraft.ts"

    def read(self, **parts):
        return self.call("readPattern", {**self.call("emptyPattern"), "name": "Pupa", "prey": ["scud"], **parts}, None)

    def test_materials_and_steps_line_by_line(self):
        body = self.read(
            materials="rib: silver / fine wire / thin\nbody: floss\n\nback: olive / strip", steps="One.\n\nTwo."
        )["body"]
        self.assertEqual(
            [(m["part"], m["colour"], m["what"], m["size"]) for m in body["recipe"]["materials"]],
            [("rib", "silver", "fine wire", "thin"), ("body", "", "floss", ""), ("back", "olive", "strip", "")],
        )
        self.assertEqual([s["text"] for s in body["recipe"]["steps"]], ["One.", "Two."])

    def test_what_cannot_be_read_is_said(self):
        self.assertIn("4 to 20", self.read(hooks="3")["wrong"])
        self.assertIn("at least one food", self.read(prey=[])["wrong"])
        self.assertIn("Line 2", self.read(materials="rib: wire\nfloss")["wrong"])
        self.assertIn("Bead size", self.read(bead="brass", beadMm="big")["wrong"])

    def test_a_pattern_comes_back_as_it_went(self):
        body = self.read(
            hooks="12 14", hook="14", bead="brass", beadMm="2,8", turns="4", materials="rib: wire", steps="Wind."
        )["body"]
        self.assertEqual(body["build"]["bead_mm"], 2.8)
        again = self.call("readPattern", self.call("draftOfPattern", body), body)["body"]
        self.assertEqual(again, body)
