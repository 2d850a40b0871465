"""The one shape an input error takes, from the core to the screen."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import asdict, dataclass


@dataclass(frozen=True)
class Problem:
    """One thing wrong with the input, in words an angler can act on.

    `code` is stable and machine-readable, `path` names the field (``reading.profile[3].temperature_c``),
    `message` says what was wrong, `accepted` what would be right, `hint` an optional next step.
    """

    code: str
    path: str
    message: str
    accepted: str = ""
    hint: str = ""

    def as_dict(self) -> dict[str, str]:
        """Return the problem as plain JSON data."""
        return asdict(self)


def doubled(names: Sequence[str], path: str, field: str) -> list[Problem]:
    """Return a problem for each of `names` that one before it has, at the `field` of its place in the list at `path`."""
    first = {name: n for n, name in reversed(list(enumerate(names)))}
    return [
        Problem("duplicate", f"{path}[{n}].{field}", f"The {field} {name} is there twice.", f"each {field} once")
        for n, name in enumerate(names)
        if first[name] != n
    ]


class NobodyWaitsError(Exception):
    """Raised where work is given up because nobody waits for its answer any more."""


class InputError(ValueError):
    """Raised with every problem found, so that all of them can be shown at once."""

    def __init__(self, problems: list[Problem] | Problem):
        """Keep the problems; a single one may be passed bare."""
        self.problems = [problems] if isinstance(problems, Problem) else list(problems)
        super().__init__("; ".join(f"{p.path}: {p.message}" for p in self.problems))

    def under(self, prefix: str) -> InputError:
        """Return the same error with every path moved below `prefix`."""
        return InputError(
            [
                Problem(
                    code=p.code,
                    path=f"{prefix}.{p.path}" if p.path else prefix,
                    message=p.message,
                    accepted=p.accepted,
                    hint=p.hint,
                )
                for p in self.problems
            ]
        )
