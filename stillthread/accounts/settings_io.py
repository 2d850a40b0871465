"""An angler's settings as they go in and out."""

from __future__ import annotations

from typing import Any, Literal

from pydantic import Field

from stillthread.accounts.models import Angler
from stillthread.core.day.given import Arm, CastLength, NetReach, Owns, Rod, RodCount
from stillthread.core.day.schools import Schools
from stillthread.core.search.model import Costs
from stillthread.core.trout.learnt import USUAL, Learnt
from stillthread.core.vocabulary import Method
from stillthread.documents.strict import Strict


class SettingsIO(Strict):
    """An angler's settings; lengths in metres whatever is shown."""

    depth_unit: Literal["m", "ft"]
    temperature_unit: Literal["c", "f"]
    wind_unit: Literal["m_s", "km_h", "mph", "kn", "bft"]
    vocabulary: Literal["gb", "na"]
    rod_m: Rod
    net_m: NetReach
    arm_m: Arm
    cast_m: CastLength
    afloat: bool
    rods: RodCount = 1
    methods_left_out: list[Method] = Field(default=[], max_length=5)
    schools: Schools = Schools()
    costs: Costs = Costs()
    owns: Owns = Owns()
    learnt: Learnt = USUAL


def owns_of(angler: Angler) -> Owns:
    """Return what an angler carries beside lines and flies; JSON keeps its tuples as lists."""
    told: dict[str, Any] = {name: tuple(v) if isinstance(v, list) else v for name, v in angler.owns.items()}
    return Owns(**told)


def settings_of(angler: Angler) -> SettingsIO:
    """Return an angler's settings."""
    values = {name: getattr(angler, name) for name in SettingsIO.model_fields}
    parts = {
        "schools": Schools(**angler.schools),
        "costs": Costs(**angler.costs),
        "owns": owns_of(angler),
        "learnt": Learnt(**angler.learnt),
    }
    return SettingsIO.model_validate({**values, **parts})


def write_settings_of(angler: Angler, told: SettingsIO) -> SettingsIO:
    """Change an angler's settings."""
    for name, value in told.model_dump().items():
        setattr(angler, name, value)
    angler.save()
    return settings_of(angler)
