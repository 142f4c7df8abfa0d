"""A rack of tanks alike, and zones for the tanks that stand in a room."""

import math
from dataclasses import dataclass, replace
from typing import Literal

from loquen.core.errors import NamedCase
from loquen.core.graph.sheet import Sheet
from loquen.core.model.inputs.quantity import Sentence, Term, say
from loquen.core.model.roots.room import BY_HAND, NO_SYSTEM, Place, Rack, Room, Window, Zone
from loquen.core.rooms.lines import Line
from loquen.core.rooms.stages.racks import BETWEEN_CM, Tank

Source = Literal["street", "reservoir"]
SOLD_LPH = (2.0, 4.0, 8.0, 16.0, 24.0, 40.0, 60.0, 90.0)
"""Emitters that are sold, at 100 kPa."""
MINUTES = 20.0
ALIKE_FRAC = 0.1
HIGH_CM = 30.0
DEEP_FRAC = 0.5
SHELF_ROOM_CM = 25.0
LOWEST_CM = 20.0
AISLE_M = 0.9
SALTY_PPT = 0.3
MOST_ON_A_ZONE = 24


def rack_of(room: Room, name: str, tanks: int, shelves: int, litres: float, line: Line | None) -> Room:
    """The room with a rack of tanks alike, beside what stands along the back wall."""
    if line:
        length, width, height = line.length_cm, line.width_cm, line.height_cm
    else:
        # A tank twice as long as deep and as high as deep, of these litres with a tenth of it free.
        width = (litres * 1000 / 0.85 / 2) ** (1 / 3)
        length, width, height = round(2 * width), round(width), round(width)
    per_shelf = math.ceil(tanks / shelves)
    taken = [rack.rack_x_m + rack.rack_cm / 100 for rack in room.racks if rack.rack_along == "wall"]
    rack = Rack(
        rack_name=name,
        rack_x_m=round(max(taken, default=0.3) + (AISLE_M if taken else 0.0), 2),
        rack_y_m=0.0,
        rack_cm=round(per_shelf * (length + BETWEEN_CM) + 10),
        rack_depth_cm=round(width + 5),
        shelves=shelves,
        lowest_cm=LOWEST_CM,
        shelf_cm=round(height + SHELF_ROOM_CM),
    )
    number = len(room.racks) + 1
    places = []
    for i in range(tanks):
        from_top = i // per_shelf
        places.append(
            Place(
                tank_name=f"{initials(name)}{i + 1}",
                system=line.system if line else NO_SYSTEM,
                rack=number,
                shelf=shelves - from_top,
                slot=i % per_shelf + 1,
                place_l=None if line else litres,
                place_length_cm=None if line else float(length),
                place_width_cm=None if line else float(width),
                place_height_cm=None if line else float(height),
            )
        )
    return replace(room, racks=(*room.racks, rack), places=(*room.places, *places))


def initials(name: str) -> str:
    """A letter for the tanks of a rack: the last word's first where it is one letter, else the first word's."""
    words = name.split() or ["T"]
    return words[-1][:1].upper() if len(words[-1]) == 1 else words[0][:1].upper()


@dataclass(frozen=True, slots=True)
class ZoneProposal:
    """Why a zone is as it is, and which of its tanks sit badly."""

    name: str
    tanks: int
    why: Sentence
    apart: tuple[Sentence, ...]


