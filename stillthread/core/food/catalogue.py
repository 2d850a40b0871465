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
        key="chironomid-larva", name="Chironomid larva",
        stages=(Stage("larva", (Layer("bottom", 0.12, 0.15, 1),), "wriggles in place, drifts when washed out", ("worm",)),),
        months=_months("666555555666"), warmth_c=ANY, hours=ALL_DAY, weather="any",
        places=("shoal", "drop-off", "weed-edge", "margin", "inlet"), habitat="in and just above soft mud",
        paces=("static", "hand-twist", "twitch"), hooks=(12, 8), size_mm=(8, 22), colours=("red", "olive", "maroon"),
        about="in and just above the mud; the fall-back when nothing hatches", max_bed_m=7.5,
        hung_m=(0.1, 0.15),
    ),
    Prey(
        key="chironomid-pupa", name="Chironomid pupa",
        stages=(Stage(
            "pupa",
            (Layer("bottom", 0.45, 0.35, 0.6), Layer("bottom", 1.5, 1.2, 0.2), Layer("surface", 0.15, 0.25, 0.2)),
            "near still, then a slow straight rise with rests", ("slim-pupa",),
        ),),
        months=_months("112799877421"), warmth_c=(7.0, 18.0), hours=(8, 22), weather="any",
        places=("shoal", "drop-off", "weed-edge", "inlet", "point"), habitat="over mud, a foot or two off it before the hatch",
        paces=("static", "hand-twist", "quarter-swing"), hooks=(18, 10), size_mm=(4, 16), colours=("black", "olive", "brown", "red", "grey"),
        about="gathers a foot or two off the bottom, rises straight up, pauses under the film", base_c=4.0,
        hung_m=(0.3, 0.6),
    ),
    Prey(
        key="chironomid-adult", name="Chironomid emerger and adult",
        stages=(Stage("emerger and adult", (Layer("surface", 0.03, 0.08, 1),), "drifts", ("emerger", "dry")),),
        months=_months("123699887531"), warmth_c=(7.0, 20.0), hours=(9, 22), weather="calm",
        places=("margin", "shoal", "weed-edge", "inlet", "open-water"), habitat="the film, calm lanes, the sheltered bank",
        paces=("static",), hooks=(18, 12), size_mm=(4, 12), colours=("black", "olive", "grey", "clear"),
        about="in the film, best in a light ripple or calm lane", base_c=4.0,
    ),
    Prey(
        key="scud", name="Scud",
        stages=(Stage("adult", (Layer("bottom", 0.2, 0.25, 1),), "short darts, sinks between", ("shrimp",)),),
        months=_months("779976557998"), warmth_c=ANY, hours=ALL_DAY, weather="any",
        places=("weed-edge", "shoal", "margin"), habitat="weed, and the bottom of the shoal to about 5 m",
        paces=("hand-twist", "strip-pause", "twist-stop"), hooks=(16, 10), size_mm=(3, 19), colours=("olive", "tan", "orange", "grey"),
        about="in weed and along the bottom of the shoal; the staple in early spring and late autumn; females with eggs show orange",
        max_bed_m=5.0, hung_m=(0.1, 0.3),
    ),
    Prey(
        key="leech", name="Leech",
        stages=(Stage("adult", (Layer("bottom", 0.35, 0.4, 1),), "undulates slowly", ("leech",)),),
        months=_months("567765445776"), warmth_c=ANY, hours=(18, 9), weather="dull",
        places=("weed-edge", "drop-off", "shoal", "margin"), habitat="the bottom and the weed edge",
        paces=("strip-pause", "hand-twist", "static"), hooks=(10, 6), size_mm=(20, 70), colours=("black", "maroon", "olive", "brown"),
        about="along the bottom and weed edge, best early, late and in low light",
    ),
    Prey(
        key="damsel-nymph", name="Damselfly nymph",
        stages=(Stage(
            "nymph", (Layer("surface", 1, 0.7, 0.9), Layer("bottom", 0.3, 0.3, 0.1)),
            "swims with a wiggle, then rests", ("damsel-nymph",),
        ),),
        months=_months("000169742100"), warmth_c=(12.0, 20.0), hours=(9, 18), weather="any",
        places=("weed-edge", "margin", "shoal"), habitat="weed; swims to stems and shore",
        paces=("strip-pause", "hand-twist", "twist-stop"), hooks=(12, 10), size_mm=(12, 28), colours=("olive", "green", "tan"),
        about="swims to the stems in the upper metre or two", max_bed_m=5.0, base_c=8.0,
    ),
    Prey(
        key="damsel-adult", name="Damselfly adult",
        stages=(Stage("adult", (Layer("surface", 0.02, 0.08, 1),), "blown onto the water, flutters", ("damsel-adult",)),),
        months=_months("000028996200"), warmth_c=(15.0, 24.0), hours=(11, 18), weather="breezy",
        places=("weed-edge", "margin"), habitat="the surface by reeds",
        paces=("static", "strip-pause"), hooks=(12, 10), size_mm=(25, 40), colours=("blue",),
        about="blown onto the water by the reeds on warm, breezy afternoons", base_c=8.0,
    ),
    Prey(
        key="dragonfly-nymph", name="Dragonfly nymph",
        stages=(Stage("nymph", (Layer("bottom", 0.2, 0.25, 1),), "creeps, with short jets", ("dragon-nymph",)),),
        months=_months("334467633333"), warmth_c=ANY, hours=ALL_DAY, weather="any",
        places=("weed-edge", "shoal", "margin"), habitat="the bottom and weed, 1 to 4 m down; walks ashore in early summer",
        paces=("hand-twist", "strip-pause", "twitch"), hooks=(8, 6), size_mm=(20, 45), colours=("olive", "brown"),
        about="creeps along the bottom and weed, short jets when it moves", max_bed_m=4.0,
    ),
    Prey(
        key="mayfly", name="Mayfly nymph and dun",
        stages=(
            Stage("nymph", (Layer("bottom", 0.3, 0.4, 0.5),), "darts and rests, then rises on a slant", ("nymph",)),
            Stage("dun", (Layer("surface", 0.1, 0.25, 0.5),), "drifts in the film", ("emerger", "dry")),
        ),
        months=_months("000389777510"), warmth_c=(9.0, 19.0), hours=(10, 16), weather="any",
        places=("shoal", "weed-edge", "margin", "point"), habitat="the shoal, 1 to 3 m; the film at midday",
        paces=("hand-twist", "strip-pause", "static", "twist-stop"), hooks=(16, 12), size_mm=(6, 14), colours=("olive", "brown", "grey"),
        about="darts over the shoal and rises to the film around midday", max_bed_m=4.0, base_c=6.0,
    ),
    Prey(
        key="caddis", name="Caddis pupa and adult",
        stages=(
            Stage("adult", (Layer("surface", 0.05, 0.15, 0.6),), "runs over the surface", ("caddis-dry",)),
            Stage("pupa", (Layer("surface", 0.8, 0.6, 0.4),), "rises fast", ("caddis-pupa",)),
        ),
        months=_months("000036999620"), warmth_c=(11.0, 21.0), hours=(17, 24), weather="any",
        places=("shoal", "weed-edge", "margin", "point"), habitat="from the shoal to the film, in the evening",
        paces=("long-pull", "strip-pause", "lift-drop"), hooks=(14, 10), size_mm=(8, 22), colours=("brown", "tan", "olive", "green"),
        about="rises fast in the evening and runs over the surface", base_c=7.0,
    ),
    Prey(
        key="water-boatman", name="Water boatman",
        stages=(Stage("adult", (Layer("surface", 0.8, 0.6, 1),), "dives and rows", ("boatman",)),),
        months=_months("001674335985"), warmth_c=(6.0, 18.0), hours=(10, 18), weather="any",
        places=("margin", "shoal", "weed-edge"), habitat="the shallows, down to 2 m; flights in spring and autumn",
        paces=("strip-pause", "hand-twist", "lift-drop"), hooks=(14, 10), size_mm=(5, 13), colours=("brown", "olive", "silver"),
        about="dives and rows in water down to a couple of metres; spring and autumn flights", max_bed_m=3.0,
    ),
    Prey(
        key="daphnia", name="Daphnia",
        stages=(Stage("clouds", (Layer("light", 0.4, 1.2, 1),), "drifts", ("attractor",)),),
        months=_months("000126999620"), warmth_c=(10.0, 24.0), hours=ALL_DAY, weather="any",
        places=("open-water", "drop-off"), habitat="open water, in clouds",
        paces=("long-pull", "strip-pause", "roly-poly"), hooks=(10, 8), size_mm=(0.5, 3), colours=("orange", "green", "clear"),
        about="clouds in open water, deeper in sun, higher in dull light; answered with bright flies at the cloud's depth",
        away=0.1,
    ),
    Prey(
        key="fry", name="Fry",
        stages=(Stage("fry", (Layer("surface", 0.5, 0.4, 1),), "shoals, scatters when hunted", ("fry",)),),
        months=_months("110001689963"), warmth_c=(5.0, 22.0), hours=ALL_DAY, weather="any",
        places=("margin", "weed-edge", "point"), habitat="margins, weed edges, round structures; upper metre",
        paces=("long-pull", "roly-poly", "strip-pause", "sink-pull"), hooks=(10, 6), size_mm=(15, 70), colours=("silver", "pale", "white"),
        about="shoals in the margins and round structures, upper metre; pin fry from midsummer",
    ),
    Prey(
        key="terrestrial", name="Terrestrials",
        stages=(Stage("adult", (Layer("surface", 0.02, 0.08, 1),), "struggles in the film", ("terrestrial",)),),
        months=_months("000256898400"), warmth_c=(10.0, 24.0), hours=(10, 19), weather="breezy",
        places=("margin", "point", "open-water"), habitat="off the upwind shore, then blown out",
        paces=("static",), hooks=(14, 10), size_mm=(5, 25), colours=("black", "brown", "tan", "red"),
        about="blown off the land and out from the upwind shore: beetles, ants, hoppers, crane flies",
    ),
    Prey(
        key="snail", name="Snail",
        stages=(
            Stage("on weed", (Layer("bottom", 0.3, 0.3, 0.7),), "creeps, hangs, drifts", ("snail",)),
            Stage("migrating", (Layer("surface", 0.05, 0.1, 0.3),), "hangs under the film and drifts", ("snail",)),
        ),
        months=_months("111234789732"), warmth_c=(8.0, 22.0), hours=ALL_DAY, weather="any",
        places=("weed-edge", "shoal", "margin"), habitat="weed; the film when they migrate",
        paces=("static",), hooks=(14, 10), size_mm=(4, 12), colours=("black", "brown"),
        about="on weed; in the film when migrating in summer", max_bed_m=4.0,
    ),
    Prey(
        key="stocked-instinct", name="Stocked-fish instinct",
        stages=(Stage("any", (Layer("surface", 1.2, 0.9, 1),), "anything that moves", ("attractor",)),),
        months=_months("999999999999"), warmth_c=ANY, hours=ALL_DAY, weather="stocked",
        places=("margin", "shoal", "point", "drop-off"), habitat="banks and the upper 2 to 3 m, soon after stocking",
        paces=("long-pull", "strip-pause", "roly-poly", "static"), hooks=(10, 8), size_mm=(15, 40), colours=("orange", "chartreuse", "white"),
        about="fresh fish chase anything bright in the upper two or three metres",
    ),
)
# fmt: on

BY_KEY = {prey.key: prey for prey in CATALOGUE}
PREY_KEYS = tuple(BY_KEY)
