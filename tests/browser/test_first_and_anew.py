"""The first page, a reading anew, and reaching every part by thumb and keyboard."""

import re

from stillthread.waters.models import Reading
from tests.browser.base import DESKTOP, PHONE, BrowserCase, expect
from tests.checks import some


class StartPage(BrowserCase):
    def at_start(self):
        page = self.open(PHONE)
        self.sign_up(page)
        return page

    def test_nothing_is_ticked_and_what_is_missing_is_said_and_brought_into_view(self):
        page = self.at_start()
        expect(page.locator("main input[type=checkbox]:checked:visible")).to_have_count(0)
        page.get_by_role("button", name="Save and see the plan").click()
        told = page.get_by_test_id("missing")
        for word in ("where you fish from", "at least one line", "starter box", "water's name", "greatest depth"):
            expect(told).to_contain_text(re.compile(word, re.IGNORECASE))
        first = page.get_by_role("radio", name="The bank")
        expect(first).to_be_focused()
        first.click()
        page.get_by_label("Floating", exact=True).check()
        page.get_by_label("A starter box").check()
        page.get_by_role("button", name="Save and see the plan").click()
        name = page.get_by_label("Name", exact=True)
        expect(name).to_be_focused()
        self.until(page, lambda: 0 < name.bounding_box()["y"] < PHONE["height"])

    def test_the_first_place_fits_bank_or_boat_and_a_reload_takes_nothing(self):
        page = self.at_start()
        kind = page.get_by_label("Place 1: Kind")
        page.get_by_role("radio", name="A boat").click()
        expect(kind).to_have_value("drop-off")
        page.get_by_role("radio", name="The bank").click()
        expect(kind).to_have_value("margin")
        page.get_by_label("Floating", exact=True).check()
        page.get_by_label("A starter box").check()
        page.get_by_label("Name", exact=True).fill("Ash Tarn")
        page.reload()
        expect(page.get_by_label("Name", exact=True)).to_have_value("Ash Tarn")
        expect(page.get_by_label("Floating", exact=True)).to_be_checked()
        # What is left is all a first plan needs: two depths.
        page.get_by_label("Greatest depth").fill("6")
        page.get_by_label("Place 1: to").fill("3")
        page.get_by_role("button", name="Save and see the plan").click()
        expect(page.get_by_role("heading", level=1, name="Fish")).to_be_visible()

    def test_feet_are_typed_as_feet_at_once(self):
        page = self.at_start()
        page.get_by_role("radio", name="Feet").click()
        depth = page.get_by_label("Greatest depth").locator("xpath=..")
        expect(depth).to_contain_text("ft")


class NewHour(BrowserCase):
    def read_at_nine(self):
        """A page with a reading of three temperatures, kept, made four hours older."""
        page = self.prepared(DESKTOP, "/water")
        for n, (depth, warm) in enumerate((("0", "14"), ("2", "13,5"), ("4", "11")), start=1):
            page.get_by_label(f"Depth {n}", exact=True).fill(depth)
            page.get_by_label(f"Temperature {n}", exact=True).fill(warm)
            page.get_by_role("button", name="Next depth").click()
        page.get_by_label("Wind", exact=True).fill("2")
        page.get_by_role("radio", name="None").click()
        self.until(page, lambda: Reading.objects.filter(reading__cloud_oktas=0, reading__wind_m_s=2).exists())
        return page

    def test_a_new_reading_carries_the_temperatures_with_their_age_and_the_plan_says_what_moved(self):
        page = self.read_at_nine()
        morning = Reading.objects.get()
        was = (morning.taken_at, morning.reading)
        page.get_by_role("button", name="New reading, now").click()
        expect(page.get_by_test_id("profile-age")).to_contain_text(re.compile(r"Temperatures from .*\d\d:\d\d"))
        expect(page.get_by_label("Temperature 2", exact=True)).to_have_value("13,5")
        expect(page.get_by_label("Wind", exact=True)).to_have_value("")
        page.get_by_label("Wind", exact=True).fill("6")
        page.get_by_role("radio", name="All grey").click()
        self.until(page, lambda: Reading.objects.filter(reading__cloud_oktas=8).exists())
        morning.refresh_from_db()
        self.assertEqual((morning.taken_at, morning.reading), was)
        page.get_by_role("link", name="See the plan").first.click()
        moved = page.get_by_role("status", name="What that changed")
        expect(moved).to_contain_text("Cloud: 8 of 8 instead of 0 of 8.")
        expect(moved).to_contain_text("Wind: 6 m/s instead of 2 m/s.")
        moved.get_by_role("button", name="Seen").click()
        expect(moved).to_have_count(0)

    def test_an_older_reading_is_opened_and_mended_from_the_year(self):
        page = self.read_at_nine()
        page.get_by_role("link", name="Year").click()
        page.get_by_role("link", name="Open and mend it").click()
        expect(page.get_by_text("This is the reading of")).to_be_visible()
        page.get_by_label("Temperature 3", exact=True).fill("10")
        self.until(page, lambda: Reading.objects.get().reading["profile"][2]["temperature_c"] == 10)
        page.get_by_role("link", name="Back to now").click()
        expect(page.get_by_text("This is the reading of")).to_have_count(0)

    def test_what_if_is_tried_beside_the_plan_and_dropped_or_kept(self):
        page = self.read_at_nine()
        page.get_by_role("link", name="See the plan").first.click()
        self.settled(page)
        page.get_by_text("What if…").click()
        page.get_by_label("Wind were").fill("7")
        page.get_by_role("radio", name="All grey").click()
        expect(page.get_by_text("Cloud: 8 of 8 instead of 0 of 8.")).to_be_visible()
        expect(page.locator("[data-layer=tried]")).to_have_count(1)
        page.get_by_role("button", name="Drop it").click()
        expect(page.locator("[data-layer=tried]")).to_have_count(0)
        self.assertEqual(Reading.objects.get().reading["cloud_oktas"], 0)
        page.get_by_role("radio", name="+4 °C").click()
        expect(page.get_by_text("Surface: 18.0 °C instead of 14.0 °C.")).to_be_visible()
        self.settled(page)
        page.get_by_role("button", name="Keep it in the reading").click()
        self.until(page, lambda: Reading.objects.get().reading["profile"][0]["temperature_c"] == 18)


