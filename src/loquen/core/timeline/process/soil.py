"""Active soil: the ammonia it gives up, and the hardness it takes while its hold lasts."""

from dataclasses import dataclass
from typing import Generic

from loquen.core.physics.chemistry.carbonate import MEQ_L_PER_DKH
from loquen.core.physics.elementwise import Q, at_least, where
from loquen.core.timeline.process.constants import table
from loquen.core.timeline.state import State


@dataclass(frozen=True, slots=True)
class Soil(Generic[Q]):
    """Shares an hour that it gives up of its ammonia and takes of the hardness, and the acid that it holds."""

    release: Q
    takes_kh: float = 0.0
    least_hydrogen: float = 0.0


def holding(hydrogen: Q, now: State[Q], soil: Soil[Q]) -> Q:
    """10^−pH, no less than what the soil holds it at."""
    return where(now.hold > 0, at_least(hydrogen, soil.least_hydrogen), hydrogen)


def leach(now: State[Q], soil: Soil[Q], out: State[Q]) -> Q:
    """Add what it gives and takes; return the ammonia that it gives up."""
    given = soil.release * now.soil
    out.soil -= given
    out.ammonia += given
    out.kh += table().kh_per_n * given
    if soil.takes_kh:
        taken: Q = where(now.hold > 0, soil.takes_kh * now.kh, 0.0)
        out.kh -= taken
        out.hold -= MEQ_L_PER_DKH * taken
    return given
