"""Plants that take ammonia first, and nitrate for the rest."""

from dataclasses import dataclass
from typing import Generic

from loquen.core.physics.elementwise import Q
from loquen.core.timeline.process.constants import table
from loquen.core.timeline.state import State


@dataclass(frozen=True, slots=True)
class Plants(Generic[Q]):
    """What they can take of nitrogen, mg/L N an hour."""

    take: Q | float


def feed(now: State[Q], plants: Plants[Q], out: State[Q]) -> Q:
    """Add what they take; return what of it is ammonia."""
    c = table()
    ammonia: Q = plants.take * now.ammonia / (now.ammonia + c.plants_half_ammonia_mg_l)
    nitrate = (plants.take - ammonia) * now.nitrate / (now.nitrate + c.plants_half_nitrate_mg_l)
    out.ammonia -= ammonia
    out.nitrate -= nitrate
    out.kh += c.kh_per_n * (nitrate - ammonia)
    return ammonia
