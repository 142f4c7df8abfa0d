"""The changer: what its zones get from the street and from the reservoir, and whether that is enough and even."""

from loquen.core.errors import NamedCase
from loquen.core.graph.judging import at_least, at_most, between, by_practice
from loquen.core.graph.nodes import State, Verdict, check, figure, step, worst
from loquen.core.model.inputs.quantity import Sentence, Term, of, say
from loquen.core.rooms.network import surge_kpa
from loquen.core.rooms.stages.plumbing import Drop, Feed, Valved, ZoneFlow, opened, uneven, zone_flow_of
from loquen.core.rooms.stages.racks import Standing, Tank

PUMP_BENDS = 4
STRAINS_KPA = 250.0
"""From here on push-fit tube and small emitters are strained by a tap without a regulator."""


@step()
def feed(
    static_kpa: float,
    tested_lph: float,
    tested_kpa: float,
    tap_cm: float,
    house_lph: float,
    refill_draw_lph: float,
    feed_run_m: float,
    feed_mm: float,
    feed_bends: int,
    cartridge_kpa: float,
    cartridge_worn: float,
    mixer_kv: float,
    regulated: bool,
    setpoint_kpa: float,
    regulator_kv: float,
    manifold_cm: float,
    manifold_x_m: float,
    manifold_y_m: float,
    mixed_c: float,
) -> Feed:
    return Feed(
        static_kpa,
        tested_lph,
        tested_kpa,
        tap_cm / 100,
        house_lph + refill_draw_lph,
        feed_run_m,
        feed_mm,
        feed_bends,
        cartridge_kpa * cartridge_worn,
        mixer_kv,
        setpoint_kpa if regulated else None,
        regulator_kv,
        (manifold_x_m, manifold_y_m, manifold_cm / 100),
        mixed_c,
    )


@figure(
    "The reservoir's refill draws",
    formula="{refill_lph} × (1 − {reservoir_purified_frac}) where a zone is fed from it ({fed_from})",
    source="definition",
)
def refill_draw_lph(refill_lph: float, reservoir_purified_frac: float, fed_from: tuple[str, ...]) -> float:
    return refill_lph * (1 - reservoir_purified_frac) if "reservoir" in fed_from else 0.0


@step()
def pumped_feed(
    pump_kpa: float,
    pump_lph: float,
    pump_tested_kpa: float,
    reservoir_cm: float,
    reservoir_run_m: float,
    reservoir_pipe_mm: float,
    manifold_cm: float,
    manifold_x_m: float,
    manifold_y_m: float,
    reservoir_c: float,
) -> Feed:
    """From the reservoir's pump: no house beside it, no cartridges, no mixing valve; its manifold beside the other."""
    return Feed(
        pump_kpa,
        pump_lph,
        pump_tested_kpa,
        reservoir_cm / 100,
        0.0,
        reservoir_run_m,
        reservoir_pipe_mm,
        PUMP_BENDS,
        0.0,
        None,
        None,
        1.0,
        (manifold_x_m, manifold_y_m, manifold_cm / 100),
        reservoir_c,
    )


@step(row="zones")
def valved(
    zone_name: str,
    fed_from: str,
    emitter: str,
    nominal_lph: float,
    nominal_kpa: float,
    exponent: float,
    max_kpa: float,
    header: str,
    header_mm: float,
    header_x: float,
    drop_mm: float,
    drop_m: float,
    zone_kv: float,
    riser_m: float | None,
    zone_min: float,
    place: int,
    tanks: tuple[Tank, ...],
    own_nominal_lph: tuple[float | None, ...],
    blocked_frac: tuple[float, ...],
    pipe_m: tuple[float | None, ...],
) -> Valved:
    drops = tuple(
        Drop(
            tank.number,
            nominal_lph if (own := own_nominal_lph[tank.number]) is None else own,
            1 - blocked_frac[tank.number],
            pipe_m[tank.number],
        )
        for tank in sorted(tanks, key=lambda tank: (tank.rack, -tank.shelf, tank.slot))
        if tank.zone == place
    )
    return Valved(
        place,
        zone_name or f"Zone {place}",
        fed_from,
        emitter,
        nominal_kpa,
        exponent,
        max_kpa,
        header,
        header_mm,
        header_x,
        drop_mm,
        drop_m,
        zone_kv,
        riser_m,
        zone_min,
        drops,
    )


