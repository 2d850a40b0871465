"""The belief: how likely the feeding trout are at each place and depth."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime

import numpy as np
from numpy.typing import NDArray

from stillthread.core.belief import factors as f
from stillthread.core.belief import habits
from stillthread.core.belief import light_factor as lit
from stillthread.core.belief.factor import Factor, switched_off
from stillthread.core.belief.factors import CELL_M
from stillthread.core.belief.own_log import found_factor, own_log_factor
from stillthread.core.belief.stocking import stocking_factor
from stillthread.core.evidence.likeness import Likened
from stillthread.core.food.available import LEADS, Availability
from stillthread.core.food.seen import Sighting, says_something, signed
from stillthread.core.noted.reading import Reading
from stillthread.core.noted.water import Place, Water
from stillthread.core.sky.bands import UP_DEG
from stillthread.core.sky.light import Light
from stillthread.core.trout.learnt import USUAL, Learnt
from stillthread.core.trout.temperature import heat_share

# Share of the belief spread evenly over all water: nobody knows better than this (design of the search).
UNIFORM_SHARE = 0.2
UNIFORM_IF_LOOKED = 0.12  # temperatures read and food seen: the belief may say more. Ours.
UNIFORM_IF_UNREAD = 0.5


@dataclass(frozen=True)
class PlaceBelief:
    """The belief at one place: cell centres [m], mass per cell (all places together sum to 1), and its factors.

    `log_score` is the sum of the factors' log weights, cell by cell; `uniform` the share of the mass spread evenly.
    """

    place: Place
    bed_m: float
    depths_m: NDArray[np.float64]
    mass: NDArray[np.float64]
    log_score: NDArray[np.float64]
    factors: tuple[Factor, ...]
    uniform: float = UNIFORM_SHARE

    @property
    def share(self) -> float:
        """This place's part of the whole belief, 0 to 1."""
        return float(self.mass.sum())

    @property
    def profile(self) -> NDArray[np.float64]:
        """The belief over depth at this place alone (sum 1)."""
        return np.asarray(self.mass / self.mass.sum(), dtype=np.float64)

    @property
    def peak_m(self) -> float:
        """Depth [m] of the most likely cell."""
        return float(self.depths_m[int(np.argmax(self.mass))])


def cells(bed_m: float) -> NDArray[np.float64]:
    """Return cell centres [m] every 0.1 m from 0.05 m down to the bed [m]. Raises ValueError unless the bed is below 0.1 m."""
    count = int(np.floor(bed_m / CELL_M + 1e-9))
    if count < 1:
        raise ValueError("the water must be deeper than 0.1 m")
    return np.asarray((np.arange(count) + 0.5) * CELL_M, dtype=np.float64)


def _narrowest(sums: NDArray[np.float64], share: float, around: tuple[int, int]) -> tuple[int, int]:
    """The narrowest run of cells that holds a share and the cells `around`, the highest of equal ones."""
    count = len(sums) - 1
    best = (0, count)
    for start in range(min(count, around[0] + 1)):
        end = max(int(np.searchsorted(sums, sums[start] + share - 1e-12)), around[1])
        if end <= count and end - start < best[1] - best[0]:
            best = (start, end)
    return best


def narrowest_run(mass: Sequence[float] | NDArray[np.float64], share: float) -> tuple[int, int]:
    """Return the first cell and one past the last of the narrowest run that holds a share of a belief, the highest of equal ones."""
    p = np.asarray(mass, dtype=np.float64)
    return _narrowest(np.concatenate([[0.0], np.cumsum(p / p.sum())]), share, (len(p), 0))


def smallest_band(belief: PlaceBelief, share: float) -> tuple[float, float]:
    """Return the narrowest unbroken run of depths [m] that holds at least `share` of the place's belief (0 to 1).

    A wider share than half is the narrowest around the half's, so that the one always lies inside the other.
    """
    p = belief.profile
    sums = np.concatenate([[0.0], np.cumsum(p)])
    inner = _narrowest(sums, 0.5, (len(p), 0))
    best = inner if share == 0.5 else _narrowest(sums, share, inner if share > 0.5 else (len(p), 0))
    return round(best[0] * CELL_M, 6), round(best[1] * CELL_M, 6)


def knows_nothing(reading: Reading, sightings: tuple[Sighting, ...]) -> bool:
    """Return True when neither the water nor the fish were looked at."""
    read = (reading.wind_m_s, reading.cloud_oktas, reading.clarity, reading.secchi_m)
    looked = any(says_something(seen) for seen in sightings)
    return not reading.profile and not looked and all(value is None for value in read)


def place_bed_m(place: Place, water: Water, reading: Reading, chosen: bool) -> float:
    """Return the depth of the bed [m] used at a place: as read for the chosen one, else its deepest, within the water."""
    if chosen and reading.water_depth_m is not None:
        return reading.water_depth_m
    return min(place.depth_max_m, water.max_depth_m)


@dataclass(frozen=True)
class Scored:
    """A place before it is weighed against the others: its bed [m], cell centres [m] and factors."""

    place: Place
    bed_m: float
    depths_m: NDArray[np.float64]
    factors: tuple[Factor, ...]

    @property
    def log_score(self) -> NDArray[np.float64]:
        """The sum of the factors' log weights."""
        return np.asarray(np.sum([part.log_weight for part in self.factors], axis=0), dtype=np.float64)


BEST_WATER_M = 1.5  # about what fish share at one time. Our figure.


def _best_water(weight: NDArray[np.float64]) -> float:
    """The mean weight of the best metre and a half of a place's water; what is missing to it counts as nothing."""
    cells_ = round(BEST_WATER_M / CELL_M)
    sums = np.concatenate([[0.0], np.cumsum(weight)])
    width = min(cells_, len(weight))
    return float((sums[width:] - sums[: len(sums) - width]).max()) / cells_


