"""The plan of one system, as a keeper describes it. Field names carry the unit; limits stand beside them."""

from dataclasses import dataclass, field
from typing import Annotated, Literal

from loquen.core.model.inputs.quantity import UNKNOWN, Choice, Most, Quantity, Untold
from loquen.core.model.inputs.shape import Shape
from loquen.core.physics.nitrogen import NITRATE_PER_N

PLAN_VERSION = 4

SizeBy = Literal["adult", "length", "age"]
FeedBy = Literal["usual", "light", "normal", "growing", "weighed"]
Footprint = Literal["box", "bow_front", "quarter_round", "cylinder", "hexagon", "l_shape"]
Weekday = Literal["Mon", "Tue", "Wed", "Thu", "Fri", "Sat", "Sun"]
Disinfectant = Literal["unknown", "none", "chlorine", "chloramine"]
DISINFECTANTS = {
    UNKNOWN: "not known yet",
    "none": "none: a well, rain, or it was asked",
    "chlorine": "chlorine",
    "chloramine": "chloramine",
}
TAP_UNTOLD = Untold(
    "to ask",
    "Ask the water company which disinfectant it uses and how much at most, or test total chlorine at the tap.",
)
BASKING_UNTOLD = Untold(
    "to measure", "Measure the dry place at its surface with a probe, the lamp an hour on, and enter it."
)
UVI_UNTOLD = Untold("to measure", "Measure the index where its back will be with a meter, and enter it.")


@dataclass(frozen=True, slots=True)
class Group:
    """Animals of one kind, bought and fed together."""

    species: Annotated[str, Choice("Animal", table="species", given="fact")]
    number: Annotated[int, Quantity("How many", "count", 1, 2000, whole=True)]
    males: Annotated[int | None, Quantity("Males among them", "count", 0, 2000, whole=True, given="fact")] = None
    size_by: Annotated[
        SizeBy, Choice("Size today", {"adult": "full grown", "length": "measured", "age": "by age"}, given="fact")
    ] = "adult"
    length_cm: Annotated[float, Quantity("Length today", "length", 0.2, 200, given="reading")] = 3.0
    age_months: Annotated[float, Quantity("Age", "months", 0, 1200, given="fact")] = 3.0
    feed_by: Annotated[
        FeedBy,
        Choice(
            "Feeding",
            {
                "usual": "usual for its size",
                "light": "light",
                "normal": "normal",
                "growing": "heavy, for growth",
                "weighed": "weighed",
            },
        ),
    ] = "usual"
    weighed_g_d: Annotated[float, Quantity("Food for the group, on a day with food", "feed", 0, 50_000)] = 1.0
    food_protein_frac: Annotated[float | None, Quantity("Protein of their food", "share", 0.02, 0.95)] = None
    food: Annotated[str, Choice("Food", table="foods")] = "dry"
    own_litres: Annotated[
        float | None, Quantity("Litres for one adult, by your own rule", "volume", 0.05, 5000)
    ] = None
    own_lengths: Annotated[float | None, Quantity("Tank in adult lengths, by your own rule", "ratio", 1, 30)] = None
    own_reason: Annotated[str, Choice("Why", table="text")] = ""
    meals_d: Annotated[int, Quantity("Meals on a day with food", "count", 1, 12, whole=True)] = 2
    fasting_d_wk: Annotated[int, Quantity("Days a week without food", "count", 0, 6, whole=True)] = 0
    uneaten_frac: Annotated[float, Quantity("Left uneaten", "share", 0, 0.9)] = 0.0


