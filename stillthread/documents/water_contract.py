"""The water as documents describe it: places, outline, depth-area table, a reading, what was seen, the weather by hour."""

from __future__ import annotations

from datetime import date
from typing import Annotated, Literal

from pydantic import AwareDatetime, Field, model_validator

from stillthread.core.food.catalogue import PREY_KEYS
from stillthread.core.food.prey import COLOURS
from stillthread.documents.strict import Bearing, Celsius, Depth, Name, Strict

PlaceKind = Literal["margin", "shoal", "weed-edge", "drop-off", "point", "inlet", "open-water"]
Species = Literal["rainbow", "brown", "brook"]
Clarity = Literal["gin-clear", "clear", "slightly-coloured", "coloured"]
Rise = Literal["sip", "head-and-tail", "splash", "bow-wave", "leap"]
Sign = Literal["shucks", "swallows", "diving-birds", "webs", "nothing-rises", "pressured"]
Evidence = Literal["seen", "hatch", "weed-sample", "coughed-up"]
Abundance = Literal["few", "some", "many"]
Productivity = Literal["low", "medium", "high"]
Surface = Literal["calm", "ripple", "wave", "foam-lanes"]
Source = Literal["typed", "instrument", "forecast", "guessed"]
Measured = Literal[
    "profile", "water_depth", "wind", "cloud", "clarity", "air_temperature", "pressure", "level", "surface"
]
Prey = Literal[PREY_KEYS]  # type: ignore[valid-type]
Colour = Literal[COLOURS]  # type: ignore[valid-type]
# A position as [longitude, latitude], WGS84; ranges are checked with the outline so that the message can help.
LonLat = Annotated[
    list[float], Field(min_length=2, max_length=2, description="[longitude, latitude] in degrees, WGS84")
]
Ring = Annotated[list[LonLat], Field(min_length=4, max_length=20_000)]


class PlaceIn(Strict):
    """A place on the water."""

    name: Name
    kind: PlaceKind
    depth_min_m: Depth = 0.0
    depth_max_m: float = Field(ge=0.3, le=300, description="deepest bed at the place")
    facing_deg: Bearing | None = Field(None, description="bearing the shore looks out over the water")
    longitude_deg: float | None = Field(None, ge=-180, le=180)
    latitude_deg: float | None = Field(None, ge=-90, le=90)

    @model_validator(mode="after")
    def _ordered(self) -> PlaceIn:
        if self.depth_min_m > self.depth_max_m:
            raise ValueError("the shallow end must not be deeper than the deep end")
        if (self.longitude_deg is None) != (self.latitude_deg is None):
            raise ValueError("a position needs both latitude and longitude")
        return self


class ContourIn(Strict):
    """One row of the depth-area table."""

    depth_m: Depth
    area_m2: float = Field(ge=0, le=1e11)


class SurfaceIn(Strict):
    """An earlier surface temperature of the water."""

    on: date
    surface_c: Celsius


class WaterIn(Strict):
    """The water: position or hemisphere, greatest depth, species, places; outline, depth-area table and more where known."""

    name: Name
    max_depth_m: float = Field(ge=0.5, le=300)
    hemisphere: Literal["north", "south"] = "north"
    latitude_deg: float | None = Field(None, ge=-90, le=90)
    longitude_deg: float | None = Field(None, ge=-180, le=180)
    species: list[Species] = Field(default=["rainbow"], min_length=1, max_length=3)
    days_since_stocking: int | None = Field(None, ge=0, le=3650)
    places: list[PlaceIn] = Field(min_length=1, max_length=50)
    elevation_m: float | None = Field(None, ge=-430, le=6000)
    hypsography: list[ContourIn] = Field(default=[], max_length=400, description="areas by depth, surface first")
    outline: list[Ring] = Field(default=[], max_length=200, description="shore, then islands: closed rings")
    fetch_m: float | None = Field(
        None, gt=0, le=200_000, description="typed run of the wind, where there is no outline"
    )
    productivity: Productivity | None = Field(None, description="how fertile: decides the guess at deep oxygen")
    surface_history: list[SurfaceIn] = Field(default=[], max_length=1000)


class PointIn(Strict):
    """One sample on the cord. Ranges are checked with the water's depth at hand, so the message can help."""

    depth_m: float
    temperature_c: Celsius
    oxygen_mg_l: float | None = Field(None, ge=0, le=25)


class ReadingIn(Strict):
    """What was read at the water; everything may be left out."""

    profile: list[PointIn] = Field(default=[], max_length=500)
    profile_at: AwareDatetime | None = Field(None, description="when the temperatures were read, where earlier")
    water_depth_m: float | None = Field(None, description="depth of water at the place")
    wind_m_s: float | None = Field(None, description="mean wind")
    gust_m_s: float | None = None
    wind_from_deg: Bearing | None = Field(None, description="where the wind comes from")
    cloud_oktas: int | None = Field(None, ge=0, le=8)
    clarity: Clarity | None = None
    secchi_m: float | None = Field(None, gt=0, le=40)
    air_temperature_c: float | None = Field(None, ge=-40, le=55)
    thunder: bool = False
    station_pressure_hpa: float | None = Field(
        None, ge=500, le=1100, description="as a barometer at the water shows it"
    )
    sea_level_pressure_hpa: float | None = Field(None, ge=870, le=1090, description="as forecasts give it")
    level_m: float | None = Field(
        None, ge=-100, le=50, description="today's level against the datum; drawn down is negative"
    )
    surface: Surface | None = Field(None, description="how the surface looks, where no wind was read")
    sources: dict[Measured, Source] = Field(default={}, description="where a value is from; left out = typed")


class SightingIn(Strict):
    """Something seen: a prey, a rise form or a sign, how much, and how prey was met."""

    prey: Prey | None = None
    rise: Rise | None = None
    sign: Sign | None = None
    abundance: Abundance = "some"
    evidence: Evidence = "seen"

    @model_validator(mode="after")
    def _names_something(self) -> SightingIn:
        if sum(v is not None for v in (self.prey, self.rise, self.sign)) != 1:
            raise ValueError("name one thing: a prey, a rise form or a sign")
        return self


class SampleItemIn(Strict):
    """One kind of food in a throat sample."""

    prey: Prey
    count: int = Field(ge=1, le=5000)
    size_mm: float | None = Field(None, ge=0.1, le=200)
    colour: Colour | None = None
    state: Literal["live", "digested"] = "live"


class SampleIn(Strict):
    """What one fish had in its throat."""

    items: list[SampleItemIn] = Field(min_length=1, max_length=30)


class HourIn(Strict):
    """The weather of one hour, as forecast."""

    when: AwareDatetime
    wind_m_s: float | None = Field(None, ge=0)
    gust_m_s: float | None = Field(None, ge=0)
    wind_from_deg: Bearing | None = None
    cloud_oktas: float | None = Field(None, ge=0, le=8)
    air_temperature_c: float | None = Field(None, ge=-60, le=60)
    sea_level_pressure_hpa: float | None = Field(None, ge=870, le=1090)
    rain_mm: float | None = Field(None, ge=0, le=500)
