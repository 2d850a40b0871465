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

    `kinds` are 1 where the fly fished is of that kind; a `place` of -1 is not known.
    """
    for p in range(mass.shape[0]):
        g = 0 if p == place or place < 0 else 1
        for z in range(mass.shape[1]):
            for k in range(mass.shape[2]):
                f = 0 if kinds[k] > 0 else 1
                for m in range(mass.shape[3]):
                    for level in range(mass.shape[4]):
                        mass[p, z, k, m, level] *= told[g, z, f, m, level]
    total = mass.sum()
    if total > 0.0:
        mass *= 1.0 / total
    return float(total)


@compiled
def spread(mass: Any, beds: Any, share: float) -> None:
    """Let the depth wander: `share` of each cell's mass goes half up and half down; surface and bed throw it back."""
    for p in range(mass.shape[0]):
        last = beds[p] - 1
        above = mass[p, 0].copy()
        for z in range(last + 1):
            here = mass[p, z].copy()
            below = mass[p, z + 1] if z < last else here
            mass[p, z] = here + 0.5 * share * (above + below - 2.0 * here)
            above = here


@compiled
def tabulate(rates: Any, minutes: Any) -> Any:
    """Return, for place or elsewhere, kind or not, steps off pace, level and exposure bin: the rate, and for each number
    of minutes the chance of a take and that chance times the rate.
    """
    table = np.zeros((2, 2, 3, len(rates), BINS, 1 + 2 * len(minutes)))
    seen = np.arange(BINS) / (BINS - 1.0)
    for g in range(2):
        for f in range(2):
            for s in range(3):
                for level in range(len(rates)):
                    left = (1.0 if g == 0 else ELSEWHERE) * (1.0 if f == 0 else WRONG_KIND) * _off(s)
                    rate = seen * left * rates[level] + LEAST_RATE
                    table[g, f, s, level, :, 0] = rate
                    for n in range(len(minutes)):
                        chance = 1.0 - np.exp(-rate * minutes[n] / 60.0)
                        table[g, f, s, level, :, 1 + 2 * n] = chance
                        table[g, f, s, level, :, 2 + 2 * n] = chance * rate
    return table


@compiled
def gathered(mass: Any, anywhere: Any, kinds: Any, own: int, pace: int) -> Any:
    """Return the belief by cell as a fly of these kinds at this place and pace meets it: columns as the table's rows,
    place or elsewhere, kind or not, steps off the pace, level.
    """
    count, paces, levels = mass.shape[1], mass.shape[3], mass.shape[4]
    out = np.zeros((count, 2, 2, 3, levels))
    for z in range(count):
        for k in range(mass.shape[2]):
            f = 0 if kinds[k] > 0 else 1
            for m in range(paces):
                step = abs(m - pace)
                for level in range(levels):
                    here = mass[own, z, k, m, level]
                    out[z, 0, f, step, level] += here
                    out[z, 1, f, step, level] += anywhere[z, k, m, level] - here
    return out.reshape(count, 12 * levels)


@compiled
def rates_of(gathered_: Any, exposures: Any, table: Any) -> Any:
    """Return the expected takes an hour of each exposure, by what was gathered for its group."""
    rows = table.reshape(-1, table.shape[4], table.shape[5])
    per_cell = np.zeros(len(gathered_))
    for z in range(len(gathered_)):
        for i in range(len(rows)):
            per_cell[z] += gathered_[z, i] * (rows[i, -1, 0] - LEAST_RATE)
    return exposures @ per_cell + LEAST_RATE * gathered_.sum()


@compiled
def worth(gathered_: Any, exposure: Any, table: Any) -> Any:
    """Return for one exposure the expected rate, and for each number of minutes the chance of a take and that chance times
    the rate it then has.
    """
    rows = table.reshape(-1, table.shape[4], table.shape[5])
    binned = np.zeros((BINS, gathered_.shape[1]))
    for z in range(len(gathered_)):
        at = exposure[z] * (BINS - 1)
        low = min(int(at), BINS - 2)
        part = at - low
        for i in range(gathered_.shape[1]):
            binned[low, i] += gathered_[z, i] * (1.0 - part)
            binned[low + 1, i] += gathered_[z, i] * part
    out = np.zeros(table.shape[5])
    for i in range(gathered_.shape[1]):
        for b in range(BINS):
            weight = binned[b, i]
            if weight > 0.0:
                for n in range(len(out)):
                    out[n] += weight * rows[i, b, n]
    return out


@compiled
def _best_few(rates: Any, least: float, most: int, always: int) -> Any:
    """The numbers of the highest rates not under the least, at most so many, and one that is always looked at."""
    few = np.zeros(len(rates), dtype=np.bool_)
    for n in np.argsort(-rates)[:most]:
        few[n] = rates[n] >= least
    if 0 <= always < len(rates):
        few[always] = True
    return np.flatnonzero(few)


@compiled
def look(mass: Any, table: Any, groups: Any, kinds: Any, exposures: Any, now: int, cuts: Any) -> Any:
    """Return the numbers of the exposures that are worth a look, and for each the expected rate, and for each number of
    minutes the chance of a take and that chance times the rate it then has.

    `groups` are rows of place, pace, first and one past the last exposure; `cuts` the least share of a group's best rate,
    of the best of all, and the most depths of one group; `now` what is fished.
    """
    anywhere = mass.sum(axis=0)
    rates = np.zeros(len(exposures))
    met = np.zeros((len(groups), mass.shape[1], 12 * mass.shape[4]))
    for n in range(len(groups)):
        met[n] = gathered(mass, anywhere, kinds[n], groups[n, 0], groups[n, 1])
        rates[groups[n, 2] : groups[n, 3]] = rates_of(met[n], exposures[groups[n, 2] : groups[n, 3]], table)
    chosen = np.zeros(len(exposures), dtype=np.int64)
    out = np.zeros((len(exposures), table.shape[5]))
    count = 0
    for n in range(len(groups)):
        first = groups[n, 2]
        own = rates[first : groups[n, 3]]
        for c in _best_few(own, max(cuts[0] * own.max(), cuts[1] * rates.max()), int(cuts[2]), now - first):
            chosen[count] = first + c
            out[count] = worth(met[n], exposures[first + c], table)
            count += 1
    return chosen[:count], out[:count]
