"""A served application, and a phone with an account and a water that writes to it."""

import unittest
import uuid

from tests.api.base import WATER
from tests.serving.phone import Phone
from tests.serving.process import Forked


class WritingCase(unittest.TestCase):
    def setUp(self):
        self.served = Forked()
        self.addCleanup(self.served.close)
        self.served.migrate()
        self.served.start()
        self.phone = Phone(self.served.port)
        self.phone.sign("sign-up")
        self.water = str(uuid.uuid4())
        places = [{**place, "id": str(uuid.uuid4())} for place in WATER["places"]]
        self.phone.write(f"/api/waters/{self.water}", {**WATER, "places": places})

    def outing(self, phone, outing, note=""):
        body = {"water_id": self.water, "started_at": "2026-05-01T09:00:00Z", "note": note}
        return phone.call("PUT", f"/api/outings/{outing}", body)
