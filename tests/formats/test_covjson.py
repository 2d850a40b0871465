"""CoverageJSON in and out: profiles and weather, round trips, and what the library would let through."""

import json
import unittest
from datetime import UTC, datetime, timedelta

from covjson_pydantic.coverage import Coverage
from hypothesis import given
from hypothesis import strategies as st

from stillthread.core.errors import InputError
from stillthread.core.reading.hours import Hour
from stillthread.core.water.profile import Point
from stillthread.formats.covjson import (
    read_profile_coverage,
    read_weather_coverage,
    write_profile_coverage,
    write_weather_coverage,
)
from tests import checks

WHEN = datetime(2026, 4, 15, 6, tzinfo=UTC)
HERE = (-9.25, 53.43)


def good():
    return json.loads(checks.VALUES["09_fmt-o17"]["inputs"]["text"])


def problem(text, reader=read_profile_coverage):
    with unittest.TestCase().assertRaises(InputError) as caught:
        reader(text if isinstance(text, str | bytes) else json.dumps(text))
    return caught.exception.problems[0]


class Checks(unittest.TestCase):
    def test_valid_and_invalid_documents(self):
        # CoverageJSON 1.0 (from memory), cross-checked with covjson-pydantic 0.8.0.
        for entry in checks.of("09_fmt", "CoverageJSON"):
            with self.subTest(entry["inputs"]["case"]):
                if entry["expected"]:
                    self.assertTrue(read_profile_coverage(entry["inputs"]["text"]).points)
                else:
                    problem(entry["inputs"]["text"])

    def test_values_place_and_time(self):
        found = read_profile_coverage(checks.VALUES["09_fmt-o17"]["inputs"]["text"])
        self.assertEqual([(p.depth_m, p.temperature_c) for p in found.points], [(0, 11.2), (5, 10.5), (10, 9.9)])
        self.assertEqual((found.position, found.when), (HERE, WHEN))

    def test_null_is_a_missing_value(self):
        found = read_profile_coverage(checks.VALUES["09_fmt-o19"]["inputs"]["text"])
        self.assertEqual([p.depth_m for p in found.points], [0, 10])
        self.assertIn("1 depths without a temperature left out.", found.notes)


