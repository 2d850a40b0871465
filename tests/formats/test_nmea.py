"""NMEA 0183: what sentences say, and every way they can be broken."""

import math
import random
import unittest

from hypothesis import given
from hypothesis import strategies as st

from stillthread.formats.nmea import (
    DepthSentence,
    Fix,
    Heading,
    LineBuffer,
    SentenceError,
    WaterTemperature,
    Wind,
    checksum,
    read_sentence,
    sentence,
    true_wind,
)
from tests import checks

GOOD = tuple(
    sentence(body)
    for body in (
        "SDDPT,4.2,0.3,100.0",
        "SDDBT,13.8,f,4.2,M,2.3,F",
        "YXMTW,12.4,C",
        "WIMWV,045.0,R,4.1,M,A",
        "HEHDT,231.5,T",
        "GPRMC,060000.00,A,5325.8000,N,00915.0000,W,1.5,090.0,150426,,,A",
    )
)


class Sentences(unittest.TestCase):
    def test_checksums_of_a_reference_library(self):
        # pynmea2 1.19.0; it accepts a sentence without checksum unless told to be strict: we never do.
        for entry in checks.of("09_fmt", "NMEA"):
            text = entry["inputs"]["sentence"]
            with self.subTest(text):
                self.assertEqual(checksum(text[1:].partition("*")[0]), entry["expected"]["checksum"])
                read_sentence(text)
                for wrong in (entry["inputs"]["same_with_wrong_checksum"], text.partition("*")[0]):
                    with self.assertRaises(SentenceError):
                        read_sentence(wrong)

    def test_depth_below_the_surface_by_a_positive_offset(self):
        # The standard: a positive offset is from transducer to water line, a negative one from transducer to keel.
        self.assertEqual(read_sentence(GOOD[0]), DepthSentence(4.5, False))
        self.assertEqual(read_sentence(sentence("SDDPT,4.2,-0.5,")), DepthSentence(4.2, True))
        self.assertEqual(read_sentence(sentence("SDDPT,4.2,,")), DepthSentence(4.2, True))
        self.assertEqual(read_sentence(GOOD[1]), DepthSentence(4.2, True))
        self.assertAlmostEqual(read_sentence(sentence("SDDBT,10.0,f,,,,")).depth_m, 3.048)

    def test_the_rest(self):
        self.assertEqual(read_sentence(GOOD[2]), WaterTemperature(12.4))
        self.assertEqual(read_sentence(GOOD[3]), Wind(45.0, 4.1, True))
        self.assertEqual(read_sentence(GOOD[4]), Heading(231.5))
        fix = read_sentence(GOOD[5])
        self.assertIsInstance(fix, Fix)
        self.assertAlmostEqual(fix.position[0], -9.25)
        self.assertAlmostEqual(fix.position[1], 53.43)
        self.assertAlmostEqual(fix.speed_m_s, 1.5 * 1852 / 3600)
        self.assertEqual(fix.when.isoformat(), "2026-04-15T06:00:00+00:00")

    def test_wind_in_knots_and_kilometres(self):
        self.assertAlmostEqual(read_sentence(sentence("WIMWV,10,T,10,N,A")).speed_m_s, 5.1444, places=3)
        self.assertAlmostEqual(read_sentence(sentence("WIMWV,10,T,36,K,A")).speed_m_s, 10.0)

    def test_sentences_of_other_kinds_are_passed_over(self):
        self.assertIsNone(read_sentence(sentence("GPGGA,060000.00,5325.8,N,00915.0,W,1,08,1.0,8.0,M,54.0,M,,")))
        self.assertIsNone(read_sentence(sentence("GPXYZ,1,2,3")))

    def test_what_is_marked_invalid_or_impossible_is_refused(self):
        for body in (
            "SDDPT,,0.3,",
            "SDDPT,-3.0,0.3,",
            "SDDPT,nan,0.3,",
            "SDDPT,9999,0.3,",
            "SDDBT,,f,,M,,F",
            "YXMTW,12.4,F",
            "YXMTW,,C",
            "YXMTW,85,C",
            "WIMWV,045.0,R,4.1,M,V",
            "WIMWV,045.0,X,4.1,M,A",
            "WIMWV,045.0,R,4.1,Q,A",
            "WIMWV,45",
            "HEHDT,,T",
            "HEHDT,400,T",
            "GPRMC,060000.00,V,5325.8000,N,00915.0000,W,1.5,090.0,150426,,,N",
            "GPRMC,060000.00,A,,,,,1.5,090.0,150426,,,A",
            "GPRMC,256199.00,A,5325.8000,N,00915.0000,W,1.5,090.0,999999,,,A",
            "GPRMC",
        ):
            with self.subTest(body), self.assertRaises(SentenceError):
                read_sentence(sentence(body))

    @given(st.sampled_from(GOOD), st.integers(0, 90), st.characters(min_codepoint=32, max_codepoint=126))
    def test_one_wrong_character_is_always_noticed(self, text, at, character):
        """An exclusive or finds every change of one character (of the body: the checksum may differ in case only)."""
        at %= len(text)
        spoilt = text[:at] + character + text[at + 1 :]
        if spoilt.upper() == text.upper():
            return
        with self.assertRaises(SentenceError):
            read_sentence(spoilt)

    @given(st.binary(max_size=200))
    def test_garbage_never_breaks_the_reader(self, data):
        buffer = LineBuffer()
        for line in buffer.feed(data + b"\n"):
            try:
                read_sentence(line)
            except SentenceError:
                continue


