"""What every method needs to know while a plan is made."""

from __future__ import annotations

from dataclasses import dataclass

from stillthread.core.food.available import Availability
from stillthread.core.setup.choose_flies import Match, rank_flies
from stillthread.core.setup.model import Angler, PlanInput, Reason, Rules
from stillthread.core.setup.score import Reach
from stillthread.core.tackle.leaders import tippet_for
from stillthread.core.tackle.lines import Line
from stillthread.core.trout.belief import PlaceBelief, smallest_band
from stillthread.core.trout.notice import upward_reach_m
from stillthread.core.water.light import Light, ripple_class
from stillthread.core.water.profile import temperature_at

FLIES_IF_UNKNOWN = 2
BED_CLEARANCE_M = 0.3


@dataclass(frozen=True)
class Context:
    """The day as the methods see it: input, light, food, the chosen place's belief, and what follows from them."""

    given: PlanInput
    light: Light
    food: Availability
    belief: PlaceBelief
    reach: Reach

    @property
    def angler(self) -> Angler:
        """The angler's limits."""
        return self.given.angler

    @property
    def rules(self) -> Rules:
        """The rules as read."""
        return self.given.rules

    @property
    def bed_m(self) -> float:
        """Depth of the bed at the place [m]."""
        return self.belief.bed_m

    @property
    def stocked(self) -> bool:
        """True within three weeks of stocking."""
        days = self.given.water.days_since_stocking
        return days is not None and days <= 21

    @property
    def wary(self) -> bool:
        """True in calm, bright, clear water: smaller hooks and finer leaders."""
        calm = ripple_class(self.given.reading.wind_m_s) == "calm"
        clear = self.given.reading.clarity in ("gin-clear", "clear")
        return (calm or clear) and self.light.surface > 0.15

    @property
    def tippet_x(self) -> int:
        """Tippet size for the day."""
        return tippet_for(self.given.reading.clarity, self.light.surface > 0.15, False)

    @property
    def band_m(self) -> tuple[float, float]:
        """The likely feeding band at the place [m]: half the belief."""
        return smallest_band(self.belief, 0.5)

    @property
    def worth_fishing_m(self) -> tuple[float, float]:
        """Depths [m] a fly is worth counting to: the band with four fifths of the belief, and what looks up from it."""
        top, bottom = smallest_band(self.belief, 0.8)
        return max(0.0, top - upward_reach_m(self.light.secchi_m)), bottom

    def lines_of(self, family: str) -> list[Line]:
        """Return the owned lines of a family, slowest first."""
        return sorted((line for line in self.given.lines if line.family == family), key=lambda line: line.label_ips)

    def team_size(self, most: int = 3) -> int:
        """Return how many flies may be tied on: the rule, two where none is noted, one where droppers are not allowed."""
        if self.rules.droppers_allowed is False:
            return 1
        allowed = self.rules.max_flies if self.rules.max_flies is not None else FLIES_IF_UNKNOWN
        return max(1, min(allowed, most))

    def flies_for(
        self, depth_m: float, weights: tuple[str, ...], surface: bool = False, still: bool = False
    ) -> list[Match]:
        """Return usable flies for a depth [m], best first."""
        reading = self.given.reading
        return rank_flies(
            self.given.flies, self.food, self.belief, depth_m, weights, surface, reading.clarity, self.stocked, still
        )

    def water_c(self, depth_m: float) -> float | None:
        """Return the water temperature at a depth [°C], None where none was read."""
        profile = self.given.reading.profile
        return float(temperature_at(profile, [depth_m])[0]) if profile else None

    def depth_reasons(self) -> tuple[Reason, ...]:
        """Return the belief's sentences for the chosen place, known factors first."""
        parts = sorted(self.belief.factors, key=lambda factor: not factor.known)
        return tuple(Reason(part.name, part.sentence) for part in parts)
