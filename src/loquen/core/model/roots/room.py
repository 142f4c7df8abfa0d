"""A room of tanks as a keeper describes it: what stands where, and the water that is brought to it and led away."""

from dataclasses import dataclass, field
from typing import Annotated, Literal

from loquen.core.model.inputs.quantity import Choice, Most, Quantity
from loquen.core.model.inputs.shape import Shape
from loquen.core.model.parts.running import Weekday
from loquen.core.model.parts.water import DISINFECTANTS, TAP_UNTOLD, Disinfectant
from loquen.core.physics.nitrogen import NITRATE_PER_N

ROOM_VERSION = 2
BY_HAND = 0
"""The zone of a tank that a hose changes."""
NO_SYSTEM = 0
"""The system of a tank that has no plan of its own."""


@dataclass(frozen=True, slots=True)
class Supply:
    """The water that comes into the room, at its coldest and warmest."""

    static_kpa: Annotated[
        float, Quantity("Pressure with nothing running", "pressure", 5, 1000, given="reading")
    ] = 350.0
    tested_lph: Annotated[float, Quantity("With so much running", "flow", 10, 20_000, given="reading")] = 1200.0
    tested_kpa: Annotated[float, Quantity("it is", "pressure", 0, 1000, given="reading")] = 150.0
    tap_cm: Annotated[float, Quantity("Tap above the floor", "length", -300, 400, given="fact")] = 100.0
    house_lph: Annotated[float, Quantity("The house uses meanwhile", "flow", 0, 5000, given="fact")] = 300.0
    winter_c: Annotated[float, Quantity("Coldest of the year", "temperature", 1, 30, given="reading")] = 7.0
    summer_c: Annotated[float, Quantity("Warmest of the year", "temperature", 1, 35, given="reading")] = 17.0
    supply_nitrate_mg_l: Annotated[float, Quantity("Nitrate", "nitrate", 0, 50, given="reading")] = (
        10 / NITRATE_PER_N
    )
    supply_kh_dkh: Annotated[float, Quantity("KH", "carbonate", 0, 40, given="reading")] = 5.0
    supply_us_cm: Annotated[float, Quantity("Conductivity", "conductivity", 1, 40_000, given="reading")] = 450.0
    supply_disinfectant: Annotated[
        Disinfectant, Choice("Disinfectant", DISINFECTANTS, given="reading", untold=TAP_UNTOLD)
    ] = "unknown"
    air_gap: Annotated[bool, Choice("Fed through an air gap, or a backflow preventer that the code accepts")] = (
        False
    )


@dataclass(frozen=True, slots=True)
class Treatment:
    """The line from the tap to the manifold: strainer, cartridges, mixing valve, regulator."""

    feed_m: Annotated[float | None, Quantity("Pipe from tap to manifold", "head", 0.1, 200)] = None
    feed_mm: Annotated[float, Quantity("Its bore", "thickness", 4, 100)] = 16.0
    feed_bends: Annotated[int, Quantity("Bends in it", "count", 0, 60, whole=True)] = 6
    cartridge_kpa: Annotated[float, Quantity("Cartridges lose at 1000 L/h, new", "pressure", 0, 200)] = 25.0
    cartridge_worn: Annotated[float, Quantity("They lose more by use", "ratio", 1, 20)] = 1.0
    carbon_l: Annotated[float, Quantity("Carbon in them", "volume", 0, 500)] = 3.6
    cartridge_l: Annotated[float, Quantity("Good for", "volume", 100, 1_000_000)] = 20_000.0
    cartridge_d: Annotated[float, Quantity("or at most", "days", 7, 3660)] = 180.0
    cartridge_on: Annotated[str, Choice("Fitted on", table="date")] = ""
    mixer_kv: Annotated[float, Quantity("Mixing valve, Kv", "ratio", 0.1, 50)] = 2.0
    regulated: Annotated[bool, Choice("Pressure regulator")] = True
    setpoint_kpa: Annotated[float, Quantity("Set to", "pressure", 10, 800)] = 200.0
    regulator_kv: Annotated[float, Quantity("Regulator, Kv", "ratio", 0.1, 50)] = 2.0
    manifold_cm: Annotated[float, Quantity("Manifold above the floor", "length", 0, 500)] = 180.0
    manifold_x_m: Annotated[float, Quantity("Manifold from the left wall", "head", 0, 100)] = 0.2
    manifold_y_m: Annotated[float, Quantity("from the back wall", "head", 0, 100)] = 0.2


