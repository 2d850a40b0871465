"""The read document: what `./still read` reads and prints, and what the Water page shows. Mirrors docs/contracts."""

from __future__ import annotations

from datetime import datetime
from typing import Literal

from pydantic import AwareDatetime, Field

from stillthread.documents.plan_contract import CautionOut
from stillthread.documents.strict import Celsius, Share, Strict
from stillthread.documents.water_contract import HourIn, ReadingIn, SampleIn, SightingIn, WaterIn


class ElsewhereIn(Strict):
    """A surface temperature read the same day at another place."""

    place: str = Field(min_length=1, max_length=80)
    surface_c: Celsius


class ReadRequest(Strict):
    """A reading and its water: what `./still read` reads."""

    version: Literal[1] = 1
    when: AwareDatetime = Field(description="RFC 3339 with the water's own offset")
    water: WaterIn
    place: str | None = Field(None, max_length=80)
    reading: ReadingIn = ReadingIn()
    sightings: list[SightingIn] = Field(default=[], max_length=60)
    samples: list[SampleIn] = Field(default=[], max_length=40)
    hours: list[HourIn] = Field(default=[], max_length=384, description="forecast by hour")
    elsewhere: list[ElsewhereIn] = Field(default=[], max_length=50)
    stop_above_c: float | None = Field(None, ge=5, le=30, description="the water's own limit for returning fish")
    afloat: bool = False


class ThermoclineOut(Strict):
    """A steep part of the profile: seasonal, skin (the day's), weak, or inverse (winter)."""

    kind: Literal["seasonal", "skin", "weak", "inverse"]
    depth_m: float
    top_m: float = Field(description="top of the metalimnion")
    bottom_m: float
    drop_c_per_m: float


class StabilityOut(Strict):
    """How firmly the layers stand against today's wind; null where an input is missing."""

    schmidt_j_m2: float | None
    wedderburn: float | None
    lake_number: float | None
    tilt_m: float | None
    seiche_h: float | None
    length_m: float | None
    guessed: list[str]
    sentence: str


class LayersOut(Strict):
    """How the water lies in layers."""

    state: Literal["unknown", "mixed", "skin", "weak", "layered", "inverse"]
    main: ThermoclineOut | None
    skin: ThermoclineOut | None
    buoyancy_per_s2: list[float] = Field(description="N² between each two samples")
    stability: StabilityOut
    sentence: str


class CurvesOut(Strict):
    """Curves over depth, on `depths_m`; null where nothing was read."""

    depths_m: list[float]
    temperature_c: list[float] | None
    measured_to_m: float | None
    oxygen_mg_l: list[float] | None
    oxygen_low_mg_l: list[float] | None
    oxygen_high_mg_l: list[float] | None
    saturation_mg_l: list[float] | None
    oxygen_source: list[Literal["measured", "saturation", "guess"]] | None
    light_share: list[float] = Field(description="share of the light just under the surface left at each depth")
    light_low_share: list[float] = Field(description="the same at the murkiest the Secchi depth allows")
    light_high_share: list[float] = Field(description="the same at the clearest")


class SpeciesOut(Strict):
    """One species: water open to it, what it would choose, and its appetite and preference by depth, 0 to 1, kept apart."""

    species: Literal["rainbow", "brown", "brook"]
    open_top_m: float | None
    open_bottom_m: float | None
    bottom_low_m: float | None = Field(description="where the open water may end, by the doubt about oxygen")
    bottom_high_m: float | None
    liked_top_m: float | None
    liked_bottom_m: float | None
    top_by: Literal["surface", "warmth"]
    bottom_by: Literal["bed", "oxygen", "warmth"]
    sentence: str
    feeling: str = Field(description="how hungry they are and how well they are suited, in words")
    appetite: list[float]
    preference: list[float]


class OxygenOut(Strict):
    """The air pressure oxygen was reckoned at, and where that is from."""

    pressure_hpa: float
    pressure_from: Literal["measured", "sea level", "elevation", "guess"]
    measured: bool
    sentence: str


class WelfareOut(Strict):
    """When to leave fish alone, by the warmest water a hooked one is played through."""

    level: Literal["ok", "tiring", "caution", "stop"]
    warmest_c: float
    stop_c: float
    sentence: str


