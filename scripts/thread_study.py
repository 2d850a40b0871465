"""Write docs/thread-accuracy.md and docs/rules-of-thumb.md: how accurate the thread is, and where it disagrees with the trade.

One command: `./still bench study`. Nothing here is timed.
"""

from __future__ import annotations

import pathlib
import sys
from dataclasses import replace

import numpy as np
from thread_reference import monte_carlo

ROOT = pathlib.Path(__file__).resolve().parents[1]
sys.path.insert(0, str(ROOT))

from stillthread.core.casts.band import simulate, simulate_with_band  # noqa: E402
from stillthread.core.casts.cast import Cast, level_bed  # noqa: E402
from stillthread.core.casts.float_rig import hung_after_s, simulate_float  # noqa: E402
from stillthread.core.casts.retrieve import usual_pull  # noqa: E402
from stillthread.core.casts.tables import count_table, sink_run, trolling_table  # noqa: E402
from stillthread.core.tackle.lines import Line  # noqa: E402
from stillthread.core.tackle.rig import Float, Piece, Rig, TiedFly  # noqa: E402
from stillthread.core.thread.chain import FINE, RANKING, SCREEN, Detail  # noqa: E402

STILL = usual_pull("static")
BEST = Detail(line_m=0.125, leader_m=0.125, step_s=0.05, move_m=0.01, tolerance_m=1e-5, record_s=0.5)


def level(*lengths: float) -> tuple[Piece, ...]:
    """Leader pieces of 0.20 mm."""
    return tuple(Piece(length, 0.2) for length in lengths)


def plain(at: float) -> TiedFly:
    """An unweighted nymph."""
    return TiedFly("plain", at, 0.05, 0.07)


def heavy(at: float) -> TiedFly:
    """A beaded fly."""
    return TiedFly("heavy", at, 0.2, 0.15)


def buoyant(at: float) -> TiedFly:
    """A foam-eyed fly."""
    return TiedFly("buoyant", at, -0.05, -0.1)


def cases() -> dict[str, tuple[Rig, Cast]]:
    """The casts studied."""
    tip = Line(key="t", family="sink-tip", label_ips=2.0, weight_class=7, tip_length_m=1.8)
    floating = Line(key="f", family="floating")
    count = Cast(18.0, countdown_s=30.0)
    return {
        "type 3, plain fly, hand twist": (
            Rig(Line(key="3", family="sinking", label_ips=3.0), level(3.0), (plain(3.0),)),
            replace(count, pull=usual_pull("hand-twist", 0.1)),
        ),
        "intermediate, beaded fly, strip and pause": (
            Rig(Line(key="i", family="intermediate", label_ips=1.2), level(3.0), (heavy(3.0),)),
            replace(count, pull=usual_pull("strip-pause"), most_s=120.0),
        ),
        "type 5, buoyant fly, long pulls": (
            Rig(Line(key="5", family="sinking", label_ips=5.0), level(2.1), (buoyant(2.1),)),
            replace(count, pull=usual_pull("long-pull")),
        ),
        "sink tip, plain fly, hand twist": (
            Rig(tip, level(2.7), (plain(2.7),)),
            replace(count, bed=level_bed(4.0), pull=usual_pull("hand-twist", 0.1)),
        ),
        "floating line, team of two": (
            Rig(floating, level(2.4, 1.5), (replace(plain(2.4), dropper_m=0.15), heavy(3.9))),
            replace(count, pull=usual_pull("hand-twist", 0.05), most_s=150.0),
        ),
        "float, plain fly, drift 5 cm/s": (
            Rig(floating, level(0.9, 4.0), (plain(4.9),), Float("fixed", "tight", 0.9, 1.5)),
            Cast(12.0, pull=STILL, drift_m_s=0.05, hold_s=120.0),
        ),
    }


def worst_cm(rig: Rig, cast: Cast, detail: Detail) -> float:
    """Largest difference of the point fly's depth from the finest run [cm]."""
    best = simulate(rig, cast, BEST).point
    track = simulate(rig, cast, detail).point
    return float(100 * np.abs(np.interp(best.t_s, track.t_s, track.depth_m) - best.depth_m).max())


