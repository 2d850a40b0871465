"""One way to compile a number-crunching function, so that the type checker and the cache see the same thing."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any, TypeVar, cast

import numba

F = TypeVar("F", bound=Callable[..., Any])


def compiled(function: F) -> F:
    """Return `function` compiled to machine code on its first call, kept on disk, and run without the interpreter lock."""
    return cast(F, numba.njit(cache=True, nogil=True, error_model="numpy")(function))
