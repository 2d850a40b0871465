"""What moves the belief: one function a factor, each giving a log weight by depth, its sentence, and whether it knows."""

from __future__ import annotations

from datetime import datetime

import numpy as np
from numpy.typing import NDArray

from stillthread.core.belief.factor import Factor
from stillthread.core.food.available import Availability
from stillthread.core.food.catalogue import BY_KEY
from stillthread.core.food.seen import ABUNDANCE_COUNT, Sighting, signed
from stillthread.core.food.where import food_density
from stillthread.core.noted.reading import Reading, oxygen_on
from stillthread.core.noted.water import Place, Water
from stillthread.core.sky.wind import compass_point, downwind_shore, onto_shore
from stillthread.core.trout.open_band import AVOIDED_MG_L
from stillthread.core.trout.temperature import CHOSEN_BAND_C, log_preference, preference
from stillthread.core.water.layers import find_thermocline
from stillthread.core.water.profile import temperature_at

# Below this liking [share of the best] the warm side is too warm. Our figure.
TOO_WARM_LIKED = 0.35
# How far from its food a trout stands [m], and the step of the depths [m]. Our figure.
STANDS_OFF_M = 0.25
USUAL_BED_M = 6.0
CELL_M = 0.1


def temperature_factor(depths: NDArray[np.float64], water: Water, reading: Reading, warmer_c: float = 0.0) -> Factor:
    """Weight depths by the species' temperature preference along the measured curve; flat without readings.

    `warmer_c` [°C] is how much warmer they like it by the angler's own takes.
    """
    if not reading.profile:
        return Factor(
            "temperature", np.zeros_like(depths), "No temperature read, so it says nothing about depth.", False
        )
    t = temperature_at(reading.profile, depths)
    felt = t - warmer_c
    liked = np.mean([preference(felt, s) for s in water.species], axis=0)
    weight = np.log(np.mean(np.exp([log_preference(felt, s) for s in water.species]), axis=0))
    best = int(np.argmax(liked))
    last = reading.profile[-1].depth_m
    unread = f"below {last:g} m" if last > 0 else "below the surface"
    own = (
        f" Your own takes: they like it {abs(warmer_c):.1f} °C {'warmer' if warmer_c > 0 else 'cooler'}."
        if warmer_c
        else ""
    )
    tail = f" Nothing was read {unread}." if last < depths[-1] - 0.3 else ""
    warm_side = float(felt.min()) > max(CHOSEN_BAND_C[s][1] for s in water.species)
    if warm_side and float(liked.max()) < TOO_WARM_LIKED:
        words = f"Too warm everywhere: coolest at {depths[int(np.argmin(t))]:.0f} m, {t.min():.1f} °C."
    elif float(liked.max() - liked.min()) < 0.12:
        one = (
            f"{t.min():.0f} °C"
            if round(float(t.min())) == round(float(t.max()))
            else f"{t.min():.0f} to {t.max():.0f} °C"
        )
        words = f"{one} from top to bottom: temperature hardly chooses a depth."
    else:
        good = depths[liked >= 0.9 * liked.max()]
        words = f"The water trout like best, {t[best]:.1f} °C, lies at {good[0]:.1f} to {good[-1]:.1f} m."
    return Factor("temperature", weight, words + own + tail, True)


def oxygen_limits(mg_l: NDArray[np.float64]) -> NDArray[np.float64]:
    """Return how open water is to trout by its oxygen [mg/L], 0 to 1: free from 6, reduced to 4, avoided to 3, empty below.

    From memory; the source is not found yet. Linear between the limits.
    """
    return np.asarray(np.interp(mg_l, [2.9, 3.0, 4.0, 6.0], [0.005, 0.05, 0.3, 1.0]), dtype=np.float64)


def oxygen_factor(depths: NDArray[np.float64], water: Water, reading: Reading, when: datetime) -> Factor:
    """Weight depths by dissolved oxygen where it was measured, else by the labelled guess with its whole range.

    The guess counts as the mean of what its low, middle and high values would say (see `oxygen_on`).
    """
    curve = oxygen_on(water, reading, depths, when)
    if curve is None:
        return Factor("oxygen", np.zeros_like(depths), "Oxygen not measured, and no temperature to guess it by.", False)
    if "measured" in curve.source:
        poor = depths[curve.mg_l < AVOIDED_MG_L]
        words = (
            f"Below 4 mg/L from {poor[0]:.1f} m: trout keep out." if len(poor) else "Enough oxygen everywhere measured."
        )
        return Factor("oxygen", np.log(oxygen_limits(curve.mg_l)), words, True)
    layer = find_thermocline(reading.profile)
    if layer is None:
        return Factor(
            "oxygen", np.zeros_like(depths), "Oxygen not measured; no thermocline to starve the depths.", False
        )
    open_share = np.mean([oxygen_limits(v) for v in (curve.low_mg_l, curve.mg_l, curve.high_mg_l)], axis=0)
    short = depths[curve.low_mg_l < AVOIDED_MG_L]
    if len(short) == 0:
        words = "Oxygen not measured. Guess: enough down to the bed, this early in the layered season."
    else:
        words = f"Oxygen not measured. Guess: it may run short under the thermocline, from about {short[0]:.0f} m."
    return Factor("oxygen", np.log(open_share), words, False)


