"""What a run of virtual lakes comes to: against the best ladder of each family in hindsight, with bootstrap intervals."""

from __future__ import annotations

from typing import Any

import numpy as np
from numpy.typing import NDArray

from search_bench.lake import FAMILIES, PLANS
from search_bench.run import LADDER_NAMES, Result

MIX = {"right": 0.45, "vague": 0.40, "wrong": 0.15}
BOOTSTRAPS = 400
GOALS = {
    "mix": {"takes_ratio": 1.30, "time_ratio": 0.95},
    "right": {"takes_ratio": 1.25},
    "vague": {"takes_ratio": 1.27},
    "wrong": {"takes_ratio": 1.10},
}
PAIR_GOALS = {"right": 1.10, "vague": 1.30, "wrong": 1.50}
BAND_GOAL = (0.75, 0.95)

Array = NDArray[np.float64]


class Table:
    """The results of one plan as arrays: takes and first takes of the advisor and of every ladder, by lake."""

    def __init__(self, results: list[Result]):
        """Lay them out."""
        self.family = np.array([one.family for one in results])
        self.takes = np.array([one.takes for one in results], dtype=float)
        self.first = np.array([one.first for one in results], dtype=float)
        self.by_ladder = np.array([one.ladder_takes for one in results], dtype=float)
        self.first_by = np.array([one.ladder_first for one in results], dtype=float)

    def figures(self, at: NDArray[np.int64]) -> dict[str, Array]:
        """Means over some lakes: the advisor's and the best ladder's takes, minutes to the first, blank days.

        The best ladder of each family, in hindsight, is the one that took most.
        """
        parts, sums = [], []
        for n in range(len(FAMILIES)):
            mine = at[self.family[at] == n]
            if len(mine) == 0:
                continue
            best = int(self.by_ladder[mine].mean(axis=0).argmax())
            ladders = (
                self.by_ladder[mine, best].mean(),
                self.first_by[mine, best].mean(),
                (self.by_ladder[mine, best] == 0).mean(),
            )
            parts.append(
                [
                    [self.takes[mine].mean(), ladders[0]],
                    [self.first[mine].mean(), ladders[1]],
                    [(self.takes[mine] == 0).mean(), ladders[2]],
                ]
            )
            sums.append(1.0)
        mean = np.average(np.array(parts), axis=0, weights=sums)
        return {"takes": mean[0], "time": mean[1], "blank": mean[2]}

    def by_halves(self) -> tuple[float, float]:
        """Mean takes of the advisor, and of the ladder that took most on the other half of each family's lakes.

        In hindsight the best of 28 on a few lakes is partly luck; this says how much.
        """
        mine, ladder = [], []
        for n in range(len(FAMILIES)):
            lakes = np.flatnonzero(self.family == n)
            halves = lakes[::2], lakes[1::2]
            for chosen, judged in (halves, halves[::-1]):
                if len(chosen) and len(judged):
                    best = int(self.by_ladder[chosen].mean(axis=0).argmax())
                    mine.append(self.takes[judged].mean())
                    ladder.append(self.by_ladder[judged, best].mean())
        return (float(np.mean(mine)), float(np.mean(ladder))) if mine else (0.0, 0.0)

    def best_ladder(self) -> int:
        """The ladder with most takes over all families."""
        return int(self.by_ladder.mean(axis=0).argmax())


def _ratios(figures: dict[str, Array]) -> dict[str, float]:
    return {f"{name}_ratio": float(pair[0] / max(pair[1], 1e-9)) for name, pair in figures.items()}


def _mixed(by_plan: dict[str, dict[str, Array]]) -> dict[str, Array]:
    return {
        name: np.asarray(sum(MIX[plan] * by_plan[plan][name] for plan in PLANS)) for name in ("takes", "time", "blank")
    }


