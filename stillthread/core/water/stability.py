"""How firmly the layers stand against today's wind: Schmidt stability, Wedderburn and Lake numbers, the tilt."""

from __future__ import annotations

import math
from dataclasses import dataclass, replace
from typing import Annotated

import numpy as np
from annotated_types import Ge, Le
from numpy.typing import NDArray

from stillthread.core.errors import InputError, Problem
from stillthread.core.limits import Depth
from stillthread.core.units import GRAVITY_M_S2
from stillthread.core.water.density import fresh_water_density
from stillthread.core.water.layers import Layers, Thermocline
from stillthread.core.water.profile import Point

AIR_DENSITY_KG_M3 = 1.225
# Drag of the wind on the water at 10 m height in moderate winds (Hicks 1972 gives 1.0 to 1.5e-3, from memory).
WIND_DRAG = 1.3e-3
GRID_M = 0.01


@dataclass(frozen=True)
class Contour:
    """One row of the depth-area table: the area [m²] of the lake at a depth [m] below the surface."""

    depth_m: Depth
    area_m2: Annotated[float, Ge(0), Le(1e11)]


@dataclass(frozen=True)
class Stability:
    """How the wind and the layers stand against each other; None where an input is missing.

    `schmidt_j_m2` is the work [J/m²] it takes to mix the lake; `tilt_m` how far [m] the thermocline goes down at the
    downwind end and comes up at the upwind end; `seiche_h` the period [h] of its rocking after the wind drops.
    """

    schmidt_j_m2: float | None = None
    wedderburn: float | None = None
    lake_number: float | None = None
    tilt_m: float | None = None
    seiche_h: float | None = None
    length_m: float | None = None
    sentence: str = ""
    guessed: tuple[str, ...] = ()


def checked_hypsography(
    table: tuple[Contour, ...], max_depth_m: float | None = None, path: str = "hypsography"
) -> tuple[Contour, ...]:
    """Return a depth-area table that can be integrated; `max_depth_m` [m] is the water's greatest depth if known.

    Raises InputError naming each bad row: first depth not 0, depths not increasing, areas growing downwards, an area
    that is not positive at the top, or fewer than two rows.
    """
    problems = []
    if len(table) < 2:
        problems.append(Problem("too_short", path, "One row makes no lake.", "two rows or more, from the surface down"))
    for i, row in enumerate(table):
        here = f"{path}[{i}]"
        if not (math.isfinite(row.depth_m) and row.depth_m >= 0 and math.isfinite(row.area_m2) and row.area_m2 >= 0):
            problems.append(Problem("range", here, "Depth and area cannot be below zero.", "0 or more"))
        elif i == 0 and row.depth_m != 0:
            problems.append(
                Problem("range", f"{here}.depth_m", "The first row is not the surface.", "0 m in the first row")
            )
        elif i == 0 and row.area_m2 <= 0:
            problems.append(Problem("range", f"{here}.area_m2", "The surface has no area.", "more than 0 m²"))
        elif i > 0 and row.depth_m <= table[i - 1].depth_m:
            problems.append(
                Problem(
                    "unsorted_depth",
                    f"{here}.depth_m",
                    f"{row.depth_m:g} m does not lie below {table[i - 1].depth_m:g} m.",
                    "depths going down",
                )
            )
        elif i > 0 and row.area_m2 > table[i - 1].area_m2:
            problems.append(
                Problem(
                    "area_grows",
                    f"{here}.area_m2",
                    "The lake cannot be wider below than above.",
                    f"at most {table[i - 1].area_m2:g} m²",
                )
            )
        elif max_depth_m is not None and row.depth_m > max_depth_m + 1e-9:
            problems.append(
                Problem(
                    "below_bed",
                    f"{here}.depth_m",
                    f"The water is {max_depth_m:g} m at its deepest.",
                    f"0 to {max_depth_m:g} m",
                )
            )
    if problems:
        raise InputError(problems)
    return table


def _grid(table: tuple[Contour, ...]) -> tuple[NDArray[np.float64], NDArray[np.float64]]:
    """Depths [m] at cell middles and the area [m²] there, linear between contours."""
    depth = np.array([row.depth_m for row in table])
    count = max(int(round(depth[-1] / GRID_M)), 50)
    edges = np.linspace(0, depth[-1], count + 1)
    z = (edges[1:] + edges[:-1]) / 2
    return z, np.interp(z, depth, np.array([row.area_m2 for row in table]))