def proposed_zones(sheet: Sheet[Room], share: float) -> tuple[Room, tuple[ZoneProposal, ...]]:
    """Zones of tanks with one emitter and one share: alike in litres and warmth, a shelf or rack together.

    Salt water and water that is made for its animals stay by hand. Raise NamedCase no_tanks_placed.
    """
    room, tanks = sheet.root, sheet.value("tanks")
    groups: dict[tuple[int, int, Source], list[Tank]] = {}
    by_hand: list[Tank] = []
    for tank in sorted(tanks, key=lambda t: (t.rack, -t.shelf, t.slot)):
        source = source_of(tank.line, sheet)
        if source is None:
            by_hand.append(tank)
            continue
        warmth = round(tank.line.water_c / 2) if tank.line else 0
        groups.setdefault((tank.rack, warmth, source), []).append(tank)
    zones: list[Zone] = []
    told: list[ZoneProposal] = []
    zone_of = dict.fromkeys((tank.number for tank in by_hand), BY_HAND)
    for (rack, _, source), members in groups.items():
        for part in split(members):
            middle = sorted(tank.litres for tank in part)[len(part) // 2]
            nominal = nearest_sold(share * middle / (MINUTES / 60) / (1 - room.pulses.straight_frac))
            # The regulator's pressure is over the emitters' rating: their flow goes with its root.
            regulated = room.treatment.regulated and source == "street"
            gives = nominal * math.sqrt(max(room.treatment.setpoint_kpa if regulated else 100.0, 1.0) / 100)
            minutes = max(2.0, float(round(share * middle / (1 - room.pulses.straight_frac) / gives * 60)))
            name = f"{room.racks[rack - 1].rack_name}, {shelf_words(part)}"
            zones.append(Zone(zone_name=name[:80], fed_from=source, nominal_lph=nominal, zone_min=minutes))
            for tank in part:
                zone_of[tank.number] = len(zones)
            told.append(
                ZoneProposal(
                    name,
                    len(part),
                    say(
                        "{tanks} tanks of {litres}: an emitter of {flow} for {minutes} a day passes {share}.",
                        tanks=Term(float(len(part)), "count"),
                        litres=Term(middle, "volume"),
                        flow=Term(nominal, "flow"),
                        minutes=Term(minutes, "minutes"),
                        share=Term(share, "share"),
                    ),
                    tuple(apart(tank, middle, nominal) for tank in part if off(tank, middle)),
                )
            )
    if not zones:
        raise NamedCase("no_zones")
    places = tuple(replace(place, zone=zone_of[i]) for i, place in enumerate(room.places))
    windows = room.windows or (Window(),)
    return replace(room, zones=tuple(zones), places=places, windows=windows), tuple(told)


def source_of(line: Line | None, sheet: Sheet[Room]) -> Source | None:
    """Which source a system may live on: fresh, and not of water that is made for it; None where it stays by hand."""
    if line is None:
        return "street"
    if line.salinity_ppt > SALTY_PPT:
        return None
    most = sheet.constants["made_water_frac"].value
    if line.us_cm is None or apart_frac(line.us_cm, sheet.root.supply.supply_us_cm) <= most:
        return "street"
    stands = sheet.root.reservoir.reservoir_l > 0
    return "reservoir" if stands and apart_frac(line.us_cm, sheet.value("reservoir_us_cm")) <= most else None


def apart_frac(own_us_cm: float, brought_us_cm: float) -> float:
    return abs(brought_us_cm - own_us_cm) / own_us_cm


def split(members: list[Tank]) -> list[list[Tank]]:
    """Tanks of a rack in zones of a size that one valve serves, shelves kept whole where they can be."""
    if len(members) <= MOST_ON_A_ZONE // 2:
        return [members]
    shelves: dict[int, list[Tank]] = {}
    for tank in members:
        shelves.setdefault(tank.shelf, []).append(tank)
    parts: list[list[Tank]] = []
    for shelf in shelves.values():
        if parts and len(parts[-1]) + len(shelf) <= MOST_ON_A_ZONE // 2:
            parts[-1] += shelf
        else:
            parts.append(list(shelf))
    return parts


def nearest_sold(lph: float) -> float:
    return min(SOLD_LPH, key=lambda sold: abs(math.log(sold / max(lph, 0.1))))


def off(tank: Tank, middle: float) -> bool:
    return abs(tank.litres - middle) > ALIKE_FRAC * middle


def apart(tank: Tank, middle: float, nominal: float) -> Sentence:
    """Why a tank sits badly in its zone, and the emitter that would mend it."""
    return say(
        "{tank} holds {litres}, the others about {middle}: an emitter of {flow} there would change the same share.",
        tank=tank.name,
        litres=Term(tank.litres, "volume"),
        middle=Term(middle, "volume"),
        flow=Term(nominal * tank.litres / middle, "flow"),
    )


def shelf_words(part: list[Tank]) -> str:
    shelves = sorted({tank.shelf for tank in part})
    if len(shelves) == 1:
        return f"shelf {shelves[0]}"
    return f"shelves {shelves[0]} to {shelves[-1]}"
