"""Two anglers on one day: an outing is shared by a code; each keeps rows of their own and sees what the other fishes."""

from __future__ import annotations

import uuid
from collections.abc import Iterator
from datetime import datetime
from typing import Any

from django.db import transaction
from django.db.models import Q
from django.forms.models import model_to_dict
from django.utils import timezone

from stillthread.accounts.codes import letters, plain
from stillthread.core.errors import InputError, Problem
from stillthread.outings.effort import ended_spells, fish_of, live_events
from stillthread.outings.models import Outing, Spell, Together
from stillthread.outings.schemas import BesideOut, JoinBody, JoinedOut, SpellHow, TogetherOut
from stillthread.outings.services import HEAVY, LONGEST_OUTING, end_others
from stillthread.waters.models import Place, Reading, Water
from stillthread.web.owned import get_owned, live, put_owned

CODE_LETTERS = 6
COPIED = uuid.UUID("6f0a5c1e-7d1b-4c55-9f2e-2f5d4b0e8a11")  # names the copies of others' waters


def _over(one: Together, now: datetime) -> datetime | None:
    """When sharing ended: as it was ended, with either outing, or with its day; None while it goes on."""
    both = [one.outing, *([one.joined] if one.joined is not None else [])]
    ends = [one.ended_at, one.ends_at if one.ends_at <= now else None]
    ends += [outing.ended_at or outing.deleted_at for outing in both]
    return min((end for end in ends if end is not None), default=None)


def _of(outing: Outing) -> list[Together]:
    """Every sharing of an outing, newest first, by whichever side."""
    rows = Together.objects.filter(Q(outing=outing) | Q(joined=outing))
    return list(rows.select_related("outing__water", "outing__owner", "joined__water", "joined__owner"))


def _other(one: Together, outing: Outing) -> Outing | None:
    """The other angler's outing; None where nobody joined, or it was deleted."""
    found = one.joined if one.outing.pk == outing.pk else one.outing
    return found if found is not None and found.deleted_at is None else None


def others(outing: Outing, now: datetime) -> Iterator[tuple[Outing, datetime]]:
    """Yield the outings shared with one and until when each is seen: now, or the end of sharing."""
    for one in _of(outing):
        other = _other(one, outing)
        if other is not None:
            yield other, min(_over(one, now) or now, now)


def beside(other: Outing, until: datetime) -> Iterator[tuple[Spell, datetime]]:
    """Yield the other angler's stretches begun by an instant, each with its end, none later than that."""
    for spell, end in ended_spells(other, other.ended_at or until):
        if spell.started_at < until:
            yield spell, min(end, until)


def _beside_out(spell: Spell, end: datetime, goes_on: bool) -> BesideOut:
    how = {name: getattr(spell, name) for name in SpellHow.model_fields}
    return BesideOut(
        **how,
        started_at=spell.started_at,
        ended_at=None if goes_on else end,
        takes=sum(event.occurred_at <= end for event in fish_of(spell)),
        plucks=sum(event.kind == "pluck" and event.occurred_at <= end for event in live_events(spell)),
    )


def read(owner: Any, outing_id: uuid.UUID) -> TogetherOut | None:
    """Return how one of the owner's outings is shared, or was last; None where it never was. Raises Http404."""
    outing = get_owned(Outing, owner, outing_id, defer=HEAVY)
    found = _of(outing)
    if not found:
        return None
    now = timezone.now()
    one = next((each for each in found if _over(each, now) is None), found[0])
    over = _over(one, now)
    other = _other(one, outing)
    own = one.outing.pk == outing.pk
    until = over or now
    seen = list(beside(other, until)) if other is not None else []
    return TogetherOut(
        code=one.code if own and over is None else "",
        own=own,
        open=over is None,
        ends_at=one.ends_at,
        ended_at=over,
        name=other.owner.get_username() if other is not None else "",
        joined_at=one.joined_at,
        spells=[
            _beside_out(spell, end, over is None and spell.ended_at is None and n == len(seen) - 1)
            for n, (spell, end) in enumerate(seen)
        ],
    )


