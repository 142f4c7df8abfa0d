"""Rooms: listing, starting, saving, undoing, deleting; drafts computed, racks and zones proposed, mishaps tried."""

from collections.abc import Callable
from typing import Any, Literal, TypeVar

from fastapi import APIRouter, Request, Response
from pydantic import BaseModel

from loquen.api.computing import LONG, PAGE, computed, computed_while
from loquen.api.dependencies import COMPUTING, FAULTS, Asked
from loquen.api.wire.answers import sent
from loquen.checked.documents import A_ROOM
from loquen.checked.plan import RoomSchema
from loquen.core.model.roots.documents import Unreadable, name_of
from loquen.core.model.roots.room import ROOM
from loquen.core.rooms.parts import room_quote
from loquen.core.rooms.propose import ZoneProposal, proposed_zones, rack_of
from loquen.core.rooms.stages.plumbing import Trial, trials
from loquen.core.system.build import Quote
from loquen.house.rooms.lines import line
from loquen.house.rooms.root import ROOMS
from loquen.house.rooms.root import sheet as sheet_of_room
from loquen.house.rooms.schema import (
    OfARoom,
    RackOfTanks,
    RoomName,
    RoomOrder,
    ZoneTried,
    ZoneWanted,
)
from loquen.store import tables as kept_as
from loquen.store.documents import systems
from loquen.store.routine import prices

router = APIRouter(prefix="/api/rooms", tags=["rooms"], responses=dict(FAULTS))
Found = TypeVar("Found")


class Trials(BaseModel):
    rows: tuple[Trial, ...]


class Proposed(BaseModel):
    """A room as it would be, and why each zone is as it is."""

    room: RoomSchema
    zones: tuple[ZoneProposal, ...]


@router.get("")
def list_rooms(visit: Asked) -> list[RoomName]:
    with visit.reading() as session:
        rows = systems.list_all(session, kept_as.ROOM)
    return [named(row) for row in rows]


def named(row: systems.Current) -> RoomName:
    """A room in the list; one that can not be read has its name alone."""
    name = name_of(row.document, row.id)
    try:
        room = A_ROOM.read(row.document)
    except Unreadable:
        return RoomName(id=row.id, name=name, racks=0, tanks=0)
    return RoomName(id=row.id, name=name, racks=len(room.racks), tanks=len(room.places))


drafts = APIRouter(prefix="/api/room", tags=["rooms"], responses=dict(COMPUTING))
"""Nothing asked here is saved."""


@drafts.post("/trials")
async def room_trials(tried: ZoneTried, request: Request, visit: Asked) -> Trials:
    """A zone as it could be built, and as it would be when something fails, side by side."""

    def whole() -> Trials:
        sheet = sheet_of_room(visit, ROOMS.sensible(tried.room, visit.library))
        rows = ROOM.counts(sheet.root)
        count = dict(rows)["zones"]
        if tried.zone > count:
            return Trials(rows=())
        valved = tuple(sheet.value(f"zones.{i}.valved") for i in range(count))
        standing = tuple(sheet.value(f"racks.{i}.standing") for i in range(dict(rows)["racks"]))
        straight = sheet.root.pulses.straight_frac
        feed = sheet.value("feed" if valved[tried.zone - 1].fed_from == "street" else "pumped_feed")
        return Trials(rows=trials(tried.zone, feed, valved, standing, sheet.value("tanks"), straight))

    return await computed(whole, LONG)


@drafts.post("/quote", response_model=Quote)
async def quote_room(draft: OfARoom, request: Request, visit: Asked) -> Response:
    """What a room's changer comes to, part by part."""

    def whole() -> Quote:
        sheet = sheet_of_room(visit, ROOMS.sensible(draft.room, visit.library))
        with visit.reading() as session:
            return room_quote(sheet, prices.everything(session))

    return await asked(whole)


@drafts.post("/book/{form}", response_class=Response)
async def room_book(
    form: Literal["book.pdf", "parts.csv"], order: RoomOrder, request: Request, visit: Asked
) -> Response:
    """What a builder takes away of a room's draft."""

    def whole() -> Response:
        from loquen.exchange import room_book, tables

        sheet = sheet_of_room(visit, ROOMS.sensible(order.room, visit.library))
        with visit.reading() as session:
            quoted = room_quote(sheet, prices.everything(session))
        if form == "parts.csv":
            return written(tables.as_csv(tables.PARTS, tables.part_rows(quoted)), "text/csv", form)
        return written(room_book.room_book(sheet, quoted, order.units), "application/pdf", form)

    return await computed_while(request, whole, LONG)


def written(content: bytes | str, media: str, name: str) -> Response:
    return Response(content, media_type=media, headers={"Content-Disposition": f'attachment; filename="{name}"'})


@drafts.post("/rack", response_model=ROOMS.Draft)
async def add_rack(wanted: RackOfTanks, request: Request, visit: Asked) -> Any:
    """The room with a rack of so many tanks alike, set beside those that stand there."""

    def whole() -> Any:
        room = ROOMS.sensible(wanted.room, visit.library)
        lines = {}
        if wanted.system:
            with visit.reading() as session:
                found = visit.kept(line, systems.read(session, wanted.system))
            lines = {wanted.system: found} if found else {}
        made = rack_of(room, wanted.name, wanted.tanks, wanted.shelves, wanted.litres, lines.get(wanted.system))
        return ROOMS.Draft(room=A_ROOM.to_wire(made))

    return await computed(whole, PAGE)


@drafts.post("/zones")
async def propose_zones(wanted: ZoneWanted, request: Request, visit: Asked) -> Proposed:
    """Zones of tanks that one emitter changes alike, with why a tank sits badly."""

    def whole() -> Proposed:
        sheet = sheet_of_room(visit, ROOMS.sensible(wanted.room, visit.library))
        room, zones = proposed_zones(sheet, wanted.share)
        return Proposed(room=A_ROOM.to_wire(room), zones=zones)

    return await computed(whole, LONG)


async def asked(work: Callable[[], Found]) -> Response:
    return await computed(lambda: sent(work()))
