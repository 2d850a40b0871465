"""One place turns every failure into the same JSON shape."""

from __future__ import annotations

import logging
from collections.abc import Callable
from dataclasses import dataclass, field
from functools import cache
from typing import Any

from django.http import Http404, HttpRequest, HttpResponse, JsonResponse
from ninja import NinjaAPI, Schema
from ninja.errors import AuthenticationError, HttpError, ValidationError
from ninja.operation import Operation
from pydantic import ValidationError as BodyError

from stillthread.core.errors import InputError, NobodyWaitsError, Problem
from stillthread.documents.strict import Strict, problems_from_pydantic
from stillthread.web.owned import StaleError

NOT_TOLD = {"_state", "owner_id", "plan_snapshot"}
log = logging.getLogger("stillthread")
LOCATION_WORDS = ("body", "query", "path", "file", "form", "payload")


class ProblemOut(Strict):
    """One fault: stable code, path of the field, words for people, what is accepted, a hint."""

    code: str
    path: str
    message: str
    accepted: str
    hint: str


class ErrorsOut(Strict):
    """The body of every failed answer."""

    errors: list[ProblemOut]


class StaleOut(ErrorsOut):
    """The answer to an edit made on an older version: the row as it is kept, and what was sent, by field."""

    kept: dict[str, Any]
    sent: dict[str, Any]


# Declared on every route.
FAILURES = {400: ErrorsOut, 401: ErrorsOut, 403: ErrorsOut, 404: ErrorsOut, 422: ErrorsOut, 429: ErrorsOut}
# Declared beside them where the route leans on something that can be absent or busy.
EDITED = {409: StaleOut}  # beside them where rows are changed
LEANING = {409: ErrorsOut, 502: ErrorsOut}


class Refused(Exception):  # noqa: N818 - it reads as what it says
    """A request refused for a reason that is not a field's fault; carries its status."""

    def __init__(self, status: int, code: str, message: str, accepted: str = "", hint: str = ""):
        """Keep the status and the problem."""
        self.status = status
        self.problem = Problem(code=code, path="", message=message, accepted=accepted, hint=hint)
        super().__init__(message)


@cache
def _model_of(response: Any) -> Any:
    return type("NinjaResponseSchema", (Schema,), {"__annotations__": {"response": response}})


def _response_model(operation: Operation, response: Any) -> Any:
    """One model for one kind of answer: made anew for each route and status they take two seconds of every start."""
    return None if response is None else _model_of(response)


Operation._create_response_model = _response_model  # type: ignore[method-assign, assignment]


def problem_response(problem: Problem, status: int) -> JsonResponse:
    """Return one problem in the one error shape, for what is answered outside the API object."""
    return JsonResponse({"errors": [problem.as_dict()]}, status=status)


@dataclass(frozen=True)
class Failure:
    """What a failure is told as: status, problems, and what goes beside them."""

    status: int
    problems: list[Problem]
    beside: dict[str, Any] = field(default_factory=dict)

    @property
    def body(self) -> dict[str, Any]:
        """The answer's body."""
        return {"errors": [one.as_dict() for one in self.problems], **self.beside}


def _stale(error: StaleError) -> Failure:
    gone = error.row.deleted_at is not None
    what = "deleted" if gone else "changed"
    message = f"This was {what} elsewhere since it was opened here."
    problem = Problem("deleted_elsewhere" if gone else "stale", "", message, f"revision {error.row.revision}")
    kept = {name: value for name, value in vars(error.row).items() if name not in NOT_TOLD}
    sent = {name: getattr(value, "pk", value) for name, value in error.sent.items()}
    return Failure(409, [problem], {"kept": kept, "sent": sent})


def _http(error: HttpError) -> Failure:
    code = "csrf" if "CSRF" in str(error) else "refused"
    hint = "Load the page again." if code == "csrf" else ""
    problem = Problem(code=code, path="", message=str(error), accepted="", hint=hint)
    return Failure(error.status_code, [problem])


def _unexpected() -> Failure:
    message = "Something went wrong on our side. What you typed is kept on this device."
    problem = Problem(code="server_error", path="", message=message, accepted="", hint="Try again in a moment.")
    return Failure(500, [problem])


# What each kind of failure is told as.
_TOLD: dict[type[Exception], Callable[[Any], Failure]] = {
    InputError: lambda error: Failure(422, error.problems),
    ValidationError: lambda error: Failure(422, problems_from_pydantic(error.errors, LOCATION_WORDS)),
    BodyError: lambda error: Failure(422, problems_from_pydantic(error.errors(include_url=False))),
    NobodyWaitsError: lambda error: Failure(
        409, [Problem("superseded", "", "The page has asked for something newer.")]
    ),
    StaleError: _stale,
    Refused: lambda error: Failure(error.status, [error.problem]),
    AuthenticationError: lambda error: Failure(
        401, [Problem("signed_out", "", "You are not signed in.", "a signed-in angler")]
    ),
    Http404: lambda error: Failure(
        404, [Problem("not_found", "", f"There is no such {str(error) or 'page'} of yours.")]
    ),
    HttpError: _http,
}


def told_as(error: Exception, where: str) -> Failure:
    """Return what a failure is told as; one that nobody foresaw is logged with its traceback."""
    for kind, tell in _TOLD.items():
        if isinstance(error, kind):
            return tell(error)
    log.error("unexpected failure at %s", where, exc_info=error)
    return _unexpected()


def install(api: NinjaAPI) -> None:
    """Attach the handlers to the API object."""

    def answer(request: HttpRequest, error: Exception | type[Exception]) -> HttpResponse:
        told = told_as(error, request.path)  # type: ignore[arg-type]  # the framework hands over what was raised
        return api.create_response(request, told.body, status=told.status)

    for kind in (*_TOLD, Exception):
        api.add_exception_handler(kind, answer)
