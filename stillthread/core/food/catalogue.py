"""The prey catalogue: every food of trout in still water, with its season, place, movement, size, colour and imitations.

Everything here is common practice of the trade (no published source), in our own words; the months are our reading of
it. Months are for the northern hemisphere; `season.py` turns them round for the southern.
"""

from __future__ import annotations

from stillthread.core.food.prey import Layer, Prey, Stage


def _months(text: str) -> tuple[float, ...]:
    """Twelve digits 0 to 9, January first, as shares of the season's best."""
    return tuple(int(digit) / 9 for digit in text)


ALL_DAY = (0, 24)
ANY = (0.0, 30.0)

# fmt: off
CATALOGUE: tuple[Prey, ...] = (
    Prey(
        "chironomid-larva", "Chironomid larva",
        (Stage("larva", (Layer("bottom", 0.12, 0.15, 1),), "wriggles in place, drifts when washed out", ("worm",)),),
        _months("666555555666"), ANY, ALL_DAY, "any",
        ("shoal", "drop-off", "weed-edge", "margin", "inlet"), "in and just above soft mud",
        ("static", "hand-twist"), (12, 8), (8, 22), ("red", "olive", "maroon"),
        "in and just above the mud; the fall-back when nothing hatches", max_bed_m=7.5,
    ),
    Prey(
        "chironomid-pupa", "Chironomid pupa",
        (Stage(
            "pupa",
            (Layer("bottom", 0.45, 0.35, 0.6), Layer("bottom", 1.5, 1.2, 0.2), Layer("surface", 0.15, 0.25, 0.2)),
            "near still, then a slow straight rise with rests", ("slim-pupa",),
        ),),
        _months("112799877421"), (7.0, 18.0), (8, 22), "any",
        ("shoal", "drop-off", "weed-edge", "inlet", "point"), "over mud, a foot or two off it before the hatch",
        ("static", "hand-twist"), (18, 10), (4, 16), ("black", "olive", "brown", "red", "grey"),
        "gathers a foot or two off the bottom, rises straight up, pauses under the film", base_c=4.0,
    ),
    Prey(
        "chironomid-adult", "Chironomid emerger and adult",
        (Stage("emerger and adult", (Layer("surface", 0.03, 0.08, 1),), "drifts", ("emerger", "dry")),),
        _months("123699887531"), (7.0, 20.0), (9, 22), "calm",
        ("margin", "shoal", "weed-edge", "inlet", "open-water"), "the film, calm lanes, the sheltered bank",
        ("static",), (18, 12), (4, 12), ("black", "olive", "grey", "clear"),
        "in the film, best in a light ripple or calm lane", base_c=4.0,
    ),
    Prey(
        "scud", "Scud",
        (Stage("adult", (Layer("bottom", 0.2, 0.25, 1),), "short darts, sinks between", ("shrimp",)),),
        _months("779976557998"), ANY, ALL_DAY, "any",
        ("weed-edge", "shoal", "margin"), "weed, and the bottom of the shoal to about 5 m",
        ("hand-twist", "strip-pause"), (16, 10), (3, 19), ("olive", "tan", "orange", "grey"),
        "in weed and along the bottom of the shoal; the staple in early spring and late autumn; females with eggs show orange",
        max_bed_m=5.0,
    ),
    Prey(
        "leech", "Leech",
        (Stage("adult", (Layer("bottom", 0.35, 0.4, 1),), "undulates slowly", ("leech",)),),
        _months("567765445776"), ANY, (18, 9), "dull",
        ("weed-edge", "drop-off", "shoal", "margin"), "the bottom and the weed edge",
        ("strip-pause", "hand-twist", "static"), (10, 6), (20, 70), ("black", "maroon", "olive", "brown"),
        "along the bottom and weed edge, best early, late and in low light",
    ),
    Prey(
        "damsel-nymph", "Damselfly nymph",
        (Stage(
            "nymph", (Layer("surface", 1, 0.7, 0.9), Layer("bottom", 0.3, 0.3, 0.1)),
            "swims with a wiggle, then rests", ("damsel-nymph",),
        ),),
        _months("000169742100"), (12.0, 20.0), (9, 18), "any",
        ("weed-edge", "margin", "shoal"), "weed; swims to stems and shore",
        ("strip-pause", "hand-twist"), (12, 10), (12, 28), ("olive", "green", "tan"),
        "swims to the stems in the upper metre or two", max_bed_m=5.0, base_c=8.0,
    ),
    Prey(
        "damsel-adult", "Damselfly adult",
        (Stage("adult", (Layer("surface", 0.02, 0.08, 1),), "blown onto the water, flutters", ("damsel-adult",)),),
        _months("000028996200"), (15.0, 24.0), (11, 18), "breezy",
        ("weed-edge", "margin"), "the surface by reeds",
        ("static", "strip-pause"), (12, 10), (25, 40), ("blue",),
        "blown onto the water by the reeds on warm, breezy afternoons", base_c=8.0,
    ),
    Prey(
        "dragonfly-nymph", "Dragonfly nymph",
        (Stage("nymph", (Layer("bottom", 0.2, 0.25, 1),), "creeps, with short jets", ("dragon-nymph",)),),
        _months("334467633333"), ANY, ALL_DAY, "any",
        ("weed-edge", "shoal", "margin"), "the bottom and weed, 1 to 4 m down; walks ashore in early summer",
        ("hand-twist", "strip-pause"), (8, 6), (20, 45), ("olive", "brown"),
        "creeps along the bottom and weed, short jets when it moves", max_bed_m=4.0,
    ),
    Prey(
        "mayfly", "Mayfly nymph and dun",
        (
            Stage("nymph", (Layer("bottom", 0.3, 0.4, 0.5),), "darts and rests, then rises on a slant", ("nymph",)),
            Stage("dun", (Layer("surface", 0.1, 0.25, 0.5),), "drifts in the film", ("emerger", "dry")),
        ),
        _months("000389777510"), (9.0, 19.0), (10, 16), "any",
        ("shoal", "weed-edge", "margin", "point"), "the shoal, 1 to 3 m; the film at midday",
        ("hand-twist", "strip-pause", "static"), (16, 12), (6, 14), ("olive", "brown", "grey"),
        "darts over the shoal and rises to the film around midday", max_bed_m=4.0, base_c=6.0,
    ),
    Prey(
        "caddis", "Caddis pupa and adult",
        (
            Stage("adult", (Layer("surface", 0.05, 0.15, 0.6),), "runs over the surface", ("caddis-dry",)),
            Stage("pupa", (Layer("surface", 0.8, 0.6, 0.4),), "rises fast", ("caddis-pupa",)),
        ),
        _months("000036999620"), (11.0, 21.0), (17, 24), "any",
        ("shoal", "weed-edge", "margin", "point"), "from the shoal to the film, in the evening",
        ("long-pull", "strip-pause"), (14, 10), (8, 22), ("brown", "tan", "olive", "green"),
        "rises fast in the evening and runs over the surface", base_c=7.0,
    ),
    Prey(
        "water-boatman", "Water boatman",
        (Stage("adult", (Layer("surface", 0.8, 0.6, 1),), "dives and rows", ("boatman",)),),
        _months("001674335985"), (6.0, 18.0), (10, 18), "any",
        ("margin", "shoal", "weed-edge"), "the shallows, down to 2 m; flights in spring and autumn",
        ("strip-pause", "hand-twist"), (14, 10), (5, 13), ("brown", "olive", "silver"),
        "dives and rows in water down to a couple of metres; spring and autumn flights", max_bed_m=3.0,
    ),
    Prey(
        "daphnia", "Daphnia",
        (Stage("clouds", (Layer("light", 0.4, 1.2, 1),), "drifts", ("attractor",)),),
        _months("000126999620"), (10.0, 24.0), ALL_DAY, "any",
        ("open-water", "drop-off"), "open water, in clouds",
        ("long-pull", "strip-pause", "roly-poly"), (10, 8), (0.5, 3), ("orange", "green", "clear"),
        "clouds in open water, deeper in sun, higher in dull light; answered with bright flies at the cloud's depth",
    ),
    Prey(
        "fry", "Fry",
        (Stage("fry", (Layer("surface", 0.5, 0.4, 1),), "shoals, scatters when hunted", ("fry",)),),
        _months("110001689963"), (5.0, 22.0), ALL_DAY, "any",
        ("margin", "weed-edge", "point"), "margins, weed edges, round structures; upper metre",
        ("long-pull", "roly-poly", "strip-pause"), (10, 6), (15, 70), ("silver", "pale", "white"),
        "shoals in the margins and round structures, upper metre; pin fry from midsummer",
    ),
    Prey(
        "terrestrial", "Terrestrials",
        (Stage("adult", (Layer("surface", 0.02, 0.08, 1),), "struggles in the film", ("terrestrial",)),),
        _months("000256898400"), (10.0, 24.0), (10, 19), "breezy",
        ("margin", "point", "open-water"), "off the upwind shore, then blown out",
        ("static",), (14, 10), (5, 25), ("black", "brown", "tan", "red"),
        "blown off the land and out from the upwind shore: beetles, ants, hoppers, crane flies",
    ),
    Prey(
        "snail", "Snail",
        (
            Stage("on weed", (Layer("bottom", 0.3, 0.3, 0.7),), "creeps, hangs, drifts", ("snail",)),
            Stage("migrating", (Layer("surface", 0.05, 0.1, 0.3),), "hangs under the film and drifts", ("snail",)),
        ),
        _months("111234789732"), (8.0, 22.0), ALL_DAY, "any",
        ("weed-edge", "shoal", "margin"), "weed; the film when they migrate",
        ("static",), (14, 10), (4, 12), ("black", "brown"),
        "on weed; in the film when migrating in summer", max_bed_m=4.0,
    ),
    Prey(
        "stocked-instinct", "Stocked-fish instinct",
        (Stage("any", (Layer("surface", 1.2, 0.9, 1),), "anything that moves", ("attractor",)),),
        _months("999999999999"), ANY, ALL_DAY, "stocked",
        ("margin", "shoal", "point", "drop-off"), "banks and the upper 2 to 3 m, soon after stocking",
        ("long-pull", "strip-pause", "roly-poly", "static"), (10, 8), (15, 40), ("orange", "chartreuse", "white"),
        "fresh fish chase anything bright in the upper two or three metres",
    ),
)
# fmt: on

BY_KEY = {prey.key: prey for prey in CATALOGUE}
PREY_KEYS = tuple(BY_KEY)
