"""What the angler knows of his own: the log of days like today, never overruling on thin data, and a depth just found."""

from __future__ import annotations

from dataclasses import replace

import numpy as np
from numpy.typing import NDArray

from stillthread.core.belief.factor import Factor
from stillthread.core.evidence.likeness import Likened, rate_over_depth
from stillthread.core.noted.water import Place

# Weighted hours below which the log keeps out of it, and the most it may say (log weight). Our figures.
LEAST_HOURS = 1.0
MOST_SAID = 1.2
TOLD = 0.08  # a log weight worth a word


def own_log_factor(depths: NDArray[np.float64], like: Likened | None, place: Place, notice: float = 1.0) -> Factor:
    """Weight depths [m] of a place by the shrunk take rate of like days against their mean; flat without a log.

    Blank hours count against a depth. The log weight is held within 1.2 either way, a factor of 3.3. `notice` is only told:
    how many times as far as usual a fly is reckoned to be noticed, by the angler's own takes.
    """
    told = _by_depth(depths, like, place)
    if notice == 1.0:
        return told
    words = f" By your own takes a fly is noticed {notice:.1f} times as far as usual."
    return replace(told, sentence=told.sentence + words)


def _by_depth(depths: NDArray[np.float64], like: Likened | None, place: Place) -> Factor:
    flat = np.zeros_like(depths)
    if like is None or not like.stretches:
        return Factor("own-log", flat, "No log of your own yet.", False)
    if like.hours < LEAST_HOURS:
        return Factor("own-log", flat, "Nothing in your log was much like today.", False)
    rate, hours = rate_over_depth(like, depths, place.name, place.kind)
    if float(hours.max()) < 0.1:
        return Factor("own-log", flat, "Your log says no depth for days like this.", False)
    log_weight = np.clip(np.log(rate / like.mean_rate), -MOST_SAID, MOST_SAID)
    best, worst = int(np.argmax(log_weight)), int(np.argmin(log_weight))
    words = f"Days like today in your log: {like.hours:.1f} h and {like.takes:.1f} takes, by how like they were."
    if float(np.ptp(log_weight)) < 0.1:
        words += " They choose no depth."
    else:
        words += f" Most came at about {depths[best]:.1f} m." if log_weight[best] > TOLD else ""
        words += f" It was poor at about {depths[worst]:.1f} m." if log_weight[worst] < -TOLD else ""
    return Factor("own-log", log_weight, words, True)


# A depth found today: how sure (standard deviation [m]) and how strong. Our figures.
FOUND_SPREAD_M = 0.4
FOUND_STRENGTH = 5.0


def found_factor(depths: NDArray[np.float64], found_m: float | None) -> Factor:
    """Weight depths [m] about one where fish were found today; flat where none was.

    Trade practice: a depth found with one method carries over to another.
    """
    if found_m is None:
        return Factor("found", np.zeros_like(depths), "No depth found yet today.", False)
    about = np.exp(-0.5 * ((depths - found_m) / FOUND_SPREAD_M) ** 2)
    words = f"Found at {found_m:.1f} m today: whatever the method, fish there."
    return Factor("found", FOUND_STRENGTH * about, words, True)
