"""Outings, spells, events and the log over HTTP."""

from __future__ import annotations

import uuid
from typing import Annotated

from django.http import HttpRequest
from ninja import Query, Router

from stillthread.accounts.throttle import count_join
from stillthread.outings import answers, readings, services, together
from stillthread.outings.against_plan import plan_check
from stillthread.outings.answers_schemas import (
    AnswersOut,
    AskedBehind,
    AskedBy,
    AskedLog,
    AskedPair,
    AskedSeason,
    CaughtOut,
    ComparedOut,
    LogFilter,
    PlanCheckOut,
    SeasonPictureOut,
)
from stillthread.outings.models import Event, Outing, SeenNearby, Spell
from stillthread.outings.schemas import (
    EventBody,
    EventOut,
    JoinBody,
    JoinedOut,
    LogOut,
    OutingBody,
    OutingOut,
    OutingSummary,
    RunningOut,
    SeenBody,
    SeenOut,
    SpellBody,
    SpellOut,
    TogetherOut,
)
from stillthread.outings.season import season_picture
from stillthread.waters.schemas import AheadOut
from stillthread.web.errors import EDITED, FAILURES
from stillthread.web.owned import delete_owned, get_owned, named_revision

router = Router(tags=["outings"])


def only(asked: LogFilter) -> LogFilter:
    """Which outings, of what is asked of them."""
    return LogFilter(**{name: getattr(asked, name) for name in LogFilter.model_fields})


@router.get("/log", response={200: LogOut, **FAILURES})
def read_log(request: HttpRequest, asked: Annotated[AskedLog, Query()]) -> LogOut:
    """Return outings and rates, for everything or what is asked for."""
    return services.read_log(request.user, only(asked), asked.most)


@router.get("/log/answers", response={200: AnswersOut, **FAILURES})
def read_answers(request: HttpRequest, asked: Annotated[AskedBy, Query()]) -> AnswersOut:
    """Return effort, takes and their rate by any of what was noted."""
    return answers.answers(request.user, only(asked), asked.by)


@router.get("/log/behind", response={200: list[OutingSummary], **FAILURES})
def read_behind(request: HttpRequest, asked: Annotated[AskedBehind, Query()]) -> list[OutingSummary]:
    """Return the outings that stand behind one of the groups, newest first, at most a hundred."""
    return services.read_behind(request.user, only(asked), asked.by, asked.key)


@router.get("/log/compare", response={200: ComparedOut, **FAILURES})
def compare(request: HttpRequest, asked: Annotated[AskedPair, Query()]) -> ComparedOut:
    """Return two of anything against each other within outings, and what that says."""
    names = asked.a_name or asked.a, asked.b_name or asked.b
    return answers.compared(request.user, only(asked), asked.by, pair=(asked.a, asked.b), names=names)


@router.get("/log/plans", response={200: PlanCheckOut, **FAILURES})
def check_plans(request: HttpRequest, asked: Annotated[LogFilter, Query()]) -> PlanCheckOut:
    """Return how the takes of planned outings lay against their plans, and which of the plans' reasons helped."""
    return plan_check(answers.asked_for(request.user, asked))


@router.get("/log/fish", response={200: list[CaughtOut], **FAILURES})
def read_fish(request: HttpRequest, asked: Annotated[LogFilter, Query()]) -> list[CaughtOut]:
    """Return the fish landed by species and length, and what became of them."""
    return answers.fish(request.user, asked)


@router.get("/log/season", response={200: SeasonPictureOut, **FAILURES})
def read_season(request: HttpRequest, asked: Annotated[AskedSeason, Query()]) -> SeasonPictureOut:
    """Return a year on a water by depth and day: effort, takes, and the lines of equal temperature."""
    return season_picture(request.user, asked.water_id, asked.year)


@router.get("/outings/running", response={200: RunningOut, **FAILURES})
def read_running(request: HttpRequest) -> RunningOut:
    """Return the outing that is on the go, if there is one."""
    return services.read_running(request.user)


@router.get("/outings/{outing_id}/ahead", response={200: list[AheadOut], **FAILURES})
def read_ahead(request: HttpRequest, outing_id: uuid.UUID) -> list[AheadOut]:
    """Return the stops and cautions the outing's day brings, each with the instant from which it holds."""
    return readings.read_ahead(request.user, outing_id)


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


@router.get("/outings/{outing_id}/together", response={200: TogetherOut | None, **FAILURES})
def read_together(request: HttpRequest, outing_id: uuid.UUID) -> TogetherOut | None:
    """Return how an outing is shared, and what the other angler has fished; null where it never was."""
    return together.read(request.user, outing_id)


@router.put("/outings/{outing_id}/together", response={200: TogetherOut | None, **FAILURES})
def share(request: HttpRequest, outing_id: uuid.UUID) -> TogetherOut | None:
    """Share an outing on the go by a code that lasts as long as its day; a second time it is the same code."""
    return together.share(request.user, outing_id)


@router.delete("/outings/{outing_id}/together", response={204: None, **FAILURES})
def end_together(request: HttpRequest, outing_id: uuid.UUID) -> tuple[int, None]:
    """End sharing, or leave another's; what was fished until then stays in both pictures of the day."""
    together.end(request.user, outing_id)
    return 204, None


@router.delete("/outings/{outing_id}/together/partner", response={200: TogetherOut | None, **FAILURES})
def remove_partner(request: HttpRequest, outing_id: uuid.UUID) -> TogetherOut | None:
    """Take the other angler out and return a new code."""
    return together.remove(request.user, outing_id)


@router.post("/together/join", response={200: JoinedOut, **FAILURES})
def join(request: HttpRequest, payload: JoinBody) -> JoinedOut:
    """Fish beside another angler by their code: an outing of one's own, on one's own copy of the water."""
    count_join(request)
    return together.join(request.user, payload)
