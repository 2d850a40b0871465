"""Pictures: upright, small enough, with nothing of the camera left in them. What is kept is looked at by Pillow itself."""

import io
import random
import unittest

from PIL import Image

from stillthread.core.errors import InputError
from stillthread.formats.picture import LARGEST_BYTES, LONGEST_SIDE, SMALL_SIDE, kept, rewritten

ORIENTATION, MAKE, GPS = 0x0112, 0x010F, 0x8825


def jpeg(size=(400, 300), exif=None, format="JPEG", **how):
    """A picture whose left half is red and whose right half is blue."""
    made = Image.new("RGB", size, (0, 0, 255))
    made.paste((255, 0, 0), (0, 0, size[0] // 2, size[1]))
    out = io.BytesIO()
    made.save(out, format, **({"exif": exif} if exif else {}), **how)
    return out.getvalue()


def noted():
    exif = Image.Exif()
    exif[ORIENTATION] = 6  # the camera was held upright: to be turned by 90 degrees to the right
    exif[MAKE] = "some camera"
    exif.get_ifd(GPS)[2] = (52.0, 30.0, 0.0)
    return exif


class Pictures(unittest.TestCase):
    def opened(self, data):
        found = Image.open(io.BytesIO(data))
        found.load()
        return found

    def test_it_stands_upright_and_the_place_is_gone(self):
        data = jpeg(exif=noted(), comment=b"secret bay")
        self.assertIn(b"some camera", data)
        told = rewritten(data)
        found = self.opened(told.jpeg)
        self.assertEqual((found.size, told.width, told.height), ((300, 400), 300, 400))
        self.assertFalse(found.getexif())
        for words in (b"some camera", b"secret bay", b"Exif"):
            self.assertNotIn(words, told.jpeg)
        red, blue = found.getpixel((150, 20)), found.getpixel((150, 380))
        self.assertTrue(red[0] > 200 > red[2] and blue[2] > 200 > blue[0], (red, blue))

    def test_large_ones_are_made_smaller_and_each_has_a_small_one(self):
        told = rewritten(jpeg((4000, 1000)))
        self.assertEqual(self.opened(told.jpeg).size, (LONGEST_SIDE, 400))
        self.assertEqual(self.opened(told.small).size, (SMALL_SIDE, 80))
        self.assertEqual(self.opened(rewritten(jpeg((50, 20))).small).size, (50, 20))

    def test_the_busiest_picture_stays_within_two_megabytes(self):
        side = 800
        noise = Image.frombytes("RGB", (side, side), random.Random(3).randbytes(side * side * 3))
        out = io.BytesIO()
        noise.save(out, "JPEG", quality=95)
        self.assertLessEqual(len(rewritten(out.getvalue()).jpeg), LARGEST_BYTES)

    def test_png_and_webp_become_jpeg(self):
        for format in ("PNG", "WEBP"):
            with self.subTest(format):
                self.assertEqual(self.opened(rewritten(jpeg(format=format)).jpeg).format, "JPEG")

    def test_a_picture_written_here_is_kept_as_it_is_and_no_other(self):
        ours = rewritten(jpeg()).jpeg
        self.assertEqual(kept(ours).jpeg, ours)
        for other in (jpeg(exif=noted()), ours + b"<script>", jpeg((2000, 100)), jpeg(format="PNG")):
            told = kept(other).jpeg
            self.assertNotEqual(told, other)
            self.assertNotIn(b"<script>", told)

    def test_what_is_no_picture(self):
        whole = jpeg()
        for data in (
            b"",
            b"GIF89a",
            b"<svg xmlns='http://www.w3.org/2000/svg'/>",
            whole[: len(whole) // 2],
            b"\xff" * 99,
        ):
            with self.subTest(data[:6]), self.assertRaises(InputError) as refused:
                rewritten(data)
            self.assertEqual(refused.exception.problems[0].path, "picture")
        with self.assertRaises(InputError) as refused:
            rewritten(whole + b"\0" * LARGEST_BYTES)
        self.assertIn("2.0 MB", refused.exception.problems[0].message)

    def test_a_small_file_of_very_many_points_is_not_unpacked(self):
        out = io.BytesIO()
        Image.new("1", (9000, 8000)).save(out, "PNG")
        self.assertLess(len(out.getvalue()), LARGEST_BYTES)
        with self.assertRaises(InputError) as refused:
            rewritten(out.getvalue())
        self.assertIn("9000 × 8000", refused.exception.problems[0].message)
