"""The next step in an angler's words: what to do, the chance it gives, what it costs, and why."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field, replace

from stillthread.core.outing.doing import Doing
from stillthread.core.outing.from_plan import Doings, pace_class
from stillthread.core.search.model import Candidate, Step, StepKind
from stillthread.core.setup.retrieves import RETRIEVES

JUST_TAKEN_MIN = 10.0
ON_TOP_M = 0.05
SAME_DEPTH_M = 0.3  # nearer than that in the mean is the same depth
TOUCHES_TELL = 2  # plucks and follows on one set-up that say something: figure ours
LONG_BLANK_MIN = 20.0
LITTLE_LEFT, TIRED_OF_IT_MIN = 0.03, 60.0  # chance of a take in ten minutes, after so long a blank: figures ours


@dataclass(frozen=True)
class Next:
    """One thing to do next: in words, in the angler's numbers, with the chance of a take in ten minutes then and as now."""

    kind: StepKind
    words: str
    doing: Doing | None
    minutes: float
    chance: float
    chance_now: float
    cost_min: float
    reasons: tuple[str, ...] = ()


@dataclass(frozen=True)
class Standing:
    """How things stand: what is fished, its chance of a take in ten minutes, the takes an hour it would have once it took, minutes
    since a take, whether anything took today, what a partner's rod has to do with it, where others were seen to take, and what
    happened on what is in hand, by kind.
    """

    candidate: Candidate | None
    chance: float = 0.0
    found_per_h: float = 0.0
    since_min: float = 0.0
    taken: bool = False
    beside: str = ""
    seen: Mapping[str, str] = field(default_factory=dict)
    on_this: Mapping[str, int] = field(default_factory=dict)


def stop(why: str) -> Next:
    """Return the step that ends the day, with its reason."""
    words = why if " stop" in why else f"Stop: {why}"
    return Next("stop", words, None, minutes=0.0, chance=0.0, chance_now=0.0, cost_min=0.0, reasons=(why,))


def or_a_day(steps: tuple[Next, ...], since_min: float) -> tuple[Next, ...]:
    """Return the steps, the first with a word of rest or home where after a long blank [min] none promises anything to speak of."""
    best = max((one.chance for one in steps), default=1.0)
    if since_min < TIRED_OF_IT_MIN or best >= LITTLE_LEFT:
        return steps
    told = f"Nothing here promises more than {100 * best:.0f} % in ten minutes: rest the water, wait for the light or the wind to change, or call it a day."
    return (replace(steps[0], reasons=(*steps[0].reasons, told)), *steps[1:])


def said(step: Step, now: Standing, doings: Doings) -> Next:
    """Return a step in words, with why."""
    return Next(
        kind=step.kind,
        words=in_words(step, now.candidate, doings),
        doing=doings.by_key.get(step.candidate.key),
        minutes=step.minutes,
        chance=step.chance,
        chance_now=now.chance,
        cost_min=step.cost,
        reasons=_why(step, now) + ((now.beside,) if now.beside else ()),
    )


