"""What people see against what is stored: exact definitions of the units, by hand."""

from datetime import UTC, datetime, timedelta

from stillthread.core import units
from tests.frontend.base import ModuleCase


class Units(ModuleCase):
    module = "lib/units.ts"

    def test_depths_both_ways(self):
        # International foot, 0.3048 m exactly.
        self.table("depthTo", ("m", 2.0, 2.0), ("ft", 3.048, 10.0), ("ft", 0, 0))
        self.table("depthFrom", ("m", 2.0, 2.0), ("ft", 10, 3.048))

    def test_temperatures_both_ways(self):
        self.table("temperatureTo", ("c", 12.5, 12.5), ("f", 20, 68), ("f", -40, -40), ("f", 0, 32))
        self.table("temperatureFrom", ("c", 12.5, 12.5), ("f", 68, 20), ("f", 59, 15))

    def test_wind_in_the_units_people_use(self):
        # 1 kn = 1852 m an hour, 1 mph = 0.44704 m/s, exactly.
        self.table(
            "windFrom", ("m_s", 5.0, 5.0), ("km_h", 36, 10), ("mph", 10, 4.4704), ("kn", 3600, 1852.0), ("bft", 0, 0)
        )
        self.table("windTo", ("km_h", 10.0, 36.0), ("mph", 4.4704, 10.0), ("m_s", 7.0, 7.0), ("bft", 5.5556, 4))

    def test_beaufort_as_the_core_has_it(self):
        forces = list(range(13))
        speeds = self.calls("windFrom", *(("bft", force) for force in forces))
        for force, speed in zip(forces, speeds, strict=True):
            self.assertAlmostEqual(speed, units.beaufort_to_m_s(force))
        steps = [tenth / 10 for tenth in range(0, 400, 3)]
        shown = self.calls("windTo", *(("bft", speed) for speed in steps))
        self.assertEqual(shown, [units.beaufort_from_m_s(speed) for speed in steps])

    def test_depths_as_they_are_read(self):
        self.table(
            "depthText",
            ("m", 1.4999, "1.5 m"),
            ("m", 0, "0.0 m"),
            ("ft", 3.048, "10 ft"),
            ("ft", 0.3048, "1.0 ft"),
            ("m", 18, 0, "18 m"),
        )

    def test_bands_as_they_are_read(self):
        self.table(
            "bandText",
            ("m", 1.0, 2.25, "1.0 to 2.3 m"),
            ("ft", 1.524, 4.572, "5 to 15 ft"),
            ("ft", 0.3048, 0.6096, "1.0 to 2.0 ft"),
            ("m", 3.28, 3.31, "3.3 m"),  # nobody says "3.3 to 3.3"
        )

    def test_leader_lengths_in_feet_and_inches(self):
        # 7 ft = 2.1336 m; 4 ft 8 in = 1.4224 m; rounding up to a foot carries.
        self.table(
            "lengthText",
            ("ft", 2.1336, "7 ft"),
            ("ft", 1.4224, "4 ft 8 in"),
            ("ft", 0.3047, "1 ft"),
            ("m", 2.1336, "2.13 m"),
        )

    def test_numbers_as_they_are_typed(self):
        self.table(
            "typedNumber",
            ("4.5", 4.5),
            ("4,5", 4.5),
            (" 12 ", 12),
            ("-0,5", -0.5),
            (".5", 0.5),
            ("", None),
            ("   ", None),
            ("warm", "NaN"),
            ("1,2,3", "NaN"),
            ("1e3", "NaN"),
            ("12 °C", "NaN"),
        )

    def test_numbers_put_back_into_boxes(self):
        self.table("boxText", (2.0, "2"), (2.5000001, "2.5"), (1 / 3, 1, "0.3"))


class Words(ModuleCase):
    module = "lib/words.ts"
    GB = {"vocabulary": "gb", "depth": "m", "temperature": "c", "wind": "m_s"}
    NA = {"vocabulary": "na", "depth": "ft", "temperature": "f", "wind": "mph"}

    def say(self, voice, text):
        return self.call("say", voice, text)

    def test_each_vocabulary(self):
        self.assertEqual(self.say(self.GB, "Float rig"), "Bung rig")
        self.assertEqual(self.say(self.NA, "Float rig"), "Indicator rig")
        self.assertEqual(self.say(self.NA, "Under a float"), "Under an indicator")
        self.assertEqual(self.say(self.GB, "Chironomid pupa and scud"), "Buzzer pupa and freshwater shrimp")
        self.assertEqual(self.say(self.NA, "Chironomid larva"), "Bloodworm")
        self.assertEqual(self.say(self.GB, "Slow hand twist"), "Slow figure of eight")
        self.assertEqual(self.say(self.NA, "Plucks: change pace"), "Bumps: change pace")

    def test_a_floating_line_is_no_bung(self):
        self.assertEqual(self.say(self.GB, "Slow nymphs on a floating line"), "Slow nymphs on a floating line")

    def test_quantities_in_the_readers_units(self):
        # 3 m = 9.84 ft, 6 m = 19.7 ft; 20 °C = 68 °F; 30 cm = 11.8 in; 5.5 m/s = 12.3 mph.
        self.assertEqual(self.say(self.NA, "It lies at 3.0 to 6.0 m."), "It lies at 10 to 20 ft.")
        self.assertEqual(self.say(self.NA, "stop above 20 °C"), "stop above 68 °F")
        self.assertEqual(self.say(self.NA, "move it 30 cm"), "move it 12 in")
        self.assertEqual(self.say(self.NA, "From 5.5 m/s think again"), "From 12 mph think again")
        self.assertEqual(self.say(self.NA, "the upper 0.6 m"), "the upper 2 ft")

    def test_metric_readers_see_what_was_written(self):
        text = "Between 3.6 and 5.5 m, at 12.5 °C, 6 mg/L, 5 s a cast, 14 moments"
        self.assertEqual(self.say(self.GB, text), text)

    def test_what_is_no_quantity_is_left_alone(self):
        for text in ("3 mm", "4 million", "10 minutes", "5 s", "3X", "size 12"):
            self.assertEqual(self.say(self.NA, text), text)


