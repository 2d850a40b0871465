"""The file of kept paths: gives back what was put in, is bounded, and never stands in a plan's way."""

import pathlib
import tempfile
import unittest
from dataclasses import replace
from unittest import mock

import numpy as np

from stillthread import shelf as exposures
from stillthread.core.casts.retrieve import usual_pull
from stillthread.core.day.paths import Paths, rig_of, tied
from stillthread.core.plan.make import make_plan
from stillthread.core.tackle.rig import Float
from stillthread.shelf import FileShelf, pack, unpack
from tests.core.test_paths import CAST, FLIES, LEADER, RIG
from tests.days import FLOATING, day


class Packed(unittest.TestCase):
    def test_a_path_comes_back_within_single_precision(self):
        first = Paths().screened(RIG, CAST)
        back = unpack(pack(first))
        np.testing.assert_allclose(back.point.depth_m, first.point.depth_m, rtol=1e-6, atol=1e-6)
        self.assertEqual(
            (back.countdown_s, back.fished_to_s, back.end_s), (first.countdown_s, first.fished_to_s, first.end_s)
        )
        self.assertEqual(back.bottom, first.bottom)
        self.assertIsNone(back.float_pull_g)

    def test_a_float_rig_keeps_its_floats_load(self):
        rig = replace(rig_of(FLOATING, LEADER, tied(FLIES)), float_=Float("fixed", "slack", 0.6, 3.0))
        first = Paths().path(rig, replace(CAST, pull=usual_pull("static"), countdown_s=0.0))
        np.testing.assert_allclose(unpack(pack(first)).float_pull_g, first.float_pull_g, rtol=1e-5, atol=1e-5)


class Shelf(unittest.TestCase):
    def setUp(self):
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.file = pathlib.Path(folder.name) / "exposures.sqlite3"

    def test_a_plan_from_the_file_is_the_plan_computed(self):
        computed = make_plan(day(), Paths())
        make_plan(day(), Paths(FileShelf(self.file)))
        with mock.patch("stillthread.core.day.paths.simulate", side_effect=AssertionError("computed again")):
            kept = make_plan(day(), Paths(FileShelf(self.file)))
        self.assertEqual([s.key for s in kept.set_ups], [s.key for s in computed.set_ups])
        for one, other in zip(kept.set_ups, computed.set_ups, strict=True):
            self.assertAlmostEqual(one.target_m, other.target_m, places=4)
            self.assertAlmostEqual(one.relative, other.relative, places=4)

    def test_other_code_of_the_thread_finds_nothing(self):
        shelf = FileShelf(self.file)
        path = Paths().screened(RIG, CAST)
        shelf.put("one", path)
        self.assertIsNotNone(shelf.get("one"))
        with mock.patch.object(exposures, "solver_version", return_value="other"):
            self.assertIsNone(shelf.get("one"))

    def test_it_is_bounded(self):
        shelf = FileShelf(self.file, most=3)
        path = Paths().screened(RIG, CAST)
        with mock.patch.object(exposures, "TRIM_EVERY", 5):
            for n in range(10):
                shelf.put(str(n), path)
        self.assertEqual([n for n in range(10) if shelf.get(str(n))], [7, 8, 9])

    def test_a_broken_file_costs_time_never_a_plan(self):
        self.file.write_bytes(b"this is no database" * 100)
        shelf = FileShelf(self.file)
        shelf.put("one", Paths().screened(RIG, CAST))
        self.assertIsNone(shelf.get("one"))
        self.assertTrue(make_plan(day(), Paths(shelf)).set_ups)
