"""Signing up, signing in, and an angler's settings."""

from __future__ import annotations

import logging
from threading import Thread
from typing import Any

from django.conf import settings
from django.contrib.auth import authenticate, login, logout, update_session_auth_hash
from django.contrib.auth.models import AnonymousUser, User
from django.contrib.auth.password_validation import validate_password
from django.contrib.sessions.models import Session
from django.core.exceptions import ValidationError
from django.core.mail import send_mail
from django.core.validators import validate_email
from django.db import IntegrityError, transaction
from django.http import HttpRequest, JsonResponse
from django.utils import timezone

from stillthread.accounts import names, throttle
from stillthread.accounts.codes import make_code, use_code
from stillthread.accounts.mark import is_demo_database
from stillthread.accounts.models import Angler, Device
from stillthread.core.errors import InputError, Problem
from stillthread.web.errors import Refused, problem_response

log = logging.getLogger("stillthread")
PASSED_ON = ("X-Forwarded-For", "X-Forwarded-Host", "X-Real-IP", "Forwarded", "Via")
DEMO_NAMES = {"metric": "demo", "feet": "demo-feet"}


def angler_of(user: Any) -> Angler:
    """Return the user's settings, made with defaults the first time."""
    return Angler.objects.get_or_create(user=user)[0]


def check_password(password: str, user: User) -> None:
    """Raise InputError at the field where a password is too weak, or holds the name."""
    accepted = "ten characters or more, not only digits, not a common word, without the name"
    if user.username and user.username in names.normal(password):
        raise InputError(Problem("weak_password", "password", "The password holds the name.", accepted))
    try:
        validate_password(password, user)
    except ValidationError as error:
        raise InputError(Problem("weak_password", "password", " ".join(error.messages), accepted)) from error


def _enter(request: HttpRequest, user: User) -> None:
    """Sign a user in, and note the device."""
    login(request, user, backend="stillthread.accounts.backend.AnglerBackend")
    if request.session.session_key is None:
        request.session.save()
    says = request.headers.get("User-Agent", "")[:200]
    Device.objects.update_or_create(
        session_key=request.session.session_key, defaults={"user": user, "says": says, "signed_in_at": timezone.now()}
    )


def sign_up(request: HttpRequest, name: str, password: str, code: str = "") -> User:
    """Make an account and sign it in. Raises InputError for a bad or taken name, a weak password or a code that does not
    work where accounts are by invitation, and Refused where nobody may sign up or after too many tries.
    """
    if settings.SIGN_UP == "closed":
        raise Refused(403, "closed", "No accounts are made here.", "", "Ask whoever keeps this server.")
    name = names.checked(name)
    check_password(password, User(username=name))
    throttle.count_sign_up(request)
    try:
        with transaction.atomic():
            if settings.SIGN_UP == "invited":
                use_code("invite", code)
            user = User.objects.create_user(name, password=password)
            Angler.objects.create(user=user)
    except IntegrityError as error:
        raise InputError(Problem("taken", "name", f"The name {name} is taken.", "another name")) from error
    _enter(request, user)
    return user


def _user_called(name: str) -> User | None:
    """The account of a name, in its normal form or, of an old account, as it was written."""
    found = User.objects.filter(username=names.normal(name)).first()
    return found or User.objects.filter(username=name).first()


def sign_in(request: HttpRequest, name: str, password: str) -> User:
    """Sign in by name and password. Raises InputError for a wrong pair and Refused after too many from one address; after
    too many of one name the middleware answers instead.
    """
    throttle.check_wrong(request, name)
    called = _user_called(name)
    user = authenticate(request, username=called.username if called else names.normal(name), password=password)
    if user is None or isinstance(user, AnonymousUser) or not isinstance(user, User):
        throttle.count_wrong(request, name)
        problem = Problem("wrong_password", "password", "Name and password do not go together.", "the right pair")
        raise InputError(problem)
    _enter(request, user)
    return user


def reset(request: HttpRequest, name: str, code: str, password: str) -> User:
    """Set a new password by a one-time code, sign everybody else out and this device in. Raises InputError for a code that
    does not work or a weak password, and Refused after too many tries.
    """
    throttle.count_sign_up(request)
    user = _user_called(name)
    if user is None:
        raise InputError(Problem("bad_code", "code", "This code does not work, or no longer.", "a code not yet used"))
    check_password(password, user)
    with transaction.atomic():
        use_code("reset", code, user)
        user.set_password(password)
        user.save()
        sign_out_everywhere(user)
    _enter(request, user)
    return user


