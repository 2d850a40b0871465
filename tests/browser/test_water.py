"""The pages about the water: guided reading, files, forecast, throat sample, chart, boat feed, the year."""

import json
import re
from datetime import UTC, datetime

from django.test import override_settings

from stillthread.core.water.profile import Point
from stillthread.formats.covjson import write_profile_coverage
from tests.browser.base import DESKTOP, PHONE, BrowserCase, expect
from tests.browser.served import TRAFFIC
from tests.standins.base import Process

RING = [[-2.40, 54.10], [-2.38, 54.10], [-2.38, 54.11], [-2.40, 54.11], [-2.40, 54.10]]


def geojson(ring, *points):
    features = [{"type": "Feature", "geometry": {"type": "Polygon", "coordinates": [ring]}, "properties": {}}]
    features += [
        {"type": "Feature", "geometry": {"type": "Point", "coordinates": at}, "properties": told} for at, told in points
    ]
    return json.dumps({"type": "FeatureCollection", "features": features}).encode()


class WaterCase(BrowserCase):
    def start(self, size=DESKTOP, path="/water"):
        return self.prepared(size, path)

    def goto(self, page, path):
        page.goto(self.live_server_url + path)

    def put_on_the_map(self, page):
        """Give the water a position."""
        expect(page.get_by_role("link", name="Edit this water")).to_have_attribute("href", f"/waters/{self.water}")
        page.goto(f"{self.live_server_url}/waters/{self.water}")
        page.get_by_role("radio", name="position").click()
        page.get_by_label("Latitude, °", exact=True).fill("54.105")
        page.get_by_label("Longitude, °", exact=True).fill("-2.39")
        page.get_by_role("button", name="Save the water").click()
        expect(page.get_by_role("heading", name="What you read")).to_be_visible()

    def stand_in(self, kind, *arguments, port=0):
        process = Process(kind, *arguments, port=port)
        self.addCleanup(lambda: process.process.poll() is None and process.kill())
        return process


class Guided(WaterCase):
    def key(self, page, text):
        for character in text:
            page.get_by_role("button", name=character, exact=True).click()
        page.get_by_role("button", name="Tie it on").click()

    def test_one_hand_down_the_cord_until_it_is_enough(self):
        page = self.start(PHONE)
        page.get_by_label("Place", exact=True).select_option("Channel")
        page.get_by_label("Water depth at the place").fill("4")
        page.get_by_role("button", name="Guide me").click()
        dialog = page.get_by_role("dialog", name="Guided reading")
        expect(dialog).to_contain_text("At the surface")
        page.get_by_role("button", name="Tie it on").click()
        expect(dialog).to_contain_text("Key in a temperature first")
        for depth, value in (("1.0", "14.2"), ("2.0", "14"), ("3.0", "13.8"), ("3.7", "10.1")):
            self.key(page, value)
            expect(dialog).to_contain_text(f"Let down to {depth} m")
        self.key(page, "9.6")
        # 13.8 to 10.1 °C between 2 and 3 m is the one great drop: it is read half-way.
        expect(dialog).to_contain_text("Let down to 2.5 m")
        expect(dialog).to_contain_text("drops fastest between 2.0 and 3.0 m")
        self.key(page, "12")
        page.get_by_role("button", name="Take back").click()
        expect(page.get_by_role("button", name="Tie it on")).to_be_visible()
        page.get_by_role("button", name="Close").click()
        # What was tied on is in the table; the last one, the deepest, was taken back.
        values = [page.get_by_label(f"Depth {n}", exact=True).input_value() for n in range(1, 6)]
        self.assertEqual(values, ["0", "1", "2", "2.5", "3"])

    def test_keys_are_large_and_the_keyboard_works_too(self):
        page = self.start(PHONE)
        page.get_by_role("button", name="Guide me").click()
        box = page.get_by_role("button", name="5", exact=True).bounding_box()
        self.assertGreaterEqual(min(box["width"], box["height"]), 54)
        page.keyboard.type("11,5")
        page.keyboard.press("Enter")
        expect(page.get_by_role("dialog")).to_contain_text("Let down to 1.0 m")
        page.keyboard.press("Escape")
        expect(page.get_by_label("Temperature 1", exact=True)).to_have_value("11.5")

    def test_what_is_tied_while_it_works_is_held_for_the_next_depth(self):
        page = self.start(PHONE)
        page.get_by_role("button", name="Guide me").click()
        expect(page.get_by_role("dialog")).to_contain_text("At the surface")
        with TRAFFIC.shut("/api/read/next-depth"):
            for value in ("14", "13", "12"):
                page.keyboard.type(value)
                page.keyboard.press("Enter")
            expect(page.get_by_text("Held for the next depth: 13, 12")).to_be_visible()
        expect(page.get_by_role("dialog")).to_contain_text("Let down to 3.0 m")
        page.keyboard.press("Escape")
        values = [page.get_by_label(f"Temperature {n}", exact=True).input_value() for n in (1, 2, 3)]
        self.assertEqual(values, ["14", "13", "12"])

    def test_it_says_when_enough_has_been_read(self):
        page = self.start(PHONE)
        page.get_by_label("Place", exact=True).select_option("Shelf")
        page.get_by_label("Water depth at the place").fill("2")
        page.get_by_role("button", name="Guide me").click()
        dialog = page.get_by_role("dialog")
        for value in ("14", "14", "14"):
            expect(dialog.get_by_text("Let down").or_(dialog.get_by_text("At the surface"))).to_be_visible()
            self.key(page, value)
        expect(dialog).to_contain_text("Enough has been read")
        expect(page.get_by_role("button", name="5", exact=True)).to_be_disabled()

    def test_without_signal_it_goes_on_down_the_knots(self):
        page = self.start(PHONE)
        page.get_by_role("button", name="Guide me").click()
        dialog = page.get_by_role("dialog")
        expect(dialog).to_contain_text("At the surface")
        self.context.set_offline(True)
        self.key(page, "12")
        expect(dialog).to_contain_text("No signal: down the knots")
        self.key(page, "11.8")
        expect(dialog).to_contain_text("Let down to 2.0 m")
        self.context.set_offline(False)
        page.get_by_role("button", name="Close").click()
        expect(page.get_by_label("Temperature 2", exact=True)).to_have_value("11.8")


