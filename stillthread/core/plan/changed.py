"""What changes in a plan when a school, the day's aim or what was read is another, and what moved it, in words."""

from __future__ import annotations

from dataclasses import replace

import numpy as np

from stillthread.core.belief.belief import PlaceBelief, smallest_band
from stillthread.core.belief.factor import Factor
from stillthread.core.day.given import Before, PlanInput
from stillthread.core.food.catalogue import BY_KEY
from stillthread.core.noted.reading import Reading
from stillthread.core.plan.model import Plan
from stillthread.core.setup.model import SetUp
from stillthread.core.sky.wind import compass_point

NEAR_M = 0.15
# A factor is told as having moved the depth from this change of its log weight on, and at most so many of them.
TOLD_CHANGE = 0.25
MOST_FACTORS = 2
SAME_TIME_S = 60.0


def _depth(one: SetUp) -> str:
    if one.float_hang_m is not None:
        return f"{one.float_hang_m:.1f} m under the float"
    return f"{one.count_s} s" if one.count_s is not None else f"{one.target_m:.1f} m"


def _called(one: SetUp) -> str:
    return f"{one.title} at {one.place}" if one.elsewhere else one.title


def _within(before: SetUp, after: SetUp) -> list[str]:
    """What differs between two set-ups of the same way and line."""
    found = []
    name = _called(after)
    if _depth(before) != _depth(after):
        found.append(f"{name}: {_depth(after)} instead of {_depth(before)}.")
    old, new = [f.fly.name for f in before.flies], [f.fly.name for f in after.flies]
    if old != new:
        found.append(f"{name}: flies {', '.join(new)} instead of {', '.join(old)}.")
    if before.retrieve.words != after.retrieve.words:
        found.append(f"{name}: {after.retrieve.words[0].lower()}{after.retrieve.words[1:]}.")
    if before.float_kind != after.float_kind:
        found.append(f"{name}: a {after.float_kind} float instead of a {before.float_kind} one.")
    tippets = [one.leader.sections[-1].x_size for one in (before, after)]
    if tippets[0] != tippets[1]:
        found.append(f"{name}: tippet {tippets[1]}X instead of {tippets[0]}X.")
    if [r.depth_m for r in before.ladder] != [r.depth_m for r in after.ladder]:
        found.append(f"{name}: the depths are searched in another order.")
    if before.changes != after.changes:
        found.append(f"{name}: another order of changes.")
    if before.stance != after.stance:
        found.append(f"{name}: {after.stance}")
    return found


def what_changed(before: Plan, after: Plan) -> tuple[str, ...]:
    """Return what is different in the second plan, the weightiest first; empty where nothing is."""
    found = []
    if before.chosen.place.name != after.chosen.place.name:
        found.append(f"Place: {after.chosen.place.name} instead of {before.chosen.place.name}.")
    else:
        was, now = smallest_band(before.chosen, 0.5), smallest_band(after.chosen, 0.5)
        if max(abs(a - b) for a, b in zip(was, now, strict=True)) > NEAR_M:
            found.append(f"Half the chance: {now[0]:.1f} to {now[1]:.1f} m instead of {was[0]:.1f} to {was[1]:.1f} m.")
    old = {s.key: s for s in before.set_ups if s.by_hand is None}
    new = {s.key: s for s in after.set_ups if s.by_hand is None}
    if list(old)[:1] != list(new)[:1] and old and new:
        found.append(f"First: {next(iter(new.values())).title} instead of {next(iter(old.values())).title}.")
    found += [f"New: {_called(one)}." for key, one in new.items() if key not in old]
    found += [f"Gone: {_called(one)}." for key, one in old.items() if key not in new]
    for key, one in new.items():
        if key in old:
            found += _within(old[key], one)
    return tuple(found)


def as_before(given: PlanInput, before: Before) -> PlanInput:
    """Return the input as it was before: with the schools and aim of then, and what was read then."""
    was = replace(given, schools=before.schools, aim=before.aim, compared_with=None)
    read = before.read
    if read is None:
        return was
    return replace(
        was, when=read.when, reading=read.reading, sightings=read.sightings, samples=read.samples, place=read.place
    )


def _value(reading: Reading, name: str) -> str:
    """One value of a reading in words; empty where it was not read."""
    wind, cloud, surface = reading.wind_m_s, reading.cloud_oktas, reading.surface_c
    told = {
        "Wind": None if wind is None else f"{wind:.0f} m/s",
        "Wind from": None if reading.wind_from_deg is None else compass_point(reading.wind_from_deg),
        "Cloud": None if cloud is None else f"{cloud:.0f} of 8",
        "Surface": None if surface is None else f"{surface:.1f} °C",
        "Water colour": None if reading.clarity is None else reading.clarity.replace("-", " "),
        "Air": None if reading.air_temperature_c is None else f"{reading.air_temperature_c:.0f} °C",
        "Thunder": "about" if reading.thunder else "none",
    }
    return told[name] or ""


READ_VALUES = ("Wind", "Wind from", "Cloud", "Surface", "Water colour", "Air", "Thunder")


def _seen(given: PlanInput) -> dict[str, str]:
    """What was seen, by its name in words."""
    found: dict[str, str] = {}
    for one in given.sightings:
        name = BY_KEY[one.prey].name if one.prey else (one.rise or one.sign or "").replace("-", " ")
        found[name] = one.abundance
    return found


def _read_otherwise(was: PlanInput, now: PlanInput) -> list[str]:
    """Every value that was read otherwise, and every sighting that came or went."""
    found = []
    if abs((now.when - was.when).total_seconds()) > SAME_TIME_S:
        found.append(f"Hour: {now.when:%H:%M} instead of {was.when:%H:%M}.")
    for name in READ_VALUES:
        old, new = _value(was.reading, name), _value(now.reading, name)
        if old != new:
            found.append(f"{name}: {new or 'not read'} instead of {old or 'not read'}.")
    old_seen, new_seen = _seen(was), _seen(now)
    found += [f"Seen now: {amount} {name}." for name, amount in new_seen.items() if old_seen.get(name) != amount]
    found += [f"No longer seen: {name}." for name in old_seen if name not in new_seen]
    return found


def _there(plan: Plan, place: str) -> PlaceBelief | None:
    return next((one for one in plan.beliefs if one.place.name == place), None)


def _swing(old: Factor, new: Factor) -> float:
    """How much a factor's log weight over depth is another, its mean level left out."""
    count = min(len(old.log_weight), len(new.log_weight))
    change = new.log_weight[:count] - old.log_weight[:count]
    return float(np.abs(change - change.mean()).max())


def what_moved_it(before: tuple[PlanInput, Plan], after: tuple[PlanInput, Plan]) -> tuple[str, ...]:
    """Return what was read otherwise, and what the factors that moved the depth at the chosen place most say now.

    Empty where the same was read.
    """
    read = _read_otherwise(before[0], after[0])
    new = after[1].chosen
    old = _there(before[1], new.place.name)
    if not read or old is None:
        return tuple(read)
    swings = [(_swing(a, b), b) for a, b in zip(old.factors, new.factors, strict=True) if not b.off]
    most = sorted((one for one in swings if one[0] >= TOLD_CHANGE), key=lambda one: -one[0])[:MOST_FACTORS]
    return (*read, *(factor.sentence for _, factor in most))
