"""A listener on a boat's instruments: NMEA 0183 over TCP, through losses, garbage and reconnections."""

from __future__ import annotations

import contextlib
import logging
import socket
import threading
import time
import uuid
from collections import deque
from collections.abc import Callable
from dataclasses import dataclass, field
from datetime import datetime

from stillthread.formats.nmea import (
    DepthSentence,
    Fix,
    Heading,
    LineBuffer,
    Sentence,
    SentenceError,
    WaterTemperature,
    Wind,
    read_sentence,
    true_wind,
)

log = logging.getLogger("stillthread.feed")
CONNECT_S = 4.0
QUIET_S = 8.0
FIRST_WAIT_S, LONGEST_WAIT_S = 0.3, 8.0
# The feed lets go when nobody asked for it so long, unless it is recording.
IDLE_S = 900.0
MOST_POINTS = 40_000
STEADY_READINGS, STEADY_C = 5, 0.15


@dataclass(frozen=True)
class LinePoint:
    """One recorded sounding: when, where (lon, lat), depth [m] below the surface, water temperature [°C] if known."""

    when: datetime
    position: tuple[float, float]
    depth_m: float
    temperature_c: float | None


@dataclass
class Live:
    """The last value of each kind with its time by the local clock (monotonic seconds), and how the feed fares."""

    state: str = "connecting"
    depth_m: float | None = None
    depth_at: float = 0.0
    temperature_c: float | None = None
    temperature_at: float = 0.0
    recent: deque[float] = field(default_factory=lambda: deque(maxlen=STEADY_READINGS))
    wind: tuple[float, float] | None = None
    wind_true: bool = False
    wind_at: float = 0.0
    heading_deg: float | None = None
    fix: Fix | None = None
    fix_at: float = 0.0
    good: int = 0
    bad: int = 0
    last_bad: str = ""
    connections: int = 0

    @property
    def steady(self) -> bool:
        """True once the last few temperatures lie close together: the thermometer has taken the water's."""
        return len(self.recent) == STEADY_READINGS and max(self.recent) - min(self.recent) <= STEADY_C


