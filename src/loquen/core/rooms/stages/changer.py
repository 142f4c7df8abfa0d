"""The changer's water lines: what flows at every emitter while a zone is open, and what else could be."""

from collections.abc import Mapping
from dataclasses import dataclass, field, replace
from functools import lru_cache
from typing import Any, Literal

from loquen.core.errors import NamedCase
from loquen.core.graph.judging import at_least, at_most, between, by_practice
from loquen.core.graph.nodes import State, Verdict, check, figure, step, worst
from loquen.core.model.quantity import Sentence, Term, of, say
from loquen.core.rooms.network import Flowing, solve_network, surge_kpa
from loquen.core.rooms.stages.racks import HEADER_OVER_CM, Spot, Standing, Tank
from loquen.core.rooms.zones import flow_ratio

BEND_K, TEE_RUN_K, TEE_BRANCH_K, ENTRY_K = 0.9, 0.6, 1.8, 0.5
HOUSE = "house"
Spots = Mapping[int, Spot]
MOST_SOLVED = 512
STRAINS_KPA = 250.0
"""From here on push-fit tube and small emitters are strained by a tap without a regulator."""
CAUGHT_APART = 0.1
"""Of what is planned: what bucket and clock may differ by."""
HOUSE_LEAST_KPA = 50.0
SIDE_M = 0.3
"""Pipe that a crossing from shelf to shelf takes beside its height."""


@dataclass(frozen=True, slots=True)
class Feed:
    """What leads from the tap to the manifold."""

    static_kpa: float
    tested_lph: float
    tested_kpa: float
    tap_m: float
    house_lph: float
    feed_m: float
    feed_mm: float
    feed_bends: int
    cartridge_kpa: float
    mixer_kv: float
    setpoint_kpa: float | None
    regulator_kv: float
    manifold_m: tuple[float, float, float]
    temp_c: float


@dataclass(frozen=True, slots=True)
class Drop:
    """One tank's emitter: what it was made to give at its nominal pressure, and the part of it that is open."""

    tank: int
    nominal_lph: float
    open_frac: float
    header_m: float | None


@dataclass(frozen=True, slots=True)
class Valved:
    """A zone as it is plumbed."""

    number: int
    name: str
    emitter: str
    nominal_kpa: float
    exponent: float
    max_kpa: float
    header: str
    header_mm: float
    drop_mm: float
    drop_m: float
    kv: float
    riser_m: float | None
    minutes: float
    drops: tuple[Drop, ...]

    @property
    def label(self) -> str:
        return self.name


@dataclass(frozen=True, slots=True)
class TankFlow:
    """What one tank gets: L/h, kPa at its emitter, share of its water that passes in a day, pipe from the manifold (m)."""

    tank: int
    name: str
    lph: float
    kpa: float | None
    ratio: float
    pipe_m: float


@dataclass(frozen=True, slots=True)
class HeaderPoint:
    """Pressure so far along a header from the manifold; `run` is the shelf's turn, 0 the manifold itself."""

    run: int
    far_m: float
    kpa: float


@dataclass(frozen=True, slots=True)
class ZoneFlow:
    """A zone that is open: its tanks in the order of the header, and the line before it."""

    number: int
    name: str
    lph: float
    minutes: float
    tanks: tuple[TankFlow, ...]
    spread_frac: float
    tap_kpa: float
    before_kpa: float
    manifold_kpa: float
    valve_kpa: float
    speed_m_s: float
    header_speed_m_s: float
    regulator: str
    below_range: tuple[str, ...]
    over_range: tuple[str, ...]
    header_points: tuple[HeaderPoint, ...]
    header_m: float

    @property
    def label(self) -> str:
        return self.name


@step()
def feed(
    static_kpa: float,
    tested_lph: float,
    tested_kpa: float,
    tap_cm: float,
    house_lph: float,
    feed_m: float,
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
        house_lph,
        feed_m,
        feed_mm,
        feed_bends,
        cartridge_kpa * cartridge_worn,
        mixer_kv,
        setpoint_kpa if regulated else None,
        regulator_kv,
        (manifold_x_m, manifold_y_m, manifold_cm / 100),
        mixed_c,
    )


