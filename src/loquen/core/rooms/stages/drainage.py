"""The way out of the room: at the worst hour, after an accident, and on the floor."""

from loquen.core.errors import NamedCase
from loquen.core.graph.judging import at_least, at_most, by_practice
from loquen.core.graph.nodes import Verdict, check, figure, step
from loquen.core.model.inputs.quantity import Sentence, Term, of, say
from loquen.core.rooms.drains import RoomDrains, room_drains
from loquen.core.rooms.stages.plumbing import ZoneFlow
from loquen.core.rooms.stages.purified import waste_lph_of
from loquen.core.rooms.stages.racks import Standing, Tank


@step()
def drains(
    zone_flows: tuple[ZoneFlow, ...],
    standing: tuple[Standing, ...],
    tanks: tuple[Tank, ...],
    collector_mm: float,
    collector_fall_frac: float,
    outlet_mm: float,
    outlet_head_mm: float,
    floor_l_s: float,
    hose_lph: float,
    purifier_fitted: bool,
    purified_lph: float | None,
    waste_ratio: float,
) -> RoomDrains:
    by_tank = {flow.tank: flow.lph for row in zone_flows for flow in row.tanks}
    racks = [
        (sum(by_tank.get(tank.number, 0.0) for tank in tanks if tank.rack == nth), rack)
        for nth, rack in enumerate(standing, 1)
    ]
    busiest, rack = max(racks, key=lambda pair: pair[0])
    accident = max([tank.litres for tank in tanks] + [rack.sump_l for rack in standing])
    return room_drains(
        zones=[{"flow_lph": row.lph} for row in zone_flows],
        collector_mm=collector_mm,
        slope_frac=collector_fall_frac,
        rack_drain_mm=rack.drain_mm,
        rack_lph=busiest,
        bulkhead_mm=outlet_mm,
        head_over_invert_mm=outlet_head_mm,
        tank_inflow_lph=max(by_tank.values(), default=0.0),
        floor_drain_l_s=floor_l_s,
        accident_l=accident,
        hand_lph=hose_lph,
        other_lph=waste_lph_of(purifier_fitted, purified_lph, waste_ratio),
    )


@figure("Drains in order", formula="largest zone + {hose_lph} + osmosis waste, of {drains}", source="balance")
def ordinary_lph(drains: RoomDrains, hose_lph: float) -> float:
    return drains.ordinary_lph


@figure(
    "Drains at worst",
    formula="the two largest zones, one of them stuck, + {hose_lph} + osmosis waste, of {drains}",
    source="balance",
)
def worst_drain_lph(drains: RoomDrains, hose_lph: float) -> float:
    return drains.worst_lph


@figure(
    "Collector half full",
    formula="Manning at {collector_fall_frac} in {collector_mm}, of {drains}",
    source="manning",
)
def collector_half_lph(drains: RoomDrains, collector_fall_frac: float, collector_mm: float) -> float:
    return drains.collector_half_lph


@figure("Collector at most", formula="Manning at 0.938 of {collector_mm}, of {drains}", source="manning")
def collector_most_lph(drains: RoomDrains, collector_mm: float) -> float:
    return drains.collector_most_lph


@figure(
    "A tank's outlet passes",
    formula="{outlet_mm} with {outlet_head_mm} over its lip, of {drains}",
    source="chow1959",
)
def outlet_lph(drains: RoomDrains, outlet_mm: float, outlet_head_mm: float) -> float:
    return drains.bulkhead_lph


@check(
    "The collector",
    stage="drain",
    judges="ordinary_lph",
    glass="drain",
    mends=("drain.collector_mm", "drain.collector_fall_frac"),
)
def collector_holds(
    drains: RoomDrains,
    ordinary_lph: float,
    worst_drain_lph: float,
    collector_half_lph: float,
    collector_most_lph: float,
) -> Verdict:
    reason = say(
        "In order {ordinary} come, half full it carries {half}; with a second zone stuck open {worst}, and it carries {most} "
        "before the rack drains back up and the lowest tanks rise.",
        ordinary=of(ordinary_lph, "ordinary_lph"),
        half=of(collector_half_lph, "collector_half_lph"),
        worst=of(worst_drain_lph, "worst_drain_lph"),
        most=of(collector_most_lph, "collector_most_lph"),
    )
    if not drains.collector_passes:
        return at_most(worst_drain_lph, collector_most_lph, "flow", reason)
    verdict = at_most(ordinary_lph, collector_half_lph, "flow", reason)
    return by_practice(verdict, collector_half_lph, collector_half_lph)


