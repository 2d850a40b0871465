"""How heavy a trout of a length should be, and how well fed one of a length and weight is."""

from __future__ import annotations

import math
from typing import Literal

Species = Literal["rainbow", "brown", "brook"]
# Standard weight, log10 of grams = a + b log10 of millimetres of total length, of fish in standing water: the upper quarter
# of populations, so a fish in good condition. Rainbow: Simpkins & Hubert 1996; brown: Hyatt & Hubert 2001; brook: Hyatt &
# Hubert 2001. From memory. Shorter fish than the last value [m] are not covered by it.
STANDARD: dict[Species, tuple[float, float, float]] = {
    "rainbow": (-4.898, 2.990, 0.12),
    "brown": (-5.422, 3.194, 0.14),
    "brook": (-5.186, 3.103, 0.13),
}
LONGEST_M = 1.2  # no relation was made for longer ones


def standard_weight_kg(species: Species, length_m: float) -> float | None:
    """Return what a trout of a total length [m] weighs [kg] in good condition; None where the relation does not reach.

    >>> round(standard_weight_kg("rainbow", 0.5), 2)
    1.49
    """
    a, b, shortest = STANDARD[species]
    if not shortest <= length_m <= LONGEST_M:
        return None
    return float(10 ** (a + b * math.log10(1000 * length_m))) / 1000


def fulton(length_m: float, weight_kg: float) -> float:
    """Return Fulton's condition factor, 100 grams over cubic centimetres of length (Fulton 1904). Raises ValueError for no length.

    >>> fulton(0.5, 1.25)
    1.0
    """
    if length_m <= 0:
        raise ValueError("condition needs a length")
    return 100 * 1000 * weight_kg / (100 * length_m) ** 3


def relative_weight(species: Species, length_m: float, weight_kg: float) -> float | None:
    """Return a fish's weight as a percentage of its standard weight (Wege & Anderson 1978); None where there is no standard."""
    standard = standard_weight_kg(species, length_m)
    return None if standard is None else 100 * weight_kg / standard
