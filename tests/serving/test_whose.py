"""A demo database is never served for real, a real one never gets the demo, and the settings of serving agree."""

import json
import unittest

from tests.serving.process import Served


class Whose(unittest.TestCase):
    def served(self, **env):
        one = Served(**env)
        self.addCleanup(one.close)
        one.migrate()
        return one

    def test_a_real_database_is_served_and_gets_no_demo(self):
        real = self.served()
        real.manage("make_user", "demo")
        refused = real.manage("load_demo", check=False)
        self.assertNotEqual(refused.returncode, 0)
        self.assertIn("real accounts", refused.stderr)
        real.start()
        self.assertEqual(json.loads(real.get("/api/health")), {"ok": True})
        self.assertFalse(json.loads(real.get("/api/session"))["demo_available"])
        self.assertEqual(real.var.joinpath("still.sqlite3").stat().st_mode & 0o077, 0)
        real.env["STILL_DEMO"] = "1"
        real.kill()
        self.assertIn("real accounts", real.refuses())

    def test_a_demo_database_is_not_served_for_real(self):
        demo = self.served()
        made = "from stillthread.accounts.mark import mark_as_demo; mark_as_demo()"
        demo.manage("shell", "--verbosity", "0", "--command", made)
        self.assertIn("invented anglers", demo.refuses())

    def test_tls_needs_somebody_who_speaks_it(self):
        self.assertIn("STILL_PROXY", self.served(STILL_HTTPS="1").refuses())

    def test_a_port_that_is_none(self):
        for port in ("80a", "0", "70000", ""):
            self.assertIn("1 to 65535", self.served(STILL_PORT=port or "-").refuses())

    def test_what_is_logged_is_lines_of_json_without_names(self):
        real = self.served(STILL_LOGS="logs")
        real.manage("make_user", "somebody")
        code = "import logging; logging.getLogger('stillthread').error('broken %s', 7)"
        real.manage("shell", "--verbosity", "0", "--command", code)
        file = real.var / "logs" / "still.jsonl"
        (line,) = [json.loads(line) for line in file.read_text("utf-8").splitlines()]
        self.assertEqual((line["level"], line["from"], line["what"]), ("error", "stillthread", "broken 7"))
        self.assertEqual(file.parent.stat().st_mode & 0o077, 0)

    def test_nothing_to_mend_before_it_is_deployed(self):
        real = Served(STILL_HTTPS="1", STILL_PROXY="127.0.0.1", STILL_HOSTS="still.example")
        self.addCleanup(real.close)
        done = real.manage("check", "--deploy", "--fail-level", "WARNING", check=False)
        self.assertEqual(done.returncode, 0, done.stderr)
