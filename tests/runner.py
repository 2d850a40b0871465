"""Django's test runner, in as many processes as there are processors: each takes the class that lasted longest of those left.

How long each class lasts is kept from run to run (`tests/data/seconds.json` for the first). The ten longest tests are printed at
the end, and the count of passed and failed tests on a line of its own.
"""

from __future__ import annotations

import faulthandler
import json
import logging
import multiprocessing
import os
import pathlib
import signal
import sys
import time
import unittest
import warnings
from collections.abc import Iterable
from typing import Any

from django.conf import settings
from django.db import connections
from django.db.models.signals import post_migrate
from django.test.runner import (
    DiscoverRunner,
    ParallelTestSuite,
    RemoteTestResult,
    RemoteTestRunner,
    get_max_test_processes,
)

from stillthread.core.day.paths import IN_MEMORY
from stillthread.shelf import FileShelf

MOST_PATHS = 60_000  # every path of the whole suite, with room
PART_S, RUN_S = (
    1200,
    3600,
)  # upper limits, normally never reached: a class or a run that takes longer says where it stands
LONGEST = 10
SHIPPED = pathlib.Path(__file__).parent / "data" / "seconds.json"
UNKNOWN_S = 5.0  # a class nobody has timed yet


class TallyResult(unittest.TextTestResult):
    """Counts the tests that succeeded, so that a failing class set-up takes nothing from those that passed."""

    def __init__(self, *args: Any, **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        self.passed = 0
        self.seconds: dict[str, float] = {}
        self.class_seconds: dict[str, float] = {}
        self._began = 0.0

    def startTest(self, test: unittest.TestCase) -> None:  # noqa: N802
        self._began = time.perf_counter()
        super().startTest(test)

    def addDuration(self, test: unittest.TestCase, elapsed: float) -> None:  # noqa: N802 - as later Pythons call it
        """Keep how long a test took, as the process that ran it has measured it."""
        self.seconds[test.id()] = elapsed

    def addClass(self, test: unittest.TestCase, elapsed: float) -> None:  # noqa: N802 - one of the events
        """Keep how long the whole class of a test took."""
        self.class_seconds[name_of(test)] = elapsed

    def stopTest(self, test: unittest.TestCase) -> None:  # noqa: N802
        self.seconds.setdefault(test.id(), time.perf_counter() - self._began)
        super().stopTest(test)

    def addSuccess(self, test: unittest.TestCase) -> None:  # noqa: N802 - unittest's name
        self.passed += 1
        super().addSuccess(test)

    def addFailure(self, test: unittest.TestCase, err: Any) -> None:  # noqa: N802
        super().addFailure(test, err)
        self._tell(self.failures)

    def addError(self, test: unittest.TestCase, err: Any) -> None:  # noqa: N802
        super().addError(test, err)
        self._tell(self.errors)

    def addSubTest(self, test: unittest.TestCase, subtest: unittest.TestCase, err: Any) -> None:  # noqa: N802
        super().addSubTest(test, subtest, err)
        if err is not None:
            self._tell(self.failures if issubclass(err[0], test.failureException) else self.errors)

    def _tell(self, kept: list[tuple[unittest.TestCase, str]]) -> None:
        """Say what failed at once: a run that is stopped before its end has said it then."""
        test, trace = kept[-1]
        self.stream.write(f"\n{test}\n{trace}\n")

    def addExpectedFailure(self, test: unittest.TestCase, err: Any) -> None:  # noqa: N802
        self.passed += 1
        super().addExpectedFailure(test, err)


def closing_line(result: TallyResult) -> str:
    """Return the last line of a run: what passed, what failed (class set-ups too), what was skipped."""
    failed = len(result.failures) + len(result.errors) + len(result.unexpectedSuccesses)
    tail = f", {len(result.skipped)} skipped" if result.skipped else ""
    return f"{result.passed} passed, {failed} failed{tail}"


def longest(seconds: dict[str, float], most: int = LONGEST) -> list[str]:
    """Return the longest tests, a line each, the longest first."""
    rows = sorted(seconds.items(), key=lambda row: -row[1])[:most]
    return [f"{elapsed:7.1f} s  {name}" for name, elapsed in rows]


def name_of(test: unittest.TestCase) -> str:
    """Return the name of a test's class, as it is timed."""
    return f"{type(test).__module__}.{type(test).__qualname__}"


class _TimedResult(RemoteTestResult):
    """Tells how long each test took in its own process."""

    def startTest(self, test: unittest.TestCase) -> None:  # noqa: N802
        super().startTest(test)
        self._began = time.perf_counter()

    def stopTest(self, test: unittest.TestCase) -> None:  # noqa: N802
        self.events.append(("addDuration", self.test_index, time.perf_counter() - self._began))
        super().stopTest(test)


class _TimedRunner(RemoteTestRunner):
    resultclass = _TimedResult


class Part(unittest.TestSuite):
    """Tests that run in one process. Goes to it by its number: the process is a fork and has the tests already, and a
    doctest cannot be pickled.
    """

    made: list[Part] = []

    def __init__(self, tests: Iterable[unittest.TestCase]) -> None:
        super().__init__(tests)
        self.number = len(self.made)
        self.made.append(self)

    def __reduce__(self) -> tuple[Any, ...]:
        return _part, (self.number,)


def _part(number: int) -> Part:
    return Part.made[number]


def _give_up(number: int, frame: Any) -> None:
    sys.stderr.write(f"\nthe tests did not end within {RUN_S} s\n")
    faulthandler.dump_traceback()
    for child in multiprocessing.active_children():
        child.kill()
    os._exit(1)


def _run_watched(args: tuple[Any, ...]) -> Any:
    """Run a part and tell how long it took; one that does not end has every thread of its process written out."""
    faulthandler.dump_traceback_later(PART_S)
    began = time.perf_counter()
    try:
        index, events = ParallelTestSuite.run_subsuite(args)
    finally:
        faulthandler.cancel_dump_traceback_later()
    return index, [*events, ("addClass", 0, time.perf_counter() - began)]


def known_seconds() -> dict[str, float]:
    """Return how long each class took when it was last timed: on this machine, else where the file was made."""
    for path in (settings.VAR / SHIPPED.name, SHIPPED):
        if path.is_file():
            return dict(json.loads(path.read_text("utf-8")))
    return {}


class LongestFirst(ParallelTestSuite):
    """The classes, dealt out one by one to whichever process is free, the longest first: so all processes end together."""

    run_subsuite = _run_watched
    runner_class = _TimedRunner

    def __init__(self, subsuites: list[unittest.TestSuite], processes: int, *args: Any, **kwargs: Any) -> None:
        known = known_seconds()
        classes = [list(part) for part in subsuites]
        classes.sort(key=lambda tests: -known.get(name_of(tests[0]), UNKNOWN_S))
        super().__init__([Part(tests) for tests in classes if tests], processes, *args, **kwargs)


def _whole_file(using: str, **kwargs: Any) -> None:
    """Move the write-ahead log into the database file: the other processes start from a copy of that file alone."""
    with connections[using].cursor() as cursor:
        cursor.execute("PRAGMA wal_checkpoint(TRUNCATE)")


class StillRunner(DiscoverRunner):
    """Runs tests at once in as many processes as there are processors, unless told otherwise (`--parallel 1`)."""

    parallel_test_suite = LongestFirst

    def __init__(self, *, parallel: int = 0, pdb: bool = False, **kwargs: Any) -> None:
        super().__init__(parallel=1 if pdb else parallel or get_max_test_processes(), pdb=pdb, **kwargs)

    def setup_test_environment(self, **kwargs: Any) -> None:
        super().setup_test_environment(**kwargs)
        settings.PASSWORD_HASHERS = ["django.contrib.auth.hashers.MD5PasswordHasher"]  # tests make many accounts
        warnings.filterwarnings("ignore", "The seawater library")
        logging.getLogger("axes").setLevel(logging.ERROR)
        # Lines about what a test does on purpose are no news; a traceback fails the browser test that caused it.
        ours = logging.getLogger("stillthread")
        ours.handlers, ours.propagate = [logging.NullHandler()], False
        self._lean_on_shelf()
        post_migrate.connect(_whole_file, dispatch_uid="whole file")

    def _lean_on_shelf(self) -> None:
        """Take simulated paths from a file kept between runs, void once the solver's code changes.

        Tests of the solver and of the memory of paths make their own.
        """
        path = settings.VAR / "test-paths.sqlite3"
        settings.EXPOSURES_FILE = path
        settings.EXPOSURES_KEPT = MOST_PATHS
        IN_MEMORY.lean_on(FileShelf(path, MOST_PATHS))

    def get_resultclass(self) -> type:
        return super().get_resultclass() or TallyResult

    def run_suite(self, suite: unittest.TestSuite, **kwargs: Any) -> Any:
        """Run all; a run that does not end is ended, with a word of where it stood.

        By an alarm, which a fork does not inherit: faulthandler's own timer does not survive being forked.
        """
        signal.signal(signal.SIGALRM, _give_up)
        signal.alarm(RUN_S)
        try:
            return super().run_suite(suite, **kwargs)
        finally:
            signal.alarm(0)

    def suite_result(self, suite: unittest.TestSuite, result: Any, **kwargs: Any) -> int:
        if isinstance(result, TallyResult):
            known = known_seconds()
            kept = {name: round(elapsed, 1) for name, elapsed in sorted({**known, **result.class_seconds}.items())}
            (settings.VAR / SHIPPED.name).write_text(json.dumps(kept, indent=0), "utf-8")
            sys.stdout.write("\nLongest:\n" + "\n".join(longest(result.seconds)) + "\n")
            (settings.VAR / "test-durations.json").write_text(json.dumps(result.seconds), "utf-8")
            sys.stdout.write(f"\n{closing_line(result)}\n")
            sys.stdout.flush()
        return super().suite_result(suite, result, **kwargs)
