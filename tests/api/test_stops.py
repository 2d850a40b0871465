"""What ends a day on the water is heard whoever read it, and until a later reading says that it is over."""

import uuid

from django.utils import timezone

from stillthread.waters.models import Reading
from tests.api.test_next import instant
from tests.api.test_together import TogetherCase

GALE, AIR = {"wind_m_s": 14.0}, {"wind_m_s": 2.0}


class Stops(TogetherCase):
    def setUp(self):
        super().setUp()
        for client in (self.client, self.partner):
            settings = self.call("GET", "/api/session", client=client)["settings"]
            self.call("PUT", "/api/settings", {**settings, "afloat": True}, client=client)
        self.spell(90)
        self.copy = self.join()["water_id"]
        Reading.objects.all().delete()

    def read(self, at, reading, client=None, reading_id=None):
        water = self.copy if client is self.partner else self.water
        path = f"/api/waters/{water}/readings/{reading_id or uuid.uuid4()}"
        self.call("PUT", path, {"reading": reading, "taken_at": at}, client=client)

    def stopped(self):
        """Whether it says to stop, on the strip and in what stands over everything; nothing else is then advised."""
        now = timezone.now().isoformat()
        ends = ("wind", "thunder")
        stops = [
            one
            for one in self.call("GET", f"/api/outings/{self.outing}/ahead")
            if one["code"] in ends and one["level"] == "stop" and one["since"] <= now
        ]
        kinds = [step["kind"] for step in self.asked()["next"]]
        self.assertEqual(bool(stops), kinds[0] == "stop")
        if stops:
            self.assertEqual(kinds, ["stop"])
        return bool(stops)

    def test_of_two_readings_of_one_instant_the_one_that_came_last_counts(self):
        for first, last, stop in ((AIR, GALE, True), (GALE, AIR, False)):
            for whose in ((None, None), (None, self.partner), (self.partner, None)):
                with self.subTest(stop=stop, whose=whose):
                    Reading.objects.all().delete()
                    at = instant(minutes=3)
                    self.read(at, first, whose[0])
                    self.read(at, last, whose[1])
                    self.assertEqual(self.stopped(), stop)

    def test_a_partners_gale_stands_until_a_later_reading_names_the_wind(self):
        mine = str(uuid.uuid4())
        self.read(instant(minutes=20), AIR, reading_id=mine)
        self.read(instant(minutes=15), GALE, self.partner)
        self.assertTrue(self.stopped())
        # The wind of twenty minutes ago goes along with an edit, and is no newer for it.
        self.read(instant(minutes=10), {**AIR, "cloud_oktas": 3}, reading_id=mine)
        self.assertTrue(self.stopped())
        self.read(instant(minutes=5), {"cloud_oktas": 8})
        self.assertTrue(self.stopped())
        self.read(instant(minutes=2), {"wind_m_s": 3.0}, self.partner)
        self.assertFalse(self.stopped())

    def test_thunder_stands_for_half_an_hour_or_until_it_is_said_to_be_over(self):
        self.read(instant(minutes=25), {"thunder": True}, self.partner)
        self.read(instant(minutes=5), AIR)
        self.assertTrue(self.stopped())
        self.turn("cloud-over")
        self.assertTrue(self.stopped())
        self.turn("thunder-over")
        self.assertFalse(self.stopped())
        self.turn("thunder")
        self.assertTrue(self.stopped())

    def turn(self, turn):
        self.call("POST", f"/api/outings/{self.outing}/turn", {"reading_id": str(uuid.uuid4()), "turn": turn})

    def test_thunder_of_longer_ago_does_not(self):
        self.read(instant(minutes=35), {"thunder": True}, self.partner)
        self.read(instant(minutes=5), AIR)
        self.assertFalse(self.stopped())

    def test_the_stop_of_the_plan_it_began_with_silences_the_strip_too(self):
        plan = self.call(
            "PUT", f"/api/plans/{uuid.uuid4()}", {"water_id": self.water, "when": instant(minutes=5), "reading": GALE}
        )
        self.outing = str(uuid.uuid4())
        begin = {"outing_id": self.outing, "spell_id": str(uuid.uuid4()), "set_up": 0, "started_at": instant(minutes=2)}
        self.call("POST", f"/api/plans/{plan['id']}/start", begin)
        self.assertTrue(self.stopped())
        self.read(instant(minutes=1), {"cloud_oktas": 3})
        self.assertTrue(self.stopped())
        self.read(instant(minutes=0), AIR)
        self.assertFalse(self.stopped())
