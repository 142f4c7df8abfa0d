"""Heat: what the tank loses, and what pumps and lamps give it."""

from dataclasses import replace

from loquen.core.graph.nodes import figure, step
from loquen.core.library.rows.keeping import Lid
from loquen.core.library.rows.machines import FilterKind
from loquen.core.library.whole import Library
from loquen.core.physics import heat
from loquen.core.system.heat.balance import Fan, OpenWater, settle_c


@figure(
    "Water",
    formula="the room's mean {room_mean_c}, when heated ({heated}) at least {target_c}; with a chiller down to {target_c}, as far "
    "as its {chiller_w} go: T at which {walls_w_k} × (T − {room_mean_c}) + evaporation of {open_water} = {equipment_mean_w} − "
    "{chiller_w}",
    source="balance",
)
def water_c(
    heated: bool,
    target_c: float,
    room_mean_c: float,
    chiller_w: float,
    walls_w_k: float,
    open_water: OpenWater,
    equipment_mean_w: float,
) -> float:
    """On the mean of the year: a fan is counted on for hot days only."""
    warm = max(target_c, room_mean_c) if heated else max(room_mean_c, 0.0)
    if chiller_w == 0 or warm <= target_c:
        return warm
    uncooled = settle_c(equipment_mean_w, walls_w_k, open_water, room_mean_c)
    cooled = settle_c(equipment_mean_w - chiller_w, walls_w_k, open_water, room_mean_c)
    return max(target_c, warm - (uncooled - cooled))


@step()
def lid_row(lid: str, library: Library) -> Lid:
    return library.lids[lid]


@step()
def hot_lid_row(lid: str, hot_day_lid: str, library: Library) -> Lid:
    """What lies over the tank on the hottest day."""
    return library.lids[lid if hot_day_lid == "same" else hot_day_lid]


@step()
def sump_lid_row(sump_lid: str, library: Library) -> Lid:
    return library.lids[sump_lid]


@figure(
    "Cover of all open water",
    formula="(what {lid_row} keeps back × {display_m2} + {sump_lid_row} × {sump_m2}) ÷ ({display_m2} + {sump_m2})",
    source="practice",
)
def cover_frac(lid_row: Lid, sump_lid_row: Lid, display_m2: float, sump_m2: float) -> float:
    kept = lid_row.vapour_cover * display_m2 + sump_lid_row.vapour_cover * sump_m2
    return kept / (display_m2 + sump_m2)


@figure(
    "Cover that keeps warmth in",
    formula="(warmth {lid_row} keeps × {display_m2} + {sump_lid_row} × {sump_m2}) ÷ ({display_m2} + {sump_m2})",
    source="practice",
)
def warm_cover_frac(lid_row: Lid, sump_lid_row: Lid, display_m2: float, sump_m2: float) -> float:
    kept = lid_row.warm_cover * display_m2 + sump_lid_row.warm_cover * sump_m2
    return kept / (display_m2 + sump_m2)


@figure(
    "Wall to the room",
    formula="{perimeter_cm} × {water_height_cm} ÷ 10000, less half the back ({inside_length_cm}) when {against_wall}",
    source="film",
)
def wall_m2(perimeter_cm: float, water_height_cm: float, inside_length_cm: float, against_wall: bool) -> float:
    back = inside_length_cm / 2 if against_wall else 0.0
    return (perimeter_cm - back) * water_height_cm / 1e4


@figure(
    "A wall passes",
    formula="1 ÷ (1 ÷ {outside_film_w_m2k} + {pane_mm} ÷ 1000 ÷ conductivity of {pane_material} + 1 ÷ {inside_film_w_m2k}), "
    "{foam_frac} of the wall behind {side_foam_mm} of foam",
    source="film",
)
def wall_w_m2k(
    pane_mm: float,
    pane_material: str,
    outside_film_w_m2k: float,
    inside_film_w_m2k: float,
    foam_frac: float,
    side_foam_mm: float,
) -> float:
    films = (outside_film_w_m2k, inside_film_w_m2k)
    bare = float(heat.layered_u_w_m2k([(pane_mm, pane_material)], *films))
    if foam_frac == 0 or side_foam_mm == 0:
        return bare
    layers = [(pane_mm, pane_material), (side_foam_mm, "polystyrene")]
    return bare * (1 - foam_frac) + float(heat.layered_u_w_m2k(layers, *films)) * foam_frac


