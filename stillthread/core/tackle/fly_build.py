"""A fly's build: hook, bead, wire, foam and dressing, added up to what it weighs in water and how much water it stirs.

Every figure is common practice put into numbers by us, and is shown to the angler as an assumption; a timed fly
(`sank 1 m in 9 s`) beats all of them.
"""

from __future__ import annotations

import math
from dataclasses import dataclass, replace
from typing import Annotated, Literal, get_args

from annotated_types import Ge, Gt, Le

WATER_KG_M3 = 1000.0
STEEL, LEAD_FREE_WIRE, SOAKED_FIBRE, FOAM = 7850.0, 7300.0, 1250.0, 200.0  # densities [kg/m³]
BEAD_DENSITY = {"tungsten": 17800.0, "brass": 8500.0, "glass": 2500.0, "plastic": 1180.0}
BEAD_SOLID_SHARE = 0.8  # the hole takes the rest
WIRE_MM = {"light": 0.80, "standard": 1.0, "heavy": 1.25}  # of the standard wire
Weight = Literal["buoyant", "unweighted", "weighted"]
Tone = Literal["dark", "natural", "pale", "bright"]
Bulk = Literal["bare", "slim", "medium", "bulky"]
BULKS = get_args(Bulk)
# Water a dressing stirs, as area [shank²], and its solid material [mm³ per shank mm].
BULK_AREA = {"bare": 0.12, "slim": 0.9, "medium": 2.8, "bulky": 6.0}
BULK_SOLID = {"bare": 0.0, "slim": 0.25, "medium": 0.6, "bulky": 1.5}
SMALLEST_HOOK, LARGEST_HOOK = 20, 4
Hook = Annotated[int, Ge(LARGEST_HOOK), Le(SMALLEST_HOOK)]


@dataclass(frozen=True)
class FlyBuild:
    """What a fly is tied with: hook size, wire grade, bead, turns of lead-free wire, foam [mm³], bulk of the dressing."""

    hook: Hook
    wire: Literal["light", "standard", "heavy"] = "standard"
    bead: Literal["tungsten", "brass", "glass", "plastic"] | None = None
    bead_mm: Annotated[float, Ge(0), Le(8)] = 0.0
    turns: Annotated[int, Ge(0), Le(60)] = 0
    turns_wire_mm: Annotated[float, Gt(0), Le(1.5)] = 0.4
    foam_mm3: Annotated[float, Ge(0), Le(2000)] = 0.0
    bulk: Bulk = "slim"


@dataclass(frozen=True)
class BuildSum:
    """A build added up: weight in water [g] (negative floats), area it stirs [m²], width [m], and the parts in words."""

    submerged_g: float
    area_m2: float
    width_m: float
    parts: tuple[tuple[str, float], ...]


def shank_mm(hook: int) -> float:
    """Return the shank length [mm] of a standard nymph hook of size `hook`: 12 mm at 10, a tenth less per size step.

    Common practice. Raises ValueError outside sizes 4 to 20.
    """
    if not LARGEST_HOOK <= hook <= SMALLEST_HOOK:
        raise ValueError("hook sizes run from 4 (large) to 20 (small)")
    return 12.0 * 0.91 ** (hook - 10)


def hook_wire_mm(hook: int, wire: str = "standard") -> float:
    """Return the wire diameter [mm] of a hook: 0.58 mm at size 10, thinner as hooks shrink; `wire` is its grade."""
    return 0.58 * 0.948 ** (hook - 10) * WIRE_MM[wire]


def _submerged_g(volume_mm3: float, density: float) -> float:
    return volume_mm3 * 1e-9 * (density - WATER_KG_M3) * 1e3


