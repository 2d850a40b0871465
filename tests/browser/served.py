"""One live server and one browser for all browser tests of a process, and the traffic between them."""

from __future__ import annotations

import contextlib
import logging
import mimetypes
import os
import pathlib
import signal
import sys
import threading
import traceback
from collections.abc import Callable, Iterable, Iterator
from functools import cache
from multiprocessing.util import Finalize
from typing import Any

from django.core.servers.basehttp import ThreadedWSGIServer
from django.test.testcases import LiveServerThread, QuietWSGIRequestHandler
from playwright.sync_api import Browser, Playwright, sync_playwright

from stillthread.site.settings import DIST, ROOT

sys.path.insert(0, str(ROOT / "scripts"))

from browser import launch  # noqa: E402

os.environ["DJANGO_ALLOW_ASYNC_UNSAFE"] = (
    "true"  # the driver keeps an event loop in the thread that also asks the database
)
FOR_EVER = "max-age=31536000, immutable"
PARTS_S = 20.0  # a ceiling as well
QUIET_S = 0.1  # without a question: one that a page sent as it was closed may still be on its way to the application
SETTLE_S = 60.0  # a ceiling, never waited for: a request that takes longer is a fault of its own


@cache
def built(path: str) -> tuple[str, bytes]:
    """Return the type and the bytes of a part of the page as it was built; through the application a page of a hundred parts
    takes three times as long (how it serves them is for `tests/serving`).
    """
    kind = mimetypes.guess_type(path)[0] or "application/octet-stream"
    return kind, (DIST / path.lstrip("/")).read_bytes()


class Traffic(logging.Handler):
    """Counts requests under way, and keeps every traceback the server meets."""

    def __init__(self) -> None:
        super().__init__(logging.ERROR)
        self._under_way: list[str] = []
        self._begun = 0
        self._changed = threading.Condition()
        self._faults: list[str] = []
        self.instead: dict[str, str] = {}  # scripts that are given in place of what is built
        self._gates: dict[str, threading.Event] = {}

    def watching(self, application: Callable[..., Iterable[bytes]]) -> Callable[..., Iterable[bytes]]:
        """Return the application with its requests counted from the first line to the last byte."""

        def answer(environ: dict[str, Any], start_response: Any) -> Iterable[bytes]:
            if environ["PATH_INFO"].startswith("/assets/"):
                kind, body = built(environ["PATH_INFO"])
                start_response(
                    "200 OK", [("Content-Type", kind), ("Cache-Control", FOR_EVER), ("Content-Length", str(len(body)))]
                )
                return [body]
            other = self.instead.get(environ["PATH_INFO"])
            if other is not None:
                start_response("200 OK", [("Content-Type", "text/javascript"), ("Cache-Control", "no-cache")])
                return [other.encode()]
            name = f"{environ['REQUEST_METHOD']} {environ['PATH_INFO']}"
            with self._changed:
                self._under_way.append(name)
                self._begun += 1
            gate = self._gates.get(environ["PATH_INFO"])
            if gate is not None:
                gate.wait(SETTLE_S)
            try:
                return _Body(application(environ, start_response), lambda: self._ended(name))
            except BaseException:
                self._ended(name)
                raise

        return answer

    @contextlib.contextmanager
    def shut(self, path: str) -> Iterator[None]:
        """Keep every question at `path` waiting at the server's door until the end of the block."""
        gate = self._gates[path] = threading.Event()
        try:
            yield
        finally:
            gate.set()
            del self._gates[path]

    def _ended(self, name: str) -> None:
        with self._changed:
            self._under_way.remove(name)
            self._changed.notify_all()

    def emit(self, record: logging.LogRecord) -> None:
        """Keep a logged traceback; plain lines are what the server is there to say."""
        if record.exc_info:
            self.fault(self.format(record))

    def fault(self, text: str) -> None:
        """Keep a fault until the test at hand asks for it."""
        self._faults.append(text)

    def settled(self) -> list[str]:
        """Wait until the server is idle; return what went wrong since the last time, requests that never end among it."""
        with self._changed:
            begun = -1
            while begun != self._begun:
                if not self._changed.wait_for(lambda: not self._under_way, SETTLE_S):
                    self._faults.append(f"still under way after {SETTLE_S:.0f} s: {', '.join(self._under_way)}")
                    break
                begun = self._begun
                self._changed.wait(QUIET_S)
        found, self._faults = self._faults, []
        return found


