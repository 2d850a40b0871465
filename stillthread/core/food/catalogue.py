"""The prey catalogue: season, warmth, hour, place and depth of each food, and the flies that stand for it.

Everything here is common practice of the trade (no published source), in our own words. Months are for the
northern hemisphere; `season.py` turns them round for the southern.
"""

from __future__ import annotations

from dataclasses import dataclass


@dataclass(frozen=True)
class Layer:
    """Where a prey is: a band centred `offset_m` from the surface or the bottom, with its spread and share."""

    reference: str  # "surface" or "bottom"
    offset_m: float
    spread_m: float
    share: float


@dataclass(frozen=True)
class Prey:
    """One food of trout.

    `months` is how much of it is about in each month, 0 to 1; `warmth_c` the water temperatures [°C] it is active in;
    `hours` the local clock hours it is most available; `weather` what it waits for; `paces` the retrieves that look
    like it; `hooks` the smallest and largest hook sizes; `max_bed_m` the deepest bed [m] it lives on, if limited.
    """

    key: str
    name: str
    months: tuple[float, ...]
    warmth_c: tuple[float, float]
    hours: tuple[int, int]
    weather: str
    layers: tuple[Layer, ...]
    places: tuple[str, ...]
    paces: tuple[str, ...]
    hooks: tuple[int, int]
    size_mm: tuple[float, float]
    max_bed_m: float | None = None
    about: str = ""


def _months(text: str) -> tuple[float, ...]:
    """Twelve digits 0 to 9, January first, as shares of the season's best."""
    return tuple(int(digit) / 9 for digit in text)


ALL_DAY = (0, 24)
ANY = (0.0, 30.0)

