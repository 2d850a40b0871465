"""What is typed wrongly, sent without signal, or asked for by the wrong person."""

import contextlib
import pathlib
import re
import tempfile
import uuid

from django.utils import timezone
from playwright.sync_api import Error

from stillthread.outings.models import Event, Outing
from tests.browser.base import DESKTOP, PHONE, BrowserCase, expect


class Readings(BrowserCase):
    def setUp(self):
        super().setUp()
        self.page = self.prepared(DESKTOP, "/water")

    def type_profile(self, *pairs):
        for row, (depth, temperature) in enumerate(pairs, 1):
            if row > 1:
                self.page.get_by_role("button", name="Next depth").click()
            self.page.get_by_label(f"Depth {row}", exact=True).fill(depth)
            self.page.get_by_label(f"Temperature {row}", exact=True).fill(temperature)

    def test_sixty_celsius_offers_fahrenheit_and_keeps_what_was_typed(self):
        page = self.page
        self.type_profile(("0", "60"), ("2", "58"))
        expect(page.get_by_text("60 °C is no lake water.")).to_be_visible()
        expect(page.get_by_label("Temperature 1", exact=True)).to_have_attribute("aria-invalid", "true")
        page.get_by_role("button", name="Read them as °F").first.click()
        expect(page.get_by_text("no lake water")).to_have_count(0)
        expect(page.get_by_label("Temperature 1", exact=True)).to_have_value("60")
        page.reload()
        expect(page.get_by_label("Temperature 2", exact=True)).to_have_value("58")

    def test_each_fault_at_its_field(self):
        page = self.page
        self.type_profile(("0", "12"), ("2", "warm"), ("2", "11"))
        expect(page.get_by_text("'warm' is no number.")).to_be_visible()
        page.get_by_label("Temperature 2", exact=True).fill("11,5")
        expect(page.get_by_text("2 m is there twice.")).to_be_visible()
        page.get_by_label("Depth 3", exact=True).fill("30")
        expect(page.get_by_text("30 m lies below the bed")).to_be_visible()
        page.get_by_label("Depth 3", exact=True).fill("3")
        expect(page.get_by_role("alert")).to_have_count(0)
        page.get_by_label("Wind", exact=True).fill("400")
        page.get_by_label("Wind unit").select_option("km/h")
        expect(page.get_by_text("400 km/h) is beyond any hurricane")).to_be_visible()
        self.tab(page, "Plan")
        expect(page.get_by_text("A reading needs mending")).to_be_visible()

    def test_a_loggers_file_dropped_in(self):
        page = self.page
        file = {
            "name": "cast.csv",
            "mimeType": "text/csv",
            "buffer": "Tiefe (m);Temperatur (°C)\n0;12,5\n2;11,5\n4;11\n".encode(),
        }
        page.locator("input[type=file]").set_input_files(file)
        expect(page.get_by_text("3 readings from the file.")).to_be_visible()
        expect(page.get_by_label("Temperature 2", exact=True)).to_have_value("11.5")
        bad = {"name": "cast.csv", "mimeType": "text/csv", "buffer": b"0;12\n1;11\n1;10\n"}
        page.locator("input[type=file]").set_input_files(bad)
        expect(page.get_by_text("Line 3: 1 m is there twice.")).to_be_visible()
        expect(page.get_by_label("Temperature 2", exact=True)).to_have_value("11.5")
        with tempfile.TemporaryDirectory() as folder:  # by its path: 50 MB are slow to hand over as text
            huge = pathlib.Path(folder, "memory.csv")
            huge.write_bytes(b"0;12\n" * 10_000_000)
            page.locator("input[type=file]").set_input_files(huge)
        expect(page.get_by_text("This file has 50 MB")).to_be_visible()

    def test_the_ring_on_the_cord_is_worked_by_keys(self):
        page = self.page
        ring = page.get_by_role("slider", name="Depth under the ring")
        ring.focus()
        page.keyboard.press("Home")
        page.keyboard.press("ArrowDown")
        page.keyboard.press("PageDown")
        # One step is 0.1 m, a page ten of them.
        expect(ring).to_have_attribute("aria-valuenow", "1.1")
        page.get_by_role("button", name="Tie a reading at the ring").click()
        expect(page.get_by_label("Depth 1", exact=True)).to_have_value("1.1")


