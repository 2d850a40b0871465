"""Small worlds to search in: one cell, two cells, a lake; and the filter written plainly in numpy to hold the compiled one to."""

from __future__ import annotations

import numpy as np

from stillthread.core.search import cells
from stillthread.core.search.advisor import TEMPER_BLANK
from stillthread.core.search.filters import PACE_PRIOR, RATE_PRIOR, RATES
from stillthread.core.search.model import Belief, Candidate, Kind

KINDS = (Kind("a", 0.6), Kind("b", 0.3))


def at(depth_m, bed_m=4.0, place="Here", kind="a", pace="slow", method="line", **more):
    count = round(bed_m / 0.2)
    exposure = np.zeros(count)
    exposure[min(int(depth_m / 0.2), count - 1)] = 1.0
    hang = {"hang_m": depth_m} if method == "float" else {"count_s": round(10 * depth_m)}
    return Candidate(
        key=f"{place}{method}{pace}{depth_m:.1f}{kind}",
        place=place,
        method=method,
        kinds=(kind,),
        pace=pace,
        exposure=tuple(exposure),
        line=method,
        fly=kind,
        **{**hang, **more},
    )


def lake(bed_m=4.0, peak_m=3.0, places=("Here", "There"), shares=(0.7, 0.3), read=True):
    z = (np.arange(round(bed_m / 0.2)) + 0.5) * 0.2
    shape = np.exp(-0.5 * ((z - peak_m) / 0.7) ** 2)
    mass = tuple(tuple(share * shape / shape.sum()) for share in shares)
    return Belief(places, (bed_m,) * len(places), mass, read)


def fleet(bed_m=4.0, places=("Here", "There")):
    return [
        at(float(depth), bed_m, place, kind, pace, "float" if pace == "static" else "line")
        for place in places
        for kind in "ab"
        for pace in ("static", "slow", "fast")
        for depth in np.arange(0.5, bed_m - 0.2, 0.5)
    ]


def plainly(mass, exposure, place, kinds, pace, said):
    """Bayes' rule over every state, written out: the reference for `likelihoods` and `weigh`."""
    minutes, takes, plucks, follows, weight = said
    places, _, count, paces, levels = mass.shape
    out = mass.copy()
    for p in range(places):
        for k in range(count):
            for m in range(paces):
                for level in range(levels):
                    a = exposure * RATES[level] * (1.0 if p == place else cells.ELSEWHERE)
                    match = 1.0 if kinds[k] else cells.WRONG_KIND
                    step = (1.0, 0.6, 0.35)[abs(m - pace)]
                    take = a * match * step + 0.001
                    pluck = a * step * (0.08 + 0.35 * (1 - match)) + 0.001
                    seen = (
                        np.exp(-TEMPER_BLANK * (take + pluck) * minutes / 60)
                        * take**takes
                        * pluck ** (plucks + 0.5 * follows)
                    )
                    out[p, :, k, m, level] *= seen**weight
    return out / out.sum(), out.sum()


def prior(beds=(20, 15)):
    """A lumpy belief over two places."""
    rng = np.random.default_rng(4)
    mass = rng.random((len(beds), max(beds), 3, len(PACE_PRIOR), len(RATE_PRIOR)))
    for p, bed in enumerate(beds):
        mass[p, bed:] = 0.0
    return mass / mass.sum()
