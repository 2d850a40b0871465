"""Which fly goes where on the leader: the attractor at its place by school, the best match at the other end."""

from __future__ import annotations

from stillthread.core.flies.choose import ATTRACTORS, Match, hook_size
from stillthread.core.flies.placed import PlacedFly

POSITIONS = {1: ("point",), 2: ("dropper", "point"), 3: ("top dropper", "middle dropper", "point")}
# An attractor or a weighted point worth less than this share of the best fly is no help. Our figure.
LEAST_WORTH = 0.25


def _spread_out(ranked: list[Match], count: int) -> list[Match]:
    """The best match, then flies of another tone or prey where there are some, so that a team asks more than one thing."""
    picked = ranked[: min(count, 1)]
    rest = ranked[1:]
    while rest and len(picked) < count:
        seen = {(m.fly.tone, m.prey.key) for m in picked}
        other = [m for m in rest if (m.fly.tone, m.prey.key) not in seen and m.score >= 0.5 * rest[0].score]
        best = (other or rest)[0]
        picked.append(best)
        rest.remove(best)
    return picked


def is_bright(match: Match) -> bool:
    """Whether a match is an attractor: a bright or pale fly."""
    return match.fly.tone in ATTRACTORS


def _both_tones(picked: list[Match], pool: list[Match], point: Match | None, best: float) -> list[Match]:
    """The picks with one attractor and one plain fly among the team, where the box has one worth a quarter of the best."""
    have = [is_bright(m) for m in [*picked, *([point] if point else [])]]
    for wanted in (True, False):
        if wanted in have or not picked:
            continue
        other = next((m for m in pool if is_bright(m) is wanted and m not in picked), None)
        if other is not None and other.score >= LEAST_WORTH * best:
            picked = [*picked[:-1], other]
    return picked


def point_for(ranked: list[Match], attractor_at: str | None) -> Match:
    """Return the fly for the point: the best, but a plain one where the attractor goes on top and one is worth it."""
    plain = next((m for m in ranked if not is_bright(m)), None)
    if attractor_at == "top" and plain is not None and plain.score >= LEAST_WORTH * ranked[0].score:
        return plain
    return ranked[0]


def order_team(ranked: list[Match], count: int, attractor_at: str | None, point: Match | None = None) -> list[Match]:
    """Return up to `count` matches, top dropper first and point last.

    Without an attractor the best match fishes the point. With `attractor_at` 'top' or 'point' a bright or pale fly goes
    there and a plain one at the other end, if they are worth a quarter of the best. A `point` given (a weighted or
    buoyant fly) stays on the point. Trade practice: large attractor above, small natural below.
    """
    if not ranked:
        return [point] if point else []
    pool = [m for m in ranked if point is None or m.fly.key != point.fly.key]
    picked = _spread_out(pool, count - (point is not None))
    if attractor_at and count > 1:
        picked = _both_tones(picked, pool, point, ranked[0].score)
    ordered = list(reversed(picked)) + ([point] if point else [])
    found = next((m for m in ordered if is_bright(m) and m is not point), None)
    if attractor_at and len(ordered) > 1 and found is not None and not all(is_bright(m) for m in ordered):
        ordered.remove(found)
        ordered.insert(0 if attractor_at == "top" or point is not None else len(ordered), found)
        if attractor_at == "top" and point is None:  # and a plain fly on the point
            last = max(i for i, m in enumerate(ordered) if not is_bright(m))
            ordered.append(ordered.pop(last))
    return ordered


def _why(match: Match, place: int, team: list[Match], attractor_at: str | None) -> str:
    count = len(team)
    fits = match.score >= LEAST_WORTH * max(m.score for m in team)
    stands = f"Stands for {match.prey.name.lower()}: {match.prey.about}."
    words = [stands if fits else "It is on for its work, not for the food here.", *match.why]
    if attractor_at and count > 1 and match.fly.tone in ATTRACTORS:
        top = "On top to draw them: a follower that refuses it turns down to the next."
        words.append(top if place == 0 else "On the point to draw them.")
    elif place == count - 1 and match.fly.weight == "weighted":
        words.append("The weight goes on the point.")
    elif place == count - 1 and match.fly.buoyant and not match.fly.surface:
        words.append("Buoyant, it holds its end of the leader up.")
    return " ".join(words)


def place_flies(
    team: list[Match],
    at_m: tuple[float, ...],
    depths_m: tuple[float | None, ...],
    wary: bool,
    attractor_at: str | None = None,
) -> tuple[PlacedFly, ...]:
    """Return a team at its positions with hook size and why each is there; top dropper first.

    `at_m` are distances from the line [m] and `depths_m` depths [m].
    """
    count = len(team)
    return tuple(
        PlacedFly(
            fly=m.fly,
            position=POSITIONS[count][i],
            hook=hook_size(m, wary),
            from_line_m=at_m[i],
            depth_m=depths_m[i],
            why=_why(m, i, team, attractor_at),
        )
        for i, m in enumerate(team)
    )
