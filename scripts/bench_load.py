"""Measure many phones writing at once: bench_load.py [--phones N] [--seconds S] [--json]. Its own server, its own database."""

from __future__ import annotations

import argparse
import http.client
import json
import os
import pathlib
import sys
import threading
import time
import uuid

ROOT = pathlib.Path(__file__).resolve().parents[1]
sys.path.insert(0, str(ROOT))
os.environ.setdefault("DJANGO_SETTINGS_MODULE", "stillthread.site.settings")

import django  # noqa: E402

django.setup()

from tests.api.base import PASSWORD, WATER  # noqa: E402
from tests.serving.process import Served  # noqa: E402

P95_MS, CPU_MS, READ_MS, EVENTS = 150.0, 8.0, 30.0, 220
AT = "2026-05-01T09:00:00Z"


class Phone:
    """A client with one connection kept open."""

    def __init__(self, port: int) -> None:
        self.line = http.client.HTTPConnection("127.0.0.1", port, timeout=60)
        self.cookies: dict[str, str] = {}

    def call(self, method: str, path: str, body: object = None) -> tuple[int, bytes]:
        """Ask and return status and body."""
        headers = {
            "Content-Type": "application/json",
            "X-CSRFToken": self.cookies.get("csrftoken", ""),
            "Cookie": "; ".join(f"{name}={value}" for name, value in self.cookies.items()),
        }
        self.line.request(method, path, None if body is None else json.dumps(body), headers)
        answer = self.line.getresponse()
        for name, value in answer.getheaders():
            if name.lower() == "set-cookie":
                key, _, rest = value.partition("=")
                self.cookies[key] = rest.split(";")[0]
        return answer.status, answer.read()

    def sign(self, name: str) -> None:
        """Make an account and a water with an outing and a stretch on the go."""
        self.call("GET", "/api/session")
        self.told(self.call("POST", "/api/session/sign-up", {"name": name, "password": PASSWORD}))
        self.water, self.outing, self.spell = (str(uuid.uuid4()) for _ in range(3))
        places = [{**place, "id": str(uuid.uuid4())} for place in WATER["places"]]
        self.told(self.call("PUT", f"/api/waters/{self.water}", {**WATER, "places": places}))
        self.told(self.call("PUT", f"/api/outings/{self.outing}", {"water_id": self.water, "started_at": AT}))
        spell = {"method": "float", "title": "Float", "started_at": AT}
        self.told(self.call("PUT", f"/api/outings/{self.outing}/spells/{self.spell}", spell))

    def event(self) -> int:
        """Write a take; returns the status."""
        body = {"spell_id": self.spell, "kind": "take", "occurred_at": AT, "depth_m": 2.0}
        return self.call("PUT", f"/api/outings/{self.outing}/events/{uuid.uuid4()}", body)[0]

    @staticmethod
    def told(answer: tuple[int, bytes]) -> None:
        """Raise RuntimeError where it was refused."""
        if answer[0] >= 400:
            raise RuntimeError(answer[1].decode())


def cpu_s(pid: int) -> float:
    """Return the processor time [s] a process has had."""
    fields = pathlib.Path(f"/proc/{pid}/stat").read_text("ascii").rsplit(")", 1)[1].split()
    return (int(fields[11]) + int(fields[12])) / os.sysconf("SC_CLK_TCK")


def percentile(values: list[float], share: float) -> float:
    """Return a percentile of some milliseconds."""
    return sorted(values)[min(len(values) - 1, int(share * len(values)))] if values else 0.0


def alone(phone: Phone, pid: int) -> dict[str, float]:
    """Return what one write costs the server, and how long a long outing takes to read."""
    for _ in range(10):
        phone.event()
    begun = cpu_s(pid)
    for _ in range(EVENTS):
        phone.event()
    cost = 1000 * (cpu_s(pid) - begun) / EVENTS
    took = []
    for _ in range(20):
        start = time.perf_counter()
        phone.call("GET", f"/api/outings/{phone.outing}")
        took.append(1000 * (time.perf_counter() - start))
    return {"write_cpu_ms": cost, "read_outing_ms": percentile(took, 0.5)}


def together(phones: list[Phone], seconds: float) -> dict[str, float]:
    """Return how long writes took with every phone writing once a second, and what was refused."""
    took: list[float] = []
    refused: list[int] = []
    end = time.perf_counter() + seconds

    def write(n: int) -> None:
        due = time.perf_counter() + n / len(phones)
        while due < end:
            time.sleep(max(0.0, due - time.perf_counter()))
            start = time.perf_counter()
            status = phones[n].event()
            took.append(1000 * (time.perf_counter() - start))
            if status != 200:
                refused.append(status)
            due += 1.0

    threads = [threading.Thread(target=write, args=(n,)) for n in range(len(phones))]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    return {
        "writes": len(took),
        "refused": len(refused),
        "p50_ms": percentile(took, 0.5),
        "p95_ms": percentile(took, 0.95),
        "most_ms": max(took),
    }


def main() -> None:
    """Run it and print it."""
    parser = argparse.ArgumentParser(prog="still bench load", description=__doc__)
    parser.add_argument("--phones", type=int, default=50)
    parser.add_argument("--seconds", type=float, default=60.0)
    parser.add_argument("--json", action="store_true")
    asked = parser.parse_args()
    served = Served(STILL_SIGN_UPS="100000")
    try:
        served.migrate()
        served.start()
        assert served.process is not None
        phones = [Phone(served.port) for _ in range(asked.phones)]
        for n, phone in enumerate(phones):
            phone.sign(f"angler-{n}")
        out = {**alone(phones[0], served.process.pid), **together(phones, asked.seconds)}
        kept = sum(len(json.loads(p.call("GET", f"/api/outings/{p.outing}")[1])["events"]) for p in phones)
        out["lost"] = 10 + EVENTS + out["writes"] - kept
    finally:
        served.close()
    if asked.json:
        sys.stdout.write(json.dumps(out, indent=2) + "\n")
        return
    goals = {"write_cpu_ms": CPU_MS, "read_outing_ms": READ_MS, "p95_ms": P95_MS, "refused": 0, "lost": 0}
    for name, value in out.items():
        goal = goals.get(name)
        met = "" if goal is None else f"{'met' if value <= goal else 'MISSED'} (at most {goal:g})"
        sys.stdout.write(f"{name:16} {value:10.1f}  {met}\n")


if __name__ == "__main__":
    main()