class LightHourOut(Strict):
    """Light in one hour."""

    when: datetime
    sun_deg: float
    azimuth_deg: float
    lux: float
    twilight_m: float = Field(description="depth where it is down to civil twilight")
    twilight_low_m: float
    twilight_high_m: float
    spot: bool = Field(description="fish can be spotted")
    look_deg: float | None
    glare_from_deg: float | None
    glare_to_deg: float | None


class LightOut(Strict):
    """Light now, through the day, and the moments of the sun (null where there is none)."""

    now: LightHourOut
    secchi_m: float
    attenuation_per_m: float
    comfort_m: float
    hours: list[LightHourOut]
    civil_dawn: datetime | None
    sunrise: datetime | None
    sunset: datetime | None
    civil_dusk: datetime | None
    sentences: list[str]


class RangeOut(Strict):
    """The slowest and the fastest, m/s."""

    low_m_s: float
    high_m_s: float


class PlaceWindOut(Strict):
    """The wind at one place."""

    place: str
    onto: float | None
    fetch_m: float | None
    wave_m: float | None
    period_s: float | None
    sentence: str


class WindHourOut(Strict):
    """The wind of one hour."""

    when: datetime
    wind_m_s: float
    gust_m_s: float | None
    from_deg: float | None
    beaufort: int
    ripple: Literal["calm", "ripple", "wave"]
    onto: str | None
    wave_m: float | None
    boat: Literal["ok", "caution", "stop"]


class WindOut(Strict):
    """The wind now and what it does."""

    wind_m_s: float
    from_deg: float | None
    beaufort: int
    ripple: Literal["calm", "ripple", "wave"]
    onto_shore: str | None
    off_shore: str | None
    fetch_m: float | None
    fetch_from: Literal["outline", "typed", "guess", "unknown"]
    wave_m: float | None
    period_s: float | None
    wave_length_m: float | None
    wave_method: str
    set_up_m: float | None
    drift: dict[Literal["surface", "float", "boat", "drogue"], RangeOut]
    boat: Literal["ok", "caution", "stop"]
    chill_c: float | None
    places: list[PlaceWindOut]
    sentence: str


class EdgeOut(Strict):
    """A place that warms first."""

    place: str
    warmer_c: float
    read: bool
    sentence: str


class MoveOut(Strict):
    """What one thing seen did to the share of its prey."""

    what: str
    prey: str
    without: Share
    with_it: Share
    sentence: str


class PreyShareOut(Strict):
    """A food, its share now and by season alone."""

    key: str
    name: str
    share: Share
    season_share: Share
    about: str


class KeyedOut(Strict):
    """What throat samples say of the fish's choice, and what to match."""

    state: Literal["keyed", "leaning", "not-keyed", "too-few"]
    sentence: str
    prey: str | None
    size_mm: float | None
    colours: list[str]
    hooks: list[int]


class PartOut(Strict):
    """A prey's part of the food at a place."""

    prey: str
    share: Share


class FoodHereOut(Strict):
    """Food over depth at one place, on the curves' depths."""

    place: str
    kind: str
    density: list[float]
    brings: list[PartOut]


class FoodOut(Strict):
    """The food now."""

    prior: float = Field(description="what the season is worth, in sightings")
    counted: float = Field(description="what was seen adds up to")
    shares: list[PreyShareOut]
    moves: list[MoveOut]
    keyed: KeyedOut | None
    here: list[FoodHereOut]
    own_year: bool = Field(description="hatches moved by the water's own degree-days")


class ReadAnswer(Strict):
    """What `./still read` prints."""

    version: Literal[1] = 1
    bed_m: float
    layers: LayersOut
    curves: CurvesOut
    oxygen: OxygenOut | None
    species: list[SpeciesOut]
    welfare: WelfareOut | None
    behaviour: str | None
    approach: str | None
    light: LightOut
    wind: WindOut | None
    wind_hours: list[WindHourOut]
    wind_turns: list[str]
    edges: list[EdgeOut]
    food: FoodOut
    cautions: list[CautionOut]
    guessed: list[str]
