"""What came of a cast: the path of every fly, how long it was at each depth, and where it touched."""

from __future__ import annotations

from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

Array = NDArray[np.float64]

CELL_M = 0.1
FILM_ZONE_M = 0.12  # the trade's film zone: the top 10 to 12 cm
TOUCH_M = 0.01
MOST_SHAPES = 80


TRACK_ARRAYS = ("t_s", "x_m", "depth_m", "p10_m", "p90_m")  # of a FlyTrack


@dataclass(frozen=True)
class FlyTrack:
    """The path of one fly: times [s], x [m] and depth [m], and the 10 to 90 % band of its depth [m]."""

    name: str
    t_s: Array
    x_m: Array
    depth_m: Array
    p10_m: Array
    p90_m: Array

    def at(self, t_s: float) -> float:
        """Return the depth [m] at a time [s]; the last one after the end."""
        return float(np.interp(t_s, self.t_s, self.depth_m))

    def band_at(self, t_s: float) -> tuple[float, float]:
        """Return the 10 % and 90 % depths [m] at a time [s]."""
        return float(np.interp(t_s, self.t_s, self.p10_m)), float(np.interp(t_s, self.t_s, self.p90_m))

    def between(self, start_s: float, end_s: float) -> tuple[float, float]:
        """Return the shallowest and deepest depth [m] between two times [s]."""
        inside = self.depth_m[(self.t_s >= start_s - 1e-9) & (self.t_s <= end_s + 1e-9)]
        ends = [self.at(start_s), self.at(end_s)]
        both = np.concatenate([inside, ends])
        return float(both.min()), float(both.max())

    def exposure(self, start_s: float = 0.0, end_s: float = np.inf) -> tuple[Array, Array]:
        """Return the middles of 0.1 m cells [m] and the seconds spent in each between two times; they add up to the time.

        Each record interval is spread evenly over the depths it crosses.
        """
        t, z = self.t_s, np.maximum(self.depth_m, 0.0)
        fine = np.linspace(0, 1, 5)[:-1] + 0.125
        keep = (t[:-1] >= start_s - 1e-9) & (t[1:] <= end_s + 1e-9)
        span = np.diff(t)[keep]
        depth = (z[:-1][keep, None] + np.diff(z)[keep, None] * fine).ravel()
        cells = np.floor(depth / CELL_M + 1e-9).astype(int)
        seconds = np.bincount(cells, weights=np.repeat(span / len(fine), len(fine)), minlength=1)
        middles: Array = (np.arange(len(seconds), dtype=np.float64) + 0.5) * CELL_M
        return middles, np.asarray(seconds, dtype=np.float64)

    def time_in(self, top_m: float, bottom_m: float) -> float:
        """Return the seconds spent between two depths [m], record intervals cut where they cross."""
        fine_t = np.linspace(self.t_s[0], self.t_s[-1], 8 * len(self.t_s))
        z = np.interp(fine_t, self.t_s, self.depth_m)
        return float(np.mean((z >= top_m) & (z <= bottom_m)) * (self.t_s[-1] - self.t_s[0]))


@dataclass(frozen=True)
class Touch:
    """Where and when a fly first touched the bed: time [s], x [m], depth [m], which fly."""

    t_s: float
    x_m: float
    depth_m: float
    fly: str


@dataclass(frozen=True)
class LineShape:
    """The whole chain at one moment [s]: x and depth [m] from rod tip to point."""

    t_s: float
    points: tuple[tuple[float, float], ...]


@dataclass(frozen=True)
class CastResult:
    """Everything a run gave: fly tracks, first touch, the chain through time, when count and fishing end [s], notes."""

    flies: tuple[FlyTrack, ...]
    bottom: Touch | None
    places: Array  # positions of the whole chain through time [m], shape (times, nodes, 2), rod tip first
    places_t_s: Array  # its times [s]
    countdown_s: float
    fished_to_s: float
    end_s: float
    film_retrieve_m: tuple[float, ...]
    line_end_m: Array  # depth of the line's front end through time [m], on the tracks' times
    float_pull_g: Array | None  # vertical pull on the float through time [g]
    notes: tuple[str, ...]

    def kept(self, chain: bool = False) -> CastResult:
        """Return the path as a shelf keeps it, in single precision: what is computed and what is remembered are then one
        and the same. Of the chain no moment is kept, or with `chain` those that are shown.
        """

        def cut(values: Array) -> Array:
            return values.astype(np.float32).astype(np.float64)

        flies = tuple(FlyTrack(f.name, *(cut(getattr(f, name)) for name in TRACK_ARRAYS)) for f in self.flies)
        pull = None if self.float_pull_g is None else cut(self.float_pull_g)
        at = self._shown() if chain else slice(0)
        places, moments = cut(self.places[at]), cut(self.places_t_s[at])
        return replace(
            self,
            flies=flies,
            line_end_m=cut(self.line_end_m),
            float_pull_g=pull,
            places=places if chain else np.zeros((0, 0, 2)),
            places_t_s=moments,
        )

    def _shown(self) -> NDArray[np.intp]:
        moments = len(self.places_t_s)
        return np.unique(np.linspace(0, moments - 1, min(MOST_SHAPES, moments)).astype(np.intp))

    def shapes(self) -> tuple[LineShape, ...]:
        """Return the whole chain at moments evenly spread, at most 80."""
        shapes = []
        for k in self._shown():
            points = tuple((round(float(x), 3), round(float(max(z, 0.0)), 3)) for x, z in self.places[k])
            shapes.append(LineShape(float(self.places_t_s[k]), points))
        return tuple(shapes)

    @property
    def point(self) -> FlyTrack:
        """The last fly on the leader."""
        return self.flies[-1]
