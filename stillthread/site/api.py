"""The one API object."""

from __future__ import annotations

from ninja import NinjaAPI
from ninja.security import django_auth

from stillthread import __version__
from stillthread.accounts.api import router as accounts
from stillthread.flybox.api import router as flybox
from stillthread.flybox.thread_api import router as thread
from stillthread.outings.api import router as outings
from stillthread.plans.api import router as plans
from stillthread.site.bin import router as bin_rows
from stillthread.waters.api import router as waters
from stillthread.waters.chart_api import router as chart
from stillthread.web.errors import install

api = NinjaAPI(title="Still Thread", version=__version__, auth=django_auth, docs_url=None)
install(api)
for part in (accounts, waters, chart, flybox, thread, plans, outings, bin_rows):
    api.add_router("", part)
