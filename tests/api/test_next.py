"""What to do next in an outing on the go: from the stretches in the log, for its owner alone, the same whatever came first."""

import uuid
from datetime import timedelta

from django.utils import timezone

from tests.api.base import WATER, ApiCase
from tests.checks import some


def instant(**ago):
    return (timezone.now() - timedelta(**ago)).isoformat()


class NextCase(ApiCase):
    def setUp(self):
        super().setUp()
        self.make_kit()
        self.water = self.make_water()
        self.outing = str(uuid.uuid4())
        self.call("PUT", f"/api/outings/{self.outing}", {"water_id": self.water, "started_at": instant(minutes=100)})

    def spell(self, start, end=None, **more):
        spell = str(uuid.uuid4())
        body = {
            "method": "float",
            "title": "Float rig",
            "place": "Channel",
            "depth_m": 2.0,
            "low_m": 1.8,
            "high_m": 2.1,
            "pace": "static",
            "started_at": instant(minutes=start),
            "ended_at": instant(minutes=end) if end else None,
            **more,
        }
        self.call("PUT", f"/api/outings/{self.outing}/spells/{spell}", body)
        return spell

    def tap(self, spell, kind, minutes, event=None):
        body = {"spell_id": spell, "kind": kind, "occurred_at": instant(minutes=minutes)}
        event = event or str(uuid.uuid4())
        self.call("PUT", f"/api/outings/{self.outing}/events/{event}", body)
        return event

    def asked(self, status=200):
        return self.call("GET", f"/api/outings/{self.outing}/next", status=status)


class Next(NextCase):
    def test_steps_with_chances_and_a_belief_that_sums_to_one(self):
        self.spell(90)
        told = self.asked()
        self.assertAlmostEqual(sum(sum(place["mass"]) for place in told["belief"]), 1.0, delta=0.02)
        first = some(told["next"])[0]
        self.assertTrue(first["words"] and first["reasons"])
        self.assertTrue(0 <= first["chance"] <= 1)
        self.assertLessEqual(len(told["next"]), 5)
        self.assertGreater(told["since_take_min"], 80)

    def test_a_take_keeps_what_took_and_undo_takes_it_back(self):
        spell = self.spell(60)
        blank = self.asked()
        event = self.tap(spell, "take", 2)
        taken = self.asked()
        self.assertEqual(taken["next"][0]["kind"], "stay")
        self.assertGreater(taken["next"][0]["chance"], blank["next"][0]["chance_now"])
        self.call("DELETE", f"/api/outings/{self.outing}/events/{event}", status=204)
        self.assertEqual(self.asked()["next"][0]["words"], blank["next"][0]["words"])

    def test_the_depth_read_at_one_place_is_no_bed_at_another(self):
        other, own = (place["name"] for place in WATER["places"][:2])
        bed_m = next(place["depth_max_m"] for place in WATER["places"] if place["name"] == other)
        reading = {"profile": [{"depth_m": 0, "temperature_c": 12}], "water_depth_m": bed_m + 2}
        body = {"place": own, "taken_at": instant(minutes=80), "reading": reading}
        self.call("PUT", f"/api/waters/{self.water}/readings/{uuid.uuid4()}", body)
        self.spell(60, place=other, depth_m=1.0, low_m=0.8, high_m=1.2)
        told = self.asked()
        beds = {place["place"]: 0.2 * len(place["mass"]) for place in told["belief"]}
        self.assertAlmostEqual(beds[other], bed_m, delta=0.2)
        for step in told["next"]:
            if step["place"] == other:
                self.assertLess(step["depth_m"], bed_m)

    def test_a_change_costs_what_the_angler_says(self):
        self.spell(60)
        settings = self.call("GET", "/api/session")["settings"]
        self.call("PUT", "/api/settings", {**settings, "costs": {**settings["costs"], "rig": 17, "place": 40}})
        costs = {step["kind"]: step["cost_min"] for step in self.asked()["next"]}
        self.assertTrue({"set-up", "place"} & set(costs), costs)
        for kind, least in (("set-up", 17), ("place", 40)):
            self.assertGreaterEqual(costs.get(kind, least), least)

    def test_a_fish_landed_after_its_take_is_one(self):
        spell = self.spell(60)
        self.tap(spell, "take", 10)
        self.tap(spell, "landed", 7)
        self.assertEqual(sum(t["takes"] for t in self.asked()["tried"]), 1)

    def test_the_order_of_arrival_does_not_matter(self):
        later = self.spell(30, method="nymphs", title="Nymphs", depth_m=1.0, low_m=0.8, high_m=1.2)
        earlier = self.spell(90, 30)
        self.tap(later, "pluck", 5)
        self.tap(earlier, "take", 50)
        told = self.asked()
        self.assertEqual([round(t["minutes"], -1) for t in told["tried"]], [30, 60])
        self.assertEqual(told["since_take_min"], 50)

    def test_a_turn_of_the_day_is_a_reading_and_what_was_before_says_less(self):
        self.spell(90)
        reading = {"profile": [{"depth_m": 0, "temperature_c": 12}], "cloud_oktas": 8, "wind_m_s": 4}
        body = {"taken_at": instant(minutes=120), "place": "Channel", "sightings": [], "reading": reading}
        self.call("PUT", f"/api/waters/{self.water}/readings/{uuid.uuid4()}", body)
        before = self.asked()
        turned = {"reading_id": str(uuid.uuid4()), "turn": "sun-out"}
        after = self.call("POST", f"/api/outings/{self.outing}/turn", turned)
        stored = self.call("GET", f"/api/waters/{self.water}/readings")[0]
        again = {"reading_id": str(uuid.uuid4()), "turn": "wind-up"}
        winds = []
        for _ in range(2):  # sent twice, it is one turn
            self.call("POST", f"/api/outings/{self.outing}/turn", again)
            winds.append(self.call("GET", f"/api/waters/{self.water}/readings")[0]["reading"]["wind_m_s"])
        self.assertEqual(winds[0], winds[1])
        self.assertEqual((stored["reading"]["cloud_oktas"], stored["reading"]["wind_m_s"]), (1, 4))
        self.assertTrue(stored["reading"]["profile_at"])
        self.assertNotEqual(before["belief"], after["belief"])
        for turn in ("wind-up", "wind-dropped", "coloured", "rise", "quiet", "cloud-over"):
            self.call("POST", f"/api/outings/{self.outing}/turn", {"reading_id": str(uuid.uuid4()), "turn": turn})
        newest = self.call("GET", f"/api/waters/{self.water}/readings")[0]
        self.assertEqual([s["sign"] for s in newest["sightings"]], ["nothing-rises"])
        self.assertEqual((newest["reading"]["clarity"], newest["reading"]["cloud_oktas"]), ("coloured", 8))
        self.call("POST", f"/api/outings/{self.outing}/turn", {**turned, "turn": "hail"}, status=422)

    def test_a_throat_sample_moves_the_food_and_is_a_reading(self):
        self.spell(60)

        def told(**more):
            body = {"reading_id": str(uuid.uuid4()), "turn": "sample", **more}
            return self.call("POST", f"/api/outings/{self.outing}/turn", body, 200 if more else 422)

        self.assertEqual(told()["errors"][0]["path"], "")
        daphnia = {"items": [{"prey": "daphnia", "count": 200}]}
        after = told(sample=daphnia)
        self.assertTrue(after["next"])
        stored = self.call("GET", f"/api/waters/{self.water}/readings")[0]
        self.assertEqual([s["items"][0]["prey"] for s in stored["samples"]], ["daphnia"])
        told(sample=daphnia)
        self.assertEqual(len(self.call("GET", f"/api/waters/{self.water}/readings")[0]["samples"]), 2)

    def test_nobody_elses(self):
        self.spell(90)
        self.make_user("stranger")
        stranger = self.sign_in("stranger")
        self.refused("GET", f"/api/outings/{self.outing}/next", None, 404, stranger)
        body = {"reading_id": str(uuid.uuid4()), "turn": "rise"}
        self.refused("POST", f"/api/outings/{self.outing}/turn", body, 404, stranger)

    def test_without_a_stretch_the_best_way_to_begin(self):
        self.assertEqual(self.asked()["next"][0]["kind"], "set-up")


