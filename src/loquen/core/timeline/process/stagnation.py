"""A filter that stands still: its own water loses its oxygen, then its bacteria die."""

from dataclasses import dataclass

from loquen.core.physics.elementwise import Q, where
from loquen.core.timeline.process.constants import table
from loquen.core.timeline.state import State


@dataclass(frozen=True, slots=True)
class Stagnation:
    """Oxygen that a stopped filter's own water loses in an hour, mg/L."""

    use_mg_l_h: float


def stagnate(now: State[Q], part: Stagnation, out: State[Q]) -> None:
    """Add what happens inside it."""
    c = table()
    breathes = now.filter_oxygen > 0
    out.filter_oxygen += where(breathes, -part.use_mg_l_h, 0.0)
    dying: Q = where(breathes, 0.0, 1 / c.airless_bacteria_h)
    out.on_ammonia -= dying * now.on_ammonia
    out.on_nitrite -= dying * now.on_nitrite
