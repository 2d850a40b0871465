"""Session and settings over HTTP."""

from __future__ import annotations

from typing import Literal

from django.conf import settings
from django.contrib.auth import logout
from django.http import HttpRequest
from django.middleware.csrf import get_token
from ninja import Router
from ninja.security import django_auth
from ninja.utils import check_csrf
from pydantic import Field

from stillthread.accounts import services
from stillthread.accounts.mark import is_demo_database
from stillthread.accounts.models import Angler
from stillthread.core.day.given import Arm, CastLength, NetReach, Rod, RodCount
from stillthread.core.day.schools import Schools
from stillthread.core.vocabulary import Method
from stillthread.documents.strict import Strict
from stillthread.web.errors import FAILURES, Refused

router = Router(tags=["session"])


class SettingsIO(Strict):
    """An angler's settings; lengths in metres whatever is shown."""

    depth_unit: Literal["m", "ft"]
    temperature_unit: Literal["c", "f"]
    wind_unit: Literal["m_s", "km_h", "mph", "kn", "bft"]
    vocabulary: Literal["gb", "na"]
    rod_m: Rod
    net_m: NetReach
    arm_m: Arm
    cast_m: CastLength
    afloat: bool
    rods: RodCount = 1
    methods_left_out: list[Method] = Field(default=[], max_length=5)
    schools: Schools = Schools()


class SessionOut(Strict):
    """Who is signed in, if anyone; whether the demo can be entered with one click."""

    name: str | None
    demo: bool
    demo_available: bool
    settings: SettingsIO | None


class HealthOut(Strict):
    """The server answers and reads its database."""

    ok: bool


class CredentialsIn(Strict):
    """Sign-in name and password."""

    name: str = Field(min_length=1, max_length=40)
    password: str = Field(min_length=1, max_length=200)


class DemoIn(Strict):
    """Which demo angler to be."""

    which: Literal["metric", "feet"] = "metric"


def _settings_of(angler: Angler) -> SettingsIO:
    values = {name: getattr(angler, name) for name in SettingsIO.model_fields}
    return SettingsIO.model_validate({**values, "schools": Schools(**angler.schools)})


def _session(request: HttpRequest) -> SessionOut:
    get_token(request)  # sets the CSRF cookie the client sends back
    if not request.user.is_authenticated:
        return SessionOut(name=None, demo=False, demo_available=settings.DEMO, settings=None)
    angler = services.angler_of(request.user)
    return SessionOut(
        name=request.user.get_username(),
        demo=angler.is_demo,
        demo_available=settings.DEMO,
        settings=_settings_of(angler),
    )


def _need_csrf(request: HttpRequest) -> None:
    if check_csrf(request) is not None:
        raise Refused(403, "csrf", "The page is out of date.", "", "Load the page again.")


@router.get("/health", response={200: HealthOut}, auth=None)
def health(request: HttpRequest) -> HealthOut:
    """Say that the server answers and its database can be read; asked by whoever watches over it."""
    is_demo_database()
    return HealthOut(ok=True)


@router.get("/session", response={200: SessionOut, **FAILURES}, auth=None)
def read_session(request: HttpRequest) -> SessionOut:
    """Return who is signed in."""
    return _session(request)


@router.post("/session/sign-in", response={200: SessionOut, **FAILURES}, auth=None)
def sign_in(request: HttpRequest, payload: CredentialsIn) -> SessionOut:
    """Sign in by name and password."""
    _need_csrf(request)
    services.sign_in(request, payload.name, payload.password)
    return _session(request)


@router.post("/session/sign-up", response={200: SessionOut, **FAILURES}, auth=None)
def sign_up(request: HttpRequest, payload: CredentialsIn) -> SessionOut:
    """Make an account and sign in."""
    _need_csrf(request)
    services.sign_up(request, payload.name, payload.password)
    return _session(request)


@router.post("/session/demo", response={200: SessionOut, **FAILURES}, auth=None)
def sign_in_demo(request: HttpRequest, payload: DemoIn) -> SessionOut:
    """Step in as a demo angler."""
    _need_csrf(request)
    services.sign_in_demo(request, payload.which)
    return _session(request)


@router.post("/session/sign-out", response={200: SessionOut, **FAILURES}, auth=django_auth)
def sign_out(request: HttpRequest) -> SessionOut:
    """Sign out."""
    logout(request)
    return _session(request)


@router.put("/settings", response={200: SettingsIO, **FAILURES}, auth=django_auth)
def write_settings(request: HttpRequest, payload: SettingsIO) -> SettingsIO:
    """Change the angler's settings."""
    angler = services.angler_of(request.user)
    for name, value in payload.model_dump().items():
        setattr(angler, name, value)
    angler.save()
    return _settings_of(angler)
