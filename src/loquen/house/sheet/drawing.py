"""What a page draws of a sheet: the section, the sump, the curves and the saw-tooth."""

from dataclasses import dataclass

from loquen.core.graph.keys import CONSTANT, Missing
from loquen.core.graph.sheet import Sheet
from loquen.core.model.inputs.quantity import Sentence
from loquen.core.model.roots.plan import Plan
from loquen.core.system.changes.regime import Corner
from loquen.core.system.flow.overflow import FlowCase
from loquen.core.system.flow.returns import CurvePoint
from loquen.core.system.told import is_short, rows_of, sentence_of, where_known


@dataclass(frozen=True, slots=True)
class AnimalDrawn:
    label: str
    shape: str
    length_cm: float
    number: int
    level: str
    ashore: bool


@dataclass(frozen=True, slots=True)
class ChamberDrawn:
    kind: str
    length_cm: float
    level_cm: float
    baffle_cm: float


@dataclass(frozen=True, slots=True)
class SumpDrawn:
    """The sump under its display, from its own inside lower left corner; levels above its base."""

    length_cm: float
    height_cm: float
    pane_cm: float
    below_cm: float
    room_cm: float
    power_off_cm: float
    clogged_off_cm: float
    fits: bool
    intake_cm: float
    media_l: float
    chambers: list[ChamberDrawn]


@dataclass(frozen=True, slots=True)
class RunDrawn:
    """A part along the return's run, and how often it comes there."""

    part: str
    label: str
    count: int


@dataclass(frozen=True, slots=True)
class OutletDrawn:
    """A return into the display: how deep it ends, how far its valve is open, what it passes."""

    depth_cm: float
    open_frac: float
    flow_lph: float


@dataclass(frozen=True, slots=True)
class OverflowDrawn:
    """The way out of the display and back: its crest, drains, run and returns."""

    way: str
    crest_cm: float
    drop_cm: float
    box_cm: float
    hole_cm: float
    hole_count: int
    drain_passes: bool
    emergency: bool
    blocked_cm: float
    reaches: bool
    return_lph: float
    run: list[RunDrawn]
    outlets: list[OutletDrawn]


@dataclass(frozen=True, slots=True)
class PlantDrawn:
    """Plants of one kind by how they stand, and the part of the footprint they cover."""

    uptake: str
    cover_frac: float


@dataclass(frozen=True, slots=True)
class LandDrawn:
    """The dry places of a tank: what they are, how many, their size, how far over the water, and the room in a box."""

    kind: str
    count: int
    length_cm: float
    width_cm: float
    above_cm: float
    cover_cm: float
    ramp: bool


@dataclass(frozen=True, slots=True)
class Section:
    """What the section drawing is drawn from, in cm of the real tank."""

    shape: str
    length_cm: float
    width_cm: float
    height_cm: float
    water_cm: float
    pane_cm: float
    bed: str
    bed_front_cm: float
    bed_back_cm: float
    land: LandDrawn | None
    rest_cm: float | None
    rock_l: float
    wood_l: float
    planting: list[PlantDrawn]
    lid: str
    fan: bool
    heated: bool
    filters: list[str]
    tank_count: int
    heaters_in: str
    overflow: OverflowDrawn | None
    sump: SumpDrawn | None
    animals: list[AnimalDrawn]


@dataclass(frozen=True, slots=True)
class SawTooth:
    """Settled nitrate (mg/L N) by day over eight weeks, corner by corner, with the feed's range."""

    likely: tuple[Corner, ...]
    low: tuple[Corner, ...]
    high: tuple[Corner, ...]
    source: float
    target: float
    over: bool


@dataclass(frozen=True, slots=True)
class FlowDrawn:
    """What the Flow stage shows beside its figures; curves as lift (m) by flow (L/h)."""

    pump: tuple[CurvePoint, ...]
    system: tuple[CurvePoint, ...]
    outlets_lph: tuple[float, ...]
    cases: tuple[FlowCase, ...]
    sump: Sentence


