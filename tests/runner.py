"""Django's test runner, in two halves at once: the browser's tests in one process, all others in the processes beside it.

The count of passed and failed tests stands on a line of its own at the end.
"""

from __future__ import annotations

import logging
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


class TallyResult(unittest.TextTestResult):
    """Counts the tests that succeeded, so that a failing class set-up takes nothing from those that passed."""

    def __init__(self, *args: Any, **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        self.passed = 0

    def addSuccess(self, test: unittest.TestCase) -> None:  # noqa: N802 - unittest's name
        self.passed += 1
        super().addSuccess(test)

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


class HalvesSuite(ParallelTestSuite):
    """The browser's tests as one part, begun first; the other classes are dealt out to whichever process is free."""

    def __init__(self, subsuites: list[unittest.TestSuite], processes: int, *args: Any, **kwargs: Any) -> None:
        classes = [list(part) for part in subsuites]
        browser = [test for tests in classes for test in tests if getattr(test, "needs_browser", False)]
        rest = [Part(tests) for tests in classes if not getattr(tests[0], "needs_browser", False)]
        super().__init__([Part(browser), *rest] if browser else rest, processes, *args, **kwargs)


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

    def suite_result(self, suite: unittest.TestSuite, result: Any, **kwargs: Any) -> int:
        if isinstance(result, TallyResult):
            sys.stdout.write(f"\n{closing_line(result)}\n")
            sys.stdout.flush()
        return super().suite_result(suite, result, **kwargs)