def _moved(density: NDArray[np.float64]) -> NDArray[np.float64]:
    """Blur the food by how far trout stand off it (0.25 m): nobody lies in a layer 10 cm thick, nor on the bed itself.

    The surface throws back what would lie above it; what would lie in the bed is shared out in the water.
    """
    cells = np.arange(len(density))
    beyond = np.arange(len(density) + round(4 * STANDS_OFF_M / CELL_M))
    near = sum(
        np.exp(-0.5 * (CELL_M * (beyond[:, None] - other[None, :]) / STANDS_OFF_M) ** 2)
        for other in (cells, -1 - cells)
    )
    moved = (near / near.sum(axis=0))[: len(density)] @ density
    return np.asarray(moved * density.sum() / max(float(moved.sum()), 1e-12), dtype=np.float64)


# What ground under water for less than these days lacks: insects settle over a season, a few months. Figures ours.
SETTLED_AFTER_DAYS = 90
FLOODED_COST = 0.8


def flooded_down_to_m(water: Water, reading: Reading) -> float:
    """Return the depth [m] below today's surface down to which the ground was dry in the last months, 0 where none was.

    Today's level less the lowest of the last months; without those the datum, the level the water is described at.
    """
    if reading.level_m is None:
        return 0.0
    lowest = min(0.0, reading.level_m) if water.lowest_level_m is None else water.lowest_level_m
    return max(0.0, reading.level_m - lowest)


def bare_share(place: Place, bed_m: float, flooded_m: float) -> float:
    """Return how much of a place's bed [m] was flooded lately, 0 to 1."""
    if flooded_m <= place.depth_min_m:
        return 0.0
    span = max(bed_m - place.depth_min_m, CELL_M)
    return min((flooded_m - place.depth_min_m) / span, 1.0)


def food_factor(
    depths: NDArray[np.float64],
    food: Availability,
    place: Place,
    bed_m: float,
    easy_light_m: float | None = None,
    flooded_m: float = 0.0,
    rises: bool = False,
) -> Factor:
    """Weight depths by where the food available now is at this kind of place; `easy_light_m` [m] moves drifting clouds.

    Down to `flooded_m` [m] the ground was dry in the last months, and nothing lives on it yet. What rises tell of the food
    is not in here (they weigh by themselves); where there are any, the sentence says so.
    """
    bare = bare_share(place, bed_m, flooded_m)
    density, brings = food_density(
        shares=food.share, depths_m=depths, bed_m=bed_m, place_kind=place.kind, easy_light_m=easy_light_m, up=food.up
    )
    # Against food spread evenly over a usual depth, so that places of other depths compare by what a metre of them holds.
    relative = (1.0 - bare) * _moved(density) * USUAL_BED_M / CELL_M
    names = " and ".join(BY_KEY[key].name.lower() for key in sorted(brings, key=lambda k: -brings[k])[:2])
    seen = "what you saw and the season" if food.sightings else "the season alone"
    trust = 1.0 if food.sightings else 0.6
    told = f"mostly {names}" if food.leads else f"many kinds, {names} a little before the rest"
    words = f"Rises apart, by {seen} here {told}." if rises else f"By {seen}, here {told}."
    if bare > 0.5:
        words = f"Ground down to {flooded_m:.1f} m was flooded lately: nothing lives on it yet."
    weight = trust * np.log(relative + 0.25) - FLOODED_COST * bare
    return Factor("food", weight, words, food.sightings > 0 or bare > 0.5)


# How much rises weigh by how many: a few are noise, some a reason to have a rod ready, many the plan. Common practice,
# figures ours.
NOTHING_RISES = 0.7
RISES_WEIGH = {"few": 0.0, "some": 1.0, "many": 2.2}
ONE_FEWER = {"few": "few", "some": "few", "many": "some"}


def rising(sightings: tuple[Sighting, ...]) -> str | None:
    """Return how many fish feed at the top, 'few', 'some' or 'many', by all rises noted; None where none does."""
    seen = [s.abundance for s in sightings if s.rise not in (None, "leap")]
    if not seen:
        return None
    total = sum(ABUNDANCE_COUNT[one] for one in seen)
    return next(name for name in ("many", "some", "few") if total >= ABUNDANCE_COUNT[name])


