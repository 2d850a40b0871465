"""`./still user NAME`: make an account, or give an existing one a new password."""

from __future__ import annotations

import secrets
from argparse import ArgumentParser
from typing import Any

from django.contrib.auth.models import User
from django.core.exceptions import ValidationError
from django.core.management.base import BaseCommand, CommandError

from stillthread.accounts.services import angler_of, check_name


class Command(BaseCommand):
    """Make an account or reset its password, and print the new password."""

    help = "Make an account or reset its password"

    def add_arguments(self, parser: ArgumentParser) -> None:
        """Take the sign-in name."""
        parser.add_argument("name")

    def handle(self, *args: Any, **options: Any) -> None:
        """Write the account; the password is made here and shown once."""
        try:
            check_name(options["name"])
        except ValidationError as error:
            raise CommandError("A name has 3 to 40 letters, digits or . + - _") from error
        user, made = User.objects.get_or_create(username=options["name"])
        password = secrets.token_urlsafe(12)
        user.set_password(password)
        user.save()
        angler_of(user)
        done = "Account made" if made else "Password changed"
        self.stdout.write(f"{done}. Name: {user.username}  Password: {password}")
