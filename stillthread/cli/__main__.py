"""`./still plan FILE`, `advise`, `read` and `simulate`: read a document, print the answer as JSON; faults go to stderr with exit status 2."""

from __future__ import annotations

import argparse
import json
import os
import pathlib
import sys
from typing import TYPE_CHECKING

from stillthread.core.errors import InputError, Problem

if TYPE_CHECKING:
    from stillthread.core.day.paths import Paths

LARGEST_BYTES = 5_000_000


def read_text(name: str) -> str:
    """Return the text of a file, or of standard input for ``-``. Raises InputError where it cannot be read."""
    try:
        data = sys.stdin.buffer.read(LARGEST_BYTES + 1) if name == "-" else pathlib.Path(name).read_bytes()
    except OSError as error:
        raise InputError(Problem("no_file", name, f"{error.strerror}.", "a file that can be read, or -")) from error
    if len(data) > LARGEST_BYTES:
        raise InputError(Problem("too_large", name, "This file is too large.", f"up to {LARGEST_BYTES // 10**6} MB"))
    try:
        return data.decode("utf-8-sig")
    except UnicodeDecodeError as error:
        raise InputError(Problem("not_text", name, "This is not UTF-8 text.", "a UTF-8 JSON file")) from error


# Each command fetches what it needs itself: the others' libraries cost a second.


def _paths() -> Paths:
    """The paths the server keeps, where there is a shelf beside this program; else in memory alone."""
    from stillthread.core.day.paths import Paths
    from stillthread.shelf import SHELF_NAME, FileShelf

    var = pathlib.Path(os.environ.get("STILL_VAR") or pathlib.Path(__file__).resolve().parents[2] / "var")
    return Paths(FileShelf(var / SHELF_NAME) if var.is_dir() else None)


def plan(text: str) -> str:
    """Return the plan for the day in JSON `text`, as JSON. Raises InputError with every fault found."""
    from stillthread.core.plan.make import make_plan
    from stillthread.documents.plan import PlanRequest, plan_input_from
    from stillthread.documents.plan_answer import plan_answer
    from stillthread.documents.strict import parse_document

    given = plan_input_from(parse_document(PlanRequest, text))
    return plan_answer(given, make_plan(given, _paths())).model_dump_json(indent=2)


def simulate(text: str) -> str:
    """Return the tracks of the cast or float rig in JSON `text`, as JSON. Raises InputError with every fault found."""
    from stillthread.core.thread.chain import FINE
    from stillthread.documents.strict import parse_document
    from stillthread.documents.thread.simulate_contract import SimulateRequest
    from stillthread.documents.thread.simulate_json import simulate_answer

    return simulate_answer(parse_document(SimulateRequest, text), FINE, _paths()).model_dump_json(indent=2)


def read(text: str) -> str:
    """Return what the reading in JSON `text` means, as JSON. Raises InputError with every fault found."""
    from stillthread.core.reading.means import read_water
    from stillthread.documents.read import ReadRequest, read_input_from
    from stillthread.documents.read_answer import read_answer
    from stillthread.documents.strict import parse_document

    given = read_input_from(parse_document(ReadRequest, text))
    return read_answer(given, read_water(given)).model_dump_json(indent=2)


def advise(text: str) -> str:
    """Return what to do next on the day in JSON `text`, as JSON. Raises InputError with every fault found."""
    from stillthread.documents.advise import AdviseRequest, answer
    from stillthread.documents.strict import parse_document

    return answer(parse_document(AdviseRequest, text), _paths()).model_dump_json(indent=2)


COMMANDS = {"advise": advise, "plan": plan, "read": read, "simulate": simulate}


def main(arguments: list[str] | None = None) -> int:
    """Run one command; returns the exit status."""
    parser = argparse.ArgumentParser(prog="still", description=__doc__)
    parser.add_argument("command", choices=sorted(COMMANDS))
    parser.add_argument("file", help="a JSON file, or - for standard input")
    chosen = parser.parse_args(arguments)
    try:
        sys.stdout.write(COMMANDS[chosen.command](read_text(chosen.file)) + "\n")
    except InputError as error:
        sys.stderr.write(json.dumps({"errors": [p.as_dict() for p in error.problems]}, ensure_ascii=False) + "\n")
        return 2
    return 0


if __name__ == "__main__":
    sys.exit(main())
