"""A water and its places, as an angler describes them."""

from __future__ import annotations

from dataclasses import dataclass

from stillthread.core.chart.outline import Outline
from stillthread.core.water.stability import Contour

PLACE_KINDS = ("margin", "shoal", "weed-edge", "drop-off", "point", "inlet", "open-water")
SPECIES = ("rainbow", "brown", "brook")


@dataclass(frozen=True)
class Place:
    """A part of the water: kind, depth range of the bed [m], bearing its shore looks out to [deg true], (lon, lat)."""

    name: str
    kind: str
    depth_min_m: float
    depth_max_m: float
    facing_deg: float | None = None
    position: tuple[float, float] | None = None


@dataclass(frozen=True)
class Water:
    """A lake or reservoir: position (or only the hemisphere), greatest depth [m], species, places, freshly stocked.

    Where they are known: elevation [m], depth-area table, outline, a typed `fetch_m` [m] for any wind, how fertile the
    water is ('low', 'medium', 'high'), and earlier surface readings as (day of the year, [°C]).
    """

    name: str
    max_depth_m: float
    hemisphere: str
    places: tuple[Place, ...]
    latitude_deg: float | None = None
    longitude_deg: float | None = None
    species: tuple[str, ...] = ("rainbow",)
    days_since_stocking: int | None = None
    elevation_m: float | None = None
    hypsography: tuple[Contour, ...] = ()
    outline: Outline | None = None
    fetch_m: float | None = None
    productivity: str | None = None
    surface_history: tuple[tuple[int, float], ...] = ()
