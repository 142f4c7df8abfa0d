"""Energy and money a year, and what the circuit carries."""

import math

from loquen.core.graph.asking import number
from loquen.core.graph.judging import at_most
from loquen.core.graph.nodes import Verdict, check, figure
from loquen.core.graph.sheet import Sheet
from loquen.core.model.inputs.quantity import Term, of, say
from loquen.core.model.roots.plan import Plan
from loquen.core.system.heat.balance import OpenWater

RUNNING = ("heating_kwh", "chilling_kwh", "fan_kwh", "equipment_kwh")
"""Figures of what a system draws in a year, without what warms its change water before it is poured."""
DAYS_IN_MONTH = (31, 28.25, 31, 30, 31, 30, 31, 31, 30, 31, 30, 31)


@figure(
    "Heating energy a year",
    formula="Σ over months of ({walls_w_k} × ({water_c} − room) + evaporation + {change_heat_w} − pumps and lamp) × hours ÷ 1000, at most {heaters_w}; "
    "room {room_months_c} or {room_mean_c}, {open_water}, {equipment_mean_w}; heated: {heated}",
    source="balance",
)
def heating_kwh(
    walls_w_k: float,
    water_c: float,
    change_heat_w: float,
    room_months_c: tuple[float, ...] | None,
    room_mean_c: float,
    open_water: OpenWater,
    equipment_mean_w: float,
    heated: bool,
    heaters_w: float | None,
) -> float:
    if not heated:
        return 0.0
    most_w = math.inf if heaters_w is None else heaters_w
    total = 0.0
    for days, room in zip(DAYS_IN_MONTH, room_months_c or (room_mean_c,) * 12, strict=True):
        lost = walls_w_k * (water_c - room) + open_water.watts(water_c, room)
        total += min(most_w, max(0.0, lost + change_heat_w - equipment_mean_w)) * days
    return total * 24 / 1000


@figure(
    "Pumps and lamps a year",
    formula="({pumps_w} × 24 ÷ 1000 + {light_kwh_d}) × 365.25",
    source="balance",
)
def equipment_kwh(pumps_w: float, light_kwh_d: float) -> float:
    return (pumps_w * 24 / 1000 + light_kwh_d) * 365.25


@figure(
    "Warming change water before it is poured, a year",
    formula="{change_l_wk} × 365.25 ÷ 7 × {water_heat_j_l_k} × ({new_c} − {mix_c}) ÷ 3600000, not below 0",
    source="balance",
)
def poured_kwh(change_l_wk: float, water_heat_j_l_k: float, new_c: float, mix_c: float) -> float:
    return max(0.0, change_l_wk * 365.25 / 7 * water_heat_j_l_k * (new_c - mix_c) / 3.6e6)


@figure(
    "Electricity a year",
    formula="({heating_kwh} + {chilling_kwh} + {fan_kwh} + {equipment_kwh} + {poured_kwh}) × {price_per_kwh}",
    source="balance",
)
def electricity_money(
    heating_kwh: float,
    chilling_kwh: float,
    fan_kwh: float,
    equipment_kwh: float,
    poured_kwh: float,
    price_per_kwh: float,
) -> float:
    return (heating_kwh + chilling_kwh + fan_kwh + equipment_kwh + poured_kwh) * price_per_kwh


@figure(
    "Everything on the circuit",
    formula="{heaters_w} + {pumps_w} + {light_w} + {chiller_w} ÷ {chiller_cop} + {fans_w} + {circuit_other_w}",
    source="definition",
)
def circuit_w(
    heaters_w: float,
    pumps_w: float,
    light_w: float,
    chiller_w: float,
    chiller_cop: float,
    fans_w: float,
    circuit_other_w: float,
) -> float:
    return heaters_w + pumps_w + light_w + chiller_w / chiller_cop + fans_w + circuit_other_w


@figure("Circuit carries all day", formula="{mains_v} × {circuit_a} × {circuit_share}", source="nec210")
def circuit_most_w(mains_v: float, circuit_a: float, circuit_share: float) -> float:
    return mains_v * circuit_a * circuit_share


@check(
    "The circuit carries it",
    stage="heat",
    judges="circuit_w",
)
def circuit_carries(circuit_w: float, circuit_most_w: float, mains_v: float) -> Verdict:
    reason = say(
        "Heaters, pumps, lamps and what cools draw {load}, {amps} A; the circuit carries {most} all day.",
        load=of(circuit_w, "circuit_w"),
        amps=Term(circuit_w / mains_v, "ratio"),
        most=of(circuit_most_w, "circuit_most_w"),
    )
    return at_most(circuit_w, circuit_most_w, "power", reason)


def running_kwh(sheet: Sheet[Plan]) -> float:
    """What a system draws in a year, of what is known of it."""
    return sum(number(sheet, name) or 0.0 for name in RUNNING)
