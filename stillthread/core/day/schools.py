"""Where anglers disagree: each question with its schools, the stated default, and what the answer moves in a plan."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, fields
from typing import Annotated, Any, Literal, get_args, get_type_hints

AIMS = {
    "most": "Most fish: by the expected rate alone.",
    "biggest": "The biggest: large natural flies and a stouter leader count more, small bright ones less.",
    "match": "Learning for a match: the ways you have fished least come first, if they are worth half the best.",
}


@dataclass(frozen=True)
class Asked:
    """A question that a field answers: its words, those of the answers in their order, and what the default does."""

    words: str
    answers: tuple[str, ...]
    default_words: str

    def __get_pydantic_json_schema__(self, schema: Any, handler: Callable[[Any], dict[str, Any]]) -> dict[str, Any]:
        """Add the question and its default to the schema of the answer."""
        return {**handler(schema), "description": f"{self.words}; default: {self.default_words}"}


@dataclass(frozen=True)
class Schools:
    """An angler's answer to every question, each with its question; what is not answered is the default, which stands first."""

    search: Annotated[
        Literal["likeliest", "top-down", "bottom-up"],
        Asked(
            "Which way to search the depths",
            ("Likeliest first, then wider", "From the top down", "From the bottom up"),
            "start at the most likely depth, then widen both ways",
        ),
    ] = "likeliest"
    change_first: Annotated[
        Literal["by-takes", "depth", "fly"],
        Asked(
            "What to change first",
            ("Depth, unless there are plucks", "Always depth", "The fly"),
            "depth first, unless there are plucks",
        ),
    ] = "by-takes"
    moving: Annotated[
        Literal["both", "static", "active"],
        Asked(
            "Moving or static",
            ("Both, with their rates", "Static only", "Moving only"),
            "both are shown with their expected rate",
        ),
    ] = "both"
    flies_on: Annotated[
        Literal["searching", "single", "team"],
        Asked(
            "One fly or a team",
            ("A team while searching", "One fly", "A team"),
            "a team while searching if the rules allow, one fly once the depth is known",
        ),
    ] = "searching"
    tone: Annotated[
        Literal["by-water", "bright", "natural"],
        Asked(
            "Bright or natural",
            ("By season, stocking and clarity", "Attractors first", "Match the food always"),
            "by season, stocking and clarity",
        ),
    ] = "by-water"
    attractor_at: Annotated[
        Literal["top", "point"],
        Asked("Where the attractor goes", ("Top dropper", "Point"), "the top dropper while searching"),
    ] = "top"
    tippet: Annotated[
        Literal["by-water", "fine", "stout"],
        Asked(
            "Fine or stout tippet",
            ("By clarity, light and pressure", "Fine and long", "Stout"),
            "by clarity, light and pressure",
        ),
    ] = "by-water"
    very_cold: Annotated[
        Literal["both", "small", "flashy"],
        Asked(
            "Below 4 °C",
            ("Both, as two starts", "Static and small", "Big, flashy and moving"),
            "both, as complementary starts",
        ),
    ] = "both"
    bottom_fish: Annotated[
        Literal["by-food", "ignore", "crawl"],
        Asked(
            "Fish lying on the bottom",
            ("By the food and the temperature", "Resting: leave them", "Crawl a fly there"),
            "by the food and the temperature",
        ),
    ] = "by-food"
    sliding_float: Annotated[
        Literal["by-weight", "never", "always"],
        Asked(
            "A sliding float for flies",
            ("When enough weight hangs below", "Never: quick-release", "Whenever it slides at all"),
            "when the weight below pulls the leader through",
        ),
    ] = "by-weight"
    line_ladder: Annotated[
        Literal["by-light", "tip-first", "dries-at-dawn", "deep-first"],
        Asked(
            "Which line next",
            ("By light and temperature", "Slow tip, then deeper lines", "Dries first at dawn", "Deep first"),
            "by light and temperature",
        ),
    ] = "by-light"
    wind_shore: Annotated[
        Literal["by-water", "onto", "off"],
        Asked(
            "Where to stand in the wind",
            ("By food and temperature", "The shore it blows onto", "The sheltered shore"),
            "by food and temperature",
        ),
    ] = "by-water"
    boat: Annotated[
        Literal["by-method", "drift", "anchor"],
        Asked(
            "Drift or anchor",
            ("Drift to search, anchor for a float", "Drift", "Anchor"),
            "drift to search, anchor for a float",
        ),
    ] = "by-method"

    def __post_init__(self) -> None:
        """Refuse an answer no school gives. Raises ValueError."""
        for one in fields(self):
            if getattr(self, one.name) not in BY_KEY[one.name].keys:
                raise ValueError(f"{one.name}: no such school as '{getattr(self, one.name)}'")


@dataclass(frozen=True)
class Question:
    """A question anglers answer differently: its words, the answers by key with their words, and what the default does."""

    key: str
    words: str
    answers: tuple[tuple[str, str], ...]
    default_words: str

    @property
    def keys(self) -> tuple[str, ...]:
        """The answers' keys, the default first."""
        return tuple(key for key, _ in self.answers)


def _question(key: str, hint: Any) -> Question:
    answers, asked = get_args(hint)
    pairs = tuple(zip(get_args(answers), asked.answers, strict=True))
    return Question(key, asked.words, pairs, asked.default_words)


QUESTIONS = tuple(_question(key, hint) for key, hint in get_type_hints(Schools, include_extras=True).items())
BY_KEY = {question.key: question for question in QUESTIONS}
