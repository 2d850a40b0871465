"""What was read and seen at a water, as every document and every API body has it."""

from __future__ import annotations

from stillthread.core.food.seen import Samples, Sightings
from stillthread.core.limits import PlaceName
from stillthread.core.noted.reading import Reading
from stillthread.documents.strict import Strict


class Noted(Strict):
    """A reading and what was seen with it; everything may be left out."""

    place: PlaceName | None = None
    reading: Reading = Reading()
    sightings: Sightings = ()
    samples: Samples = ()
