"""The one API object."""

from __future__ import annotations

from typing import Any

from django.http import HttpRequest
from ninja import NinjaAPI
from ninja.renderers import BaseRenderer
from ninja.security import django_auth
from pydantic_core import to_json

from stillthread import __version__
from stillthread.accounts.api import router as accounts
from stillthread.archive.api import router as archive
from stillthread.flybox.api import router as flybox
from stillthread.flybox.thread_api import router as thread
from stillthread.outings.api import router as outings
from stillthread.outings.beside_api import router as beside
from stillthread.plans.api import router as plans
from stillthread.site.bin import router as bin_rows
from stillthread.waters.api import router as waters
from stillthread.waters.chart_api import router as chart
from stillthread.web.errors import install


class Renderer(BaseRenderer):
    """Answers as JSON without blanks, by the library that checks them."""

    media_type = "application/json"

    def render(self, request: HttpRequest, data: Any, *, response_status: int) -> bytes:
        """Return the answer's bytes."""
        return to_json(data)


api = NinjaAPI(title="Still Thread", version=__version__, auth=django_auth, docs_url=None, renderer=Renderer())
install(api)
for part in (accounts, waters, chart, flybox, thread, plans, outings, beside, archive, bin_rows):
    api.add_router("", part)
