"""A real browser at two sizes, and an angler who is already there: signed in, with a kit and a water."""

from __future__ import annotations

import contextlib
import re
import sys
import time
import unittest
import uuid
from collections.abc import Callable
from typing import Any

from django.conf import settings
from django.contrib.auth.models import User
from django.test import Client, TransactionTestCase, override_settings
from playwright.sync_api import BrowserContext, Locator, Page
from playwright.sync_api import Error as PlaywrightError
from playwright.sync_api import expect as expect_once

from stillthread.accounts.models import Angler
from stillthread.core.tackle.flies import STARTER_FLIES
from stillthread.core.units import FOOT_M
from stillthread.flybox.box_services import add_starter_flies
from stillthread.flybox.models import Line
from stillthread.waters.schemas import PlaceBody, WaterBody
from stillthread.waters.services import put_water
from stillthread.web.owned import put_owned
from tests.browser.served import TRAFFIC, address, browser, watched

# Imported after `served`, which knows where the scripts are.
from browser import DESKTOP, PHONE  # isort: skip

PASSWORD = "cold-morning-on-the-dam"
LONGEST_S, CLOSES_S = 400.0, 20.0  # ceilings, never waited for by a browser that answers
CEILING_MS = 30_000  # no wait is this long; a slower machine is no fault
LINES = (("floating", 0.0), ("intermediate", 1.2), ("sinking", 3.0))  # what the first page ticks
__all__ = ["DESKTOP", "PASSWORD", "PHONE", "WAITING", "BrowserCase", "expect"]
LOOK_MS = 150
# How many writes wait in the device's store.
WAITING = "() => new Promise((done) => { const asked = indexedDB.open('still-thread', 1); asked.onsuccess = () => { const all = asked.result.transaction('outbox').objectStore('outbox').getAll(); all.onsuccess = () => done(all.result.length); }; })"


class Expected:
    """The driver's expectations, looked at again every tenth of a second: by itself it soon rests a whole second."""

    def __init__(self, thing: Locator) -> None:
        self._thing = thing

    def __getattr__(self, name: str) -> Callable[..., None]:
        def hold(*args: Any, **kwargs: Any) -> None:
            end = time.monotonic() + CEILING_MS / 1000
            while True:
                try:
                    getattr(expect_once(self._thing), name)(*args, timeout=LOOK_MS, **kwargs)
                except AssertionError:
                    if time.monotonic() > end:
                        raise
                else:
                    return

        return hold


def expect(thing: Locator) -> Expected:
    """Return the expectations one can have of a part of the page; each may take up to the ceiling to come true."""
    return Expected(thing)


def number_after(text: str, words: str) -> float:
    """Return the first number after `words` in `text`."""
    found = re.search(re.escape(words) + r"\D*?(\d+(?:\.\d+)?)", text)
    if found is None:
        raise AssertionError(f"no number after {words!r} in {text!r}")
    return float(found.group(1))


def outfit(user: User, feet: bool = False) -> str:
    """Give an angler what the first page gives: settings, three lines, the starter flies, a water; returns its id."""
    units = {"depth_unit": "ft", "temperature_unit": "f"} if feet else {}
    Angler.objects.update_or_create(user=user, defaults=units)
    for family, label_ips in LINES:
        put_owned(Line, user, uuid.uuid4(), family=family, label_ips=label_ips, weight_class=7)
    add_starter_flies(user, [fly.key for fly in STARTER_FLIES])
    places = (("Channel", "drop-off", 4, 6, 13, 20), ("Shelf", "margin", 1, 4, 3, 13))

    def place(name: str, kind: str, top_m: float, bottom_m: float, top_ft: float, bottom_ft: float) -> PlaceBody:
        depths = (top_ft * FOOT_M, bottom_ft * FOOT_M) if feet else (top_m, bottom_m)
        told = {"name": name, "kind": kind, "depth_min_m": depths[0], "depth_max_m": depths[1]}
        return PlaceBody(id=uuid.uuid4(), **told)

    water = WaterBody.model_validate(
        {
            "name": "Ash Tarn",
            "max_depth_m": 26 * FOOT_M if feet else 8.0,
            "time_zone": "Europe/London",
            "rules": {"max_flies": 2},
            "places": [place(*one) for one in places],
        }
    )
    return str(put_water(user, uuid.uuid4(), water).id)


