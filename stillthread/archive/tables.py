"""Each table of the archive: its rows in the database, as documents, and back."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, field, fields
from typing import Any

from django.db.models import Q, QuerySet
from django.utils import timezone
from pydantic import ValidationError
from pydantic_core import to_jsonable_python

from stillthread.archive import rows
from stillthread.core.chart.outline import checked_outline
from stillthread.core.errors import InputError, Problem
from stillthread.core.noted import water as noted
from stillthread.core.noted.reading import checked_reading
from stillthread.core.water.profile import DEEPEST_LAKE_M
from stillthread.core.water.stability import checked_hypsography
from stillthread.documents.strict import Strict
from stillthread.flybox.models import Fly, Line, Rig
from stillthread.outings.models import Event, Outing, Photo, SeenNearby, Spell, Track
from stillthread.plans.models import Plan
from stillthread.waters.models import Forecast, Place, Reading, Sounding, SoundingLine, Water
from stillthread.web.owned import Owned, live

Values = dict[str, Any]
LATEST_S = 4_102_444_800.0  # the end of the century: what is later was never recorded
PLACE = [one.name for one in fields(noted.Place)]


def _same(values: Values) -> Values:
    return values


def _water_told(values: Values) -> Values:
    own = {name: value for name, value in values.items() if name != "deleted_at"}
    return {**own, "productivity": values["productivity"] or None, "gone": values["deleted_at"] is not None}


def _water_kept(values: Values) -> Values:
    own = {name: value for name, value in values.items() if name != "gone"}
    return {
        **own,
        "productivity": values["productivity"] or "",
        "deleted_at": timezone.now() if values["gone"] else None,
    }


def _check_water(row: rows.WaterRow) -> None:
    if row.hypsography:
        checked_hypsography(row.hypsography, row.max_depth_m)
    if row.outline:
        checked_outline(row.outline)


def _place_told(values: Values) -> Values:
    return {**{n: v for n, v in values.items() if n not in PLACE}, "place": {n: values[n] for n in PLACE}}


def _place_kept(values: Values) -> Values:
    return {**{n: v for n, v in values.items() if n != "place"}, **values["place"]}


def _reading_told(values: Values) -> Values:
    return {**{n: v for n, v in values.items() if n != "place_name"}, "place": values["place_name"] or None}


def _reading_kept(values: Values) -> Values:
    return {**{n: v for n, v in values.items() if n != "place"}, "place_name": values["place"] or ""}


def _seen_told(values: Values) -> Values:
    return {**values, "pace": values["pace"] or None}


def _seen_kept(values: Values) -> Values:
    return {**values, "pace": values["pace"] or ""}


def _check_track(row: rows.TrackRow) -> None:
    for n, (at, lon, lat) in enumerate(row.points):
        if not (0 <= at <= LATEST_S and abs(lon) <= 180 and abs(lat) <= 90):
            accepted = "seconds since 1970, longitude, latitude"
            raise InputError(Problem("bad_point", f"points[{n}]", "This is no place at any time.", accepted))


@dataclass(frozen=True)
class Table:
    """A table: the model and the document of a row, by what it is ordered, and the tables its rows hang on.

    `hangs_on` are the rows with which it is deleted; `check` raises InputError for a row that its document alone lets pass.
    """

    name: str
    model: type[Owned]
    row: type[Strict]
    order: str
    words: str
    columns: tuple[str, ...] = ()
    parents: dict[str, str] = field(default_factory=dict)
    hangs_on: tuple[str, ...] = ()
    check: Callable[[Any], object] = _same
    told: Callable[[Values], Values] = _same
    kept: Callable[[Values], Values] = _same

    @property
    def of_model(self) -> tuple[str, ...]:
        """The columns of the model that the document carries."""
        return self.columns or tuple(self.row.model_fields)

    def document(self, values: Values) -> Values:
        """Return a row of the database as the archive has it; one of before today's limits as it lies there."""
        told = self.told({name: values[name] for name in self.of_model})
        try:
            return self.row.model_validate(told).model_dump(mode="json")
        except ValidationError:
            return dict(to_jsonable_python(told))

    def row_values(self, document: Values) -> Values:
        """Return a checked document as the values of a database row, without its id."""
        values = self.kept({name: value for name, value in document.items() if name != "id"})
        columns = {one.attname: one for one in self.model._meta.concrete_fields}
        return {name: columns[name].to_python(value) for name, value in values.items()}


