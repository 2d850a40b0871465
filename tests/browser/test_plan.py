"""The plan page in a browser: factors on the cord, schools, parts swapped by hand, comparing, the card and the calendar."""

import re

from tests.browser.base import DESKTOP, PHONE, BrowserCase, expect, number_after


class Plan(BrowserCase):
    def ready(self, size, feet=False):
        page = self.prepared(size, "/water", feet)
        page.get_by_text("another time").click()
        page.get_by_label("When").fill("2026-05-14T11:00")
        page.get_by_label("Place", exact=True).select_option("Channel")
        page.get_by_label("Water depth at the place").fill("20" if feet else "6")
        for row, (depth, value) in enumerate((("0", "54"), ("15", "52")) if feet else (("0", "12.5"), ("4", "11")), 1):
            page.get_by_label(f"Depth {row}", exact=True).fill(depth)
            page.get_by_label(f"Temperature {row}", exact=True).fill(value)
            if row == 1:
                page.get_by_label(f"Temperature {row}", exact=True).press("Enter")
        page.get_by_label("Wind", exact=True).fill("4")
        page.get_by_role("radio", name="Clear", exact=True).click()
        self.tab(page, "Plan")
        expect(self.rows(page).first).to_be_visible()
        self.settled(page)
        return page

    def rows(self, page):
        return page.locator("ol.corded > li")

    def open_counted(self, page):
        """Open the first set-up that is counted down."""
        head = re.compile(r"Count \d+ s")
        row = self.rows(page).filter(has=page.get_by_role("button", name=head)).first
        button = row.get_by_role("button", name=head).first
        if button.get_attribute("aria-expanded") != "true":
            button.click()
        return row

    def test_a_factor_is_seen_on_the_cord_and_left_out(self):
        page = self.ready(DESKTOP)
        page.get_by_text("What moves the depth").click()
        page.get_by_role("button", name="On the cord: Food").click()
        expect(page.locator("[data-layer=factor]")).to_be_visible()
        before = page.get_by_role("heading", level=1).inner_text()
        page.get_by_role("button", name="Leave out: Food").click()
        expect(page.get_by_role("button", name="Take in again: Food")).to_be_visible()
        expect(page.get_by_role("heading", level=1)).not_to_have_text(before)
        page.get_by_role("button", name="Take in again: Food").click()
        self.settled(page)
        expect(page.get_by_role("heading", level=1)).to_have_text(before)

    def test_switching_a_school_says_what_changes_and_keeps(self):
        page = self.ready(DESKTOP)
        page.get_by_text("How you like to fish").click()
        page.get_by_label("Fine or stout tippet").select_option("stout")
        changed = page.get_by_role("status", name="What that changed")
        expect(changed).to_contain_text("tippet")
        page.get_by_role("button", name="Seen").click()
        expect(changed).to_have_count(0)
        page.reload()
        page.get_by_text("How you like to fish").click()
        expect(page.get_by_label("Fine or stout tippet")).to_have_value("stout")
        expect(page.get_by_text("Default: by clarity, light and pressure.")).to_be_visible()

    def test_the_aim_and_a_depth_found(self):
        page = self.ready(DESKTOP)
        page.get_by_text("The day: most fish").click()
        page.get_by_label("A depth found today").fill("one")
        expect(page.get_by_text("This is no depth.")).to_be_visible()
        page.get_by_label("A depth found today").fill("1,7")
        expect(page.get_by_role("heading", level=1)).to_contain_text(re.compile(r"Fish 1\.\d to [12]\.\d m"))
        page.get_by_role("radio", name="The biggest").click()
        expect(page.get_by_role("status", name="What that changed")).to_be_visible()
        expect(page.get_by_text("The day: the biggest, 4 h, found at 1,7 m")).to_be_visible()

    def swap(self, page):
        """Pin a counted set-up, change its retrieve and its count; the numbers and the path follow."""
        self.open_counted(page).get_by_role("button", name="Pin or change parts").click()
        row = self.rows(page).filter(has=page.get_by_role("button", name=re.compile("^By hand")))
        expect(row.get_by_role("button", name="Throw away")).to_be_visible()
        expect(page.locator("[data-layer=paths]")).to_be_visible()
        path = page.locator("[data-layer=paths] path").last
        head = row.get_by_role("button", name=re.compile("^By hand")).first
        slow, drawn = number_after(head.inner_text(), "runs about"), path.get_attribute("d")
        row.get_by_role("radio", name="Two-handed, fast").click()
        expect(path).not_to_have_attribute("d", drawn)
        # Trade: a faster retrieve is a shallower one.
        self.assertLess(number_after(head.inner_text(), "runs about"), slow)
        row.get_by_role("button", name="5 s more").click()
        expect(row.get_by_text("Worked out")).to_be_visible()
        self.settled(page)
        return row

    def test_parts_are_swapped_by_hand_pinned_and_thrown_away(self):
        page = self.ready(DESKTOP)
        row = self.swap(page)
        page.reload()
        expect(row).to_be_visible()
        row.get_by_role("button", name=re.compile("^By hand")).first.click()
        expect(row.get_by_role("button", name="Throw away")).to_be_visible()
        # The water's rule is two flies: a third is refused in words, where it was added.
        more = page.locator("ol.corded").get_by_role("button", name="One fly more")
        expect(more).to_be_visible()
        while more.count():
            more.click()
            self.settled(page)
        expect(page.get_by_role("alert").filter(has_text="3 flies")).to_be_visible()
        page.get_by_role("button", name="One fly less").click()
        row.get_by_role("button", name="Throw away").click()
        expect(row).to_have_count(0)
        page.get_by_role("button", name="Undo").click()
        expect(row).to_have_count(1)

    def test_two_are_compared_and_two_anglers_start_apart(self):
        page = self.ready(DESKTOP)
        expect(page.get_by_text("Two on the bank: one starts with A")).to_be_visible()
        page.get_by_text("Compare two").click()
        table = page.get_by_role("table").filter(has=page.get_by_role("rowheader", name="Against the best"))
        expect(table.get_by_role("cell", name="the best here")).to_be_visible()
        one, other = (table.get_by_role("row", name=re.compile("^Line")).get_by_role("cell").nth(n) for n in (0, 1))
        self.assertTrue(one.inner_text() and other.inner_text())

    def test_the_card_on_the_phone_has_what_is_needed_at_the_water(self):
        page = self.ready(PHONE, feet=True)
        row = self.open_counted(page)
        count = int(number_after(row.inner_text(), "Count"))
        row.get_by_role("link", name="Pocket card").click()
        card = page.get_by_role("article", name="Pocket card")
        expect(card).to_contain_text(f"Count {count} s")
        for part in (
            "Leader",
            "Flies, from the line down",
            "Retrieve",
            "Counts, in this order",
            "Plucks",
            "Nothing",
            "Rules",
        ):
            expect(card).to_contain_text(part)
        expect(card).to_contain_text("2 flies at most")
        expect(card).to_contain_text(re.compile(r"in all\s*[\d.]+ ft"))
        self.assertLessEqual(page.evaluate("document.documentElement.scrollWidth"), PHONE["width"])
        page.emulate_media(media="print")
        expect(page.get_by_role("button", name="Print it")).to_be_hidden()
        expect(card).to_be_visible()

    def test_the_outing_goes_into_the_calendar(self):
        page = self.ready(DESKTOP)
        with page.expect_download() as made:
            page.get_by_role("button", name="Put it in your calendar").click()
        self.assertEqual(made.value.suggested_filename, "outing.ics")
        with open(made.value.path(), encoding="utf-8") as file:
            text = file.read()
        self.assertIn("BEGIN:VEVENT", text)
        self.assertIn("Channel", text)

    def test_a_hand_made_set_up_is_fished(self):
        page = self.ready(DESKTOP)
        row = self.swap(page)
        expect(page.get_by_role("button", name="Fish this set-up")).to_be_enabled()
        count = int(number_after(row.inner_text(), "Count"))
        row.get_by_role("button", name="Fish this set-up").click()
        self.start_all_the_same(page)
        expect(page.get_by_role("button", name="Cast: start the count")).to_be_visible()
        expect(page.get_by_test_id("set-depth")).to_contain_text(f"{count} s")

    def test_a_depth_found_is_carried_to_another_set_up_on_the_water(self):
        # Trade: the float says 1.7 m, so fish a line at 1.7 m; and the other way round.
        page = self.ready(PHONE)
        self.open_counted(page).get_by_role("button", name="Fish this set-up").click()
        self.start_all_the_same(page)
        page.get_by_role("button", name="Take", exact=True).click()
        page.get_by_role("button", name="Change…").click()
        label = page.get_by_label("Set-up")
        label.select_option(label=label.locator("option").filter(has_text="ung rig").first.inner_text())
        carry = page.get_by_label(re.compile("Carry the depth over"))
        depth = number_after(page.get_by_text("Carry the depth over").inner_text(), "came at")
        carry.check()
        page.get_by_role("button", name="Fish it").click()
        expect(page.get_by_test_id("set-depth")).not_to_contain_text(
            " s"
        )  # the count goes once the device has kept the change
        self.assertAlmostEqual(number_after(page.get_by_test_id("set-depth").inner_text(), ""), depth, delta=0.11)