@dataclass(frozen=True, slots=True)
class Store:
    """The hot store and the temperature that zones are mixed to."""

    mixed_c: Annotated[float, Quantity("Mixed to", "temperature", 4, 36)] = 24.0
    summer_mixed_c: Annotated[float | None, Quantity("In summer mixed to", "temperature", 4, 36)] = None
    store_l: Annotated[float, Quantity("Hot store", "volume", 0, 10_000)] = 200.0
    hot_c: Annotated[float, Quantity("kept at", "temperature", 30, 90)] = 60.0
    usable_frac: Annotated[float, Quantity("Of it usable", "share", 0.3, 1)] = 0.7
    reserve_l: Annotated[float, Quantity("Never to be used", "volume", 0, 5000)] = 20.0
    hot_w: Annotated[float, Quantity("Its heater", "power", 0, 100_000)] = 3000.0
    hot_yield: Annotated[float, Quantity("Heat for electricity", "ratio", 0.5, 6)] = 1.0
    standing_w: Annotated[float, Quantity("It loses to the room", "power", 0, 500)] = 60.0
    thermostatic: Annotated[bool, Choice("Thermostatic valve that shuts when either side fails")] = True


@dataclass(frozen=True, slots=True)
class Reservoir:
    """Water that stands ready in the room and is pumped to the zones that are fed from it."""

    reservoir_l: Annotated[float, Quantity("Reservoir", "volume", 0, 20_000)] = 0.0
    reservoir_usable_frac: Annotated[float, Quantity("The pump reaches", "share", 0.1, 1)] = 0.85
    reservoir_reserve_l: Annotated[float, Quantity("Never to be pumped", "volume", 0, 5000)] = 10.0
    reservoir_c: Annotated[float, Quantity("Kept at", "temperature", 4, 36)] = 24.0
    reservoir_w: Annotated[float, Quantity("Its heater", "power", 0, 100_000)] = 1000.0
    reservoir_loss_w: Annotated[float, Quantity("It loses to the room", "power", 0, 2000)] = 60.0
    refill_lph: Annotated[float, Quantity("Refilled at most with", "flow", 1, 5000)] = 60.0
    reservoir_purified_frac: Annotated[float, Quantity("Of it purified", "share", 0, 1)] = 0.0
    added_us_cm: Annotated[float, Quantity("Salts added bring", "conductivity", 0, 5000)] = 0.0
    added_dkh: Annotated[float, Quantity("and KH", "carbonate", 0, 20)] = 0.0
    reservoir_cm: Annotated[float, Quantity("Its water above the floor", "length", -300, 400)] = 60.0
    pump_kpa: Annotated[float, Quantity("Pump against a shut valve", "pressure", 5, 1000)] = 250.0
    pump_lph: Annotated[float, Quantity("With so much running", "flow", 10, 20_000)] = 1500.0
    pump_tested_kpa: Annotated[float, Quantity("it holds", "pressure", 0, 1000)] = 120.0
    pump_w: Annotated[float, Quantity("It takes", "power", 0, 10_000)] = 250.0
    reservoir_pipe_m: Annotated[float | None, Quantity("Pipe from pump to its manifold", "head", 0.1, 200)] = None
    reservoir_pipe_mm: Annotated[float, Quantity("Its bore", "thickness", 4, 100)] = 20.0


@dataclass(frozen=True, slots=True)
class Household:
    """Hot water that the house draws from the same store each day."""

    house_from_h: Annotated[float, Quantity("From", "hours", 0, 24)] = 7.0
    house_to_h: Annotated[float, Quantity("to", "hours", 0, 24)] = 8.0
    house_hot_l: Annotated[float, Quantity("Hot water", "volume", 0, 2000)] = 40.0


