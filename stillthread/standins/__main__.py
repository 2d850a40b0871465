"""Start a stand-in: `python -m stillthread.standins sounder|weather|both`."""

from __future__ import annotations

import argparse
import contextlib
import subprocess
import sys

from stillthread.standins import sounder, weather
from stillthread.standins.boat import NO_FAULTS, Boat, Faults, now

SOUNDER_PORT = 10110
WEATHER_PORT = 8471


def _arguments(arguments: list[str] | None) -> argparse.Namespace:
    parser = argparse.ArgumentParser(prog="still standins", description="Simulated boat feed and weather service.")
    parser.add_argument("which", choices=("sounder", "weather", "both"), nargs="?", default="both")
    parser.add_argument("--host", default="127.0.0.1")
    parser.add_argument("--sounder-port", type=int, default=SOUNDER_PORT, help="0 takes any free port")
    parser.add_argument("--weather-port", type=int, default=WEATHER_PORT, help="0 takes any free port")
    parser.add_argument("--seed", type=int, default=1)
    parser.add_argument("--speed", type=float, default=1.0, help="run the boat's clock faster")
    parser.add_argument("--steady", action="store_true", help="no drop-outs, noise or garbage")
    parser.add_argument("--cut-after", type=float, help="cut each boat feed in mid-sentence after so many seconds")
    parser.add_argument("--weather-fault", choices=("busy", "cut"), help="answer 503, or break off half-way")
    return parser.parse_args(arguments)


def _both(arguments: list[str]) -> int:
    """Each stand-in in a process of its own; when one ends or Ctrl-C comes, both end."""
    rest = [a for a in arguments if a != "both"]
    children = []
    for kind in ("weather", "sounder"):
        command = [sys.executable, "-m", "stillthread.standins", kind, *rest]
        hand = None if kind == "sounder" else subprocess.DEVNULL  # what is typed goes to the boat
        children.append(subprocess.Popen(command, stdin=hand))  # noqa: S603
    sys.stdout.write("Type a depth in metres to lower the boat's thermometer; Ctrl-C stops both.\n")
    sys.stdout.flush()
    try:
        while all(child.poll() is None for child in children):
            with contextlib.suppress(subprocess.TimeoutExpired):
                children[0].wait(0.5)
    except KeyboardInterrupt:
        pass
    finally:
        for child in children:
            child.terminate()
    return max((child.wait() or 0 for child in children), default=0)


def main(arguments: list[str] | None = None) -> int:
    """Run until stopped; returns the exit status."""
    asked = _arguments(arguments)
    try:
        if asked.which == "sounder":
            boat = Boat(now(), asked.seed, faults=NO_FAULTS if asked.steady else Faults())
            sounder.serve((asked.host, asked.sounder_port), boat, asked.speed, asked.cut_after)
        elif asked.which == "weather":
            weather.serve((asked.host, asked.weather_port), asked.seed, asked.weather_fault)
        else:
            return _both(sys.argv[1:] if arguments is None else arguments)
    except KeyboardInterrupt:
        return 0
    except OSError as error:
        sys.stderr.write(f"still standins: {error.strerror or error}. Is it running already?\n")
        return 1
    return 0


if __name__ == "__main__":
    sys.exit(main())
