"""CoverageJSON in and out: a temperature profile (VerticalProfile) and the weather by hour (PointSeries)."""

from __future__ import annotations

import json
import math
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import UTC, datetime
from typing import Any

from covjson_pydantic.coverage import Coverage
from pydantic import ValidationError

from stillthread.core.errors import InputError, Problem
from stillthread.core.limits import EARLIEST, LATEST
from stillthread.core.reading.hours import Hour as Hour  # the stand-ins take it from here
from stillthread.core.reading.hours import checked_hours
from stillthread.core.units import KMH_M_S, KNOT_M_S, MPH_M_S, fahrenheit_to_c
from stillthread.core.water.profile import Point, checked_profile
from stillthread.formats.json_text import load_json

MOST_STEPS = 5_000  # of an axis: a year by the hour is more than any profile or forecast has
CRS84 = "http://www.opengis.net/def/crs/OGC/1.3/CRS84"
UCUM = "http://www.opengis.net/def/uom/UCUM/"
# Words that name a parameter's meaning, in its key or its observed property's label; the first that fits wins.
WATER_TEMPERATURE = ("water_temperature", "water temperature", "temperature", "temp")
OXYGEN = ("dissolved_oxygen", "dissolved oxygen", "oxygen", "do")
WEATHER = {
    "gust_m_s": ("wind_speed_of_gust", "wind gust", "gust"),
    "wind_from_deg": ("wind_from_direction", "wind direction", "wind_direction"),
    "wind_m_s": ("wind_speed", "wind speed", "wind"),
    "cloud_oktas": ("cloud_area_fraction", "cloud amount", "cloud"),
    "air_temperature_c": ("air_temperature", "air temperature", "temperature"),
    "sea_level_pressure_hpa": ("air_pressure_at_mean_sea_level", "sea level pressure", "pressure"),
    "rain_mm": ("precipitation_amount", "precipitation", "rain"),
}
SPEED = {
    "m/s": 1.0,
    "m s-1": 1.0,
    "km/h": KMH_M_S,
    "[mi_i]/h": MPH_M_S,
    "mph": MPH_M_S,
    "[kn_i]": KNOT_M_S,
    "kn": KNOT_M_S,
}
PRESSURE = {"hPa": 1.0, "mbar": 1.0, "Pa": 0.01, "kPa": 10.0}
CLOUD = {"1": 8.0, "%": 0.08, "okta": 1.0, "{okta}": 1.0, "[okta]": 1.0}


@dataclass(frozen=True)
class ProfileCoverage:
    """A profile read from a coverage: where [lon, lat] and when, samples in SI, and what had to be assumed."""

    position: tuple[float, float] | None
    when: datetime | None
    points: tuple[Point, ...]
    notes: tuple[str, ...]


def _fail(code: str, path: str, message: str, accepted: str, hint: str = "") -> InputError:
    return InputError(Problem(code=code, path=path, message=message, accepted=accepted, hint=hint))


def _check_parts(raw: dict[str, Any]) -> None:
    """Refuse what the parser of the format would let through: parts left empty, and axes too long to be laid out."""
    for name in ("domain", "parameters", "ranges"):
        if name in raw and not isinstance(raw[name], dict):
            raise _fail("coverage", name, f"'{name}' holds nothing.", "an object")
    axes = raw.get("domain", {}).get("axes")
    for name, axis in axes.items() if isinstance(axes, dict) else ():
        steps = axis.get("num", 1) if isinstance(axis, dict) else 1
        if not isinstance(steps, int) or not 1 <= steps <= MOST_STEPS:
            raise _fail("axis", f"domain.axes.{name}.num", f"An axis of {steps} steps.", f"1 to {MOST_STEPS} steps")


def _coverage(data: bytes | str, domain_type: str) -> Coverage:
    raw = load_json(data, "a CoverageJSON Coverage")
    if not isinstance(raw, dict) or raw.get("type") != "Coverage":
        shown = raw.get("type") if isinstance(raw, dict) else type(raw).__name__
        raise _fail("not_coverage", "type", f"'{shown}' is no Coverage.", "a CoverageJSON document of type Coverage")
    _check_parts(raw)
    try:
        coverage = Coverage.model_validate_json(json.dumps(raw))
    except ValidationError as error:
        problems = []
        for fault in error.errors()[:10]:
            path = ".".join(str(part) for part in fault["loc"])
            problems.append(Problem("coverage", path, fault["msg"].rstrip(".") + ".", "CoverageJSON 1.0"))
        raise InputError(problems) from error
    found = coverage.domain.domainType
    if found is None or found.value != domain_type:
        shown = found.value if found else "none"
        raise _fail("domain", "domain.domainType", f"The domain is {shown}.", f"a coverage over a {domain_type}")
    return coverage


