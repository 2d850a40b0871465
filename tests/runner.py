"""Django's test runner, in parts at once: the browser's tests in two and what waits for servers, begun first, all others in
whichever process is free.

The count of passed and failed tests stands on a line of its own at the end.
"""

from __future__ import annotations

import faulthandler
import logging
import multiprocessing
import os
import signal
import sys
import unittest
import warnings
from collections.abc import Iterable
from typing import Any

from django.conf import settings
from django.db import connections
from django.db.models.signals import post_migrate
from django.test.runner import DiscoverRunner, ParallelTestSuite, get_max_test_processes

from stillthread.core.day.paths import IN_MEMORY
from stillthread.shelf import FileShelf

MOST_PATHS = 60_000  # every path of the whole suite, with room
PART_S, RUN_S = 2400, 3600  # ceilings, never waited for: a part or a run that takes longer says where it stands


class TallyResult(unittest.TextTestResult):
    """Counts the tests that succeeded, so that a failing class set-up takes nothing from those that passed."""

    def __init__(self, *args: Any, **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        self.passed = 0

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
    """Run a part; one that does not end has every thread of its process written out."""
    faulthandler.dump_traceback_later(PART_S)
    try:
        return ParallelTestSuite.run_subsuite(args)
    finally:
        faulthandler.cancel_dump_traceback_later()


class HalvesSuite(ParallelTestSuite):
    """The browser's tests as two parts, begun first; the other classes are dealt out to whichever process is free, those with
    servers of their own before the others: they wait most, and the last to end should not be one of them.
    """

    run_subsuite = _run_watched

    def __init__(self, subsuites: list[unittest.TestSuite], processes: int, *args: Any, **kwargs: Any) -> None:
        classes = [list(part) for part in subsuites]
        browser = [test for tests in classes for test in tests if getattr(test, "needs_browser", False)]
        lit = [test for test in browser if not _dark(test)]
        dark = [test for test in browser if _dark(test)]
        rest = [tests for tests in classes if not getattr(tests[0], "needs_browser", False)]
        rest.sort(key=lambda tests: not type(tests[0]).__module__.startswith("tests.serving"))
        super().__init__([Part(part) for part in (lit, dark, *rest) if part], processes, *args, **kwargs)


def _dark(test: unittest.TestCase) -> bool:
    """Whether a browser's test is of the day without signal: those are a part of their own, as long as a third of the others."""
    return getattr(test, "workers", "") == "allow"


def _whole_file(using: str, **kwargs: Any) -> None:
    """Move the write-ahead log into the database file: the other processes start from a copy of that file alone."""
    with connections[using].cursor() as cursor:
        cursor.execute("PRAGMA wal_checkpoint(TRUNCATE)")


class StillRunner(DiscoverRunner):
    """Runs tests at once in as many processes as there are processors, unless told otherwise (`--parallel 1`)."""

    parallel_test_suite = HalvesSuite

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
            sys.stdout.write(f"\n{closing_line(result)}\n")
            sys.stdout.flush()
        return super().suite_result(suite, result, **kwargs)