def summary(results: list[Result], seed: int, lakes: int, decision_ms: float) -> dict[str, Any]:
    """Return the whole report as plain values."""
    tables = {plan: Table([one for one in results if one.plan == plan]) for plan in PLANS}
    now = {plan: table.figures(np.arange(len(table.takes))) for plan, table in tables.items()}
    rng = np.random.default_rng(seed)
    drawn: dict[str, list[float]] = {name: [] for name in (*PLANS, "mix")}
    for _ in range(BOOTSTRAPS):
        again = {plan: t.figures(rng.integers(0, len(t.takes), len(t.takes))) for plan, t in tables.items()}
        for plan in PLANS:
            drawn[plan].append(_ratios(again[plan])["takes_ratio"])
        drawn["mix"].append(_ratios(_mixed(again))["takes_ratio"])
    out: dict[str, Any] = {"seed": seed, "lakes": lakes, "by_prior": {}}
    for name in (*PLANS, "mix"):
        figures = _mixed(now) if name == "mix" else now[name]
        ladder = tables[name].best_ladder() if name in tables else None
        out["by_prior"][name] = {
            **_ratios(figures),
            "takes_interval": [float(v) for v in np.quantile(drawn[name], [0.025, 0.975])],
            "advisor": {key: float(pair[0]) for key, pair in figures.items()},
            "best_ladder": {
                "name": LADDER_NAMES[ladder] if ladder is not None else "by family",
                **{key: float(pair[1]) for key, pair in figures.items()},
            },
        }
    halves = {plan: table.by_halves() for plan, table in tables.items()}
    halves["mix"] = tuple(sum(MIX[plan] * halves[plan][i] for plan in PLANS) for i in (0, 1))  # type: ignore[assignment]
    for name, (mine, best) in halves.items():
        out["by_prior"][name]["takes_ratio_by_halves"] = mine / max(best, 1e-9)
    out["two_rods"] = {}
    for plan in PLANS:
        pairs = np.array([one.pair for one in results if one.plan == plan and one.pair])
        if len(pairs):
            out["two_rods"][plan] = float(pairs[:, 0].mean() / max(pairs[:, 1].mean(), 1e-9))
    out["told_to_taken"] = {
        plan: sum(one.promised for one in asked) / max(sum(one.takes for one in asked), 1e-9)
        for plan in PLANS
        if (asked := [one for one in results if one.plan == plan and one.promised is not None])
    }
    held = np.array([one.held for one in results if len(one.held) == 3])
    out["band80"] = {f"{h + 1}h": float(v) for h, v in enumerate(held.mean(axis=0))}
    out["decision_ms"] = decision_ms
    out["goals"] = goals(out)
    return out


def goals(out: dict[str, Any]) -> list[dict[str, Any]]:
    """Return every goal with its figure and whether it is met."""
    found = []

    def add(name: str, value: float, goal: str, met: bool) -> None:
        found.append({"goal": name, "value": round(float(value), 3), "wanted": goal, "met": bool(met)})

    by = out["by_prior"]
    for name, wanted in GOALS.items():
        for key, value in wanted.items():
            got = by[name][key]
            better = got >= value if key == "takes_ratio" else got <= value
            add(f"{name}: {key}", got, f"{'≥' if key == 'takes_ratio' else '≤'} {value}", better)
    for plan in PLANS:
        blank, ladder = by[plan]["advisor"]["blank"], by[plan]["best_ladder"]["blank"]
        add(f"{plan}: blank days", blank, f"≤ {ladder:.3f}", blank <= ladder)
    for plan, value in PAIR_GOALS.items():
        if plan in out["two_rods"]:
            add(f"two rods, {plan}", out["two_rods"][plan], f"≥ {value}", out["two_rods"][plan] >= value)
    for hour, share in out["band80"].items():
        add(
            f"80 % band after {hour}", share, f"{BAND_GOAL[0]} to {BAND_GOAL[1]}", BAND_GOAL[0] <= share <= BAND_GOAL[1]
        )
    add("one decision", out["decision_ms"], "≤ 5 ms", out["decision_ms"] <= 5)
    return found
