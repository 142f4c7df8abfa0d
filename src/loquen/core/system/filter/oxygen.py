"""Oxygen: who uses it, how it comes in, what is left at dawn, and how long it lasts without power."""

import math
from dataclasses import replace
from typing import Any

from loquen.core.errors import NamedCase
from loquen.core.graph.judging import at_least
from loquen.core.graph.keys import CONSTANT, Key, Missing
from loquen.core.graph.nodes import Verdict, check, figure, step
from loquen.core.graph.sheet import Sheet
from loquen.core.library.rows.animals import Species
from loquen.core.library.rows.machines import FilterKind
from loquen.core.model.inputs.quantity import Sentence, Term, of, say
from loquen.core.physics import animals as biology
from loquen.core.physics import gases
from loquen.core.system.animals.food import require_animals
from loquen.core.timeline.process.constants import table
from loquen.core.timeline.process.oxygen import Oxygen
from loquen.core.timeline.rates import rates, steady_oxygen
from loquen.core.timeline.run import run
from loquen.core.timeline.state import State, state_of
from loquen.core.timeline.surroundings import Surroundings
from loquen.core.timeline.tanks import OneTank
from loquen.core.timeline.watch import Until, first_of

KPA_PER_CM = 0.0980665


@figure(
    "Oxygen the animals use",
    formula="{number} × 0.45 × {mass_then_g}^0.80 × {oxygen_q10}^(({water_c} − 25) ÷ 10) × {oxygen_scale}; "
    "0 for air breathers: {animal}",
    source="clarke1999",
    row="animals",
)
def breathing_oxygen_mg_h(
    number: int, mass_then_g: float, water_c: float, oxygen_scale: float, oxygen_q10: float, animal: Species
) -> float:
    if animal.breathes_air:
        return 0.0
    return number * float(biology.oxygen_use_mg_h(mass_then_g, water_c, warmth_10k=oxygen_q10)) * oxygen_scale


@figure("Oxygen the filter uses", formula="{load_fed_day_mg_d} × {oxygen_per_n} ÷ 24", source="sharma1977")
def nitrifying_oxygen_mg_h(load_fed_day_mg_d: float, oxygen_per_n: float) -> float:
    return load_fed_day_mg_d * oxygen_per_n / 24


@figure("Oxygen decay uses", formula="{feed_full_g_d} × 1000 × {oxygen_per_feed} ÷ 24", source="timmons")
def decay_oxygen_mg_h(feed_full_g_d: float, oxygen_per_feed: float) -> float:
    return feed_full_g_d * 1000 * oxygen_per_feed / 24


@figure(
    "Oxygen used at night",
    formula="Σ {breathing_oxygen_mg_h} + {nitrifying_oxygen_mg_h} + {decay_oxygen_mg_h} + {plant_oxygen_mg_h}",
    source="balance",
)
def night_oxygen_mg_h(
    breathing_oxygen_mg_h: tuple[float, ...],
    nitrifying_oxygen_mg_h: float,
    decay_oxygen_mg_h: float,
    plant_oxygen_mg_h: float,
) -> float:
    return sum(breathing_oxygen_mg_h) + nitrifying_oxygen_mg_h + decay_oxygen_mg_h + plant_oxygen_mg_h


@figure(
    "Oxygen the animals use on the hottest day",
    formula="{breathing_oxygen_mg_h} × {oxygen_q10}^(({hottest_c} − {water_c}) ÷ 10)",
    source="clarke1999",
    row="animals",
)
def hot_breathing_oxygen_mg_h(
    breathing_oxygen_mg_h: float, oxygen_q10: float, hottest_c: float, water_c: float
) -> float:
    return float(breathing_oxygen_mg_h * oxygen_q10 ** ((hottest_c - water_c) / 10))


@figure(
    "Oxygen used in the hottest night",
    formula="Σ {hot_breathing_oxygen_mg_h} + {nitrifying_oxygen_mg_h} + {decay_oxygen_mg_h} + {plant_oxygen_mg_h}",
    source="balance",
)
def hot_night_oxygen_mg_h(
    hot_breathing_oxygen_mg_h: tuple[float, ...],
    nitrifying_oxygen_mg_h: float,
    decay_oxygen_mg_h: float,
    plant_oxygen_mg_h: float,
) -> float:
    return sum(hot_breathing_oxygen_mg_h) + nitrifying_oxygen_mg_h + decay_oxygen_mg_h + plant_oxygen_mg_h


@figure(
    "Oxygen in balance with air on the hottest day",
    formula="Benson & Krause at {hottest_c}, {tank_salinity_ppt}, {altitude_m}",
    source="bensonkrause1984",
)
def hot_saturation_oxygen_mg_l(hottest_c: float, tank_salinity_ppt: float, altitude_m: float) -> float:
    return float(gases.oxygen_saturation_mg_l(hottest_c, tank_salinity_ppt, altitude_m))


