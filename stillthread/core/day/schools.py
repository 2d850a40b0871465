"""Where anglers disagree: each question with its schools, the stated default, and what the answer moves in a plan."""

from __future__ import annotations

from dataclasses import dataclass, fields

AIMS = {
    "most": "Most fish: by the expected rate alone.",
    "biggest": "The biggest: large natural flies and a stouter leader count more, small bright ones less.",
    "match": "Learning for a match: the ways you have fished least come first, if they are worth half the best.",
}


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


QUESTIONS = (
    Question(
        "search",
        "Which way to search the depths",
        (
            ("likeliest", "Likeliest first, then wider"),
            ("top-down", "From the top down"),
            ("bottom-up", "From the bottom up"),
        ),
        "start at the most likely depth, then widen both ways",
    ),
    Question(
        "change_first",
        "What to change first",
        (("by-takes", "Depth, unless there are plucks"), ("depth", "Always depth"), ("fly", "The fly")),
        "depth first, unless there are plucks",
    ),
    Question(
        "moving",
        "Moving or static",
        (("both", "Both, with their rates"), ("static", "Static only"), ("active", "Moving only")),
        "both are shown with their expected rate",
    ),
    Question(
        "flies_on",
        "One fly or a team",
        (("searching", "A team while searching"), ("single", "One fly"), ("team", "A team")),
        "a team while searching if the rules allow, one fly once the depth is known",
    ),
    Question(
        "tone",
        "Bright or natural",
        (
            ("by-water", "By season, stocking and clarity"),
            ("bright", "Attractors first"),
            ("natural", "Match the food always"),
        ),
        "by season, stocking and clarity",
    ),
    Question(
        "attractor_at",
        "Where the attractor goes",
        (("top", "Top dropper"), ("point", "Point")),
        "the top dropper while searching",
    ),
    Question(
        "tippet",
        "Fine or stout tippet",
        (("by-water", "By clarity, light and pressure"), ("fine", "Fine and long"), ("stout", "Stout")),
        "by clarity, light and pressure",
    ),
    Question(
        "very_cold",
        "Below 4 °C",
        (("both", "Both, as two starts"), ("small", "Static and small"), ("flashy", "Big, flashy and moving")),
        "both, as complementary starts",
    ),
    Question(
        "bottom_fish",
        "Fish lying on the bottom",
        (
            ("by-food", "By the food and the temperature"),
            ("ignore", "Resting: leave them"),
            ("crawl", "Crawl a fly there"),
        ),
        "by the food and the temperature",
    ),
    Question(
        "sliding_float",
        "A sliding float for flies",
        (
            ("by-weight", "When enough weight hangs below"),
            ("never", "Never: quick-release"),
            ("always", "Whenever it slides at all"),
        ),
        "when the weight below pulls the leader through",
    ),
    Question(
        "line_ladder",
        "Which line next",
        (
            ("by-light", "By light and temperature"),
            ("tip-first", "Slow tip, then deeper lines"),
            ("dries-at-dawn", "Dries first at dawn"),
            ("deep-first", "Deep first"),
        ),
        "by light and temperature",
    ),
    Question(
        "wind_shore",
        "Where to stand in the wind",
        (("by-water", "By food and temperature"), ("onto", "The shore it blows onto"), ("off", "The sheltered shore")),
        "by food and temperature",
    ),
    Question(
        "boat",
        "Drift or anchor",
        (("by-method", "Drift to search, anchor for a float"), ("drift", "Drift"), ("anchor", "Anchor")),
        "drift to search, anchor for a float",
    ),
)
BY_KEY = {question.key: question for question in QUESTIONS}


@dataclass(frozen=True)
class Schools:
    """An angler's answer to every question; what is not answered is the default."""

    search: str = "likeliest"
    change_first: str = "by-takes"
    moving: str = "both"
    flies_on: str = "searching"
    tone: str = "by-water"
    attractor_at: str = "top"
    tippet: str = "by-water"
    very_cold: str = "both"
    bottom_fish: str = "by-food"
    sliding_float: str = "by-weight"
    line_ladder: str = "by-light"
    wind_shore: str = "by-water"
    boat: str = "by-method"

    def __post_init__(self) -> None:
        """Refuse an answer no school gives. Raises ValueError."""
        for one in fields(self):
            if getattr(self, one.name) not in BY_KEY[one.name].keys:
                raise ValueError(f"{one.name}: no such school as '{getattr(self, one.name)}'")
