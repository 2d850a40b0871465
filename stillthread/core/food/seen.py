"""What was seen of the food: rises, signs, prey, throat samples; and how much each counts."""

from __future__ import annotations

import math
from dataclasses import dataclass

from stillthread.core.errors import InputError, Problem
from stillthread.core.food.catalogue import BY_KEY, PREY_KEYS
from stillthread.core.food.prey import COLOURS

ABUNDANCE_COUNT = {"few": 1.0, "some": 3.0, "many": 8.0}
# Which food a rise form speaks for (handbook of the trade); a clean leap says nothing about food.
RISE_PREY: dict[str, tuple[tuple[str, float], ...]] = {
    "sip": (("chironomid-adult", 0.6), ("mayfly", 0.2), ("terrestrial", 0.2)),
    "head-and-tail": (("chironomid-pupa", 0.8), ("chironomid-adult", 0.2)),
    "splash": (("caddis", 0.7), ("damsel-adult", 0.3)),
    "bow-wave": (("fry", 1.0),),
    "leap": (),
}
RISE_FORMS = tuple(RISE_PREY)
# Which food a sign speaks for. Common practice, our shares.
SIGN_PREY: dict[str, tuple[tuple[str, float], ...]] = {
    "shucks": (("chironomid-pupa", 0.6), ("chironomid-adult", 0.3), ("caddis", 0.1)),
    "swallows": (("chironomid-adult", 0.6), ("mayfly", 0.2), ("caddis", 0.2)),
    "diving-birds": (("fry", 1.0),),
    "webs": (("chironomid-adult", 0.7), ("caddis", 0.3)),
    "nothing-rises": (),
    "pressured": (),
}
SIGNS = tuple(SIGN_PREY)
# How prey was met, and how much its count weighs: eaten says more than lying in the weed. Common practice, our figures.
EVIDENCE_WEIGHT = {"seen": 1.0, "hatch": 1.0, "weed-sample": 0.5, "coughed-up": 2.0}
EVIDENCES = tuple(EVIDENCE_WEIGHT)
DIGESTED_WEIGHT = 0.5
# How alike the items in one fish are: the precision of the Dirichlet between fish. Our figure.
BETWEEN_FISH = 10.0
MOST_ITEMS = 5000
LARGEST_MM = 200.0


@dataclass(frozen=True)
class Sighting:
    """Something seen: a prey (by key), a rise form or a sign, how much ('few', 'some', 'many'), and how it was met."""

    abundance: str
    prey: str | None = None
    rise: str | None = None
    sign: str | None = None
    evidence: str = "seen"


@dataclass(frozen=True)
class SampleItem:
    """One kind in a throat sample: prey key, how many, body length [mm], colour, and 'live' (fresh) or 'digested'."""

    prey: str
    count: int
    size_mm: float | None = None
    colour: str | None = None
    state: str = "live"


@dataclass(frozen=True)
class ThroatSample:
    """What one fish had in its throat."""

    items: tuple[SampleItem, ...]


def signed(sightings: tuple[Sighting, ...], sign: str) -> bool:
    """Return whether a sign is among the sightings. Raises ValueError for a sign nobody knows."""
    if sign not in SIGNS:
        raise ValueError(f"no such sign: {sign}")
    return any(one.sign == sign for one in sightings)


def says_something(seen: Sighting) -> bool:
    """Return True where a sighting speaks for some food; a clean leap does not."""
    return bool(sighting_counts(seen))


def sighting_counts(seen: Sighting) -> dict[str, float]:
    """Return what a sighting adds to the count of each prey: few 1, some 3, many 8, times how it was met."""
    count = ABUNDANCE_COUNT[seen.abundance]
    found: dict[str, float] = {}
    if seen.prey is not None:
        found[seen.prey] = count * EVIDENCE_WEIGHT[seen.evidence]
    for key, part in RISE_PREY.get(seen.rise or "", ()) + SIGN_PREY.get(seen.sign or "", ()):
        found[key] = found.get(key, 0.0) + count * part
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


def _sighting_problems(seen: Sighting, here: str) -> list[Problem]:
    problems = []
    named = [v for v in (seen.prey, seen.rise, seen.sign) if v is not None]
    if len(named) != 1:
        problems.append(Problem("empty", here, "A sighting names one thing.", "a prey, a rise form or a sign"))
    for name, value, known in (
        ("prey", seen.prey, PREY_KEYS),
        ("rise", seen.rise, RISE_FORMS),
        ("sign", seen.sign, SIGNS),
    ):
        if value is not None and value not in known:
            words = "rise form" if name == "rise" else name
            problems.append(Problem("unknown", f"{here}.{name}", f"No {words} '{value}'.", ", ".join(known)))
    if seen.abundance not in ABUNDANCE_COUNT:
        problems.append(Problem("unknown", f"{here}.abundance", f"'{seen.abundance}' is no amount.", "few, some, many"))
    if seen.evidence not in EVIDENCE_WEIGHT:
        problems.append(
            Problem("unknown", f"{here}.evidence", f"'{seen.evidence}' is no way to meet prey.", ", ".join(EVIDENCES))
        )
    return problems


def check_sightings(sightings: tuple[Sighting, ...], path: str = "sightings") -> None:
    """Raise InputError where a sighting names an unknown prey, rise, sign or amount, or not exactly one thing."""
    problems = []
    for index, seen in enumerate(sightings):
        problems += _sighting_problems(seen, f"{path}[{index}]")
    if problems:
        raise InputError(problems)


def _item_problems(item: SampleItem, here: str) -> list[Problem]:
    problems = []
    if item.prey not in BY_KEY:
        problems.append(Problem("unknown", f"{here}.prey", f"No prey '{item.prey}'.", ", ".join(PREY_KEYS)))
    if not 1 <= item.count <= MOST_ITEMS:
        problems.append(Problem("range", f"{here}.count", f"{item.count} is no count.", f"1 to {MOST_ITEMS}"))
    if item.size_mm is not None and not 0.1 <= item.size_mm <= LARGEST_MM:
        message = f"{item.size_mm:g} mm is no length of trout food."
        problems.append(Problem("range", f"{here}.size_mm", message, f"0.1 to {LARGEST_MM:g} mm"))
    if item.colour is not None and item.colour not in COLOURS:
        problems.append(Problem("unknown", f"{here}.colour", f"No colour '{item.colour}'.", ", ".join(COLOURS)))
    if item.state not in ("live", "digested"):
        problems.append(Problem("unknown", f"{here}.state", f"'{item.state}' is no state.", "live, digested"))
    return problems


def check_samples(samples: tuple[ThroatSample, ...], path: str = "samples") -> None:
    """Raise InputError for an empty sample, an unknown prey or colour, or a count or size out of range."""
    problems = []
    for index, sample in enumerate(samples):
        if not sample.items:
            problems.append(Problem("empty", f"{path}[{index}].items", "The sample is empty.", "at least one kind"))
        for k, item in enumerate(sample.items):
            problems += _item_problems(item, f"{path}[{index}].items[{k}]")
    if problems:
        raise InputError(problems)
