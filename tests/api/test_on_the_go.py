"""One outing at a time: going over to another plan, what the hours bring, and the bin."""

import uuid
from datetime import UTC, datetime, timedelta

from django.utils import timezone

from stillthread.outings.models import Outing, Spell
from stillthread.waters.models import Forecast, Water
from stillthread.web.owned import put_owned
from tests.api.base import ApiCase
from tests.checks import some


def instant(**ago):
    return (timezone.now() - timedelta(**ago)).isoformat()


class Going(ApiCase):
    def setUp(self):
        super().setUp()
        self.make_kit()
        self.water = self.make_water()

    def kept(self, water=None, **reading):
        plan_id = str(uuid.uuid4())
        body = {"water_id": water or self.water, "when": instant(minutes=5), "reading": reading}
        return self.call("PUT", f"/api/plans/{plan_id}", body)

    def begin(self, plan, outing_id=None, way="start", set_up=0, status=200, **ago):
        body = {
            "outing_id": outing_id or str(uuid.uuid4()),
            "spell_id": str(uuid.uuid4()),
            "set_up": set_up,
            "started_at": instant(**(ago or {"minutes": 1})),
        }
        return self.call("POST", f"/api/plans/{plan['id']}/{way}", body, status), body

    def test_another_set_up_goes_into_the_outing_on_the_go(self):
        outing, _ = self.begin(self.kept(), minutes=60)
        first = outing["plan"]["set_ups"]
        changed = self.kept(cloud_oktas=8, wind_m_s=5, profile=[{"depth_m": 0, "temperature_c": 9}])
        over, body = self.begin(changed, outing["id"], "go-over", set_up=1, minutes=2)
        self.assertEqual(over["id"], outing["id"])
        before, now = over["spells"]
        self.assertIsNotNone(before["ended_at"])
        # The stretch fished before still names its own set-up, the new one the set-up that was pressed.
        self.assertEqual(over["plan"]["set_ups"][before["set_up_index"]], first[0])
        self.assertEqual(over["plan"]["set_ups"][now["set_up_index"]], changed["answer"]["set_ups"][1])
        self.assertEqual(over["plan"]["cautions"], changed["answer"]["cautions"])
        self.assertEqual(self.call("POST", f"/api/plans/{changed['id']}/go-over", body), over)  # sent twice
        self.assertEqual(Outing.objects.count(), 1)

    def test_the_same_plan_adds_no_set_ups(self):
        plan = self.kept()
        outing, _ = self.begin(plan, minutes=30)
        over, _ = self.begin(plan, outing["id"], "go-over", set_up=1)
        self.assertEqual(over["plan"]["set_ups"], outing["plan"]["set_ups"])
        self.assertEqual(over["spells"][-1]["set_up_index"], 1)

    def test_only_into_an_outing_on_the_go_on_the_same_water(self):
        plan = self.kept()
        outing, _ = self.begin(plan)
        elsewhere = self.kept(self.make_water(name="Other mere"))
        told, _ = self.begin(elsewhere, outing["id"], "go-over", status=422)
        self.assertEqual(told["errors"][0]["code"], "other_water")
        ended = {"water_id": self.water, "started_at": outing["started_at"], "ended_at": instant()}
        self.call("PUT", f"/api/outings/{outing['id']}", ended)
        told, _ = self.begin(plan, outing["id"], "go-over", status=422)
        self.assertEqual(told["errors"][0]["code"], "ended")
        self.make_user("stranger")
        stranger = self.sign_in("stranger")
        body = {"outing_id": outing["id"], "spell_id": str(uuid.uuid4()), "set_up": 0, "started_at": instant()}
        self.refused("POST", f"/api/plans/{plan['id']}/go-over", body, 404, stranger)

    def test_a_start_ends_the_outing_that_ran(self):
        one, _ = self.begin(self.kept(), hours=3)
        other = self.make_water(name="Other mere")
        two, body = self.begin(self.kept(other), minutes=10)
        running = self.call("GET", "/api/outings/running")
        self.assertEqual((running["outing"]["id"], running["title"]), (two["id"], two["spells"][0]["title"]))
        ended = self.call("GET", f"/api/outings/{one['id']}")
        for at in some([ended["ended_at"], ended["spells"][0]["ended_at"]]):
            self.assertEqual(at[:22], body["started_at"][:22])

    def test_yesterdays_forgotten_outing_is_not_on_the_go(self):
        self.begin(self.kept(), hours=30)
        self.assertIsNone(self.call("GET", "/api/outings/running")["outing"])


