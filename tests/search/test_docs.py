"""The ten lines of docs/search.md run as they stand, and do what the page says."""

import io
import pathlib
import re
import unittest
from contextlib import redirect_stdout

PAGE = pathlib.Path(__file__).resolve().parents[2] / "docs" / "search.md"


class TenLines(unittest.TestCase):
    def test_they_run(self):
        code = re.search(r"```python\n(.*?)```", PAGE.read_text("utf-8"), re.S).group(1)
        with redirect_stdout(io.StringIO()) as out:
            exec(compile(code, str(PAGE), "exec"), {})  # noqa: S102  # the page's own example
        steps = [line.split()[0] for line in out.getvalue().splitlines()]
        self.assertEqual(len(steps), 4)
        self.assertEqual(steps[2], "stay")  # a fish has just taken
