"""The marked cord: one axis, a knot at every metre or every five feet; and the words beside it."""

from hypothesis import given, settings
from hypothesis import strategies as st

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


def box(x, y, width=60, height=16, **more):
    return {"x": x, "y": y, "width": width, "height": height, **more}


def apart(a, b, gap=1):
    return (
        a["x"] + a["width"] - gap <= b["x"]
        or b["x"] + b["width"] - gap <= a["x"]
        or a["y"] + a["height"] - gap <= b["y"]
        or b["y"] + b["height"] - gap <= a["y"]
    )


WATER = box(0, 0, 400, 600)
SPOTS = st.tuples(st.integers(0, 300), st.integers(0, 560))


class Labels(ModuleCase):
    module = "column/settle.ts"

    def settled(self, labels, solid=()):
        moved = self.call("settle", labels, list(solid), WATER)
        return moved, [{**one, "y": one["y"] + by} for one, by in zip(labels, moved, strict=True) if by is not None]

    def test_what_stands_clear_stays(self):
        self.assertEqual(self.settled([box(10, 10), box(10, 100), box(200, 10)])[0], [0, 0, 0])

    def test_the_weightier_stays_and_the_other_moves_as_little_as_it_takes(self):
        moved, placed = self.settled([box(10, 100), box(20, 104)])
        self.assertEqual(moved[0], 0)
        self.assertLessEqual(abs(moved[1]), 24)
        self.assertTrue(apart(*placed))

    def test_one_that_may_not_move_is_left_out(self):
        self.assertEqual(self.settled([box(10, 100), box(10, 104, fixed=True)])[0], [0, None])

    @settings(max_examples=30, deadline=None)
    @given(st.lists(SPOTS, min_size=2, max_size=9), SPOTS)
    def test_none_ever_stands_on_another(self, spots, stone):
        solid = [box(*stone)]
        _, placed = self.settled([box(*spot) for spot in spots], solid)
        for n, one in enumerate(placed):
            self.assertTrue(0 <= one["y"] <= 584)
            for other in [*placed[:n], *solid]:
                self.assertTrue(apart(one, other))
