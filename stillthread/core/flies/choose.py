"""Which flies from the box, and what speaks for each: prey, size, tone, sink rate, stock, own record."""

from __future__ import annotations

import math
from dataclasses import dataclass, field

import numpy as np

from stillthread.core.belief.belief import PlaceBelief
from stillthread.core.food.available import Availability
from stillthread.core.food.catalogue import BY_KEY
from stillthread.core.food.prey import Prey
from stillthread.core.food.where import depth_density
from stillthread.core.tackle.flies import Fly
from stillthread.core.thread.fly_sink import sink_speed_m_s

# Common practice; the figures are ours.
STILL_PENALTY = 0.35
WRONG_SIZE = 0.75
LAST_ONE = 0.92
MOST_RECORD = 1.35
LOW_LIGHT, HIGH_LIGHT = 0.03, 0.35
ATTRACTORS = ("bright", "pale")
# Where a bold shape is wanted and no food leads, a dark fly so large is as good a guess as any: it is seen.
SILHOUETTE_HOOK = 8
SIPPING_LEFT = 0.5  # of a bright or pale fly among fish that sip: they pick one small thing


@dataclass(frozen=True)
class FlyDay:
    """What of the day and the angler weighs on flies: clarity, light on the surface (0 to 1), stocking, schools, record.

    `tone` is the school ('by-water', 'bright', 'natural'), `aim` the day's aim, `record` how each fly's take rate in
    the own log stands to the mean of all; `sipping` is True where fish pick small food from the film, `dark` by night.
    """

    clarity: str | None = None
    light: float = 0.1
    stocked: bool = False
    tone: str = "by-water"
    aim: str = "most"
    record: dict[str, float] = field(default_factory=dict)
    sipping: bool = False
    dark: bool = False

    @property
    def bold(self) -> bool:
        """True where a silhouette is wanted: in coloured water or by night, unless a school or sipping fish say otherwise."""
        return (self.clarity == "coloured" or self.dark) and self.tone == "by-water" and not self.sipping


@dataclass(frozen=True)
class Match:
    """A fly, the prey it stands for here, how well it fits (0 to 1), what speaks for or against it in words, and the hooks that
    match what a throat showed, where one did.
    """

    fly: Fly
    prey: Prey
    score: float
    why: tuple[str, ...] = ()
    hooks: tuple[int, ...] = ()


@dataclass(frozen=True)
class Wanted:
    """What a method wants of a fly: weight classes, for the surface, hanging still, and a sink rate [m/s] if it matters."""

    weights: tuple[str, ...]
    surface: bool = False
    still: bool = False
    sink_m_s: float | None = None


def _prey_score(prey: Prey, food: Availability, belief: PlaceBelief, depth_m: float) -> float:
    """How much of the food now within half a metre of `depth_m` [m] is this prey, 0 to 1."""
    z = belief.depths_m
    near = np.abs(z - depth_m) <= 0.5
    local = float(depth_density(prey, z, belief.bed_m, belief.place.kind, up=food.up.get(prey.key, 1.0))[near].sum())
    return food.share[prey.key] * (0.15 + 0.85 * local)


def _stands_for(
    fly: Fly, food: Availability, belief: PlaceBelief, depth_m: float, still: bool
) -> tuple[Prey, float] | None:
    """The prey a fly stands for at a depth [m] and its share of the food there; None where it stands for none known."""
    known = [BY_KEY[key] for key in fly.prey if key in BY_KEY]
    worth = {
        p: _prey_score(p, food, belief, depth_m) * (STILL_PENALTY if still and "static" not in p.paces else 1)
        for p in known
    }
    return max(worth.items(), key=lambda one: one[1]) if worth else None


def searches(fly: Fly, food: Availability, day: FlyDay) -> bool:
    """Return whether a fly is what one searches with while nothing says what the fish eat and it must be seen: big and dark
    (common practice).
    """
    return day.bold and not food.leads and fly.tone == "dark" and min(fly.hooks) <= SILHOUETTE_HOOK


def tone_weight(fly: Fly, day: FlyDay) -> float:
    """Return how a fly's tone suits the day's light and water, the schools and fresh fish: 1 is neither for nor against it.

    Common practice, figures ours.
    """
    return _tone(fly, day)[0]


def _tone(fly: Fly, day: FlyDay) -> tuple[float, str | None]:
    """Trade rules: bright for fresh fish, bold silhouettes in coloured water or low light, natural in clear bright water."""
    if day.tone == "bright":
        return (1.3, "Attractors first, as you like it.") if fly.tone in ATTRACTORS else (0.85, None)
    if day.tone == "natural":
        return (0.7, None) if fly.tone in ATTRACTORS else (1.15, None)
    if day.stocked and fly.tone in ATTRACTORS:
        return 1.2, "Bright for fresh fish."
    if day.sipping and fly.tone in ATTRACTORS:
        return SIPPING_LEFT, None
    if day.clarity == "coloured":
        weight = {"dark": 1.25, "bright": 1.15, "pale": 0.9, "natural": 0.8}[fly.tone]
        return weight, "A bold shape in coloured water." if weight > 1 else None
    if day.light < LOW_LIGHT:
        weight = {"dark": 1.2, "bright": 0.95, "pale": 1.0, "natural": 1.0}[fly.tone]
        return weight, "Dark shows best against what light there is." if weight > 1 else None
    if day.clarity in ("gin-clear", "clear"):
        weight = {"natural": 1.2, "dark": 1.0, "pale": 0.85, "bright": 0.7 if day.light > HIGH_LIGHT else 0.8}[fly.tone]
        return weight, "Natural for clear water." if weight > 1 else None
    return 1.0, None


