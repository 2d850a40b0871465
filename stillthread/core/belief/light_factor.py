"""What the light says of depth: how far down it is comfortable, what a grey sky and a wave change, and the sky in words."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

from stillthread.core.belief.factor import Factor
from stillthread.core.noted.reading import SURFACE_RIPPLE, Reading
from stillthread.core.sky.light import GREY_OKTAS, Light, can_spot, ripple_class
from stillthread.core.trout.notice import EASY_LIGHT


def comfort_depth_m(light: Light) -> float:
    """Return the depth [m] below which light keeps no fish away; 0 where even the surface is easy on the eye."""
    return max(0.0, float(np.log(light.surface / EASY_LIGHT)) / light.attenuation_per_m)


# In clear water a fish in the light is seen from farther and lies lower: how that grows with the Secchi depth [m]. Ours.
USUAL_SECCHI_M, SECCHI_POWER = 3.0, 0.3
# Of too much light as a logarithm, and what of the light left on a bed too shallow to get out of it counts against the place. Ours.
LIGHT_WEIGHT, ON_BED = 0.7, 0.5
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
    # Never comfortable below the bed: in water too shallow for that the bed is as good as it gets there, and the place the
    # worse for the light that is left on it.
    down_to = min(comfort_depth_m(light), float(depths[-1]))
    on_bed = ON_BED * max(0.0, at_surface - light.attenuation_per_m * down_to)
    too_bright = max(0.0, at_surface) * np.maximum(0.0, 1.0 - depths / max(down_to, 1e-6))
    seen_from = (light.secchi_m / USUAL_SECCHI_M) ** SECCHI_POWER * (PRESSURED_MIND if pressured else 1.0)
    dusk = float(np.clip(-at_surface / 3.0, 0, 1))
    log_weight = -LIGHT_WEIGHT * seen_from * (too_bright + on_bed) + 0.9 * dusk * np.exp(-depths / 1.5)
    words = _light_words(light=light, down_to_m=down_to, to_bed=down_to >= float(depths[-1]), sky=sky, lifted=lift > 0)
    if lift > 0:
        log_weight = log_weight + lift * np.exp(-depths / LIFT_FADES_M)
    if cruisers:
        log_weight = log_weight + CRUISERS_WEIGHT / (1.0 + np.exp((depths - CRUISERS_TO_M) / CRUISERS_SOFT_M))
        words += " Sun with a good wave: cruisers come up into the top metre, along the foam."
    if light.guessed:
        words += f" ({', '.join(light.guessed).capitalize()} guessed.)"
    return Factor("light", log_weight, words, len(light.guessed) < 3)
