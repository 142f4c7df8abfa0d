"""The hottest day and the coldest night with no heater on: where the water ends, and whether they bear it."""

from dataclasses import replace

from loquen.core.graph.nodes import Verdict, check, figure
from loquen.core.library.rows.animals import Species
from loquen.core.library.rows.keeping import Lid
from loquen.core.library.whole import Library
from loquen.core.model.inputs.quantity import Term, of, say
from loquen.core.system.heat.balance import Fan, OpenWater, settle_c
from loquen.core.system.heat.heaters import temperature_at_least, temperature_at_most, unused_when

LID_ON_HOT_DAYS = {
    "mesh": " That is with mesh for the lid; with nobody there to put it on, it would be {shut}.",
    "open": " That is with the lid taken off; with nobody there to do it, it would be {shut}.",
}


@figure(
    "With no heater on, on the hottest day",
    formula="T at which {hot_walls_w_k} × (T − {room_warm_c}) + evaporation(T) of {hot_water} = {equipment_high_w}; with a "
    "chiller less {chiller_w}, with a fan ({hot_fan}) evaporating more, by either not below {target_c}",
    source="balance",
)
def summer_c(
    hot_walls_w_k: float,
    room_warm_c: float,
    equipment_high_w: float,
    hot_water: OpenWater,
    chiller_w: float,
    target_c: float,
    hot_fan: Fan,
) -> float:
    warm = settle_c(equipment_high_w, hot_walls_w_k, hot_water, room_warm_c)
    if chiller_w == 0 and hot_fan.air_m_s == 0:
        return warm
    cooled = settle_c(equipment_high_w - chiller_w, hot_walls_w_k, hot_water, room_warm_c, hot_fan)
    return min(warm, max(target_c, cooled))


@figure(
    "With the fan, on a hot and sticky day",
    formula="T at which {hot_walls_w_k} × (T − {room_warm_c}) + evaporation(T) of {hot_water} and by {hot_fan}, at {sticky_frac} "
    "humidity or the room's if more, = {equipment_high_w} less a chiller's {chiller_w}; not below {target_c}",
    source="balance",
)
def sticky_c(
    hot_walls_w_k: float,
    room_warm_c: float,
    equipment_high_w: float,
    hot_water: OpenWater,
    chiller_w: float,
    target_c: float,
    hot_fan: Fan,
    sticky_frac: float,
) -> float:
    unused_when(hot_fan.air_m_s == 0)
    water, fan = hot_water.at_least_as_humid(sticky_frac), hot_fan.at_least_as_humid(sticky_frac)
    warm = settle_c(equipment_high_w, hot_walls_w_k, water, room_warm_c)
    cooled = settle_c(equipment_high_w - chiller_w, hot_walls_w_k, water, room_warm_c, fan)
    return min(warm, max(target_c, cooled))


@figure(
    "With chiller and fan dead, on the hottest day",
    formula="T at which {hot_walls_w_k} × (T − {room_warm_c}) + evaporation(T) of {hot_water} = {equipment_high_w}, where a "
    "chiller ({chiller_w}) or a fan ({fan_fitted}) cools",
    source="balance",
)
def uncooled_c(
    hot_walls_w_k: float,
    room_warm_c: float,
    equipment_high_w: float,
    hot_water: OpenWater,
    chiller_w: float,
    fan_fitted: bool,
) -> float:
    unused_when(chiller_w == 0 and not fan_fitted)
    return settle_c(equipment_high_w, hot_walls_w_k, hot_water, room_warm_c)


@figure(
    "Under mesh, on the hottest day",
    formula="T at which W × (T − {room_warm_c}) + evaporation(T) of {hot_water} = {equipment_high_w}, with the tank's own part "
    "({own_water}) under mesh for {hot_lid_row}; W: {hot_walls_w_k}, and what mesh passes more ({surface_open_w_m2k}, "
    "{surface_covered_w_m2k}) over {display_m2}; not with a chiller ({chiller_w}) or a fan ({fan_fitted})",
    source="balance",
)
def meshed_c(
    hot_walls_w_k: float,
    room_warm_c: float,
    equipment_high_w: float,
    hot_water: OpenWater,
    own_water: OpenWater,
    hot_lid_row: Lid,
    surface_open_w_m2k: float,
    surface_covered_w_m2k: float,
    display_m2: float,
    chiller_w: float,
    fan_fitted: bool,
    library: Library,
) -> float:
    mesh = library.lids["mesh"]
    unused_when(chiller_w > 0 or fan_fitted or hot_lid_row.vapour_cover <= mesh.vapour_cover)
    more_w_k = (
        (surface_open_w_m2k - surface_covered_w_m2k) * (hot_lid_row.warm_cover - mesh.warm_cover) * display_m2
    )
    airy = hot_water.with_part_under(replace(own_water, cover_frac=hot_lid_row.vapour_cover), mesh.vapour_cover)
    return settle_c(equipment_high_w, hot_walls_w_k + more_w_k, airy, room_warm_c)


