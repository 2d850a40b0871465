"""Contrast of the theme's colours in every light: WCAG 2.2, 1.4.3 (text 4.5 : 1) and 1.4.11 (edges of controls 3 : 1)."""

import pathlib
import re
import unittest

FRONTEND = pathlib.Path(__file__).resolve().parents[2] / "frontend" / "src"
# Words in these colours stand on these grounds, and these edges tell where a control is.
GROUNDS = ("paper", "raised", "sky")
TEXTS = ("ink", "soft", "water", "warm", "weed", "light", "take")
FILLED = (("raised", "ink"), ("paper", "ink"), ("on-water", "water"), ("raised", "take"))
TEXT, EDGE = 4.5, 3.0
DRAWN = {"bg-black", "bg-transparent"}  # the shade behind a sheet has no words; what is clear shows its ground


def luminance(colour: str) -> float:
    """Relative luminance of `#rrggbb` (WCAG 2.2, definition)."""
    parts = [int(colour[n : n + 2], 16) / 255 for n in (1, 3, 5)]
    red, green, blue = (p / 12.92 if p <= 0.04045 else ((p + 0.055) / 1.055) ** 2.4 for p in parts)
    return 0.2126 * red + 0.7152 * green + 0.0722 * blue


def contrast(one: str, other: str) -> float:
    """Contrast ratio of two colours (WCAG 2.2, definition)."""
    low, high = sorted((luminance(one), luminance(other)))
    return (high + 0.05) / (low + 0.05)


def lights() -> dict[str, dict[str, str]]:
    """The colours of each light; what a light does not say it has from the day."""
    css = (FRONTEND / "theme.css").read_text("utf-8")
    found = re.findall(r':root(?:\[data-theme="(\w+)"\])? \{(.*?)\n\}', css, re.S)
    colours = {name or "day": dict(re.findall(r"--([\w-]+): (#[0-9a-f]{6});", body)) for name, body in found}
    return {name: {**colours["day"], **own} for name, own in colours.items()}


class Contrast(unittest.TestCase):
    def test_the_ratio_by_the_standards_own_examples(self):
        # WCAG 2.2: black on white is 21 : 1; #767676 is the lightest grey that passes on white (Understanding 1.4.3).
        self.assertAlmostEqual(contrast("#000000", "#ffffff"), 21.0)
        self.assertAlmostEqual(contrast("#767676", "#ffffff"), 4.54, places=2)
        self.assertLess(contrast("#777777", "#ffffff"), TEXT)

    def test_words_on_their_ground_and_edges_of_controls(self):
        found = lights()
        self.assertEqual(set(found), {"day", "dusk", "glare"})
        for light, colours in found.items():
            pairs = [(text, ground, TEXT) for text in TEXTS for ground in GROUNDS] + [(*pair, TEXT) for pair in FILLED]
            for one, other, least in [*pairs, *(("edge", ground, EDGE) for ground in GROUNDS)]:
                ratio = contrast(colours[one], colours[other])
                self.assertGreaterEqual(ratio, least, f"{light}: {one} on {other} {ratio:.2f}")

    def test_every_pair_a_part_of_a_page_names_is_one_of_those(self):
        known = {(f"text-{text}", f"bg-{ground}") for text in TEXTS for ground in GROUNDS}
        known |= {(f"text-{text}", f"bg-{ground}") for text, ground in FILLED}
        named = 0
        for path in FRONTEND.rglob("*.tsx"):
            for words in re.findall(r'"[^"\n]*\bbg-[^"\n]*"', path.read_text("utf-8")):
                fills = set(re.findall(r"(?<![:\w-])!?(bg-[a-z-]+)", words)) - DRAWN
                texts = set(re.findall(rf"(?<![:\w-])!?(text-(?:raised|on-water|paper|{'|'.join(TEXTS)}))\b", words))
                for pair in ((text, fill) for text in texts for fill in fills):
                    named += 1
                    self.assertIn(pair, known, f"{path.name}: {words}")
        self.assertGreater(named, 8)
