"""What a page draws of a sheet: the section, the sump, the curves and the saw-tooth."""

from loquen.api.schemas import sheet as out
from loquen.core.data import library
from loquen.core.graph.engine import CONSTANT, Missing, Sheet
from loquen.core.system.told import is_short, rows_of, sentence_of, where_known


def section_of(sheet: Sheet) -> out.SectionOut:
    plan, tank = sheet.root, sheet.root.tank
    return out.SectionOut(
        shape=tank.shape,
        length_cm=sheet.value("inside_length_cm"),
        width_cm=sheet.value("inside_width_cm"),
        height_cm=sheet.value("inside_height_cm"),
        water_cm=sheet.value("water_height_cm"),
        pane_cm=tank.pane_mm / 10,
        bed=tank.bed,
        bed_front_cm=tank.bed_front_cm if tank.bed != "none" else 0.0,
        bed_back_cm=tank.bed_back_cm if tank.bed != "none" else 0.0,
        rock_l=sheet.value("rock_displaced_l"),
        wood_l=tank.wood_l,
        plants=tank.plants,
        plant_cover_frac=tank.plant_cover_frac,
        closed=plan.heat.lid == "closed",
        heated=plan.heat.heated,
        filters=[row.filter_kind for row in plan.filters],
        tank_count=tank.tank_count,
        heaters_in=plan.heat.heaters_in if plan.flow.way != "none" else "tank",
        overflow=where_known(lambda: overflow_of(sheet), None),
        sump=where_known(lambda: sump_of(sheet), None),
        animals=[
            out.AnimalDrawn(
                label=sheet.value(f"animals.{i}.animal").common,
                shape=sheet.value(f"animals.{i}.animal").shape,
                length_cm=sheet.value(f"animals.{i}.adult_length_cm"),
                number=group.number,
                level=sheet.value(f"animals.{i}.animal").level,
            )
            for i, group in enumerate(plan.animals)
        ],
    )


def overflow_of(sheet: Sheet) -> out.OverflowDrawn | None:
    flow = sheet.root.flow
    if flow.way == "none":
        return None
    return out.OverflowDrawn(
        way=flow.way,
        crest_cm=sheet.value("crest_cm"),
        drop_cm=sheet.value("drop_cm"),
        box_cm=flow.box_length_cm if flow.way == "weir" else 0.0,
        hole_cm=flow.hole_mm / 10,
        hole_count=flow.hole_count,
        drain_passes=not is_short(sheet, "drain_passes"),
        emergency=flow.emergency_pipe != "none",
        blocked_cm=sheet.value("blocked_rise_mm") / 10,
        reaches=not is_short(sheet, "pump_reaches"),
        return_lph=sheet.value("return_lph"),
        run=[
            out.RunDrawn(
                part=row.part,
                label=f"{library.run_parts()[row.part]}, {library.pipes()[row.run_pipe].label}",
                count=row.run_count,
            )
            for row in sheet.root.run
        ],
        outlets=[
            out.OutletDrawn(depth_cm=row.outlet_depth_cm, open_frac=row.valve_open_frac, flow_lph=flow)
            for row, flow in zip(sheet.root.returns, rows_of(sheet, "outlet_flows"), strict=False)
        ],
    )


def sump_of(sheet: Sheet) -> out.SumpDrawn | None:
    below = sheet.root.sump
    if sheet.root.flow.way == "none":
        return None
    return out.SumpDrawn(
        length_cm=below.sump_length_cm,
        height_cm=below.sump_height_cm,
        pane_cm=below.sump_pane_mm / 10,
        below_cm=below.stand_cm,
        room_cm=below.stand_room_cm,
        power_off_cm=sheet.value("power_off_cm"),
        clogged_off_cm=sheet.value("clogged_off_cm"),
        fits=not is_short(sheet, "drain_down_fits"),
        intake_cm=below.intake_cm,
        media_l=sheet.value("sump_media_l"),
        chambers=[
            out.ChamberDrawn(
                kind=row.chamber_kind,
                length_cm=sheet.value(f"chambers.{i}.chamber_run_cm"),
                level_cm=sheet.value(f"chambers.{i}.chamber_level_cm"),
                baffle_cm=row.baffle_cm,
            )
            for i, row in enumerate(sheet.root.chambers)
        ],
    )


def saw_tooth_of(sheet: Sheet) -> out.SawToothOut | None:
    if isinstance(sheet.look("saw_tooth"), Missing):
        return None
    feed = sheet.constants["feed_scale"]
    low, likely, high = (
        [
            out.Corner(day=day, nitrate=level)
            for day, level in sheet.changed({CONSTANT + "feed_scale": scale}).value("saw_tooth")
        ]
        for scale in (feed.low, feed.value, feed.high)
    )
    return out.SawToothOut(
        likely=likely,
        low=low,
        high=high,
        source=sheet.value("new_nitrate_mg_l"),
        target=sheet.root.changes.target_nitrate_mg_l,
    )


def flow_of(sheet: Sheet) -> out.FlowOut | None:
    """The Flow stage's curves and cases; None without a sump or a return."""
    curve = sheet.look("curves")
    if isinstance(curve, Missing):
        return None
    return out.FlowOut(
        pump=[out.FlowPoint(flow=flow, head=head) for flow, head in curve.pump],
        system=[out.FlowPoint(flow=flow, head=head) for flow, head in curve.system],
        outlets_lph=list(sheet.value("outlet_flows")),
        cases=[
            out.FlowCaseOut(**{name: getattr(row, name) for name in out.FlowCaseOut.model_fields})
            for row in rows_of(sheet, "flow_cases")
        ],
        sump=out.SentenceOut.of(sentence_of(sheet, "sump_result")),
    )
