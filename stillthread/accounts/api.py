"""Session and settings over HTTP."""

from __future__ import annotations

from datetime import datetime
from typing import Literal

from django.conf import settings
from django.contrib.auth import logout
from django.http import HttpRequest, HttpResponse
from django.middleware.csrf import get_token
from ninja import Router
from ninja.security import django_auth
from ninja.utils import check_csrf
from pydantic import Field

from stillthread.accounts import services
from stillthread.accounts.mark import is_demo_database
from stillthread.accounts.names import SignUp
from stillthread.accounts.settings_io import SettingsIO, settings_of, write_settings_of
from stillthread.accounts.throttle import remember
from stillthread.documents.strict import Strict
from stillthread.web.errors import FAILURES, Refused

router = Router(tags=["session"])


class SessionOut(Strict):
    """Who is signed in, if anyone; whether the demo can be entered with one click."""

    name: str | None
    demo: bool
    demo_available: bool
    sign_up: SignUp
    mails: bool = Field(False, description="whether this server sends a code to who forgot a password")
    mail: str = Field("", description="where to, as far as it was told")
    settings: SettingsIO | None


class HealthOut(Strict):
    """The server answers and reads its database."""

    ok: bool


class CredentialsIn(Strict):
    """Sign-in name and password."""

    name: str = Field(min_length=1, max_length=40)
    password: str = Field(min_length=1, max_length=200)


class NewAccountIn(CredentialsIn):
    """Name and password of a new account, with a code where accounts are by invitation."""

    code: str = Field(default="", max_length=40)


class ResetIn(CredentialsIn):
    """A new password for a name, by a one-time code."""

    code: str = Field(min_length=1, max_length=40)


class PasswordIn(Strict):
    """The password there is and the one there shall be."""

    old: str = Field(min_length=1, max_length=200)
    password: str = Field(min_length=1, max_length=200)


class ProofIn(Strict):
    """The password there is, to show that it is oneself."""

    password: str = Field(min_length=1, max_length=200)


class MailIn(ProofIn):
    """Where a code for a new password is sent to; empty takes it away."""

    mail: str = Field(max_length=254)


class NameIn(Strict):
    """A sign-in name."""

    name: str = Field(min_length=1, max_length=40)


class DeviceOut(Strict):
    """A device somebody is signed in with."""

    says: str
    signed_in_at: datetime
    this: bool


class DemoIn(Strict):
    """Which demo angler to be."""

    which: Literal["metric", "feet"] = "metric"


def _session(request: HttpRequest) -> SessionOut:
    get_token(request)  # sets the CSRF cookie the client sends back
    if not request.user.is_authenticated:
        return SessionOut(
            name=None,
            demo=False,
            demo_available=settings.DEMO,
            sign_up=settings.SIGN_UP,
            mails=bool(settings.MAIL),
            settings=None,
        )
    angler = services.angler_of(request.user)
    return SessionOut(
        name=request.user.get_username(),
        demo=angler.is_demo,
        demo_available=settings.DEMO,
        sign_up=settings.SIGN_UP,
        mails=bool(settings.MAIL),
        mail=getattr(request.user, "email", ""),
        settings=settings_of(angler),
    )


def _need_csrf(request: HttpRequest) -> None:
    if check_csrf(request) is not None:
        raise Refused(403, "csrf", "The page is out of date.", "", "Load the page again.")


@router.get("/health", response={200: HealthOut, **FAILURES}, auth=None)
def health(request: HttpRequest) -> HealthOut:
    """Say that the server answers and its database can be read; asked by whoever watches over it."""
    is_demo_database()
    return HealthOut(ok=True)


@router.get("/session", response={200: SessionOut, **FAILURES}, auth=None)
def read_session(request: HttpRequest) -> SessionOut:
    """Return who is signed in."""
    return _session(request)


@router.post("/session/sign-in", response={200: SessionOut, **FAILURES}, auth=None)
def sign_in(request: HttpRequest, payload: CredentialsIn, response: HttpResponse) -> SessionOut:
    """Sign in by name and password."""
    _need_csrf(request)
    services.sign_in(request, payload.name, payload.password)
    remember(request, response)
    return _session(request)


@router.post("/session/sign-up", response={200: SessionOut, **FAILURES}, auth=None)
def sign_up(request: HttpRequest, payload: NewAccountIn, response: HttpResponse) -> SessionOut:
    """Make an account and sign in."""
    _need_csrf(request)
    services.sign_up(request, payload.name, payload.password, payload.code)
    remember(request, response)
    return _session(request)


@router.post("/session/reset", response={200: SessionOut, **FAILURES}, auth=None)
def reset(request: HttpRequest, payload: ResetIn, response: HttpResponse) -> SessionOut:
    """Set a new password by a one-time code and sign in."""
    _need_csrf(request)
    services.reset(request, payload.name, payload.code, payload.password)
    remember(request, response)
    return _session(request)


@router.post("/session/mail-code", response={204: None, **FAILURES}, auth=None)
def mail_code(request: HttpRequest, payload: NameIn) -> tuple[int, None]:
    """Send a one-time code to an account's mail address, if it has one; the answer is the same either way."""
    _need_csrf(request)
    services.mail_code(request, payload.name)
    return 204, None


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
    return write_settings_of(services.angler_of(request.user), payload)


@router.get("/account/devices", response={200: list[DeviceOut], **FAILURES}, auth=django_auth)
def read_devices(request: HttpRequest) -> list[DeviceOut]:
    """Return the devices that are signed in."""
    here = request.session.session_key
    return [
        DeviceOut(says=one.says, signed_in_at=one.signed_in_at, this=one.session_key == here)
        for one in services.devices_of(request.user)
    ]


@router.post("/account/password", response={200: SessionOut, **FAILURES}, auth=django_auth)
def change_password(request: HttpRequest, payload: PasswordIn) -> SessionOut:
    """Change the password; every other device is signed out."""
    services.change_password(request, payload.old, payload.password)
    return _session(request)


@router.post("/account/mail", response={200: SessionOut, **FAILURES}, auth=django_auth)
def set_mail(request: HttpRequest, payload: MailIn) -> SessionOut:
    """Note where a code for a new password goes."""
    services.set_mail(request, payload.mail.strip(), payload.password)
    request.user.refresh_from_db()  # type: ignore[union-attr]  # signed in
    return _session(request)


@router.post("/account/sign-out-everywhere", response={200: SessionOut, **FAILURES}, auth=django_auth)
def sign_out_everywhere(request: HttpRequest) -> SessionOut:
    """Sign every device out, this one too."""
    services.sign_out_everywhere(request.user)
    logout(request)
    return _session(request)


@router.post("/account/delete", response={200: SessionOut, **FAILURES}, auth=django_auth)
def delete_account(request: HttpRequest, payload: ProofIn) -> SessionOut:
    """Delete the account with all that is in it, for good."""
    services.delete_account(request, payload.password)
    return _session(request)
