"""Many writes at once: each stands or falls by itself, and the same sent again is the same."""

import uuid

from stillthread.outings.models import Event, Outing, Spell
from tests.api.test_next import NextCase, instant


class Rows(NextCase):
    def rows(self, *rows, status=200, **more):
        return self.call("POST", "/api/outings/rows", {"rows": list(rows), **more}, status)

    def row(self, kind, body, row=None, outing=None, on=None):
        return {"kind": kind, "outing": outing or self.outing, "id": row or str(uuid.uuid4()), "on": on, "body": body}

    def stretch(self, **more):
        return {"method": "float", "title": "Float", "started_at": instant(minutes=50), **more}

    def test_a_whole_day_in_one_go_and_again(self):
        outing, spell = str(uuid.uuid4()), str(uuid.uuid4())
        day = [
            self.row("outing", {"water_id": self.water, "started_at": instant(hours=3)}, outing, outing),
            self.row("spell", self.stretch(), spell, outing),
            *(
                self.row("event", {"spell_id": spell, "kind": "take", "occurred_at": instant(minutes=n)}, None, outing)
                for n in range(40, 0, -1)
            ),
        ]
        for _ in range(2):
            told = self.rows(*day)["rows"]
            self.assertEqual({one["status"] for one in told}, {200})
            self.assertEqual([one["id"] for one in told], [one["id"] for one in day])
            self.assertEqual({one["revision"] for one in told}, {1})
        self.assertEqual((Spell.objects.count(), Event.objects.count()), (1, 40))

    def test_one_refused_holds_nothing_up(self):
        spell = str(uuid.uuid4())
        told = self.rows(
            self.row("spell", self.stretch(), spell),
            self.row("event", {"spell_id": spell, "kind": "bite", "occurred_at": instant(minutes=9)}),
            self.row("event", {"spell_id": str(uuid.uuid4()), "kind": "take", "occurred_at": instant(minutes=9)}),
            self.row("event", {"spell_id": spell, "kind": "take", "occurred_at": instant(minutes=8)}),
        )["rows"]
        self.assertEqual([one["status"] for one in told], [200, 422, 404, 200])
        self.assertEqual(told[1]["errors"][0]["path"], "kind")
        self.assertEqual(Event.objects.count(), 1)

    def test_an_older_edit_is_told_both(self):
        spell = str(uuid.uuid4())
        first = self.rows(self.row("spell", self.stretch(), spell))["rows"][0]["revision"]
        self.rows(self.row("spell", self.stretch(title="There"), spell, on=first))
        (told,) = self.rows(self.row("spell", self.stretch(title="Here"), spell, on=first))["rows"]
        self.assertEqual((told["status"], told["kept"]["title"]), (409, "There"))
        (gone,) = self.rows(self.row("spell", None, spell, on=first + 1))["rows"]
        self.assertEqual(gone["status"], 204)

    def test_a_plan_made_in_the_dark_is_laid_into_its_outing_once(self):
        outing = str(uuid.uuid4())
        plan = {"water_id": self.water, "when": instant(hours=2), "reading": {"wind_m_s": 3.0}}
        begun = self.row("outing", {"water_id": self.water, "started_at": instant(hours=2)}, outing, outing)
        told = self.rows(self.row("plan", plan, None, outing), begun)["rows"]
        self.assertEqual([one["status"] for one in told], [200, 200])
        kept = self.call("GET", f"/api/outings/{outing}")
        self.assertTrue(kept["plan"]["set_ups"])
        other = {**plan, "reading": {"wind_m_s": 9.0}}
        self.rows(self.row("plan", other, None, outing))
        self.assertEqual(self.call("GET", f"/api/outings/{outing}")["plan_id"], kept["plan_id"])
        self.rows({**begun, "body": {**begun["body"], "note": "mended"}})
        self.assertTrue(self.call("GET", f"/api/outings/{outing}")["plan"])

    def test_a_turn_of_the_day_is_noted_when_it_came(self):
        at = instant(minutes=30)
        row = self.row("turn", {"turn": "sun-out", "at": at})
        for _ in range(2):
            self.assertEqual(self.rows(row)["rows"][0]["status"], 200)
        (kept,) = self.call("GET", f"/api/waters/{self.water}/readings")
        self.assertEqual((kept["reading"]["cloud_oktas"], kept["taken_at"][:19]), (1, at[:19]))

    def test_a_day_begun_in_the_dark_ends_what_else_was_on_the_go(self):
        outing = str(uuid.uuid4())
        began = instant(minutes=20)
        body = {"water_id": self.water, "started_at": began}
        for _ in range(2):  # sent again, it ends nothing more
            self.rows(self.row("outing", body, outing, outing))
        self.assertEqual(self.call("GET", "/api/outings/running")["outing"]["id"], outing)
        self.assertEqual(self.call("GET", f"/api/outings/{self.outing}")["ended_at"][:19], began[:19])

    def test_bounds_and_versions(self):
        self.assertEqual(self.rows(status=422)["errors"][0]["path"], "rows")
        many = [self.row("event", None) for _ in range(201)]
        self.assertEqual(self.rows(*many, status=422)["errors"][0]["path"], "rows")
        self.assertEqual(self.rows(self.row("event", None), version=9, status=422)["errors"][0]["path"], "version")
        self.assertEqual(self.rows(self.row("event", None), version=1)["rows"][0]["status"], 404)

    def test_another_angler_writes_nothing_here(self):
        self.make_user("stranger")
        mine, self.client = self.client, self.sign_in("stranger")
        told = self.rows(self.row("spell", self.stretch()), self.row("outing", None, self.outing))["rows"]
        self.client = mine
        self.assertEqual([one["status"] for one in told], [404, 404])
        self.assertIsNone(Outing.objects.get(pk=self.outing).deleted_at)


class IfBlank(NextCase):
    def test_from_what_is_fished_and_from_a_plan(self):
        self.spell(30)
        (told,) = self.call("GET", f"/api/outings/{self.outing}/if-blank")
        self.assertEqual(told["key"], "")
        self.assertTrue(told["phases"][0]["next"]["words"])
        body = {"water_id": self.water, "when": instant(hours=0), "reading": {}}
        preview = self.call("POST", "/api/plans/preview", body)
        self.assertEqual(len(preview["starts"]), len(preview["set_ups"]))
        ways = self.call("POST", "/api/plans/if-blank", body)
        self.assertLessEqual({one["key"] for one in ways}, {one["key"] for one in preview["set_ups"]})
        self.make_user("stranger")
        self.refused("GET", f"/api/outings/{self.outing}/if-blank", status=404, client=self.sign_in("stranger"))
