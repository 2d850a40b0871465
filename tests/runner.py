"""Django's test runner, with the count of passed and failed tests on a line of its own."""

from __future__ import annotations

import logging
import sys
import unittest
from typing import Any

from django.conf import settings
from django.test.runner import DiscoverRunner


class StillRunner(DiscoverRunner):
    def setup_test_environment(self, **kwargs: Any) -> None:
        super().setup_test_environment(**kwargs)
        settings.PASSWORD_HASHERS = ["django.contrib.auth.hashers.MD5PasswordHasher"]  # tests make many accounts
        settings.EXPOSURES_FILE = None  # tests compute every path themselves
        logging.getLogger("axes").setLevel(logging.ERROR)

    def suite_result(self, suite: unittest.TestSuite, result: unittest.TextTestResult, **kwargs: Any) -> int:
        failed = len(result.failures) + len(result.errors) + len(result.unexpectedSuccesses)
        skipped = len(result.skipped)
        passed = result.testsRun - failed - skipped
        tail = f", {skipped} skipped" if skipped else ""
        sys.stdout.write(f"\n{passed} passed, {failed} failed{tail}\n")
        sys.stdout.flush()
        return super().suite_result(suite, result, **kwargs)
