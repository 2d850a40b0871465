"""What the day's takes say about two flies, two depths, or still against moving: a difference only where there is one."""

from __future__ import annotations

import math
from collections.abc import Callable, Sequence
from dataclasses import dataclass

from stillthread.core.search.model import Spell

SURE = 0.975  # on days that feed in bursts less is wrong too often (measured on virtual lakes)
FEWEST_TAKES = 5
LEAST_MIN = 15.0
MOST_SENTENCES = 3
DEPTH_BIN_M = 1.0
SEEN = "seen"  # a neighbour's, whose rod nobody knows


@dataclass(frozen=True)
class Tally:
    """Takes in minutes, over how many separate stretches."""

    name: str
    takes: int
    minutes: float
    stretches: int


def better(a: Tally, b: Tally) -> float:
    """Return the chance that `a`'s rate is above `b`'s: two Gamma posteriors with Jeffreys' prior, by the beta distribution.

    P(λa > λb) for Gamma(ka + ½, ta) and Gamma(kb + ½, tb) is the beta distribution of the share ta / (ta + tb) at kb + ½,
    ka + ½ (any textbook). Integrated by Simpson's rule.
    """
    p, q = b.takes + 0.5, a.takes + 0.5
    share = b.minutes / (a.minutes + b.minutes)

    # The share of λb·tb in the sum is Beta(p, q); λa > λb where it lies below tb / (ta + tb).
    def density(phi: float) -> float:
        # x = sin²φ takes the poles at both ends away.
        return float(2.0 * math.sin(phi) ** (2 * p - 1) * math.cos(phi) ** (2 * q - 1))

    whole = math.exp(math.lgamma(p) + math.lgamma(q) - math.lgamma(p + q))
    end, n = math.asin(math.sqrt(share)), 400
    step = end / n
    total = density(0.0 if p > 0.5 else 1e-12) + density(end)
    total += sum((4 if i % 2 else 2) * density(i * step) for i in range(1, n))
    return min(1.0, max(0.0, total * step / 3 / whole))


def more_takes_needed(a: Tally, b: Tally, most: int = 40) -> int | None:
    """Return how many more takes at the rates seen would make the difference sure, None where more than `most`."""
    takes = a.takes + b.takes
    if takes == 0:
        return None
    for more in range(1, most + 1):
        grown = (takes + more) / takes
        first, second = (
            Tally(one.name, round(one.takes * grown), one.minutes * grown, one.stretches + 1) for one in (a, b)
        )
        if max(better(first, second), better(second, first)) > SURE and first.takes + second.takes >= FEWEST_TAKES:
            return more
    return None


def _sentence(what: str, a: Tally, b: Tally) -> str:
    if a.takes * b.minutes < b.takes * a.minutes:
        a, b = b, a
    sure = better(a, b)
    counted = f"{a.takes} in {a.minutes:.0f} min against {b.takes} in {b.minutes:.0f}"
    enough = a.takes + b.takes >= FEWEST_TAKES
    alternated = min(a.stretches, b.stretches) >= 2
    if sure > SURE and enough and alternated:
        return f"{what}: {a.name} is better than {b.name} today ({counted})."
    if sure > SURE and enough:
        return f"{what}: {a.name} looks better than {b.name} ({counted}), but they were not fished in turn: change back once."
    more = more_takes_needed(a, b)
    if more is None:
        return f"{what}: cannot tell yet between {a.name} and {b.name} ({counted})."
    return f"{what}: cannot tell yet between {a.name} and {b.name} ({counted}): about {more} more takes would."


def _tallies(spells: Sequence[Spell], name: Callable[[Spell], str]) -> list[Tally]:
    """Takes and minutes by name; stretches are runs of one name."""
    takes: dict[str, int] = {}
    minutes: dict[str, float] = {}
    runs: dict[str, int] = {}
    last = ""
    for spell in spells:
        if spell.candidate.method == SEEN:
            continue
        key = name(spell)
        takes[key] = takes.get(key, 0) + spell.takes
        minutes[key] = minutes.get(key, 0.0) + spell.minutes
        runs[key] = runs.get(key, 0) + (key != last)
        last = key
    found = [Tally(key, takes[key], minutes[key], runs[key]) for key in takes if key and minutes[key] >= LEAST_MIN]
    return sorted(found, key=lambda one: (-one.minutes, one.name))


def _depth_name(spell: Spell) -> str:
    low = math.floor(spell.candidate.mean_m / DEPTH_BIN_M) * DEPTH_BIN_M
    return f"{low:.0f} to {low + DEPTH_BIN_M:.0f} m"


def evidence(spells: Sequence[Spell]) -> tuple[str, ...]:
    """Return what the takes say of two depths, still or moving, and two flies, at most three sentences.

    A difference is claimed only above 97.5 % with five takes and alternated use; else how many more takes it would need.
    """
    found = []
    depths = _tallies(spells, _depth_name)
    if len(depths) > 1:
        found.append(_sentence("Depth", depths[0], depths[1]))
    paces = _tallies(spells, lambda s: "still" if s.candidate.pace == "static" else "moving")
    if len(paces) > 1:
        found.append(_sentence("Pace", paces[0], paces[1]))
    flies = _tallies(spells, lambda s: s.candidate.fly)
    if len(flies) > 1:
        found.append(_sentence("Fly", flies[0], flies[1]))
    return tuple(found[:MOST_SENTENCES])