def add_up(build: FlyBuild) -> BuildSum:
    """Return a build's weight in water, drag area and parts.

    Hook: 2.3 shanks of steel wire; bead: a sphere with its hole; turns: lead-free wire round the shank; foam and
    soaked dressing by volume. Raises ValueError for an unknown wire, bead or bulk, or a negative amount.
    """
    if build.wire not in WIRE_MM or build.bulk not in BULKS or (build.bead and build.bead not in BEAD_DENSITY):
        raise ValueError("unknown wire, bead or bulk")
    if min(build.bead_mm, build.turns, build.turns_wire_mm, build.foam_mm3) < 0:
        raise ValueError("amounts must not be negative")
    shank, wire = shank_mm(build.hook), hook_wire_mm(build.hook, build.wire)
    parts = [(f"hook {build.hook}, {build.wire} wire", _submerged_g(2.3 * shank * math.pi * wire**2 / 4, STEEL))]
    bead_area = 0.0
    if build.bead and build.bead_mm > 0:
        volume = math.pi / 6 * build.bead_mm**3 * BEAD_SOLID_SHARE
        parts.append((f"{build.bead} bead {build.bead_mm:g} mm", _submerged_g(volume, BEAD_DENSITY[build.bead])))
        bead_area = math.pi / 4 * build.bead_mm**2
    if build.turns:
        round_hook = math.pi * (wire + build.turns_wire_mm)
        volume = build.turns * round_hook * math.pi * build.turns_wire_mm**2 / 4
        parts.append((f"{build.turns} turns of {build.turns_wire_mm:g} mm wire", _submerged_g(volume, LEAD_FREE_WIRE)))
    if build.foam_mm3:
        parts.append((f"foam {build.foam_mm3:g} mm³", _submerged_g(build.foam_mm3, FOAM)))
    if BULK_SOLID[build.bulk]:
        parts.append((f"{build.bulk} dressing, soaked", _submerged_g(BULK_SOLID[build.bulk] * shank, SOAKED_FIBRE)))
    foam_area = build.foam_mm3 ** (2 / 3) if build.foam_mm3 else 0.0
    area = BULK_AREA[build.bulk] * shank**2 + bead_area + foam_area
    return BuildSum(sum(g for _, g in parts), area * 1e-6, shank * 1e-3, tuple(parts))


def usual_build(weight: str, hook: int, surface: bool = False) -> FlyBuild:
    """Return the build assumed for a fly of which only the weight class is known: buoyant, unweighted or weighted.

    Common practice: a weighted fly carries a brass bead of a third of its shank; a buoyant one twice the foam that
    floats its hook. Raises ValueError for another class.
    """
    if weight not in ("buoyant", "unweighted", "weighted"):
        raise ValueError("a fly is buoyant, unweighted or weighted")
    if weight == "weighted":
        return FlyBuild(hook=hook, bead="brass", bead_mm=round(shank_mm(hook) / 3.6, 1), bulk="medium")
    if weight == "unweighted":
        return FlyBuild(hook=hook, bulk="medium")
    bare = add_up(FlyBuild(hook=hook, wire="light" if surface else "standard", bulk="medium")).submerged_g
    lift_per_mm3 = (WATER_KG_M3 - FOAM) * 1e-6
    return FlyBuild(
        hook=hook, wire="light" if surface else "standard", foam_mm3=round(2 * bare / lift_per_mm3), bulk="medium"
    )


def build_on_hook(build: FlyBuild, hook: int) -> FlyBuild:
    """Return the same pattern tied on another hook size: bead with the shank, foam with its cube, wire as it was.

    Common practice. Raises ValueError outside hook sizes 4 to 20.
    """
    if hook == build.hook:
        return build
    ratio = shank_mm(hook) / shank_mm(build.hook)
    return replace(
        build, hook=hook, bead_mm=round(build.bead_mm * ratio, 1), foam_mm3=round(build.foam_mm3 * ratio**3, 1)
    )


def weight_class(build: FlyBuild) -> Weight:
    """Return 'buoyant' where a build floats, 'weighted' where it carries a bead or wire, else 'unweighted'."""
    if add_up(build).submerged_g < 0:
        return "buoyant"
    return "weighted" if build.bead in ("tungsten", "brass") or build.turns else "unweighted"
