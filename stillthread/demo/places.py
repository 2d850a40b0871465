"""The demo's invented waters. No such lakes exist; every figure is made up."""

from __future__ import annotations

import math
from dataclasses import dataclass
from datetime import date
from typing import Any

from stillthread.core.sky.light import Clarity
from stillthread.standins.lake import DEEPEST_M, position


@dataclass(frozen=True)
class DemoWater:
    """An invented water with its yearly temperature: surface mean and swing [°C], deep water [°C], mixed depth [m]."""

    key: str
    body: dict[str, Any]
    mean_c: float
    swing_c: float
    deep_c: float
    mixed_m: float
    clarity: Clarity
    stock_every_days: int | None


def bowl_area_m2(depth_m: float) -> float:
    """Return the invented area [m²] of the upland lake at a depth [m]: the stand-ins' bowl."""
    reach = max(0.0, 1 - depth_m / DEEPEST_M) ** (1 / 1.6)
    return round(math.pi * 860.0 * 640.0 * float(reach) ** 2, 0)


def _place(name: str, kind: str, bed: tuple[float, float], facing: float, at: tuple[float, float]) -> dict[str, Any]:
    lon, lat = position(*at)
    return {
        "name": name,
        "kind": kind,
        "depth_min_m": bed[0],
        "depth_max_m": bed[1],
        "facing_deg": facing,
        "longitude_deg": round(lon, 5),
        "latitude_deg": round(lat, 5),
    }


def invented_outline() -> list[list[list[float]]]:
    """Return the upland lake's invented shore and its one island, as closed rings of [lon, lat]."""
    shore = []
    for i in range(72):
        angle = 2 * math.pi * i / 72
        reach = 1 + 0.07 * math.sin(3 * angle + 0.6) + 0.05 * math.sin(5 * angle) + 0.025 * math.sin(11 * angle + 1)
        reach -= 0.22 * math.exp(-(((angle - 2.35) / 0.16) ** 2))  # a point in the north-west
        reach += 0.16 * math.exp(-(((angle - 3.6) / 0.12) ** 2))  # the beck comes in
        lon, lat = position(860 * reach * math.cos(angle), 640 * reach * math.sin(angle))
        shore.append([round(lon, 5), round(lat, 5)])
    island = []
    for i in range(14):
        angle = -2 * math.pi * i / 14
        lon, lat = position(-420 + 60 * math.cos(angle), -180 + 38 * math.sin(angle))
        island.append([round(lon, 5), round(lat, 5)])
    return [[*shore, shore[0]], [*island, island[0]]]


UPLAND = DemoWater(
    key="upland",
    body={
        "name": "Hollin Moss Reservoir",
        "latitude_deg": 54.1195,
        "longitude_deg": -2.38,
        "time_zone": "Europe/London",
        "max_depth_m": 18.0,
        "species": ["rainbow", "brown"],
        "rules": {"max_flies": 3, "barbless": True, "floats_allowed": True, "release": "either"},
        "rules_source": "Board by the boathouse (invented)",
        "places": [
            _place(name="Boathouse drop-off", kind="drop-off", bed=(3, 6), facing=225, at=(285, 300)),
            _place(name="Sheepwash margin", kind="margin", bed=(0.5, 2.5), facing=90, at=(-800, 150)),
            _place(name="Dam wall", kind="open-water", bed=(9, 16), facing=0, at=(-60, -560)),
        ],
        "elevation_m": 310.0,
        "productivity": "medium",
        "hypsography": [{"depth_m": d, "area_m2": bowl_area_m2(d)} for d in (0, 2, 4, 6, 8, 10, 12, 14, 16, 18)],
    },
    mean_c=9.5,
    swing_c=6.5,
    deep_c=7.0,
    mixed_m=6.5,
    clarity="clear",
    stock_every_days=None,
)
LOWLAND = DemoWater(
    key="lowland",
    body={
        "name": "Teasel Mere",
        "latitude_deg": 52.31,
        "longitude_deg": 0.44,
        "time_zone": "Europe/London",
        "max_depth_m": 7.0,
        "species": ["rainbow"],
        "rules": {"max_flies": 2, "barbless": True, "floats_allowed": True, "release": "catch-and-release"},
        "rules_source": "Day ticket, back page (invented)",
        "fetch_m": 650.0,
        "productivity": "high",
        "places": [
            {"name": "Reed corner", "kind": "weed-edge", "depth_min_m": 1, "depth_max_m": 3, "facing_deg": 250},
            {"name": "Island shelf", "kind": "shoal", "depth_min_m": 2, "depth_max_m": 4, "facing_deg": 20},
            {"name": "Old channel", "kind": "drop-off", "depth_min_m": 4, "depth_max_m": 7, "facing_deg": 300},
        ],
    },
    mean_c=12.0,
    swing_c=8.0,
    deep_c=10.5,
    mixed_m=3.5,
    clarity="slightly-coloured",
    stock_every_days=24,
)
WATERS = (UPLAND, LOWLAND)


def invented_temperature_c(water: DemoWater, day: date, depth_m: float, weather_c: float = 0.0) -> float:
    """Return an invented temperature [°C] by day of the year and depth [m]: warmest in early August, layered when warm.

    `weather_c` [°C] is how much warmer or colder than usual the days before were.
    """
    phase = math.cos(2 * math.pi * (day.timetuple().tm_yday - 215) / 365)
    surface = max(water.mean_c + water.swing_c * phase + weather_c, 3.2)
    deep = min(surface, water.deep_c)
    sharp = 1.0 / (1.0 + math.exp((depth_m - water.mixed_m) / 0.9))
    return round(deep + (surface - deep) * sharp, 1)
