"""The plan of one system, as a keeper describes it. Field names carry the unit; limits stand beside them."""

from dataclasses import dataclass, field
from typing import Annotated, Literal

from loquen.core.model.quantity import Choice, Quantity
from loquen.core.physics.nitrogen import NITRATE_PER_N

PLAN_VERSION = 1

SizeBy = Literal["adult", "length", "age"]
FeedBy = Literal["usual", "light", "normal", "growing", "weighed"]
Shape = Literal["box", "bow_front", "quarter_round", "cylinder", "hexagon", "l_shape"]
Weekday = Literal["Mon", "Tue", "Wed", "Thu", "Fri", "Sat", "Sun"]


@dataclass(frozen=True, slots=True)
class Group:
    """Animals of one kind, bought and fed together."""

    species: Annotated[str, Choice("Animal", table="species")]
    number: Annotated[int, Quantity("How many", "count", 1, 2000, whole=True)]
    males: Annotated[int | None, Quantity("Males among them", "count", 0, 2000, whole=True)] = None
    size_by: Annotated[
        SizeBy, Choice("Size today", {"adult": "full grown", "length": "measured", "age": "by age"})
    ] = "adult"
    length_cm: Annotated[float, Quantity("Length today", "length", 0.2, 200)] = 3.0
    age_months: Annotated[float, Quantity("Age", "months", 0, 1200)] = 3.0
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
    weighed_g_d: Annotated[float, Quantity("Dry food for the group", "feed", 0, 5000)] = 1.0
    food_protein_frac: Annotated[float | None, Quantity("Protein of their food", "share", 0.02, 0.95)] = None


@dataclass(frozen=True, slots=True)
class Tank:
    """The glass and what lies in it."""

    shape: Annotated[
        Shape,
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
        ),
    ] = "box"
    measured: Annotated[
        Literal["inside", "outside"], Choice("Measured", {"inside": "inside", "outside": "outside"})
    ] = "inside"
    tank_length_cm: Annotated[float, Quantity("Length", "length", 10, 1000)] = 90.0
    tank_width_cm: Annotated[float, Quantity("Width, front to back", "length", 10, 500)] = 45.0
    tank_height_cm: Annotated[float, Quantity("Height", "length", 10, 200)] = 45.0
    bow_cm: Annotated[float, Quantity("Depth of the bow", "length", 0, 100)] = 0.0
    notch_length_cm: Annotated[float, Quantity("Missing corner, length", "length", 0, 900)] = 0.0
    notch_width_cm: Annotated[float, Quantity("Missing corner, width", "length", 0, 450)] = 0.0
    fill_by: Annotated[
        Literal["freeboard", "height"],
        Choice("Filled", {"freeboard": "to below the rim", "height": "in part, to a height"}),
    ] = "freeboard"
    freeboard_cm: Annotated[float, Quantity("Free space under the rim", "length", 0, 100)] = 3.0
    part_fill_cm: Annotated[float, Quantity("Water height", "length", 3, 200)] = 25.0
    pane_mm: Annotated[float, Quantity("Pane", "thickness", 2, 60)] = 8.0
    pane_material: Annotated[
        Literal["glass", "acrylic"], Choice("Material", {"glass": "glass", "acrylic": "acrylic"})
    ] = "glass"
    support: Annotated[
        Literal["three_edges", "four_edges"],
        Choice("Top edge", {"three_edges": "free (rimless)", "four_edges": "braced all along"}),
    ] = "three_edges"
    bed: Annotated[str, Choice("Bed", table="beds")] = "sand"
    bed_front_cm: Annotated[float, Quantity("Bed at the front", "length", 0, 60)] = 3.0
    bed_back_cm: Annotated[float, Quantity("Bed at the back", "length", 0, 60)] = 5.0
    bag_l: Annotated[float, Quantity("One bag", "volume", 0.5, 100)] = 10.0
    rock_kg: Annotated[float, Quantity("Rock", "mass", 0, 2000)] = 0.0
    wood_l: Annotated[float, Quantity("Wood", "volume", 0, 500)] = 0.0
    plants: Annotated[str, Choice("Plants", table="plants")] = "none"
    plant_cover_frac: Annotated[float, Quantity("Footprint they cover", "share", 0, 1)] = 0.3


