"""A dry fly or an emerger in the film."""

from __future__ import annotations

from dataclasses import replace

from stillthread.core.belief.factors import rising
from stillthread.core.belief.light_factor import cruisers_up
from stillthread.core.day.context import Context
from stillthread.core.day.model import Reason, RuledOut, Trace
from stillthread.core.flies.choose import Match
from stillthread.core.flies.team import place_flies
from stillthread.core.food.catalogue import BY_KEY
from stillthread.core.setup.model import SetUp
from stillthread.core.setup.retrieves import RETRIEVES
from stillthread.core.setup.worth import appeal, worth
from stillthread.core.tackle.leaders import casting_leader, team_leader
from stillthread.core.tackle.lines import Line
from stillthread.core.units import feet_to_m

RISING_SHARE, BLIND_SHARE = 0.85, 0.5
FRY_SHARE = 1.2  # fish that push water after fry wheel and come again: a still fry waits where they do. Figure ours
# Wind [m/s] in which no dry fly is fished; the film [m]; the share of the chance and of the food that make it worth a fly.
GALE_M_S, FILM_M, FAIR_FILM, FAIR_FOOD = 10.0, 0.3, 0.15, 0.2
FREEZING_C = 1.0  # snow and hail are about
AHEAD = "Place it 2 m ahead of a cruiser, or on the beat of one that patrols, and leave it still"
SIP = "A sip, a swirl, the fly gone. Lift gently."
AFTER_SWIRL = "After a swirl pull the fly under with one long draw: it is taken as it sinks, or as it comes up again."
WINGED = ("chironomid-adult", "damsel-adult", "mayfly", "caddis", "terrestrial")


def dry(context: Context, for_want: bool = False) -> SetUp | RuledOut:
    """Return a dry fly or emerger in the film on a floating line, or why not; `for_want` where nothing else can be fished,
    which a gale or freezing air still forbids.
    """
    lines = context.lines_of("floating")
    ranked = context.flies_for(0.0, ("buoyant", "unweighted"), surface=True)
    if not lines or not ranked:
        return RuledOut(
            "Dry fly", "kit", "No floating line in your kit." if not lines else "No dry fly or emerger in your box."
        )
    if not context.allows("static"):
        return RuledOut("Dry fly", "kit", "You fish moving flies only.")
    seen, said = for_the_film(context)
    reading = context.given.reading
    hard = (reading.wind_m_s or 0.0) >= GALE_M_S or (reading.air_temperature_c or 20.0) <= FREEZING_C
    if not seen and (hard or not for_want):
        return RuledOut("Dry fly", "depth", said)
    if not seen:
        said = "Nothing else can be fished here with your kit and rules."
    made = dry_set_up(context, lines[0], ranked[:1])
    return replace(made, reasons=(*made.reasons, Reason("rises", said)))


def for_the_film(context: Context) -> tuple[bool, str]:
    """Return whether anything speaks for a fly in the film, and what does or what is missing, in words.

    Rises (a few are noise), a hatch that is seen, or a fair share of the chance in the film with food there; never in a
    gale. Common practice, figures ours.
    """
    given = context.given
    wind = given.reading.wind_m_s
    if wind is not None and wind >= GALE_M_S:
        return False, f"In {wind:.0f} m/s of wind no dry fly is fished."
    count = rising(given.sightings)
    if count in ("some", "many"):
        return True, f"{count.capitalize()} fish rise."
    hatch = next((s for s in given.sightings if s.evidence == "hatch" and s.prey), None)
    if hatch is not None and hatch.prey is not None:
        return True, f"A hatch was seen: {BY_KEY[hatch.prey].name.lower()}."
    winged = next((s.prey for s in given.sightings if s.prey in WINGED and s.abundance != "few"), None)
    if winged is not None:
        return True, f"{BY_KEY[winged].name} about on the water."
    film = float(context.belief.profile[context.belief.depths_m < FILM_M].sum())
    food = sum(context.food.share[key] for key in WINGED)
    if film >= FAIR_FILM and food >= FAIR_FOOD:
        return True, f"The film holds {100 * film:.0f} % of the chance, and food drifts in it."
    if count == "few":
        return False, "A few rises are too few for a dry fly. Watch for more."
    return False, "Nothing rises, no hatch was seen and the film holds little: no dry fly."


def film_share(context: Context, prey: str) -> float:
    """Return how much a fly for this prey in the film is worth there, 1 for one always in front of a fish: more among fish that
    show themselves than cast blind. Common practice, figures ours.
    """
    up = rising(context.given.sightings) in ("some", "many")
    pushing = up and prey == "fry" and any(s.rise == "bow-wave" for s in context.given.sightings)
    return FRY_SHARE if pushing else RISING_SHARE if up else BLIND_SHARE


def dry_set_up(context: Context, line: Line, team: list[Match]) -> SetUp:
    """Return floating flies fished in the film: one on a tapered leader, more on a level one."""
    x = context.tippet_x
    leader = (
        casting_leader(x, context.wary) if len(team) == 1 else team_leader(x, len(team), feet_to_m(9), feet_to_m(4))
    )
    retrieve = RETRIEVES["static"]
    if cruisers_up(context.given.reading, context.light):
        retrieve = replace(retrieve, words=AHEAD)
    reached = film_share(context, team[0].prey.key) * context.reach.over_band(0.0, 0.1)
    flies = place_flies(
        team=team,
        at_m=leader.flies_at_m,
        depths_m=(0.0,) * len(team),
        wary=context.wary,
        attractor_at=context.attractor_at,
    )
    return SetUp(
        method="dry",
        style="dry",
        title="Dry fly in the film",
        line=line,
        leader=leader,
        flies=flies,
        place=context.belief.place.name,
        target_m=0.0,
        low_m=0.0,
        high_m=0.1,
        estimate_m=0.0,
        count_s=None,
        float_hang_m=None,
        float_kind=None,
        retrieve=retrieve,
        cast_m=context.cast_m,
        relative=worth(
            context=context,
            method="dry",
            reached=reached,
            retrieve=retrieve,
            depth_m=0.0,
            appealing=appeal(team, context),
        ),
        sink_table=(),
        depth_note="In the film, the top 10 cm.",
        reasons=(
            Reason("fly", f"{flies[-1].fly.name}: {flies[-1].why}"),
            Reason("method", "For fish that rise or cruise high; nothing if they are down."),
        ),
        tracks=tuple(Trace(fly.position, ((0.0, 0.0), (20.0, 0.0))) for fly in flies),
        watch_for=AFTER_SWIRL if any(s.rise == "bow-wave" for s in context.given.sightings) else SIP,
    )
