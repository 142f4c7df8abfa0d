"""What runs over and comes back: overflow, pipes, sump."""

from dataclasses import dataclass
from typing import Annotated, Literal

from loquen.core.model.inputs.quantity import Choice, Most, Quantity


@dataclass(frozen=True, slots=True)
class Flow:
    """How water leaves the display, goes through a sump and comes back."""

    way: Annotated[
        Literal["none", "weir", "holes"],
        Choice(
            "Water leaves by",
            {
                "none": "no overflow: filters alone",
                "weir": "a weir box to a sump",
                "holes": "drilled holes to a sump",
            },
        ),
    ] = "none"
    box_inlet: Annotated[
        Literal["edge", "holes"],
        Choice("Water enters the box", {"edge": "over its edge", "holes": "through holes in its wall"}),
    ] = "edge"
    weir_cm: Annotated[float, Quantity("Weir, length of its edge", "length", 3, 500, given="bought")] = 30.0
    teeth_frac: Annotated[float, Quantity("Of it open between teeth", "share", 0.1, 1, given="bought")] = 1.0
    box_length_cm: Annotated[float, Quantity("Box, length", "length", 3, 500, given="bought")] = 20.0
    box_width_cm: Annotated[float, Quantity("Box, width", "length", 3, 100, given="bought")] = 12.0
    box_lip_cm: Annotated[float, Quantity("Water in the box above its drain's lip", "length", 0, 100)] = 4.0
    hole_mm: Annotated[float, Quantity("Hole", "thickness", 5, 200, given="bought")] = 30.0
    hole_count: Annotated[int, Quantity("Holes in a row", "count", 1, 40, whole=True, given="bought")] = 2
    hole_rows: Annotated[
        int, Quantity("Rows of them, one above the other", "count", 1, 8, whole=True, given="bought")
    ] = 1
    row_gap_cm: Annotated[float, Quantity("From row to row", "length", 1, 60, given="bought")] = 5.0
    clogged_frac: Annotated[float, Quantity("Of the holes clogged", "share", 0, 0.9, given="fact")] = 0.0
    hole_edge_cm: Annotated[float, Quantity("Hole's rim to the pane's edge", "length", 0, 200, given="fact")] = 8.0
    drain_kind: Annotated[
        Literal["open", "siphon"],
        Choice("Drain runs", {"open": "open, with an air core", "siphon": "full, throttled by a valve"}),
    ] = "open"
    drain_pipe: Annotated[str, Choice("Drain", table="pipes", given="bought")] = "waste_40"
    drain_count: Annotated[int, Quantity("Drains", "count", 1, 12, whole=True, given="bought")] = 1
    drain_length_m: Annotated[float, Quantity("Drain, length of pipe", "head", 0.1, 30, given="bought")] = 1.5
    drain_elbows: Annotated[int, Quantity("Drain, elbows", "count", 0, 20, whole=True, given="bought")] = 2
    emergency_pipe: Annotated[str, Choice("Emergency drain, open", table="pipes_or_none", given="bought")] = (
        "waste_40"
    )
    pump_by: Annotated[
        Literal["ends", "points"],
        Choice("Pump curve by", {"ends": "its two ends", "points": "points of its curve"}, given="bought"),
    ] = "ends"
    shutoff_head_m: Annotated[float, Quantity("Lifts at most", "head", 0.1, 60, given="bought")] = 2.8
    pump_max_lph: Annotated[float, Quantity("Moves at most", "flow", 50, 200_000, given="bought")] = 3000.0
    curve_lph: Annotated[
        tuple[float, ...] | None, Quantity("Curve, flow", "flow", 0, 200_000, given="bought"), Most(40)
    ] = None
    curve_head_m: Annotated[
        tuple[float, ...] | None, Quantity("Curve, lift", "head", 0, 60, given="bought"), Most(40)
    ] = None
    pump_w: Annotated[float, Quantity("Pump takes", "power", 0, 3000, given="bought")] = 30.0
    air_break: Annotated[bool, Choice("Air-break hole in each return")] = True
    air_break_cm: Annotated[float, Quantity("Air-break hole under the water", "length", 0, 30)] = 0.5
    uv_fitted: Annotated[bool, Choice("Ultraviolet clarifier", given="bought")] = False
    uv_rated_mj: Annotated[float, Quantity("Maker's dose", "uv_dose", 0.1, 1000, given="bought")] = 30.0
    uv_rated_lph: Annotated[float, Quantity("At a flow of", "flow", 10, 100_000, given="bought")] = 1000.0
    uv_wanted_mj: Annotated[float, Quantity("Dose wanted", "uv_dose", 1, 500)] = 30.0
    uv_lph: Annotated[float, Quantity("Flow through it", "flow", 10, 100_000)] = 1000.0
    measured_return_lph: Annotated[
        float | None, Quantity("Measured flow of the return", "flow", 1, 200_000, given="reading")
    ] = None
    measured_w: Annotated[
        float | None, Quantity("Measured watts of the pump", "power", 0, 3000, given="reading")
    ] = None
    measured_drop_cm: Annotated[
        float | None, Quantity("Measured drop with the power off", "length", 0, 60, given="reading")
    ] = None