class StoredReading(BrowserCase):
    def test_a_stored_reading_is_not_overwritten_by_an_empty_page(self):
        page = self.prepared(DESKTOP, "/water")
        page.get_by_label("Depth 1", exact=True).fill("0")
        page.get_by_label("Temperature 1", exact=True).fill("12")
        page.get_by_label("Wind", exact=True).fill("4")
        page.get_by_label("Place", exact=True).select_option("Shelf")
        with page.expect_response(lambda r: "/readings/" in r.url and r.request.method == "PUT"):
            page.get_by_role("radio", name="Mostly").click()
        asked = []
        page.on("request", lambda r: r.url.endswith("/plans/preview") and asked.append(r.post_data_json["place"]))
        page.evaluate("localStorage.clear()")  # another device: only the server knows the reading
        page.clock.install()
        page.reload()
        page.get_by_label("Temperature 1", exact=True).fill("60")  # typed at once, before anything has settled
        expect(page.get_by_text("60 °C is no lake water.")).to_be_visible()
        page.clock.run_for(5_000)  # longer than typing is let rest before it is sent
        page.evaluate("localStorage.clear()")
        page.reload()
        expect(page.get_by_label("Wind", exact=True)).to_have_value("4")
        expect(page.get_by_label("Temperature 1", exact=True)).to_have_value("12")
        self.assertEqual(set(asked), {"Shelf"})  # no plan is ever asked for an empty page first


class Overtaken(BrowserCase):
    def test_a_plan_from_before_a_rule_changed_is_not_kept(self):
        """A slow line: the plan is asked for before the new rule is stored, and answered after."""
        page = self.prepared(DESKTOP, "/water")
        page.get_by_label("Depth 1", exact=True).fill("0")
        page.get_by_label("Temperature 1", exact=True).fill("21.5")
        expect(page.get_by_text("Kept.", exact=True)).to_be_visible()
        page.goto(f"{self.live_server_url}/waters/{self.water}")
        page.get_by_role("radio", name="All returned").click()
        saving, answered = [], []
        page.route("**/api/waters/*", lambda route: saving.append(route) if not saving else route.continue_())

        def hold(route):
            if answered:
                route.continue_()
            else:
                answered.append((route, route.fetch()))

        page.route("**/api/plans/preview", hold)
        page.get_by_role("button", name="Save the water").click()
        self.tab(page, "Plan")
        self.until(page, lambda: saving and answered)
        saving[0].continue_()
        expect(page.get_by_role("heading", name="Leave the fish alone today")).to_be_visible()
        route, old = answered[0]
        with contextlib.suppress(Error):  # the page has given this answer up
            route.fulfill(response=old)
        self.tab(page, "Water")
        self.tab(page, "Plan")
        expect(page.get_by_role("heading", name="Leave the fish alone today")).to_be_visible()

    def test_nothing_is_started_from_a_plan_that_is_being_worked_out_anew(self):
        page = self.prepared(PHONE)
        asked = []
        page.route("**/api/plans/preview", lambda route: asked.append(route))
        page.get_by_text("The day: most fish").click()
        page.get_by_role("radio", name="The biggest").click()
        expect(page.get_by_role("button", name="Working out the plan…").first).to_be_disabled()
        expect(page.get_by_role("button", name="Fish this set-up")).to_have_count(0)
        self.until(page, lambda: asked)
        asked[0].continue_()
        expect(page.get_by_role("button", name="Fish this set-up").first).to_be_enabled()


