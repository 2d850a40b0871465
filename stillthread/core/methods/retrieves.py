"""Retrieves with their pace, and which one suits the food and the temperature."""

from __future__ import annotations

from dataclasses import replace

from stillthread.core.day.model import Retrieve
from stillthread.core.food.prey import Prey
from stillthread.core.trout.temperature import SLUGGISH_BELOW_C, STIRRING_BELOW_C

# Paces of the trade. Speeds are the hand's, averaged over pulls and rests [m/s].
_PACES = {
    "static": Retrieve("static", "Leave it still; take up slack only", 0.0),
    "slow-hand-twist": Retrieve("hand-twist", "Slow hand twist, 2 to 4 cm a second", 0.03),
    "hand-twist": Retrieve("hand-twist", "Steady hand twist, 5 to 10 cm a second", 0.075),
    "strip-pause": Retrieve(
        kind="strip-pause",
        words="Strips of 10 to 15 cm, then a rest of a second or two",
        speed_m_s=0.08,
        pull_m=0.12,
        pause_s=1.5,
    ),
    "long-pull": Retrieve(
        kind="long-pull", words="Long pulls of half a metre, short rests", speed_m_s=0.25, pull_m=0.55, pause_s=1.0
    ),
    "drift": Retrieve("drift", "Leave it to the drift; shake the rod tip now and then", 0.3),
    "roly-poly": Retrieve("roly-poly", "Two-handed and steady; keep it going through the take", 0.7),
}
RETRIEVES = {key: replace(one, key=key) for key, one in _PACES.items()}


def choose_retrieve(prey: Prey, water_c: float | None, stocked: bool) -> Retrieve:
    """Return the retrieve for a prey at a water temperature [°C]: its own pace, slowed in cold water.

    Below 4 °C static, below 7 °C a slow hand twist, as the trade's temperature table has it; fresh stockfish are
    pulled at from 7 °C on.
    """
    if water_c is not None and water_c < SLUGGISH_BELOW_C:
        return RETRIEVES["static"]
    if water_c is not None and water_c < STIRRING_BELOW_C:
        return RETRIEVES["slow-hand-twist"]
    if stocked and prey.key == "stocked-instinct":
        return RETRIEVES["long-pull"]
    pace = next((pace for pace in prey.paces if pace != "static"), "hand-twist")
    if prey.key.startswith("chironomid"):
        return RETRIEVES["slow-hand-twist"]
    return RETRIEVES[pace]