class Time(ModuleCase):
    module = "lib/time.ts"

    def test_a_box_shows_the_waters_own_clock(self):
        # British summer time is an hour ahead of UTC in May, not in November.
        self.table(
            "boxTime",
            ({"$date": "2026-05-14T09:00:00Z"}, "Europe/London", "2026-05-14T10:00"),
            ({"$date": "2026-11-14T09:00:00Z"}, "Europe/London", "2026-11-14T09:00"),
            ({"$date": "2026-05-14T23:30:00Z"}, "Pacific/Auckland", "2026-05-15T11:30"),
        )

    def test_a_box_means_the_waters_own_clock(self):
        self.table(
            "fromBoxTime",
            ("2026-05-14T10:00", "Europe/London", "2026-05-14T09:00:00.000Z"),
            ("2026-01-14T10:00", "America/Denver", "2026-01-14T17:00:00.000Z"),
            ("2026-03-29T03:30", "Europe/London", "2026-03-29T02:30:00.000Z"),
            ("nonsense", "UTC", None),
            ("2026-05-14T10:00:00", "UTC", None),
        )

    def test_a_year_half_typed_or_far_off_is_no_time(self):
        ahead = datetime.now(UTC) + timedelta(days=300)
        self.table(
            "fromBoxTime",
            ("0002-05-14T10:00", "Europe/London", None),
            ("1969-12-31T10:00", "UTC", None),
            ("9999-01-01T10:00", "UTC", None),
            ("1970-01-02T10:00", "UTC", "1970-01-02T10:00:00.000Z"),
            (f"{ahead:%Y-%m-%dT%H:%M}", "UTC", f"{ahead:%Y-%m-%dT%H:%M}:00.000Z"),
        )

    def test_a_plans_day_in_words(self):
        # 26 November 2026 is a Thursday.
        self.table("dayAndClock", ("2026-11-26T09:30:00Z", "Europe/London", "Thu 26 Nov, 09:30"))

    def test_there_and_back_over_a_year(self):
        days = [f"2026-{month:02d}-{day:02d}T05:45" for month in range(1, 13) for day in (1, 15, 28)]
        for zone in ("Europe/London", "America/Denver", "Australia/Hobart"):
            instants = self.calls("fromBoxTime", *((day, zone) for day in days))
            back = self.calls("boxTime", *(({"$date": instant}, zone) for instant in instants))
            self.assertEqual(back, days)

    def test_spans_and_clocks(self):
        self.table("hoursText", (0.5, "30 min"), (2.0, "2 h 00"), (1.24, "1 h 14"), (0, "0 min"))
        self.table("secondsText", (0, "0:00"), (9.9, "0:09"), (61, "1:01"), (-3, "0:00"), (600, "10:00"))
        self.assertEqual(self.call("clockText", "2026-05-14T09:05:00Z", "Europe/London"), "10:05")
        self.assertIn("14 May 2026", self.call("dayText", "2026-05-14T09:05:00Z", "Europe/London"))


class DepthOffTheTable(ModuleCase):
    module = "lib/counted.ts"
    TABLE = [
        {"t_s": t, "depth_m": 0.1 * t, "low_m": 0.07 * t, "high_m": 0.13 * t, "touching": t >= 3} for t in (0, 1, 2, 3)
    ]

    def test_between_two_rows_and_beyond_the_last(self):
        at = self.call("depthAt", self.TABLE, 1.5)
        self.assertAlmostEqual(at["depth"], 0.15)
        self.assertAlmostEqual(at["low"], 0.105)
        self.assertAlmostEqual(at["high"], 0.195)
        held = self.call("depthAt", self.TABLE, 99)
        self.assertAlmostEqual(held["depth"], 0.3)
        self.assertTrue(held["touching"])

    def test_where_no_estimate_is_made(self):
        rows = [{**row, "depth_m": None} for row in self.TABLE]
        at = self.call("depthAt", rows, 1.5)
        self.assertIsNone(at["depth"])
        self.assertAlmostEqual(at["high"], 0.195)

    def test_an_empty_table(self):
        self.assertEqual(self.call("depthAt", [], 3), {"depth": None, "low": None, "high": None, "touching": False})
