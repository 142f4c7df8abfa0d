"""What plugs in."""

from dataclasses import dataclass

from loquen.core.graph.asking import number
from loquen.core.graph.keys import CONSTANT
from loquen.core.graph.sheet import Sheet

LAMPS = {
    "display": "Lamp over the water",
    "basking": "Basking lamp",
    "uvb": "Ultraviolet-B lamp",
    "dark_heat": "Heat lamp without light",
}


@dataclass(frozen=True, slots=True)
class Load:
    """Something that plugs in."""

    label: str
    count: int
    each_w: float


def loads(sheet: Sheet) -> tuple[Load, ...]:
    """Everything that plugs in, with its watts."""
    plan = sheet.root
    rows = [Load(sheet.library.filter_kinds[row.filter_kind].label, 1, row.filter_w) for row in plan.filters]
    if plan.flow.way != "none":
        rows.append(Load("Return pump", 1, sheet.value("return_w")))
    count, each = number(sheet, "heater_count"), number(sheet, "heater_each_w")
    if plan.heat.heated and count and each:
        rows.append(Load("Heater", int(count), each))
    rows += [Load(LAMPS[row.lamp_kind], 1, row.lamp_w) for row in plan.lamps if row.lamp_w]
    if plan.heat.chiller_w:
        rows.append(Load("Chiller", 1, plan.heat.chiller_w / sheet.value(CONSTANT + "chiller_cop")))
    if plan.heat.fan_fitted:
        rows.append(Load("Fan over the water", plan.tank.tank_count, plan.heat.fan_draws_w))
    if plan.heat.circuit_other_w:
        rows.append(Load("Others on the circuit", 1, plan.heat.circuit_other_w))
    return tuple(rows)