def volume_m3(table: tuple[Contour, ...]) -> float:
    """Return the lake's volume [m³] from its depth-area table, area linear between contours."""
    z, area = _grid(table)
    return float(area.sum() * 2 * z[0])


def centre_of_volume_m(table: tuple[Contour, ...]) -> float:
    """Return the depth [m] of the centre of the lake's volume."""
    z, area = _grid(table)
    return float((z * area).sum() / area.sum())


def schmidt_from_density(
    depths_m: NDArray[np.float64], density_kg_m3: NDArray[np.float64], table: tuple[Contour, ...]
) -> float:
    """Return the Schmidt stability [J/m²]: g / A0 · ∫ (z - z_v) ρ(z) A(z) dz (Idso 1973).

    `depths_m` [m] and `density_kg_m3` [kg/m³] are samples going down, linear between and held beyond them.
    """
    z, area = _grid(table)
    rho = np.interp(z, depths_m, density_kg_m3)
    centre = (z * area).sum() / area.sum()
    return float(GRAVITY_M_S2 / table[0].area_m2 * ((z - centre) * rho * area).sum() * 2 * z[0])


def schmidt_stability_j_m2(points: tuple[Point, ...], table: tuple[Contour, ...]) -> float:
    """Return the Schmidt stability [J/m²] of a temperature profile in a lake with a depth-area table (Idso 1973).

    Raises ValueError without samples.
    """
    if not points:
        raise ValueError("no temperatures")
    z = np.array([p.depth_m for p in points])
    return schmidt_from_density(z, fresh_water_density([p.temperature_c for p in points]), table)


def friction_velocity_m_s(wind_m_s: float, water_density_kg_m3: float = 999.7) -> float:
    """Return the friction velocity in the water [m/s] under a 10 m wind [m/s]: sqrt(ρ_air C_d U² / ρ_water), C_d 1.3e-3."""
    return math.sqrt(AIR_DENSITY_KG_M3 * WIND_DRAG / water_density_kg_m3) * wind_m_s


def wedderburn_number(
    density_step_kg_m3: float, upper_m: float, friction_m_s: float, lower_density_kg_m3: float, length_m: float
) -> float:
    """Return the Wedderburn number: g' h₁² / (u*² L), with g' = g Δρ / ρ (Imberger & Patterson 1990).

    `density_step_kg_m3` [kg/m³] between the layers, `upper_m` [m] thickness of the upper one, `friction_m_s` [m/s]
    friction velocity in the water, `length_m` [m] of the lake along the wind. Raises ValueError unless friction and
    length are positive.
    """
    if not (friction_m_s > 0 and length_m > 0):
        raise ValueError("wind and length must be positive")
    reduced = GRAVITY_M_S2 * density_step_kg_m3 / lower_density_kg_m3
    return reduced * upper_m**2 / (friction_m_s**2 * length_m)


def lake_number(
    schmidt_j_m2: float,
    top_m: float,
    bottom_m: float,
    friction_m_s: float,
    lower_density_kg_m3: float,
    table: tuple[Contour, ...],
) -> float:
    """Return the Lake number: S (z_top + z_bottom) / (2 ρ u*² √A₀ z_v) (Imberger & Patterson 1990, as in Read et al. 2011).

    `schmidt_j_m2` [J/m²]; `top_m` and `bottom_m` [m] of the metalimnion; `friction_m_s` [m/s] in the water;
    `lower_density_kg_m3` [kg/m³] below it. Raises ValueError unless the friction velocity is positive.
    """
    if not friction_m_s > 0:
        raise ValueError("wind must be positive")
    force = lower_density_kg_m3 * friction_m_s**2 * math.sqrt(table[0].area_m2) * centre_of_volume_m(table)
    return schmidt_j_m2 * (top_m + bottom_m) / (2 * force)


def seiche_period_s(
    length_m: float, upper_m: float, lower_m: float, density_step_kg_m3: float, lower_density_kg_m3: float
) -> float:
    """Return the period [s] of the first internal seiche of two layers: 2 L / √(g' h₁ h₂ / (h₁ + h₂)) (Merian's formula).

    Lengths [m], densities [kg/m³]. Raises ValueError unless all are positive.
    """
    if not min(length_m, upper_m, lower_m, density_step_kg_m3) > 0:
        raise ValueError("lengths and density step must be positive")
    reduced = GRAVITY_M_S2 * density_step_kg_m3 / lower_density_kg_m3
    return 2 * length_m / math.sqrt(reduced * upper_m * lower_m / (upper_m + lower_m))


