"""The marked cord: one axis, a knot at every metre or every five feet."""

from tests.frontend.base import ModuleCase


class Cord(ModuleCase):
    module = "column/scale.ts"

    def knots(self, height, bed, unit):
        # A scale holds functions, so knots are asked for through plain values.
        scale = {"surfaceY": 44, "bedY": height - 34, "bedM": bed, "unit": unit}
        return self.call("knotDepths", scale)

    def test_a_knot_every_metre(self):
        knots = self.knots(740, 6.0, "m")
        self.assertEqual([k["depthM"] for k in knots], [1, 2, 3, 4, 5, 6])
        self.assertEqual([k["label"] for k in knots], ["1", "2", "3", "4", "5", "6"])

    def test_a_knot_every_five_feet(self):
        knots = self.knots(740, 6.1, "ft")
        self.assertEqual([k["label"] for k in knots], ["5", "10", "15", "20"])
        # 5 ft = 1.524 m exactly.
        self.assertAlmostEqual(knots[0]["depthM"], 1.524)

    def test_deep_water_keeps_its_knots_and_thins_its_labels(self):
        knots = self.knots(300, 30.0, "m")
        self.assertEqual(len(knots), 30)
        labelled = [k["label"] for k in knots if k["labelled"]]
        self.assertTrue(0 < len(labelled) <= 12, labelled)
        self.assertEqual(labelled[0], labelled[0].strip())

    def test_shallow_water_has_no_knot_below_the_bed(self):
        self.assertEqual(self.knots(740, 0.8, "m"), [])
        self.assertEqual([k["depthM"] for k in self.knots(740, 2.4, "m")], [1, 2])