class OnTheWater(BrowserCase):
    def test_without_signal_nothing_is_lost(self):
        page = self.prepared(PHONE)
        page.get_by_role("button", name="Fish this set-up").first.click()
        page.get_by_role("button", name="Take", exact=True).click()
        expect(page.get_by_test_id("tally")).to_contain_text("1 take,")
        self.until(page, lambda: Event.objects.count() == 1)
        self.context.set_offline(True)
        expect(page.get_by_text("No signal.")).to_be_visible()
        page.get_by_role("button", name="Take", exact=True).click()
        page.get_by_role("button", name="Pluck", exact=True).click()
        expect(page.get_by_test_id("tally")).to_contain_text("2 takes")
        expect(page.get_by_text("2 entries waiting to be sent.")).to_be_visible()
        self.context.set_offline(False)
        expect(page.get_by_text("waiting to be sent")).to_have_count(0)
        page.reload()
        expect(page.get_by_test_id("tally")).to_contain_text("2 takes")

    def fishing(self):
        page = self.prepared(PHONE)
        page.get_by_role("button", name="Fish this set-up").first.click()
        expect(page.get_by_test_id("tally")).to_contain_text("0 takes")
        return page

    def test_a_refused_entry_is_seen_and_holds_nothing_up(self):
        page = self.fishing()
        Outing.objects.update(deleted_at=timezone.now())  # deleted meanwhile, on another device
        page.get_by_role("button", name="Pluck", exact=True).click()
        expect(page.get_by_text("1 entry was refused.")).to_be_visible()
        Outing.objects.update(deleted_at=None)
        page.get_by_role("button", name="Take", exact=True).click()
        expect(page.get_by_test_id("tally")).to_contain_text("1 take,")
        page.get_by_role("button", name="Show").click()
        dialog = page.get_by_role("dialog", name="Refused entries")
        expect(dialog).to_contain_text("There is no such outing of yours.")
        with page.expect_response(lambda r: r.url.endswith("/outings/rows") and r.ok):
            dialog.get_by_role("button", name="Send again").click()
        expect(page.get_by_text("was refused")).to_have_count(0)
        expect(page.get_by_role("dialog")).to_have_count(0)
        self.assertEqual(sorted(Event.objects.values_list("kind", flat=True)), ["pluck", "take"])

    def test_signed_out_on_the_water_keeps_the_taps_until_signed_in(self):
        page = self.fishing()
        cookies = self.context.cookies()
        self.context.clear_cookies()
        page.get_by_role("button", name="Take", exact=True).click()
        expect(page.get_by_text("1 entry waiting to be sent.")).to_be_visible()
        self.assertEqual(Event.objects.count(), 0)
        self.context.add_cookies(cookies)
        page.reload()
        expect(page.get_by_test_id("tally")).to_contain_text("1 take,")
        expect(page.get_by_text("waiting to be sent")).to_have_count(0)
        self.assertEqual(Event.objects.count(), 1)

    def test_the_clock_survives_a_reload(self):
        page = self.prepared(PHONE)
        page.clock.install()
        row = page.locator("ol.corded > li").filter(has_text="Count").first
        row.get_by_role("button").first.click()
        row.get_by_role("button", name="Fish this set-up").click()
        page.get_by_role("button", name="Cast: start the count").click()
        page.clock.fast_forward(12_000)
        page.reload()
        expect(page.get_by_role("timer")).to_contain_text(re.compile(r"0:1[2-9]"))

    def test_changes_start_a_new_stretch(self):
        page = self.prepared(PHONE)
        page.get_by_role("button", name="Fish this set-up").first.click()
        page.get_by_role("button", name="Follow").click()
        page.get_by_role("button", name="Change…").click()
        place = page.get_by_label("Place", exact=True)
        other = "Shelf" if place.input_value() == "Channel" else "Channel"
        place.select_option(other)
        page.get_by_role("radio", name="Two-handed, fast").click()
        expect(page.get_by_text("Two changes at once")).to_be_visible()
        page.get_by_role("button", name="Fish it").click()
        page.get_by_role("button", name="Stop fishing").click()
        stretches = page.locator("ol.corded > li")
        expect(stretches).to_have_count(2)
        expect(stretches.nth(1)).to_contain_text(other)

    def test_somebody_elses_outing_is_not_there(self):
        page = self.prepared(DESKTOP)
        for path in ("log", "fish"):
            page.goto(f"{self.live_server_url}/{path}/{uuid.uuid4()}")
            expect(page.get_by_text("There is no such outing of yours.")).to_be_visible()
        page.goto(f"{self.live_server_url}/plan?w={uuid.uuid4()}")
        expect(page.get_by_text("There is no such water of yours.")).to_be_visible()
        page.goto(f"{self.live_server_url}/log")
        expect(page.get_by_text("No outing yet")).to_be_visible()
