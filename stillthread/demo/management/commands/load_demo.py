"""`manage.py load_demo`: invented anglers, waters and outings, once."""

from __future__ import annotations

from typing import Any

from django.core.management.base import BaseCommand, CommandError

from stillthread.accounts.services import DEMO_NAMES
from stillthread.demo.load import demo_password, load_demo


class Command(BaseCommand):
    """Load the demo data and say how to sign in."""

    help = "Load the invented demo data"

    def handle(self, *args: Any, **options: Any) -> None:
        """Load what is missing and print the sign-in."""
        try:
            loaded = load_demo()
        except PermissionError as error:
            raise CommandError(str(error)) from error
        for name, outings in loaded.items():
            if outings:
                self.stdout.write(f"Demo angler {name}: {outings} outings written.")
        names = " or ".join(DEMO_NAMES.values())
        self.stdout.write(f"Sign in with one click on the page, or as {names}, password {demo_password()}")