def in_words(step: Step, standing: Candidate | None, doings: Doings) -> str:
    """Return a step as one says it to another in the boat, from what is fished now: everything that it changes."""
    one, doing = step.candidate, doings.by_key.get(step.candidate.key)
    tied = doings.by_key.get(standing.key) if standing is not None else None
    depth = f"about {one.mean_m:.1f} m" if one.mean_m >= ON_TOP_M else "on top"
    flies = doing.flies[-1] if doing is not None else ", ".join(doings.food_word(kind) for kind in one.kinds)
    paced = _pace_too(doing, tied)
    if step.kind == "stay":
        return f"Stay: {step.minutes:.0f} more minutes."
    if step.kind == "depth" and one.hang_m is not None:
        alone = doing is not None and tied is not None and len(doing.flies) == 1 < len(tied.flies)
        return f"Move the float: {one.hang_m:.1f} m{', the point alone' if alone else ''}{paced}."
    if step.kind == "depth" and one.count_s is not None:
        before = standing.count_s if standing is not None else None
        start = f"Count {before:.0f} → {one.count_s:.0f} s" if before is not None else f"Count {one.count_s:.0f} s"
        return f"{start}: {depth}{paced}."
    if step.kind == "depth":
        return f"No count: {depth}{paced}."
    if step.kind == "pace" and doing is not None:
        same = standing is not None and abs(standing.mean_m - one.mean_m) < SAME_DEPTH_M
        return (
            f"{'Same depth, another' if same else 'Another'} pace: {_pace_words(doing)}{'' if same else f': {depth}'}."
        )
    moved = standing is not None and one.hang_m != standing.hang_m
    how = f"float at {one.hang_m:.1f} m" if one.hang_m is not None and (moved or step.kind != "fly") else depth
    if step.kind == "fly":
        return f"{flies} on the point, {_counted(one)}{how}{paced}."
    title = doing.set_up.title if doing is not None else one.method
    where = f"Move to {one.place}. " if step.kind == "place" else ""
    if standing is None and one.place != doings.plan.chosen.place.name:
        where = f"At {one.place}. "
    return f"{where}{title}: {_counted(one)}{how}, {flies}{_pace_too(doing, None)}."


def _counted(one: Candidate) -> str:
    return f"{_count(one)}, " if one.count_s is not None else ""


def _pace_too(doing: Doing | None, tied: Doing | None) -> str:
    """The retrieve in short, where a step changes it beside something else; nothing for flies that are left to themselves."""
    if doing is None or (tied is not None and doing.pace == tied.pace):
        return ""
    if tied is None and pace_class(doing.pace) == "static":
        return ""
    return f", {_pace_words(doing).split(',')[0]}"


def _count(one: Candidate) -> str:
    return f"count {one.count_s:.0f} s" if one.count_s else "no count"


def _pace_words(doing: Doing) -> str:
    one = RETRIEVES.get(doing.pace)
    words = one.words if one is not None else doing.pace
    return words[0].lower() + words[1:]


def _why(step: Step, now: Standing) -> tuple[str, ...]:
    """Why a step: the chance it gives and what it stands against."""
    found = [f"A take in the next ten minutes: {100 * step.chance:.0f} %"]
    found[0] += "." if step.kind == "stay" or now.chance <= 0 else f", and {100 * now.chance:.0f} % going on as now."
    if step.kind != "stay" and step.chance < now.chance and step.found_per_h > now.found_per_h:
        found.append(
            f"Less likely at once, but a take would promise more there: {step.found_per_h:.1f} an hour, here {now.found_per_h:.1f}."
        )
    if step.kind == "place" and step.candidate.place in now.seen:
        found.append(now.seen[step.candidate.place])
    if step.kind == "stay" and now.taken and now.since_min <= JUST_TAKEN_MIN:
        found.append("A fish took here minutes ago: what took it is still right.")
    elif now.since_min >= LONG_BLANK_MIN:
        found.append(f"{now.since_min:.0f} minutes without a take.")
    found += _touched(step, now)
    if step.cost > 0:
        found.append(f"The change takes about {step.cost:.0f} min; that is reckoned in.")
    return tuple(found)


def _touched(step: Step, now: Standing) -> list[str]:
    """What fish did to what is in hand that speaks for a step at the same place."""
    if now.candidate is None or step.candidate.place != now.candidate.place:
        return []
    takes = now.on_this.get("take", 0)
    if takes and step.kind == "stay" and now.since_min > JUST_TAKEN_MIN:
        return [f"{takes} took on this today."]
    touches = [f"{n} {kind}{'s' if n > 1 else ''}" for kind in ("pluck", "follow") if (n := now.on_this.get(kind, 0))]
    if takes or sum(now.on_this.get(kind, 0) for kind in ("pluck", "follow")) < TOUCHES_TELL:
        return []
    told = f"{' and '.join(touches)} on this and no take: fish are near its depth"
    if step.kind == "stay":
        return [told + "."]
    return [f"{told}, so the fly or the pace may be wrong."] if step.kind in ("fly", "pace", "set-up") else []
