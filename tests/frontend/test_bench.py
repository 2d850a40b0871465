"""The bench's plain module: reading off the tracks the server sent, and finding a fault's field."""

from tests.frontend.base import ModuleCase

# Two flies over ten seconds; the point falls 0.2 m a second from 12 m out, with a band of a fifth each way.
ANSWER = {
    "flies": [
        {"name": "dropper", "track": [[0, 10, 0, 0, 0], [10, 9, 1.0, 0.8, 1.2]]},
        {"name": "point", "track": [[0, 12, 0, 0, 0], [5, 11.5, 1.0, 0.8, 1.2], [10, 11, 2.0, 1.6, 2.4]]},
    ],
    "line_track": [
        {"t_s": 0, "points": [[0, 0], [12, 0]]},
        {"t_s": 5, "points": [[0, 0], [11.5, 1]]},
        {"t_s": 10, "points": [[0, 0], [11, 2]]},
    ],
    "countdown_s": 4,
    "fished_to_s": 8,
    "end_s": 10,
}
RIG = {
    "leader": [{"length_m": 2.0}, {"length_m": 1.5}],
    "water_depth_m": 5.0,
    "retrieve": {"kind": "hand-twist"},
    "flies": [],
}


def problem(path):
    return {"code": "x", "path": path, "message": path, "accepted": "", "hint": ""}


class Reading(ModuleCase):
    module = "pages/Thread/rig.ts"

    def test_flies_between_two_rows(self):
        dropper, point = self.call("fliesAt", ANSWER, 2.5)
        self.assertAlmostEqual(point["depth"], 0.5)
        self.assertAlmostEqual(point["x"], 11.75)
        self.assertAlmostEqual(point["low"], 0.4)
        self.assertAlmostEqual(point["high"], 0.6)
        self.assertAlmostEqual(dropper["depth"], 0.25)

    def test_flies_before_the_first_and_after_the_last_row(self):
        first, last = self.calls("fliesAt", (ANSWER, -1), (ANSWER, 99))
        self.assertEqual(first[1]["depth"], 0)
        self.assertEqual(last[1]["depth"], 2.0)
        self.assertEqual(last[1]["name"], "point")

    def test_the_way_is_cut_at_the_moment(self):
        way = self.call("wayOf", ANSWER["flies"][1], 5)
        self.assertEqual(way["done"], [[12, 0], [11.5, 1.0]])
        self.assertEqual(way["ahead"], [[11.5, 1.0], [11, 2.0]])

    def test_the_nearest_shape(self):
        shapes = self.calls("shapeAt", (ANSWER, 0), (ANSWER, 6), (ANSWER, 50))
        self.assertEqual([s[1] for s in shapes], [[12, 0], [11.5, 1], [11, 2]])
        self.assertEqual(self.call("shapeAt", {**ANSWER, "line_track": []}, 3), [])

    def test_phases(self):
        still = {**RIG, "retrieve": {"kind": "static"}}
        self.table(
            "phaseAt",
            (ANSWER, RIG, 1, "sink"),
            (ANSWER, RIG, 5, "retrieve"),
            (ANSWER, still, 5, "still"),
            (ANSWER, RIG, 9, "hang"),
        )

    def test_lengths_and_beds(self):
        slope = {**RIG, "water_depth_m": None, "bed": [[0, 2], [10, 4], [20, 7]]}
        self.assertEqual(self.call("leaderLength", RIG), 3.5)
        self.table("bedOf", (RIG, [[0, 5.0]]), (slope, [[0, 2], [10, 4], [20, 7]]))
        self.table("deepest", (RIG, 5.0), (slope, 7.0))

    def test_a_fault_finds_its_field(self):
        faults = [problem("flies[1].from_line_m"), problem("leader[0].length_m"), problem("float.buoyancy_g")]
        found = self.calls(
            "faultAt",
            (faults, "flies[1].from_line_m"),
            (faults, "float"),
            (faults, "flies[0].from_line_m"),
            (faults, "cast_m", "leader[0].length_m"),
            (faults, "leader"),
        )
        self.assertEqual(
            [f and f["path"] for f in found],
            ["flies[1].from_line_m", "float.buoyancy_g", None, "leader[0].length_m", None],
        )


class Bottom(ModuleCase):
    module = "lib/counted.ts"

    def test_when_the_fly_lies_down(self):
        rows = [{"t_s": t, "depth_m": 0.1 * t, "low_m": 0, "high_m": 0, "touching": t >= 3} for t in range(6)]
        self.assertEqual(self.call("bottomAt", rows), 3)
        self.assertIsNone(self.call("bottomAt", rows[:3]))
        self.assertIsNone(self.call("bottomAt", []))


class NewCount(ModuleCase):
    module = "lib/counted.ts"
    # The fly sinks 5 cm a second; the set-up counts 20 s and then runs about 1.5 m, half a metre below the count's end.
    SET_UP = {
        "count_s": 20,
        "estimate_m": 1.5,
        "target_m": 1.5,
        "low_m": 1.2,
        "high_m": 1.9,
        "sink_table": [
            {"t_s": t, "depth_m": 0.05 * t, "low_m": 0.04 * t, "high_m": 0.06 * t, "touching": False} for t in range(61)
        ],
    }

    def test_a_longer_count_moves_the_run_by_as_much_as_the_sink(self):
        deeper, same, higher = self.calls("atCount", (self.SET_UP, 30), (self.SET_UP, 20), (self.SET_UP, 10))
        self.assertAlmostEqual(deeper["depth_m"], 2.0)
        self.assertAlmostEqual(deeper["high_m"], 2.4)
        self.assertEqual((same["depth_m"], same["count_s"]), (1.5, 20))
        self.assertAlmostEqual(higher["depth_m"], 1.0)

    def test_it_stays_within_the_table_and_the_water(self):
        most, least = self.calls("atCount", (self.SET_UP, 500), (self.SET_UP, -5))
        self.assertEqual((most["count_s"], least["count_s"]), (60, 0))
        self.assertGreaterEqual(least["low_m"], 0)
