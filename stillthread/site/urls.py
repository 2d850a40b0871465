"""Addresses: the API below /api/, the one page for everything else."""

from __future__ import annotations

from django.http import HttpRequest, HttpResponse
from django.urls import path, re_path
from django.views.decorators.cache import never_cache
from django.views.decorators.http import require_safe

from stillthread.core.errors import Problem
from stillthread.site.api import api
from stillthread.site.settings import DIST
from stillthread.web.errors import problem_response


@never_cache
@require_safe
def page(request: HttpRequest) -> HttpResponse:
    """Return the application's one page; the browser decides what it shows."""
    index = DIST / "index.html"
    if not index.exists():
        return HttpResponse("The front end is not built: run ./still demo", status=503, content_type="text/plain")
    nonce = f'<meta name="csp-nonce" content="{request.csp_nonce}" />'  # type: ignore[attr-defined]  # by its middleware
    told = index.read_text("utf-8").replace("<head>", f"<head>{nonce}", 1)
    return HttpResponse(told, content_type="text/html; charset=utf-8")


def no_such_route(request: HttpRequest) -> HttpResponse:
    """Answer an unknown API address in the one error shape."""
    problem = Problem("not_found", "", "There is no such address in the API.")
    return problem_response(problem, 404)


urlpatterns = [path("api/", api.urls), re_path(r"^api/.*$", no_such_route), re_path(r"^(?!assets/).*$", page)]