def share(owner: Any, outing_id: uuid.UUID) -> TogetherOut | None:
    """Share one of the owner's outings on the go, or return how it is shared already.

    Raises Http404 for another's, InputError for one that is over or that is itself fished beside another's.
    """
    outing = get_owned(Outing, owner, outing_id, defer=HEAVY)
    now = timezone.now()
    ends = outing.started_at + LONGEST_OUTING
    if outing.ended_at is not None or ends <= now:
        raise InputError(Problem("ended", "", "This outing is over.", "an outing on the go"))
    for one in _of(outing):
        if _over(one, now) is None:
            return read(owner, outing_id)
        if one.ended_at is None:
            _end(one, now)
    with transaction.atomic():  # takes the write lock at once: the same tap twice is one sharing
        if not Together.objects.filter(outing=outing, ended_at__isnull=True).exists():
            Together.objects.create(outing=outing, code=_fresh_code(), ends_at=ends)
    return read(owner, outing_id)


def _fresh_code() -> str:
    """A code that was never given: an old one shall not open another's day."""
    while Together.objects.filter(code=(code := letters(CODE_LETTERS))).exists():
        continue
    return code


def _end(one: Together, now: datetime) -> None:
    one.ended_at = _over(one, now) or now
    one.save(update_fields=["ended_at"])


def end(owner: Any, outing_id: uuid.UUID) -> None:
    """End sharing: its owner stops it, the other leaves. What was fished until then stays seen. Raises Http404."""
    outing = get_owned(Outing, owner, outing_id, defer=HEAVY)
    now = timezone.now()
    for one in _of(outing):
        if one.ended_at is None:
            _end(one, now)


@transaction.atomic
def remove(owner: Any, outing_id: uuid.UUID) -> TogetherOut | None:
    """Take the other angler out of a shared outing; a new code lets another in. Raises Http404."""
    end(owner, outing_id)
    return share(owner, outing_id)


def _water_beside(owner: Any, water: Water) -> Water:
    """Return the joining angler's own copy of a water: made once, and theirs to change."""
    pk = uuid.uuid5(COPIED, f"{water.pk}/{owner.pk}")
    found = live(Water, owner).filter(pk=pk).first()
    if found is not None:
        return found
    told = model_to_dict(water, exclude=["id", "owner", "deleted_at"])
    made = put_owned(Water, owner, pk, **told)
    for place in water.places.filter(deleted_at__isnull=True):
        values = {**model_to_dict(place, exclude=["id", "owner", "deleted_at"]), "water": made}
        put_owned(Place, owner, uuid.uuid5(pk, str(place.pk)), **values)
    return made


def _read_beside(owner: Any, theirs: Water, mine: Water, now: datetime) -> None:
    """Carry the day's newest reading over with the water, so that the first plan need not do without."""
    newest = (
        live(Reading, theirs.owner).filter(water=theirs, taken_at__gt=now - LONGEST_OUTING, taken_at__lte=now).first()
    )
    if newest is not None:
        values = {**model_to_dict(newest, exclude=["id", "owner", "deleted_at"]), "water": mine}
        put_owned(Reading, owner, uuid.uuid5(mine.pk, str(newest.pk)), **values)


def _bad_code(message: str, accepted: str) -> InputError:
    return InputError(Problem("bad_code", "code", message, accepted))


@transaction.atomic
def join(owner: Any, body: JoinBody) -> JoinedOut:
    """Fish beside another angler by their code, in an outing of one's own on one's own copy of the water.

    An outing on the go on that water is carried on; another one ends. Raises InputError for a code that opens nothing.
    """
    now = timezone.now()
    rows = Together.objects.select_for_update().select_related("outing__water", "outing__owner", "joined__owner")
    one = rows.filter(code=plain(body.code)).first()
    if one is None or _over(one, now) is not None:
        raise _bad_code("This code opens no outing, or no longer.", "the six letters on the other phone")
    if one.outing.owner_id == owner.pk:
        raise _bad_code("This is the code of your own outing.", "another angler's code")
    name = one.outing.owner.get_username()
    if one.joined is not None:
        if one.joined.owner_id != owner.pk:
            raise _bad_code("Somebody has joined by this code already.", "a code of your own from them")
        return JoinedOut(outing_id=one.joined.pk, water_id=one.joined.water_id, name=name)
    water = _water_beside(owner, one.outing.water)
    _read_beside(owner, one.outing.water, water, now)
    on_the_go = live(Outing, owner).filter(water=water, ended_at__isnull=True, started_at__gt=now - LONGEST_OUTING)
    outing = on_the_go.first()
    if outing is None:
        end_others(owner, body.outing_id, now)
        outing = put_owned(Outing, owner, body.outing_id, water=water, started_at=now, ended_at=None, note="")
    one.joined, one.joined_at = outing, now
    one.save(update_fields=["joined", "joined_at"])
    return JoinedOut(outing_id=outing.pk, water_id=water.pk, name=name)