@step(row="zones")
def zone_flow(
    valved: Valved,
    feed: Feed,
    pumped_feed: Feed,
    standing: tuple[Standing, ...],
    tanks: tuple[Tank, ...],
    straight_frac: float,
) -> ZoneFlow:
    if not valved.drops:
        raise NamedCase("zone_without_tanks")
    own = feed if valved.fed_from == "street" else pumped_feed
    flowing, drawn = opened(own, (valved,), standing, tanks)
    return zone_flow_of(valved, flowing, drawn, tanks, straight_frac)


@step()
def zone_flows(zone_flow: tuple[ZoneFlow | None, ...]) -> tuple[ZoneFlow, ...]:
    """The zones that have tanks, each open alone."""
    found = tuple(row for row in zone_flow if row is not None)
    if not found:
        raise NamedCase("no_zones")
    return found


def fed(rows: tuple[ZoneFlow, ...], source: str) -> tuple[ZoneFlow, ...]:
    """The zones that one source feeds."""
    return tuple(row for row in rows if row.fed_from == source)


@step()
def street_flows(zone_flows: tuple[ZoneFlow, ...]) -> tuple[ZoneFlow, ...]:
    found = fed(zone_flows, "street")
    if not found:
        raise NamedCase("none_on_the_street")
    return found


@step()
def pumped_flows(zone_flows: tuple[ZoneFlow, ...]) -> tuple[ZoneFlow, ...]:
    found = fed(zone_flows, "reservoir")
    if not found:
        raise NamedCase("none_pumped")
    return found


@figure("It gives", formula="sum at the emitters of {zone_flow}", source="todini1988", row="zones")
def zone_lph(zone_flow: ZoneFlow) -> float:
    return zone_flow.lph


@figure(
    "Least of what tanks get, of the most",
    formula="least ÷ greatest litres for a litre of tank, of {zone_flow}",
    source="todini1988",
    row="zones",
)
def zone_even_frac(zone_flow: ZoneFlow) -> float:
    return zone_flow.spread_frac


@figure("Fastest water in it", formula="of {zone_flow}", source="todini1988", row="zones")
def zone_speed_m_s(zone_flow: ZoneFlow) -> float:
    return zone_flow.speed_m_s


@figure("Pressure across its valve", formula="of {zone_flow}", source="iec60534", row="zones")
def zone_valve_kpa(zone_flow: ZoneFlow) -> float:
    return zone_flow.valve_kpa


@figure(
    "Surge when its valve shuts",
    formula="ρ × 400 m/s × the header's speed, of {zone_flow}, at {mixed_c}",
    source="joukowsky1898",
    row="zones",
)
def zone_surge_kpa(zone_flow: ZoneFlow, mixed_c: float) -> float:
    return float(surge_kpa(zone_flow.header_speed_m_s, temp_c=mixed_c))


@figure("Largest zone on the street", formula="most of {street_flows}", source="todini1988")
def largest_zone_lph(street_flows: tuple[ZoneFlow, ...]) -> float:
    return max(row.lph for row in street_flows)


@figure(
    "Most through the cartridges at once",
    formula="largest zone on the street, {zone_flows}, + {refill_draw_lph}",
    source="balance",
)
def cartridges_lph(zone_flows: tuple[ZoneFlow, ...], refill_draw_lph: float) -> float:
    return max((row.lph for row in fed(zone_flows, "street")), default=0.0) + refill_draw_lph


@figure(
    "Mixed from the street a day",
    formula="flow × minutes over the street's zones in {zone_flows}",
    source="balance",
    kind="volume_per_day",
)
def street_l_d(zone_flows: tuple[ZoneFlow, ...]) -> float:
    return litres_d(fed(zone_flows, "street"))


