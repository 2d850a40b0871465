"""The read document: what `./still read` reads. Mirrors docs/contracts."""

from __future__ import annotations

from typing import Annotated, Literal

from annotated_types import Ge, Le, MaxLen

from stillthread.core.limits import Celsius, Instant, Name, Said
from stillthread.core.noted.water import Water, checked_water
from stillthread.core.reading.hours import Hour
from stillthread.core.reading.means import ReadInput
from stillthread.documents.noted import Noted, SeenBeforeDays
from stillthread.documents.strict import Strict


class Elsewhere(Strict):
    """A surface temperature read the same day at another place."""

    place: Name
    surface_c: Celsius


class ReadRequest(Noted):
    """A reading and its water: what `./still read` reads."""

    version: Literal[1] = 1
    when: Annotated[Instant, Said("RFC 3339 with the water's own offset")]
    water: Water
    hours: Annotated[tuple[Hour, ...], MaxLen(384), Said("forecast by hour")] = ()
    elsewhere: Annotated[tuple[Elsewhere, ...], MaxLen(50)] = ()
    stop_above_c: Annotated[float | None, Ge(5), Le(30), Said("the water's own limit for returning fish")] = None
    afloat: bool = False
    seen_before: SeenBeforeDays = ()


def read_input_from(doc: ReadRequest) -> ReadInput:
    """Return the core's ReadInput for a read document. Raises InputError at a bad outline or depth-area table."""
    checked_water(doc.water)
    same = {name: getattr(doc, name) for name in type(doc).model_fields if name not in ("version", "elsewhere")}
    return ReadInput(**same, elsewhere=tuple((e.place, e.surface_c) for e in doc.elsewhere))
