"""The boat's track of an outing: taken in from a file, told as the drift of each stretch, given out again."""

from __future__ import annotations

import uuid
from datetime import UTC, datetime
from typing import Any

from django.http import Http404
from django.utils import timezone

from stillthread.core.chart.track import Fix, drift_over, thinned
from stillthread.core.errors import InputError, Problem
from stillthread.core.sky.wind import compass_point
from stillthread.formats.gpx import read_track, write_track
from stillthread.outings.effort import ended_spells
from stillthread.outings.models import Outing, Track
from stillthread.outings.schemas import DriftOut, TrackOut
from stillthread.web.owned import delete_owned, get_owned, live, put_owned

MOST_POINTS = 3000


def _id(outing: Outing) -> uuid.UUID:
    """The name of an outing's one track: of the row there was before, else always the same."""
    before = Track.objects.filter(outing=outing).values_list("pk", flat=True).first()
    return before or uuid.uuid5(outing.pk, "track")


def _outing(owner: Any, outing_id: uuid.UUID) -> Outing:
    return get_owned(Outing, owner, outing_id, defer=("plan_snapshot",))


def _fixes(track: Track) -> list[Fix]:
    return [Fix(when=datetime.fromtimestamp(at, UTC), position=(lon, lat)) for at, lon, lat in track.points]


def _out(outing: Outing, track: Track) -> TrackOut:
    fixes = _fixes(track)
    drifts = []
    for spell, end in ended_spells(outing, outing.ended_at or fixes[-1].when):
        found = drift_over(fixes, spell.started_at, end)
        if found is not None:
            drifts.append(
                DriftOut(
                    spell_id=spell.pk,
                    metres=round(found.metres, 1),
                    speed_m_s=round(found.speed_m_s, 3),
                    towards="" if found.towards_deg is None else compass_point(found.towards_deg),
                )
            )
    return TrackOut(points=len(fixes), from_at=fixes[0].when, to_at=fixes[-1].when, drifts=drifts)


def _track(owner: Any, outing: Outing) -> Track | None:
    return live(Track, owner).filter(outing=outing).first()


def read(owner: Any, outing_id: uuid.UUID) -> TrackOut | None:
    """Return an outing's track; None where none was taken in. Raises Http404 for another's outing."""
    outing = _outing(owner, outing_id)
    track = _track(owner, outing)
    return None if track is None else _out(outing, track)


def take(owner: Any, outing_id: uuid.UUID, data: bytes) -> TrackOut:
    """Take a GPX file's track for an outing, in place of one that was there; only what was recorded on the outing is kept.

    Raises InputError for a file without a track, or with one of another time.
    """
    outing = _outing(owner, outing_id)
    start, end = outing.started_at, outing.ended_at or timezone.now()
    here = [fix for fix in read_track(data) if start <= fix.when <= end]
    step = max(1.0, (end - start).total_seconds() / MOST_POINTS)
    fixes = thinned(here, step)
    if len(fixes) < 2:
        raise InputError(
            Problem("other_time", "file", "This track is of another time.", "a track recorded on this outing")
        )
    points = [[round(fix.when.timestamp(), 1), *(round(value, 6) for value in fix.position)] for fix in fixes]
    return _out(outing, put_owned(Track, owner, _id(outing), outing=outing, points=points))


def write(owner: Any, outing_id: uuid.UUID) -> str:
    """Return an outing's track as GPX 1.1. Raises Http404 where there is none."""
    outing = _outing(owner, outing_id)
    track = _track(owner, outing)
    if track is None:
        raise Http404("track")
    return write_track(str(outing), _fixes(track))


def remove(owner: Any, outing_id: uuid.UUID) -> None:
    """Put a tombstone on an outing's track. Raises Http404 where there never was one."""
    delete_owned(Track, owner, _id(_outing(owner, outing_id)))
