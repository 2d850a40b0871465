"""The log mended afterwards: a day without the phone, a stretch split and joined, each with its way back."""

import re

from stillthread.outings.models import Event, Outing, Spell
from tests.browser.base import PHONE, BrowserCase, expect


class Mend(BrowserCase):
    def test_a_day_without_the_phone_entered_and_its_stretch_split_and_joined(self):
        page = self.prepared(PHONE, "/log")
        page.get_by_role("button", name="Add a day without the phone").click()
        page.get_by_label("Began").fill("2026-05-14T09:00")
        page.get_by_label("Ended").fill("2026-05-14T08:00")
        expect(page.get_by_role("button", name="Add it")).to_be_disabled()
        page.get_by_label("Ended").fill("2026-05-14T13:00")
        page.get_by_role("button", name="Add it").click()
        expect(page.get_by_role("heading", name=re.compile("14 May 2026"))).to_be_visible()
        page.get_by_role("button", name="Add a stretch").click()
        page.get_by_label("Place").select_option("Channel")
        page.get_by_label("Way of fishing").select_option("float")
        page.get_by_label("Depth fished").fill("2.5")
        page.get_by_label("Flies").fill("Red midge, Olive pupa")
        page.get_by_role("button", name="Save").click()
        spells = page.locator("ol.corded > li")
        expect(spells).to_have_count(1)
        expect(spells.first).to_contain_text("Bung, 2.5 m")
        page.get_by_role("button", name=re.compile("Add a fish")).click()
        page.get_by_label("What", exact=True).select_option("landed")
        page.get_by_label("At", exact=True).fill("2026-05-14T12:30")
        page.get_by_label("Length").fill("50")
        page.get_by_label("Weighed").fill("1,2")
        page.get_by_role("button", name="Save").click()
        expect(spells.first).to_contain_text("50 cm · 1.20 kg")
        expect(page.get_by_test_id("rates")).to_contain_text("0.25 an hour (1 in 4 h 00)")
        self.split_and_join(page, spells)

    def split_and_join(self, page, spells):
        spells.first.get_by_role("button", name=re.compile("^Edit: Float")).click()
        page.get_by_text("Split it, or join it").click()
        page.get_by_label("Split at").fill("2026-05-14T14:00")
        expect(page.get_by_role("button", name="Split", exact=True)).to_be_disabled()
        page.get_by_label("Split at").fill("2026-05-14T12:00")
        page.get_by_role("button", name="Split", exact=True).click()
        expect(spells).to_have_count(2)
        expect(spells.nth(1)).to_contain_text("12:30")
        self.until(page, lambda: Event.objects.get().spell.started_at.hour == 11)  # noon in summer time
        page.get_by_role("button", name="Undo").click()
        expect(spells).to_have_count(1)
        expect(spells.first).to_contain_text("12:30")
        spells.first.get_by_role("button", name=re.compile("^Edit: Float")).click()
        page.get_by_text("Split it, or join it").click()
        page.get_by_label("Split at").fill("2026-05-14T12:00")
        page.get_by_role("button", name="Split", exact=True).click()
        expect(spells).to_have_count(2)
        spells.first.get_by_role("button", name=re.compile("^Edit: Float")).click()
        page.get_by_text("Split it, or join it").click()
        page.get_by_role("button", name="Join with the next").click()
        expect(spells).to_have_count(1)
        self.until(page, lambda: Spell.objects.filter(deleted_at=None, ended_at__hour=12).count() == 1)
        self.until(page, lambda: Event.objects.get().spell.deleted_at is None)
        self.until(page, lambda: Outing.objects.get().spells.filter(deleted_at=None).count() == 1)
