"""The thread bench as an angler uses it: change a part and see the path move, a float, a fault, the leader, a timing."""

import re

from tests.browser.base import DESKTOP, PHONE, BrowserCase, expect


class Bench(BrowserCase):
    def bench(self, size=DESKTOP, feet=False):
        page = self.prepared(size, "/thread", feet)
        expect(page.get_by_test_id("story")).to_be_visible()
        expect(page.get_by_test_id("flies-now")).to_contain_text("may be")
        return page

    def at(self, page, seconds):
        """Depth of the point fly as shown at a moment of the cast."""
        page.get_by_label("Time since it landed").fill(str(seconds))
        told = page.get_by_test_id("flies-now").locator("li").last
        expect(told).to_contain_text("may be")
        return float(re.search(r": ([\d.]+)", told.inner_text()).group(1))

    def test_a_changed_part_moves_the_path(self):
        page = self.bench()
        sinking = self.at(page, 25)
        # The beaded fly sinks at 14 cm/s by itself: after 25 s it is below 1 m and above 25 x (0.076 + 0.14) = 5.4 m.
        self.assertTrue(1.0 < sinking < 5.4)
        page.get_by_role("button", name="Keep beside another").click()
        page.get_by_role("radio", name="Floating", exact=True).click()
        expect(page.locator("[data-layer=other-rig]")).to_be_attached()
        expect(page.get_by_label("Rate on the box")).to_have_count(0)
        expect(page.locator("[aria-busy=true]")).to_have_count(0)
        self.assertLess(self.at(page, 60), 4.2)  # no deeper than leader and a dipping tip let it
        page.get_by_role("button", name="Take it away").click()
        page.get_by_role("button", name="Play", exact=True).click()
        expect(page.get_by_role("button", name="Stop", exact=True)).to_be_visible()

    def test_a_fault_is_told_at_its_field_and_the_last_path_stays(self):
        page = self.bench()
        page.get_by_label("Rod tip to point fly").fill("55")
        expect(page.get_by_text("line and leader are 33.7 m long")).to_be_visible()
        expect(page.locator("[data-layer=rig]")).to_be_attached()
        page.get_by_label("Rod tip to point fly").fill("eighteen")
        expect(page.get_by_text("This is no number.")).to_be_visible()
        page.get_by_label("Rod tip to point fly").fill("18")
        expect(page.get_by_text("This rig cannot be fished")).to_have_count(0)

    def test_a_float_its_landing_and_its_limit(self):
        page = self.bench()
        page.locator("summary", has_text="Bung").click()
        page.get_by_role("radio", name="Fixed").click()
        panel = page.get_by_test_id("float-panel")
        # The starting leader is 12 ft, 3.66 m; the float sits 3 ft from the line: 2.74 m hang below it.
        expect(panel).to_contain_text("Set 2.7 m")
        expect(panel).to_contain_text("It can be landed")
        page.get_by_label("It carries").fill("0,1")
        expect(page.get_by_text("The float sinks").first).to_be_visible()

    def test_a_leader_is_cut_to_the_trades_lengths(self):
        page = self.bench(feet=True)
        page.locator("summary", has_text="Leader, from the line down").click()
        page.locator("summary", has_text="Cut a leader to length").click()
        page.get_by_label("Wanted length").fill("15")
        page.get_by_role("button", name="Cut a leader to length").click()
        cuts = page.get_by_test_id("cut-list")
        # 7 ft + 6 ft + 2 ft below the swivel.
        for feet in ("7 ft", "6 ft", "2 ft"):
            expect(cuts).to_contain_text(feet)
        page.get_by_role("button", name="Tie it on this rig").click()
        expect(page.get_by_text("15.00 ft in all")).to_be_visible()

    def test_a_timed_metre_narrows_the_band_and_goes_into_the_kit(self):
        page = self.bench()
        page.get_by_label("From your kit").select_option(label="Type 3 sinking line #7")
        page.locator("summary", has_text="Time a metre").click()
        page.get_by_label("It took").fill("15")
        page.get_by_role("button", name="Work it out").click()
        told = page.get_by_test_id("calibrated")
        # 1 m in 15 s is 6.7 cm/s.
        expect(told).to_contain_text("6.7 cm a second")
        expect(told).to_contain_text("now it is in")
        page.get_by_role("button", name="Keep it with the line in your kit").click()
        expect(page.get_by_text("Plans use it from now on")).to_be_visible()
        self.tab(page, "Kit")
        expect(page.get_by_text("timed")).to_be_visible()

    def test_the_table_and_a_kept_rig_on_a_phone(self):
        page = self.bench(PHONE)
        page.locator("summary", has_text="Counting it down").click()
        page.get_by_role("button", name="Work out the table").click()
        counts = page.get_by_test_id("counts")
        expect(counts).to_contain_text("1.0 m")
        seconds = [int(v) for v in re.findall(r"\t?(\d+) s\b", counts.inner_text())][::2]
        self.assertEqual(seconds, sorted(seconds))
        page.locator("summary", has_text="Your rigs").click()
        page.get_by_label("Name of this rig").fill("Evening team")
        page.get_by_role("button", name="Keep this rig").click()
        expect(page.get_by_text("Evening team is kept.")).to_be_visible()
        expect(page.get_by_role("button", name="Load")).to_be_visible()
        width = page.evaluate("document.documentElement.scrollWidth")
        self.assertLessEqual(width, PHONE["width"])