class Hours(ApiCase):
    def setUp(self):
        super().setUp()
        settings = self.call("GET", "/api/session")["settings"]
        self.call("PUT", "/api/settings", {**settings, "afloat": True})
        self.water = self.make_water(latitude_deg=54.0, longitude_deg=-3.0)
        self.outing = f"/api/outings/{uuid.uuid4()}"

    def go(self, day, hour, **reading):
        start = day.replace(hour=hour)
        self.call(
            "PUT",
            self.outing,
            {"water_id": self.water, "started_at": start.isoformat(), "ended_at": day.replace(hour=20).isoformat()},
        )
        body = {"reading": reading, "taken_at": start.isoformat()}
        self.call("PUT", f"/api/waters/{self.water}/readings/{uuid.uuid4()}", body)

    def forecast(self, day, winds):
        hours = [{"when": day.replace(hour=h).isoformat(), "wind_m_s": w} for h, w in winds.items()]
        put_owned(
            Forecast,
            self.user,
            uuid.uuid4(),
            water=Water.objects.get(pk=self.water),
            fetched_at=day,
            source="test",
            hours=hours,
        )

    def ahead(self):
        return [(a["code"], a["level"], a["since"][11:16]) for a in self.call("GET", f"{self.outing}/ahead")]

    def test_a_wind_that_rises_comes_as_care_and_then_as_stop(self):
        # Trade limits for a small boat: think again from 5.5 m/s, ashore from 8 (handbook §13).
        day = datetime(2026, 5, 14, tzinfo=UTC)
        self.go(day, 9, wind_m_s=3.0, profile=[{"depth_m": 0, "temperature_c": 16}])
        self.forecast(day, {10: 3.0, 11: 4.0, 12: 6.0, 13: 7.0, 14: 9.0, 15: 9.0})
        # Summer time on the water's clock is an hour before UTC.
        self.assertEqual(
            [a for a in self.ahead() if a[0] == "wind"], [("wind", "caution", "13:00"), ("wind", "stop", "15:00")]
        )

    def test_the_dark_comes_by_itself(self):
        # By hand: declination -20.7° (almanac, 25 November), noon at 11:59 UTC (3° W, equation of time +13 minutes);
        # cos H = (sin -6° - sin 54° sin -20.7°) / (cos 54° cos -20.7°) = 0.33, H = 70.7° = 4 h 43 min: 16:42.
        day = datetime(2026, 11, 25, tzinfo=UTC)
        self.go(day, 9, profile=[{"depth_m": 0, "temperature_c": 16}])
        dark = next(a for a in self.call("GET", f"{self.outing}/ahead") if a["code"] == "dark")
        self.assertRegex(dark["sentence"], r"Dark by 16:4\d")
        self.assertRegex(dark["since"], r"T15:5\d")

    def test_begun_before_light_the_evening_is_still_told_and_begun_late_the_night_itself(self):
        day = datetime(2026, 11, 25, tzinfo=UTC)
        for hour, words in ((6, "Dark by 16:4"), (16, "Dark by 16:4"), (18, "It is dark")):
            with self.subTest(hour=hour):
                self.outing = f"/api/outings/{uuid.uuid4()}"
                self.go(day, hour, profile=[{"depth_m": 0, "temperature_c": 16}])
                told = [a["sentence"] for a in self.call("GET", f"{self.outing}/ahead") if a["code"] == "dark"]
                self.assertEqual(len(told), 1)
                self.assertIn(words, told[0])

    def test_a_newer_reading_with_thunder_or_warm_water_is_a_stop_at_once(self):
        day = datetime(2026, 7, 14, tzinfo=UTC)
        self.go(day, 11, thunder=True, profile=[{"depth_m": 0, "temperature_c": 21.5}])
        stops = {a[0] for a in self.ahead() if a[1] == "stop"}
        self.assertEqual(stops, {"thunder", "warm-water"})


