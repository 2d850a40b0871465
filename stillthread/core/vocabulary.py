"""Closed sets that several rooms share; each other set stands in the room it belongs to."""

from typing import Literal, get_args

PlaceKind = Literal["margin", "shoal", "weed-edge", "drop-off", "point", "inlet", "open-water"]
Species = Literal["rainbow", "brown", "brook"]
Method = Literal["dry", "nymphs", "float", "sink-tip", "intermediate", "sinking"]
METHODS: tuple[Method, ...] = get_args(Method)
Pace = Literal[
    "static",
    "twitch",
    "quarter-swing",
    "slow-hand-twist",
    "lift-drop",
    "twist-stop",
    "sink-pull",
    "hand-twist",
    "strip-pause",
    "long-pull",
    "roly-poly",
]
