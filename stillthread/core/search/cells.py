"""The search's arithmetic, compiled: what a spell does to the belief, how it spreads in time, what an action is worth.

The belief is an array over place, depth cell, right kind of fly, right pace and level of the day's rate. Bayes' rule with
a Poisson count throughout (any textbook); the constants are the house's own, measured on virtual lakes (docs/search.md).
"""

from __future__ import annotations

from typing import Any

import numpy as np

from stillthread.core.compiled import compiled

ELSEWHERE = 0.25  # the rate left at a place that is not the fish's
WRONG_KIND = 0.4  # and to a fly that is not the right kind
ON_PACE, OFF_ONE, OFF_TWO = 1.0, 0.6, 0.35
LEAST_RATE = 0.001
PLUCK_BASE, PLUCK_WRONG = 0.08, 0.35
FOLLOW_WEIGHT = 0.5
BINS = 25
UNMET = 0.002  # an exposure under this meets no fish


@compiled
def _off(steps: int) -> float:
    return ON_PACE if steps == 0 else OFF_ONE if steps == 1 else OFF_TWO


@compiled
def _likelihood(seen: float, match: float, step: float, said: Any) -> float:
    """Of a spell, at a rate `seen` [takes an hour] for the right fly at the right pace."""
    take = seen * match * step + LEAST_RATE
    pluck = seen * step * (PLUCK_BASE + PLUCK_WRONG * (1.0 - match)) + LEAST_RATE
    logged = -said[5] * (take + pluck) * said[0] / 60.0
    if said[1] > 0:
        logged += said[1] * np.log(take)
    hints = said[2] + FOLLOW_WEIGHT * said[3]
    if hints > 0:
        logged += hints * np.log(pluck)
    return float(np.exp(said[4] * logged))


@compiled
def likelihoods(rates: Any, exposure: Any, pace: int, said: Any) -> Any:
    """Return how likely a spell was: at its place or elsewhere, by cell, with its kind right or not, right pace, level.

    `said` is minutes, takes, plucks, follows, weight, and how much of a blank is believed; a `pace` of -1 is not known.
    """
    out = np.empty((2, len(exposure), 2, 3, len(rates)))
    for g in range(2):
        for z in range(len(exposure)):
            seen = exposure[z] * (1.0 if g == 0 else ELSEWHERE)
            for f in range(2):
                match = 1.0 if f == 0 else WRONG_KIND
                for m in range(3):
                    step = _off(abs(m - pace)) if pace >= 0 else OFF_ONE
                    for level in range(len(rates)):
                        out[g, z, f, m, level] = _likelihood(seen * rates[level], match, step, said)
    return out


@compiled
def weigh(mass: Any, told: Any, place: int, kinds: Any) -> float:
    """Multiply a belief by what a spell told and normalise it; returns how well it foresaw the spell.

    `kinds` is how surely the fly fished is taken for each kind, 0 to 1; a `place` of -1 is not known.
    """
    for p in range(mass.shape[0]):
        g = 0 if p == place or place < 0 else 1
        for z in range(mass.shape[1]):
            for k in range(mass.shape[2]):
                sure = kinds[k]
                for m in range(mass.shape[3]):
                    for level in range(mass.shape[4]):
                        wrong = told[g, z, 1, m, level]
                        mass[p, z, k, m, level] *= wrong + sure * (told[g, z, 0, m, level] - wrong)
    total = mass.sum()
    if total > 0.0:
        mass *= 1.0 / total
    return float(total)


@compiled
def spread(mass: Any, beds: Any, share: float) -> None:
    """Let the depth wander: `share` of each cell's mass goes half up and half down; surface and bed throw it back."""
    width = mass.shape[2] * mass.shape[3] * mass.shape[4]
    rows = mass.reshape(mass.shape[0], mass.shape[1], width)
    half = 0.5 * share
    for p in range(rows.shape[0]):
        last = beds[p] - 1
        above = rows[p, 0].copy()
        for z in range(last + 1):
            below = min(z + 1, last)
            for i in range(width):
                here = rows[p, z, i]
                rows[p, z, i] = here + half * (above[i] + rows[p, below, i] - 2.0 * here)
                above[i] = here


@compiled
def tabulate(rates: Any, minutes: Any) -> Any:
    """Return by pace fished and exposure bin, the rate and for each number of minutes the chance of a take and that chance
    times the rate, for place or elsewhere, kind or not, the fish's pace and level of the rate (the last axis, in this order).
    """
    levels = len(rates)
    table = np.zeros((3, BINS, 1 + 2 * len(minutes), 12 * levels))
    seen = np.arange(BINS) / (BINS - 1.0)
    for pace in range(3):
        for g in range(2):
            for f in range(2):
                for m in range(3):
                    for level in range(levels):
                        i = ((2 * g + f) * 3 + m) * levels + level
                        left = (1.0 if g == 0 else ELSEWHERE) * (1.0 if f == 0 else WRONG_KIND) * _off(abs(m - pace))
                        rate = seen * left * rates[level] + LEAST_RATE
                        table[pace, :, 0, i] = rate
                        for n in range(len(minutes)):
                            chance = 1.0 - np.exp(-rate * minutes[n] / 60.0)
                            table[pace, :, 1 + 2 * n, i] = chance
                            table[pace, :, 2 + 2 * n, i] = chance * rate
    return table


@compiled
def gathered(mass: Any, anywhere: Any, kinds: Any, own: int) -> Any:
    """Return the belief by cell as a fly of these kinds at this place meets it: columns as the table's last axis.

    `mass` is place, cell, kind, and pace with level as one axis; `anywhere` is the belief summed over the places.
    """
    count, last = mass.shape[1], mass.shape[3]
    out = np.zeros((count, 4, last))
    for z in range(count):
        for k in range(mass.shape[2]):
            sure = kinds[k]
            for i in range(last):
                here = mass[own, z, k, i]
                there = anywhere[z, k, i] - here
                out[z, 0, i] += sure * here
                out[z, 1, i] += (1.0 - sure) * here
                out[z, 2, i] += sure * there
                out[z, 3, i] += (1.0 - sure) * there
    return out.reshape(count, 4 * last)


