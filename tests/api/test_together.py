"""Two anglers on one day: joined by a code that ends with it, each with rows of their own, each seeing the other's."""

import uuid
from datetime import timedelta

from django.core.cache import cache
from django.utils import timezone

from stillthread.outings.models import Outing, Together
from tests.api.test_next import NextCase, instant

STRANGE = {"method": "float", "title": "Float", "started_at": "2026-05-01T09:00:00Z"}


class TogetherCase(NextCase):
    def setUp(self):
        super().setUp()
        cache.clear()  # the tries of the tests before
        self.code = self.shared()["code"]
        self.make_user("partner")
        self.partner = self.sign_in("partner")
        self.theirs = str(uuid.uuid4())

    def shared(self, method="PUT", client=None, outing=None, status=200):
        path = f"/api/outings/{outing or self.outing}/together"
        return self.call(method, path, client=client, status=status)

    def join(self, client=None, code=None, outing=None, status=200):
        body = {"code": code or self.code, "outing_id": outing or self.theirs}
        return self.call("POST", "/api/together/join", body, status, client or self.partner)

    def fish(self, start=10, end=None, depth=3.3, **more):
        spell = str(uuid.uuid4())
        body = {
            "method": "float", "title": "Float rig", "place": "Channel", "pace": "static", "depth_m": depth,
            "low_m": depth - 0.2, "high_m": depth + 0.2, "started_at": instant(minutes=start),
            "ended_at": instant(minutes=end) if end is not None else None, **more,
        }  # fmt: skip
        self.call("PUT", f"/api/outings/{self.theirs}/spells/{spell}", body, client=self.partner)
        return spell

    def take(self, spell, minutes):
        body = {"spell_id": spell, "kind": "take", "occurred_at": instant(minutes=minutes)}
        self.call("PUT", f"/api/outings/{self.theirs}/events/{uuid.uuid4()}", body, client=self.partner)


class Joining(TogetherCase):
    def test_six_letters_and_the_same_for_a_second_tap(self):
        self.assertRegex(self.code, r"^[A-HJ-NP-Z2-9]{6}$")
        self.assertEqual(self.shared()["code"], self.code)
        self.assertEqual(self.shared()["name"], "")

    def test_joined_on_a_copy_of_the_water_with_an_outing_of_ones_own(self):
        typed = f" {self.code[:3].lower()}-{self.code[3:].lower()}"
        told = self.join(code=typed)
        self.assertEqual((told["name"], told["outing_id"]), ("angler", self.theirs))
        water = self.call("GET", f"/api/waters/{told['water_id']}", client=self.partner)
        self.assertEqual((water["name"], [p["name"] for p in water["places"]]), ("Test mere", ["Shelf", "Channel"]))
        self.assertNotEqual(told["water_id"], self.water)
        again = self.join(outing=str(uuid.uuid4()))
        self.assertEqual(again, told)
        self.assertEqual(self.shared("GET")["name"], "partner")
        self.assertEqual(self.shared("GET", self.partner, self.theirs)["name"], "angler")
        self.assertEqual(self.shared("GET", self.partner, self.theirs)["code"], "")

    def test_a_second_day_on_the_water_is_on_the_same_copy(self):
        first = self.join()["water_id"]
        self.shared("DELETE", status=204)
        code = self.shared()["code"]
        told = self.join(code=code, outing=str(uuid.uuid4()))
        self.assertEqual(
            (told["water_id"], told["outing_id"]), (first, self.theirs)
        )  # the outing on the go is carried on

    def test_codes_that_open_nothing(self):
        self.make_user("third")
        third = self.sign_in("third")
        body = {"code": self.code, "outing_id": str(uuid.uuid4())}
        self.assertIn("your own", self.refused("POST", "/api/together/join", body)["code"]["message"])
        self.join()
        self.assertIn("already", self.refused("POST", "/api/together/join", body, client=third)["code"]["message"])
        for code in ("QQQQQQ", "no", "'; --"):
            self.refused("POST", "/api/together/join", {**body, "code": code}, client=third)
        self.assertEqual(Outing.objects.filter(owner__username="third").count(), 0)

    def test_the_code_ends_with_the_outing_and_with_the_day(self):
        water = {"water_id": self.water, "started_at": instant(minutes=100)}
        self.call("PUT", f"/api/outings/{self.outing}", {**water, "ended_at": instant(minutes=1)})
        self.join(status=422)
        self.refused("PUT", f"/api/outings/{self.outing}/together")
        self.call("PUT", f"/api/outings/{self.outing}", water)
        Together.objects.update(ends_at=timezone.now() - timedelta(minutes=1))
        self.join(status=422)

    def test_tries_are_counted(self):
        with self.settings(MOST_WRONG_PAIRS=3):
            for n in range(5):
                self.join(code="QQQQQQ", status=422 if n < 3 else 429)


