"""The simulate document: one cast or float rig, as `./still simulate` and the thread bench speak it. Mirrors docs/contracts."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from stillthread.core.casts.retrieve import PullKind
from stillthread.core.tackle.leaders import Material
from stillthread.core.tackle.lines import DensityProfile, Family
from stillthread.core.tackle.rig import FloatKind, TiedFly
from stillthread.documents.strict import Strict

Number = float  # where a document has a field of that name
Distance = Annotated[float, Field(ge=0, le=200)]
Pair = Annotated[list[float], Field(min_length=2, max_length=2)]
Row = Annotated[list[float], Field(min_length=5, max_length=5)]


class LineDoc(Strict):
    """The fly line: family, rate on the box in inches per second, weight class, and what is known beyond the box."""

    family: Family
    label_ips: float = Field(0.0, ge=0, le=10)
    weight_class: int = Field(7, ge=3, le=9)
    tip_length_m: float | None = Field(None, gt=0, le=10, description="sink tips: 1.5 to 4.5 is usual")
    measured_m_s: float | None = Field(
        None, ge=0.003, le=0.5, description="timed on a slack level piece; overrides the label"
    )
    density_profile: DensityProfile = "level"
    length_m: float = Field(30.0, ge=5, le=60)


class PieceDoc(Strict):
    """A piece of leader from the line down."""

    length_m: float = Field(le=15)
    diameter_mm: float = Field(le=2)
    material: Material = "fluorocarbon"
    sink_m_s: float | None = Field(None, gt=0, le=0.4, description="a sinking leader's own rate")
    strain_lb: float | None = Field(None, gt=0, le=100, description="as the angler's own spool says; never computed")


class FloatDoc(Strict):
    """A float on the leader."""

    type: FloatKind
    line: Literal["tight", "slack"] = "tight"
    from_line_m: float = Field(le=30)
    buoyancy_g: float = Field(gt=0, le=50)


class PullDoc(Strict):
    """A retrieve: the speed is the line's while it moves; what is left out takes the trade's usual figure."""

    kind: PullKind = "static"
    speed_m_s: float | None = Field(None, gt=0, le=2)
    pull_m: float | None = Field(None, gt=0, le=3)
    pause_s: float | None = Field(None, ge=0, le=60)


class WindDoc(Strict):
    """Wind along the cast, away from the angler positive."""

    along_cast_m_s: float = Field(ge=-30, le=30)


class DoubtDoc(Strict):
    """Half widths of what is uncertain, as shares; left out: 0.30 for a label, 0.30 for a fly's weight, 0.20 for drag."""

    line_rate: float | None = Field(None, ge=0, le=0.6)
    fly_weight: float | None = Field(None, ge=0, le=0.6)
    drag: float | None = Field(None, ge=0, le=0.6)


class SimulateRequest(Strict):
    """One cast or float rig: what `./still simulate` reads."""

    version: Literal[1] = 1
    line: LineDoc
    leader: list[PieceDoc] = Field(max_length=40)
    flies: list[TiedFly] = Field(max_length=10)
    cast_m: Number = Field(le=60, description="rod tip to point fly as it lands")
    slack: Number = Field(0.0, description="slack as a share of the cast, 0 to 1")
    water_depth_m: Number | None = Field(None, le=300)
    bed: list[Pair] | None = Field(None, max_length=100, description="[x_m, depth_m] outwards")
    water_temperature_c: Number = Field(10.0, ge=-1, le=40)
    countdown_s: Number = Field(0.0, le=600)
    retrieve: PullDoc = PullDoc()
    wind: WindDoc | None = None
    drift_m_s: Number | None = Field(None, ge=-3, le=3)
    target_band_m: Annotated[list[Distance], Field(min_length=2, max_length=2)] | None = None
    hold_s: Number | None = Field(
        None, ge=0, le=900, description="how long a static rig is fished; 60, under a float 120"
    )
    hang_s: Number = Field(6.0, ge=0, le=120)
    lift_off_after_s: Number | None = Field(None, gt=0, le=900, description="break a slow retrieve off after so long")
    band: bool = Field(True, description="false: the path alone, several times quicker")
    doubt: DoubtDoc = DoubtDoc()
    float: FloatDoc | None = None


class FlyTrackOut(Strict):
    """One fly: [t_s, x_m, depth_m, p10_m, p90_m] through time; min and max between the end of the count and the lift."""

    name: str
    track: list[Row]
    at_countdown_m: float
    min_m: float
    max_m: float
    exposure: list[Pair] = Field(description="[middle of a 0.1 m cell, seconds in it] from landing on")
    time_in_band_s: float | None = None
    film_retrieve_m: float = Field(description="metres of the retrieve with the fly in the top 12 cm")


class TouchOut(Strict):
    """The first touch of the bed."""

    t_s: float
    x_m: float
    fly: str


class ShapeOut(Strict):
    """The whole thread at one moment, rod tip (or float) to point."""

    t_s: float
    points: list[Pair]


class FloatOut(Strict):
    """How the float stands: set and real depth, load, and when it cocks and hangs."""

    set_m: float
    real_m: float
    load_g: float
    cocks_after_s: float | None
    hangs_after_s: float
    advice: list[str]


class SimulateAnswer(Strict):
    """What `./still simulate` prints."""

    version: Literal[1] = 1
    flies: list[FlyTrackOut]
    bottom: TouchOut | None
    line_track: list[ShapeOut]
    countdown_s: Number
    fished_to_s: Number
    end_s: Number
    notes: list[str]
    float: FloatOut | None
