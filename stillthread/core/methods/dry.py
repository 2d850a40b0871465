"""A dry fly or an emerger in the film."""

from __future__ import annotations

from stillthread.core.day.context import Context
from stillthread.core.day.model import Reason, RuledOut, Trace
from stillthread.core.flies.choose import Match
from stillthread.core.flies.team import place_flies
from stillthread.core.methods.model import SetUp
from stillthread.core.methods.retrieves import RETRIEVES
from stillthread.core.methods.worth import appeal, worth
from stillthread.core.tackle.leaders import casting_leader, team_leader
from stillthread.core.tackle.lines import Line
from stillthread.core.units import feet_to_m

RISING_SHARE, BLIND_SHARE = 0.85, 0.5


def dry(context: Context) -> SetUp | RuledOut:
    """Return a dry fly or emerger in the film on a floating line, or why not."""
    lines = context.lines_of("floating")
    ranked = context.flies_for(0.0, ("buoyant", "unweighted"), surface=True)
    if not lines or not ranked:
        return RuledOut(
            "Dry fly", "kit", "No floating line in your kit." if not lines else "No dry fly or emerger in your box."
        )
    if not context.allows("static"):
        return RuledOut("Dry fly", "kit", "You fish moving flies only.")
    return dry_set_up(context, lines[0], ranked[:1])


def dry_set_up(context: Context, line: Line, team: list[Match]) -> SetUp:
    """Return floating flies fished in the film: one on a tapered leader, more on a level one."""
    x = context.tippet_x
    leader = (
        casting_leader(x, context.wary) if len(team) == 1 else team_leader(x, len(team), feet_to_m(9), feet_to_m(4))
    )
    retrieve = RETRIEVES["static"]
    rising = any(seen.rise not in (None, "leap") for seen in context.given.sightings)
    reached = (RISING_SHARE if rising else BLIND_SHARE) * context.reach.over_band(0.0, 0.1)
    flies = place_flies(team, leader.flies_at_m, (0.0,) * len(team), context.wary, context.attractor_at)
    return SetUp(
        method="dry",
        style="dry",
        title="Dry fly in the film",
        line=line,
        leader=leader,
        flies=flies,
        place=context.belief.place.name,
        target_m=0.0,
        low_m=0.0,
        high_m=0.1,
        estimate_m=0.0,
        count_s=None,
        float_hang_m=None,
        float_kind=None,
        retrieve=retrieve,
        cast_m=context.cast_m,
        relative=worth(context, "dry", reached, retrieve, 0.0, appeal(team, context)),
        sink_table=(),
        depth_note="In the film, the top 10 cm.",
        reasons=(
            Reason("fly", f"{flies[-1].fly.name}: {flies[-1].why}"),
            Reason("method", "For fish that rise or cruise high; nothing if they are down."),
        ),
        tracks=tuple(Trace(fly.position, ((0.0, 0.0), (20.0, 0.0))) for fly in flies),
        watch_for="A sip, a swirl, the fly gone. Lift gently.",
    )
