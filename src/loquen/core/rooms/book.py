"""The book of a room: every figure and check, in the order in which a room is built."""

from collections.abc import Mapping
from functools import cache
from typing import Any

from loquen.core.data.tables import constants
from loquen.core.graph.book import Book
from loquen.core.graph.domain import Domain
from loquen.core.graph.nodes import collected
from loquen.core.graph.sheet import Sheet
from loquen.core.library.whole import Library
from loquen.core.model.roots.room import ROOM, Room
from loquen.core.model.roots.room_conflicts import conflicts
from loquen.core.rooms.lines import Line
from loquen.core.rooms.stages import (
    air,
    buckets,
    changer,
    days,
    drainage,
    exchange,
    hot,
    hours,
    pulses,
    purified,
    racks,
    reservoir,
    shocks,
    stations,
)

STAGES = {
    "racks": "Racks",
    "changer": "Changer",
    "timetable": "Timetable",
    "tanks": "Tanks",
    "purified": "Purified",
    "drain": "Drain",
    "air": "Air and power",
    "hours": "Hours",
}
GLASSES = {
    "supply": "Supply",
    "even": "Evenness",
    "hot": "Hot store",
    "carbon": "Carbon",
    "nitrate": "Nitrate",
    "purified": "Purified",
    "drain": "Drain",
    "flood": "Flood",
}
ROW_NAMES = {
    "household": "draw",
    "racks": "rack",
    "places": "tank",
    "zones": "zone",
    "windows": "hours",
    "purified": "draw",
    "tasks": "work",
}
NO_LINES: Mapping[int, Line] = {}


@cache
def room_book() -> Book:
    """All nodes of a room, wired once."""
    nodes = collected(
        [
            racks,
            stations,
            changer,
            buckets,
            hot,
            reservoir,
            pulses,
            days,
            shocks,
            exchange,
            purified,
            drainage,
            air,
            hours,
        ]
    )
    asked: dict[str, Any] = {"lines": NO_LINES}
    return Book(
        nodes, ROOM, constants(), asked, Domain(row_label, contradicts=lambda room, _: bool(conflicts(room)))
    )


def sheet_of(room: Room, library: Library, lines: Mapping[int, Line] = NO_LINES) -> Sheet[Room]:
    """A fresh sheet of a room, with the lines of the systems that stand in it."""
    known: dict[str, Any] = {"lines": lines}
    return Sheet(room_book(), room, library, **known)


def row_label(sheet: Sheet[Room], section: str, at: int, label: str) -> str:
    """What an input of a row is called: with the name of the row where it has one."""
    rows = getattr(sheet.root, section)
    names = {
        "racks": "rack_name",
        "places": "tank_name",
        "zones": "zone_name",
        "tasks": "task_name",
    }
    own = getattr(rows[at], names[section], "") if section in names else ""
    if own:
        return f"{label}, {own}"
    return f"{label}, {ROW_NAMES[section]} {at + 1}" if len(rows) > 1 else label