@dataclass(frozen=True, slots=True)
class Filter:
    """One generic filter: what it holds and what it moves."""

    filter_kind: Annotated[str, Choice("Kind", table="filter_kinds")] = "canister"
    media: Annotated[str, Choice("Media", table="media")] = "sponge_20"
    media_l: Annotated[float, Quantity("Media", "volume", 0, 500)] = 6.0
    maturity_frac: Annotated[float, Quantity("Mature", "share", 0, 1)] = 1.0
    rated_lph: Annotated[float, Quantity("Rated flow", "flow", 5, 50_000)] = 1000.0
    measured_lph: Annotated[float | None, Quantity("Measured flow", "flow", 0, 50_000)] = None
    holds_l: Annotated[float, Quantity("Water it holds", "volume", 0, 500)] = 0.0
    filter_w: Annotated[float, Quantity("Electricity", "power", 0, 2000)] = 10.0


@dataclass(frozen=True, slots=True)
class Heat:
    """The room, the lid and what warms the water."""

    heated: Annotated[bool, Choice("Heated")] = True
    target_c: Annotated[float, Quantity("Kept at", "temperature", 4, 36)] = 25.0
    room_cold_c: Annotated[float, Quantity("Coldest night in the room", "temperature", -10, 40)] = 16.0
    room_warm_c: Annotated[float, Quantity("Hottest day in the room", "temperature", 0, 45)] = 27.0
    room_mean_c: Annotated[float, Quantity("Room, mean of the year", "temperature", -5, 40)] = 20.0
    room_months_c: Annotated[tuple[float, ...] | None, Quantity("Room by month", "temperature", -5, 45)] = None
    humidity_frac: Annotated[float, Quantity("Humidity", "share", 0, 1)] = 0.5
    lid: Annotated[
        Literal["open", "part", "closed"],
        Choice("Lid", {"open": "open", "part": "half covered", "closed": "closed"}),
    ] = "closed"
    base_foam_mm: Annotated[float, Quantity("Foam under the base", "thickness", 0, 100)] = 10.0
    against_wall: Annotated[bool, Choice("Back against a wall")] = True
    light_w: Annotated[float, Quantity("Lamp", "power", 0, 2000)] = 20.0
    light_h: Annotated[float, Quantity("Lamp, hours a day", "hours", 0, 24)] = 8.0
    fitted_heaters: Annotated[int | None, Quantity("Heaters fitted", "count", 1, 12, whole=True)] = None
    fitted_w: Annotated[float | None, Quantity("Each fitted heater", "power", 5, 3000)] = None
    cut_out: Annotated[bool, Choice("Independent cut-out controller")] = False
    price_per_kwh: Annotated[float, Quantity("Electricity, per kWh", "money", 0, 100)] = 0.30


@dataclass(frozen=True, slots=True)
class Air:
    """How air reaches the water."""

    surface_movement: Annotated[
        Literal["still", "ripple", "strong"],
        Choice("Surface", {"still": "still", "ripple": "gentle ripple", "strong": "moved strongly"}),
    ] = "ripple"
    stones_lph: Annotated[float, Quantity("Air through stones", "flow", 0, 20_000)] = 0.0
    stones_cm: Annotated[float, Quantity("Stones lie under the surface", "length", 0, 200)] = 30.0
    fall_cm: Annotated[float, Quantity("Returning water falls", "length", 0, 200)] = 0.0
    altitude_m: Annotated[float, Quantity("Altitude", "altitude", -400, 5000)] = 0.0


