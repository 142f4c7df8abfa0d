"""Parts of a plan that can not both be true, each named with the field it is typed in."""

from itertools import pairwise
from typing import Any

from loquen.core.data.tables import Table, constant
from loquen.core.errors import PlanConflict
from loquen.core.library.whole import Library
from loquen.core.model.inputs.fields import entries
from loquen.core.model.inputs.options import SALTS, options_of
from loquen.core.model.inputs.quantity import Choice, Quantity
from loquen.core.model.parts.flow import Flow, Sump
from loquen.core.model.parts.tank import Tank
from loquen.core.model.parts.water import Recipe
from loquen.core.model.roots import heights
from loquen.core.model.roots.plan import PLAN, Plan
from loquen.core.physics import geometry

MOST_GRAVITY = 1.030
SHORTEST_RETURN_CM = 8.0
MOST_LAND_FRAC = 0.9
"""Of the floor: a tank of land is none."""
MOST_RUN_M = 1000.0
"""As far as the relation for a pipe's loss goes."""


def conflicts(plan: Plan, library: Library) -> list[PlanConflict]:
    """Every contradiction in a plan, with a nearest value only where one can be entered; empty when it makes sense."""
    found = [
        *unknown_keys(plan, library),
        *lists(plan),
        *groups(plan),
        *glass(plan.tank),
        *bed(plan.tank),
        *patches(plan),
        *land(plan),
        *months(plan),
        *hydrometer(plan),
        *sump(plan),
    ]
    for conflict in found:
        entry = PLAN.entry_at(conflict.path)
        if isinstance(entry, Quantity) and conflict.nearest is not None:
            conflict.nearest = conflict.nearest if entry.low <= conflict.nearest <= entry.high else None
    return found


def unknown_keys(plan: Plan, library: Library) -> list[PlanConflict]:
    tables: list[tuple[str, str, Table[Any]]] = [
        (f"animals.{i}.species", group.species, library.species) for i, group in enumerate(plan.animals)
    ] + [
        ("tank.bed", plan.tank.bed, library.beds),
        ("heat.lid", plan.heat.lid, library.lids),
        ("sump.sump_lid", plan.sump.sump_lid, library.lids),
        *((f"animals.{i}.food", group.food, library.foods) for i, group in enumerate(plan.animals)),
        *((f"patches.{i}.patch_bed", row.patch_bed, library.beds) for i, row in enumerate(plan.patches)),
        *((f"planting.{i}.plant", row.plant, library.plants) for i, row in enumerate(plan.planting)),
    ]
    for i, row in enumerate(plan.filters):
        tables += [
            (f"filters.{i}.filter_kind", row.filter_kind, library.filter_kinds),
            (f"filters.{i}.media", row.media, library.media),
        ]
    pipes = [("flow.drain_pipe", plan.flow.drain_pipe)]
    if plan.flow.emergency_pipe != "none":
        pipes.append(("flow.emergency_pipe", plan.flow.emergency_pipe))
    pipes += [(f"run.{i}.run_pipe", row.run_pipe) for i, row in enumerate(plan.run)]
    pipes += [(f"returns.{i}.outlet_pipe", row.outlet_pipe) for i, row in enumerate(plan.returns)]
    tables += [(path, key, library.pipes) for path, key in pipes]
    tables.append(("sump.sump_media", plan.sump.sump_media, library.media))
    tables += [
        (f"run.{i}.part", row.part, library.fittings) for i, row in enumerate(plan.run) if row.part != "pipe"
    ]
    salts = [
        (f"recipe.{name}", getattr(plan.recipe, name), entry.table)
        for name, entry in entries(Recipe).items()
        if isinstance(entry, Choice)
        and entry.table in SALTS
        and getattr(plan.recipe, name) not in options_of(entry, library)
    ]
    return [
        PlanConflict("unknown_in_library", path, key=key, table=table.name)
        for path, key, table in tables
        if key not in table
    ] + [PlanConflict("unknown_in_library", path, key=key, table=table) for path, key, table in salts]


def lists(plan: Plan) -> list[PlanConflict]:
    """Lists that are longer than they may be, and days that stand twice."""
    found = []
    for path, most in PLAN.limits.items():
        section, _, name = path.partition(".")
        part = getattr(plan, section)
        held = getattr(part, name) if name else part
        if held is not None and len(held) > most:
            found.append(PlanConflict("too_many", path, most=most))
    for name in ("weekdays", "there", "pulse_days"):
        days = getattr(plan.changes, name)
        if len(set(days)) < len(days) <= PLAN.limits[f"changes.{name}"]:
            found.append(PlanConflict("day_twice", f"changes.{name}"))
    return found


