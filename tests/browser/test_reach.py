"""Everything can be reached by keyboard and has a name, at both sizes."""

from tests.browser.base import DESKTOP, PHONE, BrowserCase, expect

NAMELESS = """() => [...document.querySelectorAll("button, a[href], input, select, textarea, [role=slider], [role=radio]")]
  .filter((e) => e.getClientRects().length > 0 || e.tagName === "INPUT")
  .filter((e) => {
    const labelled = (e.getAttribute("aria-labelledby") || "").split(" ").map((id) => document.getElementById(id)?.textContent).join("");
    const label = e.labels && [...e.labels].map((l) => l.textContent).join("");
    return !(e.getAttribute("aria-label") || labelled || label || e.textContent.trim() || e.title);
  })
  .map((e) => e.outerHTML.slice(0, 120))"""

SMALL = """() => [...document.querySelectorAll("main button, main select, nav a")]
  .filter((e) => e.getClientRects().length > 0)
  .map((e) => [e.textContent.trim() || e.getAttribute("aria-label"), e.getBoundingClientRect()])
  .filter(([, box]) => box.height < 40 && box.width > 0)
  .map(([name, box]) => `${name}: ${Math.round(box.height)}`)"""


class Reach(BrowserCase):
    def pages(self, size):
        page = self.prepared(size, "/water")
        for path, heading in (
            ("/water", "What you read"),
            ("/water/chart", "Chart"),
            ("/water/year", "The year of this water"),
            ("/water/boat", "Boat feed"),
            ("/food", "Food"),
            ("/plan", "Fish"),
            ("/log", "The log"),
            ("/kit", "Your kit"),
        ):
            page.goto(self.live_server_url + path)
            expect(page.get_by_role("heading", name=heading).first).to_be_visible()
            yield path, page
        page.goto(self.live_server_url + "/plan")
        page.get_by_role("button", name="Fish this set-up").first.click()
        expect(page.get_by_test_id("tally")).to_be_visible()
        yield "/fish", page

    def test_every_control_has_a_name_one_main_heading_and_a_way_past_the_tabs(self):
        for path, page in self.pages(DESKTOP):
            with self.subTest(path):
                self.assertEqual(page.evaluate(NAMELESS), [])
                self.assertEqual(page.locator("h1").count(), 1)
                first = page.evaluate("document.querySelector('a, button, input, select').textContent")
                self.assertEqual(first, "Skip to the page")

    def test_targets_on_the_phone_are_large(self):
        for path, page in self.pages(PHONE):
            with self.subTest(path):
                small = [s for s in page.evaluate(SMALL) if not s.startswith("Tie a reading")]
                self.assertEqual(small, [])

    def test_an_outing_is_started_by_keyboard_alone(self):
        page = self.prepared(DESKTOP)
        for _ in range(60):
            page.keyboard.press("Tab")
            if page.evaluate("document.activeElement.textContent") == "Fish this set-up":
                break
        page.keyboard.press("Enter")
        expect(page.get_by_test_id("tally")).to_be_visible()
