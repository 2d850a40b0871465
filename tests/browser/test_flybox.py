"""The fly box page: filters, a recipe, a new pattern, what fits, the tie list, files."""

import json
import re

from tests.browser.base import DESKTOP, PHONE, BrowserCase, expect


class FlyBox(BrowserCase):
    def start(self, size=DESKTOP):
        page = self.prepared(size, "/kit")
        page.get_by_role("link", name="Fly box").click()
        expect(page.get_by_role("heading", level=1, name="Fly box")).to_be_visible()
        return page

    def test_search_filter_and_a_recipe(self):
        page = self.start(PHONE)
        expect(page.get_by_text(re.compile(r"^3\d of 3\d patterns$"))).to_be_visible()
        page.get_by_label("Sinks").select_option("floats")
        page.get_by_label("Search").fill("dragonfly")
        expect(page.get_by_text(re.compile("^1 of "))).to_be_visible()
        page.get_by_text("Broad dragonfly nymph, brown").last.click()
        expect(page.get_by_text("On a size 8 leave about 12 mm of shank behind the eye")).to_be_visible()
        expect(page.get_by_text(re.compile(r"^-\d\.\d\d g in water"))).to_be_visible()
        # The view can be shared: it is in the address.
        self.assertIn("sinks=floats", page.url)
        page.get_by_label("Search").fill("no such fly")
        expect(page.get_by_text("No pattern fits that.")).to_be_visible()

    def test_a_new_pattern_sinks_by_its_build(self):
        page = self.start()
        page.get_by_role("button", name="A new pattern").click()
        sheet = page.get_by_role("dialog")
        sheet.get_by_label("Name").fill("Trial worm")
        sheet.get_by_role("button", name="Keep it").click()
        expect(sheet.get_by_text("Tick at least one food.")).to_be_visible()
        sheet.get_by_label("Bloodworm").check()
        sheet.get_by_label("Hook sizes").fill("3")
        sheet.get_by_role("button", name="Keep it").click()
        expect(sheet.get_by_text("Hook sizes from 4 to 20")).to_be_visible()
        sheet.get_by_label("Hook sizes").fill("10 12")
        sheet.get_by_label("Bead", exact=True).select_option("tungsten")
        sheet.get_by_label("Bead size").fill("3,3")
        sheet.get_by_label("Materials").fill("body: red / floss\nrib")
        sheet.get_by_role("button", name="Keep it").click()
        expect(sheet.get_by_text("Line 2 of the materials")).to_be_visible()
        sheet.get_by_label("Materials").fill("body: red / floss\nrib: silver / wire")
        sheet.get_by_label("Steps").fill("Slide the bead on. | Glasses on: it flies.\nWind the floss.")
        sheet.get_by_role("button", name="Keep it").click()
        expect(sheet).to_have_count(0)
        row = page.get_by_role("listitem").filter(has_text="Trial worm").last
        expect(row).to_contain_text("very fast")
        page.get_by_text("Trial worm").last.click()
        expect(page.get_by_text("2. Wind the floss.")).to_be_visible()
        expect(page.get_by_text("Glasses on: it flies.", exact=True)).to_be_visible()
        page.get_by_label("Size 10").fill("4")
        page.get_by_label("Size 10").blur()
        expect(row).to_contain_text("4 in the box")
        page.get_by_role("button", name="Take out").click()
        expect(page.get_by_text("Trial worm taken out.")).to_be_visible()
        page.get_by_role("button", name="Undo").click()
        expect(row).to_contain_text("4 in the box")

    def test_what_fits_what_to_tie_and_files(self):
        page = self.start()
        fits = page.get_by_role("region", name="What fits today")
        expect(fits.get_by_role("listitem").first).to_contain_text("%")
        ties = page.get_by_role("region", name="To tie for the plan")
        expect(ties).to_contain_text("tie 3")
        expect(ties).to_contain_text(re.compile(r"\d+ × .*hook size"))
        ties.get_by_role("radio", name="6").click()
        expect(ties).to_contain_text("tie 6")
        with page.expect_download() as download:
            page.get_by_role("link", name="Save as JSON").click()
        with open(download.value.path(), encoding="utf-8") as file:
            box = json.load(file)
        box["flies"] = [{**box["flies"][0], "name": "From a friend"}]
        picker = page.get_by_label("JSON or CSV file…", exact=True)
        picker.set_input_files({"name": "box.json", "mimeType": "application/json", "buffer": json.dumps(box).encode()})
        expect(page.get_by_text("1 patterns taken")).to_be_visible()
        expect(page.get_by_text("From a friend").last).to_be_visible()
        picker.set_input_files({"name": "box.csv", "mimeType": "text/csv", "buffer": b"name,tone\nx,dark\n"})
        expect(page.get_by_text("line 1: Columns missing: prey, hooks, weight.")).to_be_visible()
