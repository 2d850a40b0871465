"""An account of one's own, an outing begun from nothing, the day looked back at, and an edit that met another."""

from datetime import timedelta

from django.contrib.auth.models import User
from django.utils import timezone

from stillthread.outings.models import Outing, SeenNearby, Spell
from tests.browser.base import PASSWORD, PHONE, BrowserCase, expect

OTHER = "warm-evening-by-the-reeds"


class Account(BrowserCase):
    def test_a_new_password_and_the_end_of_the_account(self):
        page = self.open(PHONE)
        self.sign_up(page)
        name = User.objects.get().username
        page.goto(self.live_server_url + "/account")
        expect(page.get_by_text(", this one", exact=True)).to_be_visible()
        page.get_by_label("The password you have now").fill("not it at all")
        page.get_by_label("The new one").fill(OTHER)
        page.get_by_role("button", name="Change the password").click()
        expect(page.get_by_text("This is not your password.")).to_be_visible()
        page.get_by_label("The password you have now").fill(PASSWORD)
        page.get_by_role("button", name="Change the password").click()
        expect(page.get_by_text("Changed. Every other device is signed out.")).to_be_visible()
        page.get_by_text("Delete the account").click()
        page.get_by_label("Your password, to show that it is you").fill(OTHER)
        page.get_by_role("button", name="Delete everything").click()
        expect(page.get_by_role("button", name="I have no account yet")).to_be_visible()
        self.assertFalse(User.objects.filter(username=name).exists())


class FromNothing(BrowserCase):
    def test_the_best_set_up_is_ready_to_start_and_the_day_is_looked_back_at(self):
        page = self.prepared(PHONE, "/fish")
        expect(page.get_by_test_id("ready")).to_contain_text("nothing read today")
        page.get_by_role("button", name="Fish this now").click()
        expect(page.get_by_test_id("tally")).to_be_visible()
        page.get_by_role("button", name="What changed?").click()
        page.get_by_role("button", name="A neighbour's fish").click()
        page.get_by_label("Where").select_option("I cannot say")
        page.get_by_label("Under a").check(force=True)
        page.get_by_label("How deep, if you know").fill("3")
        page.get_by_role("button", name="Note it").click()
        expect(page.get_by_text("Noted. The advice is made anew.")).to_be_visible()
        seen = SeenNearby.objects.get()
        self.assertEqual((seen.place, seen.pace, seen.depth_m, seen.takes), ("", "static", 3.0, 1))
        began = timezone.now() - timedelta(minutes=40)
        Outing.objects.update(started_at=began)
        Spell.objects.update(started_at=began)
        page.get_by_role("button", name="Stop fishing").click()
        expect(page.get_by_test_id("over-day")).to_contain_text("at the start")


class Met(BrowserCase):
    def test_an_edit_that_met_another_is_told_with_both_and_settled(self):
        page = self.prepared(PHONE, "/fish")
        page.get_by_role("button", name="Fish this now").click()
        page.get_by_role("button", name="Stop fishing").click()
        page.get_by_role("button", name="Edit the outing").click()
        page.get_by_role("dialog").get_by_role("textbox").last.fill("from the phone")
        self.until(page, lambda: Outing.objects.get().ended_at is not None)
        there = Outing.objects.get()
        there.note = "from the desk"
        there.save()
        page.get_by_role("button", name="Save").click()
        page.get_by_role("button", name="Show").click()
        expect(page.get_by_text("Note: here from the phone, there from the desk")).to_be_visible()
        page.get_by_role("button", name="Keep what I wrote here").click()
        self.until(page, lambda: Outing.objects.get().note == "from the phone")
