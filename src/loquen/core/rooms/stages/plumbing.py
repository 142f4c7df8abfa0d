"""A room's water lines put together as a network and solved: what flows at every emitter while zones are open."""

from collections.abc import Mapping
from dataclasses import dataclass, field, replace
from functools import lru_cache
from typing import Any, Literal

from loquen.core.errors import NamedCase
from loquen.core.rooms.network import Flowing, solve_network
from loquen.core.rooms.stages.racks import HEADER_OVER_CM, Spot, Standing, Tank
from loquen.core.rooms.zones import flow_ratio

BEND_K, TEE_RUN_K, TEE_BRANCH_K, ENTRY_K = 0.9, 0.6, 1.8, 0.5
HOUSE = "house"
Spots = Mapping[int, Spot]
MOST_SOLVED = 512
HOUSE_LEAST_KPA = 50.0
SIDE_M = 0.3
"""Pipe that a crossing from shelf to shelf takes beside its height."""


@dataclass(frozen=True, slots=True)
class Feed:
    """What leads from a tap, or from the reservoir's pump, to a manifold; a pump's curve is entered as a tap's."""

    static_kpa: float
    tested_lph: float
    tested_kpa: float
    tap_m: float
    house_lph: float
    feed_m: float
    feed_mm: float
    feed_bends: int
    cartridge_kpa: float
    mixer_kv: float | None
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
    fed_from: str
    emitter: str
    nominal_kpa: float
    exponent: float
    max_kpa: float
    header: str
    header_mm: float
    header_x: float
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
    fed_from: str
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
        drawn.pipe(before, start, length * zone.header_x, zone.header_mm, 3 * BEND_K)
        branches = [list(range(middle, len(run))), list(range(middle - 1, -1, -1))]
        ends = []
        for branch in branches:
            node, at = start, entry
            for i in branch:
                own = run[i].header_m
                length = own if own is not None else max(0.01, walked_m(at, points[i]))
                there = drawn.node(f"h{run[i].tank}", height, drawn.far_m[node] + length)
                drawn.pipe(node, there, length * zone.header_x, zone.header_mm, TEE_RUN_K)
                node, at = there, points[i]
                put_drop(drawn, zone, run[i], spots[run[i].tank], there)
            ends.append((node, at))
        if zone.header == "ring" and len(run) > 1:
            closing = (walked_m(ends[0][1], entry) + 2 * SIDE_M) * zone.header_x
            drawn.pipe(ends[0][0], start, closing, zone.header_mm, 4 * BEND_K)
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
    if feed.mixer_kv is None:
        drawn.pipe("clean", "mixed", 0.1, feed.feed_mm, 0.0)
    else:
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
        fed_from=zone.fed_from,
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
        header_m=sum(p["length_m"] for p in drawn.pipes if p["id"] in pipes and not ends[p["id"]].startswith("t"))
        / zone.header_x,
    )


def uneven(row: ZoneFlow) -> tuple[TankFlow, TankFlow]:
    """The tanks that get least and most for their size."""
    return min(row.tanks, key=lambda t: t.ratio), max(row.tanks, key=lambda t: t.ratio)


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
    others = [z for z in valved if z.number != zone and z.drops and z.fed_from == own.fed_from]
    other = max(others, key=lambda z: len(z.drops), default=None)
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
        ("weak", "street at 60 %" if own.fed_from == "street" else "pump at 60 %", weak, (own,)),
    ]
    if own.fed_from == "street":
        worn = replace(feed, cartridge_kpa=2 * feed.cartridge_kpa)
        rows.append(("worn", "cartridges half blocked", worn, (own,)))
    if other is not None:
        rows.append(("two_open", f"{other.name} open too, by mistake", feed, (own, other)))
    found = []
    for key, label, tried, zones in rows:
        flowing, drawn = opened(tried, zones, racks, tanks)
        row = zone_flow_of(zones[0], flowing, drawn, tanks, straight_frac)
        least, _ = uneven(row)
        found.append(Trial(key, label, row.spread_frac, least.lph, least.name, row.lph, row.manifold_kpa))
    return tuple(found)
