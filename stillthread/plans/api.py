"""Plans over HTTP."""

from __future__ import annotations

import uuid
from typing import Annotated

from django.http import HttpRequest, HttpResponse
from ninja import Query, Router

from stillthread.documents.advise import AdviseAnswer, IfBlankOut, OverDayOut
from stillthread.outings.schemas import OutingOut
from stillthread.plans import box_services, next_services, outing_calendar, rows_services, services
from stillthread.plans.box_schemas import BoxTodayOut, TieListBody, TieListOut
from stillthread.plans.models import Plan
from stillthread.plans.rows_schemas import RowsIn, RowsOut
from stillthread.plans.schemas import (
    CalendarBody,
    KitWaysOut,
    PlanBody,
    PlanOut,
    PreviewOut,
    SchoolsOut,
    StartBody,
    TurnBody,
)
from stillthread.web.asked import newest
from stillthread.web.errors import FAILURES, ErrorsOut
from stillthread.web.owned import get_owned

router = Router(tags=["plans"])


@router.get("/schools", response={200: SchoolsOut, **FAILURES})
def schools(request: HttpRequest) -> SchoolsOut:
    """Return the questions anglers disagree on with their answers, and the aims of a day."""
    return services.schools()


@router.post("/plans/preview", response={200: PreviewOut, 409: ErrorsOut, **FAILURES})
def preview(request: HttpRequest, payload: PlanBody) -> PreviewOut:
    """Compute a plan without keeping it; given up (409) when the same page asks for another meanwhile."""
    return services.preview(request.user, payload, newest(request))


@router.get("/outings/{outing_id}/next", response={200: AdviseAnswer, **FAILURES})
def what_next(
    request: HttpRequest, outing_id: uuid.UUID, hours: Annotated[float, Query(ge=0.5, le=18)] = 4.0
) -> AdviseAnswer:
    """Return what to do next in an outing on the go, and why."""
    return next_services.next_for(request.user, outing_id, hours)


@router.get("/outings/{outing_id}/if-blank", response={200: tuple[IfBlankOut, ...], **FAILURES})
def if_blank(
    request: HttpRequest, outing_id: uuid.UUID, hours: Annotated[float, Query(ge=0.5, le=18)] = 4.0
) -> tuple[IfBlankOut, ...]:
    """Return what to do in an outing as long as nothing takes, worked out for a phone without signal."""
    return next_services.if_blank_for(request.user, outing_id, hours)


@router.post("/plans/if-blank", response={200: tuple[IfBlankOut, ...], **FAILURES})
def if_blank_from(request: HttpRequest, payload: PlanBody) -> tuple[IfBlankOut, ...]:
    """Return what to do from each of a day's first set-ups as long as nothing takes."""
    return next_services.if_blank_from(request.user, payload)


@router.get("/outings/{outing_id}/belief", response={200: OverDayOut, **FAILURES})
def belief_over_day(request: HttpRequest, outing_id: uuid.UUID) -> OverDayOut:
    """Return how the belief of the feeding depth went through an outing."""
    return next_services.over_day_for(request.user, outing_id)


@router.post("/outings/{outing_id}/turn", response={200: AdviseAnswer, **FAILURES})
def turn(request: HttpRequest, outing_id: uuid.UUID, payload: TurnBody) -> AdviseAnswer:
    """Note how the day turned (sun, cloud, wind, colour, rises), and return what to do next."""
    return next_services.turn(request.user, outing_id, payload)


@router.post("/outings/rows", response={200: RowsOut, **FAILURES})
def write_rows(request: HttpRequest, payload: RowsIn) -> RowsOut:
    """Write rows of outings in their order, each told for itself; the same rows sent again are the same."""
    return rows_services.write(request.user, payload)


@router.post("/plans/kit", response={200: KitWaysOut, **FAILURES})
def kit_ways(request: HttpRequest, payload: PlanBody) -> KitWaysOut:
    """Return every line of the kit with a fly of each weight, worked out for a day: for what is tied on without signal."""
    return services.kit_ways_for(request.user, payload)


@router.put("/plans/{plan_id}", response={200: PlanOut, **FAILURES})
def keep(request: HttpRequest, plan_id: uuid.UUID, payload: PlanBody) -> PlanOut:
    """Compute a plan and freeze it under the client's UUID."""
    return services.keep(request.user, plan_id, payload)


@router.get("/plans/{plan_id}", response={200: PlanOut, **FAILURES})
def read(request: HttpRequest, plan_id: uuid.UUID) -> PlanOut:
    """Return a kept plan."""
    return services.plan_out(get_owned(Plan, request.user, plan_id))


def _calendar(data: bytes) -> HttpResponse:
    answer = HttpResponse(data, content_type="text/calendar; charset=utf-8")
    answer["Content-Disposition"] = 'attachment; filename="outing.ics"'
    return answer


@router.get("/plans/{plan_id}/calendar.ics", response={200: None, **FAILURES})
def calendar(request: HttpRequest, plan_id: uuid.UUID) -> HttpResponse:
    """Return a kept plan for a calendar (iCalendar), in metres."""
    return _calendar(outing_calendar.calendar(request.user, plan_id))


@router.post("/plans/{plan_id}/calendar.ics", response={200: None, **FAILURES})
def calendar_said(request: HttpRequest, plan_id: uuid.UUID, payload: CalendarBody) -> HttpResponse:
    """Return a kept plan for a calendar, in the angler's own words and units."""
    return _calendar(outing_calendar.calendar(request.user, plan_id, payload.lines))


@router.post("/plans/{plan_id}/start", response={200: OutingOut, **FAILURES})
def start(request: HttpRequest, plan_id: uuid.UUID, payload: StartBody) -> OutingOut:
    """Start an outing from a set-up of a kept plan."""
    return services.start(request.user, plan_id, payload)


@router.post("/plans/{plan_id}/go-over", response={200: OutingOut, **FAILURES})
def go_over(request: HttpRequest, plan_id: uuid.UUID, payload: StartBody) -> OutingOut:
    """Go on with the outing that runs under a set-up of a kept plan."""
    return services.go_over(request.user, plan_id, payload)


@router.post("/box/today", response={200: BoxTodayOut, **FAILURES})
def box_today(request: HttpRequest, payload: PlanBody) -> BoxTodayOut:
    """Return which flies in the box stand for the food about now, and the gaps."""
    return box_services.box_today(request.user, payload)


@router.post("/box/tie-list", response={200: TieListOut, **FAILURES})
def tie_list(request: HttpRequest, payload: TieListBody) -> TieListOut:
    """Return what to tie for the plan, materials summed."""
    return box_services.tie_list(request.user, payload)
