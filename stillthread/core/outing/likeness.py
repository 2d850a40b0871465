"""How surely fish take the flies of the box for the foods of the day, and how well they show: what the search makes of a team."""

from __future__ import annotations

from collections.abc import Set

from stillthread.core.belief.factors import rising
from stillthread.core.day.context import Context
from stillthread.core.flies.choose import searches, tone_weight
from stillthread.core.tackle.flies import Fly

# Of a fly that may be several of the day's foods, and of one that is not the fly that has taken for a food. Common practice,
# figures ours.
ONE_OF_SEVERAL, NOT_THE_ONE = 0.75, 0.85
RISEN_TO = {"some": 0.6, "many": 0.75}  # of a fly in the film for whatever it is that so many fish rise to


class Likeness:
    """Likeness of each fly of the box to each food of the day, and how well it shows against the best of the box, 0 to 1."""

    def __init__(self, context: Context, foods: Set[str], proven: Set[str] = frozenset()) -> None:
        """Reckon it out for the `foods` of the day; `proven` are flies that have taken today, by name.

        A fly for one of the foods is that one; one that may be several is each of them less surely, and so is any other for
        the food of a fly that has proved itself. What one searches with where no food leads passes for any, and so does a fly
        in the film among fish that rise. Common practice, figures ours.
        """
        day, box = context.fly_day, context.given.flies
        self._foods = {fly.name: tuple(food for food in fly.prey if food in foods) for fly in box}
        self._taken = {food for fly in proven for food in self._foods.get(fly, ())}
        self._proven = proven
        self._tones = {fly.name: tone_weight(fly, day) for fly in box}
        self._best = max((self._tones[name] for name, mine in self._foods.items() if mine), default=1.0)
        self._of = {fly.name: self._each(fly) for fly in box}
        risen = RISEN_TO.get(rising(context.given.sightings) or "few", 0.0)
        for fly in box:
            least = max(risen if fly.surface else 0.0, ONE_OF_SEVERAL if searches(fly, context.food, day) else 0.0)
            if least > 0:
                self._of[fly.name] = {food: max(self._of[fly.name].get(food, 0.0), least) for food in foods}

    def _each(self, fly: Fly) -> dict[str, float]:
        mine = self._foods[fly.name]
        if fly.name in self._proven:
            return dict.fromkeys(mine, 1.0)
        several = 1.0 if len(mine) == 1 else ONE_OF_SEVERAL
        return {food: several * (NOT_THE_ONE if food in self._taken else 1.0) for food in mine}

    def shows(self, flies: tuple[str, ...]) -> float:
        """Return how well a team shows in the day's light and water, by the tone of the fly that does it best, up to 1; what has
        proved itself does.
        """
        known = [self._best if fly in self._proven else self._tones[fly] for fly in flies if fly in self._tones]
        return min(1.0, max(known) / self._best) if known else 1.0

    def of(self, flies: tuple[str, ...]) -> dict[str, float]:
        """Return which of the day's foods a team of flies stands for, by name, and how surely; empty where for none."""
        found: dict[str, float] = {}
        for fly in flies:
            for food, sure in self._of.get(fly, {}).items():
                found[food] = max(found.get(food, 0.0), sure)
        return dict(sorted(found.items()))
