"""What every method needs to know while a plan is made."""

from __future__ import annotations

from dataclasses import dataclass, replace
from functools import cached_property

import numpy as np
from numpy.typing import NDArray

from stillthread.core.belief.belief import PlaceBelief, smallest_band
from stillthread.core.belief.factors import rising
from stillthread.core.belief.reach import Reach
from stillthread.core.belief.stocking import fresh_fish
from stillthread.core.day.given import Angler, PlanInput, Rules
from stillthread.core.day.model import Reason
from stillthread.core.day.paths import IN_MEMORY, Paths
from stillthread.core.day.rules import most_flies
from stillthread.core.day.schools import Schools
from stillthread.core.evidence.likeness import Likened, fly_record
from stillthread.core.flies.choose import FlyDay, Match, Wanted, rank_flies
from stillthread.core.food.available import Availability
from stillthread.core.food.seen import QUIET_RISES, signed
from stillthread.core.sky.light import Light, ripple_class
from stillthread.core.sky.sun import is_dark
from stillthread.core.tackle.landing import landing_limit_m
from stillthread.core.tackle.leaders import tippet_for
from stillthread.core.tackle.lines import LINE_LENGTH_M, Line
from stillthread.core.trout.notice import upward_reach_m
from stillthread.core.trout.temperature import SLUGGISH_BELOW_C
from stillthread.core.water.profile import temperature_at

BED_CLEARANCE_M = 0.3
MOST_DEPTH_REASONS = 3
MOVES_NOTHING = 0.1  # a factor that changes the odds by less says nothing. Our figure.
PLACE_TELLS = 0.7
# Wind [m/s] from which a comfortable cast shortens, by how much a m/s, and the least share left. Common practice, ours.
CAST_EASY_TO_M_S, SHORTER_PER_M_S, SHORTEST_SHARE = 4.0, 0.04, 0.6
FINEST_X, STOUTEST_X = 5, 1


def cast_in_wind_m(cast_m: float, wind_m_s: float | None) -> float:
    """Return how far a comfortable cast of `cast_m` [m] still goes in a wind [m/s], to half a metre.

    Whole up to 4 m/s, then 4 % less for each m/s, never under three fifths. Common practice, figures ours.
    """
    share = max(SHORTEST_SHARE, 1.0 - SHORTER_PER_M_S * max(0.0, (wind_m_s or 0.0) - CAST_EASY_TO_M_S))
    return round(2 * cast_m * share) / 2 if share < 1 else cast_m


def telling(log_weight: NDArray[np.float64]) -> float:
    """Return how much a factor moves at a place: from its best to its worst depth, or the place as a whole."""
    return max(float(np.ptp(log_weight)), abs(float(log_weight.mean())) * PLACE_TELLS)