def _sentence(number: float, tilt_m: float, upper_m: float) -> str:
    if number < 1:
        return "This wind can bring the cold lower water up to the surface at the upwind shore: expect cold, mixed water there."
    if tilt_m >= 0.5:
        return (
            f"This wind, held for hours, tilts the layers: the thermocline some {tilt_m:.1f} m deeper at the downwind shore "
            f"and as much shallower at the upwind shore."
        )
    if number < 10:
        return "This wind rocks the layers a little: the thermocline moves by some decimetres."
    return f"The layers stand firm: this wind moves the thermocline by less than {max(tilt_m, 0.05):.1f} m and mixes no more than the top {upper_m:.0f} m."


def _layer_densities(points: tuple[Point, ...], depth_m: float) -> tuple[float, float]:
    """Mean density [kg/m³] of the samples above and below a depth."""
    rho = fresh_water_density([p.temperature_c for p in points])
    above = [float(r) for r, p in zip(rho, points, strict=True) if p.depth_m <= depth_m]
    below = [float(r) for r, p in zip(rho, points, strict=True) if p.depth_m > depth_m]
    return sum(above) / max(len(above), 1), sum(below) / max(len(below), 1)


def read_stability(
    points: tuple[Point, ...],
    layers: Layers,
    bed_m: float,
    wind_m_s: float | None,
    length_m: float | None,
    table: tuple[Contour, ...] = (),
) -> Stability:
    """Return how firmly the layers stand against a wind [m/s] along a lake of `length_m` [m], `bed_m` [m] deep.

    Without a length the table's area as a circle gives one: a guess. The tilt at each end is h₁ / (2 W) (Spigel &
    Imberger 1980, from memory), at most the depth of the thermocline. Whatever lacks its inputs is None.
    """
    guessed = []
    schmidt = schmidt_stability_j_m2(points, table) if table and points else None
    if table and points and points[-1].depth_m < table[-1].depth_m - 1:
        guessed.append("water below the deepest reading")
    if length_m is None and table:
        length_m = 2 * math.sqrt(table[0].area_m2 / math.pi)
        guessed.append("length of the lake along the wind")
    known = Stability(schmidt_j_m2=schmidt, length_m=length_m, guessed=tuple(guessed))
    main = layers.main
    if main is None or layers.state not in ("layered", "weak"):
        words = "No layers to tilt." if layers.state in ("mixed", "skin") else "Not enough read to tell."
        return replace(known, sentence=words)
    upper, lower = _layer_densities(points, main.depth_m)
    step = lower - upper
    if step <= 0 or length_m is None or not length_m > 0:
        words = "To see how far the wind tilts the layers, note the fetch, the outline or the depth-area table."
        return replace(known, sentence=words)
    period_s = seiche_period_s(
        length_m=length_m,
        upper_m=main.depth_m,
        lower_m=max(bed_m - main.depth_m, 0.5),
        density_step_kg_m3=step,
        lower_density_kg_m3=lower,
    )
    known = replace(known, seiche_h=period_s / 3600)
    if wind_m_s is None or wind_m_s < 0.1:
        return replace(known, sentence="Wind not read." if wind_m_s is None else "Without wind the layers lie level.")
    return _under_wind(known=known, main=main, wind_m_s=wind_m_s, step=step, densities=(upper, lower), table=table)


def _under_wind(
    known: Stability,
    main: Thermocline,
    wind_m_s: float,
    step: float,
    densities: tuple[float, float],
    table: tuple[Contour, ...],
) -> Stability:
    """What a wind does to layers whose length and density step are known."""
    friction = friction_velocity_m_s(wind_m_s, densities[0])
    number = wedderburn_number(
        density_step_kg_m3=step,
        upper_m=main.depth_m,
        friction_m_s=friction,
        lower_density_kg_m3=densities[1],
        length_m=known.length_m or 0.0,
    )
    tilt = min(main.depth_m / (2 * number), main.depth_m)
    lake = None
    if known.schmidt_j_m2 is not None:
        lake = lake_number(
            schmidt_j_m2=known.schmidt_j_m2,
            top_m=main.top_m,
            bottom_m=main.bottom_m,
            friction_m_s=friction,
            lower_density_kg_m3=densities[1],
            table=table,
        )
    words = _sentence(number, tilt, main.top_m)
    return replace(known, wedderburn=number, lake_number=lake, tilt_m=tilt, sentence=words)
