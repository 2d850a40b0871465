"""Without signal: earlier days looked back at and added, and a rig that no plan knows tied on."""

import re
import uuid
from datetime import timedelta

from django.utils import timezone

from stillthread.outings.models import Event, Outing, Spell
from stillthread.outings.schemas import OutingBody
from stillthread.outings.services import put_outing
from tests.browser.base import PHONE, WAITING, expect
from tests.browser.test_dark import DarkCase


class More(DarkCase):
    def test_the_last_outings_can_be_looked_back_at_though_they_were_never_opened_here(self):
        page = self.prepared(PHONE, "/plan")
        began = timezone.now() - timedelta(days=9)
        earlier = uuid.uuid4()
        body = OutingBody(water_id=self.water, started_at=began, ended_at=began + timedelta(hours=3), note="Cold hands")
        put_outing(self.user, earlier, body)
        self.keep(page)
        self.dark(page)
        page.goto(self.live_server_url + "/log")
        expect(page.locator("main li.knot")).to_contain_text("Cold hands")
        page.goto(f"{self.live_server_url}/log/{earlier}")
        expect(page.get_by_text("Cold hands")).to_be_visible()

    def test_a_day_without_the_phone_is_added_in_the_dark(self):
        page = self.at_home()
        page.goto(self.live_server_url + "/log")
        expect(page.get_by_role("button", name="Add a day without the phone")).to_be_visible()
        page.evaluate("navigator.serviceWorker.ready.then(() => true)")
        self.dark(page)
        page.get_by_role("button", name="Add a day without the phone").click()
        page.get_by_role("button", name="Add it").click()
        page.get_by_role("button", name="Add a stretch").click()
        page.get_by_label("Flies").fill("Red midge")
        page.get_by_role("button", name="Save").click()
        expect(page.locator("ol.corded > li")).to_contain_text("Red midge")
        page.reload()
        expect(page.locator("ol.corded > li")).to_contain_text("Red midge")
        self.dark(page, on=False)
        self.until(page, lambda: Spell.objects.filter(owner=self.user, flies=["Red midge"]).exists())
        self.assertIsNotNone(Outing.objects.get(owner=self.user).ended_at)
        self.until(page, lambda: page.evaluate(WAITING) == 0)
        expect(page.locator("ol.corded > li")).to_contain_text("Red midge")

    def test_a_rig_out_of_the_kit_tied_on_in_the_dark_has_its_clock(self):
        page = self.at_home()
        self.tap(page, "Fish this now")
        expect(page.get_by_test_id("tally")).to_be_visible()
        self.dark(page)
        self.tap(page, "Change…")
        options = page.get_by_label("Set-up").locator("optgroup option")
        expect(options).not_to_have_count(0)
        titles = [options.nth(n).inner_text() for n in range(options.count())]
        wanted = next(title for title in titles if "inking line" in title and title.endswith(" weighted fly"))
        page.get_by_label("Set-up").select_option(label=wanted)
        self.tap(page, "Fish it")
        expect(page.get_by_role("heading", level=1)).to_have_text(wanted)
        page.reload()
        for _ in range(6):  # any count has a clock, not only the best one
            self.tap(page, "Deeper")
        expect(page.get_by_test_id("set-depth")).to_contain_text(re.compile(r"\d+ s: "))
        self.tap(page, "Cast: start the count")
        self.tap(page, "Take")
        self.dark(page, on=False)
        self.until(page, lambda: Event.objects.filter(kind="take").exists())
        take = Event.objects.get()
        self.assertEqual(take.spell.title, wanted)
        self.assertIsNotNone(take.depth_m)
        self.assertLess(take.depth_m, 1.0)  # it took on the drop, not where the count would have ended
        self.assertEqual(take.phase, "drop")