def rises_factor(
    depths: NDArray[np.float64], sightings: tuple[Sighting, ...], heat: float = 0.0, here: bool = True
) -> Factor:
    """Fish seen feeding at the top weigh on the top 0.6 m: a few do not, in the heat they fade (`heat`, 0 to 1).

    Seen at another place than this one (`here` False) they count as one step fewer.
    """
    count = rising(sightings)
    if count is not None and not here:
        count = ONE_FEWER[count]
    leaps = any(s.rise == "leap" for s in sightings)
    if count is None:
        if signed(sightings, "nothing-rises"):
            below = 1.0 / (1.0 + np.exp((depths - 0.8) / 0.15))
            return Factor("rises", -NOTHING_RISES * below, "A good look and nothing rises: the top counts less.", True)
        words = "Leaping fish say nothing about food or depth." if leaps else "No rises noted."
        return Factor("rises", np.zeros_like(depths), words, leaps)
    top = 1.0 / (1.0 + np.exp((depths - 0.8) / 0.15))
    words = {
        "few": "A few rises: too few to go by. Watch for more.",
        "some": "Some fish feed at the top: the upper 0.6 m counts more. Keep a rod ready for them.",
        "many": "Many fish feed at the top: the upper 0.6 m counts most.",
    }[count]
    if heat > 0.5:
        words = "Fish show at the top, but it is too warm there: they are uncomfortable rather than feeding."
    return Factor("rises", (1.0 - heat) * RISES_WEIGH[count] * top, words, True)


# The shore the wind blows onto gathers what drifts and the warm top; a wind colder than the water, and food that comes off the
# land or hatches in shelter, speak for the other one. Common practice, figures ours.
COLD_TOP_C, CHILLED_BELOW_C, COLDER_BY_C, WARMER_BY_C = 8.0, 12.0, 2.0, 2.0
OFF_SHORE_FOODS = ("terrestrial", "chironomid-adult")
SHORE_WEIGHS, WHOLLY_AT_M_S, ALONG = 0.5, 5.0, 0.3


def _better_shore(reading: Reading, food: Availability, school: str) -> tuple[float, str]:
    """How much better the shore is that the wind blows onto, -1 to 1 (the sheltered one), and why, where that needs saying."""
    if school != "by-water":
        return (-1.0, "You like the sheltered shore.") if school == "off" else (1.0, "")
    top, air = reading.surface_c, reading.air_temperature_c
    if top is not None and air is not None and top < CHILLED_BELOW_C and air <= top - COLDER_BY_C:
        return -1.0, "The air is colder than the water: the sheltered shore keeps what warmth there is."
    if top is not None and top < COLD_TOP_C:
        if air is not None and air >= top + WARMER_BY_C:
            return 1.0, "The air is warmer than the water: the warm top gathers where the wind blows to."
        return 0.0, "In water this cold the wind's shore is no better."
    off = sum(food.share[key] for key in OFF_SHORE_FOODS)
    said = "What they eat comes off the land or hatches in shelter: look to the sheltered shore." if off > 0.5 else ""
    return 1.0 - 2.0 * off, said


def place_factor(
    depths: NDArray[np.float64], reading: Reading, place: Place, food: Availability, school: str = "by-water"
) -> Factor:
    """Shores the wind blows onto gather drifting food and warm water; a cold wind, and food off the land, turn that round.

    Same at every depth. `school` is where the angler likes to stand: 'onto' that shore even in cold water, 'off' it on the
    sheltered one.
    """
    flat = np.zeros_like(depths)
    if reading.wind_from_deg is None or reading.wind_m_s is None:
        missing = "Wind" if reading.wind_m_s is None else "Where the wind comes from was"
        return Factor("wind", flat, f"{missing} not read.", False)
    blows = f"Wind {compass_point(reading.wind_from_deg)}, onto the {downwind_shore(reading.wind_from_deg)} shore."
    if place.facing_deg is None:
        return Factor("wind", flat, f"{blows} Which way this place faces is not noted.", False)
    better, why = _better_shore(reading, food, school)
    onto = onto_shore(reading.wind_from_deg, place.facing_deg)
    here = "along" if abs(onto) < ALONG else "onto" if onto > 0 else "off"
    words = f"{blows} It blows {here} this place. {why}".strip()
    strength = better * SHORE_WEIGHS * onto * min(reading.wind_m_s / WHOLLY_AT_M_S, 1.0)
    return Factor("wind", np.full_like(depths, strength), words, True)
