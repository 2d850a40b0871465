"""The whole job, as a new angler walks it: once in metres on a desktop, once in feet on a phone."""

import re

from tests.browser.base import DESKTOP, PHONE, BrowserCase, expect, number_after

FOOT = 0.3048
INCH = 0.0254


def quickest(rate_ips, t):
    """Deepest [m] a fly on this line can be after `t` [s]: the line's own fall and a beaded fly's, about 0.2 m/s, together."""
    return (rate_ips * INCH + 0.2) * t


class Walk(BrowserCase):
    def read_the_water(self, page, feet):
        """Type a profile with Enter, wind, sky; the page says what it means."""
        self.tab(page, "Water")
        page.get_by_text("another time").click()
        page.get_by_label("When").fill("2026-05-14T11:00")  # the same plan at whatever hour the test is run
        page.get_by_label("Place", exact=True).select_option("Channel")
        page.get_by_label("Water depth at the place").fill("20" if feet else "6")
        page.get_by_label("Depth 1", exact=True).fill("0")
        page.get_by_label("Depth 1", exact=True).press("Enter")
        for row, value in enumerate(("54", "53.6", "53,2", "53") if feet else ("12.5", "12", "11,8", "11.5"), 1):
            page.get_by_label(f"Temperature {row}", exact=True).fill(value)
            page.get_by_label(f"Temperature {row}", exact=True).press("Enter")
        # The next depth is proposed: one knot further, a metre or five feet.
        for row, depth in enumerate((0, 5, 10, 15) if feet else (0, 1, 2, 3), 1):
            expect(page.get_by_label(f"Depth {row}", exact=True)).to_have_value(str(depth))
        page.get_by_label("Wind", exact=True).fill("20")
        page.get_by_label("Wind unit").select_option("km/h")
        page.get_by_role("radio", name="SW").click()
        page.get_by_role("radio", name="Mostly").click()
        page.get_by_role("radio", name="Clear", exact=True).click()
        pupae = page.get_by_role("button", name="uzzer pupa")
        pupae.click()
        pupae.click()
        expect(pupae).to_contain_text("some")
        means = page.get_by_role("region", name="What it means")
        # 20 km/h = 5.556 m/s = 10.8 knots: Beaufort 4 begins at 11 whole knots (WMO table 1100).
        expect(means).to_contain_text("Beaufort 4 from SW")
        expect(means).to_contain_text("onto the NE shore")
        expect(means).to_contain_text("No thermocline")
        # 12.5 °C and 54 °F (12.2 °C) both lie between 7 and 13 °C: active.
        expect(means).to_contain_text("rainbows are active")
        expect(page.get_by_text("Kept.", exact=True)).to_be_visible()

    def choose(self, page, feet):
        """Open the intermediate set-up; its leader is the trade's, its depths lie in the water and in their band."""
        self.tab(page, "Plan")
        rows = page.locator("ol.corded > li")
        expect(rows.first).to_be_visible()
        self.settled(page)
        self.assertTrue(2 <= rows.count() <= 4)
        row = rows.filter(has=page.get_by_role("button", name=re.compile("^Intermediate")))
        row.get_by_role("button").first.click()
        expect(row.get_by_role("button", name="Fish this set-up")).to_be_visible()
        text = row.inner_text()
        count = number_after(text, "Count")
        # Two flies behind a sinking line: 7 ft and 5 ft (trade practice), 12 ft or 3.66 m in all.
        self.assertIn("12 ft in all" if feet else "3.66 m in all", text)
        bed = 20 if feet else 6
        about = number_after(text, "runs about")
        top, bottom = (float(v) for v in re.search(r"([\d.]+) to ([\d.]+) (?:m|ft)", text).groups())
        self.assertTrue(0 < top <= about <= bottom <= bed, text)
        self.assertIn("Simulated", text)
        row.get_by_role("button", name="Fish this set-up").click()
        self.start_all_the_same(page)
        return count

    def fish(self, page, feet, count):
        """Count down, note what happens, take one thing back, change the depth, stop."""
        page.get_by_role("button", name="Cast: start the count").click()
        page.clock.fast_forward(10_000)
        # After 10 s the fly has left the film and cannot have outrun line and bead together; the plan's own table is in
        # the API's tests. The clock says beforehand what is coming.
        depth = page.get_by_test_id("fly-depth")
        shown = float(re.search(r"Fly about ([\d.]+)", depth.inner_text()).group(1)) * (FOOT if feet else 1)
        self.assertTrue(0.12 < shown < quickest(1.2, 11), shown)
        expect(page.get_by_test_id("ahead")).to_contain_text(re.compile("bottom", re.IGNORECASE))
        expect(page.get_by_role("button", name="Sound on")).to_have_attribute("aria-pressed", "true")
        expect(page.get_by_role("timer")).to_contain_text(re.compile(r"0:1[01]"))
        if not feet:
            self.assertGreaterEqual(page.get_by_role("timer").locator("span").first.bounding_box()["height"], 50)
        page.clock.fast_forward(int(count) * 1000)
        expect(page.get_by_text("Start the retrieve")).to_be_visible()
        tally = page.get_by_test_id("tally")
        page.get_by_role("button", name="Take", exact=True).click()
        page.get_by_role("button", name="Landed", exact=True).click()
        page.get_by_label("Length").fill("17" if feet else "43")
        page.get_by_role("button", name="Done").click()
        expect(tally).to_contain_text("1 take, 1 landed")  # the fish on the end of that take
        page.get_by_role("button", name="Lost", exact=True).click()
        expect(tally).to_contain_text("2 takes, 1 landed")
        page.get_by_role("button", name="Undo").click()
        expect(tally).to_contain_text("1 take, 1 landed")
        page.get_by_role("button", name="Take", exact=True).click()
        expect(tally).to_contain_text("2 takes, 1 landed")
        page.get_by_role("button", name="Deeper").click()
        expect(page.get_by_test_id("set-depth")).to_contain_text(f"{int(count) + 5} s")
        page.get_by_role("button", name="Nothing this cast").click()
        page.get_by_role("button", name="Stop fishing").click()
        expect(page.get_by_role("heading", name="Stretches fished")).to_be_visible()

    def keep_the_log(self, page, feet):
        """Mend the times to two hours: the rates are then known by hand."""
        spells = page.locator("ol.corded > li")
        expect(spells).to_have_count(2)
        spells.nth(1).get_by_role("button", name=re.compile("Delete: Intermediate")).click()
        expect(spells).to_have_count(1)
        spells.first.get_by_role("button", name=re.compile("Edit: Intermediate")).click()
        page.get_by_label("Began").fill("2026-05-14T10:00")
        page.get_by_label("Ended").fill("2026-05-14T12:00")
        page.get_by_role("button", name="Save").click()
        rates = page.get_by_test_id("rates")
        # One fish and two takes in two hours. Exact Poisson limits (printed tables): 0.0253 and 5.572 for one,
        # 0.2422 and 7.225 for two, each divided by 2 h.
        expect(rates).to_contain_text("Landed: 0.50 an hour (1 in 2 h 00). 95 % sure it lies between 0.01 and 2.79")
        expect(rates).to_contain_text("1.00 an hour (2 in 2 h 00). 95 % sure it lies between 0.12 and 3.61")
        expect(page.get_by_role("region", name="The plan beside it")).to_contain_text(
            "What happened: the middle take came at"
        )
        expect(spells.first).to_contain_text("17.0 in" if feet else "43 cm")
        page.get_by_role("button", name=re.compile("Delete: Landed")).click()
        expect(rates).to_contain_text("Landed: 0.00 an hour")
        page.get_by_role("button", name="Undo").click()
        expect(rates).to_contain_text("Landed: 0.50 an hour")
        page.get_by_role("button", name="Delete the outing").click()
        expect(page.get_by_text("No outing yet")).to_be_visible()
        page.get_by_role("button", name="Undo").click()
        expect(page.get_by_text("2 takes, 1 landed in 2 h 00")).to_be_visible()

    def walk(self, size, feet):
        page = self.open(size)
        page.clock.install()
        self.sign_up(page)
        self.set_up(page, feet)
        self.read_the_water(page, feet)
        count = self.choose(page, feet)
        self.fish(page, feet, count)
        self.keep_the_log(page, feet)
        return page

    def test_desktop_in_metres(self):
        self.walk(DESKTOP, feet=False)

    def test_phone_in_feet(self):
        page = self.walk(PHONE, feet=True)
        for path in ("/water", "/plan", "/fish", "/log", "/kit"):
            page.goto(self.live_server_url + path)
            expect(page.locator("main h1, main h2").first).to_be_visible()
            wide = page.evaluate("document.documentElement.scrollWidth")
            self.assertLessEqual(wide, 390, f"{path} scrolls sideways")
