"""Speeds and sizes with their budgets, in one run: `./still bench`. Machines differ; compare the ratios."""

from __future__ import annotations

import os
import pathlib
import socket
import statistics
import subprocess
import sys
import time
import urllib.request
from collections.abc import Callable

from check_size import first_loads

ROOT = pathlib.Path(__file__).resolve().parents[1]
sys.path.insert(0, str(ROOT))
EXAMPLE = ROOT / "docs" / "examples" / "day.json"


def milliseconds(work: Callable[[], object], runs: int) -> tuple[float, float]:
    """Return median and 95th percentile of `runs` timed calls, after one that is not counted."""
    work()
    taken = []
    for _ in range(runs):
        start = time.perf_counter()
        work()
        taken.append((time.perf_counter() - start) * 1000)
    return statistics.median(taken), statistics.quantiles(taken, n=20)[-1]


def row(what: str, value: str, budget: str, kept: bool) -> bool:
    """Print one figure beside its budget."""
    sys.stdout.write(f"{what:<58} {value:>22}   budget {budget:<12} {'kept' if kept else 'MISSED'}\n")
    return kept


def plan_bench() -> bool:
    """A plan from its document, warm; and the share of the belief in it."""
    from stillthread.core.plan.make import make_plan
    from stillthread.documents.plan import PlanRequest, plan_input_from
    from stillthread.documents.plan_answer import plan_answer
    from stillthread.documents.strict import parse_document

    given = plan_input_from(parse_document(PlanRequest, EXAMPLE.read_text("utf-8")))
    core, core_95 = milliseconds(lambda: make_plan(given), 60)
    whole, whole_95 = milliseconds(lambda: plan_answer(given, make_plan(given)).model_dump_json(), 60)
    kept = row("plan, core only, warm (median, p95)", f"{core:.0f} ms, {core_95:.0f} ms", "300 ms", core_95 <= 300)
    kept &= row("plan to JSON, warm", f"{whole:.0f} ms, {whole_95:.0f} ms", "300 ms", whole_95 <= 300)
    sys.stdout.write(f"{'  ratio to JSON / core':<58} {whole / core:>22.2f}\n")
    return kept


def command_bench() -> bool:
    """The command from a cold start, as its own process."""
    command = [sys.executable, "-m", "stillthread.cli", "plan", str(EXAMPLE)]
    cold, _ = milliseconds(lambda: subprocess.run(command, cwd=ROOT, check=True, capture_output=True), 5)
    return row("./still plan, whole process (median)", f"{cold:.0f} ms", "1500 ms", cold <= 1500)


def size_bench() -> bool:
    """JavaScript of the first load of each page, gzip."""
    kept = True
    for name, kb, most in first_loads():
        kept &= row(f"first load of {name}, JavaScript gzip", f"{kb:.1f} kB", f"{most:.0f} kB", kb <= most)
    return kept


def _free_port() -> int:
    with socket.socket() as probe:
        probe.bind(("127.0.0.1", 0))
        return int(probe.getsockname()[1])


def start_bench() -> bool:
    """A second `./still demo`, from the command to its first page; then requests to that server."""
    port = _free_port()
    environment = {**os.environ, "STILL_PORT": str(port)}
    start = time.perf_counter()
    quiet = subprocess.DEVNULL
    server = subprocess.Popen([str(ROOT / "still"), "demo"], env=environment, stdout=quiet, stderr=quiet)
    address = f"http://127.0.0.1:{port}/"
    try:
        while True:
            try:
                urllib.request.urlopen(address, timeout=1).read()  # noqa: S310 - our own server
                break
            except OSError:
                if time.perf_counter() - start > 60:
                    raise
                time.sleep(0.02)
        first = time.perf_counter() - start
        kept = row("second ./still demo to first page", f"{first:.1f} s", "6 s", first <= 6)
        session = address + "api/session"
        page, page_95 = milliseconds(lambda: urllib.request.urlopen(session).read(), 60)  # noqa: S310
        return kept & row(
            "a small API call (median, p95)", f"{page:.1f} ms, {page_95:.1f} ms", "100 ms", page_95 <= 100
        )
    finally:
        server.terminate()
        server.wait(10)


def main() -> int:
    """Run all; the exit status says whether every budget was kept."""
    kept = [plan_bench(), command_bench(), size_bench(), start_bench()]
    return 0 if all(kept) else 1


if __name__ == "__main__":
    sys.exit(main())