@dataclass(frozen=True, slots=True)
class RunPart:
    """One kind of part along the return's common run."""

    part: Annotated[str, Choice("Part", table="run_parts", given="bought")] = "pipe"
    run_pipe: Annotated[str, Choice("Size", table="pipes", given="bought")] = "pvc_32"
    run_count: Annotated[int, Quantity("How many", "count", 1, 60, whole=True, given="bought")] = 1
    run_length_m: Annotated[float, Quantity("Length", "head", 0.01, 100, given="bought")] = 1.5


@dataclass(frozen=True, slots=True)
class Outlet:
    """One return into a display: its own pipe, valve and depth."""

    outlet_pipe: Annotated[str, Choice("Size", table="pipes", given="bought")] = "pvc_25"
    outlet_length_m: Annotated[float, Quantity("Length", "head", 0.01, 50, given="bought")] = 0.6
    outlet_elbows: Annotated[int, Quantity("Elbows", "count", 0, 20, whole=True, given="bought")] = 2
    valve_open_frac: Annotated[float, Quantity("Valve open", "share", 0.1, 1)] = 1.0
    outlet_depth_cm: Annotated[float, Quantity("Outlet under the water", "length", -40, 80)] = 2.0


@dataclass(frozen=True, slots=True)
class Sump:
    """The tank below, inside its stand."""

    sump_length_cm: Annotated[float, Quantity("Length inside", "length", 20, 500, given="bought")] = 80.0
    sump_width_cm: Annotated[float, Quantity("Width inside", "length", 10, 200, given="bought")] = 35.0
    sump_height_cm: Annotated[float, Quantity("Height inside", "length", 10, 120, given="bought")] = 40.0
    sump_lid: Annotated[str, Choice("Its cover", table="lids", given="bought")] = "open"
    sump_pane_mm: Annotated[float, Quantity("Pane", "thickness", 3, 30, given="bought")] = 6.0
    return_level_cm: Annotated[float, Quantity("Water in the return chamber", "length", 2, 110)] = 20.0
    intake_cm: Annotated[float, Quantity("Pump needs at least", "length", 0, 60, given="bought")] = 8.0
    sump_media: Annotated[str, Choice("Media", table="media", given="bought")] = "sponge_20"
    media_fill_frac: Annotated[float, Quantity("Media fill of its chamber", "share", 0, 1)] = 0.7
    topper_l: Annotated[float, Quantity("Automatic top-up holds", "volume", 0, 2000, given="bought")] = 0.0
    stand_cm: Annotated[float, Quantity("Display's base above the sump's", "length", 5, 400, given="fact")] = 75.0
    stand_room_cm: Annotated[float, Quantity("Room under the stand", "length", 10, 300, given="fact")] = 70.0
    tallest_part_cm: Annotated[float, Quantity("Tallest part to lift out", "length", 0, 150, given="fact")] = 25.0


@dataclass(frozen=True, slots=True)
class Chamber:
    """One chamber of the sump, in the order of the flow; the return chamber takes what length is left."""

    chamber_kind: Annotated[
        Literal["settling", "media", "heater", "trap", "return"],
        Choice(
            "Chamber",
            {
                "settling": "inlet, settling",
                "media": "media",
                "heater": "heater and probe",
                "trap": "bubble trap",
                "return": "return",
            },
        ),
    ] = "settling"
    chamber_cm: Annotated[float, Quantity("Length", "length", 1, 500)] = 20.0
    baffle_cm: Annotated[float, Quantity("Baffle", "length", 1, 110)] = 25.0