# fmt: off
CATALOGUE: tuple[Prey, ...] = (
    Prey(
        "chironomid-larva", "Chironomid larva", _months("666555555666"), ANY, ALL_DAY, "any",
        (Layer("bottom", 0.12, 0.15, 1),),
        ("shoal", "drop-off", "weed-edge", "margin", "inlet"),
        ("static", "hand-twist"), (12, 8), (8, 22), 7.5,
        "in and just above the mud; the fall-back when nothing hatches",
    ),
    Prey(
        "chironomid-pupa", "Chironomid pupa", _months("112799877421"), (7.0, 18.0), (8, 22), "any",
        (Layer("bottom", 0.45, 0.35, 0.6), Layer("bottom", 1.5, 1.2, 0.2), Layer("surface", 0.15, 0.25, 0.2)),
        ("shoal", "drop-off", "weed-edge", "inlet", "point"),
        ("static", "hand-twist"), (18, 10), (4, 16), None,
        "gathers a foot or two off the bottom, rises straight up, pauses under the film",
    ),
    Prey(
        "chironomid-adult", "Chironomid emerger and adult", _months("123699887531"), (7.0, 20.0), (9, 22), "calm",
        (Layer("surface", 0.03, 0.08, 1),),
        ("margin", "shoal", "weed-edge", "inlet", "open-water"),
        ("static",), (18, 12), (4, 12), None,
        "in the film, best in a light ripple or calm lane",
    ),
    Prey(
        "scud", "Scud", _months("779976557998"), ANY, ALL_DAY, "any",
        (Layer("bottom", 0.2, 0.25, 1),),
        ("weed-edge", "shoal", "margin"),
        ("hand-twist", "strip-pause"), (16, 10), (3, 19), 5.0,
        "in weed and along the bottom of the shoal; the staple in early spring and late autumn",
    ),
    Prey(
        "leech", "Leech", _months("567765445776"), ANY, (18, 9), "dull",
        (Layer("bottom", 0.35, 0.4, 1),),
        ("weed-edge", "drop-off", "shoal", "margin"),
        ("strip-pause", "hand-twist", "static"), (10, 6), (20, 70), None,
        "along the bottom and weed edge, best early, late and in low light",
    ),
    Prey(
        "damsel-nymph", "Damselfly nymph", _months("000037985200"), (12.0, 20.0), (9, 18), "any",
        (Layer("surface", 1, 0.7, 0.9), Layer("bottom", 0.3, 0.3, 0.1)),
        ("weed-edge", "margin", "shoal"),
        ("strip-pause", "hand-twist"), (12, 10), (12, 28), 5.0,
        "swims to the stems in the upper metre or two",
    ),
    Prey(
        "damsel-adult", "Damselfly adult", _months("000005998300"), (15.0, 24.0), (11, 18), "breezy",
        (Layer("surface", 0.02, 0.08, 1),),
        ("weed-edge", "margin"),
        ("static", "strip-pause"), (12, 10), (25, 40), None,
        "blown onto the water by the reeds on warm, breezy afternoons",
    ),
    Prey(
        "dragonfly-nymph", "Dragonfly nymph", _months("334467633333"), ANY, ALL_DAY, "any",
        (Layer("bottom", 0.2, 0.25, 1),),
        ("weed-edge", "shoal", "margin"),
        ("hand-twist", "strip-pause"), (8, 6), (20, 45), 4.0,
        "creeps along the bottom and weed, short jets when it moves",
    ),
    Prey(
        "mayfly", "Mayfly nymph and dun", _months("000389777510"), (9.0, 19.0), (10, 16), "any",
        (Layer("bottom", 0.3, 0.4, 0.5), Layer("surface", 0.1, 0.25, 0.5)),
        ("shoal", "weed-edge", "margin", "point"),
        ("hand-twist", "strip-pause", "static"), (16, 12), (6, 14), 4.0,
        "darts over the shoal and rises to the film around midday",
    ),
    Prey(
        "caddis", "Caddis pupa and adult", _months("000036999620"), (11.0, 21.0), (17, 24), "any",
        (Layer("surface", 0.05, 0.15, 0.6), Layer("surface", 0.8, 0.6, 0.4)),
        ("shoal", "weed-edge", "margin", "point"),
        ("long-pull", "strip-pause"), (14, 10), (8, 22), None,
        "rises fast in the evening and runs over the surface",
    ),
    Prey(
        "water-boatman", "Water boatman", _months("001674335985"), (6.0, 18.0), (10, 18), "any",
        (Layer("surface", 0.8, 0.6, 1),),
        ("margin", "shoal", "weed-edge"),
        ("strip-pause", "hand-twist"), (14, 10), (5, 13), 3.0,
        "dives and rows in water down to a couple of metres; spring and autumn flights",
    ),
    Prey(
        "daphnia", "Daphnia", _months("000126999620"), (10.0, 24.0), ALL_DAY, "any",
        (Layer("surface", 2.5, 1.2, 1),),
        ("open-water", "drop-off"),
        ("long-pull", "strip-pause", "roly-poly"), (10, 8), (0.5, 3), None,
        "clouds in open water, deeper in sun, higher in dull light",
    ),
    Prey(
        "fry", "Fry", _months("110001577854"), (5.0, 22.0), ALL_DAY, "any",
        (Layer("surface", 0.5, 0.4, 1),),
        ("margin", "weed-edge", "point"),
        ("long-pull", "roly-poly", "strip-pause"), (10, 6), (15, 70), None,
        "shoals in the margins and round structures, upper metre",
    ),
    Prey(
        "terrestrial", "Terrestrials", _months("000256898400"), (10.0, 24.0), (10, 19), "breezy",
        (Layer("surface", 0.02, 0.08, 1),),
        ("margin", "point", "open-water"),
        ("static",), (14, 10), (5, 25), None,
        "blown off the land and out from the upwind shore",
    ),
    Prey(
        "snail", "Snail", _months("111234788732"), (8.0, 22.0), ALL_DAY, "any",
        (Layer("bottom", 0.3, 0.3, 0.7), Layer("surface", 0.05, 0.1, 0.3)),
        ("weed-edge", "shoal", "margin"),
        ("static",), (14, 10), (4, 12), 4.0,
        "on weed; in the film when migrating in summer",
    ),
    Prey(
        "stocked-instinct", "Stocked-fish instinct", _months("999999999999"), ANY, ALL_DAY, "stocked",
        (Layer("surface", 1.2, 0.9, 1),),
        ("margin", "shoal", "point", "drop-off"),
        ("long-pull", "strip-pause", "roly-poly"), (10, 8), (15, 40), None,
        "fresh fish chase anything bright in the upper two or three metres",
    ),
)
# fmt: on

BY_KEY = {prey.key: prey for prey in CATALOGUE}
PREY_KEYS = tuple(BY_KEY)
