"""`./still user [--reset | --invite] [NAME]`: make an account, give one a code for a new password, or invite somebody."""

from __future__ import annotations

import secrets
from argparse import ArgumentParser
from typing import Any

from django.contrib.auth.models import User
from django.core.management.base import BaseCommand, CommandError

from stillthread.accounts.codes import LASTS, make_code
from stillthread.accounts.names import checked, normal
from stillthread.accounts.services import angler_of, sign_out_everywhere
from stillthread.core.errors import InputError


class Command(BaseCommand):
    """Make an account or reset its password, and print the new password or a code."""

    help = "Make an account or reset its password"

    def add_arguments(self, parser: ArgumentParser) -> None:
        """Take the sign-in name, or that somebody is invited."""
        parser.add_argument("name", nargs="?", default="")
        parser.add_argument("--reset", action="store_true", help="print a one-time code for a new password")
        parser.add_argument("--invite", action="store_true", help="print a one-time code for a new account")

    def handle(self, *args: Any, **options: Any) -> None:
        """Write the account; a password or code is made here and shown once."""
        if options["invite"]:
            self.stdout.write(f"Code for one new account, good for {LASTS['invite'].days} days: {make_code('invite')}")
            return
        if options["reset"]:
            user = User.objects.filter(username=normal(options["name"])).first()
            if user is None:
                raise CommandError(f"There is no account {options['name']!r}")
            hours = int(LASTS["reset"].total_seconds() // 3600)
            self.stdout.write(
                f"Code for a new password of {user.username}, good for {hours} hours: {make_code('reset', user)}"
            )
            return
        try:
            name = checked(options["name"])
        except InputError as error:
            raise CommandError(f"A name has {error.problems[0].accepted}") from error
        user, made = User.objects.get_or_create(username=name)
        password = secrets.token_urlsafe(12)
        user.set_password(password)
        user.save()
        sign_out_everywhere(user)
        angler_of(user)
        done = "Account made" if made else "Password changed"
        self.stdout.write(f"{done}. Name: {user.username}  Password: {password}")