@figure(
    "Pumped from the reservoir a day",
    formula="flow × minutes over its zones in {zone_flows}",
    source="balance",
    kind="volume_per_day",
)
def pumped_l_d(zone_flows: tuple[ZoneFlow, ...]) -> float:
    return litres_d(fed(zone_flows, "reservoir"))


def litres_d(rows: tuple[ZoneFlow, ...]) -> float:
    return sum(row.lph * row.minutes / 60 for row in rows)


@figure("Water a day", formula="flow × minutes over {zone_flows}", source="balance", kind="volume_per_day")
def changer_l_d(zone_flows: tuple[ZoneFlow, ...]) -> float:
    return litres_d(zone_flows)


@figure("Least even zone", formula="least of {zone_flows}", source="todini1988", kind="share")
def least_even_frac(zone_flows: tuple[ZoneFlow, ...]) -> float:
    return min(row.spread_frac for row in zone_flows)


@check(
    "Even along each zone",
    stage="changer",
    judges="least_even_frac",
    glass="even",
)
def zones_even(zone_flows: tuple[ZoneFlow, ...], least_even_frac: float, even_wanted_frac: float) -> Verdict:
    row = min(zone_flows, key=lambda z: z.spread_frac)
    least, most = uneven(row)
    reason = say(
        "In {zone} {least} gets {few} of its water in a day and {most} {many}, along {pipe} of pipe at {lph}. A tenth apart "
        "is usual, a fifth is where they stop being one zone.",
        zone=row.name,
        least=least.name,
        few=Term(least.ratio, "share"),
        most=most.name,
        many=Term(most.ratio, "share"),
        pipe=Term(least.pipe_m, "head"),
        lph=Term(row.lph, "flow"),
    )
    verdict = at_least(least_even_frac, even_wanted_frac, "share", reason, scale=0.5)
    return by_practice(verdict, even_wanted_frac, 0.1)


@check("Pressure reaches the manifold", stage="changer", judges="", glass="supply")
def pressure_reaches(
    street_flows: tuple[ZoneFlow, ...],
    valved: tuple[Valved, ...],
    regulated: bool,
    setpoint_kpa: float,
    static_kpa: float,
) -> Verdict:
    row = min(street_flows, key=lambda z: z.before_kpa)
    terms: dict[str, Term | str] = {
        "zone": row.name,
        "tap": Term(row.tap_kpa, "pressure"),
        "before": Term(row.before_kpa, "pressure"),
        "at": Term(row.manifold_kpa, "pressure"),
        "still": Term(static_kpa, "pressure"),
    }
    if not regulated:
        rated = min(zone.nominal_kpa for zone in valved if zone.drops and zone.fed_from == "street")
        text = (
            "With {zone} open the tap holds {tap} and the manifold {at}, where its emitters are rated at {rated}. Without a "
            "regulator the flow follows the street, and {still} stand on every joint when nothing runs."
        )
        verdict = at_least(
            row.manifold_kpa, rated, "pressure", say(text, **terms, rated=Term(rated, "pressure")), scale=rated
        )
        return between(by_practice(verdict, rated, 0.5 * rated), static_kpa > STRAINS_KPA)
    text = "With {zone} open the tap holds {tap}, and {before} arrive at the regulator, which is set to {set}."
    if row.regulator == "open":
        text += " It is open and holds nothing: the flow follows the street's pressure."
    reason = say(text, **terms, set=Term(setpoint_kpa, "pressure"))
    verdict = at_least(row.before_kpa, setpoint_kpa, "pressure", reason, scale=setpoint_kpa)
    return by_practice(verdict, setpoint_kpa, 0.3 * setpoint_kpa)


