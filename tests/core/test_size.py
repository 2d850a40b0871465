"""Weights from lengths: the relations by hand, and what anglers know of trout."""

import math
import unittest

from stillthread.core.trout.size import STANDARD, fulton, relative_weight, standard_weight_kg


class Weights(unittest.TestCase):
    def test_by_the_relation(self):
        for species, (a, b, _) in STANDARD.items():
            with self.subTest(species):
                self.assertAlmostEqual(math.log10(1000 * standard_weight_kg(species, 0.4)), a + b * math.log10(400))

    def test_as_anglers_know_them(self):
        # A trout of 20 inches in good order weighs three to four pounds, one of 16 about half that (facts of the trade).
        pound = 0.45359237
        for species in ("rainbow", "brown"):
            self.assertTrue(3.0 <= standard_weight_kg(species, 20 * 0.0254) / pound <= 4.0, species)
            self.assertTrue(1.5 <= standard_weight_kg(species, 16 * 0.0254) / pound <= 2.0, species)

    def test_condition(self):
        self.assertAlmostEqual(fulton(0.4, 0.7), 100 * 700 / 40**3)
        self.assertAlmostEqual(relative_weight("rainbow", 0.5, standard_weight_kg("rainbow", 0.5)), 100)
        # At standard weight Fulton's factor of a trout lies a little above one (Barnham & Baxter 1998).
        self.assertTrue(1.0 < fulton(0.45, standard_weight_kg("rainbow", 0.45)) < 1.4)
        with self.assertRaises(ValueError):
            fulton(0, 1)

    def test_where_no_relation_reaches(self):
        self.assertIsNone(standard_weight_kg("rainbow", 0.05))
        self.assertIsNone(relative_weight("brown", 1.4, 20))
