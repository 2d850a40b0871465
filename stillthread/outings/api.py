"""Outings, spells, events and the log over HTTP."""

from __future__ import annotations

import uuid

from django.http import HttpRequest
from ninja import Router

from stillthread.outings import services
from stillthread.outings.models import Event, Outing, SeenNearby, Spell
from stillthread.outings.schemas import (
    EventBody,
    EventOut,
    LogOut,
    OutingBody,
    OutingOut,
    RunningOut,
    SeenBody,
    SeenOut,
    SpellBody,
    SpellOut,
)
from stillthread.waters.schemas import AheadOut
from stillthread.web.errors import EDITED, FAILURES
from stillthread.web.owned import delete_owned, get_owned, named_revision

router = Router(tags=["outings"])


@router.get("/log", response={200: LogOut, **FAILURES})
def read_log(request: HttpRequest, water_id: uuid.UUID | None = None) -> LogOut:
    """Return outings and rates, for all waters or one."""
    return services.read_log(request.user, water_id)


@router.get("/outings/running", response={200: RunningOut, **FAILURES})
def read_running(request: HttpRequest) -> RunningOut:
    """Return the outing that is on the go, if there is one."""
    return services.read_running(request.user)


@router.get("/outings/{outing_id}/ahead", response={200: list[AheadOut], **FAILURES})
def read_ahead(request: HttpRequest, outing_id: uuid.UUID) -> list[AheadOut]:
    """Return the stops and cautions the outing's day brings, each with the instant from which it holds."""
    return services.read_ahead(request.user, outing_id)


@router.get("/outings/{outing_id}", response={200: OutingOut, **FAILURES})
def read_outing(request: HttpRequest, outing_id: uuid.UUID) -> OutingOut:
    """Return one outing with everything in it."""
    return services.read_outing(request.user, outing_id)


@router.put("/outings/{outing_id}", response={200: OutingOut, **FAILURES, **EDITED})
def put_outing(request: HttpRequest, outing_id: uuid.UUID, payload: OutingBody) -> OutingOut:
    """Write an outing under the client's UUID; writing a deleted one brings it back."""
    return services.put_outing(request.user, outing_id, payload, based_on=named_revision(request))


@router.delete("/outings/{outing_id}", response={204: None, **FAILURES, **EDITED})
def delete_outing(request: HttpRequest, outing_id: uuid.UUID) -> tuple[int, None]:
    """Delete an outing; writing it again brings it back whole."""
    delete_owned(Outing, request.user, outing_id, based_on=named_revision(request))
    return 204, None


@router.put("/outings/{outing_id}/spells/{spell_id}", response={200: SpellOut, **FAILURES, **EDITED})
def put_spell(request: HttpRequest, outing_id: uuid.UUID, spell_id: uuid.UUID, payload: SpellBody) -> SpellOut:
    """Write a spell under the client's UUID."""
    return services.put_spell(request.user, outing_id, spell_id, payload, based_on=named_revision(request))


@router.delete("/outings/{outing_id}/spells/{spell_id}", response={204: None, **FAILURES, **EDITED})
def delete_spell(request: HttpRequest, outing_id: uuid.UUID, spell_id: uuid.UUID) -> tuple[int, None]:
    """Delete a spell; writing it again brings it back with its events."""
    get_owned(Outing, request.user, outing_id)
    delete_owned(Spell, request.user, spell_id, based_on=named_revision(request))
    return 204, None


@router.put("/outings/{outing_id}/events/{event_id}", response={200: EventOut, **FAILURES, **EDITED})
def put_event(request: HttpRequest, outing_id: uuid.UUID, event_id: uuid.UUID, payload: EventBody) -> EventOut:
    """Write an event under the client's UUID."""
    return services.put_event(request.user, outing_id, event_id, payload, based_on=named_revision(request))


@router.delete("/outings/{outing_id}/events/{event_id}", response={204: None, **FAILURES, **EDITED})
def delete_event(request: HttpRequest, outing_id: uuid.UUID, event_id: uuid.UUID) -> tuple[int, None]:
    """Delete an event."""
    get_owned(Outing, request.user, outing_id)
    delete_owned(Event, request.user, event_id, based_on=named_revision(request))
    return 204, None


@router.put("/outings/{outing_id}/seen/{seen_id}", response={200: SeenOut, **FAILURES, **EDITED})
def put_seen(request: HttpRequest, outing_id: uuid.UUID, seen_id: uuid.UUID, payload: SeenBody) -> SeenOut:
    """Write what was seen of others near, under the client's UUID; it moves the advice half as much as one's own."""
    return services.put_seen(request.user, outing_id, seen_id, payload, based_on=named_revision(request))


@router.delete("/outings/{outing_id}/seen/{seen_id}", response={204: None, **FAILURES, **EDITED})
def delete_seen(request: HttpRequest, outing_id: uuid.UUID, seen_id: uuid.UUID) -> tuple[int, None]:
    """Take back what was seen of others."""
    get_owned(Outing, request.user, outing_id)
    delete_owned(SeenNearby, request.user, seen_id, based_on=named_revision(request))
    return 204, None
