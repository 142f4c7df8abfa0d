"""What to buy for a room's changer, from its solved lines: with spares, and unions so that nothing needs a saw."""

import math
from collections import Counter, defaultdict
from collections.abc import Mapping

from loquen.core.graph.sheet import Sheet
from loquen.core.model.roots.room import Room
from loquen.core.rooms.stages.plumbing import Valved, ZoneFlow
from loquen.core.rooms.stages.racks import Tank
from loquen.core.system.build.buying import PIPE_SPARE, PartLine
from loquen.core.system.build.quoting import Quote, quote


def parts(sheet: Sheet[Room]) -> tuple[PartLine, ...]:
    """Everything to buy for the changer; raise NamedCase while there are no zones."""
    room, flows = sheet.root, sheet.value("zone_flows")
    tanks: tuple[Tank, ...] = sheet.value("tanks")
    zones = [zone for i in range(len(room.zones)) if (zone := sheet.value(f"zones.{i}.valved")).drops]
    lines = [
        PartLine("Backflow preventer, or tank with an air gap, as the local code asks", 1, "pieces", 0, "tap"),
        PartLine("Master valve, shut without power", 1, "pieces", 1, "tap"),
        PartLine("Strainer", 1, "pieces", 1, "tap"),
        PartLine("Pressure gauge", 2, "pieces", 0, "tap, manifold"),
        PartLine(f"Cartridge housing, {room.treatment.carbon_l:g} L of carbon together", 1, "set", 1, "tap"),
        PartLine("Thermostatic mixing valve, shuts when either side fails", 1, "pieces", 0, "manifold"),
        PartLine("Non-return valve, one on each side of the mixing valve", 2, "pieces", 1, "manifold"),
        PartLine("Water meter with a pulse output", 1, "pieces", 0, "manifold"),
    ]
    if room.treatment.regulated:
        lines.append(
            PartLine(f"Pressure regulator, set to {room.treatment.setpoint_kpa:g} kPa", 1, "pieces", 1, "manifold")
        )
    if any(zone.fed_from == "reservoir" for zone in zones):
        lines += pumped(room)
    lines += valves(zones)
    lines += emitters(zones)
    lines += pipes(sheet, zones, tanks, {row.number: row for row in flows})
    # Two to each part that is ever serviced: mixer, regulator, meter, cartridges, and every zone's valve.
    serviced = 4 + len(zones)
    lines.append(
        PartLine("Union, so that each serviced part comes out without a saw", 2 * serviced, "pieces", 2, "manifold")
    )
    lines.append(
        PartLine("Bulkhead, with strainer against snails", len(tanks), "pieces", max(1, len(tanks) // 10), "tanks")
    )
    lines.append(PartLine("Leak sensor", len(room.racks), "pieces", 1, "floor"))
    lines.append(PartLine("Residual-current device, 30 mA, in front of everything", 1, "pieces", 0, "power"))
    return tuple(lines)


def room_quote(sheet: Sheet[Room], prices: Mapping[str, float]) -> Quote:
    """What the changer costs to build for somebody; raise NamedCase while there are no zones."""
    worth = sheet.root.worth
    return quote(
        parts(sheet), prices, build_h=worth.build_h, hour_money=worth.hour_money, margin_frac=worth.margin_frac
    )


def pumped(room: Room) -> list[PartLine]:
    """What a reservoir asks for beside its zones."""
    own = room.reservoir
    return [
        PartLine(f"Reservoir of {own.reservoir_l:g} L with a lid", 1, "pieces", 0, "reservoir"),
        PartLine("Float valve over the rim, an air gap under it", 1, "pieces", 1, "reservoir"),
        PartLine("Low-level switch that stops pump and heater", 1, "pieces", 1, "reservoir"),
        PartLine(
            f"Pump, {own.pump_lph:g} L/h at {own.pump_tested_kpa:g} kPa, {own.pump_kpa:g} kPa shut",
            1,
            "pieces",
            0,
            "reservoir",
        ),
        PartLine(f"Heater for it, {own.reservoir_w:g} W, with a cut-out of its own", 1, "pieces", 0, "reservoir"),
        PartLine("Check valve behind the pump", 1, "pieces", 1, "reservoir"),
    ]


def valves(zones: list[Valved]) -> list[PartLine]:
    found = Counter(zone.kv for zone in zones)
    lines = [
        PartLine(
            f"Zone valve, shut without power, Kv {kv:g}", count, "pieces", max(1, math.ceil(count / 5)), "manifold"
        )
        for kv, count in found.items()
    ]
    return [*lines, PartLine("Ball valve that isolates a zone", len(zones), "pieces", 1, "manifold")]


def emitters(zones: list[Valved]) -> list[PartLine]:
    found: Counter[str] = Counter()
    for zone in zones:
        for drop in zone.drops:
            kind = (
                f"at {zone.nominal_kpa:g} kPa"
                if zone.emitter == "plain"
                else f"compensating, from {zone.nominal_kpa:g} kPa"
            )
            found[f"Emitter, {drop.nominal_lph:g} L/h {kind}"] += 1
    return [
        PartLine(label, count, "pieces", max(2, math.ceil(count / 10)), "tanks") for label, count in found.items()
    ]


def pipes(
    sheet: Sheet[Room], zones: list[Valved], tanks: tuple[Tank, ...], flows: dict[int, ZoneFlow]
) -> list[PartLine]:
    """Metres by bore, with a tenth to spare."""
    room = sheet.root
    metres: defaultdict[tuple[float, str], float] = defaultdict(float)
    metres[room.treatment.feed_mm, "Pipe"] += sheet.value("feed_run_m")
    if any(zone.fed_from == "reservoir" for zone in zones):
        metres[room.reservoir.reservoir_pipe_mm, "Pipe"] += sheet.value("reservoir_run_m")
    tees: Counter[float] = Counter()
    for zone in zones:
        metres[zone.header_mm, "Pipe"] += flows[zone.number].header_m
        metres[zone.drop_mm, "Tube"] += zone.drop_m * len(zone.drops)
        tees[zone.header_mm] += len(zone.drops)
    lines = [
        PartLine(f"{kind}, {bore:g} mm bore", round(length * PIPE_SPARE, 1), "m", 0, "lines")
        for (bore, kind), length in metres.items()
    ]
    lines += [
        PartLine(f"Tee or take-off, {bore:g} mm", count, "pieces", 2, "lines") for bore, count in tees.items()
    ]
    drop = sum(
        max((tank.rim_cm for tank in tanks if tank.rack == nth), default=0.0)
        for nth in range(1, len(room.racks) + 1)
    )
    for bore in {rack.rack_drain_mm for rack in room.racks}:
        lines.append(
            PartLine(f"Waste pipe, {bore:g} mm, down the racks", round(drop / 100 * PIPE_SPARE, 1), "m", 0, "drain")
        )
    lines.append(
        PartLine(
            f"Collector, {room.drain.collector_mm:g} mm at {room.drain.collector_fall_frac:.1%}",
            round(sheet.value("collector_m") * PIPE_SPARE, 1),
            "m",
            0,
            "drain",
        )
    )
    return lines
