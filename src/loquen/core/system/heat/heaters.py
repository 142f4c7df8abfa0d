"""Heaters: the watts that are needed, and where the water ends when one fails."""

from loquen.core.errors import NamedCase
from loquen.core.graph.judging import at_least, at_most, by_practice
from loquen.core.graph.nodes import Gauge, Verdict, check, figure, step
from loquen.core.library.whole import Library
from loquen.core.model.inputs.quantity import Sentence, Term, of, say
from loquen.core.system.heat.balance import OpenWater, settle_c

ELECTRICITY = "Drip loops on every cable and a residual-current device on the circuit; a licensed electrician and the local code decide."


def unused_when(state: bool) -> None:
    """Raise NamedCase "not_needed" for a check that this kind of tank does not have."""
    if state:
        raise NamedCase("not_needed")


@figure(
    "Heat needed",
    formula="({loss_cold_w} + {change_heat_w} − {equipment_low_w}) × {heater_margin}, not below 0; heated: {heated}",
    source="balance",
)
def heater_need_w(
    loss_cold_w: float, change_heat_w: float, equipment_low_w: float, heater_margin: float, heated: bool
) -> float:
    if not heated:
        raise NamedCase("not_heated")
    return max(0.0, (loss_cold_w + change_heat_w - equipment_low_w) * heater_margin)


@figure("Rule of practice, a watt a litre", formula="{real_volume_l} × {watt_per_litre}", source="practice")
def rule_of_practice_w(real_volume_l: float, watt_per_litre: float) -> float:
    return real_volume_l * watt_per_litre


@figure(
    "Heaters together",
    formula="{heater_count} × {heater_each_w}; none when it is not heated ({heated})",
    source="practice",
)
def heaters_w(heated: bool, heater_count: float, heater_each_w: float | None) -> float:
    if not heated:
        return 0.0
    if heater_each_w is None:
        raise NamedCase("no_stock_heater")
    return heater_count * heater_each_w


@figure(
    "Heaters",
    formula="{fitted_heaters} as fitted, else 2, or 3 above {three_heaters_above_l} of {real_volume_l}",
    source="practice",
    kind="count",
)
def heater_count(fitted_heaters: int | None, three_heaters_above_l: float, real_volume_l: float) -> float:
    if fitted_heaters is not None:
        return fitted_heaters
    return 3 if real_volume_l > three_heaters_above_l else 2


@figure(
    "Each heater",
    formula="{fitted_w} as fitted, else {heater_need_w} ÷ {heater_count} up to the next size sold",
    source="practice",
)
def heater_each_w(fitted_w: float | None, heater_need_w: float, heater_count: float, library: Library) -> float:
    if fitted_w is not None:
        return fitted_w
    for stock in library.stock_heaters_w:
        if stock >= heater_need_w / heater_count:
            return stock
    raise NamedCase("no_stock_heater")


@figure(
    "With one heater dead, on the coldest night",
    formula="T at which {walls_w_k} × (T − {room_cold_c}) + evaporation(T) of {open_water} = ({heater_count} − 1) × {heater_each_w} "
    "+ {equipment_low_w}; not above {water_c}",
    source="balance",
)
def one_dead_c(
    walls_w_k: float,
    room_cold_c: float,
    heater_count: float,
    heater_each_w: float,
    equipment_low_w: float,
    open_water: OpenWater,
    water_c: float,
) -> float:
    power = (heater_count - 1) * heater_each_w + equipment_low_w
    return min(water_c, settle_c(power, walls_w_k, open_water, room_cold_c))


@figure(
    "With one heater stuck on, on the hottest day",
    formula="T at which {walls_w_k} × (T − {room_warm_c}) + evaporation(T) of {open_water} = {heater_each_w} + {equipment_high_w}; "
    "45 °C at most",
    source="balance",
)
def stuck_on_c(
    walls_w_k: float,
    room_warm_c: float,
    heater_each_w: float,
    equipment_high_w: float,
    open_water: OpenWater,
) -> float:
    power = heater_each_w + equipment_high_w
    return settle_c(power, walls_w_k, open_water, room_warm_c)


