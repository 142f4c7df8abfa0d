"""Parts to buy beside the glass, with spares."""

import math
from collections import Counter, defaultdict
from dataclasses import dataclass

from loquen.core.graph.asking import number
from loquen.core.graph.sheet import Sheet
from loquen.core.system.build.cutting import panes

PIPE_SPARE = 1.1
SILICONE_M = 8.0
"""Metres of joint that one cartridge of 310 mL fills."""


@dataclass(frozen=True, slots=True)
class PartLine:
    """Something to buy: how many of it, and how many more to keep."""

    label: str
    quantity: float
    unit: str
    spare: int
    where: str


def parts(sheet: Sheet) -> tuple[PartLine, ...]:
    """Everything to buy beside the glass, with spares."""
    plan = sheet.root
    lines = [PartLine("Silicone for tanks, cartridge of 310 mL", silicone(sheet), "pieces", 1, "glass")]
    if plan.tank.bed != "none":
        bed = sheet.library.beds[plan.tank.bed].label
        lines.append(PartLine(f"{bed}, bags of {plan.tank.bag_l:g} L", sheet.value("bed_bags"), "bags", 0, "bed"))
    for row in plan.filters:
        kind, media = sheet.library.filter_kinds[row.filter_kind], sheet.library.media[row.media]
        label = f"{kind.label}, {row.rated_lph:g} L/h rated, {row.media_l:g} L {media.label.lower()}"
        lines.append(PartLine(label, 1, "pieces", 0, "filter"))
    lines += ashore(sheet)
    if plan.flow.way != "none":
        lines += plumbing(sheet)
    if plan.heat.heated:
        count, each = number(sheet, "heater_count"), number(sheet, "heater_each_w")
        if count and each:
            lines.append(PartLine(f"Heater, {each:g} W", count, "pieces", 1, "heat"))
        lines.append(PartLine("Independent cut-out controller with its own probe", 1, "pieces", 0, "heat"))
    if plan.heat.chiller_w:
        lines.append(PartLine(f"Chiller that takes out {plan.heat.chiller_w:g} W", 1, "pieces", 0, "heat"))
    if plan.heat.fan_fitted:
        lines.append(PartLine("Fan over the water, with a thermostat", plan.tank.tank_count, "pieces", 1, "heat"))
    lines.append(PartLine("Residual-current device, 30 mA, in front of everything", 1, "pieces", 0, "power"))
    lines.append(PartLine("Thermometer that does not belong to a heater", 1, "pieces", 1, "heat"))
    if plan.air.stones_lph > 0 or plan.air.outlets > 0:
        lines.append(PartLine("Air pump", 1, "pieces", 1, "air"))
        lines.append(PartLine("Check valve for air hose", max(1, plan.air.outlets), "pieces", 1, "air"))
    if plan.flow.uv_fitted and plan.flow.way != "none":
        lines.append(PartLine("Ultraviolet clarifier's lamp", 1, "pieces", 1, "water"))
    return tuple(lines)


PLACE = {
    "platform": "Platform at the surface, {length:g} × {width:g} cm, fastened to the glass",
    "box": "Box over the rim, {length:g} × {width:g} cm, {cover:g} cm high inside, with its mesh",
    "bank": "Stones and sand for a bank, {length:g} × {width:g} cm",
}
WARMED = {"basking": "Lamp to bask under, {watts:g} W, with its guard", "uvb": "Ultraviolet-B lamp, {watts:g} W"}
RAMP = "Ramp from the water to the dry place, with a grip"


