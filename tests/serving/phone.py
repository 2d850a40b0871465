"""A client of a served application: one connection, its own cookies."""

from __future__ import annotations

import http.client
import json
from typing import Any

from tests.api.base import PASSWORD


class Phone:
    """Asks as a phone does, over one connection that is made anew where it broke."""

    def __init__(self, port: int) -> None:
        self.line = http.client.HTTPConnection("127.0.0.1", port, timeout=60)
        self.cookies: dict[str, str] = {}

    def call(self, method: str, path: str, body: Any = None) -> tuple[int, Any]:
        """Ask and return status and answer; raises OSError or HTTPException where there is no answer.

        A line that the server has closed for want of use is made anew for a question that changes nothing, as browsers do.
        """
        headers = {
            "Content-Type": "application/json",
            "X-CSRFToken": self.cookies.get("csrftoken", ""),
            "Cookie": "; ".join(f"{name}={value}" for name, value in self.cookies.items()),
        }
        try:
            try:
                answer = self._asked(method, path, body, headers)
            except (http.client.RemoteDisconnected, ConnectionResetError, BrokenPipeError):
                if method != "GET":
                    raise
                self.line.close()
                answer = self._asked(method, path, body, headers)
            data = answer.read()
        except (OSError, http.client.HTTPException):
            self.line.close()
            raise
        for name, value in answer.getheaders():
            if name.lower() == "set-cookie":
                key, _, rest = value.partition("=")
                self.cookies[key] = rest.split(";")[0]
        told = answer.getheader("Content-Type", "").startswith("application/json") and data
        return answer.status, json.loads(data) if told else None

    def _asked(self, method: str, path: str, body: Any, headers: dict[str, str]) -> http.client.HTTPResponse:
        self.line.request(method, path, None if body is None else json.dumps(body), headers)
        return self.line.getresponse()

    def write(self, path: str, body: Any) -> Any:
        """Put a body and return the answer; raises RuntimeError where it is refused."""
        status, told = self.call("PUT", path, body)
        if status != 200:
            raise RuntimeError(told)
        return told

    def sign(self, way: str, name: str = "angler") -> None:
        """Sign in or up. Raises RuntimeError where that is refused."""
        self.call("GET", "/api/session")
        status, told = self.call("POST", f"/api/session/{way}", {"name": name, "password": PASSWORD})
        if status != 200:
            raise RuntimeError(told)
