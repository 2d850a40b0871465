"""Temperature by depth: checking what was typed, and the curve through it."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Annotated

import numpy as np
from annotated_types import Ge, Le
from numpy.typing import ArrayLike, NDArray

from stillthread.core.errors import InputError, Problem
from stillthread.core.limits import Celsius
from stillthread.core.units import fahrenheit_to_c

TEMPERATURE_LIMITS_C = (-1.0, 40.0)
DEEPEST_LAKE_M = 300.0


@dataclass(frozen=True)
class Point:
    """One sample on the cord: depth below the surface [m], temperature [°C], dissolved oxygen [mg/L] if measured."""

    depth_m: float
    temperature_c: Celsius
    oxygen_mg_l: Annotated[float | None, Ge(0), Le(25)] = None


def _point_problems(point: Point, path: str, water_depth_m: float | None) -> list[Problem]:
    problems = []
    low, high = TEMPERATURE_LIMITS_C
    if not math.isfinite(point.depth_m) or point.depth_m < 0 or point.depth_m > DEEPEST_LAKE_M:
        problems.append(
            Problem(
                "depth_range",
                f"{path}.depth_m",
                f"{point.depth_m:g} m is not a depth in a lake.",
                f"0 to {DEEPEST_LAKE_M:g} m below the surface",
            )
        )
    elif water_depth_m is not None and point.depth_m > water_depth_m + 1e-9:
        problems.append(
            Problem(
                code="below_bed",
                path=f"{path}.depth_m",
                message=f"{point.depth_m:g} m lies below the bed: the water here is {water_depth_m:g} m deep.",
                accepted=f"0 to {water_depth_m:g} m",
                hint="Correct this depth, or the depth of water at the place.",
            )
        )
    if not math.isfinite(point.temperature_c) or not low <= point.temperature_c <= high:
        as_c = fahrenheit_to_c(point.temperature_c) if math.isfinite(point.temperature_c) else math.nan
        hint = f"Did you mean {point.temperature_c:g} °F? That is {as_c:.1f} °C." if low <= as_c <= high else ""
        problems.append(
            Problem(
                code="temperature_range",
                path=f"{path}.temperature_c",
                message=f"{point.temperature_c:g} °C is no lake water.",
                accepted=f"{low:g} to {high:g} °C",
                hint=hint,
            )
        )
    return problems


def checked_profile(
    points: list[Point] | tuple[Point, ...], water_depth_m: float | None = None, path: str = "profile"
) -> tuple[Point, ...]:
    """Return the samples as a tuple if they can be used as they stand.

    `points` run downwards, depths [m] and temperatures [°C]; `water_depth_m` [m] is the bed where it is known.
    Raises InputError naming every bad sample: out of range, below the bed, twice at one depth, or out of order.
    """
    problems: list[Problem] = []
    for index, point in enumerate(points):
        problems += _point_problems(point, f"{path}[{index}]", water_depth_m)
        if index == 0:
            continue
        before = points[index - 1].depth_m
        if point.depth_m == before:
            problems.append(
                Problem(
                    code="duplicate_depth",
                    path=f"{path}[{index}].depth_m",
                    message=f"{point.depth_m:g} m is there twice.",
                    accepted="one reading at each depth",
                    hint="Delete one of the two, or correct its depth.",
                )
            )
        elif point.depth_m < before:
            problems.append(
                Problem(
                    "unsorted_depth",
                    f"{path}[{index}].depth_m",
                    f"{point.depth_m:g} m comes after {before:g} m.",
                    "depths going down, each deeper than the one before",
                )
            )
    if problems:
        raise InputError(problems)
    return tuple(points)


def _pchip_slopes(z: NDArray[np.float64], t: NDArray[np.float64]) -> NDArray[np.float64]:
    """Slopes at the samples that keep a cubic monotone: the weighted harmonic mean of the secants on both sides.

    Fritsch & Butland (1984); the ends by the three-point formula of Moler (2004), both as the usual PCHIP has them.
    """
    h, secant = np.diff(z), np.diff(t) / np.diff(z)
    if len(secant) == 1:
        return np.array([secant[0], secant[0]])
    slopes = np.zeros_like(z)
    left, right = secant[:-1], secant[1:]
    w1, w2 = 2 * h[1:] + h[:-1], h[1:] + 2 * h[:-1]
    same = left * right > 0
    with np.errstate(divide="ignore", invalid="ignore", over="ignore"):
        slopes[1:-1] = np.where(same, (w1 + w2) / (w1 / left + w2 / right), 0.0)
    for end, (h0, h1, s0, s1) in (
        (0, (h[0], h[1], secant[0], secant[1])),
        (-1, (h[-1], h[-2], secant[-1], secant[-2])),
    ):
        slope = ((2 * h0 + h1) * s0 - h0 * s1) / (h0 + h1)
        if slope * s0 <= 0:
            slope = 0.0
        elif s0 * s1 <= 0 and abs(slope) > 3 * abs(s0):
            slope = 3 * s0
        slopes[end] = slope
    return slopes


def temperature_at(points: tuple[Point, ...], depths_m: ArrayLike) -> NDArray[np.float64]:
    """Return temperatures [°C] at `depths_m` [m] by monotone cubic interpolation (PCHIP, Fritsch & Carlson 1980).

    Written out here because importing scipy takes longer than a whole plan. Above the first and below the last sample
    the nearest sample's value is used: a guess. Raises ValueError without samples.
    """
    if not points:
        raise ValueError("no temperatures to interpolate")
    z = np.array([p.depth_m for p in points])
    t = np.array([p.temperature_c for p in points])
    wanted = np.clip(np.asarray(depths_m, dtype=float), z[0], z[-1])
    if len(points) == 1:
        return np.full(wanted.shape, t[0])
    slopes = _pchip_slopes(z, t)
    k = np.clip(np.searchsorted(z, wanted, side="right") - 1, 0, len(z) - 2)
    h = z[k + 1] - z[k]
    u = (wanted - z[k]) / h
    value = (
        (1 + 2 * u) * (1 - u) ** 2 * t[k]
        + u * (1 - u) ** 2 * h * slopes[k]
        + u**2 * (3 - 2 * u) * t[k + 1]
        + u**2 * (u - 1) * h * slopes[k + 1]
    )
    return np.asarray(value, dtype=np.float64)


def oxygen_at(points: tuple[Point, ...], depths_m: ArrayLike) -> NDArray[np.float64] | None:
    """Return dissolved oxygen [mg/L] at `depths_m` [m], linear between samples and held beyond, or None if unmeasured."""
    sampled = [(p.depth_m, p.oxygen_mg_l) for p in points if p.oxygen_mg_l is not None]
    if not sampled:
        return None
    z, o = zip(*sampled, strict=True)
    return np.asarray(np.interp(np.asarray(depths_m, dtype=float), z, np.array(o, dtype=float)), dtype=np.float64)