@dataclass(frozen=True, slots=True)
class Tank:
    """The glass and what lies in it."""

    shape: Annotated[
        Footprint,
        Choice(
            "Shape",
            {
                "box": "box",
                "bow_front": "bow front",
                "quarter_round": "quarter-round corner",
                "cylinder": "cylinder",
                "hexagon": "hexagon",
                "l_shape": "L-shape",
            },
            given="bought",
        ),
    ] = "box"
    measured: Annotated[
        Literal["inside", "outside"], Choice("Measured", {"inside": "inside", "outside": "outside"}, given="fact")
    ] = "inside"
    tank_count: Annotated[int, Quantity("Tanks alike on one water", "count", 1, 60, whole=True, given="bought")] = 1
    tank_length_cm: Annotated[float, Quantity("Length", "length", 10, 1000, given="bought")] = 90.0
    tank_width_cm: Annotated[float, Quantity("Width, front to back", "length", 10, 500, given="bought")] = 45.0
    tank_height_cm: Annotated[float, Quantity("Height", "length", 10, 200, given="bought")] = 45.0
    bow_cm: Annotated[float, Quantity("Depth of the bow", "length", 0, 100, given="bought")] = 0.0
    notch_length_cm: Annotated[float, Quantity("Missing corner, length", "length", 0, 900, given="bought")] = 0.0
    notch_width_cm: Annotated[float, Quantity("Missing corner, width", "length", 0, 450, given="bought")] = 0.0
    fill_by: Annotated[
        Literal["freeboard", "height"],
        Choice("Filled", {"freeboard": "to below the rim", "height": "in part, to a height"}),
    ] = "freeboard"
    freeboard_cm: Annotated[float, Quantity("Free space under the rim", "length", 0, 100)] = 3.0
    part_fill_cm: Annotated[float, Quantity("Water height", "length", 3, 200)] = 25.0
    pane_mm: Annotated[float, Quantity("Pane", "thickness", 2, 60, given="bought")] = 8.0
    pane_material: Annotated[
        Literal["glass", "acrylic"], Choice("Material", {"glass": "glass", "acrylic": "acrylic"}, given="bought")
    ] = "glass"
    toughened: Annotated[bool, Choice("Toughened panes", given="bought")] = False
    factory_built: Annotated[bool, Choice("Sold as a tank, filled as its maker says", given="bought")] = False
    support: Annotated[
        Literal["three_edges", "cross", "four_edges"],
        Choice(
            "Top edge",
            {
                "three_edges": "free (rimless)",
                "cross": "tied across the middle",
                "four_edges": "braced all round",
            },
            given="bought",
        ),
    ] = "three_edges"
    bed: Annotated[str, Choice("Bed", table="beds")] = "sand"
    bed_front_cm: Annotated[float, Quantity("Bed at the front", "length", 0, 60)] = 3.0
    bed_back_cm: Annotated[float, Quantity("Bed at the back", "length", 0, 60)] = 5.0
    bag_l: Annotated[float, Quantity("One bag", "volume", 0.5, 100, given="fact")] = 10.0
    soil_left_meq_l: Annotated[
        float, Quantity("Alkalinity a litre of soil still takes", "alkalinity", 0, 200, given="fact")
    ] = 40.0
    lime_kg: Annotated[float, Quantity("Coral or shell in the flow", "mass", 0, 500, given="bought")] = 0.0
    lime_grain_mm: Annotated[float, Quantity("Grain of coral or shell", "thickness", 0.5, 60, given="bought")] = 4.0
    siphoned_by: Annotated[
        Literal["usual", "weekly", "daily"],
        Choice(
            "Bottom siphoned",
            {"usual": "as most do", "weekly": "all of it each week", "daily": "all of it each day"},
        ),
    ] = "usual"
    siphoned_frac: Annotated[float | None, Quantity("Waste siphoned off before it rots", "share", 0, 0.6)] = None
    rock_kg: Annotated[float, Quantity("Rock", "mass", 0, 2000)] = 0.0
    wood_l: Annotated[float, Quantity("Wood", "volume", 0, 500)] = 0.0


@dataclass(frozen=True, slots=True)
class Patch:
    """A part of the floor with another bed than the rest."""

    patch_bed: Annotated[str, Choice("Bed", table="beds")] = "soil"
    patch_frac: Annotated[float, Quantity("Part of the floor", "share", 0.01, 1)] = 0.3
    patch_front_cm: Annotated[float, Quantity("At the front", "length", 0, 60)] = 4.0
    patch_back_cm: Annotated[float, Quantity("At the back", "length", 0, 60)] = 6.0


@dataclass(frozen=True, slots=True)
class Planting:
    """Plants of one kind, and how much of the tank they cover seen from above."""

    plant: Annotated[str, Choice("Plant", table="plants")] = "slow_rooted"
    plant_cover_frac: Annotated[float, Quantity("Footprint they cover", "share", 0, 1)] = 0.2


@dataclass(frozen=True, slots=True)
class Filter:
    """One generic filter: what it holds and what it moves."""

    filter_kind: Annotated[str, Choice("Kind", table="filter_kinds", given="bought")] = "canister"
    media: Annotated[str, Choice("Media", table="media", given="bought")] = "sponge_20"
    media_l: Annotated[float, Quantity("Media", "volume", 0, 500, given="bought")] = 6.0
    maturity_frac: Annotated[float | None, Quantity("Mature", "share", 0, 1, given="fact")] = None
    rated_lph: Annotated[float, Quantity("Rated flow", "flow", 5, 50_000, given="bought")] = 1000.0
    measured_lph: Annotated[float | None, Quantity("Measured flow", "flow", 0, 50_000, given="reading")] = None
    holds_l: Annotated[float, Quantity("Water it holds", "volume", 0, 500, given="bought")] = 0.0
    filter_w: Annotated[float, Quantity("Electricity", "power", 0, 2000, given="bought")] = 10.0
    outlet: Annotated[
        Literal["usual", "submerged", "spill", "spray"],
        Choice(
            "Its outlet",
            {
                "usual": "as its kind does",
                "submerged": "under the water",
                "spill": "spills over a lip",
                "spray": "sprays over the water",
            },
        ),
    ] = "usual"
    draws_at_cm: Annotated[float, Quantity("Its intake stands above the bottom", "length", 0, 150)] = 5.0
    zeolite_g: Annotated[float, Quantity("Zeolite in it", "small_mass", 0, 100_000)] = 0.0


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


