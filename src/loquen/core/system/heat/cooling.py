"""What cools: a chiller, and a fan that lets water evaporate."""

from loquen.core.graph.nodes import figure
from loquen.core.physics import heat
from loquen.core.system.heat.balance import HOTTEST_C, Fan, OpenWater
from loquen.core.system.heat.energy import DAYS_IN_MONTH
from loquen.core.system.heat.heaters import unused_when


@figure(
    "Chiller that the hottest day asks for",
    formula="({equipment_high_w} − {hot_walls_w_k} × ({animals_high_c} − {room_warm_c}) − evaporation of {hot_water} − fan: "
    "{hot_fan}) × {chiller_margin}, not below 0",
    source="balance",
)
def chiller_need_w(
    equipment_high_w: float,
    hot_walls_w_k: float,
    animals_high_c: float,
    room_warm_c: float,
    hot_water: OpenWater,
    chiller_margin: float,
    hot_fan: Fan,
) -> float:
    loss = hot_walls_w_k * (animals_high_c - room_warm_c) + hot_water.watts(animals_high_c, room_warm_c)
    loss += hot_fan.watts(min(animals_high_c, HOTTEST_C), room_warm_c)
    return max(0.0, (equipment_high_w - loss) * chiller_margin)


@figure(
    "Chilling energy a year",
    formula="Σ over months of (pumps and lamp − {walls_w_k} × ({water_c} − room) − evaporation − fan: {fan_over}) × hours "
    "÷ 1000 ÷ {chiller_cop}, at most {chiller_w}; room {room_months_c} or {room_mean_c}, {open_water}, {equipment_mean_w}",
    source="balance",
)
def chilling_kwh(
    walls_w_k: float,
    water_c: float,
    chiller_w: float,
    chiller_cop: float,
    room_months_c: tuple[float, ...] | None,
    room_mean_c: float,
    open_water: OpenWater,
    equipment_mean_w: float,
    fan_over: Fan,
) -> float:
    if chiller_w == 0:
        return 0.0
    total = 0.0
    for days, room in zip(DAYS_IN_MONTH, room_months_c or (room_mean_c,) * 12, strict=True):
        lost = walls_w_k * (water_c - room) + open_water.watts(water_c, room) + fan_over.watts(water_c, room)
        total += min(chiller_w, max(0.0, equipment_mean_w - lost)) * days
    return total * 24 / 1000 / chiller_cop


@figure(
    "The fan takes, on the hottest day",
    formula="evaporation at {summer_c} in {room_warm_c} by the fan ({hot_fan}), blowing all the time",
    source="ashrae_pools",
)
def fanned_w(summer_c: float, room_warm_c: float, hot_fan: Fan) -> float:
    unused_when(hot_fan.air_m_s == 0)
    return hot_fan.watts(summer_c, room_warm_c)


@figure(
    "Fans draw", formula="{fan_draws_w} × {tank_count} where they are fitted ({fan_fitted})", source="definition"
)
def fans_w(fan_draws_w: float, tank_count: int, fan_fitted: bool) -> float:
    return fan_draws_w * tank_count if fan_fitted else 0.0


@figure(
    "Fans a year",
    formula="Σ over months of {fans_w} × part of the time × hours ÷ 1000: all of it where {water_c} is warmer than {target_c}, else "
    "({equipment_mean_w} − {walls_w_k} × ({water_c} − room) − evaporation of {open_water}) ÷ what {fan_over} takes; "
    "room {room_months_c} or {room_mean_c}",
    source="balance",
)
def fan_kwh(
    fans_w: float,
    walls_w_k: float,
    water_c: float,
    target_c: float,
    room_months_c: tuple[float, ...] | None,
    room_mean_c: float,
    open_water: OpenWater,
    equipment_mean_w: float,
    fan_over: Fan,
) -> float:
    if fans_w == 0:
        return 0.0
    hours = 0.0
    for days, room in zip(DAYS_IN_MONTH, room_months_c or (room_mean_c,) * 12, strict=True):
        excess_w = equipment_mean_w - walls_w_k * (water_c - room) - open_water.watts(water_c, room)
        on = 1.0 if water_c > target_c else fan_over.part_on(excess_w, water_c, room)
        hours += on * days * 24
    return fans_w * hours / 1000


@figure(
    "Fan over the surface takes on the hottest day",
    formula="evaporation of {open_water}, uncovered, with {fan_m_s} of air, less the calm one's, at {animals_high_c} in {room_warm_c}",
    source="ashrae_pools",
)
def fan_w(open_water: OpenWater, fan_m_s: float, animals_high_c: float, room_warm_c: float) -> float:
    water, bare = min(animals_high_c, HOTTEST_C), open_water.uncovered()
    return bare.watts(water, room_warm_c, fan_m_s) - bare.watts(water, room_warm_c)


@figure("Water the fan evaporates", formula="{fan_w} × 86400 ÷ Y at {animals_high_c}", source="ashrae_pools")
def fan_l_d(fan_w: float, animals_high_c: float) -> float:
    return fan_w * 86_400 / 1000 / float(heat.latent_heat_kj_kg(animals_high_c))
