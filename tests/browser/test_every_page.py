"""What must hold on every page at both sizes: no fault by the accessibility engine, no words on the water over others.

Contrast in the other lights is arithmetic on the theme's colours: `tests/house/test_contrast.py`.
"""

import time
import uuid
from datetime import timedelta
from functools import cache
from pathlib import Path

from django.utils import timezone

from stillthread.outings.schemas import EventBody, OutingBody, SpellBody
from stillthread.outings.services import put_event, put_outing, put_spell
from stillthread.waters.schemas import ReadingBody
from stillthread.waters.services import put_reading
from tests.browser.base import DESKTOP, PHONE, BrowserCase, expect

ROOT = Path(__file__).resolve().parents[2]
PAGES = (
    "/plan", "/plan/card", "/water", "/food", "/water/chart", "/water/year", "/water/boat", "/thread", "/fish",
    "/fish/{outing}", "/log", "/log/{outing}", "/log/bin", "/kit", "/kit/box", "/account", "/start", "/waters/new", "/nowhere",
)  # fmt: skip
# Words that stand on each other by more than this many pixels each way do not read.
TOUCH = 2
OVERLAPS = """(touch) => {
  const found = [];
  for (const svg of document.querySelectorAll("svg[role=group]")) {
    const words = [...svg.querySelectorAll("text")].filter(
      (t) => t.textContent.trim() !== "" && getComputedStyle(t).visibility !== "hidden" && !t.closest("[data-solid]"));
    const boxes = words.map((t) => [t.textContent, t.getBoundingClientRect()]);
    boxes.forEach(([a, p], i) => boxes.slice(i + 1).forEach(([b, q]) => {
      const wide = Math.min(p.right, q.right) - Math.max(p.left, q.left);
      const high = Math.min(p.bottom, q.bottom) - Math.max(p.top, q.top);
      if (wide > touch && high > touch + 2) found.push(`${a} / ${b}`);
    }));
  }
  return found;
}"""


@cache
def axe():
    return (ROOT / "frontend/node_modules/axe-core/axe.min.js").read_text()


SETTLES_S = 8.0  # a ceiling, never waited for: what stands on something then stays there


class EveryPage(BrowserCase):
    def filled(self, size):
        """An angler with a layered reading and an outing of an hour, still running."""
        page = self.prepared(size, "/kit")
        profile = [(0, 18.0), (2, 17.6), (4, 17.0), (5, 13.5), (6, 11.0)]
        reading = {
            "profile": [{"depth_m": d, "temperature_c": t} for d, t in profile],
            "wind_m_s": 3.0, "wind_from_deg": 225, "cloud_oktas": 2, "clarity": "clear",
        }  # fmt: skip
        now = timezone.now()
        body = ReadingBody.model_validate({"place": "Channel", "reading": reading, "taken_at": now.isoformat()})
        put_reading(self.user, uuid.UUID(self.water), uuid.uuid4(), body)
        began = now - timedelta(hours=1)
        self.outing, spell = uuid.uuid4(), uuid.uuid4()
        put_outing(self.user, self.outing, OutingBody(water_id=self.water, started_at=began))
        told = {"method": "intermediate", "title": "Intermediate", "depth_m": 3.1, "low_m": 2.6, "high_m": 3.6}
        put_spell(self.user, self.outing, spell, SpellBody(**told, count_s=40, started_at=began))
        for n, kind in enumerate(("take", "pluck", "landed")):
            at = began + timedelta(minutes=18 * n + 1)
            event = EventBody(spell_id=spell, kind=kind, occurred_at=at, depth_m=3.0)
            put_event(self.user, self.outing, uuid.uuid4(), event)
        return page

    def go(self, page, path):
        page.goto(self.live_server_url + path.format(outing=self.outing))
        expect(page.locator("main h1, main h2").first).to_be_visible()
        expect(page.locator("main [role=status]").filter(has_text="…")).to_have_count(0)
        self.settled(page)

    def told(self, page, path):
        found = page.evaluate("axe.run(document, {resultTypes: ['violations']}).then((r) => r.violations)")
        return [f"{path} {v['id']}: {[n['html'][:160] for n in v['nodes'][:3]]}" for v in found]

    def over_others(self, page):
        """Words that stand on others: labels settle a little after they are drawn, on a slow machine later."""
        end = time.monotonic() + SETTLES_S
        while (found := page.evaluate(OVERLAPS, TOUCH)) and time.monotonic() < end:
            page.wait_for_timeout(100)
        return found

    def looked_at(self, size):
        """What is wrong on any page: faults, and words that stand on others on the water."""
        page = self.filled(size)
        page.add_init_script(axe())
        faults, covered = [], []
        for path in PAGES:
            self.go(page, path)
            faults += self.told(page, path)
            covered += [f"{path}: {one}" for one in self.over_others(page)]
        self.assertEqual("\n".join(faults), "")
        self.assertEqual(covered, [])

    def test_no_fault_and_no_words_over_others_on_the_phone(self):
        self.looked_at(PHONE)

    def test_no_fault_and_no_words_over_others_at_the_desk(self):
        self.looked_at(DESKTOP)
