"""Rooms: listing, starting, saving, undoing, deleting; drafts computed, racks and zones proposed, mishaps tried."""

from collections.abc import Callable
from typing import Any, Literal, TypeVar

from fastapi import APIRouter, Request, Response
from pydantic import BaseModel

from loquen.api.computing import LONG, PAGE, computed, computed_while
from loquen.api.dependencies import COMPUTING, FAULTS, Asked
from loquen.api.wire.answers import sent
from loquen.api.wire.faults import InconsistentPlan
from loquen.checked.documents import read_room
from loquen.checked.plan import RoomSchema, Strict, room_from_core, room_to_core
from loquen.core.graph.engine import Sheet
from loquen.core.model.roots.documents import Unreadable, document, name_of
from loquen.core.model.roots.room import ROOM, Room
from loquen.core.model.roots.room_conflicts import conflicts
from loquen.core.rooms.book import sheet_of
from loquen.core.rooms.parts import room_quote
from loquen.core.rooms.propose import ZoneProposal, proposed_zones, rack_of
from loquen.core.rooms.stages.plumbing import Trial, trials
from loquen.core.system.build import Quote
from loquen.house.house import Visit
from loquen.house.rooms import view
from loquen.house.rooms.lines import line, lines_of
from loquen.house.rooms.schema import (
    DeletedRoom,
    RackOfTanks,
    RoomDraft,
    RoomName,
    RoomOrder,
    RoomOut,
    RoomQuestion,
    RoomUpdate,
    ZoneTried,
    ZoneWanted,
)
from loquen.house.rooms.view import RoomAnswer
from loquen.house.sheet.working import Working, working
from loquen.house.systems.schema import Base
from loquen.store import tables as kept_as
from loquen.store.documents import systems
from loquen.store.routine import prices

router = APIRouter(prefix="/api/rooms", tags=["rooms"], responses=dict(FAULTS))
Found = TypeVar("Found")


class RoomStart(Strict):
    room: RoomSchema


class Trials(BaseModel):
    rows: tuple[Trial, ...]


class Proposed(BaseModel):
    """A room as it would be, and why each zone is as it is."""

    room: RoomSchema
    zones: tuple[ZoneProposal, ...]


def sensible(schema: Any) -> Room:
    """A room of the core; raise InconsistentPlan when its parts contradict each other."""
    room = room_to_core(schema)
    found = conflicts(room)
    if found:
        raise InconsistentPlan(found)
    return room


def sheet_from(visit: Visit, schema: Any) -> Sheet[Room]:
    """The sheet of a draft, with the lines of the systems that stand in it."""
    room = sensible(schema)
    with visit.reading() as session:
        lines = lines_of(visit, session, room)
    return sheet_of(room, visit.library, lines)


@router.get("")
def list_rooms(visit: Asked) -> list[RoomName]:
    with visit.reading() as session:
        rows = systems.list_all(session, kept_as.ROOM)
    return [named(row) for row in rows]


def named(row: systems.Current) -> RoomName:
    """A room in the list; one that can not be read has its name alone."""
    name = name_of(row.document, row.id)
    try:
        room = read_room(row.document)
    except Unreadable:
        return RoomName(id=row.id, name=name, racks=0, tanks=0)
    return RoomName(id=row.id, name=name, racks=len(room.racks), tanks=len(room.places))


@router.get("/deleted")
def list_deleted(visit: Asked) -> list[DeletedRoom]:
    """Rooms that were put away, the last one first."""
    with visit.reading() as session:
        return [
            DeletedRoom(id=row.id, name=name_of(row.document, row.id), deleted=row.deleted)
            for row in systems.list_deleted(session, kept_as.ROOM)
        ]


@router.post("", status_code=201)
def start_room(start: RoomStart, visit: Asked) -> RoomOut:
    text = document(sensible(start.room))
    with visit.writing() as session:
        return RoomOut.of(systems.create(session, text, kept_as.ROOM))


@router.get("/{room_id}")
def read_one(room_id: int, visit: Asked) -> RoomOut:
    with visit.reading() as session:
        return RoomOut.of(systems.read(session, room_id, kept_as.ROOM))


