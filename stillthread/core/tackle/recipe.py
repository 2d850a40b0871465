"""A fly's recipe: materials part by part, and the tying steps in their order with the cautions of the tricky ones."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated, Literal, get_args

from annotated_types import MaxLen, MinLen

from stillthread.core.limits import Name

# The parts a recipe may name, in the order they are listed. Common practice.
Part = Literal[
    "hook", "thread", "bead", "eyes", "weight", "tail", "rib", "body", "back", "wing", "thorax", "gills", "legs",
    "hackle", "head",
]  # fmt: skip
PARTS: tuple[Part, ...] = get_args(Part)
PART_BY_NAME: dict[str, Part] = {part: part for part in PARTS}


@dataclass(frozen=True)
class Material:
    """One material of a recipe: the part it makes, what it is, its colour and its size in words, if they matter."""

    part: Part
    what: Name
    colour: Annotated[str, MaxLen(40)] = ""
    size: Annotated[str, MaxLen(40)] = ""

    @property
    def words(self) -> str:
        """The material as it is bought: colour, what it is, size."""
        return " ".join(word for word in (self.colour, self.what, self.size) if word)


@dataclass(frozen=True)
class Step:
    """One tying step, and the caution of a tricky one."""

    text: Annotated[str, MinLen(1), MaxLen(400)]
    caution: Annotated[str, MaxLen(300)] = ""


@dataclass(frozen=True)
class Recipe:
    """Materials and steps of one pattern."""

    materials: Annotated[tuple[Material, ...], MaxLen(30)] = ()
    steps: Annotated[tuple[Step, ...], MaxLen(40)] = ()


BEAD = Step(
    "Slide the bead on, small hole to the eye, before anything is tied.",
    "Flatten the barb first: a bead does not pass it, and it is easier on the fish.",
)
START = Step("Lay touching turns of thread from behind the eye to above the barb.")
WEIGHT = Step(
    "Wind the wire on the front half of the shank, leaving two eyes' width free behind the eye; lock it with thread."
)
FINISH = Step("Whip finish and put a drop of varnish on the wraps.", "Keep the eye clear: run a needle through it.")
RIB_FIRST = "Tie in the {rib} at the bend, before the body."
COUNTER = "Wind the rib the other way round in open turns, so that it locks the body; tie it off behind the eye."

# The steps of each family, with the names of its materials to be filled in. Our own words, common practice.
FAMILY_STEPS: dict[str, tuple[str | tuple[str, str], ...]] = {
    "worm": (
        RIB_FIRST,
        ("Tie in the {body} and stretch it a little as you wind it, thin at the bend.", "Trap it with thread on both sides before letting go: it springs back."),
        COUNTER,
        "Build a small {head} and leave an eye's width free.",
    ),
    "slim-pupa": (
        "Run the thread a third round the bend.",
        RIB_FIRST,
        "Wind a thin, even body of {body}, a little thicker towards the eye.",
        COUNTER,
        "Tie in the {gills} behind the eye, one tuft on each side, and trim them short.",
        "Build a small thorax of {thorax}; leave an eye's width free.",
    ),
    "emerger": (
        "Tie in the {tail} for a trailing shuck, half a shank long.",
        "Spin a slim body of {body} over the rear two thirds.",
        ("Tie in the {wing} upright, so that it holds the fly in the film.", "Not too much of it: the body must hang under."),
        "Turn the {thorax} in front of it, then clear the eye.",
    ),
    "dry": (
        "Tie in the {tail} level with the shank.",
        "Wind a thin body of {body}.",
        "Tie in the {hackle} by its stalk and wind three turns, shiny side forward.",
        "Trim the hackle level with the gap underneath.",
    ),
    "shrimp": (
        "Run the thread well round the bend.",
        RIB_FIRST,
        ("Tie in the {back} on top, its narrow end to the bend.", "Stretch it a little only when you lay it over."),
        "Dub the {body} loosely, thickest in the middle.",
        "Lay the back over, then rib over it in even turns.",
        "Pick out the legs with a needle and trim them level with the hook gap.",
    ),
    "leech": (
        "Tie in the {tail}, a shank and a half long, with the butts along the shank.",
        "Dub the {body}, not too thick: it fills out in the water.",
        "Comb the body out; tear the tail's end with the nails, do not cut it.",
    ),
    "damsel-nymph": (
        "Tie in the {tail}, a shank long, and pinch it to length.",
        RIB_FIRST,
        "Wind a slim body of {body} over the rear two thirds.",
        COUNTER,
        "Dub the {thorax} a little fuller, and stretch the {back} over it.",
        "Draw the {legs} back on both sides and lock them.",
    ),
    "damsel-adult": (
        ("Tie in the {body} at the bend, twice the shank long and free to stand out behind.", "Bind foam with flat, not twisted, thread: it cuts."),
        "Wind the {hackle} over the front of the shank.",
        "Fold the foam forward over the hackle and tie it down behind the eye.",
    ),
    "dragon-nymph": (
        ("Figure-of-eight the {eyes} on top, close behind the eye.", "On a size 8 leave about 12 mm of shank behind the eye for a pair of foam eyes."),
        "Tie in the short {tail}.",
        "Dub a broad, flat body of {body}; flatten it with pliers.",
        "Tie in the {legs} on both sides, then dub between the eyes.",
    ),
    "nymph": (
        "Tie in the {tail}, half a shank long.",
        RIB_FIRST,
        "Wind the {body} over the rear half.",
        COUNTER,
        "Tie in the {back}, dub the {thorax} and lay the back over it.",
        "Draw out a few fibres for legs.",
    ),
    "caddis-pupa": (
        RIB_FIRST,
        "Dub a plump, curved body of {body}.",
        COUNTER,
        "Tie in the {wing} low on each side, half the body long.",
        "Wind the {hackle} twice and stroke it back and under.",
    ),
    "caddis-dry": (
        "Wind the body of {body} over the rear two thirds.",
        ("Stack the {wing}, tie it down flat over the body and hold it while you pull the thread tight.", "Hollow hair rolls round the shank: hold it on top till it is locked."),
        "Trim the butts to a head, or wind the {hackle} in front.",
    ),
    "boatman": (
        "Tie in the {back} at the bend.",
        "Build an oval body of {body}.",
        "Tie in one of the {legs} on each side, in the middle, like a pair of oars.",
        "Lay the back over and tie it down behind the eye.",
    ),
    "attractor": (
        "Tie in the {tail}, as long as the hook.",
        RIB_FIRST,
        "Wind the {body} forwards, stroking the fibres back at each turn.",
        COUNTER,
        "Tie in the {wing} over the body.",
        "Build a neat {head}.",
    ),
    "fry": (
        "Tie in the {tail}.",
        "Wind the {body} forwards in touching turns.",
        ("Tie the {wing} above and below, so that it keeps its shape in the water.", "Little at a time: bulky flies turn over badly on a long cast."),
        "Add the {head} with its eyes and varnish it.",
    ),
    "terrestrial": (
        ("Tie in the {back} by its end at the bend.", "Bind foam with flat thread, firmly but not tight: it cuts."),
        "Wind or dub the body of {body}.",
        "Tie in the {legs} on each side in the middle.",
        "Fold the foam forward over the body and tie it down; trim the end to a head.",
    ),
    "snail": (
        "Build a round, cone-shaped body of {body}, thickest at the bend.",
        "Wind two turns of soft {hackle} behind the eye.",
    ),
}  # fmt: skip


def family_steps(family: str, materials: tuple[Material, ...], bead: bool, wire: bool) -> tuple[Step, ...]:
    """Return the ordered tying steps of a pattern: bead first, thread, weight, the family's own, whip finish.

    The materials fill the places the family's steps name; a step that asks for a part the recipe does not have is left
    out. Raises KeyError for an unknown family.
    """
    named: dict[str, str] = {m.part: m.words for m in materials}
    steps = [BEAD] if bead else []
    steps.append(START)
    if wire:
        steps.append(WEIGHT)
    for one in FAMILY_STEPS[family]:
        text, caution = one if isinstance(one, tuple) else (one, "")
        try:
            steps.append(Step(text.format_map(named), caution))
        except KeyError:
            continue
    return (*steps, FINISH)