class Reaching(BrowserCase):
    def test_past_the_long_page_by_keyboard_and_arrows_choose(self):
        page = self.prepared(DESKTOP, "/water")
        page.get_by_role("navigation", name="On this page").get_by_role("link", name="Wind and sky").click()
        page.keyboard.press("Tab")
        expect(page.get_by_label("Wind", exact=True)).to_be_focused()
        page.get_by_role("radio", name="N", exact=True).click()
        page.keyboard.press("ArrowRight")
        expect(page.get_by_role("radio", name="NE", exact=True)).to_be_checked()

    def test_the_wind_typed_leaves_the_surface_to_be_chosen(self):
        page = self.prepared(PHONE, "/water")
        page.get_by_label("Wind", exact=True).fill("4")
        page.get_by_role("radio", name="Foam lanes").click()
        expect(page.get_by_role("radio", name="Foam lanes")).to_be_checked()

    def test_controls_in_the_header_are_large_on_the_phone(self):
        page = self.prepared(PHONE)
        controls = page.get_by_role("banner").locator("a:visible, select:visible, button:visible")
        sizes = [controls.nth(n).bounding_box() for n in range(controls.count())]
        self.assertEqual([one for one in some(sizes) if min(one["width"], one["height"]) < 48], [])

    def test_the_empty_fish_page_has_its_heading(self):
        page = self.prepared(PHONE, "/fish")
        expect(page.get_by_role("heading", level=1, name="Nothing on the go")).to_be_visible()

    def test_pressure_is_read_in_inches_beside_feet(self):
        # 29.92 inches of mercury are 1013.25 hPa, the standard atmosphere (ICAO).
        page = self.prepared(DESKTOP, "/water", feet=True)
        page.get_by_text("Air pressure and water level").click()
        page.get_by_label("Air pressure", exact=True).fill("29.92")
        expect(page.get_by_text("inHg")).to_be_visible()
        self.until(page, lambda: Reading.objects.exists())
        self.assertAlmostEqual(Reading.objects.get().reading["station_pressure_hpa"], 1013.2, delta=0.1)

    def test_what_to_tie_is_one_tap_from_the_plan(self):
        page = self.prepared(PHONE)
        page.get_by_role("link", name="What to tie for it").click()
        heading = page.get_by_role("heading", name="To tie")
        self.until(page, lambda: heading.count() and 0 <= heading.bounding_box()["y"] < PHONE["height"])

    def test_deleted_is_brought_back_from_the_bin(self):
        page = self.prepared(DESKTOP)
        self.settled(page)
        page.get_by_role("button", name="Fish this set-up").first.click()
        page.get_by_role("button", name="Stop fishing").click()
        page.get_by_role("button", name="Delete the outing").click()
        page.get_by_role("link", name="What was deleted").click()
        page.get_by_role("button", name="Bring it back").click()
        expect(page.get_by_text("Nothing lies here")).to_be_visible()
        page.get_by_role("link", name="All outings").click()
        expect(page.get_by_role("link", name="Ash Tarn")).to_be_visible()