class Reading(WaterCase):
    def test_layers_oxygen_and_the_cord(self):
        page = self.start()
        page.get_by_label("Place", exact=True).select_option("Channel")
        for row, value in enumerate(("19", "18.8", "18.4", "15", "12.1", "11.6"), 1):
            if row == 1:
                page.get_by_label("Depth 1", exact=True).fill("0")
            page.get_by_label(f"Temperature {row}", exact=True).fill(value)
            page.get_by_label(f"Temperature {row}", exact=True).press("Enter")
        means = page.get_by_role("region", name="What it means")
        expect(means).to_contain_text("Layered: the thermocline lies at")
        expect(means).to_contain_text("Rainbow trout: open from")
        expect(means).to_contain_text("Oxygen not measured")
        expect(means).to_contain_text("a guess: neither pressure nor elevation noted")
        cord = page.locator("[data-layer='oxygen']")
        expect(cord).to_have_count(1)
        page.get_by_role("button", name="Oxygen", exact=True).click()
        expect(cord).to_have_count(0)
        page.reload()
        expect(page.get_by_role("button", name="Oxygen", exact=True)).to_have_attribute("aria-pressed", "false")
        # Two readings at one depth are refused at their row, and the last good meaning stays.
        page.get_by_label("Depth 2", exact=True).fill("0")
        expect(page.get_by_text("0 m is there twice.")).to_be_visible()

    def test_a_coveragejson_profile(self):
        page = self.start()
        points = tuple(Point(float(d), 12.0 - d / 2) for d in range(5))
        text = write_profile_coverage(points, (-2.4, 54.1), datetime(2026, 5, 14, 9, tzinfo=UTC))
        file = {"name": "cast.covjson", "mimeType": "application/json", "buffer": text.encode()}
        page.get_by_label("File…", exact=True).set_input_files(file)
        expect(page.get_by_text("5 readings from the file.")).to_be_visible()
        expect(page.get_by_label("Temperature 5", exact=True)).to_have_value("10")
        broken = {**file, "buffer": text.encode()[:120]}
        page.get_by_label("File…", exact=True).set_input_files(broken)
        expect(page.get_by_text("This is not JSON")).to_be_visible()
        expect(page.get_by_label("Temperature 5", exact=True)).to_have_value("10")

    def test_the_forecast_by_the_hour(self):
        page = self.start()
        self.put_on_the_map(page)
        gone = self.stand_in("weather")
        gone.kill()
        with override_settings(WEATHER_URL=f"http://127.0.0.1:{gone.port}/weather"):
            page.get_by_role("button", name="Fetch the forecast").click()
            expect(page.get_by_text("The weather service cannot be reached.")).to_be_visible()
        weather = self.stand_in("weather")
        with override_settings(WEATHER_URL=f"http://127.0.0.1:{weather.port}/weather"):
            page.get_by_role("button", name="Fetch the forecast").click()
            expect(page.get_by_role("button", name="Fetch it again")).to_be_visible()
        expect(page.get_by_role("table", name="By the hour")).to_be_visible()
        page.get_by_role("button", name=re.compile("^Use .* for wind and sky")).click()
        expect(page.get_by_label("Wind", exact=True)).not_to_have_value("")
        expect(page.get_by_text("from the forecast")).to_be_visible()
        # A value typed over is the forecast's no longer.
        page.get_by_label("Wind", exact=True).fill(page.get_by_label("Wind", exact=True).input_value() + "1")
        expect(page.get_by_text("from the forecast")).to_have_count(0)

    def test_a_throat_sample_moves_the_food(self):
        page = self.start()
        page.get_by_role("button", name="Swallows feeding").click()
        page.get_by_role("button", name="Throat sample").click()
        page.get_by_role("button", name="Keep the sample").click()
        expect(page.get_by_text("Choose what it is.")).to_be_visible()
        page.get_by_label("Kind 1").select_option(label="Freshwater shrimp")
        page.get_by_label("How many").first.fill("18")
        page.get_by_label("Length").first.fill("9")
        page.get_by_label("Colour", exact=True).first.select_option("olive")
        page.get_by_role("button", name="Keep the sample").click()
        expect(page.get_by_text("18 freshwater shrimp")).to_be_visible()
        self.goto(page, "/food")
        expect(page.get_by_text("Keyed on freshwater shrimp: 18 of 18.")).to_be_visible()
        expect(page.get_by_text("Match: 9 mm · olive")).to_be_visible()
        expect(page.get_by_text(re.compile("Throat sample: freshwater shrimp from .* to"))).to_be_visible()
        expect(page.get_by_text("guessed from its latitude")).to_be_visible()
        page.get_by_text("Daphnia", exact=True).last.click()
        expect(page.get_by_text("where the light turns easy, deeper in sun")).to_be_visible()


