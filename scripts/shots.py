"""Take the pictures of docs/screenshots from the demo: shots.py ADDRESS [FOLDER [NAME ...]]."""

from __future__ import annotations

import atexit
import datetime
import pathlib
import subprocess
import sys

from browser import DESKTOP, PHONE, launch
from playwright.sync_api import Page, sync_playwright

ROOT = pathlib.Path(__file__).resolve().parents[1]
STANDIN_PORT = 18463
LINES = (
    b"Day,Lake,Hours,Style,Depth (ft),Caught,Remarks",
    b"14/05/2021,Home water,4,Bung,8,3,warm and still",
    b"21/05/2021,Home water,3,Washing line,4,0,",
    b"28/05/2021,Home water,2.5,Fast sink,deep,2,",
)
NOTEBOOK = {"name": "notebook.csv", "mimeType": "text/csv", "buffer": b"\n".join(LINES)}


def enter(page: Page, address: str, feet: bool = False) -> None:
    """Step in as a demo angler."""
    page.goto(address)
    page.get_by_role("button", name="The same in feet" if feet else "Step in as the demo angler").click()
    page.get_by_role("button", name="Sign out").or_(page.get_by_role("link", name="Kit")).first.wait_for()
    # Late morning, whatever the hour the pictures are taken at.
    page.goto(address + "/water")
    page.get_by_role("heading", name="What you read").wait_for()
    page.get_by_text("another time").click()
    page.get_by_label("When").fill(f"{datetime.date.today()}T11:00")
    page.wait_for_timeout(800)


def goto(page: Page, address: str, path: str, heading: str) -> None:
    """Open a page and wait for its heading."""
    page.goto(address + path)
    page.get_by_role("heading", name=heading).first.wait_for()
    page.wait_for_timeout(700)


def fish(page: Page, address: str) -> None:
    """Start a counted set-up and let the clock run."""
    goto(page, address, "/plan", "Fish")
    row = page.get_by_role("button").filter(has_text="Count ").first
    row.click()
    page.get_by_role("button", name="Fish this set-up").click()
    page.get_by_role("button", name="Start all the same").or_(
        page.get_by_role("button", name="Cast: start the count")
    ).first.wait_for()
    if page.get_by_role("button", name="Start all the same").count():
        page.get_by_role("button", name="Start all the same").click()
    page.get_by_role("button", name="Cast: start the count").click()
    page.wait_for_timeout(9000)


def water_views(address: str) -> dict[str, tuple[dict, bool, object]]:
    """The pictures of the pages about the water."""

    def simple(path: str, heading: str):
        return lambda page: goto(page, address, path, heading)

    def guided(page: Page) -> None:
        goto(page, address, "/water", "What you read")
        page.get_by_role("button", name="Start a fresh reading").click()
        page.get_by_label("Place", exact=True).select_option("Dam wall")
        page.get_by_role("button", name="Guide me").click()
        for value in ("17.4", "17.2", "17.0", "16.4"):
            page.get_by_role("dialog").get_by_text("Let down").or_(page.get_by_text("At the surface")).first.wait_for()
            page.wait_for_timeout(500)
            page.keyboard.type(value)
            page.keyboard.press("Enter")
        page.wait_for_timeout(700)
        page.keyboard.type("12.8")

    def boat(page: Page) -> None:
        goto(page, address, "/water/boat", "Boat feed")
        page.get_by_label("Port").fill(str(STANDIN_PORT))
        page.get_by_role("button", name="Connect", exact=True).click()
        page.get_by_text("Live.", exact=True).wait_for()
        page.wait_for_timeout(15_000)
        page.evaluate("window.scrollTo(0, 0)")

    return {
        "chart": (DESKTOP, False, simple("/water/chart", "Chart")),
        "year": (DESKTOP, False, simple("/water/year", "The year of this water")),
        "food": (DESKTOP, False, simple("/food", "Food")),
        "guided-phone": (PHONE, False, guided),
        "boat-phone": (PHONE, False, boat),
    }


def plan_views(address: str) -> dict[str, tuple[dict, bool, object]]:
    """The pictures of the plan."""

    def plan(page: Page) -> None:
        goto(page, address, "/plan", "Fish")

    def factor(page: Page) -> None:
        goto(page, address, "/plan", "Fish")
        page.get_by_text("What moves the depth").click()
        button = page.get_by_role("button", name="On the cord: Food")
        button.click()
        button.evaluate("one => one.scrollIntoView({block: 'center'})")
        page.wait_for_timeout(500)

    def card(page: Page) -> None:
        goto(page, address, "/plan", "Fish")
        page.get_by_role("link", name="Pocket card").click()
        page.get_by_role("article", name="Pocket card").wait_for()
        page.evaluate("window.scrollTo(0, 0)")
        page.wait_for_timeout(500)

    return {
        "plan": (DESKTOP, False, plan),
        "plan-factor": (DESKTOP, False, factor),
        "card-phone": (PHONE, False, card),
        "plan-phone-feet": (PHONE, True, plan),
    }


