"""One place turns every failure into the same JSON shape."""

from __future__ import annotations

import logging
from functools import cache
from typing import Any

from django.http import Http404, HttpRequest, HttpResponse, JsonResponse
from ninja import NinjaAPI, Schema
from ninja.errors import AuthenticationError, HttpError, ValidationError
from ninja.operation import Operation

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


def _answer(api: NinjaAPI, request: HttpRequest, problems: list[Problem], status: int) -> HttpResponse:
    return api.create_response(request, {"errors": [p.as_dict() for p in problems]}, status=status)


def install(api: NinjaAPI) -> None:
    """Attach the handlers to the API object."""

    @api.exception_handler(InputError)
    def input_error(request: HttpRequest, error: InputError) -> HttpResponse:
        return _answer(api, request, error.problems, 422)

    @api.exception_handler(ValidationError)
    def validation_error(request: HttpRequest, error: ValidationError) -> HttpResponse:
        return _answer(api, request, problems_from_pydantic(error.errors, LOCATION_WORDS), 422)

    @api.exception_handler(NobodyWaitsError)
    def nobody_waits(request: HttpRequest, error: NobodyWaitsError) -> HttpResponse:
        return _answer(api, request, [Problem("superseded", "", "The page has asked for something newer.")], 409)

    @api.exception_handler(StaleError)
    def stale(request: HttpRequest, error: StaleError) -> HttpResponse:
        gone = error.row.deleted_at is not None
        what = "deleted" if gone else "changed"
        message = f"This was {what} elsewhere since it was opened here."
        problem = Problem("deleted_elsewhere" if gone else "stale", "", message, f"revision {error.row.revision}")
        kept = {name: value for name, value in vars(error.row).items() if name not in NOT_TOLD}
        sent = {name: getattr(value, "pk", value) for name, value in error.sent.items()}
        return api.create_response(request, {"errors": [problem.as_dict()], "kept": kept, "sent": sent}, status=409)

    @api.exception_handler(Refused)
    def refused(request: HttpRequest, error: Refused) -> HttpResponse:
        return _answer(api, request, [error.problem], error.status)

    @api.exception_handler(AuthenticationError)
    def not_signed_in(request: HttpRequest, error: AuthenticationError) -> HttpResponse:
        return _answer(api, request, [Problem("signed_out", "", "You are not signed in.", "a signed-in angler")], 401)

    @api.exception_handler(Http404)
    def not_found(request: HttpRequest, error: Http404) -> HttpResponse:
        what = str(error) or "page"
        return _answer(api, request, [Problem("not_found", "", f"There is no such {what} of yours.")], 404)

    @api.exception_handler(HttpError)
    def http_error(request: HttpRequest, error: HttpError) -> HttpResponse:
        code = "csrf" if "CSRF" in str(error) else "refused"
        hint = "Load the page again." if code == "csrf" else ""
        return _answer(
            api, request, [Problem(code=code, path="", message=str(error), accepted="", hint=hint)], error.status_code
        )

    @api.exception_handler(Exception)
    def unexpected(request: HttpRequest, error: Exception) -> HttpResponse:
        log.exception("unexpected failure at %s", request.path)
        message = "Something went wrong on our side. What you typed is kept on this device."
        return _answer(
            api,
            request,
            [Problem(code="server_error", path="", message=message, accepted="", hint="Try again in a moment.")],
            500,
        )