def section_of(sheet: Sheet, size: str = "adult_length_cm") -> Section:
    plan, tank = sheet.root, sheet.root.tank
    return Section(
        shape=tank.shape,
        length_cm=sheet.value("inside_length_cm"),
        width_cm=sheet.value("inside_width_cm"),
        height_cm=sheet.value("inside_height_cm"),
        water_cm=sheet.value("water_height_cm"),
        pane_cm=tank.pane_mm / 10,
        bed=tank.bed,
        bed_front_cm=tank.bed_front_cm if tank.bed != "none" else 0.0,
        bed_back_cm=tank.bed_back_cm if tank.bed != "none" else 0.0,
        land=land_of(plan),
        rest_cm=plan.land.rest_cm,
        rock_l=sheet.value("rock_displaced_l"),
        wood_l=tank.wood_l,
        planting=[
            PlantDrawn(sheet.value(f"planting.{i}.plant_row").uptake, row.plant_cover_frac)
            for i, row in enumerate(plan.planting)
        ],
        lid=plan.heat.lid,
        fan=plan.heat.fan_fitted,
        heated=plan.heat.heated,
        filters=[row.filter_kind for row in plan.filters],
        tank_count=tank.tank_count,
        heaters_in=plan.heat.heaters_in if plan.flow.way != "none" else "tank",
        overflow=where_known(lambda: overflow_of(sheet), None),
        sump=where_known(lambda: sump_of(sheet), None),
        animals=[
            AnimalDrawn(
                label=sheet.value(f"animals.{i}.animal").common,
                shape=sheet.value(f"animals.{i}.animal").shape,
                length_cm=sheet.value(f"animals.{i}.{size}"),
                number=group.number,
                level=sheet.value(f"animals.{i}.animal").level,
                ashore=sheet.value(f"animals.{i}.animal").needs_land != "none",
            )
            for i, group in enumerate(plan.animals)
        ],
    )


def land_of(plan: Plan) -> LandDrawn | None:
    """The dry places that stand in or over one tank; None where there is none, or none was told."""
    place = plan.land
    if place.land_kind not in ("platform", "box", "bank"):
        return None
    return LandDrawn(
        kind=place.land_kind,
        count=max(1, round(place.land_count / plan.tank.tank_count)),
        length_cm=place.land_length_cm,
        width_cm=place.land_width_cm,
        above_cm=place.land_above_cm,
        cover_cm=place.land_cover_cm,
        ramp=place.land_ramp,
    )


def overflow_of(sheet: Sheet) -> OverflowDrawn | None:
    flow = sheet.root.flow
    if flow.way == "none":
        return None
    return OverflowDrawn(
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
            RunDrawn(
                part=row.part,
                label=f"{sheet.library.run_parts()[row.part]}, {sheet.library.pipes[row.run_pipe].label}",
                count=row.run_count,
            )
            for row in sheet.root.run
        ],
        outlets=[
            OutletDrawn(depth_cm=row.outlet_depth_cm, open_frac=row.valve_open_frac, flow_lph=flow)
            for row, flow in zip(sheet.root.returns, rows_of(sheet, "outlet_flows"), strict=False)
        ],
    )


def sump_of(sheet: Sheet) -> SumpDrawn | None:
    below = sheet.root.sump
    if sheet.root.flow.way == "none":
        return None
    return SumpDrawn(
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
            ChamberDrawn(
                kind=row.chamber_kind,
                length_cm=sheet.value(f"chambers.{i}.chamber_run_cm"),
                level_cm=sheet.value(f"chambers.{i}.chamber_level_cm"),
                baffle_cm=row.baffle_cm,
            )
            for i, row in enumerate(sheet.root.chambers)
        ],
    )


def saw_tooth_of(sheet: Sheet) -> SawTooth | None:
    if isinstance(sheet.look("saw_tooth"), Missing):
        return None
    feed = sheet.constants["feed_scale"]
    low, likely, high = (
        sheet.changed({CONSTANT + "feed_scale": scale}).value("saw_tooth")
        for scale in (feed.low, feed.value, feed.high)
    )
    source, target = sheet.value("new_nitrate_mg_l"), sheet.root.changes.target_nitrate_mg_l
    return SawTooth(likely, low, high, source, target, is_short(sheet, "nitrate_held"))


def flow_of(sheet: Sheet) -> FlowDrawn | None:
    """The Flow stage's curves and cases; None without a sump or a return."""
    curve = sheet.look("curves")
    if isinstance(curve, Missing):
        return None
    return FlowDrawn(
        pump=curve.pump,
        system=curve.system,
        outlets_lph=sheet.value("outlet_flows"),
        cases=rows_of(sheet, "flow_cases"),
        sump=sentence_of(sheet, "sump_result"),
    )