@router.put("/{room_id}")
def save_room(room_id: int, update: RoomUpdate, visit: Asked) -> RoomOut:
    """Save a room on the revision it was made from; 409 when that is no longer the current one."""
    text = document(sensible(update.room))
    with visit.writing() as session:
        return RoomOut.of(systems.update(session, room_id, update.base, text, kept_as.ROOM))


@router.post("/{room_id}/undo")
def undo_room(room_id: int, base: Base, visit: Asked) -> RoomOut:
    with visit.writing() as session:
        return RoomOut.of(systems.undo(session, room_id, base.base, kept_as.ROOM))


@router.post("/{room_id}/redo")
def redo_room(room_id: int, base: Base, visit: Asked) -> RoomOut:
    with visit.writing() as session:
        return RoomOut.of(systems.redo(session, room_id, base.base, kept_as.ROOM))


@router.delete("/{room_id}", status_code=204)
def delete_room(room_id: int, visit: Asked) -> None:
    with visit.writing() as session:
        systems.delete(session, room_id, kept_as.ROOM)


@router.post("/{room_id}/restore", status_code=204)
def restore_room(room_id: int, visit: Asked) -> None:
    with visit.writing() as session:
        systems.restore(session, room_id, kept_as.ROOM)


drafts = APIRouter(prefix="/api/room", tags=["rooms"], responses=dict(COMPUTING))
"""Nothing asked here is saved."""


@drafts.post("/sheet", response_model=RoomAnswer)
async def room_sheet(draft: RoomDraft, request: Request, visit: Asked) -> Response:
    """All figures and checks of a room's draft, asked at every keystroke."""

    def whole() -> Response:
        room = sensible(draft.room)
        with visit.reading() as session:
            lines = lines_of(visit, session, room)
        return sent(view.view(room, lines, visit.library))

    return await computed(whole)


@drafts.post("/working", response_model=Working)
async def room_working(question: RoomQuestion, request: Request, visit: Asked) -> Response:
    """The working of one figure of a room's draft."""
    return await asked(
        lambda: working(sheet_from(visit, question.room), question.figure, question.target, question.paths)
    )


@drafts.post("/trials")
async def room_trials(tried: ZoneTried, request: Request, visit: Asked) -> Trials:
    """A zone as it could be built, and as it would be when something fails, side by side."""

    def whole() -> Trials:
        sheet = sheet_from(visit, tried.room)
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
async def quote_room(draft: RoomDraft, request: Request, visit: Asked) -> Response:
    """What a room's changer comes to, part by part."""

    def whole() -> Quote:
        sheet = sheet_from(visit, draft.room)
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

        sheet = sheet_from(visit, order.room)
        with visit.reading() as session:
            quoted = room_quote(sheet, prices.everything(session))
        if form == "parts.csv":
            return written(tables.as_csv(tables.PARTS, tables.part_rows(quoted)), "text/csv", form)
        return written(room_book.room_book(sheet, quoted, order.units), "application/pdf", form)

    return await computed_while(request, whole, LONG)


def written(content: bytes | str, media: str, name: str) -> Response:
    return Response(content, media_type=media, headers={"Content-Disposition": f'attachment; filename="{name}"'})


@drafts.post("/rack")
async def add_rack(wanted: RackOfTanks, request: Request, visit: Asked) -> RoomDraft:
    """The room with a rack of so many tanks alike, set beside those that stand there."""

    def whole() -> RoomDraft:
        room = sensible(wanted.room)
        lines = {}
        if wanted.system:
            with visit.reading() as session:
                found = visit.kept(line, systems.read(session, wanted.system))
            lines = {wanted.system: found} if found else {}
        made = rack_of(room, wanted.name, wanted.tanks, wanted.shelves, wanted.litres, lines.get(wanted.system))
        return RoomDraft(room=room_from_core(made))

    return await computed(whole, PAGE)


@drafts.post("/zones")
async def propose_zones(wanted: ZoneWanted, request: Request, visit: Asked) -> Proposed:
    """Zones of tanks that one emitter changes alike, with why a tank sits badly."""

    def whole() -> Proposed:
        sheet = sheet_from(visit, wanted.room)
        room, zones = proposed_zones(sheet, wanted.share)
        return Proposed(room=room_from_core(room), zones=zones)

    return await computed(whole, LONG)


async def asked(work: Callable[[], Found]) -> Response:
    return await computed(lambda: sent(work()))
