"""A system whose parts break: what is around its water from one hour to the next."""

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace

from loquen.core.drills.failing import (
    Air,
    BatteryAir,
    Change,
    Death,
    Dose,
    Failure,
    FilterClogged,
    HeaterDead,
    HeaterStuck,
    Hose,
    Leaking,
    MediaLost,
    NewWater,
    NoLamps,
    Overfed,
    Power,
    Pump,
    Room,
    TopUpEmpty,
    of_kind,
)
from loquen.core.timeline.process.carbonate import CarbonDioxide, room_co2_mg_l
from loquen.core.timeline.process.constants import table
from loquen.core.timeline.process.heat import Heat
from loquen.core.timeline.process.levels import Inflow, Leak, Levels
from loquen.core.timeline.process.nitrogen import Bacteria
from loquen.core.timeline.process.oxygen import Oxygen, balance_mg_l
from loquen.core.timeline.process.rot import Rot
from loquen.core.timeline.process.stagnation import Stagnation
from loquen.core.timeline.run import HOURS, Undisturbed
from loquen.core.timeline.state import State
from loquen.core.timeline.surroundings import Surroundings

MOMENT_H = 1e-9


@dataclass(frozen=True, slots=True, kw_only=True)
class System:
    """A system as it stands before anything breaks, in the keywords of `course.run`."""

    start_hour: float
    brim_l: float | None
    pump_dry_l: float
    heaters_w: tuple[float, ...]
    heated: bool
    room_c: float
    equipment_w: float
    top_up: bool
    heat: Heat
    """With everything working, in a room at `room_c`."""
    oxygen: Oxygen
    """In the dark, with everything working."""
    transfer_running_l_h: float
    transfer_still_l_h: float
    transfer_air_l_h: float
    plants_day_mg_h: float
    lamps_from_h: float
    lamps_until_h: float
    load_mg_d: float
    rot: Rot
    bacteria: Bacteria[float]
    filter_use_mg_l_h: float
    """Oxygen that the water inside a filter that stands loses in an hour."""

    def lit(self, hour: float) -> bool:
        """Whether the lamps burn at an hour of the run, if nothing keeps them from it."""
        clock = (self.start_hour + hour + MOMENT_H) % HOURS
        start, end = self.lamps_from_h, self.lamps_until_h
        return start <= clock < end if start <= end else clock >= start or clock < end

    def around(self, per_oxygen: float) -> Surroundings[float]:
        """What is around its water while everything works, in the dark."""
        return Surroundings(
            heat=self.heat,
            levels=Levels(brim_l=self.brim_l, topped_up=self.top_up),
            oxygen=self.oxygen,
            carbon_dioxide=CarbonDioxide(per_oxygen, table().co2_against_oxygen),
            bacteria=self.bacteria,
            rot=self.rot,
            disinfected=True,
        )


@dataclass(frozen=True, slots=True)
class Moment:
    """How a run's water stands to what turns by itself: dry pump, full to the brim, leaks come down, a filter airless."""

    dry: bool
    full: bool
    drained: tuple[bool, ...]
    airless: bool


