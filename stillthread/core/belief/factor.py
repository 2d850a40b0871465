"""What one factor of the belief says."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

# Every factor of the belief, in the order they are told.
FACTOR_NAMES = ("temperature", "oxygen", "light", "food", "rises", "season", "stocking", "wind", "own-log", "found")


@dataclass(frozen=True)
class Factor:
    """A factor's part in the belief at one place.

    `log_weight` has one value a depth cell; `known` is false where nothing was read and the factor is flat or guessed.
    `off` is true where the angler switched it off: then it is flat, and the sentence still says what it would say.
    """

    name: str
    log_weight: NDArray[np.float64]
    sentence: str
    known: bool
    off: bool = False


def switched_off(factor: Factor) -> Factor:
    """Return a factor that counts for nothing, its sentence kept."""
    return Factor(
        name=factor.name, log_weight=np.zeros_like(factor.log_weight), sentence=factor.sentence, known=False, off=True
    )
