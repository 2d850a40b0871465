"""The water open to each trout species: cool enough and with enough oxygen, and the part of it they would choose."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from stillthread.core.trout.temperature import appetite, preference
from stillthread.core.water.oxygen import OxygenCurve

# Water warmer than this [°C] is entered only for short raids. Rainbow: the trade's 20 °C danger line and a degree;
# brown: growth stops at about 19.5 °C (Elliott 1994, from memory); brook: common practice, no source.
STAYS_BELOW_C = {"rainbow": 21.0, "brown": 19.5, "brook": 19.0}
AVOIDED_MG_L = 4.0
FREE_MG_L = 6.0
LIKED = 0.6
SHORTEST_RUN_M = 0.25  # a shorter run of depths is told as one depth


@dataclass(frozen=True)
class OpenBand:
    """Where a species can be, top and bottom [m], and where it would rather be; None where there is no such water.

    `top_by` is 'surface' or 'warmth', `bottom_by` 'bed' or 'oxygen'; `bottom_band_m` is where the bottom may lie [m] by
    the doubt about oxygen, equal at both ends where it was measured or does not matter.
    """

    species: str
    open_m: tuple[float, float] | None
    liked_m: tuple[float, float] | None
    top_by: str
    bottom_by: str
    bottom_band_m: tuple[float, float] | None
    sentence: str


def _longest_run(mask: NDArray[np.bool_]) -> tuple[int, int] | None:
    """First and last index of the longest unbroken run of true cells, the shallowest of equals."""
    best: tuple[int, int] | None = None
    start: int | None = None
    for i, value in enumerate([*mask.tolist(), False]):
        if value and start is None:
            start = i
        if not value and start is not None:
            if best is None or i - start > best[1] - best[0] + 1:
                best = (start, i - 1)
            start = None
    return best


def _span(z: NDArray[np.float64], run: tuple[int, int] | None) -> tuple[float, float] | None:
    return None if run is None else (float(z[run[0]]), float(z[run[1]]))


def _where(span: tuple[float, float]) -> str:
    """A run of depths [m] in words; one too short to be a run is one depth."""
    if span[1] - span[0] >= SHORTEST_RUN_M:
        return f"{span[0]:.1f} to {span[1]:.1f} m"
    return "the surface" if span[0] < SHORTEST_RUN_M else f"about {sum(span) / 2:.1f} m"


def _graded(share: float, grades: tuple[tuple[float, str], ...]) -> str:
    return next(words for least, words in grades if share >= least)


# How much of their most they eat, and how well the temperature suits them, in an angler's words. Our grades.
HUNGER = ((0.8, "hungry"), (0.5, "ready to feed"), (0.2, "slow to feed"), (0.0, "hardly feeding"))
EASE = ((0.8, "at home"), (0.5, "at ease enough"), (0.2, "not where they would be"), (0.0, "out of their water"))
SAME_SHARE = 0.05


def feeling(species: str, depths_m: NDArray[np.float64], temperature_c: NDArray[np.float64]) -> str:
    """Return in words how hungry a species is and how well it is suited over `depths_m` [m] at temperatures [°C].

    Two things kept apart: appetite peaks warmer than where trout choose to be. Raises KeyError for an unknown species.
    """
    name = f"{species.capitalize()} trout"
    eats, suits = appetite(temperature_c, species), preference(temperature_c, species)
    top = f"{_graded(float(eats[0]), HUNGER)} and {_graded(float(suits[0]), EASE)}"
    if max(np.ptp(eats), np.ptp(suits)) < SAME_SHARE:
        return f"{name} are {top}, much the same from top to bottom."
    spots = [float(depths_m[int(np.argmax(curve))]) for curve in (eats, suits)]
    hungriest, best = (_where((spot, spot)) for spot in spots)
    return f"{name} at the surface are {top}. Hungriest at {hungriest}, best suited at {best}."


def _sentence(
    species: str,
    band: tuple[float, float] | None,
    liked: tuple[float, float] | None,
    top: str,
    bottom: str,
    guessed: bool,
) -> str:
    name = f"{species.capitalize()} trout"
    if band is None:
        return f"{name}: no water both cool enough and with oxygen enough. Leave them alone."
    if top == "surface" and bottom == "bed":
        words = f"{name}: open from top to bottom"
    else:
        why = [
            w for w, on in (("too warm above", top == "warmth"), ("too little oxygen below", bottom == "oxygen")) if on
        ]
        words = f"{name}: open from {band[0]:.1f} to {band[1]:.1f} m ({' and '.join(why)})"
    if liked == band:
        words += ", and they like all of it"
    elif liked is not None:
        words += f"; they would choose {_where(liked)}"
    return words + (", by a guess at the oxygen." if guessed and bottom == "oxygen" else ".")


def open_band(
    species: str, depths_m: NDArray[np.float64], temperature_c: NDArray[np.float64], oxygen: OxygenCurve
) -> OpenBand:
    """Return the band of `depths_m` [m] open to a species at temperatures [°C] and oxygen on the same depths.

    Open: below the temperature the species stays under and at 4 mg/L or more; liked: at least 6 mg/L and within 0.6 of
    its preference. The longest unbroken run counts. Limits are common practice and from memory (see the constants).
    Raises KeyError for an unknown species.
    """
    cool = temperature_c <= STAYS_BELOW_C[species]
    runs = [_longest_run(cool & (v >= AVOIDED_MG_L)) for v in (oxygen.mg_l, oxygen.low_mg_l, oxygen.high_mg_l)]
    band = _span(depths_m, runs[0])
    if band is None:
        return OpenBand(
            species=species,
            open_m=None,
            liked_m=None,
            top_by="warmth",
            bottom_by="oxygen",
            bottom_band_m=None,
            sentence=_sentence(species=species, band=None, liked=None, top="", bottom="", guessed=False),
        )
    run = runs[0] or (0, 0)
    liking = preference(temperature_c, species)
    inside = np.zeros_like(cool)
    inside[run[0] : run[1] + 1] = True
    liked = _span(depths_m, _longest_run(inside & (oxygen.mg_l >= FREE_MG_L) & (liking >= LIKED)))
    top = "surface" if run[0] == 0 else "warmth"
    bottom = "bed" if run[1] == len(depths_m) - 1 else "oxygen" if cool[run[1] + 1] else "warmth"
    ends = [float(depths_m[r[1]]) if r else band[0] for r in runs[1:]]
    guessed = "measured" not in oxygen.source
    return OpenBand(
        species=species,
        open_m=band,
        liked_m=liked,
        top_by=top,
        bottom_by=bottom,
        bottom_band_m=(min(ends), max(ends)),
        sentence=_sentence(species=species, band=band, liked=liked, top=top, bottom=bottom, guessed=guessed),
    )
