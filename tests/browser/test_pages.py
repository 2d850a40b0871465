"""The pages beside the walk: kit, settings, waters, signing in, and what the plan says on bad days."""

import re

from tests.browser.base import DESKTOP, PASSWORD, PHONE, BrowserCase, expect


class Pages(BrowserCase):
    def start(self, size=DESKTOP, path="/plan"):
        return self.prepared(size, path)

    def test_kit_lines_in_and_out(self):
        page = self.start(path="/kit")
        lines = page.locator("section").filter(has=page.get_by_role("heading", name="Lines")).locator("li")
        expect(lines).to_have_count(3)
        page.get_by_role("button", name="Remove Type 3 sinking line").click()
        expect(lines).to_have_count(2)
        page.get_by_role("button", name="Undo").click()
        expect(lines).to_have_count(3)
        page.get_by_role("button", name="Add a line").click()
        page.get_by_role("radio", name="Full sinking").click()
        page.get_by_label("Rate on the box").fill("55")
        page.get_by_role("button", name="Add", exact=True).click()
        expect(page.get_by_text("Accepted: at most 10.")).to_be_visible()
        page.get_by_label("Rate on the box").fill("5")
        page.get_by_role("button", name="Add", exact=True).click()
        expect(lines.filter(has_text="Type 5 sinking line")).to_be_visible()

    def test_without_lines_the_plan_asks_for_them(self):
        page = self.start(path="/kit")
        for name in ("Remove Floating line", "Remove Intermediate, 1.2 in/s", "Remove Type 3 sinking line"):
            page.get_by_role("button", name=name).click()
            expect(page.get_by_role("button", name=name)).to_have_count(0)
        page.goto(self.live_server_url + "/plan")
        expect(page.get_by_role("heading", name="The kit comes first")).to_be_visible()
        page.get_by_role("link", name="Tick your lines and flies").click()
        expect(page.get_by_role("heading", name="Your kit")).to_be_visible()

    def test_feet_and_the_other_words_everywhere(self):
        page = self.start()
        expect(page.get_by_role("heading", level=1, name="Fish")).to_contain_text(" m at ")
        self.tab(page, "Kit")
        page.get_by_role("radio", name="Feet").click()
        page.get_by_role("radio", name="Chironomid, indicator, scud").click()
        # 2.9 m is 9.5 ft.
        expect(page.get_by_label("Rod length")).to_have_value("9.5")
        page.get_by_role("button", name="Save").click()
        expect(page.get_by_text("Saved.")).to_be_visible()
        self.tab(page, "Plan")
        expect(page.get_by_role("heading", level=1, name="Fish")).to_contain_text(" ft at ")
        self.tab(page, "Water")
        expect(page.get_by_role("button", name="Scud", exact=True)).to_be_visible()
        expect(page.get_by_role("button", name="shrimp")).to_have_count(0)

    def test_a_water_is_edited_deleted_and_brought_back(self):
        page = self.start(path="/water")
        page.get_by_role("link", name="Edit this water").click()
        page.get_by_label("Greatest depth").fill("2")
        page.get_by_role("button", name="Save the water").click()
        expect(page.get_by_text("is deeper than the water's greatest depth").first).to_be_visible()
        page.get_by_label("Greatest depth").fill("9,5")
        page.get_by_role("button", name="Save the water").click()
        expect(page.get_by_role("heading", name="What you read")).to_be_visible()
        page.get_by_role("link", name="Edit this water").click()
        expect(page.get_by_label("Greatest depth")).to_have_value("9.5")
        page.get_by_role("button", name="Delete the water").click()
        expect(page.get_by_role("heading", name="Two minutes, then a plan")).to_be_visible()
        with page.expect_response(lambda r: r.request.method == "PUT" and "/api/waters/" in r.url):
            page.get_by_role("button", name="Undo").click()
        page.goto(self.live_server_url + "/water")
        expect(page.get_by_role("heading", name="What you read")).to_be_visible()

    def test_bad_days_say_stop(self):
        page = self.start(PHONE, "/water")
        page.get_by_label("Depth 1", exact=True).fill("0")
        page.get_by_label("Temperature 1", exact=True).fill("21.5")
        page.get_by_label("Thunder about").check()
        self.tab(page, "Plan")
        cautions = page.get_by_role("list", name="Mind")
        expect(cautions).to_contain_text("Stop. The water is 21.5 °C at its warmest")
        expect(cautions).to_contain_text("wait 30 minutes after the last")
        page.goto(self.live_server_url + "/kit")
        page.get_by_role("link", name="Ash Tarn").click()
        page.get_by_role("radio", name="All returned").click()
        page.get_by_role("button", name="Save the water").click()
        self.tab(page, "Plan")
        expect(page.get_by_role("heading", name="Leave the fish alone today")).to_be_visible()
        expect(page.get_by_role("button", name="Fish this set-up")).to_have_count(0)

    def test_a_pasted_table(self):
        page = self.start(path="/water")
        page.get_by_label("Depth 1", exact=True).focus()
        page.evaluate(
            """() => {
                const data = new DataTransfer();
                data.setData("text", "0\\t12,5\\n2\\t11,5\\n4\\t11\\n");
                document.activeElement.dispatchEvent(new ClipboardEvent("paste", { clipboardData: data, bubbles: true, cancelable: true }));
            }"""
        )
        expect(page.get_by_label("Temperature 3", exact=True)).to_have_value("11")

    def test_a_fresh_reading_can_be_taken_back(self):
        page = self.start(path="/water")
        page.get_by_label("Wind", exact=True).fill("4")
        # What the reading means has come: it moves what stands below it, and a press would land beside the button.
        expect(page.get_by_text("Kept.", exact=True)).to_be_visible()
        self.settled(page)
        page.get_by_role("button", name="Start a fresh reading").click()
        expect(page.get_by_label("Wind", exact=True)).to_have_value("")
        page.get_by_role("button", name="Undo").click()
        expect(page.get_by_label("Wind", exact=True)).to_have_value("4")

    def test_what_moved_the_depth_can_be_opened(self):
        page = self.start()
        page.get_by_text("What moves the depth").click()
        expect(page.get_by_text("Temperature (nothing to go by)")).to_be_visible()
        page.get_by_text(re.compile(r"Ruled out \(\d+\)")).click()
        expect(
            page.get_by_text(re.compile("in the likely band today|too few fish|off the bottom|fishes from")).last
        ).to_be_visible()
        letters = page.locator("ol.corded > li h3 button")
        letters.nth(1).click()
        expect(letters.nth(1)).to_have_attribute("aria-expanded", "true")
        expect(letters.nth(0)).to_have_attribute("aria-expanded", "false")

    def test_the_light_is_kept(self):
        page = self.start()
        page.get_by_label("Light", exact=True).select_option("dusk")
        page.reload()
        expect(page.locator("html")).to_have_attribute("data-theme", "dusk")


