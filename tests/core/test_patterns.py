"""The starter box: every food, every sink class, recipes in the trade's order; builds on other hooks; the box against the day."""

import unittest
from dataclasses import replace
from datetime import UTC, datetime

import numpy as np

from stillthread.core.flies.box import Tie, box_fits, sum_materials
from stillthread.core.food.available import available_food
from stillthread.core.food.catalogue import BY_KEY, PREY_KEYS
from stillthread.core.food.prey import FAMILIES
from stillthread.core.food.seen import Sighting
from stillthread.core.plan.make import make_plan
from stillthread.core.tackle.flies import STARTER_FLIES
from stillthread.core.tackle.fly_build import FlyBuild, add_up, build_on_hook, shank_mm, weight_class
from stillthread.core.tackle.patterns import PATTERNS
from stillthread.core.tackle.recipe import BEAD, FAMILY_STEPS, PARTS, Material
from stillthread.core.thread.fly_sink import SINK_CLASSES, sink_class, sink_speed_m_s
from tests.days import day

MAY = datetime(2026, 5, 15, 12, tzinfo=UTC)


class Box(unittest.TestCase):
    def test_thirty_and_more_patterns_for_every_food_and_every_sink_class(self):
        self.assertGreaterEqual(len(PATTERNS), 30)
        self.assertEqual({key for p in PATTERNS for key in p.prey}, set(PREY_KEYS))
        classes = {sink_class(sink_speed_m_s(p.build)) for p in PATTERNS}
        self.assertEqual(classes, {"floats", *(name for name, _ in SINK_CLASSES)})
        self.assertEqual(len({p.key for p in PATTERNS}), len(PATTERNS))
        self.assertEqual(len({p.name for p in PATTERNS}), len(PATTERNS))

    def test_each_is_whole_and_computes_on_every_hook_it_has(self):
        for p in PATTERNS:
            with self.subTest(p.key):
                self.assertIn(p.family, FAMILIES)
                self.assertIn(p.build.hook, p.hooks)
                self.assertTrue({m.part for m in p.recipe.materials} <= set(PARTS))
                self.assertGreaterEqual(len(p.recipe.steps), 4)
                for hook in p.hooks:
                    self.assertTrue(np.isfinite(sink_speed_m_s(build_on_hook(p.build, hook))))
                self.assertNotIn("{", " ".join(s.text for s in p.recipe.steps))

    def test_hooks_lie_in_the_range_of_what_they_stand_for(self):
        for p in PATTERNS:
            for hook in p.hooks:
                fits = any(BY_KEY[k].hooks[1] <= hook <= BY_KEY[k].hooks[0] for k in p.prey)
                self.assertTrue(fits, f"{p.key} {hook}")

    def test_surface_flies_float_and_families_fit_their_prey(self):
        for p in PATTERNS:
            with self.subTest(p.key):
                if p.surface:
                    self.assertLess(sink_speed_m_s(p.build), 0)
                self.assertTrue(any(p.family in BY_KEY[k].families for k in p.prey))

    def test_every_family_has_its_steps(self):
        self.assertEqual(set(FAMILY_STEPS), set(FAMILIES))


class Recipes(unittest.TestCase):
    """Trade: bead first; the rib before the body, wound the other way; whip finish last."""

    def test_the_order_of_the_trade(self):
        for p in PATTERNS:
            texts = [s.text for s in p.recipe.steps]
            with self.subTest(p.key):
                self.assertEqual(texts[0] == BEAD.text, p.build.bead is not None)
                self.assertTrue(texts[-1].startswith("Whip finish"))
                rib = [i for i, t in enumerate(texts) if t.startswith("Tie in the") and "before the body" in t]
                counter = [i for i, t in enumerate(texts) if "other way round" in t]
                if rib and counter:
                    self.assertLess(rib[0], counter[0])

    def test_tricky_steps_carry_their_caution(self):
        cautions = " ".join(s.caution for p in PATTERNS for s in p.recipe.steps)
        self.assertIn("both sides before letting go", cautions)  # stretchy material
        self.assertIn("12 mm", cautions)  # foam eyes on a size 8
        self.assertIn("barb", cautions)

    def test_a_beaded_or_wired_pattern_lists_it(self):
        for p in PATTERNS:
            parts = {m.part for m in p.recipe.materials}
            with self.subTest(p.key):
                self.assertEqual(p.build.bead is not None, "bead" in parts)
                self.assertEqual(p.build.turns > 0, "weight" in parts)