def groups(plan: Plan) -> list[PlanConflict]:
    return [
        PlanConflict("more_males_than_animals", f"animals.{i}.males", group.number)
        for i, group in enumerate(plan.animals)
        if group.males is not None and group.males > group.number
    ]


def inside_height_cm(tank: Tank) -> float:
    return tank.tank_height_cm - heights.wall_off_cm(tank.measured, tank.pane_mm)


def water_height_cm(tank: Tank) -> float:
    return heights.water_height_cm(tank.fill_by, inside_height_cm(tank), tank.freeboard_cm, tank.part_fill_cm)


def footprint_cm2(tank: Tank) -> float:
    """What the tank covers inside; a bow's own part is left out. Nothing where the panes fill it."""
    walls = 2 * heights.wall_off_cm(tank.measured, tank.pane_mm)
    length, width = tank.tank_length_cm - walls, tank.tank_width_cm - walls
    if length <= 0 or width <= 0:
        return 0.0
    return geometry.footprint_cm2(tank.shape, length, width, 0.0, tank.notch_length_cm * tank.notch_width_cm)


def glass(tank: Tank) -> list[PlanConflict]:
    height = inside_height_cm(tank)
    found = []
    thickest_mm = min(tank.tank_length_cm, tank.tank_width_cm) / 4 * 10
    if tank.pane_mm > thickest_mm:
        found.append(PlanConflict("pane_fills_tank", "tank.pane_mm", thickest_mm))
    if tank.fill_by == "height" and tank.part_fill_cm > height:
        found.append(PlanConflict("fill_above_glass", "tank.part_fill_cm", height))
    if tank.fill_by == "freeboard" and tank.freeboard_cm >= height - 1:
        found.append(PlanConflict("no_water_left", "tank.freeboard_cm", height - 2, height=height))
    deepest = tank.tank_length_cm / 2.2
    if tank.shape == "bow_front" and tank.bow_cm > deepest:
        found.append(PlanConflict("bow_too_deep", "tank.bow_cm", deepest))
    if tank.shape == "l_shape":
        walls = 2 * tank.pane_mm / 10 if tank.measured == "outside" else 0.0
        pairs = (
            ("notch_length_cm", tank.tank_length_cm - walls),
            ("notch_width_cm", tank.tank_width_cm - walls),
        )
        for name, whole in pairs:
            if getattr(tank, name) >= whole * 0.9:
                found.append(PlanConflict("notch_too_large", f"tank.{name}", whole * 0.89, most=whole * 0.9))
    return found


def bed(tank: Tank) -> list[PlanConflict]:
    if tank.bed == "none":
        found = []
    else:
        height = water_height_cm(tank)
        found = [
            PlanConflict("bed_above_water", f"tank.{name}", height - 1, height=height)
            for name in ("bed_front_cm", "bed_back_cm")
            if getattr(tank, name) >= height
        ]
    rock_kg_l = constant("rock_kg_l")
    stones = tank.rock_kg / rock_kg_l + tank.wood_l
    bed_cm = (tank.bed_front_cm + tank.bed_back_cm) / 2 if tank.bed != "none" else 0.0
    room = footprint_cm2(tank) * max(water_height_cm(tank) - bed_cm, 0.0) / 1000
    if stones > 0.4 * room:
        rock_kg = (0.39 * room - tank.wood_l) * rock_kg_l
        found.append(PlanConflict("hardscape_fills_tank", "tank.rock_kg", rock_kg, most=0.4 * room))
    return found


def patches(plan: Plan) -> list[PlanConflict]:
    """Parts of the floor that together are more than all of it, or lie above the water."""
    height, found, rest = water_height_cm(plan.tank), [], 1.0
    for i, row in enumerate(plan.patches):
        if row.patch_frac > rest + 1e-9:
            found.append(PlanConflict("more_than_the_floor", f"patches.{i}.patch_frac", rest, most=rest))
        rest = max(0.0, rest - row.patch_frac)
        found += [
            PlanConflict("bed_above_water", f"patches.{i}.{name}", height - 1, height=height)
            for name in ("patch_front_cm", "patch_back_cm")
            if getattr(row, name) >= height and row.patch_bed != "none"
        ]
    return found


def land(plan: Plan) -> list[PlanConflict]:
    """A bank or a platform that leaves no water beside it, or lies over the glass."""
    place, tank = plan.land, plan.tank
    if place.land_kind not in ("platform", "bank"):
        return []
    found, floor_cm2 = [], footprint_cm2(tank) * tank.tank_count
    most = MOST_LAND_FRAC * floor_cm2 / (place.land_count * place.land_width_cm)
    if place.land_length_cm > most:
        found.append(PlanConflict("land_over_tank", "land.land_length_cm", most))
    free = inside_height_cm(tank) - water_height_cm(tank)
    if place.land_above_cm > free:
        found.append(PlanConflict("land_over_rim", "land.land_above_cm", free, free=free))
    return found


