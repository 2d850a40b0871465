"""Invented photographs, drawn: a fish on the wet grass, the water from the boat, the sounder's screen."""

from __future__ import annotations

import io
import math

import numpy as np
from PIL import Image, ImageDraw, ImageFilter

WIDE, HIGH = 960, 720


def _jpeg(picture: Image.Image) -> bytes:
    out = io.BytesIO()
    picture.save(out, "JPEG", quality=80)
    return out.getvalue()


def _fade(top: tuple[int, int, int], bottom: tuple[int, int, int], high: int) -> Image.Image:
    share = np.linspace(0.0, 1.0, high)[:, None, None]
    rows = np.array(top)[None, None, :] * (1 - share) + np.array(bottom)[None, None, :] * share
    return Image.fromarray(np.broadcast_to(rows, (high, WIDE, 3)).astype(np.uint8).copy())


def drawn_fish(length_m: float, rng: np.random.Generator) -> bytes:
    """Return a trout of that length on wet grass, as JPEG; a longer one fills more of the picture."""
    picture = _fade((62, 84, 50), (38, 58, 36), HIGH)
    draw = ImageDraw.Draw(picture)
    for x, y in rng.uniform((0, 0), (WIDE, HIGH), (900, 2)):
        draw.line(
            (x, y, x + rng.normal(0, 9), y - rng.uniform(12, 34)), fill=(84, int(rng.integers(95, 130)), 62), width=2
        )
    half = min(0.45, 0.9 * length_m) * WIDE
    mid_x, mid_y, deep = WIDE / 2, HIGH / 2 + 20, half * 0.24
    along = np.linspace(-1.0, 1.0, 60)
    back = [(mid_x + half * a, mid_y - deep * math.sqrt(max(0.0, 1 - a * a)) ** 1.3) for a in along]
    belly = [(mid_x + half * a, mid_y + 0.85 * deep * math.sqrt(max(0.0, 1 - a * a)) ** 1.3) for a in along[::-1]]
    tail = [
        (mid_x + 0.93 * half, mid_y),
        (mid_x + 1.16 * half, mid_y - 0.6 * deep),
        (mid_x + 1.16 * half, mid_y + 0.6 * deep),
    ]
    draw.polygon(tail, fill=(108, 112, 84))
    draw.polygon([*back, *belly], fill=(190, 186, 160))
    draw.polygon([*back, (mid_x + half, mid_y - 0.15 * deep), (mid_x - half, mid_y - 0.15 * deep)], fill=(118, 124, 88))
    draw.line((mid_x - 0.8 * half, mid_y, mid_x + 0.85 * half, mid_y), fill=(186, 120, 122), width=int(0.3 * deep))
    for a, b in rng.uniform((-0.85, -0.75), (0.9, 0.05), (90, 2)):
        x, y = mid_x + half * a, mid_y + deep * b * math.sqrt(1 - a * a)
        draw.ellipse((x - 3, y - 3, x + 3, y + 3), fill=(48, 48, 40))
    draw.ellipse((mid_x - 0.88 * half, mid_y - 0.3 * deep, mid_x - 0.83 * half, mid_y - 0.05 * deep), fill=(20, 20, 18))
    return _jpeg(picture.filter(ImageFilter.GaussianBlur(1.2)))


def drawn_water(cloud_oktas: float, rng: np.random.Generator) -> bytes:
    """Return the water from the boat under that much cloud, as JPEG: hills, a shore, a ripple."""
    grey = cloud_oktas / 8
    sky = _fade((int(110 + 60 * grey), int(150 + 25 * grey), int(200 - 20 * grey)), (214, 220, 222), HIGH // 2)
    picture = Image.new("RGB", (WIDE, HIGH))
    picture.paste(sky, (0, 0))
    picture.paste(_fade((118, 138, 146), (44, 62, 72), HIGH - HIGH // 2), (0, HIGH // 2))
    draw = ImageDraw.Draw(picture)
    hills = [(x, HIGH / 2 - 60 - 34 * math.sin(x / 150 + 1) - 18 * math.sin(x / 47)) for x in range(0, WIDE + 40, 40)]
    draw.polygon([(0, HIGH / 2), *hills, (WIDE, HIGH / 2)], fill=(74, 92, 84))
    for _ in range(420):
        y = HIGH / 2 + (HIGH / 2) * rng.uniform(0.01, 1) ** 1.6
        x, wide = rng.uniform(0, WIDE), 8 + 70 * (y / HIGH - 0.5)
        draw.line((x, y, x + wide, y), fill=(166, 182, 188), width=1 + int(3 * (y / HIGH - 0.5)))
    return _jpeg(picture.filter(ImageFilter.GaussianBlur(1.0)))


def drawn_sounder(bed_m: float, rng: np.random.Generator) -> bytes:
    """Return a sounder's screen over a bed at that depth, as JPEG: the bed as a band, fish above it as arcs."""
    picture = Image.new("RGB", (WIDE, HIGH), (12, 22, 34))
    draw = ImageDraw.Draw(picture)
    bed = [(x, 560 - 50 * math.sin(x / 260) - 10 * math.sin(x / 31)) for x in range(0, WIDE + 20, 20)]
    draw.polygon([(0, HIGH), *bed, (WIDE, HIGH)], fill=(150, 96, 44))
    draw.line(bed, fill=(230, 200, 120), width=8)
    for x, y in rng.uniform((80, 160), (WIDE - 80, 470), (7, 2)):
        draw.arc((x - 34, y, x + 34, y + 40), 200, 340, fill=(210, 220, 120), width=6)
    draw.text((30, 24), f"{bed_m:.1f} m", fill=(235, 240, 240), font_size=64)
    return _jpeg(picture)