class Scenario(Undisturbed[float]):
    """What breaks, is mended and is put in, as the turns of a run."""

    def __init__(self, system: System, failures: Sequence[Failure], normal: Surroundings[float]) -> None:
        self.system, self.failures, self.normal = system, tuple(failures), normal
        self.hoses = {id(failure): inflow(failure, failure.lph, system) for failure in of_kind(failures, Hose)}
        self.waiting = sorted(
            (one for one in failures if isinstance(one, Overfed | Death | MediaLost | Change | Dose)),
            key=lambda one: one.from_h,
        )
        self.bodies: dict[int, float] = {}
        """Of each dead animal that lies in the water, its part of all that does."""
        self.stands, self.pumps = False, True
        self.airless_from_h: float | None = None
        self.moment: Moment | None = None
        self.active: tuple[Failure, ...] = ()

    # The turns ----------------------------------------------------------------------------------

    def next_h(self, hour: float) -> float:
        """When something begins or ends next, or the lamps are switched, or the room takes another way."""
        times = [self.next_lamp_h(hour)]
        for failure in self.failures:
            times += [failure.from_h, failure.until_h]
            if isinstance(failure, Room):
                times += [failure.from_h + place for place in range(len(failure.temps_c))]
        return min((time for time in times if time > hour), default=math.inf)

    def next_lamp_h(self, hour: float) -> float:
        clock = (self.system.start_hour + hour) % HOURS
        waits = [(switch - clock) % HOURS for switch in (self.system.lamps_from_h, self.system.lamps_until_h)]
        return hour + min(wait if wait > MOMENT_H else HOURS for wait in waits)

    def turned(self, state: State[float]) -> bool:
        """Whether the water has come to where something turns by itself."""
        return self.moment_of(state) != self.moment

    def happened(
        self, hour: float, state: State[float], around: Surroundings[float]
    ) -> tuple[State[float], Surroundings[float]]:
        """What begins, ends and is put in at this hour, and how things stand then."""
        self.active = tuple(failure for failure in self.failures if failure.lasts(hour))
        state = self.put_in(hour, self.found(hour, state))
        state = self.filter_turns(hour, state)
        self.moment = self.moment_of(state)
        return state, self.around(hour)

    # What is put in and taken out ---------------------------------------------------------------

    def put_in(self, hour: float, state: State[float]) -> State[float]:
        """After all that is put in at once until this hour."""
        while self.waiting and self.waiting[0].from_h <= hour:
            match self.waiting.pop(0):
                case Overfed(dry_g=dry_g):
                    state = replace(state, food_g=state.food_g + dry_g)
                case Death(wet_g=wet_g) as death:
                    self.bodies = {**self.lying(state.body_g), id(death): wet_g}
                    state = replace(state, body_g=state.body_g + wet_g)
                case MediaLost(share=share):
                    left = 1 - share
                    state = replace(state, on_ammonia=left * state.on_ammonia, on_nitrite=left * state.on_nitrite)
                case Change() as change:
                    state = changed(state, change, self.system)
                case Dose() as dose:
                    state = replace(
                        state,
                        oxygen=state.oxygen + dose.oxygen_mg_l,
                        kh=state.kh + dose.kh_dkh,
                        ammonia=state.ammonia + dose.ammonia_mg_l_n,
                        nitrite=state.nitrite + dose.nitrite_mg_l_n,
                    )
        return state

    def found(self, hour: float, state: State[float]) -> State[float]:
        """After the dead that are found by this hour are taken out."""
        for death in of_kind(self.failures, Death):
            if death.until_h <= hour and id(death) in self.bodies:
                lying = self.lying(state.body_g)
                state = replace(state, body_g=max(0.0, state.body_g - lying.pop(id(death))))
                self.bodies = lying
        return state

    def lying(self, body_g: float) -> dict[int, float]:
        """Grams of each that lies in the water: all rot alike."""
        whole = sum(self.bodies.values())
        return {key: grams * body_g / whole for key, grams in self.bodies.items()} if whole > 0 else {}

    # How things stand ---------------------------------------------------------------------------

    def has(self, *kinds: type[Failure]) -> bool:
        return any(isinstance(failure, kinds) for failure in self.active)

    def pumping(self, state: State[float]) -> bool:
        return not self.has(Power, Pump) and state.volume_l >= self.system.pump_dry_l

    def filter_turns(self, hour: float, state: State[float]) -> State[float]:
        """After the filter stopped, ran out of oxygen or started again."""
        self.pumps = self.pumping(state)
        stands = not self.pumps or self.has(FilterClogged)
        if stands and not self.stands:
            state = replace(state, filter_oxygen=state.oxygen)
        if stands and self.airless_from_h is None and state.filter_oxygen <= 0:
            self.airless_from_h = hour
        if not stands and self.stands:
            airless_h = 0.0 if self.airless_from_h is None else hour - self.airless_from_h
            given_mg = self.system.load_mg_d * table().airless_gives_of_load * min(1.0, airless_h / HOURS)
            state = replace(state, ammonia=state.ammonia + given_mg / state.volume_l)
            self.airless_from_h = None
        self.stands = stands
        return state

    def moment_of(self, state: State[float]) -> Moment:
        system = self.system
        return Moment(
            dry=state.volume_l < system.pump_dry_l,
            full=system.brim_l is not None and state.volume_l >= system.brim_l,
            drained=tuple(state.volume_l <= leak.down_to_l for leak in of_kind(self.active, Leaking)),
            airless=self.stands and state.filter_oxygen <= 0,
        )

    def around(self, hour: float) -> Surroundings[float]:
        """What is around the water from this hour on."""
        system, powered = self.system, not self.has(Power)
        return replace(
            self.normal,
            heat=self.heat(hour, powered),
            levels=Levels(
                inflows=tuple(self.hoses[id(hose)] for hose in of_kind(self.active, Hose)),
                leaks=tuple(Leak(leak.lph, leak.down_to_l) for leak in of_kind(self.active, Leaking)),
                brim_l=system.brim_l,
                topped_up=system.top_up and not self.has(TopUpEmpty),
            ),
            oxygen=self.oxygen(hour, powered),
            bacteria=replace(system.bacteria, filter_runs=not self.stands),
            stagnation=Stagnation(system.filter_use_mg_l_h) if self.stands else None,
        )

    def oxygen(self, hour: float, powered: bool) -> Oxygen:
        system = self.system
        transfer = system.transfer_running_l_h if self.pumps else system.transfer_still_l_h
        if powered and not self.has(Air):
            transfer += system.transfer_air_l_h
        transfer += sum(air.transfer_l_h for air in of_kind(self.active, BatteryAir))
        lit = powered and system.lit(hour) and not self.has(NoLamps)
        dark = replace(system.oxygen, transfer_l_h=transfer)
        return in_light(dark, system) if lit else dark

    def heat(self, hour: float, powered: bool) -> Heat:
        system = self.system
        room_c, room_k_h = self.room(hour)
        if not powered:
            return replace(system.heat, room_c=room_c, room_k_h=room_k_h, heaters_w=0.0, constant_w=0.0)
        dead = {failure.heater for failure in of_kind(self.active, HeaterDead)}
        stuck = {failure.heater for failure in of_kind(self.active, HeaterStuck)} - dead
        watts = dict(enumerate(system.heaters_w))
        return replace(
            system.heat,
            room_c=room_c,
            room_k_h=room_k_h,
            heaters_w=sum(w for n, w in watts.items() if n not in dead | stuck) if system.heated else 0.0,
            constant_w=system.equipment_w + sum(w for n, w in watts.items() if n in stuck),
        )

    def room(self, hour: float) -> tuple[float, float]:
        """The room's temperature, and how it moves an hour, until the next hour at which anything turns."""
        for failure in of_kind(self.active, Room):
            temps, since = failure.temps_c, hour - failure.from_h
            place = int(since)
            if place >= len(temps) - 1:
                return temps[-1], 0.0
            slope = temps[place + 1] - temps[place]
            return temps[place] + slope * (since - place), slope
        return self.system.room_c, 0.0


