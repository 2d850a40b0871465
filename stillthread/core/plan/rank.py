"""Which set-ups to show, in which order: expected takes over the session, different from each other, two anglers apart."""

from __future__ import annotations

from dataclasses import replace

from stillthread.core.day.context import Context
from stillthread.core.day.model import RuledOut
from stillthread.core.evidence.likeness import Likened
from stillthread.core.evidence.rates import poisson_rate
from stillthread.core.plan.model import Pair
from stillthread.core.setup.model import Expected, SetUp

MOST_SET_UPS = 4
WORTH_SHOWING = 0.15
# How much of its worth a set-up loses for being like one already shown: same method, near in depth, same pace. Ours.
SAME_METHOD, NEAR_DEPTH, SAME_PACE = 0.45, 0.15, 0.1
NEAR_M = 0.5
# Minutes to tie a rig on: the line, each fly, a float; one minute with a rod that stands rigged. Common practice, ours.
LINE_MIN, FLY_MIN, FLOAT_MIN, RIGGED_MIN = 4.0, 2.0, 2.0, 1.0
MATCH_WORTH = 0.5
# Weighted hours and takes of the own log from which it may speak of real rates. Ours.
CALIBRATE_HOURS, CALIBRATE_TAKES = 4.0, 3.0


def rigging_min(one: SetUp) -> float:
    """Return how long a set-up takes to tie on [min]."""
    return LINE_MIN + FLY_MIN * len(one.flies) + (FLOAT_MIN if one.float_hang_m is not None else 0.0)


def over_session(one: SetUp, session_h: float) -> float:
    """Return a set-up's rate with its rigging time taken off a session of `session_h` [h]."""
    return one.relative * max(0.0, 1.0 - rigging_min(one) / (60.0 * session_h))


def alike(one: SetUp, other: SetUp) -> float:
    """Return how alike two set-ups are, 0 to 0.7: method, depth within half a metre, still or moving."""
    found = SAME_METHOD if one.method == other.method else 0.0
    found += NEAR_DEPTH if abs(one.target_m - other.target_m) < NEAR_M else 0.0
    return found + (SAME_PACE if (one.retrieve.kind == "static") == (other.retrieve.kind == "static") else 0.0)


def pick_different(tried: list[SetUp], most: int = MOST_SET_UPS) -> list[SetUp]:
    """Return up to `most` set-ups, the best first, each next one the best after what likeness to those before takes off.

    The second always differs in method where another can be fished (maximal marginal relevance; Carbonell & Goldstein 1998).
    """
    left = sorted(tried, key=lambda s: -s.relative)
    picked = left[:1]
    left = left[1:]
    while left and len(picked) < most:
        others = [s for s in left if all(s.method != p.method for p in picked)]
        pool = others if len(picked) == 1 and others else left
        best = max(pool, key=lambda s: s.relative * (1 - max(alike(s, p) for p in picked)))
        if len(picked) >= 2 and best.relative < WORTH_SHOWING * picked[0].relative:
            break
        picked.append(best)
        left.remove(best)
    return picked


def by_aim(shown: list[SetUp], context: Context) -> list[SetUp]:
    """Return the set-ups in the order of the day's aim: for a match the least fished first, else by what is expected.

    Fished hours are the log's, by method; only what is worth half the best moves up.
    """
    ranked = sorted(shown, key=lambda s: -s.relative)
    if context.given.aim != "match" or not ranked:
        return ranked
    fished: dict[str, float] = {}
    for one in context.given.own_log:
        fished[one.method] = fished.get(one.method, 0.0) + one.fished_h
    able = [s for s in ranked if s.relative >= MATCH_WORTH * ranked[0].relative]
    rest = [s for s in ranked if s not in able]
    return sorted(able, key=lambda s: (fished.get(s.method, 0.0), -s.relative)) + rest


def with_cold_pair(shown: list[SetUp], tried: list[SetUp], context: Context) -> list[SetUp]:
    """Return the set-ups for very cold water: by the default school one still and one flashy start stand first."""
    if not context.very_cold or context.schools.very_cold != "both" or not shown:
        return shown
    flashy = max((s for s in tried if s.style == "flashy"), key=lambda s: s.relative, default=None)
    if flashy is None or flashy in shown[:2]:
        return shown
    rest = [s for s in shown if s is not flashy]
    return [*rest[:1], flashy, *rest[1 : MOST_SET_UPS - 1]]


def pass_over(tried: list[SetUp], shown: list[SetUp]) -> list[RuledOut]:
    """Return what was worked out and not shown, each with why."""
    keys = {s.key for s in shown}
    found = []
    for one in tried:
        if one.key in keys:
            continue
        better = next((s for s in shown if s.method == one.method), None)
        if better is None:
            words = "Meets too few fish at the likely depths today."
        elif one.relative < better.relative:
            words = f"{better.title} puts the fly better in the likely band today."
        else:
            words = f"Much like {better.title}, which is shown."
        found.append(RuledOut(one.title, "depth", words))
    return found


def pair_of(shown: list[SetUp]) -> Pair | None:
    """Return starts for two anglers: the best, and the one that asks most other questions and is still worth it."""
    if len(shown) < 2:
        return None

    def worth(i: int) -> float:
        tones = 0.1 if shown[i].flies[-1].fly.tone == shown[0].flies[-1].fly.tone else 0.0
        return shown[i].relative * (1 - alike(shown[i], shown[0]) - tones)

    second = max(range(1, len(shown)), key=worth)
    one, other = shown[0], shown[second]
    parts = []
    if one.place != other.place:
        parts.append(f"one at {one.place}, one at {other.place}")
    if one.method != other.method:
        parts.append("another method")
    if abs(one.target_m - other.target_m) >= 0.3:
        parts.append(f"{abs(one.target_m - other.target_m):.1f} m apart in depth")
    if (one.retrieve.kind == "static") != (other.retrieve.kind == "static"):
        parts.append("one still, one moving")
    tones = (one.flies[-1].fly.tone, other.flies[-1].fly.tone)
    if tones[0] != tones[1]:
        parts.append(f"{tones[0]} against {tones[1]}")
    why = ", ".join(parts) or "little to choose between them"
    return Pair(0, second, f"{why[0].upper()}{why[1:]}. Converge on what works.")


def calibrated(shown: list[SetUp], log: Likened | None, session_h: float) -> list[SetUp]:
    """Return the set-ups with takes an hour where the own log holds enough days like this; else unchanged.

    The log's rate (Garwood's exact interval on the takes, weighed by likeness) stands for the mean of the methods it
    was fished with, so a set-up better than those is expected to take more.
    """
    if log is None or log.hours < CALIBRATE_HOURS or log.takes < CALIBRATE_TAKES:
        return shown
    rate = poisson_rate(round(log.takes), log.hours)
    if rate.per_hour is None or rate.low is None or rate.high is None:
        return shown
    worst = min(s.relative for s in shown)
    best_of = {s.method: s.relative for s in reversed(shown)}
    both = list(zip(log.weights, log.stretches, strict=True))
    usual = sum(w * s.fished_h * best_of.get(s.method, worst) for w, s in both) / log.hours
    found = []
    for one in shown:
        share = one.relative / max(usual, 1e-6)
        fished = max(0.0, session_h - one.rigging_min / 60)
        expected = Expected(rate.per_hour * share, rate.low * share, rate.high * share, rate.per_hour * share * fished)
        found.append(replace(one, expected=expected))
    return found
