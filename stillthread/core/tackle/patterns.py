"""The starter box: generic patterns for every food, each with its build, recipe and tying steps. All in our own words."""

from __future__ import annotations

from dataclasses import dataclass

from stillthread.core.tackle.fly_build import FlyBuild, Tone
from stillthread.core.tackle.recipe import PART_BY_NAME, Material, Recipe, family_steps


@dataclass(frozen=True)
class Pattern:
    """A pattern: family, what it stands for, hooks, tone, build at its middle hook, recipe; `surface` if fished in the film."""

    key: str
    name: str
    family: str
    prey: tuple[str, ...]
    hooks: tuple[int, ...]
    tone: Tone
    build: FlyBuild
    recipe: Recipe
    surface: bool = False


def _materials(hook: str, thread: str, parts: str) -> tuple[Material, ...]:
    """Materials from lines of ``part: colour / what / size``, parted by semicolons; colour and size may be left out."""
    found = [Material("hook", hook), Material("thread", "thread", thread)]
    for piece in parts.split(";"):
        part, _, rest = piece.partition(":")
        words = [word.strip() for word in rest.split("/")]
        colour, what, size = [*words, "", ""][:3] if len(words) > 1 else ("", words[0], "")
        known = PART_BY_NAME[part.strip()]
        found.append(Material(known, what, colour, size))
    return tuple(found)


def _pattern(
    key: str,
    name: str,
    family: str,
    prey: str,
    hooks: tuple[int, ...],
    tone: Tone,
    build: FlyBuild,
    hook: str,
    thread: str,
    parts: str,
    surface: bool = False,
) -> Pattern:
    materials = _materials(hook, thread, parts)
    steps = family_steps(family, materials, build.bead is not None, build.turns > 0)
    return Pattern(key, name, family, tuple(prey.split()), hooks, tone, build, Recipe(materials, steps), surface)


GRUB, NYMPH, DRY, LONG, JIG = (
    "curved grub hook",
    "standard nymph hook",
    "light-wire dry hook",
    "long-shank hook",
    "jig hook",
)

