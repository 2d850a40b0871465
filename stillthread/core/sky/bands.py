"""Parts of the day by the sun, and the light, in the few words a log is sorted by."""

from __future__ import annotations

from typing import Literal

from stillthread.core.sky.light import read_light
from stillthread.core.sky.sun import is_dark

SunPart = Literal["dark", "dawn", "early", "day", "late", "dusk"]
LightBand = Literal["dark", "low", "dull", "bright"]
# The sun's height [deg] up to which it is dawn or dusk, and up to which it is low: the hour about sunrise, and the two or
# three after it, at the latitudes trout are fished for. Common practice, figures ours.
UP_DEG, LOW_DEG = 3.0, 20.0


def sun_part(sun_deg: float, azimuth_deg: float) -> SunPart:
    """Return the part of the day from the sun's elevation and bearing [deg]: before noon it stands in the east.

    >>> sun_part(10.0, 100.0), sun_part(10.0, 250.0), sun_part(-2.0, 290.0)
    ('early', 'late', 'dusk')
    """
    morning = azimuth_deg % 360 < 180
    if is_dark(sun_deg):
        return "dark"
    if sun_deg < UP_DEG:
        return "dawn" if morning else "dusk"
    if sun_deg < LOW_DEG:
        return "early" if morning else "late"
    return "day"


def light_band(sun_deg: float, cloud_oktas: float | None, ripple: str) -> LightBand | None:
    """Return the light on the water from the sun's elevation [deg], cloud [oktas] and ripple; None where cloud is wanted and unknown."""
    if is_dark(sun_deg):
        return "dark"
    if sun_deg < LOW_DEG:
        return "low"
    if cloud_oktas is None:
        return None
    light = read_light(sun_deg=sun_deg, cloud_oktas=cloud_oktas, ripple=ripple, clarity=None, secchi_m=None)
    return "bright" if light.bright else "dull"
