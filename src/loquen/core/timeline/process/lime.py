"""Lime that lies in the water: it dissolves towards its ceiling, the faster the farther under it the water stands."""

from dataclasses import dataclass

from loquen.core.physics.elementwise import Q, at_least
from loquen.core.timeline.state import State


@dataclass(frozen=True, slots=True)
class Lime:
    """The share of the way to its ceiling, dKH, that it lifts the water in an hour."""

    lifts: float
    ceiling_dkh: float


def dissolve(now: State[Q], lime: Lime, out: State[Q]) -> None:
    """Add what it gives; water over its ceiling takes none, and gives none back."""
    out.kh += lime.lifts * at_least(lime.ceiling_dkh - now.kh, 0.0)
