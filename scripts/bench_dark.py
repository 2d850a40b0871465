"""Measure the day without signal: bench_dark.py [--json]. Its own server, its own database, a phone four times slower than this machine.

How long On the water takes to stand from a closed browser with the server stopped, and how a day of 60 stretches and 200 events
arrives.
"""

from __future__ import annotations

import argparse
import os
import pathlib
import sys
import time
import uuid
from datetime import UTC, datetime, timedelta
from typing import Any

ROOT = pathlib.Path(__file__).resolve().parents[1]
sys.path.insert(0, str(ROOT))
os.environ.setdefault("DJANGO_SETTINGS_MODULE", "stillthread.site.settings")

import django  # noqa: E402

django.setup()

from playwright.sync_api import BrowserContext, Page, sync_playwright  # noqa: E402

from scripts.browser import PHONE as SIZE  # noqa: E402
from scripts.browser import launch  # noqa: E402
from scripts.goals import tell  # noqa: E402
from tests.api.base import LINES, WATER  # noqa: E402
from tests.serving.phone import Phone  # noqa: E402
from tests.serving.process import Served  # noqa: E402

SLOWER, TIMES = 4, 5
OPEN_MS, SYNC_MS, REQUESTS = 1500.0, 2000.0, 3
SPELLS, EVENTS = 60, 200
FILL = """([owner, rows]) => new Promise((done, fail) => {
  const asked = indexedDB.open("still-thread", 1);
  asked.onerror = () => fail(asked.error);
  asked.onsuccess = () => {
    const tx = asked.result.transaction("outbox", "readwrite");
    rows.forEach((write, n) => tx.objectStore("outbox").add({ key: `bench-${n}`, what: "", write, owner }));
    tx.oncomplete = () => done(true);
  };
})"""
# Whether nothing waits in the device's store any more.
ALL_SENT = """() => new Promise((done) => {
  const asked = indexedDB.open("still-thread", 1);
  asked.onsuccess = () => {
    const all = asked.result.transaction("outbox").objectStore("outbox").count();
    all.onsuccess = () => { asked.result.close(); done(all.result === 0); };
  };
})"""


def account(phone: Phone) -> str:
    """Make an account with a kit and a water; returns the water."""
    phone.sign("sign-up", "bencher")
    for line in LINES:
        phone.write(f"/api/kit/lines/{uuid.uuid4()}", line)
    starter = phone.call("GET", "/api/kit")[1]["starter"]
    phone.call("POST", "/api/kit/starter", {"keys": [fly["key"] for fly in starter]})
    water = str(uuid.uuid4())
    places = [{**place, "id": str(uuid.uuid4())} for place in WATER["places"]]
    phone.write(f"/api/waters/{water}", {**WATER, "places": places})
    return water


def prepared(context: BrowserContext, phone: Phone, served: Served) -> Page:
    """A page that has begun an outing and keeps what the dark needs."""
    base = f"http://127.0.0.1:{served.port}"
    context.add_cookies([{"name": name, "value": value, "url": base} for name, value in phone.cookies.items()])
    page = context.new_page()
    page.goto(base + "/fish")
    page.evaluate("navigator.serviceWorker.ready.then(() => true)")
    page.reload()
    page.get_by_test_id("kept").filter(has_text="Kept for").wait_for()
    page.get_by_role("button", name="Fish this now").click()
    page.get_by_test_id("tally").wait_for()
    page.wait_for_timeout(1500)
    return page


def opened_ms(context: BrowserContext, address: str) -> float:
    """How long a page takes to stand in a fresh tab of a slow phone."""
    page = context.new_page()
    context.new_cdp_session(page).send("Emulation.setCPUThrottlingRate", {"rate": SLOWER})
    start = time.perf_counter()
    page.goto(address, wait_until="commit")
    page.get_by_test_id("tally").wait_for()
    took = 1000 * (time.perf_counter() - start)
    page.close()
    return took


def a_day(water: str) -> list[dict[str, Any]]:
    """The writes of a long day of an outing of its own."""
    outing, began = str(uuid.uuid4()), datetime.now(UTC) - timedelta(hours=10)
    rows: list[dict[str, Any]] = []

    def add(kind: str, row: str, body: dict[str, Any]) -> None:
        rows.append({"kind": kind, "outing": outing, "id": row, "body": body})

    add("outing", outing, {"water_id": water, "started_at": began.isoformat(), "ended_at": None, "note": ""})
    for n in range(SPELLS):
        spell, start = str(uuid.uuid4()), began + timedelta(minutes=9 * n)
        told = {"method": "float", "title": "Float", "depth_m": 2.0, "started_at": start.isoformat()}
        add("spell", spell, {**told, "ended_at": (start + timedelta(minutes=9)).isoformat()})
        for k in range(EVENTS // SPELLS + (n < EVENTS % SPELLS)):
            at = (start + timedelta(minutes=2 * k + 1)).isoformat()
            add("event", str(uuid.uuid4()), {"spell_id": spell, "kind": "pluck", "occurred_at": at})
    return rows


def sync(page: Page, water: str) -> dict[str, float]:
    """Let a day that waits on the phone arrive."""
    page.context.set_offline(True)
    page.evaluate(FILL, ["bencher", a_day(water)])
    page.reload()
    page.get_by_text("waiting to be sent").wait_for()
    start = time.perf_counter()
    page.context.set_offline(False)
    while not page.evaluate(ALL_SENT):
        page.wait_for_timeout(20)
    took = 1000 * (time.perf_counter() - start)
    asked = page.evaluate(
        "performance.getEntriesByType('resource').filter((e) => e.name.endsWith('/outings/rows')).length"
    )
    return {"sync_ms": took, "sync_requests": float(asked)}


def measure() -> dict[str, float]:
    """Return what was measured."""
    served = Served()
    try:
        served.migrate()
        served.start()
        phone = Phone(served.port)
        water = account(phone)
        with sync_playwright() as playwright:
            browser = launch(playwright)
            context = browser.new_context(viewport=SIZE)
            page = prepared(context, phone, served)
            found = sync(page, water)
            address = page.url
            served.kill()
            page.close()
            opened = sorted(opened_ms(context, address) for _ in range(TIMES))
            browser.close()
        return {"open_dark_ms": opened[TIMES // 2], "open_dark_most_ms": opened[-1], **found}
    finally:
        served.close()


def main() -> None:
    """Print the figures with their budgets."""
    parser = argparse.ArgumentParser(description=__doc__, prog="still bench dark")
    parser.add_argument("--json", action="store_true")
    asked = parser.parse_args()
    tell(measure(), {"open_dark_ms": OPEN_MS, "sync_ms": SYNC_MS, "sync_requests": float(REQUESTS)}, asked.json)


if __name__ == "__main__":
    main()