def convergence() -> str:
    """Nodes × step → largest error."""
    studied = list(cases().items())
    lines = [
        "| line / leader segment [m] | longest step [s] | move a step [m] | " + " | ".join(n for n, _ in studied) + " |"
    ]
    lines.append("|---" * (3 + len(studied)) + "|")
    for line_m, leader_m in ((2.0, 1.0), (1.0, 0.5), (0.5, 0.25), (0.25, 0.25)):
        for step, move in ((1.0, 0.2), (0.5, 0.06), (0.25, 0.025)):
            detail = Detail(line_m=line_m, leader_m=leader_m, step_s=step, move_m=move, tolerance_m=1e-4, record_s=0.5)
            errors = [f"{worst_cm(rig, cast, detail):.1f}" for _, (rig, cast) in studied]
            lines.append(f"| {line_m:g} / {leader_m:g} | {step:g} | {move:g} | " + " | ".join(errors) + " |")
    return "\n".join(lines)


def bands() -> str:
    """The band against 200 random draws."""
    lines = [
        "| cast | width of the band [m] | 10 % edge off by (median, largest) [m] | 90 % edge off by |",
        "|---|---|---|---|",
    ]
    for name, (rig, cast) in cases().items():
        band = simulate_with_band(rig, cast, shifts_at=SCREEN).point
        low, high = monte_carlo(rig, cast, np.random.default_rng(1), 200)[-1]
        a, b = np.abs(band.p10_m - low), np.abs(band.p90_m - high)
        lines.append(
            f"| {name} | {np.median(high - low):.2f} | {np.median(a):.2f}, {a.max():.2f} | {np.median(b):.2f}, {b.max():.2f} |"
        )
    return "\n".join(lines)


def accuracy() -> str:
    """Return docs/thread-accuracy.md."""
    return f"""# How accurate the thread is

Written by `./still bench study`; run it again after any change to `core/thread` or `core/casts`.

## Nodes and steps

Largest difference of the point fly's depth over the whole cast from a run with segments of 12.5 cm and steps of at most 5 cm
and 0.05 s, in centimetres. Ranking uses {RANKING.line_m:g} / {RANKING.leader_m:g} m, {RANKING.step_s:g} s, {RANKING.move_m:g} m; the command
`./still simulate` uses {FINE.line_m:g} / {FINE.leader_m:g} m, {FINE.step_s:g} s, {FINE.move_m:g} m; the planner's first look {SCREEN.line_m:g} / {SCREEN.leader_m:g} m,
{SCREEN.step_s:g} s, {SCREEN.move_m:g} m with pulls evened out.

{convergence()}

## The band against chance

200 draws of line rate (±30 %), weight of the flies (±30 %) and drag of leader and flies (±20 %), each evenly spread; the band takes two
runs for each input at 0.74 of its half width and adds the shifts by their squares, up and down apart. An even spread of half width h has
the standard deviation h/√3, and 10–90 % of a bell is 1.28 of that.

{bands()}

A line's rate is kept when drag is varied: the rate is what is known of it. Not in the band: what the model leaves out (a greased leader held
by the film, wind drift below the surface, line memory, the bow seen from above).

## Against other solvers and closed forms

Tests hold these (`tests/core/test_cable.py`, `test_fluid.py`): a level line sinks at its rate; a towed line settles at the angle where drag across it
equals its weight across it; a slack heavy line is a catenary (values cross-checked with a mooring library); the same equations by
scipy's LSODA within 2 cm; sphere and viscosity values against reference libraries. `./still bench thread` gives the speeds.
"""


