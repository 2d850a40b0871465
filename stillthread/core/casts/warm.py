"""Getting the compiled kernels ready before anybody waits for them."""

from __future__ import annotations

from stillthread.core.casts.band import simulate
from stillthread.core.casts.cast import Cast, level_bed
from stillthread.core.casts.retrieve import usual_pull
from stillthread.core.tackle.lines import Line
from stillthread.core.tackle.rig import Float, Piece, Rig, TiedFly


def warm() -> None:
    """Run one short cast and one short float rig, so that every kernel is compiled or loaded from its cache."""
    leader = (Piece(2.5, 0.2),)
    fly = TiedFly("warm", 2.5, 0.05, 0.07)
    cast = Cast(8.0, level_bed(4.0), 1.0, usual_pull("static"), hold_s=1.0)
    simulate(Rig(Line(key="warm", family="sinking", label_ips=3.0), leader, (fly,)), cast)
    simulate(Rig(Line(key="warm", family="floating"), leader, (fly,), Float("fixed", "tight", 0.9, 1.5)), cast)