class Charts(WaterCase):
    def test_a_map_file_in_and_out(self):
        page = self.start(path="/water/chart")
        expect(page.get_by_role("heading", name="No shore yet")).to_be_visible()
        bow = [[0, 0], [0.01, 0.01], [0.01, 0], [0, 0.01], [0, 0]]
        picker = page.get_by_label("GeoJSON file…", exact=True)
        picker.set_input_files({"name": "bow.json", "mimeType": "application/json", "buffer": geojson(bow)})
        expect(page.get_by_text("The shoreline crosses itself.")).to_be_visible()
        good = geojson(
            RING,
            ([-2.39, 54.105], {"depth_m": 4.5}),
            ([-2.385, 54.102], {"name": "Shelf"}),
            ([-2.385, 54.103], {"name": "Elsewhere"}),
        )
        picker.set_input_files({"name": "map.geojson", "mimeType": "application/json", "buffer": good})
        sheet = page.get_by_role("dialog")
        # 0.02° by 0.01° at 54.1°: about 146 ha and 4.84 km round (WGS84).
        expect(sheet).to_contain_text(re.compile(r"Shore: 14[56] ha, 4\.8\d km long"))
        expect(sheet).to_contain_text("Not among your places, left out: Elsewhere.")
        sheet.get_by_role("button", name="Take these").click()
        expect(page.get_by_role("heading", name="No shore yet")).to_have_count(0)
        expect(page.get_by_role("img", name="Chart of Ash Tarn")).to_contain_text("Shelf")
        page.get_by_role("radio", name="S", exact=True).click()
        expect(page.get_by_text(re.compile("This wind runs 1.1\\d km at most, onto the N shore"))).to_be_visible()
        with page.expect_download() as download:
            page.get_by_role("link", name="Save as GeoJSON").click()
        with open(download.value.path(), encoding="utf-8") as file:
            self.assertEqual(len(json.load(file)["features"]), 3)
        page.get_by_role("button", name="Take the outline away").click()
        expect(page.get_by_role("heading", name="No shore yet")).to_be_visible()
        page.get_by_role("button", name="Undo").click()
        expect(page.get_by_role("heading", name="No shore yet")).to_have_count(0)

    def test_soundings_by_hand(self):
        page = self.start(path="/water/chart")
        keep = page.get_by_role("button", name="Keep it")
        keep.click()
        expect(page.get_by_text("How deep? A number.")).to_be_visible()
        page.get_by_label("Depth of water").last.fill("4")
        keep.click()
        expect(page.get_by_text("Where? Choose a place")).to_be_visible()
        page.get_by_label("Where").select_option("Shelf")
        keep.click()
        # Trade: a rod tells to a metre less than its length: 2.9 m reaches 1.9.
        expect(page.get_by_text("A rod of 2.9 m does not reach 4 m down.")).to_be_visible()
        page.get_by_role("radio", name="Marked cord").click()
        keep.click()
        expect(page.get_by_text(re.compile("4.0 m kept, give or take 0.1 m"))).to_be_visible()
        places = page.get_by_role("listitem").filter(has_text="Shelf: bed")
        expect(places).to_contain_text("sounded 4.0 m, give or take 0.1 m")
        page.get_by_text("1 sounding").click()
        page.get_by_role("button", name="Remove the sounding of 4.0 m").click()
        expect(places).not_to_contain_text("sounded")