def _size(fly: Fly, prey: Prey, aim: str) -> tuple[float, str | None]:
    smallest, largest = prey.hooks
    weight, words = 1.0, None
    if not any(largest <= hook <= smallest for hook in fly.hooks):
        weight, words = WRONG_SIZE, f"No hook of it in {smallest} to {largest}, the sizes of the real thing."
    if aim == "biggest":
        weight *= min(max(1.0 + 0.06 * (11 - min(fly.hooks)), 0.8), 1.3)
        words = "A big mouthful, for the biggest." if min(fly.hooks) <= 8 else words
    return weight, words


def _sink(fly: Fly, wanted_m_s: float | None) -> tuple[float, str | None]:
    if wanted_m_s is None or fly.build is None:
        return 1.0, None
    speed = sink_speed_m_s(fly.build)
    if speed <= 0:
        return 0.8, None
    weight = max(0.8, math.exp(-0.5 * (min(math.log(speed / wanted_m_s), 0.0) / 0.8) ** 2))
    return weight, f"Sinks {100 * speed:.0f} cm a second." if weight > 0.95 else None


# What the throat showed is tied on, size first, then colour. Common practice, figures ours.
THROAT_SIZE, OTHER_SIZE, THROAT_COLOUR = 1.3, 0.75, 1.4


def _throat(fly: Fly, prey: Prey, food: Availability) -> tuple[float, str | None, tuple[int, ...]]:
    """How a fly matches the size and colour of what a throat showed of this prey, and the hooks that do."""
    match = food.keyed.match if food.keyed is not None else None
    if match is None or match.prey != prey.key:
        return 1.0, None, ()
    fit = tuple(hook for hook in fly.hooks if hook in match.hooks)
    weight = 1.0 if not match.hooks else THROAT_SIZE if fit else OTHER_SIZE
    colour = next((one for one in match.colours if one in fly.name.lower()), None)
    weight *= THROAT_COLOUR if colour else 1.0
    shown = [f"{match.size_mm:.0f} mm" if match.size_mm is not None and fit else "", colour or ""]
    told = ", ".join(one for one in shown if one)
    return weight, f"As in the throat: {told}." if told else None, fit


def _stock(fly: Fly) -> tuple[float, str | None]:
    return (LAST_ONE, "Your last one.") if fly.stock == 1 else (1.0, None)


def _record(fly: Fly, day: FlyDay) -> tuple[float, str | None]:
    weight = min(max(day.record.get(fly.name, 1.0), 1 / MOST_RECORD), MOST_RECORD)
    if weight > 1.05:
        return weight, f"It took {weight:.1f} times its share on days like this in your log."
    return weight, "It took less than its share on days like this in your log." if weight < 0.95 else None


def _usable(fly: Fly, wanted: Wanted) -> bool:
    return fly.weight in wanted.weights and fly.surface == wanted.surface and fly.stock != 0


def rank_flies(
    flies: tuple[Fly, ...], food: Availability, belief: PlaceBelief, depth_m: float, wanted: Wanted, day: FlyDay
) -> list[Match]:
    """Return the usable flies best first for a depth [m]: right weight class, surface or sunk, in stock.

    The score is the share of food at that depth the fly stands for, times tone, size, sink rate, stock and own record;
    for a still method prey that never keeps still counts 0.35. In coloured water or by night a large dark fly
    counts as the best food while none leads. Ties keep the order of the box, so the same input gives
    the same answer. Common practice, figures ours.
    """
    usable = [
        (fly, *stands)
        for fly in flies
        if _usable(fly, wanted) and (stands := _stands_for(fly, food, belief, depth_m, still=wanted.still))
    ]
    most = max((worth for _, _, worth in usable), default=0.0)
    matches = []
    for fly, prey, share in usable:
        bold = searches(fly, food, day)
        weight, told, hooks = _throat(fly, prey, food)
        parts = (
            (weight, told),
            (1.0, "No food leads: a big dark shape to search with." if bold else None),
            _tone(fly, day),
            _size(fly, prey, day.aim),
            _sink(fly, wanted.sink_m_s),
            _stock(fly),
            _record(fly, day),
        )
        score = (most if bold else share) * math.prod(weight for weight, _ in parts)
        matches.append(
            Match(fly=fly, prey=prey, score=score, why=tuple(words for _, words in parts if words), hooks=hooks)
        )
    return sorted(matches, key=lambda match: -match.score)


def hook_size(match: Match, wary: bool) -> int:
    """Return the hook size to tie on: what a throat showed first, else the smallest carried for wary fish, or the largest that fits the prey."""
    largest, smallest = match.prey.hooks[1], match.prey.hooks[0]
    fitting = [hook for hook in match.fly.hooks if largest <= hook <= smallest] or list(match.fly.hooks)
    fitting = list(match.hooks) or fitting
    return max(fitting) if wary else min(fitting)
