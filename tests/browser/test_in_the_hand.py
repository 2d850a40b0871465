"""What stopped, misled or lost something in whole days through the interface."""

import json
import re
from datetime import timedelta

from django.utils import timezone

from stillthread.outings.models import Event, Outing
from tests.browser.base import DESKTOP, PHONE, BrowserCase, expect


class Dates(BrowserCase):
    def test_a_half_typed_year_bricks_nothing(self):
        page = self.prepared(DESKTOP, "/water")
        page.get_by_text("another time").click()
        page.get_by_label("When").fill("0002-05-14T11:00")
        expect(page.get_by_text("This is no day to go by.")).to_be_visible()
        for path, heading in (("/water", "What you read"), ("/food", "Food"), ("/kit/box", "Fly box")):
            page.goto(self.live_server_url + path)
            expect(page.get_by_role("heading", name=heading).first).to_be_visible()
        page.goto(self.live_server_url + "/plan")
        expect(page.get_by_text("A reading needs mending")).to_be_visible()
        page.goto(self.live_server_url + "/water")
        page.get_by_label("When").fill("2026-05-14T11:00")
        expect(page.get_by_text("This is no day to go by.")).to_have_count(0)

    def test_a_year_is_typed_digit_by_digit_in_the_log(self):
        page = self.prepared(DESKTOP)
        page.get_by_role("button", name="Fish this set-up").first.click()
        page.get_by_role("button", name="Stop fishing").click()
        page.get_by_role("button", name=re.compile("^Edit: ")).first.click()
        began = page.get_by_label("Began")
        began.fill("0002-05-14T10:00")
        expect(began).to_have_value("0002-05-14T10:00")
        expect(page.get_by_text("This is no day to go by.")).to_be_visible()
        expect(page.get_by_role("button", name="Save")).to_be_disabled()
        began.fill("2026-05-14T10:00")
        page.get_by_label("Ended").fill("2026-05-14T11:00")
        page.get_by_role("button", name="Save").click()
        expect(page.get_by_role("dialog")).to_have_count(0)

    def draft_key(self, page):
        page.get_by_label("Wind", exact=True).fill("4")
        expect(page.get_by_text("Kept.", exact=True)).to_be_visible()
        return page.evaluate("Object.keys(localStorage).find((k) => k.startsWith('draft:'))")

    def test_a_draft_that_cannot_be_read_is_set_aside(self):
        page = self.prepared(DESKTOP, "/water")
        key = self.draft_key(page)
        page.evaluate("([k, v]) => localStorage.setItem(k, v)", [key, json.dumps({"rows": "none", "wind": 7})])
        page.reload()
        aside = page.get_by_role("region", name="Set aside")
        expect(aside).to_contain_text("could not be read")
        aside.get_by_text("Show").click()
        expect(aside).to_contain_text('"rows": "none"')
        aside.get_by_role("button", name="Drop it").click()
        expect(aside).to_have_count(0)

    def test_yesterdays_typing_does_not_stand_for_today(self):
        page = self.prepared(DESKTOP, "/water")
        key = self.draft_key(page)
        yesterday = (timezone.now() - timedelta(days=1, minutes=5)).isoformat()
        page.evaluate(
            "([k, at]) => localStorage.setItem(k, JSON.stringify({...JSON.parse(localStorage.getItem(k)), at, wind: '9'}))",
            [key, yesterday],
        )
        page.goto(self.live_server_url + "/plan")
        aside = page.get_by_role("region", name="Set aside")
        expect(aside).to_contain_text("does not stand for today")
        page.goto(self.live_server_url + "/water")
        expect(page.get_by_label("Wind", exact=True)).not_to_have_value("9")
        aside.get_by_role("button", name="Go on with it").click()
        expect(page.get_by_label("Wind", exact=True)).to_have_value("9")
        expect(aside).to_have_count(0)

    def test_an_unknown_address_says_so_and_leads_on(self):
        page = self.prepared(PHONE, "/nowhere/at/all")
        expect(page.get_by_role("heading", name="No such page")).to_be_visible()
        page.get_by_role("navigation", name="Ways out").get_by_role("link", name="Plan").click()
        expect(page.get_by_role("heading", level=1, name="Fish")).to_be_visible()


