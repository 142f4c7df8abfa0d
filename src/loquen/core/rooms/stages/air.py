"""Air for the tanks from one blower, what evaporates into the room, and the electricity of everything in it."""

import math

from loquen.core.errors import NamedCase
from loquen.core.graph.judging import at_least, by_practice
from loquen.core.graph.nodes import Verdict, check, figure, step
from loquen.core.model.inputs.quantity import Sentence, Term, of, say
from loquen.core.physics.heat import vapour_pressure_kpa
from loquen.core.rooms.stages.racks import Standing, Tank
from loquen.core.system.filter.oxygen import KPA_PER_CM

VAPOUR_J_KG_K = 461.5
KELVIN = 273.15
AIR_KG_M3 = 1.2
AIR_FRICTION = 0.025
LPH_PER_M3_S = 3.6e6
DAYS_YEAR = 365.25


@figure(
    "Air the tanks want", formula="{tank_number} × {air_outlets} × {air_lph} × (1 + {air_spare})", source="practice"
)
def wanted_blower_lph(tank_number: float, air_outlets: int, air_lph: float, air_spare: float) -> float:
    if air_outlets == 0:
        raise NamedCase("not_needed")
    return tank_number * air_outlets * air_lph * (1 + air_spare)


@figure(
    "Lost along the main",
    formula="0.025 × {air_main_m} ÷ d × 1.2 × v² ÷ 2, d {air_main_mm}, v from {wanted_blower_lph}",
    source="crane410",
)
def air_main_kpa(wanted_blower_lph: float, air_main_m: float, air_main_mm: float) -> float:
    return lost_kpa(wanted_blower_lph, air_main_m, air_main_mm)


def lost_kpa(flow_lph: float, length_m: float, bore_mm: float) -> float:
    """Lost by air in a pipe, at a usual friction."""
    bore = bore_mm / 1000
    speed = flow_lph / LPH_PER_M3_S / (math.pi / 4 * bore**2)
    return AIR_FRICTION * length_m / bore * AIR_KG_M3 * speed**2 / 2 / 1000


@figure(
    "Lost along the fullest rack",
    formula="⅓ of 0.025 × length of all shelves ÷ d × 1.2 × v² ÷ 2, d {air_branch_mm}, v for its share of {wanted_blower_lph} by its "
    "{tanks}, {standing}",
    source="crane410",
)
def air_branch_kpa(
    wanted_blower_lph: float, tanks: tuple[Tank, ...], standing: tuple[Standing, ...], air_branch_mm: float
) -> float:
    if not standing:
        raise NamedCase("no_racks")
    found = []
    for nth, rack in enumerate(standing, 1):
        own = [tank for tank in tanks if tank.rack == nth]
        shelves = len({tank.shelf for tank in own})
        flow = wanted_blower_lph * len(own) / len(tanks)
        # What leaves evenly on the way loses a third of what would go through to the end.
        found.append(lost_kpa(flow, shelves * rack.length_cm / 100, air_branch_mm) / 3)
    return max(found)


@figure(
    "Pressure they want",
    formula="({deepest_air_cm} + {air_head_cm}) × 0.0981 + {air_main_kpa} + {air_branch_kpa}",
    source="practice",
)
def wanted_blower_kpa(
    deepest_air_cm: float, air_head_cm: float, air_main_kpa: float, air_branch_kpa: float
) -> float:
    return (deepest_air_cm + air_head_cm) * KPA_PER_CM + air_main_kpa + air_branch_kpa


@check("The blower gives enough", stage="air", judges="wanted_blower_lph", mends=("blower.blower_lph",))
def blower_enough(wanted_blower_lph: float, blower_lph: float, tank_number: float) -> Verdict:
    reason = say(
        "{tanks} tanks, one outlet in five to spare, want {wanted}; the blower gives {given}.",
        tanks=Term(tank_number, "count"),
        wanted=of(wanted_blower_lph, "wanted_blower_lph"),
        given=Term(blower_lph, "flow"),
    )
    return at_least(blower_lph, wanted_blower_lph, "flow", reason)


