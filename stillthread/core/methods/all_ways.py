"""Every way to fish the day: each tried on the thread, or refused with its reason."""

from __future__ import annotations

from collections.abc import Callable
from concurrent.futures import ThreadPoolExecutor
from functools import partial

from stillthread.core.day.context import Context
from stillthread.core.day.model import RuledOut
from stillthread.core.day.rules import line_refused
from stillthread.core.methods.afloat import dangle, drifted
from stillthread.core.methods.by_hand import by_hand
from stillthread.core.methods.counted import shallowest_useful_m
from stillthread.core.methods.dry import dry
from stillthread.core.methods.hung import float_rig
from stillthread.core.methods.over_bed import over_bed, over_weed, up_slope
from stillthread.core.methods.ways import (
    DEEP_TIP_FROM_IPS,
    DEEP_TIP_FROM_M,
    buoyant_point,
    counted_line,
    deep_tip,
    flashy,
    on_sinking_leader,
)
from stillthread.core.setup.model import SetUp
from stillthread.core.tackle.lines import Line

Attempt = Callable[[], SetUp | RuledOut]

SIDE_BY_SIDE = 2


def _counted_ways(context: Context, line: Line) -> list[Attempt]:
    """Every way a sunk line is fished: as a team, and by what the line and the water suit."""
    method = "intermediate" if line.family == "hover" else line.family
    tried: list[Attempt] = [partial(counted_line, context, method, line)]
    if line.family in ("hover", "intermediate"):
        tried.append(partial(buoyant_point, context, method, line))
        tried.append(partial(over_weed, context, line))
    if line.family == "sink-tip" and line.label_ips >= DEEP_TIP_FROM_IPS and context.bed_m >= DEEP_TIP_FROM_M:
        tried.append(partial(deep_tip, context, line))
    if context.very_cold and context.schools.very_cold == "both":
        tried.append(partial(flashy, context, method, line))
    if context.angler.afloat:
        tried.append(partial(drifted, context, method, line))
    return tried


def _sunk_lines(context: Context) -> list[Attempt]:
    """Tip, hover, intermediate and full-sinking lines, or the rule against them."""
    families = ("sink-tip", "hover", "intermediate", "sinking")
    lines = [line for family in families for line in context.lines_of(family)]
    refused = [(line, line_refused(context.rules, line)) for line in lines]
    if any(said for _, said in refused):
        return [partial(_same, RuledOut(line.title, "rule", said or "")) for line, said in refused]
    tried = [attempt for line in lines for attempt in _counted_ways(context, line)]
    fast = context.lines_of("sinking")
    if fast and any(fly.buoyant and not fly.surface and fly.stock != 0 for fly in context.given.flies):
        fit = [line for line in fast if shallowest_useful_m(line) <= context.bed_m]
        tried.append(partial(over_bed, context, (fit or fast)[-1]))
    if fast and context.belief.place.kind == "drop-off":
        tried.append(partial(up_slope, context, fast[-1]))
    if fast and context.angler.afloat:
        tried.append(partial(dangle, context, fast[-1]))
    return tried


def _same(one: RuledOut) -> RuledOut:
    return one


def _floating_ways(context: Context) -> list[Attempt]:
    floating = context.lines_of("floating")
    if not floating:
        return [partial(_same, RuledOut("Slow nymphs", "kit", "No floating line in your kit."))]
    tried: list[Attempt] = [
        partial(counted_line, context, "nymphs", floating[0]),
        partial(buoyant_point, context, "nymphs", floating[0]),
    ]
    if len(context.given.lines) == len(floating):
        tried.append(partial(on_sinking_leader, context, floating[0]))
    return tried


def try_all(context: Context) -> list[SetUp | RuledOut]:
    """Every way's best or its refusal, in a fixed order; tried side by side, since the thread runs without the lock."""
    tried: list[Attempt] = [partial(float_rig, context), partial(dry, context)]
    tried += _floating_ways(context) + _sunk_lines(context)
    tried += [partial(by_hand, context, number) for number in range(len(context.given.by_hand))]
    with ThreadPoolExecutor(SIDE_BY_SIDE) as pool:
        return list(pool.map(lambda attempt: attempt(), tried))