class Profiles(unittest.TestCase):
    @given(
        st.lists(
            st.tuples(st.integers(0, 600), st.floats(-1, 39), st.one_of(st.none(), st.floats(0, 20))),
            min_size=1,
            max_size=30,
            unique_by=lambda row: row[0],
        )
    )
    def test_round_trip(self, rows):
        points = tuple(Point(d / 20, t, o) for d, t, o in sorted(rows))
        text = write_profile_coverage(points, HERE, WHEN)
        Coverage.model_validate_json(text)  # the library agrees that it is one
        found = read_profile_coverage(text)
        self.assertEqual((found.points, found.position, found.when), (points, HERE, WHEN))

    def test_fahrenheit_and_kelvin(self):
        for unit, value in (("[degF]", 68.0), ("K", 293.15)):
            doc = good()
            doc["parameters"]["T"]["unit"]["symbol"] = unit
            doc["ranges"]["T"]["values"] = [value] * 3
            self.assertAlmostEqual(read_profile_coverage(json.dumps(doc)).points[0].temperature_c, 20.0)

    def test_negative_depths_and_bottom_up(self):
        doc = good()
        doc["domain"]["axes"]["z"]["values"] = [-10.0, -5.0, 0.0]
        found = read_profile_coverage(json.dumps(doc))
        self.assertEqual([(p.depth_m, p.temperature_c) for p in found.points], [(0, 9.9), (5, 10.5), (10, 11.2)])
        self.assertTrue(found.notes)

    def test_a_compact_axis(self):
        doc = good()
        doc["domain"]["axes"]["z"] = {"start": 0.0, "stop": 4.0, "num": 3}
        self.assertEqual([p.depth_m for p in read_profile_coverage(json.dumps(doc)).points], [0, 2, 4])

    def test_depths_that_do_not_run_one_way(self):
        doc = good()
        doc["domain"]["axes"]["z"]["values"] = [0.0, 10.0, 5.0]
        self.assertEqual(problem(doc).path, "domain.axes.z")
        doc["domain"]["axes"]["z"]["values"] = [0.0, 5.0, 5.0]
        self.assertEqual(problem(doc).path, "domain.axes.z")

    def test_deeper_than_the_water(self):
        with self.assertRaises(InputError) as caught:
            read_profile_coverage(json.dumps(good()), 8.0)
        self.assertEqual(caught.exception.problems[0].code, "below_bed")

    def test_what_is_refused_where(self):
        text = json.dumps(good())
        self.assertIn("line 1", problem(text[: len(text) // 2]).path)  # cut off in the middle
        self.assertIn("complete", problem(text[: len(text) // 2]).hint)
        self.assertEqual(problem(text.replace("10.5", "NaN")).code, "not_json")
        self.assertEqual(problem("[]").code, "not_coverage")
        self.assertEqual(problem(b"\xff\xfe\x00").code, "not_text")
        self.assertEqual(problem(b"x" * 2_100_000).code, "too_large")
        self.assertEqual(
            problem(write_weather_coverage((Hour(when=WHEN, wind_m_s=3.0),), HERE)).path, "domain.domainType"
        )

    def test_lenient_things_the_library_lets_through(self):
        # Longitude and latitude beyond the earth, values over the wrong axis, no temperature at all.
        far = good()
        far["domain"]["axes"]["y"]["values"] = [153.43]
        self.assertEqual(problem(far).code, "position")
        wrong = good()
        wrong["ranges"]["T"]["axisNames"] = ["t"]
        self.assertEqual(problem(wrong).path, "ranges.T")
        short = good()
        short["ranges"]["T"].update(shape=[2], values=[11.2, 10.5])
        self.assertEqual(problem(short).path, "ranges.T")
        other = good()
        other["parameters"] = {"S": {**other["parameters"]["T"], "observedProperty": {"label": {"en": "salinity"}}}}
        other["ranges"] = {"S": other["ranges"]["T"]}
        self.assertIn("No water temperature among: S", problem(other).message)
        unit = good()
        unit["parameters"]["T"]["unit"]["symbol"] = "mol"
        self.assertEqual(problem(unit).path, "parameters.T.unit")


class Weather(unittest.TestCase):
    HOURS = tuple(
        Hour(
            when=WHEN + timedelta(hours=i),
            wind_m_s=3.0 + i,
            gust_m_s=5.0 + i,
            wind_from_deg=(200.0 + 20 * i) % 360,
            cloud_oktas=float(i % 9),
            air_temperature_c=8.0,
            sea_level_pressure_hpa=1012.5,
            rain_mm=0.2 * i,
        )
        for i in range(12)
    )

    def test_round_trip(self):
        position, hours = read_weather_coverage(write_weather_coverage(self.HOURS, HERE))
        self.assertEqual(position, HERE)
        for ours, theirs in zip(self.HOURS, hours, strict=True):
            self.assertEqual(ours.when, theirs.when)
            for name in (
                "wind_m_s",
                "gust_m_s",
                "wind_from_deg",
                "cloud_oktas",
                "air_temperature_c",
                "sea_level_pressure_hpa",
                "rain_mm",
            ):
                self.assertAlmostEqual(getattr(ours, name), getattr(theirs, name), places=3)

    def test_missing_values_stay_missing(self):
        _, hours = read_weather_coverage(
            write_weather_coverage((Hour(when=WHEN, wind_m_s=3.0), Hour(when=WHEN + timedelta(hours=1))), HERE)
        )
        self.assertIsNone(hours[1].wind_m_s)
        self.assertIsNone(hours[0].gust_m_s)

    def test_units_of_other_services(self):
        doc = json.loads(write_weather_coverage(self.HOURS[:2], HERE))
        doc["parameters"]["wind_speed"]["unit"]["symbol"]["value"] = "km/h"
        doc["parameters"]["air_pressure_at_mean_sea_level"]["unit"]["symbol"]["value"] = "Pa"
        doc["ranges"]["air_pressure_at_mean_sea_level"]["values"] = [101250.0, 101300.0]
        doc["parameters"]["cloud_area_fraction"]["unit"]["symbol"]["value"] = "%"
        doc["ranges"]["cloud_area_fraction"]["values"] = [100.0, 50.0]
        _, hours = read_weather_coverage(json.dumps(doc))
        self.assertAlmostEqual(hours[0].wind_m_s, 3.0 / 3.6)
        self.assertAlmostEqual(hours[0].sea_level_pressure_hpa, 1012.5)
        self.assertEqual([h.cloud_oktas for h in hours], [8.0, 4.0])

    def test_gust_and_wind_are_told_apart(self):
        _, hours = read_weather_coverage(write_weather_coverage(self.HOURS[:1], HERE))
        self.assertEqual((hours[0].wind_m_s, hours[0].gust_m_s), (3.0, 5.0))

    def test_what_is_refused_where(self):
        text = write_weather_coverage(self.HOURS, HERE)
        back = json.loads(text)
        back["domain"]["axes"]["t"]["values"][3] = back["domain"]["axes"]["t"]["values"][2]
        self.assertEqual(problem(back, read_weather_coverage).path, "domain.axes.t.values[3]")
        calm = json.loads(text)
        for key in ("wind_speed", "wind_speed_of_gust", "wind_from_direction"):
            del calm["ranges"][key]
        self.assertIn("No wind speed", problem(calm, read_weather_coverage).message)
        storm = json.loads(text)
        storm["ranges"]["wind_speed"]["values"][0] = 400.0
        self.assertEqual(problem(storm, read_weather_coverage).path, "hours[0].wind_m_s")
        naive = json.loads(text)
        naive["domain"]["axes"]["t"]["values"] = ["2026-04-15T06:00:00"] * 12
        problem(naive, read_weather_coverage)
        self.assertIn("line", problem(text[:-40], read_weather_coverage).path)
