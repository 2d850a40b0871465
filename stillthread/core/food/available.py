"""How the food is shared out now: season, warmth, hour and weather as a prior, what was seen as counts on top."""

from __future__ import annotations

import math
from dataclasses import dataclass, field
from datetime import datetime

from stillthread.core.food.catalogue import BY_KEY, CATALOGUE, PREY_KEYS
from stillthread.core.food.keyed import Keyed, keyed_on
from stillthread.core.food.prey import Prey
from stillthread.core.food.season import hour_weight, month_weight, warmth_weight, weather_weight
from stillthread.core.food.seen import (
    Sighting,
    ThroatSample,
    sample_counts,
    says_something,
    seen_at_top,
    sighting_counts,
)

# What the season alone is worth, counted as sightings: a stated prior. Common practice, no source.
PRIOR_SIGHTINGS = 4.0
LEADS = 0.2  # the share from which one food is more than one among many. Ours.


@dataclass(frozen=True)
class Move:
    """How far one thing seen moved the share of the prey it moved most: shares without and with it, 0 to 1."""

    what: str
    prey: str
    without: float
    with_it: float

    @property
    def sentence(self) -> str:
        """The move in words, in whole per cent."""
        name = BY_KEY[self.prey].name
        return f"{self.what}: {name.lower()} from {100 * self.without:.0f} to {100 * self.with_it:.0f} %."


@dataclass(frozen=True)
class Availability:
    """Share of each prey now: `share` after what was seen and `season_share` before, both summing to 1.

    `sightings` is how many things seen spoke for some food; `counted` what they add up to, against the season's four;
    `moves` what each did, largest first; `keyed` what the throat samples say of the fish's choice; `up` how many times
    more than usual of a prey is at the surface, where it was seen there.
    """

    share: dict[str, float]
    season_share: dict[str, float]
    sightings: int
    counted: float = 0.0
    moves: tuple[Move, ...] = ()
    keyed: Keyed | None = None
    up: dict[str, float] = field(default_factory=dict)

    @property
    def leads(self) -> bool:
        """True where one food stands out from the rest; else nothing says what the fish eat."""
        return max(self.share.values()) >= LEADS

    def top(self, count: int) -> list[Prey]:
        """Return the `count` most available prey, most first."""
        ordered = sorted(self.share, key=lambda key: (-self.share[key], PREY_KEYS.index(key)))
        return [BY_KEY[key] for key in ordered[:count]]


def season_share(
    when: datetime,
    hemisphere: str,
    water_c: float | None = None,
    wind_m_s: float | None = None,
    cloud_oktas: float | None = None,
    stocked: bool = False,
    shifts_days: dict[str, float] | None = None,
) -> dict[str, float]:
    """Return the share of each prey by season x warmth (water [°C]) x hour (local clock) x weather, summing to 1.

    Wind [m/s], cloud [oktas]; `shifts_days` [days] by prey is how far this water runs ahead of the usual year.
    """
    shifts = shifts_days or {}
    weights = {
        prey.key: month_weight(prey, when, hemisphere, shifts.get(prey.key, 0.0))
        * warmth_weight(prey, water_c)
        * hour_weight(prey, when, cloud_oktas)
        * weather_weight(prey, wind_m_s, cloud_oktas, stocked)
        for prey in CATALOGUE
    }
    total = math.fsum(weights.values())
    return {key: weight / total for key, weight in weights.items()}


def posterior(prior: dict[str, float], evidence: list[dict[str, float]]) -> dict[str, float]:
    """Return the mean of the Dirichlet posterior: `prior` shares worth four sightings, plus every count of `evidence`.

    Summed without rounding on the way, so the order of the evidence does not matter at all.
    """
    counts = {
        key: math.fsum([PRIOR_SIGHTINGS * share, *(seen.get(key, 0.0) for seen in evidence)])
        for key, share in prior.items()
    }
    total = math.fsum(counts.values())
    return {key: count / total for key, count in counts.items()}


