"""Uneaten food and dead bodies that rot: ammonia and hardness they give, oxygen they use."""

from dataclasses import dataclass
from typing import Generic

from loquen.core.physics.elementwise import Q
from loquen.core.timeline.process.constants import table
from loquen.core.timeline.state import State

HOURS = 24
MG_N_PER_G_PROTEIN = 160.0


@dataclass(frozen=True, slots=True)
class Rot:
    """What the food is made of."""

    protein_frac: float


@dataclass(frozen=True, slots=True)
class Rotten(Generic[Q]):
    """Grams of dry food and wet body that rot in an hour."""

    food_g: Q
    body_g: Q


def rot(now: State[Q], part: Rot, litres: Q | float, out: State[Q]) -> Rotten[Q]:
    """Add what it gives; return what rots."""
    c = table()
    warmth = c.rot_warmth_per_k ** (now.temp_c - 25) / HOURS
    food, body = c.food_rots_per_d * warmth * now.food_g, c.body_rots_per_d * warmth * now.body_g
    given = (food * part.protein_frac * MG_N_PER_G_PROTEIN + body * c.body_nitrogen_mg_g) / litres
    out.food_g -= food
    out.body_g -= body
    out.ammonia += given
    out.kh += c.kh_per_n * given
    return Rotten(food, body)
