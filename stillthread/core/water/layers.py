"""How the water lies in layers: thermocline, warm skin, metalimnion, and how hard the layers are to mix."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from stillthread.core.units import GRAVITY_M_S2
from stillthread.core.water.density import fresh_water_density
from stillthread.core.water.profile import Point

# A thermocline is only named where top and bottom differ by at least this much [°C] (Read et al. 2011 use 1 °C).
MIXED_RANGE_C = 1.0
# Density gradient [kg/m³/m] that makes a metalimnion, and the least a seasonal thermocline may have (Read et al. 2011).
STEEP_GRADIENT = 0.1
# A steep part centred above this depth [m] is the day's warm skin, not the season's layer. Common practice, no source.
SKIN_DEPTH_M = 2.0
# Below this the water expands on cooling and layers upside down [°C].
DENSEST_C = 4.0
# Below this density hardly changes with temperature, and the temperature gradient is asked instead [°C]. Our figure.
COLD_C = 9.0
FEWEST_SAMPLES = 3


@dataclass(frozen=True)
class Thermocline:
    """A steep part of the profile: depth of its steepest point, top and bottom [m], drop [°C/m, positive = colder below].

    `kind` is 'seasonal' (the year's layer), 'skin' (warmed today, gone by night or wind), 'weak' (there in the
    temperature, too faint in density to hold against wind) or 'inverse' (under or just after ice, colder on top).
    """

    depth_m: float
    top_m: float
    bottom_m: float
    kind: str
    drop_c_per_m: float


@dataclass(frozen=True)
class Layers:
    """What the profile says of the layers.

    `state` is 'unknown' (too few samples), 'mixed', 'skin' (only a warm skin), 'weak', 'layered' or 'inverse'. `main`
    is the thermocline to go by, `skin` the day's warm skin where there is one, both None where there is none.
    `buoyancy_per_s2` has N² [1/s²] between each two samples.
    """

    state: str
    main: Thermocline | None
    skin: Thermocline | None
    buoyancy_per_s2: tuple[float, ...]
    sentence: str


def _samples(points: tuple[Point, ...]) -> tuple[NDArray[np.float64], NDArray[np.float64]]:
    return np.array([p.depth_m for p in points]), np.array([p.temperature_c for p in points])


def density_gradient(points: tuple[Point, ...]) -> NDArray[np.float64]:
    """Return the density gradient [kg/m³/m] between each two samples, positive where it is denser below."""
    z, t = _samples(points)
    return np.asarray(np.diff(fresh_water_density(t)) / np.diff(z), dtype=np.float64)


def buoyancy_frequency_squared(points: tuple[Point, ...]) -> NDArray[np.float64]:
    """Return N² [1/s²] between each two samples: (g / ρ) dρ/dz, with ρ the mean of the two.

    Standard limnology (Wetzel 2001, from memory). Negative where the water is about to turn over.
    """
    z, t = _samples(points)
    rho = fresh_water_density(t)
    mean = (rho[1:] + rho[:-1]) / 2
    return np.asarray(GRAVITY_M_S2 / mean * np.diff(rho) / np.diff(z), dtype=np.float64)


def _refined_depth(z: NDArray[np.float64], gradient: NDArray[np.float64], i: int) -> float:
    """Depth [m] of the largest gradient, weighted by how fast it falls off above and below (Read et al. 2011)."""
    if 0 < i < len(gradient) - 1 and gradient[i + 1] != gradient[i] and gradient[i] != gradient[i - 1]:
        below = -(z[i + 1] - z[i]) / (gradient[i + 1] - gradient[i])
        above = (z[i] - z[i - 1]) / (gradient[i] - gradient[i - 1])
        return float((z[i + 1] * below + z[i] * above) / (below + above))
    return float((z[i] + z[i + 1]) / 2)


def _edge(middle: NDArray[np.float64], gradient: NDArray[np.float64], start: int, step: int, least: float) -> float:
    """Depth [m] where the gradient falls below `least` going up (step -1) or down (1), linear between mid-points."""
    i = start
    while 0 <= i + step < len(gradient):
        here, there = gradient[i], gradient[i + step]
        if there < least:
            part = (here - least) / (here - there)
            return float(middle[i] + part * (middle[i + step] - middle[i]))
        i += step
    return float("nan")


def _steep_part(
    z: NDArray[np.float64], t: NDArray[np.float64], g: NDArray[np.float64], i: int, kind: str
) -> Thermocline:
    middle = (z[1:] + z[:-1]) / 2
    least = min(STEEP_GRADIENT, 0.5 * float(g[i]))
    top, bottom = (
        _edge(middle=middle, gradient=g, start=i, step=-1, least=least),
        _edge(middle=middle, gradient=g, start=i, step=1, least=least),
    )
    drop = float((t[i] - t[i + 1]) / (z[i + 1] - z[i]))
    depth = _refined_depth(z, g, i)
    return Thermocline(
        depth_m=depth,
        top_m=float(z[0]) if np.isnan(top) else min(top, depth),  # warmer water below can put the edge past the middle
        bottom_m=float(z[-1]) if np.isnan(bottom) else max(bottom, depth),
        kind=kind,
        drop_c_per_m=drop,
    )


def _peaks(gradient: NDArray[np.float64], least: float) -> list[int]:
    """Intervals steeper than both neighbours (or than the one there is) and at least `least`."""
    wide = np.concatenate([[-np.inf], gradient, [-np.inf]])
    return [i for i, g in enumerate(gradient) if g >= least and g > wide[i] and g >= wide[i + 2]]


def _inverse(z: NDArray[np.float64], t: NDArray[np.float64], n2: tuple[float, ...]) -> Layers:
    rise = np.abs(np.diff(t)) / np.diff(z)
    main = _steep_part(z=z, t=t, g=np.asarray(rise, dtype=np.float64), i=int(np.argmax(rise)), kind="inverse")
    words = "Colder on top than below: winter layering, the warmest water is at the bottom."
    return Layers(state="inverse", main=main, skin=None, buoyancy_per_s2=n2, sentence=words)


def _sentence(state: str, main: Thermocline | None, skin: Thermocline | None) -> str:
    if state == "layered" and main is not None:
        also = " A warm skin lies over it; wind or the night takes that away." if skin else ""
        return f"Layered: the thermocline lies at {main.depth_m:.1f} m, the steep part from {main.top_m:.1f} to {main.bottom_m:.1f} m.{also}"
    if state == "weak" and main is not None:
        return (
            f"Weakly layered: the temperature drops fastest at {main.depth_m:.1f} m, but a good wind can still mix it."
        )
    if state == "skin" and skin is not None:
        return f"No seasonal thermocline: only a warm skin in the top {max(skin.bottom_m, 0.5):.1f} m. Wind or the night mixes it."
    return "No thermocline: the water is mixed from top to bottom of what was read."


def read_layers(points: tuple[Point, ...]) -> Layers:
    """Return how a profile is layered.

    The seasonal thermocline is the deepest local peak of the density gradient of at least 0.1 kg/m³/m below 2 m, its
    depth moved between the samples by the slopes on its two sides, its top and bottom where the gradient falls below
    0.1 kg/m³/m (Read et al. 2011). A steep part above 2 m is a skin. In water below 9 °C, where density hardly changes,
    a fall of 1 °C or more is called weak layering. Colder on top and below 4 °C it is inverse. Fewer than three
    samples say nothing, a span under 1 °C says mixed.
    """
    if len(points) < FEWEST_SAMPLES:
        words = "Too few temperatures to see layers: read at least three depths."
        return Layers(state="unknown", main=None, skin=None, buoyancy_per_s2=(), sentence=words)
    z, t = _samples(points)
    n2 = tuple(float(v) for v in buoyancy_frequency_squared(points))
    if float(t.max() - t.min()) < MIXED_RANGE_C:
        return Layers(state="mixed", main=None, skin=None, buoyancy_per_s2=n2, sentence=_sentence("mixed", None, None))
    if t[0] < DENSEST_C and t[-1] > t[0]:
        return _inverse(z, t, n2)
    gradient = density_gradient(points)
    peaks = _peaks(gradient, STEEP_GRADIENT)
    shallow = [i for i in peaks if _refined_depth(z, gradient, i) < SKIN_DEPTH_M]
    deep = [i for i in peaks if i not in shallow]
    skin = (
        _steep_part(z=z, t=t, g=gradient, i=max(shallow, key=lambda i: gradient[i]), kind="skin") if shallow else None
    )
    if deep:
        main = _steep_part(z=z, t=t, g=gradient, i=deep[-1], kind="seasonal")
        return Layers(
            state="layered", main=main, skin=skin, buoyancy_per_s2=n2, sentence=_sentence("layered", main, skin)
        )
    if skin is not None:
        return Layers(state="skin", main=None, skin=skin, buoyancy_per_s2=n2, sentence=_sentence("skin", None, skin))
    fall = -np.diff(t) / np.diff(z)
    steepest = int(np.argmax(fall))
    if fall[steepest] <= 0 or t.max() >= COLD_C:
        words = (
            f"No thermocline: it changes by {t.max() - t.min():.1f} °C from top to bottom, too evenly to hold layers."
        )
        return Layers(state="mixed", main=None, skin=None, buoyancy_per_s2=n2, sentence=words)
    main = _steep_part(z=z, t=t, g=np.asarray(fall, dtype=np.float64), i=steepest, kind="weak")
    return Layers(state="weak", main=main, skin=None, buoyancy_per_s2=n2, sentence=_sentence("weak", main, None))


def find_thermocline(points: tuple[Point, ...]) -> Thermocline | None:
    """Return the seasonal thermocline of a profile, or None when there is none to speak of (mixed, weak, skin, inverse)."""
    layers = read_layers(points)
    return layers.main if layers.state == "layered" else None


def steepest_depth_m(points: tuple[Point, ...]) -> float | None:
    """Return the depth [m] of the largest density gradient anywhere, skin or not, or None in mixed water.

    The plain definition of Read et al. (2011), for comparing with other programs' figures.
    """
    if len(points) < FEWEST_SAMPLES:
        return None
    z, t = _samples(points)
    if float(t.max() - t.min()) < MIXED_RANGE_C:
        return None
    gradient = density_gradient(points)
    return _refined_depth(z, gradient, int(np.argmax(gradient)))
