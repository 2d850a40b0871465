"""From the documents about the water to the core's values."""

from __future__ import annotations

from stillthread.core.chart.outline import Outline, checked_outline
from stillthread.core.errors import InputError
from stillthread.core.food.seen import SampleItem, Sighting, ThroatSample
from stillthread.core.noted.reading import Reading
from stillthread.core.noted.water import Place, Water
from stillthread.core.reading.hours import Hour
from stillthread.core.water.profile import Point
from stillthread.core.water.stability import Contour, checked_hypsography
from stillthread.documents import water_contract as c


def reading_from(doc: c.ReadingIn) -> Reading:
    """Return the core's Reading for a reading document."""
    fields = doc.model_dump(exclude={"profile", "profile_at", "sources", "surface"})
    points = tuple(Point(p.depth_m, p.temperature_c, p.oxygen_mg_l) for p in doc.profile)
    return Reading(profile=points, surface_state=doc.surface, **fields)


def place_from(doc: c.PlaceIn) -> Place:
    """Return the core's Place."""
    position = None
    if doc.longitude_deg is not None and doc.latitude_deg is not None:
        position = (doc.longitude_deg, doc.latitude_deg)
    return Place(doc.name, doc.kind, doc.depth_min_m, doc.depth_max_m, doc.facing_deg, position)


def outline_from(rings: list[list[list[float]]], path: str = "outline") -> Outline | None:
    """Return the checked outline for rings of [longitude, latitude], or None for none. Raises InputError at the faulty ring."""
    if not rings:
        return None
    return checked_outline(Outline(tuple(tuple((p[0], p[1]) for p in ring) for ring in rings)), path)


def hypsography_from(
    rows: list[c.ContourIn], max_depth_m: float | None, path: str = "hypsography"
) -> tuple[Contour, ...]:
    """Return the checked depth-area table of a water `max_depth_m` [m] deep, empty for none. Raises InputError at bad rows."""
    if not rows:
        return ()
    return checked_hypsography(tuple(Contour(r.depth_m, r.area_m2) for r in rows), max_depth_m, path)


def water_from(doc: c.WaterIn, path: str = "water") -> Water:
    """Return the core's Water; a latitude, where given, decides the hemisphere. Raises InputError at a bad outline or table."""
    hemisphere = doc.hemisphere
    if doc.latitude_deg is not None:
        hemisphere = "north" if doc.latitude_deg >= 0 else "south"
    problems = []
    outline, table = None, ()  # type: Outline | None, tuple[Contour, ...]
    try:
        outline = outline_from(doc.outline, f"{path}.outline")
    except InputError as error:
        problems += error.problems
    try:
        table = hypsography_from(doc.hypsography, doc.max_depth_m, f"{path}.hypsography")
    except InputError as error:
        problems += error.problems
    if problems:
        raise InputError(problems)
    return Water(
        doc.name,
        doc.max_depth_m,
        hemisphere,
        tuple(place_from(p) for p in doc.places),
        doc.latitude_deg,
        doc.longitude_deg,
        tuple(doc.species),
        doc.days_since_stocking,
        doc.elevation_m,
        table,
        outline,
        doc.fetch_m,
        doc.productivity,
        tuple((min(s.on.timetuple().tm_yday, 365), s.surface_c) for s in doc.surface_history),
    )


def sightings_from(docs: list[c.SightingIn]) -> tuple[Sighting, ...]:
    """Return the core's sightings."""
    return tuple(Sighting(s.abundance, s.prey, s.rise, s.sign, s.evidence) for s in docs)


def samples_from(docs: list[c.SampleIn]) -> tuple[ThroatSample, ...]:
    """Return the core's throat samples."""
    return tuple(ThroatSample(tuple(SampleItem(**item.model_dump()) for item in doc.items)) for doc in docs)


def hours_from(docs: list[c.HourIn]) -> tuple[Hour, ...]:
    """Return the core's hours."""
    return tuple(
        Hour(
            h.when,
            h.wind_m_s,
            h.gust_m_s,
            h.wind_from_deg,
            h.cloud_oktas,
            h.air_temperature_c,
            h.sea_level_pressure_hpa,
            h.rain_mm,
        )
        for h in docs
    )