@figure(
    "The street can give",
    formula="{tested_lph} × √(({static_kpa} − {needed_kpa}) ÷ ({static_kpa} − {tested_kpa}))",
    source="balance",
)
def supply_most_lph(static_kpa: float, tested_lph: float, tested_kpa: float, needed_kpa: float) -> float:
    if needed_kpa >= static_kpa:
        raise NamedCase("street_too_weak")
    if tested_kpa >= static_kpa:
        raise NamedCase("test_not_lower")
    return float(tested_lph * ((static_kpa - needed_kpa) / (static_kpa - tested_kpa)) ** 0.5)


@figure(
    "Pressure needed at the tap",
    formula="what the largest of {street_flows} leaves between tap and manifold, and {setpoint_kpa} where there is a regulator",
    source="balance",
)
def needed_kpa(street_flows: tuple[ZoneFlow, ...], regulated: bool, setpoint_kpa: float) -> float:
    row = max(street_flows, key=lambda z: z.lph)
    lost = row.tap_kpa - row.before_kpa
    return lost + (setpoint_kpa if regulated else row.manifold_kpa * 0.5)


@check("The pump lifts it", stage="changer", judges="", glass="supply", mends=("reservoir.pump_kpa",))
def pump_lifts(pumped_flows: tuple[ZoneFlow, ...], valved: tuple[Valved, ...]) -> Verdict:
    rated = {zone.number: zone.nominal_kpa for zone in valved}
    row = min(pumped_flows, key=lambda z: z.manifold_kpa / rated[z.number])
    reason = say(
        "With {zone} open the pump holds {pump} and its manifold {at}, where the emitters are rated at {rated}; it gives {lph}.",
        zone=row.name,
        pump=Term(row.tap_kpa, "pressure"),
        at=Term(row.manifold_kpa, "pressure"),
        rated=Term(rated[row.number], "pressure"),
        lph=Term(row.lph, "flow"),
    )
    verdict = at_least(row.manifold_kpa, rated[row.number], "pressure", reason, scale=rated[row.number])
    return by_practice(verdict, rated[row.number], 0.5 * rated[row.number])


@figure(
    "Wanted with the house",
    formula="{largest_zone_lph} + {house_lph} + {refill_draw_lph}",
    source="balance",
)
def supply_wanted_lph(largest_zone_lph: float | None, house_lph: float, refill_draw_lph: float) -> float:
    return (largest_zone_lph or 0.0) + house_lph + refill_draw_lph


@check("The street gives enough", stage="changer", judges="supply_wanted_lph", glass="supply")
def street_gives(supply_wanted_lph: float, supply_most_lph: float, house_lph: float) -> Verdict:
    reason = say(
        "The largest zone and {house} for the house ask for {wanted}; the street gives {most} at the pressure that the "
        "zone needs.",
        house=Term(house_lph, "flow"),
        wanted=of(supply_wanted_lph, "supply_wanted_lph"),
        most=of(supply_most_lph, "supply_most_lph"),
    )
    return by_practice(at_most(supply_wanted_lph, supply_most_lph, "flow", reason), supply_most_lph)


@check("Emitters in their range", stage="changer", judges="")
def in_range(zone_flows: tuple[ZoneFlow, ...], valved: tuple[Valved, ...]) -> Verdict:
    if all(zone.emitter == "plain" for zone in valved):
        raise NamedCase("not_needed")
    below = [name for row in zone_flows for name in row.below_range]
    over = [name for row in zone_flows for name in row.over_range]
    if not below and not over:
        return Verdict(
            "holds", 1.0, say("all in range"), say("Every compensating emitter has the pressure it is made for.")
        )
    text = (
        "Too little pressure to compensate at {below}."
        if below
        else "More pressure than they are made for at {over}."
    )
    reason = say(text, below=listed(below), over=listed(over))
    return Verdict("tight", -1.0, say("{n} out of range", n=Term(float(len(below + over)), "count")), reason)


def listed(names: list[str], most: int = 4) -> str:
    shown = ", ".join(names[:most])
    return f"{shown} and {len(names) - most} more" if len(names) > most else shown


@figure("Fastest water", formula="most of {zone_flows}", source="todini1988")
def fastest_m_s(zone_flows: tuple[ZoneFlow, ...]) -> float:
    return max(row.header_speed_m_s for row in zone_flows)