class SigningIn(BrowserCase):
    def test_faults_at_their_fields_and_back_in_again(self):
        page = self.open(DESKTOP)
        page.goto(self.live_server_url)
        page.get_by_role("button", name="I have no account yet").click()
        page.get_by_label("Name").fill("rosalind")
        page.get_by_label("Password").fill("short")
        page.get_by_role("button", name="Make an account").click()
        expect(page.get_by_text("ten characters or more")).to_be_visible()
        page.get_by_label("Password").fill(PASSWORD)
        page.get_by_role("button", name="Make an account").click()
        expect(page.get_by_role("heading", name="Two minutes, then a plan")).to_be_visible()
        page.get_by_role("button", name="Sign out").click()
        expect(page.get_by_role("heading", level=1, name="Find the depth")).to_be_visible()
        page.get_by_label("Name").fill("rosalind")
        page.get_by_label("Password").fill("not the password")
        page.get_by_role("button", name="Sign in", exact=True).click()
        expect(page.get_by_text("do not go together")).to_be_visible()
        page.get_by_label("Password").fill(PASSWORD)
        page.get_by_role("button", name="Sign in", exact=True).click()
        expect(page.get_by_role("heading", name="Two minutes, then a plan")).to_be_visible()

    def test_the_demo_without_its_data_says_so(self):
        page = self.open(PHONE)
        page.goto(self.live_server_url)
        page.get_by_role("button", name="Step in as the demo angler").click()
        expect(page.get_by_text("The demo data is not loaded.")).to_be_visible()