class Neighbours(NextCase):
    """What others take moves the belief where they took it, half as much as one's own, and can be taken back."""

    def note(self, status=200, seen=None, **more):
        body = {"seen_at": instant(minutes=1), "minutes": 30, "takes": 3, "place": "Channel", "depth_m": 4.0, **more}
        seen = seen or str(uuid.uuid4())
        told = self.call("PUT", f"/api/outings/{self.outing}/seen/{seen}", body, status)
        return seen if status == 200 else told

    def near(self, depth):
        here = next(one for one in self.asked()["belief"] if one["place"] == "Channel")
        cells = here["mass"][int(depth / 0.2) - 2 : int(depth / 0.2) + 3]
        return sum(cells)

    def test_three_fish_at_four_metres_draw_the_belief_there(self):
        self.spell(60)
        before = self.near(4.0)
        seen = self.note()
        self.assertGreater(self.near(4.0), before)
        self.call("DELETE", f"/api/outings/{self.outing}/seen/{seen}", status=204)
        self.assertAlmostEqual(self.near(4.0), before, places=4)

    def test_what_is_not_known_is_left_out_and_what_is_wrong_refused(self):
        self.spell(60)
        self.note(depth_m=None, place="")
        told = self.note(422, takes=-1, minutes=0)
        self.assertEqual({one["path"] for one in told["errors"]}, {"takes", "minutes"})

    def test_nobody_elses_outing(self):
        self.make_user("other")
        client = self.sign_in("other")
        body = {"seen_at": instant(minutes=1), "minutes": 30, "takes": 1}
        self.refused("PUT", f"/api/outings/{self.outing}/seen/{uuid.uuid4()}", body, 404, client)

    def test_the_days_belief_is_told_for_its_owner_alone(self):
        self.spell(60)
        told = self.call("GET", f"/api/outings/{self.outing}/belief")
        self.assertEqual(told["place"], "Channel")
        self.assertGreater(len(told["moments"]), 5)
        self.make_user("other")
        self.refused("GET", f"/api/outings/{self.outing}/belief", status=404, client=self.sign_in("other"))
