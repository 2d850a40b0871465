"""GeoJSON of a water: outline, places, soundings; round trips and rejections."""

import json
import unittest

from hypothesis import given
from hypothesis import strategies as st

from stillthread.core.chart.outline import area_and_shore
from stillthread.core.errors import InputError
from stillthread.formats.geojson import MappedPlace, MappedSounding, WaterMap, read_water_map, write_water_map
from tests import checks

RING = [[-9.25, 53.43], [-9.22, 53.43], [-9.22, 53.45], [-9.25, 53.45], [-9.25, 53.43]]
ISLAND = [[-9.24, 53.437], [-9.24, 53.442], [-9.235, 53.442], [-9.235, 53.437], [-9.24, 53.437]]


def feature(shape, coordinates, **properties):
    return {"type": "Feature", "geometry": {"type": shape, "coordinates": coordinates}, "properties": properties}


def collection(*features):
    return json.dumps({"type": "FeatureCollection", "features": list(features)})


def problem(text):
    with unittest.TestCase().assertRaises(InputError) as caught:
        read_water_map(text)
    return caught.exception.problems[0]


class Reading(unittest.TestCase):
    def test_valid_and_invalid_by_the_standard(self):
        # RFC 7946 (from memory), cross-checked with geojson-pydantic 2.2.0; neither library refuses latitude 153.
        for entry in checks.of("09_fmt", "GeoJSON"):
            text = entry["inputs"]["text"]
            with self.subTest(entry["inputs"]["case"]):
                if entry["expected"]:
                    self.assertIsNotNone(read_water_map(text).outline)
                else:
                    problem(text)

    def test_shore_island_places_and_soundings(self):
        text = collection(
            feature("Polygon", [RING, ISLAND], name="Lough Test"),
            feature("Point", [-9.23, 53.44], name="Reed corner", kind="weed-edge"),
            feature("Point", [-9.24, 53.445], depth_m=4.2, method="sounder"),
            feature("Point", [-9.24, 53.446], depth=10, unit="ft"),
            feature("LineString", [[-9.24, 53.44], [-9.23, 53.44]], name="path"),
        )
        found = read_water_map(text)
        self.assertEqual(len(found.outline), 2)
        self.assertEqual(found.places[0], MappedPlace("Reed corner", (-9.23, 53.44), "weed-edge"))
        self.assertAlmostEqual(found.soundings[1].sounding_m, 3.048)
        self.assertIn("1 feature left out", found.notes[0])

    def test_the_largest_of_several_waters(self):
        small = [[[p[0] + 0.1, 53.43 + (p[1] - 53.43) / 4] for p in RING]]
        found = read_water_map(collection(feature("MultiPolygon", [small, [RING]])))
        self.assertAlmostEqual(
            area_and_shore(found.outline)[0], 4437493.7, delta=5000
        )  # pyproj, as in the check values
        self.assertIn("the largest was taken", found.notes[0])

    def test_heights_are_ignored(self):
        high = [[*p, 120.0] for p in RING]
        self.assertEqual(
            read_water_map(json.dumps({"type": "Polygon", "coordinates": [high]})).outline[0][0], (-9.25, 53.43)
        )

    @given(
        st.lists(
            st.tuples(st.floats(-9.249, -9.221), st.floats(53.431, 53.449), st.floats(0.1, 60)), min_size=0, max_size=20
        )
    )
    def test_round_trip(self, rows):
        ring = tuple(tuple(p) for p in RING)
        given_map = WaterMap(
            (ring,),
            (MappedPlace("Drop", (-9.23, 53.44), "drop-off"),),
            tuple(MappedSounding((lon, lat), d, "sounder") for lon, lat, d in rows),
            (),
        )
        self.assertEqual(read_water_map(write_water_map(given_map, "Test")), given_map)


class Rejections(unittest.TestCase):
    def test_each_at_its_path(self):
        bow = [[0, 0], [0.01, 0.01], [0.01, 0], [0, 0.01], [0, 0]]
        cases = {
            "crosses itself": (
                collection(feature("Polygon", [bow])),
                "features[0].geometry.coordinates[0]",
                "self_crossing",
            ),
            "left open": (
                collection(feature("Polygon", [RING[:-1]])),
                "features[0].geometry.coordinates[0]",
                "not_closed",
            ),
            "swapped": (
                collection(feature("Polygon", [[[53.4, 109.2], *RING[1:-1], [53.4, 109.2]]])),
                "features[0].geometry.coordinates[0][0]",
                "position",
            ),
            "island outside": (
                collection(feature("Polygon", [RING, [[p[0] + 1, p[1]] for p in ISLAND]])),
                "features[0].geometry.coordinates",
                "islands",
            ),
            "no depth": (
                collection(feature("Point", [0, 0], depth_m="deep")),
                "features[0].properties.depth_m",
                "geojson",
            ),
            "too deep": (
                collection(feature("Point", [0, 0], depth_m=4000)),
                "features[0].properties.depth_m",
                "geojson",
            ),
            "two shores": (
                collection(feature("Polygon", [RING]), feature("Polygon", [RING])),
                "features[1]",
                "geojson",
            ),
            "nothing": (collection(), "features", "geojson"),
            "no collection": ('{"type": "Topology"}', "type", "geojson"),
            "cut off": (collection(feature("Polygon", [RING]))[:60], "line 1", "not_json"),
            "not a number": (collection(feature("Polygon", [RING])).replace("53.45", "NaN"), "file", "not_json"),
            "a word": (
                collection(feature("Point", ["west", 0], name="x")),
                "features[0].geometry.coordinates",
                "geojson",
            ),
        }
        for name, (text, path, code) in cases.items():
            with self.subTest(name):
                found = problem(text)
                self.assertEqual((found.path.split(",")[0], found.code), (path, code), found)
                self.assertTrue(found.accepted)