@step(row="zones")
def valved(
    zone_name: str,
    emitter: str,
    nominal_lph: float,
    nominal_kpa: float,
    exponent: float,
    max_kpa: float,
    header: str,
    header_mm: float,
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
        emitter,
        nominal_kpa,
        exponent,
        max_kpa,
        header,
        header_mm,
        drop_mm,
        drop_m,
        zone_kv,
        riser_m,
        zone_min,
        drops,
    )


@dataclass
class Drawn:
    """A network as it is put together, and the pipe from the manifold to every node."""

    nodes: list[dict[str, Any]] = field(default_factory=list)
    pipes: list[dict[str, Any]] = field(default_factory=list)
    emitters: list[dict[str, Any]] = field(default_factory=list)
    valves: list[dict[str, Any]] = field(default_factory=list)
    far_m: dict[str, float] = field(default_factory=dict)

    def node(self, name: str, height_m: float, far_m: float) -> str:
        self.nodes.append({"id": name, "elevation_m": height_m})
        self.far_m[name] = far_m
        return name

    def pipe(self, start: str, end: str, length_m: float, bore_mm: float, k: float) -> None:
        self.pipes.append(
            {"id": f"{start}>{end}", "from": start, "to": end, "length_m": length_m, "bore_mm": bore_mm}
            | {"roughness_mm": 0.0015, "minor_k": k}
        )


def place_m(rack: Standing, along_cm: float) -> tuple[float, float]:
    """Where a point along a rack lies in the room."""
    along = along_cm / 100
    return (rack.x_m + along, rack.y_m) if rack.along == "wall" else (rack.x_m, rack.y_m + along)


def walked_m(one: tuple[float, float, float], other: tuple[float, float, float]) -> float:
    """Pipe between two points, along the walls and straight up."""
    return sum(abs(a - b) for a, b in zip(one, other, strict=True))


def put_zone(
    drawn: Drawn,
    zone: Valved,
    racks: tuple[Standing, ...],
    spots: Spots,
    manifold: tuple[float, float, float],
) -> None:
    """A zone's valve, riser, headers, drops and emitters, after the manifold node M."""
    gate = drawn.node(f"v{zone.number}", manifold[2], 0.0)
    drawn.valves.append({"id": f"valve{zone.number}", "from": "M", "to": gate, "kv_m3_h": zone.kv})
    shelves: dict[tuple[int, int], list[Drop]] = {}
    for drop in zone.drops:
        spot = spots[drop.tank]
        shelves.setdefault((spot.rack, spot.shelf), []).append(drop)
    before, before_at = gate, manifold
    for nth, ((rack_number, _), drops) in enumerate(shelves.items()):
        rack = racks[rack_number - 1]
        run = sorted(drops, key=lambda drop: spots[drop.tank].middle_cm)
        height = max(spots[drop.tank].rim_cm for drop in run) / 100 + HEADER_OVER_CM / 100
        points = [(*place_m(rack, spots[drop.tank].middle_cm), height) for drop in run]
        if abs(walked_m(points[-1], before_at)) < abs(walked_m(points[0], before_at)):
            run, points = run[::-1], points[::-1]
        middle = (len(run) - 1) // 2 if zone.header == "middle" else 0
        entry = points[middle]
        reckoned = walked_m(before_at, entry) + (SIDE_M if nth else 0.0)
        length = zone.riser_m if nth == 0 and zone.riser_m is not None else reckoned
        start = drawn.node(f"z{zone.number}s{nth}", height, drawn.far_m[before] + length)
        drawn.pipe(before, start, length, zone.header_mm, 3 * BEND_K)
        branches = [list(range(middle, len(run))), list(range(middle - 1, -1, -1))]
        ends = []
        for branch in branches:
            node, at = start, entry
            for i in branch:
                own = run[i].header_m
                length = own if own is not None else max(0.01, walked_m(at, points[i]))
                there = drawn.node(f"h{run[i].tank}", height, drawn.far_m[node] + length)
                drawn.pipe(node, there, length, zone.header_mm, TEE_RUN_K)
                node, at = there, points[i]
                put_drop(drawn, zone, run[i], spots[run[i].tank], there)
            ends.append((node, at))
        if zone.header == "ring" and len(run) > 1:
            drawn.pipe(ends[0][0], start, walked_m(ends[0][1], entry) + 2 * SIDE_M, zone.header_mm, 4 * BEND_K)
        before, before_at = start, entry


