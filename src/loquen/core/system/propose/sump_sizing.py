"""Questions about a sump: a first one for a plan, the smallest that holds, how deep its returns may reach."""

import math
from collections.abc import Iterator
from dataclasses import replace
from typing import Any, Literal

from loquen.core.errors import NamedCase
from loquen.core.graph import asking
from loquen.core.graph.keys import CONSTANT, Key
from loquen.core.graph.nodes import Remedy, Verdict
from loquen.core.graph.sheet import Sheet
from loquen.core.library.rows.machines import PumpModel
from loquen.core.library.whole import Library
from loquen.core.model.inputs.quantity import Quantity, Term, say
from loquen.core.model.parts.flow import Chamber, Outlet, RunPart, Sump
from loquen.core.model.roots.consistency import SHORTEST_RETURN_CM, hole_edge_least_cm, water_height_cm
from loquen.core.model.roots.plan import PLAN, Plan
from loquen.core.physics import hydraulics
from loquen.core.system.book import sheet_of
from loquen.core.system.flow.returns import need_sump
from loquen.core.system.told import is_short

LENGTH = "sump.sump_length_cm"
DRAIN_DOWN = "drain_down_fits"
OF_A_SUMP = (DRAIN_DOWN, "blocked_stays", "pump_stays_wet", "bubbles_stay")
"""Checks that a longer sump mends."""
DEPTH_GRAIN_CM = 0.1
CURVE_SHARES = (0.0, 0.5, 0.8)
ROUNDS = 2


def smallest_sump(sheet: Sheet) -> Remedy:
    """The shortest sump, in whole centimetres, in which every check of the sump holds with its chambers as they are.

    Raises: NamedCase "not_needed" without a sump, "no_sump_holds" when no length does.
    """
    need_sump(sheet.value("sumped"))
    least, most = math.ceil(sheet.value("others_cm") + SHORTEST_RETURN_CM), int(limits(LENGTH).high)
    for length in range(max(least, math.ceil(limits(LENGTH).low)), most + 1):
        tried = sheet.changed({LENGTH: float(length)})
        if not any(is_short(tried, key) for key in OF_A_SUMP):
            text = "{length} of sump hold what comes down" + (
                "; in less its chambers have no room." if length == least else "."
            )
            return Remedy(say(text, length=Term(float(length), "length")), {LENGTH: float(length)})
    raise NamedCase("no_sump_holds")


def deepest_returns(sheet: Sheet) -> Remedy:
    """How far under the water all returns may reach for the drain-down to fit even with the air-break holes clogged.

    Raises: NamedCase "not_needed" without a sump or return, "no_depth_holds" when none does.
    """
    need_sump(sheet.value("sumped") and bool(sheet.root.returns))
    paths = [f"returns.{i}.outlet_depth_cm" for i in range(len(sheet.root.returns))]

    def fits(steps: int) -> bool:
        tried = sheet.changed(dict.fromkeys(paths, steps * DEPTH_GRAIN_CM))
        spare = 1 + tried.value(CONSTANT + "sump_spare")
        clogged = tried.value("clogged_down_l") * spare <= tried.value("sump_free_l")
        return clogged and not is_short(tried, DRAIN_DOWN)

    bad = int(min(water_height_cm(sheet.root.tank), limits(paths[0]).high) / DEPTH_GRAIN_CM) + 1
    good = 0
    if not fits(good):
        raise NamedCase("no_depth_holds", down=sheet.changed(dict.fromkeys(paths, 0.0)).value("clogged_down_l"))
    while bad - good > 1:
        middle = (good + bad) // 2
        good, bad = (middle, bad) if fits(middle) else (good, middle)
    depth = round(good * DEPTH_GRAIN_CM, 1)
    sentence = say(
        "Returns at most {depth} under the water: what comes down then fits, even with the air-break holes clogged.",
        depth=Term(depth, "length"),
    )
    return Remedy(sentence, dict.fromkeys(paths, depth))


def raised_returns(sheet: Sheet) -> list[Remedy]:
    """The returns raised as far as it takes, where they reach deeper than that; nothing where it does not help."""
    try:
        remedy = deepest_returns(sheet)
    except NamedCase:
        return []
    deeper = any(sheet.value(path) > depth for path, depth in remedy.changes.items())
    return [remedy] if deeper else []


def limits(path: Key) -> Quantity:
    entry = PLAN.entry_at(path)
    assert isinstance(entry, Quantity)
    return entry


def with_sump(plan: Plan, way: Literal["weir", "holes"], library: Library) -> Plan:
    """The plan with a first sump: a sump to the stand, a pump to the turnover, drains to the pump.

    A sump that already stands in the plan is taken up again as it is. Where no size of a part makes a check
    hold, the plan is given with that check short.
    """
    edge_cm = max(plan.flow.hole_edge_cm, hole_edge_least_cm(plan))
    plan = replace(plan, flow=replace(plan.flow, way=way, hole_edge_cm=edge_cm))
    if plan.chambers:
        return plan
    run = tuple(RunPart(row.part, run_count=row.count, run_length_m=row.length_m) for row in library.first_sump.run)
    return settled(with_pump(with_chambers(replace(plan, run=run, returns=(Outlet(),)), library), library), library)


