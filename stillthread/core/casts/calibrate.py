"""Calibration: one timed measurement narrows the doubt of a line or a fly; a cocked float or a felt bottom checks the whole.

A line's rate is never fitted to the depth of a whole rig: the leader, the fly and the angle are in that depth too.
"""

from __future__ import annotations

from dataclasses import dataclass, replace

from stillthread.core.casts.band import Doubt
from stillthread.core.casts.tables import count_table
from stillthread.core.casts.track import CastResult
from stillthread.core.errors import InputError, Problem
from stillthread.core.tackle.lines import Line

STOPWATCH_S = 0.3  # a thumb on a button, twice: common practice
CORD_M = 0.03  # where the line passed the mark
MODEL_SHARE = 0.05  # what stays unknown after a good timing: taper, coil, water
LEAST_DISTANCE_M = 0.2
SLOWEST_M_S, FASTEST_M_S = 0.003, 0.5


@dataclass(frozen=True)
class Timing:
    """A timed fall: distance [m], seconds, speed [m/s] and the half width of its doubt as a share."""

    distance_m: float
    seconds: float
    speed_m_s: float
    doubt: float


@dataclass(frozen=True)
class CheckOutcome:
    """A check of the whole rig: what was expected, soonest and latest [s], what was seen [s], and what it says."""

    expected_s: float | None
    soonest_s: float | None
    latest_s: float | None
    seen_s: float
    agrees: bool
    sentence: str


def timed_fall(distance_m: float, took_s: float, repeats: int = 1) -> Timing:
    """Return the speed of a timed fall and its doubt: stopwatch and mark, less with repeats, never below 5 %.

    Half width of an even spread; errors of timing and distance add by squares. Common practice. Raises InputError for
    a distance below 0.2 m, a time that is not positive, or a speed no line or fly sinks at.
    """
    found = []
    if not distance_m >= LEAST_DISTANCE_M:
        found.append(Problem("out_of_range", "distance_m", "Too short to time.", f"at least {LEAST_DISTANCE_M:g} m"))
    if not took_s > 0:
        found.append(Problem("out_of_range", "seconds", "The time must be positive.", "more than 0 s"))
    if not found and not SLOWEST_M_S <= distance_m / took_s <= FASTEST_M_S:
        said = f"{distance_m / took_s:.3f} m/s is not a rate anything on a fly line sinks at."
        found.append(Problem("out_of_range", "seconds", said, "0.003 to 0.5 m/s"))
    if found:
        raise InputError(found)
    timing = (STOPWATCH_S / took_s) ** 2 + (CORD_M / distance_m) ** 2
    share = (timing / max(repeats, 1) + MODEL_SHARE**2) ** 0.5
    return Timing(distance_m, took_s, distance_m / took_s, min(share, 0.30))


def calibrated(line: Line, timing: Timing) -> Line:
    """Return the line with its rate as measured. Raises InputError for a floating line, which has none."""
    if line.family == "floating":
        raise InputError(Problem("contradiction", "family", "A floating line does not sink.", "a line that sinks"))
    return replace(line, measured_m_s=timing.speed_m_s)


def doubt_after(line_timing: Timing | None = None, fly_timing: Timing | None = None) -> Doubt:
    """Return the doubt left after a timed line, a timed fly, both or none; a fly's weight goes by its speed squared."""
    base = Doubt()
    return Doubt(
        line_timing.doubt if line_timing else base.rate,
        min(2 * fly_timing.doubt, base.fly_weight) if fly_timing else base.fly_weight,
        base.drag,
    )


def doubt_of(line: Line) -> Doubt:
    """Return the doubt of a line as it stands: a timed one (10 s over a metre, say) or the label alone."""
    return Doubt(rate=0.08) if line.measured_m_s is not None else Doubt()


def _crossing(result: CastResult, depth_m: float) -> tuple[float | None, float | None, float | None]:
    row = count_table(result, [depth_m])[0]
    return row.count_s, row.soonest_s, row.latest_s


def check_bottom(result: CastResult, depth_m: float, felt_after_s: float) -> CheckOutcome:
    """Return whether a bottom felt `felt_after_s` [s] after landing in `depth_m` [m] of water agrees with a sink run."""
    return judge(*_crossing(result, depth_m), felt_after_s, f"the fly at {depth_m:.1f} m")


def judge(
    expected_s: float | None, soonest_s: float | None, latest_s: float | None, seen_s: float, what: str
) -> CheckOutcome:
    """Return what a moment seen [s] says against the moment expected and its band: agrees, sooner, or later."""
    if expected_s is None:
        sentence = f"We do not expect {what} at all: check the rig that was entered."
        return CheckOutcome(
            expected_s=expected_s,
            soonest_s=soonest_s,
            latest_s=latest_s,
            seen_s=seen_s,
            agrees=False,
            sentence=sentence,
        )
    low = expected_s if soonest_s is None else soonest_s
    if low - 1 <= seen_s and (latest_s is None or seen_s <= latest_s + 1):
        sentence = f"Agrees: we expected {what} after about {expected_s:.0f} s."
        return CheckOutcome(
            expected_s=expected_s, soonest_s=soonest_s, latest_s=latest_s, seen_s=seen_s, agrees=True, sentence=sentence
        )
    word, cause = (
        ("sooner", "a faster line, a heavier fly") if seen_s < low else ("later", "a slower line, a lighter fly")
    )
    sentence = f"{word.capitalize()} than we expected ({expected_s:.0f} s): {cause}, or other lengths. Time a metre of the line."
    return CheckOutcome(
        expected_s=expected_s, soonest_s=soonest_s, latest_s=latest_s, seen_s=seen_s, agrees=False, sentence=sentence
    )
