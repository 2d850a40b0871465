"""What stopped, misled or lost something in whole days through the interface."""

import json
import re
import uuid
from datetime import timedelta

from django.utils import timezone

from stillthread.accounts.models import Angler
from stillthread.outings.models import Event, Outing, Spell
from stillthread.waters.models import Forecast, Water
from stillthread.web.owned import put_owned
from tests.browser.base import DESKTOP, PHONE, BrowserCase, expect

# Buttons pressed by their words, one right after the other.
QUICKLY = """(names) => {
  const buttons = [...document.querySelectorAll("button")];
  for (const name of names) buttons.find((one) => one.textContent.trim() === name).click();
}"""


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


class Coming(BrowserCase):
    def test_an_opened_set_up_comes_to_the_top_and_the_card_leads_back_to_it(self):
        page = self.prepared(PHONE)
        self.settled(page)
        second = page.locator("ol.corded > li").nth(1)
        second.get_by_role("button").first.click()
        self.until(page, lambda: 0 <= second.bounding_box()["y"] < 60)
        title = second.get_by_role("heading").first.inner_text().splitlines()[1]
        second.get_by_role("link", name="Pocket card").click()
        expect(page.get_by_role("button", name="Print it")).to_be_visible()
        page.go_back()
        self.settled(page)
        again = page.locator("ol.corded > li").filter(has=page.get_by_role("button", expanded=True))
        expect(again.get_by_role("heading").first).to_contain_text(title)

    def test_a_half_typed_sheet_asks_before_it_goes(self):
        page = self.prepared(DESKTOP)
        self.settled(page)
        page.get_by_role("button", name="Fish this set-up").first.click()
        page.get_by_role("button", name="Stop fishing").click()
        page.get_by_role("button", name="Edit the outing").click()
        page.get_by_label("Note").fill("Wind got up at two")
        page.keyboard.press("Escape")
        sheet = page.get_by_role("dialog")
        expect(sheet).to_contain_text("What you typed here would be lost")
        sheet.get_by_role("button", name="Go on typing").click()
        expect(page.get_by_label("Note")).to_have_value("Wind got up at two")
        page.go_back()
        expect(sheet.get_by_role("button", name="Throw it away")).to_be_visible()
        sheet.get_by_role("button", name="Throw it away").click()
        expect(sheet).to_have_count(0)


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

    def test_another_set_up_goes_into_the_outing_on_the_go_and_back(self):
        page = self.fishing()
        first = page.get_by_role("heading", level=1).inner_text()
        self.tab(page, "Plan")
        expect(page.get_by_test_id("on-the-go")).to_contain_text("You are fishing")
        self.settled(page)
        rows = page.locator("ol.corded > li")
        titles = [rows.nth(n).get_by_role("heading").first.inner_text() for n in range(rows.count())]
        other = rows.nth(next(n for n, title in enumerate(titles) if first not in title))
        other.get_by_role("button").first.click()
        other.get_by_role("button", name="Change to this set-up").click()
        expect(page.get_by_test_id("tally")).to_be_visible()
        expect(page.get_by_role("heading", level=1)).not_to_have_text(first)
        self.assertEqual(Outing.objects.count(), 1)
        page.get_by_role("button", name="Undo").click()
        expect(page.get_by_role("heading", level=1)).to_have_text(first)

    def test_back_closes_the_sheet_first_and_focus_comes_back(self):
        page = self.fishing()
        change = page.get_by_role("button", name="Change…")
        change.click()
        expect(page.get_by_role("dialog")).to_be_visible()
        page.go_back()
        expect(page.get_by_role("dialog")).to_have_count(0)
        expect(page.get_by_test_id("tally")).to_be_visible()
        expect(change).to_be_focused()
        change.click()
        page.get_by_role("dialog").get_by_role("button", name="Close").click()
        expect(change).to_be_focused()
        page.go_back()  # the entry of the sheet is gone: this leaves the page
        expect(page.get_by_role("heading", level=1, name="Fish")).to_be_visible()

    def test_the_change_sheet_offers_the_plans_next_first(self):
        page = self.fishing()
        page.get_by_role("button", name="Change…").click()
        offered = page.get_by_role("region", name="The plan's next").get_by_role("button").first
        pace = offered.inner_text().removeprefix("Pace: ")
        offered.click()
        expect(page.get_by_role("dialog")).to_have_count(0)
        expect(page.locator("dl")).to_contain_text(pace)

    def test_the_hour_brings_its_stop_by_itself(self):
        page = self.fishing()
        Angler.objects.filter(user=self.user).update(afloat=True)
        hours = [{"when": timezone.now().isoformat(), "wind_m_s": 9.0}]  # a small boat stays ashore from 8 m/s
        water = Water.objects.get(pk=self.water)
        now = timezone.now()
        put_owned(Forecast, self.user, uuid.uuid4(), water=water, fetched_at=now, source="test", hours=hours)
        page.reload()
        expect(page.get_by_test_id("warnings")).to_contain_text(re.compile(r"Stop. Since \d\d:\d\d: .*stay ashore"))
        self.assertEqual(page.get_by_test_id("next").count(), 0)

    def test_thunder_is_one_tap_and_silences_the_advice_until_it_is_over(self):
        page = self.fishing()
        expect(page.get_by_test_id("next")).to_be_visible()
        for turn, warned, advised in (("Thunder", 1, 0), ("No thunder for half an hour", 0, 1)):
            page.get_by_role("button", name="What changed?").click()
            page.get_by_role("dialog").get_by_role("button", name=turn, exact=True).click()
            expect(page.get_by_test_id("warnings")).to_have_count(warned)
            expect(page.get_by_test_id("next")).to_have_count(advised)

    def test_one_fish_is_one_take_and_undo_takes_its_end_back(self):
        page = self.fishing()
        tally = page.get_by_test_id("tally")
        expect(page.get_by_role("button", name="Landed", exact=True)).to_be_visible()
        page.evaluate(QUICKLY, ["Take", "Landed"])  # the second before the first is stored
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

    def test_what_to_do_next_is_one_tap_and_one_undo(self):
        page = self.fishing()
        long_ago = timezone.now() - timedelta(minutes=70)
        Outing.objects.update(started_at=long_ago)
        Spell.objects.update(started_at=long_ago)
        page.reload()
        strip = page.get_by_test_id("next")
        expect(strip).to_contain_text(re.compile(r"\d+ % in ten minutes"))
        expect(page.get_by_test_id("tally")).to_contain_text(re.compile(r"7\d min at this"))
        strip.get_by_text("Why, and what else").click()
        expect(strip).to_contain_text("minutes without a take")
        before = page.get_by_role("heading", level=1).inner_text()
        other = strip.get_by_role("button", name="Do this").first
        other.click()
        self.until(page, lambda: Spell.objects.filter(deleted_at=None).count() == 2)
        page.get_by_role("button", name="Undo").click()
        self.until(page, lambda: Spell.objects.filter(deleted_at=None).count() == 1)
        expect(page.get_by_role("heading", level=1)).to_have_text(before)
        strip.get_by_role("button", name="Not now").click()
        expect(strip).to_have_count(0)

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

    def test_a_forgotten_take_is_added_and_taken_back_in_the_log(self):
        page = self.fishing()
        page.clock.fast_forward(30 * 60_000)
        page.get_by_role("button", name="Stop fishing").click()
        page.get_by_role("button", name="Add a fish").click()
        page.get_by_label("Fly depth").fill("2")
        page.get_by_role("button", name="Save").click()
        self.until(page, lambda: Event.objects.filter(kind="take", depth_m=2, deleted_at=None).count() == 1)
        page.get_by_role("button", name="Undo").click()
        self.until(page, lambda: Event.objects.filter(deleted_at=None).count() == 0)