@figure(
    "Oxygen in balance with air",
    formula="Benson & Krause at {water_c}, {tank_salinity_ppt}, {altitude_m}",
    source="bensonkrause1984",
)
def saturation_oxygen_mg_l(water_c: float, tank_salinity_ppt: float, altitude_m: float) -> float:
    return float(gases.oxygen_saturation_mg_l(water_c, tank_salinity_ppt, altitude_m))


@figure(
    "Exchange through the still surface",
    formula="{surface_m2} × {transfer_still_m_h} × 1000",
    source="oxygen_transfer",
)
def still_transfer_l_h(surface_m2: float, transfer_still_m_h: float) -> float:
    return float(gases.surface_transfer_l_h(surface_m2, transfer_still_m_h))


@figure(
    "Exchange through the surface",
    formula="{surface_m2} × velocity × 1000, {surface_movement}: {transfer_still_m_h} still, "
    "{transfer_ripple_m_h} rippled, {transfer_strong_m_h} strongly moved",
    source="oxygen_transfer",
)
def surface_transfer_l_h(
    surface_m2: float,
    surface_movement: str,
    transfer_still_m_h: float,
    transfer_ripple_m_h: float,
    transfer_strong_m_h: float,
) -> float:
    velocities = {"still": transfer_still_m_h, "ripple": transfer_ripple_m_h, "strong": transfer_strong_m_h}
    return float(gases.surface_transfer_l_h(surface_m2, velocities[surface_movement]))


@figure(
    "Air that filters let out",
    formula="{rated_lph} × air share of {filter_type}",
    source="practice",
    row="filters",
)
def filter_air_lph(rated_lph: float, filter_type: FilterKind) -> float:
    return rated_lph * filter_type.air_share


@figure(
    "Exchange of air stones and air-driven filters",
    formula="{stone_transfer_l_h} × ({stones_lph} ÷ 60 × {stones_cm}, at most {water_height_cm}, ÷ 30 "
    "+ Σ {filter_air_lph} ÷ 60 × {water_height_cm} ÷ 30)",
    source="oxygen_transfer",
)
def bubble_transfer_l_h(
    stone_transfer_l_h: float,
    stones_lph: float,
    stones_cm: float,
    filter_air_lph: tuple[float, ...],
    water_height_cm: float,
) -> float:
    of_stones = gases.air_stone_transfer_l_h(stones_lph, min(stones_cm, water_height_cm), stone_transfer_l_h)
    of_filters = gases.air_stone_transfer_l_h(sum(filter_air_lph), water_height_cm, stone_transfer_l_h)
    return float(of_stones + of_filters)


@figure(
    "Its water falls",
    formula="{outlet}: {fall_cm} where it returns with the rest, at least {spill_fall_cm} over a lip ({filter_type}) and "
    "{spray_fall_cm} sprayed, 0 under the water",
    source="practice",
    row="filters",
)
def filter_fall_cm(
    outlet: str, filter_type: FilterKind, fall_cm: float, spill_fall_cm: float, spray_fall_cm: float
) -> float:
    if outlet == "submerged":
        return 0.0
    if outlet == "spray":
        return max(fall_cm, spray_fall_cm)
    return max(fall_cm, spill_fall_cm) if outlet == "spill" or filter_type.spills else fall_cm


@figure(
    "Exchange of falling water",
    formula="Σ {real_flow_lph} × (1 − 1 ÷ r), r from a fall of {filter_fall_cm} at {water_c}, shape {fall_shape}; "
    "the same of {return_lph} and {fall_cm}",
    source="weir_aeration",
)
def falling_transfer_l_h(
    real_flow_lph: tuple[float, ...],
    filter_fall_cm: tuple[float, ...],
    return_lph: float,
    fall_cm: float,
    water_c: float,
    fall_shape: float,
) -> float:
    falls = [*zip(real_flow_lph, filter_fall_cm, strict=True), (return_lph, fall_cm)]
    return sum(float(gases.fall_transfer_l_h(flow, fall, water_c, fall_shape)) for flow, fall in falls)


@figure(
    "Gas exchange together",
    formula="{surface_transfer_l_h} + {bubble_transfer_l_h} + {falling_transfer_l_h}",
    source="balance",
)
def whole_transfer_l_h(
    surface_transfer_l_h: float, bubble_transfer_l_h: float, falling_transfer_l_h: float
) -> float:
    return surface_transfer_l_h + bubble_transfer_l_h + falling_transfer_l_h