@dataclass(frozen=True)
class Context:
    """The day as the methods see it: input, light, food, the chosen place's belief, and what follows from them."""

    given: PlanInput
    light: Light
    food: Availability
    belief: PlaceBelief
    reach: Reach
    log: Likened | None = None
    paths: Paths = IN_MEMORY

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
        """True where fresh stockfish are to be reckoned with."""
        return fresh_fish(self.given.water, self.given.reading.surface_c)

    @property
    def wary(self) -> bool:
        """True in calm, bright, clear water, with pressured fish or such as sip: smaller hooks and finer leaders."""
        calm = ripple_class(self.given.reading.wind_m_s) == "calm"
        clear = self.given.reading.clarity in ("gin-clear", "clear")
        return self.pressured or self.sipping or ((calm or clear) and self.light.bright)

    @property
    def pressured(self) -> bool:
        """True where the water is much fished and bright lures are refused."""
        return signed(self.given.sightings, "pressured")

    @property
    def sipping(self) -> bool:
        """True where more than a few fish sip or head-and-tail: they pick small food from the film."""
        quiet = tuple(one for one in self.given.sightings if one.rise in QUIET_RISES)
        return rising(quiet) in ("some", "many")

    @cached_property
    def rising_many(self) -> bool:
        """True where many fish are seen feeding at the top."""
        return rising(self.given.sightings) == "many"

    @property
    def schools(self) -> Schools:
        """The angler's schools."""
        return self.given.schools

    @cached_property
    def tippet_x(self) -> int:
        """Tippet size for the day, by water or school, and stouter for the biggest fish."""
        size = tippet_for(self.given.reading.clarity, self.light.bright, self.given.aim == "biggest")
        size += {"fine": 1, "stout": -1}.get(self.schools.tippet, 0)
        wanted = min(max(size, STOUTEST_X), FINEST_X)
        # Of those carried the nearest, the stouter of two as near.
        return min(self.angler.owns.tippets_x, key=lambda x: (abs(x - wanted), x))

    @cached_property
    def cast_m(self) -> float:
        """How far a comfortable cast goes in this wind [m], with a line of the usual length."""
        return min(cast_in_wind_m(self.angler.cast_m, self.given.reading.wind_m_s), LINE_LENGTH_M)

    @property
    def landing_m(self) -> float:
        """How far from the rod tip a fish can be reached [m]."""
        return landing_limit_m(self.angler.rod_m, self.angler.net_m, self.angler.arm_m)

    @cached_property
    def very_cold(self) -> bool:
        """True where the likely band is below 4 °C."""
        water_c = self.water_c(sum(self.band_m) / 2)
        return water_c is not None and water_c < SLUGGISH_BELOW_C

    @cached_property
    def attractor_at(self) -> str | None:
        """Where the attractor goes, None where none is wanted: bright by school, stocking, coloured water or daphnia."""
        tone = self.schools.tone
        wanted = self.stocked or self.given.reading.clarity == "coloured" or self.food.share["daphnia"] >= 0.25
        return self.schools.attractor_at if tone == "bright" or (tone == "by-water" and wanted) else None

    def allows(self, kind: str) -> bool:
        """Whether the angler's school fishes a retrieve of this kind: static only, moving only, or both."""
        return self.schools.moving == "both" or (self.schools.moving == "static") == (kind == "static")

    @cached_property
    def band_m(self) -> tuple[float, float]:
        """The likely feeding band at the place [m]: half the belief."""
        return smallest_band(self.belief, 0.5)

    @cached_property
    def worth_fishing_m(self) -> tuple[float, float]:
        """Depths [m] a fly is worth counting to: the band with four fifths of the belief, and what looks up from it."""
        top, bottom = smallest_band(self.belief, 0.8)
        return max(0.0, top - upward_reach_m(self.light.secchi_m, times=self.angler.learnt.notice)), bottom

    def lines_of(self, family: str) -> list[Line]:
        """Return the owned lines of a family, slowest first."""
        return sorted((line for line in self.given.lines if line.family == family), key=lambda line: line.label_ips)

    def team_size(self, most: int = 3) -> int:
        """Return how many flies may be tied on: the rule (two where none is noted), one without droppers or by school."""
        single = self.schools.flies_on == "single"
        known = self.schools.flies_on == "searching" and self.given.found_m is not None
        return 1 if single or known else max(1, min(most_flies(self.rules), most))

    @cached_property
    def fly_day(self) -> FlyDay:
        """Return what of the day weighs on flies."""
        record = fly_record(self.log, tuple(f.name for f in self.given.flies)) if self.log else {}
        reading = self.given.reading
        usual = "natural" if self.pressured and self.schools.tone == "by-water" else self.schools.tone
        tone = "bright" if self.very_cold and self.schools.very_cold == "flashy" else usual
        return FlyDay(
            clarity=reading.clarity,
            light=self.light.surface,
            stocked=self.stocked,
            tone=tone,
            aim=self.given.aim,
            record=record,
            sipping=self.sipping,
            dark=is_dark(self.light.sun_elevation_deg),
        )

    def flies_for(
        self,
        depth_m: float,
        weights: tuple[str, ...],
        surface: bool = False,
        still: bool = False,
        sink_m_s: float | None = None,
        tone: str | None = None,
    ) -> list[Match]:
        """Return usable flies for a depth [m], best first; `tone` overrides the school on bright or natural."""
        day = self.fly_day
        wanted = Wanted(weights, surface, still, sink_m_s)
        return rank_flies(
            flies=self.given.flies,
            food=self.food,
            belief=self.belief,
            depth_m=depth_m,
            wanted=wanted,
            day=replace(day, tone=tone) if tone else day,
        )

    def water_c(self, depth_m: float) -> float | None:
        """Return the water temperature at a depth [°C], None where none was read."""
        profile = self.given.reading.profile
        return float(temperature_at(profile, [depth_m])[0]) if profile else None

    def depth_reasons(self) -> tuple[Reason, ...]:
        """Return the belief's sentences for the chosen place, what moves the depth most first, at most three of them.

        What moves nothing is told only where it was read and nothing else has anything to say.
        """
        swing = {factor.name: telling(factor.log_weight) for factor in self.belief.factors}
        able = [factor for factor in self.belief.factors if factor.known or swing[factor.name] > 0]
        parts = sorted(able, key=lambda factor: (-swing[factor.name], not factor.known))[:MOST_DEPTH_REASONS]
        parts = [part for part in parts if swing[part.name] >= MOVES_NOTHING] or parts[:1]
        return tuple(Reason(part.name, part.sentence) for part in parts)