def put_drop(drawn: Drawn, zone: Valved, drop: Drop, spot: Spot, header: str) -> None:
    tip = drawn.node(f"t{drop.tank}", spot.rim_cm / 100, drawn.far_m[header] + zone.drop_m)
    drawn.pipe(header, tip, zone.drop_m, zone.drop_mm, TEE_BRANCH_K)
    emitter = {
        "id": f"e{drop.tank}",
        "node": tip,
        "kind": zone.emitter,
        "nominal_lph": drop.nominal_lph * drop.open_frac,
    }
    if zone.emitter == "plain":
        emitter |= {"nominal_kpa": zone.nominal_kpa, "exponent": zone.exponent}
    else:
        emitter |= {"min_kpa": zone.nominal_kpa, "max_kpa": zone.max_kpa}
    drawn.emitters.append(emitter)


def opened(
    feed: Feed, zones: tuple[Valved, ...], racks: tuple[Standing, ...], tanks: tuple[Tank, ...]
) -> tuple[Flowing, Drawn]:
    """The room's line with some zones open, solved, and how it was put together."""
    own = tuple((drop.tank, tanks[drop.tank].spot) for zone in zones for drop in zone.drops)
    return solved_line(feed, zones, racks, own)


@lru_cache(MOST_SOLVED)
def solved_line(
    feed: Feed, zones: tuple[Valved, ...], racks: tuple[Standing, ...], own: tuple[tuple[int, Spot], ...]
) -> tuple[Flowing, Drawn]:
    """The same, solved once for what it hangs on: what lives in a tank moves no water."""
    spots = dict(own)
    drawn = Drawn()
    manifold_m = feed.manifold_m[2]
    drawn.node("tap", feed.tap_m, 0.0)
    drawn.node("fed", manifold_m, 0.0)
    drawn.pipe("tap", "fed", feed.feed_m, feed.feed_mm, ENTRY_K + feed.feed_bends * BEND_K)
    drawn.node("clean", manifold_m, 0.0)
    drawn.node("mixed", manifold_m, 0.0)
    drawn.valves.append({"id": "mixer", "from": "clean", "to": "mixed", "kv_m3_h": feed.mixer_kv})
    drawn.node("M", manifold_m, 0.0)
    regulators = []
    if feed.setpoint_kpa is not None:
        row = {"id": "regulator", "from": "mixed", "to": "M"}
        regulators = [row | {"setpoint_kpa": feed.setpoint_kpa, "kv_m3_h": feed.regulator_kv}]
    else:
        drawn.pipe("mixed", "M", 0.1, feed.feed_mm, 0.0)
    for zone in zones:
        put_zone(drawn, zone, racks, spots, feed.manifold_m)
    # What the house uses keeps its flow while there is any pressure to speak of.
    house = {"id": HOUSE, "node": "tap", "kind": "compensating", "nominal_lph": feed.house_lph}
    drawn.emitters.append(house | {"min_kpa": HOUSE_LEAST_KPA, "max_kpa": 2000})
    flowing = solve_network(
        nodes=drawn.nodes,
        sources=[
            {
                "node": "tap",
                "static_kpa": feed.static_kpa,
                "tested_lph": feed.tested_lph,
                "tested_kpa": feed.tested_kpa,
            }
        ],
        pipes=drawn.pipes,
        valves=drawn.valves,
        regulators=regulators,
        # New media lose in proportion to the flow; their housing is small beside it.
        resistances=[
            {"id": "cartridges", "from": "fed", "to": "clean"}
            | {"linear_kpa_per_lph": feed.cartridge_kpa / 1000, "quadratic_kpa_per_lph2": 0.0}
        ],
        emitters=drawn.emitters,
        temp_c=feed.temp_c,
    )
    return flowing, drawn


