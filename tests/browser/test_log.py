"""The log asked: filters in the address, anything noted as a table, two against each other."""

import re
import uuid
from datetime import timedelta
from urllib.parse import parse_qs, urlsplit

from django.utils import timezone

from stillthread.outings.schemas import EventBody, OutingBody, SpellBody
from stillthread.outings.services import put_event, put_outing, put_spell
from stillthread.waters.schemas import ReadingBody
from stillthread.waters.services import put_reading
from tests.browser.base import DESKTOP, BrowserCase, expect


class Log(BrowserCase):
    def season(self):
        """Twelve days, on each two hours with a black fly that takes and two with an olive one that seldom does."""
        page = self.prepared(DESKTOP, "/kit")
        now = timezone.now().replace(hour=8, minute=0)
        for n in range(12):
            began = now - timedelta(days=3 * n + 1)
            outing = uuid.uuid4()
            told = OutingBody(
                water_id=self.water, started_at=began, ended_at=began + timedelta(hours=4), note=f"Day {n}"
            )
            put_outing(self.user, outing, told)
            reading = {
                "profile": [{"depth_m": 0, "temperature_c": 8 if n < 4 else 14}],
                "wind_m_s": 4.0,
                "wind_from_deg": 0 if n < 2 else 225,
            }
            body = {"place": "Channel", "reading": reading, "taken_at": began.isoformat()}
            put_reading(self.user, uuid.UUID(self.water), uuid.uuid4(), ReadingBody.model_validate(body))
            for k, (fly, takes) in enumerate((("Black one", 4 + n % 3), ("Olive one", 1))):
                spell, start = uuid.uuid4(), began + timedelta(hours=2 * k)
                how = {"method": "nymphs", "title": "Nymphs", "depth_m": 2.0, "flies": [fly], "place": "Channel"}
                end = start + timedelta(hours=2)
                put_spell(self.user, outing, spell, SpellBody(**how, started_at=start, ended_at=end))
                for t in range(takes):
                    at = start + timedelta(minutes=20 * t + 1)
                    put_event(self.user, outing, uuid.uuid4(), EventBody(spell_id=spell, kind="take", occurred_at=at))
        page.goto(self.live_server_url + "/log")
        expect(page.get_by_test_id("answers")).to_be_visible()
        return page

    def rows(self, page):
        return page.locator("main li.knot")

    def test_cold_with_a_north_wind_is_found_in_three_taps_and_the_address_holds_it(self):
        page = self.season()
        expect(self.rows(page)).to_have_count(12)
        page.get_by_label("Wind from").select_option("N")
        expect(self.rows(page)).to_have_count(2)
        expect(self.rows(page).first).to_contain_text("8.0 °C, N 4")
        page.get_by_label("Surface about").fill("14")
        expect(page.get_by_text("No outing fits that")).to_be_visible()
        asked = parse_qs(urlsplit(page.url).query)
        self.assertEqual((asked["wind"], asked["t"]), (["N"], ["14"]))
        page.go_back()
        expect(self.rows(page)).to_have_count(2)
        page.reload()
        expect(page.get_by_label("Wind from")).to_have_value("N")
        page.get_by_role("button", name="All of it").click()
        expect(self.rows(page)).to_have_count(12)
        page.get_by_label("Words in it").fill("day 7")
        expect(self.rows(page)).to_have_count(1)

    def test_two_flies_against_each_other(self):
        page = self.season()
        answers = page.get_by_test_id("answers")
        expect(answers.get_by_role("row").filter(has_text="Olive one")).to_contain_text("24 h")
        answers.get_by_label("Black one", exact=True).check()
        answers.get_by_label("Olive one", exact=True).check()
        expect(page.get_by_test_id("compared")).to_contain_text(
            re.compile(r"Black one took 5.0 times as often as Olive one .*over 12 outings with both")
        )
        answers.get_by_role("button", name="Outings behind: Olive one").click()
        expect(page.get_by_test_id("behind").locator("li.knot")).to_have_count(12)
        answers.get_by_label("By").select_option("surface")
        expect(answers.get_by_role("row").filter(has_text="8 to 10 °C")).to_be_visible()
        expect(page.get_by_test_id("compared")).to_have_count(0)