class Bin(ApiCase):
    def setUp(self):
        super().setUp()
        self.water = self.make_water()
        self.outing = f"/api/outings/{uuid.uuid4()}"
        self.call(
            "PUT", self.outing, {"water_id": self.water, "started_at": instant(hours=2), "ended_at": instant(hours=1)}
        )
        self.stretch = f"{self.outing}/spells/{uuid.uuid4()}"
        spell = {
            "method": "float",
            "title": "Under a float",
            "started_at": instant(hours=2),
            "ended_at": instant(hours=1),
        }
        self.call("PUT", self.stretch, spell)

    def test_deleted_things_are_seen_and_brought_back(self):
        line = uuid.uuid4()
        self.call("PUT", f"/api/kit/lines/{line}", {"family": "floating"})
        self.call("DELETE", f"/api/kit/lines/{line}", status=204)
        self.call("DELETE", self.stretch, status=204)
        lying = self.call("GET", "/api/bin")
        self.assertEqual([one["what"] for one in lying], ["Stretch fished: Under a float", "Line: floating 0"])
        left = self.call("POST", f"/api/bin/stretch/{lying[0]['id']}/restore")
        self.assertEqual([one["kind"] for one in left], ["line"])
        self.assertEqual(len(self.call("GET", self.outing)["spells"]), 1)

    def test_what_hangs_on_something_deleted_comes_after_it(self):
        self.call("DELETE", self.stretch, status=204)
        self.call("DELETE", self.outing, status=204)
        self.assertEqual([one["kind"] for one in self.call("GET", "/api/bin")], ["outing"])
        stretch_id = self.stretch.rsplit("/", 1)[1]
        self.refused("POST", f"/api/bin/stretch/{stretch_id}/restore", status=404)
        self.call("POST", f"/api/bin/outing/{self.outing.rsplit('/', 1)[1]}/restore")
        self.assertEqual([one["kind"] for one in self.call("GET", "/api/bin")], ["stretch"])

    def test_after_thirty_days_it_is_gone(self):
        self.call("DELETE", self.stretch, status=204)
        Spell.objects.update(deleted_at=timezone.now() - timedelta(days=29))
        self.assertEqual(len(self.call("GET", "/api/bin")), 1)
        Spell.objects.update(deleted_at=timezone.now() - timedelta(days=31))
        self.assertEqual(self.call("GET", "/api/bin"), [])
        self.assertEqual(Spell.objects.count(), 0)

    def test_a_water_that_was_fished_never_goes_for_good_while_its_outings_stay(self):
        self.call("DELETE", f"/api/waters/{self.water}", status=204)
        Water.objects.update(deleted_at=timezone.now() - timedelta(days=40))
        self.call("GET", "/api/bin")
        self.assertEqual(Water.objects.count(), 1)

    def test_somebody_elses_bin_is_not_ours(self):
        self.call("DELETE", self.stretch, status=204)
        self.make_user("stranger")
        stranger = self.sign_in("stranger")
        self.assertEqual(self.call("GET", "/api/bin", client=stranger), [])
        stretch_id = self.stretch.rsplit("/", 1)[1]
        self.refused("POST", f"/api/bin/stretch/{stretch_id}/restore", status=404, client=stranger)
