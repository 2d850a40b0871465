"""Fly lines by family and the rate on the box."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated, Literal

from annotated_types import Ge, Le, MaxLen

from stillthread.core.limits import Name, Said
from stillthread.core.units import inches_per_second_to_m_s

MOST_LINES = 60  # in one kit
Family = Literal["floating", "hover", "intermediate", "sinking", "sink-tip"]
DensityProfile = Literal["level", "dense-middle", "dense-front"]
LEAST_RATE_IPS = 0.3  # the slowest line made that does not float
# How a line's rate varies from its front end: (length [m], share of the rate on the box); the last piece goes on.
# Common practice for lines built with a heavy belly or a heavy front; the figures are ours.
DENSITY_PROFILES = {
    "level": ((30.0, 1.0),),
    "dense-middle": ((3.0, 0.75), (6.0, 1.25), (30.0, 0.8)),
    "dense-front": ((4.5, 1.2), (30.0, 0.75)),
}
# Mass of the first 30 ft of a fly line by weight class [grains]: the trade's line-weight standard (from memory).
FIRST_30_FT_GRAINS = {1: 60, 2: 80, 3: 100, 4: 120, 5: 140, 6: 160, 7: 185, 8: 210, 9: 240, 10: 280, 11: 330, 12: 380}
GRAIN_KG = 64.79891e-6
FIRST_30_FT_M = 9.144
LINE_LENGTH_M = 30.0  # a whole fly line, common practice


@dataclass(frozen=True)
class Line:
    """A fly line: family, label rate [in/s] (0 for floating), weight class, tip length [m] for a sink tip."""

    key: Name
    family: Family
    label_ips: Annotated[float, Ge(0), Le(10)] = 0.0
    weight_class: Annotated[int, Ge(3), Le(9)] = 7
    tip_length_m: Annotated[float, Ge(0), Le(10)] = 0.0
    name: Annotated[str, MaxLen(80)] = ""
    measured_m_s: Annotated[
        float | None, Ge(0.003), Le(0.5), Said("timed on a slack level piece; overrides the label")
    ] = None
    density_profile: DensityProfile = "level"
    length_m: Annotated[float, Ge(5), Le(60)] = LINE_LENGTH_M

    def __post_init__(self) -> None:
        """Refuse a line whose family, rate and tip contradict each other. Raises ValueError."""
        if self.family == "floating" and self.label_ips != 0:
            raise ValueError("a floating line has no sink rate: leave label_ips at 0")
        if self.family != "floating" and self.label_ips < LEAST_RATE_IPS and self.measured_m_s is None:
            raise ValueError("a sinking line needs its rate in inches per second, 0.3 or more")
        if self.family == "sink-tip" and self.tip_length_m <= 0:
            raise ValueError("a sink tip needs its tip_length_m")

    @property
    def rate_m_s(self) -> float:
        """Sink rate [m/s]: the measured one, else the label's; 0 for a floating line."""
        if self.family == "floating":
            return 0.0
        return self.measured_m_s if self.measured_m_s is not None else inches_per_second_to_m_s(self.label_ips)

    @property
    def kg_per_m(self) -> float:
        """Mass per metre [kg/m] by weight class, averaged over the first 30 ft."""
        return mass_per_metre_kg(self.weight_class)

    @property
    def title(self) -> str:
        """The line in words: its own name if the angler gave one, else family and rate."""
        if self.name:
            return self.name
        if self.family == "floating":
            return "Floating line"
        if self.family == "sinking":
            return f"Type {self.label_ips:g} sinking line"
        words = {"intermediate": "Intermediate", "hover": "Hover line"}.get(self.family, "Sink tip")
        return f"{words}, {self.label_ips:g} in/s"


def mass_per_metre_kg(weight_class: int) -> float:
    """Return the mean mass per metre [kg/m] of the first 30 ft of a line of `weight_class`, 1 to 12.

    The trade's line-weight standard (from memory); the taper is not resolved. Raises ValueError for another class.
    """
    if weight_class not in FIRST_30_FT_GRAINS:
        raise ValueError("weight classes run from 1 to 12")
    return FIRST_30_FT_GRAINS[weight_class] * GRAIN_KG / FIRST_30_FT_M
