"""The hours after something fails: a heater stuck on, one dead, all power off."""

from collections.abc import Callable
from dataclasses import dataclass
from typing import Literal

from loquen.core.errors import NamedCase
from loquen.core.graph.nodes import figure, step
from loquen.core.system.heat.balance import OpenWater, settle_c
from loquen.core.system.heat.heaters import unused_when
from loquen.core.timeline.process.heat import Heat, set_to_c
from loquen.core.timeline.run import Record, Undisturbed, run
from loquen.core.timeline.state import State, state_of
from loquen.core.timeline.surroundings import Surroundings
from loquen.core.timeline.tanks import OneTank
from loquen.core.timeline.watch import first_of

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


def course_of(water_c: float, litres: float, heat: Heat) -> Record[float]:
    """Two days of water that is left to its heat."""
    water: State[float] = state_of(temp_c=water_c)
    return run(water, Surroundings(litres, heat=heat), Undisturbed(), FAILURE_HOURS, OneTank(), ("temp_c",))


@step()
def stuck_on_course(
    heated: bool,
    water_c: float,
    heater_count: float,
    heater_each_w: float,
    equipment_high_w: float,
    loss_warm_w: float,
    walls_w_k: float,
    open_water: OpenWater,
    room_warm_c: float,
    real_volume_l: float,
) -> Record[float]:
    """After one heater stuck on, on the hottest day; the others go by their thermostats."""
    unused_when(not heated)
    setting = set_to_c(water_c, loss_warm_w, equipment_high_w, heater_count * heater_each_w)
    others_w, stuck_w = (heater_count - 1) * heater_each_w, heater_each_w + equipment_high_w
    heat = Heat(walls_w_k, open_water.surface, room_warm_c, 0.0, setting, others_w, stuck_w)
    return course_of(water_c, real_volume_l, heat)


@step()
def one_dead_course(
    heated: bool,
    water_c: float,
    heater_count: float,
    heater_each_w: float,
    equipment_low_w: float,
    loss_cold_w: float,
    walls_w_k: float,
    open_water: OpenWater,
    room_cold_c: float,
    real_volume_l: float,
) -> Record[float]:
    """After one heater died, on the coldest night."""
    unused_when(not heated)
    setting = set_to_c(water_c, loss_cold_w, equipment_low_w, heater_count * heater_each_w)
    others_w = (heater_count - 1) * heater_each_w
    heat = Heat(walls_w_k, open_water.surface, room_cold_c, 0.0, setting, others_w, equipment_low_w)
    return course_of(water_c, real_volume_l, heat)


@step()
def powerless_course(
    heated: bool, water_c: float, walls_w_k: float, open_water: OpenWater, room_cold_c: float, real_volume_l: float
) -> Record[float]:
    """After all power went, on the coldest night."""
    unused_when(not heated)
    return course_of(water_c, real_volume_l, Heat(walls_w_k, open_water.surface, room_cold_c))


@step()
def failures(
    stuck_on_course: Record[float],
    one_dead_course: Record[float],
    powerless_course: Record[float],
    one_dead_c: float,
    animals_low_c: float | None,
    animals_high_c: float | None,
) -> tuple[Failure, ...]:
    """Each hour by hour, and whether it harms; where the heaters left hold it, their thermostats are off by a little."""
    inside = borne(animals_low_c, animals_high_c)
    cases: tuple[tuple[Key, str, Record[float], bool], ...] = (
        ("stuck_on", "one stuck on, hottest day", stuck_on_course, False),
        ("one_dead", "one dead, coldest night", one_dead_course, inside(one_dead_c)),
        ("powerless", "all power off, coldest night", powerless_course, False),
    )
    rows = [(key, label, course.hours["temp_c"].tolist(), held) for key, label, course, held in cases]
    return tuple(
        Failure(key, label, tuple(temps), not held and not all(map(inside, temps)))
        for key, label, temps, held in rows
    )


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
    formula="first hour below {animals_low_c} of {powerless_course}",
    source="balance",
)
def cold_in_h(powerless_course: Record[float], animals_low_c: float) -> float:
    return in_two_days(first_of(powerless_course.steps, "temp_c", below=animals_low_c))


@figure(
    "Hours until a stuck heater harms",
    formula="first hour above {animals_high_c} of {stuck_on_course}",
    source="balance",
)
def hot_in_h(stuck_on_course: Record[float], animals_high_c: float) -> float:
    return in_two_days(first_of(stuck_on_course.steps, "temp_c", above=animals_high_c))


def in_two_days(hour: float | None) -> float:
    """The hour at which a limit is passed; raise NamedCase "not_in_two_days" when none is."""
    if hour is None:
        raise NamedCase("not_in_two_days")
    return hour