@dataclass(frozen=True, slots=True)
class Rack:
    """A rack: where it stands, its shelves from below, the drain down its side."""

    rack_name: Annotated[str, Choice("Rack", table="text")] = "Rack"
    rack_x_m: Annotated[float, Quantity("From the left wall", "head", 0, 100)] = 1.0
    rack_y_m: Annotated[float, Quantity("From the back wall", "head", 0, 100)] = 0.0
    rack_along: Annotated[
        Literal["wall", "room"], Choice("Stands", {"wall": "along the back wall", "room": "into the room"})
    ] = "wall"
    rack_cm: Annotated[float, Quantity("Length", "length", 20, 2000)] = 200.0
    rack_depth_cm: Annotated[float, Quantity("Depth", "length", 10, 300)] = 40.0
    shelves: Annotated[int, Quantity("Shelves", "count", 1, 8, whole=True)] = 3
    lowest_cm: Annotated[float, Quantity("Lowest shelf above the floor", "length", 0, 300)] = 20.0
    shelf_cm: Annotated[float, Quantity("Shelf to shelf", "length", 20, 200)] = 60.0
    rack_kg: Annotated[float, Quantity("Its own weight", "mass", 0, 2000)] = 60.0
    rack_drain_mm: Annotated[float, Quantity("Drain down its side", "thickness", 10, 200)] = 40.0
    shared_sump_l: Annotated[float, Quantity("Runs to one sump of", "volume", 0, 5000)] = 0.0


@dataclass(frozen=True, slots=True)
class Stations:
    """Where what is no rack stands: pipe and hose are reckoned from there, along the walls."""

    tap_x_m: Annotated[float, Quantity("Tap from the left wall", "head", 0, 100)] = 0.2
    tap_y_m: Annotated[float, Quantity("from the back wall", "head", 0, 100)] = 1.7
    hot_x_m: Annotated[float, Quantity("Hot store from the left wall", "head", 0, 100)] = 0.3
    hot_y_m: Annotated[float, Quantity("from the back wall", "head", 0, 100)] = 1.15
    tub_x_m: Annotated[float, Quantity("Reservoir from the left wall", "head", 0, 100)] = 0.3
    tub_y_m: Annotated[float, Quantity("from the back wall", "head", 0, 100)] = 2.3
    purifier_x_m: Annotated[float, Quantity("Reverse osmosis from the left wall", "head", 0, 100)] = 1.2
    purifier_y_m: Annotated[float, Quantity("from the back wall", "head", 0, 100)] = 2.8
    sink_x_m: Annotated[float, Quantity("Sink from the left wall", "head", 0, 100)] = 2.1
    sink_y_m: Annotated[float, Quantity("from the back wall", "head", 0, 100)] = 2.8
    drain_x_m: Annotated[float, Quantity("Floor drain from the left wall", "head", 0, 100)] = 2.9
    drain_y_m: Annotated[float, Quantity("from the back wall", "head", 0, 100)] = 2.8


@dataclass(frozen=True, slots=True)
class Place:
    """A tank on a rack. What is left empty is the system's own."""

    tank_name: Annotated[str, Choice("Tank", table="text")] = ""
    system: Annotated[int, Quantity("Its system", "count", 0, 2**53, whole=True)] = NO_SYSTEM
    rack: Annotated[int, Quantity("Rack", "count", 0, 60, whole=True)] = 1
    shelf: Annotated[int, Quantity("Shelf, from below", "count", 1, 8, whole=True)] = 1
    slot: Annotated[int, Quantity("Place, from the left", "count", 1, 60, whole=True)] = 1
    zone: Annotated[int, Quantity("Zone", "count", 0, 24, whole=True)] = BY_HAND
    place_l: Annotated[float | None, Quantity("Real water", "volume", 0.5, 20_000)] = None
    place_length_cm: Annotated[float | None, Quantity("Length", "length", 10, 1000)] = None
    place_width_cm: Annotated[float | None, Quantity("Width", "length", 10, 500)] = None
    place_height_cm: Annotated[float | None, Quantity("Height", "length", 10, 200)] = None
    place_c: Annotated[float | None, Quantity("Kept at", "temperature", 2, 36)] = None
    place_nitrate_mg_l_d: Annotated[float | None, Quantity("Nitrate rises a day", "nitrate_rate", 0, 50)] = None
    place_limit_nitrate_mg_l: Annotated[float | None, Quantity("Nitrate at most", "nitrate", 0.2, 100)] = None
    own_nominal_lph: Annotated[float | None, Quantity("Another emitter here", "flow", 0, 1000)] = None
    blocked_frac: Annotated[float, Quantity("Emitter blocked", "share", 0, 1)] = 0.0
    pipe_m: Annotated[float | None, Quantity("Header to here, as measured", "head", 0, 100)] = None
    caught_l_min: Annotated[float | None, Quantity("Caught in a bucket", "fill_rate", 0, 100)] = None