# fmt: off
PATTERNS: tuple[Pattern, ...] = (
    _pattern("slim-pupa-black", "Slim ribbed pupa, black", "slim-pupa", "chironomid-pupa", (12, 14), "dark",
        FlyBuild(hook=12, bulk="slim"), GRUB, "black",
        "rib: silver / fine wire; body: black / thread; gills: white / floss; thorax: peacock herl"),
    _pattern("slim-pupa-olive", "Slim ribbed pupa, olive", "slim-pupa", "chironomid-pupa", (12, 14), "natural",
        FlyBuild(hook=12, bulk="slim"), GRUB, "olive",
        "rib: gold / fine wire; body: olive / thread; gills: white / floss; thorax: olive / dubbing"),
    _pattern("bead-pupa-black", "Beaded pupa, black", "slim-pupa", "chironomid-pupa", (10, 12), "dark",
        FlyBuild(hook=12, bead="tungsten", bead_mm=2.4, bulk="slim"), GRUB, "black",
        "bead: white / tungsten bead / 2.4 mm; rib: red / fine wire; body: black / floss; gills: white / yarn; thorax: peacock herl"),
    _pattern("bead-pupa-red", "Beaded pupa, red rib", "slim-pupa", "chironomid-pupa chironomid-larva", (10, 12), "natural",
        FlyBuild(hook=12, bead="brass", bead_mm=2.8, bulk="slim"), GRUB, "brown",
        "bead: white / brass bead / 2.8 mm; rib: red / wire; body: brown / floss; gills: white / floss; thorax: brown / dubbing"),
    _pattern("glass-pupa-grey", "Glass-bead pupa, grey", "slim-pupa", "chironomid-pupa", (14, 16), "pale",
        FlyBuild(hook=14, bead="glass", bead_mm=2.0, bulk="slim"), GRUB, "grey",
        "bead: clear / glass bead / 2 mm; rib: silver / fine wire; body: grey / thread; gills: white / floss; thorax: grey / dubbing"),
    _pattern("red-worm", "Red worm", "worm", "chironomid-larva", (8, 10), "natural",
        FlyBuild(hook=10, bulk="slim"), LONG, "red", "rib: red / fine wire; body: red / stretch floss; head: red / thread head"),
    _pattern("olive-worm", "Olive worm, beaded", "worm", "chironomid-larva", (10, 12), "natural",
        FlyBuild(hook=10, bead="brass", bead_mm=2.4, bulk="slim"), GRUB, "olive",
        "bead: olive / brass bead / 2.4 mm; rib: fine copper wire; body: olive / stretch floss; head: olive / thread head"),
    _pattern("olive-scud", "Olive scud", "shrimp", "scud", (12, 14), "natural",
        FlyBuild(hook=12, bulk="medium"), GRUB, "olive", "rib: clear / monofilament; back: olive / stretch strip; body: olive / dubbing"),
    _pattern("orange-scud", "Scud with orange spot", "shrimp", "scud", (12,), "natural",
        FlyBuild(hook=12, turns=8, turns_wire_mm=0.4, bulk="medium"), GRUB, "tan",
        "weight: lead-free wire / 8 turns; rib: clear / monofilament; back: clear / stretch strip; body: tan and orange / dubbing"),
    _pattern("grey-scud-heavy", "Heavy scud, grey", "shrimp", "scud", (10, 12), "natural",
        FlyBuild(hook=10, wire="heavy", turns=14, turns_wire_mm=0.5, bulk="medium"), GRUB, "grey",
        "weight: lead-free wire / 14 turns; rib: silver / wire; back: grey / stretch strip; body: grey / dubbing"),
    _pattern("black-leech", "Marabou leech, black", "leech", "leech", (8, 10), "dark",
        FlyBuild(hook=10, bulk="bulky"), LONG, "black", "tail: black / marabou; body: black / dubbing"),
    _pattern("maroon-leech", "Balanced leech, maroon", "leech", "leech", (8,), "dark",
        FlyBuild(hook=8, bead="tungsten", bead_mm=3.2, bulk="bulky"), JIG, "maroon",
        "bead: tungsten bead on a pin / 3.2 mm; tail: maroon / marabou; body: maroon / dubbing"),
    _pattern("olive-damsel", "Olive damsel nymph", "damsel-nymph", "damsel-nymph dragonfly-nymph", (10, 12), "natural",
        FlyBuild(hook=10, bulk="medium"), LONG, "olive",
        "tail: olive / marabou; rib: gold / fine wire; body: olive / marabou; thorax: olive / dubbing; back: olive / stretch strip; legs: olive / partridge"),
    _pattern("bead-damsel", "Beaded damsel nymph", "damsel-nymph", "damsel-nymph", (10, 12), "natural",
        FlyBuild(hook=10, bead="brass", bead_mm=3.2, bulk="medium"), LONG, "olive",
        "bead: gold / brass bead / 3.2 mm; tail: olive / marabou; rib: gold / fine wire; body: olive / marabou; thorax: olive / dubbing; back: olive / stretch strip; legs: olive / partridge"),
    _pattern("foam-eyed-nymph", "Foam-eyed nymph", "dragon-nymph", "dragonfly-nymph stocked-instinct", (10,), "natural",
        FlyBuild(hook=10, foam_mm3=190, bulk="medium"), LONG, "olive",
        "eyes: olive / foam cylinder / 4 mm; tail: olive / marabou; body: olive / dubbing; legs: olive / rubber"),
    _pattern("big-dragon", "Broad dragonfly nymph, brown", "dragon-nymph", "dragonfly-nymph", (6, 8), "natural",
        FlyBuild(hook=8, foam_mm3=350, bulk="bulky"), LONG, "brown",
        "eyes: brown / foam cylinder / 5 mm; tail: brown / marabou; body: brown / dubbing; legs: brown / rubber"),
    _pattern("pheasant-nymph", "Pheasant-tail nymph", "nymph", "mayfly chironomid-pupa water-boatman", (12, 14), "natural",
        FlyBuild(hook=12, bulk="slim"), NYMPH, "brown",
        "tail: pheasant tail fibres; rib: copper wire; body: pheasant tail fibres; back: pheasant tail fibres; thorax: brown / dubbing"),
    _pattern("tungsten-nymph", "Tungsten nymph, brown", "nymph", "mayfly scud", (12, 14), "natural",
        FlyBuild(hook=12, bead="tungsten", bead_mm=2.8, bulk="slim"), JIG, "brown",
        "bead: copper / tungsten bead / 2.8 mm; tail: brown / hackle fibres; rib: copper wire; body: brown / dubbing; back: brown / stretch strip; thorax: brown / dubbing"),
    _pattern("caddis-pupa", "Amber caddis pupa", "caddis-pupa", "caddis", (10, 12), "natural",
        FlyBuild(hook=10, bulk="medium"), GRUB, "brown",
        "rib: gold / wire; body: amber / dubbing; wing: grey / feather slips; hackle: brown / partridge"),
    _pattern("bead-caddis-green", "Beaded caddis pupa, green", "caddis-pupa", "caddis", (10, 12), "natural",
        FlyBuild(hook=10, bead="brass", bead_mm=3.2, bulk="medium"), GRUB, "brown",
        "bead: gold / brass bead / 3.2 mm; rib: gold / wire; body: green / dubbing; wing: brown / feather slips; hackle: brown / partridge"),
    _pattern("rowing-boatman", "Water boatman", "boatman", "water-boatman", (12,), "natural",
        FlyBuild(hook=12, turns=5, turns_wire_mm=0.4, bulk="medium"), NYMPH, "brown",
        "weight: lead-free wire / 5 turns; back: brown / stretch strip; body: pale / floss; legs: brown / rubber"),
    _pattern("buoyant-boatman", "Buoyant boatman", "boatman", "water-boatman", (10, 12), "natural",
        FlyBuild(hook=12, foam_mm3=75, bulk="medium"), NYMPH, "brown",
        "back: brown / foam strip / 3 mm; body: silver / tinsel; legs: brown / rubber"),
    _pattern("dark-snail", "Dark snail", "snail", "snail", (12,), "dark",
        FlyBuild(hook=12, bulk="medium"), NYMPH, "black", "body: black / chenille; hackle: black / hen"),
    _pattern("floating-snail", "Cork-light snail", "snail", "snail", (12, 14), "dark",
        FlyBuild(hook=12, wire="light", foam_mm3=70, bulk="slim"), DRY, "black", "body: black / foam strip / 2 mm; hackle: brown / hen", True),
    _pattern("pale-fry", "Pale fry", "fry", "fry", (8,), "pale",
        FlyBuild(hook=8, bulk="bulky"), LONG, "white", "tail: white / marabou; body: pearl / tinsel; wing: white / soft hair; head: painted eyes"),
    _pattern("silver-fry-heavy", "Weighted silver fry", "fry", "fry", (6, 8), "pale",
        FlyBuild(hook=8, bead="tungsten", bead_mm=4.0, bulk="medium"), LONG, "grey",
        "bead: silver / tungsten bead / 4 mm; tail: grey / marabou; body: silver / tinsel; wing: grey / soft hair; head: painted eyes"),
    _pattern("floating-fry", "Floating fry", "fry", "fry", (8, 10), "pale",
        FlyBuild(hook=8, wire="light", foam_mm3=420, bulk="medium"), LONG, "white",
        "tail: white / marabou; body: white / foam strip / 4 mm; wing: pearl / flash; head: painted eyes"),
    _pattern("orange-attractor", "Orange attractor", "attractor", "stocked-instinct daphnia", (10,), "bright",
        FlyBuild(hook=10, bulk="bulky"), LONG, "orange", "tail: orange / marabou; rib: gold / wire; body: orange / chenille; head: orange / thread head"),
    _pattern("chartreuse-attractor", "Chartreuse attractor, beaded", "attractor", "stocked-instinct daphnia", (10,), "bright",
        FlyBuild(hook=10, bead="brass", bead_mm=3.2, bulk="bulky"), LONG, "chartreuse",
        "bead: gold / brass bead / 3.2 mm; tail: chartreuse / marabou; rib: silver / wire; body: chartreuse / chenille; head: chartreuse / thread head"),
    _pattern("green-black", "Black-and-green tail", "attractor", "stocked-instinct leech", (10,), "dark",
        FlyBuild(hook=10, bulk="bulky"), LONG, "black", "tail: green / yarn; rib: silver / wire; body: black / chenille; wing: black / marabou; head: black / thread head"),
    _pattern("white-attractor", "White attractor", "attractor", "stocked-instinct fry daphnia", (10,), "pale",
        FlyBuild(hook=10, bulk="bulky"), LONG, "white", "tail: white / marabou; rib: silver / wire; body: white / chenille; head: white / thread head"),
    _pattern("film-emerger", "Film emerger, grey", "emerger", "chironomid-adult mayfly", (14, 16), "natural",
        FlyBuild(hook=14, wire="light", foam_mm3=26, bulk="slim"), DRY, "grey",
        "tail: clear / yarn; body: grey / dubbing; wing: foam post and soft plume; thorax: grey / dubbing", True),
    _pattern("olive-dun", "Small olive dry", "dry", "mayfly chironomid-adult", (14, 16), "natural",
        FlyBuild(hook=14, wire="light", foam_mm3=24, bulk="slim"), DRY, "olive",
        "tail: grey / hackle fibres; body: olive / dubbing; hackle: grey / cock", True),
    _pattern("deer-hair-caddis", "Deer-hair caddis", "caddis-dry", "caddis terrestrial", (10, 12), "natural",
        FlyBuild(hook=10, wire="light", foam_mm3=110, bulk="medium"), DRY, "brown",
        "body: brown / dubbing; wing: natural / deer hair; hackle: brown / cock", True),
    _pattern("foam-beetle", "Foam beetle", "terrestrial", "terrestrial", (12,), "dark",
        FlyBuild(hook=12, wire="light", foam_mm3=80, bulk="slim"), DRY, "black",
        "back: black / foam strip / 3 mm; body: peacock herl; legs: black / rubber", True),
    _pattern("tan-hopper", "Foam hopper, tan", "terrestrial", "terrestrial", (10,), "pale",
        FlyBuild(hook=10, wire="light", foam_mm3=150, bulk="medium"), DRY, "tan",
        "back: tan / foam strip / 4 mm; body: tan / dubbing; legs: brown / rubber", True),
    _pattern("blue-damsel", "Blue damsel adult", "damsel-adult", "damsel-adult", (10,), "bright",
        FlyBuild(hook=10, wire="light", foam_mm3=110, bulk="slim"), DRY, "blue",
        "body: blue / foam cylinder / 3 mm; hackle: blue / cock", True),
)
# fmt: on

PATTERN_BY_KEY = {pattern.key: pattern for pattern in PATTERNS}
