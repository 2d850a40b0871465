"""A day without signal: opened from a closed browser, started, counted, logged, advised, stopped; everything arrives later, once."""

import re
import uuid

from django.contrib.sessions.models import Session

from stillthread.outings.models import Event, Outing, Spell
from tests.api.base import PASSWORD
from tests.browser.base import PHONE, WAITING, expect
from tests.browser.test_on_the_day import DayCase

AHEAD_MS = 120_000  # a ceiling, never waited for


class DarkCase(DayCase):
    workers = "allow"

    def at_home(self, path="/fish"):
        """A phone that has seen the day's plan at home and kept what the dark needs."""
        page = self.prepared(PHONE, path)
        self.keep(page)
        return page

    def keep(self, page):
        """Wait until this device has what a day without signal needs."""
        page.evaluate("navigator.serviceWorker.ready.then(() => true)")
        page.goto(self.live_server_url + "/fish")
        # Worked out three hours ahead: with no path on the shelf yet that takes a slow machine longer than a tap may.
        kept = page.get_by_test_id("kept").filter(has_text="Kept for where there is no signal")
        kept.wait_for(timeout=AHEAD_MS)

    def dark(self, page, on=True):
        page.context.set_offline(on)

    def tap(self, page, name):
        page.get_by_role("button", name=name, exact=True).click()

    def outing(self):
        return Outing.objects.get(owner=self.user)


