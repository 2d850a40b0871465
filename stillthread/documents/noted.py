"""What was read and seen at a water, as every document and every API body has it."""

from __future__ import annotations

from typing import Annotated

from annotated_types import MaxLen

from stillthread.core.evidence.seen_before import SeenBefore
from stillthread.core.food.seen import Samples, Sightings
from stillthread.core.limits import PlaceName
from stillthread.core.noted.reading import Reading
from stillthread.documents.strict import Strict

SeenBeforeDays = Annotated[tuple[SeenBefore, ...], MaxLen(200)]


class Noted(Strict):
    """A reading and what was seen with it; everything may be left out."""

    place: PlaceName | None = None
    reading: Reading = Reading()
    sightings: Sightings = ()
    samples: Samples = ()
