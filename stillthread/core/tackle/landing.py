"""What can be landed below a fixed float."""

from __future__ import annotations

# Arm held out over the net handle [m]; common practice.
ARM_REACH_M = 0.6


def landing_limit_m(rod_length_m: float, net_reach_m: float, arm_reach_m: float = ARM_REACH_M) -> float:
    """Return the longest length [m] a fixed float can have below it: rod + arm + net.

    The float jams at the tip ring, so the fish hangs that far from the tip; the rod is held back behind the angler.
    Trade facts: with a 9 ft rod 20 ft cannot be landed, 14 ft only just and with a long net. Raises ValueError for
    a negative length.
    """
    if min(rod_length_m, net_reach_m, arm_reach_m) < 0:
        raise ValueError("lengths must not be negative")
    return rod_length_m + arm_reach_m + net_reach_m
