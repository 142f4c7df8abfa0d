"""Rooms as a root."""

from typing import Any

from loquen.checked.documents import A_ROOM
from loquen.core.graph.sheet import Sheet
from loquen.core.model.roots.room import Room
from loquen.core.model.roots.room_conflicts import conflicts
from loquen.core.rooms.book import sheet_of
from loquen.house.documents.root import Root
from loquen.house.house import Visit
from loquen.house.rooms.lines import lines_of
from loquen.house.rooms.view import RoomAnswer, view
from loquen.store.tables import ROOM


def sheet(visit: Visit, room: Room, _: Any = None) -> Sheet[Room]:
    """The sheet of a room, with the lines of the systems that stand in it."""
    with visit.reading() as session:
        lines = lines_of(visit, session, room)
    return sheet_of(room, visit.library, lines)


def answer(visit: Visit, room: Room, _: Any) -> RoomAnswer:
    return view(sheet(visit, room))


ROOMS: Root[Room] = Root(
    ROOM,
    "room",
    "/api/rooms",
    "/api/room",
    A_ROOM,
    lambda room, _: conflicts(room),
    sheet,
    answer,
    RoomAnswer,
    begun_as_sent=True,
)
