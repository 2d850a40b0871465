"""Strict documents: unknown fields refused, NaN refused, every fault told at its path."""

from __future__ import annotations

from typing import Annotated, Any, TypeVar

from pydantic import AfterValidator, BaseModel, ConfigDict, ValidationError

from stillthread.core.errors import InputError, Problem
from stillthread.core.limits import Share


def _rounded(digits: int) -> AfterValidator:
    return AfterValidator(lambda value: round(value, digits))


def _significant(value: float) -> float:
    return float(f"{value:.3g}")


# What answers are told to: whole, tenths and so on, or three figures. Finer than that nothing of them is known.
Whole = Annotated[float, _rounded(0)]
Tenths = Annotated[float, _rounded(1)]
Hundredths = Annotated[float, _rounded(2)]
Thousandths = Annotated[float, _rounded(3)]
FourDigits = Annotated[float, _rounded(4)]
ThreeFigures = Annotated[float, AfterValidator(_significant)]
Fraction = Annotated[Share, _rounded(4)]


class Strict(BaseModel):
    """Base of every document and API body: no extra fields, no NaN or infinity."""

    model_config = ConfigDict(
        defer_build=True, extra="forbid", allow_inf_nan=False, str_strip_whitespace=True, frozen=True
    )


T = TypeVar("T", bound=Strict)


def told(model: type[T], thing: object, **more: object) -> T:
    """Return `model` filled from a core value's attributes of the same names, and from `more` where they have others."""
    own = {name: getattr(thing, name) for name in model.model_fields if name not in more and hasattr(thing, name)}
    return model.model_validate({**own, **more})


# What pydantic calls a fault, in words for the person who typed it.
_MESSAGES = {
    "missing": ("missing", "This is needed.", "a value"),
    "unexpected_keyword_argument": (
        "unknown_field",
        "This field is not known here.",
        "only the fields of the contract",
    ),
    "extra_forbidden": ("unknown_field", "This field is not known here.", "only the fields of the contract"),
    "finite_number": ("not_a_number", "This is not a finite number.", "an ordinary number"),
    "string_too_short": ("empty", "This is empty.", "at least one character"),
    "too_short": ("empty", "This list is empty.", "at least one entry"),
    "timezone_aware": ("no_offset", "The time has no offset.", "RFC 3339, such as 2026-05-14T11:00:00+01:00"),
    "recursion_loop": ("not_json", "This is nested too deeply.", "a JSON document"),
}

# What a value of Python's is in a document.
_AS_JSON = {
    "tuple_type": ("list_type", "tuple", "list"),
    "dataclass_type": ("model_type", "a dictionary or an instance of", "an object like"),
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
    kind, of_python, here = _AS_JSON.get(kind, (kind, "", ""))
    shown = error.get("input")
    text = error["msg"].replace("Input should be", "It should be").replace(of_python, here).rstrip(".") + "."
    if isinstance(shown, str | int | float) and not isinstance(shown, bool):
        text = f"{str(shown)[:40]!s}: {text[0].lower()}{text[1:]}"
    return Problem(kind, _path(location), text, _accepted(error.get("ctx") or {}, kind))


def problems_from_pydantic(errors: list[Any], strip: tuple[str, ...] = ()) -> list[Problem]:
    """Return our Problems for pydantic's errors. A list with faulty entries is not called empty because of them."""
    places = [tuple(error["loc"]) for error in errors]
    kept = [
        error
        for error, at in zip(errors, places, strict=True)
        if error["type"] != "too_short" or not any(len(p) > len(at) and p[: len(at)] == at for p in places)
    ]
    return [problem_from_pydantic(error, strip) for error in kept]


def parse_document(model: type[T], text: str) -> T:
    """Return the document in JSON `text` as `model`; numbers must be numbers, not text.

    Raises InputError for broken JSON (with line and column), NaN or infinity, and every field the model refuses.
    """
    try:
        return model.model_validate_json(text, strict=True)
    except ValidationError as error:
        raise InputError(problems_from_pydantic(error.errors())) from error
