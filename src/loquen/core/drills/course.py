"""The hours after something breaks: one coupled run of a system's water, with all that breathes, rots, warms and flows."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from functools import cached_property
from typing import Any

import numpy as np

from loquen.core.data.tables import constants
from loquen.core.drills.failing import Failure, HeaterDead, HeaterStuck, failure_of
from loquen.core.drills.scenario import Scenario, System, in_light
from loquen.core.errors import UnknownKey
from loquen.core.physics.elementwise import Array
from loquen.core.physics.ranges import within
from loquen.core.timeline.process.carbonate import room_co2_mg_l
from loquen.core.timeline.process.constants import table
from loquen.core.timeline.process.heat import Heat, Surface
from loquen.core.timeline.process.nitrogen import Bacteria
from loquen.core.timeline.process.oxygen import Oxygen, breathe
from loquen.core.timeline.process.rot import Rot
from loquen.core.timeline.rates import free_ammonia, hydrogen, steady_oxygen, used_by_bacteria
from loquen.core.timeline.run import Record
from loquen.core.timeline.run import run as run_through
from loquen.core.timeline.state import NAMES, State, state_of, unmoved
from loquen.core.timeline.surroundings import Surroundings
from loquen.core.timeline.tanks import OneTank
from loquen.core.timeline.watch import first_h

MINUTES = 60


@dataclass(frozen=True)
class Course:
    """A run hour by hour: each an array over the whole hours from 0, and the moments between them by `first`."""

    record: Record[float]

    @cached_property
    def hours(self) -> Mapping[str, Array]:
        """Every quantity at whole hours, just before whatever happens then."""
        return quantities(self.record.hours)

    def __getattr__(self, name: str) -> Array:
        if name.startswith("_") or name not in QUANTITIES:
            raise AttributeError(name)
        return self.hours[name]

    @cached_property
    def minutes(self) -> tuple[Array, Mapping[str, Array]]:
        """Hours no more than a minute apart, and every quantity at each; at a jump the hour stands twice."""
        times, levels = [np.zeros(1)], [np.array([[self.record.hours[name][0] for name in NAMES]])]
        for step in self.record.steps:
            parts = max(2, int(np.ceil((step.end_h - step.start_h) * MINUTES)) + 1)
            hours = np.linspace(step.start_h, step.end_h, parts)
            times.append(hours)
            levels.append(step.at(hours, NAMES))
        every = np.concatenate(levels)
        return np.concatenate(times), quantities({name: every[:, place] for place, name in enumerate(NAMES)})

    def first(self, quantity: str, below: float | None = None, above: float | None = None) -> float | None:
        """The hour at which a quantity first passes a limit; None where it does not. Raise UnknownKey."""
        if quantity not in QUANTITIES:
            raise UnknownKey("quantities of a course", quantity)
        hours, levels = self.minutes
        return first_h(hours, levels[quantity], below=below, above=above)


QUANTITIES = (
    "temp_c",
    "oxygen_mg_l",
    "co2_mg_l",
    "ph",
    "ammonia_mg_l_n",
    "free_ammonia_mg_l_n",
    "nitrite_mg_l_n",
    "nitrate_mg_l_n",
    "capacity_ammonia_mg_l_d",
    "capacity_nitrite_mg_l_d",
    "kh_dkh",
    "salinity_ppt",
    "chlorine_mg_l",
    "volume_l",
    "floor_l",
)


def quantities(levels: Mapping[str, Array]) -> Mapping[str, Array]:
    """The levels of a state over time as what is asked of a course."""
    water = State(**levels)
    bare: Surroundings[Array] = Surroundings()
    found = (
        water.temp_c,
        water.oxygen,
        water.carbon_dioxide,
        -np.log10(hydrogen(water, bare)),
        water.ammonia,
        free_ammonia(water, bare),
        water.nitrite,
        water.nitrate,
        water.on_ammonia + water.wall_on_ammonia,
        water.on_nitrite + water.wall_on_nitrite,
        water.kh,
        water.salinity,
        water.chlorine + water.chloramine,
        water.volume_l,
        water.floor_l,
    )
    return dict(zip(QUANTITIES, found, strict=True))


def run(
    *,
    hours: int = 72,
    start_hour: float = 0,
    volume_l: float,
    brim_l: float | None = None,
    pump_dry_l: float = 0,
    temp_c: float,
    set_c: float | None = None,
    heaters_w: Sequence[float] = (),
    ua_w_k: float,
    surface_m2: float,
    cover_frac: float = 1,
    humidity_frac: float = 0.5,
    room_c: float,
    equipment_w: float = 0,
    top_up: bool = True,
    oxygen_mg_l: float | None = None,
    co2_mg_l: float = 2,
    transfer_running_l_h: float,
    transfer_still_l_h: float,
    transfer_air_l_h: float = 0,
    breathing_mg_h: float,
    decay_mg_h: float = 0,
    plants_night_mg_h: float = 0,
    plants_day_mg_h: float = 0,
    lamps_from_h: float = 10,
    lamps_until_h: float = 18,
    load_mg_d: float,
    protein_frac: float = 0.45,
    ammonia_mg_l_n: float = 0,
    nitrite_mg_l_n: float = 0,
    nitrate_mg_l_n: float = 5,
    capacity_ammonia_mg_l_d: float,
    capacity_nitrite_mg_l_d: float,
    x_max_mg_l_d: float | None = None,
    in_filter_frac: float = 0.8,
    filter_l: float = 5,
    filter_use_mg_h: float = 20,
    kh_dkh: float = 6,
    salinity_ppt: float = 0,
    altitude_m: float = 0,
    failures: Sequence[Mapping[str, Any]] = (),
) -> Course:
    """The hours after something breaks.

    Equation: the rates of `timeline.rates`, all phenomena at work, steps as short as the fastest of them asks
    Parameters:
        hours: h, scalar, 1 to 2400. How long it is looked at.
        start_hour: h, scalar, 0 to 24. Of the day, at which the run begins.
        volume_l: L, scalar, 1 to 1e7. System's water.
        brim_l: L, scalar or None. At which it runs over.
        pump_dry_l: L, scalar. Under which the pump runs dry and stops.
        temp_c: °C, scalar, 0 to 45. Of the water at the start.
        set_c: °C, scalar or None. Of the thermostats; None is unheated.
        heaters_w: W, each.
        ua_w_k: W/K, scalar, 0 to 1e6. Lost through the walls and the open surface.
        surface_m2: m², scalar, 0 to 10000. Open water.
        cover_frac: share, scalar, 0 to 1. Of it under a lid.
        humidity_frac: share, scalar, 0 to 1. Of the room.
        room_c: °C, scalar, -30 to 60. Of the room.
        equipment_w: W, scalar. That warms the water besides.
        top_up: whether what evaporates is replaced.
        oxygen_mg_l: mg/L, scalar or None. At the start; None is the steady level with everything running.
        co2_mg_l: mg/L, scalar, 0 to 200. At the start, never less than in balance with the room's air.
        transfer_running_l_h: L/h, scalar, 0 to 1e7. Gas exchange while pumps run.
        transfer_still_l_h: L/h, scalar, 0 to 1e7. The same of still water.
        transfer_air_l_h: L/h, scalar, 0 to 1e7. Added by the air pump.
        breathing_mg_h: mg/h, scalar, 0 to 1e8. Oxygen of the animals that breathe water, at the start's temperature.
        decay_mg_h: mg/h, scalar. Oxygen of decay.
        plants_night_mg_h: mg/h, scalar. Oxygen that plants use in the dark.
        plants_day_mg_h: mg/h, scalar. Oxygen that they give in the light.
        lamps_from_h: h, scalar, 0 to 24. Of the day.
        lamps_until_h: h, scalar, 0 to 24. Of the day.
        load_mg_d: mg/d, scalar, 0 to 1e8. Nitrogen made as ammonia.
        protein_frac: share, scalar, 0 to 1. Of the food.
        ammonia_mg_l_n: mg/L N, scalar. At the start.
        nitrite_mg_l_n: mg/L N, scalar. At the start.
        nitrate_mg_l_n: mg/L N, scalar. At the start.
        capacity_ammonia_mg_l_d: mg/L N/d, scalar. Of the ammonia-oxidisers, per litre of volume_l.
        capacity_nitrite_mg_l_d: mg/L N/d, scalar. Of the nitrite-oxidisers.
        x_max_mg_l_d: mg/L N/d, scalar or None. The most that their surfaces carry.
        in_filter_frac: share, scalar, 0 to 1. Of both that lives in the filter.
        filter_l: L, scalar. Of water inside the filter.
        filter_use_mg_h: mg/h, scalar. Oxygen used inside a filter that stands.
        kh_dkh: dKH, scalar, 0 to 40. At the start.
        salinity_ppt: ppt, scalar, 0 to 45. At the start.
        altitude_m: m, scalar, -500 to 6000. Above the sea.
        failures: what breaks, each with its kind, from_h, until_h and what failing.KINDS asks of it.
    Returns: a Course.
    Raises: OutOfRange; UnknownKey; NamedCase "failure_untold".
    Source: balance
    """
    within("hours", hours, 1, 2400, "h")
    within("start_hour", start_hour, 0, 24, "h")
    within("volume_l", volume_l, 1, 1e7, "L")
    within("temp_c", temp_c, 0, 45, "°C")
    within("ua_w_k", ua_w_k, 0, 1e6, "W/K")
    within("room_c", room_c, -30, 60, "°C")
    within("filter_l", filter_l, 0.01, 1e6, "L")
    within("in_filter_frac", in_filter_frac, 0, 1, "share")
    within("salinity_ppt", salinity_ppt, 0, 45, "ppt")
    c, rows = table(), constants()
    surface = Surface(
        float(surface_m2),
        float(cover_frac),
        float(humidity_frac),
        rows["calm_surface"].value,
        rows["cover_effect"].value,
    )
    heaters = tuple(map(float, heaters_w))
    system = System(
        start_hour=float(start_hour),
        brim_l=None if brim_l is None else float(brim_l),
        pump_dry_l=float(pump_dry_l),
        heaters_w=heaters,
        heated=set_c is not None,
        room_c=float(room_c),
        equipment_w=float(equipment_w),
        top_up=top_up,
        heat=Heat(
            walls_w_k=float(ua_w_k),
            surface=surface,
            room_c=float(room_c),
            set_c=float(set_c or 0.0),
            heaters_w=sum(heaters) if set_c is not None else 0.0,
            constant_w=float(equipment_w),
        ),
        oxygen=Oxygen(
            transfer_l_h=float(transfer_running_l_h + transfer_air_l_h),
            breathing_mg_h=float(breathing_mg_h),
            breathing_at_c=float(temp_c),
            warmth_10k=rows["oxygen_q10"].value,
            decay_mg_h=float(decay_mg_h),
            plants_mg_h=float(plants_night_mg_h),
            altitude_m=float(altitude_m),
        ),
        transfer_running_l_h=float(transfer_running_l_h),
        transfer_still_l_h=float(transfer_still_l_h),
        transfer_air_l_h=float(transfer_air_l_h),
        plants_day_mg_h=float(plants_day_mg_h),
        lamps_from_h=float(lamps_from_h),
        lamps_until_h=float(lamps_until_h),
        load_mg_d=float(load_mg_d),
        rot=Rot(float(protein_frac)),
        bacteria=Bacteria(
            load_mg_h=load_mg_d / 24,
            growth_a=c.growth_ammonia_oxidisers,
            growth_n=c.growth_nitrite_oxidisers,
            half_a=c.half_ammonia_mg_l,
            half_n=c.half_nitrite_mg_l,
            per_most_capacity=1 / x_max_mg_l_d if x_max_mg_l_d else 0.0,
            counted_l=float(volume_l),
            walls=True,
        ),
        filter_use_mg_l_h=filter_use_mg_h / filter_l,
    )
    water: State[float] = state_of(
        temp_c=float(temp_c),
        volume_l=float(volume_l),
        carbon_dioxide=max(float(co2_mg_l), room_co2_mg_l(float(temp_c))),
        ammonia=float(ammonia_mg_l_n),
        nitrite=float(nitrite_mg_l_n),
        nitrate=float(nitrate_mg_l_n),
        on_ammonia=in_filter_frac * capacity_ammonia_mg_l_d,
        on_nitrite=in_filter_frac * capacity_nitrite_mg_l_d,
        wall_on_ammonia=(1 - in_filter_frac) * capacity_ammonia_mg_l_d,
        wall_on_nitrite=(1 - in_filter_frac) * capacity_nitrite_mg_l_d,
        kh=float(kh_dkh),
        salinity=float(salinity_ppt),
    )
    told = [failure_of(failure) for failure in failures]
    check_heaters(told, len(heaters))
    return course_of(system, water, told, hours, None if oxygen_mg_l is None else float(oxygen_mg_l))


def check_heaters(failures: Sequence[Failure], count: int) -> None:
    """Raise UnknownKey for a heater that is not there."""
    for failure in failures:
        if isinstance(failure, HeaterStuck | HeaterDead) and not 0 <= failure.heater < count:
            raise UnknownKey("heaters", str(failure.heater))


def course_of(
    system: System, water: State[float], failures: Sequence[Failure], hours: int, oxygen: float | None = None
) -> Course:
    """The course of a system's water; its oxygen is the steady one where none is told."""
    normal = system.around(per_oxygen=table().co2_per_oxygen)
    begins = replace(normal, oxygen=in_light(system.oxygen, system)) if system.lit(0.0) else normal
    water = replace(water, oxygen=steady_oxygen(water, begins) if oxygen is None else oxygen)
    normal = system.around(per_oxygen=given_off(water, begins))
    return Course(run_through(water, normal, Scenario(system, failures, normal), hours, OneTank()))


def given_off(water: State[float], around: Surroundings[float]) -> float:
    """Carbon dioxide given off per oxygen used (mg/mg) that makes a start stand still; the usual where that is none."""
    c = table()
    assert around.oxygen is not None
    used = used_by_bacteria(water, around)
    taken = breathe(water, around.oxygen, used, None, water.volume_l, unmoved())
    over = water.carbon_dioxide - room_co2_mg_l(water.temp_c)
    leaves = c.co2_against_oxygen * around.oxygen.transfer_l_h * over
    return float(leaves / taken) if taken > 0 and leaves > 0 else float(c.co2_per_oxygen)
