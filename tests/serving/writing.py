"""Phones that write to a served application."""

import http.cookiejar
import json
import unittest
import urllib.error
import urllib.request
import uuid

from tests.api.base import PASSWORD, WATER
from tests.serving.process import Served


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


class WritingCase(unittest.TestCase):
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