@override_settings(DEMO=True)
class BrowserCase(TransactionTestCase):
    needs_browser = True
    maxDiff = None  # a traceback of the server is told whole

    @property
    def live_server_url(self) -> str:
        return address()

    workers = "block"  # the page's own worker is for the tests of the dark

    def open(self, size: dict[str, int]) -> Page:
        """Return a fresh page; an error in the page, or a traceback in the server, fails the test at its end.

        The test ends when the last request of its page has ended: nothing of it reaches into the next.
        """
        self.addCleanup(self._settle)
        self.context: BrowserContext = browser().new_context(
            viewport=size,
            locale="en-GB",
            timezone_id="Europe/London",
            service_workers=self.workers,  # type: ignore[arg-type]
        )
        self.addCleanup(self._close, self.context)
        page = self.context.new_page()
        self.addCleanup(self._tell, page)
        page.set_default_timeout(CEILING_MS)
        self.faults: list[str] = []
        page.on("pageerror", lambda error: self.faults.append(str(error)))
        page.on("console", lambda m: m.type == "error" and "Content Security" in m.text and self.faults.append(m.text))
        self.addCleanup(lambda: self.assertEqual(self.faults, []))
        return page

    def run(self, result: unittest.TestResult | None = None) -> unittest.TestResult | None:
        """A browser that has stopped answering fails its test, and is started anew for the next."""
        with watched(LONGEST_S):
            return super().run(result)

    def _close(self, context: BrowserContext) -> None:
        """Close what the test had open; one that does not answer is hung up on."""
        with watched(CLOSES_S), contextlib.suppress(PlaywrightError):
            context.close()

    def _tell(self, page: Page) -> None:
        """Say what stood on the page of a test that failed."""
        if not self._outcome.success:  # type: ignore[attr-defined]
            sys.stderr.write(f"\n{self.id()}: {page.url}\n{page.locator('body').inner_text()[:2000]}\n")

    def _settle(self) -> None:
        self.assertEqual("\n".join(TRAFFIC.settled()), "", "the server met a fault")

    def prepared(self, size: dict[str, int], path: str = "/plan", feet: bool = False) -> Page:
        """Return a page at `path`, with an angler signed in who has been through the first page."""
        page = self.open(size)
        self.user = User.objects.create_user(f"angler-{uuid.uuid4().hex[:6]}")
        self.water = outfit(self.user, feet)
        self.let_in(self.user)
        page.goto(self.live_server_url + path)
        if path == "/plan":
            expect(page.get_by_role("heading", level=1, name="Fish")).to_be_visible()
        return page

    def let_in(self, user: User) -> None:
        """Give the browser a session of this user."""
        client = Client()
        client.force_login(user, backend="stillthread.accounts.backend.AnglerBackend")
        value = client.cookies[settings.SESSION_COOKIE_NAME].value
        self.context.add_cookies([{"name": settings.SESSION_COOKIE_NAME, "value": value, "url": self.live_server_url}])

    def sign_up(self, page: Page) -> None:
        """Make an account by clicking, as two tests do; the others start prepared."""
        page.goto(self.live_server_url)
        page.get_by_role("button", name="I have no account yet").click()
        page.get_by_label("Name").fill(f"angler-{uuid.uuid4().hex[:6]}")
        page.get_by_label("Password").fill(PASSWORD)
        page.get_by_role("button", name="Make an account").click()
        expect(page.get_by_role("heading", name="Two minutes, then a plan")).to_be_visible()

    def set_up(self, page: Page, feet: bool = False) -> None:
        """Tick a kit and add a water with two places, in metres or feet, by clicking."""
        deepest, shelf, channel = ("26", ("3", "13"), ("13", "20")) if feet else ("8", ("1", "4"), ("4", "6"))
        if feet:
            page.get_by_role("radio", name="Feet").click()
            page.get_by_role("radio", name="°F").click()
        page.get_by_role("radio", name="The bank").click()
        for line in ("Floating", "Intermediate, 1.2 in/s", "Type 3"):
            page.get_by_label(line, exact=True).check()
        page.get_by_label("A starter box").check()
        page.get_by_label("Name", exact=True).fill("Ash Tarn")
        page.get_by_role("button", name="Add a place").click()
        page.get_by_label("Greatest depth").fill(deepest)
        for n, name, (top, bottom) in ((1, "Channel", channel), (2, "Shelf", shelf)):
            page.get_by_label(f"Place {n}: Name").fill(name)
            page.get_by_label(f"Place {n}: Kind").select_option("drop-off" if n == 1 else "margin")
            page.get_by_label(f"Place {n}: Bed from").fill(top)
            page.get_by_label(f"Place {n}: to").fill(bottom)
        page.get_by_role("radio", name="2", exact=True).click()
        page.get_by_role("button", name="Save and see the plan").click()
        expect(page.get_by_role("heading", level=1, name="Fish")).to_be_visible()

    def until(self, page: Page, what: Callable[[], Any]) -> None:
        """Let the page go on until something is true outside it."""
        end = time.monotonic() + CEILING_MS / 1000
        while not what():
            if time.monotonic() > end:
                raise AssertionError("it never came")
            page.wait_for_timeout(20)

    def start_all_the_same(self, page: Page) -> None:
        """A plan for another day asks before it is started."""
        page.get_by_role("dialog").get_by_role("button", name="Start all the same").click()

    def settled(self, page: Page) -> None:
        """Wait until what stands on the page is worked out."""
        expect(page.locator("[aria-busy=true]")).to_have_count(0)

    def tab(self, page: Page, name: str) -> None:
        """Go to a page by its tab; the page before stays until the new one is there."""
        link = page.locator("nav a:visible").filter(has_text=re.compile(f"^{name}$"))
        link.click()
        expect(link).to_have_attribute("aria-current", "page")
