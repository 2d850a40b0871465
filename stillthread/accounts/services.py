"""Signing up, signing in, and an angler's settings."""

from __future__ import annotations

from typing import Any

from django.conf import settings
from django.contrib.auth import authenticate, login
from django.contrib.auth.models import AnonymousUser, User
from django.contrib.auth.password_validation import validate_password
from django.core.exceptions import ValidationError
from django.core.validators import RegexValidator
from django.db import IntegrityError, transaction
from django.http import HttpRequest, JsonResponse

from stillthread.accounts.mark import is_demo_database
from stillthread.accounts.models import Angler
from stillthread.core.errors import InputError, Problem
from stillthread.web.errors import Refused

check_name = RegexValidator(r"^[\w.+-]{3,40}$")
PASSED_ON = ("X-Forwarded-For", "X-Forwarded-Host", "X-Real-IP", "Forwarded", "Via")
DEMO_NAMES = {"metric": "demo", "feet": "demo-feet"}


def angler_of(user: Any) -> Angler:
    """Return the user's settings, made with defaults the first time."""
    return Angler.objects.get_or_create(user=user)[0]


def check_password(password: str, user: User | None = None) -> None:
    """Raise InputError at the field where a password is too weak."""
    try:
        validate_password(password, user)
    except ValidationError as error:
        accepted = "ten characters or more, not only digits, not a common word"
        raise InputError(Problem("weak_password", "password", " ".join(error.messages), accepted)) from error


def sign_up(request: HttpRequest, name: str, password: str) -> User:
    """Make an account and sign it in. Raises InputError for a bad or taken name, or a weak password."""
    try:
        check_name(name)
    except ValidationError as error:
        accepted = "3 to 40 letters, digits or . + - _"
        raise InputError(Problem("bad_name", "name", "This name cannot be used.", accepted)) from error
    check_password(password, User(username=name))
    try:
        with transaction.atomic():
            user = User.objects.create_user(name, password=password)
            Angler.objects.create(user=user)
    except IntegrityError as error:
        raise InputError(Problem("taken", "name", f"The name {name} is taken.", "another name")) from error
    login(request, user, backend="stillthread.accounts.backend.AnglerBackend")
    return user


def sign_in(request: HttpRequest, name: str, password: str) -> User:
    """Sign in by name and password. Raises InputError for a wrong pair; after too many the middleware answers instead."""
    user = authenticate(request, username=name, password=password)
    if user is None or isinstance(user, AnonymousUser) or not isinstance(user, User):
        problem = Problem("wrong_password", "password", "Name and password do not go together.", "the right pair")
        raise InputError(problem)
    login(request, user)
    return user


def locked_out(request: HttpRequest, credentials: Any = None, *args: Any, **kwargs: Any) -> JsonResponse:
    """Answer a sign-in after too many wrong tries, in the one error shape."""
    problem = Problem(
        code="locked_out",
        path="",
        message="Too many wrong tries.",
        accepted="",
        hint="Wait a quarter of an hour and try again.",
    )
    return JsonResponse({"errors": [problem.as_dict()]}, status=429)


def sign_in_demo(request: HttpRequest, which: str) -> User:
    """Sign in as a demo angler, only where the demo runs and only from this machine. Raises Refused (403) elsewhere."""
    here = request.META.get("REMOTE_ADDR") in ("127.0.0.1", "::1")
    passed_on = any(
        name in request.headers for name in PASSED_ON
    )  # a proxy on this machine speaks for somebody elsewhere
    if not settings.DEMO or not here or passed_on or not is_demo_database():
        raise Refused(403, "no_demo", "The demo angler only lives in the demo.", "", "Sign in or make an account.")
    user = User.objects.filter(username=DEMO_NAMES[which], angler__is_demo=True).first()
    if user is None:
        raise Refused(403, "no_demo", "The demo data is not loaded.", "", "Start with ./still demo.")
    login(request, user, backend="stillthread.accounts.backend.AnglerBackend")
    return user
