"""The food in what `./still read` prints: the contract, and how it is made from the core's reading."""

from __future__ import annotations

from typing import Annotated, Literal

from stillthread.core.food.available import PRIOR_SIGHTINGS
from stillthread.core.food.catalogue import BY_KEY
from stillthread.core.food.keyed import Keyed
from stillthread.core.limits import Said
from stillthread.core.reading.means import ReadInput, WaterRead
from stillthread.documents.plan_answer import PreyShare
from stillthread.documents.strict import Fraction, Hundredths, Strict, told


class MoveOut(Strict):
    """What one thing seen did to the share of its prey."""

    what: str
    prey: str
    without: Fraction
    with_it: Fraction
    sentence: str


class KeyedOut(Strict):
    """What throat samples say of the fish's choice, and what to match."""

    state: Literal["keyed", "leaning", "not-keyed", "too-few"]
    sentence: str
    prey: str | None
    size_mm: float | None
    colours: tuple[str, ...]
    hooks: tuple[int, ...]


class PreyPart(Strict):
    """A prey's part of the food at a place."""

    prey: str
    share: Fraction


class FoodHereOut(Strict):
    """Food over depth at one place, on the curves' depths."""

    place: str
    kind: str
    density: tuple[float, ...]
    brings: tuple[PreyPart, ...]


class FoodOut(Strict):
    """The food now."""

    prior: Annotated[float, Said("what the season is worth, in sightings")]
    counted: Annotated[Hundredths, Said("what was seen adds up to")]
    shares: tuple[PreyShare, ...]
    moves: tuple[MoveOut, ...]
    keyed: KeyedOut | None
    here: tuple[FoodHereOut, ...]
    own_year: Annotated[bool, Said("hatches moved by the water's own degree-days")]


def keyed_out(keyed: Keyed | None) -> KeyedOut | None:
    """Return the fish's choice as documents tell it."""
    if keyed is None:
        return None
    match = vars(keyed.match) if keyed.match else {"prey": None, "size_mm": None, "colours": (), "hooks": ()}
    return told(KeyedOut, keyed, **match)


def food_out(given: ReadInput, read: WaterRead) -> FoodOut:
    """Return the food of a reading as documents tell it."""
    food = read.food
    return told(
        FoodOut,
        food,
        prior=PRIOR_SIGHTINGS,
        shares=[
            told(PreyShare, prey, share=food.share[prey.key], season_share=food.season_share[prey.key])
            for prey in food.top(len(BY_KEY))
        ],
        moves=[told(MoveOut, move) for move in food.moves],
        keyed=keyed_out(food.keyed),
        here=[
            FoodHereOut(
                place=here.place.name,
                kind=here.place.kind,
                density=tuple(round(float(v), 5) for v in here.density),
                brings=tuple(PreyPart(prey=key, share=min(part, 1.0)) for key, part in here.brings),
            )
            for here in read.food_here
        ],
        own_year=bool(given.water.surface_history) and read.year.known,
    )
