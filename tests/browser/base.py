"""A live server and a real browser at two sizes."""

from __future__ import annotations

import re
import sys
import uuid

from django.test import LiveServerTestCase, override_settings
from playwright.sync_api import BrowserContext, Page, expect, sync_playwright

from stillthread.site.settings import ROOT

sys.path.insert(0, str(ROOT / "scripts"))

from browser import DESKTOP, PHONE, launch  # noqa: E402

PASSWORD = "cold-morning-on-the-dam"
__all__ = ["DESKTOP", "PASSWORD", "PHONE", "BrowserCase", "expect"]
expect.set_options(timeout=15_000)


def number_after(text: str, words: str) -> float:
    """Return the first number after `words` in `text`."""
    found = re.search(re.escape(words) + r"\D*?(\d+(?:\.\d+)?)", text)
    if found is None:
        raise AssertionError(f"no number after {words!r} in {text!r}")
    return float(found.group(1))


@override_settings(DEMO=True)
class BrowserCase(LiveServerTestCase):
    @classmethod
    def setUpClass(cls) -> None:
        super().setUpClass()
        cls.playwright = sync_playwright().start()
        cls.browser = launch(cls.playwright)

    @classmethod
    def tearDownClass(cls) -> None:
        cls.browser.close()
        cls.playwright.stop()
        super().tearDownClass()

    def open(self, size: dict[str, int]) -> Page:
        """Return a fresh page; an error in the page fails the test at its end."""
        self.context: BrowserContext = self.browser.new_context(
            viewport=size, locale="en-GB", timezone_id="Europe/London"
        )
        self.addCleanup(self.context.close)
        page = self.context.new_page()
        page.set_default_timeout(15_000)
        self.faults: list[str] = []
        page.on("pageerror", lambda error: self.faults.append(str(error)))
        page.on("console", lambda m: m.type == "error" and "Content Security" in m.text and self.faults.append(m.text))
        self.addCleanup(lambda: self.assertEqual(self.faults, []))
        return page

    def sign_up(self, page: Page) -> None:
        page.goto(self.live_server_url)
        page.get_by_role("button", name="I have no account yet").click()
        page.get_by_label("Name").fill(f"angler-{uuid.uuid4().hex[:6]}")
        page.get_by_label("Password").fill(PASSWORD)
        page.get_by_role("button", name="Make an account").click()
        expect(page.get_by_role("heading", name="Two minutes, then a plan")).to_be_visible()

    def set_up(self, page: Page, feet: bool = False) -> None:
        """Tick a kit and add a water with two places, in metres or feet."""
        deepest, shelf, channel = ("26", ("3", "13"), ("13", "20")) if feet else ("8", ("1", "4"), ("4", "6"))
        if feet:
            page.get_by_role("radio", name="Feet").click()
            page.get_by_role("radio", name="°F").click()
        page.get_by_label("Name", exact=True).fill("Ash Tarn")
        page.get_by_label("Greatest depth").fill(deepest)
        for n, name, (top, bottom) in ((1, "Channel", channel), (2, "Shelf", shelf)):
            page.get_by_label(f"Place {n}: Name").fill(name)
            page.get_by_label(f"Place {n}: Bed from").fill(top)
            page.get_by_label(f"Place {n}: to").fill(bottom)
        page.get_by_role("radio", name="2", exact=True).click()
        page.get_by_role("button", name="Save and see the plan").click()
        expect(page.get_by_role("heading", level=1, name="Fish")).to_be_visible()

    def tab(self, page: Page, name: str) -> None:
        """Go to a page by its tab; the page before stays until the new one is there."""
        link = page.locator("nav a:visible").filter(has_text=re.compile(f"^{name}$"))
        link.click()
        expect(link).to_have_attribute("aria-current", "page")
