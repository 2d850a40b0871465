"""Run the front end's plain modules under Node, with the cases and the expectations here."""

from __future__ import annotations

import json
import pathlib
import subprocess
import tempfile
import unittest
from typing import Any

ROOT = pathlib.Path(__file__).resolve().parents[2]
FRONTEND = ROOT / "frontend"

# NaN and dates do not survive JSON; say them in words.
RUNNER = """
import * as m from %(module)s;
import { createInterface } from "node:readline";
const clean = (_k, v) => (typeof v === "number" && !Number.isFinite(v) ? String(v) : v instanceof Date ? v.toISOString() : v);
const revive = (a) => (a && a.$date ? new Date(a.$date) : a && a.$nan ? NaN : a);
const call = ([name, args]) => {
  const value = m[name](...args.map(revive));
  return value === undefined ? null : value;
};
for await (const line of createInterface({ input: process.stdin })) {
  let told;
  try {
    told = { out: JSON.parse(line).map(call) };
  } catch (error) {
    told = { failed: String(error.stack) };
  }
  process.stdout.write(`${JSON.stringify(told, clean)}\n`);
}
process.exit(0); // a module's own clocks would keep it going
"""


class ModuleCase(unittest.TestCase):
    """Tests of one TypeScript module; `module` is its path below frontend/src."""

    module = ""

    @classmethod
    def setUpClass(cls) -> None:
        super().setUpClass()
        if not cls.module:
            raise unittest.SkipTest("no module named")
        cls.folder = tempfile.TemporaryDirectory()
        bundle = pathlib.Path(cls.folder.name) / "module.mjs"
        command = ["node_modules/.bin/rolldown", f"src/{cls.module}", "--format", "esm", "--file", str(bundle)]
        done = subprocess.run(command, cwd=FRONTEND, capture_output=True, text=True)
        if done.returncode != 0:
            raise AssertionError(done.stdout + done.stderr)
        runner = pathlib.Path(cls.folder.name) / "run.mjs"
        runner.write_text(RUNNER % {"module": json.dumps(bundle.as_uri())}, "utf-8")
        cls.node = subprocess.Popen(["node", str(runner)], stdin=subprocess.PIPE, stdout=subprocess.PIPE, text=True)

    @classmethod
    def tearDownClass(cls) -> None:
        cls.node.communicate(timeout=60)
        cls.folder.cleanup()
        super().tearDownClass()

    def calls(self, name: str, *cases: tuple) -> list[Any]:
        """Return what `name` gives for each tuple of arguments."""
        work = json.dumps([[name, list(case)] for case in cases])
        self.node.stdin.write(f"{work}\n")
        self.node.stdin.flush()
        told = json.loads(self.node.stdout.readline())
        self.assertNotIn("failed", told, told.get("failed"))
        return told["out"]

    def call(self, name: str, *args: Any) -> Any:
        """Return what `name` gives for these arguments."""
        return self.calls(name, args)[0]

    def table(self, name: str, *rows: tuple) -> None:
        """Check a function against rows of arguments with the expected value last."""
        found = self.calls(name, *(row[:-1] for row in rows))
        for row, value in zip(rows, found, strict=True):
            with self.subTest(call=f"{name}{row[:-1]}"):
                if isinstance(row[-1], float):
                    self.assertAlmostEqual(value, row[-1], places=6)
                else:
                    self.assertEqual(value, row[-1])