@dataclass(frozen=True, slots=True)
class Zone:
    """Tanks that one valve serves: their emitters, their header, how long they run a day."""

    zone_name: Annotated[str, Choice("Zone", table="text")] = ""
    emitter: Annotated[
        Literal["plain", "compensating"],
        Choice("Emitters", {"plain": "plain", "compensating": "pressure-compensating"}),
    ] = "plain"
    nominal_lph: Annotated[float, Quantity("Each gives", "flow", 0.5, 1000)] = 24.0
    nominal_kpa: Annotated[float, Quantity("at", "pressure", 5, 1000)] = 100.0
    exponent: Annotated[float, Quantity("Its exponent", "ratio", 0.05, 1)] = 0.5
    max_kpa: Annotated[float, Quantity("and up to", "pressure", 10, 1000)] = 350.0
    header: Annotated[
        Literal["tree", "ring", "middle"],
        Choice("Header", {"tree": "fed at one end", "ring": "a ring", "middle": "fed in the middle"}),
    ] = "tree"
    header_mm: Annotated[float, Quantity("Its bore", "thickness", 3, 60)] = 13.0
    drop_mm: Annotated[float, Quantity("Bore of the drops", "thickness", 1, 30)] = 4.0
    drop_m: Annotated[float, Quantity("Length of a drop", "head", 0.02, 20)] = 0.4
    zone_kv: Annotated[float, Quantity("Valve, Kv", "ratio", 0.05, 50)] = 2.0
    pilot_kpa: Annotated[float, Quantity("Valve needs across it", "pressure", 0, 200)] = 0.0
    pilot_lph: Annotated[float, Quantity("and at least", "flow", 0, 2000)] = 0.0
    zone_min: Annotated[float, Quantity("Runs a day", "minutes", 0, 1440)] = 20.0
    riser_m: Annotated[float | None, Quantity("Manifold to header, as measured", "head", 0, 200)] = None
    header_x: Annotated[float, Quantity("It loses, of what a smooth one would", "ratio", 1, 60)] = 1.0
    fed_from: Annotated[
        Literal["street", "reservoir"],
        Choice("Fed from", {"street": "the street", "reservoir": "the reservoir"}),
    ] = "street"


@dataclass(frozen=True, slots=True)
class Window:
    """Hours in which zones may run."""

    window_from_h: Annotated[float, Quantity("From", "hours", 0, 24)] = 0.0
    window_to_h: Annotated[float, Quantity("to", "hours", 0, 24)] = 7.0


@dataclass(frozen=True, slots=True)
class Pulses:
    """How zones run: on which days, how long at once, with what between."""

    run_days: Annotated[tuple[Weekday, ...], Choice("Runs on"), Most(7)] = (
        "Mon",
        "Tue",
        "Wed",
        "Thu",
        "Fri",
        "Sat",
        "Sun",
    )
    gap_min: Annotated[float, Quantity("Between two pulses", "minutes", 0, 240)] = 1.0
    shortest_min: Annotated[float, Quantity("No pulse under", "minutes", 0.5, 240)] = 2.0
    longest_min: Annotated[float | None, Quantity("None over", "minutes", 0.5, 1440)] = None
    straight_frac: Annotated[float, Quantity("Runs straight to the overflow", "share", 0, 0.9)] = 0.1


@dataclass(frozen=True, slots=True)
class Purifier:
    """Reverse osmosis into a store of its own."""

    purifier_fitted: Annotated[bool, Choice("A reverse-osmosis store")] = False
    membranes: Annotated[int, Quantity("Membranes", "count", 1, 20, whole=True)] = 1
    membrane_l_d: Annotated[float, Quantity("Each rated", "volume_per_day", 10, 20_000)] = 280.0
    membrane_kpa: Annotated[float, Quantity("at", "pressure", 100, 2000)] = 345.0
    purifier_kpa: Annotated[float, Quantity("Gets", "pressure", 0, 2000)] = 300.0
    back_kpa: Annotated[float, Quantity("Against it", "pressure", 0, 500)] = 0.0
    waste_ratio: Annotated[float, Quantity("Drained for a litre made", "ratio", 0, 20)] = 3.0
    rejects_frac: Annotated[float, Quantity("Keeps back", "share", 0.5, 0.999)] = 0.96
    purified_l: Annotated[float, Quantity("Its store", "volume", 1, 20_000)] = 200.0