def zone_flow_of(
    zone: Valved, flowing: Flowing, drawn: Drawn, tanks: tuple[Tank, ...], straight_frac: float
) -> ZoneFlow:
    """One zone of a solved line."""
    far_m = drawn.far_m
    found = []
    for drop in zone.drops:
        tank = tanks[drop.tank]
        lph = flowing.emitters_lph[f"e{drop.tank}"]
        ratio = flow_ratio(
            emitter_lph=lph, minutes=zone.minutes, volume_l=tank.litres, short_circuit_frac=straight_frac
        )
        kpa = flowing.pressures_kpa[f"t{drop.tank}"]
        found.append(TankFlow(drop.tank, tank.name, lph, kpa, ratio, far_m[f"t{drop.tank}"]))
    ratios = [row.ratio for row in found]
    mine = {f"h{drop.tank}" for drop in zone.drops} | {f"t{drop.tank}" for drop in zone.drops}
    ends = {name: name.split(">")[1] for name in flowing.velocities_m_s}
    pipes = [name for name, end in ends.items() if end in mine or end.startswith(f"z{zone.number}s")]
    pressures = flowing.pressures_kpa
    shelves = list(dict.fromkeys((tanks[drop.tank].rack, tanks[drop.tank].shelf) for drop in zone.drops))
    header = sorted(
        (
            shelves.index((tanks[drop.tank].rack, tanks[drop.tank].shelf)) + 1,
            far_m[f"h{drop.tank}"],
            pressures[f"h{drop.tank}"] or 0.0,
        )
        for drop in zone.drops
    )
    lph = sum(row.lph for row in found)
    return ZoneFlow(
        number=zone.number,
        name=zone.name,
        lph=lph,
        minutes=zone.minutes,
        tanks=tuple(found),
        spread_frac=min(ratios) / max(ratios) if max(ratios, default=0.0) > 0 else 0.0,
        tap_kpa=pressures["tap"] or 0.0,
        before_kpa=pressures["mixed"] or 0.0,
        manifold_kpa=pressures["M"] or 0.0,
        valve_kpa=(pressures["M"] or 0.0) - (pressures[f"v{zone.number}"] or 0.0),
        speed_m_s=max((flowing.velocities_m_s[name] for name in pipes), default=0.0),
        header_speed_m_s=max(
            (flowing.velocities_m_s[name] for name in pipes if not ends[name].startswith("t")), default=0.0
        ),
        regulator=flowing.regulators.get("regulator", "none"),
        below_range=tuple(tanks[int(e[1:])].name for e in flowing.below_range if e != HOUSE),
        over_range=tuple(tanks[int(e[1:])].name for e in flowing.out_of_range if e != HOUSE),
        header_points=(HeaderPoint(0, 0.0, pressures["M"] or 0.0), *(HeaderPoint(*point) for point in header)),
        header_m=sum(p["length_m"] for p in drawn.pipes if p["id"] in pipes and not ends[p["id"]].startswith("t")),
    )


@step(row="zones")
def zone_flow(
    valved: Valved, feed: Feed, standing: tuple[Standing, ...], tanks: tuple[Tank, ...], straight_frac: float
) -> ZoneFlow:
    if not valved.drops:
        raise NamedCase("zone_without_tanks")
    flowing, drawn = opened(feed, (valved,), standing, tanks)
    return zone_flow_of(valved, flowing, drawn, tanks, straight_frac)


@step()
def zone_flows(zone_flow: tuple[ZoneFlow | None, ...]) -> tuple[ZoneFlow, ...]:
    """The zones that have tanks, each open alone."""
    found = tuple(row for row in zone_flow if row is not None)
    if not found:
        raise NamedCase("no_zones")
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