ON_WATER: dict[str, Any] = {"parents": {"water_id": "waters"}, "hangs_on": ("water",)}
ON_OUTING: dict[str, Any] = {"parents": {"outing_id": "outings"}, "hangs_on": ("outing",)}
TABLES = (
    Table(
        name="waters",
        model=Water,
        row=rows.WaterRow,
        order="name",
        words="waters",
        columns=(*(name for name in rows.WaterRow.model_fields if name != "gone"), "deleted_at"),
        check=_check_water,
        told=_water_told,
        kept=_water_kept,
    ),
    Table(
        name="places",
        model=Place,
        row=rows.PlaceRow,
        order="position",
        words="places",
        columns=("id", "water_id", "position", *PLACE),
        told=_place_told,
        kept=_place_kept,
        **ON_WATER,
    ),
    Table(
        name="readings",
        model=Reading,
        row=rows.ReadingRow,
        order="taken_at",
        words="readings",
        columns=("id", "water_id", "place_name", "taken_at", "reading", "sightings", "samples"),
        check=lambda row: checked_reading(row.reading, DEEPEST_LAKE_M),
        told=_reading_told,
        kept=_reading_kept,
        **ON_WATER,
    ),
    Table(name="soundings", model=Sounding, row=rows.SoundingRow, order="taken_at", words="soundings", **ON_WATER),
    Table(
        name="sounding_lines",
        model=SoundingLine,
        row=rows.SoundingLineRow,
        order="started_at",
        words="recorded lines",
        **ON_WATER,
    ),
    Table(name="forecasts", model=Forecast, row=rows.ForecastRow, order="fetched_at", words="forecasts", **ON_WATER),
    Table(name="lines", model=Line, row=rows.LineRow, order="family", words="lines"),
    Table(name="flies", model=Fly, row=rows.FlyRow, order="name", words="flies"),
    Table(name="rigs", model=Rig, row=rows.RigRow, order="name", words="rigs"),
    Table(name="plans", model=Plan, row=rows.PlanRow, order="when", words="kept plans", **ON_WATER),
    Table(
        name="outings",
        model=Outing,
        row=rows.OutingRow,
        order="started_at",
        words="outings",
        parents={"water_id": "waters"},
    ),
    Table(name="stretches", model=Spell, row=rows.SpellRow, order="started_at", words="stretches", **ON_OUTING),
    Table(
        name="events",
        model=Event,
        row=rows.EventRow,
        order="occurred_at",
        words="takes and other events",
        parents={"spell_id": "stretches"},
        hangs_on=("spell", "spell__outing"),
    ),
    Table(
        name="seen",
        model=SeenNearby,
        row=rows.SeenRow,
        order="seen_at",
        words="sightings of others",
        told=_seen_told,
        kept=_seen_kept,
        **ON_OUTING,
    ),
    Table(name="photos", model=Photo, row=rows.PhotoRow, order="taken_at", words="photos", **ON_OUTING),
    Table(
        name="tracks",
        model=Track,
        row=rows.TrackRow,
        order="outing_id",
        words="tracks",
        check=_check_track,
        **ON_OUTING,
    ),
)
BY_NAME = {table.name: table for table in TABLES}


def rows_of(owner: Any, table: Table) -> QuerySet[Any]:
    """Return the owner's rows of a table that are not deleted, alone or with what they hang on, always in one order.

    A deleted water stands with them where there are outings on it.
    """
    alive = Q(deleted_at=None)
    if table.model is Water:
        alive |= Q(pk__in=live(Outing, owner).values("water_id"))
    found = table.model._default_manager.filter(alive, owner=owner)
    return found.filter(**{f"{one}__deleted_at": None for one in table.hangs_on}).order_by(table.order, "id")