@figure(
    "With nobody there to change the lid, on the hottest day",
    formula="T at which {walls_w_k} × (T − {room_warm_c}) + evaporation(T) of {open_water} = {equipment_high_w}, where another lid "
    "lies over it on hot days ({hot_day_lid}); with a chiller less {chiller_w}, with a fan ({fan_over}) evaporating more, by "
    "either not below {target_c}",
    source="balance",
)
def shut_c(
    walls_w_k: float,
    room_warm_c: float,
    equipment_high_w: float,
    open_water: OpenWater,
    chiller_w: float,
    target_c: float,
    fan_over: Fan,
    hot_day_lid: str,
) -> float:
    unused_when(hot_day_lid == "same")
    return summer_c(walls_w_k, room_warm_c, equipment_high_w, open_water, chiller_w, target_c, fan_over)


@figure(
    "With no heater, on the coldest night",
    formula="T at which {walls_w_k} × (T − {room_cold_c}) + evaporation(T) of {open_water} = {equipment_low_w}",
    source="balance",
)
def winter_c(
    walls_w_k: float,
    room_cold_c: float,
    equipment_low_w: float,
    open_water: OpenWater,
) -> float:
    return settle_c(equipment_low_w, walls_w_k, open_water, room_cold_c)


@figure(
    "Warmest of the year",
    formula="the higher of {water_c} and {summer_c}",
    source="balance",
)
def hottest_c(water_c: float, summer_c: float) -> float:
    return max(water_c, summer_c)


@figure(
    "Coldest of the year",
    formula="{water_c} when heated ({heated}), else the lower of it and {winter_c}",
    source="balance",
)
def coldest_c(water_c: float, heated: bool, winter_c: float) -> float:
    return water_c if heated else min(water_c, winter_c)


@figure(
    "Borne past that on the hottest day",
    formula="{hot_day_leeway_k}; {hot_day_delicate_k} with sensitive ones among {animal}",
    source="practice",
    kind="temperature_difference",
)
def hot_day_k(animal: tuple[Species, ...], hot_day_leeway_k: float, hot_day_delicate_k: float) -> float:
    return hot_day_delicate_k if any(kind.shock_class == "sensitive" for kind in animal) else hot_day_leeway_k


@check("The hottest day", stage="heat", glass="heat", judges="summer_c", mends=("heat.chiller_w",))
def summer_borne(
    summer_c: float,
    animals_high_c: float,
    chiller_need_w: float,
    room_warm_c: float,
    hot_day_k: float,
    meshed_c: float | None,
    uncooled_c: float | None,
    sticky_c: float | None,
    sticky_frac: float,
    shut_c: float | None,
    hot_day_lid: str,
) -> Verdict:
    terms = {
        "settles": of(summer_c, "summer_c"),
        "room": Term(room_warm_c, "temperature"),
        "high": of(animals_high_c, "animals_high_c"),
        "chiller": of(chiller_need_w, "chiller_need_w"),
    }
    borne_c = animals_high_c + hot_day_k
    text = (
        "In a room of {room} the water settles at {settles} with no heater on; these animals bear {high} for good."
    )
    if summer_c > animals_high_c:
        if meshed_c is not None:
            terms["meshed"] = of(meshed_c, "meshed_c")
            text += " With mesh for a lid on such days it would be {meshed}."
        text += " A chiller of {chiller} would hold it."
    if shut_c is not None:
        terms["shut"] = of(shut_c, "shut_c")
        text += LID_ON_HOT_DAYS[hot_day_lid]
    too_sticky = False
    if sticky_c is not None and summer_c <= borne_c < sticky_c:
        too_sticky = True
        terms |= {"sticky": of(sticky_c, "sticky_c"), "humid": Term(sticky_frac, "share")}
        text += " A fan does little in sticky air: at {humid} humidity it would be {sticky}."
    if uncooled_c is not None and uncooled_c > borne_c >= summer_c:
        terms["dead"] = of(uncooled_c, "uncooled_c")
        text += (
            " With the cooling dead it would reach {dead}: keep a thermometer with an alarm, and frozen bottles."
        )
    if sticky_c is not None:
        text += " The fan is held where neither it nor its cable can fall into the water, and the room gets damper."
    verdict = temperature_at_most(summer_c, animals_high_c, say(text, **terms), hot_day_k)
    by_hand = shut_c is not None and shut_c > borne_c
    if by_hand and shut_c is not None and verdict.state in ("holds", "tight"):
        said = say("by hand: {shut} with nobody there", shut=of(shut_c, "shut_c"))
        return replace(verdict, state="tight", headline=said)
    return replace(verdict, state="tight") if too_sticky and verdict.state == "holds" else verdict


@check(
    "The coldest night without a heater",
    stage="heat",
    glass="heat",
    judges="winter_c",
    mends=("heat.heated",),
)
def winter_borne(
    heated: bool, winter_c: float, animals_low_c: float, room_cold_c: float, temp_leeway_k: float
) -> Verdict:
    unused_when(heated)
    reason = say(
        "In a room of {room} the water settles at {settles}; these animals bear {low}.",
        room=Term(room_cold_c, "temperature"),
        settles=of(winter_c, "winter_c"),
        low=of(animals_low_c, "animals_low_c"),
    )
    return temperature_at_least(winter_c, animals_low_c, reason, temp_leeway_k)
