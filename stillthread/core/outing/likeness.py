"""How surely fish take the flies of the box for the foods of the day, and how well they show: what the search makes of a team."""

from __future__ import annotations

from collections.abc import Set

from stillthread.core.belief.factors import rising
from stillthread.core.day.context import Context
from stillthread.core.flies.choose import searches, tone_weight
from stillthread.core.tackle.flies import Fly

# Of a fly that may be several of the day's foods, of one that is not the fly that has taken for a food, and of one on a dropper.
# Common practice, figures ours.
ONE_OF_SEVERAL, NOT_THE_ONE, ON_A_DROPPER = 0.75, 0.85, 0.85
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
        self._proven, self._share = proven, context.food.share
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
        """Return how well a team shows in the day's light and water, up to 1: for each food by the tone of the fly that does it
        best, as much as that food is eaten. What has proved itself shows.
        """
        best: dict[str, tuple[float, float]] = {}
        for fly, mine in zip(flies, self._each_on(flies), strict=True):
            for food, sure in mine.items():
                best[food] = max(best.get(food, (0.0, 0.0)), (sure * self._tone(fly), sure))
        if not best:
            known = [self._tone(fly) for fly in flies if fly in self._tones]
            return min(1.0, max(known)) if known else 1.0
        seen, eaten = (sum(self._share[food] * told[n] for food, told in best.items()) for n in (0, 1))
        return min(1.0, seen / eaten) if eaten > 0 else 1.0

    def of(self, flies: tuple[str, ...]) -> dict[str, float]:
        """Return which of the day's foods a team of flies stands for, by name, and how surely; empty where for none.

        What is on a dropper is a little less sure than on the point, whose depth is the team's, unless it has proved itself.
        """
        found: dict[str, float] = {}
        for mine in self._each_on(flies):
            for food, sure in mine.items():
                found[food] = max(found.get(food, 0.0), sure)
        return dict(sorted(found.items()))

    def _tone(self, fly: str) -> float:
        return 1.0 if fly in self._proven else self._tones.get(fly, 0.0) / self._best

    def _each_on(self, flies: tuple[str, ...]) -> list[dict[str, float]]:
        """What each fly of a team stands for, those above the point less surely."""
        last = len(flies) - 1
        less = [1.0 if n == last or fly in self._proven else ON_A_DROPPER for n, fly in enumerate(flies)]
        return [
            {food: part * sure for food, sure in self._of.get(fly, {}).items()}
            for part, fly in zip(less, flies, strict=True)
        ]
