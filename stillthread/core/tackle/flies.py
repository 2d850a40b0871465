"""Flies in the box, and the starter set a new angler can tick."""

from __future__ import annotations

from dataclasses import dataclass

WEIGHTS = ("buoyant", "unweighted", "weighted")
TONES = ("dark", "natural", "pale", "bright")


@dataclass(frozen=True)
class Fly:
    """A pattern: what it stands for (prey keys), hook sizes carried, tone, weight class, how many are in the box."""

    key: str
    name: str
    prey: tuple[str, ...]
    hooks: tuple[int, ...]
    tone: str
    weight: str
    stock: int | None = None
    surface: bool = False  # fished in the film

    @property
    def buoyant(self) -> bool:
        """True if it floats by its build."""
        return self.weight == "buoyant"


STARTER_FLIES: tuple[Fly, ...] = (
    Fly("slim-pupa-black", "Slim ribbed pupa, black", ("chironomid-pupa",), (12, 14), "dark", "unweighted"),
    Fly("slim-pupa-olive", "Slim ribbed pupa, olive", ("chironomid-pupa",), (12, 14), "natural", "unweighted"),
    Fly("bead-pupa-black", "Beaded pupa, black", ("chironomid-pupa",), (10, 12), "dark", "weighted"),
    Fly(
        "bead-pupa-red",
        "Beaded pupa, red rib",
        ("chironomid-pupa", "chironomid-larva"),
        (10, 12),
        "natural",
        "weighted",
    ),
    Fly("red-worm", "Red worm", ("chironomid-larva",), (8, 10), "natural", "unweighted"),
    Fly("olive-scud", "Olive scud", ("scud",), (12, 14), "natural", "unweighted"),
    Fly("orange-scud", "Scud with orange spot", ("scud",), (12,), "natural", "weighted"),
    Fly("black-leech", "Marabou leech, black", ("leech",), (8, 10), "dark", "unweighted"),
    Fly("maroon-leech", "Balanced leech, maroon", ("leech",), (8,), "dark", "weighted"),
    Fly("olive-damsel", "Olive damsel nymph", ("damsel-nymph", "dragonfly-nymph"), (10, 12), "natural", "unweighted"),
    Fly(
        "pheasant-nymph",
        "Pheasant-tail nymph",
        ("mayfly", "chironomid-pupa", "water-boatman"),
        (12, 14),
        "natural",
        "unweighted",
    ),
    Fly("caddis-pupa", "Amber caddis pupa", ("caddis",), (10, 12), "natural", "unweighted"),
    Fly(
        "film-emerger", "Film emerger, grey", ("chironomid-adult", "mayfly"), (14, 16), "natural", "buoyant", None, True
    ),
    Fly("deer-hair-caddis", "Deer-hair caddis", ("caddis", "terrestrial"), (10, 12), "natural", "buoyant", None, True),
    Fly("foam-beetle", "Foam beetle", ("terrestrial",), (12,), "dark", "buoyant", None, True),
    Fly("blue-damsel", "Blue damsel adult", ("damsel-adult",), (10,), "bright", "buoyant", None, True),
    Fly("pale-fry", "Pale fry", ("fry",), (8,), "pale", "unweighted"),
    Fly("orange-attractor", "Orange attractor", ("stocked-instinct", "daphnia"), (10,), "bright", "unweighted"),
    Fly("green-black", "Black-and-green tail", ("stocked-instinct", "leech"), (10,), "dark", "unweighted"),
    Fly("white-attractor", "White attractor", ("stocked-instinct", "fry", "daphnia"), (10,), "pale", "unweighted"),
    Fly("foam-eyed-nymph", "Foam-eyed nymph", ("dragonfly-nymph", "stocked-instinct"), (10,), "natural", "buoyant"),
    Fly("dark-snail", "Dark snail", ("snail",), (12,), "dark", "unweighted"),
    Fly("rowing-boatman", "Water boatman", ("water-boatman",), (12,), "natural", "unweighted"),
)