@dataclass(frozen=True, slots=True)
class Heat:
    """The room, the lid and what warms the water."""

    heated: Annotated[bool, Choice("Heated")] = True
    target_c: Annotated[float, Quantity("Kept at", "temperature", 4, 36)] = 25.0
    room_cold_c: Annotated[float, Quantity("Coldest night in the room", "temperature", -10, 40, given="fact")] = (
        16.0
    )
    room_warm_c: Annotated[float, Quantity("Hottest day in the room", "temperature", 0, 45, given="fact")] = 27.0
    room_mean_c: Annotated[float, Quantity("Room, mean of the year", "temperature", -5, 40, given="fact")] = 20.0
    room_months_c: Annotated[
        tuple[float, ...] | None, Quantity("Room by month", "temperature", -5, 45, given="fact"), Most(12)
    ] = None
    humidity_frac: Annotated[float, Quantity("Humidity", "share", 0, 1, given="fact")] = 0.5
    lid: Annotated[str, Choice("Lid", table="lids", given="bought")] = "glass"
    hot_day_lid: Annotated[
        Literal["same", "mesh", "open"],
        Choice("On hot days", {"same": "the same lid", "mesh": "mesh in its place", "open": "taken off"}),
    ] = "same"
    chiller_w: Annotated[float, Quantity("Chiller takes out", "power", 0, 5000, given="bought")] = 0.0
    base_foam_mm: Annotated[float, Quantity("Foam under the base", "thickness", 0, 100, given="bought")] = 10.0
    side_foam_mm: Annotated[float, Quantity("Foam on back or sides", "thickness", 0, 100, given="bought")] = 0.0
    foam_frac: Annotated[float, Quantity("Part of the walls behind it", "share", 0, 1, given="bought")] = 0.0
    against_wall: Annotated[bool, Choice("Back against a wall", given="fact")] = True
    heaters_in: Annotated[
        Literal["tank", "sump"], Choice("Heaters hang in", {"tank": "the tank", "sump": "the sump"})
    ] = "tank"
    fan_fitted: Annotated[bool, Choice("Fan over the surface", given="bought")] = False
    fan_m_s: Annotated[float, Quantity("A fan moves air at", "pipe_speed", 0, 5, given="bought")] = 1.5
    fan_draws_w: Annotated[float, Quantity("A fan draws", "power", 0, 200, given="bought")] = 6.0
    fitted_heaters: Annotated[
        int | None, Quantity("Heaters fitted", "count", 1, 12, whole=True, given="bought")
    ] = None
    fitted_w: Annotated[float | None, Quantity("Each fitted heater", "power", 5, 3000, given="bought")] = None
    cut_out: Annotated[bool, Choice("Independent cut-out controller", given="bought")] = False
    price_per_kwh: Annotated[float, Quantity("Electricity, per kWh", "money", 0, 100, given="fact")] = 0.30
    mains_v: Annotated[float, Quantity("Mains", "voltage", 12, 480, given="fact")] = 230.0
    circuit_a: Annotated[float, Quantity("Circuit's rating", "current", 1, 125, given="fact")] = 16.0
    circuit_other_w: Annotated[float, Quantity("Others on the circuit", "power", 0, 20_000, given="fact")] = 0.0


@dataclass(frozen=True, slots=True)
class Air:
    """How air reaches the water."""

    surface_movement: Annotated[
        Literal["still", "ripple", "strong"],
        Choice("Surface", {"still": "still", "ripple": "gentle ripple", "strong": "moved strongly"}),
    ] = "ripple"
    stones_lph: Annotated[float, Quantity("Air through stones", "flow", 0, 20_000, given="bought")] = 0.0
    stones_cm: Annotated[float, Quantity("Stones lie under the surface", "length", 0, 200)] = 30.0
    fall_cm: Annotated[float, Quantity("Returning water falls", "length", 0, 200)] = 0.0
    outlets: Annotated[int, Quantity("Air outlets on one pump", "count", 0, 400, whole=True, given="bought")] = 0
    outlet_lph: Annotated[float, Quantity("Each wants", "flow", 1, 2000, given="bought")] = 60.0
    outlet_cm: Annotated[float, Quantity("Deepest outlet", "length", 0, 200)] = 30.0
    air_pump_lph: Annotated[float, Quantity("Air pump gives", "flow", 1, 100_000, given="bought")] = 300.0
    air_pump_kpa: Annotated[float, Quantity("At most against", "pressure", 0.5, 100, given="bought")] = 12.0
    altitude_m: Annotated[float, Quantity("Altitude", "altitude", -400, 5000, given="fact")] = 0.0


