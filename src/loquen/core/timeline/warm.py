"""What hangs on the water's temperature and salt alone."""

from dataclasses import dataclass
from typing import Generic

from loquen.core.physics.chemistry.ammonia import ammonium_pka
from loquen.core.physics.chemistry.carbonate import Carbonic, carbonic_at
from loquen.core.physics.elementwise import Q, at_most
from loquen.core.timeline.process.constants import table

WARMEST_C = 45.0
"""As far as the relations of water go."""


@dataclass(frozen=True, slots=True)
class Warm(Generic[Q]):
    """Bacteria's pace against that at 25 °C, the balance of carbonate, and 1/Ka of ammonium."""

    pace: Q
    carbonic: Carbonic
    ammonium: Q


def warm_at(temp_c: Q, salinity_ppt: Q | float = 0.0) -> Warm[Q]:
    """What holds at a temperature and salinity."""
    c, temp_c = table(), at_most(temp_c, WARMEST_C)
    return Warm(
        c.warmth_per_k ** (at_most(temp_c, c.warmest_c) - 25),
        carbonic_at(temp_c),
        10 ** ammonium_pka(temp_c, salinity_ppt),
    )
