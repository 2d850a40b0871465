"""What a prey entry says: its stages, where each lives, how it moves, and which imitations stand for it."""

from __future__ import annotations

from dataclasses import dataclass

# Families of imitations, in generic trade terms, with what a fly of that family looks like.
FAMILIES = {
    "worm": "slim red or olive worm",
    "slim-pupa": "slim ribbed pupa with white gills",
    "emerger": "body in the film, trailing shuck",
    "dry": "small floating fly",
    "shrimp": "curved, backed nymph",
    "leech": "long soft strip or tail",
    "damsel-nymph": "slim olive nymph with a soft tail",
    "damsel-adult": "blue floating fly with a long body",
    "dragon-nymph": "big, broad, buoyant nymph",
    "nymph": "slim nymph with a thorax",
    "caddis-pupa": "plump pupa with a fringe",
    "caddis-dry": "high-floating winged dry",
    "boatman": "oval body with two paddles",
    "attractor": "bright fly, orange, chartreuse or white",
    "fry": "small pale or silver streamer",
    "terrestrial": "floating foam fly",
    "snail": "dark, round, static fly",
}
FAMILY_KEYS = tuple(FAMILIES)
COLOURS = (
    "black", "brown", "olive", "tan", "orange", "red", "maroon", "green", "chartreuse", "white", "pale", "silver", "grey",
    "blue", "yellow", "clear",
)  # fmt: skip


@dataclass(frozen=True)
class Layer:
    """Where a prey is: a band centred `offset_m` [m] from its reference, with its spread [m] and share.

    `reference` is 'surface', 'bottom' or 'light' (the depth where light turns easy: deeper in sun, higher in dull light).
    """

    reference: str
    offset_m: float
    spread_m: float
    share: float


@dataclass(frozen=True)
class Stage:
    """One stage of a prey: what it is called, where it is, how it moves, and the families of flies that stand for it."""

    name: str
    layers: tuple[Layer, ...]
    movement: str
    families: tuple[str, ...]

    @property
    def at_surface(self) -> bool:
        """Whether the whole stage is told from the surface, not from the bed or the light."""
        return all(layer.reference == "surface" for layer in self.layers)


@dataclass(frozen=True)
class Prey:
    """One food of trout.

    `months` is how much of it is about in each month of a northern year, 0 to 1; `warmth_c` the water temperatures
    [°C] it is active in; `hours` the local clock hours it is most available; `weather` what it waits for; `places`
    the kinds of place it keeps to and `habitat` the same in words; `paces` the retrieves that look like it; `hooks` the
    smallest and largest hook sizes; `size_mm` its shortest and longest body [mm]; `max_bed_m` the deepest bed [m] it
    lives on, if limited; `away` how much of it is at other places than those, 0 to 1; `hung_m` how far off the bed [m]
    its imitation hangs under a float, if the trade says; `base_c` the temperature [°C] above which its growth is counted in degree-days, for insects
    that emerge; `source` where the entry is from.
    """

    key: str
    name: str
    stages: tuple[Stage, ...]
    months: tuple[float, ...]
    warmth_c: tuple[float, float]
    hours: tuple[int, int]
    weather: str
    places: tuple[str, ...]
    habitat: str
    paces: tuple[str, ...]
    hooks: tuple[int, int]
    size_mm: tuple[float, float]
    colours: tuple[str, ...]
    about: str
    max_bed_m: float | None = None
    base_c: float | None = None
    away: float = 0.3
    hung_m: tuple[float, float] | None = None
    source: str = "common practice"

    def at_home(self, place_kind: str, bed_m: float) -> bool:
        """Whether it lives at a kind of place over a bed [m] so deep."""
        return place_kind in self.places and (self.max_bed_m is None or bed_m <= self.max_bed_m)

    @property
    def layers(self) -> tuple[Layer, ...]:
        """Every layer of every stage."""
        return tuple(layer for stage in self.stages for layer in stage.layers)

    @property
    def families(self) -> tuple[str, ...]:
        """Every family of imitation, each once, in the order of the stages."""
        return tuple(dict.fromkeys(family for stage in self.stages for family in stage.families))
