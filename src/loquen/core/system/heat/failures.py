"""The hours after something fails: a heater stuck on, one dead, all power off."""

from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace
from typing import Literal

from loquen.core.errors import NamedCase
from loquen.core.graph.nodes import figure, step
from loquen.core.system.heat.balance import OpenWater, settle_c
from loquen.core.system.heat.heaters import unused_when
from loquen.core.timeline.lanes import One
from loquen.core.timeline.process.heat import BAND_K, Heat, set_to_c
from loquen.core.timeline.run import Record, Undisturbed, run
from loquen.core.timeline.state import State, state_of
from loquen.core.timeline.stepper import Step
from loquen.core.timeline.surroundings import Surroundings
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
class FailureCourse:
    """Temperature after something fails, as it goes."""

    key: Key
    label: str
    course: Record[float]


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
def failure_courses(
    heated: bool,
    water_c: float,
    heater_count: float,
    heater_each_w: float,
    equipment_high_w: float,
    equipment_low_w: float,
    loss_cold_w: float,
    loss_warm_w: float,
    walls_w_k: float,
    open_water: OpenWater,
    room_cold_c: float,
    room_warm_c: float,
    real_volume_l: float,
) -> tuple[FailureCourse, ...]:
    """Two days after one heater stuck on, one died, and all power went."""
    unused_when(not heated)
    surface, all_w, others_w = open_water.surface, heater_count * heater_each_w, (heater_count - 1) * heater_each_w
    warm = Heat(walls_w_k, surface, room_warm_c, set_c=set_to_c(water_c, loss_warm_w, equipment_high_w, all_w))
    cold = Heat(walls_w_k, surface, room_cold_c, set_c=set_to_c(water_c, loss_cold_w, equipment_low_w, all_w))
    cases: tuple[tuple[Key, str, Heat], ...] = (
        (
            "stuck_on",
            "one stuck on, hottest day",
            replace(warm, heaters_w=others_w, constant_w=heater_each_w + equipment_high_w),
        ),
        ("one_dead", "one dead, coldest night", replace(cold, heaters_w=others_w, constant_w=equipment_low_w)),
        ("powerless", "all power off, coldest night", cold),
    )
    water: State[float] = state_of(temp_c=water_c)
    return tuple(
        FailureCourse(
            key,
            label,
            run(water, Surroundings(real_volume_l, heat=heat), Undisturbed(), FAILURE_HOURS, One(), ("temp_c",)),
        )
        for key, label, heat in cases
    )


@step()
def failures(
    failure_courses: tuple[FailureCourse, ...], animals_low_c: float | None, animals_high_c: float | None
) -> tuple[Failure, ...]:
    """Each hour by hour, and whether it harms: beyond what they bear by more than a thermostat is off by."""
    inside = borne(
        None if animals_low_c is None else animals_low_c - BAND_K / 2,
        None if animals_high_c is None else animals_high_c + BAND_K / 2,
    )
    rows = [(one.key, one.label, one.course.hours["temp_c"].tolist()) for one in failure_courses]
    return tuple(Failure(key, label, tuple(temps), not all(map(inside, temps))) for key, label, temps in rows)


def course_of(courses: tuple[FailureCourse, ...], key: Key) -> Sequence[Step[float]]:
    return next(one.course.steps for one in courses if one.key == key)


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
    formula="first hour below {animals_low_c} of {failure_courses}",
    source="balance",
)
def cold_in_h(failure_courses: tuple[FailureCourse, ...], animals_low_c: float) -> float:
    return in_two_days(first_of(course_of(failure_courses, "powerless"), "temp_c", below=animals_low_c))


@figure(
    "Hours until a stuck heater harms",
    formula="first hour above {animals_high_c} of {failure_courses}",
    source="balance",
)
def hot_in_h(failure_courses: tuple[FailureCourse, ...], animals_high_c: float) -> float:
    return in_two_days(first_of(course_of(failure_courses, "stuck_on"), "temp_c", above=animals_high_c))


def in_two_days(hour: float | None) -> float:
    """The hour at which a limit is passed; raise NamedCase "not_in_two_days" when none is."""
    if hour is None:
        raise NamedCase("not_in_two_days")
    return hour
