"""Compile the thread's kernels into the cache and say how long it took."""

from __future__ import annotations

import pathlib
import sys
import time

sys.path.insert(0, str(pathlib.Path(__file__).resolve().parents[1]))

from stillthread.core.casts.warm import warm  # noqa: E402
from stillthread.core.search.warm import warm as warm_search  # noqa: E402


def main() -> None:
    """Compile, or load what is compiled."""
    start = time.perf_counter()
    warm()
    warm_search()
    sys.stdout.write(f"thread kernels ready after {time.perf_counter() - start:.1f} s\n")


if __name__ == "__main__":
    main()
