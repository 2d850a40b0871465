import unittest

from hypothesis import given
from hypothesis import strategies as st

from stillthread.core.errors import InputError
from stillthread.formats.profile_csv import read_profile_csv


def read(text, max_depth_m=18.0, **units):
    data = text if isinstance(text, bytes) else text.encode()
    return read_profile_csv(data, max_depth_m, **units)


def pairs(found):
    return [(round(p.depth_m, 3), round(p.temperature_c, 2)) for p in found.points]


class Reads(unittest.TestCase):
    def test_decimal_point_and_comma(self):
        want = [(0.0, 12.5), (1.5, 11.0)]
        self.assertEqual(pairs(read("depth_m,temp_c\n0,12.5\n1.5,11\n")), want)
        self.assertEqual(pairs(read("depth_m;temp_c\n0;12,5\n1,5;11\n")), want)
        self.assertEqual(pairs(read("depth\ttemp\n0\t12,5\n1,5\t11\n")), want)
        self.assertEqual(pairs(read("0 12.5\n1.5 11\n")), want)

    def test_feet_and_fahrenheit_from_the_header(self):
        # 5 ft = 1.524 m exactly; 50 °F = 10 °C exactly.
        found = read("Depth (ft),Temp (°F)\n0,59\n5,50\n")
        self.assertEqual(pairs(found), [(0.0, 15.0), (1.524, 10.0)])
        self.assertEqual((found.depth_unit, found.temperature_unit), ("ft", "f"))

    def test_units_said_by_the_angler_win(self):
        self.assertEqual(pairs(read("0;59\n1;50\n", temperature_unit="f")), [(0.0, 15.0), (1.0, 10.0)])

    def test_headers_in_other_languages(self):
        for header in (
            "Tiefe (m);Temperatur (°C)",
            "Profondeur;Température",
            "Djup;Temperatur",
            "Syvyys;Lämpötila",
            "Profundidad;Temperatura",
        ):
            found = read(f"{header}\n0;12\n1;11\n")
            self.assertEqual(pairs(found), [(0.0, 12.0), (1.0, 11.0)], header)
            self.assertEqual(found.notes, (), header)

    def test_columns_in_another_order_and_more_of_them(self):
        found = read("time;temp;depth;oxygen\n10:00;12;0;9,5\n10:01;11;1;8\n")
        self.assertEqual(pairs(found), [(0.0, 12.0), (1.0, 11.0)])
        self.assertEqual([p.oxygen_mg_l for p in found.points], [9.5, 8.0])

    def test_an_unknown_header_is_taken_by_order_and_said(self):
        found = read("水深;水温\n0;12\n1;11\n")
        self.assertEqual(pairs(found), [(0.0, 12.0), (1.0, 11.0)])
        self.assertIn("could not be read", found.notes[0])
        self.assertIn("No header", read("0;12\n1;11\n").notes[0])

    def test_old_encodings_comments_and_blank_lines(self):
        self.assertEqual(pairs(read("# logger 7\n\nTiefe;Temperatur °C\n0;12\n\n".encode("cp1252"))), [(0.0, 12.0)])
        self.assertEqual(pairs(read("\ufeffdepth,temp\n0,12\n")), [(0.0, 12.0)])

    def test_turned_round(self):
        self.assertEqual(pairs(read("-0;12\n-1;11\n")), [(0.0, 12.0), (1.0, 11.0)])
        found = read("5;9\n3;10\n0;12\n")
        self.assertEqual(pairs(found), [(0.0, 12.0), (3.0, 10.0), (5.0, 9.0)])
        self.assertIn("turned round", " ".join(found.notes))


class Refuses(unittest.TestCase):
    def problems(self, text, **units):
        with self.assertRaises(InputError) as caught:
            read(text, **units)
        return [(p.code, p.path) for p in caught.exception.problems]

    def test_each_fault_at_its_line(self):
        self.assertEqual(self.problems(""), [("empty", "file")])
        self.assertEqual(self.problems("depth;temp\n"), [("empty", "file")])
        self.assertEqual(self.problems("depth;temp\n0;12\n1;warm\n"), [("not_a_number", "line 3")])
        self.assertEqual(self.problems("0;12\n1;11,5\n2;10.5\n"), [("mixed_decimals", "line 3")])
        self.assertEqual(self.problems("0;12\n1;11\n1;10\n"), [("duplicate_depth", "line 3")])
        self.assertEqual(self.problems("0;12\n2;11\n1;10\n"), [("unsorted_depth", "line 3")])
        self.assertEqual(self.problems("0;12\n25;11\n"), [("below_bed", "line 2")])
        self.assertEqual(self.problems("0\n1\n"), [("columns", "line 1")])
        self.assertEqual(self.problems("a;b;c;d\n0;1;2;3\n"), [("columns", "line 1")])
        self.assertEqual(self.problems("0;12\n1\n"), [("columns", "line 2")])

    def test_decimal_commas_between_commas_are_not_guessed_at(self):
        self.assertEqual(self.problems("0,12,5\n1,11,5\n"), [("columns", "line 1")])

    def test_fahrenheit_by_mistake_offers_fahrenheit(self):
        with self.assertRaises(InputError) as caught:
            read("0;60\n1;58\n")
        self.assertIn("60 °F", caught.exception.problems[0].hint)

    def test_not_a_text_file_and_too_large(self):
        self.assertEqual(self.problems(b"PK\x03\x04\x00\x00\x00"), [("not_text", "file")])
        self.assertEqual(self.problems(b"0;12\n" * 300_000), [("too_large", "file")])
        rows = "\n".join(f"{i / 100};10" for i in range(600))
        self.assertEqual(self.problems(rows), [("too_many", "file")])


class Anything(unittest.TestCase):
    @given(st.binary(max_size=400))
    def test_any_bytes_are_read_or_refused_with_a_place(self, data):
        try:
            found = read_profile_csv(data, 18.0)
        except InputError as error:
            self.assertTrue(all(p.path and p.message for p in error.problems))
        else:
            depths = [p.depth_m for p in found.points]
            self.assertEqual(depths, sorted(set(depths)))

    @given(
        st.lists(
            st.tuples(st.floats(0, 17), st.floats(-1, 39)), min_size=1, max_size=30, unique_by=lambda p: round(p[0], 2)
        ),
        st.sampled_from([";", "\t"]),
        st.sampled_from([".", ","]),
    )
    def test_what_is_written_comes_back(self, rows, mark, decimal):
        rows = sorted((round(d, 2), round(t, 1)) for d, t in rows)
        lines = [f"{d:.2f}{mark}{t:.1f}".replace(".", decimal) for d, t in rows]
        found = read_profile_csv(("depth" + mark + "temp\n" + "\n".join(lines)).encode(), 18.0)
        self.assertEqual([(p.depth_m, p.temperature_c) for p in found.points], rows)