@check(
    "All heaters hold the coldest night",
    stage="heat",
    glass="heat",
    judges="heater_need_w",
    mends=("heat.fitted_w", "heat.base_foam_mm", "heat.target_c"),
    caution=ELECTRICITY,
)
def heaters_hold(
    heated: bool,
    heater_count: float,
    heater_each_w: float,
    equipment_low_w: float,
    loss_cold_w: float,
    change_heat_w: float,
    room_cold_c: float,
) -> Verdict:
    unused_when(not heated)
    put_in = heater_count * heater_each_w + equipment_low_w
    lost = loss_cold_w + change_heat_w
    reason = say(
        "At {room} in the room it loses {lost}, change water included; {count} × {each} and the pumps put in {power}.",
        room=Term(room_cold_c, "temperature"),
        lost=Term(lost, "power", "loss_cold_w"),
        count=Term(heater_count, "count", "heater_count"),
        each=of(heater_each_w, "heater_each_w"),
        power=Term(put_in, "power"),
    )
    return at_least(put_in, lost, "power", reason)


@check("One heater dead", stage="heat", glass="heat", judges="one_dead_c", mends=("heat.fitted_w",))
def dead_heater_held(
    heated: bool,
    one_dead_c: float,
    animals_low_c: float,
    target_c: float,
    heater_count: float,
    temp_leeway_k: float,
) -> Verdict:
    unused_when(not heated)
    reason = say(
        "With one of {count} dead the coldest night ends at {settles}; these animals bear {low}.",
        count=Term(heater_count, "count", "heater_count"),
        settles=of(one_dead_c, "one_dead_c"),
        low=of(animals_low_c, "animals_low_c"),
    )
    return temperature_at_least(one_dead_c, animals_low_c, reason, temp_leeway_k)


def temperature_at_least(value_c: float, low_c: float, reason: Sentence, leeway_k: float) -> Verdict:
    verdict = by_practice(
        at_least(value_c, low_c, "temperature_difference", reason, scale=5), low_c, leeway_k, "borne for a night"
    )
    return Verdict(
        verdict.state, verdict.margin, verdict.headline, reason, Gauge(value_c, 40, "temperature", low=low_c)
    )


def temperature_at_most(value_c: float, high_c: float, reason: Sentence, leeway_k: float) -> Verdict:
    verdict = by_practice(
        at_most(value_c, high_c, "temperature_difference", reason, scale=5), high_c, leeway_k, "borne for a day"
    )
    return Verdict(
        verdict.state,
        verdict.margin,
        verdict.headline,
        reason,
        Gauge(value_c, 45, "temperature", high=high_c),
    )


@check(
    "One heater stuck on",
    stage="heat",
    glass="heat",
    judges="stuck_on_c",
    mends=("heat.cut_out",),
)
def stuck_heater_borne(
    heated: bool, stuck_on_c: float, animals_high_c: float, room_warm_c: float, cut_out: bool, temp_leeway_k: float
) -> Verdict:
    unused_when(not heated)
    terms = {
        "settles": of(stuck_on_c, "stuck_on_c"),
        "high": of(animals_high_c, "animals_high_c"),
        "room": Term(room_warm_c, "temperature"),
    }
    if cut_out:
        reason = say(
            "Stuck on in a room of {room} it would reach {settles}; the independent cut-out stops it before {high}. "
            "Test the cut-out every few months.",
            **terms,
        )
        return Verdict("holds", 1.0, say("held by the cut-out"), reason)
    reason = say(
        "Stuck on in a room of {room} one heater takes the water to {settles}; these animals bear {high}. "
        "An independent cut-out controller is required where no size of heater passes.",
        **terms,
    )
    return temperature_at_most(stuck_on_c, animals_high_c, reason, temp_leeway_k)


@step()
def heat_result(
    heated: bool,
    heater_need_w: float,
    heater_count: float,
    heater_each_w: float,
    rule_of_practice_w: float,
    room_cold_c: float,
    heating_kwh: float,
) -> Sentence:
    return say(
        "The coldest night, {room}, asks for {need}: {count} heaters of {each}. A watt a litre would say {rule}; "
        "walls, lid and room decide, not litres. Heating takes {energy} a year.",
        room=Term(room_cold_c, "temperature"),
        need=of(heater_need_w, "heater_need_w"),
        count=Term(heater_count, "count", "heater_count"),
        each=of(heater_each_w, "heater_each_w"),
        rule=of(rule_of_practice_w, "rule_of_practice_w"),
        energy=of(heating_kwh, "heating_kwh"),
    )
