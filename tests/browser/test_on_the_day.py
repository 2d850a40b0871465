"""A day on the water as it goes: the advice followed from plan to stop, a change of light, an outing resumed, two phones."""

import re
import uuid
from datetime import timedelta

from django.contrib.auth.models import User
from django.db.models import F
from django.utils import timezone

from stillthread.outings.models import Outing, Spell
from stillthread.waters.schemas import ReadingBody
from stillthread.waters.services import put_reading
from tests.browser.base import PHONE, WAITING, BrowserCase, expect, outfit

READING = {
    "profile": [{"depth_m": z, "temperature_c": t} for z, t in ((0, 14.0), (2, 13.8), (4, 13.0), (6, 11.0))],
    "wind_m_s": 4.0, "wind_from_deg": 225, "cloud_oktas": 7, "clarity": "clear",
}  # fmt: skip


class DayCase(BrowserCase):
    def out(self):
        """A phone with a reading of this morning and the best set-up under way."""
        page = self.prepared(PHONE, "/kit")
        told = {"place": "Channel", "reading": READING, "taken_at": timezone.now().isoformat()}
        put_reading(self.user, uuid.UUID(self.water), uuid.uuid4(), ReadingBody.model_validate(told))
        self.begin(page)
        return page

    def begin(self, page):
        page.goto(self.live_server_url + "/fish")
        page.get_by_role("button", name="Fish this now").click()
        expect(page.get_by_test_id("tally")).to_be_visible()

    def pass_minutes(self, page, minutes):
        """As if what is fished had been begun so much earlier; what was tapped has arrived, or it would come as it was tapped."""
        self.until(page, lambda: page.evaluate(WAITING) == 0)
        earlier = timedelta(minutes=minutes)
        for model in (Outing, Spell):
            model.objects.filter(owner=self.user).update(started_at=F("started_at") - earlier)
        Spell.objects.filter(owner=self.user, ended_at__isnull=False).update(ended_at=F("ended_at") - earlier)
        page.reload()


class Day(DayCase):
    def test_the_advice_followed_from_plan_to_stop(self):
        page = self.out()
        steps = page.get_by_test_id("next")
        for n, name in enumerate(("Do it", "Do this")):
            self.pass_minutes(page, 75)
            if name == "Do this":  # another of the choices, as good
                page.get_by_text("Why, and what else").click()
            step = steps.get_by_role("button", name=name).first
            expect(step).to_be_visible()
            self.assertRegex(steps.inner_text(), r"\d+ % in ten minutes, \d+ % as now")
            step.click()
            self.until(page, lambda n=n: Spell.objects.filter(owner=self.user).count() == n + 2)
            expect(page.get_by_test_id("tally")).to_contain_text("0 min at this")
        self.pass_minutes(page, 5)
        page.get_by_role("button", name="Take", exact=True).click()
        page.get_by_role("button", name="Landed").click()
        page.get_by_role("button", name="Done").click()
        self.pass_minutes(page, 4)  # the fish is in the net and the fly is back
        expect(steps).to_contain_text("Stay")
        page.get_by_role("button", name="Stop fishing").click()
        expect(
            page.get_by_role("img", name=re.compile("belief", re.I)).or_(page.get_by_test_id("over-day"))
        ).to_be_visible()
        self.assertEqual(Spell.objects.filter(owner=self.user).count(), 3)
        self.assertIsNotNone(Outing.objects.get(owner=self.user).ended_at)

    def test_a_change_of_light_makes_the_advice_anew(self):
        page = self.out()
        self.pass_minutes(page, 40)
        expect(page.get_by_test_id("next")).to_be_visible()
        page.get_by_role("button", name="What changed?").click()
        with page.expect_response(lambda r: r.url.endswith("/next") and r.request.method == "GET"):
            page.get_by_role("button", name="Sun out").click()
        expect(page.get_by_role("dialog")).to_have_count(0)
        page.get_by_role("button", name="What changed?").click()
        page.get_by_role("button", name="A fish's throat").click()
        page.get_by_label("Most of it was").select_option("daphnia")
        page.get_by_role("button", name="Note it").click()
        expect(page.get_by_role("dialog")).to_have_count(0)
        newest = self.reading()
        self.assertLessEqual(newest["cloud_oktas"], 2)
        self.assertEqual(len(newest["profile"]), 4)

    def reading(self):
        from stillthread.waters.models import Reading

        return Reading.objects.filter(owner=self.user).latest("taken_at").reading

    def test_an_outing_resumed_on_another_visit(self):
        page = self.out()
        page.get_by_role("button", name="Pluck").click()
        page.get_by_role("button", name="Stop fishing").click()
        self.until(page, lambda: Outing.objects.get(owner=self.user).ended_at is not None)
        page.goto(self.live_server_url + "/fish")
        page.get_by_role("link", name="Carry it on").click()
        page.get_by_role("button", name="Go on fishing").click()
        expect(page.get_by_test_id("tally")).to_contain_text("0 min at this")
        self.until(page, lambda: Spell.objects.filter(owner=self.user).count() == 2)


class TwoPhones(DayCase):
    def test_one_shares_the_other_joins_and_each_sees_the_others_fish(self):
        mine = self.out()
        me = self.user
        mine.get_by_role("button", name="Two anglers").click()
        mine.get_by_role("button", name="Make a code").click()
        code = mine.get_by_test_id("code").inner_text()
        self.assertRegex(code, r"^[A-Z2-9]{6}$")

        theirs = self.open(PHONE)
        self.user = User.objects.create_user(f"partner-{uuid.uuid4().hex[:6]}")
        outfit(self.user)
        self.let_in(self.user)
        theirs.goto(self.live_server_url + "/fish")
        theirs.get_by_label("Code").fill("QQQQQQ")
        theirs.get_by_role("button", name="Join", exact=True).click()
        expect(theirs.get_by_text("This code opens no outing")).to_be_visible()
        theirs.get_by_label("Code").fill(code.lower())
        theirs.get_by_role("button", name="Join", exact=True).click()
        expect(theirs.get_by_test_id("beside")).to_contain_text(me.username)
        theirs.get_by_role("button", name="Fish this now").click()
        theirs.get_by_role("button", name="Take", exact=True).click()
        self.until(theirs, lambda: Outing.objects.get(owner=self.user).spells.filter(events__kind="take").exists())

        mine.reload()
        expect(mine.get_by_test_id("beside")).to_contain_text("1 take")
        expect(mine.get_by_test_id("beside")).to_contain_text(self.user.username)
        expect(mine.get_by_test_id("tally")).to_contain_text("0 takes")  # one's own stay one's own
        mine.get_by_text("Why, and what else").click()
        expect(mine.get_by_text("Your partner took at about")).to_be_visible()
        mine.get_by_role("button", name="Two anglers").click()
        mine.get_by_role("button", name="Stop sharing").click()
        expect(mine.get_by_text(re.compile("You fished beside"))).to_be_visible()
        theirs.reload()
        expect(theirs.get_by_test_id("tally")).to_be_visible()
        expect(theirs.get_by_test_id("beside")).to_have_count(0)

    def test_the_link_leads_to_the_code(self):
        page = self.prepared(PHONE, "/fish/join/ABC234")
        expect(page.get_by_label("Code")).to_have_value("ABC234")
