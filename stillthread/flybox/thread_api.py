"""The thread bench over HTTP: where the flies are, tables, builds, leaders, floats, calibration, kept rigs."""

from __future__ import annotations

import uuid

from django.http import HttpRequest
from ninja import Router

from stillthread.accounts.services import angler_of
from stillthread.core.day.given import Angler
from stillthread.documents.thread import thread_contract as c
from stillthread.documents.thread import thread_json as answers
from stillthread.documents.thread.simulate_contract import SimulateAnswer, SimulateRequest
from stillthread.documents.thread.simulate_json import rig_and_cast, simulate_answer
from stillthread.flybox.models import Rig
from stillthread.web.errors import FAILURES
from stillthread.web.owned import delete_owned, live, put_owned

router = Router(tags=["thread"])


def _rig_out(row: Rig) -> c.RigOut:
    return c.RigOut(id=row.pk, name=row.name, document=SimulateRequest.model_validate(row.document))


@router.post("/thread/simulate", response={200: SimulateAnswer, **FAILURES})
def simulate(request: HttpRequest, payload: SimulateRequest) -> SimulateAnswer:
    """Return the path of every fly of a rig through one cast."""
    return simulate_answer(payload)


@router.post("/thread/table", response={200: c.TableAnswer, **FAILURES})
def table(request: HttpRequest, payload: c.TableRequest) -> c.TableAnswer:
    """Return the countdown table of a rig, and trolling depths if asked for."""
    return answers.table_answer(payload)


@router.post("/thread/fly", response={200: c.FlyBuildAnswer, **FAILURES})
def fly(request: HttpRequest, payload: c.BuildRequest) -> c.FlyBuildAnswer:
    """Return a fly's weight in water and sink speed from its build."""
    return answers.fly_answer(payload.build)


@router.post("/thread/leader", response={200: c.LeaderAnswer, **FAILURES})
def leader(request: HttpRequest, payload: c.LeaderRequest) -> c.LeaderAnswer:
    """Return the cut list of a wanted leader."""
    return answers.leader_answer(payload)


@router.post("/thread/float", response={200: c.FloatCheckAnswer, **FAILURES})
def float_check(request: HttpRequest, payload: SimulateRequest) -> c.FloatCheckAnswer:
    """Return landing and load of a float rig for the signed-in angler's reach."""
    row = angler_of(request.user)
    return answers.float_answer(
        payload, Angler(rod_m=row.rod_m, net_m=row.net_m, arm_m=row.arm_m, cast_m=row.cast_m, afloat=row.afloat)
    )


@router.post("/thread/calibrate", response={200: c.CalibrateAnswer, **FAILURES})
def calibrate(request: HttpRequest, payload: c.CalibrateRequest) -> c.CalibrateAnswer:
    """Return a timed line's or fly's speed and how the band narrows."""
    return answers.calibrate_answer(payload)


@router.post("/thread/check", response={200: c.CheckAnswer, **FAILURES})
def check(request: HttpRequest, payload: c.CheckRequest) -> c.CheckAnswer:
    """Return what a felt bottom or a cocked float says about a rig."""
    return answers.check_answer(payload)


@router.get("/thread/rigs", response={200: list[c.RigOut], **FAILURES})
def rigs(request: HttpRequest) -> list[c.RigOut]:
    """Return the angler's kept rigs."""
    return [_rig_out(row) for row in live(Rig, request.user)]


@router.put("/thread/rigs/{rig_id}", response={200: c.RigOut, **FAILURES})
def put_rig(request: HttpRequest, rig_id: uuid.UUID, payload: c.RigBody) -> c.RigOut:
    """Keep a rig under the client's UUID; it must be one that can be simulated."""
    rig_and_cast(payload.document)
    document = payload.document.model_dump(mode="json")
    return _rig_out(put_owned(Rig, request.user, rig_id, name=payload.name, document=document))


@router.delete("/thread/rigs/{rig_id}", response={204: None, **FAILURES})
def delete_rig(request: HttpRequest, rig_id: uuid.UUID) -> tuple[int, None]:
    """Forget a kept rig."""
    delete_owned(Rig, request.user, rig_id)
    return 204, None
