"""A phone whose store is slow: what is tapped meanwhile is neither lost nor in conflict with itself."""

from stillthread.outings.models import Event, Outing
from tests.browser.base import WAITING, expect
from tests.browser.test_dark import DarkCase

# Keeps the store busy for a while: what is written to it waits.
SLOW_STORE = """() => new Promise((begun) => {
  const asked = indexedDB.open("still-thread", 1);
  asked.onsuccess = () => {
    const box = asked.result.transaction("outbox", "readwrite").objectStore("outbox"), end = performance.now() + 2500;
    const keep = () => { if (performance.now() < end) box.count().onsuccess = keep; };
    box.count().onsuccess = () => { begun(true); keep(); };
  };
})"""


class SlowStore(DarkCase):
    def test_a_write_stored_while_its_row_is_being_sent(self):
        """The fish described while its landing is under way, on a phone whose store is slow: no conflict with oneself."""
        page = self.at_home()
        page.get_by_role("button", name="Fish this now").click()
        self.until(page, lambda: Outing.objects.filter(owner=self.user, spells__isnull=False).exists())
        self.tap(page, "Take")
        self.until(page, lambda: Event.objects.count() == 1 and page.evaluate(WAITING) == 0)
        held = []
        page.context.route("**/api/outings/rows", lambda route: route.continue_() if held else held.append(route))
        self.tap(page, "Landed")
        page.get_by_label("Length").fill("43")
        self.until(page, lambda: held)
        page.evaluate(SLOW_STORE)
        page.get_by_role("button", name="Done").click()
        held[0].continue_()
        self.until(page, lambda: Event.objects.get().length_m == 0.43)
        self.until(page, lambda: page.evaluate(WAITING) == 0)

    def test_a_first_write_arrives_while_the_second_is_stored_and_the_third_is_made(self):
        """Take, landed, described, on a phone whose store is slow: the second knows of no revision, the third of one too old."""
        page = self.at_home()
        page.get_by_role("button", name="Fish this now").click()
        self.until(page, lambda: Outing.objects.filter(owner=self.user, spells__isnull=False).exists())
        self.until(page, lambda: page.evaluate(WAITING) == 0)
        held = []
        page.context.route("**/api/outings/rows", lambda route: route.continue_() if held else held.append(route))
        self.tap(page, "Take")
        self.until(page, lambda: held)
        page.evaluate(SLOW_STORE)
        self.tap(page, "Landed")
        page.get_by_label("Length").fill("43")
        with page.expect_response("**/api/outings/rows"):
            held[0].continue_()
        page.wait_for_timeout(300)  # the page has read it
        page.get_by_role("button", name="Done").click()
        self.until(page, lambda: page.evaluate(WAITING) == 0)
        self.assertEqual(Event.objects.get().length_m, 0.43)
        expect(page.get_by_text("was refused")).to_have_count(0)

    def test_the_day_is_left_only_once_its_end_is_stored(self):
        """A store that is busy for a while: the page stands until the tap is safe, and what comes after knows of it."""
        page = self.at_home()
        self.tap(page, "Fish this now")
        expect(page.get_by_test_id("tally")).to_be_visible()
        address = page.url
        page.evaluate(SLOW_STORE)
        self.tap(page, "Stop fishing")
        expect(page.get_by_role("heading", name="Stretches fished")).to_be_visible()
        page.goto(address)
        expect(page.get_by_role("button", name="Go on fishing")).to_be_visible()
