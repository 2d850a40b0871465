"""Measure many phones writing at once: bench_load.py [--phones N] [--seconds S] [--json]. Its own server, its own database."""

from __future__ import annotations

import argparse
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

from scripts.goals import tell  # noqa: E402
from tests.api.base import WATER  # noqa: E402
from tests.serving.phone import Phone  # noqa: E402
from tests.serving.process import Served  # noqa: E402

P95_MS, CPU_MS, READ_MS, EVENTS = 150.0, 8.0, 30.0, 220
AT = "2026-05-01T09:00:00Z"


class Angler(Phone):
    """A phone with an outing and a stretch on the go."""

    def begin(self, name: str) -> None:
        """Make an account, a water, an outing and a stretch."""
        self.sign("sign-up", name)
        water, self.outing, self.spell = (str(uuid.uuid4()) for _ in range(3))
        places = [{**place, "id": str(uuid.uuid4())} for place in WATER["places"]]
        self.write(f"/api/waters/{water}", {**WATER, "places": places})
        self.write(f"/api/outings/{self.outing}", {"water_id": water, "started_at": AT})
        spell = {"method": "float", "title": "Float", "started_at": AT}
        self.write(f"/api/outings/{self.outing}/spells/{self.spell}", spell)

    def event(self) -> int:
        """Write a take; returns the status."""
        body = {"spell_id": self.spell, "kind": "take", "occurred_at": AT, "depth_m": 2.0}
        return self.call("PUT", f"/api/outings/{self.outing}/events/{uuid.uuid4()}", body)[0]


def cpu_s(pid: int) -> float:
    """Return the processor time [s] a process has had."""
    fields = pathlib.Path(f"/proc/{pid}/stat").read_text("ascii").rsplit(")", 1)[1].split()
    return (int(fields[11]) + int(fields[12])) / os.sysconf("SC_CLK_TCK")


def percentile(values: list[float], share: float) -> float:
    """Return a percentile of some milliseconds."""
    return sorted(values)[min(len(values) - 1, int(share * len(values)))] if values else 0.0


def alone(phone: Angler, pid: int) -> dict[str, float]:
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


def together(phones: list[Angler], seconds: float) -> dict[str, float]:
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
        phones = [Angler(served.port) for _ in range(asked.phones)]
        for n, phone in enumerate(phones):
            phone.begin(f"angler-{n}")
        out = {**alone(phones[0], served.process.pid), **together(phones, asked.seconds)}
        kept = sum(len(p.call("GET", f"/api/outings/{p.outing}")[1]["events"]) for p in phones)
        out["lost"] = 10 + EVENTS + out["writes"] - kept
    finally:
        served.close()
    goals = {"write_cpu_ms": CPU_MS, "read_outing_ms": READ_MS, "p95_ms": P95_MS, "refused": 0, "lost": 0}
    tell(out, goals, asked.json)


if __name__ == "__main__":
    main()
