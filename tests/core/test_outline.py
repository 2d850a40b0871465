import math
import unittest

from hypothesis import given
from hypothesis import strategies as st

from stillthread.core.chart.outline import (
    area_and_shore,
    checked_outline,
    destination,
    distance_and_bearing,
    fetch_m,
    longest_fetch_m,
    shore_stretches,
)
from stillthread.core.errors import InputError
from tests import checks

HERE = (-2.4, 54.1)


def rectangle(width_m, height_m, centre=HERE):
    """A lake with its sides north-south and east-west, by the geodesic library."""
    half_w, half_h = width_m / 2, height_m / 2
    east, west = destination(centre, 90, half_w)[0], destination(centre, 270, half_w)[0]
    north, south = destination(centre, 0, half_h)[1], destination(centre, 180, half_h)[1]
    return (((west, south), (east, south), (east, north), (west, north), (west, south)),)


def island(width_m, centre=HERE):
    return rectangle(width_m, width_m, centre)[0]


class Geodesy(unittest.TestCase):
    def test_distance_and_bearing(self):
        # pyproj 3.7.2 Geod; the project uses the same library, so this guards the order of arguments.
        for entry in checks.of("09_geo", "distance and initial bearing"):
            i, e = entry["inputs"], entry["expected"]
            metres, bearing = distance_and_bearing((i["lon1"], i["lat1"]), (i["lon2"], i["lat2"]))
            self.assertAlmostEqual(metres, e["distance_m"], delta=0.01, msg=entry["id"])
            if e["bearing_deg"] is None:
                self.assertIsNone(bearing)
            else:
                self.assertAlmostEqual(bearing, e["bearing_deg"], delta=0.001, msg=entry["id"])

    def test_one_minute_of_latitude_is_about_a_sea_mile(self):
        # Independent of the library: the sea mile is 1852 m by definition, a minute of latitude 1843 to 1862 m.
        metres, bearing = distance_and_bearing((0, 45), (0, 45 + 1 / 60))
        self.assertAlmostEqual(metres, 1852, delta=1.5)
        self.assertAlmostEqual(bearing % 360, 0, delta=1e-6)

    def test_destination(self):
        for entry in checks.of("09_geo", "destination"):
            i, e = entry["inputs"], entry["expected"]
            lon, lat = destination((i["lon"], i["lat"]), i["bearing_deg"], i["distance_m"])
            self.assertAlmostEqual(lon, e["lon"], delta=1e-5)
            self.assertAlmostEqual(lat, e["lat"], delta=1e-5)

    def test_area_and_shore(self):
        for entry in checks.of("09_geo", "lake area"):
            ring = tuple(tuple(p) for p in entry["inputs"]["lonlat_ring"])
            area, shore = area_and_shore((ring + ring[:1],))
            self.assertAlmostEqual(area, entry["expected"]["area_m2"], delta=1)
            self.assertAlmostEqual(shore, entry["expected"]["perimeter_m"], delta=0.01)

    def test_an_island_takes_its_area_away(self):
        lake = rectangle(2000, 1000)
        holed = (*lake, island(200))
        self.assertAlmostEqual(area_and_shore(lake)[0] - area_and_shore(holed)[0], 40_000, delta=100)