@dataclass(frozen=True, slots=True)
class Water:
    """The water in the tank and the water that replaces it."""

    tank_ph: Annotated[float, Quantity("pH of the tank", "ph", 4, 10)] = 7.4
    tank_gh_dgh: Annotated[float, Quantity("GH of the tank", "hardness", 0, 60)] = 9.0
    salinity_by: Annotated[
        Literal["ppt", "gravity"], Choice("Salinity", {"ppt": "as salinity", "gravity": "by hydrometer"})
    ] = "ppt"
    salinity_ppt: Annotated[float, Quantity("Salinity", "salinity", 0, 20)] = 0.0
    gravity_sg: Annotated[float, Quantity("Hydrometer reads", "gravity", 0.99, 1.1)] = 1.0
    hydrometer_c: Annotated[float, Quantity("Hydrometer is made for", "temperature", 0, 35)] = 25.0
    tank_us_cm: Annotated[float | None, Quantity("Conductivity of the tank", "conductivity", 1, 40_000)] = None
    source_kh_dkh: Annotated[float, Quantity("KH of the change water", "carbonate", 0, 40)] = 5.0
    source_nitrate_mg_l: Annotated[float, Quantity("Nitrate of the change water", "nitrate", 0, 50)] = (
        10 / NITRATE_PER_N
    )
    source_us_cm: Annotated[float, Quantity("Conductivity of the change water", "conductivity", 1, 40_000)] = 450.0
    source_c: Annotated[float, Quantity("Change water comes at", "temperature", 0, 40)] = 24.0
    topped_up: Annotated[
        Literal["source", "pure"],
        Choice("Evaporation topped up with", {"source": "the change water", "pure": "pure water"}),
    ] = "source"
    disinfectant: Annotated[
        Literal["none", "chlorine", "chloramine"],
        Choice("Disinfectant", {"none": "none", "chlorine": "chlorine", "chloramine": "chloramine"}),
    ] = "none"
    disinfectant_mg_l: Annotated[float, Quantity("Its strength", "chlorine", 0, 10)] = 1.0
    treatment: Annotated[
        Literal["container", "tank", "none"],
        Choice(
            "Treated",
            {"container": "before it is poured", "tank": "in the tank, then refilled", "none": "not at all"},
        ),
    ] = "container"
    conditioner_ml: Annotated[float, Quantity("Conditioner for 100 L, by its label", "dose", 0.01, 500)] = 25.0
    chloramine_factor: Annotated[float, Quantity("Times as much for chloramine", "ratio", 1, 10)] = 2.0


@dataclass(frozen=True, slots=True)
class Changes:
    """The regime of water changes and what it must hold."""

    target_nitrate_mg_l: Annotated[float, Quantity("Nitrate at most", "nitrate", 0.2, 100)] = 40 / NITRATE_PER_N
    regime: Annotated[
        Literal["weekdays", "every"],
        Choice("Changed", {"weekdays": "on weekdays", "every": "every so many days"}),
    ] = "weekdays"
    weekdays: Annotated[tuple[Weekday, ...], Choice("Days")] = ("Sat",)
    every_d: Annotated[int, Quantity("Every", "days", 1, 120, whole=True)] = 7
    change_frac: Annotated[float, Quantity("Each time", "share", 0.01, 1)] = 0.4
    hose_l_min: Annotated[float, Quantity("Hose", "fill_rate", 0.2, 100)] = 8.0
    setup_min: Annotated[float, Quantity("Setting up each time", "minutes", 0, 240)] = 12.0


@dataclass(frozen=True, slots=True)
class Plan:
    """One system, whole."""

    name: str
    animals: tuple[Group, ...] = ()
    tank: Tank = field(default_factory=Tank)
    filters: tuple[Filter, ...] = ()
    heat: Heat = field(default_factory=Heat)
    air: Air = field(default_factory=Air)
    water: Water = field(default_factory=Water)
    changes: Changes = field(default_factory=Changes)
    version: int = PLAN_VERSION
