"""Files made to hurt: every reader refuses them with a fault that says where, or reads them; none raises anything else."""

import json
import random
import unittest

from stillthread.core.errors import InputError
from stillthread.core.water.profile import Point
from stillthread.documents.flies_file import read_flies
from stillthread.formats.covjson import read_profile_coverage, read_weather_coverage, write_profile_coverage
from stillthread.formats.geojson import read_water_map, write_water_map
from stillthread.formats.nmea import SentenceError, read_sentence
from stillthread.formats.profile_csv import read_profile_csv

READERS = {
    "profile csv": lambda data: read_profile_csv(data, 10.0),
    "profile coverage": lambda data: read_profile_coverage(data, 10.0),
    "weather coverage": read_weather_coverage,
    "map": read_water_map,
    "fly box": read_flies,
    "boat": lambda data: read_sentence(data.decode("latin-1")),
}
GOOD = json.loads(write_profile_coverage((Point(0.0, 15.0), Point(2.0, 14.0)), (0.0, 50.0)))
SQUARE = [[0, 50], [0.01, 50], [0.01, 50.01], [0, 50.01], [0, 50]]
LONG = "9" * 400


def coverage(**changes):
    """A good profile with parts of it changed, by dotted path."""
    made = json.loads(json.dumps(GOOD))
    for path, value in changes.items():
        *way, last = path.split("__")
        part = made
        for name in way:
            part = part[name]
        part[last] = value
    return json.dumps(made).encode().replace(b'"LONG"', LONG.encode())


def feature(coordinates, **properties):
    found = {"type": "Feature", "geometry": {"type": "Polygon", "coordinates": coordinates}, "properties": properties}
    return json.dumps({"type": "FeatureCollection", "features": [found]}).encode().replace(b'"LONG"', LONG.encode())


HOSTILE = {
    "a regular axis of a billion steps": coverage(domain__axes__z={"start": 0, "stop": 9, "num": 10**9}),
    "an axis of no steps": coverage(domain__axes__z={"start": 0, "stop": 9, "num": 0}),
    "text as depths": coverage(domain__axes__z={"values": ["shallow", "deep"]}),
    "dates as depths": coverage(domain__axes__z={"values": ["2026-05-01T09:00:00Z", "2026-05-02T09:00:00Z"]}),
    "true as depths": coverage(domain__axes__z={"values": [False, True]}),
    "parameters null": coverage(parameters=None),
    "ranges null": coverage(ranges=None),
    "domain null": coverage(domain=None),
    "a long whole number": coverage(domain__axes__z={"values": [0, "LONG"]}),
    "a long whole number as a value": coverage(ranges__water_temperature__values=[12, "LONG"]),
    "a number past all numbers": coverage(domain__axes__z={"values": [0, 7]}).replace(b"7]", b"1e999]"),
    "numbers as times": coverage(domain__axes__t={"values": [4]}),
    "a time without a zone": coverage(domain__axes__t={"values": ["2026-05-01T09:00:00"]}),
    "the first instant": coverage(domain__axes__t={"values": ["0001-01-01T00:00:00+14:00"]}),
    "deep nesting": b"[" * 100_000,
    "nothing": b"",
    "a null byte": b"0;12\x00\n",
    "bare returns": b"depth;temp\r0;12\r2;11\r",
    "a cell of 200 kB": b'depth;temp\n0;"' + b"1" * 200_000 + b'"\n',
    "a quote without an end": b'depth;temp\n0;"12\n1;11\n',
    "a raised two": "depth;temp\n0;12\n\u00b2;11\n".encode(),
    "digits of another script": "depth;temp\n0;\u0661\u0662\n".encode(),
    "depth -1 among others": b"depth;temp\n-1;12\n0;11\n2;10\n",
    "a long number": f"depth;temp\n0;12\n{LONG};11\n".encode(),
    "a corner of long numbers": feature([[[0, 50], ["LONG", 50], [0.01, 50.01], [0, 50]]]),
    "corners of text": feature([[["a", "b"], ["c", "d"], ["e", "f"], ["a", "b"]]]),
    "corners of truth": feature([[[True, False], [False, True], [True, True], [True, False]]]),
    "no corners": feature([]),
    "null corners": feature(None),
    "a sounding of text": feature([SQUARE], depth="deep"),
    "properties null": json.dumps({"type": "Feature", "geometry": None, "properties": None}).encode(),
    "features of numbers": b'{"type": "FeatureCollection", "features": [1, null, []]}',
    "hooks of a raised two": "name,category,hooks\nOne,nymph,\u00b2\n".encode(),
    "a stock of a raised two": "name,category,stock\nOne,nymph,\u00b2\n".encode(),
    "a long stock": f"name,category,stock\nOne,nymph,{LONG * 12}\n".encode(),
    "a sentence of a long number": f"$SDDPT,{LONG},0.0*00".encode(),
    "a sentence of raised twos": "$SDDPT,\u00b2,0.0".encode("latin-1"),
}


class Hostile(unittest.TestCase):
    def read(self, reader, data):
        """Whatever comes of it, as long as it is an answer or a fault with words."""
        try:
            READERS[reader](data)
        except SentenceError as error:  # a line of the boat's feed that is passed over
            self.assertTrue(str(error))
        except InputError as error:
            for problem in error.problems:
                self.assertTrue(problem.message and problem.accepted, problem)
                self.assertLess(len(problem.message) + len(problem.accepted), 400, problem)

    def test_no_file_brings_a_reader_down(self):
        for name, data in HOSTILE.items():
            for reader in READERS:
                with self.subTest(f"{name}, read as {reader}"):
                    self.read(reader, data)

    def test_a_good_file_broken_anywhere(self):
        rng = random.Random(5)
        good = coverage()
        for _ in range(400):
            broken = bytearray(good)
            for _ in range(rng.randint(1, 4)):
                broken[rng.randrange(len(broken))] = rng.randrange(256)
            with self.subTest(bytes(broken)):
                self.read("profile coverage", bytes(broken[: rng.randint(10, len(broken))]))

    def test_what_must_be_refused(self):
        refused = ("a regular axis of a billion steps", "text as depths", "dates as depths", "a long whole number")
        for name in refused:
            with self.subTest(name), self.assertRaises(InputError):
                read_profile_coverage(HOSTILE[name], 10.0)
        for name in ("a raised two", "depth -1 among others", "a cell of 200 kB", "a long number"):
            with self.subTest(name), self.assertRaises(InputError):
                read_profile_csv(HOSTILE[name], 10.0)

    def test_bare_returns_end_lines(self):
        self.assertEqual(len(read_profile_csv(HOSTILE["bare returns"], 10.0).points), 2)

    def test_a_clockwise_shore_is_written_the_other_way(self):
        read = read_water_map(feature([SQUARE[::-1]]))
        ring = json.loads(write_water_map(read, "Tarn"))["features"][0]["geometry"]["coordinates"][0]
        area = sum(a[0] * b[1] - b[0] * a[1] for a, b in zip(ring, ring[1:], strict=False))
        self.assertGreater(area, 0)  # RFC 7946, 3.1.6: exterior rings are counter-clockwise