@dataclass(frozen=True, slots=True)
class Light:
    """Day and night, and the place to bask."""

    ramp_min: Annotated[float, Quantity("Ramp up and down", "minutes", 0, 240)] = 0.0
    siesta_h: Annotated[float, Quantity("Break at midday", "hours", 0, 12)] = 0.0
    basking_c: Annotated[
        float | None,
        Quantity("Basking place, measured", "temperature", 0, 70, given="reading", untold=BASKING_UNTOLD),
    ] = None
    measured_uvi: Annotated[
        float | None,
        Quantity("Index on the back, measured", "uv_index", 0, 100, given="reading", untold=UVI_UNTOLD),
    ] = None
    uvb_wanted_uvi: Annotated[float | None, Quantity("Index wanted on the back", "uv_index", 0.1, 12)] = None


@dataclass(frozen=True, slots=True)
class Lamp:
    """One lamp: what it is for, what it draws and for how long; of an ultraviolet-B lamp also what its maker measured."""

    lamp_kind: Annotated[
        Literal["display", "basking", "uvb", "dark_heat"],
        Choice(
            "Lamp for",
            {
                "display": "light over the water",
                "basking": "a warm place, with light",
                "uvb": "ultraviolet-B",
                "dark_heat": "warmth without light",
            },
            given="bought",
        ),
    ] = "display"
    lamp_w: Annotated[float, Quantity("Takes", "power", 0, 2000, given="bought")] = 20.0
    lamp_h: Annotated[float, Quantity("Hours a day", "hours", 0, 24)] = 8.0
    lamp_cm: Annotated[float, Quantity("Hangs above the back by", "length", 2, 300)] = 30.0
    lamp_age_months: Annotated[float, Quantity("Its age", "months", 0, 120, given="fact")] = 0.0
    lamp_life_months: Annotated[float, Quantity("Maker says replace after", "months", 1, 120, given="fact")] = 12.0
    near_cm: Annotated[float, Quantity("Maker's nearer distance", "length", 2, 200, given="fact")] = 20.0
    near_uvi: Annotated[float, Quantity("Index there", "uv_index", 0.1, 100, given="fact")] = 5.0
    far_cm: Annotated[float, Quantity("Maker's farther distance", "length", 3, 300, given="fact")] = 40.0
    far_uvi: Annotated[float, Quantity("Index there", "uv_index", 0.01, 100, given="fact")] = 1.6
    screen_frac: Annotated[float, Quantity("Lost in a screen", "share", 0, 0.9, given="fact")] = 0.0


@dataclass(frozen=True, slots=True)
class Water:
    """The water in the tank and the water that replaces it."""

    tank_ph: Annotated[float, Quantity("pH of the tank", "ph", 4, 10, given="reading")] = 7.4
    tank_gh_dgh: Annotated[float, Quantity("GH of the tank", "hardness", 0, 60, given="reading")] = 9.0
    salinity_by: Annotated[
        Literal["ppt", "gravity"], Choice("Salinity", {"ppt": "as salinity", "gravity": "by hydrometer"})
    ] = "ppt"
    salinity_ppt: Annotated[float, Quantity("Salinity", "salinity", 0, 40)] = 0.0
    gravity_sg: Annotated[float, Quantity("Hydrometer reads", "gravity", 0.99, 1.1, given="reading")] = 1.0
    hydrometer_c: Annotated[float, Quantity("Hydrometer is made for", "temperature", 0, 35, given="fact")] = 25.0
    tank_us_cm: Annotated[
        float | None, Quantity("Conductivity of the tank", "conductivity", 1, 40_000, given="reading")
    ] = None
    source_kh_dkh: Annotated[float, Quantity("KH of the change water", "carbonate", 0, 40, given="reading")] = 5.0
    source_nitrate_mg_l: Annotated[
        float, Quantity("Nitrate of the change water", "nitrate", 0, 50, given="reading")
    ] = 10 / NITRATE_PER_N
    source_us_cm: Annotated[
        float, Quantity("Conductivity of the change water", "conductivity", 1, 40_000, given="reading")
    ] = 450.0
    source_c: Annotated[float, Quantity("Change water comes at", "temperature", 0, 40)] = 24.0
    topped_up: Annotated[
        Literal["source", "pure"],
        Choice("Evaporation topped up with", {"source": "the change water", "pure": "pure water"}),
    ] = "source"
    disinfectant: Annotated[
        Disinfectant, Choice("Disinfectant", DISINFECTANTS, given="reading", untold=TAP_UNTOLD)
    ] = "unknown"
    disinfectant_mg_l: Annotated[float | None, Quantity("Its strength", "chlorine", 0, 10, given="reading")] = None
    treatment: Annotated[
        Literal["container", "tank", "carbon", "aged", "none"],
        Choice(
            "Treated",
            {
                "container": "conditioner, before it is poured",
                "tank": "conditioner in the tank, then refilled",
                "carbon": "run through carbon",
                "aged": "aged in a barrel",
                "none": "not at all",
            },
        ),
    ] = "container"
    aged_h: Annotated[float, Quantity("Stands for", "hours", 0, 1000)] = 48.0
    aerated: Annotated[bool, Choice("Aerated while it stands")] = True
    carbon_kind: Annotated[
        Literal["ordinary", "catalytic"],
        Choice("Carbon", {"ordinary": "ordinary", "catalytic": "catalytic"}, given="bought"),
    ] = "catalytic"
    carbon_l: Annotated[float, Quantity("Carbon in the cartridge", "volume", 0.05, 1000, given="bought")] = 2.0
    carbon_lph: Annotated[float, Quantity("Flow through it", "flow", 1, 20_000)] = 120.0
    conditioner_ml: Annotated[
        float, Quantity("Conditioner for 100 L, by its label", "dose", 0.01, 500, given="fact")
    ] = 25.0
    chloramine_factor: Annotated[float, Quantity("Times as much for chloramine", "ratio", 1, 10, given="fact")] = (
        2.0
    )
    dose_margin: Annotated[float | None, Quantity("Your own margin, times the label", "ratio", 0.5, 5)] = None
    dose_most: Annotated[float, Quantity("Label's most, times its dose", "ratio", 1, 20, given="fact")] = 5.0
    container_l: Annotated[float | None, Quantity("One container holds", "volume", 1, 2000, given="bought")] = None
    aired: Annotated[bool, Choice("Aired, or splashed over a column, before it goes in")] = False