def spread_mass(scored: list[Scored], uniform: float) -> tuple[PlaceBelief, ...]:
    """Return the belief over scored places: mass by their scores, a share `uniform` of it spread evenly.

    A place is judged by the best metre and a half of its water, not by how many cells it has: the dead water of a deep
    place takes nothing from it, and water too shallow to hold that much counts for as much as there is.
    """
    scores = [one.log_score for one in scored]
    weights = [np.exp(score - score.max()) for score in scores]
    worth = np.array([float(np.log(_best_water(np.exp(score)))) for score in scores])
    share = np.exp(worth - worth.max())
    share = (1 - uniform) * share / share.sum() + uniform / len(scored)
    return tuple(
        PlaceBelief(
            place=one.place,
            bed_m=one.bed_m,
            depths_m=one.depths_m,
            mass=share[i] * ((1 - uniform) * w / w.sum() + uniform / len(w)),
            log_score=score,
            factors=one.factors,
            uniform=uniform,
        )
        for i, (one, w, score) in enumerate(zip(scored, weights, scores, strict=True))
    )


@dataclass(frozen=True)
class Brought:
    """What the angler brings to the belief: the own log weighed by likeness, factors switched off, the school on where to
    stand in the wind ('by-water', 'onto', 'off'), a depth found [m], and what was learnt from the own takes.
    """

    log: Likened | None = None
    without: frozenset[str] = frozenset()
    wind_shore: str = "by-water"
    found_m: float | None = None
    learnt: Learnt = USUAL


def _light(depths: NDArray[np.float64], reading: Reading, light: Light, heat: float, pressured: bool) -> Factor:
    return lit.light_factor(
        depths=depths,
        light=light,
        cruisers=lit.cruisers_up(reading, light),
        pressured=pressured,
        lift=lit.grey_lift(reading, heat),
        sky=lit.sky_words(reading),
    )


def believe(
    water: Water,
    reading: Reading,
    light: Light,
    food: Availability,
    sightings: tuple[Sighting, ...],
    when: datetime,
    chosen: str | None = None,
    brought: Brought = Brought(),
) -> tuple[PlaceBelief, ...]:
    """Return the belief for every place of the water, mass summing to 1 over all places and depths.

    `chosen` names the place the reading's depth of water belongs to, `brought` what the angler adds. Factors multiply (add in log space). A fifth of the
    mass is spread evenly, half when nothing was read at all. Raises ValueError without places.
    """
    if not water.places:
        raise ValueError("a water needs at least one place")
    scored = []
    heat = heat_share(reading.surface_c, water.species)
    pressed = signed(sightings, "pressured")
    for place in water.places:
        bed = place_bed_m(place, water, reading, place.name == chosen)
        z = cells(bed)
        parts = (
            f.temperature_factor(z, water, reading, brought.learnt.warmer_c),
            f.oxygen_factor(z, water, reading, when),
            _light(depths=z, reading=reading, light=light, heat=heat, pressured=pressed),
            f.food_factor(
                depths=z,
                food=food,
                place=place,
                bed_m=bed,
                easy_light_m=lit.comfort_depth_m(light),
                flooded_m=f.flooded_down_to_m(water, reading),
                rises=f.rising(sightings) is not None,
            ),
            f.rises_factor(z, sightings, heat, here=chosen is None or place.name == chosen),
            habits.season_factor(
                depths=z,
                water=water,
                reading=reading,
                bed_m=bed,
                when=when,
                kind=place.kind,
                patrolled=light.sun_elevation_deg < UP_DEG or food.share["fry"] >= LEADS,
            ),
            stocking_factor(z, water, heat),
            f.place_factor(depths=z, reading=reading, place=place, food=food, school=brought.wind_shore),
            own_log_factor(z, brought.log, place, brought.learnt.notice),
            found_factor(z, brought.found_m if chosen is None or place.name == chosen else None),
        )
        kept = tuple(switched_off(part) if part.name in brought.without else part for part in parts)
        scored.append(Scored(place, bed, z, kept))
    uniform = UNIFORM_IF_UNREAD if knows_nothing(reading, sightings) else UNIFORM_SHARE
    if reading.profile and food.sightings > 0:
        uniform = UNIFORM_IF_LOOKED
    return spread_mass(scored, uniform)


@dataclass(frozen=True)
class Effect:
    """What a factor does to the belief: the share of all belief it moves (0 to 1), and half the belief at the place
    without it [m]; `place` is then the likeliest place.
    """

    factor: str
    moves: float
    without_m: tuple[float, float]
    place: str


def factor_effects(beliefs: tuple[PlaceBelief, ...], chosen: str) -> tuple[Effect, ...]:
    """Return for each factor what the belief would be with it neutral, for the place called `chosen`.

    The share moved is the total variation distance between the belief with and without it, over all places and depths.
    """
    now = np.concatenate([one.mass for one in beliefs])
    found = []
    for name in (part.name for part in beliefs[0].factors):
        scored = [
            Scored(b.place, b.bed_m, b.depths_m, tuple(part for part in b.factors if part.name != name))
            for b in beliefs
        ]
        other = spread_mass(scored, beliefs[0].uniform)
        moves = float(np.abs(np.concatenate([one.mass for one in other]) - now).sum()) / 2
        here = next(one for one in other if one.place.name == chosen)
        best = max(other, key=lambda one: one.share)
        found.append(Effect(name, moves, smallest_band(here, 0.5), best.place.name))
    return tuple(found)