def in_light(oxygen: Oxygen, system: System) -> Oxygen:
    """Oxygen while the lamps burn: plants give it."""
    return replace(oxygen, plants_mg_h=0.0, given_mg_h=system.plants_day_mg_h)


def inflow(water: NewWater, lph: float, system: System) -> Inflow:
    """New water with what it brings: oxygen and carbon dioxide in balance with the air."""
    return Inflow(
        lph=lph,
        temp_c=water.c,
        oxygen=balance_mg_l(water.c, water.salinity_ppt, system.oxygen.altitude_m),
        carbon_dioxide=room_co2_mg_l(water.c),
        kh=water.kh_dkh,
        nitrate=water.nitrate_mg_l_n,
        salinity=water.salinity_ppt,
        chlorine=0.0 if water.chloramine else water.chlorine_mg_l,
        chloramine=water.chlorine_mg_l if water.chloramine else 0.0,
    )


def changed(state: State[float], change: Change, system: System) -> State[float]:
    """After a share of the water is another."""
    new, share = inflow(change, 0.0, system), change.share
    return replace(
        state,
        temp_c=state.temp_c + share * (new.temp_c - state.temp_c),
        oxygen=state.oxygen + share * (new.oxygen - state.oxygen),
        carbon_dioxide=state.carbon_dioxide + share * (new.carbon_dioxide - state.carbon_dioxide),
        ammonia=state.ammonia * (1 - share),
        nitrite=state.nitrite * (1 - share),
        nitrate=state.nitrate + share * (new.nitrate - state.nitrate),
        kh=state.kh + share * (new.kh - state.kh),
        salinity=state.salinity + share * (new.salinity - state.salinity),
        chlorine=state.chlorine + share * (new.chlorine - state.chlorine),
        chloramine=state.chloramine + share * (new.chloramine - state.chloramine),
    )