@check(
    "Quiet headers",
    stage="changer",
    judges="fastest_m_s",
    mends=("zones.header_mm",),
    caution="No push-fit tube and no small emitter behind an unregulated tap: a valve that shuts strikes.",
)
def headers_quiet(
    zone_flows: tuple[ZoneFlow, ...],
    fastest_m_s: float,
    quiet_m_s: float,
    loud_m_s: float,
    zone_surge_kpa: tuple[float | None, ...],
) -> Verdict:
    row = max(zone_flows, key=lambda z: z.header_speed_m_s)
    surge = max((kpa for kpa in zone_surge_kpa if kpa is not None), default=0.0)
    reason = say(
        "Water runs at {speed} in {zone}; up to {quiet} is quiet, {loud} the most. A valve that shuts at once adds {surge}.",
        speed=of(fastest_m_s, "fastest_m_s"),
        zone=row.name,
        quiet=Term(quiet_m_s, "pipe_speed"),
        loud=Term(loud_m_s, "pipe_speed"),
        surge=Term(surge, "pressure"),
    )
    return by_practice(at_most(fastest_m_s, quiet_m_s, "pipe_speed", reason), quiet_m_s, loud_m_s - quiet_m_s)


@check("Valves open and shut", stage="changer", judges="")
def valves_work(
    zone_flows: tuple[ZoneFlow, ...], pilot_kpa: tuple[float, ...], pilot_lph: tuple[float, ...]
) -> Verdict:
    wanting = [row for row in zone_flows if pilot_kpa[row.number - 1] > 0 or pilot_lph[row.number - 1] > 0]
    if not wanting:
        raise NamedCase("not_needed")
    states: list[tuple[State, Verdict]] = []
    for row in wanting:
        # A pilot-operated valve needs its pressure before it opens: what stands at the manifold.
        reason = say(
            "The valve of {zone} needs {least} before it and {flow} through it; it has {kpa} and {lph}. Such valves do not "
            "work on gravity.",
            zone=row.name,
            least=Term(pilot_kpa[row.number - 1], "pressure"),
            flow=Term(pilot_lph[row.number - 1], "flow"),
            kpa=Term(row.manifold_kpa, "pressure"),
            lph=Term(row.lph, "flow"),
        )
        verdict = at_least(row.manifold_kpa, pilot_kpa[row.number - 1], "pressure", reason)
        if row.lph < pilot_lph[row.number - 1]:
            verdict = at_least(row.lph, pilot_lph[row.number - 1], "flow", reason)
        states.append((verdict.state, verdict))
    decisive = worst(state for state, _ in states)
    return next(verdict for state, verdict in states if state == decisive)


@check(
    "Kept apart from drinking water",
    stage="changer",
    judges="",
    caution="Tank water is of the highest class in most codes: an air gap of twice the bore and at least 20 mm over the "
    "rim, or the device that the local code accepts, tested by a licensed plumber. A check valve alone is none; hoses left "
    "in tanks are the real siphons.",
)
def kept_apart(air_gap: bool) -> Verdict:
    if air_gap:
        return Verdict("holds", 1.0, say("apart"), say("An air gap or an accepted device stands before the room."))
    reason = say(
        "No air gap and no accepted device is entered: when the street's pressure fails, tank water can be drawn back."
    )
    return Verdict("short", -1.0, say("not yet"), reason)


@step()
def changer_result(zone_flows: tuple[ZoneFlow, ...], changer_l_d: float, least_even_frac: float) -> Sentence:
    row = min(zone_flows, key=lambda z: z.spread_frac)
    return say(
        "{zones} zones give {litres}; in {zone} the least tank gets {even} of what the most does.",
        zones=Term(float(len(zone_flows)), "count"),
        litres=of(changer_l_d, "changer_l_d", "volume_per_day"),
        zone=row.name,
        even=of(least_even_frac, "least_even_frac", "share"),
    )