class Seeing(TogetherCase):
    def test_each_sees_what_the_other_fishes_until_it_ends(self):
        self.spell(60)
        self.join()
        self.take(self.fish(30, 20), 25)
        self.fish(15, depth=2.2)
        told = self.shared("GET")["spells"]
        self.assertEqual(
            [(s["depth_m"], s["takes"], s["ended_at"] is None) for s in told], [(3.3, 1, False), (2.2, 0, True)]
        )
        theirs = self.shared("GET", self.partner, self.theirs)["spells"]
        self.assertEqual([s["depth_m"] for s in theirs], [2.0])
        self.shared("DELETE", self.partner, self.theirs, 204)  # the partner leaves
        self.fish(0, depth=5.0)
        after = self.shared("GET")
        self.assertEqual((after["open"], [s["depth_m"] for s in after["spells"]]), (False, [3.3, 2.2]))

    def test_the_partners_fish_count_as_ones_own(self):
        self.spell(60)
        self.join()
        spell = self.fish(30)
        blank = self.asked()
        self.take(spell, 4)
        self.take(spell, 2)
        taken = self.asked()

        def near(told):
            here = next(one for one in told["belief"] if one["place"] == "Channel")
            return sum(here["mass"][14:19])

        self.assertGreater(near(taken), near(blank))
        self.assertTrue(any("Your partner took" in why for why in taken["next"][0]["reasons"]))
        mine = self.call("GET", f"/api/outings/{self.outing}")
        self.assertEqual((len(mine["spells"]), mine["takes"]), (1, 0))  # the log stays one's own

    def test_what_one_reads_the_other_plans_by(self):
        self.join()
        plain = self.call("GET", f"/api/outings/{self.theirs}/next", client=self.partner, status=422)
        self.assertIn("errors", plain)  # no line of their own yet
        mine, self.client = self.client, self.partner
        self.make_kit()
        self.client = mine
        before = self.call("GET", f"/api/outings/{self.theirs}/next", client=self.partner)
        profile = [{"depth_m": z, "temperature_c": t} for z, t in ((0, 19.5), (3, 19.0), (4, 13.0), (6, 11.0))]
        body = {"taken_at": instant(minutes=1), "place": "Channel", "reading": {"profile": profile}, "sightings": []}
        self.call("PUT", f"/api/waters/{self.water}/readings/{uuid.uuid4()}", body)
        after = self.call("GET", f"/api/outings/{self.theirs}/next", client=self.partner)
        self.assertNotEqual(before["belief"], after["belief"])


class Apart(TogetherCase):
    def test_neither_reads_or_writes_the_others_rows(self):
        self.spell(60)
        self.join()
        self.fish()
        for client, outing in ((self.partner, self.outing), (self.client, self.theirs)):
            for path in ("", "/next", "/belief", "/ahead", "/together"):
                self.refused("GET", f"/api/outings/{outing}{path}", status=404, client=client)
            self.refused("PUT", f"/api/outings/{outing}/spells/{uuid.uuid4()}", STRANGE, 404, client)
            self.refused("DELETE", f"/api/outings/{outing}/together", None, 404, client)
        self.make_user("third")
        third = self.sign_in("third")
        for outing in (self.outing, self.theirs):
            self.refused("GET", f"/api/outings/{outing}/together", status=404, client=third)

    def test_one_taken_out_sees_nothing_new_and_cannot_come_back_by_the_old_code(self):
        self.join()
        fresh = self.call("DELETE", f"/api/outings/{self.outing}/together/partner")
        self.assertNotEqual(fresh["code"], self.code)
        self.spell(0)
        self.assertEqual(self.shared("GET", self.partner, self.theirs)["spells"], [])
        self.join(status=422)

    def test_a_deleted_outing_is_seen_no_more(self):
        self.join()
        self.fish()
        self.call("DELETE", f"/api/outings/{self.theirs}", status=204, client=self.partner)
        self.assertEqual((self.shared("GET")["open"], self.shared("GET")["spells"]), (False, []))
