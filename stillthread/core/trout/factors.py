"""What moves the belief: one function a factor, each giving a log weight by depth, its sentence, and whether it knows."""

from __future__ import annotations

from datetime import datetime

import numpy as np
from numpy.typing import NDArray

from stillthread.core.food.available import Availability
from stillthread.core.food.catalogue import BY_KEY
from stillthread.core.food.seen import ABUNDANCE_COUNT, Sighting, signed
from stillthread.core.food.where import food_density
from stillthread.core.noted.reading import SURFACE_RIPPLE, Reading, oxygen_on
from stillthread.core.noted.water import Place, Water
from stillthread.core.sky.light import GREY_OKTAS, Light, can_spot, ripple_class
from stillthread.core.sky.wind import compass_point, downwind_shore, onto_shore
from stillthread.core.trout.factor import Factor
from stillthread.core.trout.notice import EASY_LIGHT
from stillthread.core.trout.open_band import AVOIDED_MG_L
from stillthread.core.trout.stocking import fresh_share
from stillthread.core.trout.temperature import CHOSEN_BAND_C, log_preference, preference
from stillthread.core.water.layers import find_thermocline
from stillthread.core.water.profile import oxygen_at, temperature_at

# Below this liking [share of the best] the warm side is too warm. Our figure.
TOO_WARM_LIKED = 0.35
# Surface temperature [°C] from which trout are looked for along the thermocline. Common practice.
HEAT_C = 18.0
# How far from its food a trout stands [m], and the step of the depths [m]. Our figure.
STANDS_OFF_M = 0.25
USUAL_BED_M = 6.0
CELL_M = 0.1
# Dissolved oxygen [mg/L] from which it keeps no trout away. From memory; see `oxygen_limits`.
EASY_OXYGEN_MG_L = 6.0


def temperature_factor(depths: NDArray[np.float64], water: Water, reading: Reading) -> Factor:
    """Weight depths by the species' temperature preference along the measured curve; flat without readings."""
    if not reading.profile:
        return Factor(
            "temperature", np.zeros_like(depths), "No temperature read, so it says nothing about depth.", False
        )
    t = temperature_at(reading.profile, depths)
    liked = np.mean([preference(t, s) for s in water.species], axis=0)
    weight = np.log(np.mean(np.exp([log_preference(t, s) for s in water.species]), axis=0))
    best = int(np.argmax(liked))
    last = reading.profile[-1].depth_m
    unread = f"below {last:g} m" if last > 0 else "below the surface"
    tail = f" Nothing was read {unread}." if last < depths[-1] - 0.3 else ""
    warm_side = float(t.min()) > max(CHOSEN_BAND_C[s][1] for s in water.species)
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
    return Factor("temperature", weight, words + tail, True)


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


def comfort_depth_m(light: Light) -> float:
    """Return the depth [m] below which light keeps no fish away; 0 where even the surface is easy on the eye."""
    return max(0.0, float(np.log(light.surface / EASY_LIGHT)) / light.attenuation_per_m)


# In clear water a fish in the light is seen from farther and lies lower: how that grows with the Secchi depth [m]. Ours.
USUAL_SECCHI_M, SECCHI_POWER = 3.0, 0.3
PRESSURED_MIND = 1.5  # how much more pressured fish mind the light. Ours.
# Sun with a real wave brings cruisers into the top metre, along lanes of foam above all. Common practice, figures ours.
CRUISERS_WEIGHT, CRUISERS_TO_M, CRUISERS_SOFT_M = 2.8, 1.0, 0.2
WAVY = ("wave", "foam-lanes")


def cruisers_up(reading: Reading, light: Light) -> bool:
    """Return whether sun and wave go together as they bring cruising fish to the top: high bright sun, a real wave."""
    wave = ripple_class(reading.wind_m_s) == "wave" or reading.surface in WAVY
    known = reading.cloud_oktas is not None
    return wave and known and can_spot(light.sun_elevation_deg, reading.cloud_oktas, reading.clarity)


# A grey sky over ripple or wave brings fish up, where the water is neither cold nor too warm. Common practice, figures ours.
LIFTS = {"ripple": 0.9, "wave": 1.2}
LIFT_FADES_M, LIFTS_FROM_C = 1.5, 9.0


def grey_lift(reading: Reading, heat: float) -> float:
    """Return how much cloud and ripple together bring fish up, 0 where the sky is open, the water flat, cold or (`heat`) too warm."""
    if (reading.cloud_oktas or 0) < GREY_OKTAS or (reading.surface_c is not None and reading.surface_c < LIFTS_FROM_C):
        return 0.0
    rough = (
        SURFACE_RIPPLE.get(reading.surface or "", "") if reading.wind_m_s is None else ripple_class(reading.wind_m_s)
    )
    return LIFTS.get(rough, 0.0) * (1.0 - heat)