class Fetch(unittest.TestCase):
    def test_along_and_across_a_long_lake(self):
        lake = rectangle(3000, 600)
        east_shore = destination(HERE, 90, 1490)
        self.assertAlmostEqual(fetch_m(lake, east_shore, 270), self.spread(2990, 300), delta=20)
        self.assertLess(fetch_m(lake, east_shore, 90), 15)

    def spread(self, along_m, half_width_m):
        """By hand: rays 0 to 12° off the axis reach the end, or the side at half the width over the sine."""
        rays = []
        for off in range(-12, 13, 3):
            angle = math.radians(abs(off))
            side = half_width_m / math.sin(angle) if off else math.inf
            rays.append(min(along_m / math.cos(angle), side))
        return sum(rays) / len(rays)

    def test_from_the_middle_of_a_square(self):
        lake = rectangle(1000, 1000)
        for wind in (0, 90, 180, 270):
            self.assertAlmostEqual(
                fetch_m(lake, HERE, wind),
                500 * sum(1 / math.cos(math.radians(a)) for a in range(-12, 13, 3)) / 9,
                delta=5,
            )

    @given(st.sampled_from([0, 30, 60, 90, 135]), st.floats(-300, 300), st.floats(-300, 300))
    def test_mirror(self, bearing, east, north):
        """A lake that is its own mirror image has mirrored fetches."""
        lake = rectangle(1600, 1600)
        point = destination(destination(HERE, 90, east), 0, north)
        mirrored = destination(destination(HERE, 90, -east), 0, north)
        self.assertAlmostEqual(fetch_m(lake, point, bearing), fetch_m(lake, mirrored, -bearing), delta=3)

    def test_an_island_breaks_the_fetch(self):
        lake = rectangle(2000, 2000)
        holed = (*lake, island(400, destination(HERE, 270, 400)))
        self.assertLess(fetch_m(holed, HERE, 270), 300)
        self.assertAlmostEqual(fetch_m(holed, HERE, 90), fetch_m(lake, HERE, 90), delta=1)

    def test_a_place_on_the_bank_counts_as_just_off_it(self):
        lake = rectangle(2000, 1000)
        on_land = destination(HERE, 90, 1040)
        self.assertGreater(fetch_m(lake, on_land, 270), 1500)

    def test_longest_fetch_of_a_square_is_near_its_diagonal(self):
        lake = rectangle(1000, 1000)
        self.assertAlmostEqual(longest_fetch_m(lake, 45), 1000 * math.sqrt(2), delta=20)
        self.assertAlmostEqual(longest_fetch_m(lake, 0), 1000, delta=20)

    def test_across_the_date_line(self):
        lake = rectangle(2000, 1000, (179.995, -10.0))
        crossing = (tuple(((lon + 180) % 360 - 180, lat) for lon, lat in lake[0]),)
        checked_outline(crossing)
        self.assertAlmostEqual(fetch_m(crossing, (179.995, -10.0), 90), fetch_m(lake, (179.995, -10.0), 90), delta=2)


class Shores(unittest.TestCase):
    def test_each_side_looks_over_the_water(self):
        facing = [round(s.facing_deg) % 360 for s in shore_stretches(rectangle(1000, 500))]
        self.assertEqual(facing, [0, 270, 180, 90])  # south shore looks north, east shore west, and so on

    def test_it_does_not_matter_which_way_round_the_ring_runs(self):
        lake = rectangle(1000, 500)
        turned = (lake[0][::-1],)
        self.assertEqual(
            sorted(round(s.facing_deg) % 360 for s in shore_stretches(turned)),
            sorted(round(s.facing_deg) % 360 for s in shore_stretches(lake)),
        )

    def test_an_island_looks_outwards(self):
        holed = (*rectangle(2000, 2000), island(200))
        facing = [round(s.facing_deg) % 360 for s in shore_stretches(holed)[4:]]
        self.assertEqual(sorted(facing), [0, 90, 180, 270])
        south_side = next(s for s in shore_stretches(holed)[4:] if round(s.facing_deg) == 180)
        self.assertLess(south_side.start[1], HERE[1])


class Refused(unittest.TestCase):
    def refused(self, *rings):
        with self.assertRaises(InputError) as caught:
            checked_outline(tuple(tuple(r) for r in rings))
        return caught.exception.problems

    def test_a_shore_that_crosses_itself(self):
        found = self.refused([(0, 50), (0.02, 50.01), (0.02, 50), (0, 50.01), (0, 50)])
        self.assertEqual((found[0].code, found[0].path), ("self_crossing", "outline[0]"))

    def test_an_open_ring(self):
        self.assertEqual(self.refused([(0, 50), (0.01, 50), (0.01, 50.01)])[0].code, "not_closed")

    def test_places_off_the_earth(self):
        found = self.refused([(0, 50), (0.01, 95), (0.01, float("nan")), (0, 50)])
        self.assertEqual([p.path for p in found], ["outline[0][1]", "outline[0][2]"])

    def test_swapped_latitude_and_longitude_is_offered(self):
        found = self.refused([(40, 116), (40.01, 116), (40.01, 116.01), (40, 116)])
        self.assertIn("swapped", found[0].hint)

    def test_an_island_on_land(self):
        lake = rectangle(500, 500)[0]
        self.assertEqual(self.refused(lake, island(100, destination(HERE, 90, 900)))[0].code, "islands")

    def test_a_continent(self):
        self.assertEqual(self.refused([(0, 40), (20, 40), (20, 50), (0, 40)])[0].code, "too_large")

    def test_nothing(self):
        self.assertEqual(self.refused()[0].code, "empty")

    def test_a_flat_line_has_no_water(self):
        self.assertEqual(self.refused([(0, 50), (0.01, 50), (0.02, 50), (0, 50)])[0].code, "self_crossing")
