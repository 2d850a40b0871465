"""Three things kept apart: how hungry trout are, where they choose to be, and when to leave them alone."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

import numpy as np
from numpy.typing import ArrayLike, NDArray


@dataclass(frozen=True)
class ThorntonLessem:
    """Parameters of the Thornton & Lessem (1978) temperature curve as used in fish bioenergetics models."""

    cq: float
    cto: float
    ctm: float
    ctl: float
    ck1: float
    ck4: float


# Consumption parameters: rainbow after Rand et al. (1993, steelhead), brown after Dieterman et al. (2004), both from
# memory; brook takes the brown trout's for want of a set of its own.
CONSUMPTION = {
    "rainbow": ThorntonLessem(cq=5.0, cto=20.0, ctm=20.0, ctl=24.0, ck1=0.33, ck4=0.2),
    "brown": ThorntonLessem(cq=3.8, cto=17.5, ctm=17.5, ctl=20.8, ck1=0.23, ck4=0.1),
    "brook": ThorntonLessem(cq=3.8, cto=17.5, ctm=17.5, ctl=20.8, ck1=0.23, ck4=0.1),
}


def appetite(temperature_c: ArrayLike, species: str = "rainbow") -> NDArray[np.float64]:
    """Return how much of their most trout eat at water temperatures [°C], 0 to 1, any shape.

    Thornton & Lessem (1978): the product of a rising and a falling logistic. It peaks warmer than is good for a fish
    that will be returned. Raises KeyError for an unknown species.
    """
    p = CONSUMPTION[species]
    t = np.asarray(temperature_c, dtype=float)
    g1 = np.log(0.98 * (1 - p.ck1) / (p.ck1 * 0.02)) / (p.cto - p.cq)
    g2 = np.log(0.98 * (1 - p.ck4) / (p.ck4 * 0.02)) / (p.ctl - p.ctm)
    up = np.exp(g1 * (t - p.cq))
    down = np.exp(g2 * (p.ctl - t))
    rising = p.ck1 * up / (1 + p.ck1 * (up - 1))
    falling = p.ck4 * down / (1 + p.ck4 * (down - 1))
    return np.asarray(rising * falling, dtype=float)


# Band trout choose in the field [°C] with the fall-off on its cold and warm side: the trade's 13 to 17 °C for
# rainbows; browns and brooks a little cooler. Common practice, no source.
CHOSEN_BAND_C = {"rainbow": (13.0, 17.0, 6.0, 1.3), "brown": (11.0, 16.0, 6.0, 1.3), "brook": (10.0, 15.0, 6.0, 1.3)}


def preference(temperature_c: ArrayLike, species: str = "rainbow") -> NDArray[np.float64]:
    """Return how gladly trout stay at water temperatures [°C], 0 to 1: 1 in the chosen band, Gaussian outside it.

    Common practice (band), no published source. Raises KeyError for an unknown species.
    """
    low, high, cold, warm = CHOSEN_BAND_C[species]
    t = np.asarray(temperature_c, dtype=float)
    outside = np.where(t < low, (low - t) / cold, np.where(t > high, (t - high) / warm, 0.0))
    return np.asarray(np.exp(-0.5 * outside**2), dtype=float)


# Beyond so many fall-offs from the chosen band the dislike grows straight on, so that of waters all too warm (or too
# cold) the nearest to the band is still the best. Our figure.
STRAIGHT_FROM = 2.0


def log_preference(temperature_c: ArrayLike, species: str = "rainbow") -> NDArray[np.float64]:
    """Return the log of how gladly trout stay at water temperatures [°C]: Gaussian near the chosen band, straight beyond.

    It never goes flat (Huber's loss on the fall-offs of `preference`). Raises KeyError for an unknown species.
    """
    low, high, cold, warm = CHOSEN_BAND_C[species]
    t = np.asarray(temperature_c, dtype=float)
    off = np.where(t < low, (low - t) / cold, np.where(t > high, (t - high) / warm, 0.0))
    straight = -STRAIGHT_FROM * off + 0.5 * STRAIGHT_FROM**2
    return np.asarray(np.where(off <= STRAIGHT_FROM, -0.5 * off**2, straight), dtype=float)


def heat_share(surface_c: float | None, species: tuple[str, ...]) -> float:
    """Return how far the heat of the top has put out what draws trout up there, 0 (not at all) to 1 (wholly).

    From the species' caution to their stop, the most tender of them deciding: fish at the top are then mostly
    uncomfortable, not feeding. Common practice, figures ours. Raises KeyError for an unknown species.
    """
    if surface_c is None:
        return 0.0
    _, caution, stop = (min(WELFARE_LIMITS_C[s][i] for s in species) for i in range(3))
    return float(np.clip((surface_c - caution + 1.0) / (stop - caution), 0.0, 1.0))


@dataclass(frozen=True)
class Welfare:
    """What the warmest water a hooked fish crosses means: `level` is ok, tiring, caution or stop."""

    level: Literal["ok", "tiring", "caution", "stop"]
    warmest_c: float
    stop_c: float
    sentence: str


# Limits of the trade [°C]: still feeding but tiring, caution, stop returning fish. Brook trout stop earlier.
WELFARE_LIMITS_C = {"rainbow": (17.0, 18.0, 20.0), "brown": (17.0, 18.0, 20.0), "brook": (15.0, 16.0, 18.0)}


def welfare(warmest_c: float, species: tuple[str, ...], rule_stop_c: float | None = None) -> Welfare:
    """Return the welfare level for the warmest water a hooked fish is played through [°C].

    The most tender of `species` decides; the water's own limit `rule_stop_c` [°C] wins when stricter. Common practice.
    Raises KeyError for an unknown species.
    """
    tiring, caution, stop = (min(WELFARE_LIMITS_C[s][i] for s in species) for i in range(3))
    if rule_stop_c is not None:
        stop = min(stop, rule_stop_c)
    if warmest_c > stop:
        text = f"The water is {warmest_c:.1f} °C at its warmest: do not fish to return trout above {stop:g} °C."
        return Welfare("stop", warmest_c, stop, text)
    if warmest_c >= caution:
        text = (
            "Fish need longer to recover. Fish the cool depths only, keep fights short, and hold them till they kick."
        )
        return Welfare("caution", warmest_c, stop, text)
    if warmest_c >= tiring:
        return Welfare("tiring", warmest_c, stop, "Fish tire faster: play them quickly, revive them longer.")
    return Welfare("ok", warmest_c, stop, "Nothing against returning fish at this temperature.")


# The trade's table for rainbows (handbook of common practice): below the first sluggish, below the second stirring [°C].
SLUGGISH_BELOW_C, STIRRING_BELOW_C = 4.0, 7.0


def behaviour(temperature_c: float) -> tuple[str, str]:
    """Return what rainbows do at a water temperature [°C] and how to fish for them, in the trade's words."""
    for limit, does, approach in (
        (SLUGGISH_BELOW_C, "sluggish, rarely chase", "static or very slow, deep and small"),
        (STIRRING_BELOW_C, "becoming active", "slow retrieves; the edges that warm first"),
        (13.0, "active", "most methods; chironomids begin to hatch"),
        (17.0, "in their best feeding band", "anything: choose by the food"),
        (18.0, "feeding but tiring faster", "deeper, or early and late; play them quickly"),
        (20.0, "under stress", "the cool depths only, short fights"),
    ):
        if temperature_c < limit:
            return does, approach
    return "in danger if returned", "stop catch and release"
