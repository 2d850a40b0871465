"""Light: how much gets through cloud and ripple, how fast the water takes it away, when fish can be seen."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Literal

import numpy as np

from stillthread.core.sky.optics import reflectance

Clarity = Literal["gin-clear", "clear", "slightly-coloured", "coloured"]
# Secchi depths taken for the words anglers use, middle and range [m]. Common practice, no source.
CLARITY_SECCHI_M = {
    "gin-clear": (6.0, 4.5, 9.0),
    "clear": (3.5, 2.5, 4.5),
    "slightly-coloured": (1.8, 1.2, 2.5),
    "coloured": (0.8, 0.4, 1.2),
}
UNKNOWN_SECCHI_M = (2.5, 1.0, 5.0)
# Light at the surface [share of full sun] that an angler calls bright, and the most cloud with it. Our figures.
BRIGHT_LIGHT, BRIGHT_TO_OKTAS = 0.15, 5


@dataclass(frozen=True)
class Light:
    """Light on and in the water now.

    `surface` is the share of full overhead sun that enters the water as the fish see it, 0 to 1; `attenuation_per_m`
    [1/m] how fast it fades; `secchi_m` the Secchi depth used [m]; `guessed` names the inputs that were assumed.
    """

    sun_elevation_deg: float
    surface: float
    attenuation_per_m: float
    secchi_m: float
    guessed: tuple[str, ...]
    cloud_oktas: float | None = None

    @property
    def bright(self) -> bool:
        """Whether an angler would call it bright: strong light, and not more cloud than sky."""
        return self.surface >= BRIGHT_LIGHT and (self.cloud_oktas is None or self.cloud_oktas <= BRIGHT_TO_OKTAS)

    def at(self, depth_m: float) -> float:
        """Return the share of full sun left at `depth_m` [m] (Beer-Lambert)."""
        return self.surface * math.exp(-self.attenuation_per_m * depth_m)


def cloud_transmission(oktas: float) -> float:
    """Return the share of clear-sky light that passes `oktas` eighths of cloud: 1 - 0.75 (N/8)^3.4.

    Kasten & Czeplak (1980), from memory. Raises ValueError outside 0 to 8.
    """
    if not 0 <= oktas <= 8:
        raise ValueError("cloud runs from 0 to 8 oktas")
    return float(1.0 - 0.75 * (oktas / 8.0) ** 3.4)


def attenuation_from_secchi(secchi_m: float) -> float:
    """Return the vertical attenuation of light [1/m] from the Secchi depth [m]: 1.7 / Secchi depth.

    Poole & Atkins (1929), from memory; published factors run from 1.3 to 2.8. Raises ValueError unless positive.
    """
    if not secchi_m > 0:
        raise ValueError("Secchi depth must be positive")
    return 1.7 / secchi_m


def ripple_class(wind_m_s: float | None) -> str:
    """Return 'calm', 'ripple' or 'wave' for a mean wind [m/s]; 'unknown' for None.

    Common practice: below 1 m/s the surface is glassy, from about 5.5 m/s (Beaufort 4) there are waves.
    """
    if wind_m_s is None:
        return "unknown"
    if wind_m_s < 1.0:
        return "calm"
    return "ripple" if wind_m_s < 5.5 else "wave"


# How much of the light's effect on fish the surface lets through. Common practice, no source.
GREY_OKTAS, GREY_COVER = 7, 0.55  # from this cloud on no beam of sun is left, and nobody calls the day bright
RIPPLE_COVER = {"calm": 1.0, "unknown": 0.6, "ripple": 0.45, "wave": 0.3}


def read_light(
    sun_deg: float, cloud_oktas: float | None, ripple: str, clarity: str | None, secchi_m: float | None
) -> Light:
    """Return the light in the water from sun elevation [deg], cloud [oktas], ripple class and clarity.

    A measured Secchi depth [m] goes before the clarity word. Missing inputs take a middle value and are named in
    `guessed`.
    """
    guessed = []
    if cloud_oktas is None:
        guessed.append("cloud")
    if ripple == "unknown":
        guessed.append("wind")
    if secchi_m is None and clarity is None:
        guessed.append("clarity")
    secchi = secchi_m or (CLARITY_SECCHI_M[clarity][0] if clarity else UNKNOWN_SECCHI_M[0])
    through_cloud = cloud_transmission(4.0 if cloud_oktas is None else cloud_oktas)
    height = max(math.sin(math.radians(max(sun_deg, 0.0))), 1e-4)
    grey = GREY_COVER if cloud_oktas is not None and cloud_oktas >= GREY_OKTAS else 1.0
    surface = height * through_cloud * grey * RIPPLE_COVER[ripple]
    return Light(
        sun_elevation_deg=sun_deg,
        surface=surface,
        attenuation_per_m=attenuation_from_secchi(secchi),
        secchi_m=secchi,
        guessed=tuple(guessed),
        cloud_oktas=cloud_oktas,
    )


def attenuation_band_per_m(secchi_m: float) -> tuple[float, float]:
    """Return the lowest and highest attenuation of light [1/m] for a Secchi depth [m]: 1.3 and 2.8 over it (published factors, from memory).

    Raises ValueError unless the Secchi depth is positive.
    """
    if not secchi_m > 0:
        raise ValueError("Secchi depth must be positive")
    return 1.3 / secchi_m, 2.8 / secchi_m


# Light on the ground under a clear sky [lux] by the sun's elevation [deg], on a log scale between the rows: the usual
# table of the almanacs (Seidelmann 1992, Explanatory Supplement), from memory.
_CLEAR_SKY_LUX = (
    (-18, 6.5e-4), (-12, 8.3e-3), (-6, 3.4), (-0.8, 453.0), (0, 732.0), (5, 4.76e3), (10, 1.09e4), (15, 1.87e4),
    (20, 2.73e4), (30, 4.7e4), (40, 6.67e4), (50, 8.5e4), (60, 1.02e5), (70, 1.13e5), (80, 1.2e5), (90, 1.24e5),
)  # fmt: skip
CIVIL_TWILIGHT_LUX = 3.4


def clear_sky_lux(sun_deg: float) -> float:
    """Return the light on flat ground under a clear sky [lux] for the sun's elevation [deg] (table from memory, log-linear)."""
    heights, lux = zip(*_CLEAR_SKY_LUX, strict=True)
    return float(np.exp(np.interp(sun_deg, heights, np.log(lux))))


