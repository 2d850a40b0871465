"""The usual cautions, by condition; local rules and authorities come first."""

from __future__ import annotations

from collections.abc import Set

from stillthread.core.day.context import Context
from stillthread.core.day.given import PlanInput, Rules
from stillthread.core.reading.cautions import (
    Caution,
    cold_cautions,
    dark_cautions,
    gravest_first,
    sky_cautions,
    water_cautions,
    wind_cautions,
)
from stillthread.core.setup.model import SetUp
from stillthread.core.sky.wind import THINK_AGAIN_M_S
from stillthread.core.trout.temperature import Welfare


def fish_cautions(warmth: Welfare | None, rules: Rules) -> list[Caution]:
    """Return cautions for fish that will be returned, by the warmest water they are played through."""
    if warmth is None or warmth.level == "ok":
        return []
    if warmth.level == "stop":
        keep = (
            ""
            if rules.release == "catch-and-release"
            else " Where fish may be kept, keep what you catch, to the limit."
        )
        return [Caution("warm-water", "stop", warmth.sentence + keep)]
    return [Caution("warm-water", "caution" if warmth.level == "caution" else "note", warmth.sentence)]


def rule_cautions(rules: Rules) -> list[Caution]:
    """Return the reminders about rules: what the angler noted is held to, the rest is theirs to check."""
    found = []
    if rules.max_flies is None:
        found.append(
            Caution(
                "rules", "caution", "The number of flies allowed is not noted: planned with two. Check before you fish."
            )
        )
    if rules.barbless:
        found.append(Caution("barbless", "note", "Barbless hooks here, as you read the rules."))
    found.append(Caution("local-rules", "note", "Local rules, licences and closures come first, and they change."))
    return found


def handling_cautions(rules: Rules) -> list[Caution]:
    """Return how to treat the fish by what the rules as read want: returned, kept, or either (trade practice)."""
    if rules.release == "kill":
        words = "Fish are kept here, as you read the rules: take the limit, then stop."
        return [Caution("kill", "note", words)]
    words = (
        "Fish you return: wet hands, in the water all the time, ten seconds of air at most; hold them till they kick."
    )
    return [Caution("handling", "note", words)]


WADED = {"margin", "shoal", "weed-edge", "inlet"}


def going_cautions(given: PlanInput, place_kinds: Set[str]) -> list[Caution]:
    """Return what to mind on the way and at the rod: wading, hooks, power lines, gear between waters (trade practice)."""
    found = []
    if not given.angler.afloat and place_kinds & WADED:
        found.append(Caution("wading", "note", "Wading: slowly, with a staff, and mind soft mud and sudden depth."))
    words = "Hat and glasses on: hooks fly. Look up for power lines before you cast. Clean, check and dry gear between waters."
    found.append(Caution("usual", "note", words))
    return found


SHALLOW_M = 1.5
DRAGGING_WIND_M_S = 3.0


def set_up_cautions(one: SetUp, context: Context) -> tuple[Caution, ...]:
    """Return what to mind with one set-up: snags, drag, tangles, the float's peg, smash takes (trade practice)."""
    wind, bed_m = context.given.reading.wind_m_s or 0.0, context.bed_m
    found = []
    if context.cast_m < context.angler.cast_m and one.float_hang_m is None:
        words = f"In this wind your comfortable cast is nearer {context.cast_m:.0f} m: hats, glasses, and nobody behind you."
        found.append(Caution("cast-in-wind", "note", words))
    if one.style == "drifted":
        found.append(
            Caution("drift", "note", "Look where the drift takes you; keep clear of others and of shallow water.")
        )
    if one.float_kind == "release":
        words = "Pegged too lightly the float frees on the cast; too tightly it stays on: then hold the leader and undo it by hand."
        found.append(Caution("float-peg", "note", words))
    if one.float_hang_m is not None and wind >= DRAGGING_WIND_M_S:
        found.append(
            Caution("drag", "note", "In this wind a dragged float lifts the flies: recast or mend when it drags.")
        )
    if one.count_s is not None and (one.deepest_m or 0.0) >= bed_m - 0.1:
        found.append(
            Caution(
                "snag",
                "caution",
                "The fly may reach the bed on this count and pace: shorten the count when weed comes back.",
            )
        )
    if len(one.flies) > 1 and wind >= THINK_AGAIN_M_S:
        found.append(
            Caution("tangle", "note", "A team tangles in this wind: open the loop, let the back-cast straighten.")
        )
    if one.retrieve.kind == "roly-poly":
        found.append(Caution("strike", "note", "Keep the retrieve going through the take; do not strike."))
    elif one.retrieve.kind in ("long-pull", "strip-pause"):
        found.append(Caution("smash-take", "note", "Never point the rod straight down the line when pulling."))
    if bed_m < SHALLOW_M and one.float_hang_m is None:
        found.append(
            Caution("disturbance", "note", "In water this shallow repeated casting clears the place: rest it.")
        )
    return tuple(found)


def plan_cautions(
    given: PlanInput, warmth: Welfare | None, place_kinds: Set[str], sun_deg: float
) -> tuple[Caution, ...]:
    """Return all cautions for a plan, the gravest first.

    `place_kinds` are those of the places it sends the angler to, `sun_deg` the sun's elevation [deg].
    """
    found = (
        fish_cautions(warmth, given.rules)
        + sky_cautions(given.reading)
        + wind_cautions(given.reading, given.angler.afloat)
        + water_cautions(given.reading, given.angler.afloat)
        + cold_cautions(given.reading)
        + dark_cautions(sun_deg, given.angler.afloat)
        + handling_cautions(given.rules)
        + going_cautions(given, place_kinds)
        + rule_cautions(given.rules)
    )
    return gravest_first(found)
