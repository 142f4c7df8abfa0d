"""Warmth, air and light of a plan."""

from dataclasses import dataclass
from typing import Annotated, Literal

from loquen.core.model.inputs.quantity import Choice, Most, Quantity, Untold

BASKING_UNTOLD = Untold(
    "to measure", "Measure the dry place at its surface with a probe, the lamp an hour on, and enter it."
)
UVI_UNTOLD = Untold("to measure", "Measure the index where its back will be with a meter, and enter it.")


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