def light_under_surface_lux(sun_deg: float, cloud_oktas: float) -> float:
    """Return the light just below a flat surface [lux]: clear sky x cloud x what Fresnel's law lets in.

    The sun's beam is lost by its angle; light from the sky and from cloud comes from all over, with 6.6 % lost
    (Preisendorfer's figure for an even sky, from memory). The beam's share of the light under a clear sky is
    sin h / (sin h + 0.12), our figure.
    """
    sine = math.sin(math.radians(max(sun_deg, 0.0)))
    beam = sine / (sine + 0.12) * max(0.0, 1 - cloud_oktas / 8)
    through = beam * (1 - reflectance(90 - max(sun_deg, 0.1))[0]) + (1 - beam) * (1 - 0.066)
    return clear_sky_lux(sun_deg) * cloud_transmission(cloud_oktas) * through


def twilight_depth_m(lux: float, attenuation_per_m: float) -> float:
    """Return the depth [m] where light of `lux` [lux] just below the surface has faded to civil twilight; 0 if darker on top.

    Beer-Lambert with `attenuation_per_m` [1/m]. Raises ValueError unless the attenuation is positive.
    """
    if not attenuation_per_m > 0:
        raise ValueError("attenuation must be positive")
    return max(0.0, math.log(max(lux, 1e-9) / CIVIL_TWILIGHT_LUX) / attenuation_per_m)


# When fish can be seen through polarised glasses: the sun at least this high [deg], the sky at most this cloudy
# [oktas]. Common practice ("high bright sun, the sun behind you"), our figures.
SPOTTING_SUN_DEG = 30.0
SPOTTING_OKTAS = 3.0


def can_spot(sun_deg: float, cloud_oktas: float | None, clarity: str | None) -> bool:
    """Return True where cruising fish can be looked for: sun [deg] high, little cloud [oktas], water not coloured."""
    return sun_deg >= SPOTTING_SUN_DEG and (cloud_oktas or 0) <= SPOTTING_OKTAS and clarity != "coloured"


def looking_deg(azimuth_deg: float) -> float:
    """Return the bearing to look along [deg true] with the sun at `azimuth_deg` [deg true]: straight away from it."""
    return (azimuth_deg + 180) % 360


def glare_sector_deg(sun_deg: float, azimuth_deg: float) -> tuple[float, float] | None:
    """Return the sector of bearings [deg true] where the sun glitters off the water, clockwise, or None with the sun down.

    Wide when the sun is low: 45° either side of it, 25° above 50° of elevation (common practice, our figures).
    """
    if sun_deg <= 0:
        return None
    half = 45.0 if sun_deg < 50 else 25.0
    return (azimuth_deg - half) % 360, (azimuth_deg + half) % 360