def with_chambers(plan: Plan, library: Library) -> Plan:
    """A sump shorter and narrower than its tank, low enough to reach into, divided as is usual."""
    first = library.first_sump
    usual, tank = Sump(), plan.tank
    length = round(min(max(tank.tank_length_cm * first.length_of_tank_frac, first.shortest_cm), first.longest_cm))
    width = max(first.narrowest_cm, min(usual.sump_width_cm, tank.tank_width_cm - first.narrower_than_tank_cm))
    height = max(first.lowest_cm, min(usual.sump_height_cm, plan.sump.stand_room_cm - plan.sump.tallest_part_cm))
    below = replace(
        plan.sump,
        sump_length_cm=float(length),
        sump_width_cm=width,
        sump_height_cm=height,
        return_level_cm=round(height * first.return_level_frac, 1),
        intake_cm=min(plan.sump.intake_cm, usual.intake_cm),
    )
    rows = [
        Chamber(
            row.kind,
            max(first.narrowest_chamber_cm, float(round(length * row.length_frac))),
            round(height * row.baffle_frac),
        )
        for row in first.chambers
    ]
    return replace(plan, sump=below, chambers=(*rows, Chamber("return")))


def pump_changes(pump: PumpModel) -> dict[str, Any]:
    """What fitting a generic pump changes in a plan."""
    return {
        "flow.pump_by": "ends",
        "flow.shutoff_head_m": pump.shutoff_head_m,
        "flow.pump_max_lph": pump.max_flow_lph,
        "flow.pump_w": pump.watts,
    }


def curve_points(sheet: Sheet) -> Remedy:
    """Points on the pump's curve as it is, to be typed over with the maker's."""
    head, most = hydraulics.pump_of(sheet.value("pump"))
    flows = [most * share for share in CURVE_SHARES]
    changes = {
        "flow.pump_by": "points",
        "flow.curve_lph": tuple(flows),
        "flow.curve_head_m": tuple(head(flow) for flow in flows),
    }
    return Remedy(say("{count} points of its curve.", count=Term(len(flows), "count")), changes)


def with_pump(plan: Plan, library: Library) -> Plan:
    """The smallest generic pump that reaches the display and brings the animals' turnover, else the one nearest to it."""
    fitted = [
        with_quiet_pipes(PLAN.changed(plan, pump_changes(pump)), library) for pump in library.pump_models.values()
    ]
    reaching = [one for one in fitted if not is_short(sheet_of(one, library), "pump_reaches")]
    wanted = library.turnovers["general"].low_per_h
    for one in reaching:
        sheet = sheet_of(one, library)
        enough = not is_short(sheet, "turnover_fits") if plan.animals else sheet.value("turnover_per_h") >= wanted
        if enough:
            return one
    return reaching[0] if reaching else fitted[-1]


def with_quiet_pipes(plan: Plan, library: Library) -> Plan:
    """The plan with the narrowest pipe of its run's kind in which run and returns are quiet."""
    candidate, system = plan, library.pipes[plan.run[0].run_pipe].system
    for pipe in sorted(library.pipes.values(), key=lambda row: row.bore_mm):
        if pipe.system == system:
            candidate = replace(
                plan,
                run=tuple(replace(row, run_pipe=pipe.key) for row in plan.run),
                returns=tuple(replace(row, outlet_pipe=pipe.key) for row in plan.returns),
            )
            verdict = sheet_of(candidate, library).look("pipes_quiet")
            if isinstance(verdict, Verdict) and verdict.state == "holds":
                break
    return candidate


def settled(plan: Plan, library: Library) -> Plan:
    """The plan with a remedy of every check of the flow that falls short, one after another, as far as it makes sense."""
    for _ in range(ROUNDS):
        for key in flow_checks(plan, library):
            sheet = sheet_of(plan, library)
            if is_short(sheet, key):
                found = lengthened(sheet) if key == DRAIN_DOWN else asking.remedies(sheet, key)
                plan = PLAN.changed(plan, found[0].changes if found else {})
    return plan


def lengthened(sheet: Sheet) -> list[Remedy]:
    """The smallest sump that holds, else what else makes the drain-down fit."""
    try:
        return [smallest_sump(sheet)]
    except NamedCase:
        return asking.remedies(sheet, DRAIN_DOWN)


def flow_checks(plan: Plan, library: Library) -> Iterator[Key]:
    nodes = sheet_of(plan, library).wiring.nodes
    return (key for key, node in nodes.items() if node.check and node.check.stage == "flow")
