"""Bacteria that take ammonia and nitrite, grow on them and die off; what is made is given by what lives in the water."""

from dataclasses import dataclass
from typing import Generic

from loquen.core.physics.elementwise import Q, at_least, at_most
from loquen.core.timeline.process.carbonate import KH_PER_N_USED
from loquen.core.timeline.process.constants import table
from loquen.core.timeline.state import State
from loquen.core.timeline.warm import Warm

HOURS = 24


@dataclass(frozen=True, slots=True)
class Bacteria(Generic[Q]):
    """What they are fed, and what they are like.

    `load_mg_h` is what is made an hour in all the water, `counted_l` the litres that capacity is counted by,
    `per_most_capacity` one over the most that their surfaces carry, 0 for no bound.
    """

    load_mg_h: Q | float
    growth_a: Q | float
    growth_n: Q | float
    half_a: Q | float
    half_n: Q | float
    per_most_capacity: float = 0.0
    counted_l: float = 1.0
    walls: bool = False
    """Whether some live on the tank's own surfaces, apart from the filter's media."""
    filter_runs: bool = True


@dataclass(frozen=True, slots=True)
class Used(Generic[Q]):
    """Ammonia and nitrite that bacteria take in an hour, mg/L N."""

    ammonia: Q
    nitrite: Q


def speed(hydrogen: Q, warm: Warm[Q]) -> Q:
    """Rate of nitrification by warmth and acid, as a share of that at 25 °C in neutral water."""
    acid = hydrogen * HALF_ACID
    found: Q = warm.pace / (1 + acid * acid)
    return found


HALF_ACID = 10 ** table().half_acid_ph


def free_ammonia(ammonia: Q, hydrogen: Q, warm: Warm[Q]) -> Q:
    """Un-ionised part of the ammonia, mg/L N."""
    return ammonia / (1 + hydrogen * warm.ammonium)


def held_back(level: Q, half: Q | float, free: Q, inhibits: float) -> Q:
    """Share of their full rate that bacteria reach at a level, with free ammonia about."""
    return level / ((half + level) * (1 + free / inhibits))


def short_of(oxygen: Q, most: float, half: float) -> Q:
    """Share of their rate that bacteria keep at an oxygen level, all of it in plenty."""
    return at_most(most * oxygen / (oxygen + half), 1.0)


def nitrify(
    now: State[Q], b: Bacteria[Q], warm: Warm[Q], hydrogen: Q, litres: Q | float, breathing: bool, out: State[Q]
) -> Used[Q]:
    """Add what is made and what bacteria do with it; return what they take."""
    c = table()
    made = b.load_mg_h / litres
    f = speed(hydrogen, warm) / HOURS
    free = free_ammonia(now.ammonia, hydrogen, warm)
    pace_a = f * held_back(now.ammonia, b.half_a, free, c.free_ammonia_on_ammonia_oxidisers_mg_l)
    pace_a = pace_a * now.kh / (now.kh + c.half_kh_dkh)
    pace_n = f * held_back(now.nitrite, b.half_n, free, c.free_ammonia_on_nitrite_oxidisers_mg_l)
    if breathing:
        pace_a = pace_a * short_of(now.oxygen, c.oxygen_most_ammonia, c.oxygen_half_ammonia_mg_l)
        pace_n = pace_n * short_of(now.oxygen, c.oxygen_most_nitrite, c.oxygen_half_nitrite_mg_l)
    working_a: Q | float = now.on_ammonia if b.filter_runs else 0.0
    working_n: Q | float = now.on_nitrite if b.filter_runs else 0.0
    whole_a, whole_n = now.on_ammonia, now.on_nitrite
    if b.walls:
        working_a, working_n = working_a + now.wall_on_ammonia, working_n + now.wall_on_nitrite
        whole_a, whole_n = whole_a + now.wall_on_ammonia, whole_n + now.wall_on_nitrite
    dense = b.counted_l / litres
    use_a, use_n = working_a * pace_a * dense, working_n * pace_n * dense
    out.ammonia += made - use_a
    out.nitrite += use_a - use_n
    out.nitrate += use_n
    out.kh += c.kh_per_n * made - KH_PER_N_USED * use_a
    grow_a, grow_n = b.growth_a * pace_a, b.growth_n * pace_n
    if b.per_most_capacity:
        grow_a = grow_a * at_least(1 - whole_a * b.per_most_capacity, 0.0)
        grow_n = grow_n * at_least(1 - whole_n * b.per_most_capacity, 0.0)
    dying = c.decay_per_d / HOURS * warm.pace
    if b.filter_runs:
        out.on_ammonia += (grow_a - dying) * now.on_ammonia
        out.on_nitrite += (grow_n - dying) * now.on_nitrite
    if b.walls:
        out.wall_on_ammonia += (grow_a - dying) * now.wall_on_ammonia
        out.wall_on_nitrite += (grow_n - dying) * now.wall_on_nitrite
    return Used(use_a, use_n)