def views(address: str) -> dict[str, tuple[dict, bool, object]]:
    """Every picture: size, feet or metres, and how to get there."""

    def simple(path: str, heading: str):
        return lambda page: goto(page, address, path, heading)

    def outing(page: Page) -> None:
        goto(page, address, "/log", "The log")
        found = "fetch('/api/log').then((r) => r.json()).then((log) => log.outings.find((o) => o.takes > 0 && o.ended_at).id)"
        goto(page, address, f"/log/{page.evaluate(found)}", "Stretches fished")
        page.get_by_role("heading", name="Stretches fished").wait_for()
        page.get_by_test_id("over-day").wait_for()
        page.wait_for_timeout(700)

    def thread(page: Page) -> None:
        goto(page, address, "/thread", "Where the flies really are")
        page.get_by_test_id("story").wait_for()
        page.get_by_role("button", name="Keep beside another").click()
        page.get_by_label("Rate on the box").fill("5")
        page.wait_for_timeout(1500)
        page.get_by_label("Time since it landed").fill("38")
        page.wait_for_timeout(400)

    def floated(page: Page) -> None:
        goto(page, address, "/thread", "Where the flies really are")
        page.locator("summary", has_text="Bung").click()
        page.get_by_role("radio", name="Quick-release").click()
        page.get_by_label("Drift against the water").fill("5")
        page.wait_for_timeout(2000)
        page.get_by_test_id("float-panel").scroll_into_view_if_needed()
        page.get_by_label("Time since it landed").fill("60")
        page.wait_for_timeout(400)

    def keep(page: Page) -> None:
        goto(page, address, "/log/keep", "Out and in")
        page.get_by_test_id("notebook").locator("input[type=file]").set_input_files(NOTEBOOK)
        page.get_by_text("What the columns mean").wait_for()
        page.get_by_role("combobox", name="(3 lines) is").select_option(index=1)
        page.get_by_text("What it becomes").wait_for()
        page.wait_for_timeout(500)

    return {
        **water_views(address),
        **plan_views(address),
        "thread": (DESKTOP, False, thread),
        "thread-float": (DESKTOP, False, floated),
        "water": (DESKTOP, False, simple("/water", "What you read")),
        "log": (DESKTOP, False, simple("/log", "The log")),
        "outing": (DESKTOP, False, outing),
        "flybox": (DESKTOP, False, simple("/kit/box", "Fly box")),
        "season": (DESKTOP, False, simple("/log/season", "The season on")),
        "keep": (DESKTOP, False, keep),
        "fish-phone": (PHONE, False, lambda page: fish(page, address)),
        "fish": (DESKTOP, True, lambda page: fish(page, address)),
    }


def main() -> None:
    """Take all pictures, or the named ones."""
    address = sys.argv[1].rstrip("/")
    folder = pathlib.Path(sys.argv[2]) if len(sys.argv) > 2 else ROOT / "docs" / "screenshots"
    wanted = set(sys.argv[3:])
    folder.mkdir(parents=True, exist_ok=True)
    command = [
        sys.executable,
        "-m",
        "stillthread.standins",
        "sounder",
        "--sounder-port",
        str(STANDIN_PORT),
        "--speed",
        "8",
    ]
    feed = subprocess.Popen(command, stdin=subprocess.PIPE, cwd=ROOT)
    atexit.register(feed.kill)
    with sync_playwright() as playwright:
        browser = launch(playwright)
        for name, (size, feet, go) in views(address).items():
            if wanted and name not in wanted:
                continue
            page = browser.new_page(viewport=size)
            page.on("console", lambda m: m.type == "error" and sys.stderr.write(f"{m.text}\n"))
            page.on("pageerror", lambda e: sys.stderr.write(f"{e}\n"))
            enter(page, address, feet)
            go(page)  # type: ignore[operator]
            page.screenshot(path=folder / f"{name}.png")
            sys.stdout.write(f"{name}.png\n")
            page.context.clear_cookies()
            page.close()
        browser.close()


if __name__ == "__main__":
    main()