SURFACE_WORDS = {"calm": "flat calm", "ripple": "a ripple", "wave": "a wave"}


def sky_words(reading: Reading) -> str:
    """Return the cloud and the surface as they were read, in words; empty where neither was."""
    rough = (
        SURFACE_RIPPLE.get(reading.surface or "", "") if reading.wind_m_s is None else ripple_class(reading.wind_m_s)
    )
    parts = [] if reading.cloud_oktas is None else [f"{reading.cloud_oktas} of 8 cloud"]
    return " and ".join([*parts, *([SURFACE_WORDS[rough]] if rough in SURFACE_WORDS else [])])


def _light_words(light: Light, down_to_m: float, to_bed: bool, sky: str, lifted: bool) -> str:
    """What the light says, with what it was read from."""
    said = f"{sky[0].upper()}{sky[1:]}: " if sky else ""
    at_surface = float(np.log(light.surface / EASY_LIGHT))
    if at_surface > 0:
        how = "bright" if light.bright else "fair light"
        words = f"{how} down to the bed." if to_bed else f"{how} on top, comfortable from about {down_to_m:.1f} m down."
        if lifted:
            words = f"they come up; comfortable up to about {down_to_m:.1f} m."
    elif at_surface < -0.9:
        words = "low light: trout come up and into the margins."
    else:
        words = "light keeps no fish down."
    return f"{said}{words}" if said else f"{words[0].upper()}{words[1:]}"


def light_factor(
    depths: NDArray[np.float64],
    light: Light,
    cruisers: bool = False,
    pressured: bool = False,
    lift: float = 0.0,
    sky: str = "",
) -> Factor:
    """Push fish down out of bright water and let low light bring them up (monotone: more light is never shallower).

    With `cruisers` sun and wave bring fish up into the top metre as well; under a grey sky over
    ripple or wave fish come up (`lift`); `pressured` fish mind the light more and lie a band deeper. `sky` is what
    was read of it, in words.
    """
    at_surface = float(np.log(light.surface / EASY_LIGHT))
    # Never comfortable below the bed: in water too shallow for that the bed is as good as it gets.
    down_to = min(comfort_depth_m(light), float(depths[-1]))
    too_bright = max(0.0, at_surface) * np.maximum(0.0, 1.0 - depths / max(down_to, 1e-6))
    seen_from = (light.secchi_m / USUAL_SECCHI_M) ** SECCHI_POWER * (PRESSURED_MIND if pressured else 1.0)
    dusk = float(np.clip(-at_surface / 3.0, 0, 1))
    log_weight = -0.7 * seen_from * too_bright + 0.9 * dusk * np.exp(-depths / 1.5)
    words = _light_words(light, down_to, down_to >= float(depths[-1]), sky, lift > 0)
    if lift > 0:
        log_weight = log_weight + lift * np.exp(-depths / LIFT_FADES_M)
    if cruisers:
        log_weight = log_weight + CRUISERS_WEIGHT / (1.0 + np.exp((depths - CRUISERS_TO_M) / CRUISERS_SOFT_M))
        words += " Sun with a good wave: cruisers come up into the top metre, along the foam."
    if light.guessed:
        words += f" ({', '.join(light.guessed).capitalize()} guessed.)"
    return Factor("light", log_weight, words, len(light.guessed) < 3)


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


def food_factor(
    depths: NDArray[np.float64], food: Availability, place: Place, bed_m: float, easy_light_m: float | None = None
) -> Factor:
    """Weight depths by where the food available now is at this kind of place; `easy_light_m` [m] moves drifting clouds."""
    density, brings = food_density(food.share, depths, bed_m, place.kind, easy_light_m)
    # Against food spread evenly over a usual depth, so that places of other depths compare by what a metre of them holds.
    relative = _moved(density) * USUAL_BED_M / CELL_M
    names = " and ".join(BY_KEY[key].name.lower() for key in sorted(brings, key=lambda k: -brings[k])[:2])
    seen = "what you saw and the season" if food.sightings else "the season alone"
    trust = 1.0 if food.sightings else 0.6
    return Factor("food", trust * np.log(relative + 0.25), f"By {seen}, here mostly {names}.", food.sightings > 0)


# How much rises weigh by how many: a few are noise, some a reason to have a rod ready, many the plan. Common practice,
# figures ours.
NOTHING_RISES = 0.7
RISES_WEIGH = {"few": 0.0, "some": 1.0, "many": 2.2}