@dataclass(frozen=True, slots=True)
class Source:
    """One water that change water is mixed from, by its test or its report."""

    src_name: Annotated[str, Choice("Name", given="fact")] = "Tap"
    src_kind: Annotated[
        Literal["tap", "well", "rain", "osmosis", "stored"],
        Choice(
            "Kind",
            {"tap": "tap", "well": "well", "rain": "rain", "osmosis": "reverse osmosis", "stored": "stored"},
            given="fact",
        ),
    ] = "tap"
    src_parts: Annotated[float, Quantity("Parts in the mix", "ratio", 0, 1000)] = 1.0
    src_gh_dgh: Annotated[float, Quantity("GH", "hardness", 0, 60, given="reading")] = 9.0
    src_kh_dkh: Annotated[float, Quantity("KH", "carbonate", 0, 40, given="reading")] = 5.0
    src_ph: Annotated[float | None, Quantity("pH of the test", "ph", 3, 11, given="reading")] = None
    src_us_cm: Annotated[float, Quantity("Conductivity", "conductivity", 1, 40_000, given="reading")] = 450.0
    src_nitrate_mg_l: Annotated[float, Quantity("Nitrate", "nitrate", 0, 50, given="reading")] = 2.0
    src_sodium_mg_l: Annotated[float, Quantity("Sodium", "level", 0, 10_000, given="reading")] = 10.0
    src_chloride_mg_l: Annotated[float, Quantity("Chloride", "level", 0, 20_000, given="reading")] = 20.0
    src_c: Annotated[float, Quantity("Comes at", "temperature", 0, 70, given="reading")] = 15.0
    src_summer_c: Annotated[float | None, Quantity("In summer at", "temperature", 0, 70, given="reading")] = None
    src_disinfectant: Annotated[
        Disinfectant, Choice("Disinfectant", DISINFECTANTS, given="reading", untold=TAP_UNTOLD)
    ] = "unknown"
    src_chlorine_mg_l: Annotated[float | None, Quantity("Its strength", "chlorine", 0, 10, given="reading")] = None
    src_softened: Annotated[
        Literal["none", "hot", "all"],
        Choice(
            "Salt softener", {"none": "none", "hot": "on the hot side only", "all": "on all of it"}, given="fact"
        ),
    ] = "none"