@figure(
    "The base passes",
    formula="1 ÷ (1 ÷ {base_film_w_m2k} + {pane_mm} of {pane_material} + {base_foam_mm} of foam + 1 ÷ {inside_film_w_m2k})",
    source="film",
)
def base_w_m2k(
    base_film_w_m2k: float,
    inside_film_w_m2k: float,
    pane_mm: float,
    pane_material: str,
    base_foam_mm: float,
) -> float:
    layers = [(pane_mm, pane_material), (base_foam_mm, "polystyrene")]
    return float(heat.layered_u_w_m2k(layers, base_film_w_m2k, inside_film_w_m2k))


@figure(
    "Walls, base and surface lose",
    formula="({wall_w_m2k} × {wall_m2} + {base_w_m2k} × {footprint_m2}) × {tank_count} + {sump_w_k} + "
    "({surface_open_w_m2k} × (1 − {warm_cover_frac}) + {surface_covered_w_m2k} × {warm_cover_frac}) × {surface_m2}",
    source="film",
)
def walls_w_k(
    wall_w_m2k: float,
    wall_m2: float,
    base_w_m2k: float,
    footprint_m2: float,
    tank_count: int,
    sump_w_k: float,
    surface_open_w_m2k: float,
    surface_covered_w_m2k: float,
    warm_cover_frac: float,
    surface_m2: float,
) -> float:
    surface = surface_open_w_m2k * (1 - warm_cover_frac) + surface_covered_w_m2k * warm_cover_frac
    return (wall_w_m2k * wall_m2 + base_w_m2k * footprint_m2) * tank_count + sump_w_k + surface * surface_m2


@figure(
    "Walls, base and surface lose, on the hottest day",
    formula="{walls_w_k} + ({surface_open_w_m2k} − {surface_covered_w_m2k}) × (warmth {lid_row} keeps − {hot_lid_row}) × {display_m2}",
    source="film",
)
def hot_walls_w_k(
    walls_w_k: float,
    surface_open_w_m2k: float,
    surface_covered_w_m2k: float,
    lid_row: Lid,
    hot_lid_row: Lid,
    display_m2: float,
) -> float:
    opened = lid_row.warm_cover - hot_lid_row.warm_cover
    return walls_w_k + (surface_open_w_m2k - surface_covered_w_m2k) * opened * display_m2


@figure(
    "Surface at which water evaporates",
    formula="{surface_m2} × {vigorous_evaporation} where the surface is moved strongly ({surface_movement})",
    source="ashrae_pools",
)
def evaporating_m2(surface_m2: float, surface_movement: str, vigorous_evaporation: float) -> float:
    return surface_m2 * (vigorous_evaporation if surface_movement == "strong" else 1.0)


@step()
def open_water(
    evaporating_m2: float, humidity_frac: float, cover_frac: float, calm_surface: float, cover_effect: float
) -> OpenWater:
    return OpenWater(evaporating_m2, humidity_frac, cover_frac, calm_surface, cover_effect)


@step()
def own_water(
    evaporating_m2: float,
    display_m2: float,
    sump_m2: float,
    humidity_frac: float,
    lid_row: Lid,
    calm_surface: float,
    cover_effect: float,
) -> OpenWater:
    """The tank's own water under its lid, without the sump's."""
    own_m2 = evaporating_m2 * display_m2 / (display_m2 + sump_m2)
    return OpenWater(own_m2, humidity_frac, lid_row.vapour_cover, calm_surface, cover_effect)


@step()
def hot_water(open_water: OpenWater, own_water: OpenWater, hot_lid_row: Lid) -> OpenWater:
    """All open water on the hottest day, the tank's own under what lies over it then."""
    return open_water.with_part_under(own_water, hot_lid_row.vapour_cover)


@step()
def fan_over(own_water: OpenWater, fan_fitted: bool, fan_m_s: float) -> Fan:
    return Fan(own_water, fan_m_s if fan_fitted else 0.0)


