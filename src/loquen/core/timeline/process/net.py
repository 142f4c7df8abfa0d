"""Nitrate as it is known from readings: what is made a day, less all that is lost."""

from dataclasses import dataclass
from typing import Generic

from loquen.core.physics.elementwise import Q
from loquen.core.timeline.state import State


@dataclass(frozen=True, slots=True)
class Net(Generic[Q]):
    """Nitrate made, mg/L N an hour."""

    nitrate: Q


def make(net: Net[Q], out: State[Q]) -> None:
    """Add what is made."""
    out.nitrate += net.nitrate