def set_mail(request: HttpRequest, mail: str, password: str) -> None:
    """Note where a code is sent to who forgot the password; an empty address takes it away.

    Raises InputError for a wrong password or what is no address.
    """
    user = _self(request)
    _prove(user, password, "password")
    if mail:
        try:
            validate_email(mail)
        except ValidationError:
            raise InputError(Problem("bad_mail", "mail", "This is no mail address.", "name@example.org")) from None
    user.email = mail
    user.save(update_fields=["email"])


def mail_code(request: HttpRequest, name: str) -> None:
    """Send a one-time code to the address of an account, if it has one; nobody learns whether it has.

    Raises Refused after too many tries, or where this server sends no mail.
    """
    throttle.count_sign_up(request)
    if not settings.MAIL:
        raise Refused(404, "no_mail", "This server sends no mail.", "", "Ask whoever keeps it for a code.")
    user = _user_called(name)
    if user is None or not user.email:
        return
    text = f"The code for a new password of {user.get_username()}: {make_code('reset', user)}\n\nIt works once, for two hours."
    # Beside the answer: how long sending takes would tell whether there was anything to send.
    Thread(target=_send, args=(text, user.email), daemon=True).start()


def _send(text: str, to: str) -> None:
    try:
        send_mail("Still Thread: a new password", text, None, [to])
    except OSError:
        log.exception("a mail could not be handed over")


def _self(request: HttpRequest) -> User:
    """Who is signed in, as a row."""
    return User.objects.get(username=request.user.get_username())


def _prove(user: User, password: str, field: str) -> None:
    if not user.check_password(password):
        raise InputError(Problem("wrong_password", field, "This is not your password.", "the password you have now"))


def change_password(request: HttpRequest, old: str, password: str) -> None:
    """Change the password and sign every other device out. Raises InputError for a wrong or a weak one."""
    user = _self(request)
    throttle.check_wrong(request, user.get_username())
    if not user.check_password(old):
        throttle.count_wrong(request, user.get_username())
    _prove(user, old, "old")
    check_password(password, user)
    user.set_password(password)
    user.save()
    sign_out_everywhere(user, but=request.session.session_key)
    update_session_auth_hash(request, user)
    Device.objects.filter(user=user).update(session_key=request.session.session_key)


def sign_out_everywhere(user: Any, but: str | None = None) -> None:
    """End all sessions of a user, `but` one."""
    devices = Device.objects.filter(user=user).exclude(session_key=but or "")
    Session.objects.filter(session_key__in=list(devices.values_list("session_key", flat=True))).delete()
    devices.delete()


def devices_of(user: Any) -> list[Device]:
    """Return the devices a user is signed in with, the newest first."""
    going = Session.objects.filter(expire_date__gt=timezone.now()).values("session_key")
    return list(Device.objects.filter(user=user, session_key__in=going).order_by("-signed_in_at"))


def delete_account(request: HttpRequest, password: str) -> None:
    """Delete a user with everything of theirs, at once and for good. Raises InputError for a wrong password."""
    user = _self(request)
    _prove(user, password, "password")
    with transaction.atomic():
        sign_out_everywhere(user)
        user.delete()
    logout(request)


def locked_out(request: HttpRequest, credentials: Any = None, *args: Any, **kwargs: Any) -> JsonResponse:
    """Answer a sign-in after too many wrong tries, in the one error shape."""
    problem = Problem(
        code="locked_out",
        path="",
        message="Too many wrong tries.",
        accepted="",
        hint="Wait a quarter of an hour and try again.",
    )
    return problem_response(problem, 429)


def sign_in_demo(request: HttpRequest, which: str) -> User:
    """Sign in as a demo angler, only where the demo runs and only from this machine. Raises Refused (403) elsewhere."""
    here = request.META.get("REMOTE_ADDR") in ("127.0.0.1", "::1")
    # A proxy on this machine speaks for somebody elsewhere.
    passed_on = any(name in request.headers for name in PASSED_ON)
    if not settings.DEMO or not here or passed_on:
        raise Refused(403, "no_demo", "The demo angler only lives in the demo.", "", "Sign in or make an account.")
    user = User.objects.filter(username=DEMO_NAMES[which], angler__is_demo=True).first()
    if user is None or not is_demo_database():
        raise Refused(403, "no_demo", "The demo data is not loaded.", "", "Start with ./still demo.")
    _enter(request, user)
    return user