def ashore(sheet: Sheet) -> list[PartLine]:
    """The dry place with what leads up, warms, times and measures it."""
    plan, place = sheet.root, sheet.root.land
    lines: list[PartLine] = []
    if place.land_kind in PLACE:
        label = PLACE[place.land_kind].format(
            length=place.land_length_cm, width=place.land_width_cm, cover=place.land_cover_cm
        )
        lines.append(PartLine(label, place.land_count, "pieces", 0, "land"))
        if place.land_kind != "bank" and place.land_ramp:
            lines.append(PartLine(RAMP, place.land_count, "pieces", 0, "land"))
        if place.rest_cm is not None:
            label = f"Wood or shelf to rest on, {place.rest_cm:g} cm under the surface"
            lines.append(PartLine(label, plan.tank.tank_count, "pieces", 0, "land"))
    lit = [lamp for lamp in plan.lamps if lamp.lamp_kind in WARMED and lamp.lamp_w > 0]
    lines += [PartLine(WARMED[lamp.lamp_kind].format(watts=lamp.lamp_w), 1, "pieces", 1, "land") for lamp in lit]
    if lit:
        lines.append(PartLine("Timer for the lamps over the dry place", 1, "pieces", 0, "land"))
        lines.append(PartLine("Thermometer with a probe at the dry place", 1, "pieces", 0, "land"))
    return lines


def silicone(sheet: Sheet) -> float:
    """Cartridges for every joint of every pane."""
    joints_m = sum((pane.width_mm + pane.height_mm) * 2 * pane.count for pane in panes(sheet)) / 2 / 1000
    return max(1, math.ceil(joints_m / SILICONE_M))


def plumbing(sheet: Sheet) -> list[PartLine]:
    """Pump, pipe by size and length, and fittings by size and number."""
    plan, flow = sheet.root, sheet.root.flow
    tanks = plan.tank.tank_count
    metres: defaultdict[str, float] = defaultdict(float)
    fittings: Counter[tuple[str, str]] = Counter()
    for part in plan.run:
        if part.part == "pipe":
            metres[part.run_pipe] += part.run_length_m * part.run_count
        else:
            fittings[part.part, part.run_pipe] += part.run_count
    for outlet in plan.returns:
        metres[outlet.outlet_pipe] += outlet.outlet_length_m * tanks
        fittings["elbow_90", outlet.outlet_pipe] += outlet.outlet_elbows * tanks
        fittings["ball_valve", outlet.outlet_pipe] += tanks
        fittings["union", outlet.outlet_pipe] += tanks
    metres[flow.drain_pipe] += flow.drain_length_m * flow.drain_count * tanks
    fittings["elbow_90", flow.drain_pipe] += flow.drain_elbows * flow.drain_count * tanks
    fittings["bulkhead", flow.drain_pipe] += flow.drain_count * tanks
    if flow.drain_kind == "siphon":
        fittings["gate_valve", flow.drain_pipe] += flow.drain_count * tanks
    if flow.emergency_pipe != "none":
        metres[flow.emergency_pipe] += flow.drain_length_m * tanks
        fittings["elbow_90", flow.emergency_pipe] += flow.drain_elbows * tanks
        fittings["bulkhead", flow.emergency_pipe] += tanks
    lifts = number(sheet, "shutoff_of_head_m") or 0.0
    pump = f"Return pump, {flow.pump_max_lph:g} L/h, lifts {lifts:g} m"
    if flow.pump_by == "points":
        pump = f"Return pump by its curve, lifts {lifts:g} m"
    lines = [PartLine(pump, 1, "pieces", 1, "flow")]
    lines += [
        PartLine(
            f"{sheet.library.pipes[pipe].label}, bore {sheet.library.pipes[pipe].bore_mm:g} mm",
            math.ceil(length * PIPE_SPARE * 2) / 2,
            "m",
            0,
            "flow",
        )
        for pipe, length in metres.items()
    ]
    lines += [
        PartLine(
            f"{sheet.library.fittings[part].label}, {sheet.library.pipes[pipe].label}",
            count,
            "pieces",
            1 if part in ("union", "bulkhead") else 0,
            "flow",
        )
        for (part, pipe), count in sorted(fittings.items())
        if count
    ]
    media = number(sheet, "sump_media_l")
    if media:
        lines.append(PartLine(sheet.library.media[plan.sump.sump_media].label, math.ceil(media), "L", 0, "sump"))
    return lines
