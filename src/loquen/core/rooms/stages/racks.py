"""Where each tank stands, how much pipe leads there, and what the floor bears."""

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Literal

from loquen.core.errors import NamedCase
from loquen.core.graph.judging import at_most, by_practice
from loquen.core.graph.nodes import Verdict, check, figure, step
from loquen.core.model.inputs.quantity import Sentence, Term, of, say
from loquen.core.model.roots.room import BY_HAND, NO_SYSTEM
from loquen.core.physics.geometry import GRAVITY_M_S2
from loquen.core.rooms.lines import Line

BETWEEN_CM = 2.0
"""Between two tanks on a shelf."""
HEADER_OVER_CM = 15.0
"""A header runs so far over the rims under it; a drop ends at the rim."""
USUAL_CM = (60.0, 30.0, 30.0)
FILLED_KG_L = 1.2
"""A filled tank of glass, bed and stones weighs so much for each litre of it, where no plan says."""


@dataclass(frozen=True, slots=True)
class Standing:
    """A rack as it stands: its left back corner, its way along, m; shelf heights over the floor, cm."""

    name: str
    x_m: float
    y_m: float
    along: Literal["wall", "room"]
    length_cm: float
    depth_cm: float
    shelf_at_cm: tuple[float, ...]
    own_kg: float
    drain_mm: float
    sump_l: float


@dataclass(frozen=True, slots=True)
class Spot:
    """Where a tank's emitter hangs: its shelf, its rim over the floor, its middle along the rack."""

    rack: int
    shelf: int
    rim_cm: float
    middle_cm: float


@dataclass(frozen=True, slots=True)
class Tank:
    """A tank in its place: what the room needs to know of it. `from_left_cm` is its left side along the rack."""

    number: int
    name: str
    system: int
    rack: int
    shelf: int
    slot: int
    zone: int
    litres: float
    length_cm: float
    width_cm: float
    height_cm: float
    base_cm: float
    from_left_cm: float
    filled_kg: float
    kept_c: float | None
    line: Line | None

    @property
    def label(self) -> str:
        return self.name

    @property
    def spot(self) -> Spot:
        return Spot(self.rack, self.shelf, self.rim_cm, self.middle_cm)

    @property
    def rim_cm(self) -> float:
        return self.base_cm + self.height_cm

    @property
    def middle_cm(self) -> float:
        return self.from_left_cm + self.length_cm / 2


@step(row="racks")
def standing(
    rack_name: str,
    rack_x_m: float,
    rack_y_m: float,
    rack_along: Literal["wall", "room"],
    rack_cm: float,
    rack_depth_cm: float,
    shelves: int,
    lowest_cm: float,
    shelf_cm: float,
    rack_kg: float,
    rack_drain_mm: float,
    shared_sump_l: float,
    place: int,
) -> Standing:
    return Standing(
        rack_name or f"Rack {place}",
        rack_x_m,
        rack_y_m,
        rack_along,
        rack_cm,
        rack_depth_cm,
        tuple(lowest_cm + nth * shelf_cm for nth in range(shelves)),
        rack_kg,
        rack_drain_mm,
        shared_sump_l,
    )


@dataclass(frozen=True, slots=True)
class Put:
    """A tank as it was entered, before its neighbours say where along the shelf it stands."""

    name: str
    system: int
    rack: int
    shelf: int
    slot: int
    zone: int
    litres: float | None
    size_cm: tuple[float | None, float | None, float | None]
    kept_c: float | None


@step(row="places")
def put(
    tank_name: str,
    system: int,
    rack: int,
    shelf: int,
    slot: int,
    zone: int,
    place_l: float | None,
    place_length_cm: float | None,
    place_width_cm: float | None,
    place_height_cm: float | None,
    place_c: float | None,
    place: int,
) -> Put:
    size = (place_length_cm, place_width_cm, place_height_cm)
    return Put(tank_name or f"Tank {place}", system, rack, shelf, slot, zone, place_l, size, place_c)