class Boat(WaterCase):
    def test_live_lost_live_again_recorded_and_on_the_chart(self):
        page = self.start(PHONE, "/water/boat")
        boat = self.stand_in("sounder", "--speed", "40")
        port = boat.port
        page.get_by_label("Port").fill("70000")
        page.get_by_role("button", name="Connect", exact=True).click()
        expect(page.get_by_text("A whole number from 1 to 65535.")).to_be_visible()
        page.get_by_label("Port").fill(str(port))
        page.get_by_role("button", name="Connect", exact=True).click()
        expect(page.get_by_text("Live.", exact=True)).to_be_visible()
        page.get_by_role("button", name="Record a line of soundings").click()
        expect(page.get_by_text(re.compile(r"Recording: \d\d+ soundings"))).to_be_visible()
        boat.kill()
        expect(page.get_by_text("Lost the feed; trying again.")).to_be_visible()
        self.stand_in("sounder", "--speed", "40", port=port)
        expect(page.get_by_text("Live.", exact=True)).to_be_visible()
        page.get_by_role("button", name="Stop the line").click()
        page.get_by_role("link", name="To the chart").click()
        expect(page.get_by_text(re.compile(r"\d\d+ soundings"))).to_be_visible()
        self.goto(page, "/water/boat")
        page.get_by_role("button", name="Use this wind").click()
        page.get_by_role("button", name="Hang up").click()
        expect(page.get_by_text("Not connected.")).to_be_visible()
        self.tab(page, "Water")
        expect(page.get_by_label("Wind", exact=True)).not_to_have_value("")
        expect(page.get_by_text("from the instrument")).to_be_visible()

    def test_the_live_thermometer_in_the_guided_reading(self):
        page = self.start(PHONE)
        boat = self.stand_in("sounder", "--speed", "40", "--steady")
        self.goto(page, "/water/boat")
        page.get_by_label("Port").fill(str(boat.port))
        page.get_by_role("button", name="Connect", exact=True).click()
        expect(page.get_by_text("Live.", exact=True)).to_be_visible()
        page.get_by_role("button", name="Read a profile with this thermometer").click()
        page.get_by_role("button", name=re.compile("^Take .* °C")).click()
        expect(page.get_by_role("dialog")).to_contain_text("Let down to 1.0 m")
        page.get_by_role("button", name="Close").click()
        page.get_by_role("button", name="Hang up").click()


class Year(WaterCase):
    def test_empty_at_first_then_a_profile_on_the_cord(self):
        page = self.start(path="/water/year")
        expect(page.get_by_role("heading", name="No temperatures here yet")).to_be_visible()
        page.get_by_role("link", name="To the Reading page").click()
        page.get_by_label("Depth 1", exact=True).fill("0")
        with page.expect_response(lambda r: r.request.method == "PUT" and "/readings/" in r.url):
            for row, value in enumerate(("12", "11.8", "11.5"), 1):
                page.get_by_label(f"Temperature {row}", exact=True).fill(value)
                page.get_by_label(f"Temperature {row}", exact=True).press("Enter")
        self.goto(page, "/water/year")
        expect(page.get_by_role("heading", name="1 profile")).to_be_visible()
        expect(page.get_by_role("button", name=re.compile("surface 12.0 °C, deepest 11.5 °C, mixed"))).to_be_visible()
        expect(page.get_by_text("Guessed from the latitude")).to_be_visible()