@dataclass(frozen=True, slots=True)
class Recipe:
    """What is made of the waters for one change: targets, salts, temperature, salt."""

    target_gh_dgh: Annotated[float | None, Quantity("GH wanted", "hardness", 0, 40)] = None
    target_us_cm: Annotated[
        float | None, Quantity("Conductivity wanted, where no GH is", "conductivity", 1, 20_000)
    ] = None
    target_kh_dkh: Annotated[float | None, Quantity("KH wanted", "carbonate", 0, 30)] = None
    calcium_salt: Annotated[str, Choice("Calcium from", table="calcium_salts")] = "gypsum"
    magnesium_salt: Annotated[str, Choice("Magnesium from", table="magnesium_salts")] = (
        "magnesium_sulfate_heptahydrate"
    )
    calcium_frac: Annotated[float, Quantity("Calcium's part of the hardness", "share", 0, 1)] = 0.75
    carbonate_salt: Annotated[str, Choice("KH from", table="carbonate_salts")] = "sodium_bicarbonate"
    product_g: Annotated[
        float | None,
        Quantity("Mixed salt: label's weight for a degree in 100 L", "small_mass", 0.1, 500, given="fact"),
    ] = None
    hot_c: Annotated[float, Quantity("Hot tap", "temperature", 20, 90, given="fact")] = 55.0
    fill_l_min: Annotated[float, Quantity("Filled at", "fill_rate", 0.2, 200, given="fact")] = 10.0
    flush_m: Annotated[float, Quantity("Old or metal pipe before the tap", "head", 0, 200, given="fact")] = 0.0
    flush_bore_mm: Annotated[float, Quantity("Its bore", "thickness", 4, 60, given="fact")] = 13.0
    salt_purity_frac: Annotated[float, Quantity("Salt in what is weighed", "share", 0.3, 1, given="fact")] = 1.0
    move_to_ppt: Annotated[float | None, Quantity("Move to a salinity of", "salinity", 0, 40)] = None
    move_ppt_d: Annotated[float, Quantity("A day at most", "salinity", 0.05, 3)] = 1.0


@dataclass(frozen=True, slots=True)
class Osmosis:
    """A reverse-osmosis membrane and the water it is fed with."""

    membrane_fitted: Annotated[bool, Choice("Reverse osmosis of your own", given="bought")] = False
    membrane_l_d: Annotated[
        float, Quantity("Membrane makes, as rated", "volume_per_day", 10, 20_000, given="bought")
    ] = 280.0
    membrane_kpa: Annotated[float, Quantity("Rated at", "pressure", 100, 2000, given="bought")] = 414.0
    feed_kpa: Annotated[float, Quantity("Pressure before it", "pressure", 50, 2000, given="reading")] = 350.0
    feed_c: Annotated[float, Quantity("Feed water", "temperature", 1, 40, given="reading")] = 12.0
    feed_us_cm: Annotated[float, Quantity("Feed, conductivity", "conductivity", 1, 20_000, given="reading")] = 450.0
    feed_gh_dgh: Annotated[float, Quantity("Feed, GH", "hardness", 0, 60, given="reading")] = 9.0
    feed_kh_dkh: Annotated[float, Quantity("Feed, KH", "carbonate", 0, 40, given="reading")] = 5.0
    feed_nitrate_mg_l: Annotated[float, Quantity("Feed, nitrate", "nitrate", 0, 50, given="reading")] = (
        10 / NITRATE_PER_N
    )
    rejects_frac: Annotated[float, Quantity("It rejects of solids", "share", 0.5, 0.999, given="fact")] = 0.96
    rejects_nitrate_frac: Annotated[float, Quantity("It rejects of nitrate", "share", 0.2, 0.999, given="fact")] = (
        0.87
    )
    waste_ratio: Annotated[float, Quantity("Litres to the drain for each made", "ratio", 0.2, 10, given="fact")] = (
        3.0
    )
    store_l: Annotated[float, Quantity("Store holds", "volume", 1, 20_000, given="bought")] = 100.0


@dataclass(frozen=True, slots=True)
class Bag:
    """One arrival: the bag its animals come in, and the drip they are given."""

    bag_name: Annotated[str, Choice("Who comes", table="text", given="fact")] = "Newcomers"
    bagged_l: Annotated[float, Quantity("Water in the bag", "volume", 0.05, 200, given="fact")] = 1.5
    bag_mass_g: Annotated[float, Quantity("Animals in it", "small_mass", 0.01, 20_000, given="fact")] = 10.0
    bag_number: Annotated[int, Quantity("How many they are", "count", 1, 2000, whole=True, given="fact")] = 1
    bag_protein_frac: Annotated[float, Quantity("Protein of their food", "share", 0.02, 0.95, given="fact")] = 0.42
    bag_h: Annotated[float, Quantity("On the way for", "hours", 0, 120, given="fact")] = 6.0
    bag_fasted: Annotated[bool, Choice("Not fed the day before", given="fact")] = True
    bag_c: Annotated[float, Quantity("Bag's temperature", "temperature", 2, 38, given="reading")] = 21.0
    bag_kh_dkh: Annotated[float, Quantity("KH of its water", "carbonate", 0.1, 30, given="reading")] = 4.0
    bag_ph: Annotated[float, Quantity("pH while sealed", "ph", 4, 9, given="reading")] = 6.6
    bag_us_cm: Annotated[
        float | None, Quantity("Conductivity of its water", "conductivity", 1, 40_000, given="reading")
    ] = None
    bag_salinity_ppt: Annotated[
        float | None, Quantity("Salinity of its water", "salinity", 0, 40, given="reading")
    ] = None
    drops_per_s: Annotated[float, Quantity("Drops a second", "ratio", 0.1, 20)] = 2.0
    drip_min: Annotated[float, Quantity("Drip for", "minutes", 1, 600)] = 40.0
    drip_frac: Annotated[float, Quantity("Tank water wanted in it", "share", 0.1, 0.95)] = 0.8