def _axis(coverage: Coverage, name: str) -> list[Any]:
    axis = getattr(coverage.domain.axes, name)
    if axis is None:
        raise _fail("axis", f"domain.axes.{name}", f"The axis {name} is missing.", f"an axis {name}")
    values = getattr(axis, "values", None)
    if values is not None:
        return list(values)
    step = (axis.stop - axis.start) / max(axis.num - 1, 1)
    return [axis.start + step * i for i in range(axis.num)]


def _position(coverage: Coverage) -> tuple[float, float] | None:
    axes = coverage.domain.axes
    if axes.x is None or axes.y is None:
        return None
    x, y = _axis(coverage, "x"), _axis(coverage, "y")
    if len(x) != 1 or len(y) != 1:
        raise _fail("axis", "domain.axes", "A profile or a series stands at one place.", "one value on x and on y")
    try:
        lon, lat = float(x[0]), float(y[0])
    except (TypeError, ValueError) as error:
        raise _fail("axis", "domain.axes", "The position is no number.", "longitude and latitude") from error
    if not (abs(lon) <= 180 and abs(lat) <= 90):
        message = f"{lon:g}, {lat:g} is no place on earth."
        raise _fail("position", "domain.axes", message, "longitude -180 to 180, latitude -90 to 90")
    return lon, lat


def _texts(coverage: Coverage, key: str) -> list[str]:
    """The key and the label of a parameter, in lower case."""
    texts = [key.lower()]
    parameter = coverage.parameters.root.get(key) if coverage.parameters else None
    if parameter is not None:
        label = parameter.observedProperty.label
        texts += [str(v).lower() for v in (label.values() if label is not None else ())]
        texts.append((parameter.observedProperty.id or "").rsplit("/", 1)[-1].lower())
    return texts


def _find(coverage: Coverage, words: Sequence[str], taken: set[str]) -> str | None:
    for word in words:
        for key in coverage.ranges:
            short = len(word) <= 2
            if key not in taken and any(t == word if short else word in t for t in _texts(coverage, key)):
                return key
    return None


def _unit(coverage: Coverage, key: str) -> str:
    parameter = coverage.parameters.root.get(key) if coverage.parameters else None
    unit = parameter.unit if parameter else None
    if unit is None or unit.symbol is None:
        return ""
    return unit.symbol if isinstance(unit.symbol, str) else str(unit.symbol.value)


def _values(coverage: Coverage, key: str, axis: str, count: int) -> list[float | None]:
    """The values of a range along one axis, checked against its length."""
    array: Any = coverage.ranges[key]
    here = f"ranges.{key}"
    values = getattr(array, "values", None)
    if values is None:
        raise _fail("range", here, "The values are kept elsewhere.", "values in the document itself")
    long = [name for name, size in zip(array.axisNames or [], array.shape or [], strict=False) if size > 1]
    if len(values) != count or (count > 1 and long != [axis]):
        message = f"{len(values)} values over the axes {', '.join(array.axisNames or []) or 'none'}."
        raise _fail("range", here, message, f"{count} values over the axis {axis}")
    for i, value in enumerate(values):
        if value is not None and (isinstance(value, str) or not math.isfinite(value)):
            raise _fail("range", f"{here}.values[{i}]", f"'{value}' is no number.", "a number, or null where missing")
    return [None if v is None else float(v) for v in values]


def _celsius(values: list[float | None], unit: str, path: str) -> list[float | None]:
    if unit in ("", "Cel", "°C", "C", "degC"):
        return values
    if unit in ("[degF]", "°F", "F"):
        return [None if v is None else fahrenheit_to_c(v) for v in values]
    if unit == "K":
        return [None if v is None else v - 273.15 for v in values]
    raise _fail("unit", path, f"The unit '{unit}' is no unit of temperature known here.", "Cel, [degF] or K")


def _depths(coverage: Coverage) -> list[float]:
    values = _axis(coverage, "z")
    for i, value in enumerate(values):
        if isinstance(value, bool) or not isinstance(value, (int, float)) or not math.isfinite(value):
            raise _fail("axis", f"domain.axes.z.values[{i}]", f"'{str(value)[:30]}' is no depth.", "a number of metres")
    return [float(value) for value in values]


def _times(coverage: Coverage) -> list[datetime]:
    values = _axis(coverage, "t")
    for i, value in enumerate(values):
        if not isinstance(value, datetime) or value.tzinfo is None or not EARLIEST <= value <= LATEST:
            raise _fail(
                "axis", f"domain.axes.t.values[{i}]", f"'{str(value)[:40]}' is no time of a log.", "RFC 3339, from 1970"
            )
    return [value.astimezone(UTC) for value in values]


