"""A water and its places, as an angler describes them."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Annotated, Literal

from annotated_types import Ge, Gt, Le, MaxLen, MinLen

from stillthread.core.chart.outline import Outline, checked_outline
from stillthread.core.errors import InputError, Problem, doubled
from stillthread.core.limits import Bearing, Celsius, Day, Depth, Latitude, Level, Longitude, Name, Said
from stillthread.core.vocabulary import PlaceKind, Species
from stillthread.core.water.stability import Contour, checked_hypsography

Hemisphere = Literal["north", "south"]
Productivity = Literal["low", "medium", "high"]


GreatestDepth = Annotated[float, Ge(0.5), Le(300)]
SpeciesThere = Annotated[tuple[Species, ...], MinLen(1), MaxLen(3)]
Elevation = Annotated[float, Ge(-430), Le(6000)]
Fetch = Annotated[float, Gt(0), Le(200_000), Said("typed run of the wind, where there is no outline")]
DepthAreas = Annotated[tuple[Contour, ...], MaxLen(400), Said("areas by depth, surface first")]
MOST_PLACES = 50


@dataclass(frozen=True)
class Place:
    """A part of the water: kind, depth range of the bed [m], bearing its shore looks out to [deg true], where it lies."""

    name: Name
    kind: PlaceKind
    depth_max_m: Annotated[float, Ge(0.3), Le(300), Said("deepest bed at the place")]
    depth_min_m: Depth = 0.0
    facing_deg: Annotated[Bearing | None, Said("bearing the shore looks out over the water")] = None
    longitude_deg: Longitude | None = None
    latitude_deg: Latitude | None = None

    def __post_init__(self) -> None:
        """Refuse a place that contradicts itself. Raises ValueError."""
        if self.depth_min_m > self.depth_max_m:
            raise ValueError("the shallow end must not be deeper than the deep end")
        if (self.longitude_deg is None) != (self.latitude_deg is None):
            raise ValueError("a position needs both latitude and longitude")

    @property
    def position(self) -> tuple[float, float] | None:
        """Longitude and latitude [deg], WGS84, where they are known."""
        if self.longitude_deg is None or self.latitude_deg is None:
            return None
        return self.longitude_deg, self.latitude_deg


@dataclass(frozen=True)
class SurfaceRead:
    """An earlier surface temperature [°C] of the water."""

    on: Day
    surface_c: Celsius


@dataclass(frozen=True)
class Water:
    """A lake or reservoir: position (or only the hemisphere), greatest depth [m], species, places, freshly stocked.

    Where they are known: elevation [m], depth-area table, outline, a typed `fetch_m` [m] for any wind, how fertile the
    water is, earlier surface readings, and how low it stood in the last months [m]. A latitude, where given, decides the hemisphere.
    """

    name: Name
    max_depth_m: GreatestDepth
    places: Annotated[tuple[Place, ...], MinLen(1), MaxLen(MOST_PLACES)]
    hemisphere: Hemisphere = "north"
    latitude_deg: Latitude | None = None
    longitude_deg: Longitude | None = None
    species: SpeciesThere = ("rainbow",)
    days_since_stocking: Annotated[int | None, Ge(0), Le(3650)] = None
    elevation_m: Elevation | None = None
    hypsography: DepthAreas = ()
    outline: Annotated[Outline, MaxLen(200), Said("shore, then islands: closed rings")] = ()
    fetch_m: Fetch | None = None
    productivity: Annotated[Productivity | None, Said("how fertile: decides the guess at deep oxygen")] = None
    surface_history: Annotated[tuple[SurfaceRead, ...], MaxLen(1000)] = ()
    lowest_level_m: Annotated[Level | None, Said("lowest level of the last months against the datum")] = None

    def __post_init__(self) -> None:
        """Let a latitude decide the hemisphere."""
        if self.latitude_deg is not None:
            object.__setattr__(self, "hemisphere", "north" if self.latitude_deg >= 0 else "south")


def place_problems(places: Sequence[Place], max_depth_m: float, path: str = "places") -> list[Problem]:
    """Return what is wrong with a water's places together: two of one name, one deeper than the water [m]."""
    found = doubled([place.name for place in places], path, "name")
    for n, place in enumerate(places):
        if place.depth_max_m > max_depth_m:
            said = f"{place.depth_max_m:g} m is deeper than the water's greatest depth."
            found.append(Problem("below_bed", f"{path}[{n}].depth_max_m", said, f"at most {max_depth_m:g} m"))
    return found


def checked_water(water: Water, path: str = "water") -> Water:
    """Return the water if its places fit, and its outline and depth-area table can be reckoned with.

    Raises InputError at their faults.
    """
    problems = place_problems(water.places, water.max_depth_m, f"{path}.places")
    try:
        if water.outline:
            checked_outline(water.outline, f"{path}.outline")
    except InputError as error:
        problems += error.problems
    try:
        if water.hypsography:
            checked_hypsography(water.hypsography, water.max_depth_m, f"{path}.hypsography")
    except InputError as error:
        problems += error.problems
    if problems:
        raise InputError(problems)
    return water
