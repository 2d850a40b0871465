"""What was seen of the food: rises, signs, prey, throat samples; and how much each counts."""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import dataclass
from typing import Annotated, Literal

from annotated_types import Ge, Le, MaxLen, MinLen

from stillthread.core.food.catalogue import PREY_KEYS
from stillthread.core.food.prey import COLOURS

PreyKey = Literal[PREY_KEYS]  # type: ignore[valid-type]
Colour = Literal[COLOURS]  # type: ignore[valid-type]
Abundance = Literal["few", "some", "many"]
Rise = Literal["sip", "head-and-tail", "splash", "bow-wave", "leap"]
Sign = Literal["shucks", "swallows", "diving-birds", "webs", "nothing-rises", "pressured"]
Evidence = Literal["seen", "hatch", "weed-sample", "coughed-up"]
ABUNDANCE_COUNT: dict[Abundance, float] = {"few": 1.0, "some": 3.0, "many": 8.0}
# Which food a rise form speaks for (handbook of the trade); a clean leap says nothing about food.
RISE_PREY: dict[Rise, tuple[tuple[str, float], ...]] = {
    "sip": (("chironomid-adult", 0.5), ("chironomid-pupa", 0.15), ("mayfly", 0.2), ("terrestrial", 0.15)),
    "head-and-tail": (("chironomid-pupa", 0.8), ("chironomid-adult", 0.2)),
    "splash": (("caddis", 0.7), ("damsel-adult", 0.3)),
    "bow-wave": (("fry", 1.0),),
    "leap": (),
}
# Which food a sign speaks for. Common practice, our shares.
SIGN_PREY: dict[Sign, tuple[tuple[str, float], ...]] = {
    "shucks": (("chironomid-pupa", 0.6), ("chironomid-adult", 0.3), ("caddis", 0.1)),
    "swallows": (("chironomid-adult", 0.6), ("mayfly", 0.2), ("caddis", 0.2)),
    "diving-birds": (("fry", 1.0),),
    "webs": (("chironomid-adult", 0.7), ("caddis", 0.3)),
    "nothing-rises": (),
    "pressured": (),
}
QUIET_RISES: tuple[Rise, ...] = ("sip", "head-and-tail")  # of fish that pick small food from the film
SIGNS = tuple(SIGN_PREY)
# How prey was met, and how much its count weighs: eaten says more than lying in the weed. Common practice, our figures.
EVIDENCE_WEIGHT: dict[Evidence, float] = {"seen": 1.0, "hatch": 1.0, "weed-sample": 0.5, "coughed-up": 2.0}
DIGESTED_WEIGHT = 0.5
MET_AT_TOP: tuple[Evidence, ...] = ("seen", "hatch")  # what an angler sees, the eye or the net at the film met
# How alike the items in one fish are: the precision of the Dirichlet between fish. Our figure.
BETWEEN_FISH = 10.0
MOST_ITEMS = 5000
LARGEST_MM = 200.0


@dataclass(frozen=True)
class Sighting:
    """Something seen: a prey (by key), a rise form or a sign, how much, and how prey was met."""

    prey: PreyKey | None = None
    rise: Rise | None = None
    sign: Sign | None = None
    abundance: Abundance = "some"
    evidence: Evidence = "seen"

    def __post_init__(self) -> None:
        """Refuse a sighting of nothing, or of two things. Raises ValueError."""
        if sum(v is not None for v in (self.prey, self.rise, self.sign)) != 1:
            raise ValueError("name one thing: a prey, a rise form or a sign")


@dataclass(frozen=True)
class SampleItem:
    """One kind in a throat sample: prey key, how many, body length [mm], colour, and 'live' (fresh) or 'digested'."""

    prey: PreyKey
    count: Annotated[int, Ge(1), Le(MOST_ITEMS)]
    size_mm: Annotated[float | None, Ge(0.1), Le(LARGEST_MM)] = None
    colour: Colour | None = None
    state: Literal["live", "digested"] = "live"


@dataclass(frozen=True)
class ThroatSample:
    """What one fish had in its throat."""

    items: Annotated[tuple[SampleItem, ...], MinLen(1), MaxLen(30)]


Sightings = Annotated[tuple[Sighting, ...], MaxLen(60)]
Samples = Annotated[tuple[ThroatSample, ...], MaxLen(40)]


def signed(sightings: tuple[Sighting, ...], sign: str) -> bool:
    """Return whether a sign is among the sightings. Raises ValueError for a sign nobody knows."""
    if sign not in SIGNS:
        raise ValueError(f"no such sign: {sign}")
    return any(one.sign == sign for one in sightings)


def says_something(seen: Sighting) -> bool:
    """Return True where a sighting speaks for some food; a clean leap does not."""
    return bool(sighting_counts(seen))


def sighting_counts(seen: Sighting, about: Callable[[str], float] = lambda key: 1.0) -> dict[str, float]:
    """Return what a sighting adds to the count of each prey: few 1, some 3, many 8, times how it was met.

    A rise or a sign that may speak for several does so by how much each is `about` at the hour, 1 in its own.
    """
    count = ABUNDANCE_COUNT[seen.abundance]
    found: dict[str, float] = {}
    if seen.prey is not None:
        found[seen.prey] = count * EVIDENCE_WEIGHT[seen.evidence]
    rises = RISE_PREY[seen.rise] if seen.rise is not None else ()
    signs = SIGN_PREY[seen.sign] if seen.sign is not None else ()
    parts = {key: part * about(key) for key, part in rises + signs}
    whole = math.fsum(part for _, part in rises + signs) / (math.fsum(parts.values()) or 1.0)
    for key, part in parts.items():
        found[key] = found.get(key, 0.0) + count * part * whole
    return found


def seen_at_top(sightings: tuple[Sighting, ...]) -> dict[str, float]:
    """Return by prey the count of what was seen of it with the eye, so at or near the surface: few 1, some 3, many 8."""
    found: dict[str, float] = {}
    for one in sightings:
        if one.prey is not None and one.evidence in MET_AT_TOP:
            found[one.prey] = found.get(one.prey, 0.0) + ABUNDANCE_COUNT[one.abundance]
    return found


def sample_counts(sample: ThroatSample) -> dict[str, float]:
    """Return what one fish's throat adds to the count of each prey.

    Items of one fish are alike, so n of them weigh as n (1 + A) / (n + A) independent ones, A = 10: the variance of the
    Dirichlet-multinomial (Mosimann 1962). One item counts 1, a crammed throat never more than 11; digested items half.
    """
    weights: dict[str, list[float]] = {}
    for item in sample.items:
        weights.setdefault(item.prey, []).append(item.count * (1.0 if item.state == "live" else DIGESTED_WEIGHT))
    total = math.fsum(w for parts in weights.values() for w in parts)
    if total <= 0:
        return {}
    effective = total * (1 + BETWEEN_FISH) / (total + BETWEEN_FISH)
    return {key: effective * math.fsum(parts) / total for key, parts in weights.items()}
