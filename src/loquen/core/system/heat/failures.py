"""The hours after something fails: a heater stuck on, one dead, all power off."""

import math
from collections.abc import Callable
from dataclasses import dataclass
from typing import Literal

from loquen.core.errors import NamedCase
from loquen.core.graph.nodes import figure, step
from loquen.core.system.heat.balance import OpenWater, settle_c
from loquen.core.system.heat.heaters import unused_when

FAILURE_HOURS = 48
Key = Literal["stuck_on", "one_dead", "powerless"]


@dataclass(frozen=True, slots=True)
class Failure:
    """Temperature hour by hour after something fails, from the temperature that is kept, and whether it harms."""

    key: Key
    label: str
    temps_c: tuple[float, ...]
    harms: bool


@dataclass(frozen=True, slots=True)
class Settling:
    """Where the water ends up in one case, and whether that harms."""

    label: str
    temp_c: float
    harms: bool


def borne(low_c: float | None, high_c: float | None) -> Callable[[float], bool]:
    """Whether a temperature lies inside what the animals bear; without animals every one does."""
    return lambda temp: (low_c is None or temp >= low_c) and (high_c is None or temp <= high_c)


@step()
def settlings(
    heated: bool,
    water_c: float,
    one_dead_c: float | None,
    summer_c: float | None,
    stuck_on_c: float | None,
    winter_c: float | None,
    uncooled_c: float | None,
    animals_low_c: float | None,
    animals_high_c: float | None,
    hot_day_k: float,
) -> tuple[Settling, ...]:
    """Where the water ends up in the room's extremes and after a failure."""
    inside = borne(animals_low_c, animals_high_c)
    # One day a year may be warmer than what they are kept at for good.
    not_too_warm = borne(None, None if animals_high_c is None else animals_high_c + hot_day_k)
    if heated:
        cases = [
            ("one heater dead, coldest night", one_dead_c, inside),
            ("as kept", water_c, inside),
            # With no heater on, the hottest day can only be too warm; heaters see to the rest.
            ("no heater, hottest day", summer_c, not_too_warm),
            ("one stuck on, hottest day", stuck_on_c, inside),
        ]
    else:
        cases = [
            ("coldest night", winter_c, inside),
            ("room’s mean", water_c, inside),
            ("hottest day", summer_c, not_too_warm),
        ]
    cases.append(("cooling dead, hottest day", uncooled_c, not_too_warm))
    return tuple(Settling(label, temp, not good(temp)) for label, temp, good in cases if temp is not None)


@step()
def failures(
    heated: bool,
    water_c: float,
    stuck_on_c: float,
    one_dead_c: float,
    powerless_c: float,
    heater_each_w: float,
    equipment_high_w: float,
    equipment_low_w: float,
    heater_count: float,
    loss_cold_w: float,
    loss_warm_w: float,
    real_volume_l: float,
    water_heat_j_l_k: float,
    animals_low_c: float | None,
    animals_high_c: float | None,
) -> tuple[Failure, ...]:
    """Two days after one heater stuck on, one died, and all power went."""
    unused_when(not heated)
    capacity = real_volume_l * water_heat_j_l_k
    dead_w = (heater_count - 1) * heater_each_w + equipment_low_w
    cases: tuple[tuple[Key, str, float, float], ...] = (
        ("stuck_on", "one stuck on, hottest day", stuck_on_c, heater_each_w + equipment_high_w - loss_warm_w),
        ("one_dead", "one dead, coldest night", one_dead_c, dead_w - loss_cold_w),
        ("powerless", "all power off, coldest night", powerless_c, -loss_cold_w),
    )
    inside = borne(animals_low_c, animals_high_c)
    found = []
    for key, label, settles, spare in cases:
        temps = approach(water_c, settles, spare / capacity * 3600)
        found.append(Failure(key, label, temps, not all(map(inside, temps))))
    return tuple(found)


def course_of(failures: tuple[Failure, ...], key: str) -> tuple[float, ...]:
    return next(failure.temps_c for failure in failures if failure.key == key)


def approach(start_c: float, settles_c: float, first_k_h: float) -> tuple[float, ...]:
    """Temperature hour by hour on its way from a start, where it moves by `first_k_h`, to where it settles."""
    gap = settles_c - start_c
    if gap * first_k_h <= 0:
        return (start_c,) * (FAILURE_HOURS + 1)
    rate = first_k_h / gap
    return tuple(start_c + gap * -math.expm1(-rate * hour) for hour in range(FAILURE_HOURS + 1))


@figure(
    "With all power off, on the coldest night",
    formula="T at which {walls_w_k} × (T − {room_cold_c}) + evaporation(T) of {open_water} = 0",
    source="balance",
)
def powerless_c(walls_w_k: float, room_cold_c: float, open_water: OpenWater) -> float:
    return settle_c(0.0, walls_w_k, open_water, room_cold_c)


@figure(
    "Lost on the hottest day at the temperature kept",
    formula="{walls_w_k} × ({water_c} − {room_warm_c}) + evaporation of {open_water}",
    source="balance",
)
def loss_warm_w(walls_w_k: float, water_c: float, room_warm_c: float, open_water: OpenWater) -> float:
    return walls_w_k * (water_c - room_warm_c) + open_water.watts(water_c, room_warm_c)


@figure(
    "Hours until the cold harms, all power off",
    formula="first hour below {animals_low_c} of {failures}",
    source="balance",
)
def cold_in_h(failures: tuple[Failure, ...], animals_low_c: float) -> float:
    return first_hour(course_of(failures, "powerless"), lambda temp: temp < animals_low_c)


@figure(
    "Hours until a stuck heater harms",
    formula="first hour above {animals_high_c} of {failures}",
    source="balance",
)
def hot_in_h(failures: tuple[Failure, ...], animals_high_c: float) -> float:
    return first_hour(course_of(failures, "stuck_on"), lambda temp: temp > animals_high_c)


def first_hour(temps_c: tuple[float, ...], passed: Callable[[float], bool]) -> float:
    """The first hour in which a limit is passed; raise NamedCase "not_in_two_days" when none is."""
    for hour, temp in enumerate(temps_c):
        if passed(temp):
            return float(hour)
    raise NamedCase("not_in_two_days")