class Builds(unittest.TestCase):
    def test_on_another_hook_the_bead_goes_with_the_shank_and_foam_with_its_cube(self):
        build = FlyBuild(hook=10, bead="brass", bead_mm=3.0, foam_mm3=100.0)
        small = build_on_hook(build, 14)
        ratio = shank_mm(14) / shank_mm(10)
        self.assertAlmostEqual(small.bead_mm, 3.0 * ratio, delta=0.05)
        self.assertAlmostEqual(small.foam_mm3, 100 * ratio**3, delta=0.05)
        self.assertEqual(build_on_hook(build, 10), build)

    def test_a_smaller_hook_is_never_heavier(self):
        for p in PATTERNS:
            if weight_class(p.build) != "buoyant":
                grams = [add_up(build_on_hook(p.build, h)).submerged_g for h in (8, 10, 12, 14)]
                self.assertEqual(grams, sorted(grams, reverse=True), p.key)

    def test_weight_class_follows_the_build(self):
        self.assertEqual(weight_class(FlyBuild(hook=12, foam_mm3=200)), "buoyant")
        self.assertEqual(weight_class(FlyBuild(hook=12, bead="tungsten", bead_mm=3)), "weighted")
        self.assertEqual(weight_class(FlyBuild(hook=12, turns=8)), "weighted")
        self.assertEqual(weight_class(FlyBuild(hook=12)), "unweighted")

    def test_classes_of_speed(self):
        self.assertEqual(
            [sink_class(v) for v in (-0.1, 0.0, 0.05, 0.06, 0.1, 0.2)],
            ["floats", "slow", "slow", "medium", "fast", "very fast"],
        )

    def test_tungsten_outsinks_brass_outsinks_glass(self):
        speeds = [sink_speed_m_s(FlyBuild(hook=12, bead=b, bead_mm=2.8)) for b in ("glass", "brass", "tungsten")]
        self.assertEqual(speeds, sorted(speeds))

    def test_the_planner_uses_a_flys_own_build(self):
        """The same pattern with a heavy bead gets down on a shorter count, or deeper on the same one."""
        light = tuple(
            replace(f, build=FlyBuild(hook=f.hooks[0], bulk="bulky"), weight="unweighted")
            for f in STARTER_FLIES
            if f.weight == "unweighted"
        )
        heavy = tuple(replace(f, build=FlyBuild(hook=f.hooks[0], wire="heavy", turns=6, bulk="slim")) for f in light)

        def count_of(flies):
            plan = make_plan(day(flies=flies))
            return next(s for s in plan.set_ups if s.method == "nymphs" or s.count_s is not None)

        a, b = count_of(light), count_of(heavy)
        self.assertNotEqual((a.count_s, a.estimate_m), (b.count_s, b.estimate_m))


class Today(unittest.TestCase):
    def test_gaps_are_foods_nothing_stands_for(self):
        food = available_food(MAY, "north", 12.0, sightings=(Sighting(abundance="many", prey="daphnia"),))
        without = tuple(f for f in STARTER_FLIES if "daphnia" not in f.prey)
        row = next(r for r in box_fits(food, without) if r.prey.key == "daphnia")
        self.assertTrue(row.gap)
        full = next(r for r in box_fits(food, STARTER_FLIES) if r.prey.key == "daphnia")
        self.assertFalse(full.gap)

    def test_an_empty_compartment_is_a_gap(self):
        food = available_food(MAY, "north", 12.0, sightings=(Sighting(abundance="many", prey="snail"),))
        spent = tuple(replace(f, stock=0) if "snail" in f.prey else f for f in STARTER_FLIES)
        self.assertTrue(next(r for r in box_fits(food, spent) if r.prey.key == "snail").gap)

    def test_a_fly_made_for_it_comes_first(self):
        food = available_food(MAY, "north", 12.0, sightings=(Sighting(abundance="many", prey="chironomid-larva"),))
        row = next(r for r in box_fits(food, STARTER_FLIES) if r.prey.key == "chironomid-larva")
        self.assertEqual(row.flies[0].prey[0], "chironomid-larva")
        self.assertEqual(row.flies[-1].key, "bead-pupa-red")

    def test_rows_run_from_most_to_least(self):
        rows = box_fits(available_food(MAY, "north", 12.0), STARTER_FLIES)
        shares = [r.share for r in rows]
        self.assertEqual(shares, sorted(shares, reverse=True))

    def test_what_is_left_to_tie(self):
        self.assertEqual(
            [Tie(key="k", name="n", hook=12, have=have, wanted=3).to_tie for have in (None, 0, 2, 5)], [3, 3, 1, 0]
        )

    def test_materials_are_summed_by_hand(self):
        bead, red = Material("bead", "brass bead", "gold", "3 mm"), Material("body", "floss", "red")
        found = sum_materials([(2, (red, bead)), (3, (bead, Material("body", "floss", "black")))])
        self.assertEqual(
            [(m.words, m.flies, m.counted) for m in found],
            [("gold brass bead 3 mm", 5, True), ("red floss", 2, False), ("black floss", 3, False)],
        )
