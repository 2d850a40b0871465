"""The boat feed on a socket: NMEA 0183 over TCP to whoever connects, once a second."""

from __future__ import annotations

import socketserver
import sys
import threading
import time
from typing import Any

from stillthread.standins.boat import Boat, stream


class SounderServer(socketserver.ThreadingTCPServer):
    """Serves one boat to any number of listeners; `speed` runs its clock faster, `cut_after_s` cuts each feed in mid-sentence."""

    allow_reuse_address = True
    daemon_threads = True

    def __init__(self, address: tuple[str, int], boat: Boat, speed: float = 1.0, cut_after_s: float | None = None):
        """Bind to an address; port 0 takes any free one."""
        super().__init__(address, _Listener)
        self.boat, self.speed, self.cut_after_s = boat, speed, cut_after_s
        self.latest: bytes = b""
        self.count = 0
        self.told = threading.Condition()

    def run_boat(self) -> None:
        """Move the boat on second by second and wake the listeners, for ever."""
        for data in stream(self.boat):
            with self.told:
                self.latest, self.count = data, self.count + 1
                self.told.notify_all()
            time.sleep(1.0 / self.speed)


class _Listener(socketserver.BaseRequestHandler):
    server: SounderServer

    def handle(self) -> None:
        seen, started = self.server.count, time.monotonic()
        try:
            while True:
                with self.server.told:
                    if self.server.count == seen and not self.server.told.wait(timeout=30):
                        continue
                    data, seen = self.server.latest, self.server.count
                limit = self.server.cut_after_s
                if limit is not None and time.monotonic() - started > limit:
                    self.request.sendall(data[: len(data) // 2 + 3])  # the line goes dead in the middle of a sentence
                    return
                self.request.sendall(data)
        except OSError:
            return


def _hand(boat: Boat) -> None:
    """A depth in metres typed on standard input lowers the thermometer to it; an empty line hauls it in."""
    for line in sys.stdin:
        text = line.strip().replace(",", ".")
        try:
            boat.probe_m = max(0.0, float(text)) if text else None
        except ValueError:
            sys.stderr.write(f"'{text}' is no depth: type metres, or nothing to haul in\n")


def serve(address: tuple[str, int], boat: Boat, speed: float = 1.0, cut_after_s: float | None = None) -> Any:
    """Serve a boat until the process is stopped; says on standard output where it listens."""
    with SounderServer(address, boat, speed, cut_after_s) as server:
        threading.Thread(target=server.run_boat, daemon=True).start()
        threading.Thread(target=_hand, args=(boat,), daemon=True).start()
        host, port = server.server_address[:2]
        sys.stdout.write(f"boat feed (simulated): {host!s}:{port}\n")
        sys.stdout.flush()
        server.serve_forever()
