"""Warmth: heaters and equipment put it in, walls and the open surface lose it to the room."""

from dataclasses import dataclass

from loquen.core.physics import heat as physics
from loquen.core.physics.elementwise import Q, at_least, at_most
from loquen.core.timeline.state import State
from loquen.core.timeline.warm import WARMEST_C

HOURS = 24
WATTS_PER_L_H = 1000 / 3600
"""Of a kilojoule a kilogram that evaporating takes."""
WATT_HOURS_L_K = physics.WATER_HEAT_J_L_K / 3600
BAND_K = 0.5
"""From all of a heater's power to none; its thermostat is set to the middle."""


@dataclass(frozen=True, slots=True)
class Surface:
    """Water that evaporates into the room."""

    area_m2: float
    cover_frac: float
    humidity_frac: float
    calm_frac: float
    cover_effect: float


@dataclass(frozen=True, slots=True)
class Heat:
    """Watts put in, and how they are lost: `walls_w_k` through the walls, a kelvin of difference to the room.

    `heaters_w` are those whose thermostats work, set to `set_c`; `constant_w` is what heats whatever the temperature:
    equipment, and a heater that is stuck. The room moves by `room_k_h` an hour from `room_c`.
    """

    walls_w_k: float
    surface: Surface
    room_c: float
    room_k_h: float = 0.0
    set_c: float = 0.0
    heaters_w: float = 0.0
    constant_w: float = 0.0

    def room_at(self, hours: float) -> float:
        return self.room_c + self.room_k_h * hours


def set_to_c(water_c: float, lost_w: float, constant_w: float, heaters_w: float) -> float:
    """What thermostats are set to by a keeper whose water stands at a temperature in a room."""
    part = min(1.0, max(0.0, lost_w - constant_w) / heaters_w) if heaters_w > 0 else 0.0
    return water_c - BAND_K / 2 + BAND_K * part


def evaporated_l_h(water_c: Q, room_c: float, surface: Surface) -> Q:
    """Litres an hour that evaporate."""
    active_m2 = surface.area_m2 * surface.calm_frac * (1 - surface.cover_effect * surface.cover_frac)
    room_c = min(max(room_c, 0.0), WARMEST_C)
    litres: Q = physics.evaporating_l_d(active_m2, at_most(water_c, WARMEST_C), room_c, surface.humidity_frac)
    return litres / HOURS


def warm_or_cool(
    now: State[Q], heat: Heat, hours: float, evaporated: Q | float, litres: Q | float, out: State[Q]
) -> None:
    """Add what heats and cools the water."""
    asked = at_least(at_most((heat.set_c + BAND_K / 2 - now.temp_c) / BAND_K, 1.0), 0.0)
    lost = heat.walls_w_k * (now.temp_c - heat.room_at(hours))
    taken = evaporated * WATTS_PER_L_H * physics.taken_kj_kg(at_most(now.temp_c, WARMEST_C))
    watts = heat.constant_w + heat.heaters_w * asked - lost - taken
    out.temp_c += watts / (WATT_HOURS_L_K * litres)
