"""Eight phones write the same new row at once, and a server killed at any moment keeps what it has acknowledged."""

import http.client
import os
import random
import threading
import uuid

from tests.serving.phone import Phone
from tests.serving.writing import WritingCase

PHONES, ROUNDS = 8, 12
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
