"""Light: how high the sun stands, how much gets through cloud and ripple, how fast the water takes it away."""

from __future__ import annotations

import math
from dataclasses import dataclass
from datetime import datetime

from astral import Observer
from astral import sun as astral_sun

# Secchi depths taken for the words anglers use, middle and range [m]. Common practice, no source.
CLARITY_SECCHI_M = {
    "gin-clear": (6.0, 4.5, 9.0),
    "clear": (3.5, 2.5, 4.5),
    "slightly-coloured": (1.8, 1.2, 2.5),
    "coloured": (0.8, 0.4, 1.2),
}
UNKNOWN_SECCHI_M = (2.5, 1.0, 5.0)
# Latitude assumed where a water gives only its hemisphere: a guess, and said to be one.
GUESSED_LATITUDE_DEG = 50.0


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

    def at(self, depth_m: float) -> float:
        """Return the share of full sun left at `depth_m` [m] (Beer-Lambert)."""
        return self.surface * math.exp(-self.attenuation_per_m * depth_m)


def sun_elevation_deg(latitude_deg: float, longitude_deg: float, when: datetime) -> float:
    """Return the sun's geometric elevation [deg] above the horizon at a place (WGS84, degrees) and an aware instant.

    By the `astral` library (NOAA solar equations). Raises ValueError for a naive `when`.
    """
    if when.tzinfo is None:
        raise ValueError("the instant needs a time zone")
    return float(astral_sun.elevation(Observer(latitude_deg, longitude_deg), when, with_refraction=False))


def sun_elevation_by_hemisphere(hemisphere: str, local: datetime) -> float:
    """Return the sun's elevation [deg] where only the hemisphere is known: latitude 50°, clock time taken as sun time.

    Declination by Cooper (1969), from memory. A guess for planning, good to some ten degrees.
    """
    latitude = math.radians(GUESSED_LATITUDE_DEG if hemisphere == "north" else -GUESSED_LATITUDE_DEG)
    day = local.timetuple().tm_yday
    declination = math.radians(23.45 * math.sin(2 * math.pi * (284 + day) / 365))
    hour_angle = math.radians(15 * (local.hour + local.minute / 60 - 12))
    sine = math.sin(latitude) * math.sin(declination) + math.cos(latitude) * math.cos(declination) * math.cos(
        hour_angle
    )
    return math.degrees(math.asin(sine))


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
    surface = height * through_cloud * RIPPLE_COVER[ripple]
    return Light(sun_deg, surface, attenuation_from_secchi(secchi), secchi, tuple(guessed))