class _Body:
    """The body of an answer; says when it has been sent or given up."""

    def __init__(self, body: Iterable[bytes], ended: Callable[[], None]) -> None:
        self._body, self._ended = body, ended

    def __iter__(self) -> Iterator[bytes]:
        return iter(self._body)

    def close(self) -> None:
        try:
            getattr(self._body, "close", lambda: None)()
        finally:
            self._ended()


TRAFFIC = Traffic()


class _Server(ThreadedWSGIServer):
    def handle_error(self, request: Any, client_address: Any) -> None:
        """A page that goes away in the middle of an answer is no fault; anything else is."""
        if not isinstance(sys.exc_info()[1], ConnectionError):
            TRAFFIC.fault(traceback.format_exc())


class _Handler(QuietWSGIRequestHandler):
    # Head and body of an answer are two writes: without this the second waits 40 ms for word that the first has arrived.
    disable_nagle_algorithm = True


class _Thread(LiveServerThread):
    def _create_server(self, connections_override: Any = None) -> _Server:
        return _Server((self.host, self.port), _Handler, allow_reuse_address=False)


@cache
def address() -> str:
    """Start the server once; return its address."""
    thread = _Thread("localhost", TRAFFIC.watching)
    thread.daemon = True
    thread.start()
    thread.is_ready.wait()
    if thread.error:
        raise thread.error
    for name in ("stillthread", "django.request"):
        logging.getLogger(name).addHandler(TRAFFIC)
    Finalize(None, thread.terminate, exitpriority=10)
    return f"http://{thread.host}:{thread.port}"


@cache
def _driver() -> Playwright:
    driver = sync_playwright().start()
    Finalize(None, _part_from, args=(driver.stop,), exitpriority=10)
    return driver


def _part_from(end: Callable[[], None]) -> None:
    """End a helper process as it should be ended; one that does not answer is killed, and its silence is no fault."""
    with watched(PARTS_S), contextlib.suppress(Exception):
        end()


RUNNING: list[Browser] = []


def browser() -> Browser:
    """Start the browser once, and again where it was hung up on."""
    if not RUNNING or not RUNNING[-1].is_connected():
        found = launch(_driver())
        RUNNING.append(found)
        Finalize(None, lambda: found.is_connected() and _part_from(found.close), exitpriority=20)
    return RUNNING[-1]


def hang_up(names: tuple[str, ...] = ("chrom",)) -> None:
    """Kill this process's browsers: one that does not answer any more would hold up every test behind it.

    `names` are beginnings of the names of the processes meant.
    """
    parents = {}
    for one in pathlib.Path("/proc").glob("[0-9]*/stat"):
        try:
            name, rest = one.read_text("utf-8").rsplit(")", 1)
        except OSError:  # it has just ended
            continue
        parents[int(one.parent.name)] = int(rest.split()[1]), name
    for pid, (parent, name) in parents.items():
        above = parent
        while above in parents and above != os.getpid():
            above = parents[above][0]
        if above == os.getpid() and name.partition("(")[2].startswith(names):
            with contextlib.suppress(ProcessLookupError):
                os.kill(pid, signal.SIGKILL)


@contextlib.contextmanager
def watched(seconds: float) -> Iterator[None]:
    """Hang up on the browser where what is done in it takes longer than this, and on its driver where that did not help."""
    timers = [threading.Timer(seconds, hang_up), threading.Timer(seconds + PARTS_S, hang_up, [("chrom", "node")])]
    for timer in timers:
        timer.daemon = True
        timer.start()
    try:
        yield
    finally:
        for timer in timers:
            timer.cancel()
