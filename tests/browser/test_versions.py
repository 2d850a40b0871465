"""A phone with the worker of an older version: it goes on, is offered the newer one, never in the midst of an outing, and heals."""

import re

from stillthread.outings.models import Outing
from stillthread.site.settings import DIST
from tests.browser.base import expect
from tests.browser.served import TRAFFIC
from tests.browser.test_dark import DarkCase

UPDATE = "() => navigator.serviceWorker.getRegistration().then((found) => found.update()).then(() => true, () => false)"
HELD = "() => navigator.serviceWorker.getRegistration().then((found) => !!found.waiting)"
KEPT = "() => caches.keys().then((names) => Promise.all(names.map(async (n) => (await (await caches.open(n)).keys()).map((r) => r.url)))).then((all) => all.flat())"
OFFER = "A newer Still Thread is ready."


def older():
    """The worker as an earlier build would have it: the page at its root was another, and one part had another name."""
    text = (DIST / "sw.js").read_text("utf-8")
    text, changed = re.subn(r'"revision":"[0-9a-f]{32}","url":"/"', '"revision":"an-earlier-one","url":"/"', text)
    assert changed == 1
    return text.replace('"url":"mark.svg"', '"url":"mark.svg?earlier"', 1)


class Versions(DarkCase):
    def setUp(self):
        super().setUp()
        TRAFFIC.instead["/sw.js"] = older()
        self.addCleanup(TRAFFIC.instead.clear)

    def newer(self, page):
        """The server has gone over to today's build, and the phone looks for it."""
        TRAFFIC.instead.clear()
        self.assertTrue(page.evaluate(UPDATE))
        self.until(page, lambda: page.evaluate(HELD))

    def test_offered_and_taken_and_what_was_kept_by_the_older_one_goes(self):
        page = self.at_home()
        self.assertTrue(any("earlier" in url for url in page.evaluate(KEPT)))
        self.newer(page)
        expect(page.get_by_text(OFFER)).to_be_visible()
        self.dark(page)
        page.reload()  # the older one still opens the page without signal
        expect(page.get_by_text("No signal: as planned")).to_be_visible()
        self.dark(page, on=False)
        page.reload()
        with page.expect_navigation():
            page.get_by_role("button", name="Load it now").click()
        expect(page.get_by_role("button", name="Fish this now")).to_be_visible()
        expect(page.get_by_text(OFFER)).to_have_count(0)
        self.assertFalse(page.evaluate(HELD))
        self.until(page, lambda: not any("earlier" in url for url in page.evaluate(KEPT)))
        self.dark(page)
        page.reload()
        expect(page.get_by_text("No signal: as planned")).to_be_visible()

    def test_never_in_the_midst_of_an_outing(self):
        page = self.at_home()
        self.tap(page, "Fish this now")
        expect(page.get_by_test_id("tally")).to_be_visible()
        self.newer(page)
        expect(page.get_by_text(OFFER)).to_have_count(0)
        page.goto(self.live_server_url + "/log")
        expect(page.get_by_role("heading", level=1)).to_be_visible()
        expect(page.get_by_text(OFFER)).to_have_count(0)
        page.goto(f"{self.live_server_url}/fish/{Outing.objects.get(owner=self.user).pk}")
        self.tap(page, "Stop fishing")
        expect(page.get_by_text(OFFER)).to_be_visible()

    def test_a_broken_worker_changes_nothing_and_the_next_good_one_heals(self):
        page = self.at_home()
        TRAFFIC.instead["/sw.js"] = "throw new Error('half of it is missing');"
        page.evaluate(UPDATE)
        page.reload()
        expect(page.get_by_role("button", name="Fish this now")).to_be_visible()
        self.dark(page)
        page.reload()
        expect(page.get_by_text("No signal: as planned")).to_be_visible()
        self.dark(page, on=False)
        self.newer(page)
        page.reload()
        page.get_by_role("button", name="Load it now").click()
        expect(page.get_by_text(OFFER)).to_have_count(0)
