"""What is at work in a water, and what is around it."""

from dataclasses import dataclass
from typing import Generic

from loquen.core.physics.elementwise import Q
from loquen.core.timeline.process.carbonate import CarbonDioxide
from loquen.core.timeline.process.heat import Heat
from loquen.core.timeline.process.levels import Levels
from loquen.core.timeline.process.lime import Lime
from loquen.core.timeline.process.net import Net
from loquen.core.timeline.process.nitrogen import Bacteria
from loquen.core.timeline.process.oxygen import Oxygen
from loquen.core.timeline.process.plants import Plants
from loquen.core.timeline.process.rot import Rot
from loquen.core.timeline.process.soil import Soil
from loquen.core.timeline.process.stagnation import Stagnation
from loquen.core.timeline.warm import Warm


@dataclass(frozen=True, slots=True)
class Surroundings(Generic[Q]):
    """The phenomena at work, each with what it hangs on; what is None is left out, and what it would move stays.

    A cycle has bacteria and no heat, a power cut has all of them. `warm` is given where the temperature stays.
    """

    litres: float = 1.0
    """Of the water, where no levels move."""
    warm: Warm[Q] | None = None
    least_hydrogen: float = 0.0
    """10^−pH at the highest pH that is allowed; 0 for no bound."""
    heat: Heat | None = None
    levels: Levels | None = None
    oxygen: Oxygen | None = None
    carbon_dioxide: CarbonDioxide | None = None
    bacteria: Bacteria[Q] | None = None
    stagnation: Stagnation | None = None
    plants: Plants[Q] | None = None
    soil: Soil[Q] | None = None
    lime: Lime | None = None
    rot: Rot | None = None
    disinfected: bool = False
    net: Net[Q] | None = None
    least_kh: float = 0.0
    """dKH that nothing brings hardness under."""