class Dark(DarkCase):
    def test_a_whole_day_from_a_closed_browser(self):
        page = self.at_home()
        self.dark(page)
        page.close()
        page = self.context.new_page()
        page.goto(self.live_server_url + "/fish")
        expect(page.get_by_text("No signal: as planned")).to_be_visible()
        self.tap(page, "Fish this now")
        expect(page.get_by_test_id("tally")).to_contain_text("0 takes")
        # To stay by day and in the dark; at dusk it may be something else, with its chance.
        expect(page.get_by_test_id("next")).to_contain_text(re.compile("Stay|in ten minutes"))
        for name in ("Cast: start the count", "Take", "Landed"):
            if page.get_by_role("button", name=name, exact=True).count():
                self.tap(page, name)
        page.get_by_role("button", name="Done").click()
        stored = page.evaluate(WAITING)
        self.tap(page, "Pluck")
        self.until(page, lambda: page.evaluate(WAITING) > stored)
        page.reload()  # in the midst of it
        expect(page.get_by_test_id("tally")).to_contain_text("1 take, 1 landed")
        self.tap(page, "Pluck")
        page.get_by_role("button", name="What changed?").click()
        page.get_by_role("button", name="Sun out").click()
        expect(page.get_by_test_id("next")).to_be_visible()
        self.tap(page, "Stop fishing")
        expect(page.get_by_text("waiting to be sent")).to_be_visible()
        self.assertEqual(Outing.objects.filter(owner=self.user).count(), 0)
        with page.expect_response(lambda r: r.url.endswith("/api/outings/rows") and r.ok):
            self.dark(page, False)
        self.until(page, lambda: Outing.objects.filter(owner=self.user, ended_at__isnull=False).exists())
        expect(page.get_by_text("waiting to be sent")).to_have_count(0)
        outing = self.outing()
        self.assertEqual(outing.spells.count(), 1)
        kinds = sorted(Event.objects.filter(owner=self.user).values_list("kind", flat=True))
        self.assertEqual(kinds, ["landed", "pluck", "pluck"])
        self.until(page, lambda: Outing.objects.get(owner=self.user).plan_snapshot is not None)
        self.assertEqual(page.evaluate(WAITING), 0)

    def test_every_screen_reloads_in_the_dark(self):
        page = self.at_home()
        paths = ("/plan", "/water", "/fish", "/log", "/kit")
        for path in paths:
            page.goto(self.live_server_url + path)
            expect(page.locator("main h1, main h2").first).to_be_visible()
            self.settled(page)
        page.wait_for_timeout(300)
        self.dark(page)
        for path in paths:
            page.goto(self.live_server_url + path)
            expect(page.locator("main h1, main h2").first).to_be_visible()
            expect(page.get_by_text("That did not work")).to_have_count(0)

    def test_killed_between_tap_and_send(self):
        page = self.at_home()
        self.tap(page, "Fish this now")
        self.until(page, lambda: Spell.objects.filter(owner=self.user).exists())
        self.dark(page)
        self.tap(page, "Pluck")
        self.until(page, lambda: page.evaluate(WAITING) == 1)
        page.close()
        self.dark(self.context.new_page(), False)
        page = self.context.pages[0]
        page.goto(self.live_server_url + "/fish")
        self.until(page, lambda: Event.objects.filter(owner=self.user).count() == 1)

    def test_an_answer_lost_on_its_way(self):
        page = self.at_home()
        self.tap(page, "Fish this now")
        expect(page.get_by_test_id("tally")).to_be_visible()
        lost = []

        def lose(route):
            if not lost:
                lost.append(route.fetch())
                route.abort()
            else:
                route.continue_()

        page.route("**/api/outings/rows", lose)
        self.tap(page, "Pluck")
        self.until(page, lambda: lost)
        page.evaluate("window.dispatchEvent(new Event('online'))")
        self.until(page, lambda: page.evaluate(WAITING) == 0)
        self.assertEqual(Event.objects.filter(owner=self.user).count(), 1)

    def test_a_server_in_trouble_and_one_entry_it_cannot_take(self):
        page = self.at_home()
        self.tap(page, "Fish this now")
        expect(page.get_by_test_id("tally")).to_be_visible()
        bad = {"left": 2}

        def trouble(route):
            if bad["left"]:
                bad["left"] -= 1
                route.fulfill(status=500, json={"errors": []})
            else:
                route.continue_()

        page.route("**/api/outings/rows", trouble)
        self.tap(page, "Pluck")
        self.until(page, lambda: bad["left"] < 2)
        page.evaluate("window.dispatchEvent(new Event('online'))")
        self.until(page, lambda: bad["left"] == 0)
        page.evaluate("window.dispatchEvent(new Event('online'))")
        self.until(page, lambda: Event.objects.filter(owner=self.user).count() == 1)

    def test_a_proxy_whose_server_is_down_is_no_answer(self):
        page = self.at_home()
        self.tap(page, "Fish this now")
        self.until(page, lambda: Spell.objects.filter(owner=self.user).exists())
        page.route("**/api/**", lambda route: route.fulfill(status=502, content_type="text/html", body="Bad gateway"))
        self.tap(page, "Pluck")
        for _ in range(4):
            page.evaluate("window.dispatchEvent(new Event('online'))")
            page.wait_for_timeout(100)
        expect(page.get_by_text("No signal.")).to_be_visible()
        expect(page.get_by_text("1 entry waiting to be sent.")).to_be_visible()
        expect(page.get_by_text("refused")).to_have_count(0)
        page.unroute("**/api/**")
        page.evaluate("window.dispatchEvent(new Event('online'))")
        self.until(page, lambda: Event.objects.filter(owner=self.user).count() == 1)

    def test_go_over_in_the_dark_and_back(self):
        page = self.at_home()
        self.tap(page, "Fish this now")
        self.until(page, lambda: Spell.objects.filter(owner=self.user).exists())
        expect(page.get_by_test_id("tally")).to_be_visible()
        first = Spell.objects.get(owner=self.user)
        page.get_by_role("link", name="Plan", exact=True).last.click()
        fish = page.get_by_role("button", name="Change to this set-up").first
        expect(fish).to_be_visible()
        self.settled(page)
        self.dark(page)
        fish.click()
        expect(page.get_by_test_id("tally")).to_contain_text("0 min at this")
        self.until(page, lambda: page.evaluate(WAITING) == 2)
        page.get_by_role("button", name="Undo").click()
        self.dark(page, False)
        self.until(page, lambda: page.evaluate(WAITING) == 0)
        (left,) = Spell.objects.filter(owner=self.user, deleted_at__isnull=True)
        self.assertEqual((left.pk, left.ended_at), (first.pk, None))

    def test_the_session_runs_out_in_the_dark(self):
        page = self.at_home()
        self.user.set_password(PASSWORD)
        self.user.save()
        self.let_in(self.user)
        page.reload()
        self.tap(page, "Fish this now")
        expect(page.get_by_test_id("tally")).to_be_visible()
        self.until(page, lambda: Spell.objects.filter(owner=self.user).exists())
        self.dark(page)
        Session.objects.all().delete()
        self.tap(page, "Pluck")
        self.dark(page, False)
        back = page.get_by_test_id("return")
        expect(back).to_be_visible()
        expect(page.get_by_test_id("tally")).to_be_visible()  # the page stays
        back.get_by_label("Password").fill(PASSWORD)
        back.get_by_role("button", name="Sign in").click()
        self.until(page, lambda: Event.objects.filter(owner=self.user).count() == 1)
        expect(back).to_have_count(0)

    def test_signed_out_and_in_as_another_shows_nothing_of_the_first(self):
        page = self.at_home()
        self.tap(page, "Fish this now")
        expect(page.get_by_test_id("tally")).to_be_visible()
        page.goto(self.live_server_url + "/kit")
        page.get_by_role("button", name="Sign out").last.click()
        expect(page.get_by_role("button", name="I have no account yet")).to_be_visible()
        kept = page.evaluate("async () => (await caches.keys()).length")
        self.assertGreater(kept, 0)
        page.get_by_role("button", name="I have no account yet").click()
        page.get_by_label("Name").fill(f"other-{uuid.uuid4().hex[:6]}")
        page.get_by_label("Password").fill(PASSWORD)
        page.get_by_role("button", name="Make an account").click()
        expect(page.get_by_text("No line yet")).to_be_visible()
        self.dark(page)
        page.goto(self.live_server_url + "/fish")
        expect(page.locator("main")).to_be_visible()
        expect(page.get_by_text("Ash Tarn")).to_have_count(0)

    def test_signing_out_with_taps_that_have_not_arrived_says_so(self):
        page = self.at_home()
        self.tap(page, "Fish this now")
        self.until(page, lambda: Spell.objects.filter(owner=self.user).exists())
        page.route("**/api/outings/rows", lambda route: route.abort())
        self.tap(page, "Pluck")
        self.until(page, lambda: page.evaluate(WAITING) == 1)
        page.goto(self.live_server_url + "/kit")
        page.get_by_role("button", name="Sign out").last.click()
        asked = page.get_by_role("alert").filter(has_text="One entry has not arrived")
        expect(asked.first).to_be_visible()
        page.get_by_role("button", name="Sign out all the same").last.click()
        expect(page.get_by_role("button", name="I have no account yet")).to_be_visible()
        page.unroute("**/api/outings/rows")
        self.let_in(self.user)
        page.goto(self.live_server_url + "/fish")
        self.until(page, lambda: Event.objects.filter(owner=self.user).count() == 1)

    def test_two_tabs_send_each_tap_once(self):
        page = self.at_home()
        self.tap(page, "Fish this now")
        expect(page.get_by_test_id("tally")).to_be_visible()
        other = self.context.new_page()
        other.goto(page.url)
        expect(other.get_by_test_id("tally")).to_be_visible()
        self.dark(page)
        for one in (page, other, page):
            self.tap(one, "Pluck")
        self.until(page, lambda: page.evaluate(WAITING) == 3)
        self.dark(page, False)
        self.until(page, lambda: page.evaluate(WAITING) == 0)
        self.assertEqual(Event.objects.filter(owner=self.user, kind="pluck").count(), 3)

    def test_two_phones_in_conflict_keep_both_values_until_the_owner_chooses(self):
        mine = self.at_home()
        self.tap(mine, "Fish this now")
        expect(mine.get_by_test_id("tally")).to_be_visible()
        self.until(mine, lambda: Spell.objects.filter(owner=self.user).exists())
        address = mine.url
        mine.reload()
        expect(mine.get_by_test_id("tally")).to_be_visible()
        other = self.open(PHONE)
        self.let_in(self.user)
        other.goto(address)
        expect(other.get_by_test_id("tally")).to_be_visible()
        self.dark(mine)
        self.tap(mine, "Deeper")
        self.until(mine, lambda: mine.evaluate(WAITING) == 1)
        before = Spell.objects.get(owner=self.user).revision
        for n in range(2):  # two steps against one: at dusk a fly is begun with at the top, and nothing is shallower
            self.tap(other, "Deeper")
            self.until(other, lambda n=n: Spell.objects.get(owner=self.user).revision > before + n)
        there = Spell.objects.get(owner=self.user).depth_m
        self.dark(mine, False)
        expect(mine.get_by_text("1 entry was refused.")).to_be_visible()
        self.assertEqual(Spell.objects.get(owner=self.user).depth_m, there)
        mine.get_by_role("button", name="Show").click()
        mine.get_by_role("dialog").get_by_role("button", name="Keep what I wrote here").click()
        self.until(mine, lambda: Spell.objects.get(owner=self.user).depth_m != there)
        expect(mine.get_by_text("was refused")).to_have_count(0)

    def test_signal_that_comes_and_goes(self):
        page = self.at_home()
        self.tap(page, "Fish this now")
        expect(page.get_by_test_id("tally")).to_be_visible()
        for n in range(6):
            self.dark(page, n % 2 == 0)
            self.tap(page, "Pluck")
            page.wait_for_timeout(150)
        self.dark(page, False)
        self.until(page, lambda: page.evaluate(WAITING) == 0)
        self.assertEqual(Event.objects.filter(owner=self.user, kind="pluck").count(), 6)

    def test_a_full_store_is_said(self):
        page = self.at_home()
        self.tap(page, "Fish this now")
        expect(page.get_by_test_id("tally")).to_be_visible()
        self.dark(page)
        page.evaluate(
            "() => { IDBObjectStore.prototype.add = () => { throw new DOMException('full', 'QuotaExceededError'); }; }"
        )
        self.tap(page, "Pluck")
        expect(page.get_by_text("cannot store any more")).to_be_visible()
        self.dark(page, False)
        self.until(page, lambda: Event.objects.filter(owner=self.user).count() == 1)

    def test_what_an_older_version_had_waiting_moves_over(self):
        page = self.at_home()
        self.tap(page, "Fish this now")
        expect(page.get_by_test_id("tally")).to_be_visible()
        self.until(page, lambda: Spell.objects.filter(owner=self.user).exists())
        spell = Spell.objects.get(owner=self.user)
        body = {"spell_id": str(spell.pk), "kind": "pluck", "occurred_at": spell.started_at.isoformat()}
        write = {"kind": "event", "outing": str(spell.outing_id), "id": str(uuid.uuid4()), "body": body}
        entry = [{"key": "old", "what": "Pluck", "write": write}]
        page.evaluate("([k, v]) => localStorage.setItem(k, JSON.stringify(v))", [f"outbox:{self.user.username}", entry])
        page.reload()
        self.until(page, lambda: Event.objects.filter(owner=self.user).count() == 1)

    def test_a_clock_set_back_and_a_phone_that_slept(self):
        page = self.at_home()
        self.tap(page, "Fish this now")
        expect(page.get_by_test_id("tally")).to_be_visible()
        self.until(page, lambda: Spell.objects.filter(owner=self.user).exists())
        set_clock = (
            "(ms) => { const real = window.realNow ?? Date.now; window.realNow = real; Date.now = () => real() + ms; }"
        )
        page.evaluate(set_clock, -3_600_000)
        expect(page.get_by_text("clock was set back")).to_be_visible()
        self.tap(page, "Pluck")
        self.until(page, lambda: Event.objects.filter(owner=self.user).count() == 1)
        spell, event = Spell.objects.get(owner=self.user), Event.objects.get(owner=self.user)
        self.assertGreaterEqual(event.occurred_at, spell.started_at)
        page.evaluate(set_clock, 0)
        expect(page.get_by_text("clock was set back")).to_have_count(0)
        page.evaluate(set_clock, 7_200_000)  # two hours in the pocket
        page.reload()
        page.evaluate(set_clock, 7_200_000)
        expect(page.get_by_test_id("tally")).to_contain_text("120 min at this")

    def test_installable(self):
        page = self.at_home()
        manifest = page.evaluate("fetch(document.querySelector('link[rel=manifest]').href).then((r) => r.json())")
        self.assertEqual((manifest["start_url"], manifest["display"]), ("/fish", "standalone"))
        purposes = {icon["purpose"]: icon["src"] for icon in manifest["icons"]}
        self.assertEqual(set(purposes), {"any", "maskable"})
        for src in purposes.values():
            self.assertEqual(page.request.get(self.live_server_url + src).status, 200)
        worker = page.request.get(self.live_server_url + "/sw.js")
        self.assertEqual(worker.headers["cache-control"], "no-cache")
