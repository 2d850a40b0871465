"""Effort: how long each spell was really fished, and what came of it."""

from __future__ import annotations

from datetime import datetime

from stillthread.core.evidence.fish import fish_among
from stillthread.core.evidence.rates import Stretch
from stillthread.core.units import FOOT_M
from stillthread.outings.models import Event, Outing, Spell


def live_spells(outing: Outing) -> list[Spell]:
    """Return the outing's spells that are not deleted, in time; uses what was prefetched."""
    return sorted((s for s in outing.spells.all() if s.deleted_at is None), key=lambda s: s.started_at)


def live_events(spell: Spell) -> list[Event]:
    """Return the spell's events that are not deleted, in time; uses what was prefetched."""
    return sorted((e for e in spell.events.all() if e.deleted_at is None), key=lambda e: e.occurred_at)


def fish_of(spell: Spell) -> list[Event]:
    """Return the spell's takes, lost and landed fish, each fish once however often it was tapped."""
    events = live_events(spell)
    return [events[n] for n in fish_among([(event.kind, event.occurred_at) for event in events])]


def spell_end(spell: Spell, following: datetime | None, outing_end: datetime | None) -> datetime:
    """Return when a spell's effort ended: as noted, else the next spell's start, the outing's end, or its last event.

    A spell still running counts up to its last event: nobody knows more until it is stopped.
    """
    for end in (spell.ended_at, following, outing_end):
        if end is not None:
            return max(end, spell.started_at)
    events = live_events(spell)
    return max(events[-1].occurred_at, spell.started_at) if events else spell.started_at


def ended_spells(outing: Outing, end: datetime | None) -> list[tuple[Spell, datetime]]:
    """Return the outing's live spells in time, each with its end; `end` is the outing's, or now."""
    spells = live_spells(outing)
    starts = [*(spell.started_at for spell in spells[1:]), None][: len(spells)]
    return [(spell, spell_end(spell, after, end)) for spell, after in zip(spells, starts, strict=True)]


def stretches(outing: Outing) -> list[Stretch]:
    """Return effort, takes (takes, lost and landed fish, each fish once) and landed fish for each spell of an outing."""
    result = []
    for spell, end in ended_spells(outing, outing.ended_at):
        hours = (end - spell.started_at).total_seconds() / 3600
        kinds = [event.kind for event in fish_of(spell)]
        result.append(Stretch(spell.depth_m, hours, len(kinds), kinds.count("landed")))
    return result


def bin_step_m(depth_unit: str) -> float:
    """Return the depth step [m] the log is sorted by: a metre, or three feet."""
    return 1.0 if depth_unit == "m" else 3 * FOOT_M
