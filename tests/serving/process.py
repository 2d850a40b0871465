"""A server of the application in a process of its own, on a database of its own."""

from __future__ import annotations

import os
import pathlib
import shutil
import signal
import socket
import sqlite3
import subprocess
import sys
import tempfile
import time
import urllib.request
from typing import Any

from django.conf import settings

ROOT = pathlib.Path(__file__).resolve().parents[2]
PATIENCE_S = 60.0
MADE: list[str] = []  # the tables as SQL


def free_port() -> int:
    """Return a port nobody listens at."""
    with socket.socket() as one:
        one.bind(("127.0.0.1", 0))
        return int(one.getsockname()[1])


def wait_for(port: int, process: subprocess.Popen[Any], log: pathlib.Path) -> None:
    """Return once something listens; raises RuntimeError with the log where it does not."""
    end = time.monotonic() + PATIENCE_S
    while time.monotonic() < end and process.poll() is None:
        try:
            socket.create_connection(("127.0.0.1", port), 1).close()
        except OSError:
            time.sleep(0.05)
        else:
            return
    raise RuntimeError(log.read_text("utf-8"))


class Served:
    """A folder with a database, and the server over it while it is wanted."""

    def __init__(self, **env: str) -> None:
        self.var = pathlib.Path(tempfile.mkdtemp(prefix="still-", dir=settings.VAR))
        self.port = free_port()
        self.log = self.var / "log"
        cache = os.environ.get("NUMBA_CACHE_DIR", str(settings.VAR / "numba"))
        kept = {name: value for name, value in os.environ.items() if not name.startswith(("STILL_", "DJANGO_ALLOW"))}
        self.env = {**kept, "STILL_VAR": str(self.var), "STILL_PORT": str(self.port), "NUMBA_CACHE_DIR": cache, **env}
        self.process: subprocess.Popen[bytes] | None = None

    def manage(self, *args: str, check: bool = True) -> subprocess.CompletedProcess[str]:
        """Run a management command on this database."""
        command = [sys.executable, "manage.py", *args]
        return subprocess.run(command, cwd=ROOT, env=self.env, capture_output=True, text=True, check=check)

    def migrate(self) -> None:
        """Make the tables; the first time by the migrations, then as a copy."""
        if not MADE:
            self.manage("migrate", "--verbosity", "0")
            with sqlite3.connect(self.database) as made:
                MADE.append("\n".join(made.iterdump()))
        else:
            with sqlite3.connect(self.database) as new:
                new.executescript(MADE[0])

    @property
    def database(self) -> pathlib.Path:
        """The database's file."""
        return self.var / "still.sqlite3"

    def start(self) -> None:
        """Serve, and return once it listens."""
        with self.log.open("ab") as log:
            self.process = subprocess.Popen(
                [sys.executable, "-m", "stillthread.site.serve"], cwd=ROOT, env=self.env, stdout=log, stderr=log
            )
        wait_for(self.port, self.process, self.log)

    def refuses(self) -> str:
        """Try to serve where it should refuse; returns what it says."""
        command = [sys.executable, "-m", "stillthread.site.serve"]
        done = subprocess.run(command, cwd=ROOT, env=self.env, capture_output=True, text=True, timeout=PATIENCE_S)
        if done.returncode == 0:
            raise AssertionError("it served")
        return done.stderr

    def kill(self) -> None:
        """Stop it as a pulled plug does."""
        if self.process is not None:
            self.process.kill()
            self.process.wait()
            self.process = None

    def close(self) -> None:
        """Stop it and take its folder away."""
        self.kill()
        shutil.rmtree(self.var, ignore_errors=True)

    def get(self, path: str, **headers: str) -> bytes:
        """Ask for an address and return the body; raises urllib's errors."""
        asked = urllib.request.Request(f"http://127.0.0.1:{self.port}{path}", headers=headers)
        with urllib.request.urlopen(asked, timeout=PATIENCE_S) as answer:
            return bytes(answer.read())


class Forked(Served):
    """A server that is up again at once: a fork of a process that has fetched the application already."""

    mother: subprocess.Popen[bytes] | None = None
    child = 0

    def start(self) -> None:
        """Serve, and return once it listens."""
        if self.mother is None:
            with self.log.open("ab") as log:
                self.mother = subprocess.Popen(
                    [sys.executable, "-m", "tests.serving.mother"],
                    cwd=ROOT, env=self.env, stdin=subprocess.PIPE, stdout=subprocess.PIPE, stderr=log,
                )  # fmt: skip
        asked, told = self.mother.stdin, self.mother.stdout
        if asked is None or told is None:
            raise RuntimeError("the mother has no ears")
        asked.write(b"start\n")
        asked.flush()
        line = told.readline()
        if not line:
            raise RuntimeError(self.log.read_text("utf-8"))
        self.child = int(line)
        wait_for(self.port, self.mother, self.log)

    def kill(self) -> None:
        """Stop it as a pulled plug does."""
        try:
            while self.child:
                os.kill(self.child, signal.SIGKILL)
                time.sleep(0.005)
        except ProcessLookupError:
            self.child = 0

    def close(self) -> None:
        """Stop both and take the folder away."""
        super().close()
        if self.mother is not None:
            self.mother.communicate()  # no more lines: it ends by itself
