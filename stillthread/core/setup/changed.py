"""What changes in a plan when a school or the day's aim is switched, in words."""

from __future__ import annotations

from stillthread.core.setup.model import Plan, SetUp
from stillthread.core.trout.belief import smallest_band

NEAR_M = 0.15


def _depth(one: SetUp) -> str:
    if one.float_hang_m is not None:
        return f"{one.float_hang_m:.1f} m under the float"
    return f"{one.count_s} s" if one.count_s is not None else f"{one.target_m:.1f} m"


def _within(before: SetUp, after: SetUp) -> list[str]:
    """What differs between two set-ups of the same way and line."""
    found = []
    name = after.title
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
    found += [f"New: {one.title}." for key, one in new.items() if key not in old]
    found += [f"Gone: {one.title}." for key, one in old.items() if key not in new]
    for key, one in new.items():
        if key in old:
            found += _within(old[key], one)
    return tuple(found)