@check(
    "The blower reaches down",
    stage="air",
    judges="wanted_blower_kpa",
    mends=("blower.blower_kpa", "blower.air_main_mm", "blower.air_branch_mm"),
    caution="A check valve in each drop where the blower stands below the water, and the main over the highest rim.",
)
def blower_reaches(
    wanted_blower_kpa: float, air_main_kpa: float, air_branch_kpa: float, blower_kpa: float
) -> Verdict:
    reason = say(
        "Depth, stone, a main that loses {lost} and a rack that loses {branch} want {wanted}; the blower gives {given} at most.",
        lost=of(air_main_kpa, "air_main_kpa"),
        branch=of(air_branch_kpa, "air_branch_kpa"),
        wanted=of(wanted_blower_kpa, "wanted_blower_kpa"),
        given=Term(blower_kpa, "pressure"),
    )
    return at_least(blower_kpa, wanted_blower_kpa, "pressure", reason)


@figure(
    "Evaporates into the room",
    formula="sum of each system's own over {tanks}",
    source="ashrae_pools",
    kind="volume_per_day",
)
def room_evaporation_l_d(tanks: tuple[Tank, ...]) -> float:
    known = [tank.line.evaporation_l_d for tank in tanks if tank.line and tank.line.evaporation_l_d is not None]
    if not known:
        raise NamedCase("no_loads")
    return sum(known)


def vapour_g_m3(temp_c: float, humidity_frac: float) -> float:
    """Water in a cubic metre of air."""
    return float(vapour_pressure_kpa(temp_c)) * humidity_frac * 1e6 / (VAPOUR_J_KG_K * (temp_c + KELVIN))


@figure(
    "Air that must be changed for it",
    formula="{room_evaporation_l_d} × 1000 ÷ 24 ÷ (vapour at {air_c} and {humid_frac} − vapour at {outside_c} and {outside_humid_frac})",
    source="balance",
)
def vent_m3_h(
    room_evaporation_l_d: float, air_c: float, humid_frac: float, outside_c: float, outside_humid_frac: float
) -> float:
    carries = vapour_g_m3(air_c, humid_frac) - vapour_g_m3(outside_c, outside_humid_frac)
    if carries <= 0:
        raise NamedCase("outside_as_damp")
    return room_evaporation_l_d * 1000 / 24 / carries


@check(
    "The room stays dry enough",
    stage="air",
    judges="vent_m3_h",
    mends=("blower.fan_m3_h",),
    caution="Mould and condensation on cold walls and sockets; lids keep most of it in the tanks.",
)
def room_dry(vent_m3_h: float, fan_m3_h: float, room_evaporation_l_d: float, humid_frac: float) -> Verdict:
    reason = say(
        "{litres} evaporate; to keep the air at {humid} {wanted} of it must be changed, {given} are.",
        litres=of(room_evaporation_l_d, "room_evaporation_l_d", "volume_per_day"),
        humid=Term(humid_frac, "share"),
        wanted=of(vent_m3_h, "vent_m3_h"),
        given=Term(fan_m3_h, "ventilation"),
    )
    # Lids, a window and a dehumidifier do the same: it is told, and never red.
    return by_practice(at_least(fan_m3_h, vent_m3_h, "ventilation", reason), vent_m3_h, vent_m3_h)


@figure(
    "Electricity a year",
    formula="sum of each system's own over {tanks} + {blower_w} × 24 × 365.25 ÷ 1000 + {changer_kwh} × 52",
    source="balance",
)
def room_year_kwh(tanks: tuple[Tank, ...], blower_w: float, changer_kwh: float | None) -> float:
    own = sum(tank.line.year_kwh for tank in tanks if tank.line)
    return own + blower_w * 24 * DAYS_YEAR / 1000 + (changer_kwh or 0.0) * 52


@step()
def air_result(wanted_blower_lph: float, wanted_blower_kpa: float, room_year_kwh: float) -> Sentence:
    return say(
        "The tanks want {flow} of air at {kpa}; everything in the room takes {kwh} a year, the changer as in winter.",
        flow=of(wanted_blower_lph, "wanted_blower_lph"),
        kpa=of(wanted_blower_kpa, "wanted_blower_kpa"),
        kwh=of(room_year_kwh, "room_year_kwh"),
    )