@dataclass(frozen=True, slots=True)
class Quarantine:
    """The tubs in which arrivals wait before they join the others."""

    tub_l: Annotated[float, Quantity("A tub holds", "volume", 1, 2000, given="bought")] = 18.0
    tub_count: Annotated[int, Quantity("Tubs", "count", 1, 100, whole=True, given="bought")] = 1
    wait_weeks: Annotated[float, Quantity("Each waits", "weeks", 1, 26)] = 4.0
    tub_media_m2: Annotated[float, Quantity("Seeded media in it", "area", 0, 50, given="bought")] = 0.0
    treatment_notes: Annotated[str, Choice("Treatment notes", table="text")] = ""
    copper_used: Annotated[bool, Choice("Treated with copper")] = False


@dataclass(frozen=True, slots=True)
class Stocking:
    """The school of stocking that the keeper goes by."""

    decides: Annotated[
        Literal["balance", "volume", "length", "surface", "crowd", "group"],
        Choice(
            "The school that decides",
            {
                "balance": "balance",
                "volume": "volume",
                "length": "length",
                "surface": "surface",
                "crowd": "crowd",
                "group": "group",
            },
        ),
    ] = "balance"


@dataclass(frozen=True, slots=True)
class RunIn:
    """How long the system has run with something to turn over, and when its animals go in."""

    stands: Annotated[
        Literal["planned", "set_up"],
        Choice("The system", {"planned": "is planned", "set_up": "is set up"}, given="fact"),
    ] = "planned"
    set_up_on: Annotated[str, Choice("Set up on", table="date", given="fact")] = ""
    age_weeks: Annotated[float | None, Quantity("Running for", "weeks", 0, 5000, given="fact")] = None
    seeded_frac: Annotated[float, Quantity("Media from a mature filter", "share", 0, 1)] = 0.0
    stocked: Annotated[
        Literal["now", "cycled"],
        Choice("Its animals", {"now": "are in it now", "cycled": "go in once it is cycled"}, given="fact"),
    ] = "now"


@dataclass(frozen=True, slots=True)
class Cycle:
    """How the filter is brought to life, and since when."""

    begun_by: Annotated[
        Literal["running", "empty", "animals", "soil"],
        Choice(
            "The filter",
            {
                "running": "has long been running",
                "empty": "is started empty, with ammonia",
                "animals": "is started with animals in it",
                "soil": "is started on active soil",
            },
            given="fact",
        ),
    ] = "running"
    begun_on: Annotated[str, Choice("Started on", table="date", given="fact")] = ""
    seeded_by: Annotated[
        Literal["nothing", "plants", "bottle", "media"],
        Choice(
            "Bacteria come with",
            {
                "nothing": "water and dust alone",
                "plants": "plants, pond or tank water",
                "bottle": "a bottle of bacteria",
                "media": "media of a running filter",
            },
        ),
    ] = "nothing"
    donor_frac: Annotated[float, Quantity("Part of the donor's media", "share", 0, 1)] = 0.3
    donor_mg_d: Annotated[
        float, Quantity("Nitrogen the donor turns over", "nitrogen_load", 0, 100_000, given="fact")
    ] = 100.0
    dose_kind: Annotated[
        Literal["ammonium_chloride", "ammonia_solution"],
        Choice("Dosed as", {"ammonium_chloride": "ammonium chloride", "ammonia_solution": "a solution of ammonia"}),
    ] = "ammonium_chloride"
    solution_pct: Annotated[float, Quantity("Ammonia in the solution, percent", "ratio", 0.1, 35, given="fact")] = (
        9.5
    )
    soil_gives_mg_l: Annotated[
        float, Quantity("Ammonia the soil gives up in all", "ammonia", 0, 60, given="fact")
    ] = 6.0
    camp: Annotated[
        Literal["changes", "none", "detoxifier"],
        Choice(
            "With animals in it",
            {
                "changes": "water is changed when a limit is passed",
                "none": "no water is changed",
                "detoxifier": "a detoxifier is dosed each day",
            },
        ),
    ] = "changes"
    tank_chloride_mg_l: Annotated[
        float, Quantity("Chloride in the water, mg/L", "ratio", 0, 40_000, given="reading")
    ] = 20.0


