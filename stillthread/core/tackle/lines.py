"""Fly lines by family and the rate on the box."""

from __future__ import annotations

from dataclasses import dataclass

from stillthread.core.units import inches_per_second_to_m_s

FAMILIES = ("floating", "intermediate", "sinking", "sink-tip")
# Rates usually printed for each family [in/s], for checking input: common practice.
USUAL_RATES_IPS = {"floating": (0.0, 0.0), "intermediate": (0.5, 2.5), "sinking": (2.0, 9.0), "sink-tip": (0.5, 8.0)}
# Doubt of a label nobody has measured: plus or minus this share of the rate (design of the thread, common practice).
LABEL_DOUBT = 0.30


@dataclass(frozen=True)
class Line:
    """A fly line: family, label rate [in/s] (0 for floating), weight class, tip length [m] for a sink tip."""

    key: str
    family: str
    label_ips: float = 0.0
    weight_class: int = 7
    tip_length_m: float = 0.0
    name: str = ""

    @property
    def rate_m_s(self) -> float:
        """Label sink rate [m/s]."""
        return inches_per_second_to_m_s(self.label_ips)

    @property
    def title(self) -> str:
        """The line in words: its own name if the angler gave one, else family and rate."""
        if self.name:
            return self.name
        if self.family == "floating":
            return "Floating line"
        if self.family == "sinking":
            return f"Type {self.label_ips:g} sinking line"
        words = "Intermediate" if self.family == "intermediate" else "Sink tip"
        return f"{words}, {self.label_ips:g} in/s"
