"""`./still backup [FILE]`, `./still restore FILE` and `./still tidy`."""

from __future__ import annotations

import pathlib
from argparse import ArgumentParser
from typing import Any

from django.core.management import call_command
from django.core.management.base import BaseCommand, CommandError

from stillthread.site import keeping


class Command(BaseCommand):
    """Back the database up, put a backup in its place, or clear out what nobody needs."""

    help = "Back up, restore, tidy"

    def add_arguments(self, parser: ArgumentParser) -> None:
        """Take what to do, and the file."""
        parser.add_argument("what", choices=("backup", "restore", "tidy"))
        parser.add_argument("file", nargs="?", type=pathlib.Path)

    def handle(self, *args: Any, **options: Any) -> None:
        """Do it and say where things lie."""
        try:
            self._do(options["what"], options["file"])
        except (ValueError, OSError) as error:
            raise CommandError(str(error)) from error

    def _do(self, what: str, file: pathlib.Path | None) -> None:
        if what == "tidy":
            told = ", ".join(f"{count} {name}" for name, count in keeping.tidy().items())
            self.stdout.write(f"Removed for good: {told}")
        elif what == "backup":
            self.stdout.write(f"Backed up and checked: {keeping.back_up(file)}")
        elif file is None:
            raise CommandError("Which file? ./still restore FILE")
        else:
            old = keeping.restore(file)
            call_command("migrate", verbosity=0)
            self.stdout.write(f"Restored from {file}. What was there before: {old}")
