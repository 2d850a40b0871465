"""A client that speaks JSON with CSRF, and an angler with a water and a kit."""

from __future__ import annotations

import json
import uuid
from datetime import datetime
from functools import cache
from typing import Any

from django.contrib.auth.models import User
from django.test import Client, TestCase

from stillthread.accounts.services import angler_of
from stillthread.site.api import api
from tests.clock import NOON, stopped_at

PASSWORD = "cold-morning-on-the-dam"
WATER = {
    "name": "Test mere",
    "max_depth_m": 8.0,
    "hemisphere": "north",
    "time_zone": "Europe/London",
    "rules": {"max_flies": 2},
    "places": [
        {"id": "", "name": "Shelf", "kind": "shoal", "depth_min_m": 1, "depth_max_m": 4},
        {"id": "", "name": "Channel", "kind": "drop-off", "depth_min_m": 4, "depth_max_m": 7},
    ],
}
LINES = [{"family": "floating"}, {"family": "intermediate", "label_ips": 1.2}, {"family": "sinking", "label_ips": 3.0}]


@cache
def contract() -> dict[str, Any]:
    """Return the API's OpenAPI document; making it takes two seconds."""
    return api.get_openapi_schema()


class ApiCase(TestCase):
    now: datetime | None = NOON  # None: what a test is about keeps time by another clock

    def setUp(self) -> None:
        if self.now is not None:
            self.enterContext(stopped_at(self.now))
        self.user = self.make_user("angler")
        self.client = self.sign_in("angler")

    def make_user(self, name: str) -> User:
        user = User.objects.create_user(name, password=PASSWORD)
        angler_of(user)
        return user

    def sign_in(self, name: str) -> Client:
        client = Client(enforce_csrf_checks=True)
        client.get("/api/session")
        done = self.call("POST", "/api/session/sign-in", {"name": name, "password": PASSWORD}, client=client)
        self.assertEqual(done["name"], name)
        return client

    def call(self, method: str, path: str, body: Any = None, status: int = 200, client: Client | None = None) -> Any:
        client = client or self.client
        token = client.cookies["csrftoken"].value if "csrftoken" in client.cookies else ""
        answer = client.generic(
            method,
            path,
            "" if body is None else json.dumps(body),
            content_type="application/json",
            headers={"X-CSRFToken": token},
        )
        self.assertEqual(answer.status_code, status, answer.content[:600])
        return answer.json() if answer.content else None

    def refused(
        self, method: str, path: str, body: Any = None, status: int = 422, client: Client | None = None
    ) -> dict:
        """Expect the one error shape; returns the problems by path."""
        told = self.call(method=method, path=path, body=body, status=status, client=client)
        self.assertEqual(set(told), {"errors"})
        for problem in told["errors"]:
            self.assertEqual(set(problem), {"code", "path", "message", "accepted", "hint"})
            self.assertTrue(problem["message"])
        return {problem["path"]: problem for problem in told["errors"]}

    def make_water(self, **changes: Any) -> str:
        water_id = str(uuid.uuid4())
        places = [{**place, "id": str(uuid.uuid4())} for place in WATER["places"]]
        self.call("PUT", f"/api/waters/{water_id}", {**WATER, "places": places, **changes})
        return water_id

    def make_kit(self) -> None:
        for line in LINES:
            self.call("PUT", f"/api/kit/lines/{uuid.uuid4()}", line)
        starter = self.call("GET", "/api/kit")["starter"]
        self.call("POST", "/api/kit/starter", {"keys": [fly["key"] for fly in starter]})