def rising(sightings: tuple[Sighting, ...]) -> str | None:
    """Return how many fish feed at the top, 'few', 'some' or 'many', by all rises noted; None where none does."""
    seen = [s.abundance for s in sightings if s.rise not in (None, "leap")]
    if not seen:
        return None
    total = sum(ABUNDANCE_COUNT[one] for one in seen)
    return next(name for name in ("many", "some", "few") if total >= ABUNDANCE_COUNT[name])


def rises_factor(depths: NDArray[np.float64], sightings: tuple[Sighting, ...], heat: float = 0.0) -> Factor:
    """Fish seen feeding at the top weigh on the top 0.6 m: a few do not, in the heat they fade (`heat`, 0 to 1)."""
    count = rising(sightings)
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


def season_of(when: datetime, hemisphere: str) -> str:
    """Return 'winter', 'spring', 'summer' or 'autumn' for a date (meteorological seasons, turned for the south)."""
    month = (when.month + (6 if hemisphere == "south" else 0) - 1) % 12 + 1
    return ("winter", "spring", "summer", "autumn")[month % 12 // 3]


def _cold_habit(season: str, water: Water, reading: Reading, bed_m: float) -> tuple[float, float, str] | None:
    """Where trout are met in cold water: centre and spread [m] and the sentence, or None when it is not cold."""
    surface = reading.surface_c
    if surface is None or not 3 <= surface < 9:
        return None
    if season == "spring":
        centre = min(2.7, 0.7 * bed_m)
        where = "2.4 to 3 m down" if bed_m >= 3.2 else f"low down, about {centre:.1f} m here,"
        return centre, 0.9, f"Cold water early in the season: {where} is where most are met."
    if season in ("winter", "autumn") and water.max_depth_m <= 4:
        return 0.3, 0.4, "Cold on a small water: often in the top 0.6 m."
    if season in ("winter", "autumn") and reading.clarity in ("gin-clear", "clear"):
        centre = max(min(4.0, bed_m - 0.6), 0.3)
        where = (
            "3 to 5 m down, some 0.6 m off the bottom"
            if bed_m >= 3.6
            else f"about {centre:.1f} m down here, off the bottom"
        )
        if bed_m < CLEAR_COLD_FROM_M:
            return None
        return centre, 0.9, f"Cold on a big clear water: {where}."
    return None


def _heat_habit(reading: Reading) -> tuple[float, float, str] | None:
    """Where trout are met in heat over a thermocline: centre and spread [m] and the sentence, or None when it is not hot."""
    layer = find_thermocline(reading.profile)
    if layer is None or reading.surface_c is None or reading.surface_c < HEAT_C:
        return None
    centre = (layer.depth_m + layer.bottom_m) / 2
    above = np.linspace(0.0, centre, 101)
    oxygen = oxygen_at(reading.profile, above)
    if oxygen is not None and (oxygen >= EASY_OXYGEN_MG_L).any():
        centre = float(above[oxygen >= EASY_OXYGEN_MG_L][-1])
    words = (
        f"Warm top: most are met along the thermocline, near {centre:.0f} m, in the coolest water sure to have oxygen."
    )
    return centre, max(1.2, layer.bottom_m - layer.depth_m), words


# Without heat or a habit of the season few feed far down: little food lives below some 7.5 m. Common practice, ours.
DEEP_FROM_M, DEEP_PER_METRE = 6.0, 0.15
# Below the layer that changes fastest few feed while the water above it suits them. Common practice, figures ours.
UNDER_LAYER_WEIGHT, UNDER_LAYER_M, LAYER_FROM_C = 1.2, 0.4, 12.0


def _layer_habit(depths: NDArray[np.float64], reading: Reading) -> tuple[NDArray[np.float64], str] | None:
    """How much less trout are looked for under a thermocline while the water above it suits them; None where it does not."""
    layer = find_thermocline(reading.profile)
    if layer is None or reading.surface_c is None or not LAYER_FROM_C <= reading.surface_c < HEAT_C:
        return None
    under = 1.0 / (1.0 + np.exp(-(depths - layer.bottom_m) / UNDER_LAYER_M))
    return (
        -UNDER_LAYER_WEIGHT * under,
        f"Layered: fish keep above or at the thermocline, few go below {layer.bottom_m:.0f} m.",
    )


CLEAR_COLD_FROM_M = 3.2  # shallower places have no such water
# The edges of cold water: knee-deep ones are empty until the spring sun warms them. Common practice, figures ours.
COLD_BELOW_C, KNEE_DEEP_M, EDGE_TO_BED_M, EDGE_TOP_M = 9.0, 1.5, 3.0, 1.5
EMPTY_WEIGHT, WARM_EDGE_WEIGHT, SUNNY_OKTAS = 0.9, 1.8, 3


def _edge_habit(
    depths: NDArray[np.float64], water: Water, reading: Reading, bed_m: float, when: datetime
) -> tuple[NDArray[np.float64], str] | None:
    """What cold does to shallow edges: the spring sun warms them first, without it the knee-deep ones are empty."""
    surface, cloud = reading.surface_c, reading.cloud_oktas
    if surface is None or surface >= COLD_BELOW_C or bed_m > EDGE_TO_BED_M:
        return None
    if season_of(when, water.hemisphere) == "spring" and cloud is not None and cloud <= SUNNY_OKTAS:
        top = 1.0 / (1.0 + np.exp((depths - EDGE_TOP_M) / 0.2))
        return (
            WARM_EDGE_WEIGHT * top,
            "Spring sun on cold water: the shallow edge warms first, its top metre and a half.",
        )
    if bed_m < KNEE_DEEP_M and water.max_depth_m > EDGE_TO_BED_M:
        return np.full_like(depths, -EMPTY_WEIGHT), "Cold, and knee-deep: few come in here before it warms."
    return None


def season_factor(depths: NDArray[np.float64], water: Water, reading: Reading, bed_m: float, when: datetime) -> Factor:
    """The trade's habits: cold-water depths by season, the thermocline in heat; else flat."""
    log_weight = np.zeros_like(depths)
    parts = []
    edge = _edge_habit(depths, water, reading, bed_m, when)
    warm_edge = edge is not None and bool(edge[0].max() > 0)
    cold = None if warm_edge else _cold_habit(season_of(when, water.hemisphere), water, reading, bed_m)
    if cold is not None:
        centre, spread, words = cold
        fresh = fresh_share(water)
        log_weight = log_weight + (1.0 - fresh) * 1.6 * np.exp(-0.5 * ((depths - centre) / spread) ** 2)
        parts.append(f"{words} The fresh fish do not keep to it yet." if fresh > 0.5 else words)
    heat = _heat_habit(reading)
    if heat is not None:
        centre, spread, words = heat
        log_weight = log_weight + np.exp(-0.5 * ((depths - centre) / spread) ** 2)
        parts.append(words)
    if edge is not None:
        log_weight = log_weight + edge[0]
        parts.append(edge[1])
    layered = _layer_habit(depths, reading)
    if layered is not None:
        log_weight = log_weight + layered[0]
        parts.append(layered[1])
    if heat is None and reading.surface_c is not None:
        log_weight = log_weight - DEEP_PER_METRE * np.maximum(0.0, depths - DEEP_FROM_M)
    if not parts:
        return Factor("season", log_weight, "Neither cold water nor heat to go by.", False)
    return Factor("season", log_weight, " ".join(parts), True)


def place_factor(depths: NDArray[np.float64], reading: Reading, place: Place, school: str = "by-water") -> Factor:
    """Shores the wind blows onto gather food and warm water; cold wind takes that away. Same at every depth.

    `school` is where the angler likes to stand: 'onto' that shore even in cold water, 'off' it on the sheltered one.
    """
    flat = np.zeros_like(depths)
    if reading.wind_from_deg is None or reading.wind_m_s is None:
        missing = "Wind" if reading.wind_m_s is None else "Where the wind comes from was"
        return Factor("wind", flat, f"{missing} not read.", False)
    blows = f"Wind {compass_point(reading.wind_from_deg)}, onto the {downwind_shore(reading.wind_from_deg)} shore."
    if place.facing_deg is None:
        return Factor("wind", flat, f"{blows} Which way this place faces is not noted.", False)
    cold = reading.surface_c is not None and reading.surface_c < 8 and school == "by-water"
    onto = onto_shore(reading.wind_from_deg, place.facing_deg)
    sign = -1.0 if school == "off" else 1.0
    strength = 0.0 if cold else sign * 0.5 * onto * min(reading.wind_m_s / 5.0, 1.0)
    if cold:
        words = f"{blows} In water this cold the wind's shore is no better."
    elif abs(onto) < 0.3:
        words = f"{blows} It blows along this place."
    else:
        words = f"{blows} It blows {'onto' if onto > 0 else 'off'} this place."
    if school == "off":
        words += " You like the sheltered shore."
    return Factor("wind", np.full_like(depths, strength), words, True)