class Lines(unittest.TestCase):
    def test_sentences_in_any_pieces(self):
        stream = "".join(f"{s}\r\n" for s in GOOD).encode()
        rng = random.Random(4)
        for _ in range(50):
            buffer, lines, at = LineBuffer(), [], 0
            while at < len(stream):
                step = rng.randint(1, 30)
                lines += buffer.feed(stream[at : at + step])
                at += step
            self.assertEqual(lines, list(GOOD))
            self.assertEqual(buffer.cut(), "")

    def test_half_a_sentence_is_forgotten_when_the_feed_ends(self):
        buffer = LineBuffer()
        self.assertEqual(buffer.feed(GOOD[0].encode()[:9]), [])
        self.assertEqual(buffer.cut(), GOOD[0][:9])
        self.assertEqual(buffer.feed(f"{GOOD[1]}\r\n".encode()), [GOOD[1]])

    def test_a_line_that_never_ends_is_dropped(self):
        buffer = LineBuffer()
        buffer.feed(b"A" * 5000)
        self.assertEqual(buffer.feed(b"\n" + GOOD[0].encode() + b"\n"), [GOOD[0]])


class Triangle(unittest.TestCase):
    def test_standing_still_the_wind_is_only_turned(self):
        self.assertEqual(true_wind(Wind(45, 4, True), 90, 0.0, None), (4, 135))

    def test_motoring_into_still_air(self):
        # Moving north at 3 m/s in a calm the wind felt is 3 m/s from the bow.
        speed, _ = true_wind(Wind(0, 3, True), 0, 3.0, 0.0)
        self.assertAlmostEqual(speed, 0.0)

    def test_across_the_wind(self):
        # True wind 4 m/s from the west, boat 3 m/s north: felt 5 m/s from atan2(4, 3) left of the bow, 306.87°.
        speed, from_deg = true_wind(Wind(360 - math.degrees(math.atan2(4, 3)), 5, True), 0, 3.0, 0.0)
        self.assertAlmostEqual(speed, 4.0)
        self.assertAlmostEqual(from_deg, 270.0)

    def test_theoretical_wind_needs_no_triangle(self):
        self.assertEqual(true_wind(Wind(30, 6, False), 10, 4.0, 10.0), (6, 40))

    @given(st.floats(0, 359), st.floats(0.2, 15), st.floats(0, 359), st.floats(0, 359), st.floats(0.1, 4))
    def test_there_and_back(self, from_deg, speed, heading, course, boat):
        """Make the felt wind by vectors, then find the true one again."""
        wx, wy = -speed * math.sin(math.radians(from_deg)), -speed * math.cos(math.radians(from_deg))
        fx = wx - boat * math.sin(math.radians(course))
        fy = wy - boat * math.cos(math.radians(course))
        felt_from = math.degrees(math.atan2(-fx, -fy)) % 360
        felt = Wind((felt_from - heading) % 360, math.hypot(fx, fy), True)
        found, bearing = true_wind(felt, heading, boat, course)
        self.assertAlmostEqual(found, speed, places=6)
        self.assertAlmostEqual((bearing - from_deg + 180) % 360, 180, places=4)
