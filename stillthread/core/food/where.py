"""Where each food is at a place: by depth, and how much at home it is there."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

from stillthread.core.food.catalogue import BY_KEY
from stillthread.core.food.prey import Layer, Prey

# Depth [m] where light is taken to turn easy when nobody says. A guess for clear water under a mixed sky.
GUESSED_EASY_LIGHT_M = 2.1


def _centre_m(layer: Layer, bed_m: float, easy_light_m: float | None) -> float:
    if layer.reference == "bottom":
        depth = bed_m - layer.offset_m
    elif layer.reference == "light":
        depth = (GUESSED_EASY_LIGHT_M if easy_light_m is None else easy_light_m) + layer.offset_m
    else:
        depth = layer.offset_m
    return min(max(depth, 0.0), bed_m)


def depth_density(
    prey: Prey,
    depths_m: NDArray[np.float64],
    bed_m: float,
    place_kind: str,
    easy_light_m: float | None = None,
    up: float = 1.0,
) -> NDArray[np.float64]:
    """Return where a prey is at a place: a density over `depths_m` [m] (sum 1), zero below `bed_m` [m].

    Layers are Gaussian about their offset from surface, bed or the depth `easy_light_m` [m] where light turns easy. A
    place kind the prey does not use, or a bed deeper than it lives on, scales the whole density down to the share of the prey
    that is away from home. Its stages at the surface count `up` times, where it was seen there.
    """
    density, whole = np.zeros_like(depths_m), 0.0
    for stage in prey.stages:
        times = up if stage.at_surface else 1.0
        for layer in stage.layers:
            centre = _centre_m(layer, bed_m, easy_light_m)
            shape = np.exp(-0.5 * ((depths_m - centre) / layer.spread_m) ** 2)
            shape[depths_m > bed_m] = 0.0
            density += times * layer.share * shape / max(float(shape.sum()), 1e-12)
            whole += times * layer.share
    return density * (1.0 if prey.at_home(place_kind, bed_m) else prey.away) / whole


def food_density(
    shares: dict[str, float],
    depths_m: NDArray[np.float64],
    bed_m: float,
    place_kind: str,
    easy_light_m: float | None = None,
    up: dict[str, float] | None = None,
) -> tuple[NDArray[np.float64], dict[str, float]]:
    """Return the food over depth at a kind of place, and how much of it each prey brings.

    `shares` is the share of each prey by key (sum 1); the density over `depths_m` [m] sums to 1 where every prey is at
    home. See `depth_density` for `bed_m` [m] and `easy_light_m` [m]; `up` is by prey.
    """
    total = np.zeros_like(depths_m)
    brings: dict[str, float] = {}
    for key, share in shares.items():
        part = share * depth_density(
            prey=BY_KEY[key],
            depths_m=depths_m,
            bed_m=bed_m,
            place_kind=place_kind,
            easy_light_m=easy_light_m,
            up=(up or {}).get(key, 1.0),
        )
        brings[key] = float(part.sum())
        total += part
    return total, brings