@dataclass(frozen=True, slots=True)
class Purified:
    """Purified water that is drawn each week at one time."""

    purified_day: Annotated[
        Weekday,
        Choice(
            "On",
            {
                "Mon": "Monday",
                "Tue": "Tuesday",
                "Wed": "Wednesday",
                "Thu": "Thursday",
                "Fri": "Friday",
                "Sat": "Saturday",
                "Sun": "Sunday",
            },
        ),
    ] = "Sat"
    purified_h: Annotated[float, Quantity("at", "hours", 0, 24)] = 10.0
    purified_min: Annotated[float, Quantity("for", "minutes", 1, 1440)] = 30.0
    drawn_l: Annotated[float, Quantity("Drawn", "volume", 0, 20_000)] = 100.0


@dataclass(frozen=True, slots=True)
class Softener:
    """A softener before the room."""

    softener_on: Annotated[
        Literal["none", "hot", "both"],
        Choice("Softener", {"none": "none", "hot": "on the hot side", "both": "on both sides"}),
    ] = "none"
    resin_grains: Annotated[float, Quantity("Its resin, grains", "count", 100, 1_000_000)] = 30_000.0
    resin_frac: Annotated[float, Quantity("Of that used", "share", 0.2, 1)] = 0.65
    removed_dgh: Annotated[float, Quantity("Takes out", "hardness", 0.1, 60)] = 12.0


@dataclass(frozen=True, slots=True)
class Drain:
    """The way out: each tank's outlet, the collector, the floor drain, and what stands between a flood and the stairs."""

    outlet_mm: Annotated[float, Quantity("Outlet in each tank", "thickness", 5, 100)] = 20.0
    outlet_head_mm: Annotated[float, Quantity("Water may stand over its lip", "thickness", 1, 200)] = 20.0
    collector_mm: Annotated[float, Quantity("Collector", "thickness", 15, 300)] = 50.0
    collector_fall_frac: Annotated[float, Quantity("Its fall", "share", 0.001, 0.2)] = 0.01
    floor_l_s: Annotated[float, Quantity("Floor drain passes, L/s", "ratio", 0, 20)] = 0.0
    hose_lph: Annotated[float, Quantity("Hoses meanwhile", "flow", 0, 10_000)] = 600.0
    bund_l: Annotated[float, Quantity("The floor holds before it runs out of the room", "volume", 0, 10_000)] = (
        100.0
    )
    leak_sensor: Annotated[bool, Choice("Leak sensor that shuts the master valve")] = False
    sensor_l: Annotated[float, Quantity("Water on the floor when it wakes", "volume", 0.1, 1000)] = 3.0
    floor_kn_m2: Annotated[float, Quantity("Floor bears, kN/m²", "ratio", 0.5, 50)] = 2.0


@dataclass(frozen=True, slots=True)
class Blower:
    """Air from one blower, and the air that carries damp away."""

    air_outlets: Annotated[int, Quantity("Air outlets in each tank", "count", 0, 20, whole=True)] = 1
    air_lph: Annotated[float, Quantity("Each gives", "flow", 1, 2000)] = 60.0
    deepest_air_cm: Annotated[float, Quantity("Deepest under the water", "length", 0, 200)] = 30.0
    air_main_m: Annotated[float, Quantity("Air main", "head", 0, 300)] = 15.0
    air_main_mm: Annotated[float, Quantity("Its bore", "thickness", 4, 200)] = 25.0
    air_branch_mm: Annotated[float, Quantity("Bore of the pipe along a rack", "thickness", 4, 200)] = 20.0
    blower_lph: Annotated[float, Quantity("Blower gives", "flow", 0, 1_000_000)] = 4000.0
    blower_kpa: Annotated[float, Quantity("at most against", "pressure", 0.5, 100)] = 15.0
    blower_w: Annotated[float, Quantity("It takes", "power", 0, 10_000)] = 60.0
    air_c: Annotated[float, Quantity("Air in the room", "temperature", 5, 40)] = 20.0
    humid_frac: Annotated[float, Quantity("Humidity at most", "share", 0.3, 1)] = 0.65
    outside_c: Annotated[float, Quantity("Air outside", "temperature", -30, 40)] = 5.0
    outside_humid_frac: Annotated[float, Quantity("Humidity outside", "share", 0, 1)] = 0.85
    fan_m3_h: Annotated[float, Quantity("A fan changes", "ventilation", 0, 20_000)] = 0.0


