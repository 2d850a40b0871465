"""The kit over HTTP."""

from __future__ import annotations

import uuid

from django.http import HttpRequest, HttpResponse
from ninja import File, Router
from ninja.files import UploadedFile

from stillthread.core.tackle.lines import MOST_LINES
from stillthread.core.tackle.lines import Line as CoreLine
from stillthread.core.thread.line_weight import label_doubt
from stillthread.documents.flies_file import check_size, read_flies, write_flies_csv
from stillthread.documents.fly_contract import FlyFile
from stillthread.documents.strict import Strict
from stillthread.flybox import box_services as box
from stillthread.flybox.models import Fly, Line
from stillthread.flybox.schemas import FlyBody, FlyOut, LineBody, StarterFly, StarterIn, TakenOut
from stillthread.web.errors import EDITED, FAILURES
from stillthread.web.owned import delete_owned, live, named_revision, put_owned

router = Router(tags=["kit"])


class LineOut(LineBody):
    """A line in the kit with its title in words."""

    id: uuid.UUID
    revision: int
    title: str
    label_doubt: str | None


class KitOut(Strict):
    """Everything the angler owns, and the starter set on offer."""

    lines: list[LineOut]
    flies: list[FlyOut]
    starter: list[StarterFly]


def _line_out(row: Line) -> LineOut:
    fields = {f: getattr(row, f) for f in LineBody.model_fields}
    line = CoreLine(key=str(row.pk), **fields)
    return LineOut(id=row.pk, revision=row.revision, title=line.title, label_doubt=label_doubt(line), **fields)


@router.get("/kit", response={200: KitOut, **FAILURES})
def read_kit(request: HttpRequest) -> KitOut:
    """Return lines, flies and the starter set."""
    lines = [_line_out(row) for row in live(Line, request.user)]
    flies = [box.fly_out(row) for row in live(Fly, request.user)]
    return KitOut(lines=lines, flies=flies, starter=box.starter())


@router.put("/kit/lines/{line_id}", response={200: LineOut, **FAILURES, **EDITED})
def put_line(request: HttpRequest, line_id: uuid.UUID, payload: LineBody) -> LineOut:
    """Write a line under the client's UUID. A kit holds no more lines than a plan takes."""
    lines = live(Line, request.user).exclude(pk=line_id).count() + 1
    box.check_room(lines, MOST_LINES, "lines", "family")
    return _line_out(put_owned(Line, request.user, line_id, based_on=named_revision(request), **payload.model_dump()))


@router.delete("/kit/lines/{line_id}", response={204: None, **FAILURES, **EDITED})
def delete_line(request: HttpRequest, line_id: uuid.UUID) -> tuple[int, None]:
    """Take a line out of the kit."""
    delete_owned(Line, request.user, line_id, based_on=named_revision(request))
    return 204, None


@router.put("/kit/flies/{fly_id}", response={200: FlyOut, **FAILURES, **EDITED})
def put_fly(request: HttpRequest, fly_id: uuid.UUID, payload: FlyBody) -> FlyOut:
    """Write a fly under the client's UUID."""
    return box.put_fly(request.user, fly_id, payload, based_on=named_revision(request))


@router.delete("/kit/flies/{fly_id}", response={204: None, **FAILURES, **EDITED})
def delete_fly(request: HttpRequest, fly_id: uuid.UUID) -> tuple[int, None]:
    """Take a fly out of the box."""
    delete_owned(Fly, request.user, fly_id, based_on=named_revision(request))
    return 204, None


@router.post("/kit/starter", response={200: list[FlyOut], **FAILURES})
def add_starter(request: HttpRequest, payload: StarterIn) -> list[FlyOut]:
    """Add starter patterns to the box."""
    return [box.fly_out(row) for row in box.add_starter_flies(request.user, payload.keys)]


@router.get("/kit/flies.json", response={200: FlyFile, **FAILURES})
def read_box(request: HttpRequest) -> FlyFile:
    """Return the whole fly box as a JSON document."""
    return box.box_file(request.user)


@router.get("/kit/flies.csv", response={200: None, **FAILURES})
def read_box_csv(request: HttpRequest) -> HttpResponse:
    """Return the fly box as a CSV table, without recipes."""
    answer = HttpResponse(write_flies_csv(box.box_file(request.user)), content_type="text/csv; charset=utf-8")
    answer["Content-Disposition"] = 'attachment; filename="fly-box.csv"'
    return answer


@router.post("/kit/box-file", response={200: TakenOut, **FAILURES})
def take_box(request: HttpRequest, file: File[UploadedFile]) -> TakenOut:
    """Take the patterns of a JSON or CSV file into the box; a name already there is replaced."""
    check_size(file.size or 0)
    return TakenOut(taken=box.take_file(request.user, read_flies(file.read())))
