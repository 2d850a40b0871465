"""A kept plan in the angler's calendar."""

from __future__ import annotations

import uuid
from typing import Any

from stillthread.documents.frozen import frozen_request
from stillthread.documents.plan_answer import PlanAnswer
from stillthread.formats.calendar_file import PlannedOuting, write_calendar
from stillthread.plans.models import Plan
from stillthread.plans.services import readable
from stillthread.waters.services import local_time, water_document
from stillthread.web.owned import get_owned

USUAL_SESSION_H = 4.0  # where the day a plan was made for can no longer be read
REMINDER = "Check the forecast and the rules, tie what is missing."


def calendar(owner: Any, plan_id: uuid.UUID, lines: list[str] | None = None) -> bytes:
    """Return a kept plan as an iCalendar file, in the angler's own words (`lines`) where they are given.

    Raises Http404 for another's.
    """
    plan = get_owned(Plan, owner, plan_id)
    request, answer = frozen_request(plan.request), readable(plan)
    water = request.water if request is not None else water_document(plan.water, plan.when)
    place = next((p for p in water.places if p.name == answer.belief.chosen), None)
    holder = place if place is not None and place.longitude_deg is not None else water
    position = None
    if holder.longitude_deg is not None and holder.latitude_deg is not None:
        position = (holder.longitude_deg, holder.latitude_deg)
    return write_calendar(
        PlannedOuting(
            uid=str(plan.pk),
            start=plan.when,
            length_h=request.session_h if request is not None else USUAL_SESSION_H,
            summary=f"Fishing: {answer.belief.chosen}, {plan.water.name}",
            description="\n".join(lines) if lines else calendar_words(answer),
            location=f"{answer.belief.chosen}, {plan.water.name}",
            alarm=f"Fishing on {local_time(plan.water, plan.when):%A %-d %B at %H:%M}. {REMINDER}",
            position=position,
            made_at=plan.received_at,
        )
    )


def calendar_words(answer: PlanAnswer) -> str:
    """Return a plan in a few lines, in metres and our own terms: what to stop for, the first set-ups, what to mind."""
    lines = [f"Stop. {one.sentence}" for one in answer.cautions if one.level == "stop"]
    for one in answer.set_ups[:2]:
        depth = f"hang {one.float_hang_m:.1f} m" if one.float_hang_m is not None else f"about {one.target_m:.1f} m"
        count = f", count {one.count_s} s" if one.count_s is not None else ""
        flies = ", ".join(f"{fly.name} {fly.hook} ({fly.position})" for fly in one.flies)
        lines.append(f"{one.title}: {depth}{count}. {flies}. {one.retrieve.words}.")
    lines += [one.sentence for one in answer.cautions if one.level == "caution"]
    lines.append("Local rules come first: check them on the day.")
    return "\n".join(lines)
