"""Stand-ins as separate processes on real sockets, started and killed by the tests."""

from __future__ import annotations

import re
import subprocess
import sys
import time
import unittest

from stillthread.site.settings import ROOT


class Process:
    """One stand-in in a process of its own, on a free port unless one is wanted."""

    def __init__(self, kind: str, *arguments: str, port: int = 0):
        self.kind = kind
        command = [sys.executable, "-m", "stillthread.standins", kind, f"--{kind}-port", str(port), *arguments]
        self.process = subprocess.Popen(
            command, stdin=subprocess.PIPE, stdout=subprocess.PIPE, stderr=subprocess.PIPE, text=True, cwd=ROOT
        )
        line = self.process.stdout.readline()
        found = re.search(r":(\d+)", line.replace("http://", ""))
        if found is None:
            raise AssertionError(f"no address in {line!r}: {self.process.stderr.read()}")
        self.port = int(found.group(1))

    def lower(self, depth_m: float) -> None:
        """Lower the boat's thermometer, as the hand at the terminal does."""
        self.process.stdin.write(f"{depth_m}\n")
        self.process.stdin.flush()

    def kill(self) -> None:
        """The cable is pulled: no goodbye."""
        self.process.kill()
        self.process.wait()
        for stream in (self.process.stdin, self.process.stdout, self.process.stderr):
            stream.close()


class StandinCase(unittest.TestCase):
    def start(self, kind: str, *arguments: str, port: int = 0) -> Process:
        process = Process(kind, *arguments, port=port)
        self.addCleanup(lambda: process.process.poll() is None and process.kill())
        return process

    def until(self, what, seconds: float = 15.0):
        """Wait until something is true, and return it; a condition that never comes fails the test."""
        end = time.monotonic() + seconds
        while time.monotonic() < end:
            found = what()
            if found:
                return found
            time.sleep(0.02)
        raise AssertionError("it never came")