def _when(coverage: Coverage) -> datetime | None:
    if coverage.domain.axes.t is None:
        return None
    times = _times(coverage)
    if len(times) != 1:
        raise _fail("axis", "domain.axes.t", f"{len(times)} times: this is more than one profile.", "one time")
    return times[0]


def read_profile_coverage(data: bytes | str, max_depth_m: float | None = None) -> ProfileCoverage:
    """Return the profile in a CoverageJSON VerticalProfile, for a water of `max_depth_m` [m].

    Depth from the z axis, metres, positive down (negative throughout is turned round); temperature and, if there,
    oxygen by the names of their parameters; nulls are left out. Raises InputError with the path of the fault: broken or
    truncated JSON, NaN, wrong lengths, a z axis that does not run one way, unknown units, or a sample the water refuses.
    """
    coverage = _coverage(data, "VerticalProfile")
    depths = _depths(coverage)
    notes = []
    if depths and all(d <= 0 for d in depths) and any(d < 0 for d in depths):
        depths = [abs(d) for d in depths]
        notes.append("Negative depths taken as metres below the surface.")
    rising = all(a < b for a, b in zip(depths, depths[1:], strict=False))
    falling = all(a > b for a, b in zip(depths, depths[1:], strict=False))
    if len(depths) > 1 and not (rising or falling):
        raise _fail(
            "axis", "domain.axes.z", "The depths do not run one way.", "depths all increasing or all decreasing"
        )
    key = _find(coverage, WATER_TEMPERATURE, set())
    if key is None:
        names = ", ".join(coverage.ranges) or "none"
        raise _fail(
            "parameter", "ranges", f"No water temperature among: {names}.", "a parameter named water_temperature"
        )
    unit = _unit(coverage, key)
    temperature = _celsius(_values(coverage, key, "z", len(depths)), unit, f"parameters.{key}.unit")
    if not unit:
        notes.append("The unit of temperature is not named: taken as °C.")
    oxygen_key = _find(coverage, OXYGEN, {key})
    oxygen = _values(coverage, oxygen_key, "z", len(depths)) if oxygen_key else [None] * len(depths)
    rows = sorted(zip(depths, temperature, oxygen, strict=True))
    points = [Point(round(d, 4), t, o) for d, t, o in rows if t is not None]
    if not points:
        raise _fail("empty", f"ranges.{key}", "There is no temperature in it.", "at least one value")
    if len(points) < len(rows):
        notes.append(f"{len(rows) - len(points)} depths without a temperature left out.")
    return ProfileCoverage(_position(coverage), _when(coverage), checked_profile(points, max_depth_m), tuple(notes))


def _parameter(label: str, symbol: str) -> dict[str, Any]:
    return {
        "type": "Parameter",
        "observedProperty": {"label": {"en": label}},
        "unit": {"symbol": {"value": symbol, "type": UCUM}},
    }


def _document(
    domain_type: str,
    position: tuple[float, float],
    axes: dict[str, Any],
    axis: str,
    count: int,
    rows: dict[str, tuple[str, str, list[float | None]]],
) -> str:
    axes = {"x": {"values": [position[0]]}, "y": {"values": [position[1]]}, **axes}
    referencing: list[dict[str, Any]] = [{"coordinates": ["x", "y"], "system": {"type": "GeographicCRS", "id": CRS84}}]
    if "t" in axes:
        referencing.append({"coordinates": ["t"], "system": {"type": "TemporalRS", "calendar": "Gregorian"}})
    document = {
        "type": "Coverage",
        "domain": {"type": "Domain", "domainType": domain_type, "axes": axes, "referencing": referencing},
        "parameters": {key: _parameter(label, unit) for key, (label, unit, _) in rows.items()},
        "ranges": {
            key: {"type": "NdArray", "dataType": "float", "axisNames": [axis], "shape": [count], "values": values}
            for key, (_, _, values) in rows.items()
        },
    }
    return json.dumps(document, ensure_ascii=False, allow_nan=False, indent=1)


