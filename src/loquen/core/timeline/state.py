"""What a water is like at an instant, by name."""

from collections.abc import Sequence
from dataclasses import dataclass, fields
from operator import attrgetter
from typing import Generic, cast

from loquen.core.physics.elementwise import Q


@dataclass(slots=True)
class State(Generic[Q]):
    """The quantities of a water: each a number, or an array over many tanks; of rates, what each changes by in an hour.

    Nitrogen in mg/L of N, capacity in mg of N that bacteria take in a day at full rate and 25 °C per litre of the water
    that it is counted by, gases in mg/L, chlorine in mg/L of Cl2.
    """

    temp_c: Q
    volume_l: Q
    floor_l: Q
    """On the floor."""
    oxygen: Q
    carbon_dioxide: Q
    ammonia: Q
    nitrite: Q
    nitrate: Q
    on_ammonia: Q
    """Capacity of the ammonia-oxidisers on the filter's media."""
    on_nitrite: Q
    wall_on_ammonia: Q
    """The same of those on the tank's own surfaces."""
    wall_on_nitrite: Q
    filter_oxygen: Q
    """Oxygen inside a filter that stands still."""
    kh: Q
    """dKH."""
    soil: Q
    """Ammonia still in an active soil, mg/L N of water."""
    hold: Q
    """What that soil can still take of hardness, meq/L."""
    salinity: Q
    """g/kg."""
    chlorine: Q
    chloramine: Q
    food_g: Q
    """Dry, uneaten."""
    body_g: Q
    """Wet, of what died and was not found."""


NAMES = tuple(part.name for part in fields(State))
PLACE = {name: place for place, name in enumerate(NAMES)}
PARTS = attrgetter(*NAMES)
"""All of them, in order."""
UNMOVED = 0.0
"""What a rate is that nothing has added to: this very number, for whatever is added makes another."""


def state_of(**parts: Q | float) -> State[Q]:
    """A state with these quantities, and nothing of all others."""
    known = dict.fromkeys(NAMES, 0.0)
    return State(**cast("dict[str, Q]", {**known, **parts}))


def unmoved() -> State[Q]:
    """Rates of a water in which nothing happens."""
    return State(*cast("Sequence[Q]", (UNMOVED,) * len(NAMES)))


def moved(rates: State[Q]) -> list[int]:
    """Places of the quantities that something adds to, be it nothing at this instant."""
    return [place for place, part in enumerate(PARTS(rates)) if part is not UNMOVED]
