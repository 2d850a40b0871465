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
    return Pattern(
        key=key,
        name=name,
        family=family,
        prey=tuple(prey.split()),
        hooks=hooks,
        tone=tone,
        build=build,
        recipe=Recipe(materials, steps),
        surface=surface,
    )


GRUB, NYMPH, DRY, LONG, JIG = (
    "curved grub hook",
    "standard nymph hook",
    "light-wire dry hook",
    "long-shank hook",
    "jig hook",
)

# fmt: off
PATTERNS: tuple[Pattern, ...] = (
    _pattern(key="slim-pupa-black", name="Slim ribbed pupa, black", family="slim-pupa", prey="chironomid-pupa", hooks=(12, 14), tone="dark",
        build=FlyBuild(hook=12, bulk="slim"), hook=GRUB, thread="black",
        parts="rib: silver / fine wire; body: black / thread; gills: white / floss; thorax: peacock herl"),
    _pattern(key="slim-pupa-olive", name="Slim ribbed pupa, olive", family="slim-pupa", prey="chironomid-pupa", hooks=(12, 14), tone="natural",
        build=FlyBuild(hook=12, bulk="slim"), hook=GRUB, thread="olive",
        parts="rib: gold / fine wire; body: olive / thread; gills: white / floss; thorax: olive / dubbing"),
    _pattern(key="bead-pupa-black", name="Beaded pupa, black", family="slim-pupa", prey="chironomid-pupa", hooks=(10, 12), tone="dark",
        build=FlyBuild(hook=12, bead="tungsten", bead_mm=2.4, bulk="slim"), hook=GRUB, thread="black",
        parts="bead: white / tungsten bead / 2.4 mm; rib: red / fine wire; body: black / floss; gills: white / yarn; thorax: peacock herl"),
    _pattern(key="bead-pupa-red", name="Beaded pupa, red rib", family="slim-pupa", prey="chironomid-pupa chironomid-larva", hooks=(10, 12), tone="natural",
        build=FlyBuild(hook=12, bead="brass", bead_mm=2.8, bulk="slim"), hook=GRUB, thread="brown",
        parts="bead: white / brass bead / 2.8 mm; rib: red / wire; body: brown / floss; gills: white / floss; thorax: brown / dubbing"),
    _pattern(key="glass-pupa-grey", name="Glass-bead pupa, grey", family="slim-pupa", prey="chironomid-pupa", hooks=(14, 16), tone="pale",
        build=FlyBuild(hook=14, bead="glass", bead_mm=2.0, bulk="slim"), hook=GRUB, thread="grey",
        parts="bead: clear / glass bead / 2 mm; rib: silver / fine wire; body: grey / thread; gills: white / floss; thorax: grey / dubbing"),
    _pattern(key="red-worm", name="Red worm", family="worm", prey="chironomid-larva", hooks=(8, 10), tone="natural",
        build=FlyBuild(hook=10, bulk="slim"), hook=LONG, thread="red", parts="rib: red / fine wire; body: red / stretch floss; head: red / thread head"),
    _pattern(key="olive-worm", name="Olive worm, beaded", family="worm", prey="chironomid-larva", hooks=(10, 12), tone="natural",
        build=FlyBuild(hook=10, bead="brass", bead_mm=2.4, bulk="slim"), hook=GRUB, thread="olive",
        parts="bead: olive / brass bead / 2.4 mm; rib: fine copper wire; body: olive / stretch floss; head: olive / thread head"),
    _pattern(key="olive-scud", name="Olive scud", family="shrimp", prey="scud", hooks=(12, 14), tone="natural",
        build=FlyBuild(hook=12, bulk="medium"), hook=GRUB, thread="olive", parts="rib: clear / monofilament; back: olive / stretch strip; body: olive / dubbing"),
    _pattern(key="orange-scud", name="Scud with orange spot", family="shrimp", prey="scud", hooks=(12,), tone="natural",
        build=FlyBuild(hook=12, turns=8, turns_wire_mm=0.4, bulk="medium"), hook=GRUB, thread="tan",
        parts="weight: lead-free wire / 8 turns; rib: clear / monofilament; back: clear / stretch strip; body: tan and orange / dubbing"),
    _pattern(key="grey-scud-heavy", name="Heavy scud, grey", family="shrimp", prey="scud", hooks=(10, 12), tone="natural",
        build=FlyBuild(hook=10, wire="heavy", turns=14, turns_wire_mm=0.5, bulk="medium"), hook=GRUB, thread="grey",
        parts="weight: lead-free wire / 14 turns; rib: silver / wire; back: grey / stretch strip; body: grey / dubbing"),
    _pattern(key="black-leech", name="Marabou leech, black", family="leech", prey="leech", hooks=(8, 10), tone="dark",
        build=FlyBuild(hook=10, bulk="bulky"), hook=LONG, thread="black", parts="tail: black / marabou; body: black / dubbing"),
    _pattern(key="maroon-leech", name="Balanced leech, maroon", family="leech", prey="leech", hooks=(8,), tone="dark",
        build=FlyBuild(hook=8, bead="tungsten", bead_mm=3.2, bulk="bulky"), hook=JIG, thread="maroon",
        parts="bead: tungsten bead on a pin / 3.2 mm; tail: maroon / marabou; body: maroon / dubbing"),
    _pattern(key="olive-damsel", name="Olive damsel nymph", family="damsel-nymph", prey="damsel-nymph dragonfly-nymph", hooks=(10, 12), tone="natural",
        build=FlyBuild(hook=10, bulk="medium"), hook=LONG, thread="olive",
        parts="tail: olive / marabou; rib: gold / fine wire; body: olive / marabou; thorax: olive / dubbing; back: olive / stretch strip; legs: olive / partridge"),
    _pattern(key="bead-damsel", name="Beaded damsel nymph", family="damsel-nymph", prey="damsel-nymph", hooks=(10, 12), tone="natural",
        build=FlyBuild(hook=10, bead="brass", bead_mm=3.2, bulk="medium"), hook=LONG, thread="olive",
        parts="bead: gold / brass bead / 3.2 mm; tail: olive / marabou; rib: gold / fine wire; body: olive / marabou; thorax: olive / dubbing; back: olive / stretch strip; legs: olive / partridge"),
    _pattern(key="foam-eyed-nymph", name="Foam-eyed nymph", family="dragon-nymph", prey="dragonfly-nymph stocked-instinct", hooks=(10,), tone="natural",
        build=FlyBuild(hook=10, foam_mm3=190, bulk="medium"), hook=LONG, thread="olive",
        parts="eyes: olive / foam cylinder / 4 mm; tail: olive / marabou; body: olive / dubbing; legs: olive / rubber"),
    _pattern(key="big-dragon", name="Broad dragonfly nymph, brown", family="dragon-nymph", prey="dragonfly-nymph", hooks=(6, 8), tone="natural",
        build=FlyBuild(hook=8, foam_mm3=350, bulk="bulky"), hook=LONG, thread="brown",
        parts="eyes: brown / foam cylinder / 5 mm; tail: brown / marabou; body: brown / dubbing; legs: brown / rubber"),
    _pattern(key="pheasant-nymph", name="Pheasant-tail nymph", family="nymph", prey="mayfly chironomid-pupa water-boatman", hooks=(12, 14), tone="natural",
        build=FlyBuild(hook=12, bulk="slim"), hook=NYMPH, thread="brown",
        parts="tail: pheasant tail fibres; rib: copper wire; body: pheasant tail fibres; back: pheasant tail fibres; thorax: brown / dubbing"),
    _pattern(key="tungsten-nymph", name="Tungsten nymph, brown", family="nymph", prey="mayfly scud", hooks=(12, 14), tone="natural",
        build=FlyBuild(hook=12, bead="tungsten", bead_mm=2.8, bulk="slim"), hook=JIG, thread="brown",
        parts="bead: copper / tungsten bead / 2.8 mm; tail: brown / hackle fibres; rib: copper wire; body: brown / dubbing; back: brown / stretch strip; thorax: brown / dubbing"),
    _pattern(key="caddis-pupa", name="Amber caddis pupa", family="caddis-pupa", prey="caddis", hooks=(10, 12), tone="natural",
        build=FlyBuild(hook=10, bulk="medium"), hook=GRUB, thread="brown",
        parts="rib: gold / wire; body: amber / dubbing; wing: grey / feather slips; hackle: brown / partridge"),
    _pattern(key="bead-caddis-green", name="Beaded caddis pupa, green", family="caddis-pupa", prey="caddis", hooks=(10, 12), tone="natural",
        build=FlyBuild(hook=10, bead="brass", bead_mm=3.2, bulk="medium"), hook=GRUB, thread="brown",
        parts="bead: gold / brass bead / 3.2 mm; rib: gold / wire; body: green / dubbing; wing: brown / feather slips; hackle: brown / partridge"),
    _pattern(key="rowing-boatman", name="Water boatman", family="boatman", prey="water-boatman", hooks=(12,), tone="natural",
        build=FlyBuild(hook=12, turns=5, turns_wire_mm=0.4, bulk="medium"), hook=NYMPH, thread="brown",
        parts="weight: lead-free wire / 5 turns; back: brown / stretch strip; body: pale / floss; legs: brown / rubber"),
    _pattern(key="buoyant-boatman", name="Buoyant boatman", family="boatman", prey="water-boatman", hooks=(10, 12), tone="natural",
        build=FlyBuild(hook=12, foam_mm3=75, bulk="medium"), hook=NYMPH, thread="brown",
        parts="back: brown / foam strip / 3 mm; body: silver / tinsel; legs: brown / rubber"),
    _pattern(key="dark-snail", name="Dark snail", family="snail", prey="snail", hooks=(12,), tone="dark",
        build=FlyBuild(hook=12, bulk="medium"), hook=NYMPH, thread="black", parts="body: black / chenille; hackle: black / hen"),
    _pattern(key="floating-snail", name="Cork-light snail", family="snail", prey="snail", hooks=(12, 14), tone="dark",
        build=FlyBuild(hook=12, wire="light", foam_mm3=70, bulk="slim"), hook=DRY, thread="black", parts="body: black / foam strip / 2 mm; hackle: brown / hen", surface=True),
    _pattern(key="pale-fry", name="Pale fry", family="fry", prey="fry", hooks=(8,), tone="pale",
        build=FlyBuild(hook=8, bulk="bulky"), hook=LONG, thread="white", parts="tail: white / marabou; body: pearl / tinsel; wing: white / soft hair; head: painted eyes"),
    _pattern(key="silver-fry-heavy", name="Weighted silver fry", family="fry", prey="fry", hooks=(6, 8), tone="pale",
        build=FlyBuild(hook=8, bead="tungsten", bead_mm=4.0, bulk="medium"), hook=LONG, thread="grey",
        parts="bead: silver / tungsten bead / 4 mm; tail: grey / marabou; body: silver / tinsel; wing: grey / soft hair; head: painted eyes"),
    _pattern(key="floating-fry", name="Floating fry", family="fry", prey="fry", hooks=(8, 10), tone="pale",
        build=FlyBuild(hook=8, wire="light", foam_mm3=420, bulk="medium"), hook=LONG, thread="white",
        parts="tail: white / marabou; body: white / foam strip / 4 mm; wing: pearl / flash; head: painted eyes", surface=True),
    _pattern(key="orange-attractor", name="Orange attractor", family="attractor", prey="stocked-instinct daphnia", hooks=(10,), tone="bright",
        build=FlyBuild(hook=10, bulk="bulky"), hook=LONG, thread="orange", parts="tail: orange / marabou; rib: gold / wire; body: orange / chenille; head: orange / thread head"),
    _pattern(key="chartreuse-attractor", name="Chartreuse attractor, beaded", family="attractor", prey="stocked-instinct daphnia", hooks=(10,), tone="bright",
        build=FlyBuild(hook=10, bead="brass", bead_mm=3.2, bulk="bulky"), hook=LONG, thread="chartreuse",
        parts="bead: gold / brass bead / 3.2 mm; tail: chartreuse / marabou; rib: silver / wire; body: chartreuse / chenille; head: chartreuse / thread head"),
    _pattern(key="green-black", name="Black-and-green tail", family="attractor", prey="stocked-instinct leech", hooks=(10,), tone="dark",
        build=FlyBuild(hook=10, bulk="bulky"), hook=LONG, thread="black", parts="tail: green / yarn; rib: silver / wire; body: black / chenille; wing: black / marabou; head: black / thread head"),
    _pattern(key="white-attractor", name="White attractor", family="attractor", prey="stocked-instinct fry daphnia", hooks=(10,), tone="pale",
        build=FlyBuild(hook=10, bulk="bulky"), hook=LONG, thread="white", parts="tail: white / marabou; rib: silver / wire; body: white / chenille; head: white / thread head"),
    _pattern(key="film-emerger", name="Film emerger, grey", family="emerger", prey="chironomid-adult mayfly", hooks=(14, 16), tone="natural",
        build=FlyBuild(hook=14, wire="light", foam_mm3=26, bulk="slim"), hook=DRY, thread="grey",
        parts="tail: clear / yarn; body: grey / dubbing; wing: foam post and soft plume; thorax: grey / dubbing", surface=True),
    _pattern(key="olive-dun", name="Small olive dry", family="dry", prey="mayfly chironomid-adult", hooks=(14, 16), tone="natural",
        build=FlyBuild(hook=14, wire="light", foam_mm3=24, bulk="slim"), hook=DRY, thread="olive",
        parts="tail: grey / hackle fibres; body: olive / dubbing; hackle: grey / cock", surface=True),
    _pattern(key="deer-hair-caddis", name="Deer-hair caddis", family="caddis-dry", prey="caddis terrestrial", hooks=(10, 12), tone="natural",
        build=FlyBuild(hook=10, wire="light", foam_mm3=110, bulk="medium"), hook=DRY, thread="brown",
        parts="body: brown / dubbing; wing: natural / deer hair; hackle: brown / cock", surface=True),
    _pattern(key="foam-beetle", name="Foam beetle", family="terrestrial", prey="terrestrial", hooks=(12,), tone="dark",
        build=FlyBuild(hook=12, wire="light", foam_mm3=80, bulk="slim"), hook=DRY, thread="black",
        parts="back: black / foam strip / 3 mm; body: peacock herl; legs: black / rubber", surface=True),
    _pattern(key="tan-hopper", name="Foam hopper, tan", family="terrestrial", prey="terrestrial", hooks=(10,), tone="pale",
        build=FlyBuild(hook=10, wire="light", foam_mm3=150, bulk="medium"), hook=DRY, thread="tan",
        parts="back: tan / foam strip / 4 mm; body: tan / dubbing; legs: brown / rubber", surface=True),
    _pattern(key="blue-damsel", name="Blue damsel adult", family="damsel-adult", prey="damsel-adult", hooks=(10,), tone="bright",
        build=FlyBuild(hook=10, wire="light", foam_mm3=110, bulk="slim"), hook=DRY, thread="blue",
        parts="body: blue / foam cylinder / 3 mm; hackle: blue / cock", surface=True),
)
# fmt: on

PATTERN_BY_KEY = {pattern.key: pattern for pattern in PATTERNS}
