"""What a set-up is worth: fish at the fly's depth that notice it, times the time it fishes, times how it appeals."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

from stillthread.core.belief.belief import PlaceBelief
from stillthread.core.noted.reading import Reading
from stillthread.core.sky.light import Light
from stillthread.core.trout.notice import notice_kernel
from stillthread.core.trout.temperature import STIRRING_BELOW_C, appetite
from stillthread.core.water.profile import temperature_at

CAST_S = 15.0  # casting and straightening, common practice
BAND_SAMPLES = (0.0, 0.25, 0.5, 0.75, 1.0)
BAND_WEIGHTS = (0.1, 0.23, 0.34, 0.23, 0.1)


class Reach:
    """How much of the belief at one place a fly at each depth can be noticed by, computed once and looked up."""

    def __init__(self, belief: PlaceBelief, secchi_m: float, light: Light | None = None, times: float = 1.0):
        """Tabulate the noticed share for a fly at each cell of the belief.

        `secchi_m` [m] sets how far fish see, `light` how gladly they come up through it, `times` how many
        times as far as usual they do by the angler's own takes.
        """
        p = belief.profile
        self._grid = np.concatenate([[0.0], belief.depths_m])
        lit = [light.at(y) if light else None for y in self._grid]
        noticed = [
            p @ notice_kernel(y, belief.depths_m, secchi_m, light=a, times=times)
            for y, a in zip(self._grid, lit, strict=True)
        ]
        self._noticed = np.array(noticed, dtype=np.float64)

    def at(self, depth_m: float) -> float:
        """Return the share of the belief that notices a fly at `depth_m` [m], 0 to 1."""
        return float(np.interp(depth_m, self._grid, self._noticed))

    def many(self, depths_m: NDArray[np.float64]) -> NDArray[np.float64]:
        """Return `at` for many depths [m]."""
        return np.asarray(np.interp(depths_m, self._grid, self._noticed), dtype=np.float64)

    def over_band(self, low_m: float, high_m: float) -> float:
        """Return the mean share over a band of depths [m], the middle counting most."""
        depths: NDArray[np.float64] = low_m + (high_m - low_m) * np.array(BAND_SAMPLES)
        return float(np.interp(depths, self._grid, self._noticed) @ np.array(BAND_WEIGHTS))


def pace_weight(speed_m_s: float, water_c: float | None) -> float:
    """Return how trout answer a pace at a water temperature [°C]: still flies in the cold, movement in the warm.

    Trade table (below 4 °C rarely chase; 4 to 7 °C slow retrieves); the figures are ours.
    """
    if water_c is None:
        return 1.0
    if speed_m_s <= 0.04:
        return 1.2 if water_c < STIRRING_BELOW_C else 1.0
    chase = float(np.interp(water_c, [3, 6, 9, 13, 18, 21], [0.2, 0.5, 0.9, 1.15, 1.1, 0.8]))
    return chase if speed_m_s < 0.15 else chase * (0.85 if water_c < 9 else 1.0)


def hunger(reading: Reading, depth_m: float, species: tuple[str, ...]) -> float:
    """Return the mean appetite (0 to 1) of the species at a depth [m]; 0.7 where no temperature was read."""
    if not reading.profile:
        return 0.7
    t = temperature_at(reading.profile, [depth_m])
    return float(np.mean([appetite(t, s)[0] for s in species]))
