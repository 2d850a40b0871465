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
    "twitch": Retrieve(
        kind="strip-pause",
        words="Leave it, with a twitch of 5 cm every three seconds or so",
        speed_m_s=0.015,
        pull_m=0.05,
        pause_s=3.0,
    ),
    "lift-drop": Retrieve(
        kind="strip-pause",
        words="Lift the rod slowly by half a metre, let the flies down again, take up the slack",
        speed_m_s=0.05,
        pull_m=0.5,
        pause_s=8.0,
    ),
    "twist-stop": Retrieve(
        kind="strip-pause",
        words="Fast hand twist, a stop of a second after every second or two",
        speed_m_s=0.06,
        pull_m=0.15,
        pause_s=1.0,
    ),
    "sink-pull": Retrieve(
        kind="strip-pause",
        words="After the swirl pull it under with one long draw, then let it come up or sink, still",
        speed_m_s=0.06,
        pull_m=0.4,
        pause_s=6.0,
    ),
    "quarter-swing": Retrieve(
        kind="hand-twist",
        words="Cast across the wind and let the flies swing round on a tight line; only gather slack",
        speed_m_s=0.02,
    ),
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
