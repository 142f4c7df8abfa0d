"""Water that comes in, evaporates, is topped up, runs over the brim or leaks; and what that does to all dissolved in it."""

from dataclasses import dataclass

from loquen.core.physics.elementwise import Q, at_least, where
from loquen.core.timeline.state import State


@dataclass(frozen=True, slots=True)
class Inflow:
    """Water that comes in, litres an hour, and what it is like."""

    lph: float
    temp_c: float
    oxygen: float
    carbon_dioxide: float
    kh: float = 0.0
    nitrate: float = 0.0
    salinity: float = 0.0
    chlorine: float = 0.0
    chloramine: float = 0.0


@dataclass(frozen=True, slots=True)
class Leak:
    """Mixed water that goes to the floor, down to a volume."""

    lph: float
    down_to_l: float


@dataclass(frozen=True, slots=True)
class Levels:
    """What comes in and goes out; evaporation is replaced with pure water where a top-up works."""

    inflows: tuple[Inflow, ...] = ()
    leaks: tuple[Leak, ...] = ()
    brim_l: float | None = None
    topped_up: bool = True


BROUGHT = ("temp_c", "oxygen", "carbon_dioxide", "kh", "nitrate", "salinity", "chlorine", "chloramine")
"""What water that comes in has of its own."""
DILUTED = ("ammonia", "nitrite")
STAYS = ("ammonia", "nitrite", "nitrate", "kh", "chlorine", "chloramine", "salinity")
"""What evaporation leaves behind."""


def run_in_and_out(now: State[Q], levels: Levels, evaporated: Q | float, out: State[Q]) -> None:
    """Add what comes in and goes out."""
    litres = now.volume_l
    for water in levels.inflows:
        share = water.lph / litres
        for name in BROUGHT:
            own = getattr(now, name)
            setattr(out, name, getattr(out, name) + share * (getattr(water, name) - own))
        for name in DILUTED:
            setattr(out, name, getattr(out, name) - share * getattr(now, name))
    lost = 0.0 if levels.topped_up else evaporated
    if not levels.topped_up:
        thicker = evaporated / litres
        for name in STAYS:
            setattr(out, name, getattr(out, name) + thicker * getattr(now, name))
    gains = sum(water.lph for water in levels.inflows) - lost + 0 * litres
    leaked = 0 * litres
    for leak in levels.leaks:
        # At the height that it reaches a leak takes what still comes in, and no more.
        able = where(litres > leak.down_to_l, leak.lph, 0.0)
        leaked = leaked + where(
            able > 0, able, at_least(at_least(gains, 0.0) - at_least(gains - leak.lph, 0.0), 0.0)
        )
    gains = gains - leaked
    over = where(litres >= levels.brim_l, at_least(gains, 0.0), 0.0) if levels.brim_l is not None else 0 * litres
    out.volume_l += gains - over
    out.floor_l += leaked + over
