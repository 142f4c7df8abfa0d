"""Oxygen: the air brings it, all that breathes, rots and nitrifies uses it, lit plants give it."""

import math
from dataclasses import dataclass

from loquen.core.physics.elementwise import Q, at_most
from loquen.core.physics.gases import SCALE_HEIGHT_M, held_oxygen_mg_l
from loquen.core.timeline.process.constants import table
from loquen.core.timeline.process.nitrogen import Used
from loquen.core.timeline.process.rot import Rotten
from loquen.core.timeline.state import State
from loquen.core.timeline.warm import WARMEST_C


@dataclass(frozen=True, slots=True)
class Oxygen:
    """The air's exchange, and who uses oxygen besides bacteria: animals at a temperature, decay, plants (mg/h).

    Plants in the light give `given_mg_h`, in the dark they use `plants_mg_h`.
    """

    transfer_l_h: float
    breathing_mg_h: float
    breathing_at_c: float
    warmth_10k: float
    decay_mg_h: float = 0.0
    plants_mg_h: float = 0.0
    given_mg_h: float = 0.0
    altitude_m: float = 0.0


def balance_mg_l(temp_c: Q, salinity: Q, altitude_m: float) -> Q:
    """Oxygen of water in balance with the air."""
    found: Q = held_oxygen_mg_l(at_most(temp_c, WARMEST_C), salinity, math.exp(-altitude_m / SCALE_HEIGHT_M))
    return found


def breathe(
    now: State[Q], part: Oxygen, used: Used[Q] | None, rotten: Rotten[Q] | None, litres: Q | float, out: State[Q]
) -> Q:
    """Add what is used and what comes in; return what is used, mg/h, without what lit plants give."""
    c = table()
    scarce = at_most(now.oxygen / c.oxygen_scarce_mg_l, 1.0)
    gone = at_most(now.oxygen / c.oxygen_gone_mg_l, 1.0)
    warmth = part.warmth_10k ** ((now.temp_c - part.breathing_at_c) / 10)
    taken: Q = part.breathing_mg_h * warmth * scarce + (part.decay_mg_h + part.plants_mg_h) * gone
    if used is not None:
        per_n = c.oxygen_per_ammonia * used.ammonia + c.oxygen_per_nitrite * used.nitrite
        taken = taken + litres * per_n
    if rotten is not None:
        taken = taken + (c.oxygen_per_food_mg_g * rotten.food_g + c.oxygen_per_body_mg_g * rotten.body_g) * gone
    brought = part.transfer_l_h * (balance_mg_l(now.temp_c, now.salinity, part.altitude_m) - now.oxygen)
    out.oxygen += (brought + part.given_mg_h - taken) / litres
    return taken
