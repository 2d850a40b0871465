"""Django's test runner, with the count of passed and failed tests on a line of its own."""

from __future__ import annotations

import sys
import unittest
from typing import Any

from django.test.runner import DiscoverRunner


class StillRunner(DiscoverRunner):
    def suite_result(self, suite: unittest.TestSuite, result: unittest.TextTestResult, **kwargs: Any) -> int:
        failed = len(result.failures) + len(result.errors) + len(result.unexpectedSuccesses)
        skipped = len(result.skipped)
        passed = result.testsRun - failed - skipped
        tail = f", {skipped} skipped" if skipped else ""
        sys.stdout.write(f"\n{passed} passed, {failed} failed{tail}\n")
        sys.stdout.flush()
        return super().suite_result(suite, result, **kwargs)