class Starting(BrowserCase):
    def test_the_plan_says_its_day_and_another_hour_is_asked_about(self):
        page = self.prepared(PHONE, "/water")
        page.get_by_text("another time").click()
        page.get_by_label("When").fill("2026-05-14T09:30")
        self.tab(page, "Plan")
        expect(page.get_by_role("heading", level=1)).to_contain_text("Thu 14 May, 09:30")
        self.settled(page)
        page.get_by_role("button", name="Fish this set-up").first.click()
        dialog = page.get_by_role("dialog", name="Before you start")
        expect(dialog).to_contain_text("This plan is for Thu 14 May, 09:30")
        dialog.get_by_role("button", name="Plan for now first").click()
        expect(page.get_by_test_id("plan-for")).to_contain_text("now,")
        self.assertEqual(Outing.objects.count(), 0)

    def test_a_stop_is_asked_about_and_stays_in_sight(self):
        page = self.prepared(PHONE, "/water")
        page.get_by_label("Thunder about").check()
        self.tab(page, "Plan")
        expect(page.get_by_role("list", name="Mind")).to_contain_text("Thunder: stop")
        self.settled(page)
        page.get_by_role("button", name="Fish this set-up").first.click()
        dialog = page.get_by_role("dialog", name="Before you start")
        expect(dialog).to_contain_text("Thunder: stop")
        dialog.get_by_role("button", name="Not now").click()
        expect(dialog).to_have_count(0)
        page.get_by_role("button", name="Fish this set-up").first.click()
        self.start_all_the_same(page)
        expect(page.get_by_test_id("warnings")).to_contain_text("Thunder: stop")


class Fishing(BrowserCase):
    def fishing(self):
        page = self.prepared(PHONE)
        page.clock.install()
        self.settled(page)
        row = page.locator("ol.corded > li").filter(has_text="Count").first
        row.get_by_role("button").first.click()
        row.get_by_role("button", name="Fish this set-up").click()
        expect(page.get_by_test_id("tally")).to_be_visible()
        return page

    def test_one_fish_is_one_take_and_undo_takes_its_end_back(self):
        page = self.fishing()
        tally = page.get_by_test_id("tally")
        page.get_by_role("button", name="Take", exact=True).click()
        page.get_by_role("button", name="Landed", exact=True).click()
        page.get_by_role("button", name="Done").click()
        expect(tally).to_contain_text("1 take, 1 landed")
        page.get_by_role("button", name="Undo").click()
        expect(tally).to_contain_text("1 take, 0 landed")
        page.get_by_role("button", name="Lost", exact=True).click()
        expect(tally).to_contain_text("1 take, 0 landed")
        page.clock.fast_forward(16 * 60_000)  # longer than any fish is played
        page.get_by_role("button", name="Landed", exact=True).click()
        expect(tally).to_contain_text("2 takes, 1 landed")
        page.get_by_role("button", name="Done").click()
        expect(page.get_by_text("waiting to be sent")).to_have_count(0)
        self.until(page, lambda: sorted(Event.objects.values_list("kind", flat=True)) == ["landed", "lost"])

    def test_a_running_count_goes_on_when_five_seconds_are_added(self):
        page = self.fishing()
        page.get_by_role("button", name="Cast: start the count").click()
        page.clock.fast_forward(9_000)
        page.get_by_role("button", name="Deeper").click()
        expect(page.get_by_role("timer")).to_contain_text(re.compile(r"0:(09|1\d)"))

    def test_stop_lies_apart_from_undo_and_todays_outing_can_go_on(self):
        page = self.fishing()
        undo, stop = (page.get_by_role("button", name=name).bounding_box() for name in ("Undo", "Stop fishing"))
        self.assertGreater(stop["y"] - (undo["y"] + undo["height"]), 24)
        page.get_by_role("button", name="Stop fishing").click()
        expect(page.get_by_role("heading", name="Stretches fished")).to_be_visible()
        outing = Outing.objects.get()
        page.goto(f"{self.live_server_url}/fish/{outing.pk}")
        page.get_by_role("button", name="Go on fishing").click()
        expect(page.get_by_test_id("tally")).to_be_visible()
        self.until(page, lambda: Outing.objects.get().ended_at is None)

    def test_a_minute_of_fishing_has_counts_and_no_rate(self):
        page = self.fishing()
        page.get_by_role("button", name="Take", exact=True).click()
        page.clock.fast_forward(60_000)
        page.get_by_role("button", name="Stop fishing").click()
        rates = page.get_by_test_id("rates")
        expect(rates).to_contain_text("1 in 1 min: too short a time for a rate.")
        expect(rates).not_to_contain_text("an hour")
