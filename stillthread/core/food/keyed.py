"""What throat samples say of the fish's choice: keyed on one food, or taking whatever comes; size, colour and hook."""

from __future__ import annotations

from collections import Counter
from dataclasses import dataclass

from stillthread.core.food.catalogue import BY_KEY, PREY_KEYS
from stillthread.core.food.seen import ThroatSample

# From how many items a sample speaks, the share that makes a choice, the share below which there is none, and the
# size [mm] that is tiny. Common practice, our figures.
FEWEST_ITEMS = 5
KEYED_SHARE = 0.7
MIXED_SHARE = 0.5
TINY_MM = 5.0


@dataclass(frozen=True)
class Match:
    """What to match, size first, then shape, then colour: the prey, its median length [mm], colours and hook sizes."""

    prey: str
    size_mm: float | None
    colours: tuple[str, ...]
    hooks: tuple[int, ...]


@dataclass(frozen=True)
class Keyed:
    """The fish's choice: `state` is 'keyed', 'leaning', 'not-keyed' or 'too-few'; what to match, if anything."""

    state: str
    sentence: str
    match: Match | None


def hook_for_length(prey_key: str, size_mm: float) -> tuple[int, ...]:
    """Return the one or two even hook sizes for a body length [mm] of a prey, largest first.

    Linear between the prey's hook sizes over its range of lengths; a guess (common practice). Raises KeyError for an
    unknown prey.
    """
    prey = BY_KEY[prey_key]
    low, high = prey.size_mm
    part = min(max((size_mm - low) / (high - low), 0.0), 1.0)
    size = prey.hooks[0] + part * (prey.hooks[1] - prey.hooks[0])
    nearest = {2 * round(size / 2), 2 * int(size // 2), 2 * int(-(-size // 2))}
    return tuple(sorted(h for h in nearest if prey.hooks[1] <= h <= prey.hooks[0] and abs(h - size) <= 1.2))


def _match(key: str, samples: tuple[ThroatSample, ...]) -> Match:
    items = [item for sample in samples for item in sample.items if item.prey == key]
    sizes = sorted(item.size_mm for item in items for _ in range(min(item.count, 1000)) if item.size_mm is not None)
    size = sizes[len(sizes) // 2] if sizes else None
    colours = Counter()  # type: Counter[str]
    for item in items:
        if item.colour:
            colours[item.colour] += item.count
    shown = tuple(colour for colour, _ in sorted(colours.items(), key=lambda pair: (-pair[1], pair[0]))[:2])
    return Match(key, size, shown, hook_for_length(key, size) if size is not None else ())


def keyed_on(samples: tuple[ThroatSample, ...]) -> Keyed | None:
    """Return what the samples together say of the fish's choice, or None without samples.

    Fewer than five fresh or half-digested items say nothing. Seven in ten of one kind: keyed. Three kinds or more with
    none making half, or several kinds all of 5 mm or less: not keyed on anything. Common practice; the limits are ours.
    """
    if not samples:
        return None
    counts = Counter()  # type: Counter[str]
    for sample in samples:
        for item in sample.items:
            counts[item.prey] += item.count
    total = counts.total()
    if total < FEWEST_ITEMS:
        return Keyed("too-few", f"{total} {'item' if total == 1 else 'items'}: too few to tell a choice.", None)
    top = min(counts, key=lambda key: (-counts[key], PREY_KEYS.index(key)))
    share = counts[top] / total
    name = BY_KEY[top].name.lower()
    sizes = [item.size_mm for sample in samples for item in sample.items]
    tiny = all(size is not None and size <= TINY_MM for size in sizes)
    if share >= KEYED_SHARE:
        return Keyed(
            "keyed",
            f"Keyed on {name}: {counts[top]} of {total}. Match the size first, then shape, then colour.",
            _match(top, samples),
        )
    if len(counts) >= 3 and (share < MIXED_SHARE or tiny):
        small = "several tiny kinds" if tiny else f"{len(counts)} kinds, none making half"
        return Keyed(
            "not-keyed",
            f"Not keyed: {small} in the throat. They take what comes; depth matters more than the fly.",
            None,
        )
    return Keyed(
        "leaning",
        f"Mostly {name}, {counts[top]} of {total}, with other food: they lean towards it.",
        _match(top, samples),
    )
