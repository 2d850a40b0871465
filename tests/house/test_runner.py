"""The runner itself: what its closing line counts, how it deals the tests out, and what it notices of the server."""

import io
import logging
import pickle
import threading
import unittest
import unittest.mock

from tests.browser.served import Traffic
from tests.runner import LongestFirst, Part, TallyResult, closing_line, longest, name_of


class Good(unittest.TestCase):
    def runTest(self):  # noqa: N802 - unittest's name
        self.assertTrue(True)


class NeverSetUp(unittest.TestCase):
    @classmethod
    def setUpClass(cls):
        raise RuntimeError("no room")

    def test_one(self):
        """Never reached."""

    def test_two(self):
        """Never reached."""


class Halting(unittest.TestCase):
    def runTest(self):  # noqa: N802 - unittest's name
        for n in (1, 2, 3):
            with self.subTest(n):
                self.assertEqual(n, 2)


class InTheBrowser(Good):
    needs_browser = True


def told(*tests):
    result = TallyResult(unittest.runner._WritelnDecorator(io.StringIO()), True, 0)
    unittest.TestSuite(tests).run(result)
    return closing_line(result)


class ClosingLine(unittest.TestCase):
    def test_a_failing_class_set_up_takes_nothing_from_what_passed(self):
        tests = [Good(), NeverSetUp("test_one"), NeverSetUp("test_two")]
        self.assertEqual(told(*tests), "1 passed, 1 failed")
        self.assertEqual(told(*tests[1:]), "0 passed, 1 failed")

    def test_two_failing_parts_of_one_test(self):
        self.assertEqual(told(Good(), Halting()), "1 passed, 2 failed")

    def test_skipped_ones_are_no_passes(self):
        skipped = unittest.skip("not today")(type("Skipped", (Good,), {}))
        self.assertEqual(told(skipped(), Good()), "1 passed, 0 failed, 1 skipped")


class Dealing(unittest.TestCase):
    def test_the_class_that_lasted_longest_comes_first_whatever_it_needs(self):
        known = {name_of(Good()): 2.0, name_of(InTheBrowser()): 1.0, name_of(Halting()): 9.0}
        with unittest.mock.patch("tests.runner.known_seconds", return_value=known):
            dealt = LongestFirst([[InTheBrowser()], [Good()], [Halting(), Halting()]], 2)
        self.assertEqual([[type(t).__name__ for t in part] for part in dealt.subsuites],
                         [["Halting"] * 2, ["Good"], ["InTheBrowser"]])  # fmt: skip

    def test_the_longest_are_told(self):
        self.assertEqual(longest({"a": 1.0, "b": 12.25, "c": 3.0}, 2), ["   12.2 s  b", "    3.0 s  c"])

    def test_a_part_is_found_again_by_its_number(self):
        part = Part([Good()])
        self.assertIs(pickle.loads(pickle.dumps(part)), part)


class Watching(unittest.TestCase):
    def test_a_traceback_in_the_log_is_kept_once(self):
        traffic, log = Traffic(), logging.getLogger("tests.watching")
        log.propagate = False
        log.addHandler(traffic)
        log.error("502 Bad Gateway")
        try:
            raise ValueError("in the server")
        except ValueError:
            log.exception("unexpected failure")
        (fault,) = traffic.settled()
        self.assertIn("ValueError: in the server", fault)
        self.assertEqual(traffic.settled(), [])

    def test_it_waits_for_the_last_byte(self):
        traffic = Traffic()
        body = traffic.watching(lambda environ, start: [b"slow"])({"REQUEST_METHOD": "GET", "PATH_INFO": "/"}, None)
        ended = threading.Event()
        waiting = threading.Thread(target=lambda: (traffic.settled(), ended.set()))
        waiting.start()
        self.assertEqual(list(body), [b"slow"])
        self.assertFalse(ended.is_set())
        body.close()
        waiting.join()
        self.assertTrue(ended.is_set())


# Examples for the tests above, not tests of their own.
def load_tests(loader, tests, pattern):
    chosen = (ClosingLine, Dealing, Watching)
    return unittest.TestSuite(loader.loadTestsFromTestCase(one) for one in chosen)
