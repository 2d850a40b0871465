"""Eight phones write the same new row at once, and a server killed at any moment keeps what it has acknowledged."""

import http.client
import http.cookiejar
import json
import os
import random
import threading
import unittest
import urllib.error
import urllib.request
import uuid

from tests.api.base import PASSWORD, WATER
from tests.serving.process import Served

PHONES, ROUNDS = 8, 12
KILLS = int(os.environ.get("STILL_KILLS", "50"))


class Phone:
    """A client of the API with its own cookies."""

    def __init__(self, served):
        self.at = f"http://127.0.0.1:{served.port}"
        self.jar = http.cookiejar.CookieJar()
        self.opener = urllib.request.build_opener(urllib.request.HTTPCookieProcessor(self.jar))

    def call(self, method, path, body=None):
        """Return status and answer; raises OSError where there is no answer."""
        token = next((c.value for c in self.jar if c.name == "csrftoken"), "")
        data = None if body is None else json.dumps(body).encode()
        headers = {"X-CSRFToken": token, "Content-Type": "application/json"}
        asked = urllib.request.Request(self.at + path, data, headers, method=method)
        try:
            with self.opener.open(asked, timeout=30) as answer:
                return answer.status, json.load(answer)
        except urllib.error.HTTPError as refused:
            return refused.code, json.load(refused)

    def sign(self, way):
        self.call("GET", "/api/session")
        return self.call("POST", f"/api/session/{way}", {"name": "angler", "password": PASSWORD})


class Writing(unittest.TestCase):
    def setUp(self):
        self.served = Served()
        self.addCleanup(self.served.close)
        self.served.migrate()
        self.served.start()
        self.phone = Phone(self.served)
        self.phone.sign("sign-up")
        self.water = str(uuid.uuid4())
        places = [{**place, "id": str(uuid.uuid4())} for place in WATER["places"]]
        status, told = self.phone.call("PUT", f"/api/waters/{self.water}", {**WATER, "places": places})
        self.assertEqual(status, 200, told)

    def outing(self, phone, outing, note=""):
        body = {"water_id": self.water, "started_at": "2026-05-01T09:00:00Z", "note": note}
        return phone.call("PUT", f"/api/outings/{outing}", body)

    def test_one_new_row_from_eight_phones_at_once(self):
        phones = [Phone(self.served) for _ in range(PHONES)]
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
            timer = threading.Timer(rng.uniform(0.05, 0.6), self.served.kill)
            timer.start()
            try:
                while True:
                    outing = str(uuid.uuid4())
                    sent[outing] = f"note {n}"
                    if self.outing(self.phone, outing, sent[outing])[0] == 200:
                        kept[outing] = sent[outing]
            except (OSError, ValueError, http.client.HTTPException):
                pass
            timer.join()
            self.served.kill()
            self.served.start()
        found = {one["id"]: one["note"] for one in self.phone.call("GET", "/api/log")[1]["outings"]}
        whole = self.phone.call("GET", "/api/log")[1]
        self.assertGreater(len(kept), KILLS / 2)
        self.assertLessEqual(set(found), set(sent))
        missing = [o for o in kept if self.phone.call("GET", f"/api/outings/{o}")[1].get("note") != kept[o]]
        self.assertEqual(missing, [], whole.get("errors"))
