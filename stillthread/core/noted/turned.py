"""How a day turns while it is fished: what an angler sees in a word, as the reading it makes."""

from __future__ import annotations

from dataclasses import replace
from datetime import datetime
from typing import Literal

from stillthread.core.food.seen import Sighting
from stillthread.core.noted.reading import Reading

Turn = Literal["sun-out", "cloud-over", "wind-up", "wind-dropped", "coloured", "rise", "quiet", "sample"]
# What the words are taken to mean: an open and a closed sky [oktas], a fair and a light wind [m/s]. Common practice, figures ours.
OPEN_SKY, CLOSED_SKY = 1, 8
FAIR_WIND_M_S, LIGHT_WIND_M_S, MORE_M_S = 5.0, 1.0, 3.0
MOST_SIGHTINGS = 50


def turned(
    reading: Reading, sightings: tuple[Sighting, ...], turn: Turn, read_at: datetime
) -> tuple[Reading, tuple[Sighting, ...]]:
    """Return the reading and sightings after a turn of the day; temperatures keep the hour `read_at` they were read.

    A rise or a quiet spell takes the place of what was noted of rises before; a throat sample changes neither.
    """
    kept = replace(reading, profile_at=reading.profile_at or (read_at if reading.profile else None))
    if turn == "sample":
        return kept, sightings
    if turn in ("sun-out", "cloud-over"):
        return replace(kept, cloud_oktas=OPEN_SKY if turn == "sun-out" else CLOSED_SKY), sightings
    if turn == "wind-up":
        wind = max(FAIR_WIND_M_S, (kept.wind_m_s or 0.0) + MORE_M_S)
        return replace(kept, wind_m_s=wind, gust_m_s=None, surface=None), sightings
    if turn == "wind-dropped":
        return replace(kept, wind_m_s=LIGHT_WIND_M_S, gust_m_s=None, surface=None), sightings
    if turn == "coloured":
        return replace(kept, clarity="coloured", secchi_m=None), sightings
    rest = tuple(seen for seen in sightings if seen.rise is None and seen.sign != "nothing-rises")[: MOST_SIGHTINGS - 1]
    new = Sighting(rise="sip") if turn == "rise" else Sighting(sign="nothing-rises")
    return kept, (*rest, new)