@figure(
    "Oxygen at dawn",
    formula="{saturation_oxygen_mg_l} − {night_oxygen_mg_h} ÷ {whole_transfer_l_h}, in {real_volume_l}",
    source="balance",
)
def dawn_oxygen_mg_l(
    saturation_oxygen_mg_l: float, night_oxygen_mg_h: float, whole_transfer_l_h: float, real_volume_l: float
) -> float:
    exchange = whole_transfer_l_h / real_volume_l
    return gases.steady_oxygen_mg_l(night_oxygen_mg_h, real_volume_l, exchange, saturation_oxygen_mg_l)


@figure(
    "Oxygen at dawn on the hottest day",
    formula="{hot_saturation_oxygen_mg_l} − {hot_night_oxygen_mg_h} ÷ {whole_transfer_l_h}, in {real_volume_l}",
    source="balance",
)
def hot_dawn_oxygen_mg_l(
    hot_saturation_oxygen_mg_l: float, hot_night_oxygen_mg_h: float, whole_transfer_l_h: float, real_volume_l: float
) -> float:
    exchange = whole_transfer_l_h / real_volume_l
    return gases.steady_oxygen_mg_l(hot_night_oxygen_mg_h, real_volume_l, exchange, hot_saturation_oxygen_mg_l)


@figure(
    "Oxygen they need",
    formula="{oxygen_floor_cool_mg_l} with stream or cool-water animals (bearing no more than {cool_water_to_c}), "
    "else {oxygen_floor_mg_l}; {oxygen_floor_bacteria_mg_l} for the filter alone when all breathe air: {animal}",
    source="boyd1998",
)
def floor_oxygen_mg_l(
    animal: tuple[Species, ...],
    oxygen_floor_cool_mg_l: float,
    oxygen_floor_mg_l: float,
    oxygen_floor_bacteria_mg_l: float,
    cool_water_to_c: float,
) -> float:
    require_animals(animal)
    breathers = [kind for kind in animal if not kind.breathes_air]
    if not breathers:
        return oxygen_floor_bacteria_mg_l
    if any(kind.current == "strong" or kind.temp_high_c <= cool_water_to_c for kind in breathers):
        return oxygen_floor_cool_mg_l
    return oxygen_floor_mg_l


@figure(
    "Hours to that floor with all power off, on the hottest day",
    formula="t at which {hot_dawn_oxygen_mg_l} has sunk to {floor_oxygen_mg_l} in {real_volume_l} at {hottest_c} "
    "({tank_salinity_ppt}, {altitude_m}), {still_transfer_l_h} through the still surface: {hot_breathing_oxygen_mg_h}, "
    "{decay_oxygen_mg_h}, {plant_oxygen_mg_h} and what of {nitrifying_oxygen_mg_h} does not stand still in the filter",
    source="balance",
)
def outage_h(
    hot_dawn_oxygen_mg_l: float,
    floor_oxygen_mg_l: float,
    hot_breathing_oxygen_mg_h: tuple[float, ...],
    nitrifying_oxygen_mg_h: float,
    decay_oxygen_mg_h: float,
    plant_oxygen_mg_h: float,
    real_volume_l: float,
    still_transfer_l_h: float,
    hottest_c: float,
    tank_salinity_ppt: float,
    altitude_m: float,
) -> float:
    outside = (1 - table().media_of_bacteria) * nitrifying_oxygen_mg_h
    still = Oxygen(
        transfer_l_h=still_transfer_l_h,
        breathing_mg_h=sum(hot_breathing_oxygen_mg_h),
        breathing_at_c=hottest_c,
        warmth_10k=1.0,
        decay_mg_h=decay_oxygen_mg_h + outside,
        plants_mg_h=plant_oxygen_mg_h,
        altitude_m=altitude_m,
    )
    around: Surroundings[float] = Surroundings(real_volume_l, oxygen=still)
    water: State[float] = state_of(temp_c=hottest_c, salinity=tank_salinity_ppt, oxygen=hot_dawn_oxygen_mg_l)
    if hot_dawn_oxygen_mg_l <= floor_oxygen_mg_l:
        return 0.0
    at_floor = rates(replace(water, oxygen=floor_oxygen_mg_l), around).oxygen
    if at_floor >= 0:
        raise NamedCase("floor_never_reached", settles=steady_oxygen(water, around))
    # It sinks no slower than at the floor.
    most_h = math.ceil((hot_dawn_oxygen_mg_l - floor_oxygen_mg_l) / -at_floor) + 1
    course = run(water, around, Until("oxygen", floor_oxygen_mg_l), min(most_h, LONGEST_H), OneTank(), ("oxygen",))
    hour = first_of(course.steps, "oxygen", below=floor_oxygen_mg_l)
    if hour is None:
        raise NamedCase("floor_never_reached", settles=steady_oxygen(water, around))
    return hour


LONGEST_H = 2000


