"""A clear day: both readings low, and bacteria enough for what is made."""

from loquen.core.physics.elementwise import Q, Truth, at_least, at_most, both, where
from loquen.core.timeline.process.constants import table
from loquen.core.timeline.process.nitrogen import HOURS, Bacteria, free_ammonia, held_back, speed
from loquen.core.timeline.rates import hydrogen, warm_of
from loquen.core.timeline.state import State
from loquen.core.timeline.surroundings import Surroundings
from loquen.core.timeline.warm import Warm

ENDLESS = float("inf")
MOST_SETTLED_MG_L = 10.0


def settled(b: Bacteria[Q], warm: Warm[Q], litres: float) -> tuple[Q, Q]:
    """Ammonia and nitrite, mg/L N, at which bacteria that grow and die take just what is made; infinite for none."""
    load = b.load_mg_h * HOURS / litres
    return settles(b.growth_a, b.half_a, load, b.per_most_capacity, warm), settles(
        b.growth_n, b.half_n, load, b.per_most_capacity, warm
    )


def settles(growth: Q | float, half: Q | float, load: Q | float, per_most_capacity: float, warm: Warm[Q]) -> Q:
    """The level of one of the two."""
    share: Q = (table().decay_per_d * warm.pace + growth * load * per_most_capacity) / (growth * warm.pace)
    return where(share < 1, half * share / at_least(1 - share, 1e-12), ENDLESS)


def is_clear(state: State[Q], around: Surroundings[Q], most_settled: tuple[float, float]) -> Truth:
    """Whether this is a clear day."""
    c, b = table(), around.bacteria
    if b is None:
        return False
    warm = warm_of(state, around)
    h = hydrogen(state, around, warm)
    f, free = speed(h, warm) / HOURS, free_ammonia(state.ammonia, h, warm)
    made = b.load_mg_h / around.litres + (around.soil.release * state.soil if around.soil else 0.0)
    plants: Q | float = 0.0
    if around.plants is not None:
        plants = around.plants.take * state.ammonia / (state.ammonia + c.plants_half_ammonia_mg_l)
    wanted = c.clear_capacity_of_load * (made - plants)
    fine: Truth = made > 0
    for level, capacity, half, inhibits, at, most in zip(
        (state.ammonia, state.nitrite),
        (state.on_ammonia, state.on_nitrite),
        (b.half_a, b.half_n),
        (c.free_ammonia_on_ammonia_oxidisers_mg_l, c.free_ammonia_on_nitrite_oxidisers_mg_l),
        settled(b, warm, around.litres),
        most_settled,
        strict=True,
    ):
        borne: Q = where(at <= most, at_most(c.clear_of_settled * at, MOST_SETTLED_MG_L), 0.0)
        limit = at_least(borne, c.clear_under_mg_l)
        takes = capacity * f * held_back(limit, half, free, inhibits)
        fine = both(fine, both(level < limit, takes >= wanted))
    return fine
