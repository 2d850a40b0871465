"""GPX and METAR: read strictly, against worked values of the codes themselves."""

import unittest
from datetime import UTC, datetime

import gpxpy

from stillthread.core.errors import InputError
from stillthread.core.reading.hours import Hour
from stillthread.formats.gpx import read_gpx, read_track, write_gpx, write_track
from stillthread.formats.metar_text import read_metar, write_metar

NOW = datetime(2026, 5, 14, 13, tzinfo=UTC)
GPX = """<?xml version="1.0"?><gpx version="1.1" creator="x" xmlns="http://www.topografix.com/GPX/1/1">
<wpt lat="54.5" lon="-3.1"><name> Deep  hole </name></wpt><wpt lat="54.6" lon="-3.2"/>
<trk><trkseg><trkpt lat="54.5" lon="-3.1"><time>2026-05-14T09:00:00Z</time></trkpt>
<trkpt lat="54.501" lon="-3.1"><time>2026-05-14T09:05:00Z</time></trkpt></trkseg></trk></gpx>"""


class Metars(unittest.TestCase):
    def test_a_report_in_si(self):
        found = read_metar("METAR EGXX 141150Z 24012G20KT 9999 FEW020 BKN045 14/08 Q1013=", NOW)
        hour = found.hour
        self.assertEqual((found.station, hour.when), ("EGXX", datetime(2026, 5, 14, 11, 50, tzinfo=UTC)))
        # A knot is 1852 m an hour: 12 kn are 6.17 m/s, 20 kn 10.29; broken cloud is 5 to 7 eighths (WMO code table 2700).
        self.assertEqual((hour.wind_m_s, hour.gust_m_s, hour.wind_from_deg), (6.17, 10.29, 240))
        self.assertEqual((hour.cloud_oktas, hour.air_temperature_c, hour.sea_level_pressure_hpa), (6, 14, 1013))

    def test_calm_variable_cavok_inches_frost(self):
        calm = read_metar("KXYZ 141153Z 00000KT 10SM CLR M02/M05 A2992", NOW).hour
        self.assertEqual((calm.wind_m_s, calm.cloud_oktas, calm.air_temperature_c), (0, 0, -2))
        self.assertAlmostEqual(calm.sea_level_pressure_hpa, 1013.2, delta=0.1)  # 29.92 inches of mercury
        varies = read_metar("EGXX 141150Z VRB02KT CAVOK 20/10 Q1020", NOW).hour
        self.assertEqual((varies.wind_from_deg, varies.cloud_oktas), (None, 0))

    def test_the_day_is_of_this_month_or_of_the_last(self):
        self.assertEqual(read_metar("EGXX 302350Z 24012KT CAVOK 14/08 Q1013", NOW).hour.when.month, 4)
        self.assertEqual(read_metar("EGXX 142350Z 24012KT CAVOK 14/08 Q1013", NOW).hour.when.day, 14)

    def test_written_and_read_again(self):
        for hour in (
            Hour(when=datetime(2026, 5, 14, 11, 0, tzinfo=UTC), wind_m_s=6.2, gust_m_s=10.3, wind_from_deg=237.0,
                 cloud_oktas=6.0, air_temperature_c=13.6, sea_level_pressure_hpa=1013.4),
            Hour(when=datetime(2026, 5, 14, 12, 0, tzinfo=UTC), wind_m_s=0.1, cloud_oktas=0.0, air_temperature_c=-3.2),
            Hour(when=datetime(2026, 5, 14, 12, 0, tzinfo=UTC), wind_m_s=3.0, cloud_oktas=8.0, air_temperature_c=0.2),
        ):  # fmt: skip
            with self.subTest(hour.air_temperature_c):
                line = write_metar("ZZZZ", hour)
                back = read_metar(line, NOW).hour
                self.assertEqual(back.when, hour.when)
                self.assertAlmostEqual(back.wind_m_s, hour.wind_m_s, delta=0.26)  # whole knots
                self.assertAlmostEqual(back.air_temperature_c, hour.air_temperature_c, delta=0.5)
                self.assertEqual(back.cloud_oktas, hour.cloud_oktas)
                if hour.wind_from_deg is not None:
                    self.assertEqual(back.wind_from_deg, 240)

    def test_what_is_none(self):
        for text in (
            "",
            "hello",
            "EGXX 991150Z 24012KT",
            "EGXX 141150Z",
            "EGXX 141150Z 24012KT QWERTY 14/08",
            "EGXX 141150Z " + "9999 " * 200,
        ):
            with self.subTest(text[:40]), self.assertRaises(InputError):
                read_metar(text, NOW)


class Gpx(unittest.TestCase):
    def test_way_points_are_places_and_a_track_a_drift(self):
        found = read_gpx(GPX.encode())
        self.assertEqual([(p.name, p.position) for p in found.places], [("Deep hole", (-3.1, 54.5))])
        # A thousandth of a degree of latitude is 111.2 m (a nautical mile is a minute): in five minutes 0.37 m/s.
        self.assertIn("A track of 111 m in 5 min: a drift of 0.37 m/s.", found.notes)
        self.assertIn("1 way-points without a name", found.notes[1])

    def test_out_and_in_again(self):
        text = write_gpx("Mere & more", [("Shelf <1>", (-3.1, 54.5), "shoal"), ("Dam", (-3.2, 54.6), "dam")])
        self.assertEqual(len(gpxpy.parse(text).waypoints), 2)
        found = read_gpx(text.encode())
        self.assertEqual(
            [(p.name, p.position) for p in found.places], [("Shelf <1>", (-3.1, 54.5)), ("Dam", (-3.2, 54.6))]
        )

    def test_a_track_out_and_in_again(self):
        fixes = read_track(GPX.encode())
        self.assertEqual([fix.when.minute for fix in fixes], [0, 5])
        self.assertEqual(read_track(write_track("Day", fixes).encode()), fixes)
        for without in (GPX.replace("<time>2026-05-14T09:05:00Z</time>", ""), GPX[: GPX.index("<trk>")] + "</gpx>"):
            with self.assertRaises(InputError) as refused:
                read_track(without.encode())
            self.assertIn("no track with times", refused.exception.problems[0].message)

    def test_what_is_none(self):
        bomb = '<!DOCTYPE x [<!ENTITY a "b">]>' + GPX
        for data in (
            b"<html>",
            b"<gpx",
            bomb.encode(),
            GPX.replace('lat="54.5"', 'lat="95"').encode(),
            GPX.replace("54.6", "x").encode(),
            b"<gpx version='1.1'></gpx>",
            b"\xff\xfe<",
        ):
            with self.subTest(data[:30]), self.assertRaises(InputError):
                read_gpx(data)