@dataclass(frozen=True, slots=True)
class Task:
    """Work on each tank, and what the changer takes over of it."""

    task_name: Annotated[str, Choice("Work", table="text")] = "Water change"
    task_min: Annotated[float, Quantity("Minutes a tank", "minutes", 0, 240)] = 2.5
    task_low_min: Annotated[float, Quantity("at least", "minutes", 0, 240)] = 1.5
    task_high_min: Annotated[float, Quantity("at most", "minutes", 0, 240)] = 4.0
    times_wk: Annotated[float, Quantity("Times a week", "ratio", 0, 70)] = 1.0
    taken_frac: Annotated[float, Quantity("Taken over", "share", 0, 1)] = 0.0


@dataclass(frozen=True, slots=True)
class Worth:
    """What an hour, the changer and its keep are worth."""

    hour_low_money: Annotated[float, Quantity("An hour, at least", "money", 0, 1000)] = 5.0
    hour_money: Annotated[float, Quantity("likely", "money", 0, 1000)] = 12.0
    hour_high_money: Annotated[float, Quantity("at most", "money", 0, 1000)] = 20.0
    built_low_money: Annotated[float, Quantity("The changer, at least", "money", 0, 1_000_000)] = 400.0
    built_money: Annotated[float, Quantity("likely", "money", 0, 1_000_000)] = 700.0
    built_high_money: Annotated[float, Quantity("at most", "money", 0, 1_000_000)] = 1100.0
    upkeep_min: Annotated[float, Quantity("It asks for, a week", "minutes", 0, 600)] = 15.0
    kwh_money: Annotated[float, Quantity("Electricity, per kWh", "money", 0, 100)] = 0.30
    water_money: Annotated[float, Quantity("Water and drain, per 1000 L", "money", 0, 1000)] = 4.0
    cartridge_money: Annotated[float, Quantity("A set of cartridges", "money", 0, 10_000)] = 60.0
    build_h: Annotated[float, Quantity("Hours to build it", "hours", 0, 2000)] = 24.0
    margin_frac: Annotated[float, Quantity("Margin on a quote", "share", 0, 2)] = 0.0


DEFAULT_TASKS = (
    Task("Water change by hose", 2.5, 1.5, 4.0, 2.0, 1.0),
    Task("Feeding", 0.25, 0.15, 0.4, 14.0, 0.0),
    Task("Cleaning glass", 1.0, 0.5, 2.0, 1.0, 0.0),
    Task("Filter", 3.0, 2.0, 5.0, 0.25, 0.0),
)


@dataclass(frozen=True, slots=True)
class Room:
    """One room, whole."""

    name: str
    supply: Supply = field(default_factory=Supply)
    treatment: Treatment = field(default_factory=Treatment)
    store: Store = field(default_factory=Store)
    reservoir: Reservoir = field(default_factory=Reservoir)
    household: Annotated[tuple[Household, ...], Most(12)] = ()
    stations: Stations = field(default_factory=Stations)
    racks: Annotated[tuple[Rack, ...], Most(40)] = ()
    places: Annotated[tuple[Place, ...], Most(300)] = ()
    zones: Annotated[tuple[Zone, ...], Most(24)] = ()
    windows: Annotated[tuple[Window, ...], Most(6)] = (Window(),)
    pulses: Pulses = field(default_factory=Pulses)
    purifier: Purifier = field(default_factory=Purifier)
    purified: Annotated[tuple[Purified, ...], Most(40)] = ()
    softener: Softener = field(default_factory=Softener)
    drain: Drain = field(default_factory=Drain)
    blower: Blower = field(default_factory=Blower)
    tasks: Annotated[tuple[Task, ...], Most(20)] = DEFAULT_TASKS
    worth: Worth = field(default_factory=Worth)
    notes: Annotated[str, Choice("Notes", table="text")] = ""
    version: int = ROOM_VERSION


ROOM = Shape(Room)
