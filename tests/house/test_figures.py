"""What is from memory or ours to choose is listed on one page, and the page lists nothing else."""

import pathlib
import re
import unittest

ROOT = pathlib.Path(__file__).resolve().parents[2]
CORE = ROOT / "stillthread" / "core"
SAYS = re.compile(r"from\s+memory|figures?\s+(are\s+)?ours|no\s+source|our\s+guess", re.I)


class FiguresPage(unittest.TestCase):
    def setUp(self):
        page = (ROOT / "docs" / "figures.md").read_text("utf-8")
        self.listed = set(re.findall(r"`([a-z]+/[a-z_]+\.py)`", page))
        self.saying = set()
        for source in CORE.rglob("*.py"):
            text = re.sub(r"\n\s*#?\s*", " ", source.read_text("utf-8"))
            if SAYS.search(text):
                self.saying.add(str(source.relative_to(CORE)))

    def test_every_module_that_says_so_is_listed(self):
        self.assertGreater(len(self.saying), 20)
        self.assertEqual(self.saying - self.listed, set())

    def test_nothing_is_listed_that_says_no_such_thing(self):
        self.assertEqual(self.listed - self.saying, set())
