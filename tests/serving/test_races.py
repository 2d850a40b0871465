"""Eight phones write the same new row at once, and a server killed at any moment keeps what it has acknowledged."""

import http.client
import os
import random
import threading
import uuid

from tests.serving.phone import Phone
from tests.serving.writing import WritingCase

PHONES, ROUNDS = 8, 12
BATCHES, BATCH, REPLAYS, DEATHS = 10, 20, 12, 6
KILLS = int(os.environ.get("STILL_KILLS", "50"))


class Writing(WritingCase):
    def test_one_new_row_from_eight_phones_at_once(self):
        phones = [Phone(self.served.port) for _ in range(PHONES)]
        for phone in phones:
            phone.sign("sign-in")
        statuses = []
        for _ in range(ROUNDS):
            outing, gate = uuid.uuid4(), threading.Barrier(PHONES)

            def write(phone, outing=outing, gate=gate):
                gate.wait()
                statuses.append(self.outing(phone, outing)[0])

            threads = [threading.Thread(target=write, args=(phone,)) for phone in phones]
            for thread in threads:
                thread.start()
            for thread in threads:
                thread.join()
        self.assertEqual(statuses, [200] * PHONES * ROUNDS)
        self.assertEqual(len(self.phone.call("GET", "/api/log")[1]["outings"]), ROUNDS)

    def test_killed_at_any_moment_it_keeps_what_it_said_it_had(self):
        rng = random.Random(7)
        kept, sent = {}, {}
        for n in range(KILLS):
            dies = None
            try:
                while True:
                    outing = str(uuid.uuid4())
                    sent[outing] = f"note {n}"
                    if self.outing(self.phone, outing, sent[outing])[0] == 200:
                        kept[outing] = sent[outing]
                    if dies is None:  # at any moment of the writes that follow the first
                        dies = threading.Timer(rng.uniform(0.0, 0.2), self.served.kill)
                        dies.start()
            except (OSError, ValueError, http.client.HTTPException):
                pass
            dies.join()
            self.served.start()
        found = {one["id"]: one["note"] for one in self.phone.call("GET", "/api/log")[1]["outings"]}
        whole = self.phone.call("GET", "/api/log")[1]
        self.assertGreaterEqual(len(kept), KILLS)
        self.assertLessEqual(set(found), set(sent))
        missing = [o for o in kept if self.phone.call("GET", f"/api/outings/{o}")[1].get("note") != kept[o]]
        self.assertEqual(missing, [], whole.get("errors"))

    def test_days_sent_again_and_again_arrive_once(self):
        """A phone whose answers are lost sends its queue again, from several pages, to a server that dies in between."""
        rng = random.Random(11)
        outing, spell = str(uuid.uuid4()), str(uuid.uuid4())
        at = "2026-05-01T09:00:00Z"
        begun = {"water_id": self.water, "started_at": at}
        rows = [self.row("outing", outing, outing, begun)]
        rows.append(self.row("spell", outing, spell, {"method": "float", "title": "Float", "started_at": at}))
        told = {"spell_id": spell, "kind": "pluck", "occurred_at": at}
        rows += [self.row("event", outing, str(uuid.uuid4()), told) for _ in range(BATCH * BATCHES)]
        acknowledged = set()

        def send(phone):
            for _ in range(REPLAYS):
                start = rng.randrange(BATCHES) * BATCH
                part = [*rows[:2], *rows[2 + start : 2 + start + BATCH]]
                try:
                    status, answer = phone.call("POST", "/api/outings/rows", {"rows": part})
                except (OSError, ValueError, http.client.HTTPException):
                    continue
                if status == 200:
                    acknowledged.update(one["id"] for one in answer["rows"] if one["status"] == 200)

        phones = [Phone(self.served.port) for _ in range(4)]
        for phone in phones:
            phone.sign("sign-in")
        for _ in range(DEATHS):
            threads = [threading.Thread(target=send, args=(phone,)) for phone in phones]
            for thread in threads:
                thread.start()
            threading.Event().wait(rng.uniform(0.05, 0.4))
            self.served.kill()
            for thread in threads:
                thread.join()
            self.served.start()
        self.phone.line.close()  # of the server that died
        for start in range(0, BATCH * BATCHES, BATCH):
            part = [*rows[:2], *rows[2 + start : 2 + start + BATCH]]
            told = self.phone.call("POST", "/api/outings/rows", {"rows": part})[1]
            self.assertEqual({one["status"] for one in told["rows"]}, {200})
        kept = self.phone.call("GET", f"/api/outings/{outing}")[1]
        ids = [one["id"] for one in kept["events"]]
        self.assertEqual(sorted(ids), sorted(row["id"] for row in rows[2:]))
        self.assertLessEqual(acknowledged, {outing, spell, *ids})

    def row(self, kind, outing, row, body):
        return {"kind": kind, "outing": outing, "id": row, "body": body}