@step()
def tanks(put: tuple[Put, ...], standing: tuple[Standing, ...], lines: Mapping[int, Line]) -> tuple[Tank, ...]:
    """Every tank in its place; slots of a shelf stand side by side from the left."""
    if not put:
        raise NamedCase("no_tanks_placed")
    along: dict[tuple[int, int], float] = {}
    found: dict[int, Tank] = {}
    for number in sorted(range(len(put)), key=lambda i: (put[i].rack, put[i].shelf, put[i].slot)):
        row = put[number]
        line = lines.get(row.system) if row.system != NO_SYSTEM else None
        usual = (line.length_cm, line.width_cm, line.height_cm) if line else USUAL_CM
        length, width, height = (own or common for own, common in zip(row.size_cm, usual, strict=True))
        litres = row.litres or (line.litres if line else length * width * height / 1000 * 0.85)
        left = along.get((row.rack, row.shelf), 0.0)
        along[row.rack, row.shelf] = left + length + BETWEEN_CM
        heights = standing[row.rack - 1].shelf_at_cm if row.rack else ()
        base = heights[min(row.shelf, len(heights)) - 1] if heights else 0.0
        found[number] = Tank(
            number,
            row.name,
            row.system,
            row.rack,
            row.shelf,
            row.slot,
            row.zone,
            litres,
            length,
            width,
            height,
            base,
            left,
            line.filled_kg if line and row.litres is None else litres * FILLED_KG_L,
            row.kept_c if row.kept_c is not None else (line.water_c if line else None),
            line,
        )
    return tuple(found[i] for i in range(len(put)))


@figure("Tanks", formula="number of {tanks}", source="definition", kind="count")
def tank_number(tanks: tuple[Tank, ...]) -> float:
    return float(len(tanks))


@figure("Water in them", formula="sum over {tanks}", source="definition")
def room_water_l(tanks: tuple[Tank, ...]) -> float:
    return sum(tank.litres for tank in tanks)


@step()
def by_hand(tanks: tuple[Tank, ...]) -> tuple[Tank, ...]:
    return tuple(tank for tank in tanks if tank.zone == BY_HAND)


@dataclass(frozen=True, slots=True)
class RackLoad:
    """A rack's weight filled and what the floor gets of it."""

    name: str
    kg: float
    kn_m2: float


@step()
def rack_loads(standing: tuple[Standing, ...], tanks: tuple[Tank, ...]) -> tuple[RackLoad, ...]:
    loads = []
    for nth, rack in enumerate(standing, 1):
        kg = rack.own_kg + sum(tank.filled_kg for tank in tanks if tank.rack == nth) + rack.sump_l
        loads.append(RackLoad(rack.name, kg, kg * GRAVITY_M_S2 / 1000 / (rack.length_cm * rack.depth_cm / 10_000)))
    if not loads:
        raise NamedCase("no_racks")
    return tuple(loads)


@figure("Heaviest rack", formula="most of {rack_loads}", source="densities")
def heaviest_rack_kg(rack_loads: tuple[RackLoad, ...]) -> float:
    return max(load.kg for load in rack_loads)


@figure("Most on the floor", formula="most of {rack_loads}", source="en1991", kind="pressure")
def most_floor_kpa(rack_loads: tuple[RackLoad, ...]) -> float:
    return max(load.kn_m2 for load in rack_loads)


@check(
    "The floor under the racks",
    stage="racks",
    judges="most_floor_kpa",
    mends=(),
    caution="A structural engineer decides about a floor; racks along a bearing wall weigh least on it.",
)
def rack_floor_bears(rack_loads: tuple[RackLoad, ...], most_floor_kpa: float, floor_kn_m2: float) -> Verdict:
    heaviest = max(rack_loads, key=lambda load: load.kn_m2)
    reason = say(
        "{rack} weighs {kg} filled, {load} under its own footprint; the floor is entered as {most}. A spread of the load "
        "beside the rack is not counted.",
        rack=heaviest.name,
        kg=Term(heaviest.kg, "mass"),
        load=of(most_floor_kpa, "most_floor_kpa", "pressure"),
        most=Term(floor_kn_m2, "pressure"),
    )
    return by_practice(at_most(most_floor_kpa, floor_kn_m2, "pressure", reason), floor_kn_m2, 4 * floor_kn_m2)