@step()
def hot_fan(fan_over: Fan, hot_lid_row: Lid) -> Fan:
    """The fan on the hottest day, through what lies over the tank then."""
    return replace(fan_over, over=replace(fan_over.over, cover_frac=hot_lid_row.vapour_cover))


@figure(
    "Evaporation in the mean room",
    formula="86400 × F × A × (p({water_c}) − φ × p({room_mean_c})) × 0.089 ÷ Y of {open_water}; and by the fan ({fan_over}) where that "
    "is warmer than {target_c}",
    source="ashrae_pools",
)
def evaporation_l_d(
    open_water: OpenWater, water_c: float, room_mean_c: float, fan_over: Fan, target_c: float
) -> float:
    still_l_d = open_water.litres_d(water_c, room_mean_c)
    return still_l_d + fan_over.litres_d(water_c, room_mean_c) if water_c > target_c else still_l_d


@figure(
    "Evaporation on its worst day",
    formula="{evaporation_l_d}; where a fan blows ({hot_fan}), or another lid lies over it on hot days ({hot_day_lid}), on the hottest "
    "day at {summer_c} in {room_warm_c}, if more: {hot_water} and by the fan",
    source="ashrae_pools",
)
def evaporation_most_l_d(
    evaporation_l_d: float,
    summer_c: float,
    room_warm_c: float,
    hot_water: OpenWater,
    hot_fan: Fan,
    hot_day_lid: str,
) -> float:
    if hot_fan.air_m_s == 0 and hot_day_lid == "same":
        return evaporation_l_d
    hot = hot_water.litres_d(summer_c, room_warm_c) + hot_fan.litres_d(summer_c, room_warm_c)
    return max(evaporation_l_d, hot)


@figure(
    "Evaporation takes on the coldest night",
    formula="litres evaporated at {water_c} in {room_cold_c} by {open_water} × Y ÷ 86400",
    source="ashrae_pools",
)
def evaporation_cold_w(open_water: OpenWater, water_c: float, room_cold_c: float) -> float:
    return open_water.watts(water_c, room_cold_c)


@figure(
    "Lost on the coldest night",
    formula="{walls_w_k} × ({water_c} − {room_cold_c}) + {evaporation_cold_w}",
    source="balance",
)
def loss_cold_w(walls_w_k: float, water_c: float, room_cold_c: float, evaporation_cold_w: float) -> float:
    return walls_w_k * (water_c - room_cold_c) + evaporation_cold_w


@figure(
    "Warming the change water, daily mean",
    formula="{change_l_wk} ÷ 7 × {water_heat_j_l_k} × ({water_c} − {new_c}) ÷ 86400, not below 0",
    source="balance",
)
def change_heat_w(change_l_wk: float, water_heat_j_l_k: float, water_c: float, new_c: float) -> float:
    return max(0.0, change_l_wk / 7 * water_heat_j_l_k * (water_c - new_c) / 86_400)


@figure("Pumps take", formula="Σ {filter_w} + {return_w}", source="definition")
def pumps_w(filter_w: tuple[float, ...], return_w: float) -> float:
    return sum(filter_w) + return_w


@figure(
    "Of it in air pumps, outside the water",
    formula="Σ {filter_w} of {filter_type} that are driven by air alone",
    source="definition",
)
def air_driven_w(filter_w: tuple[float, ...], filter_type: tuple[FilterKind, ...]) -> float:
    return sum((watts for watts, kind in zip(filter_w, filter_type, strict=True) if kind.air_driven), 0.0)


@figure("Pumps give by night", formula="({pumps_w} − {air_driven_w}) × {pump_heat_share}", source="practice")
def equipment_low_w(pumps_w: float, air_driven_w: float, pump_heat_share: float) -> float:
    return (pumps_w - air_driven_w) * pump_heat_share


@figure(
    "Pumps and lamps give by day",
    formula="{equipment_low_w} + {light_heat_w}",
    source="balance",
)
def equipment_high_w(equipment_low_w: float, light_heat_w: float) -> float:
    return equipment_low_w + light_heat_w


@figure(
    "Pumps and lamps give on the day's mean",
    formula="{equipment_low_w} + {light_heat_mean_w}",
    source="balance",
)
def equipment_mean_w(equipment_low_w: float, light_heat_mean_w: float) -> float:
    return equipment_low_w + light_heat_mean_w
