"""What holds for every request before anything else looks at it: size, method, and that answers are not kept."""

from __future__ import annotations

from collections.abc import Callable

from django.conf import settings
from django.http import HttpRequest, HttpResponse

from stillthread.core.errors import Problem
from stillthread.web.errors import problem_response

API = "/api/"


def _too_large() -> HttpResponse:
    """The answer to a body larger than the server takes, in the one error shape."""
    most = settings.DATA_UPLOAD_MAX_MEMORY_SIZE / 1e6
    problem = Problem("too_large", "", "This is more than the server takes at once.", f"at most {most:g} MB")
    return problem_response(problem, 413)


def edge(ask: Callable[[HttpRequest], HttpResponse]) -> Callable[[HttpRequest], HttpResponse]:
    """Refuse a body that says it is too large before it is read, answer HEAD as GET without the body, keep no API answer."""

    def answer(request: HttpRequest) -> HttpResponse:
        length = request.META.get("CONTENT_LENGTH") or "0"
        if not length.isascii() or not length.isdigit() or int(length) > settings.DATA_UPLOAD_MAX_MEMORY_SIZE:
            return _too_large()
        head = request.method == "HEAD" and request.path.startswith(API)
        if head:
            request.method = "GET"
        response = ask(request)
        if request.path.startswith(API) and not response.has_header("Cache-Control"):
            response["Cache-Control"] = "private, no-store"
        if head:
            request.method = "HEAD"
            response["Content-Length"] = str(len(response.content))
            response.content = b""
        return response

    return answer