def months(plan: Plan) -> list[PlanConflict]:
    rooms = plan.heat.room_months_c
    found = []
    if rooms is not None and len(rooms) != 12:
        found.append(PlanConflict("twelve_months", "heat.room_months_c"))
    if plan.heat.room_cold_c > plan.heat.room_warm_c:
        found.append(PlanConflict("room_upside_down", "heat.room_cold_c", plan.heat.room_warm_c))
    return found


def hydrometer(plan: Plan) -> list[PlanConflict]:
    """A reading no low-salinity water has: most often 1.06 for 1.006."""
    gravity = plan.water.gravity_sg
    if plan.water.salinity_by != "gravity" or gravity <= MOST_GRAVITY:
        return []
    meant = 1 + (gravity - 1) / 10
    return [PlanConflict("gravity_slip", "water.gravity_sg", meant)]


def sump(plan: Plan) -> list[PlanConflict]:
    """What can not be built or can not work, each with the nearest value that can."""
    if plan.flow.way == "none":
        return []
    return [*chambers(plan), *levels(plan.sump), *run_length(plan), *drilling(plan), *pump_curve(plan.flow)]


def run_length(plan: Plan) -> list[PlanConflict]:
    return [
        PlanConflict(
            "run_too_long",
            f"run.{i}.run_count",
            MOST_RUN_M // row.run_length_m,
            metres=row.run_length_m * row.run_count,
            most=MOST_RUN_M,
        )
        for i, row in enumerate(plan.run)
        if row.part == "pipe" and row.run_length_m * row.run_count > MOST_RUN_M
    ]


def chambers(plan: Plan) -> list[PlanConflict]:
    below = plan.sump
    kinds = [chamber.chamber_kind for chamber in plan.chambers]
    highest = below.sump_height_cm - 2
    found = [
        PlanConflict("baffle_over_rim", f"chambers.{i}.baffle_cm", highest)
        for i, chamber in enumerate(plan.chambers)
        if chamber.chamber_kind != "return" and chamber.baffle_cm >= below.sump_height_cm
    ]
    others = sum(chamber.chamber_cm for chamber in plan.chambers if chamber.chamber_kind != "return")
    most = below.sump_length_cm - SHORTEST_RETURN_CM
    if others > most:
        least = others + SHORTEST_RETURN_CM
        found.append(PlanConflict("chambers_too_long", "sump.sump_length_cm", least, most=most))
    if kinds.count("return") != 1 or kinds[-1] != "return":
        found.append(PlanConflict("one_return_chamber", "chambers"))
    return found


def levels(below: Sump) -> list[PlanConflict]:
    found = []
    highest, deepest = below.sump_height_cm - 2, below.return_level_cm - 1
    if below.return_level_cm >= below.sump_height_cm:
        found.append(PlanConflict("level_over_rim", "sump.return_level_cm", highest))
    if below.intake_cm >= below.return_level_cm:
        found.append(PlanConflict("intake_in_air", "sump.intake_cm", deepest))
    return found


def hole_edge_least_cm(plan: Plan) -> float:
    """How far a hole's rim lies from the pane's edge at least: one bore and the pane's thickness."""
    return (plan.flow.hole_mm + plan.tank.pane_mm) / 10


def drilling(plan: Plan) -> list[PlanConflict]:
    flow, tank = plan.flow, plan.tank
    if flow.way != "holes":
        return []
    found = []
    bed_cm = max(tank.bed_front_cm, tank.bed_back_cm) if tank.bed != "none" else 0.0
    room_mm = (water_height_cm(tank) - bed_cm) * 10
    if 2 * flow.hole_mm >= room_mm:
        found.append(PlanConflict("overflow_in_bed", "flow.hole_mm", room_mm / 2 - 1, bed=bed_cm))
    if tank.toughened:
        found.append(PlanConflict("toughened_drilled", "tank.toughened", False))
    least = hole_edge_least_cm(plan)
    if flow.hole_edge_cm < least:
        found.append(PlanConflict("hole_near_edge", "flow.hole_edge_cm", least))
    return found


def pump_curve(flow: Flow) -> list[PlanConflict]:
    if flow.pump_by == "ends":
        return []
    if is_pump_curve(flow.curve_lph or (), flow.curve_head_m or ()):
        return []
    return [PlanConflict("no_pump_curve", "flow.curve_lph")]


def is_pump_curve(flows: tuple[float, ...], heads: tuple[float, ...]) -> bool:
    """Whether flows (L/h) and lifts (m) make a curve: from no flow on, falling from point to point."""
    rises = all(a < b for a, b in pairwise(flows))
    falls = all(a > b for a, b in pairwise(heads))
    return len(flows) == len(heads) >= 2 and flows[0] == 0 and rises and falls