@dataclass(frozen=True, slots=True)
class ShelfUse:
    name: str
    shelf: int
    used_cm: float
    length_cm: float
    over_cm: float


@step()
def shelf_uses(standing: tuple[Standing, ...], tanks: tuple[Tank, ...]) -> tuple[ShelfUse, ...]:
    """What stands on each shelf that anything stands on, and the room over its highest rim."""
    uses = []
    for nth, rack in enumerate(standing, 1):
        for level, at in enumerate(rack.shelf_at_cm, 1):
            on = [tank for tank in tanks if tank.rack == nth and tank.shelf == level]
            if on:
                above = [h for h in rack.shelf_at_cm if h > at]
                over = min(above) - max(tank.rim_cm for tank in on) if above else 100.0
                used = max(tank.from_left_cm + tank.length_cm for tank in on)
                uses.append(ShelfUse(rack.name, level, used, rack.length_cm, over))
    return tuple(uses)


@figure("Fullest shelf", formula="most of {shelf_uses}", source="definition", kind="share")
def fullest_shelf_frac(shelf_uses: tuple[ShelfUse, ...]) -> float:
    return max(use.used_cm / use.length_cm for use in shelf_uses)


@check("They fit on their shelves", stage="racks", judges="fullest_shelf_frac")
def shelves_hold(shelf_uses: tuple[ShelfUse, ...], fullest_shelf_frac: float) -> Verdict:
    fullest = max(shelf_uses, key=lambda use: use.used_cm / use.length_cm)
    reason = say(
        "On shelf {shelf} of {rack} stand {used} of tanks, and it is {length} long.",
        shelf=str(fullest.shelf),
        rack=fullest.name,
        used=Term(fullest.used_cm, "length"),
        length=Term(fullest.length_cm, "length"),
    )
    return at_most(fullest_shelf_frac, 1.0, "share", reason, scale=0.0)


@figure("Least room over a rim", formula="least of {shelf_uses}", source="definition")
def least_over_cm(shelf_uses: tuple[ShelfUse, ...]) -> float:
    return min(use.over_cm for use in shelf_uses)


@check("A hand gets in", stage="racks", judges="least_over_cm", mends=("racks.shelf_cm",))
def hand_gets_in(shelf_uses: tuple[ShelfUse, ...], least_over_cm: float, rack_access_cm: float) -> Verdict:
    from loquen.core.graph.judging import at_least

    least = min(shelf_uses, key=lambda use: use.over_cm)
    reason = say(
        "Over the rims on shelf {shelf} of {rack} there are {over}; a net, a hand and a header want {wanted}.",
        shelf=str(least.shelf),
        rack=least.name,
        over=of(least_over_cm, "least_over_cm"),
        wanted=Term(rack_access_cm, "length"),
    )
    return by_practice(
        at_least(least_over_cm, rack_access_cm, "length", reason), rack_access_cm, rack_access_cm / 2
    )


@step()
def racks_result(
    tank_number: float, room_water_l: float, by_hand: tuple[Tank, ...], standing: tuple[Standing, ...]
) -> Sentence:
    return say(
        "{tanks} tanks with {water} stand on {racks}; {hand} are changed by hand.",
        tanks=Term(tank_number, "count"),
        water=of(room_water_l, "room_water_l"),
        racks=f"{len(standing)} rack" + ("s" if len(standing) != 1 else ""),
        hand=Term(float(len(by_hand)), "count"),
    )
