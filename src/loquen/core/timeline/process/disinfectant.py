"""Chlorine and chloramine of untreated water: how they go, the ammonia that is freed, the bacteria they kill."""

from loquen.core.physics.chemistry.disinfectant import chloramine_ammonia_mg_l
from loquen.core.physics.elementwise import Q
from loquen.core.timeline.process.constants import table
from loquen.core.timeline.process.nitrogen import Bacteria
from loquen.core.timeline.state import State

N_PER_CHLORAMINE = chloramine_ammonia_mg_l(total_chlorine_mg_l=1.0)


def disinfect(now: State[Q], bacteria: Bacteria[Q] | None, out: State[Q]) -> None:
    """Add what it does in a tank that lives."""
    c = table()
    out.chlorine -= c.chlorine_goes_per_h * now.chlorine
    out.chloramine -= c.chlorine_goes_per_h * now.chloramine
    out.ammonia += N_PER_CHLORAMINE * c.chlorine_goes_per_h * now.chloramine
    if bacteria is None:
        return
    killed = c.chlorine_kills_per_mg_h * (now.chlorine + now.chloramine)
    if bacteria.filter_runs:
        out.on_ammonia -= killed * now.on_ammonia
        out.on_nitrite -= killed * now.on_nitrite
    out.wall_on_ammonia -= killed * now.wall_on_ammonia
    out.wall_on_nitrite -= killed * now.wall_on_nitrite