@figure("Largest zone", formula="most of {zone_flows}", source="todini1988")
def largest_zone_lph(zone_flows: tuple[ZoneFlow, ...]) -> float:
    return max(row.lph for row in zone_flows)


@figure("Water a day", formula="flow × minutes over {zone_flows}", source="balance", kind="volume_per_day")
def changer_l_d(zone_flows: tuple[ZoneFlow, ...]) -> float:
    return sum(row.lph * row.minutes / 60 for row in zone_flows)


@figure("Least even zone", formula="least of {zone_flows}", source="todini1988", kind="share")
def least_even_frac(zone_flows: tuple[ZoneFlow, ...]) -> float:
    return min(row.spread_frac for row in zone_flows)


def uneven(row: ZoneFlow) -> tuple[TankFlow, TankFlow]:
    """The tanks that get least and most for their size."""
    return min(row.tanks, key=lambda t: t.ratio), max(row.tanks, key=lambda t: t.ratio)


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
    zone_flows: tuple[ZoneFlow, ...],
    valved: tuple[Valved, ...],
    regulated: bool,
    setpoint_kpa: float,
    static_kpa: float,
) -> Verdict:
    row = min(zone_flows, key=lambda z: z.before_kpa)
    terms: dict[str, Term | str] = {
        "zone": row.name,
        "tap": Term(row.tap_kpa, "pressure"),
        "before": Term(row.before_kpa, "pressure"),
        "at": Term(row.manifold_kpa, "pressure"),
        "still": Term(static_kpa, "pressure"),
    }
    if not regulated:
        rated = min(zone.nominal_kpa for zone in valved if zone.drops)
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
    formula="what the largest of {zone_flows} leaves between tap and manifold, and {setpoint_kpa} where there is a regulator",
    source="balance",
)
def needed_kpa(zone_flows: tuple[ZoneFlow, ...], regulated: bool, setpoint_kpa: float) -> float:
    row = max(zone_flows, key=lambda z: z.lph)
    lost = row.tap_kpa - row.before_kpa
    return lost + (setpoint_kpa if regulated else row.manifold_kpa * 0.5)


@figure("Wanted with the house", formula="{largest_zone_lph} + {house_lph}", source="balance")
def supply_wanted_lph(largest_zone_lph: float, house_lph: float) -> float:
    return largest_zone_lph + house_lph


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


@dataclass(frozen=True, slots=True)
class Caught:
    """What a bucket caught under one emitter, against what was planned, L/h."""

    name: str
    planned_lph: float
    caught_lph: float

    @property
    def label(self) -> str:
        return self.name

    @property
    def part(self) -> float:
        return self.caught_lph / self.planned_lph


@step()
def caught(zone_flows: tuple[ZoneFlow, ...], caught_l_min: tuple[float | None, ...]) -> tuple[Caught, ...]:
    found = tuple(
        Caught(row.name, row.lph, litres * 60)
        for zone in zone_flows
        for row in zone.tanks
        if (litres := caught_l_min[row.tank]) is not None and row.lph > 0
    )
    if not found:
        raise NamedCase("no_buckets")
    return found


@figure(
    "Caught of what is planned", formula="mean of caught ÷ planned over {caught}", source="balance", kind="share"
)
def caught_frac(caught: tuple[Caught, ...]) -> float:
    return sum(row.part for row in caught) / len(caught)


@figure(
    "Pressure that the buckets speak for",
    formula="manifold × {caught_frac}², plain emitters going with the root of it, of {zone_flows}",
    source="emitters",
)
def caught_kpa(caught_frac: float, zone_flows: tuple[ZoneFlow, ...]) -> float:
    return sum(row.manifold_kpa for row in zone_flows) / len(zone_flows) * caught_frac**2