OUT_OF_SEASON = 0.05  # of what a rise says of a prey that is not about: something rose all the same. Figure ours
EARLIER = "Seen on earlier days like this"
# How much more of a prey is at the surface, and how much more a rise speaks for it, by each of it seen there. Figure ours.
UP_BY_EACH = 0.5
AMOUNTS = {"few": "a few", "some": "some", "many": "many"}
RISE_WORDS = {
    "sip": "quiet sips",
    "head-and-tail": "head-and-tail rises",
    "splash": "splashes",
    "bow-wave": "bow waves",
    "leap": "clean leaps",
}
SIGN_WORDS = {
    "shucks": "shucks on the water",
    "swallows": "swallows feeding",
    "diving-birds": "birds diving for fry",
    "nothing-rises": "nothing rising",
    "pressured": "much fished",
    "webs": "flies in the webs",
}
MET_WORDS = {"seen": "seen", "hatch": "hatching", "weed-sample": "in a weed sample", "coughed-up": "coughed up"}


def _words(seen: Sighting) -> str:
    """What was seen, as the start of a sentence."""
    if seen.rise:
        text = f"{RISE_WORDS[seen.rise]}, {AMOUNTS[seen.abundance]}"
    elif seen.sign:
        text = f"{SIGN_WORDS[seen.sign]}, {AMOUNTS[seen.abundance]}"
    else:
        text = f"{BY_KEY[seen.prey or ''].name}, {AMOUNTS[seen.abundance]} {MET_WORDS[seen.evidence]}"
    return text[0].upper() + text[1:]


def _moves(
    prior: dict[str, float], told: list[tuple[str, dict[str, float]]], share: dict[str, float]
) -> tuple[Move, ...]:
    """Each thing's own part: the share of its prey with everything, against with everything but it."""
    moves = []
    for index, (what, _) in enumerate(told):
        without = posterior(prior, [counts for k, (_, counts) in enumerate(told) if k != index])
        prey = max(share, key=lambda key: (abs(share[key] - without[key]), -PREY_KEYS.index(key)))
        moves.append(Move(what, prey, without[prey], share[prey]))
    return tuple(sorted(moves, key=lambda m: (-abs(m.with_it - m.without), m.what)))


def available_food(
    when: datetime,
    hemisphere: str,
    water_c: float | None = None,
    wind_m_s: float | None = None,
    cloud_oktas: float | None = None,
    stocked: bool = False,
    sightings: tuple[Sighting, ...] = (),
    samples: tuple[ThroatSample, ...] = (),
    shifts_days: dict[str, float] | None = None,
    before: dict[str, float] | None = None,
) -> Availability:
    """Return how the food is shared out now.

    The season's share (see `season_share`) is a prior worth four sightings; each sighting and throat sample adds its
    count to its prey (see `sighting_counts`, `sample_counts`), and so does what was seen on earlier days like this
    (`before`, counts by prey). The mean of the Dirichlet posterior is returned, so the
    order does not matter. Raises InputError for unknown names and impossible counts.
    """
    prior = season_share(
        when=when,
        hemisphere=hemisphere,
        water_c=water_c,
        wind_m_s=wind_m_s,
        cloud_oktas=cloud_oktas,
        stocked=stocked,
        shifts_days=shifts_days,
    )

    up = {key: 1.0 + UP_BY_EACH * count for key, count in seen_at_top(sightings).items()}

    def about(key: str) -> float:
        in_season = max(month_weight(BY_KEY[key], when, hemisphere), OUT_OF_SEASON)
        return in_season * hour_weight(BY_KEY[key], when, cloud_oktas) * up.get(key, 1.0)

    told = [(_words(seen), sighting_counts(seen, about)) for seen in sightings if says_something(seen)]
    told += [("Throat sample", sample_counts(sample)) for sample in samples]
    today = len(told)
    if before:
        told.append((EARLIER, before))
    share = posterior(prior, [counts for _, counts in told])
    counted = math.fsum(value for _, counts in told for value in counts.values())
    return Availability(
        share=share,
        season_share=prior,
        sightings=today,
        counted=counted,
        moves=_moves(prior, told, share),
        keyed=keyed_on(samples),
        up=up,
    )