@dataclass(frozen=True, slots=True)
class Changes:
    """The regime of water changes and what it must hold."""

    target_nitrate_mg_l: Annotated[float, Quantity("Nitrate at most", "nitrate", 0.2, 100)] = 40 / NITRATE_PER_N
    regime: Annotated[
        Literal["weekdays", "every", "trigger", "pulses", "drip"],
        Choice(
            "Changed",
            {
                "weekdays": "on weekdays",
                "every": "every so many days",
                "trigger": "when nitrate reads your limit",
                "pulses": "flow-through pulses",
                "drip": "a steady drip",
            },
        ),
    ] = "weekdays"
    weekdays: Annotated[tuple[Weekday, ...], Choice("Days"), Most(7)] = ("Sat",)
    there: Annotated[tuple[Weekday, ...], Choice("Days you are there", given="fact"), Most(7)] = (
        "Mon",
        "Tue",
        "Wed",
        "Thu",
        "Fri",
        "Sat",
        "Sun",
    )
    read_nitrate_mg_l: Annotated[
        float | None, Quantity("Nitrate read today", "nitrate", 0, 200, given="reading")
    ] = None
    logged_rise_nitrate_mg_l_d: Annotated[
        float | None, Quantity("Nitrate made a day, as the log says", "nitrate_rate", 0, 50, given="reading")
    ] = None
    every_d: Annotated[int, Quantity("Every", "days", 1, 120, whole=True)] = 7
    shortest_gap_d: Annotated[float, Quantity("No sooner than every", "days", 0.5, 60)] = 3.0
    change_frac: Annotated[float, Quantity("Each time", "share", 0.01, 1)] = 0.4
    pulse_days: Annotated[tuple[Weekday, ...], Choice("Pulses on"), Most(7)] = (
        "Mon",
        "Tue",
        "Wed",
        "Thu",
        "Fri",
        "Sat",
        "Sun",
    )
    pulses_d: Annotated[int, Quantity("Pulses a day", "count", 1, 48, whole=True)] = 1
    short_cut_frac: Annotated[float, Quantity("Runs straight to the drain", "share", 0, 0.9)] = 0.1
    drip_l_d: Annotated[float, Quantity("Drips in", "volume_per_day", 0.1, 20_000)] = 20.0
    side_drip_l_d: Annotated[float, Quantity("A drip beside it", "volume_per_day", 0, 20_000)] = 0.0
    away_d: Annotated[float, Quantity("A holiday without changes", "days", 0, 90)] = 14.0
    hose_l_min: Annotated[float, Quantity("Hose", "fill_rate", 0.2, 100, given="fact")] = 8.0
    setup_min: Annotated[float, Quantity("Setting up each time", "minutes", 0, 240, given="fact")] = 12.0


@dataclass(frozen=True, slots=True)
class Told:
    """Which inputs the keeper told, each with the day it was read on where that is known: "water.tank_ph 2026-06-17".

    What is not told is what Loquen assumes, or a plan aims at.
    """

    told_on: Annotated[tuple[str, ...], Choice("Told", table="told", given="fact"), Most(200)] = ()


@dataclass(frozen=True, slots=True)
class Building:
    """What building it for somebody asks beside the parts."""

    build_h: Annotated[float, Quantity("Hours to build it", "hours", 0, 2000)] = 6.0
    hour_money: Annotated[float, Quantity("An hour", "money", 0, 1000)] = 12.0
    margin_frac: Annotated[float, Quantity("Margin on a quote", "share", 0, 2)] = 0.0


@dataclass(frozen=True, slots=True)
class Plan:
    """One system, whole."""

    name: str
    animals: Annotated[tuple[Group, ...], Most(24)] = ()
    tank: Tank = field(default_factory=Tank)
    patches: Annotated[tuple[Patch, ...], Most(6)] = ()
    planting: Annotated[tuple[Planting, ...], Most(24)] = ()
    filters: Annotated[tuple[Filter, ...], Most(8)] = ()
    run_in: RunIn = field(default_factory=RunIn)
    stocking: Stocking = field(default_factory=Stocking)
    cycle: Cycle = field(default_factory=Cycle)
    flow: Flow = field(default_factory=Flow)
    run: Annotated[tuple[RunPart, ...], Most(24)] = ()
    returns: Annotated[tuple[Outlet, ...], Most(8)] = ()
    sump: Sump = field(default_factory=Sump)
    chambers: Annotated[tuple[Chamber, ...], Most(10)] = ()
    heat: Heat = field(default_factory=Heat)
    air: Air = field(default_factory=Air)
    light: Light = field(default_factory=Light)
    lamps: Annotated[tuple[Lamp, ...], Most(8)] = (Lamp(),)
    water: Water = field(default_factory=Water)
    sources: Annotated[tuple[Source, ...], Most(8)] = ()
    recipe: Recipe = field(default_factory=Recipe)
    osmosis: Osmosis = field(default_factory=Osmosis)
    changes: Changes = field(default_factory=Changes)
    bags: Annotated[tuple[Bag, ...], Most(16)] = ()
    quarantine: Quarantine = field(default_factory=Quarantine)
    building: Building = field(default_factory=Building)
    told: Told = field(default_factory=Told)
    version: int = PLAN_VERSION


PLAN = Shape(Plan)
