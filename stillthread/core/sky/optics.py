"""How light crosses the surface: what is lost, what a trout sees of the angler, where a seen fish really is."""

from __future__ import annotations

import math

WATER_INDEX = 1.333


def refracted_deg(incidence_deg: float) -> float:
    """Return the angle from the vertical [deg] in the water for light coming in at an angle from the vertical [deg] (Snell).

    Raises ValueError outside 0 to 90.
    """
    if not 0 <= incidence_deg <= 90:
        raise ValueError("the angle runs from 0 to 90 degrees")
    return math.degrees(math.asin(math.sin(math.radians(incidence_deg)) / WATER_INDEX))


def reflectance(incidence_deg: float) -> tuple[float, float, float]:
    """Return the share of light a flat surface throws back: unpolarised, s and p polarised (Fresnel), each 0 to 1.

    `incidence_deg` [deg] from the vertical, in air. Raises ValueError outside 0 to 90.
    """
    inside = math.radians(refracted_deg(incidence_deg))
    outside = math.radians(incidence_deg)
    if incidence_deg >= 90:
        return 1.0, 1.0, 1.0
    ci, ct = math.cos(outside), math.cos(inside)
    s = ((ci - WATER_INDEX * ct) / (ci + WATER_INDEX * ct)) ** 2
    p = ((WATER_INDEX * ci - ct) / (WATER_INDEX * ci + ct)) ** 2
    return (s + p) / 2, s, p


def window_radius_m(fish_depth_m: float) -> float:
    """Return the radius [m] of the round window at the surface a trout at a depth [m] sees out through (flat water).

    Depth times the tangent of the critical angle, 48.6°. Raises ValueError for a negative depth.
    """
    if fish_depth_m < 0:
        raise ValueError("depth must not be negative")
    return fish_depth_m * math.tan(math.asin(1 / WATER_INDEX))


def seen_by_fish(height_m: float, fish_depth_m: float, distance_m: float) -> tuple[float, float, float]:
    """Return where the sight line from a fish to something above the water crosses the surface, and its two angles.

    For a thing `height_m` [m] high, `distance_m` [m] away, seen by a fish `fish_depth_m` [m] down: the crossing's
    distance [m] from above the fish, the angle from the vertical at the fish [deg], and how high above the water the
    ray comes in [deg] (Snell, flat water). Raises ValueError unless all are positive.
    """
    if not min(height_m, fish_depth_m, distance_m) > 0:
        raise ValueError("height, depth and distance must be positive")

    def miss(x: float) -> float:
        fish = x / math.hypot(x, fish_depth_m)
        air = (distance_m - x) / math.hypot(distance_m - x, height_m)
        return WATER_INDEX * fish - air

    low, high = 0.0, distance_m
    for _ in range(80):
        middle = (low + high) / 2
        low, high = (middle, high) if miss(middle) < 0 else (low, middle)
    x = (low + high) / 2
    return x, math.degrees(math.atan2(x, fish_depth_m)), math.degrees(math.atan2(height_m, distance_m - x))


def apparent_depth_m(depth_m: float, sight_from_vertical_deg: float = 0.0) -> float:
    """Return how deep a fish at a depth [m] looks from above, at the same horizontal distance [m] (Snell, straight sight line).

    `sight_from_vertical_deg` [deg] is the angle of the sight line in air. Raises ValueError at or beyond 90.
    """
    if not 0 <= sight_from_vertical_deg < 90:
        raise ValueError("the angle runs from 0 to below 90 degrees")
    if sight_from_vertical_deg < 1e-6:
        return depth_m / WATER_INDEX
    inside = math.radians(refracted_deg(sight_from_vertical_deg))
    return depth_m * math.tan(inside) / math.tan(math.radians(sight_from_vertical_deg))


# Share of the reflection that polarised glasses let through is the p part; above this the sky hides what is below.
CLEAR_VIEW = 0.1


def clear_view_m(eye_height_m: float) -> float:
    """Return how far out [m] polarised glasses see into flat water from an eye height [m] above it.

    To where the surface throws back a tenth of the light the glasses let through (p polarised, Fresnel); our limit.
    Raises ValueError unless the height is positive.
    """
    if not eye_height_m > 0:
        raise ValueError("eye height must be positive")
    low, high = 53.1, 89.9  # p reflection is nil at 53.1° and only rises beyond it
    for _ in range(60):
        middle = (low + high) / 2
        low, high = (middle, high) if reflectance(middle)[2] < CLEAR_VIEW else (low, middle)
    return eye_height_m * math.tan(math.radians(low))
