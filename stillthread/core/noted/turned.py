"""How a day turns while it is fished: what an angler sees in a word, as the reading it makes."""

from __future__ import annotations

from dataclasses import replace
from datetime import datetime
from typing import Any, Literal

from stillthread.core.food.seen import Sighting
from stillthread.core.noted.reading import Reading
from stillthread.core.noted.standing import READ_AT, Taken, read_at

Turn = Literal[
    "sun-out", "cloud-over", "wind-up", "wind-dropped", "thunder", "thunder-over", "coloured", "rise", "quiet", "sample"
]
# What the words are taken to mean: an open and a closed sky [oktas], a fair and a light wind [m/s]. Common practice, figures ours.
OPEN_SKY, CLOSED_SKY = 1, 8
FAIR_WIND_M_S, LIGHT_WIND_M_S, MORE_M_S = 5.0, 1.0, 3.0
MOST_SIGHTINGS = 50


def _kept(reading: Reading, taken_at: datetime) -> Reading:
    """A reading carried on: what it says keeps the instant at which it was read."""
    dates: dict[str, Any] = {name: read_at(Taken(reading, taken_at), topic) for topic, name in READ_AT.items()}
    return replace(reading, profile_at=reading.profile_at or (taken_at if reading.profile else None), **dates)


def turned(
    reading: Reading, sightings: tuple[Sighting, ...], turn: Turn, *, taken_at: datetime, at: datetime
) -> tuple[Reading, tuple[Sighting, ...]]:
    """Return the reading and sightings after a turn of the day at an instant; what was read at `taken_at` keeps that instant.

    A rise or a quiet spell takes the place of what was noted of rises before; a throat sample changes neither.
    """
    kept = _kept(reading, taken_at)
    if turn == "sample":
        return kept, sightings
    if turn in ("sun-out", "cloud-over"):
        return replace(kept, cloud_oktas=OPEN_SKY if turn == "sun-out" else CLOSED_SKY), sightings
    if turn == "wind-up":
        wind = max(FAIR_WIND_M_S, (kept.wind_m_s or 0.0) + MORE_M_S)
        return replace(kept, wind_m_s=wind, gust_m_s=None, surface=None, wind_at=at), sightings
    if turn == "wind-dropped":
        return replace(kept, wind_m_s=LIGHT_WIND_M_S, gust_m_s=None, surface=None, wind_at=at), sightings
    if turn in ("thunder", "thunder-over"):
        return replace(kept, thunder=turn == "thunder", thunder_at=at), sightings
    if turn == "coloured":
        return replace(kept, clarity="coloured", secchi_m=None), sightings
    rest = tuple(seen for seen in sightings if seen.rise is None and seen.sign != "nothing-rises")[: MOST_SIGHTINGS - 1]
    new = Sighting(rise="sip") if turn == "rise" else Sighting(sign="nothing-rises")
    return kept, (*rest, new)