@check(
    "Oxygen at dawn",
    stage="heat",
    glass="oxygen",
    judges="hot_dawn_oxygen_mg_l",
    mends=("air.stones_lph", "air.surface_movement", "animals.*.number"),
    caution="An air pump below the water line needs a check valve in its hose, or water runs back into it when it stops.",
)
def dawn_breathes(
    hot_dawn_oxygen_mg_l: float,
    dawn_oxygen_mg_l: float,
    floor_oxygen_mg_l: float,
    hot_night_oxygen_mg_h: float,
    hottest_c: float,
    water_c: float,
    animal_count: float,
) -> Verdict:
    if animal_count == 0:
        raise NamedCase("no_animals")
    reason = say(
        "On the hottest day, at {hot}, {use} are used at night; at dawn {level} are left, {usual} at {kept}. "
        "These animals need {floor}.",
        hot=Term(hottest_c, "temperature", "hottest_c"),
        use=of(hot_night_oxygen_mg_h, "hot_night_oxygen_mg_h"),
        level=of(hot_dawn_oxygen_mg_l, "hot_dawn_oxygen_mg_l"),
        usual=of(dawn_oxygen_mg_l, "dawn_oxygen_mg_l"),
        kept=Term(water_c, "temperature", "water_c"),
        floor=of(floor_oxygen_mg_l, "floor_oxygen_mg_l"),
    )
    return at_least(hot_dawn_oxygen_mg_l, floor_oxygen_mg_l, "oxygen", reason)


def at_better_end(sheet: Sheet[Any]) -> Sentence | None:
    """What would be left at dawn with everything uncertain at its better end, where nothing would at the likely one."""
    if not isinstance(sheet.look("hot_dawn_oxygen_mg_l"), Missing):
        return None
    better: dict[Key, float] = {}

    def spare(changes: dict[Key, float]) -> float:
        changed = sheet.changed(changes)
        figures = ("whole_transfer_l_h", "hot_saturation_oxygen_mg_l", "hot_night_oxygen_mg_h")
        transfer, saturation, used = (float(changed.value(name)) for name in figures)
        return transfer * saturation - used

    likely = spare({})
    for name, row in sheet.constants.items():
        key = CONSTANT + name
        if row.low is None or row.high is None or "hot_dawn_oxygen_mg_l" not in sheet.wiring.users_of(key):
            continue
        most, best = max((spare({key: end}), end) for end in (row.low, row.high))
        if most > likely:
            better[key] = best
    level = sheet.changed(better).look("hot_dawn_oxygen_mg_l") if better else None
    if not isinstance(level, int | float):
        return say("At no end of what is uncertain would any be left.")
    text = "Were all that is uncertain at its better end, surface, bubbles and what they breathe, {level} would be left at dawn."
    return say(text, level=Term(float(level), "oxygen"))


@step()
def outage_result(outage_h: float, floor_oxygen_mg_l: float) -> Sentence:
    return say(
        "With all power off oxygen sinks to {floor} in {hours}.",
        floor=Term(floor_oxygen_mg_l, "oxygen", "floor_oxygen_mg_l"),
        hours=of(outage_h, "outage_h"),
    )


# The air pump -----------------------------------------------------------------------------------


@figure("Air the outlets want", formula="{outlets} × {outlet_lph} × (1 + {air_spare})", source="practice")
def wanted_air_lph(outlets: int, outlet_lph: float, air_spare: float) -> float:
    if outlets == 0:
        raise NamedCase("not_needed")
    return outlets * outlet_lph * (1 + air_spare)


@figure(
    "Pressure they want",
    formula="({outlet_cm} + {air_head_cm}) × 0.0981; outlets: {outlets}",
    source="practice",
)
def wanted_air_kpa(outlet_cm: float, air_head_cm: float, outlets: int) -> float:
    if outlets == 0:
        raise NamedCase("not_needed")
    return (outlet_cm + air_head_cm) * KPA_PER_CM


@check("The air pump gives enough", stage="heat", judges="wanted_air_lph", mends=("air.air_pump_lph",))
def air_enough(wanted_air_lph: float, air_pump_lph: float, outlets: int) -> Verdict:
    reason = say(
        "{count} outlets and one in five to spare want {wanted}; the pump gives {given}.",
        count=Term(outlets, "count"),
        wanted=of(wanted_air_lph, "wanted_air_lph"),
        given=Term(air_pump_lph, "flow"),
    )
    return at_least(air_pump_lph, wanted_air_lph, "flow", reason)


@check(
    "The air pump reaches down", stage="heat", judges="wanted_air_kpa", mends=("air.outlet_cm", "air.air_pump_kpa")
)
def air_reaches(wanted_air_kpa: float, air_pump_kpa: float) -> Verdict:
    reason = say(
        "Depth, stone and hose want {wanted}; the pump gives {given} at most.",
        wanted=of(wanted_air_kpa, "wanted_air_kpa"),
        given=Term(air_pump_kpa, "pressure"),
    )
    return at_least(air_pump_kpa, wanted_air_kpa, "pressure", reason)
