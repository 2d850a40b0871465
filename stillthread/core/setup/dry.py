"""A dry fly or an emerger in the film."""

from __future__ import annotations

from stillthread.core.setup.choose_flies import place_team
from stillthread.core.setup.context import Context
from stillthread.core.setup.model import Reason, RuledOut, SetUp
from stillthread.core.setup.retrieves import RETRIEVES
from stillthread.core.setup.worth import appeal, fly_reason, worth
from stillthread.core.tackle.leaders import casting_leader

FALLBACK_DRY = "No rise in 20 minutes: the fish are down. Go to nymphs or a sunk line."


def dry(context: Context) -> SetUp | RuledOut:
    """Return a dry fly or emerger in the film on a floating line."""
    lines = context.lines_of("floating")
    ranked = context.flies_for(0.0, ("buoyant", "unweighted"), surface=True)
    if not lines or not ranked:
        return RuledOut(
            "Dry fly", "kit", "No floating line in your kit." if not lines else "No dry fly or emerger in your box."
        )
    leader = casting_leader(context.tippet_x, context.wary)
    retrieve = RETRIEVES["static"]
    rising = any(seen.rise not in (None, "leap") for seen in context.given.sightings)
    share = 0.85 if rising else 0.5
    reached = share * context.reach.over_band(0.0, 0.1)
    value = worth(context, "dry", reached, retrieve, 0.0, appeal(ranked, context))
    return SetUp(
        method="dry",
        title="Dry fly in the film",
        line=lines[0],
        leader=leader,
        flies=place_team(ranked, 1, leader.flies_at_m, (0.0,), context.wary),
        place=context.belief.place.name,
        target_m=0.0,
        low_m=0.0,
        high_m=0.1,
        estimate_m=0.0,
        count_s=None,
        float_hang_m=None,
        float_kind=None,
        retrieve=retrieve,
        cast_m=context.angler.cast_m,
        relative=value,
        sink_table=(),
        depth_note="In the film, the top 10 cm.",
        reasons=(fly_reason(ranked), Reason("method", "For fish that rise or cruise high; nothing if they are down.")),
        watch_for="A sip, a swirl, the fly gone. Lift gently.",
        fallback=FALLBACK_DRY,
    )