def write_profile_coverage(
    points: tuple[Point, ...], position: tuple[float, float], when: datetime | None = None
) -> str:
    """Return a profile as a CoverageJSON VerticalProfile: depth [m] down, temperature [Cel], oxygen [mg/L] if any.

    `position` is (lon, lat), which the domain type asks for; `when` an aware instant.
    """
    axes: dict[str, Any] = {"z": {"values": [p.depth_m for p in points]}}
    if when is not None:
        axes["t"] = {"values": [when.astimezone(UTC).isoformat().replace("+00:00", "Z")]}
    rows: dict[str, tuple[str, str, list[float | None]]] = {
        "water_temperature": ("Water temperature", "Cel", [p.temperature_c for p in points])
    }
    if any(p.oxygen_mg_l is not None for p in points):
        rows["dissolved_oxygen"] = ("Dissolved oxygen", "mg/L", [p.oxygen_mg_l for p in points])
    return _document(
        domain_type="VerticalProfile", position=position, axes=axes, axis="z", count=len(points), rows=rows
    )


def _converted(name: str, values: list[float | None], unit: str, path: str) -> list[float | None]:
    if name == "air_temperature_c":
        return _celsius(values, unit, path)
    tables = {"wind_m_s": SPEED, "gust_m_s": SPEED, "sea_level_pressure_hpa": PRESSURE, "cloud_oktas": CLOUD}
    table = tables.get(name)
    if table is None:
        return values
    if unit not in table:
        raise _fail("unit", path, f"The unit '{unit}' is not known here.", ", ".join(table))
    return [None if v is None else v * table[unit] for v in values]


def read_weather_coverage(data: bytes | str) -> tuple[tuple[float, float] | None, tuple[Hour, ...]]:
    """Return where (lon, lat) and the hours in a CoverageJSON PointSeries of the weather, in SI.

    Parameters by their names (wind speed, gust, direction it comes from, cloud, air temperature, sea-level pressure,
    precipitation), in the units of UCUM. Raises InputError with the path of the fault: broken or truncated JSON, wrong
    lengths, times that do not go forward, units not known, values out of range, or no wind at all.
    """
    coverage = _coverage(data, "PointSeries")
    times = _times(coverage)
    for i in range(1, len(times)):
        if times[i] <= times[i - 1]:
            raise _fail(
                "axis", f"domain.axes.t.values[{i}]", "The times do not go forward.", "each later than the one before"
            )
    columns: dict[str, list[float | None]] = {}
    taken: set[str] = set()
    for name, words in WEATHER.items():
        key = _find(coverage, words, taken)
        if key is not None:
            taken.add(key)
            values = _values(coverage, key, "t", len(times))
            columns[name] = _converted(name, values, _unit(coverage, key), f"parameters.{key}.unit")
    if "wind_m_s" not in columns:
        names = ", ".join(coverage.ranges) or "none"
        raise _fail("parameter", "ranges", f"No wind speed among: {names}.", "a parameter named wind_speed")
    if "wind_from_deg" in columns:
        columns["wind_from_deg"] = [None if v is None else v % 360 for v in columns["wind_from_deg"]]
    hours = [Hour(when=when, **{name: values[i] for name, values in columns.items()}) for i, when in enumerate(times)]
    for i, hour in enumerate(hours):
        if hour.cloud_oktas is not None and not 0 <= hour.cloud_oktas <= 8.0001:
            raise _fail("range", f"hours[{i}].cloud", f"{hour.cloud_oktas:g} oktas is no cloud cover.", "0 to 8 oktas")
    return _position(coverage), checked_hours(tuple(hours))


def write_weather_coverage(hours: tuple[Hour, ...], position: tuple[float, float]) -> str:
    """Return the weather by hour as a CoverageJSON PointSeries at a (lon, lat), in m/s, deg, okta, Cel, hPa and mm."""

    def column(name: str) -> list[float | None]:
        return [None if (v := getattr(h, name)) is None else round(float(v), 3) for h in hours]

    rows: dict[str, tuple[str, str, list[float | None]]] = {
        "wind_speed": ("Wind speed", "m/s", column("wind_m_s")),
        "wind_speed_of_gust": ("Wind gust", "m/s", column("gust_m_s")),
        "wind_from_direction": ("Wind direction", "deg", column("wind_from_deg")),
        "cloud_area_fraction": ("Cloud amount", "{okta}", column("cloud_oktas")),
        "air_temperature": ("Air temperature", "Cel", column("air_temperature_c")),
        "air_pressure_at_mean_sea_level": ("Sea level pressure", "hPa", column("sea_level_pressure_hpa")),
        "precipitation_amount": ("Precipitation", "mm", column("rain_mm")),
    }
    kept = {key: row for key, row in rows.items() if any(v is not None for v in row[2])}
    times = [h.when.astimezone(UTC).isoformat().replace("+00:00", "Z") for h in hours]
    return _document(
        domain_type="PointSeries",
        position=position,
        axes={"t": {"values": times}},
        axis="t",
        count=len(hours),
        rows=kept,
    )