@compiled
def per_cell(mass: Any, rates: Any) -> Any:
    """Return the takes an hour that a fly wholly in sight would have by place, cell, kind it is of, and pace fished; to be
    summed over the kinds, a kind that it is not at `WRONG_KIND`.
    """
    places, count, kinds = mass.shape[0], mass.shape[1], mass.shape[2]
    out = np.zeros((places, count, kinds, 3))
    levels = len(rates)
    for z in range(count):
        for k in range(kinds):
            for m in range(3):
                total = 0.0
                for p in range(places):
                    here = 0.0
                    for level in range(levels):
                        here += mass[p, z, k, m * levels + level] * rates[level]
                    out[p, z, k, m] = here
                    total += here
                for p in range(places):
                    out[p, z, k, m] = ELSEWHERE * total + (1.0 - ELSEWHERE) * out[p, z, k, m]
            for p in range(places):
                a, b, c = out[p, z, k, 0], out[p, z, k, 1], out[p, z, k, 2]
                out[p, z, k, 0] = ON_PACE * a + OFF_ONE * b + OFF_TWO * c
                out[p, z, k, 1] = OFF_ONE * a + ON_PACE * b + OFF_ONE * c
                out[p, z, k, 2] = OFF_TWO * a + OFF_ONE * b + ON_PACE * c
    return out


@compiled
def worth(gathered_: Any, exposure: Any, table: Any) -> Any:
    """Return for one exposure the expected rate, and for each number of minutes the chance of a take and that chance times
    the rate it then has.
    """
    told = np.zeros((table.shape[1], table.shape[2]))
    unmet = np.zeros(table.shape[2])
    for z in range(len(gathered_)):
        if exposure[z] < UNMET:
            unmet += gathered_[z]
            continue
        at = exposure[z] * (BINS - 1)
        low = min(int(at), BINS - 2)
        part = at - low
        for n in range(table.shape[1]):
            for i in range(table.shape[2]):
                told[n, i] += gathered_[z, i] * (table[low, n, i] * (1.0 - part) + table[low + 1, n, i] * part)
    out = np.zeros(table.shape[1])
    for n in range(table.shape[1]):
        out[n] = told[n].sum() + (unmet * table[0, n]).sum()
    return out


@compiled
def _best_few(rates: Any, least: float, most: int) -> Any:
    """The numbers of the highest rates not under the least, at most so many."""
    few = np.argsort(-rates, kind="mergesort")[:most]
    return few[rates[few] >= least]


@compiled
def _mark_near(worthy: Any, taken: Any, groups: Any, near: Any, least: float, most: int) -> None:
    for n in range(len(groups)):
        if near[n]:
            worthy[groups[n, 2] + _best_few(taken[groups[n, 2] : groups[n, 3]], least, most)] = True


@compiled
def look(
    mass: Any, rates: Any, table: Any, groups: Any, kinds: Any, exposures: Any, now: int, near: Any, cuts: Any
) -> Any:
    """Return the numbers of the exposures that are worth a look, and for each the expected rate, and for each number of
    minutes the chance of a take and that chance times the rate it then has.

    `groups` are rows of place, pace, first and one past the last exposure; `cuts` the least share of a group's best rate,
    of the best of all, the most depths of one group, the most of all, the fewest groups however poor, and the depths of each
    group that is `near`, which are looked at however many are better; `now` what is fished, always looked at too, or -1.
    """
    taken = np.zeros(len(exposures))
    full = per_cell(mass, rates)
    for n in range(len(groups)):
        place, pace = groups[n, 0], groups[n, 1]
        met = np.zeros(mass.shape[1])
        for z in range(mass.shape[1]):
            for k in range(mass.shape[2]):
                met[z] += full[place, z, k, pace] * (WRONG_KIND + (1.0 - WRONG_KIND) * kinds[n, k])
        for c in range(groups[n, 2], groups[n, 3]):
            for z in range(mass.shape[1]):
                taken[c] += exposures[c, z] * met[z]
    worthy = np.zeros(len(exposures), dtype=np.bool_)
    bests = np.array([taken[groups[n, 2] : groups[n, 3]].max() for n in range(len(groups))])
    least = min(cuts[1] * taken.max(), np.sort(bests)[-min(int(cuts[4]), len(bests))])
    for n in range(len(groups)):
        first, past = groups[n, 2], groups[n, 3]
        own = taken[first:past]
        if own.max() >= least:
            worthy[first + _best_few(own, max(cuts[0] * own.max(), least), int(cuts[2]))] = True
    few = np.flatnonzero(worthy)
    worthy[:] = False
    worthy[few[np.argsort(-taken[few], kind="mergesort")[: int(cuts[3])]]] = True
    _mark_near(worthy, taken, groups, near, cuts[1] * taken.max(), int(cuts[5]))
    if now >= 0:
        worthy[now] = True
    chosen = np.flatnonzero(worthy)
    out = np.zeros((len(chosen), table.shape[2]))
    anywhere = mass.sum(axis=0)
    c = 0
    for n in range(len(groups)):
        if c < len(chosen) and chosen[c] < groups[n, 3]:
            here = gathered(mass, anywhere, kinds[n], groups[n, 0])
            while c < len(chosen) and chosen[c] < groups[n, 3]:
                out[c] = worth(here, exposures[chosen[c]], table[groups[n, 1]])
                c += 1
    return chosen, out
