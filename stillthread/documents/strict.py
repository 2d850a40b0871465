"""Strict documents: unknown fields refused, NaN refused, every fault told at its path."""

from __future__ import annotations

from typing import Annotated, Any, TypeVar

from pydantic import BaseModel, ConfigDict, Field, ValidationError

from stillthread.core.errors import InputError, Problem

Depth = Annotated[float, Field(ge=0, le=300, description="metres below today's surface, positive down")]
Celsius = Annotated[float, Field(description="degrees Celsius; -1 to 40 is accepted for water")]
Bearing = Annotated[float, Field(ge=0, lt=360, description="degrees clockwise from true north")]
Share = Annotated[float, Field(ge=0, le=1)]
Name = Annotated[str, Field(min_length=1, max_length=80)]


class Strict(BaseModel):
    """Base of every document and API body: no extra fields, no NaN or infinity."""

    model_config = ConfigDict(
        defer_build=True, extra="forbid", allow_inf_nan=False, str_strip_whitespace=True, frozen=True
    )


T = TypeVar("T", bound=Strict)

# What pydantic calls a fault, in words for the person who typed it.
_MESSAGES = {
    "missing": ("missing", "This is needed.", "a value"),
    "extra_forbidden": ("unknown_field", "This field is not known here.", "only the fields of the contract"),
    "finite_number": ("not_a_number", "This is not a finite number.", "an ordinary number"),
    "string_too_short": ("empty", "This is empty.", "at least one character"),
    "too_short": ("empty", "This list is empty.", "at least one entry"),
    "timezone_aware": ("no_offset", "The time has no offset.", "RFC 3339, such as 2026-05-14T11:00:00+01:00"),
    "recursion_loop": ("not_json", "This is nested too deeply.", "a JSON document"),
}


def _path(location: tuple[int | str, ...]) -> str:
    """Write a location as ``reading.profile[3].temperature_c``."""
    text = ""
    for part in location:
        text += f"[{part}]" if isinstance(part, int) else f".{part}"
    return text.lstrip(".")


def _accepted(context: dict[str, Any], kind: str) -> str:
    limits = {"ge": "at least", "gt": "more than", "le": "at most", "lt": "less than", "max_length": "at most"}
    plain = {key: f"{v:g}" if isinstance(v, float) else v for key, v in context.items()}
    said = [f"{words} {plain[key]}" for key, words in limits.items() if key in plain]
    if said:
        return " and ".join(said)
    return str(context.get("expected", "")) or kind.replace("_", " ")


def problem_from_pydantic(error: Any, strip: tuple[str, ...] = ()) -> Problem:
    """Return our Problem for one pydantic error; leading location words in `strip` (body, payload names) are dropped."""
    location = tuple(error["loc"])
    while location and location[0] in strip:
        location = location[1:]
    kind = str(error["type"])
    if kind in _MESSAGES:
        code, message, accepted = _MESSAGES[kind]
        return Problem(code, _path(location), message, accepted)
    if kind == "json_invalid":
        return Problem("not_json", "", f"This is not JSON: {error['ctx']['error']}.", "a JSON document")
    shown = error.get("input")
    text = error["msg"].replace("Input should be", "It should be").rstrip(".") + "."
    if isinstance(shown, str | int | float) and not isinstance(shown, bool):
        text = f"{str(shown)[:40]!s}: {text[0].lower()}{text[1:]}"
    return Problem(kind, _path(location), text, _accepted(error.get("ctx") or {}, kind))


def parse_document(model: type[T], text: str) -> T:
    """Return the document in JSON `text` as `model`; numbers must be numbers, not text.

    Raises InputError for broken JSON (with line and column), NaN or infinity, and every field the model refuses.
    """
    try:
        return model.model_validate_json(text, strict=True)
    except ValidationError as error:
        raise InputError([problem_from_pydantic(e) for e in error.errors()]) from error