def rows() -> list[tuple[str, str, str, str]]:
    """Return rules of thumb beside the model: rule, what the trade says, what the thread says, why."""
    deep = Cast(18.0)
    three = Rig(Line(key="3", family="sinking", label_ips=3.0), level(3.0), (plain(3.0),))
    counted = count_table(sink_run(three, deep, doubt=None), [3.0])[0].count_s or 0.0
    tip = Rig(
        Line(key="t", family="sink-tip", label_ips=2.0, weight_class=7, tip_length_m=1.8), level(2.7), (plain(2.7),)
    )
    slow = simulate(tip, replace(deep, pull=usual_pull("hand-twist", 0.3)), FINE)
    trolled = trolling_table(tip, deep, [0.35], [20.0])[0][0] or 0.0
    heavy_tip = Rig(
        Line(key="t", family="sink-tip", label_ips=3.0, weight_class=7, tip_length_m=3.0), level(3.0), (plain(3.0),)
    )
    long_hang = simulate(heavy_tip, replace(deep, countdown_s=40.0, pull=usual_pull("hand-twist", 0.03)), FINE)
    weed = Rig(Line(key="i", family="intermediate", label_ips=1.2), level(2.1), (buoyant(2.1),))
    over = simulate(
        weed, replace(deep, bed=level_bed(1.1), countdown_s=22.0, pull=usual_pull("custom", 0.15, 0.6, 1.0)), FINE
    )
    inter = simulate(
        Rig(Line(key="i", family="intermediate", label_ips=1.2), level(2.4), (plain(2.4),)),
        replace(deep, pull=usual_pull("strip-pause")),
        FINE,
    )
    middle = slow.point.at(slow.fished_to_s / 2)
    return [
        (
            "seconds = depth ÷ label",
            "type 3 to 3 m: 39 s",
            f"{counted:.0f} s with a plain fly on 3 m of leader",
            "the fly lags the line by some three quarters of the leader",
        ),
        (
            "a sink tip goes no deeper than tip + leader",
            "3 + 3 m: 6 m",
            f"{long_hang.point.depth_m.max():.1f} m, left out for {long_hang.end_s / 60:.0f} min on a 3 in/s tip",
            "a heavy tip draws the floating part under: its lift is small; the film that helps to hold it is not in the model",
        ),
        (
            "a slow tip on a slow retrieve runs at 0.3 to 0.45 m",
            "0.3–0.45 m",
            f"{middle:.2f} m half-way at 30 cm/s, no count",
            "slower retrieves go deeper: it sinks for as long as it is out",
        ),
        ("trolled, a slow tip runs at 0.3 to 0.45 m", "0.3–0.45 m", f"{trolled:.2f} m at 35 cm/s", "agrees"),
        (
            "an intermediate fishes 0.6 to 1.5 m",
            "0.6–1.5 m",
            f"{inter.point.between(0, inter.fished_to_s)[1]:.1f} m at its deepest, strip and pause, no count",
            "a whole cast takes minutes at that pace; the first third of it agrees",
        ),
        (
            "a buoyant fly on an intermediate over weed, count 22 s: 0.3 to 0.6 m",
            "0.3–0.6 m in 1.1 m",
            f"{over.point.at(22):.2f} m at rest, then {over.point.between(30, over.fished_to_s)[0]:.1f}–{over.point.between(30, over.fished_to_s)[1]:.1f} m",
            "the line lies on the weed and the pulls draw the fly down to it",
        ),
    ]


def float_rows() -> list[tuple[str, str, str, str]]:
    """Return the same for float rigs."""
    floating = Line(key="f", family="floating")
    hung = {
        line: simulate_float(
            Rig(floating, level(0.9, 4.0), (heavy(4.9),), Float("fixed", line, 0.9, 1.5)),
            Cast(12.0, pull=STILL, hold_s=150.0),
            FINE,
        )
        for line in ("tight", "slack")
    }
    ratio = hung_after_s(hung["slack"]) / hung_after_s(hung["tight"])
    drift = simulate_float(
        Rig(floating, level(0.9, 4.0), (plain(4.9),), Float("fixed", "tight", 0.9, 1.5)),
        Cast(12.0, pull=STILL, drift_m_s=0.1, hold_s=150.0),
        FINE,
    )
    return [
        ("a slack line lets a float rig hang in half the time", "½", f"{ratio:.2f}", "agrees for a weighted fly"),
        (
            "a float rig hangs at its set depth",
            "4.0 m",
            f"{drift.point.depth_m[-1]:.1f} m for a plain fly drifting at 10 cm/s",
            "the water lifts what the fly's weight cannot hold down",
        ),
    ]


def thumbs() -> str:
    """Return docs/rules-of-thumb.md."""
    lines = ["| rule of thumb | it says | the thread says | why |", "|---|---|---|---|"]
    lines += ["| " + " | ".join(row) + " |" for row in rows() + float_rows()]
    table = "\n".join(lines)
    return f"""# Rules of thumb and the thread

Written by `./still bench study`. Where the two disagree the model may still be the one that is wrong: its doubt is in
[thread-accuracy.md](thread-accuracy.md), and an untimed line alone is worth ±30 % of its rate.

{table}

Where the trade itself had to be decided: [judgement.md](judgement.md). Figures in the model that are ours, not published: areas of water a dressing stirs, hook wire and bead holes (`core/tackle/fly_build.py`), density of a
floating line, heaviest coat, profiles (`core/tackle/lines.py`, `core/thread/line_weight.py`), friction of a sliding float, friction on the bed.
"""


def main() -> None:
    """Write both pages."""
    for name, text in (("thread-accuracy.md", accuracy()), ("rules-of-thumb.md", thumbs())):
        (ROOT / "docs" / name).write_text(text, "utf-8")
        sys.stdout.write(f"docs/{name} written\n")


if __name__ == "__main__":
    main()