class Feed:
    """Listens on a thread of its own until told to stop. Touches no database; what it records is drained by the caller."""

    def __init__(
        self, host: str, port: int, transducer_m: float = 0.0, clock: Callable[[], float] = time.monotonic
    ) -> None:
        """Start listening to an address; `transducer_m` [m] is how deep the transducer hangs, for sounders that do not say."""
        self.host, self.port, self.transducer_m = host, port, transducer_m
        self._clock = clock
        self._lock = threading.Lock()
        self._stop = threading.Event()
        self._socket: socket.socket | None = None
        self._recording = False
        self.line: uuid.UUID | None = None
        self.written = 0
        self._points: list[LinePoint] = []
        self.live = Live()
        self.asked_at = clock()
        self._thread = threading.Thread(target=self._run, daemon=True, name=f"feed-{host}:{port}")
        self._thread.start()

    def stop(self) -> None:
        """Hang up and wait for the thread to end."""
        self._stop.set()
        if self._socket is not None:
            with contextlib.suppress(OSError):  # it was closed already
                self._socket.shutdown(socket.SHUT_RDWR)
        self._thread.join(timeout=CONNECT_S + 1)

    @property
    def running(self) -> bool:
        """True until it was stopped or let go for want of anybody asking."""
        return self._thread.is_alive() and not self._stop.is_set()

    def start_line(self, line: uuid.UUID) -> None:
        """Start recording soundings with their positions, for a line."""
        with self._lock:
            self.line, self.written, self._points, self._recording = line, 0, [], True

    def pause(self) -> None:
        """Stop recording; what was recorded waits to be drained."""
        with self._lock:
            self._recording = False

    def end_line(self) -> None:
        """Let go of the line; what was not drained is lost."""
        with self._lock:
            self.line, self._recording = None, False

    @property
    def waiting(self) -> int:
        """How many recorded soundings wait to be drained."""
        return len(self._points)

    def drain(self) -> list[LinePoint]:
        """Return the soundings recorded since the last call, and forget them."""
        with self._lock:
            points, self._points = self._points, []
        return points

    def snapshot(self) -> Live:
        """Return a copy of the live values, and note that somebody asked."""
        with self._lock:
            self.asked_at = self._clock()
            copied = {**vars(self.live), "recent": deque(self.live.recent, maxlen=STEADY_READINGS)}
            return Live(**copied)

    def age_s(self, at: float) -> float:
        """Return how many seconds ago something was heard, for its time `at`."""
        return self._clock() - at

    # --- the thread -----------------------------------------------------------------------------

    def _run(self) -> None:
        wait = FIRST_WAIT_S
        while not self._stop.is_set():
            heard = False
            try:
                with socket.create_connection((self.host, self.port), timeout=CONNECT_S) as line:
                    self._socket = line
                    line.settimeout(QUIET_S)
                    self._set("waiting")
                    self.live.connections += 1
                    heard = self._listen(line)
                self._set("lost")
            except OSError as error:
                self._set("lost" if self.live.connections else "refused")
                log.info("boat feed: %s", error.strerror or type(error).__name__)
            finally:
                self._socket = None
            if self._idle():
                break
            wait = FIRST_WAIT_S if heard else min(wait * 2, LONGEST_WAIT_S)
            self._stop.wait(wait)
        self._set("stopped")

    def _idle(self) -> bool:
        return not self._recording and self._clock() - self.asked_at > IDLE_S

    def _listen(self, line: socket.socket) -> bool:
        """Read until the feed ends or is silent too long; true if anything was understood."""
        buffer, heard = LineBuffer(), False
        try:
            while not self._stop.is_set() and not self._idle():
                data = line.recv(4096)
                if not data:
                    break
                for text in buffer.feed(data):
                    heard = self._hear(text) or heard
        finally:
            rest = buffer.cut()
            if rest:
                self._refuse("cut off in the middle")
        return heard

    def _set(self, state: str) -> None:
        with self._lock:
            self.live.state = state

    def _refuse(self, why: str) -> None:
        with self._lock:
            self.live.bad += 1
            self.live.last_bad = why

    def _hear(self, text: str) -> bool:
        try:
            told = read_sentence(text)
        except SentenceError as error:
            self._refuse(str(error))
            return False
        with self._lock:
            self.live.state = "live"
            self.live.good += 1
            if told is not None:
                self._take(told)
        return True

    def _take(self, told: Sentence) -> None:
        live, at = self.live, self._clock()
        if isinstance(told, DepthSentence):
            self._take_depth(told, at)
        elif isinstance(told, WaterTemperature):
            live.temperature_c, live.temperature_at = told.temperature_c, at
            live.recent.append(told.temperature_c)
        elif isinstance(told, Heading):
            live.heading_deg = told.heading_deg
        elif isinstance(told, Fix):
            live.fix, live.fix_at = told, at
        elif isinstance(told, Wind) and live.heading_deg is not None:
            boat = live.fix if live.fix is not None and at - live.fix_at < QUIET_S else None
            live.wind = true_wind(
                told, live.heading_deg, boat.speed_m_s if boat else 0.0, boat.course_deg if boat else None
            )
            live.wind_true = boat is not None or not told.relative
            live.wind_at = at

    def _take_depth(self, told: DepthSentence, at: float) -> None:
        live = self.live
        if told.below_transducer and live.depth_m is not None and at - live.depth_at < 0.5:
            return  # the same ping again, told without the offset
        live.depth_m = told.depth_m + (self.transducer_m if told.below_transducer else 0.0)
        live.depth_at = at
        fresh_fix = live.fix is not None and at - live.fix_at < 3.0
        if self._recording and fresh_fix and live.fix is not None and len(self._points) < MOST_POINTS:
            warm = live.temperature_c if at - live.temperature_at < 5.0 else None
            self._points.append(LinePoint(live.fix.when, live.fix.position, live.depth_m, warm))


class Feeds:
    """At most one feed for each angler, kept in this process."""

    def __init__(self) -> None:
        """Start with none."""
        self._lock = threading.Lock()
        self._by_owner: dict[int, Feed] = {}

    def start(self, owner: int, host: str, port: int, transducer_m: float) -> Feed:
        """Start a feed for an owner, in place of the one before."""
        self.stop(owner)
        feed = Feed(host, port, transducer_m)
        with self._lock:
            self._by_owner[owner] = feed
        return feed

    def of(self, owner: int) -> Feed | None:
        """Return the owner's feed, or None."""
        with self._lock:
            feed = self._by_owner.get(owner)
        return feed if feed is not None and feed.running else None

    def stop(self, owner: int) -> None:
        """Stop the owner's feed, if there is one."""
        with self._lock:
            feed = self._by_owner.pop(owner, None)
        if feed is not None:
            feed.stop()


FEEDS = Feeds()
