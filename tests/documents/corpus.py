"""What the documents take and refuse: each field of a full document left out, of another kind, or beyond its limits.

`python -m tests.documents.corpus` writes down anew what is said today; the test holds what was written down.
"""

import json
import pathlib
from collections.abc import Iterator
from copy import deepcopy
from typing import Any

from stillthread.core.errors import InputError
from stillthread.documents.plan import PlanRequest
from stillthread.documents.read import ReadRequest
from stillthread.documents.strict import parse_document
from stillthread.documents.thread.simulate_contract import SimulateRequest

FOLDER = pathlib.Path(__file__).resolve().parents[1] / "data" / "corpus"
MODELS = {"plan": PlanRequest, "read": ReadRequest, "simulate": SimulateRequest}
# What cannot stand beside the rest of the full document.
NOT_TOGETHER = {"plan": set[str](), "read": set[str](), "simulate": {"bed"}}
LEFT_OUT = object()
# What stands in for a value: nothing, another kind, beyond every limit, too long.
INSTEAD = {
    "left out": LEFT_OUT,
    "null": None,
    "text": "no-such-word",
    "empty text": "",
    "long text": "x" * 5000,
    "negative": -1000.5,
    "zero": 0,
    "half": 0.5,
    "seven": 7,
    "huge": 1e13,
    "true": True,
    "list": [],
    "object": {},
    "unknown field": {"no_such_field": 1},
}


def _paths(value: Any, at: tuple[str | int, ...] = ()) -> Iterator[tuple[str | int, ...]]:
    """Every place in a document, the first entry of a list standing for all of them."""
    if at:
        yield at
    if isinstance(value, dict):
        for key in value:
            yield from _paths(value[key], (*at, key))
    elif isinstance(value, list) and value:
        yield from _paths(value[0], (*at, 0))


def _with(document: Any, at: tuple[str | int, ...], value: Any) -> Any:
    changed = deepcopy(document)
    holder = changed
    for part in at[:-1]:
        holder = holder[part]
    if value is LEFT_OUT:
        del holder[at[-1]]
    else:
        holder[at[-1]] = value
    return changed


def said(name: str, document: Any) -> str:
    """Return 'taken', or where each fault is and its code."""
    try:
        parse_document(MODELS[name], json.dumps(document))
    except InputError as error:
        return "; ".join(sorted({f"{p.path}: {p.code}" for p in error.problems}))
    return "taken"


def changed_documents(name: str) -> Iterator[tuple[str, str, Any]]:
    """Every change to a full document: where, what in words, and the document."""
    document = json.loads((FOLDER / f"{name}.json").read_text("utf-8"))
    yield "", "as it is", document
    for at in _paths(document):
        where = ".".join(map(str, at))
        for words, value in INSTEAD.items():
            yield where, words, _with(document, at, value)


def answers(name: str) -> dict[str, dict[str, list[str]]]:
    """Return what is said to every change of a document: by place in it, the changes each answer is given to."""
    found: dict[str, dict[str, list[str]]] = {}
    for where, words, document in changed_documents(name):
        found.setdefault(where, {}).setdefault(said(name, document), []).append(words)
    return found


if __name__ == "__main__":
    for one in MODELS:
        rows = [f"{json.dumps(where)}: {json.dumps(by, sort_keys=True)}" for where, by in answers(one).items()]
        (FOLDER / f"{one}.said.json").write_text("{\n" + ",\n".join(rows) + "\n}\n", "utf-8")
