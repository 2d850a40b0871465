"""The demo's invented waters. No such lakes exist; every figure is made up."""

from __future__ import annotations

import math
from dataclasses import dataclass
from datetime import date
from typing import Any


@dataclass(frozen=True)
class DemoWater:
    """An invented water with its yearly temperature: surface mean and swing [°C], deep water [°C], mixed depth [m]."""

    key: str
    body: dict[str, Any]
    mean_c: float
    swing_c: float
    deep_c: float
    mixed_m: float
    clarity: str
    stock_every_days: int | None


UPLAND = DemoWater(
    "upland",
    {
        "name": "Hollin Moss Reservoir",
        "latitude_deg": 54.12,
        "longitude_deg": -2.38,
        "time_zone": "Europe/London",
        "max_depth_m": 18.0,
        "species": ["rainbow", "brown"],
        "rules": {"max_flies": 3, "barbless": True, "floats_allowed": True, "release": "either"},
        "rules_source": "Board by the boathouse (invented)",
        "places": [
            {"name": "Boathouse drop-off", "kind": "drop-off", "depth_min_m": 3, "depth_max_m": 6, "facing_deg": 225},
            {"name": "Sheepwash margin", "kind": "margin", "depth_min_m": 0.5, "depth_max_m": 2.5, "facing_deg": 90},
            {"name": "Dam wall", "kind": "open-water", "depth_min_m": 9, "depth_max_m": 16, "facing_deg": 0},
        ],
    },
    9.5,
    6.5,
    7.0,
    6.5,
    "clear",
    None,
)
LOWLAND = DemoWater(
    "lowland",
    {
        "name": "Teasel Mere",
        "latitude_deg": 52.31,
        "longitude_deg": 0.44,
        "time_zone": "Europe/London",
        "max_depth_m": 7.0,
        "species": ["rainbow"],
        "rules": {"max_flies": 2, "barbless": True, "floats_allowed": True, "release": "catch-and-release"},
        "rules_source": "Day ticket, back page (invented)",
        "places": [
            {"name": "Reed corner", "kind": "weed-edge", "depth_min_m": 1, "depth_max_m": 3, "facing_deg": 250},
            {"name": "Island shelf", "kind": "shoal", "depth_min_m": 2, "depth_max_m": 4, "facing_deg": 20},
            {"name": "Old channel", "kind": "drop-off", "depth_min_m": 4, "depth_max_m": 7, "facing_deg": 300},
        ],
    },
    12.0,
    8.0,
    10.5,
    3.5,
    "slightly-coloured",
    24,
)
WATERS = (UPLAND, LOWLAND)


def invented_temperature_c(water: DemoWater, day: date, depth_m: float) -> float:
    """Return an invented temperature [°C] by day of the year and depth [m]: warmest in early August, layered when warm."""
    phase = math.cos(2 * math.pi * (day.timetuple().tm_yday - 215) / 365)
    surface = max(water.mean_c + water.swing_c * phase, 3.5)
    deep = min(surface, water.deep_c)
    sharp = 1.0 / (1.0 + math.exp((depth_m - water.mixed_m) / 0.9))
    return round(deep + (surface - deep) * sharp, 1)
