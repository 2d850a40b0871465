"""Everything out in one file and in again, and an old notebook in, over HTTP."""

from __future__ import annotations

import contextlib
import threading
import uuid
from collections.abc import Iterator
from datetime import date

from django.http import FileResponse, HttpRequest
from django.utils import timezone
from ninja import Router
from pydantic import Field

from stillthread.archive.pictures import take_pictures
from stillthread.archive.read import Read, read_archive
from stillthread.archive.tables import TABLES
from stillthread.archive.take import Keep, fitted, settings_clash, sort_out, take
from stillthread.archive.uploads import forget, keep_part, whole_file
from stillthread.archive.write import write_archive
from stillthread.documents.strict import Strict
from stillthread.formats.notebook import LARGEST_BYTES as LARGEST_NOTEBOOK
from stillthread.formats.notebook import Notebook, read_notebook
from stillthread.outings import notebook
from stillthread.outings.notebook_schemas import MappingBody, NotebookOut, NotebookTakenOut
from stillthread.web.errors import FAILURES, ProblemOut, Refused

router = Router(tags=["archive"])
READING = threading.Lock()
RAW_BODY = {
    "requestBody": {"content": {"application/octet-stream": {"schema": {"type": "string", "format": "binary"}}}}
}


class KeepBody(Strict):
    """Whose row stays where the archive has another content than is here."""

    keep: Keep = "mine"


class TableOut(Strict):
    """What an archive has of one table: rows not here yet, here as they are, here with another content."""

    name: str
    words: str
    new: int
    same: int
    clash: int


class ArchiveOut(Strict):
    """What an archive holds against what is here, and the rows that cannot be read, the first ones with why."""

    tables: list[TableOut]
    settings_clash: bool
    left_out: int
    faults: list[ProblemOut]


class TakenInOut(Strict):
    """How many rows were written."""

    written: int = Field(ge=0)


@contextlib.contextmanager
def _alone() -> Iterator[None]:
    """One archive at a time: unpacked, a large one takes much memory. Raises Refused where another is being read."""
    if not READING.acquire(blocking=False):
        raise Refused(429, "busy", "Another archive is being read just now.", "", "Try again in a minute.")
    try:
        yield
    finally:
        READING.release()


def _read(request: HttpRequest, upload_id: uuid.UUID) -> Read:
    with whole_file(request.user, upload_id) as file:
        return read_archive(file)


def _notebook(request: HttpRequest, upload_id: uuid.UUID) -> Notebook:
    with whole_file(request.user, upload_id) as file:
        return read_notebook(file.read(LARGEST_NOTEBOOK + 1))


def _name(on: date) -> str:
    return f"still-thread-{on.isoformat()}.zip"


@router.get("/archive", response={200: None, **FAILURES})
def read_all(request: HttpRequest) -> FileResponse:
    """Return everything of the angler as one zip file: a JSON document, the pictures, and tables for a spreadsheet."""
    name = _name(timezone.now().date())
    return FileResponse(write_archive(request.user), as_attachment=True, filename=name, content_type="application/zip")


@router.put("/archive/{upload_id}/parts/{part}", response={204: None, **FAILURES}, openapi_extra=RAW_BODY)
def put_part(request: HttpRequest, upload_id: uuid.UUID, part: int) -> tuple[int, None]:
    """Send a part of a file, under the client's UUID for it; parts are counted from 0."""
    keep_part(request.user, upload_id, part, request.body)
    return 204, None


@router.get("/archive/{upload_id}", response={200: ArchiveOut, **FAILURES})
def preview(request: HttpRequest, upload_id: uuid.UUID) -> ArchiveOut:
    """Return what a sent archive holds against what is here; nothing is written."""
    with _alone():
        read = fitted(request.user, _read(request, upload_id))
        found = {table.name: sort_out(request.user, table, read.rows[table.name]) for table in TABLES}
    return ArchiveOut(
        tables=[
            TableOut(
                name=table.name,
                words=table.words,
                new=len(found[table.name].new),
                same=len(found[table.name].same),
                clash=len(found[table.name].clash),
            )
            for table in TABLES
        ],
        settings_clash=settings_clash(request.user, read),
        left_out=read.left_out,
        faults=[ProblemOut(**one.as_dict()) for one in read.faults],
    )


@router.post("/archive/{upload_id}/take", response={200: TakenInOut, **FAILURES})
def take_archive(request: HttpRequest, upload_id: uuid.UUID, payload: KeepBody) -> TakenInOut:
    """Take a sent archive in, all or nothing, then its pictures; what is here already and the same stays as it is."""
    with _alone(), whole_file(request.user, upload_id) as file:
        read = read_archive(file)
        written = take(request.user, read, payload.keep)
        written += take_pictures(request.user, file, read)
    forget(request.user, upload_id)
    return TakenInOut(written=written)


@router.get("/notebook/{upload_id}", response={200: NotebookOut, **FAILURES})
def read_notebook_file(request: HttpRequest, upload_id: uuid.UUID) -> NotebookOut:
    """Return what a sent notebook's columns seem to mean, and what it would become by that; nothing is written."""
    return notebook.preview(request.user, _notebook(request, upload_id), None)


@router.post("/notebook/{upload_id}", response={200: NotebookOut, **FAILURES})
def map_notebook(request: HttpRequest, upload_id: uuid.UUID, payload: MappingBody) -> NotebookOut:
    """Return what a sent notebook would become by what its columns are said to mean; nothing is written."""
    return notebook.preview(request.user, _notebook(request, upload_id), payload)


@router.post("/notebook/{upload_id}/take", response={200: NotebookTakenOut, **FAILURES})
def take_notebook(request: HttpRequest, upload_id: uuid.UUID, payload: MappingBody) -> NotebookTakenOut:
    """Take in every line that can be read, all at once; days taken in before stay as they are."""
    taken = notebook.take(request.user, _notebook(request, upload_id), payload)
    forget(request.user, upload_id)
    return taken
