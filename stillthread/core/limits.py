"""Limits and words that go with a value's type, for whoever takes values in: documents, the API, forms.

Ranges and lengths are those of `annotated-types`, closed sets are `Literal` types; a document's reader, its refusals and its
JSON schema come from them. The core itself checks what needs another value at hand.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from datetime import UTC, date, datetime
from typing import Annotated, Any

from annotated_types import Ge, Le, Lt, MaxLen, MinLen


@dataclass(frozen=True)
class Said:
    """What a value is, in words for the reader of a contract: the description in its JSON schema."""

    words: str

    def __get_pydantic_json_schema__(self, schema: Any, handler: Callable[[Any], dict[str, Any]]) -> dict[str, Any]:
        """Add the words to the schema of the value."""
        return {**handler(schema), "description": self.words}


@dataclass(frozen=True)
class Aware:
    """A time that tells its offset from UTC; one without is refused."""

    def __get_pydantic_core_schema__(self, source: Any, handler: Callable[[Any], dict[str, Any]]) -> dict[str, Any]:
        """Have whoever reads the value refuse a time without an offset."""
        return {**handler(source), "tz_constraint": "aware"}


@dataclass(frozen=True)
class Spot:
    """A position: two numbers in a list, in the schema as everybody's maps have it."""

    def __get_pydantic_json_schema__(self, schema: Any, handler: Callable[[Any], dict[str, Any]]) -> dict[str, Any]:
        """Say it as a list of exactly two numbers."""
        words = "[longitude, latitude] in degrees, WGS84"
        return {"type": "array", "items": {"type": "number"}, "minItems": 2, "maxItems": 2, "description": words}


LonLat = Annotated[tuple[float, float], Spot()]
# No log reaches further back; no reckoning of the sky is wanted further on.
EARLIEST, LATEST = datetime(1970, 1, 1, tzinfo=UTC), datetime(2100, 1, 1, tzinfo=UTC)
Instant = Annotated[datetime, Aware(), Ge(EARLIEST), Le(LATEST)]
Day = Annotated[date, Ge(EARLIEST.date()), Le(LATEST.date())]
Depth = Annotated[float, Ge(0), Le(300), Said("metres below today's surface, positive down")]
Celsius = Annotated[float, Said("degrees Celsius; -1 to 40 is accepted for water")]
Bearing = Annotated[float, Ge(0), Lt(360), Said("degrees clockwise from true north")]
Longitude = Annotated[float, Ge(-180), Le(180)]
Latitude = Annotated[float, Ge(-90), Le(90)]
Level = Annotated[float, Ge(-100), Le(50)]
Share = Annotated[float, Ge(0), Le(1)]
Name = Annotated[str, MinLen(1), MaxLen(80)]
PlaceName = Annotated[str, MaxLen(80)]
