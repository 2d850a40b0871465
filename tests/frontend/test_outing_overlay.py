"""What waits on the device is laid over what the server has."""

from datetime import UTC, datetime

from tests.frontend.base import ModuleCase

OUTING = {
    "id": "o",
    "note": "",
    "spells": [{"id": "s1", "title": "Intermediate"}],
    "events": [{"id": "e1", "spell_id": "s1", "kind": "take"}],
}


class Overlay(ModuleCase):
    module = "offline/overlay.ts"

    def write(self, kind, row, body):
        return self.call("withWrite", OUTING, {"kind": kind, "outing": "o", "id": row, "body": body})

    def test_a_new_event_is_added_and_a_known_one_replaced(self):
        added = self.write("event", "e2", {"spell_id": "s1", "kind": "landed"})
        self.assertEqual([e["kind"] for e in added["events"]], ["take", "landed"])
        changed = self.write("event", "e1", {"spell_id": "s1", "kind": "lost"})
        self.assertEqual([(e["id"], e["kind"]) for e in changed["events"]], [("e1", "lost")])

    def test_deletes(self):
        self.assertEqual(self.write("event", "e1", None)["events"], [])
        self.assertEqual(self.write("spell", "s1", None)["spells"], [])
        self.assertEqual(self.write("event", "nobody", None)["events"], OUTING["events"])

    def test_a_spell_and_the_outing_itself(self):
        self.assertEqual(self.write("spell", "s2", {"title": "Dry"})["spells"][1], {"id": "s2", "title": "Dry"})
        self.assertEqual(self.write("outing", "o", {"note": "cold"})["note"], "cold")
        self.assertEqual(self.write("outing", "o", None), {**OUTING, "revision": 0})  # written again, it comes back

    def test_an_edit_names_the_revision_the_server_told(self):
        outing = {
            **OUTING,
            "revision": 4,
            "spells": [{"id": "s1", "revision": 2}],
            "events": [{"id": "e1", "revision": 0}],
        }

        def named(kind, row, of=outing):
            return self.call("revisionOf", of, {"kind": kind, "outing": "o", "id": row, "body": {}})

        self.assertEqual((named("outing", "o"), named("spell", "s1")), (4, 2))
        for kind, row in (("spell", "s2"), ("event", "e1")):  # rows the server does not have yet
            self.assertIsNone(named(kind, row))
        self.assertIsNone(named("outing", "o", None))
        body = {"title": "Dry"}
        arrived = self.call("withWrite", outing, {"kind": "spell", "outing": "o", "id": "s1", "body": body}, 3)
        self.assertEqual(named("spell", "s1", arrived), 3)

    def test_the_fish_on_the_end_of_an_open_take(self):
        def tap(row, kind, at, spell="s1"):
            return {"id": row, "spell_id": spell, "kind": kind, "occurred_at": f"2026-05-14T10:{at}:00Z"}

        now = 1778754000000 + 10 * 60_000  # 10:30 and ten minutes, UTC
        self.assertEqual(datetime.fromtimestamp(now / 1000, UTC).isoformat(), "2026-05-14T10:30:00+00:00")
        cases = {
            "t": [tap("t", "take", "20"), tap("p", "pluck", "25")],
            None: [tap("t", "take", "10")],  # a quarter of an hour ago and more
            "u": [tap("t", "take", "20"), tap("l", "landed", "22"), tap("u", "take", "28")],
        }
        closed = [[tap("t", "take", "20"), tap("l", "lost", "22")], [tap("t", "take", "29", "s2")], []]
        for wanted, events in [*cases.items(), *((None, one) for one in closed)]:
            found = self.call("openTake", {"events": events, "longest_fight_s": 900}, "s1", now)
            self.assertEqual(found["id"] if found else None, wanted, events)

    def test_bodies_carry_no_id(self):
        self.assertEqual(self.call("spellBody", {"id": "s", "title": "Dry"}), {"title": "Dry"})
        self.assertEqual(self.call("eventBody", {"id": "e", "kind": "take"}), {"kind": "take"})