@check("Planned as it is caught", stage="changer", judges="caught_frac")
def as_caught(caught: tuple[Caught, ...], caught_frac: float, caught_kpa: float) -> Verdict:
    far = max(caught, key=lambda row: abs(row.part - caught_frac))
    terms: dict[str, Term | str] = {
        "part": of(caught_frac, "caught_frac", "share"),
        "kpa": of(caught_kpa, "caught_kpa"),
        "tank": far.name,
        "own": Term(far.part, "share"),
        "count": Term(float(len(caught)), "count"),
    }
    if abs(far.part - caught_frac) > CAUGHT_APART:
        text = (
            "{tank} caught {own} of what is planned, all {count} together {part}: look at its emitter and its drop."
        )
    elif abs(caught_frac - 1) > CAUGHT_APART:
        text = "All {count} buckets alike caught {part} of what is planned: the manifold seems to hold {kpa}. Enter what its gauge reads."
    else:
        text = "{count} buckets caught {part} of what is planned: the pipes are as they were entered."
    apart = max(abs(caught_frac - 1), abs(far.part - caught_frac))
    state: State = "tight" if apart > CAUGHT_APART else "holds"
    return Verdict(state, CAUGHT_APART - apart, say("{part} of planned", part=terms["part"]), say(text, **terms))


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


@dataclass(frozen=True, slots=True)
class Trial:
    """What a zone would do if something were otherwise."""

    key: str
    label: str
    even_frac: float
    least_lph: float
    least_tank: str
    lph: float
    kpa: float


COMPENSATES_KPA = 70.0
"""From here on compensating emitters usually hold their flow."""
BORES_MM = (4.0, 9.0, 13.0, 16.0, 20.0, 25.0, 32.0)
Turn = Literal["as_is", "larger", "ring", "middle", "compensating", "two_open", "one_blocked", "worn", "weak"]


def trials(
    zone: int,
    feed: Feed,
    valved: tuple[Valved, ...],
    racks: tuple[Standing, ...],
    tanks: tuple[Tank, ...],
    straight_frac: float,
) -> tuple[Trial, ...]:
    """A zone as it is, as it could be built, and as it would be when something fails."""
    own = valved[zone - 1]
    if not own.drops:
        raise NamedCase("zone_without_tanks")
    larger = next((bore for bore in BORES_MM if bore > own.header_mm), own.header_mm)
    other = max((z for z in valved if z.number != zone and z.drops), key=lambda z: len(z.drops), default=None)
    far = own.drops[-1]
    blocked = replace(own, drops=(*own.drops[:-1], replace(far, open_frac=far.open_frac / 2)))
    compensating = replace(
        own, emitter="compensating", nominal_kpa=min(own.nominal_kpa, COMPENSATES_KPA), max_kpa=350.0
    )
    weak = replace(feed, static_kpa=feed.static_kpa * 0.6, tested_kpa=feed.tested_kpa * 0.6)
    rows: list[tuple[str, str, Feed, tuple[Valved, ...]]] = [
        ("as_is", "as it is", feed, (own,)),
        ("larger", f"header of {larger:g} mm", feed, (replace(own, header_mm=larger),)),
        ("ring", "header as a ring", feed, (replace(own, header="ring"),)),
        ("middle", "fed in the middle", feed, (replace(own, header="middle"),)),
        ("compensating", "compensating emitters", feed, (compensating,)),
        ("one_blocked", f"half blocked at {tanks[far.tank].name}", feed, (blocked,)),
        ("worn", "cartridges half blocked", replace(feed, cartridge_kpa=2 * feed.cartridge_kpa), (own,)),
        ("weak", "street at 60 %", weak, (own,)),
    ]
    if other is not None:
        rows.append(("two_open", f"{other.name} open too, by mistake", feed, (own, other)))
    found = []
    for key, label, tried, zones in rows:
        flowing, drawn = opened(tried, zones, racks, tanks)
        row = zone_flow_of(zones[0], flowing, drawn, tanks, straight_frac)
        least, _ = uneven(row)
        found.append(Trial(key, label, row.spread_frac, least.lph, least.name, row.lph, row.manifold_kpa))
    return tuple(found)