@check("Each tank's outlet", stage="drain", judges="outlet_lph", mends=("drain.outlet_mm",))
def outlets_hold(drains: RoomDrains, outlet_lph: float, zone_flows: tuple[ZoneFlow, ...]) -> Verdict:
    most = max((flow.lph for row in zone_flows for flow in row.tanks), default=0.0)
    reason = say(
        "The most a tank gets is {most}; its outlet passes {passes}, give or take 15 %. A snail or a leaf takes half of that.",
        most=Term(most, "flow"),
        passes=of(outlet_lph, "outlet_lph"),
    )
    return (
        at_least(outlet_lph, 2 * most, "flow", reason)
        if outlet_lph < most
        else by_practice(at_least(outlet_lph, 2 * most, "flow", reason), 2 * most, most)
    )


@check("Each rack's drain", stage="drain", judges="")
def rack_drains_hold(
    drains: RoomDrains, standing: tuple[Standing, ...], tanks: tuple[Tank, ...], zone_flows: tuple[ZoneFlow, ...]
) -> Verdict:
    by_tank = {flow.tank: flow.lph for row in zone_flows for flow in row.tanks}
    busiest = max(
        (
            sum(by_tank.get(tank.number, 0.0) for tank in tanks if tank.rack == nth)
            for nth in range(1, len(standing) + 1)
        ),
        default=0.0,
    )
    reason = say(
        "Were all of a rack open at once {flow} would come down it; open, with air in it, it passes {passes}.",
        flow=Term(busiest, "flow"),
        passes=Term(drains.rack_drain_lph, "flow"),
    )
    return at_most(busiest, drains.rack_drain_lph, "flow", reason)


@figure("Floor drain", formula="{floor_l_s} × 3600", source="definition")
def floor_drain_lph(floor_l_s: float) -> float:
    return floor_l_s * 3600


@figure(
    "Minutes until the floor is full",
    formula="{bund_l} ÷ ({worst_drain_lph} − {floor_drain_lph}) × 60",
    source="balance",
)
def flood_min(bund_l: float, worst_drain_lph: float, floor_drain_lph: float) -> float:
    if floor_drain_lph >= worst_drain_lph:
        raise NamedCase("floor_drains_it")
    return bund_l / (worst_drain_lph - floor_drain_lph) * 60


@check(
    "A stuck valve does not flood",
    stage="drain",
    judges="",
    glass="flood",
    mends=("drain.leak_sensor", "drain.floor_l_s"),
    caution="Valves that are shut without power, a master valve before all of them, a limit of litres for each run. Water "
    "and mains meet here: a residual-current device before everything, drip loops, no socket under a header; a licensed "
    "electrician decides.",
)
def no_flood(
    worst_drain_lph: float,
    floor_drain_lph: float,
    drains: RoomDrains,
    leak_sensor: bool,
    sensor_l: float,
    bund_l: float,
    flood_min: float | None,
) -> Verdict:
    terms = {
        "worst": of(worst_drain_lph, "worst_drain_lph"),
        "floor": of(floor_drain_lph, "floor_drain_lph"),
        "bund": Term(bund_l, "volume"),
        "minutes": Term(flood_min or 0.0, "minutes"),
        "sensor": Term(sensor_l, "volume"),
        "accident": Term(drains.accident_l, "volume"),
        "clears": Term(drains.accident_min or 0.0, "minutes"),
    }
    if floor_drain_lph > 0 and floor_drain_lph >= worst_drain_lph:
        text = "The floor drain takes {floor}, more than the {worst} that can come; a broken tank of {accident} clears in {clears}."
        return at_least(floor_drain_lph, worst_drain_lph, "flow", say(text, **terms))
    if leak_sensor and sensor_l < bund_l:
        text = (
            "No floor drain takes {worst}: the sensor shuts the master valve when {sensor} lie on the floor, which holds "
            "{bund}. Try it each month."
        )
        return Verdict("tight", bund_l - sensor_l, say("by the sensor alone"), say(text, **terms))
    text = "If the collector is blocked {worst} come onto a floor that holds {bund}: {minutes} until it leaves the room."
    return Verdict("short", -1.0, say("{minutes} to a flood", minutes=terms["minutes"]), say(text, **terms))


@step()
def drain_result(ordinary_lph: float, drains: RoomDrains) -> Sentence:
    depth = drains.depth_frac_ordinary
    if depth is None:
        return say("{flow} come in order, more than the collector carries.", flow=of(ordinary_lph, "ordinary_lph"))
    return say(
        "{flow} come in order and stand {depth} of the collector deep.",
        flow=of(ordinary_lph, "ordinary_lph"),
        depth=Term(depth, "share"),
    )
