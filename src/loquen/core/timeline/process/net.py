"""Nitrate as it is known from readings: what is made a day, less all that is lost."""

from dataclasses import dataclass
from typing import Generic

from loquen.core.physics.elementwise import Q
from loquen.core.timeline.state import State


@dataclass(frozen=True, slots=True)
class Net(Generic[Q]):
    """Nitrate made, mg/L N an hour; and a drip that exchanges a share of the water an hour for its source's, mg/L N."""

    nitrate: Q
    drip_per_h: float = 0.0
    source: Q | float = 0.0


def make(now: State[Q], net: Net[Q], out: State[Q]) -> None:
    """Add what is made, and what the drip exchanges."""
    out.nitrate += net.nitrate
    if net.drip_per_h:
        out.nitrate += net.drip_per_h * (net.source - now.nitrate)
