"""Measure the search on virtual lakes: bench_search.py [--lakes N] [--seed S] [--json]."""

from __future__ import annotations

import argparse
import json
import pathlib
import sys
import time

HERE = pathlib.Path(__file__).resolve().parent
sys.path[:0] = [str(HERE.parent), str(HERE)]

from search_bench.lake import FAMILIES, candidates_for, make_lake  # noqa: E402
from search_bench.report import summary  # noqa: E402
from search_bench.run import COSTS, run  # noqa: E402

from stillthread.core.search.advisor import Advisor  # noqa: E402

AS_MEASURED = 1440  # lakes a plan, as the goals were set on: of fewer the best of 28 ladders is partly luck


def decision_ms(repeats: int = 60) -> float:
    """Return the median milliseconds of one decision on a deep lake."""
    lake = make_lake(FAMILIES[0], "right", 1)
    candidates = candidates_for(lake, False)
    advisor = Advisor.start(lake.belief, lake.kinds, candidates, COSTS, 300)
    advisor.advise(candidates[0])
    took = []
    for _ in range(repeats):
        start = time.perf_counter()
        advisor.advise(candidates[0])
        took.append(time.perf_counter() - start)
    return 1000 * sorted(took)[repeats // 2]


def told(out: dict) -> str:
    """Return the report for reading."""
    lines = [f"{out['lakes']} lakes a plan, seed {out['seed']}; against the best ladder of each family in hindsight"]
    for name, one in out["by_prior"].items():
        low, high = one["takes_interval"]
        mine, best = one["advisor"], one["best_ladder"]
        lines.append(
            f"{name:6} takes ×{one['takes_ratio']:.2f} [{low:.2f} to {high:.2f}], chosen on other lakes ×{one['takes_ratio_by_halves']:.2f} ({mine['takes']:.2f} against {best['takes']:.2f}), "
            f"first take ×{one['time_ratio']:.2f} ({mine['time']:.0f} against {best['time']:.0f} min), "
            f"blank {mine['blank']:.3f} against {best['blank']:.3f}; best ladder {best['name']}"
        )
    lines.append(
        "two rods, one belief against apart: " + ", ".join(f"{k} ×{v:.2f}" for k, v in out["two_rods"].items())
    )
    lines.append("takes told for those taken: " + ", ".join(f"{k} ×{v:.2f}" for k, v in out["told_to_taken"].items()))
    lines += [
        f"{'met   ' if one['met'] else 'MISSED'}  {one['goal']:28} {one['value']:<8} {one['wanted']}"
        for one in out["goals"]
    ]
    if out["lakes"] < AS_MEASURED:
        lines.append(
            f"The goals were set on {AS_MEASURED} lakes a plan: of fewer, the best of 28 ladders in hindsight is partly luck, and the ratios lower."
        )
    return "\n".join(lines) + "\n"


def main() -> None:
    """Run it and print it."""
    parser = argparse.ArgumentParser(prog="still bench search", description=__doc__)
    parser.add_argument("--lakes", type=int, default=AS_MEASURED, help="lakes for each kind of plan")
    parser.add_argument("--seed", type=int, default=1)
    parser.add_argument("--json", action="store_true")
    asked = parser.parse_args()
    start = time.perf_counter()
    took_ms = decision_ms()
    out = summary(run(asked.seed, asked.lakes), asked.seed, asked.lakes, took_ms)
    sys.stdout.write(json.dumps(out, indent=2) + "\n" if asked.json else told(out))
    sys.stderr.write(f"{time.perf_counter() - start:.0f} s\n")


if __name__ == "__main__":
    main()
